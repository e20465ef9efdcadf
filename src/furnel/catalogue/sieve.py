"""The sieve: narrowing a shelf by text, kind, format, sizes and length, and counting what each choice would leave."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from furnel.catalogue.shelf import Mask, Rows, Shelf
from furnel.media import KINDS

Range = tuple[int, int]


@dataclass(frozen=True, slots=True)
class Sieve:
    """What to keep. Empty sets keep everything; ranges are inclusive, in pixels (the longer side), bytes and milliseconds.

    `folder` keeps what is below it, `only` some paths; `told_in` are definitions in which the text stands, which it keeps, too.
    """

    text: str = ""
    kinds: frozenset[str] = frozenset()
    formats: frozenset[str] = frozenset()
    pixels: Range | None = None
    size_bytes: Range | None = None
    length_ms: Range | None = None
    folder: str = ""
    only: frozenset[str] | None = None
    told_in: frozenset[str] = frozenset()

    def mask(self, shelf: Shelf) -> Mask:
        """Which assets of a shelf pass."""
        kept = np.ones(len(shelf), bool)
        for wanted, names, column in (
            (self.kinds, KINDS, "kind"),
            (self.formats, shelf.formats, "format"),
        ):
            if wanted:
                codes = [code for code, name in enumerate(names) if name in wanted]
                kept &= np.isin(shelf.columns[column], codes)
        for span, values in (
            (self.pixels, shelf.longer_side),
            (self.size_bytes, shelf.columns["size"]),
            (self.length_ms, shelf.length_ms),
        ):
            if span is not None:
                kept &= (values >= span[0]) & (values <= span[1])
        if self.folder:
            folders, places = shelf.group_codes("folder")
            inside = [place for place, name in enumerate(folders) if f"{name}/".startswith(f"{self.folder}/")]
            kept &= np.isin(places, inside)
        if self.only is not None:
            chosen = np.zeros(len(shelf), bool)
            chosen[[row for path in self.only if (row := shelf.row(path)) >= 0]] = True
            kept &= chosen
        if not self.text.strip():
            return kept
        named = shelf.with_words(self.text)
        named[[row for path in self.told_in if (row := shelf.row(path)) >= 0]] = True
        return kept & named

    @property
    def open(self) -> bool:
        """Whether it keeps everything."""
        return self == Sieve()


@dataclass(frozen=True, slots=True)
class Facets:
    """How many of some assets there are by kind, by format, and by powers of two of pixels, bytes and milliseconds."""

    kinds: dict[str, int]
    formats: dict[str, int]
    pixels: dict[int, int]
    size_bytes: dict[int, int]
    length_ms: dict[int, int]


def count_facets(shelf: Shelf, kept: Mask | None = None) -> Facets:
    """The facets of what is kept (or of all); keys of the sizes are the exponent of the power of two at or below."""
    chosen = slice(None) if kept is None else kept
    return Facets(
        _named(KINDS, shelf.columns["kind"][chosen]),
        _named(shelf.formats, shelf.columns["format"][chosen]),
        _powers(shelf.longer_side[chosen]),
        _powers(shelf.columns["size"][chosen]),
        _powers(shelf.length_ms[chosen]),
    )


def _named(names: tuple[str, ...], codes: Rows) -> dict[str, int]:
    counts = np.bincount(codes, minlength=len(names)).tolist()
    return dict(sorted(((n, c) for n, c in zip(names, counts, strict=True) if c), key=lambda item: -item[1]))


def _powers(values: Rows) -> dict[int, int]:
    exponents = np.frexp(values[values > 0].astype(np.float64))[1] - 1
    counts = np.bincount(exponents, minlength=1).tolist() if len(exponents) else []
    return {power: count for power, count in enumerate(counts) if count}


GROUPINGS = ("folder", "archive", "kind", "format", "size")
ORDERS = ("largest", "smallest", "longest", "heaviest", "name", "changed")


@dataclass(frozen=True, slots=True)
class Group:
    """Some assets under one name: their rows, in the order in which to show them."""

    name: str
    rows: Rows


class Grouper:
    """Sorts a shelf once for each grouping; `groups` of what a sieve leaves is then a matter of picking."""

    def __init__(self, shelf: Shelf) -> None:
        self._shelf = shelf
        self._known: dict[tuple[str, str], tuple[tuple[str, ...], tuple[list[str], Rows, Rows]]] = {}

    def groups(
        self,
        kept: Mask | None,
        by: str,
        order: str,
        codes: tuple[list[str], Rows] | None = None,
        changed: Sequence[str] = (),
    ) -> list[Group]:
        """What is kept, in named groups. `codes` (names, and the group of each asset or -1) are for groupings of one's own;
        `changed` are the paths that come first, in their order, when they are ordered so."""
        names, sorted_rows, groups = self._sorted(
            by, order, codes, tuple(changed) if order == "changed" else ()
        )
        rows = sorted_rows if kept is None else sorted_rows[kept[sorted_rows]]
        rows = rows[groups[rows] >= 0]
        if not len(rows):
            return []
        found = groups[rows]
        starts = np.flatnonzero(np.diff(found, prepend=-2))
        return [
            Group(names[int(found[start])], part) for start, part in zip(starts, np.split(rows, starts[1:]), strict=True)
        ]  # fmt: skip

    def _sorted(
        self, by: str, order: str, codes: tuple[list[str], Rows] | None, changed: tuple[str, ...]
    ) -> tuple[list[str], Rows, Rows]:
        if codes is not None:
            return codes[0], self._shelf.order(codes[1], order, changed), codes[1]
        told, known = self._known.get((by, order), (None, None))
        if known is None or told != changed:
            names, groups = self._shelf.group_codes(by)
            known = names, self._shelf.order(groups, order, changed), groups
            self._known[by, order] = changed, known
        return known
