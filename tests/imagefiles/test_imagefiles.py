"""Picture files: there and back through somebody else's reader and writer, and damage of every kind."""

from __future__ import annotations

import io
import struct
import time

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image

from furnel import imagefiles
from furnel.errors import FurnelError
from furnel.images import Picture, Texture, full_levels
from furnel.images.resample import level_chain
from tarnlight import loaders, writers


def sample(width: int = 37, height: int = 22) -> Picture:
    pixels = np.random.default_rng(5).integers(0, 256, (height // 4 + 1, width // 4 + 1, 4), np.uint8)
    return Picture(np.ascontiguousarray(pixels.repeat(4, 0).repeat(4, 1)[:height, :width]))


def pillow_pixels(data: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA"))


HEADERS = [(fmt, "legacy") for fmt in ("BC1", "BC2", "BC3", "BC4", "BC5", "RGBA8", "BGRA8", "BGRX8", "BGR8")]
HEADERS += [(fmt, "DX10") for fmt in ("BC1", "BC2", "BC3", "BC5", "BC7", "RGBA8")]


@pytest.mark.parametrize(("fmt", "header"), HEADERS)
def test_dds_written_here_opens_in_pillow(fmt: str, header: str) -> None:
    texture = imagefiles.encode_texture(level_chain(sample(64, 32)), fmt, "DDS", notes=(("header", header),))
    data = imagefiles.write_texture(texture)
    ours = imagefiles.read_texture(data)
    assert (ours.format, len(ours.levels), ours.note("header")) == (fmt, full_levels(64, 32), header)
    channels = {"BC4": 1, "BC5": 2}.get(fmt, 4)
    theirs = pillow_pixels(data).astype(int)
    assert np.abs(theirs - imagefiles.decode_level(ours).pixels)[..., :channels].max() <= 1


@pytest.mark.parametrize(
    ("code", "fmt"), [("DXT1", "BC1"), ("DXT3", "BC2"), ("DXT5", "BC3"), ("BC5", "BC5"), (None, "BGRA8")]
)
def test_dds_written_by_pillow_opens_here(code: str | None, fmt: str) -> None:
    stream = io.BytesIO()
    options = {"pixel_format": code} if code else {}
    image = Image.fromarray(sample(64, 48).pixels).convert("RGB" if code == "BC5" else "RGBA")
    image.save(stream, "DDS", **options)
    texture = imagefiles.read_texture(stream.getvalue())
    assert (texture.width, texture.height, texture.format) == (64, 48, fmt)
    channels = 2 if fmt == "BC5" else 4
    apart = np.abs(imagefiles.decode_level(texture).pixels.astype(int) - pillow_pixels(stream.getvalue()))
    assert apart[..., :channels].max() <= 1


def test_the_games_reader_takes_what_is_written_here() -> None:
    texture = imagefiles.encode_texture(level_chain(sample(64, 64)), "BC3", "DDS")
    assert loaders.dds_header(imagefiles.write_texture(texture)) == (64, 64, "DXT5", 7)


def test_the_games_textures_are_read_with_all_their_levels() -> None:
    texture = imagefiles.read_texture(writers.dds(sample(128, 64).pixels, "DXT1"))
    assert texture.full_chain
    assert [imagefiles.decode_level(texture, level).size for level in (0, 3, 7)] == [
        (128, 64),
        (16, 8),
        (1, 1),
    ]
    assert texture.level_size(imagefiles.small_level(texture, 16)) == (16, 8)


@pytest.mark.parametrize("fmt", ["BGRA8", "BGR8"])
@pytest.mark.parametrize("rows", ["top first", "bottom first"])
@pytest.mark.parametrize("run_length", ["on", "off"])
def test_tga_goes_both_ways(fmt: str, rows: str, run_length: str) -> None:
    texture = imagefiles.encode_texture(
        [sample()], fmt, "TGA", notes=(("rows", rows), ("run-length", run_length))
    )
    data = imagefiles.write_texture(texture)
    read = imagefiles.read_texture(data)
    assert (read.note("rows"), read.note("run-length")) == (rows, run_length)
    np.testing.assert_array_equal(imagefiles.decode_level(read).pixels, pillow_pixels(data))
    stream = io.BytesIO()
    mode = "RGBA" if fmt == "BGRA8" else "RGB"
    compression = "tga_rle" if run_length == "on" else None
    Image.fromarray(sample().pixels).convert(mode).save(stream, "TGA", compression=compression)
    theirs = imagefiles.decode_level(imagefiles.read_texture(stream.getvalue())).pixels
    np.testing.assert_array_equal(theirs, pillow_pixels(stream.getvalue()))


@pytest.mark.parametrize(
    ("kind", "mode"),
    [("PNG", "RGBA"), ("PNG", "P"), ("PNG", "L"), ("BMP", "RGB"), ("GIF", "P"), ("WEBP", "RGBA")],
)
def test_everyday_pictures_are_read(kind: str, mode: str) -> None:
    stream = io.BytesIO()
    options = {"lossless": True} if kind == "WEBP" else {}
    Image.fromarray(sample().pixels).convert("RGB").convert(mode).save(stream, kind, **options)
    read = imagefiles.read_texture(stream.getvalue())
    np.testing.assert_array_equal(imagefiles.decode_level(read).pixels, pillow_pixels(stream.getvalue()))


def test_sixteen_bit_grey_is_scaled_not_clipped() -> None:
    stream = io.BytesIO()
    Image.fromarray(np.full((4, 4), 32768, np.uint16)).save(stream, "PNG")
    assert imagefiles.decode_level(imagefiles.read_texture(stream.getvalue())).pixels[0, 0, 0] in (127, 128)


def test_a_photo_held_sideways_is_turned() -> None:
    image = Image.fromarray(sample(30, 20).pixels).convert("RGB")
    stream, exif = io.BytesIO(), Image.Exif()
    exif[0x0112] = 6
    image.save(stream, "JPEG", exif=exif)
    assert imagefiles.decode_level(imagefiles.read_texture(stream.getvalue())).size == (20, 30)


def test_a_header_is_enough_for_the_facts() -> None:
    data = writers.dds(sample(64, 64).pixels, "DXT5")
    assert imagefiles.read_header(data[:200]).levels == (b"",) * 7
    tga = imagefiles.read_header(writers.tga(sample().pixels)[:64])
    assert (tga.width, tga.height, tga.note("rows")) == (37, 22, "bottom first")


def files() -> dict[str, bytes]:
    tga = imagefiles.encode_texture([sample(12, 9)], "BGRA8", "TGA", notes=(("run-length", "on"),))
    return {
        "dds": writers.dds(sample(16, 16).pixels, "DXT5"),
        "tga": imagefiles.write_texture(tga),
        "png": writers.png(sample(12, 9).pixels),
    }


@given(kind=st.sampled_from(["dds", "tga", "png"]), data=st.data())
def test_damage_is_refused_kindly_or_read(kind: str, data: st.DataObject) -> None:
    whole = bytearray(files()[kind])
    for _ in range(data.draw(st.integers(0, 4))):
        whole[data.draw(st.integers(0, min(len(whole) - 1, 150)))] = data.draw(st.integers(0, 255))
    cut = bytes(whole[: data.draw(st.integers(0, len(whole)))])
    started = time.monotonic()
    try:
        texture = imagefiles.read_texture(cut, "damaged")
        if texture.width * texture.height < 1 << 22:
            imagefiles.decode_level(texture)
    except FurnelError as error:
        assert error.why and error.what
    assert time.monotonic() - started < 5


@pytest.mark.parametrize("side", [0, 0xFFFFFFFF, 70000])
def test_sizes_that_lie_allocate_nothing(side: int) -> None:
    data = bytearray(files()["dds"])
    data[12:20] = struct.pack("<II", side, side)
    with pytest.raises(FurnelError):
        imagefiles.read_texture(bytes(data))


def test_what_is_no_picture_says_what_to_do() -> None:
    with pytest.raises(FurnelError) as caught:
        imagefiles.read_texture(b"just words", "notes.txt")
    assert "notes.txt" in str(caught.value) and "PNG" in caught.value.remedy
    with pytest.raises(FurnelError, match="no DX10 code"):
        imagefiles.write_texture(
            imagefiles.encode_texture([sample()], "BGR8", "DDS", notes=(("header", "DX10"),))
        )
    with pytest.raises(FurnelError, match="not written"):
        imagefiles.write_texture(Texture(1, 1, "RGBA8", (bytes(4),), "JPEG"))
