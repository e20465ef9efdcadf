"""A mod's figures as a moving picture, read back by a library that knows nothing of us."""

from __future__ import annotations

import io
import zipfile
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from furnel.errors import FurnelError
from furnel.mods.build import package
from furnel.mods.sharing import with_facts
from furnel.mods.turntable import SIZE, figures_of, turntable
from furnel.mods.workspace import Workspace

WALK = "cast/otter_walk.png"


@pytest.fixture
def walking(space: Workspace, sources: Path) -> Workspace:
    swap = space.fitted(space.new_swap(WALK, sources / "otter_teal.png"))
    return space.save(space.project.with_swap(swap))


def frames_of(data: bytes) -> list[Image.Image]:
    with Image.open(io.BytesIO(data)) as image:
        out = []
        for place in range(getattr(image, "n_frames", 1)):
            image.seek(place)
            out.append(image.convert("RGBA"))
        return out


def test_every_frame_of_every_animation_is_shown_as_it_is(walking: Workspace) -> None:
    assert figures_of(walking) == [WALK]
    role = walking.profile.role_of(WALK)
    assert role is not None and role.layout is not None
    wide, high = role.layout.cell
    scale = min(SIZE[0] // wide, SIZE[1] // high)
    swap = walking.project.swap_for(WALK)
    assert swap is not None
    sheet = np.asarray(Image.open(io.BytesIO(walking.examine(swap).data)).convert("RGBA"))
    shown = {frame.tobytes() for frame in frames_of(turntable(walking, WALK))}
    for cell in range(sheet.shape[1] // wide):  # whole pixels, in the middle, on one ground
        left = cell * wide
        figure = Image.fromarray(sheet[:high, left : left + wide]).resize((wide * scale, high * scale), 0)
        wanted = Image.new("RGBA", SIZE, (38, 43, 48, 255))
        wanted.alpha_composite(figure, ((SIZE[0] - figure.width) // 2, (SIZE[1] - figure.height) // 2))
        assert wanted.tobytes() in shown, cell


def test_the_package_has_it_in_every_size_and_moving(walking: Workspace, tmp_path: Path) -> None:
    (tmp_path / "figures.png").write_bytes(turntable(walking, WALK))
    space = with_facts(walking, {"author": "Runa"}, tmp_path / "figures.png")
    made = package(space, tmp_path / "a.zip")
    assert package(space, tmp_path / "b.zip").read_bytes() == made.read_bytes()
    with zipfile.ZipFile(made) as packed:
        for name, size in (("preview.png", (640, 360)), ("preview-256x256.png", (256, 256))):
            frames = frames_of(packed.read(f"evening-post/{name}"))
            assert len(frames) > 3 and {frame.size for frame in frames} == {size}
            assert len({frame.tobytes() for frame in frames}) > 3


def test_what_has_no_frames_is_refused(walking: Workspace, sources: Path) -> None:
    with pytest.raises(FurnelError, match="no sheet of frames"):
        turntable(walking, "ensigns/small/kettle.tga")
    bare = walking.with_project(walking.project.without_swap(WALK))
    with pytest.raises(FurnelError, match="no sheet of frames"):
        turntable(bare, WALK)
