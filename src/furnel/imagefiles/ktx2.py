"""KTX2 textures, plain, with Zstandard or with zlib inside; after Khronos' "KTX File Format Specification 2.0"."""

from __future__ import annotations

import math
import re
import struct
import zlib
from collections.abc import Iterable
from dataclasses import replace

from furnel.errors import FurnelError
from furnel.imagefiles.bytesin import check_room, unpack
from furnel.imagefiles.dds import ALPHA, DDS
from furnel.imagefiles.filetype import Note, PictureFile
from furnel.imagefiles.tga import ROWS
from furnel.images.formats import FORMATS, full_levels
from furnel.images.picture import check_size
from furnel.images.texture import Levels, Shape, Texture

WHAT = "Reading a KTX2 texture"

_IDENTIFIER = b"\xabKTX 20\xbb\r\n\x1a\n"
_HEADER = struct.Struct("<12s9I4I2Q")
_LEVEL = struct.Struct("<3Q")
_SUPERCOMPRESSION = {0: "none", 2: "Zstandard", 3: "zlib"}

# Vulkan's numbers, linear and sRGB (0 where there is none), and the order of channels that Furnel's format asks for
_VULKAN = {
    "BC1": (133, 134, ""), "BC2": (135, 136, ""), "BC3": (137, 138, ""), "BC4": (139, 0, ""), "BC4S": (140, 0, ""),
    "BC5": (141, 0, ""), "BC5S": (142, 0, ""), "BC6H": (143, 0, ""), "BC6HS": (144, 0, ""), "BC7": (145, 146, ""),
    "RGBA8": (37, 43, ""), "RGBX8": (37, 43, "rgb1"), "RGB8": (23, 29, ""), "BGRA8": (44, 50, ""), "BGRX8": (44, 50, "rgb1"),
    "BGR8": (30, 36, ""), "RGB565": (4, 0, ""), "RGBA5551": (8, 0, ""), "RGBA4444": (1000340000, 0, ""), "R8": (9, 15, ""),
    "RG8": (16, 22, ""), "A8": (1000470000, 0, ""), "L8": (9, 15, "rrr1"), "LA8": (16, 22, "rrrg"), "RGBA16": (91, 0, ""),
    "R16F": (76, 0, ""), "RG16F": (83, 0, ""), "RGBA16F": (97, 0, ""), "R32F": (100, 0, ""), "RG32F": (103, 0, ""),
    "RGBA32F": (109, 0, ""),
}  # fmt: skip
_FROM_VULKAN = {
    (number, order): (fmt, srgb)
    for fmt, (linear, colour, order) in _VULKAN.items()
    for number, srgb in ((linear, False), (colour, True))
    if number
}
_FROM_VULKAN |= {(131, ""): ("BC1", False), (132, ""): ("BC1", True)}
_COLOUR_MODELS = {"BC1": 128, "BC2": 129, "BC3": 130, "BC4": 131, "BC5": 132, "BC6": 133, "BC7": 134}
_RGB_MODEL, _BT709, _LINEAR, _SRGB, _PREMULTIPLIED = 1, 1, 1, 2, 1
_ALPHA, _SIGNED, _FLOAT = 15, 0x40, 0x80


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """What the header says, as a Texture whose levels hold no data."""
    return _read_header(data, where)[0]


def read(data: bytes | memoryview, where: object = "", wanted: int | None = None) -> Texture:
    """A KTX2 file as a Texture; with `wanted` only that level is taken out and the others are left empty.

    Raises FurnelError for damage or an unread kind.
    """
    texture, scheme = _read_header(data, where)
    view = memoryview(data)
    chains: list[list[bytes | memoryview]] = [[] for _ in range(1 + len(texture.others))]
    for level in range(len(texture.levels)):
        start, length, whole = unpack(_LEVEL, data, _HEADER.size + level * _LEVEL.size, WHAT, where)
        size = texture.pixel_format.level_bytes(*texture.level_size(level)) * texture.level_depth(level)
        if wanted is not None and level != wanted:
            for chain in chains:
                chain.append(b"")
            continue
        check_room(view, start, length, f"level {level}", WHAT, where)
        if (whole if scheme else length) != size * len(chains):
            raise FurnelError(
                WHAT,
                where=where,
                why=f"level {level} has {whole if scheme else length} bytes where {size * len(chains)} are needed",
                remedy="The file is damaged: take a fresh copy of it",
            )
        part = view[start : start + length]
        plain: bytes | memoryview = _expanded(part, size * len(chains), scheme, where) if scheme else part
        for number, chain in enumerate(chains):
            chain.append(plain[number * size : (number + 1) * size])
    return replace(texture, levels=tuple(chains[0]), others=tuple(map(tuple, chains[1:])))


def write(texture: Texture) -> bytes:
    """The texture as a KTX2 file; the note `supercompression` asks for `Zstandard` or `zlib`."""
    linear, colour, order = _VULKAN[texture.format]
    number = colour if texture.srgb and colour else linear
    scheme = next(
        (key for key, name in _SUPERCOMPRESSION.items() if name == texture.note("supercompression")), 0
    )
    fmt = texture.pixel_format
    count = len(texture.levels)
    descriptor = _descriptor(texture, bool(texture.srgb and colour))
    pairs = {
        "KTXorientation": "ru" if texture.note("rows") == "bottom first" else "rd",
        "KTXwriter": "Furnel",
    }
    if order:
        pairs["KTXswizzle"] = order
    keys = _key_values(pairs)
    descriptor_at = _HEADER.size + count * _LEVEL.size
    keys_at = descriptor_at + len(descriptor)
    at = keys_at + len(keys)
    align = 1 if scheme else math.lcm(fmt.size_bytes, 4)
    body, index = bytearray(), [(0, 0, 0)] * count
    for level in range(count - 1, -1, -1):
        plain = b"".join(chain[level] for chain in (texture.levels, *texture.others))
        packed = _compressed(plain, scheme)
        body += bytes(-(at + len(body)) % align)
        index[level] = (at + len(body), len(packed), len(plain))
        body += packed
    cube, volume = texture.shape == "cube", texture.shape == "volume"
    faces = 6 if cube else 1
    layers = 0 if volume else texture.pictures // faces
    head = _HEADER.pack(
        _IDENTIFIER, number, _type_size(texture.format), texture.width, texture.height, texture.depth if volume else 0,
        layers if layers > 1 or texture.shape == "array" else 0, faces, count, scheme,
        descriptor_at, len(descriptor), keys_at, len(keys), 0, 0,
    )  # fmt: skip
    return head + b"".join(_LEVEL.pack(*entry) for entry in index) + descriptor + keys + bytes(body)


def _read_header(data: bytes | memoryview, where: object) -> tuple[Texture, int]:
    """What the header says, and the number of its supercompression."""
    fields = unpack(_HEADER, data, 0, WHAT, where)
    magic, number, _size, width, height, depth, layers, faces, levels, scheme = fields[:10]
    descriptor_at, descriptor_size, keys_at, keys_size = fields[10:14]
    if magic != _IDENTIFIER:
        raise FurnelError(
            WHAT, where=where, why="it does not begin like one", remedy="Is it another kind of file?"
        )
    if scheme not in _SUPERCOMPRESSION:
        raise FurnelError(
            WHAT, where=where, why=f"it is packed in a way (number {scheme}) that is not read",
            remedy="Save it plain or with Zstandard",
        )  # fmt: skip
    height = max(height, 1)
    slices = max(depth, 1)
    check_size(width, height, WHAT, where)
    check_size(width, height * slices, WHAT, where)
    pairs = _read_keys(data, keys_at, keys_size)
    order = pairs.get("KTXswizzle", "")
    found = _FROM_VULKAN.get((number, order)) or _FROM_VULKAN.get((number, ""))
    if found is None:
        raise FurnelError(
            WHAT,
            where=where,
            why=f"Vulkan format {number} is not read",
            remedy="Save it as one of BC1 to BC7",
        )
    fmt, srgb = found
    shape: Shape = "volume" if depth > 1 else "cube" if faces == 6 else "array" if layers else "flat"
    pictures = 1 if shape == "volume" else max(layers, 1) * max(faces, 1)
    if faces not in (1, 6) or pictures > 2048 * 6 or (shape == "volume" and (layers > 1 or faces > 1)):
        raise FurnelError(WHAT, where=where, why=f"{layers} layers with {faces} faces are not read")
    count = max(levels, 1)
    if count > full_levels(width, height, slices):
        raise FurnelError(
            WHAT, where=where, why=f"it says {count} levels, more than {width} × {height} pixels have"
        )
    notes = [("supercompression", _SUPERCOMPRESSION[scheme])]
    if pairs.get("KTXorientation", "rd")[1:2] == "u":
        notes.append(("rows", "bottom first"))
    if _is_premultiplied(data, descriptor_at, descriptor_size):
        notes.append(("alpha", "premultiplied"))
    empty: Levels = (b"",) * count
    others = (empty,) * (pictures - 1)
    return Texture(width, height, fmt, empty, "KTX2", srgb, tuple(notes), shape, others, slices), scheme


def _read_keys(data: bytes | memoryview, start: int, size: int) -> dict[str, str]:
    """The key and value pairs that are text; none from a part that is damaged."""
    out: dict[str, str] = {}
    part = bytes(data[start : start + min(size, 1 << 16)])
    at = 0
    while at + 4 <= len(part):
        length = int.from_bytes(part[at : at + 4], "little")
        key, _, value = part[at + 4 : at + 4 + length].partition(b"\0")
        out[key.decode("utf-8", "replace")] = value.rstrip(b"\0").decode("utf-8", "replace")
        at += 4 + length + -length % 4
    return out


def _key_values(pairs: dict[str, str]) -> bytes:
    out = b""
    for key in sorted(pairs):
        entry = key.encode() + b"\0" + pairs[key].encode() + b"\0"
        out += struct.pack("<I", len(entry)) + entry + bytes(-len(entry) % 4)
    return out


def _is_premultiplied(data: bytes | memoryview, start: int, size: int) -> bool:
    return size >= 16 and len(data) >= start + 16 and bool(data[start + 15] & _PREMULTIPLIED)


def _descriptor(texture: Texture, srgb: bool) -> bytes:
    """The basic data format descriptor (Khronos Data Format Specification 1.3, chapter 5)."""
    fmt = texture.pixel_format
    samples = b"".join(_samples(texture.format, srgb))
    model = _COLOUR_MODELS[texture.format[:3]] if fmt.compressed else _RGB_MODEL
    flags = _PREMULTIPLIED if texture.note("alpha") == "premultiplied" else 0
    block = fmt.block - 1
    head = struct.pack(
        "<IHH4B4B8B", 0, 2, 24 + len(samples), model, _BT709, _SRGB if srgb else _LINEAR, flags,
        block, block, 0, 0, fmt.size_bytes, 0, 0, 0, 0, 0, 0, 0,
    )  # fmt: skip
    return struct.pack("<I", 4 + len(head) + len(samples)) + head + samples


def _samples(fmt: str, srgb: bool) -> Iterable[bytes]:
    """Where every channel's bits lie."""
    entry = FORMATS[fmt]
    if entry.compressed:
        kinds = {
            "BC1": ((0, 64, 1),),
            "BC2": ((0, 64, _ALPHA), (64, 64, 0)),
            "BC3": ((0, 64, _ALPHA), (64, 64, 0)),
        }
        kinds |= {
            "BC4": ((0, 64, 0),),
            "BC5": ((0, 64, 0), (64, 64, 1)),
            "BC6": ((0, 128, 0),),
            "BC7": ((0, 128, 0),),
        }
        for at, length, channel in kinds[fmt[:3]]:
            yield _sample(at, length, channel, entry.sample, fmt == "BC6HS", srgb)
        return
    packed = {
        "RGB565": ((2, 0, 5), (1, 5, 6), (0, 11, 5)),
        "RGBA5551": ((2, 0, 5), (1, 5, 5), (0, 10, 5), (3, 15, 1)),
        "RGBA4444": ((2, 0, 4), (1, 4, 4), (0, 8, 4), (3, 12, 4)),
    }
    if fmt in packed:
        places: Iterable[tuple[int, int, int]] = packed[fmt]
    else:
        stored = {"BGRA8": "BGRA", "BGRX8": "BGRA", "BGR8": "BGR", "RGBX8": "RGBA", "L8": "R", "LA8": "RG"}
        channels = stored.get(fmt, entry.channels)
        bits = entry.size_bytes * 8 // len(channels)
        places = [("RGBA".index(name), bits * place, bits) for place, name in enumerate(channels)]
    for channel, at, bits in places:
        yield _sample(at, bits, _ALPHA if channel == 3 else channel, entry.sample, True, srgb)


def _sample(at: int, bits: int, channel: int, kind: str, signed: bool, srgb: bool) -> bytes:
    qualifiers, low, high = 0, 0, (1 << min(bits, 32)) - 1
    if kind == "float":
        qualifiers = _FLOAT | (_SIGNED if signed else 0)
        low, high = (0xBF800000 if signed else 0), 0x3F800000
    elif kind == "signed":
        qualifiers, low, high = _SIGNED, 0x80000001, 0x7FFFFFFF
    if srgb and channel == _ALPHA:
        qualifiers |= 0x10
    return struct.pack("<HBB4xII", at, bits - 1, channel | qualifiers, low, high)


def _type_size(fmt: str) -> int:
    entry = FORMATS[fmt]
    if entry.compressed:
        return 1
    if fmt in ("RGB565", "RGBA5551", "RGBA4444"):
        return 2
    return entry.size_bytes // len(entry.channels) if entry.sample == "float" or fmt == "RGBA16" else 1


def _compressed(plain: bytes, scheme: int) -> bytes:
    if scheme == 0:
        return plain
    if scheme == 3:
        return zlib.compress(plain, 9)
    import zstandard

    return zstandard.ZstdCompressor(level=12).compress(plain)


def _expanded(part: memoryview, size: int, scheme: int, where: object) -> bytes:
    """`size` bytes, no more, from a packed level."""
    try:
        if scheme == 3:
            whole = zlib.decompressobj().decompress(part, size)
        else:
            import zstandard

            whole = zstandard.ZstdDecompressor().stream_reader(part).read(size)
    except Exception as error:  # both libraries' own kinds, and MemoryError
        raise FurnelError(
            WHAT, where=where, why=f"a level cannot be unpacked ({error})", remedy="Take a fresh copy of it"
        ) from error
    if len(whole) != size:
        raise FurnelError(
            WHAT, where=where, why="a level unpacks to too little", remedy="Take a fresh copy of it"
        )
    return whole


def _length(data: memoryview) -> int:
    """To the end of the level that lies last."""
    if len(data) < _HEADER.size:
        return 0
    levels = max(int.from_bytes(data[40:44], "little"), 1)
    if levels > 32 or _HEADER.size + _LEVEL.size * levels > len(data):
        return 0
    index = [_LEVEL.unpack_from(data, _HEADER.size + _LEVEL.size * level) for level in range(levels)]
    return max(int(offset + length) for offset, length, _ in index)


KTX2 = PictureFile(
    name="KTX2",
    suffixes=(".ktx2",),
    signature=re.escape(_IDENTIFIER),
    read=read,
    read_header=read_header,
    write=write,
    read_level=read,
    length=_length,
    formats=tuple("RGBA8" if name == "BGRA8" else name for name in DDS.formats),
    has_levels=True,
    has_colour_space=True,
    notes=(
        Note(
            key="supercompression",
            label="Packing",
            choices=("none", "Zstandard", "zlib"),
            why="A game that does not unpack it reads garbage",
            offered=True,
        ),
        ROWS,
        ALPHA,
        Note(key="srgb", label="Colour space", choices=("on", "off"), offered=True, kept=False),
    ),
)
