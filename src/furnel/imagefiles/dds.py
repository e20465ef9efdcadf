"""DDS textures, with legacy and DX10 headers, after Microsoft's "Programming Guide for DDS"."""

from __future__ import annotations

import struct
from dataclasses import replace

from furnel.errors import FurnelError
from furnel.imagefiles.bytesin import unpack
from furnel.images.formats import full_levels
from furnel.images.picture import check_size
from furnel.images.texture import Texture

SUFFIXES = (".dds",)
WHAT = "Reading a DDS texture"

_HEADER = struct.Struct("<4s7I44x8I5I")  # magic, 7 words, 11 reserved, pixel format, caps
_DX10 = struct.Struct("<5I")

_CAPS, _HEIGHT, _WIDTH, _PITCH, _PIXELFORMAT, _LEVELS, _LINEAR = 0x1, 0x2, 0x4, 0x8, 0x1000, 0x20000, 0x80000
_PF_ALPHA, _PF_FOURCC, _PF_RGB = 0x1, 0x4, 0x40
_CAPS_COMPLEX, _CAPS_TEXTURE, _CAPS_LEVELS = 0x8, 0x1000, 0x400000

_FOURCC = {
    b"DXT1": "BC1", b"DXT3": "BC2", b"DXT5": "BC3", b"BC4U": "BC4", b"BC5U": "BC5", b"ATI1": "BC4", b"ATI2": "BC5",
}  # fmt: skip
_TO_FOURCC = {fmt: code for code, fmt in _FOURCC.items()}
_DXGI = {
    71: ("BC1", False),
    72: ("BC1", True),
    74: ("BC2", False),
    75: ("BC2", True),
    77: ("BC3", False),
    78: ("BC3", True),
    80: ("BC4", False),
    83: ("BC5", False),
    98: ("BC7", False),
    99: ("BC7", True),
    28: ("RGBA8", False),
    29: ("RGBA8", True),
    87: ("BGRA8", False),
    91: ("BGRA8", True),
    88: ("BGRX8", False),
    93: ("BGRX8", True),
}
_TO_DXGI = {pair: number for number, pair in _DXGI.items()}
_TYPELESS = {
    70: "BC1",
    73: "BC2",
    76: "BC3",
    79: "BC4",
    82: "BC5",
    97: "BC7",
}  # leaves open whether it is sRGB
_MASKS = {
    "RGBA8": (32, 0xFF, 0xFF00, 0xFF0000, 0xFF000000),
    "BGRA8": (32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000),
    "BGRX8": (32, 0xFF0000, 0xFF00, 0xFF, 0),
    "BGR8": (24, 0xFF0000, 0xFF00, 0xFF, 0),
}
_FROM_MASKS = {masks: fmt for fmt, masks in _MASKS.items()}


def recognises(data: bytes | memoryview) -> bool:
    return bytes(data[:4]) == b"DDS "


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """What the header says, as a Texture whose levels hold no data."""
    return _read_header(data, where)[0]


def _read_header(data: bytes | memoryview, where: object) -> tuple[Texture, int]:
    """The same, and where the first level begins."""
    fields = unpack(_HEADER, data, 0, WHAT, where)
    magic, size, _flags, height, width, _pitch, _depth, levels = fields[:8]
    _pf_size, pf_flags, fourcc, bits, *masks = fields[8:16]
    _caps, caps2 = fields[16], fields[17]
    if magic != b"DDS " or size != 124:
        raise FurnelError(
            WHAT, where=where, why="it does not begin like one", remedy="Is it another kind of file?"
        )
    check_size(width, height, WHAT, where)
    if caps2 & 0x200200:
        raise FurnelError(WHAT, where=where, why="it is a cube or a volume, and flat ones are read so far")
    start, srgb, header = _HEADER.size, None, "legacy"
    code = struct.pack("<I", fourcc)
    if pf_flags & _PF_FOURCC and code == b"DX10":
        number, _dimension, _misc, layers, _alpha = unpack(_DX10, data, start, WHAT, where)
        start, header = start + _DX10.size, "DX10"
        if (number not in _DXGI and number not in _TYPELESS) or layers > 1:
            raise FurnelError(
                WHAT, where=where, why=f"DXGI format {number} with {layers} layers is not read so far"
            )
        fmt, srgb = _DXGI.get(number) or (_TYPELESS[number], None)
    elif pf_flags & _PF_FOURCC:
        if code not in _FOURCC:
            raise FurnelError(WHAT, where=where, why=f"its format code {code!r} is not read so far")
        fmt = _FOURCC[code]
    else:
        key = (bits, *masks) if pf_flags & _PF_ALPHA else (bits, *masks[:3], 0)
        if key not in _FROM_MASKS:
            shown = " ".join(f"{mask:08x}" for mask in masks)
            raise FurnelError(
                WHAT, where=where, why=f"{bits}-bit pixels with the masks {shown} are not read so far"
            )
        fmt = _FROM_MASKS[key]
    count = max(levels, 1)
    if count > full_levels(width, height):
        raise FurnelError(
            WHAT, where=where, why=f"it says {count} levels, more than {width} × {height} pixels have"
        )
    return Texture(width, height, fmt, (b"",) * count, "DDS", srgb, (("header", header),)), start


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """A DDS file as a Texture; its levels are views into `data`. Raises FurnelError for damage or an unread kind."""
    texture, start = _read_header(data, where)
    view = memoryview(data)
    found = []
    for level in range(len(texture.levels)):
        length = texture.pixel_format.level_bytes(*texture.level_size(level))
        if start + length > len(view):
            raise FurnelError(
                WHAT,
                where=where,
                why=f"level {level} should end at byte {start + length} and the file ends at {len(view)}",
                remedy="The file is cut short: take a fresh copy of it",
            )
        found.append(view[start : start + length])
        start += length
    return replace(texture, levels=tuple(found))


def write(texture: Texture) -> bytes:
    """The texture as a DDS file, with the header style that its notes ask for (`legacy` unless `DX10`)."""
    fmt = texture.pixel_format
    has_code = texture.format in _TO_FOURCC or texture.format in _MASKS
    dx10 = texture.note("header") == "DX10" or not has_code
    flags = _CAPS | _HEIGHT | _WIDTH | _PIXELFORMAT | (_LINEAR if fmt.compressed else _PITCH)
    caps = _CAPS_TEXTURE
    if len(texture.levels) > 1:
        flags |= _LEVELS
        caps |= _CAPS_COMPLEX | _CAPS_LEVELS
    pitch = len(texture.levels[0]) if fmt.compressed else texture.width * fmt.size_bytes
    if dx10:
        pixel_format = (32, _PF_FOURCC, int.from_bytes(b"DX10", "little"), 0, 0, 0, 0, 0)
    elif texture.format in _TO_FOURCC:
        pixel_format = (32, _PF_FOURCC, int.from_bytes(_TO_FOURCC[texture.format], "little"), 0, 0, 0, 0, 0)
    else:
        masks = _MASKS[texture.format]
        pixel_format = (32, _PF_RGB | (_PF_ALPHA if masks[4] else 0), 0, *masks)
    head = _HEADER.pack(
        b"DDS ",
        124,
        flags,
        texture.height,
        texture.width,
        pitch,
        0,
        len(texture.levels),
        *pixel_format,
        caps,
        0,
        0,
        0,
        0,
    )
    if dx10:
        key = (texture.format, bool(texture.srgb))
        if key not in _TO_DXGI:
            raise FurnelError(
                "Writing a DDS texture",
                why=f"{texture.format} has no DX10 code",
                remedy="Use the legacy header",
            )
        head += _DX10.pack(_TO_DXGI[key], 3, 0, 1, 0)
    return head + b"".join(texture.levels)
