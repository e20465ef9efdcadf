"""Sheets: taking a large one apart, beside the time that Pillow needs to find it 256 colours."""

from __future__ import annotations

import time
from collections.abc import Callable

import numpy as np
from PIL import Image

from furnel.images import Picture
from furnel.sprites import poses_of

SIDE, ACROSS, ALONG = 4096, 25, 20


def main() -> None:
    rng = np.random.default_rng(1)
    pixels = np.full((SIDE, SIDE, 4), (255, 0, 255, 255), np.uint8)
    wide, high = SIDE // ACROSS, SIDE // ALONG
    shades = rng.integers(0, 200, (12, 3))
    for place in range(ACROSS * ALONG):
        top, left = place // ACROSS * high + 20, place % ACROSS * wide + 20
        y, x = np.mgrid[0 : high - 40, 0 : wide - 40]
        inside = ((y / (high - 40) - 0.5) / 0.5) ** 2 + (
            (x / (wide - 40) - 0.5) / (0.3 + 0.2 * rng.random())
        ) ** 2 <= 1
        inside[-30:] |= np.abs(x[-30:] - (wide - 40) / 2) < 12
        part = pixels[top : top + high - 40, left : left + wide - 40]
        part[inside, :3] = shades[(y[inside] // 9 + place) % 12]
    picture, image = Picture(pixels), Image.fromarray(pixels[..., :3])
    own, peer = (
        sorted(_seconds(work) for _ in range(3))[1]
        for work in (lambda: poses_of(picture), lambda: image.quantize(256))
    )
    found = len(poses_of(picture).poses)
    print(f"Taking {SIDE} × {SIDE} pixels apart: {found} figures in {own:.2f} s")
    print(f"  {own / peer:.2f} × Pillow's quantize, which takes {peer:.2f} s")


def _seconds(work: Callable[[], object]) -> float:
    begin = time.perf_counter()
    work()
    return time.perf_counter() - begin
