"""The shelf: everything that a game has, as columns, so that a hundred thousand assets are sifted in a few milliseconds."""

from __future__ import annotations

import re
from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from difflib import get_close_matches
from functools import cached_property
from itertools import islice
from typing import Any, overload

import numpy as np
import numpy.typing as npt

from furnel.games import Archive
from furnel.media import KINDS, Facts

Rows = npt.NDArray[np.int64]
Mask = npt.NDArray[np.bool_]
_WORD = re.compile(r"[^\W_]{3,}")
_MOST_WORDS, _NEAR = 400_000, 0.7

COLUMNS = (
    "size",
    "stored",
    "kind",
    "format",
    "width",
    "height",
    "levels",
    "rate",
    "channels",
    "frames",
    "role",
    "archive",
)


@dataclass(frozen=True, slots=True)
class Asset:
    """One thing that the game ships."""

    path: str
    archive: Archive
    inner: str
    size: int
    stored: int
    facts: Facts
    role: str
    title: str

    @property
    def folder(self) -> str:
        return self.path.rpartition("/")[0]

    @property
    def name(self) -> str:
        return self.title or plain_name(self.path)


def plain_name(path: str) -> str:
    """What a file is called, without its folder and its ending; whole where it has none."""
    name = path.rpartition("/")[2]
    return name.rpartition(".")[0] or name


class Shelf(Sequence[Asset]):
    """Assets by row. `columns` are int64 by the names in COLUMNS; kinds, formats, roles and archives are codes into lists."""

    def __init__(
        self,
        paths: list[str],
        columns: dict[str, Rows],
        formats: Sequence[str],
        roles: Sequence[str],
        archives: Sequence[Archive],
        titles: dict[str, str],
    ) -> None:
        self.paths, self.columns = paths, columns
        self.formats, self.roles, self.archives = tuple(formats), tuple(roles), tuple(archives)
        self._titles = titles

    def __len__(self) -> int:
        return len(self.paths)

    @overload
    def __getitem__(self, row: int) -> Asset: ...
    @overload
    def __getitem__(self, row: slice) -> list[Asset]: ...
    def __getitem__(self, row: int | slice) -> Asset | list[Asset]:
        if isinstance(row, slice):
            return [self._asset(place) for place in range(*row.indices(len(self)))]
        if not -len(self) <= row < len(self):
            raise IndexError(row)
        return self._asset(row % len(self))

    def __iter__(self) -> Iterator[Asset]:
        return map(self._asset, range(len(self)))

    def __eq__(self, other: object) -> bool:
        return isinstance(other, Shelf) and list(self) == list(other)

    __hash__ = None  # type: ignore[assignment]

    def prepare(self) -> Shelf:
        """Work out now what the first search and the first grouping would have to wait for."""
        for ready in (
            self._starts,
            self._rows,
            self._folders,
            self._by_name,
            self.longer_side,
            self.length_ms,
        ):
            assert ready is not None
        return self

    def row(self, path: str) -> int:
        """The row of a path, or -1."""
        return self._rows.get(path, -1)

    def title(self, row: int) -> str:
        """The name that the profile gives an asset, or nothing."""
        return self._titles.get(self.paths[row], "")

    def carry(self, titles: dict[str, str]) -> None:
        """Give some paths other titles."""
        self._titles = {**self._titles, **titles}
        for name in ("_words", "_letters", "_starts"):
            self.__dict__.pop(name, None)

    def name(self, row: int) -> str:
        """What to call an asset."""
        return self.title(row) or plain_name(self.paths[row])

    @cached_property
    def _rows(self) -> dict[str, int]:
        return {path: row for row, path in enumerate(self.paths)}

    def _asset(self, row: int) -> Asset:
        at = {name: int(self.columns[name][row]) for name in COLUMNS}
        archive, path = self.archives[at["archive"]], self.paths[row]
        facts = Facts(
            KINDS[at["kind"]], self.formats[at["format"]], at["width"], at["height"], at["levels"], at["rate"],
            at["channels"], at["frames"],
        )  # fmt: skip
        return Asset(
            path, archive, path[len(archive.prefix) :], at["size"], at["stored"], facts, self.roles[at["role"]],
            self.title(row),
        )  # fmt: skip

    # finding

    def with_words(self, text: str) -> Mask:
        """Which assets have all words of a text in their path or title, and none that has a minus before it; whatever the
        letters' case."""
        kept = np.ones(len(self), bool)
        for word in text.casefold().split():
            out = word.startswith("-") and len(word) > 1
            found = self._with_word(np.frombuffer(word[out:].encode(), np.uint8))
            kept &= ~found if out else found
        return kept

    def mended(self, text: str) -> str:
        """A text with what comes nearest in the place of every word that no path or title has; nothing when nothing is near."""
        words = []
        for word in text.casefold().split():
            if word.startswith("-") or self._with_word(np.frombuffer(word.encode(), np.uint8)).any():
                words.append(word)
                continue
            near = get_close_matches(word, self._vocabulary, 1, _NEAR) if len(word) > 2 else []
            if not near:
                return ""
            words.append(near[0])
        return " ".join(words)

    @cached_property
    def _vocabulary(self) -> list[str]:
        """The words that paths and titles are made of, up to a number that can be compared while somebody waits."""
        return list(
            dict.fromkeys(islice(_WORD.findall(bytes(self._letters).decode("utf-8", "ignore")), _MOST_WORDS))
        )

    def _with_word(self, word: npt.NDArray[np.uint8]) -> Mask:
        """One word, in all paths at once: letter by letter, then only where the first ones were right."""
        letters = self._letters
        room = max(len(letters) - len(word) + 1, 0)
        hits = letters[:room] == word[0]
        for place, letter in enumerate(word[1:3], 1):
            hits &= letters[place : place + room] == letter
        found = np.flatnonzero(hits)
        for place, letter in enumerate(word[3:], 3):
            found = found[letters[found + place] == letter]
        kept = np.zeros(len(self), bool)
        kept[np.searchsorted(self._starts, found, "right") - 1] = True
        return kept

    @cached_property
    def _letters(self) -> npt.NDArray[np.uint8]:
        return np.frombuffer(self._words, np.uint8)

    @cached_property
    def _words(self) -> bytes:
        """All paths and titles, one a line."""
        if not self._titles:
            return "\n".join(self.paths).casefold().encode()
        titles = self._titles
        lines = [f"{path} {titles[path]}" if path in titles else path for path in self.paths]
        return "\n".join(lines).casefold().encode()

    @cached_property
    def _starts(self) -> Rows:
        breaks = np.flatnonzero(self._letters == 10)
        return np.concatenate([np.zeros(1, np.int64), breaks + 1]) if len(self) else np.zeros(0, np.int64)

    @cached_property
    def longer_side(self) -> Rows:
        """Pixels of the longer side, 0 for what has none."""
        return np.maximum(self.columns["width"], self.columns["height"])

    @cached_property
    def length_ms(self) -> Rows:
        """Milliseconds, 0 for what has no length."""
        return self.columns["frames"] * 1000 // np.maximum(self.columns["rate"], 1)

    def with_role(self, role: str) -> list[str]:
        """The paths of all assets of a role."""
        if role not in self.roles:
            return []
        return [self.paths[row] for row in np.flatnonzero(self.columns["role"] == self.roles.index(role))]

    # orders

    @cached_property
    def _by_name(self) -> Rows:
        """The place of every asset in the order of their paths."""
        order = sorted(range(len(self)), key=self.paths.__getitem__)
        ranks = np.empty(len(self), np.int64)
        ranks[order] = np.arange(len(self))
        return ranks

    def order(self, groups: Rows, order: str, changed: Sequence[str] = ()) -> Rows:
        """Rows by group, then in one of ORDERS: pictures or sounds first where it is about their size or length, the
        `changed` paths in their order where it is about those."""
        if order == "changed":
            first = np.full(len(self), len(changed), np.int64)
            for place, path in enumerate(changed):
                if (row := self.row(path)) >= 0:
                    first[row] = place
            return np.lexsort((self._by_name, first, groups))
        area = self.columns["width"] * self.columns["height"]
        last = np.iinfo(np.int64).max
        by = {
            "largest": -area, "smallest": np.where(area == 0, last, area),
            "longest": -self.length_ms, "heaviest": -self.columns["size"],
        }.get(order)  # fmt: skip
        return np.lexsort((self._by_name, groups) if by is None else (self._by_name, by, groups))

    def group_codes(self, by: str) -> tuple[list[str], Rows]:
        """The names of groups in their order, and the group of every asset."""
        if by == "archive":
            return self._named([archive.name for archive in self.archives], self.columns["archive"])
        if by == "kind":
            return self._named(KINDS, self.columns["kind"])
        if by == "format":
            return self._named(self.formats, self.columns["format"])
        if by == "nothing":
            return ["everything"], np.zeros(len(self), np.int64)
        if by == "size":
            sizes = self.columns["width"] << 32 | self.columns["height"]
            found, codes = np.unique(sizes, return_inverse=True)
            names = [
                f"{size >> 32} × {size & 0xFFFFFFFF}" if size else "no pixels" for size in found.tolist()
            ]
            return names, codes.astype(np.int64)
        return self._folders

    @cached_property
    def _folders(self) -> tuple[list[str], Rows]:
        folders = [path.rpartition("/")[0] for path in self.paths]
        names = sorted(set(folders))
        places = {name: place for place, name in enumerate(names)}
        return names, np.fromiter(map(places.__getitem__, folders), np.int64, len(folders))

    def _named(self, names: Sequence[str], codes: Rows) -> tuple[list[str], Rows]:
        order = sorted(range(len(names)), key=lambda code: names[code])
        places: Any = np.empty(len(names), np.int64)
        places[order] = np.arange(len(names))
        return [names[code] for code in order], places[codes]
