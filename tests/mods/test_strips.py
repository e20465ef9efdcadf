"""Strips: colours of a picture become numbers of a record and back; what figure and strip do not share is said."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.games import ask_report
from furnel.images import Picture
from furnel.images.strips import colours_in, row_of
from furnel.mods import definitions, strips
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.workspace import Workspace
from furnel.texts import Change
from furnel.texts.strips import StripRule

PASSENGERS, PALETTE = "rules/passengers.json", "rules/palette.json"
FIGURE = "cast/otter_grey_walk.png"
FOUR = [(20, 16, 40), (90, 60, 110), (160, 120, 170), (250, 240, 255)]
COLOURS = st.lists(st.tuples(*[st.integers(0, 255)] * 3), min_size=1, max_size=12, unique=True)


def row(file: Path, colours: list[tuple[int, int, int]], size: int = 1) -> Path:
    """A palette picture as paint programs write them."""
    image = Image.new("RGB", (len(colours) * size, size))
    for number, colour in enumerate(colours):
        image.paste(colour, (number * size, 0, (number + 1) * size, size))
    image.save(file)
    return file


@given(COLOURS, st.integers(1, 9), st.booleans())
def test_a_row_of_fields_is_read_back_whichever_way_it_lies(
    colours: list[Any], size: int, upright: bool
) -> None:
    picture = row_of(colours, size)
    if upright:
        picture = Picture(np.ascontiguousarray(picture.pixels.transpose(1, 0, 2)))
    assert colours_in(picture) == colours
    assert colours_in(picture, len(colours)) == colours


@pytest.mark.parametrize(
    ("written", "value"),
    [
        ("hex", "8a5a34"),
        ("#hex", "#8a5a34"),
        ("bgr hex", "345a8a"),
        ("number", 0x8A5A34),
        ("bgr number", 0x345A8A),
    ],
)
def test_colours_are_written_as_the_game_reads_them(written: Any, value: object) -> None:
    rule = StripRule(written=written)
    assert rule.write([(0x8A, 0x5A, 0x34)]) == [value] and rule.read([value]) == [(0x8A, 0x5A, 0x34)]


def test_numbers_from_a_picture_in_the_games_order_and_a_picture_from_numbers(
    space: Workspace, tmp_path: Path
) -> None:
    picture = row(
        tmp_path / "coat.png", FOUR[::-1], 16
    )  # light ones first, and the game wants dark ones first
    where = str(space.file), PASSENGERS, "[id=nurse]/strip"
    assert main(["mod", "set", *where, "--strip", str(picture)]) == 0
    from furnel.mods.workspace import open_workspace

    space = open_workspace(space.file)
    assert definitions.definition(space, PASSENGERS)[1].plain()[1]["strip"] == [
        red << 16 | green << 8 | blue for red, green, blue in FOUR
    ]
    assert {item.swap.original: item.state for item in map(space.examine, space.project.swaps)}[
        PASSENGERS
    ] == "fits"
    assert main(["mod", "strip", *where, str(tmp_path / "back.png")]) == 0
    drawn = Image.open(tmp_path / "back.png").convert("RGB")
    assert [drawn.getpixel((8 * place + 3, 5)) for place in range(4)] == FOUR and drawn.size == (32, 8)
    with pytest.raises(FurnelError, match="shows 3 colours, not 4"):
        strips.from_picture(space, PASSENGERS, where[2], row(tmp_path / "three.png", FOUR[:3], 5))
    install_mod(space.catalogue.install, space.project.mod.id, build(space, anyway=True).folder)
    assert word(space, PASSENGERS).verdict == "accepted"
    space.close()


def test_an_optional_strip_is_known_though_no_record_of_the_game_has_one(
    space: Workspace, tmp_path: Path
) -> None:
    changes = strips.from_picture(
        space, PASSENGERS, "[id=clerk]/portrait_strip", row(tmp_path / "two.png", FOUR[:2])
    )
    assert changes == [Change(do="add", at="[id=clerk]", key="portrait_strip", to=["141028", "5a3c6e"])]
    space = space.save(definitions.with_changes(space, PASSENGERS, changes))
    examined = space.examine(space.project.swap_for(PASSENGERS))  # type: ignore[arg-type]
    assert examined.state == "fits"


def word(space: Workspace, path: str) -> Any:
    """What the game says of an asset."""
    return next(one for one in ask_report(space.catalogue.install).words if one.path == path)


def points(space: Workspace, path: str) -> dict[str, tuple[str, str]]:
    swap = space.project.swap_for(path)
    assert swap is not None
    return {point.key: (point.state, point.yours) for point in space.examine(swap).points}


def otter(space: Workspace, tmp_path: Path, recolour: dict[str, str]) -> Path:
    """The grey otter with other colours, in a file."""
    pixels = np.array(Image.open(io.BytesIO(space.catalogue.bytes_of(FIGURE))).convert("RGBA"))
    for old, new in recolour.items():
        pixels[(pixels[..., :3] == list(bytes.fromhex(old))).all(axis=2), :3] = list(bytes.fromhex(new))
    file = tmp_path / "otter.png"
    Image.fromarray(pixels).save(file)
    return file


def test_figure_and_strip_are_compared_from_both_sides(space: Workspace, tmp_path: Path) -> None:
    source = otter(space, tmp_path, {"3b4650": "702020"})
    space = space.save(space.project.with_swap(space.fitted(space.new_swap(FIGURE, source))))
    told = points(space, FIGURE)["strip"]
    assert told[0] == "differs" and "702020 (193 pixels)" in told[1]
    install = space.catalogue.install
    install_mod(install, space.project.mod.id, build(space, anyway=True).folder)
    assert "its palette lacks" in word(space, FIGURE).reason
    change = Change(do="set", at="otter_grey/dark", to="702020")
    agreed = space.save(definitions.with_changes(space, PALETTE, [change]))
    assert (
        points(agreed, FIGURE)["strip"][0] == points(agreed, PALETTE).get("strip", ("fits", ""))[0] == "fits"
    )
    install_mod(install, agreed.project.mod.id, build(agreed, anyway=True).folder)
    assert {word(space, path).verdict for path in (FIGURE, PALETTE)} == {"accepted"}
    alone = agreed.save(agreed.project.without_swap(FIGURE))
    told = points(alone, PALETTE)["strip"]
    assert told[0] == "differs" and "3b4650 (193 pixels)" in told[1]
    with pytest.raises(FurnelError, match="its colours have names"):
        strips.from_figure(alone, PALETTE, "otter_grey")


def test_a_coloured_sheet_is_no_figure_for_greys(space: Workspace) -> None:
    change = Change(do="set", at="[id=piper]/sheet", to="cast/ferryman_idle.png")
    space = space.save(definitions.with_changes(space, PASSENGERS, [change]))
    assert "not grey" in points(space, PASSENGERS)["strip"][1]
    install_mod(space.catalogue.install, space.project.mod.id, build(space, anyway=True).folder)
    assert word(space, "cast/ferryman_idle.png").reason == "colours where greys are looked up"
