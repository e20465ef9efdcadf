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
from furnel.containers.mapped import Source
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, steps

WHAT = "Reading a ZIP archive"
FIXED_TIME = (1980, 1, 1, 0, 0, 0)

_CENTRAL = struct.Struct("<4s6H3I5H2I")
_END = struct.Struct("<4s4H2IH")
_ENCRYPTED = 0x1


class Zip:
    """A ZIP archive; folders and encrypted members are left out."""

    kind = "zip"

    def __init__(self, path: Path, source: Source | None = None) -> None:
        self.path = path
        self._open = source.stream if source is not None else lambda: path.open("rb")
        try:
            self._zip = zipfile.ZipFile(self._open())
        except OSError as error:
            raise FurnelError(WHAT, where=path, why=reason(error)) from error
        except (zipfile.BadZipFile, ValueError, NotImplementedError, struct.error, UnicodeError) as error:
            raise FurnelError(WHAT, where=path, why=str(error), remedy="Take a fresh copy of it") from error
        try:
            self._infos = {
                check_path(info.filename, path): info
                for info in self._zip.infolist()
                if not info.is_dir() and not info.flag_bits & _ENCRYPTED
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
        except (
            OSError,
            zipfile.BadZipFile,
            zlib.error,
            EOFError,
            NotImplementedError,
            RuntimeError,
            ValueError,
        ) as error:
            raise FurnelError(
                WHAT, where=f"{self.path}, {path}", why=str(error), remedy="Take a fresh copy of it"
            ) from error

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._infos, self.path)
        with replacing(target) as out, self._open() as source:
            if not changes:
                shutil.copyfileobj(source, out, 1 << 20)
                return
            moved = {new: self.read(old) for old, new in changes.rename.items() if old not in changes.replace}
            moved |= {
                changes.rename[old]: _bytes(changes.replace[old])
                for old in changes.rename
                if old in changes.replace
            }
            added = {**moved, **{path: _bytes(content) for path, content in changes.add.items()}}
            gone = changes.remove | set(changes.rename)
            replaced = {
                path: _bytes(content) for path, content in changes.replace.items() if path not in gone
            }
            _merge(source, self._zip, out, replaced, added, gone, progress)

    def close(self) -> None:
        stream = self._zip.fp
        self._zip.close()
        if stream is not None:
            stream.close()


def write_zip(target: Path, contents: Iterable[tuple[str, Content]]) -> None:
    """A new ZIP of `contents`, the same bytes on any machine: sorted, one fixed date, deflate."""
    with replacing(target) as out, zipfile.ZipFile(out, "w") as archive:
        for path, content in sorted(contents, key=lambda item: item[0]):
            if isinstance(content, Path):
                _add_file(archive, path, content)
            else:
                _add(archive, path, content, zipfile.ZIP_DEFLATED, FIXED_TIME)


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
    source: BinaryIO,
    archive: zipfile.ZipFile,
    out: BinaryIO,
    changes: Mapping[str, bytes],
    added: Mapping[str, bytes],
    gone: Set[str],
    progress: Progress,
) -> None:
    start = archive.start_dir
    infos = sorted(archive.infolist(), key=lambda info: info.header_offset)
    ends = [info.header_offset for info in infos[1:]] + [start]
    if start >= 0xFFFFFFFF:
        raise FurnelError(
            "Writing a ZIP archive", where=archive.filename, why="ZIPs over 4 GiB are only read so far"
        )
    central = _central_records(source, archive, start)
    moved: dict[int, tuple[int, bytes | None]] = {}
    if infos and infos[0].header_offset:
        source.seek(0)
        out.write(source.read(infos[0].header_offset))
    for info, end in steps(zip(infos, ends, strict=True), len(infos), progress, "Repacking"):
        place, record = out.tell(), None
        if info.filename in gone:
            continue
        if info.filename in changes:
            method = info.compress_type if info.compress_type in (0, 8) else zipfile.ZIP_DEFLATED
            record = _write_member(out, info.filename, changes[info.filename], method, info.date_time)
        else:
            source.seek(info.header_offset)
            left = end - info.header_offset
            while left > 0 and (chunk := source.read(min(left, 1 << 20))):
                out.write(chunk)
                left -= len(chunk)
        moved[info.header_offset] = (place, record)
    records = [(moved[old][0], moved[old][1] or record) for old, record in central if old in moved]
    for path, data in added.items():
        place = out.tell()
        records.append((place, _write_member(out, path, data, zipfile.ZIP_DEFLATED, FIXED_TIME)))
    directory = out.tell()
    for place, record in records:
        out.write(record[:42] + struct.pack("<I", place) + record[46:])
    length = out.tell() - directory
    count = len(records)
    out.write(_END.pack(b"PK\5\6", 0, 0, count, count, length, directory, len(archive.comment)))
    out.write(archive.comment)


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


def _central_records(source: BinaryIO, archive: zipfile.ZipFile, start: int) -> list[tuple[int, bytes]]:
    source.seek(start)
    records = []
    for _ in archive.infolist():
        head = source.read(_CENTRAL.size)
        fields = _CENTRAL.unpack(head)
        body = source.read(fields[10] + fields[11] + fields[12])
        records.append((fields[16], head + body))
    return records
