"""TAR archives (POSIX.1-1988 ustar, POSIX.1-2001 pax, GNU tar), plain or packed as a whole: gzip, bzip2, xz, Zstandard."""

from __future__ import annotations

import contextlib
import io
import tarfile
import tempfile
from collections.abc import Iterable, Iterator, Mapping, Sequence
from pathlib import Path
from typing import BinaryIO, Self

from furnel.atomic import replacing, scratch_in
from furnel.containers.container import MOST_ENTRY_BYTES, Changes, Content, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile, Source, Written
from furnel.containers.packing import PACKINGS, pack_stream
from furnel.containers.proof import Proof, Stored
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, check, steps

WHAT = "Reading a TAR archive"
_BLOCK = 512
_MOST = 64 << 30
_BEGINS = {b"\x1f\x8b": "gzip", b"BZh": "bzip2", b"\xfd7zXZ\x00": "xz", b"\x28\xb5\x2f\xfd": "zstd"}
_ENDINGS = {
    ".tar": "none", ".tgz": "gzip", ".tar.gz": "gzip", ".tbz2": "bzip2", ".tar.bz2": "bzip2", ".txz": "xz", ".tar.xz": "xz",
    ".tar.zst": "zstd",
}  # fmt: skip
_SAYING = (
    tarfile.XHDTYPE, tarfile.XGLTYPE, tarfile.SOLARIS_XHDTYPE, tarfile.GNUTYPE_LONGNAME, tarfile.GNUTYPE_LONGLINK,
)  # fmt: skip
_LONGEST_SAYING = 1 << 20
_DAMAGE = (
    tarfile.TarError,
    OSError,
    EOFError,
    ValueError,
    OverflowError,
    MemoryError,
    RuntimeError,
    LookupError,
)


class ShortMember(tarfile.TarInfo):
    """A member of a TAR; what is said of the next one is read into memory, and is short."""

    @classmethod
    def frombuf(cls, buf: bytes | bytearray, encoding: str, errors: str) -> Self:
        found = super().frombuf(buf, encoding, errors)
        if found.type in _SAYING and found.size > _LONGEST_SAYING:
            raise FurnelError(
                WHAT, where=found.name, why=f"{found.size} bytes are said of the file behind it, which nothing needs",
                remedy="It is damaged, or made to do harm",
            )  # fmt: skip
        return found


def is_tar(path: Path) -> bool:
    """Whether a file begins like a TAR archive, or is packed and called like one."""
    with path.open("rb") as stream:
        head = stream.read(_BLOCK)
    return head[257:262] == b"ustar" or (packing_of(head) != "none" and packing_named(path) is not None)


def packing_named(path: Path) -> str | None:
    """How a TAR archive of this name is packed; None for what is not called like one."""
    name = path.name.lower()
    return next((packed for ending, packed in _ENDINGS.items() if name.endswith(ending)), None)


def packing_of(head: bytes) -> str:
    return next((packed for begin, packed in _BEGINS.items() if head.startswith(begin)), "none")


def unpacked(outer: Source, packing: str, where: Path, holding: contextlib.ExitStack) -> Source:
    """What is packed as a whole in a file, in one stream or several, with nothing but zeros behind them; it lies on the disk
    while `holding` does."""
    kind = PACKINGS[packing]
    folder = holding.enter_context(scratch_in(Path(tempfile.gettempdir())))
    most, written = min(_MOST, len(outer.view) * kind.most_ratio + 1024), 0
    plain = folder / "plain"
    with plain.open("wb") as out:
        try:
            at, view = 0, outer.view
            while at < len(view) and (not at or view[at] or any(view[at:])):
                consumed = list[int]()
                for piece in kind.pieces(view[at:], consumed):
                    written += out.write(piece)
                    if written > most:
                        raise FurnelError(WHAT, where=where, why=f"it unpacks to more than {most} bytes")
                at += consumed[-1]
        except kind.damage as error:
            raise FurnelError(WHAT, where=where, why=f"the {packing} data is damaged ({error})") from error
    return MappedFile(plain)


class Tar:
    """A TAR archive. Folders, links and devices are left out, and stay as they are when it is changed."""

    kind = "tar"

    def __init__(self, path: Path, source: Source | None = None) -> None:
        self.path = path
        self._scratch = contextlib.ExitStack()
        outer: Source = source or MappedFile(path)
        self._outer = outer
        self._packed = packing_of(bytes(outer.view[:8]))
        try:
            self._main = (
                outer if self._packed == "none" else unpacked(outer, self._packed, path, self._scratch)
            )
            self._tar = tarfile.open(fileobj=_Reading(self._main), mode="r:", tarinfo=ShortMember)  # noqa: SIM115 - closed with this
            self._infos: dict[str, tarfile.TarInfo] = {}
            for info in self._tar:
                if info.isreg():
                    name = check_path(info.name.removeprefix("./"), path)
                    if name in self._infos:
                        raise FurnelError(WHAT, where=f"{path}, {name}", why="its path occurs twice")
                    self._infos[name] = info
        except FurnelError:
            self.close()
            raise
        except _DAMAGE as error:
            self.close()
            why = reason(error) if isinstance(error, OSError) else str(error)
            raise FurnelError(
                WHAT, where=path, why=why or "it is damaged", remedy="Take a fresh copy of it"
            ) from error

    def paths(self) -> Iterable[str]:
        return self._infos

    def entries(self) -> Sequence[Entry]:
        return [Entry(name, info.size, info.size) for name, info in self._infos.items()]

    def read(self, path: str) -> bytes:
        return bytes(self.view(path))

    def view(self, path: str) -> bytes | memoryview:
        found = self.stored(path)
        if found.end - found.start > MOST_ENTRY_BYTES or found.end > len(self._main.view):
            raise FurnelError(WHAT, where=f"{self.path}, {path}", why="it runs over the file's end")
        return self._main.view[found.start : found.end]

    def peek(self, path: str, size: int) -> bytes:
        return bytes(self.view(path)[:size])

    def stored(self, path: str) -> Stored:
        if path not in self._infos:
            raise missing_entry(path, self.path)
        info = self._infos[path]
        if info.issparse():
            raise FurnelError(
                WHAT,
                where=f"{self.path}, {path}",
                why="it is stored with holes, which is not read",
                remedy="Pack it plainly",
            )
        return Stored(self._main, info.offset_data, info.offset_data + info.size, "none")

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._infos, self.path)
        with replacing(target) as out:
            if not changes:
                self._outer.copy(0, len(self._outer.view), out)
                return
            with self._plain_out(target, out) as plain:
                self._merge(plain, changes, progress)
            check(progress, "Packing the archive")
            Proof(lambda _, written: Tar(target, written), self, changes, target)(Written(out, target))

    @contextlib.contextmanager
    def _plain_out(self, target: Path, out: BinaryIO) -> Iterator[BinaryIO]:
        """Where the plain archive is written; it is packed into `out` afterwards where the old one was."""
        if self._packed == "none":
            yield out
            return
        with scratch_in(target.parent) as scratch, (scratch / "plain.tar").open("w+b") as plain:
            yield plain
            plain.seek(0)
            pack_stream(plain, out, self._packed)

    def _merge(self, out: BinaryIO, changes: Changes, progress: Progress) -> None:
        """Members in their order, untouched ones with the records before them, to the byte; then new ones, then the end."""
        names = {info.offset: name for name, info in self._infos.items()}
        members = self._tar.getmembers()
        ends = [info.offset for info in members[1:]] + [self._tar.offset]
        for info, end in steps(zip(members, ends, strict=True), len(members), progress, "Repacking"):
            name = names.get(info.offset, "")
            if name in changes.remove and name:
                continue
            if name in changes.replace:
                _write_member(out, info, changes.rename.get(name, name), changes.replace[name])
            elif name in changes.rename:
                _write_member(out, info, changes.rename[name], bytes(self.view(name)))
            else:
                self._main.copy(info.offset, min(end, len(self._main.view)), out)
        for name, content in changes.add.items():
            _write_member(out, None, name, content)
        _finish(out)

    def close(self) -> None:
        if getattr(self, "_main", self._outer) is not self._outer:
            self._main.close()
        self._outer.close()
        self._scratch.close()


class _Reading(io.RawIOBase):
    """A source as a stream that can be sought."""

    def __init__(self, source: Source) -> None:
        self._view, self._at = source.view, 0

    def readable(self) -> bool:
        return True

    def seekable(self) -> bool:
        return True

    def read(self, size: int = -1) -> bytes:
        end = len(self._view) if size < 0 else min(self._at + size, len(self._view))
        found = bytes(self._view[self._at : end]) if self._at < end else b""
        self._at += len(found)
        return found

    def seek(self, offset: int, whence: int = 0) -> int:
        self._at = (0, self._at, len(self._view))[whence] + offset
        return self._at

    def tell(self) -> int:
        return self._at


def write_tar(target: Path, contents: Mapping[str, Content], progress: Progress = QUIET) -> None:
    """A new TAR archive, packed as its name says, the same bytes on any machine."""
    packed = packing_named(target) or "none"
    with replacing(target) as out:
        with scratch_in(target.parent) as scratch, (scratch / "plain.tar").open("w+b") as plain:
            for name, content in steps(sorted(contents.items()), len(contents), progress, "Packing"):
                _write_member(plain, None, check_path(name, target), content)
            _finish(plain)
            plain.seek(0)
            pack_stream(plain, out, packed)
        Proof(lambda _, written: Tar(target, written), None, Changes(add=contents), target)(
            Written(out, target)
        )


def _write_member(out: BinaryIO, old: tarfile.TarInfo | None, name: str, content: Content) -> None:
    info = tarfile.TarInfo(name)
    info.mode = 0o644
    if old is not None:
        info.mode, info.mtime, info.uid, info.gid = old.mode, old.mtime, old.uid, old.gid
        info.uname, info.gname = old.uname, old.gname
        info.name = f"./{name}" if old.name.startswith("./") else name
    stream: BinaryIO = content.open("rb") if isinstance(content, Path) else io.BytesIO(content)
    with stream:
        info.size = stream.seek(0, 2)
        stream.seek(0)
        out.write(info.tobuf(tarfile.PAX_FORMAT, "utf-8"))
        while piece := stream.read(1 << 20):
            out.write(piece)
    out.write(bytes(-info.size % _BLOCK))


def _finish(out: BinaryIO) -> None:
    """Two empty blocks, and up to a whole record of twenty."""
    out.write(bytes(2 * _BLOCK))
    out.write(bytes(-out.tell() % (20 * _BLOCK)))
