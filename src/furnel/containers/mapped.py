"""Where an archive's bytes come from: a file, mapped and not read until it is used, or memory."""

from __future__ import annotations

import contextlib
import io
import mmap
import os
from collections.abc import Callable, Iterator, Mapping
from pathlib import Path
from typing import BinaryIO, Protocol

from furnel.errors import FurnelError, reason

_PIECE = 1 << 20


class Source(Protocol):
    """The bytes of an archive as a read-only `view`; `name` tells where they are from, for messages."""

    name: str

    @property
    def view(self) -> memoryview: ...

    def copy(self, start: int, end: int, out: BinaryIO) -> None:
        """Write a span of it to `out`, in pieces."""

    def beside(self, suffix: str) -> Source:
        """The file of the same name with another ending."""

    def named(self, name: str) -> Source | None:
        """The file of that name beside it; None when there is none."""

    def stream(self) -> BinaryIO:
        """It as a stream that can be sought."""

    def close(self) -> None:
        """Let go of it."""


class MappedFile:
    """The bytes of a file.

    With `here_and_there` only what is touched is brought into memory, nothing around it.
    """

    def __init__(self, path: Path, here_and_there: bool = False) -> None:
        self.path, self.name = path, str(path)
        self._map: mmap.mmap | None = None
        try:
            self._file = path.open("rb")
            size = self._file.seek(0, 2)
            if size:
                self._map = mmap.mmap(self._file.fileno(), 0, access=mmap.ACCESS_READ)
                if here_and_there:
                    self._map.madvise(mmap.MADV_RANDOM)
        except OSError as error:
            raise FurnelError("Opening an archive", where=path, why=reason(error)) from error
        self._view = memoryview(self._map) if self._map is not None else memoryview(b"")

    @property
    def view(self) -> memoryview:
        """The file's bytes. Raises FurnelError when it is shorter than it was: what is gone cannot be touched."""
        if (
            self._map is not None
            and not self._file.closed
            and os.fstat(self._file.fileno()).st_size < len(self._view)
        ):
            raise FurnelError(
                "Reading an archive", where=self.name, why="another program is writing it anew",
                remedy="Wait until that is done, then open the game again",
            )  # fmt: skip
        return self._view

    def copy(self, start: int, end: int, out: BinaryIO) -> None:
        """The kernel does it, file to file, where it can; holes stay holes."""
        try:
            number = out.fileno()
        except (OSError, io.UnsupportedOperation):
            for at in range(start, end, _PIECE):
                out.write(self.view[at : min(at + _PIECE, end)])
            return
        out.flush()
        place = out.tell()
        for begin, stop in data_spans(self._file.fileno(), start, end):
            copy_span(self._file.fileno(), begin, number, place + begin - start, stop - begin)
        out.seek(place + end - start)
        if os.fstat(number).st_size < place + end - start:
            out.truncate()

    @property
    def number(self) -> int:
        """The open file's number."""
        return self._file.fileno()

    def beside(self, suffix: str) -> Source:
        try:
            return MappedFile(self.path.with_suffix(suffix))
        except ValueError as error:
            raise FurnelError(
                "Opening an archive", where=self.path, why=f"{suffix!r} is no ending"
            ) from error

    def named(self, name: str) -> Source | None:
        file = self.path.with_name(name)
        return MappedFile(file) if file.is_file() else None

    def stream(self) -> BinaryIO:
        return self.path.open("rb")

    def close(self) -> None:
        """A span of it still in use somewhere (a refusal's trace, say) lets go of it later."""
        self._file.close()
        with contextlib.suppress(BufferError):
            self._view.release()
            if self._map is not None:
                self._map.close()


class Written(MappedFile):
    """A file that is still being written (open for reading, too), read back under the name that it will have; `others` are
    those that are written with it, by their ending."""

    def __init__(self, stream: BinaryIO, target: Path, others: Mapping[str, BinaryIO] | None = None) -> None:
        stream.flush()
        super().__init__(Path(f"/proc/self/fd/{stream.fileno()}"))
        self.name, self._target, self._others = str(target), target, others or {}

    def beside(self, suffix: str) -> Source:
        if suffix not in self._others:
            raise FurnelError(
                "Opening an archive",
                where=self.name,
                why=f"nothing is written beside it that ends in {suffix}",
            )
        return Written(self._others[suffix], self._target.with_suffix(suffix))

    def named(self, name: str) -> Source | None:
        return Written(self._others[name], self._target.with_name(name)) if name in self._others else None


class HeldBytes:
    """Bytes in memory: an archive inside another one. `fetch` finds the files beside it."""

    def __init__(
        self, data: bytes | memoryview, name: str, fetch: Callable[[str], bytes | memoryview] | None = None
    ) -> None:
        self.name, self._view, self._fetch = name, memoryview(data), fetch

    @property
    def view(self) -> memoryview:
        """The bytes."""
        return self._view

    def copy(self, start: int, end: int, out: BinaryIO) -> None:
        out.write(self.view[start:end])

    def beside(self, suffix: str) -> Source:
        stem = self.name.rsplit(".", 1)[0] + suffix
        if self._fetch is None:
            raise FurnelError("Opening an archive", where=self.name, why=f"there is no {stem} beside it")
        return HeldBytes(self._fetch(suffix), stem)

    def named(self, name: str) -> Source | None:
        return None

    def stream(self) -> BinaryIO:
        return io.BytesIO(self.view)

    def close(self) -> None:
        pass


def copy_span(source: int, start: int, target: int, place: int, count: int) -> None:
    """`count` bytes from one open file to another, without passing through this program where the system can."""
    while count > 0:
        try:
            done = os.copy_file_range(source, target, min(count, 1 << 30), start, place)
        except OSError:
            done = 0
        if done == 0:
            piece = os.pread(source, min(count, _PIECE), start)
            if not piece:
                return
            done = os.pwrite(target, piece, place)
        start, place, count = start + done, place + done, count - done


def data_spans(number: int, start: int, end: int) -> Iterator[tuple[int, int]]:
    """The parts of a span of a file that are not holes."""
    at = start
    while at < end:
        try:
            at = os.lseek(number, at, os.SEEK_DATA)
            stop = os.lseek(number, at, os.SEEK_HOLE)
        except OSError:  # nothing but a hole up to the end, or a file system that does not know them
            if at == start and not _knows_holes(number):
                yield start, end
            return
        if at >= end:
            return
        yield at, min(stop, end)
        at = stop


def _knows_holes(number: int) -> bool:
    try:
        os.lseek(number, 0, os.SEEK_HOLE)
    except OSError:
        return False
    return True
