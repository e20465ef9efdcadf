"""ZIP archives: read through zipfile; rewritten by copying unchanged members as they are stored.

Record layouts after PKWARE's APPNOTE.TXT 6.3.9, sections 4.3.7 and 4.3.12.
"""

from __future__ import annotations

import io
import shutil
import struct
import zipfile
import zlib
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing
from furnel.containers.container import MOST_ENTRY_BYTES, Entry, check_path, missing_entry, unknown_changes
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

    def __init__(self, path: Path) -> None:
        self.path = path
        try:
            self._zip = zipfile.ZipFile(path)
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

    def rewrite(self, target: Path, changes: Mapping[str, bytes], progress: Progress = QUIET) -> None:
        unknown_changes(changes, self._infos, self.path)
        with replacing(target) as out, self.path.open("rb") as source:
            if not changes:
                shutil.copyfileobj(source, out, 1 << 20)
                return
            _merge(source, self._zip, out, changes, progress)

    def close(self) -> None:
        self._zip.close()


def write_zip(target: Path, contents: Iterable[tuple[str, bytes]]) -> None:
    """A new ZIP of `contents`, the same bytes on any machine: sorted, one fixed date, deflate."""
    with replacing(target) as out, zipfile.ZipFile(out, "w") as archive:
        for path, data in sorted(contents):
            _add(archive, path, data, zipfile.ZIP_DEFLATED, FIXED_TIME)


def _add(
    archive: zipfile.ZipFile, path: str, data: bytes, method: int, date: tuple[int, int, int, int, int, int]
) -> None:
    info = zipfile.ZipInfo(path, date)
    info.compress_type = method
    info.external_attr = 0o644 << 16
    info.create_system = 3
    archive.writestr(info, data, compresslevel=9)


def _merge(
    source: BinaryIO,
    archive: zipfile.ZipFile,
    out: BinaryIO,
    changes: Mapping[str, bytes],
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
        if info.filename in changes:
            method = info.compress_type if info.compress_type in (0, 8) else zipfile.ZIP_DEFLATED
            part = io.BytesIO()
            with zipfile.ZipFile(part, "w") as single:
                _add(single, info.filename, changes[info.filename], method, info.date_time)
                local = single.start_dir
            raw = part.getvalue()
            out.write(raw[:local])
            record = raw[local : len(raw) - _END.size]
        else:
            source.seek(info.header_offset)
            left = end - info.header_offset
            while left > 0 and (chunk := source.read(min(left, 1 << 20))):
                out.write(chunk)
                left -= len(chunk)
        moved[info.header_offset] = (place, record)
    directory = out.tell()
    for old, record in central:
        place, fresh = moved[old]
        kept = fresh or record
        out.write(kept[:42] + struct.pack("<I", place) + kept[46:])
    length = out.tell() - directory
    out.write(_END.pack(b"PK\5\6", 0, 0, len(central), len(central), length, directory, len(archive.comment)))
    out.write(archive.comment)


def _central_records(source: BinaryIO, archive: zipfile.ZipFile, start: int) -> list[tuple[int, bytes]]:
    source.seek(start)
    records = []
    for _ in archive.infolist():
        head = source.read(_CENTRAL.size)
        fields = _CENTRAL.unpack(head)
        body = source.read(fields[10] + fields[11] + fields[12])
        records.append((fields[16], head + body))
    return records
