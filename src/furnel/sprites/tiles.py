"""Tiles of ground: cells that go on at some of their sides, made from few, their seams, and a piece of ground built of them."""

from __future__ import annotations

import itertools
from collections.abc import Callable, Sequence
from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Pixels
from furnel.sprites.grid import Grid

_WHAT = "Making tiles"
Source = Literal["a block of 3 × 3", "one tile", "a tile a cell"]
SOURCES: tuple[Source, ...] = ("a block of 3 × 3", "one tile", "a tile a cell")
Fill = Literal["larger pixels", "repeat", "mirror"]
FILLS: tuple[Fill, ...] = ("larger pixels", "repeat", "mirror")
_Numbers = npt.NDArray[np.int32]
_Picks = Callable[[int, int], tuple[int, int]]
_ACROSS = {"n": (0, -1), "e": (1, 0), "s": (0, 1), "w": (-1, 0)}
PLAN = ("..###...#.", ".######.#.", ".####.#.#.", "..##..#...", "......#.##", "##.#..#...")


def parse_meets(text: str) -> tuple[str, ...]:
    """The sides at which each tile goes on, a word each, `.` for none: `. n e ne`. Raises FurnelError."""
    out = []
    for word in text.split():
        sides = "" if word == "." else word
        if set(sides) - set(_ACROSS) or len(set(sides)) != len(sides):
            raise FurnelError(
                _WHAT, where=word, why="these are no sides", remedy="Write n, e, s and w, or . for none"
            )
        out.append("".join(side for side in _ACROSS if side in sides))
    return tuple(out)


def meets_text(meets: Sequence[str]) -> str:
    """The sides of tiles as they are written."""
    return " ".join(sides or "." for sides in meets)


def made_tiles(
    source: Picture, side: int, bed: Picture, grid: Grid, meets: Sequence[str], kind: Source, fill: Fill, at: tuple[int, int]
) -> Picture:  # fmt: skip
    """A sheet of tiles of the bed's size: each cell made from a source's tiles of `side` pixels, the first at `at` (left, top).

    Of a block of 3 × 3 (corners, edges, a middle) each cell takes the edges where it does not go on. Raises FurnelError where a
    cell is no whole number of tiles, and for a source that has too few.
    """
    if side < 1 or grid.width % side or grid.height % side:
        raise FurnelError(
            _WHAT, why=f"a cell of {grid.width} × {grid.height} is no whole number of tiles of {side} pixels",
            remedy=f"Use a side that divides {grid.width} and {grid.height}",
        )  # fmt: skip
    out = bed.pixels.copy()
    columns = (source.width - at[0]) // side
    for place, sides in enumerate(meets):
        if place >= grid.columns * grid.rows(bed.height):
            break
        own = divmod(place, max(columns, 1)) if kind == "a tile a cell" else (0, 0)
        picks = _itself if kind == "a block of 3 × 3" else _always(*own)
        out[grid.part(place)] = _cell(source, side, at, grid, sides, picks, fill)
    return Picture(out)


def _itself(row: int, column: int) -> tuple[int, int]:
    return row, column


def _always(row: int, column: int) -> _Picks:
    return lambda *_: (row, column)


def _cell(
    source: Picture, side: int, at: tuple[int, int], grid: Grid, sides: str, picks: _Picks, fill: Fill
) -> Pixels:
    down, across = grid.height // side, grid.width // side
    if fill == "larger pixels":
        small = _quartered(source, side, at, sides, picks)
        return small.repeat(down, axis=0).repeat(across, axis=1)
    out = np.zeros((grid.height, grid.width, 4), np.uint8)
    for y in range(down):
        for x in range(across):
            inner = (("n", y > 0), ("e", x < across - 1), ("s", y < down - 1), ("w", x > 0))
            own = "".join(name for name, goes_on in inner if goes_on or name in sides)
            part = _quartered(source, side, at, own, picks)
            if fill == "mirror" and own == "nesw":
                part = part[:: -1 if y % 2 else 1, :: -1 if x % 2 else 1]
            out[y * side : (y + 1) * side, x * side : (x + 1) * side] = part
    return out


def _quartered(source: Picture, side: int, at: tuple[int, int], sides: str, picks: _Picks) -> Pixels:
    """One tile whose quarters are each of the tile that has the edges there."""
    out, half = np.zeros((side, side, 4), np.uint8), (side + 1) // 2
    for rows, vertical, edge_row in ((slice(0, half), "n", 0), (slice(half, side), "s", 2)):
        for columns, across, edge_column in ((slice(0, half), "w", 0), (slice(half, side), "e", 2)):
            row, column = 1 if vertical in sides else edge_row, 1 if across in sides else edge_column
            out[rows, columns] = _tile(source, side, at, picks, row, column)[rows, columns]
    return out


def _tile(source: Picture, side: int, at: tuple[int, int], picks: _Picks, row: int, column: int) -> Pixels:
    row, column = picks(row, column)
    left, top = at[0] + column * side, at[1] + row * side
    part = source.pixels[top : top + side, left : left + side]
    if part.shape[:2] != (side, side):
        raise FurnelError(
            _WHAT, why=f"the source ends before the tile in row {row + 1}, column {column + 1}",
            remedy="Choose where the tiles begin and how large one is",
        )  # fmt: skip
    return part


def seams_of(picture: Picture, grid: Grid, meets: Sequence[str]) -> tuple[float, str, tuple[str, ...]]:
    """How the tiles of a sheet go with each other all around: the largest difference across a seam as a multiple of what is
    usual between neighbours (1 or less: not seen), which two tiles that is, and the sides with a gap.

    Every tile that goes on at a side is held against every one that goes on at the other.
    """
    tiles = [
        picture.pixels[grid.part(place)].astype(np.int32) for place in range(min(len(meets), grid.count))
    ]
    edges = [
        {
            side: _middle(edge)
            for side, edge in zip("nesw", (tile[0], tile[:, -1], tile[-1], tile[:, 0]), strict=True)
        }
        for tile in tiles
    ]
    gaps = [
        f"tile {place + 1} {side}"
        for place, own in enumerate(edges)
        for side in meets[place]
        if (own[side][:, 3] < 128).mean() > 0.25
    ]
    worst, pair = 0.0, ""
    for first, second, axis in (("e", "w", 1), ("s", "n", 0)):
        usual = np.mean([np.abs(np.diff(tile, axis=axis)).mean() for tile in tiles]) if tiles else 1.0
        ways = [
            [(place, own[side]) for place, own in enumerate(edges) if side in meets[place]]
            for side in (first, second)
        ]
        for (one, edge), (other, next_edge) in itertools.product(*ways):
            apart = float(np.abs(edge - next_edge).mean()) / max(float(usual), 2.0)
            if apart > worst:
                worst, pair = apart, f"tile {one + 1} {first} to tile {other + 1}"
    return worst, pair, tuple(gaps)


def _middle(edge: _Numbers) -> _Numbers:
    """An edge without its ends, where corners are rounded."""
    cut = len(edge) // 6
    return edge[cut : len(edge) - cut]


def built(picture: Picture, grid: Grid, meets: Sequence[str], plan: Sequence[str] = PLAN) -> Picture:
    """A piece of ground: for every `#` of a plan the tile that goes on where it has neighbours; clear elsewhere."""
    by_sides = {
        "".join(side for side in _ACROSS if side in sides): place
        for place, sides in reversed(list(enumerate(meets)))
    }
    out = np.zeros((len(plan) * grid.height, len(plan[0]) * grid.width, 4), np.uint8)
    for y, row in enumerate(plan):
        for x, mark in enumerate(row):
            if mark != "#":
                continue
            sides = "".join(
                side for side, (right, down) in _ACROSS.items()
                if 0 <= y + down < len(plan) and 0 <= x + right < len(row) and plan[y + down][x + right] == "#"
            )  # fmt: skip
            place = by_sides.get(sides)
            if place is not None and place < grid.columns * grid.rows(picture.height):
                out[y * grid.height : (y + 1) * grid.height, x * grid.width : (x + 1) * grid.width] = (
                    picture.pixels[grid.part(place)]
                )
    return Picture(out)
