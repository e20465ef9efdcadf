"""Carving: finding files of known kinds inside any file by their signatures, and putting others in their place.

A find's length comes from the format's own header, so that only what is whole is found; what cannot be followed to its end is
left alone. What is looked for are the picture and sound files whose records tell their length, and ZIP (APPNOTE 4.3.16).
"""

from __future__ import annotations

import re
import struct
from bisect import bisect_left
from collections import Counter
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

import numpy as np

from furnel.atomic import replacing
from furnel.containers.container import Changes, Entry, missing_entry
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError
from furnel.imagefiles import PICTURE_FILES
from furnel.progress import QUIET, Progress, check
from furnel.sound import SOUND_FILES

_WHAT = "Carving a file"
_MOST_FINDS = 200_000
_WINDOW, _LARGE = 32 << 20, 4 << 20
_MOST_ENDS = 200  # records that may end a ZIP, looked at for each beginning


@dataclass(frozen=True, slots=True)
class Find:
    """A file found in another: its kind (the ending it would have), where it begins and how many bytes it has."""

    kind: str
    offset: int
    size: int

    @property
    def path(self) -> str:
        return f"{self.offset:010x}.{self.kind}"


def find_files(
    data: memoryview, progress: Progress = QUIET, broken: Counter[str] | None = None
) -> list[Find]:
    """Every whole file of a known kind, in order; a file inside another one found is not told apart. `broken` counts what
    begins like one and does not hold together: its chunks or pages have other sums, or it is cut short."""
    out: list[Find] = []
    end, zips = 0, _Zips(data)
    for start in range(0, len(data), _WINDOW):
        check(progress, _WHAT)
        progress.report(start / max(len(data), 1), "Looking for known files")
        window = bytes(data[start : start + _WINDOW + 16])
        for place, kind in _beginnings(window):
            at = start + place
            if place >= _WINDOW or at < end:
                continue
            length = _KINDS[kind][1]
            size = length(data[at:]) if length is not None else zips.length(at)
            if not size or at + size > len(data):
                if broken is not None:
                    broken[kind] += 1
            else:
                out.append(Find(kind, at, size))
                end = at + size
                if len(out) >= _MOST_FINDS:
                    return out
    return out


def _beginnings(window: bytes) -> list[tuple[int, str]]:
    """Where a signature stands, in order: its plain letters are looked for as fast as memory goes, then all of it."""
    if len(window) >= _LARGE:
        return _in_one_go(window)
    out = []
    for letters, kinds in _LETTERS.items():
        at = window.find(letters)
        while at >= 0:
            out += [(at, kind) for kind, whole in kinds if whole.match(window, at)]
            at = window.find(letters, at + 1)
    return sorted(out)


def _in_one_go(window: bytes) -> list[tuple[int, str]]:
    """As `_beginnings`, with one look at every byte for all signatures together; worth it where there are many bytes."""
    from furnel.containers.packkernels import begins_in

    data, begin = np.frombuffer(window, np.uint8).copy(), 0
    table = np.zeros((4, 256), np.uint8)
    for number, letters in enumerate(_LETTERS):
        table[np.arange(4), list(letters[:4])] |= 1 << number % 8
    out, places = [], np.empty(1 << 16, np.int64)
    while True:
        count = begins_in(data[begin:], table, places)
        for at in (places[:count] + begin).tolist():
            for letters, kinds in _LETTERS.items():
                if window.startswith(letters, at):
                    out += [(at, kind) for kind, whole in kinds if whole.match(window, at)]
        if count < len(places):
            return sorted(out)
        begin += int(places[-1]) + 1


class Carved:
    """A file of an unknown kind, as an archive of the files found in it. They can be replaced where they fit."""

    kind = "carved"

    def __init__(self, path: Path, progress: Progress = QUIET) -> None:
        self.path = path
        self._main = MappedFile(path)
        self._finds = {find.path: find for find in find_files(self._main.view, progress)}

    def entries(self) -> Sequence[Entry]:
        return [Entry(path, find.size, find.size) for path, find in self._finds.items()]

    def read(self, path: str) -> bytes:
        return bytes(self.view(path))

    def view(self, path: str) -> memoryview:
        if path not in self._finds:
            raise missing_entry(path, self.path)
        find = self._finds[path]
        return self._main.view[find.offset : find.offset + find.size]

    def peek(self, path: str, size: int) -> bytes:
        return bytes(self.view(path)[:size])

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._finds, self.path)
        if changes.add or changes.remove or changes.rename:
            raise FurnelError(
                "Writing a carved file", where=self.path, why="nobody knows how this file is built",
                remedy="Only what was found can be replaced, in its place; describe the file with a layout to do more",
            )  # fmt: skip
        fresh = {}
        for path, content in changes.replace.items():
            data = content.read_bytes() if isinstance(content, Path) else content
            find = self._finds[path]
            if len(data) > find.size:
                raise FurnelError(
                    "Writing a carved file", where=f"{self.path}, {path}",
                    why=f"it has room for {find.size} bytes and the new one has {len(data)}",
                    remedy="Make it smaller: the same size and format, fewer levels, a lower rate",
                )  # fmt: skip
            fresh[find.offset] = data + bytes(find.size - len(data))
        with replacing(target) as out:
            self._main.copy(0, len(self._main.view), out)
            for offset, data in fresh.items():
                out.seek(offset)
                out.write(data)
            out.seek(0, 2)

    def close(self) -> None:
        self._main.close()


class _Zips:
    """ZIP archives in some bytes: each ends with the record that says where its directory begins, as it should."""

    def __init__(self, data: memoryview) -> None:
        self._data = data
        self._ends: list[int] | None = None  # looked for once, however many beginnings there are

    def length(self, at: int) -> int:
        """How many bytes one has that begins there; 0 where none does."""
        if self._ends is None:
            self._ends = [found.start() for found in re.finditer(rb"PK\x05\x06", self._data)]
        first = bisect_left(self._ends, at)
        for end in self._ends[first : first + _MOST_ENDS]:
            if end + 22 <= len(self._data):
                size, offset, comment = struct.unpack_from("<IIH", self._data, end + 12)
                if offset + size == end - at:
                    return int(end - at + 22 + comment)
        return 0


_KINDS: dict[str, tuple[bytes, Callable[[memoryview], int] | None]] = {
    **{one.suffixes[0][1:]: (one.signature, one.length) for one in PICTURE_FILES if one.length is not None},
    **{
        one.suffixes[0][1:]: (one.whole or one.signature, one.length)
        for one in SOUND_FILES
        if one.length is not None
    },
    "zip": (rb"PK\x03\x04", None),  # see _Zips
}
"""What is looked for: the ending of such a file, its signature, and its length where one begins."""


def _plain_letters(signature: bytes) -> bytes:
    """The bytes with which every match of a signature begins."""
    parsed = re.match(rb"(?:\\x[0-9A-Fa-f]{2}|\\[rnt0]|[^\\.|()\[\]*+?{}^$])+", signature)
    assert parsed is not None
    return parsed.group().decode("latin-1").encode("latin-1").decode("unicode_escape").encode("latin-1")


_LETTERS: dict[bytes, list[tuple[str, re.Pattern[bytes]]]] = {}
for _kind, (_signature, _) in _KINDS.items():
    _LETTERS.setdefault(_plain_letters(_signature), []).append((_kind, re.compile(_signature, re.DOTALL)))
