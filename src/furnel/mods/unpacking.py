"""What strangers pack, unpacked where it can do no harm: paths, links, twins, names of devices and bombs are refused.

Nothing that is in it is ever run, and nothing is written outside the folder that it is unpacked to.
"""

from __future__ import annotations

import contextlib
import lzma
import shutil
import stat
import tarfile
import unicodedata
import zipfile
import zlib
from collections.abc import Iterable, Iterator
from pathlib import Path
from typing import IO, cast

import zstandard

from furnel.containers import check_path
from furnel.containers.readonly import Exactly, members, pour, refusing
from furnel.containers.tarred import ShortMember, is_tar, packing_named
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, check

WHAT = "Looking into a mod"
MOST_FILES, MOST_BYTES = 50_000, 32 << 30
_PIECE, _LONGEST_NAME, _RATIO, _FREE = 1 << 20, 200, 1200, 16 << 20
_FREE_ALL = 256 << 20
_DEVICES = {
    "con",
    "prn",
    "aux",
    "nul",
    *(f"{port}{number}" for port in ("com", "lpt") for number in range(1, 10)),
}
_SEVEN = b"7z\xbc\xaf\x27\x1c"
_DAMAGE = (
    zipfile.BadZipFile, tarfile.TarError, zlib.error, zstandard.ZstdError, OSError, EOFError, ValueError, OverflowError,
    RuntimeError, LookupError, NotImplementedError, AttributeError, MemoryError, lzma.LZMAError,
)  # fmt: skip


def unpack_mod(source: Path, folder: Path, progress: Progress = QUIET) -> None:
    """Every file of a ZIP, a 7z, a TAR (plain or packed) or a folder below `folder`, which has to be empty.

    Raises FurnelError for anything that is not plain files with plain names; what was written until then lies in `folder`.
    """
    taker = _Taker(source, folder, progress)
    try:
        if source.is_dir():
            _folder(source, taker)
        elif not source.is_file():
            raise FurnelError(WHAT, where=source, why="there is no such file", remedy="Check the path")
        elif zipfile.is_zipfile(source):
            _zip(source, taker)
        elif is_tar(source):
            _tar(source, taker)
        elif _begins(source) == _SEVEN:
            _seven(source, taker)
        else:
            raise FurnelError(
                WHAT, where=source, why="it is no ZIP, no 7z, no TAR and no folder",
                remedy="Unpack it with the program that it was packed with, and give the folder",
            )  # fmt: skip
    except FurnelError:
        raise
    except _DAMAGE as error:
        why = reason(error) if isinstance(error, OSError) else str(error)
        raise FurnelError(
            WHAT, where=source, why=why or "it is damaged", remedy="Take a fresh copy of it"
        ) from error


class _Taker:
    """Writes files one by one, and watches what comes."""

    def __init__(self, source: Path, folder: Path, progress: Progress) -> None:
        self._source, self._folder, self._progress = source, folder, progress
        self._packed = MOST_BYTES if source.is_dir() else source.stat().st_size if source.is_file() else 0
        self._room = shutil.disk_usage(folder).free if folder.exists() else MOST_BYTES
        self._names: dict[str, str] = {}
        self._folders: dict[str, str] = {}
        self._bytes = 0

    def take(self, path: str, size: int, stored: int, stream: IO[bytes]) -> None:
        """One file: what it is called, how large it claims to be and is stored, and its bytes."""
        with self.into(path, size, stored) as out:
            while piece := stream.read(_PIECE):
                out.write(piece)

    @contextlib.contextmanager
    def into(self, path: str, size: int, stored: int) -> Iterator[Exactly]:
        """A file to write, which has to become as large as it claims to be."""
        check(self._progress, WHAT)
        self.name(path)
        self._bytes += size
        most = min(MOST_BYTES, self._packed * _RATIO + _FREE_ALL)  # of all files together
        if len(self._names) > MOST_FILES or self._bytes > most or size > stored * _RATIO + _FREE:
            raise self._no(path, "it claims to be far more than a mod is")
        if self._bytes > self._room:
            raise self._no(path, "there is not that much room on the disk")
        target = self._folder / path
        target.parent.mkdir(parents=True, exist_ok=True)
        with target.open("xb") as out:
            into = Exactly(out, size, lambda: self._no(path, "it is larger than it says"))
            yield into
        if into.left:
            raise self._no(path, "it is smaller than it says")
        self._progress.report(min(self._bytes / (self._bytes + (64 << 20)), 0.99), f"Unpacking {path}")

    def name(self, path: str) -> None:
        """Refuse a path that is not safe, that another file has already, or that some file system could not have."""
        try:
            check_path(path, self._source)
        except FurnelError as error:
            raise self._no(path, error.why.rpartition(": ")[2]) from error
        parts = path.split("/")
        for part in parts:
            if part.split(".")[0].casefold() in _DEVICES:
                raise self._no(path, f"{part} is the name of a device on some systems")
            if len(part.encode()) > _LONGEST_NAME or part[-1] in ". " or set(part) & set('<>:"|?*'):
                raise self._no(
                    path, "a part of its path is longer than a name can be, or has signs that no name has"
                )
        for deep in range(1, len(parts)):
            above = "/".join(parts[:deep])
            twin = self._folders.setdefault(_plain(above), above)
            if twin != above or _plain(above) in self._names:
                raise self._no(
                    path, f"{twin} and {above} would be one folder on some systems, or a file and a folder"
                )
        twin = self._names.setdefault(_plain(path), path)
        if twin != path or _plain(path) in self._folders or (self._folder / path).exists():
            raise self._no(path, f"{twin} is in it twice, or in another spelling of the same name")

    def check_all(self, names: Iterable[str]) -> None:
        """Refuse a package of which something was not unpacked."""
        for name in names:
            if not (self._folder / name).is_file():
                raise self._no(name, "it could not be unpacked")

    def refuse(self, path: str, what: str) -> FurnelError:
        """The refusal for something that is no plain file."""
        return self._no(path, f"it is {what}, and mods are plain files")

    def _no(self, path: str, why: str) -> FurnelError:
        return FurnelError(
            WHAT, where=f"{self._source.name}, {path[:120]!r}", why=why,
            remedy="Nothing was put into the game. Ask whoever made it for another package",
        )  # fmt: skip


def _plain(path: str) -> str:
    """A path as a file system sees it that minds neither letter case nor how accents are spelled."""
    return unicodedata.normalize("NFC", path).casefold()


def _zip(source: Path, taker: _Taker) -> None:
    with zipfile.ZipFile(source) as packed:
        for info in packed.infolist():
            kind = stat.S_IFMT(info.external_attr >> 16)
            if info.is_dir():
                continue
            if kind not in (0, stat.S_IFREG):
                raise taker.refuse(info.filename, "a link or a device")
            if info.flag_bits & 1:
                raise taker.refuse(info.filename, "encrypted")
            with packed.open(info) as stream:
                taker.take(info.filename, info.file_size, info.compress_size, stream)


@contextlib.contextmanager
def _plain_tar(source: Path) -> Iterator[IO[bytes]]:
    with source.open("rb") as raw:
        if packing_named(source) == "zstd":
            with zstandard.ZstdDecompressor().stream_reader(raw) as stream:
                yield cast(IO[bytes], stream)
        else:
            yield raw


def _tar(source: Path, taker: _Taker) -> None:
    size = source.stat().st_size
    with _plain_tar(source) as raw:
        mode = "r|" if packing_named(source) == "zstd" else "r|*"
        with tarfile.open(fileobj=raw, mode=mode, tarinfo=ShortMember) as packed:  # type: ignore[call-overload]
            for member in packed:
                name = member.name.removeprefix("./")
                if member.isdir():
                    continue
                if not member.isreg():
                    raise taker.refuse(name, "a link or a device")
                found = packed.extractfile(member)
                assert found is not None
                taker.take(name, member.size, size, found)


def _begins(source: Path) -> bytes:
    with source.open("rb") as stream:
        return stream.read(len(_SEVEN))


def _seven(source: Path, taker: _Taker) -> None:
    stored = source.stat().st_size
    with refusing("a 7z archive", source), source.open("rb") as stream:
        found = members(stream, source)
        for one in found:
            if not one.is_file:
                raise taker.refuse(one.path, "a link or a device")
        stream.seek(0)
        sizes = {one.path: one.size for one in found}
        pour(stream, sizes, lambda path, size: taker.into(path, size, stored))
        taker.check_all(sizes)


def _folder(source: Path, taker: _Taker) -> None:
    for file in sorted(source.rglob("*")):
        name = file.relative_to(source).as_posix()
        if file.is_symlink():
            raise taker.refuse(name, "a link")
        if file.is_dir() or any(part.startswith(".") for part in file.relative_to(source).parts):
            continue
        if not file.is_file():
            raise taker.refuse(name, "a device")
        size = file.stat().st_size
        with file.open("rb") as stream:
            taker.take(name, size, size, stream)
