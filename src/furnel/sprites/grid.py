"""Sheets: frames of an animation in the cells of a grid."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from furnel.errors import FurnelError
from furnel.images.picture import Picture


@dataclass(frozen=True, slots=True)
class Grid:
    """Cells of `width` × `height` pixels, `columns` of them in a row, `count` in use, row by row."""

    width: int
    height: int
    columns: int
    count: int


def grid_of(picture: Picture, cell: tuple[int, int]) -> Grid:
    """The grid of a sheet with cells of this size; empty cells at the end are not counted.

    Raises FurnelError when the sheet is not a whole number of cells.
    """
    width, height = cell
    if width < 1 or height < 1 or picture.width % width or picture.height % height:
        raise FurnelError(
            "Cutting a sheet into frames",
            why=f"{picture.width} × {picture.height} pixels are not a whole number of {width} × {height} cells",
            remedy="Bring the sheet to the original's size",
        )
    columns, rows = picture.width // width, picture.height // height
    alpha = picture.pixels[..., 3].reshape(rows, height, columns, width)
    used = np.flatnonzero(alpha.max(axis=(1, 3)).ravel())
    return Grid(width, height, columns, int(used[-1]) + 1 if used.size else 1)


def crossings(picture: Picture, grid: Grid) -> int:
    """How many borders between two cells have something drawn across them (opaque pixels next to each other on both sides)."""
    ink = picture.pixels[..., 3] > 127
    rows = picture.height // grid.height
    found = 0
    for row in range(rows):
        band = ink[row * grid.height : (row + 1) * grid.height]
        for column in range(1, grid.columns):
            found += bool((band[:, column * grid.width - 1] & band[:, column * grid.width]).any())
    for row in range(1, rows):
        for column in range(grid.columns):
            part = ink[:, column * grid.width : (column + 1) * grid.width]
            found += bool((part[row * grid.height - 1] & part[row * grid.height]).any())
    return found


def background(picture: Picture) -> tuple[int, int, int] | None:
    """The one colour that an opaque sheet's border shows where clear pixels should be, or None."""
    pixels = picture.pixels
    if pixels[..., 3].min() < 250:
        return None
    edge = np.concatenate([pixels[0], pixels[-1], pixels[:, 0], pixels[:, -1]])[:, :3]
    colours, counts = np.unique(edge, axis=0, return_counts=True)
    best = int(counts.argmax())
    if counts[best] < len(edge) * 0.6:
        return None
    return int(colours[best][0]), int(colours[best][1]), int(colours[best][2])
