"""How a game reads a sheet: the size of its cells, its animations, what fills the rest, which colour is clear."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Rgb
from furnel.sprites.grid import Grid, grid_of

Anchor = Literal["feet", "centre"]
Mask = npt.NDArray[np.bool_]
_SPAN = re.compile(r"(\d{1,4})(?:-(\d{1,4}))?$")
_INK = 127
_MOST_CELLS = 4096


@dataclass(frozen=True, slots=True)
class Animation:
    """A named run of cells (from 0, in the order in which they are shown), with a speed in frames a second, and where its
    figures stay: their `feet`, or their `centre`."""

    name: str
    cells: tuple[int, ...]
    speed: float = 8.0
    anchor: Anchor = "feet"


@dataclass(frozen=True, slots=True)
class SheetLayout:
    """A sheet as its game reads it. `unused` is the colour of cells that no animation has, `key` a colour that is clear,
    `pixels` how many of the sheet are one of the drawing."""

    cell: tuple[int, int]
    margin: int = 0
    gutter: int = 0
    animations: tuple[Animation, ...] = ()
    unused: Rgb | None = None
    key: Rgb | None = None
    pixels: int = 1

    @property
    def used(self) -> tuple[int, ...]:
        """The cells of all animations, each once."""
        return tuple(dict.fromkeys(cell for run in self.animations for cell in run.cells))

    @property
    def runs(self) -> str:
        """The cells of its animations as they are written."""
        return runs_text(self.animations)

    def grid(self, picture: Picture) -> Grid:
        """The cells that a picture has in it. Raises FurnelError when it is no whole number of them."""
        found = grid_of(picture, self.cell, self.margin, self.gutter, self.ink(picture))
        return replace(found, pixels=self.pixels)

    def ink(self, picture: Picture) -> Mask:
        """What is drawn: neither clear nor of the key colour, and in no cell that the game never shows."""
        ink = picture.pixels[..., 3] > _INK
        if self.key is not None:
            ink &= (picture.pixels[..., :3] != self.key).any(axis=2)
        if self.animations:
            grid, used = self.across(picture.width), set(self.used)
            for place in range(grid.columns * max(grid.rows(picture.height), 1)):
                if place not in used:
                    ink[grid.part(place)] = False
        return ink

    def across(self, width: int) -> Grid:
        """The cells of a sheet of this width; how many are in use is not known (0)."""
        columns = max((width - 2 * self.margin + self.gutter) // (self.cell[0] + self.gutter), 1)
        return Grid(*self.cell, columns, 0, self.margin, self.gutter, self.pixels)

    def names(self, count: int) -> tuple[str, ...]:
        """What the first `count` cells are called: by their animation, or as frames."""
        out = [f"frame {place + 1}" for place in range(count)]
        for run in self.animations:
            for number, place in enumerate(run.cells, start=1):
                if place < count and out[place] == f"frame {place + 1}":
                    out[place] = f"{run.name} {number}"
        return tuple(out)


def parse_cells(text: str) -> tuple[int, ...]:
    """Cells from their numbers, from 1: `1-5 8 7`. Raises FurnelError for what is none."""
    return tuple(place for word in text.replace(",", " ").split() for place in _span(word))


def parse_runs(text: str) -> tuple[Animation, ...]:
    """The cells of animations, one a word: `1-5 6,7,6 8c`; a `c` says that its figures stay with their centre."""
    out = []
    for number, word in enumerate(text.split(), start=1):
        cells = tuple(place for part in word.removesuffix("c").split(",") for place in _span(part))
        out.append(Animation(str(number), cells, anchor="centre" if word.endswith("c") else "feet"))
    return tuple(out)


def _span(word: str) -> range:
    found = _SPAN.match(word)
    first, last = (int(found.group(1)), int(found.group(2) or found.group(1))) if found else (0, 0)
    if not 1 <= first <= _MOST_CELLS or not 1 <= last <= _MOST_CELLS:
        raise FurnelError(
            "Reading cells", where=word, why="it is no number of a cell, and no run of them", remedy="Write 4, or 1-5"
        )  # fmt: skip
    return range(first - 1, last) if last >= first else range(first - 1, last - 2, -1)


def cells_text(cells: Sequence[int], between: str = " ") -> str:
    """Cells as they are written: those that follow each other as a run."""
    out: list[list[int]] = []
    for place in cells:
        if out and place == out[-1][-1] + 1:
            out[-1].append(place)
        else:
            out.append([place])
    return between.join(f"{run[0] + 1}-{run[-1] + 1}" if len(run) > 1 else str(run[0] + 1) for run in out)


def runs_text(animations: Sequence[Animation]) -> str:
    """The cells of animations, one a word."""
    return " ".join(
        cells_text(run.cells, ",") + ("c" if run.anchor == "centre" else "") for run in animations
    )
