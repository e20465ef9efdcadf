"""Everyday picture files written as another one of their kind was: colour type, depth, palette, tables, rows.

PNG by its specification (W3C, third edition), BMP by Microsoft's description of `BITMAPINFOHEADER`; the others through Pillow.
"""

from __future__ import annotations

import io
import struct
import zlib
from typing import TYPE_CHECKING, Any

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.texture import Texture

if TYPE_CHECKING:
    from PIL import Image

Pixels = npt.NDArray[np.uint8]
_WHAT = "Writing a picture"
_COLOUR_TYPES = {"L": 0, "RGB": 2, "palette": 3, "LA": 4, "RGBA": 6}
_ADAM7 = ((0, 0, 8, 8), (4, 0, 8, 8), (0, 4, 4, 8), (2, 0, 4, 4), (0, 2, 2, 4), (1, 0, 2, 2), (0, 1, 1, 2))
_RUN, _ROWS = 255, 128


def pixels_of(texture: Texture) -> Pixels:
    """The first level, (height, width, 4) uint8."""
    return np.frombuffer(texture.levels[0], np.uint8).reshape(texture.height, texture.width, 4)


def opaque(pixels: Pixels) -> Pixels:
    """(height, width, 3) uint8: what is clear is black."""
    alpha = pixels[..., 3:].astype(np.uint16)
    mixed: Pixels = ((pixels[..., :3].astype(np.uint16) * alpha + 127) // 255).astype(np.uint8)
    return mixed


def grey(pixels: Pixels) -> Pixels:
    """(height, width) uint8, by the weights of Rec. 601, as paint programs do."""
    weights = np.array([299, 587, 114], np.uint32)
    found: Pixels = ((pixels[..., :3].astype(np.uint32) @ weights + 500) // 1000).astype(np.uint8)
    return found


def indexed(pixels: Pixels, told: str, most: int = 256, clear: bool = True) -> tuple[Pixels, Pixels]:
    """Colour numbers (height, width), and the colours (n, 4), n ≤ `most`: those of the table `told` (eight hex digits a colour)
    keep their numbers, for games that look colours up by them; others take the places that are not used, then new ones.

    Raises FurnelError for more colours.
    """
    flat = pixels if clear else np.dstack([opaque(pixels), np.full(pixels.shape[:2], 255, np.uint8)])
    packed = np.ascontiguousarray(flat).view(np.uint32)[..., 0]
    colours, index = np.unique(packed, return_inverse=True)
    if len(colours) > most:
        raise FurnelError(
            _WHAT,
            why=f"the picture has {len(colours)} colours, and the palette holds {most}",
            remedy="Add the step Few colours",
        )
    kept = table_of(told)
    table = list(kept[:most]) if kept is not None else []
    places = {int(colour): place for place, colour in reversed(list(enumerate(table)))}
    here = {int(colour) for colour in colours}
    free = [place for place, colour in enumerate(table) if int(colour) not in here]
    for colour in colours.tolist():
        if colour not in places:
            if len(table) < most:
                places[colour] = len(table)
                table.append(colour)
            else:
                places[colour] = free.pop()
                table[places[colour]] = colour
    numbers = np.array([places[colour] for colour in colours.tolist()], np.uint8)
    return numbers[index].reshape(packed.shape), np.array(table, np.uint32).view(np.uint8).reshape(-1, 4)


def table_of(told: str) -> npt.NDArray[np.uint32] | None:
    """A table's colours as packed RGBA; None when it is none."""
    try:
        data = bytes.fromhex(told)
    except ValueError:
        return None
    return np.frombuffer(data, np.uint32) if data and len(data) % 4 == 0 and len(data) <= 1024 else None


# PNG


def write_png(texture: Texture) -> bytes:
    """A PNG; notes: `mode` (palette, L, LA, RGB, RGBA), `bits`, `table`, `key` (the colour that is clear), `interlace`,
    `offsets`."""
    pixels, mode = pixels_of(texture), texture.note("mode") or "RGBA"
    mode = mode if mode in _COLOUR_TYPES else "RGBA"
    bits, key = int(texture.note("bits") or 8), bytes.fromhex(texture.note("key"))
    if bits not in ((1, 2, 4, 8, 16) if mode == "L" else (1, 2, 4, 8) if mode == "palette" else (8, 16)):
        raise ValueError(f"{mode} of {bits} bits")
    extra: list[tuple[bytes, bytes]] = []
    if offsets := texture.note("offsets"):
        extra.append((b"oFFs", bytes.fromhex(offsets)))
    if mode == "palette":
        numbers, table = indexed(pixels, texture.note("table"))
        needed = next(depth for depth in (1, 2, 4, 8) if len(table) <= 1 << depth)
        bits = max(bits if bits in (1, 2, 4, 8) else 8, needed)
        extra.append((b"PLTE", table[:, :3].tobytes()))
        clear = np.flatnonzero(table[:, 3] < 255)
        if len(clear):
            extra.append((b"tRNS", table[: clear[-1] + 1, 3].tobytes()))
        return _png(numbers[..., None], 3, bits, bool(texture.note("interlace")), extra)
    interlaced = bool(texture.note("interlace"))
    if bits == 8 and not key and not interlaced:
        return _plain_png(pixels, mode, extra)
    if key and mode in ("L", "RGB"):
        samples = _keyed(pixels, mode, key, bits)
        extra.append((b"tRNS", key))
    else:
        samples = _samples(pixels, mode, bits)
    return _png(samples, _COLOUR_TYPES[mode], bits, interlaced, extra)


def _plain_png(pixels: Pixels, mode: str, extra: list[tuple[bytes, bytes]]) -> bytes:
    from PIL import Image

    shown = pixels
    if mode != "RGBA":
        shown = opaque(pixels) if mode == "RGB" else _samples(pixels, mode, 8).astype(np.uint8)
    image = Image.fromarray(np.ascontiguousarray(shown[..., 0] if mode == "L" else shown))
    data = _saved(image, "PNG", {"optimize": False})
    chunks = b"".join(_chunk(*one) for one in extra)
    return data[:33] + chunks + data[33:]


def _chunk(name: bytes, data: bytes) -> bytes:
    return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))


def _samples(pixels: Pixels, mode: str, bits: int) -> npt.NDArray[np.uint16]:
    """(height, width, channels), as wide as `bits` says."""
    if mode in ("L", "LA"):
        shown = grey(pixels) if mode == "LA" else grey(opaque(pixels))
        eight = np.dstack([shown, pixels[..., 3]]) if mode == "LA" else shown[..., None]
    else:
        eight = pixels if mode == "RGBA" else opaque(pixels)
    wide: npt.NDArray[np.uint16] = eight.astype(np.uint16)
    if bits == 16:
        return wide * 257
    top = (1 << bits) - 1
    return (wide * top + 127) // 255 if bits < 8 else wide


def _keyed(pixels: Pixels, mode: str, key: bytes, bits: int) -> npt.NDArray[np.uint16]:
    """Samples of which those with the colour `key` are clear, and no others."""
    solid = np.dstack([pixels[..., :3], np.full(pixels.shape[:2], 255, np.uint8)])
    samples = _samples(solid, mode, bits)
    colour = np.array(struct.unpack(f">{len(key) // 2}H", key), np.uint16)[: samples.shape[2]]
    top = (1 << bits) - 1
    hit = (samples == colour).all(axis=2) & (pixels[..., 3] >= 128)
    samples[hit, -1] = np.where(colour[-1] < top, colour[-1] + 1, colour[-1] - 1)  # a shade beside it
    samples[pixels[..., 3] < 128] = colour
    return samples


def _png(
    samples: npt.NDArray[Any], colour_type: int, bits: int, interlaced: bool, extra: list[tuple[bytes, bytes]]
) -> bytes:
    height, width = samples.shape[:2]
    parts = [samples]
    if interlaced:
        parts = [samples[y::down, x::right] for x, y, right, down in _ADAM7]
    raw = b"".join(_filtered(part, bits, colour_type) for part in parts if part.size)
    head = struct.pack(">IIBBBBB", width, height, bits, colour_type, 0, 0, int(interlaced))
    chunks = [(b"IHDR", head), *extra, (b"IDAT", zlib.compress(raw, 9)), (b"IEND", b"")]
    return b"\x89PNG\r\n\x1a\n" + b"".join(
        struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))
        for name, data in chunks
    )


def _filtered(samples: npt.NDArray[Any], bits: int, colour_type: int) -> bytes:
    """Rows, each behind the number of its filter: of none, Sub, Up, Average and Paeth that with the smallest sum of
    differences (the specification's own advice); none for palettes and fewer than 8 bits."""
    height, width, channels = samples.shape
    if bits == 16:
        rows = samples.astype(">u2").view(np.uint8).reshape(height, -1)
    elif bits == 8:
        rows = samples.astype(np.uint8).reshape(height, -1)
    else:
        count = 8 // bits
        padded = np.zeros((height, -(-width // count) * count), np.uint8)
        padded[:, :width] = samples[..., 0]
        shifts = np.arange(8 - bits, -1, -bits, dtype=np.uint8)
        rows = (padded.reshape(height, -1, count) << shifts).sum(axis=2).astype(np.uint8)
    if bits < 8 or colour_type == 3:
        return np.concatenate([np.zeros((height, 1), np.uint8), rows], axis=1).tobytes()
    step = channels * bits // 8
    return b"".join(
        _best_filters(rows[max(at - 1, 0) : at + _ROWS], step, at > 0) for at in range(0, height, _ROWS)
    )  # so many at a time: a large picture takes no memory to speak of


def _best_filters(rows: Pixels, step: int, is_below: bool) -> bytes:
    left, up, both = np.zeros_like(rows), np.zeros_like(rows), np.zeros_like(rows)
    left[:, step:], up[1:], both[1:, step:] = rows[:, :-step], rows[:-1], rows[:-1, :-step]
    a, b, c = (one.astype(np.int16) for one in (left, up, both))
    pa, pb, pc = abs(b - c), abs(a - c), abs(a + b - 2 * c)
    paeth = np.where((pa <= pb) & (pa <= pc), a, np.where(pb <= pc, b, c))
    guesses = (np.zeros_like(a), a, b, (a + b) >> 1, paeth)
    tried = np.stack([(rows - guess).astype(np.uint8) for guess in guesses])
    best = np.abs(tried.view(np.int8).astype(np.int32)).sum(axis=2).argmin(axis=0)
    chosen = np.concatenate([best[:, None].astype(np.uint8), tried[best, np.arange(len(rows))]], axis=1)
    return chosen[int(is_below) :].tobytes()


# BMP


def write_bmp(texture: Texture) -> bytes:
    """A BMP; notes: `bits` (1, 4, 8, 16, 24, 32), `table`, `run-length`, `rows`, `masks` (of 16 and 32 bits)."""
    pixels, bits = pixels_of(texture), int(texture.note("bits") or 32)
    if bits not in (1, 4, 8, 16, 24, 32):
        raise ValueError(f"pixels of {bits} bits")
    height, width = pixels.shape[:2]
    table, masks = b"", b""
    packed = False
    if bits <= 8:
        numbers, colours = indexed(pixels, texture.note("table"), 1 << bits, clear=False)
        table = np.dstack(
            [colours[:, 2], colours[:, 1], colours[:, 0], np.zeros(len(colours), np.uint8)]
        ).tobytes()
        packed = bool(texture.note("run-length")) and bits in (4, 8)
        body = b"" if packed else _bmp_rows(numbers, bits)
    elif bits == 24:
        body = _bmp_bytes(np.ascontiguousarray(opaque(pixels)[..., ::-1]).reshape(height, -1))
    elif bits == 16:
        told = [int(one, 16) for one in texture.note("masks").split()] or [0x7C00, 0x3E0, 0x1F]
        body = _bmp_bytes(_masked(pixels, told).astype("<u2").view(np.uint8).reshape(height, -1))
        masks = struct.pack("<3I", *told[:3]) if texture.note("masks") else b""
    else:
        body = _bmp_bytes(pixels[..., [2, 1, 0, 3]].reshape(height, -1))
    upright = texture.note("rows") == "top-down" and not packed
    rows = body if not packed else _run_lengths(numbers, bits)
    if not packed:
        stride = len(body) // height
        lines = [body[at : at + stride] for at in range(0, len(body), stride)]
        rows = b"".join(lines if upright else reversed(lines))
    start = 14 + 40 + len(masks) + len(table)
    compression = {8: 1, 4: 2}[bits] if packed else 3 if masks else 0
    used = len(table) // 4
    head = struct.pack(
        "<IiiHHIIiiII",
        40,
        width,
        -height if upright else height,
        1,
        bits,
        compression,
        len(rows),
        2835,
        2835,
        used,
        0,
    )
    return struct.pack("<2sIHHI", b"BM", start + len(rows), 0, 0, start) + head + masks + table + rows


def _masked(pixels: Pixels, masks: list[int]) -> npt.NDArray[np.uint32]:
    out = np.zeros(pixels.shape[:2], np.uint32)
    for channel, mask in enumerate(masks[:4]):
        if mask:
            low = (mask & -mask).bit_length() - 1
            top = mask >> low
            out |= ((pixels[..., channel].astype(np.uint32) * top + 127) // 255) << low
    return out


def _bmp_rows(numbers: Pixels, bits: int) -> bytes:
    height, width = numbers.shape
    count = 8 // bits
    padded = np.zeros((height, -(-width // count) * count), np.uint8)
    padded[:, :width] = numbers
    shifts = np.arange(8 - bits, -1, -bits, dtype=np.uint8)
    return _bmp_bytes((padded.reshape(height, -1, count) << shifts).sum(axis=2).astype(np.uint8))


def _bmp_bytes(rows: Pixels) -> bytes:
    """Rows, each filled up to four bytes."""
    return np.pad(rows, ((0, 0), (0, -rows.shape[1] % 4))).tobytes()


def _run_lengths(numbers: Pixels, bits: int) -> bytes:
    """Encoded runs from the lowest row up, with an end behind each row and behind all."""
    out = bytearray()
    for row in numbers[::-1]:
        starts = np.flatnonzero(np.concatenate([[True], row[1:] != row[:-1]]))
        for start, end in zip(starts.tolist(), [*starts[1:].tolist(), len(row)], strict=True):
            value = int(row[start])
            for at in range(start, end, _RUN):
                out += bytes((min(_RUN, end - at), value if bits == 8 else value << 4 | value))
        out += b"\0\0"
    return bytes(out[:-2] + b"\0\1") if out else b"\0\1"


# through Pillow


def write_jpeg(texture: Texture) -> bytes:
    """A JPEG; notes: `tables` (quantisation, hexadecimal), `subsampling`, `progressive`, `density`, `mode`."""
    from PIL import Image

    pixels, settings = pixels_of(texture), dict[str, Any](quality=92, subsampling=0)
    image = Image.fromarray(opaque(pixels))
    if (mode := texture.note("mode")) in ("L", "CMYK"):
        image = image.convert(mode)
    if tables := texture.note("tables"):
        settings["qtables"] = [list(bytes.fromhex(one)) for one in tables.split()]
        del settings["quality"]
    if (how := texture.note("subsampling")) and how.isdecimal():
        settings["subsampling"] = int(how)
    if density := texture.note("density"):
        across, down, unit = (int(one) for one in density.split())
        if unit == 1:
            settings["dpi"] = across, down
    settings["progressive"] = bool(texture.note("progressive"))
    return _saved(image, "JPEG", settings)


def write_gif(texture: Texture) -> bytes:
    """A GIF of one picture; note: `table`."""
    if texture.note("frames"):
        raise FurnelError(
            _WHAT, why=f"the original is an animation of {texture.note('frames')} pictures, and this would be one",
            remedy="Make the animation in your paint program, and take it as it is",
        )  # fmt: skip
    pixels = pixels_of(texture).copy()
    pixels[pixels[..., 3] < 128] = 0
    pixels[pixels[..., 3] >= 128, 3] = 255
    numbers, table = indexed(pixels, texture.note("table"))
    from PIL import Image

    image = Image.fromarray(numbers, "P")
    image.putpalette(table[:, :3].tobytes(), "RGB")
    clear = np.flatnonzero(table[:, 3] == 0)
    return _saved(
        image, "GIF", {"optimize": False, **({"transparency": int(clear[0])} if len(clear) else {})}
    )


def write_webp(texture: Texture) -> bytes:
    """A WebP of one picture; notes: `lossless`, `mode`."""
    from PIL import Image

    pixels = pixels_of(texture)
    image = Image.fromarray(opaque(pixels) if texture.note("mode") == "RGB" else np.ascontiguousarray(pixels))
    lossless = bool(texture.note("lossless"))
    return _saved(
        image, "WEBP", {"lossless": lossless, "quality": 100 if lossless else 92, "exact": lossless}
    )


def write_pcx(texture: Texture) -> bytes:
    """A PCX; notes: `mode`, `table`."""
    from PIL import Image

    if texture.note("mode") == "palette":
        numbers, table = indexed(pixels_of(texture), texture.note("table"), clear=False)
        image = Image.fromarray(numbers, "P")
        image.putpalette(table[:, :3].tobytes(), "RGB")
    else:
        image = Image.fromarray(opaque(pixels_of(texture)))
    return _saved(image, "PCX", {})


def write_pnm(texture: Texture) -> bytes:
    """A portable bitmap, grey map or pixmap; note: `mode`."""
    from PIL import Image

    image = Image.fromarray(opaque(pixels_of(texture)))
    mode = texture.note("mode")
    return _saved(image.convert(mode) if mode in ("1", "L") else image, "PPM", {})


def _saved(image: Image.Image, kind: str, settings: dict[str, Any]) -> bytes:
    stream = io.BytesIO()
    try:
        image.save(stream, kind, **settings)
    except (OSError, ValueError) as error:
        raise FurnelError(
            _WHAT, why=f"it cannot be written as {kind}: {error}", remedy="Write it as PNG"
        ) from error
    return stream.getvalue()
