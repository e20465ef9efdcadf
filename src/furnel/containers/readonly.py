"""Archives that are read through well-kept libraries and never written: 7z, and images of ISO 9660 with what extends it."""

from __future__ import annotations

import contextlib
import lzma
import struct
import tempfile
import zlib
from collections.abc import Callable, Iterator, Mapping, Sequence
from contextlib import AbstractContextManager
from pathlib import Path
from typing import BinaryIO, NamedTuple, Protocol

from furnel.atomic import replacing, scratch_in
from furnel.containers.container import MOST_ENTRY_BYTES, Changes, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile, Source
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress

_MOST, _RATIO, _FREE = 64 << 30, 8000, 16 << 20
_SEVEN = b"7z\xbc\xaf\x27\x1c"
_ISO, _ISO_AT = b"CD001", 32769
_FRESH = "Take a fresh copy of it"
_DAMAGE: tuple[type[Exception], ...] = (
    OSError, EOFError, ValueError, OverflowError, MemoryError, RuntimeError, LookupError, AttributeError, TypeError,
    AssertionError, struct.error, zlib.error, lzma.LZMAError,
)  # fmt: skip


def read_only_kind(path: Path) -> type[ReadOnly] | None:
    """What a file begins like."""
    with path.open("rb") as stream:
        if stream.read(len(_SEVEN)) == _SEVEN:
            return SevenZip
        stream.seek(_ISO_AT)
        return Iso if stream.read(len(_ISO)) == _ISO else None


class Listed:
    """An archive whose entries are listed at once. Folders, links and devices are left out."""

    kind = ""
    called = ""
    _entries: dict[str, Entry]

    def __init__(self, path: Path, source: Source | None = None) -> None:
        self.path = path
        self._holding = contextlib.ExitStack()
        self._outer: Source = source or MappedFile(path)
        self._holding.callback(self._outer.close)
        try:
            with refusing(self.called, path):
                self._entries = {}
                for entry in self._listed():
                    if check_path(entry.path, path) in self._entries:
                        raise FurnelError(
                            self._reading, where=f"{path}, {entry.path}", why="its path occurs twice"
                        )
                    self._entries[entry.path] = entry
        except FurnelError:
            self.close()
            raise

    @property
    def _reading(self) -> str:
        return f"Reading {self.called}"

    def _listed(self) -> Iterator[Entry]:
        """Every plain file."""
        raise NotImplementedError

    def _bytes(self, path: str) -> bytes | memoryview:
        """The content of an entry that is there."""
        raise NotImplementedError

    def entries(self) -> Sequence[Entry]:
        return list(self._entries.values())

    def read(self, path: str) -> bytes:
        return bytes(self.view(path))

    def view(self, path: str) -> bytes | memoryview:
        if path not in self._entries:
            raise missing_entry(path, self.path)
        if self._entries[path].size > MOST_ENTRY_BYTES:
            raise FurnelError(
                self._reading, where=f"{self.path}, {path}", why="it claims to be far too large"
            )
        return self._bytes(path)

    def peek(self, path: str, size: int) -> bytes:
        return bytes(self.view(path)[:size])

    def close(self) -> None:
        self._holding.close()


class ReadOnly(Listed):
    """An archive that only gives."""

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._entries, self.path)
        if changes:
            raise FurnelError(
                "Changing an archive", where=self.path, why=f"{self.called} is read and not written",
                remedy="Unpack it and pack the folder as a ZIP or TAR, or make a mod whose files lie loose",
            )  # fmt: skip
        with replacing(target) as out:
            self._outer.copy(0, len(self._outer.view), out)


@contextlib.contextmanager
def refusing(called: str, where: object) -> Iterator[None]:
    """Tell in one sentence what a library found to be damaged."""
    try:
        yield
    except FurnelError:
        raise
    except Exception as error:
        if not isinstance(error, _DAMAGE) and type(error).__module__.split(".")[0] not in (
            "py7zr",
            "pycdlib",
        ):
            raise
        why = reason(error) if isinstance(error, OSError) and error.errno else str(error)
        raise FurnelError(
            f"Reading {called}", where=where, why=why or "it is damaged", remedy=_FRESH
        ) from error


class Iso(ReadOnly):
    """An image of a disc (ECMA-119), with the longest names that it tells: Joliet, Rock Ridge, UDF, or plain ones without
    their version."""

    kind, called = "iso", "an ISO image"

    def _listed(self) -> Iterator[Entry]:
        import pycdlib

        image = pycdlib.PyCdlib()
        image.open_fp(self._holding.enter_context(self._outer.stream()))
        self._holding.callback(image.close)
        told = {
            "joliet_path": image.has_joliet(),
            "rr_path": image.has_rock_ridge(),
            "udf_path": image.has_udf(),
        }
        names = next((kind for kind, is_there in told.items() if is_there), "iso_path")
        self._runs: dict[str, list[tuple[int, int]]] = {}
        for above, _, files in image.walk(**{names: "/"}):
            for file in files:
                whole = f"{above.rstrip('/')}/{file}"
                try:
                    runs = image.get_file_byte_extents(**{names: whole})
                except pycdlib.pycdlibexception.PyCdlibInvalidInput:
                    continue  # a link
                path = whole.lstrip("/")
                path = path.partition(";")[0].removesuffix(".") if names == "iso_path" else path
                if any(at < 0 or size < 0 or at + size > len(self._outer.view) for at, size in runs):
                    raise FurnelError(
                        self._reading,
                        where=f"{self.path}, {path}",
                        why="it runs over the file's end",
                        remedy=_FRESH,
                    )
                self._runs[path] = runs
                size = sum(size for _, size in runs)
                yield Entry(path, size, size)

    def _bytes(self, path: str) -> bytes | memoryview:
        pieces = [self._outer.view[at : at + size] for at, size in self._runs[path]]
        return pieces[0] if len(pieces) == 1 else b"".join(pieces)


class Member(NamedTuple):
    """What is in a 7z: its path, its size in bytes, and whether it is a plain file (folders are not told)."""

    path: str
    size: int
    is_file: bool


class Taking(Protocol):
    """What an unpacked file is written to."""

    def write(self, data: bytes | bytearray, /) -> int: ...


Into = Callable[[str, int], AbstractContextManager[Taking]]


def members(stream: BinaryIO, where: object) -> list[Member]:
    """What a 7z says that is in it. Raises FurnelError for one that takes a password, or has a path twice."""
    import py7zr

    with py7zr.SevenZipFile(stream) as packed:
        if packed.needs_password():
            raise FurnelError(
                "Reading a 7z archive",
                where=where,
                why="it is encrypted",
                remedy="Unpack it with its password",
            )
        found = [
            Member(one.filename, one.uncompressed, one.is_file)
            for one in packed.list()
            if not one.is_directory
        ]
    if len({one.path for one in found}) != len(found):
        raise FurnelError("Reading a 7z archive", where=where, why="it has a file twice", remedy=_FRESH)
    return found


def pour(stream: BinaryIO, sizes: Mapping[str, int], into: Into) -> None:
    """Unpack the files of a 7z whose `sizes` are given, each `into` what takes it."""
    import py7zr
    from py7zr.io import Py7zIO, WriterFactory

    class Sink(Py7zIO):
        """A file that is being unpacked."""

        def __init__(self, name: str) -> None:
            self._size = sizes[name]
            self._holding = contextlib.ExitStack()
            self._into = self._holding.enter_context(into(name, self._size))

        def write(self, s: bytes | bytearray) -> int:
            return self._into.write(s)

        def read(self, size: int | None = None) -> bytes:
            return b""

        def seek(self, offset: int, whence: int = 0) -> int:
            return offset

        def flush(self) -> None:
            pass

        def size(self) -> int:
            return self._size

        def close(self) -> None:
            self._holding.close()

    class Sinks(WriterFactory):
        """Gives each file its place, and closes what is left open."""

        def __init__(self) -> None:
            self.open: list[Sink] = []

        def create(self, filename: str) -> Py7zIO:
            self.open.append(Sink(filename))
            return self.open[-1]

    sinks = Sinks()
    with py7zr.SevenZipFile(stream) as packed:
        packed.extract(targets=list(sizes), factory=sinks)
    for sink in sinks.open:
        sink.close()


class Exactly:
    """A file that takes as many bytes as were told, and no more."""

    def __init__(self, out: BinaryIO, size: int, refusal: Callable[[], FurnelError]) -> None:
        self._out, self.left, self._refusal = out, size, refusal

    def write(self, data: bytes | bytearray, /) -> int:
        self.left -= len(data)
        if self.left < 0:
            raise self._refusal()
        return self._out.write(data)


class SevenZip(ReadOnly):
    """A 7z archive. It is unpacked as a whole, where it is gone again, when the first of it is read: its files are packed
    together."""

    kind, called = "7z", "a 7z archive"

    def _listed(self) -> Iterator[Entry]:
        self._unpacked: dict[str, Source] | None = None
        found = [one for one in members(self._stream(), self.path) if one.is_file]
        most = min(_MOST, len(self._outer.view) * _RATIO + _FREE)
        if sum(one.size for one in found) > most:
            raise FurnelError(
                self._reading, where=self.path, why="it claims to unpack to far more than it can"
            )
        share = len(self._outer.view) / max(sum(one.size for one in found), 1)
        yield from (Entry(one.path, one.size, int(one.size * min(share, 1))) for one in found)

    def _stream(self) -> BinaryIO:
        return self._holding.enter_context(self._outer.stream())

    def _bytes(self, path: str) -> bytes | memoryview:
        if self._unpacked is None:
            with refusing(self.called, self.path):
                self._unpacked = self._unpack()
        return self._unpacked[path].view

    def _unpack(self) -> dict[str, Source]:
        folder = self._holding.enter_context(scratch_in(Path(tempfile.gettempdir())))
        files = {path: folder / str(number) for number, path in enumerate(self._entries)}

        def no(path: str) -> FurnelError:
            return FurnelError(
                self._reading, where=f"{self.path}, {path}", why="it unpacks to another size than it says"
            )

        @contextlib.contextmanager
        def into(path: str, size: int) -> Iterator[Exactly]:
            with files[path].open("xb") as out:
                taking = Exactly(out, size, lambda: no(path))
                yield taking
            if taking.left:
                raise no(path)

        pour(self._stream(), {path: entry.size for path, entry in self._entries.items()}, into)
        missing = next((path for path, file in files.items() if not file.exists()), None)
        if missing is not None:
            raise no(missing)
        out: dict[str, Source] = {}
        for path, file in files.items():
            out[path] = MappedFile(file)
            self._holding.callback(out[path].close)
        return out
