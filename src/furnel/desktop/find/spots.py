"""Where everything stands on the wall: tiles beside each other at true proportions, or one thing a line."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.catalogue import Group, Shelf
from furnel.desktop.language import tr
from furnel.desktop.look import byte_size
from furnel.media import KINDS
from furnel.words import number

MARGIN, GAP, HEADER, CAPTION, LINE = 14, 8, 28, 34, 28  # pixels
_NARROWEST, _WIDE = 90, 3.0  # pixels: a caption has to fit; times the height

Numbers = npt.NDArray[np.float64] | npt.NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class Header:
    """What stands over a group, and where."""

    y: float
    title: str
    detail: str


class Spots:
    """What is on the wall, in the order in which it is shown: rows of the shelf, left, top and width in pixels.

    `lines` are the tops of the lines with the place of the first thing in each; `height` is that of the whole wall.
    """

    def __init__(
        self, shelf: Shelf | None = None, groups: Sequence[Group] = (), width: int = 0, tall: int = 0
    ) -> None:
        """Lay groups out over a width: as tiles of a height, or as one thing a line where that is 0."""
        self.headers: list[Header] = []
        self.lines: list[tuple[float, int]] = []
        self.pitch = tall + CAPTION + GAP if tall else LINE
        self.height = 4.0
        self._places: dict[int, int] | None = None
        inner, place = width - 2 * MARGIN, 0
        parts: list[tuple[Numbers, Numbers, Numbers, Numbers]] = []
        if shelf is not None:
            widths = _tile_widths(shelf, tall) if tall else np.full(len(shelf), float(inner), np.float32)
            for group in groups:
                parts.append(self._add(shelf, group, widths, inner, place))
                place += len(group.rows)
        empty = np.zeros(0)
        columns = [np.concatenate([part[n] for part in parts]) if parts else empty for n in range(4)]
        self.rows: npt.NDArray[np.int64] = columns[0].astype(np.int64)
        self.lefts, self.tops, self.widths = columns[1:]
        self.height += MARGIN

    def _add(
        self, shelf: Shelf, group: Group, widths: npt.NDArray[np.float32], inner: int, place: int
    ) -> tuple[Numbers, Numbers, Numbers, Numbers]:
        rows = group.rows
        total = int(shelf.columns["size"][rows].sum())
        self.headers.append(
            Header(self.height, group.name or tr("at the top"), f"{number(len(rows))} · {byte_size(total)}")
        )
        top = self.height + HEADER
        wide = np.minimum(widths[rows], inner)
        ends = np.cumsum(wide + GAP, dtype=np.float64)
        firsts, before = _broken(ends.tolist(), inner + GAP)
        counts = np.diff([*firsts, len(rows)])
        lines = top + np.arange(len(firsts)) * self.pitch
        self.lines += zip(lines.tolist(), [place + first for first in firsts], strict=True)
        self.height = top + len(firsts) * self.pitch + 6
        return rows, ends - wide - GAP - np.repeat(before, counts) + MARGIN, np.repeat(lines, counts), wide

    def __len__(self) -> int:
        return len(self.rows)

    def row(self, place: int) -> int:
        """The shelf's row at a place of the wall, or -1."""
        return int(self.rows[place]) if 0 <= place < len(self.rows) else -1

    def place(self, row: int) -> int:
        """Where on the wall a row of the shelf is, or -1."""
        if row < 0:
            return -1
        if self._places is None:
            self._places = {found: place for place, found in enumerate(self.rows.tolist())}
        return self._places.get(row, -1)

    def line_at(self, y: float) -> int:
        """Which line begins at or above a height, or -1."""
        return bisect_right(self.lines, (y, 1 << 60)) - 1

    def in_line(self, line: int) -> range:
        """The places of a line."""
        end = self.lines[line + 1][1] if line + 1 < len(self.lines) else len(self)
        return range(self.lines[line][1], end)

    def beside(self, here: int, step: int) -> int:
        """The place that is nearest in the line after or before; the same where there is none."""
        line = self.line_at(float(self.tops[here])) + step
        if not 0 <= line < len(self.lines):
            return here
        middles = self.lefts + self.widths / 2
        return min(self.in_line(line), key=lambda other: abs(middles[other] - middles[here]))


def _broken(ends: list[float], width: float) -> tuple[list[int], list[float]]:
    """Where lines begin, for tiles that end at `ends` when they stand in one line; and what lies before each line."""
    firsts, before, first, done = [], [], 0, 0.0
    while first < len(ends):
        firsts.append(first)
        before.append(done)
        first = max(bisect_right(ends, done + width, first), first + 1)
        done = ends[first - 1]
    return firsts, before


def _tile_widths(shelf: Shelf, tall: int) -> npt.NDArray[np.float32]:
    """How wide every asset's tile is."""
    columns = shelf.columns
    codes = {kind: code for code, kind in enumerate(KINDS)}
    kind, width = columns["kind"], columns["width"]
    seconds = shelf.length_ms / 1000
    wide = np.full(len(shelf), tall * 0.8)
    wide[kind == codes["definition"]] = tall * 1.5
    wide[kind == codes["music"]] = tall * 3.0
    wide = np.where(kind == codes["sound"], tall * np.clip(0.7 + seconds * 0.35, 0.9, 2.2), wide)
    true = np.maximum(tall * np.minimum(width / np.maximum(columns["height"], 1), _WIDE), _NARROWEST)
    return np.where(width > 0, true, wide).astype(np.float32)
