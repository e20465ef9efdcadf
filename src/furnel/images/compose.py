"""Pictures put together as games do: a gauge filled, a grey picture tinted, a glow added, a normal map lit."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.images.picture import Picture
from furnel.images.resample import resize

Values = npt.NDArray[np.float32]


def over(base: Picture, top: Picture) -> Picture:
    """`top`, brought to the base's size, laid over it by its alpha."""
    below, above = _values(base), _values(resize(top, *base.size, "area"))
    share = above[..., 3:]
    alpha = share + below[..., 3:] * (1 - share)
    colours = above[..., :3] * share + below[..., :3] * below[..., 3:] * (1 - share)
    return _picture(np.concatenate([colours / np.maximum(alpha, 1e-6), alpha], axis=-1))


def added(base: Picture, glow: Picture, strength: float = 1.0) -> Picture:
    """A glow, brought to the base's size, added to it as light by its alpha; where the base is clear the glow is seen alone."""
    below, light = _values(base), _values(resize(glow, *base.size, "area"))
    shown = light[..., 3:] * strength
    alpha = np.maximum(below[..., 3:], shown)
    colours = below[..., :3] * below[..., 3:] + light[..., :3] * shown
    return _picture(np.concatenate([np.minimum(colours / np.maximum(alpha, 1e-6), 1.0), alpha], axis=-1))


def gauge(base: Picture, level: Picture | None, glow: Picture | None, fill: float) -> Picture:
    """A gauge at a fill of 0 to 1: the level from the bottom of what it paints up, under the glow."""
    shown = base
    if level is not None:
        part = resize(level, *base.size, "area").pixels.copy()
        rows = np.flatnonzero(part[..., 3].max(axis=1) > 8)
        if rows.size:
            top = rows[-1] + 1 - round((rows[-1] + 1 - rows[0]) * min(max(fill, 0.0), 1.0))
            part[:top] = 0
        shown = over(shown, Picture(part))
    return added(shown, glow, 0.6) if glow is not None else shown


def tinted(picture: Picture, colour: tuple[int, int, int]) -> Picture:
    """A picture multiplied with a colour; alpha stays."""
    out = picture.pixels.copy()
    out[..., :3] = (picture.pixels[..., :3].astype(np.uint16) * np.array(colour, np.uint16) + 127) // 255
    return Picture(out)


def lit(normals: Picture, light: tuple[float, float, float], height: float = 1.0) -> Picture:
    """What a normal map looks like under a lamp at `light` (x and y as shares of the picture, and its height above it).

    Green points down, as most games store it; a missing blue channel is worked out. Grey, with a shine.
    """
    pixels = normals.pixels
    tall, wide = pixels.shape[:2]
    x, y = pixels[..., 0] / np.float32(127.5) - 1, pixels[..., 1] / np.float32(127.5) - 1
    z = np.sqrt(np.maximum(1 - x * x - y * y, 0.0)) * np.float32(1 / max(height, 1e-3))
    rows, columns = np.mgrid[0:tall, 0:wide].astype(np.float32)
    dx, dy = np.float32(light[0]) - columns / wide, np.float32(light[1]) - rows / tall
    dz = np.float32(max(light[2], 0.05))
    away = np.sqrt(dx * dx + dy * dy + dz * dz)
    length = np.sqrt(x * x + y * y + z * z) + np.float32(1e-6)
    facing = np.clip((x * dx + y * dy + z * dz) / (away * length), 0.0, 1.0)
    bright = 0.08 + 0.75 * facing / (1 + 2 * away * away) + 0.5 * facing**40
    out = np.empty_like(pixels)
    out[..., :3] = np.clip(bright * 255, 0, 255)[..., None]
    out[..., 3] = 255
    return Picture(out)


def _values(picture: Picture) -> Values:
    return picture.pixels.astype(np.float32) / np.float32(255)


def _picture(values: Values) -> Picture:
    return Picture(np.clip(np.round(values * 255), 0, 255).astype(np.uint8))
