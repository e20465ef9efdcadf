"""Picture files to textures and back. One more type is a record in a module and a place in `PICTURE_FILES`."""

from __future__ import annotations

import struct
from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from furnel import blocks
from furnel.errors import FurnelError
from furnel.imagefiles.dds import DDS
from furnel.imagefiles.filetype import Data, Note, PictureFile
from furnel.imagefiles.frames import Frame, is_animated, read_frames, write_animation
from furnel.imagefiles.ktx2 import KTX2
from furnel.imagefiles.ora import ORA, Layer, composed, is_layered, read_layers, write_layers
from furnel.imagefiles.pillow import BMP, GIF, JPEG, PCX, PNG, PNM, WEBP
from furnel.imagefiles.tga import TGA
from furnel.images import packing
from furnel.images.colour import to_linear, to_srgb
from furnel.images.formats import FORMATS, PixelFormat
from furnel.images.picture import Picture
from furnel.images.texture import Shape, Texture
from furnel.progress import QUIET, Part, Progress

__all__ = [
    "NOTES", "PICTURE_FILES", "SUFFIXES", "WRITTEN", "Frame", "Layer", "Note", "PictureFile", "brightest", "composed",
    "decode_level", "encode_pictures", "encode_texture", "header_bytes", "is_animated", "is_layered", "picture_file",
    "read_frames", "read_header", "read_layers", "read_small", "read_texture", "recognises", "small_level", "write_animation",
    "write_layers", "write_texture",
]  # fmt: skip

PICTURE_FILES: tuple[PictureFile, ...] = (DDS, KTX2, PNG, JPEG, WEBP, BMP, GIF, PCX, PNM, ORA, TGA)
"""In the order in which they are asked whether a file is theirs: TGA has no signature and so comes last."""
_WITH_HEADER = tuple(one for one in PICTURE_FILES if one.header is not None)
_BRIGHTEST = 65504.0  # the largest half float
_BY_NAME = {one.name: one for one in PICTURE_FILES}
WRITTEN: tuple[str, ...] = tuple(one.name for one in PICTURE_FILES if one.write is not None)
NOTES: tuple[Note, ...] = tuple({note.key: note for one in PICTURE_FILES for note in one.notes}.values())
SUFFIXES: tuple[str, ...] = tuple(suffix for one in PICTURE_FILES for suffix in one.suffixes)


def recognises(data: Data) -> bool:
    """Whether the beginning of `data` looks like a picture file that can be read."""
    return _file_of(data) is not None


def picture_file(name: str) -> PictureFile:
    """The file type of that name; FurnelError when there is none."""
    if name not in _BY_NAME:
        raise FurnelError(
            "Picture files", why=f"there is no type {name!r}", remedy=f"Known ones: {', '.join(_BY_NAME)}"
        )
    return _BY_NAME[name]


def read_texture(data: Data, where: object = "") -> Texture:
    """A picture file's bytes as a Texture. Raises FurnelError when no type recognises or can read it."""
    return _needed(data, where).read(data, where)


_LIGHT_BYTES = 20  # of a pixel of light on its way
_MOST_SEEN, _ANY_SEEN, _MOST_RATIO = 1 << 30, 1 << 27, 2200


def read_header(data: Data, where: object = "") -> Texture:
    """What the first bytes of a picture file say of it, as a Texture whose levels hold no data."""
    return _needed(data, where).read_header(data, where)


def header_bytes(data: Data) -> Data:
    """The first bytes of a picture file that `read_header` depends on; none where that is not a part of its own."""
    return next((one.header(data) for one in _WITH_HEADER if one.header and one.recognises(data)), b"")


def _file_of(data: Data) -> PictureFile | None:
    return next((one for one in PICTURE_FILES if one.recognises(data)), None)


def _needed(data: Data, where: object) -> PictureFile:
    found = _file_of(data)
    if found is None:
        raise FurnelError(
            "Reading a picture",
            where=where,
            why=f"it is no {', '.join(_BY_NAME)} file",
            remedy="Save it as PNG in your paint program",
        )
    return found


def write_texture(texture: Texture) -> bytes:
    """The bytes of a file of the texture's own `file_type`."""
    write = picture_file(texture.file_type).write
    if write is None:
        raise FurnelError(
            "Writing a picture",
            why=f"{texture.file_type} is not written",
            remedy=f"Use one of {', '.join(WRITTEN)}",
        )
    try:
        return write(texture)
    except (ValueError, TypeError, LookupError, OverflowError, StopIteration, struct.error) as error:
        raise FurnelError(
            "Writing a picture",
            why=f"what its encoding says of {texture.file_type} cannot be done: {error}",
            remedy="Match the original's encoding again",
        ) from error


def decode_level(texture: Texture, level: int = 0, picture: int | None = None) -> Picture:
    """One level of a texture as a Picture; only that level is decoded.

    `picture` picks a layer, face or slice; without it all of them come one below the other. Light above white is cut.
    """
    if picture is None:
        count = texture.level_depth(level) if texture.shape == "volume" else texture.pictures
        if count > 1:
            parts = [decode_level(texture, level, number).pixels for number in range(count)]
            return Picture(np.concatenate(parts))
    width, height = texture.level_size(level)
    data = texture.picture_bytes(picture or 0, level)
    fmt = texture.pixel_format
    if fmt.sample == "float":
        light = _light(data, width, height, fmt)
        pixels = np.empty((height, width, 4), np.uint8)
        pixels[..., :3] = to_srgb(light[..., :3])
        pixels[..., 3] = np.round(np.clip(light[..., 3], 0.0, 1.0) * 255)
    elif fmt.compressed:
        pixels = np.asarray(blocks.decode(data, width, height, fmt.name), np.uint8)
    else:
        pixels = packing.unpack(data, width, height, fmt.name)
    if texture.file_type == "KTX2" and texture.note("rows") == "bottom first":
        pixels = np.ascontiguousarray(pixels[::-1])
    if texture.note("alpha") == "premultiplied":
        pixels = _divided(pixels)
    return Picture(pixels)


def _divided(pixels: blocks.Pixels) -> blocks.Pixels:
    """Straight colours from those multiplied by alpha."""
    alpha = np.maximum(pixels[..., 3:].astype(np.uint32), 1)
    out = pixels.copy()
    out[..., :3] = np.minimum((pixels[..., :3] * np.uint32(255) + alpha // 2) // alpha, 255)
    return out


def _multiplied(pixels: blocks.Pixels) -> blocks.Pixels:
    out = pixels.copy()
    out[..., :3] = (pixels[..., :3] * pixels[..., 3:].astype(np.uint32) + 127) // 255
    return out


def brightest(texture: Texture) -> float:
    """The largest colour value of a float texture's first picture, as a multiple of white; 1 for all other formats."""
    fmt = texture.pixel_format
    if fmt.sample != "float":
        return 1.0
    light = _light(texture.picture_bytes(0, 0), texture.width, texture.height, fmt)[..., :3]
    return float(light.max())


def read_small(data: Data, side: int, where: object = "") -> Picture:
    """The smallest level whose longer side has at least `side` pixels; nothing else of the file is unpacked or decoded."""
    kind = _needed(data, where)
    header = kind.read_header(data, where)
    if kind.read_level is not None:
        level = small_level(header, side)
        _check_cost(header, level, len(data), where)
        return decode_level(kind.read_level(data, where, level), level, 0)
    _check_cost(header, 0, len(data), where)
    texture = kind.read(data, where)
    level = small_level(texture, side)
    return (
        _sampled(texture, level, side)
        if max(texture.level_size(level)) > 8 * side
        else decode_level(texture, level, 0)
    )


def _check_cost(header: Texture, level: int, size: int, where: object) -> None:
    """Refuse a picture that would take far more to be seen than any is worth, and more than its bytes can mean."""
    width, height = header.level_size(level)
    cost = width * height * (_LIGHT_BYTES if header.pixel_format.sample == "float" else 4)
    if cost > _MOST_SEEN or (cost > _ANY_SEEN and cost > size * _MOST_RATIO):
        raise FurnelError(
            "Reading a picture", where=where, why=f"{width} × {height} pixels are too many to be seen here",
            remedy="Give it smaller levels, or less pixels",
        )  # fmt: skip


def _sampled(texture: Texture, level: int, side: int) -> Picture:
    """A large level from every n-th of its blocks (or pixels): at least `side` pixels long, without decoding the rest."""
    fmt = texture.pixel_format
    width, height = texture.level_size(level)
    across, down = -(-width // fmt.block), -(-height // fmt.block)
    step = max(max(across, down) // side, 1)
    rows, columns = (slice(min(step, count) // 2, None, step) for count in (down, across))
    units = np.frombuffer(texture.picture_bytes(0, level), np.uint8, across * down * fmt.size_bytes)
    some = np.ascontiguousarray(units.reshape(down, across, fmt.size_bytes)[rows, columns])
    size = some.shape[1] * fmt.block, some.shape[0] * fmt.block
    small = replace(
        texture, width=size[0], height=size[1], levels=(some.tobytes(),), shape="flat", others=(), depth=1
    )
    picture = decode_level(small)
    if fmt.block == 1:
        return picture
    tiles = picture.pixels.reshape(some.shape[0], fmt.block, some.shape[1], fmt.block, 4)
    return Picture((tiles.sum(axis=(1, 3), dtype=np.uint16) // fmt.block**2).astype(np.uint8))


def _light(data: Data, width: int, height: int, fmt: PixelFormat) -> packing.Light:
    """Linear light (height, width, 4); what is no number counts as dark, what is endless as the brightest half float."""
    if not fmt.compressed:
        light = packing.unpack_light(data, width, height, fmt.name)
    else:
        light = np.ones((height, width, 4), np.float32)
        light[..., :3] = blocks.decode(data, width, height, fmt.name)
    return np.clip(np.nan_to_num(light, nan=0.0, posinf=_BRIGHTEST, neginf=0.0), 0.0, _BRIGHTEST)


def small_level(texture: Texture, side: int) -> int:
    """The smallest level whose longer side has at least `side` pixels; 0 when none is that small."""
    for level in range(len(texture.levels) - 1, 0, -1):
        if max(texture.level_size(level)) >= side:
            return level
    return 0


def encode_texture(
    levels: Sequence[Picture],
    fmt: str,
    file_type: str,
    *,
    quality: blocks.Quality = "good",
    srgb: bool | None = None,
    notes: tuple[tuple[str, str], ...] = (),
    progress: Progress = QUIET,
) -> Texture:
    """Levels of pixels encoded in `fmt`, ready to be written as a file of `file_type`."""
    return encode_pictures(
        [[level] for level in levels], fmt, file_type,
        quality=quality, srgb=srgb, notes=notes, progress=progress,
    )  # fmt: skip


def encode_pictures(
    levels: Sequence[Sequence[Picture]],
    fmt: str,
    file_type: str,
    *,
    shape: Shape = "flat",
    quality: blocks.Quality = "good",
    srgb: bool | None = None,
    notes: tuple[tuple[str, str], ...] = (),
    progress: Progress = QUIET,
) -> Texture:
    """Levels of several pictures each: layers, faces or slices, as `shape` says. Notes:

    `white` is what white becomes in float formats, as a multiple of 1; `cut-out` set to `off` keeps BC1 opaque;
    `weighting` set to `as seen` weighs colours in BC1 to BC3 as the eye does.
    """
    told = dict(notes)
    whole = sum(picture.width * picture.height for pictures in levels for picture in pictures)
    encoded: list[list[bytes]] = []
    done = 0
    for pictures in levels:
        encoded.append([])
        for picture in pictures:
            after = done + picture.width * picture.height
            part = progress if progress is QUIET else Part(progress, done / whole, after / whole)
            upside_down = file_type == "KTX2" and told.get("rows") == "bottom first"
            pixels = picture.pixels[::-1] if upside_down else picture.pixels
            if told.get("alpha") == "premultiplied":
                pixels = _multiplied(pixels)
            encoded[-1].append(_encode_pixels(pixels, fmt, quality, told, part))
            done = after
    width, height = levels[0][0].size
    if shape == "volume":
        slices = tuple(b"".join(level) for level in encoded)
        return Texture(width, height, fmt, slices, file_type, srgb, notes, shape, (), len(levels[0]))
    chains = tuple(zip(*encoded, strict=True))
    return Texture(width, height, fmt, chains[0], file_type, srgb, notes, shape, chains[1:])


def _encode_pixels(
    pixels: blocks.Pixels, fmt: str, quality: blocks.Quality, notes: dict[str, str], progress: Progress
) -> bytes:
    entry = FORMATS[fmt]
    if entry.sample == "float":
        light = np.empty(pixels.shape, np.float32)
        light[..., :3] = to_linear(pixels[..., :3]) * np.float32(notes.get("white", "1"))
        light[..., 3] = pixels[..., 3] / np.float32(255)
        if not entry.compressed:
            return packing.pack_light(light, fmt)
        return blocks.encode(light[..., :3].astype(np.float16), fmt, quality, progress)
    if entry.compressed:
        return blocks.encode(
            pixels, fmt, quality, progress,
            cut_out=notes.get("cut-out") != "off", as_seen=notes.get("weighting") == "as seen",
        )  # fmt: skip
    return packing.pack(pixels, fmt)
