"""The numbers that a picture's patches are compared by, before they become signs."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.kernels import kernel

Floats = npt.NDArray[np.float32]
_SIDE = 12
_COARSE, _HUES = 36, 9


@kernel("Tuple((float32[:, ::1], float32[::1]))(uint8[:, :, ::1], int64)")
def patch_vectors(pixels: npt.NDArray[np.uint8], stride: int) -> tuple[Floats, Floats]:
    """(count, 54) brightness in 6 × 6 and two colour ratios in 3 × 3 cells, without their means, of every square of 12 × 12
    in (height, width, 4) pixels; and how rich each is (0 where it is mostly clear)."""
    height, width = pixels.shape[:2]
    down, across = (height - _SIDE) // stride + 1, (width - _SIDE) // stride + 1
    light = np.empty((height, width), np.float32)
    warm = np.empty((height, width), np.float32)
    cold = np.empty((height, width), np.float32)
    for y in range(height):
        for x in range(width):
            red = pixels[y, x, 0] / np.float32(255) + np.float32(0.02)
            green = pixels[y, x, 1] / np.float32(255) + np.float32(0.02)
            blue = pixels[y, x, 2] / np.float32(255) + np.float32(0.02)
            light[y, x] = np.log(
                red * np.float32(0.299)
                + green * np.float32(0.587)
                + blue * np.float32(0.114)
                + np.float32(0.08)
            )
            warm[y, x] = np.log(red / green)
            cold[y, x] = np.log(blue / green)
    vectors = np.zeros((down * across, _COARSE + 2 * _HUES), np.float32)
    rich = np.zeros(down * across, np.float32)
    for row in range(down):
        for column in range(across):
            top, left, one = row * stride, column * stride, row * across + column
            total = cover = 0.0
            mean_light = mean_warm = mean_cold = 0.0
            for y in range(top, top + _SIDE):
                for x in range(left, left + _SIDE):
                    alpha = pixels[y, x, 3] / 255
                    weight = max(alpha, 1e-3)
                    cover += alpha
                    total += weight
                    mean_light += light[y, x] * weight
                    mean_warm += warm[y, x] * weight
                    mean_cold += cold[y, x] * weight
            mean_light /= total
            mean_warm /= total
            mean_cold /= total
            squares = tones = 0.0
            for y in range(_SIDE):
                for x in range(_SIDE):
                    alpha = pixels[top + y, left + x, 3] / 255
                    dark = (light[top + y, left + x] - mean_light) * alpha
                    hot = (warm[top + y, left + x] - mean_warm) * alpha
                    cool = (cold[top + y, left + x] - mean_cold) * alpha
                    squares += dark * dark
                    tones += abs(hot) + abs(cool)
                    vectors[one, y // 2 * 6 + x // 2] += dark / 4
                    hue = _COARSE + y // 4 * 3 + x // 4
                    vectors[one, hue] += hot / 8
                    vectors[one, hue + _HUES] += cool / 8
            spread = np.sqrt(squares / total)
            for cell in range(_COARSE):
                vectors[one, cell] /= spread + 0.01
            if cover / (_SIDE * _SIDE) > 0.55:
                rich[one] = spread + tones / (2 * _SIDE * _SIDE)
    return vectors, rich
