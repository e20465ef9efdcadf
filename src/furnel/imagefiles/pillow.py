"""Everyday picture files through Pillow: PNG, JPEG, WebP, BMP, GIF."""

from __future__ import annotations

import io
import struct
import warnings
import zlib
from functools import lru_cache
from typing import TYPE_CHECKING, Any

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles.filetype import Note, PictureFile
from furnel.images.picture import check_size
from furnel.images.texture import Texture
from furnel.sound.files import riff_length

if TYPE_CHECKING:
    from PIL import Image

WHAT = "Reading a picture"
_ALLOWED = ("PNG", "JPEG", "WEBP", "BMP", "GIF")
_SRGB_GAMMA = 1 / 2.2


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """The file's (first) picture as a Texture of one RGBA8 level in sRGB, turned as its EXIF orientation says.

    A colour profile or a gamma of another kind is brought to sRGB, so that the picture looks as it did where it was
    made; a note `colours` tells.
    """
    from PIL import Image, ImageOps

    with opened(data, where) as image:
        try:
            upright = ImageOps.exif_transpose(image)
            if upright.mode.startswith("I"):
                grey = np.asarray(upright).astype(np.int64).clip(0, 65535)
                upright = Image.fromarray(((grey * 255 + 32767) // 65535).astype(np.uint8))
            rgba, colours = _in_srgb(upright, image)
        except (OSError, ValueError, SyntaxError, MemoryError, IndexError) as error:
            raise damaged(where, error) from error
        notes = _notes(image, data)
        if colours:
            notes = (*notes, ("colours", colours))
        return Texture(
            rgba.shape[1], rgba.shape[0], "RGBA8", (rgba.tobytes(),), image.format or "", True, notes
        )


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """Size and type alone, as a Texture whose level holds no data."""
    with opened(data, where) as image:
        return Texture(
            image.width, image.height, "RGBA8", (b"",), image.format or "", True, _notes(image, data)
        )


def write(texture: Texture) -> bytes:
    """The texture's first level as a PNG file; the note `mode` asks for a palette, grey, or colour with or without alpha."""
    from PIL import Image

    shape = (texture.height, texture.width, 4)
    stream = io.BytesIO()
    image = Image.fromarray(np.frombuffer(texture.levels[0], np.uint8).reshape(shape))
    mode = texture.note("mode")
    if mode == "palette":
        image = _with_palette(np.asarray(image), texture.note("table"))
    elif mode in ("L", "LA", "RGB"):
        image = image.convert(mode)
    image.save(stream, "PNG", optimize=False)
    return stream.getvalue()


def _with_palette(pixels: np.ndarray[Any, np.dtype[np.uint8]], told: str) -> Image.Image:
    """An image of mode P with exactly the picture's colours, clear ones through its transparency table.

    `told` is a table to keep to (eight hex digits a colour): games may look colours up by their number.
    """
    from PIL import Image

    packed = np.ascontiguousarray(pixels).view(np.uint32)[..., 0]
    colours, index = np.unique(packed, return_inverse=True)
    if (kept := _table(told)) is not None and np.isin(colours, kept).all():
        places = {colour: place for place, colour in reversed(list(enumerate(kept.tolist())))}
        index = np.array([places[colour] for colour in colours.tolist()])[index]
        colours = kept
    if len(colours) > 256:
        raise FurnelError(
            "Writing a palette PNG",
            why=f"the picture has {len(colours)} colours, and a palette holds 256",
            remedy="Add the step Few colours",
        )
    table = colours.view(np.uint8).reshape(-1, 4)
    image = Image.fromarray(index.reshape(packed.shape).astype(np.uint8), "P")
    image.putpalette(table[:, :3].tobytes(), "RGB")
    if (table[:, 3] < 255).any():
        image.info["transparency"] = table[:, 3].tobytes()
    return image


def _in_srgb(upright: Image.Image, source: Image.Image) -> tuple[np.ndarray[Any, np.dtype[np.uint8]], str]:
    """Pixels (height, width, 4) in sRGB, and what they were brought from."""
    embedded = source.info.get("icc_profile")
    gamma = source.info.get("gamma")
    if embedded and (done := _from_profile(upright, bytes(embedded))) is not None:
        return done
    if upright.mode == "CMYK":
        upright = upright.convert("RGB")
    rgba = np.array(upright.convert("RGBA"))
    if (
        not embedded
        and gamma
        and "srgb" not in source.info
        and abs(gamma - _SRGB_GAMMA) > 0.02
        and 0.1 < gamma < 4
    ):
        light = (np.arange(256) / 255.0) ** (1 / gamma)
        table = np.where(
            light <= 0.0031308, light * 12.92, 1.055 * np.maximum(light, 1e-9) ** (1 / 2.4) - 0.055
        )
        rgba[..., :3] = np.round(table * 255).astype(np.uint8)[rgba[..., :3]]
        return rgba, f"gamma {gamma:.2f}"
    return rgba, ""


def _from_profile(
    image: Image.Image, embedded: bytes
) -> tuple[np.ndarray[Any, np.dtype[np.uint8]], str] | None:
    """The picture through its colour profile; None when the profile is sRGB already, or of no use."""
    from PIL import ImageCms

    try:
        profile = ImageCms.ImageCmsProfile(io.BytesIO(embedded))
        name = ImageCms.getProfileDescription(profile).strip()
        if "sRGB" in name or image.mode == "P":
            return None
        colours = image if image.mode in ("RGB", "CMYK", "L") else image.convert("RGB")
        if profile.profile.xcolor_space.strip() != {"RGB": "RGB", "CMYK": "CMYK", "L": "GRAY"}[colours.mode]:
            return None
        turned = ImageCms.profileToProfile(colours, profile, _srgb_profile(), outputMode="RGB")
    except (ImageCms.PyCMSError, OSError, ValueError, KeyError):
        return None
    if turned is None:
        return None
    rgba = np.array(turned.convert("RGBA"))
    if "A" in image.getbands():
        rgba[..., 3] = np.asarray(image.getchannel("A"))
    return rgba, name or "a colour profile"


@lru_cache(maxsize=1)
def _srgb_profile() -> Any:
    from PIL import ImageCms

    return ImageCms.ImageCmsProfile(ImageCms.createProfile("sRGB"))


def _notes(image: Image.Image, data: bytes | memoryview) -> tuple[tuple[str, str], ...]:
    notes = [("mode", "palette" if image.mode == "P" else image.mode)]
    if image.format == "PNG" and len(data) > 24 and data[24] == 16:
        notes.append(("bits", "16"))
    if image.mode == "P" and image.format == "PNG" and (table := _palette_table(data)):
        notes.append(("table", table.hex()))
    return tuple(notes)


def _table(told: str) -> np.ndarray[Any, np.dtype[np.uint32]] | None:
    """A table's colours as packed RGBA; None when it is none."""
    try:
        data = bytes.fromhex(told)
    except ValueError:
        return None
    return np.frombuffer(data, np.uint32) if data and len(data) % 4 == 0 and len(data) <= 1024 else None


def _palette_table(data: bytes | memoryview) -> bytes:
    """The colours of a PNG's palette in their order, four bytes each, from its PLTE and tRNS chunks."""
    at, colours, clear = 8, b"", b""
    while at + 8 <= len(data):
        length, name = struct.unpack_from(">I4s", data, at)
        if name == b"IDAT":
            break
        if name == b"PLTE":
            colours = bytes(data[at + 8 : at + 8 + min(length, 768)])
        elif name == b"tRNS":
            clear = bytes(data[at + 8 : at + 8 + min(length, 256)])
        at += 12 + length
    count = len(colours) // 3
    clear = (clear + b"\xff" * count)[:count]
    return b"".join(colours[3 * place : 3 * place + 3] + clear[place : place + 1] for place in range(count))


def opened(data: bytes | memoryview, where: object) -> Image.Image:
    """A file as Pillow opens it, its size checked. Raises FurnelError."""
    from PIL import Image

    try:
        with warnings.catch_warnings():
            warnings.simplefilter("ignore")
            image = Image.open(io.BytesIO(data), formats=_ALLOWED)
        check_size(image.width, image.height, WHAT, where)
        if image.width * image.height > 16 * 1024 * 1024 + len(data) * 1024:
            raise FurnelError(WHAT, where=where, why="its few bytes claim far too many pixels")
        return image
    except FurnelError:
        raise
    except Exception as error:  # Pillow's parsers raise a dozen types on damage
        raise damaged(where, error) from error


def damaged(where: object, error: BaseException) -> FurnelError:
    """The error for a file that a parser gave up on."""
    return FurnelError(
        WHAT,
        where=where,
        why=f"it is damaged ({error})",
        remedy="Open it in the program that made it and save it again",
    )


def _png_length(data: memoryview) -> int:
    """Through its chunks, each with its sum, to the last one."""
    at = 8
    while at + 12 <= len(data):
        length, tag = int.from_bytes(data[at : at + 4], "big"), bytes(data[at + 4 : at + 8])
        if not tag.isalpha() or length > len(data):
            return 0
        end = at + 12 + length
        if zlib.crc32(data[at + 4 : end - 4]) != int.from_bytes(data[end - 4 : end], "big"):
            return 0
        at = end
        if tag == b"IEND":
            return at
    return 0


PNG = PictureFile(
    name="PNG",
    suffixes=(".png",),
    signature=rb"\x89PNG\r\n\x1a\n",
    read=read,
    read_header=read_header,
    write=write,
    length=_png_length,
    header=lambda data: data[:33],
    notes=(
        Note(key="mode", label="Palette or colours", kept=False),
        Note(key="table", label="Order of the palette", kept=False),
    ),
)
JPEG, WEBP, BMP, GIF = (
    PictureFile(
        name=name, suffixes=suffixes, signature=signature, read=read, read_header=read_header, length=length
    )
    for name, suffixes, signature, length in (
        ("JPEG", (".jpg", ".jpeg"), rb"\xff\xd8\xff", None),
        ("WEBP", (".webp",), b"RIFF....WEBP", riff_length),
        ("BMP", (".bmp",), b"BM", None),
        ("GIF", (".gif",), b"GIF8", None),
    )
)
