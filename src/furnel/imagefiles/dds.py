"""DDS textures, legacy and DX10: flat, arrays, cubes and volumes; after Microsoft's "Programming Guide for DDS"."""

from __future__ import annotations

import struct
from collections.abc import Iterator
from dataclasses import replace

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles.bytesin import check_room, unpack
from furnel.imagefiles.filetype import Note, PictureFile, header_length
from furnel.images.formats import FORMATS, full_levels
from furnel.images.picture import check_size
from furnel.images.texture import Levels, Shape, Texture

WHAT = "Reading a DDS texture"

_HEADER = struct.Struct("<4s7I44x8I5I")  # magic, 7 words, 11 reserved, pixel format, caps
_DX10 = struct.Struct("<5I")

_CAPS, _HEIGHT, _WIDTH, _PITCH, _PIXELFORMAT, _LEVELS, _LINEAR, _DEPTH = (
    0x1,
    0x2,
    0x4,
    0x8,
    0x1000,
    0x20000,
    0x80000,
    0x800000,
)
_PF_ALPHA, _PF_ALPHA_ONLY, _PF_FOURCC, _PF_RGB, _PF_LUMINANCE = 0x1, 0x2, 0x4, 0x40, 0x20000
_CAPS_COMPLEX, _CAPS_TEXTURE, _CAPS_LEVELS = 0x8, 0x1000, 0x400000
_CAPS2_CUBE, _CAPS2_FACES, _CAPS2_VOLUME = 0x200, 0xFC00, 0x200000
_MISC_CUBE, _DIMENSION_FLAT, _DIMENSION_VOLUME, _PREMULTIPLIED = 0x4, 3, 4, 2

_FOURCC = {
    b"DXT1": "BC1", b"DXT2": "BC2", b"DXT3": "BC2", b"DXT4": "BC3", b"DXT5": "BC3", b"BC4U": "BC4", b"ATI1": "BC4",
    b"BC4S": "BC4S", b"BC5U": "BC5", b"ATI2": "BC5", b"BC5S": "BC5S",
}  # fmt: skip
_TO_FOURCC = {
    "BC1": b"DXT1", "BC2": b"DXT3", "BC3": b"DXT5", "BC4": b"BC4U", "BC4S": b"BC4S", "BC5": b"BC5U", "BC5S": b"BC5S",
}  # fmt: skip
_PREMULTIPLIED_CODES = {"BC2": b"DXT2", "BC3": b"DXT4"}
_NUMBERED = {
    36: "RGBA16",
    111: "R16F",
    112: "RG16F",
    113: "RGBA16F",
    114: "R32F",
    115: "RG32F",
    116: "RGBA32F",
}
_TO_NUMBER = {fmt: number for number, fmt in _NUMBERED.items()}
_DXGI = {
    71: ("BC1", False), 72: ("BC1", True), 74: ("BC2", False), 75: ("BC2", True), 77: ("BC3", False), 78: ("BC3", True),
    80: ("BC4", False), 81: ("BC4S", False), 83: ("BC5", False), 84: ("BC5S", False), 95: ("BC6H", False), 96: ("BC6HS", False),
    98: ("BC7", False), 99: ("BC7", True), 28: ("RGBA8", False), 29: ("RGBA8", True), 87: ("BGRA8", False),
    91: ("BGRA8", True), 88: ("BGRX8", False), 93: ("BGRX8", True), 85: ("RGB565", False), 86: ("RGBA5551", False),
    115: ("RGBA4444", False), 61: ("R8", False), 49: ("RG8", False), 65: ("A8", False), 11: ("RGBA16", False),
    54: ("R16F", False), 34: ("RG16F", False), 10: ("RGBA16F", False), 41: ("R32F", False), 16: ("RG32F", False),
    2: ("RGBA32F", False),
}  # fmt: skip
_TO_DXGI = {pair: number for number, pair in _DXGI.items()}
_TYPELESS = {  # leave open whether they are sRGB
    70: "BC1", 73: "BC2", 76: "BC3", 79: "BC4", 82: "BC5", 94: "BC6H", 97: "BC7", 27: "RGBA8", 90: "BGRA8", 92: "BGRX8",
}  # fmt: skip
_MASKS = {  # bits, then the masks of red, green, blue and alpha; grey is kept in red's
    "RGBA8": (32, 0xFF, 0xFF00, 0xFF0000, 0xFF000000),
    "RGBX8": (32, 0xFF, 0xFF00, 0xFF0000, 0),
    "BGRA8": (32, 0xFF0000, 0xFF00, 0xFF, 0xFF000000),
    "BGRX8": (32, 0xFF0000, 0xFF00, 0xFF, 0),
    "BGR8": (24, 0xFF0000, 0xFF00, 0xFF, 0),
    "RGB8": (24, 0xFF, 0xFF00, 0xFF0000, 0),
    "RGB565": (16, 0xF800, 0x7E0, 0x1F, 0),
    "RGBA5551": (16, 0x7C00, 0x3E0, 0x1F, 0x8000),
    "RGBA4444": (16, 0xF00, 0xF0, 0xF, 0xF000),
    "R8": (8, 0xFF, 0, 0, 0),
    "RG8": (16, 0xFF, 0xFF00, 0, 0),
}
_FROM_MASKS = {masks: fmt for fmt, masks in _MASKS.items()}
_GREY = {(8, 0): "L8", (16, 0xFF00): "LA8"}  # by bits and alpha mask


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """What the header says, as a Texture whose levels hold no data."""
    return _read_header(data, where)[0]


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """A DDS file as a Texture; its levels are views into `data`. Raises FurnelError for damage or an unread kind."""
    texture, start, pitch = _read_header(data, where)
    view = memoryview(data)
    align = _row_alignment(texture, pitch, len(view) - start)
    chains: list[Levels] = []
    for _ in range(1 + len(texture.others)):
        found: list[bytes | memoryview] = []
        for level in range(len(texture.levels)):
            width, height = texture.level_size(level)
            row = -(-width * texture.pixel_format.size_bytes // align) * align if align > 1 else 0
            slices = texture.level_depth(level)
            length = slices * (row * height if row else texture.pixel_format.level_bytes(width, height))
            check_room(view, start, length, f"level {level}", WHAT, where)
            part = view[start : start + length]
            found.append(
                _without_padding(part, row, width * texture.pixel_format.size_bytes) if row else part
            )
            start += length
        chains.append(tuple(found))
    notes = (*texture.notes, ("row alignment", str(align))) if align > 1 else texture.notes
    return replace(texture, levels=chains[0], others=tuple(chains[1:]), notes=notes)


def write(texture: Texture) -> bytes:
    """The texture as a DDS file, with the header style that its notes ask for (`legacy` unless `DX10`)."""
    fmt = texture.pixel_format
    dx10 = texture.note("header") == "DX10" or not _has_legacy(texture)
    flags = _CAPS | _HEIGHT | _WIDTH | _PIXELFORMAT | (_LINEAR if fmt.compressed else _PITCH)
    caps, caps2 = _CAPS_TEXTURE, 0
    if len(texture.levels) > 1:
        flags |= _LEVELS
        caps |= _CAPS_COMPLEX | _CAPS_LEVELS
    if texture.shape == "cube":
        caps, caps2 = caps | _CAPS_COMPLEX, _CAPS2_CUBE | _CAPS2_FACES
    if texture.shape == "volume":
        flags, caps, caps2 = flags | _DEPTH, caps | _CAPS_COMPLEX, _CAPS2_VOLUME
    align = int(texture.note("row alignment") or 1)
    row = -(-texture.width * fmt.size_bytes // align) * align
    pitch = fmt.level_bytes(texture.width, texture.height) if fmt.compressed else row
    pixel_format = (32, _PF_FOURCC, int.from_bytes(b"DX10", "little"), 0, 0, 0, 0, 0)
    head = _HEADER.pack(
        b"DDS ", 124, flags, texture.height, texture.width, pitch, texture.depth if texture.shape == "volume" else 0,
        len(texture.levels), *(pixel_format if dx10 else _legacy_format(texture)), caps, caps2, 0, 0, 0,
    )  # fmt: skip
    if dx10:
        head += _dx10_header(texture)
    return head + b"".join(_padded(texture, align))


def _read_header(data: bytes | memoryview, where: object) -> tuple[Texture, int, int]:
    """What the header says, where the first level begins, and the pitch when the header gives one."""
    fields = unpack(_HEADER, data, 0, WHAT, where)
    magic, size, flags, height, width, pitch, depth, levels = fields[:8]
    _pf_size, pf_flags, fourcc, bits, *masks = fields[8:16]
    _caps, caps2 = fields[16], fields[17]
    if magic != b"DDS " or size != 124:
        raise FurnelError(
            WHAT, where=where, why="it does not begin like one", remedy="Is it another kind of file?"
        )
    start, srgb, header, alpha = _HEADER.size, None, "legacy", "straight"
    shape: Shape = "flat"
    pictures = 1
    if caps2 & _CAPS2_VOLUME:
        shape = "volume"
    elif caps2 & _CAPS2_CUBE:
        shape, pictures = "cube", 6
        if caps2 & _CAPS2_FACES != _CAPS2_FACES:
            raise FurnelError(
                WHAT, where=where, why="it is a cube with faces left out, which no game of today reads"
            )
    code = struct.pack("<I", fourcc)
    if pf_flags & _PF_FOURCC and code == b"DX10":
        number, dimension, misc, layers, misc2 = unpack(_DX10, data, start, WHAT, where)
        start, header = start + _DX10.size, "DX10"
        if number not in _DXGI and number not in _TYPELESS:
            raise FurnelError(
                WHAT,
                where=where,
                why=f"DXGI format {number} is not read",
                remedy="Save it as one of BC1 to BC7",
            )
        fmt, srgb = _DXGI.get(number) or (_TYPELESS[number], None)
        cube = bool(misc & _MISC_CUBE)
        pictures = max(layers, 1) * (6 if cube else 1)
        shape = (
            "volume"
            if dimension == _DIMENSION_VOLUME
            else "cube"
            if cube
            else "array"
            if layers > 1
            else "flat"
        )
        alpha = "premultiplied" if misc2 & 7 == _PREMULTIPLIED else "straight"
    else:
        fmt = _legacy_name(pf_flags, fourcc, bits, masks, where)
        alpha = (
            "premultiplied" if code in _PREMULTIPLIED_CODES.values() and pf_flags & _PF_FOURCC else "straight"
        )
    slices = max(depth, 1) if shape == "volume" else 1
    if shape == "volume":
        pictures = 1
    check_size(width, height, WHAT, where)
    check_size(width, height * slices, WHAT, where)
    count = max(levels, 1)
    if count > full_levels(width, height, slices):
        raise FurnelError(
            WHAT, where=where, why=f"it says {count} levels, more than {width} × {height} pixels have"
        )
    if pictures > 2048 * 6:
        raise FurnelError(WHAT, where=where, why=f"it says {pictures} layers", remedy="The file is damaged")
    notes = (("header", header), *((("alpha", alpha),) if alpha != "straight" else ()))
    empty: Levels = (b"",) * count
    texture = Texture(width, height, fmt, empty, "DDS", srgb, notes, shape, (empty,) * (pictures - 1), slices)
    return texture, start, pitch if flags & _PITCH and not FORMATS[fmt].compressed else 0


def _legacy_name(pf_flags: int, fourcc: int, bits: int, masks: list[int], where: object) -> str:
    """The format that a legacy pixel format stands for."""
    code = struct.pack("<I", fourcc)
    if pf_flags & _PF_FOURCC:
        if code in _FOURCC:
            return _FOURCC[code]
        if fourcc in _NUMBERED:
            return _NUMBERED[fourcc]
        raise FurnelError(
            WHAT,
            where=where,
            why=f"its format code {code!r} is not read",
            remedy="Save it as one of BC1 to BC7",
        )
    if pf_flags & _PF_ALPHA_ONLY and not pf_flags & _PF_RGB and bits == 8:
        return "A8"
    alpha = masks[3] if pf_flags & _PF_ALPHA else 0
    if pf_flags & _PF_LUMINANCE and masks[0] == 0xFF and (bits, alpha) in _GREY:
        return _GREY[bits, alpha]
    key = (bits, *masks[:3], alpha)
    if key not in _FROM_MASKS:
        shown = " ".join(f"{mask:08x}" for mask in masks)
        raise FurnelError(
            WHAT, where=where, why=f"{bits}-bit pixels with the masks {shown} are not read",
            remedy="Save it as 32-bit RGBA",
        )  # fmt: skip
    return _FROM_MASKS[key]


def _row_alignment(texture: Texture, pitch: int, room: int) -> int:
    """To how many bytes rows are padded: what a pitch that is wider than a row says, when the file is long enough for it."""
    row = texture.width * texture.pixel_format.size_bytes
    if pitch <= row or pitch > row + 256:
        return 1
    align = next((step for step in (4, 2, 8, 16, 32, 64, 128, 256) if -(-row // step) * step == pitch), 1)
    needed = 0
    for level in range(len(texture.levels)):
        width, height = texture.level_size(level)
        padded = -(-width * texture.pixel_format.size_bytes // align) * align
        needed += padded * height * texture.level_depth(level)
    return align if needed * (1 + len(texture.others)) <= room else 1


def _without_padding(part: memoryview, row: int, used: int) -> bytes:
    return np.ascontiguousarray(np.frombuffer(part, np.uint8).reshape(-1, row)[:, :used]).tobytes()


def _padded(texture: Texture, align: int) -> Iterator[bytes | memoryview]:
    """All levels in the file's order, rows padded where the original's were."""
    for chain in (texture.levels, *texture.others):
        for level, data in enumerate(chain):
            used = texture.level_size(level)[0] * texture.pixel_format.size_bytes
            row = -(-used // align) * align
            if texture.pixel_format.compressed or row == used:
                yield data
            else:
                rows = np.frombuffer(data, np.uint8).reshape(-1, used)
                yield np.pad(rows, ((0, 0), (0, row - used))).tobytes()


def _has_legacy_code(fmt: str) -> bool:
    """Whether a legacy header can name a format; the others need the DX10 header."""
    return fmt in _TO_FOURCC or fmt in _MASKS or fmt in _TO_NUMBER or fmt in ("A8", "L8", "LA8")


def _has_legacy(texture: Texture) -> bool:
    return (
        _has_legacy_code(texture.format)
        and texture.shape != "array"
        and not (texture.shape == "cube" and texture.pictures > 6)
    )


def _legacy_format(texture: Texture) -> tuple[int, ...]:
    """The eight words of a legacy pixel format."""
    fmt = texture.format
    if fmt in _TO_FOURCC:
        premultiplied = texture.note("alpha") == "premultiplied" and fmt in _PREMULTIPLIED_CODES
        code = _PREMULTIPLIED_CODES[fmt] if premultiplied else _TO_FOURCC[fmt]
        return (32, _PF_FOURCC, int.from_bytes(code, "little"), 0, 0, 0, 0, 0)
    if fmt in _TO_NUMBER:
        return (32, _PF_FOURCC, _TO_NUMBER[fmt], 0, 0, 0, 0, 0)
    if fmt == "A8":
        return (32, _PF_ALPHA_ONLY, 0, 8, 0, 0, 0, 0xFF)
    if fmt in ("L8", "LA8"):
        alpha = 0xFF00 if fmt == "LA8" else 0
        return (32, _PF_LUMINANCE | (_PF_ALPHA if alpha else 0), 0, 16 if alpha else 8, 0xFF, 0, 0, alpha)
    masks = _MASKS[fmt]
    return (32, _PF_RGB | (_PF_ALPHA if masks[4] else 0), 0, *masks)


def _dx10_header(texture: Texture) -> bytes:
    key = (texture.format, bool(texture.srgb))
    if key not in _TO_DXGI:
        key = (texture.format, False)
    if key not in _TO_DXGI:
        raise FurnelError(
            "Writing a DDS texture",
            why=f"{texture.format} has no DX10 code",
            remedy="Use the legacy header",
        )
    cube = texture.shape == "cube"
    layers = 1 if texture.shape == "volume" else texture.pictures // (6 if cube else 1)
    dimension = _DIMENSION_VOLUME if texture.shape == "volume" else _DIMENSION_FLAT
    alpha = _PREMULTIPLIED if texture.note("alpha") == "premultiplied" else 0
    return _DX10.pack(_TO_DXGI[key], dimension, _MISC_CUBE if cube else 0, layers, alpha)


def _length(data: memoryview) -> int:
    """As `read` takes it: rows padded where the header says so and the file is long enough."""
    return header_length(lambda head, where: _read_header(head, where)[:2], data)


ALPHA = Note(key="alpha", label="Alpha is", choices=("straight", "premultiplied"))
DDS = PictureFile(
    name="DDS",
    suffixes=(".dds",),
    signature=rb"DDS \x7c\0\0\0",
    recognises_more=lambda data: bytes(data[:4]) == b"DDS ",
    read=read,
    read_header=read_header,
    write=write,
    length=_length,
    header=lambda data: data[: 148 if data[84:88] == b"DX10" else 128],
    formats=("BC1", "BC2", "BC3", "BC4", "BC5", "BC7", "BGRA8", "RGB565", "RGBA4444", "RGBA5551", "L8"),
    has_levels=True,
    has_colour_space=True,
    known_by_format=True,
    needs=lambda fmt: {} if _has_legacy_code(fmt) else {"header": "DX10"},
    notes=(
        Note(
            key="header",
            label="Header",
            choices=("legacy", "DX10"),
            why="Some games know only one of the two DDS headers",
            offered=True,
            by_format=True,
        ),
        ALPHA,
        Note(
            key="row alignment",
            label="Row padding",
            why="Rows of another length shift the picture line by line",
        ),
    ),
)
