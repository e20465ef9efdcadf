"""Cells found in a sheet that nobody described: between lines of one colour, or by where its ink repeats."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.images.picture import Picture
from furnel.sprites.poses import ground_of

_LEAST = 4
_MOST_PARTS = 64

Spans = list[tuple[int, int]]


def cells_of(picture: Picture) -> tuple[tuple[int, int, int, int], ...]:
    """Boxes (left, top, width, height) of a sheet's cells, row by row, unequal ones too; one box where no grid is to be seen.

    Lines of one colour from edge to edge divide it; without any, rows and columns without ink do when what lies between is as
    wide everywhere as the distance in which it repeats.
    """
    lines = _lines(picture)
    if lines is None:
        ink = _ink(picture)
        lines = _by_gaps(np.asarray(ink.any(axis=1))), _by_gaps(np.asarray(ink.any(axis=0)))
    rows, columns = lines
    return tuple((left, top, right - left, bottom - top) for top, bottom in rows for left, right in columns)


def _ink(picture: Picture) -> npt.NDArray[np.bool_]:
    ink = picture.pixels[..., 3] > 127
    for colour in ground_of(picture):
        ink &= (picture.pixels[..., :3] != colour).any(axis=2)
    return ink


def _lines(picture: Picture) -> tuple[Spans, Spans] | None:
    """What lies between lines of one colour that go from edge to edge, both ways; None where there are none."""
    codes = np.ascontiguousarray(picture.pixels).view(np.uint32)[..., 0]
    whole_rows = (codes == codes[:, :1]).all(axis=1)
    whole_columns = (codes == codes[:1]).all(axis=0)
    for colour in dict.fromkeys([*codes[whole_rows, 0].tolist(), *codes[0, whole_columns].tolist()]):
        rows, columns = whole_rows & (codes[:, 0] == colour), whole_columns & (codes[0] == colour)
        inner = codes[~rows][:, ~columns]
        if not inner.size or (inner == colour).any():
            continue  # it is the ground, not a line
        found = _between(rows), _between(columns)
        if len(found[0]) * len(found[1]) > 1:
            return found
    return None


def _between(lines: npt.NDArray[np.bool_]) -> Spans:
    edges = np.flatnonzero(np.diff(np.concatenate([[1], lines.astype(np.int8), [1]])))
    return [(int(edges[place]), int(edges[place + 1])) for place in range(0, len(edges) - 1, 2)]


def _by_gaps(drawn: npt.NDArray[np.bool_]) -> Spans:
    """Equal parts whose borders lie where nothing is drawn: the most of them into which the ink can be divided so, each with
    something in it; where gaps are regular but the length is no whole number of parts, from gap to gap."""
    length = len(drawn)
    for parts in range(min(length // _LEAST, _MOST_PARTS), 1, -1):
        if length % parts:
            continue
        size = length // parts
        cells = drawn.reshape(parts, size)
        if cells.any(axis=1).all() and not (cells[1:, 0] & cells[:-1, -1]).any() and _regular(drawn, parts):
            return [(place * size, (place + 1) * size) for place in range(parts)]
    return [(0, length)]


def _regular(drawn: npt.NDArray[np.bool_], parts: int) -> bool:
    """Whether there are as many stretches of ink as parts, so that none is cut into two."""
    return int((np.diff(np.concatenate([[0], drawn.astype(np.int8)])) == 1).sum()) == parts
