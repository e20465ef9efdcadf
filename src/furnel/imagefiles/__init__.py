"""Picture files to textures and back. Each format is a module with SUFFIXES, recognises, read and write."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Protocol

import numpy as np

from furnel import blocks
from furnel.errors import FurnelError
from furnel.imagefiles import dds, ktx2, pillow, tga
from furnel.images import packing
from furnel.images.colour import to_linear, to_srgb
from furnel.images.formats import FORMATS, PixelFormat
from furnel.images.picture import Picture
from furnel.images.texture import Shape, Texture
from furnel.progress import QUIET, Part, Progress


class _Format(Protocol):
    """What a format's module offers."""

    @property
    def recognises(self) -> Callable[[bytes | memoryview], bool]: ...
    @property
    def read(self) -> Callable[[bytes | memoryview, object], Texture]: ...
    @property
    def read_header(self) -> Callable[[bytes | memoryview, object], Texture]: ...
    @property
    def write(self) -> Callable[[Texture], bytes]: ...


_BY_SIGNATURE: tuple[_Format, ...] = (dds, ktx2, pillow, tga)  # tga has no signature and so comes last
_BRIGHTEST = 65504.0  # the largest half float
_WRITERS: dict[str, _Format] = {"DDS": dds, "KTX2": ktx2, "TGA": tga, "PNG": pillow}
WRITTEN: tuple[str, ...] = tuple(_WRITERS)
SUFFIXES: tuple[str, ...] = dds.SUFFIXES + ktx2.SUFFIXES + tga.SUFFIXES + pillow.SUFFIXES


def recognises(data: bytes | memoryview) -> bool:
    """Whether the beginning of `data` looks like a picture file that can be read."""
    return any(module.recognises(data) for module in _BY_SIGNATURE)


def read_texture(data: bytes | memoryview, where: object = "") -> Texture:
    """A picture file's bytes as a Texture. Raises FurnelError when no format recognises or can read it."""
    for module in _BY_SIGNATURE:
        if module.recognises(data):
            return module.read(data, where)
    raise FurnelError(
        "Reading a picture",
        where=where,
        why="it is not a DDS, KTX2, TGA, PNG, JPEG, WebP, BMP or GIF file",
        remedy="Save it as PNG in your paint program",
    )


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """What the first bytes of a picture file say of it, as a Texture whose levels hold no data."""
    for module in _BY_SIGNATURE:
        if module.recognises(data):
            return module.read_header(data, where)
    raise FurnelError("Reading a picture", where=where, why="it is no picture file that Furnel knows")


def write_texture(texture: Texture) -> bytes:
    """The bytes of a file of the texture's own `file_type`."""
    if texture.file_type not in _WRITERS:
        raise FurnelError(
            "Writing a picture", why=f"{texture.file_type} is not written", remedy="Use DDS, KTX2, TGA or PNG"
        )
    return _WRITERS[texture.file_type].write(texture)


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


def read_small(data: bytes | memoryview, side: int, where: object = "") -> Picture:
    """The smallest level whose longer side has at least `side` pixels; nothing else of the file is unpacked or decoded."""
    if ktx2.recognises(data):
        header = ktx2.read_header(data, where)
        level = small_level(header, side)
        return decode_level(ktx2.read(data, where, level), level, 0)
    texture = read_texture(data, where)
    level = small_level(texture, side)
    return (
        _sampled(texture, level, side)
        if max(texture.level_size(level)) > 8 * side
        else decode_level(texture, level, 0)
    )


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


def _light(data: bytes | memoryview, width: int, height: int, fmt: PixelFormat) -> packing.Light:
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
