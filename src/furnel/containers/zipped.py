"""ZIP archives: read through zipfile; rewritten by copying unchanged members as they are stored.

Record layouts after PKWARE's APPNOTE.TXT 6.3.9, sections 4.3.7 and 4.3.12.
"""

from __future__ import annotations

import io
import shutil
import struct
import zipfile
import zlib
from collections.abc import Iterable, Mapping, Sequence, Set
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing
from furnel.containers.container import MOST_ENTRY_BYTES, Changes, Content, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile, Source, Written
from furnel.containers.proof import Proof, Stored
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, steps

WHAT = "Reading a ZIP archive"
FIXED_TIME = (1980, 1, 1, 0, 0, 0)

_CENTRAL = struct.Struct("<4s6H3I5H2I")
_END = struct.Struct("<4s4H2IH")
_ENCRYPTED = 0x1
_METHODS = {zipfile.ZIP_STORED, zipfile.ZIP_DEFLATED, zipfile.ZIP_BZIP2}
_DAMAGE = (
    zipfile.BadZipFile,
    zlib.error,
    struct.error,
    EOFError,
    RuntimeError,
    ValueError,
    OverflowError,
    MemoryError,
    LookupError,
    AttributeError,
)  # what zipfile raises on damaged files
_ZIP64_FIELD, _WIDE = 1, 0xFFFFFFFF


class Zip:
    """A ZIP archive; folders and encrypted members are left out."""

    kind = "zip"

    def __init__(self, path: Path, source: Source | None = None) -> None:
        self.path = path
        self._given, self._mapped = source, source
        self._open = source.stream if source is not None else lambda: path.open("rb")
        try:
            self._zip = zipfile.ZipFile(self._open())
        except OSError as error:
            raise FurnelError(WHAT, where=path, why=reason(error)) from error
        except _DAMAGE as error:
            raise FurnelError(WHAT, where=path, why=str(error), remedy="Take a fresh copy of it") from error
        try:
            self._infos = {
                check_path(info.filename, path): info
                for info in self._zip.infolist()
                if info.filename and not info.is_dir() and not info.flag_bits & _ENCRYPTED
            }
        except FurnelError:
            self._zip.close()
            raise

    def entries(self) -> Sequence[Entry]:
        return [Entry(name, info.file_size, info.compress_size) for name, info in self._infos.items()]

    def read(self, path: str) -> bytes:
        return self._take(path, None)

    def view(self, path: str) -> bytes:
        return self.read(path)

    def peek(self, path: str, size: int) -> bytes:
        return self._take(path, size)

    def _take(self, path: str, size: int | None) -> bytes:
        if path not in self._infos:
            raise missing_entry(path, self.path)
        info = self._infos[path]
        wanted = info.file_size if size is None else min(size, info.file_size)
        if wanted > MOST_ENTRY_BYTES or wanted > info.compress_size * 1200 + 1024:
            raise FurnelError(
                WHAT, where=f"{self.path}, {path}", why="it claims to unpack to far more than it can"
            )
        if info.compress_type not in _METHODS:
            raise FurnelError(
                WHAT, where=f"{self.path}, {path}",
                why=f"it is packed with method {info.compress_type}, which Furnel does not unpack",
                remedy="Pack it again with deflate, or stored",
            )  # fmt: skip
        try:
            with self._zip.open(info) as stream:
                data = stream.read(wanted)
                if size is None and (len(data) != wanted or stream.read(1)):
                    raise FurnelError(
                        WHAT, where=f"{self.path}, {path}", why="it unpacks to another size than it says"
                    )
                return data
        except FurnelError:
            raise
        except (OSError, *_DAMAGE) as error:
            raise FurnelError(
                WHAT, where=f"{self.path}, {path}", why=str(error), remedy="Take a fresh copy of it"
            ) from error

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._infos, self.path)
        source = self._given or MappedFile(self.path)
        try:
            with replacing(target) as out:
                if not changes:
                    source.copy(0, len(source.view), out)
                    return
                self._rewrite(source, out, changes, progress)
                Proof(lambda _, written: Zip(target, written), self, changes, target)(Written(out, target))
        except _DAMAGE as error:
            raise FurnelError(
                WHAT, where=self.path, why=str(error), remedy="Take a fresh copy of it"
            ) from error
        finally:
            if source is not self._given:
                source.close()

    def _rewrite(self, source: Source, out: BinaryIO, changes: Changes, progress: Progress) -> None:
        gone = changes.remove | set(changes.rename)
        added = {
            new: _bytes(changes.replace[old]) if old in changes.replace else self.read(old)
            for old, new in changes.rename.items()
        }
        added |= {path: _bytes(content) for path, content in changes.add.items()}
        replaced = {path: _bytes(content) for path, content in changes.replace.items() if path not in gone}
        _merge(source, self._zip, out, replaced, added, gone, progress)

    def paths(self) -> Iterable[str]:
        return self._infos

    def stored(self, path: str) -> Stored:
        info = self._infos[path]
        if self._mapped is None:
            self._mapped = self._given or MappedFile(self.path)
        name, extra = struct.unpack_from("<HH", self._mapped.view, info.header_offset + 26)
        start = info.header_offset + 30 + name + extra
        return Stored(self._mapped, start, start + info.compress_size, info.compress_type)

    def close(self) -> None:
        if self._mapped is not None and self._mapped is not self._given:
            self._mapped.close()
        stream = self._zip.fp
        self._zip.close()
        if stream is not None:
            stream.close()


def write_zip(target: Path, contents: Iterable[tuple[str, Content]]) -> None:
    """A new ZIP of `contents`, the same bytes on any machine: sorted, one fixed date, deflate."""
    wanted = dict(contents)
    with replacing(target) as out:
        with zipfile.ZipFile(out, "w") as archive:
            for path, content in sorted(wanted.items()):
                if isinstance(content, Path):
                    _add_file(archive, path, content)
                else:
                    _add(archive, path, content, zipfile.ZIP_DEFLATED, FIXED_TIME)
        proof = Proof(lambda _, written: Zip(target, written), None, Changes(add=wanted), target)
        proof(Written(out, target))


def _bytes(content: Content) -> bytes:
    return content.read_bytes() if isinstance(content, Path) else content


def _add_file(archive: zipfile.ZipFile, path: str, file: Path) -> None:
    """A file, piece by piece."""
    info = _info(path, FIXED_TIME, zipfile.ZIP_DEFLATED)
    info.file_size = file.stat().st_size
    archive.compresslevel = 9
    with file.open("rb") as source, archive.open(info, "w") as member:
        shutil.copyfileobj(source, member, 1 << 20)


def _add(
    archive: zipfile.ZipFile, path: str, data: bytes, method: int, date: tuple[int, int, int, int, int, int]
) -> None:
    archive.writestr(_info(path, date, method), data, compresslevel=9)


def _info(path: str, date: tuple[int, int, int, int, int, int], method: int) -> zipfile.ZipInfo:
    info = zipfile.ZipInfo(path, date)
    info.compress_type = method
    info.external_attr = 0o644 << 16
    info.create_system = 3
    return info


def _merge(
    source: Source,
    archive: zipfile.ZipFile,
    out: BinaryIO,
    changes: Mapping[str, bytes],
    added: Mapping[str, bytes],
    gone: Set[str],
    progress: Progress,
) -> None:
    """Members in their order: unchanged ones copied as they are stored, then new ones, then the directory."""
    start = archive.start_dir
    central = dict(zip(archive.infolist(), _central_records(source, archive, start), strict=True))
    infos = sorted(archive.infolist(), key=lambda info: info.header_offset)
    ends = [info.header_offset for info in infos[1:]] + [start]
    fresh: dict[zipfile.ZipInfo, bytes] = {}
    if infos:
        source.copy(0, infos[0].header_offset, out)
    for info, end in steps(zip(infos, ends, strict=True), len(infos), progress, "Repacking"):
        if info.filename in gone:
            continue
        place = out.tell()
        if info.filename in changes:
            method = info.compress_type if info.compress_type in (0, 8) else zipfile.ZIP_DEFLATED
            record = _write_member(out, info.filename, changes[info.filename], method, info.date_time)
            fresh[info] = _placed(record, place)
        else:
            source.copy(info.header_offset, end, out)
            fresh[info] = _placed(central[info], place, info.file_size, info.compress_size)
    records = [fresh[info] for info in central if info in fresh]
    for path, data in added.items():
        place = out.tell()
        records.append(_placed(_write_member(out, path, data, zipfile.ZIP_DEFLATED, FIXED_TIME), place))
    directory = out.tell()
    for record in records:
        out.write(record)
    _write_end(out, len(records), directory, archive.comment)


def _placed(record: bytes, place: int, size: int | None = None, stored: int | None = None) -> bytes:
    """A directory record for a member at another place; what 32 bits cannot say goes into the ZIP64 field (4.5.3)."""
    name, extra, note = struct.unpack_from("<3H", record, 28)
    stored = struct.unpack_from("<I", record, 20)[0] if stored is None else stored
    size = struct.unpack_from("<I", record, 24)[0] if size is None else size
    kept, at = b"", 46 + name
    while at + 4 <= 46 + name + extra:
        mark, length = struct.unpack_from("<HH", record, at)
        kept += record[at : at + 4 + length] if mark != _ZIP64_FIELD else b""
        at += 4 + length
    wide = [number for number in (size, stored, place) if number >= _WIDE]
    if wide:
        kept = struct.pack(f"<HH{len(wide)}Q", _ZIP64_FIELD, 8 * len(wide), *wide) + kept
    head = bytearray(record[:46])
    if wide:
        struct.pack_into("<H", head, 6, max(struct.unpack_from("<H", record, 6)[0], 45))
    struct.pack_into("<II", head, 20, min(stored, _WIDE), min(size, _WIDE))
    struct.pack_into("<H", head, 30, len(kept))
    struct.pack_into("<I", head, 42, min(place, _WIDE))
    tail = record[46 + name + extra : 46 + name + extra + note]
    return bytes(head) + record[46 : 46 + name] + kept + tail


def _write_end(out: BinaryIO, count: int, directory: int, comment: bytes) -> None:
    """The end record; before it the ZIP64 one and its locator (4.3.14, 4.3.15) where numbers are too large for it."""
    end = out.tell()
    length = end - directory
    if count >= 0xFFFF or directory >= _WIDE or length >= _WIDE:
        out.write(struct.pack("<4sQ2H2I4Q", b"PK\6\6", 44, 45, 45, 0, 0, count, count, length, directory))
        out.write(struct.pack("<4sIQI", b"PK\6\7", 0, end, 1))
    count = min(count, 0xFFFF)
    out.write(
        _END.pack(b"PK\5\6", 0, 0, count, count, min(length, _WIDE), min(directory, _WIDE), len(comment))
    )
    out.write(comment)


def _write_member(
    out: BinaryIO, path: str, data: bytes, method: int, date: tuple[int, int, int, int, int, int]
) -> bytes:
    """A member with its local header; the record of it for the central directory."""
    part = io.BytesIO()
    with zipfile.ZipFile(part, "w") as single:
        _add(single, path, data, method, date)
        local = single.start_dir
    raw = part.getvalue()
    out.write(raw[:local])
    return raw[local : len(raw) - _END.size]


def _central_records(source: Source, archive: zipfile.ZipFile, start: int) -> list[bytes]:
    """The directory's records as they are, in its order."""
    records, at = [], start
    for _ in archive.infolist():
        fields = _CENTRAL.unpack(bytes(source.view[at : at + _CENTRAL.size]))
        end = at + _CENTRAL.size + fields[10] + fields[11] + fields[12]
        records.append(bytes(source.view[at:end]))
        at = end
    return records
