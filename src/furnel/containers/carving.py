"""Carving: finding files of known kinds inside any file by their signatures, and putting others in their place.

A find's length comes from the format's own header, so that only what is whole is found; what cannot be followed to its end is
left alone. Sources: PNG (W3C Recommendation, 5.2), RIFF (IBM and Microsoft 1991), Ogg (RFC 3533, section 6), DDS (as in
`furnel.imagefiles.dds`), KTX2 (Khronos specification 2.0, 3.1), ZIP (APPNOTE 4.3.16), FLAC has no length and is left out.
"""

from __future__ import annotations

import re
import struct
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

from furnel.atomic import replacing
from furnel.containers.container import Changes, Entry, missing_entry
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, check

_WHAT = "Carving a file"
_MOST_FINDS = 200_000
_WINDOW = 32 << 20
_KTX2 = b"\xabKTX 20\xbb\r\n\x1a\n"
_BLOCK_BYTES = {b"DXT1": 8, b"DXT2": 16, b"DXT3": 16, b"DXT4": 16, b"DXT5": 16, b"ATI1": 8, b"BC4U": 8, b"BC4S": 8,
                b"ATI2": 16, b"BC5U": 16, b"BC5S": 16}  # fmt: skip
_DXGI_BLOCKS = {
    **dict.fromkeys((70, 71, 72, 79, 80, 81), 8),
    **dict.fromkeys((*range(73, 79), *range(82, 85), *range(94, 100)), 16),
}
_DXGI_PIXELS = {2: 16, 10: 8, 28: 4, 29: 4, 87: 4, 91: 4, 49: 2, 61: 1, 85: 2}


@dataclass(frozen=True, slots=True)
class Find:
    """A file found in another: its kind (the ending it would have), where it begins and how many bytes it has."""

    kind: str
    offset: int
    size: int

    @property
    def path(self) -> str:
        return f"{self.offset:010x}.{self.kind}"


def find_files(data: memoryview, progress: Progress = QUIET) -> list[Find]:
    """Every whole file of a known kind, in order; a file inside another one found is not told apart."""
    out: list[Find] = []
    end = 0
    for start in range(0, len(data), _WINDOW):
        check(progress, _WHAT)
        progress.report(start / max(len(data), 1), "Looking for known files")
        window = bytes(data[start : start + _WINDOW + 16])
        for match in _SIGNATURES.finditer(window):
            at = start + match.start()
            if match.start() >= _WINDOW or at < end:
                continue
            kind = match.lastgroup or ""
            size = _LENGTHS[kind](data[at:])
            if size and at + size <= len(data):
                out.append(Find(kind, at, size))
                end = at + size
                if len(out) >= _MOST_FINDS:
                    return out
    return out


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


def _png(data: memoryview) -> int:
    at = 8
    while at + 12 <= len(data):
        length, tag = struct.unpack_from(">I4s", data, at)
        if not tag.isalpha() or length > len(data):
            return 0
        at += 12 + length
        if tag == b"IEND":
            return at if at <= len(data) else 0
    return 0


def _riff(data: memoryview) -> int:
    size = 8 + int.from_bytes(data[4:8], "little")
    return size + size % 2 if 12 < size <= len(data) else 0


def _ogg(data: memoryview) -> int:
    at = 0
    while at + 27 <= len(data) and bytes(data[at : at + 4]) == b"OggS":
        segments = data[at + 26]
        last = data[at + 5] & 4
        if at and data[at + 5] & 2:  # the next stream begins
            break
        at += 27 + segments + sum(data[at + 27 : at + 27 + segments])
        if last:
            break
    return at if at <= len(data) else 0


def _dds(data: memoryview) -> int:
    if len(data) < 128 or int.from_bytes(data[4:8], "little") != 124:
        return 0
    height, width = struct.unpack_from("<II", data, 12)
    levels = max(int.from_bytes(data[28:32], "little"), 1)
    flags, code, bits = struct.unpack_from("<I4sI", data, 80)
    caps = int.from_bytes(data[112:116], "little")
    at, faces, block, pixel = 128, 6 if caps & 0x200 else 1, _BLOCK_BYTES.get(code, 0), bits // 8
    if code == b"DX10":
        if len(data) < 148:
            return 0
        fmt, _, misc, count = struct.unpack_from("<4I", data, 128)
        at, faces = 148, max(count, 1) * (6 if misc & 4 else 1)
        block, pixel = _DXGI_BLOCKS.get(fmt, 0), _DXGI_PIXELS.get(fmt, 0)
    elif flags & 4 and not block:
        return 0
    if (
        not 0 < width <= 65536
        or not 0 < height <= 65536
        or levels > 17
        or faces > 4096
        or not (block or pixel)
    ):
        return 0
    whole = 0
    for level in range(levels):
        wide, high = max(width >> level, 1), max(height >> level, 1)
        whole += ((wide + 3) // 4) * ((high + 3) // 4) * block if block else wide * high * pixel
    return at + faces * whole


def _ktx2(data: memoryview) -> int:
    if len(data) < 80:
        return 0
    levels = max(int.from_bytes(data[40:44], "little"), 1)
    if levels > 32 or 80 + 24 * levels > len(data):
        return 0
    ends = [sum(struct.unpack_from("<QQ", data, 80 + 24 * level)) for level in range(levels)]
    return max(ends) if max(ends) <= len(data) else 0


def _zip(data: memoryview) -> int:
    """Up to the end record that says where its directory begins, as it should."""
    window = bytes(data[: 64 << 20])
    at = 0
    while (at := window.find(b"PK\5\6", at)) >= 0 and at + 22 <= len(window):
        size, offset, comment = struct.unpack_from("<IIH", window, at + 12)
        if offset + size == at:
            return int(at + 22 + comment)
        at += 4
    return 0


_LENGTHS: dict[str, Callable[[memoryview], int]] = {
    "png": _png, "wav": _riff, "webp": _riff, "ogg": _ogg, "dds": _dds, "ktx2": _ktx2, "zip": _zip,
}  # fmt: skip
_SIGNATURES = re.compile(
    rb"(?P<png>\x89PNG\r\n\x1a\n)|(?P<wav>RIFF....WAVE)|(?P<webp>RIFF....WEBP)|(?P<ogg>OggS\x00\x02)"
    rb"|(?P<dds>DDS \x7c\x00\x00\x00)|(?P<ktx2>" + re.escape(_KTX2) + rb")|(?P<zip>PK\x03\x04)",
    re.DOTALL,
)
