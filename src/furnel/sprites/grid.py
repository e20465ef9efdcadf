"""Sheets: frames of an animation in the cells of a grid."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import Picture


@dataclass(frozen=True, slots=True)
class Grid:
    """Cells of `width` × `height` pixels, `columns` of them in a row, `count` in use, row by row.

    `margin` pixels are around all of them, `gutter` pixels between two; `pixels` of the sheet, across and down, are one of the
    drawing.
    """

    width: int
    height: int
    columns: int
    count: int
    margin: int = 0
    gutter: int = 0
    pixels: int = 1

    def box(self, place: int) -> tuple[int, int, int, int]:
        """A cell's left, top, width and height."""
        row, column = divmod(place, self.columns)
        left = self.margin + column * (self.width + self.gutter)
        return left, self.margin + row * (self.height + self.gutter), self.width, self.height

    def part(self, place: int) -> tuple[slice, slice]:
        """A cell as rows and columns of an array of pixels."""
        left, top, width, height = self.box(place)
        return slice(top, top + height), slice(left, left + width)

    def at(self, x: int, y: int, places: int) -> int:
        """Which of the first `places` cells a pixel (column, row) is in; -1 for none."""
        column, right = divmod(x - self.margin, self.width + self.gutter)
        row, down = divmod(y - self.margin, self.height + self.gutter)
        place = row * self.columns + column
        inside = 0 <= column < self.columns and row >= 0 and right < self.width and down < self.height
        return place if inside and place < places else -1

    def rows(self, height: int) -> int:
        """How many rows of cells a sheet of this height has."""
        return (height - 2 * self.margin + self.gutter) // (self.height + self.gutter)


def grid_of(
    picture: Picture,
    cell: tuple[int, int],
    margin: int = 0,
    gutter: int = 0,
    ink: npt.NDArray[np.bool_] | None = None,
) -> Grid:
    """The grid of a sheet with cells of this size; empty cells at the end are not counted. `ink` says what is drawn in it,
    where that is more than what is not clear.

    Raises FurnelError when the sheet is not a whole number of cells.
    """
    width, height = cell
    inner = picture.width - 2 * margin + gutter, picture.height - 2 * margin + gutter
    if (
        width < 1
        or height < 1
        or min(inner) < 1
        or inner[0] % (width + gutter)
        or inner[1] % (height + gutter)
    ):
        raise FurnelError(
            "Cutting a sheet into frames",
            why=f"{picture.width} × {picture.height} pixels are not a whole number of {width} × {height} cells",
            remedy="Bring the sheet to the original's size",
        )
    columns, rows = inner[0] // (width + gutter), inner[1] // (height + gutter)
    whole = Grid(width, height, columns, columns * rows, margin, gutter)
    if ink is None:
        ink = picture.pixels[..., 3] > 0
    used = [place for place in range(whole.count) if ink[whole.part(place)].any()]
    return replace(whole, count=used[-1] + 1 if used else 1)


def crossings(ink: npt.NDArray[np.bool_], grid: Grid) -> int:
    """How many borders between two cells have something drawn across them: ink on both sides, and in a gutter between them."""
    found = 0
    for row in range(grid.rows(ink.shape[0])):
        for column in range(grid.columns):
            left, top, wide, high = grid.box(row * grid.columns + column)
            if column:
                across = ink[top : top + high, left - 1 - grid.gutter : left + 1]
                found += bool(across.all(axis=1).any())
            if row:
                down = ink[top - 1 - grid.gutter : top + 1, left : left + wide]
                found += bool(down.all(axis=0).any())
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
