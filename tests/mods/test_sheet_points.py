"""Faults planted in sheets are found, each where it is; clean sheets have none."""

from __future__ import annotations

import io
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from furnel.mods.workspace import Workspace

SHEETS = {
    "cast/otter_walk.png": (40, 24, 6), "cast/otter_idle.png": (40, 24, 4), "cast/heron_walk.png": (32, 48, 6),
    "cast/ferryman_idle.png": (32, 48, 4), "cast/gull_fly.png": (32, 24, 3),
}  # fmt: skip
KEYS = ("cells cut", "empty", "floor", "height", "odd", "frames", "outside")


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
