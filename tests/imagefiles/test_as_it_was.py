"""A picture written in the place of another one is a file of the same make; judged by Pillow and by the files' own bytes."""

from __future__ import annotations

import io
import struct
import zlib
from typing import Any

import numpy as np
import pytest
from PIL import Image

from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.media import PICTURE, Encode, encoding_like, medium_named, spec_of

RNG = np.random.default_rng(5)
WIDE, HIGH = 37, 23


def photo(channels: int = 4) -> Any:
    y, x = np.mgrid[:HIGH, :WIDE]
    return np.dstack([x * 6, y * 9, (x + y) * 4, 255 - x * 3])[..., :channels].astype(np.uint8)


def png(bits: int, colour_type: int, rows: bytes, extra: bytes = b"", interlace: int = 0) -> bytes:
    def chunk(name: bytes, data: bytes) -> bytes:
        return struct.pack(">I", len(data)) + name + data + struct.pack(">I", zlib.crc32(name + data))

    head = struct.pack(">IIBBBBB", WIDE, HIGH, bits, colour_type, 0, 0, interlace)
    return (
        b"\x89PNG\r\n\x1a\n"
        + chunk(b"IHDR", head)
        + extra
        + chunk(b"IDAT", zlib.compress(rows))
        + chunk(b"IEND", b"")
    )


def chunks(data: bytes) -> dict[bytes, bytes]:
    out, at = {}, 8
    while at < len(data):
        length, name = struct.unpack_from(">I4s", data, at)
        out[name] = data[at + 8 : at + 8 + length]
        assert (
            zlib.crc32(data[at + 4 : at + 8 + length]) == struct.unpack_from(">I", data, at + 8 + length)[0]
        )
        at += 12 + length
    return out


def again(data: bytes, name: str, pixels: Any = None) -> bytes:
    """A file's own content, or other pixels, written like it."""
    spec = spec_of(data, name)
    encode = encoding_like(spec)
    assert isinstance(encode, Encode)
    media = PICTURE.opened(data, name) if pixels is None else Picture(pixels)
    return medium_named("picture").written(media, encode)


def saved(mode: str, kind: str, **settings: Any) -> bytes:
    stream = io.BytesIO()
    image = Image.fromarray(photo(3))
    image = image.quantize(settings.pop("colours", 20)) if mode == "P" else image.convert(mode)
    image.save(stream, kind, **settings)
    return stream.getvalue()


def shown(data: bytes) -> Any:
    with Image.open(io.BytesIO(data)) as image:
        return np.array(image.convert("RGBA"))


@pytest.mark.parametrize("colour_type", [0, 2, 4, 6])
@pytest.mark.parametrize("bits", [8, 16])
@pytest.mark.parametrize("interlaced", [False, True])
def test_a_png_keeps_its_colour_type_and_depth(colour_type: int, bits: int, interlaced: bool) -> None:
    channels = {0: 1, 2: 3, 4: 2, 6: 4}[colour_type]
    values = RNG.integers(0, 256, (HIGH, WIDE, channels)).astype(np.uint8)
    wide = values.astype(">u2") * 257 if bits == 16 else values
    rows = b"".join(b"\0" + row.tobytes() for row in wide)
    game = png(
        bits,
        colour_type,
        rows,
        struct.pack(">I", 9)
        + b"oFFs"
        + b"\0\0\0\3\0\0\0\4\0"
        + struct.pack(">I", zlib.crc32(b"oFFs\0\0\0\3\0\0\0\4\0")),
    )
    if interlaced:  # any file of that kind: only its head is asked for
        game = game[:28] + b"\1" + struct.pack(">I", zlib.crc32(game[12:28] + b"\1")) + game[33:]
        made = medium_named("picture").written(Picture(photo()), encoding_of(game))
        pixels = photo()
    else:
        made, pixels = again(game, "a.png"), shown(game)
    assert made[24:26] == bytes((bits, colour_type)) and made[28] == interlaced
    assert chunks(made)[b"oFFs"] == b"\0\0\0\3\0\0\0\4\0"
    if not interlaced or colour_type == 6:
        assert np.array_equal(shown(made), pixels)


def encoding_of(game: bytes) -> Encode:
    from furnel.imagefiles import read_header

    notes = dict(read_header(game, "a.png").notes)
    return Encode(file="PNG", format="RGBA8", notes=notes)


@pytest.mark.parametrize("bits", [1, 2, 4, 8])
def test_a_palette_keeps_its_length_its_order_and_its_depth(bits: int) -> None:
    count = {1: 2, 2: 3, 4: 11, 8: 141}[bits]
    colours = RNG.permutation(np.arange(256))[: count * 1].astype(np.uint8)
    table = np.dstack([colours, colours[::-1], 255 - colours])[0]
    numbers = RNG.integers(0, count, (HIGH, WIDE)).astype(np.uint8)
    packed = np.zeros((HIGH, -(-WIDE * bits // 8)), np.uint8)
    for x in range(WIDE):
        packed[:, x * bits // 8] |= numbers[:, x] << (8 - bits - x * bits % 8)
    rows = b"".join(b"\0" + row.tobytes() for row in packed)
    plte, clear = table.tobytes(), b"\x00\x80"[: min(2, count)]
    extra = b"".join(
        struct.pack(">I", len(body)) + name + body + struct.pack(">I", zlib.crc32(name + body))
        for name, body in ((b"PLTE", plte), (b"tRNS", clear))
    )
    game = png(bits, 3, rows, extra)
    made = again(game, "a.png")
    assert made[24:26] == bytes((bits, 3)) and np.array_equal(shown(made), shown(game))
    assert chunks(made)[b"PLTE"] == plte and chunks(made)[b"tRNS"] == clear
    few = shown(game).copy()
    few[:] = few[0, 0]  # one colour is left: the others keep their places
    one = again(game, "a.png", few)
    assert one[24] == bits and chunks(one)[b"PLTE"] == plte


@pytest.mark.parametrize(("mode", "bits"), [("L", 8), ("RGB", 8)])
def test_a_colour_that_is_clear_stays_the_one(mode: str, bits: int) -> None:
    key = struct.pack(">H", 2) if mode == "L" else struct.pack(">3H", 255, 0, 255)
    extra = struct.pack(">I", len(key)) + b"tRNS" + key + struct.pack(">I", zlib.crc32(b"tRNS" + key))
    row = bytes(-(-WIDE * bits * len(key) // 2 // 8))
    game = png(bits, 0 if mode == "L" else 2, b"".join(b"\0" + row for _ in range(HIGH)), extra)
    pixels = photo()
    pixels[..., 3] = np.where(photo()[..., 0] > 90, 255, 0)
    pixels[0, -1] = (255, 0, 255, 255)  # the clear colour, seen
    made = again(game, "a.png", pixels)
    assert chunks(made)[b"tRNS"] == key and made[24] == bits
    assert np.array_equal(shown(made)[..., 3], pixels[..., 3])


@pytest.mark.parametrize("progressive", [False, True])
@pytest.mark.parametrize("subsampling", [0, 1, 2])
@pytest.mark.parametrize("mode", ["L", "RGB"])
def test_a_jpeg_keeps_its_tables_its_subsampling_and_its_density(
    progressive: bool, subsampling: int, mode: str
) -> None:
    game = saved(mode, "JPEG", quality=71, subsampling=subsampling, progressive=progressive, dpi=(144, 144))
    made = again(game, "a.jpg")
    with Image.open(io.BytesIO(game)) as one, Image.open(io.BytesIO(made)) as other:
        assert (one.mode, one.quantization, one.info.get("progressive")) == (  # type: ignore[attr-defined]
            other.mode, other.quantization, other.info.get("progressive"),  # type: ignore[attr-defined]
        )  # fmt: skip
        assert one.layer == other.layer and one.info["dpi"] == other.info["dpi"]  # type: ignore[attr-defined]
    assert abs(len(made) - len(game)) < len(game) * 0.1
    assert np.abs(shown(game).astype(int) - shown(made)).mean() < 2


def bmp(bits: int, run_length: bool = False, top_down: bool = False) -> bytes:
    """By the description of the format, with none of Furnel's code."""
    count = 1 << bits if bits <= 8 else 0
    table = RNG.integers(0, 256, (count, 4)).astype(np.uint8)
    table[:, 3] = 0
    stride = -(-WIDE * bits // 32) * 4
    if run_length:
        body = b"".join(
            bytes((WIDE, y % count if bits == 8 else y % count * 17)) + b"\0\0" for y in range(HIGH)
        )
        body = body[:-2] + b"\0\1"
    else:
        body = RNG.integers(0, 256, (HIGH, stride)).astype(np.uint8).tobytes()
    start = 54 + 4 * count
    packing = {8: 1, 4: 2}[bits] if run_length else 0
    head = struct.pack(
        "<IiiHHIIiiII",
        40,
        WIDE,
        -HIGH if top_down else HIGH,
        1,
        bits,
        packing,
        len(body),
        2835,
        2835,
        count,
        0,
    )
    return struct.pack("<2sIHHI", b"BM", start + len(body), 0, 0, start) + head + table.tobytes() + body


@pytest.mark.parametrize(
    ("bits", "run_length", "top_down"),
    [
        (1, 0, 0),
        (4, 0, 0),
        (8, 0, 0),
        (16, 0, 0),
        (24, 0, 0),
        (32, 0, 0),
        (8, 1, 0),
        (4, 1, 0),
        (24, 0, 1),
        (8, 0, 1),
    ],
)
def test_a_bmp_keeps_its_depth_its_palette_and_its_rows(bits: int, run_length: int, top_down: int) -> None:
    game = bmp(bits, bool(run_length), bool(top_down))
    made = again(game, "a.bmp")
    assert struct.unpack_from("<HI", made, 28) == struct.unpack_from("<HI", game, 28)
    assert (struct.unpack_from("<i", made, 22)[0] < 0) == bool(top_down)
    assert np.array_equal(shown(made)[..., :3], shown(game)[..., :3])
    if bits <= 8:
        size = 4 << bits
        assert made[54 : 54 + size] == game[54 : 54 + size]


@pytest.mark.parametrize(
    ("kind", "mode"), [("GIF", "P"), ("PCX", "P"), ("PCX", "RGB"), ("PPM", "RGB"), ("PPM", "L"), ("PPM", "1")]
)
def test_others_come_back_as_they_were(kind: str, mode: str) -> None:
    game = saved(mode, kind)
    made = again(game, f"a.{kind.lower()}")
    with Image.open(io.BytesIO(game)) as one, Image.open(io.BytesIO(made)) as other:
        assert (one.format, one.mode, one.getpalette()) == (other.format, other.mode, other.getpalette())
    assert np.array_equal(shown(game), shown(made))


@pytest.mark.parametrize("lossless", [True, False])
def test_a_webp_stays_lossless_or_not(lossless: bool) -> None:
    game = saved("RGB", "WEBP", lossless=lossless)
    made = again(game, "a.webp")
    assert (b"VP8L" in made) == lossless and (not lossless or np.array_equal(shown(game), shown(made)))


def test_an_animation_is_not_made_a_still_in_silence() -> None:
    stream = io.BytesIO()
    frames = [Image.fromarray(photo(3)).quantize(8), Image.fromarray(photo(3)[::-1]).quantize(8)]
    frames[0].save(stream, "GIF", save_all=True, append_images=frames[1:])
    with pytest.raises(FurnelError, match="animation of 2"):
        again(stream.getvalue(), "a.gif")


@pytest.mark.parametrize("notes", [{"key": "zz"}, {"bits": "x"}, {"bits": "3"}, {"mode": "LA", "bits": "2"}])
def test_what_a_project_says_wrongly_ends_in_words(notes: dict[str, str]) -> None:
    with pytest.raises(FurnelError):
        medium_named("picture").written(Picture(photo()), Encode(file="PNG", format="RGBA8", notes=notes))
    with pytest.raises(FurnelError):
        medium_named("picture").written(
            Picture(photo()), Encode(file="BMP", format="RGBA8", notes={"bits": "5"})
        )


def test_the_gamma_of_a_png_changes_no_colour() -> None:
    gamma = b"gAMA" + struct.pack(">I", 180000)
    rows = b"".join(b"\0" + row.tobytes() for row in photo(3))
    plain = png(8, 2, rows)
    bent = png(8, 2, rows, struct.pack(">I", 4) + gamma + struct.pack(">I", zlib.crc32(gamma)))
    assert np.array_equal(PICTURE.opened(plain, "a.png").pixels, PICTURE.opened(bent, "a.png").pixels)
