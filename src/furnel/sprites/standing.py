"""How figures stand in the cells of a sheet: how high they are, on which row, and which pixels of them hang on nothing."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.images.picture import Picture
from furnel.sprites.grid import Grid

_INK = 127


@dataclass(frozen=True, slots=True)
class Standing:
    """A cell's figure: the first row of its ink and the one behind the last, the column in the middle of its feet, and single
    pixels without a neighbour (column, row), all in the cell; how many of its pixels lie on the cell's left, right and upper
    edge; the column in the middle of its box. An empty cell has no rows."""

    top: int = 0
    floor: int = 0
    middle: float = 0.0
    odd: tuple[tuple[int, int], ...] = ()
    at_edge: int = 0
    centre: float = 0.0

    @property
    def height(self) -> int:
        return self.floor - self.top


def standings(
    sheet: Picture, grid: Grid, count: int, ink: npt.NDArray[np.bool_] | None = None
) -> tuple[Standing, ...]:
    """How the figures of a sheet's first `count` cells stand; those that it does not have are empty. `ink` says what is drawn
    in it, where that is more than what is not clear."""
    if ink is None:
        ink = sheet.pixels[..., 3] > _INK
    alone = _alone(ink)
    out = []
    for place in range(count):
        part = grid.part(place)
        cell = ink[part]
        rows = np.flatnonzero(cell.any(axis=1))
        if not rows.size:
            out.append(Standing())
            continue
        odd = np.argwhere(alone[part])
        first, floor = int(rows[0]), int(rows[-1]) + 1
        middle = middle_of_feet(cell[first:floor])
        across = np.flatnonzero(cell.any(axis=0))
        centre = (float(across[0]) + float(across[-1]) + 1) / 2
        edge = int(cell[:, 0].sum() + cell[:, -1].sum() + cell[0, 1:-1].sum())
        out.append(Standing(first, floor, middle, tuple((int(x), int(y)) for y, x in odd), edge, centre))
    return tuple(out)


def middle_of_feet(figure: npt.NDArray[np.bool_]) -> float:
    """The column in the middle of a figure's feet: of the lowest eighth of its ink (rows, columns), which ends with ink."""
    feet = np.flatnonzero(figure[-max(len(figure) // 8, 1) :].any(axis=0))
    return (float(feet[0]) + float(feet[-1]) + 1) / 2


def _alone(ink: npt.NDArray[np.bool_]) -> npt.NDArray[np.bool_]:
    """Pixels of ink with none around them."""
    padded = np.pad(ink, 1)
    around = np.zeros(ink.shape, np.uint8)
    for down in range(3):
        for right in range(3):
            if (down, right) != (1, 1):
                around += padded[down : down + ink.shape[0], right : right + ink.shape[1]]
    return np.asarray(ink & (around == 0))
