"""Faults planted in sheets are found, each where it is; clean sheets have none."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from furnel.mods.fit import mended, with_encoding
from furnel.mods.onsheet import with_colours
from furnel.mods.workspace import Workspace

SHEETS = {
    "cast/otter_walk.png": (40, 24, 6), "cast/otter_idle.png": (40, 24, 4), "cast/heron_walk.png": (32, 48, 6),
    "cast/ferryman_idle.png": (32, 48, 4), "cast/gull_fly.png": (32, 24, 6),
}  # fmt: skip
KEYS = (
    "cells cut", "empty", "floor", "height", "odd", "frames", "outside", "unused", "half-clear", "twins", "mask colours",
    "facing", "tile seams", "middle", "colours used", "leftover", "pixel size",
)  # fmt: skip


def pixels_of(space: Workspace, path: str) -> Any:
    return np.array(Image.open(io.BytesIO(space.catalogue.bytes_of(path))).convert("RGBA"))


def judged(space: Workspace, path: str, pixels: Any, file: Path) -> dict[str, str]:
    """What is wrong with a sheet, by the points of sheets alone."""
    Image.fromarray(pixels).save(file)
    examined = space.examine(space.fitted(space.new_swap(path, file)))
    return {
        point.key: point.yours for point in examined.points if point.key in KEYS and point.state != "fits"
    }


def cell_of(path: str, frame: int, pixels: Any) -> tuple[int, int, int, int]:
    wide, high, _ = SHEETS[path]
    columns = pixels.shape[1] // wide
    return frame % columns * wide, frame // columns * high, wide, high


@pytest.mark.parametrize("path", SHEETS)
def test_clean_sheets_have_no_faults(space: Workspace, tmp_path: Path, path: str) -> None:
    rng = np.random.default_rng(len(path))
    for number in range(8):
        pixels = pixels_of(space, path)
        ink = pixels[..., 3] > 0
        pixels[ink, :3] = (
            (pixels[ink, :3] * rng.uniform(0.6, 1.0, 3) + rng.uniform(0, 60, 3)).clip(0, 255).astype(np.uint8)
        )
        if number % 2:  # an ear more, joined to the figure
            rows, columns = np.nonzero(ink)
            at = int(rng.integers(len(rows)))
            if rows[at] % SHEETS[path][1] > 1 and 1 < columns[at] % SHEETS[path][0] < SHEETS[path][0] - 2:
                pixels[rows[at] - 1, columns[at]] = pixels[rows[at], columns[at]]
        assert judged(space, path, pixels, tmp_path / f"{number}.png") == {}


@pytest.mark.parametrize("path", SHEETS)
def test_planted_faults_are_found_where_they_are(space: Workspace, tmp_path: Path, path: str) -> None:
    _, _, frames = SHEETS[path]
    for frame in range(min(frames - 1, 2), frames - 1):
        clean = pixels_of(space, path)
        left, top, wide, high = cell_of(path, frame, clean)
        part = (slice(top, top + high), slice(left, left + wide))
        blank = clean.copy()
        blank[part] = 0
        assert f"frame {frame + 1} is empty" in judged(space, path, blank, tmp_path / "a.png")["empty"]
        rows = np.flatnonzero(clean[part][..., 3].any(axis=1))
        by = -2 if rows[0] >= 2 else 2
        if by < 0 or rows[-1] + by < high:
            moved = clean.copy()
            moved[part] = np.roll(clean[part], by, 0)
            told = judged(space, path, moved, tmp_path / "b.png")
            assert f"frame {frame + 1} is off it" in told["floor"] and ("up" in told["floor"]) == (by < 0)
        free = np.argwhere(~_near_ink(clean[part][..., 3] > 0))
        inner = [(y, x) for y, x in free if 1 < y < high - 2 and 1 < x < wide - 2]
        y, x = inner[len(inner) // 2]
        odd = clean.copy()
        odd[top + y, left + x] = (250, 0, 250, 255)
        told = judged(space, path, odd, tmp_path / "c.png")
        assert f"frame {frame + 1} at {x}, {y}" in told["odd"]


def test_a_figure_that_its_cell_cuts_is_said(space: Workspace, tmp_path: Path) -> None:
    path = "cast/heron_walk.png"
    pixels = pixels_of(space, path)
    left, top, wide, high = cell_of(path, 2, pixels)
    part = (slice(top, top + high), slice(left, left + wide))
    columns = np.flatnonzero(pixels[part][..., 3].any(axis=0))
    pushed = np.zeros_like(pixels[part])
    by = wide - int(columns[-1]) + 3
    pushed[:, by:] = pixels[part][:, :-by]
    pixels[part] = pushed
    assert "frame 3 is cut off" in judged(space, path, pixels, tmp_path / "cut.png")["cells cut"]


def _near_ink(ink: Any) -> Any:
    padded = np.pad(ink, 2)
    return np.any(
        [
            padded[down : down + ink.shape[0], right : right + ink.shape[1]]
            for down in range(5)
            for right in range(5)
        ],
        axis=0,
    )


def test_a_figure_of_another_height_is_said(space: Workspace, tmp_path: Path) -> None:
    path = "cast/ferryman_idle.png"
    pixels = pixels_of(space, path)
    small = np.zeros_like(pixels)
    for frame in range(4):
        left, top, wide, high = cell_of(path, frame, pixels)
        half = pixels[top : top + high : 2, left : left + wide : 2]
        small[top + high - half.shape[0] : top + high, left + 8 : left + 8 + half.shape[1]] = half
    told = judged(space, path, small, tmp_path / "small.png")
    assert set(told) >= {"height"} and "pixels" in told["height"]


Parts = list[tuple[slice, slice]]


def _first(pixels: Any, part: tuple[slice, slice]) -> tuple[int, int]:
    """A pixel inside a cell's figure."""
    rows, columns = np.nonzero(_inner(pixels[part]))
    at = len(rows) // 2
    return part[0].start + int(rows[at]), part[1].start + int(columns[at])


def _inner(cell: Any) -> Any:
    ink = np.pad(cell[..., 3] > 0, 1)
    return ink[1:-1, 1:-1] & ink[:-2, 1:-1] & ink[2:, 1:-1] & ink[1:-1, :-2] & ink[1:-1, 2:]


def odd_pixel(pixels: Any, parts: Parts) -> str:
    for part in parts:
        free = np.argwhere(~_near_ink(pixels[part][..., 3] > 0))
        inner = [(y, x) for y, x in free if y > 1 and 1 < x < pixels[part].shape[1] - 2]
        if inner:
            y, x = inner[0]
            pixels[part][y, x] = (250, 0, 250, 255)
            return "odd"
    raise AssertionError


def twin_colour(pixels: Any, parts: Parts) -> str:
    y, x = _first(pixels, parts[1])
    pixels[y, x, :3] ^= 2
    return "twins"


def half_clear(pixels: Any, parts: Parts) -> str:
    y, x = _first(pixels, parts[2])
    pixels[y, x, 3] = 120
    return "half-clear"


def emptied(pixels: Any, parts: Parts) -> str:
    pixels[parts[1]] = 0
    return "empty"


def turned(pixels: Any, parts: Parts) -> str:
    for part in parts:
        pixels[part] = pixels[part][:, ::-1].copy()
    return "facing"


def aside(pixels: Any, parts: Parts) -> str:
    for part in parts:
        wide = pixels[part].shape[1]
        by = max(round(wide * 0.08), 2) + 2
        pixels[part] = np.roll(pixels[part], by, 1)
        pixels[part][:, :by] = 0
    return "middle"


def cut_ear(pixels: Any, parts: Parts) -> str:
    cell = pixels[parts[0]].copy()
    top = int(np.flatnonzero(cell[..., 3].any(axis=1))[0])
    by = top + max(cell.shape[0] // 4, 6)
    pixels[parts[0]] = np.concatenate([cell[by:], np.zeros_like(cell[:by])])
    return "cells cut"


FAULTS = (odd_pixel, twin_colour, half_clear, emptied, turned, aside, cut_ear)


@pytest.mark.parametrize("fault", FAULTS)
@pytest.mark.parametrize("path", SHEETS)
def test_each_planted_fault_is_told_by_its_point(
    space: Workspace, tmp_path: Path, path: str, fault: Any
) -> None:
    pixels = pixels_of(space, path)
    parts = []
    for frame in range(SHEETS[path][2]):
        left, top, wide, high = cell_of(path, frame, pixels)
        parts.append((slice(top, top + high), slice(left, left + wide)))
    key = fault(pixels, parts)
    assert key in judged(space, path, pixels, tmp_path / "fault.png")


def matched(space: Workspace, path: str, pixels: Any, file: Path, key: str) -> str:
    """How a point stands after *Match it*."""
    Image.fromarray(pixels).save(file)
    swap = space.fitted(space.new_swap(path, file))
    examined = space.examine(swap)
    point = next(one for one in examined.points if one.key == key)
    assert (
        point.state != "fits"
        and point.remedy
        and examined.original is not None
        and examined.result is not None
    )
    better = mended(swap, key, examined.original, examined.result)
    assert better is not None
    after = space.examine(with_encoding(better, examined.original))
    return next((one.state for one in after.points if one.key == key), "fits")


def test_what_a_game_never_shows_is_left_alone_and_put_back(space: Workspace, tmp_path: Path) -> None:
    path = "cast/ferryman_shore.png"
    pixels = pixels_of(space, path)
    assert judged(space, path, pixels, tmp_path / "clean.png") == {}
    pixels[60, 80] = (9, 200, 9, 255)
    told = judged(space, path, pixels, tmp_path / "drawn.png")
    assert told == {"unused": "drawn in cell 8"}
    assert matched(space, path, pixels, tmp_path / "again.png", "unused") == "fits"
    pixels = pixels_of(space, path)
    pixels[48:96, :32] = 0
    assert judged(space, path, pixels, tmp_path / "empty.png")["empty"] == "jump 1 is empty"


def test_masks_keep_their_colours_and_nothing_lies_between_their_cells(
    space: Workspace, tmp_path: Path
) -> None:
    path = "cast/sailor_mask.png"
    pixels = pixels_of(space, path)
    assert judged(space, path, pixels, tmp_path / "clean.png") == {}
    pixels[20, 35] = (255, 0, 0, 255)
    assert judged(space, path, pixels, tmp_path / "between.png")["outside"] == "1 pixel between the cells"
    assert matched(space, path, pixels, tmp_path / "b.png", "outside") == "fits"
    pixels = pixels_of(space, path)
    pixels[20, 15, :3] = (250, 30, 9)
    Image.fromarray(pixels).save(tmp_path / "c.png")
    swap = space.new_swap(path, tmp_path / "c.png")
    assert next(one for one in space.examine(swap).points if one.key == "mask colours").state == "breaks"
    after = space.examine(space.fitted(swap))
    assert next(one for one in after.points if one.key == "mask colours").state == "fits"


@pytest.mark.parametrize(
    ("fault", "key"),
    [(odd_pixel, "odd"), (twin_colour, "twins"), (half_clear, "half-clear"), (turned, "facing")],
)
def test_match_it_puts_right_what_it_says(space: Workspace, tmp_path: Path, fault: Any, key: str) -> None:
    path = "cast/heron_walk.png"
    pixels = pixels_of(space, path)
    parts = [(slice(0, 48), slice(frame * 32, frame * 32 + 32)) for frame in range(6)]
    assert fault(pixels, parts) == key
    assert matched(space, path, pixels, tmp_path / "fault.png", key) == "fits"


def test_a_tile_that_does_not_go_on_is_named(space: Workspace, tmp_path: Path) -> None:
    path = "tiles/dock.png"
    pixels = pixels_of(space, path)
    assert judged(space, path, pixels, tmp_path / "clean.png") == {}
    pixels[96:, 127, :3] = (255, 255, 255)
    assert "tile 16 e" in judged(space, path, pixels, tmp_path / "seam.png")["tile seams"]
    pixels[100:124, 127] = 0
    assert judged(space, path, pixels, tmp_path / "gap.png")["tile seams"] == "gaps at tile 16 e"


def test_colours_that_were_changed_leave_no_rest(space: Workspace, tmp_path: Path) -> None:
    path = "cast/otter_walk.png"
    pixels = pixels_of(space, path)
    colours = np.unique(pixels[pixels[..., 3] > 0][:, :3], axis=0)
    old = tuple(int(one) for one in colours[2])
    y, x = np.argwhere((pixels[..., :3] == old).all(axis=2))[5]
    pixels[y, x, 0] += 7  # a forgotten pixel
    Image.fromarray(pixels).save(tmp_path / "forgotten.png")
    swap = with_colours(space.fitted(space.new_swap(path, tmp_path / "forgotten.png")), {old: (10, 220, 240)})  # type: ignore[dict-item]
    examined = space.examine(with_encoding(swap, space.original_spec(path)))
    point = next(one for one in examined.points if one.key == "leftover")
    assert (point.yours, point.at) == (f"1 pixel at {x}, {y}", ((x, y, 1, 1),))


def test_a_doubled_sheet_stays_doubled(space: Workspace, tmp_path: Path) -> None:
    path = "cast/otter_near_walk.png"
    pixels = pixels_of(space, path)
    assert judged(space, path, pixels, tmp_path / "clean.png") == {}
    pixels[20, 41] = (9, 240, 9, 255)
    assert (
        judged(space, path, pixels, tmp_path / "fine.png")["pixel size"]
        == "1 pixel of several colours at 40, 20"
    )
    small = pixels_of(space, "cast/otter_idle.png")
    assert "pixel size" not in judged(space, path, small, tmp_path / "small.png")
    Image.fromarray(small).save(tmp_path / "small.png")
    cells = np.asarray(
        Image.open(io.BytesIO(space.examine(space.fitted(space.new_swap(path, tmp_path / "small.png"))).data))
    )
    np.testing.assert_array_equal(cells[::2, ::2].repeat(2, 0).repeat(2, 1), cells)
    assert cells[..., 3].any()
