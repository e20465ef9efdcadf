"""Between sRGB values and linear light (IEC 61966-2-1), and what can be measured of colours."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

Floats = npt.NDArray[np.float32]
Pixels = npt.NDArray[np.uint8]


_PIECE = 1 << 18
LUMA = np.array([0.2126, 0.7152, 0.0722], np.float32)  # Rec. 709, used on sRGB values


def _decode_table() -> Floats:
    value = np.arange(256) / 255.0
    return np.where(value <= 0.04045, value / 12.92, ((value + 0.055) / 1.055) ** 2.4).astype(np.float32)


LINEAR_OF_BYTE = _decode_table()
_STEPS = 1 << 14
BYTE_OF_LINEAR = np.zeros(_STEPS + 1, np.uint8)
_grid = np.arange(_STEPS + 1) / _STEPS
BYTE_OF_LINEAR[:] = np.round(
    255.0 * np.where(_grid <= 0.0031308, _grid * 12.92, 1.055 * np.maximum(_grid, 1e-9) ** (1 / 2.4) - 0.055)
)


def to_linear(values: Pixels) -> Floats:
    """sRGB bytes to linear light, 0 to 1."""
    return LINEAR_OF_BYTE[values]


def to_srgb(light: Floats) -> Pixels:
    """Linear light (clipped to 0..1) to the nearest sRGB byte (within one in the darkest)."""
    return BYTE_OF_LINEAR[(np.clip(light, 0.0, 1.0) * _STEPS + 0.5).astype(np.int32)]


def premultiplied_light(pixels: Pixels) -> Floats:
    """(height, width, 4) uint8 sRGB to float32 linear light, colours multiplied by alpha."""
    light = np.empty(pixels.shape, np.float32)
    light[..., 3] = pixels[..., 3] * np.float32(1 / 255)
    light[..., :3] = to_linear(pixels[..., :3]) * light[..., 3:]
    return light


def from_premultiplied_light(light: Floats) -> Pixels:
    """The inverse of `premultiplied_light`; colour where alpha is 0 becomes black."""
    alpha = np.clip(light[..., 3:], 0.0, 1.0)
    out = np.empty(light.shape, np.uint8)
    out[..., :3] = to_srgb(np.asarray(light[..., :3] / np.maximum(alpha, np.float32(1e-6)), np.float32))
    out[..., 3:] = np.round(alpha * 255)
    return out


def alpha_use(pixels: Pixels) -> str:
    """What the alpha channel is used for: `none` (all opaque), `cut-out` (two values) or `smooth`."""
    alpha = pixels[..., 3]
    if alpha.min() >= 250:
        return "none"
    partial = np.count_nonzero((alpha > 8) & (alpha < 247))
    return "smooth" if partial > alpha.size * 0.004 else "cut-out"


def brightness(pixels: Pixels) -> float:
    """Mean of the luma (Rec. 709 weights on sRGB values), alpha-weighted, 0 to 1."""
    flat = pixels.reshape(-1, 4)
    total, bright = 0.0, np.zeros(3)
    for start in range(0, len(flat), _PIECE):  # a piece at a time, so that large pictures take little memory
        part = flat[start : start + _PIECE].astype(np.float64)
        total += float(part[:, 3].sum())
        bright += part[:, 3] @ part[:, :3]
    return float(bright @ LUMA / total / 255) if total else 0.0
