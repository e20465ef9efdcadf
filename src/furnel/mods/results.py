"""Results of swaps: on disk, read when they are wanted; only the latest used ones stay in memory."""

from __future__ import annotations

import threading
from collections import OrderedDict
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from furnel.catalogue.marks import content_digest
from furnel.errors import FurnelError, reason

_MOST = 96_000_000  # bytes of results in memory


class _Latest:
    """The latest used results, up to a size. Safe to use from several threads."""

    def __init__(self) -> None:
        self._kept: OrderedDict[Result, bytes] = OrderedDict()
        self._bytes = 0
        self._lock = threading.Lock()

    def get(self, result: Result) -> bytes | None:
        with self._lock:
            if result in self._kept:
                self._kept.move_to_end(result)
            return self._kept.get(result)

    def put(self, result: Result, data: bytes) -> None:
        with self._lock:
            if result not in self._kept:
                self._kept[result] = data
                self._bytes += len(data)
            while self._bytes > _MOST and len(self._kept) > 1:
                self._bytes -= len(self._kept.popitem(last=False)[1])


_latest = _Latest()


@dataclass(frozen=True, slots=True)
class Result:
    """A swap's result: the file that has it, its size in bytes, its digest."""

    file: Path
    size: int
    digest: bytes

    @classmethod
    def of(cls, file: Path, data: bytes) -> Result:
        """What a file has, whose bytes are at hand."""
        made = cls(file, len(data), content_digest(data))
        _latest.put(made, data)
        return made

    def read(self) -> bytes:
        """The bytes, the very ones that were examined. Raises FurnelError when the file has others by now, or is gone."""
        known = _latest.get(self)
        if known is not None:
            return known
        remedy = "Open the mod again: it is made anew"
        try:
            data = self.file.read_bytes()
        except OSError as error:
            raise FurnelError(
                "Reading a result", where=self.file, why=reason(error), remedy=remedy
            ) from error
        if content_digest(data) != self.digest:
            raise FurnelError(
                "Reading a result", where=self.file, why="it was changed meanwhile", remedy=remedy
            )
        _latest.put(self, data)
        return data


class _HasData(Protocol):
    @property
    def data(self) -> bytes: ...
    @property
    def size(self) -> int: ...


class ResultBytes(Mapping[str, bytes]):
    """The bytes of some examined swaps' results by original, each read when it is asked for."""

    def __init__(self, examined: Mapping[str, _HasData]) -> None:
        self._examined = {name: found for name, found in examined.items() if found.size}

    def __getitem__(self, original: str) -> bytes:
        return self._examined[original].data

    def __iter__(self) -> Iterator[str]:
        return iter(self._examined)

    def __len__(self) -> int:
        return len(self._examined)
