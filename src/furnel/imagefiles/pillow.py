"""Everyday picture files, read through Pillow: PNG, JPEG, WebP, BMP, GIF, PCX, PNM."""

from __future__ import annotations

import io
import struct
import warnings
import zlib
from functools import lru_cache
from typing import TYPE_CHECKING, Any

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles import aswas
from furnel.imagefiles.filetype import Note, PictureFile
from furnel.images.picture import check_size
from furnel.images.texture import Texture
from furnel.sound.files import riff_length

if TYPE_CHECKING:
    from PIL import Image

WHAT = "Reading a picture"
_ALLOWED = ("PNG", "JPEG", "WEBP", "BMP", "GIF", "PCX", "PPM")
_NAMES = {"PPM": "PNM"}


def read(data: bytes | memoryview, where: object = "") -> Texture:
    """The file's (first) picture as a Texture of one RGBA8 level in sRGB, turned as its EXIF orientation says.

    A colour profile of another kind is brought to sRGB, so that the picture looks as it did where it was made; a note
    `colours` tells. What a PNG says of its gamma is left alone: games leave it alone, too.
    """
    from PIL import Image, ImageOps

    with opened(data, where) as image:
        try:
            upright = ImageOps.exif_transpose(image)
            if upright.mode.startswith("I"):
                grey = np.asarray(upright).astype(np.int64).clip(0, 65535)
                upright = Image.fromarray(((grey * 255 + 32767) // 65535).astype(np.uint8))
            rgba, colours = _in_srgb(upright, image)
            notes = _notes(image, data)
            if image.format in ("GIF", "WEBP") and (frames := getattr(image, "n_frames", 1)) > 1:
                notes = (*notes, ("frames", str(frames)))
        except (
            OSError, ValueError, SyntaxError, MemoryError, IndexError, EOFError, struct.error, Image.DecompressionBombError
        ) as error:  # fmt: skip
            raise damaged(where, error) from error
        if colours:
            notes = (*notes, ("colours", colours))
        return Texture(rgba.shape[1], rgba.shape[0], "RGBA8", (rgba.tobytes(),), _type(image), True, notes)


def read_header(data: bytes | memoryview, where: object = "") -> Texture:
    """Size and type alone, as a Texture whose level holds no data."""
    with opened(data, where) as image:
        try:
            notes = _notes(image, data)
        except (OSError, ValueError, IndexError, struct.error) as error:
            raise damaged(where, error) from error
        return Texture(image.width, image.height, "RGBA8", (b"",), _type(image), True, notes)


def _type(image: Image.Image) -> str:
    told = image.format or ""
    return _NAMES.get(told, told)


def _in_srgb(upright: Image.Image, source: Image.Image) -> tuple[np.ndarray[Any, np.dtype[np.uint8]], str]:
    """Pixels (height, width, 4) in sRGB, and what they were brought from."""
    embedded = source.info.get("icc_profile")
    if embedded and (done := _from_profile(upright, bytes(embedded))) is not None:
        return done
    if upright.mode == "CMYK":
        upright = upright.convert("RGB")
    return np.array(upright.convert("RGBA")), ""


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
    mode = "palette" if image.mode == "P" else image.mode
    notes: dict[str, str] = {"mode": mode}
    if image.format == "PNG" and len(data) > 28:
        notes |= _png_notes(data)
    elif image.format == "JPEG":
        notes |= _jpeg_notes(image)
    elif image.format == "BMP" and len(data) > 50:
        notes |= _bmp_notes(data)
    elif image.format == "WEBP":
        notes |= {"lossless": "on"} if b"VP8L" in bytes(data[:64]) else {}
    elif image.format in ("GIF", "PCX") and mode == "palette":
        notes |= {"table": _listed(image)}
    return tuple((key, value) for key, value in notes.items() if value)


def _listed(image: Image.Image) -> str:
    """An image's palette, eight hex digits a colour."""
    colours = bytes(image.getpalette("RGB") or b"")
    clear = image.info.get("transparency")
    return "".join(
        colours[3 * place : 3 * place + 3].hex() + ("00" if place == clear else "ff")
        for place in range(len(colours) // 3)
    )


def _jpeg_notes(image: Image.Image) -> dict[str, str]:
    from PIL import JpegImagePlugin

    tables: dict[int, list[int]] = getattr(image, "quantization", {})
    density = image.info.get("jfif_density")
    unit = image.info.get("jfif_unit", 0)
    sampling = JpegImagePlugin.get_sampling(image)
    if image.mode == "L" and (layers := getattr(image, "layer", None)):
        sampling = {(1, 1): 0, (2, 1): 1, (2, 2): 2}.get(tuple(layers[0][1:3]), -1)
    return {
        "tables": " ".join(bytes(min(one, 255) for one in tables[key]).hex() for key in sorted(tables)),
        "subsampling": str(sampling) if sampling >= 0 else "",
        "progressive": "on" if image.info.get("progressive") else "",
        "density": f"{density[0]} {density[1]} {unit}" if density else "",
    }


def _bmp_notes(data: bytes | memoryview) -> dict[str, str]:
    """Of a `BITMAPINFOHEADER`; of older and newer ones what they have in common with it."""
    start, size = struct.unpack_from("<I", data, 10)[0], struct.unpack_from("<I", data, 14)[0]
    if size < 40:
        return {"bits": str(struct.unpack_from("<H", data, 24)[0])}
    height, _, bits, packing = struct.unpack_from("<iHHI", data, 22)
    used = struct.unpack_from("<I", data, 46)[0]
    notes = {
        "bits": str(bits),
        "rows": "top-down" if height < 0 else "",
        "run-length": "on" if packing in (1, 2) else "",
    }
    at = 14 + size
    if bits <= 8:
        count = min(used or 1 << bits, 1 << bits, max(start - at, 0) // 4)
        colours = bytes(data[at : at + 4 * count])
        notes["table"] = "".join(
            colours[4 * n : 4 * n + 3][::-1].hex() + "ff" for n in range(len(colours) // 4)
        )
    elif bits == 16 and packing == 3 and len(data) >= 66:
        notes["masks"] = " ".join(f"{mask:x}" for mask in struct.unpack_from("<3I", data, 54))
    return notes


_PNG_MODES = {0: "L", 2: "RGB", 3: "palette", 4: "LA", 6: "RGBA"}


def _png_notes(data: bytes | memoryview) -> dict[str, str]:
    """What a PNG's chunks before its pixels say."""
    bits, colour_type, interlaced = data[24], data[25], data[28]
    notes = {
        "mode": _PNG_MODES.get(colour_type, "RGBA"),
        "bits": str(bits),
        "interlace": "on" if interlaced else "",
    }
    at, colours, clear = 8, b"", b""
    while at + 8 <= len(data):
        length, name = struct.unpack_from(">I4s", data, at)
        if name == b"IDAT":
            break
        body = bytes(data[at + 8 : at + 8 + min(length, 768)])
        if name == b"PLTE":
            colours = body
        elif name == b"tRNS":
            clear = body[:256]
        elif name == b"oFFs" and length == 9:
            notes["offsets"] = body.hex()
        at += 12 + length
    if colour_type == 3:
        count = len(colours) // 3
        clear = (clear + b"\xff" * count)[:count]
        notes["table"] = "".join(
            colours[3 * n : 3 * n + 3].hex() + clear[n : n + 1].hex() for n in range(count)
        )
    elif clear:
        notes["key"] = clear.hex()
    return notes


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


_MODE = Note(
    key="mode", label="Colour type", why="Some games read one colour type alone, or draw others otherwise"
)
_BITS = Note(key="bits", label="Depth", why="Some games read one depth alone")
_TABLE = Note(key="table", label="Order of the palette")
PNG = PictureFile(
    name="PNG",
    suffixes=(".png",),
    signature=rb"\x89PNG\r\n\x1a\n",
    read=read,
    read_header=read_header,
    write=aswas.write_png,
    length=_png_length,
    header=lambda data: data[:33],
    notes=(
        _MODE, _BITS, _TABLE, Note(key="key", label="Clear colour"), Note(key="interlace", label="Interlaced"),
        Note(key="offsets", label="Offsets"),
    ),
)  # fmt: skip
JPEG, WEBP, BMP, GIF, PCX, PNM = (
    PictureFile(
        name=name, suffixes=suffixes, signature=signature, read=read, read_header=read_header, length=length, write=write,
        notes=notes,
    )
    for name, suffixes, signature, length, write, notes in (
        (
            "JPEG", (".jpg", ".jpeg"), rb"\xff\xd8\xff", None, aswas.write_jpeg,
            (
                _MODE, Note(key="tables", label="Quality", kept=True), Note(key="subsampling", label="Subsampling"),
                Note(key="progressive", label="Progressive", why="Some games read plain ones alone"),
                Note(key="density", label="Density"),
            ),
        ),
        (
            "WEBP", (".webp",), b"RIFF....WEBP", riff_length, aswas.write_webp,
            (_MODE, Note(key="lossless", label="Lossless"), Note(key="frames", label="Frames")),
        ),
        (
            "BMP", (".bmp",), b"BM", None, aswas.write_bmp,
            (
                _MODE, _BITS, _TABLE, Note(key="run-length", label="Run-length", why="Some games read plain rows alone"),
                Note(key="rows", label="Rows"), Note(key="masks", label="Masks"),
            ),
        ),
        ("GIF", (".gif",), b"GIF8", None, aswas.write_gif, (_MODE, _TABLE, Note(key="frames", label="Frames"))),
        ("PCX", (".pcx",), rb"\n[\x00\x02-\x05]\x01[\x01\x02\x04\x08]", None, aswas.write_pcx, (_MODE, _TABLE)),
        ("PNM", (".pnm", ".ppm", ".pgm", ".pbm"), rb"P[1-6][ \t\r\n#]", None, aswas.write_pnm, (_MODE,)),
    )
)  # fmt: skip
