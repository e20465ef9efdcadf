"""Everyday picture files through Pillow: PNG, JPEG, WebP, BMP, GIF."""

from __future__ import annotations

import io
import warnings

import numpy as np
from PIL import Image, ImageOps

from furnel.errors import FurnelError
from furnel.images.picture import check_size
from furnel.images.texture import Texture

SUFFIXES = (".png", ".jpg", ".jpeg", ".webp", ".bmp", ".gif")
WHAT = "Reading a picture"
_ALLOWED = ("PNG", "JPEG", "WEBP", "BMP", "GIF")


def recognises(data: bytes | memoryview) -> bool:
    head = bytes(data[:12])
    return head.startswith((b"\x89PNG\r\n\x1a\n", b"\xff\xd8\xff", b"BM", b"GIF8")) or (
        head[:4] == b"RIFF" and head[8:] == b"WEBP"
    )


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """The file's (first) picture as a Texture of one RGBA8 level, turned as its EXIF orientation says."""
    with _open(data, where) as image:
        try:
            upright = ImageOps.exif_transpose(image)
            if upright.mode == "I;16":
                pixels = (np.asarray(upright).astype(np.uint32) * 255 // 65535).astype(np.uint8)
                upright = Image.fromarray(pixels)
            rgba = np.asarray(upright.convert("RGBA"))
        except (OSError, ValueError, SyntaxError, MemoryError, IndexError) as error:
            raise _damaged(where, error) from error
        notes = (("mode", _mode(image)),)
        return Texture(
            rgba.shape[1], rgba.shape[0], "RGBA8", (rgba.tobytes(),), image.format or "", True, notes
        )


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """Size and type alone, as a Texture whose level holds no data."""
    with _open(data, where) as image:
        return Texture(
            image.width, image.height, "RGBA8", (b"",), image.format or "", True, (("mode", _mode(image)),)
        )


def write(texture: Texture) -> bytes:
    """The texture's first level as a PNG file."""
    shape = (texture.height, texture.width, 4)
    stream = io.BytesIO()
    image = Image.fromarray(np.frombuffer(texture.levels[0], np.uint8).reshape(shape))
    if texture.note("mode") == "palette":
        colours = image.getcolors(256)
        if colours is None:
            raise FurnelError(
                "Writing a palette PNG",
                why="the picture has more than 256 colours",
                remedy="Reduce them first",
            )
        image = image.quantize(
            max(len(colours), 2), method=Image.Quantize.FASTOCTREE, dither=Image.Dither.NONE
        )
    image.save(stream, "PNG", optimize=False)
    return stream.getvalue()


def _mode(image: Image.Image) -> str:
    return "palette" if image.mode == "P" else image.mode


def _open(data: bytes | memoryview, where: object) -> Image.Image:
    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            image = Image.open(io.BytesIO(data), formats=_ALLOWED)
        check_size(image.width, image.height, WHAT, where)
        if image.width * image.height > 64 * 1024 * 1024 + len(data) * 1024:
            raise FurnelError(WHAT, where=where, why="its few bytes claim far too many pixels")
        return image
    except FurnelError:
        raise
    except Exception as error:  # Pillow's parsers raise a dozen types on damage
        raise _damaged(where, error) from error


def _damaged(where: object, error: BaseException) -> FurnelError:
    return FurnelError(
        WHAT,
        where=where,
        why=f"it is damaged ({error})",
        remedy="Open it in the program that made it and save it again",
    )
