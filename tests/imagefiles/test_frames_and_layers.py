"""Animated files as they are seen after clearing and laying over; layered files as other programs write and read them."""

from __future__ import annotations

import io
import struct
import zipfile
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from PIL import Image

from furnel.errors import FurnelError
from furnel.imagefiles import (
    Layer,
    composed,
    decode_level,
    is_animated,
    is_layered,
    read_frames,
    read_layers,
    read_texture,
    write_animation,
    write_layers,
)
from furnel.images import Picture

RED, BLUE, CLEAR = 1, 2, 0
TABLE = bytes((0, 0, 0, 255, 0, 0, 0, 0, 255, 9, 9, 9))


def gif(blocks: list[tuple[int, int, tuple[int, int, int, int], int]]) -> bytes:
    """A GIF of 8 × 6 made by hand: frames of a disposal mode, a delay, a box and one colour, each pixel a code of its own."""
    out = b"GIF89a" + struct.pack("<HHBBB", 8, 6, 0x91, 0, 0) + TABLE
    for disposal, delay, (left, top, wide, high), colour in blocks:
        out += b"\x21\xf9\x04" + struct.pack("<BHB", disposal << 2 | 1, delay, CLEAR) + b"\x00"
        out += b"\x2c" + struct.pack("<HHHHB", left, top, wide, high, 0) + b"\x02"
        bits, number = 0, 0
        for _ in range(wide * high):  # a clear code before every pixel keeps codes at three bits
            for code in (4, colour):
                bits |= code << number
                number += 3
        bits |= 5 << number
        data = bits.to_bytes((number + 10) // 8, "little")
        out += (
            b"".join(
                bytes([len(data[at : at + 255])]) + data[at : at + 255] for at in range(0, len(data), 255)
            )
            + b"\x00"
        )
    return out + b"\x3b"


def test_a_gifs_frames_are_whole_whatever_they_leave_behind() -> None:
    boxes = [(0, 0, 8, 6), (1, 1, 3, 2), (4, 2, 3, 3), (0, 5, 2, 1)]
    modes, colours = (1, 2, 3, 1), (RED, BLUE, BLUE, BLUE)
    data = gif(
        [
            (mode, 5 + place, box, colour)
            for place, (mode, box, colour) in enumerate(zip(modes, boxes, colours, strict=True))
        ]
    )
    frames = read_frames(data)
    assert [frame.ms for frame in frames] == [50, 60, 70, 80] and is_animated(data)
    canvas = np.zeros((6, 8, 4), np.uint8)  # after the format's rules: 1 stays, 2 is cleared, 3 comes back
    for frame, mode, (left, top, wide, high), colour in zip(frames, modes, boxes, colours, strict=True):
        before = canvas.copy()
        part = canvas[top : top + high, left : left + wide]
        part[:] = (255, 0, 0, 255) if colour == RED else (0, 0, 255, 255)
        np.testing.assert_array_equal(frame.picture.pixels, canvas)
        if mode == 2:
            part[:] = 0
        elif mode == 3:
            canvas = before


@pytest.mark.parametrize("kind", ["GIF", "APNG"])
def test_what_is_written_as_an_animation_another_reader_plays(kind: str) -> None:
    rng = np.random.default_rng(3)
    pictures = []
    for number in range(4):
        pixels = np.zeros((9, 7, 4), np.uint8)
        pixels[number : number + 4, 1:5] = (*rng.integers(0, 256, 3), 255)
        pictures.append(Picture(pixels))
    data = write_animation(pictures, 120, kind)  # type: ignore[arg-type]
    with Image.open(io.BytesIO(data)) as image:
        assert (image.n_frames, image.info["loop"]) == (4, 0)  # type: ignore[attr-defined]
        for number, wanted in enumerate(pictures):
            image.seek(number)
            assert image.info["duration"] == 120
            np.testing.assert_array_equal(np.asarray(image.convert("RGBA")), wanted.pixels)
    assert [frame.ms for frame in read_frames(data)] == [120] * 4
    assert len(read_frames(write_animation(pictures[:1], 50, kind))) == 1  # type: ignore[arg-type]


def test_a_webps_frames_come_with_their_times(tmp_path: Path) -> None:
    images = [Image.new("RGBA", (6, 5), (40 * number, 9, 200, 255)) for number in range(3)]
    images[0].save(
        tmp_path / "a.webp", save_all=True, append_images=images[1:], duration=[40, 90, 130], lossless=True
    )
    frames = read_frames((tmp_path / "a.webp").read_bytes())
    assert [frame.ms for frame in frames] == [40, 90, 130]
    assert [int(frame.picture.pixels[0, 0, 0]) for frame in frames] == [0, 40, 80]


def by_others(layers: list[tuple[str, np.ndarray, dict[str, str]]], extra: str = "") -> bytes:  # type: ignore[type-arg]
    """An OpenRaster file made with zipfile and Pillow alone, the topmost layer first, as the format wants it."""
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w") as archive:
        archive.writestr(zipfile.ZipInfo("mimetype"), b"image/openraster")
        rows = ""
        for number, (name, pixels, more) in enumerate(layers):
            part = io.BytesIO()
            Image.fromarray(pixels).save(part, "PNG")
            archive.writestr(f"data/l{number}.png", part.getvalue(), zipfile.ZIP_DEFLATED)
            told = " ".join(f'{key}="{value}"' for key, value in more.items())
            rows += f'<layer name="{name}" src="data/l{number}.png" {told}/>'
        archive.writestr(
            "stack.xml", f'<?xml version="1.0"?>{extra}<image w="10" h="8"><stack>{rows}</stack></image>'
        )
    return stream.getvalue()


def solid(wide: int, high: int, *colour: int) -> np.ndarray:  # type: ignore[type-arg]
    return np.full((high, wide, 4), colour, np.uint8)


def test_layers_lie_where_the_file_says_and_hidden_ones_are_not_seen() -> None:
    data = by_others([
        ("hat", solid(3, 2, 200, 0, 0, 255), {"x": "2", "y": "1", "opacity": "0.5"}),
        ("notes", solid(10, 8, 9, 9, 9, 255), {"visibility": "hidden"}),
        ("body", solid(6, 6, 0, 0, 100, 255), {"x": "-1", "y": "4"}),
    ])  # fmt: skip
    assert is_layered(data) and not is_layered(b"PK\x03\x04" + bytes(60))
    layers = read_layers(data)
    assert [(layer.name, layer.visible) for layer in layers] == [
        ("body", True),
        ("notes", False),
        ("hat", True),
    ]
    seen = decode_level(read_texture(data)).pixels
    assert (
        tuple(seen[1, 2]) == (200, 0, 0, 128) and tuple(seen[7, 4]) == (0, 0, 100, 255) and seen[0, 9, 3] == 0
    )
    assert tuple(composed([layers[0], layers[2]]).pixels[1, 2]) == (200, 0, 0, 128)


def test_layers_in_groups_are_named_by_them() -> None:
    data = by_others([("x", solid(10, 8, 1, 2, 3, 255), {})])
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        entries = {name: archive.read(name) for name in archive.namelist()}
    entries["stack.xml"] = (
        b'<image w="10" h="8"><stack><stack name="coat" visibility="hidden"><layer name="red" src="data/l0.png"/></stack>'
        b'<layer src="data/l0.png" opacity="0.25"/></stack></image>'
    )
    stream = io.BytesIO()
    with zipfile.ZipFile(stream, "w") as archive:
        for name, content in entries.items():
            archive.writestr(zipfile.ZipInfo(name), content)
    layers = read_layers(stream.getvalue())
    assert [(one.name, one.visible, one.opacity) for one in layers] == [
        ("layer 2", True, 0.25),
        ("coat/red", False, 1.0),
    ]


@given(st.integers(1, 5), st.integers(1, 9), st.integers(1, 9), st.randoms(use_true_random=False))
@settings(max_examples=30)
def test_what_is_written_another_reader_finds(count: int, wide: int, high: int, random: object) -> None:
    rng = np.random.default_rng(random.randint(0, 9999))  # type: ignore[attr-defined]
    layers = [
        Layer(f"frame {number}", Picture(rng.integers(0, 256, (high, wide, 4), np.uint8)), number == 0)
        for number in range(count)
    ]
    data = write_layers(layers)
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        assert (
            archive.namelist()[0] == "mimetype"
            and archive.getinfo("mimetype").compress_type == zipfile.ZIP_STORED
        )
        assert archive.testzip() is None
        for number, layer in enumerate(layers):
            with Image.open(io.BytesIO(archive.read(f"data/{number:03}.png"))) as image:
                np.testing.assert_array_equal(np.asarray(image.convert("RGBA")), layer.picture.pixels)
        merged = np.asarray(Image.open(io.BytesIO(archive.read("mergedimage.png"))).convert("RGBA"))
        first = layers[0].picture.pixels
        np.testing.assert_array_equal(merged, np.where(first[..., 3:] > 0, first, 0))
    again = read_layers(data)
    assert [layer.name for layer in again] == [layer.name for layer in layers]


def test_hostile_layers_are_refused_kindly() -> None:
    good = by_others([("a", solid(10, 8, 1, 2, 3, 255), {})])
    bomb = by_others([("a", solid(10, 8, 1, 2, 3, 255), {})], '<!DOCTYPE x [<!ENTITY a "aaaa">]>')
    for data in (
        bomb,
        good[:-40],
        good.replace(b"stack.xml", b"stuck.xml"),
        good.replace(b"data/l0.png", b"data/l1.png", 1),
    ):
        with pytest.raises(FurnelError, match="damaged"):
            read_layers(data)
    head = bytearray(good)
    rng = np.random.default_rng(8)
    for _ in range(300):
        broken = bytearray(head)
        for at in rng.integers(54, len(head), 4):
            broken[at] = rng.integers(0, 256)
        try:
            read_layers(bytes(broken))
        except FurnelError:
            continue


def test_frames_that_claim_too_much_are_refused() -> None:
    data = gif([(1, 5, (0, 0, 8, 6), RED)] * 1100)
    with pytest.raises(FurnelError, match="too much"):
        read_frames(data)
    with pytest.raises(FurnelError):
        read_frames(b"GIF89a" + bytes(30))
