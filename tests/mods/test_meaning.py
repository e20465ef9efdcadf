"""What a tick on a sheet or a definition promises."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from furnel.games import ask_report
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.fit import FitPoint
from furnel.mods.project import StepUse, Swap
from furnel.mods.steps import Value
from furnel.mods.workspace import Workspace
from tarnlight.art import sprites
from tests.sprites.test_poses import walker

OTTER = "cast/otter_walk.png"  # six cells of 40 × 24


def points(space: Workspace, swap: Swap) -> dict[str, FitPoint]:
    return {point.key: point for point in space.examine(swap).points}


def sheet(file: Path, frames: int, shift: int = 0) -> Path:
    whole = np.asarray(sprites.sheet(sprites.otter_walk(sprites.OTTER), 6))
    part = np.roll(whole, shift, 1)[:, : 40 * frames]
    Image.fromarray(part).save(file)
    return file


def test_four_frames_for_six_are_laid_out_and_not_stretched(space: Workspace, tmp_path: Path) -> None:
    swap = space.fitted(space.new_swap(OTTER, sheet(tmp_path / "four.png", 4)))
    assert "size" not in [use.do for use in swap.steps]
    examined = space.examine(swap)
    assert {point.key for point in examined.points if point.state != "fits"} <= {
        "palette",
        "brightness",
        "contrast",
    }
    laid = np.asarray(Image.open(io.BytesIO(examined.data)).convert("RGBA"))
    whole = np.asarray(sprites.sheet(sprites.otter_walk(sprites.OTTER), 6))

    def inks(pixels: Any, frames: int) -> list[int]:
        return [int((pixels[:, 40 * at : 40 * at + 40, 3] > 0).sum()) for at in range(frames)]

    own = inks(whole, 4)
    assert inks(laid, 6) == [own[place] for place in (0, 1, 1, 2, 2, 3)]
    by_hand = StepUse(do="size", values={"width": 240, "height": 24, "how": "stretch"})
    found = points(space, swap.model_copy(update={"steps": (by_hand,)}))
    assert found["aspect"].state == "differs" and found["outside"].state == "differs"


def test_a_strangers_walker_on_pink_becomes_the_ferryman(space: Workspace, tmp_path: Path) -> None:
    image = Image.new("RGB", (90, 40), (255, 0, 255))
    for place in range(3):
        walker(image, 8 + place * 28, 36, 1 + place)
    image.save(tmp_path / "walker.png")
    original = "cast/ferryman_idle.png"
    swap = space.fitted(space.new_swap(original, tmp_path / "walker.png"))
    turned = swap.steps[0].model_copy(
        update={"values": {**swap.steps[0].values, "flip": True}, "auto": False}
    )
    swap = swap.model_copy(update={"steps": (turned, *swap.steps[1:])})
    told: dict[int, str] = {}
    space.stages(swap, told)
    assert told[0].startswith("3 figures: 1f 2f 2f 3f, 2 times as large")
    space = space.save(space.project.with_swap(swap))
    assert space.examine(swap).state != "breaks"
    install_mod(space.catalogue.install, space.project.mod.id, build(space).folder)
    word = next(one for one in ask_report(space.catalogue.install).words if one.path == original)
    assert (word.verdict, word.winner) == ("accepted", space.project.mod.id)


def test_a_sheet_at_twice_the_size_is_brought_to_its_own(space: Workspace, tmp_path: Path) -> None:
    small = Image.open(sheet(tmp_path / "six.png", 6))
    small.resize((480, 48), Image.Resampling.NEAREST).save(tmp_path / "twice.png")
    found = points(space, space.fitted(space.new_swap(OTTER, tmp_path / "twice.png")))
    assert found["size"].state == "fits" and "outside" not in found


@pytest.mark.parametrize(
    ("values", "backwards"),
    [
        ({"mirror": "across"}, True), ({"mirror": "down"}, False), ({"turn": "half way"}, True),
        ({"turn": "half way", "mirror": "across"}, False), ({"turn": "to the left"}, True),
    ],
)  # fmt: skip
def test_a_mirrored_sheet_plays_backwards(
    space: Workspace, tmp_path: Path, values: dict[str, Value], backwards: bool
) -> None:
    swap = space.new_swap(OTTER, sheet(tmp_path / "six.png", 6))
    swap = space.fitted(swap.model_copy(update={"steps": (StepUse(do="turn", values=values),)}))
    found = points(space, swap)
    assert ("order" in found) is backwards
    if backwards:
        assert found["order"].state == "breaks"


def test_drawing_over_a_cells_border_is_seen(space: Workspace, tmp_path: Path) -> None:
    swap = space.fitted(space.new_swap(OTTER, sheet(tmp_path / "moved.png", 6, shift=17)))
    assert points(space, swap)["outside"].state == "differs"


def test_ground_that_was_left_over_is_counted(space: Workspace, tmp_path: Path) -> None:
    whole = np.array(sprites.sheet(sprites.otter_walk(sprites.OTTER), 6))
    ground = (0, 200, 40, 255)
    whole[whole[..., 3] == 0] = ground
    whole[2, 3:6] = (14, 186, 54, 255)  # nearly the ground's colour, beyond the tolerance
    Image.fromarray(whole).save(tmp_path / "green.png")
    swap = space.fitted(space.new_swap(OTTER, tmp_path / "green.png"))
    found = points(space, swap)["leftover"]
    assert (found.state, found.yours) == ("differs", "3 pixels at 3, 2, 4, 2, 5, 2")


def test_the_games_own_definitions_fit_and_broken_ones_say_where(space: Workspace, tmp_path: Path) -> None:
    for path in space.catalogue.assets.paths:
        if path.startswith("rules/"):
            file = tmp_path / path.rpartition("/")[2]
            file.write_bytes(space.catalogue.read(space.catalogue.get(path)))
            assert space.examine(space.new_swap(path, file)).state == "fits", path
    boats = tmp_path / "boats.toml"
    boats.write_bytes(
        boats.read_bytes().replace(b"speed = 3.2", b'speed = "fast"').replace(b"hull_heron", b"hull_herron")
    )
    found = points(space, space.new_swap("rules/boats.toml", boats))
    assert found["form"].yours == "it parses"
    assert found["rules"].state == "breaks"
    assert "hull_herron" in found["rules"].yours and "'fast' is no number" in found["rules"].yours
