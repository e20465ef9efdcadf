"""A very large picture brought to size in linear light, beside Pillow's resize of the same pixels."""

from __future__ import annotations

import numpy as np
from PIL import Image

from benchmarks.measure import seconds
from furnel.images import Picture
from furnel.images.resample import resize

SIDE, SMALL = 8192, 512


def main() -> None:
    rng = np.random.default_rng(2)
    shapes = rng.integers(0, 255, (SIDE // 16, SIDE // 16, 4), np.uint8)
    pixels = np.kron(shapes, np.ones((16, 16, 1), np.uint8))
    pixels[..., 3] = 255
    picture, image = Picture(pixels), Image.fromarray(pixels)
    own = seconds(lambda: resize(picture, SMALL, SMALL, "lanczos"), 3)
    peer = seconds(lambda: image.resize((SMALL, SMALL), Image.Resampling.LANCZOS), 3)
    print(
        f"{SIDE} × {SIDE} to {SMALL} × {SMALL}: {own:.2f} s, {own / peer:.2f} × Pillow's resize ({peer:.2f} s, no linear light)"
    )
