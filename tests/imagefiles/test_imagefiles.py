"""Picture files: there and back through somebody else's reader and writer, and damage of every kind."""

from __future__ import annotations

import io
import struct
import time
from dataclasses import replace
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st
from PIL import Image, ImageCms

from furnel import imagefiles
from furnel.errors import FurnelError
from furnel.images import FORMATS, Picture, Texture
from furnel.images.colour import to_linear
from furnel.images.resample import level_chain
from tarnlight import loaders, writers


def sample(width: int = 37, height: int = 22) -> Picture:
    pixels = np.random.default_rng(5).integers(0, 256, (height // 4 + 1, width // 4 + 1, 4), np.uint8)
    return Picture(np.ascontiguousarray(pixels.repeat(4, 0).repeat(4, 1)[:height, :width]))


def pillow_pixels(data: bytes) -> np.ndarray:
    return np.asarray(Image.open(io.BytesIO(data)).convert("RGBA"))


BEYOND_PILLOW = {"BC4S", "A8", "RGBA16", "R16F", "RG16F", "RGBA16F", "R32F", "RG32F", "RGBA32F"}
DX10_IN_PILLOW = {"BC1", "BC2", "BC3", "BC4", "BC5", "BC5S", "BC6H", "BC6HS", "BC7", "RGBA8"}
LEGACY_ONLY = {"RGBX8", "RGB8", "BGR8", "L8", "LA8"}
DX10_ONLY = {"BC6H", "BC6HS", "BC7"}


@pytest.mark.parametrize("header", ["legacy", "DX10"])
@pytest.mark.parametrize("fmt", FORMATS)
def test_dds_of_every_format_comes_back_and_opens_in_pillow(fmt: str, header: str) -> None:
    notes = (("header", header),)
    texture = imagefiles.encode_texture(level_chain(sample(64, 32), 5), fmt, "DDS", notes=notes)
    if header == "DX10" and fmt in LEGACY_ONLY:
        with pytest.raises(FurnelError, match="no DX10 code"):
            imagefiles.write_texture(texture)
        return
    data = imagefiles.write_texture(texture)
    ours = imagefiles.read_texture(data)
    told = "DX10" if fmt in DX10_ONLY else header
    assert (ours.format, len(ours.levels), ours.note("header")) == (fmt, 5, told)
    assert [bytes(level) for level in ours.levels] == [bytes(level) for level in texture.levels]
    if (fmt not in BEYOND_PILLOW) if header == "legacy" else (fmt in DX10_IN_PILLOW):
        stored = FORMATS[fmt].channels
        places = ["RGBA".index(name) for name in stored] if "L" not in stored else [0, 1, 2]
        theirs, mine = pillow_pixels(data).astype(int), imagefiles.decode_level(ours).pixels.astype(int)
        if FORMATS[fmt].sample == "float":  # Pillow shows light as it is; sRGB here
            assert np.abs(theirs - 255 * to_linear(mine.astype(np.uint8)))[..., :3].max() < 2
            return
        coarse = fmt in ("RGB565", "RGBA5551", "RGBA4444")  # Pillow rounds down
        assert np.abs(theirs - mine)[..., places].max() <= (1 if coarse or fmt != "RGBA8" else 0)


@pytest.mark.parametrize("fmt", ["R16F", "RG16F", "RGBA16F", "R32F", "RG32F", "RGBA32F"])
def test_light_is_stored_as_floats_and_may_be_brighter_than_white(fmt: str) -> None:
    picture = sample(8, 4)
    texture = imagefiles.encode_texture([picture], fmt, "DDS", notes=(("white", "12.5"),))
    raw = np.frombuffer(
        imagefiles.write_texture(texture)[-FORMATS[fmt].level_bytes(8, 4) :], "<f2" if "16" in fmt else "<f4"
    )
    srgb = picture.pixels[..., 0].astype(float) / 255
    light = np.where(srgb <= 0.04045, srgb / 12.92, ((srgb + 0.055) / 1.055) ** 2.4) * 12.5
    np.testing.assert_allclose(raw.reshape(4, 8, -1)[..., 0], light, rtol=2e-3, atol=1e-4)
    assert imagefiles.brightest(texture) == pytest.approx(raw.reshape(4, 8, -1)[..., :3].max(), rel=0.5)


@pytest.mark.parametrize("file_type", ["DDS", "KTX2"])
@pytest.mark.parametrize("shape", ["array", "cube", "volume"])
@pytest.mark.parametrize("fmt", ["BC3", "RGBA8"])
def test_layers_faces_and_slices_keep_their_places(file_type: str, shape: str, fmt: str) -> None:
    count = 6 if shape == "cube" else 4
    rng = np.random.default_rng(3)
    sizes = [(count if shape != "volume" else max(count >> level, 1), 8 >> level) for level in range(3)]
    levels = [
        [Picture(np.full((side, side, 4), rng.integers(0, 256, 4), np.uint8)) for _ in range(number)]
        for number, side in sizes
    ]
    texture = imagefiles.encode_pictures(levels, fmt, file_type, shape=shape, notes=(("header", "DX10"),))  # type: ignore[arg-type]
    read = imagefiles.read_texture(imagefiles.write_texture(texture))
    assert (read.shape, read.pictures, len(read.levels)) == (shape, count, 3)
    for level, pictures in enumerate(levels):
        for number, picture in enumerate(pictures):
            shown = imagefiles.decode_level(read, level, number).pixels.astype(int)
            assert np.abs(shown[..., 3] - picture.pixels[..., 3]).max() <= 1
            assert np.abs(shown - picture.pixels).max() <= (0 if fmt == "RGBA8" else 5)
    whole = imagefiles.decode_level(read, 0)
    assert whole.size == (8, 8 * count)


def test_rows_with_padding_are_read_and_written_with_it() -> None:
    texture = imagefiles.encode_texture([sample(5, 3)], "BGR8", "DDS", notes=(("row alignment", "4"),))
    data = imagefiles.write_texture(texture)
    assert len(data) == 128 + 3 * 16 and struct.unpack_from("<I", data, 20) == (16,)
    read = imagefiles.read_texture(data)
    assert read.note("row alignment") == "4"
    np.testing.assert_array_equal(imagefiles.decode_level(read).pixels[..., :3], sample(5, 3).pixels[..., :3])
    np.testing.assert_array_equal(
        pillow_pixels(imagefiles.write_texture(replace(read, notes=())))[..., :3],
        sample(5, 3).pixels[..., :3],
    )


@pytest.mark.parametrize("header", ["legacy", "DX10"])
def test_premultiplied_alpha_is_told_and_kept(header: str) -> None:
    notes = (("header", header), ("alpha", "premultiplied"))
    data = imagefiles.write_texture(imagefiles.encode_texture([sample()], "BC3", "DDS", notes=notes))
    assert imagefiles.read_texture(data).note("alpha") == "premultiplied"


@pytest.mark.parametrize("packed", ["none", "Zstandard", "zlib"])
@pytest.mark.parametrize("fmt", FORMATS)
def test_ktx2_of_every_format_comes_back(fmt: str, packed: str) -> None:
    texture = imagefiles.encode_texture(
        level_chain(sample(20, 12)), fmt, "KTX2", srgb=True, notes=(("supercompression", packed),)
    )
    data = imagefiles.write_texture(texture)
    read = imagefiles.read_texture(data)
    assert (read.format, read.width, read.height) == (fmt, 20, 12)
    assert [bytes(level) for level in read.levels] == [bytes(level) for level in texture.levels]
    small = imagefiles.read_small(data, 4)
    np.testing.assert_array_equal(
        small.pixels, imagefiles.decode_level(texture, imagefiles.small_level(texture, 4)).pixels
    )


def test_ktx2_by_somebody_else_opens_here() -> None:
    folder = Path(__file__).parent / "others"
    flat = imagefiles.read_texture((folder / "rgba.ktx2").read_bytes())
    assert (flat.width, flat.height, flat.format, flat.srgb) == (4, 2, "RGBA8", True)
    assert [bytes(level) for level in flat.levels] == [
        bytes(n * 7 & 255 for n in range(32)),
        bytes(n * 31 & 255 for n in range(8)),
    ]
    cube = imagefiles.read_texture((folder / "cube.ktx2").read_bytes())
    assert (cube.shape, cube.pictures, cube.format) == ("cube", 6, "BC4")
    assert bytes(cube.picture_bytes(5, 0)) == bytes(n * 5 & 255 for n in range(40, 48))


def test_a_picture_stored_from_the_bottom_is_shown_upright() -> None:
    notes = (("rows", "bottom first"),)
    texture = imagefiles.encode_texture([sample(8, 8)], "RGBA8", "KTX2", notes=notes)
    assert bytes(texture.levels[0][:32]) == sample(8, 8).pixels[-1].tobytes()
    read = imagefiles.read_texture(imagefiles.write_texture(texture))
    np.testing.assert_array_equal(imagefiles.decode_level(read).pixels, sample(8, 8).pixels)


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


@pytest.mark.parametrize("fmt", ["BGRA8", "BGR8", "RGBA5551", "L8", "LA8"])
@pytest.mark.parametrize("rows", ["top first", "bottom first"])
@pytest.mark.parametrize("run_length", ["on", "off"])
@pytest.mark.parametrize("footer", ["", "2.0"])
def test_tga_goes_both_ways(fmt: str, rows: str, run_length: str, footer: str) -> None:
    notes = (("rows", rows), ("run-length", run_length), ("footer", footer))
    data = imagefiles.write_texture(imagefiles.encode_texture([sample()], fmt, "TGA", notes=notes))
    read = imagefiles.read_texture(data)
    assert (read.format, read.note("rows"), read.note("run-length"), read.note("footer")) == (
        fmt,
        *(note[1] for note in notes),
    )
    if fmt != "LA8" or run_length == "off":  # Pillow does not read grey with alpha in runs
        apart = np.abs(imagefiles.decode_level(read).pixels.astype(int) - pillow_pixels(data))
        if fmt == "RGBA5551":  # Pillow takes the attribute bit the other way round
            assert apart[..., :3].max() <= 7
        else:
            assert apart.max() == 0
    if fmt in ("RGBA5551", "LA8"):
        return
    stream = io.BytesIO()
    mode = {"BGRA8": "RGBA", "BGR8": "RGB", "L8": "L"}[fmt]
    compression = "tga_rle" if run_length == "on" else None
    Image.fromarray(sample().pixels).convert(mode).save(stream, "TGA", compression=compression)
    theirs = imagefiles.decode_level(imagefiles.read_texture(stream.getvalue())).pixels
    np.testing.assert_array_equal(theirs, pillow_pixels(stream.getvalue()))


@pytest.mark.parametrize("run_length", ["on", "off"])
def test_tga_with_a_palette_goes_both_ways(run_length: str) -> None:
    stream = io.BytesIO()
    few = Image.fromarray(sample().pixels).convert("RGB").quantize(30)
    few.save(stream, "TGA", compression="tga_rle" if run_length == "on" else None)
    read = imagefiles.read_texture(stream.getvalue())
    np.testing.assert_array_equal(imagefiles.decode_level(read).pixels, pillow_pixels(stream.getvalue()))
    again = imagefiles.write_texture(read)
    np.testing.assert_array_equal(pillow_pixels(again), pillow_pixels(stream.getvalue()))
    assert again[1:3] == stream.getvalue()[1:3] and read.note("palette")
    many = np.random.default_rng(0).integers(0, 256, (40, 40, 4), np.uint8)
    with pytest.raises(FurnelError, match="256"):
        imagefiles.write_texture(
            imagefiles.encode_texture([Picture(many)], "BGR8", "TGA", notes=(("palette", "24 bits"),))
        )


def test_the_palette_of_a_png_is_kept_to_the_colour() -> None:
    few = Picture(np.ascontiguousarray(sample(24, 16).pixels // 128 * 85))
    data = imagefiles.write_texture(
        imagefiles.encode_texture([few], "RGBA8", "PNG", notes=(("mode", "palette"),))
    )
    image = Image.open(io.BytesIO(data))
    assert image.mode == "P"
    table = np.unique(few.pixels.reshape(-1, 4), axis=0)[::-1]
    notes = (("mode", "palette"), ("table", np.ascontiguousarray(table).tobytes().hex()))
    ordered = imagefiles.write_texture(imagefiles.encode_texture([few], "RGBA8", "PNG", notes=notes))
    again = imagefiles.read_texture(ordered)
    assert again.note("table") == notes[1][1]
    np.testing.assert_array_equal(imagefiles.decode_level(again).pixels, few.pixels)
    np.testing.assert_array_equal(np.asarray(image.convert("RGBA")), few.pixels)


def test_a_colour_profile_of_no_use_changes_nothing() -> None:
    stream = io.BytesIO()
    lab = ImageCms.ImageCmsProfile(ImageCms.createProfile("XYZ"))
    Image.fromarray(np.full((4, 4, 3), 90, np.uint8)).save(stream, "PNG", icc_profile=lab.tobytes())
    assert (
        imagefiles.decode_level(imagefiles.read_texture(stream.getvalue())).pixels[0, 0, 0] == 90
    )  # of no use: as it is


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
    mapped = io.BytesIO()
    Image.fromarray(sample(12, 9).pixels).convert("RGB").quantize(20).save(mapped, "TGA")
    packed = (("supercompression", "Zstandard"),)
    cube = [[Picture(np.zeros((4, 4, 4), np.uint8))] * 6]
    return {
        "dds": writers.dds(sample(16, 16).pixels, "DXT5"),
        "dds cube": imagefiles.write_texture(
            imagefiles.encode_pictures(cube, "RGB565", "DDS", shape="cube", notes=(("header", "DX10"),))
        ),
        "ktx2": imagefiles.write_texture(
            imagefiles.encode_texture(level_chain(sample(12, 9)), "BC1", "KTX2", notes=packed)
        ),
        "ktx2 cube": imagefiles.write_texture(
            imagefiles.encode_pictures(cube, "RG16F", "KTX2", shape="cube")
        ),
        "tga": imagefiles.write_texture(tga),
        "tga mapped": mapped.getvalue(),
        "png": writers.png(sample(12, 9).pixels),
    }


@given(kind=st.sampled_from(sorted(files())), data=st.data())
def test_damage_is_refused_kindly_or_read(kind: str, data: st.DataObject) -> None:
    whole = bytearray(files()[kind])
    for _ in range(data.draw(st.integers(0, 4))):
        whole[data.draw(st.integers(0, min(len(whole) - 1, 300)))] = data.draw(st.integers(0, 255))
    cut = bytes(whole[: data.draw(st.integers(0, len(whole)))])
    started = time.monotonic()
    try:
        texture = imagefiles.read_texture(cut, "damaged")
        if texture.width * texture.height * texture.pictures < 1 << 22:
            imagefiles.decode_level(texture)
        imagefiles.read_small(cut, 4)
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
        imagefiles.write_texture(Texture(1, 1, "RGBA8", (bytes(4),), "OpenRaster"))
