"""TGA pictures, true colour and grey, run-length or not, after Truevision's "TGA File Format Specification 2.0"."""

from __future__ import annotations

import struct
from dataclasses import replace

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles.bytesin import unpack
from furnel.images.picture import check_size
from furnel.images.texture import Texture

SUFFIXES = (".tga",)
WHAT = "Reading a TGA picture"

_HEADER = struct.Struct("<BBBHHBHHHHBB")
_TOP, _RIGHT = 0x20, 0x10


def recognises(data: bytes | memoryview) -> bool:
    """TGA has no signature: a header whose every field makes sense."""
    if len(data) < _HEADER.size:
        return False
    _id, mapped, kind, _first, _count, _bits, _x, _y, width, height, depth, descriptor = _HEADER.unpack_from(
        data
    )
    return (
        mapped == 0
        and ((kind in (2, 10) and depth in (24, 32)) or (kind in (3, 11) and depth == 8))
        and width > 0
        and height > 0
        and descriptor & 0xC0 == 0
    )


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """What the header says, as a Texture whose level holds no data, with notes on how the file was written."""
    fields = unpack(_HEADER, data, 0, WHAT, where)
    _id, mapped, kind, _first, _count, _bits, _x, _y, width, height, depth, descriptor = fields
    if mapped or kind not in (2, 3, 10, 11) or depth not in (8, 24, 32) or (kind in (3, 11)) != (depth == 8):
        raise FurnelError(
            WHAT,
            where=where,
            why=f"type {kind} with {depth} bits is not read so far",
            remedy="Save it as 24- or 32-bit true colour",
        )
    check_size(width, height, WHAT, where)
    notes = (
        ("rows", "top first" if descriptor & _TOP else "bottom first"),
        ("run-length", "on" if kind >= 9 else "off"),
        ("depth", str(depth)),
    )
    return Texture(width, height, "BGRA8" if depth == 32 else "BGR8", (b"",), "TGA", None, notes)


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """A TGA file as a Texture of one level (BGRA8 or BGR8, rows from the top), with notes on how it was written."""
    header = read_header(data, where)
    width, height, descriptor = header.width, header.height, data[17]
    start = _HEADER.size + data[0]
    size = int(header.note("depth")) // 8
    run_length = header.note("run-length") == "on"
    body = memoryview(data)[start:]
    if run_length:
        raw = _expand(body, width * height, size, where)
    else:
        if len(body) < width * height * size:
            raise FurnelError(
                WHAT,
                where=where,
                why=f"{width} × {height} pixels need {width * height * size} bytes and {len(body)} are there",
                remedy="The file is cut short: take a fresh copy of it",
            )
        raw = np.frombuffer(body, np.uint8, width * height * size)
    rows = raw.reshape(height, width, size)
    if not descriptor & _TOP:
        rows = rows[::-1]
    if descriptor & _RIGHT:
        rows = rows[:, ::-1]
    if size == 1:
        rows = np.repeat(rows, 3, axis=2)
    return replace(header, levels=(np.ascontiguousarray(rows).tobytes(),))


def write(texture: Texture) -> bytes:
    """The texture's first level as a TGA file; notes `rows` and `run-length` say how, by default as most games read it."""
    if texture.format not in ("BGRA8", "BGR8"):
        raise FurnelError("Writing a TGA picture", why=f"it stores BGRA8 or BGR8, not {texture.format}")
    size = texture.pixel_format.size_bytes
    rows = np.frombuffer(texture.levels[0], np.uint8).reshape(texture.height, texture.width, size)
    top = texture.note("rows") == "top first"
    run_length = texture.note("run-length") == "on"
    rows = np.ascontiguousarray(rows if top else rows[::-1])
    descriptor = (8 if size == 4 else 0) | (_TOP if top else 0)
    head = _HEADER.pack(
        0, 0, 10 if run_length else 2, 0, 0, 0, 0, 0, texture.width, texture.height, size * 8, descriptor
    )
    return head + (b"".join(_pack_row(row) for row in rows) if run_length else rows.tobytes())


def _expand(
    body: memoryview, pixels: int, size: int, where: object
) -> np.ndarray[tuple[int], np.dtype[np.uint8]]:
    out = bytearray()
    position, wanted = 0, pixels * size
    if len(body) * 128 < pixels:  # the best run-length can do is 128 pixels in `size` + 1 bytes
        raise FurnelError(
            WHAT, where=where, why="its runs are too few for its size", remedy="The file is cut short"
        )
    while len(out) < wanted:
        if position >= len(body):
            raise FurnelError(WHAT, where=where, why="its runs end too soon", remedy="The file is cut short")
        head = body[position]
        count = (head & 127) + 1
        length = size if head & 128 else count * size
        chunk = bytes(body[position + 1 : position + 1 + length])
        if len(chunk) < length:
            raise FurnelError(WHAT, where=where, why="its runs end too soon", remedy="The file is cut short")
        out += chunk * count if head & 128 else chunk
        position += 1 + length
    return np.frombuffer(bytes(out[:wanted]), np.uint8)


def _pack_row(row: np.ndarray[tuple[int, int], np.dtype[np.uint8]]) -> bytes:
    same = np.all(row[1:] == row[:-1], axis=1)
    out = bytearray()
    start, width = 0, len(row)
    while start < width:
        end = start
        if start < width - 1 and same[start]:
            while end < width - 1 and same[end] and end - start < 127:
                end += 1
            out += bytes([128 | (end - start)]) + row[start].tobytes()
        else:
            while end < width - 1 and not (end + 1 < width - 1 and same[end + 1]) and end - start < 127:
                end += 1
            out += bytes([end - start]) + row[start : end + 1].tobytes()
        start = end + 1
    return bytes(out)
