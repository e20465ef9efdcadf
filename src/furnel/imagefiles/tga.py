"""TGA pictures of every type, after Truevision's "TGA File Format Specification 2.0"."""

from __future__ import annotations

import struct
from dataclasses import replace

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.imagefiles.bytesin import check_room, unpack
from furnel.imagefiles.filetype import Note, PictureFile
from furnel.images.picture import check_size
from furnel.images.texture import Texture

WHAT = "Reading a TGA picture"

_HEADER = struct.Struct("<BBBHHBHHHHBB")
_FOOTER = struct.Struct("<II18s")
_SIGNATURE = b"TRUEVISION-XFILE.\0"
_TOP, _RIGHT = 0x20, 0x10
_MAPPED, _COLOUR, _GREY, _RUNS = 1, 2, 3, 8
_EXTENSION_SIZE, _PREMULTIPLIED = 495, 4

Bytes = npt.NDArray[np.uint8]

_FORMATS = {
    (_COLOUR, 15): "RGBA5551", (_COLOUR, 16): "RGBA5551", (_COLOUR, 24): "BGR8", (_COLOUR, 32): "BGRA8", (_GREY, 8): "L8",
    (_GREY, 16): "LA8",
}  # fmt: skip
_KINDS = {"RGBA5551": _COLOUR, "BGR8": _COLOUR, "BGRA8": _COLOUR, "L8": _GREY, "LA8": _GREY}
_ENTRIES = {15: "RGBA5551", 16: "RGBA5551", 24: "BGR8", 32: "BGRA8"}


def recognises(data: bytes | memoryview) -> bool:
    """TGA has no signature: a header whose every field makes sense."""
    if len(data) < _HEADER.size:
        return False
    _id, mapped, kind, first, count, bits, _x, _y, width, height, depth, descriptor = _HEADER.unpack_from(
        data
    )
    if kind & ~_RUNS == _MAPPED:
        sensible = mapped == 1 and depth == 8 and bits in _ENTRIES and first < 256 and 0 < count <= 256
    else:
        sensible = mapped == 0 and (kind & ~_RUNS, depth) in _FORMATS
    return sensible and width > 0 and height > 0 and descriptor & 0xC0 == 0


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """What the header says, as a Texture whose level holds no data, with notes on how the file was written."""
    fields = unpack(_HEADER, data, 0, WHAT, where)
    _id, _mapped, kind, _first, _count, bits, _x, _y, width, height, depth, descriptor = fields
    if not recognises(data):
        raise FurnelError(
            WHAT,
            where=where,
            why=f"type {kind} with {depth} bits is none that the format knows",
            remedy="Save it as 24- or 32-bit true colour",
        )
    check_size(width, height, WHAT, where)
    notes = [
        ("rows", "top first" if descriptor & _TOP else "bottom first"),
        ("run-length", "on" if kind & _RUNS else "off"),
        ("depth", str(depth)),
    ]
    mapped = kind & ~_RUNS == _MAPPED
    if mapped:
        notes.append(("palette", f"{bits} bits"))
    if depth in (15, 16) and kind & ~_RUNS == _COLOUR and not descriptor & 15:
        notes.append(("alpha bit", "unused"))
    footer = bytes(data[-_FOOTER.size :]) if len(data) >= _HEADER.size + _FOOTER.size else b""
    if footer.endswith(_SIGNATURE):
        notes.append(("footer", "2.0"))
        at = _FOOTER.unpack(footer)[0]
        if 0 < at <= len(data) - _EXTENSION_SIZE and data[at + _EXTENSION_SIZE - 1] == _PREMULTIPLIED:
            notes.append(("alpha", "premultiplied"))
    fmt = _ENTRIES[bits] if mapped else _FORMATS[kind & ~_RUNS, depth]
    return Texture(width, height, fmt, (b"",), "TGA", None, tuple(notes))


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """A TGA file as a Texture of one level, rows from the top, with notes on how it was written.

    Colours from a palette are looked up. Raises FurnelError for damage.
    """
    header = read_header(data, where)
    _id, _mapped, kind, first, count, bits, _x, _y, width, height, depth, descriptor = _HEADER.unpack_from(
        data
    )
    start, size, entry = _HEADER.size + data[0], -(-depth // 8), -(-bits // 8)
    view = memoryview(data)
    palette = None
    if header.note("palette"):
        check_room(view, start, count * entry, "its palette", WHAT, where)
        palette = np.zeros((256, entry), np.uint8)
        part = np.frombuffer(view, np.uint8, count * entry, start).reshape(count, entry)
        palette[first : first + count] = part[: 256 - first]
        start += count * entry
    elif data[1]:
        start += count * entry
    body = view[start:]
    if kind & _RUNS:
        raw = _expand(body, width * height, size, where)
    else:
        check_room(view, start, width * height * size, "its last row", WHAT, where)
        raw = np.frombuffer(body, np.uint8, width * height * size)
    rows = raw.reshape(height, width, size)
    if palette is not None:
        rows = palette[rows[..., 0]]
    if not descriptor & _TOP:
        rows = rows[::-1]
    if descriptor & _RIGHT:
        rows = rows[:, ::-1]
    rows = np.ascontiguousarray(rows)
    if header.format == "RGBA5551" and (header.note("alpha bit") or palette is not None):
        rows = rows | np.array([0, 0x80], np.uint8)
    return replace(header, levels=(rows.tobytes(),))


def write(texture: Texture) -> bytes:
    """The texture's first level as a TGA file, written as its notes say, by default as most games read it."""
    if texture.format not in _KINDS:
        raise FurnelError(
            "Writing a TGA picture",
            why=f"it stores {', '.join(_KINDS)}, not {texture.format}",
            remedy="Choose one of those formats",
        )
    size = texture.pixel_format.size_bytes
    rows = np.frombuffer(texture.levels[0], np.uint8).reshape(texture.height, texture.width, size)
    kind, palette, bits = _KINDS[texture.format], b"", 0
    if texture.note("palette"):
        rows, palette = _with_palette(rows)
        kind, bits = _MAPPED, size * 8
    top = texture.note("rows") == "top first"
    run_length = texture.note("run-length") == "on"
    rows = np.ascontiguousarray(rows if top else rows[::-1])
    alpha_bits = {"BGRA8": 8, "LA8": 8, "RGBA5551": 0 if texture.note("alpha bit") else 1}.get(
        texture.format, 0
    )
    if texture.note("alpha bit") and not palette:
        rows = rows & np.array([255, 127], np.uint8)
    depth = rows.shape[2] * 8
    head = _HEADER.pack(
        0, 1 if palette else 0, kind | (_RUNS if run_length else 0), 0, len(palette) // size if palette else 0, bits, 0, 0,
        texture.width, texture.height, depth, (0 if palette else alpha_bits) | (_TOP if top else 0),
    )  # fmt: skip
    body = b"".join(_pack_row(row) for row in rows) if run_length else rows.tobytes()
    return _with_footer(head + palette + body, texture)


def _with_palette(rows: Bytes) -> tuple[Bytes, bytes]:
    """Pixels (height, width, bytes) as indices (height, width, 1) and the palette's bytes."""
    flat = rows.reshape(-1, rows.shape[2])
    colours, index = np.unique(flat, axis=0, return_inverse=True)
    if len(colours) > 256:
        raise FurnelError(
            "Writing a TGA picture with a palette",
            why=f"the picture has {len(colours)} colours, and a palette holds 256",
            remedy="Add the step Few colours",
        )
    return index.reshape(*rows.shape[:2], 1).astype(np.uint8), colours.astype(np.uint8).tobytes()


def _with_footer(data: bytes, texture: Texture) -> bytes:
    if not texture.note("footer"):
        return data
    extension = bytearray(_EXTENSION_SIZE)
    extension[:2] = struct.pack("<H", _EXTENSION_SIZE)
    premultiplied = texture.note("alpha") == "premultiplied"
    extension[-1] = _PREMULTIPLIED if premultiplied else 3 if texture.pixel_format.alpha != "none" else 0
    return data + bytes(extension) + _FOOTER.pack(len(data), 0, _SIGNATURE)


def _expand(body: memoryview, pixels: int, size: int, where: object) -> Bytes:
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


def _pack_row(row: Bytes) -> bytes:
    same = np.all(row[1:] == row[:-1], axis=1).tolist()
    pixels = row.tobytes()
    size = row.shape[1]
    out = bytearray()
    start, width = 0, len(row)
    while start < width:
        end = start
        if start < width - 1 and same[start]:
            while end < width - 1 and same[end] and end - start < 127:
                end += 1
            out += bytes([128 | (end - start)]) + pixels[start * size : start * size + size]
        else:
            while end < width - 1 and not (end + 1 < width - 1 and same[end + 1]) and end - start < 127:
                end += 1
            out += bytes([end - start]) + pixels[start * size : (end + 1) * size]
        start = end + 1
    return bytes(out)


ROWS = Note(
    key="rows",
    label="Rows",
    choices=("bottom first", "top first"),
    why="Read in the other order the picture hangs upside down",
)
TGA = PictureFile(
    name="TGA",
    suffixes=(".tga",),
    signature=b"",
    recognises_more=recognises,
    read=read,
    read_header=read_header,
    write=write,
    formats=("BGRA8", "BGR8", "RGBA5551", "L8"),
    notes=(
        replace(ROWS, offered=True),
        Note(
            key="run-length",
            label="Run-length",
            choices=("off", "on"),
            why="A game that does not expect it reads garbage",
            offered=True,
        ),
        Note(key="palette", label="Palette"),
        Note(key="alpha", label="Alpha is"),
        Note(key="alpha bit", label="Alpha bit"),
        Note(key="footer", label="Footer"),
    ),
)
