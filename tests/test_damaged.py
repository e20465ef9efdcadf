"""Damaged files of every kind end in a result or a FurnelError, within 2 s and 256 MB each (tests/fuzzing.py)."""

from __future__ import annotations

import io
import json
import os
import struct
import subprocess
import sys
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from furnel import imagefiles
from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.sound import peek_info


@pytest.mark.parametrize("family", ["pictures", "sounds", "archives", "texts", "written", "mods"])
def test_nothing_else_comes_out(family: str, tmp_path: Path) -> None:
    ran = subprocess.run(
        [sys.executable, "-m", "tests.fuzzing", family, "4", "11", str(tmp_path / "f")],
        env={**os.environ, "PYTHONPATH": "."}, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert ran.returncode == 0, ran.stdout[-2000:]
    said = json.loads(ran.stdout)
    assert said["wrong"] == {}
    assert said["files"] > 200


def test_what_is_no_number_is_dark_and_what_is_endless_is_bright() -> None:
    values = np.array([[[np.nan, np.inf, -np.inf, 1.0], [0.5, 1e30, 0.0, np.nan]]], "<f4")
    head = bytearray(imagefiles.write_texture(imagefiles.encode_texture([_grey(2, 1)], "RGBA32F", "DDS")))
    head[-32:] = values.tobytes()
    texture = imagefiles.read_texture(bytes(head))
    pixels = imagefiles.decode_level(texture).pixels
    assert pixels[0, 0].tolist() == [0, 255, 0, 255]
    assert pixels[0, 1, 1:].tolist() == [255, 0, 0]
    assert imagefiles.brightest(texture) == pytest.approx(65504)


def test_a_picture_of_a_thread_has_a_thumbnail() -> None:
    stream = io.BytesIO()
    Image.new("RGB", (3, 30000), (9, 90, 200)).save(stream, "PNG")
    small = imagefiles.read_small(stream.getvalue(), 64)
    assert min(small.size) >= 1 and small.pixels[0, 0].tolist() == [9, 90, 200, 255]


def test_a_gif_that_claims_a_wall_is_refused_before_it_costs_anything() -> None:
    stream = io.BytesIO()
    Image.new("P", (4, 4)).save(stream, "GIF")
    data = stream.getvalue()
    with pytest.raises(FurnelError, match="far too many pixels|exceeds limit"):
        imagefiles.read_texture(data[:6] + struct.pack("<HH", 30000, 30000) + data[10:], "wide.gif")


def test_a_header_cut_short_tells_nothing() -> None:
    head = struct.pack(
        "<4sI4s4sIHHIIHH4sI", b"RIFF", 40, b"WAVE", b"fmt ", 16, 1, 1, 8000, 16000, 2, 16, b"data", 0
    )
    assert all(peek_info(head[:size], 44) is None for size in range(44))
    found = peek_info(head, 12)
    assert found is not None and found.frames == 0 and found.length_s == 0


def _grey(width: int, height: int) -> Picture:
    return Picture(np.full((height, width, 4), 128, np.uint8))
