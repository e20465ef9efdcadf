"""Picture files to textures and back. Each format is a module with SUFFIXES, recognises, read and write."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from typing import Protocol

import numpy as np

from furnel import blocks
from furnel.errors import FurnelError
from furnel.imagefiles import dds, pillow, tga
from furnel.images.picture import Picture
from furnel.images.texture import Texture
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


_BY_SIGNATURE: tuple[_Format, ...] = (dds, pillow, tga)  # tga has no signature and so comes last
_WRITERS: dict[str, _Format] = {"DDS": dds, "TGA": tga, "PNG": pillow}
SUFFIXES: tuple[str, ...] = dds.SUFFIXES + tga.SUFFIXES + pillow.SUFFIXES


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
        why="it is not a DDS, TGA, PNG, JPEG, WebP, BMP or GIF file",
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
            "Writing a picture", why=f"{texture.file_type} is not written", remedy="Use DDS, TGA or PNG"
        )
    return _WRITERS[texture.file_type].write(texture)


def decode_level(texture: Texture, level: int = 0) -> Picture:
    """One level of a texture as a Picture; only that level is decoded."""
    width, height = texture.level_size(level)
    data = texture.levels[level]
    if texture.pixel_format.compressed:
        return Picture(blocks.decode(data, width, height, texture.format))
    raw = np.frombuffer(data, np.uint8).reshape(height, width, texture.pixel_format.size_bytes)
    if texture.format == "RGBA8":
        return Picture(raw)
    out = np.full((height, width, 4), 255, np.uint8)
    out[..., :3] = raw[..., (2, 1, 0)]
    if texture.format == "BGRA8":
        out[..., 3] = raw[..., 3]
    return Picture(out)


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
    whole = sum(level.width * level.height for level in levels)
    encoded, done = [], 0
    for level in levels:
        after = done + level.width * level.height
        part = progress if progress is QUIET else Part(progress, done / whole, after / whole)
        encoded.append(_encode_pixels(level, fmt, quality, part))
        done = after
    return Texture(levels[0].width, levels[0].height, fmt, tuple(encoded), file_type, srgb, notes)


def _encode_pixels(picture: Picture, fmt: str, quality: blocks.Quality, progress: Progress) -> bytes:
    pixels = picture.pixels
    if fmt == "RGBA8":
        return pixels.tobytes()
    if fmt in ("BGRA8", "BGRX8"):
        return pixels[..., (2, 1, 0, 3)].tobytes()
    if fmt == "BGR8":
        return pixels[..., (2, 1, 0)].tobytes()
    return blocks.encode(pixels, fmt, quality, progress)
