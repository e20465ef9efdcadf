"""Entries' bytes in numbered files beside the archive: read as one stream, written where they were or behind the last."""

from __future__ import annotations

import io
from bisect import bisect_right
from collections.abc import Sequence
from pathlib import PurePath
from typing import BinaryIO, cast

from furnel.containers.mapped import Source
from furnel.containers.tableparts import VolumesPart
from furnel.errors import FurnelError

_MOST = 1000


class _Joined:
    """Several views as one that is sliced and measured; a slice within one of them is no copy."""

    def __init__(self, views: Sequence[memoryview], starts: Sequence[int]) -> None:
        self._views, self._starts = views, starts

    def __len__(self) -> int:
        return self._starts[-1]

    def __getitem__(self, wanted: slice) -> memoryview:
        start, end, _ = wanted.indices(len(self))
        place = max(bisect_right(self._starts, start) - 1, 0)
        if place < len(self._views) and end <= self._starts[place + 1]:
            return self._views[place][start - self._starts[place] : max(end, start) - self._starts[place]]
        parts = []
        while start < end:
            parts.append(self._views[place][start - self._starts[place] : end - self._starts[place]])
            start, place = self._starts[place + 1], place + 1
        return memoryview(b"".join(parts))


class Volumes:
    """The numbered files of an archive, one behind the other; `starts` is where each begins, and where the last ends."""

    def __init__(self, main: Source, part: VolumesPart) -> None:
        self.name, self._files = main.name, list[Source]()
        while (file := main.named(part.file_name(main.name, len(self._files)))) is not None and len(
            self._files
        ) < _MOST:
            self._files.append(file)
        if not self._files:
            raise FurnelError(
                "Opening an archive", where=main.name, why=f"there is no {part.file_name(main.name, 0)} beside it",
                remedy="Its data lies in numbered files: put them into the same folder",
            )  # fmt: skip
        self.starts = [0]
        for file in self._files:
            self.starts.append(self.starts[-1] + len(file.view))
        self.view = cast(memoryview, _Joined([file.view for file in self._files], self.starts))

    @property
    def lengths(self) -> list[int]:
        """The size of each."""
        return [end - start for start, end in zip(self.starts, self.starts[1:], strict=False)]

    def copy(self, start: int, end: int, out: BinaryIO) -> None:
        for file, begin in zip(self._files, self.starts, strict=False):
            first, last = max(start - begin, 0), min(end - begin, len(file.view))
            if first < last:
                file.copy(first, last, out)

    def volume_at(self, place: int) -> int:
        """In which of them a place is; the last where it is behind all."""
        return min(max(bisect_right(self.starts, place) - 1, 0), len(self._files) - 1)

    def copy_file(self, number: int, out: BinaryIO) -> None:
        """All of one of them."""
        self._files[number].copy(0, len(self._files[number].view), out)

    def named(self, name: str) -> Source | None:
        return None

    def beside(self, suffix: str) -> Source:
        raise FurnelError(
            "Opening an archive", where=self.name, why=f"a volume has nothing beside it that ends in {suffix}"
        )

    def stream(self) -> BinaryIO:
        return io.BytesIO(self.view[0 : len(self.view)])

    def close(self) -> None:
        for file in self._files:
            file.close()


class Spread:
    """Writes bytes from a place of several files on, over their ends into the next: each takes `size` bytes."""

    def __init__(self, files: Sequence[BinaryIO], number: int, at: int, size: int | None) -> None:
        self._files, self._number, self._at, self._size = files, number, at, size
        if size is not None:
            self._number, self._at = divmod(at, size)

    def write(self, data: bytes | memoryview) -> int:
        left = memoryview(data)
        while len(left):
            room = len(left) if self._size is None else self._size - self._at
            if room == 0:
                self._number, self._at = self._number + 1, 0
                continue
            file = self._files[self._number]
            file.seek(self._at)
            file.write(left[:room])
            self._at, left = self._at + len(left[:room]), left[room:]
        return len(data)


def volume_names(part: VolumesPart, archive: str, count: int) -> list[str]:
    """The names of so many volumes beside an archive."""
    return [part.file_name(PurePath(archive).name, number) for number in range(count)]
