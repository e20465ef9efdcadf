"""What is seen of a sheet beyond how its figures stand: ink where none is to be, half-clear pixels, colours, facing."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.images.picture import Picture
from furnel.sprites.grid import Grid
from furnel.sprites.layout import Mask, SheetLayout
from furnel.sprites.palette import MOST, colours_seen, twins
from furnel.sprites.tiles import seams_of

_NAMED = 4
_OUTLINE = 12, 16  # columns and rows that a figure's outline is told with
_FACES = 0.08  # so much more like the original's mirrored outline: it faces the other way
_ALIKE = 0.3  # how unlike the mirrored outline may be for that to be said
_ONE_SIDED = 0.12  # so unlike its own mirror image an outline has to be to face anywhere

Place = tuple[int, int]


@dataclass(frozen=True, slots=True)
class Seams:
    """How tiles meet: the worst difference across a seam as a multiple of what is usual, between which; sides with a gap."""

    worst: float = 0.0
    pair: str = ""
    gaps: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class SheetLook:
    """A sheet as seen in its layout.

    `runs` are the cells of its animations, `names` what its cells are called, `outside` pixels between the cells, `drawn` the
    unused cells that are not as the original's are, `half_clear` pixels and where the first are, `twins` pairs of colours that
    nobody tells apart (the rarer, the other, where), `palette` its colours (six hex digits) where these are few, `outline` how
    much of its figures, one over the other, is in each part of their box (0 to 255, by rows), `seams` how its tiles meet,
    `broken` how many of the drawing's pixels are not of one colour and where the first are.
    """

    layout: SheetLayout
    names: tuple[str, ...] = ()
    outside: int = 0
    drawn: tuple[int, ...] = ()
    half_clear: int = 0
    half_clear_at: tuple[Place, ...] = ()
    twins: tuple[tuple[str, str, Place], ...] = ()
    palette: tuple[str, ...] = ()
    outline: tuple[int, ...] = ()
    seams: Seams = Seams()
    broken: int = 0
    broken_at: tuple[Place, ...] = ()

    def grid(self, width: int) -> Grid:
        """The cells of a sheet of this width."""
        return self.layout.across(width)


def looked_at(
    picture: Picture, layout: SheetLayout, grid: Grid, ink: Mask, meets: Sequence[str] = ()
) -> SheetLook:
    """What there is to say of a sheet whose cells are those of a grid; `ink` is the layout's, `meets` of tiles."""
    alpha = picture.pixels[..., 3]
    half = np.argwhere((alpha > 0) & (alpha < 255))
    colours = colours_seen([picture])
    few = len(colours) <= MOST
    names = layout.names(max(grid.count, max(layout.used, default=-1) + 1))
    return SheetLook(
        layout, names, _outside(ink, grid), _drawn(picture, layout, grid), len(half),
        tuple((int(x), int(y)) for y, x in half[:_NAMED]),
        tuple((rare.hex, near.hex, rare.first) for rare, near in twins(colours)) if few else (),
        tuple(sorted(colour.hex for colour in colours)) if few else (),
        outline_of([ink[grid.part(place)] for place in (layout.used or range(grid.count)) if place < grid.count]),
        Seams(*seams_of(picture, grid, meets)) if meets else Seams(), *_broken(picture, grid),
    )  # fmt: skip


def _broken(picture: Picture, grid: Grid) -> tuple[int, tuple[Place, ...]]:
    """How many of the drawing's pixels, each of several of the sheet, are not of one colour, and where the first are."""
    side = grid.pixels
    if side == 1 or grid.width % side or grid.height % side:
        return 0, ()
    number, places = 0, list[Place]()
    for place in range(grid.count):
        left, top, wide, high = grid.box(place)
        cell = np.where(picture.pixels[..., 3:] > 0, picture.pixels, 0)[top : top + high, left : left + wide]
        blocks = cell.reshape(high // side, side, wide // side, side, 4)
        found = np.argwhere((blocks != blocks[:, :1, :, :1]).any(axis=(1, 3, 4)))
        number += len(found)
        places += [(left + int(x) * side, top + int(y) * side) for y, x in found[:_NAMED]]
    return number, tuple(places[:_NAMED])


def _outside(ink: Mask, grid: Grid) -> int:
    """How many pixels of ink lie between the cells, or around them."""
    if not grid.margin and not grid.gutter:
        return 0
    rest = ink.copy()
    for place in range(grid.columns * grid.rows(ink.shape[0])):
        rest[grid.part(place)] = False
    return int(rest.sum())


def _drawn(picture: Picture, layout: SheetLayout, grid: Grid) -> tuple[int, ...]:
    """The cells of no animation that are not all of the tone that they are filled with, or not clear where there is none."""
    if not layout.animations:
        return ()
    wanted = np.array([*layout.unused, 255] if layout.unused is not None else [0, 0, 0, 0], np.uint8)
    out, used = [], set(layout.used)
    for place in range(grid.columns * grid.rows(picture.height)):
        part = picture.pixels[grid.part(place)]
        other = (part != wanted).any() if layout.unused is not None else (part[..., 3] > 0).any()
        if place not in used and other:
            out.append(place)
    return tuple(out)


def outline_of(figures: list[Mask]) -> tuple[int, ...]:
    """How much of some figures, each brought to the same box, is in each part of it; empty when there is none."""
    columns, rows = _OUTLINE
    total = np.zeros((rows, columns))
    number = 0
    for figure in figures:
        down, across = np.flatnonzero(figure.any(axis=1)), np.flatnonzero(figure.any(axis=0))
        if not down.size:
            continue
        part = figure[down[0] : down[-1] + 1, across[0] : across[-1] + 1].astype(float)
        total += _boxed(_boxed(part, rows).T, columns).T
        number += 1
    return tuple(np.round(total / number * 255).astype(int).ravel().tolist()) if number else ()


def _boxed(values: npt.NDArray[np.float64], parts: int) -> npt.NDArray[np.float64]:
    """The rows brought to a number of parts, each the mean of what it covers."""
    edges = np.linspace(0, len(values), parts + 1)
    whole = np.concatenate([np.zeros((1, values.shape[1])), np.cumsum(values, axis=0)])
    low = np.floor(edges).astype(int).clip(0, len(values) - 1)
    at = whole[low] + (edges - low)[:, None] * values[low]
    means: npt.NDArray[np.float64] = np.diff(at, axis=0) / (len(values) / parts)
    return means


def faces_back(original: tuple[int, ...], yours: tuple[int, ...]) -> bool | None:
    """Whether figures look the other way than the original's, by their outlines; None where that is not to be told."""
    if len(original) != len(yours) or not original:
        return None
    columns, rows = _OUTLINE
    one, two = (np.array(outline, float).reshape(rows, columns) for outline in (original, yours))
    if _unlike(one, one[:, ::-1]) < _ONE_SIDED:
        return None
    straight, mirrored = _unlike(one, two), _unlike(one, two[:, ::-1])
    if min(straight, mirrored) > _ALIKE:
        return None
    return straight - mirrored > _FACES


def _unlike(one: npt.NDArray[np.float64], other: npt.NDArray[np.float64]) -> float:
    return float(np.abs(one - other).sum() / max(one.sum() + other.sum(), 1.0))
