"""Sharpness, patterns over shading, and seams."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.images.colour import LUMA, from_premultiplied_light, premultiplied_light, to_linear
from furnel.images.picture import Picture
from furnel.images.resample import resize

Tiles = Literal["no", "across", "down", "both"]
Light = npt.NDArray[np.float32]


def sharpened(picture: Picture, amount: float, radius: float) -> Picture:
    """Unsharp masking in linear light: `amount` percent of what a blur of `radius` pixels takes away is added."""
    light = premultiplied_light(picture.pixels)
    out = light + (light - _blurred(light, radius)) * np.float32(amount / 100)
    out[..., 3] = light[..., 3]
    return Picture(from_premultiplied_light(np.clip(out, 0, None)))


def softened(picture: Picture, radius: float) -> Picture:
    """Blurred in linear light, clear pixels counting by their alpha; `radius` in pixels."""
    return Picture(from_premultiplied_light(_blurred(premultiplied_light(picture.pixels), radius)))


def patterned(
    original: Picture,
    pattern: Picture,
    *,
    scale: float,
    degrees: float,
    folds: float,
    detail: float,
    colour: float,
) -> Picture:
    """A tiling pattern laid over a picture whose shading stays, and its alpha.

    The pattern repeats at `scale` percent, turned by `degrees`. `folds` is how much of the broad shading stays and
    `detail` how much of the fine (outlines, seams, dirt), `colour` how much of the original's own colour; all percent.
    """
    tile = pattern
    if scale != 100:
        wide, high = round(pattern.width * scale / 100), round(pattern.height * scale / 100)
        tile = resize(pattern, max(wide, 1), max(high, 1), "area" if scale < 100 else "bicubic")
    height, width = original.pixels.shape[:2]
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    turn = np.radians(degrees)
    across = (x - width / 2) * np.cos(turn) + (y - height / 2) * np.sin(turn) + width / 2
    down = (y - height / 2) * np.cos(turn) - (x - width / 2) * np.sin(turn) + height / 2
    laid = _sampled(tile, across, down)
    alpha = original.pixels[..., 3:] / np.float32(255)
    shade = to_linear(original.pixels[..., :3]) @ LUMA
    weight = alpha[..., 0]
    mean = max(float((shade * weight).sum() / max(float(weight.sum()), 1e-6)), 1e-3)
    reach = max(min(width, height) / 40, 1.0)
    summed = _blurred(np.dstack([shade * weight, weight]), reach)
    broad = summed[..., 0] / np.maximum(summed[..., 1], np.float32(1e-4))
    fine: Light = np.asarray(shade / np.maximum(broad, 1e-3), np.float32)
    factor = (np.maximum(broad, 1e-4) / mean) ** (folds / 100)
    factor = factor * np.maximum(fine, 1e-4) ** (detail / 100)
    factor = np.where(
        factor > 1, 1.6 - 0.6 * np.exp((1 - factor) / 0.6), factor
    )  # so that what is bright does not bleach
    light = np.empty((height, width, 4), np.float32)
    light[..., :3] = laid * np.asarray(factor, np.float32)[..., None]
    light[..., :3] += (to_linear(original.pixels[..., :3]) - light[..., :3]) * np.float32(colour / 100)
    light[..., :3] = np.clip(light[..., :3], 0, 1) * alpha
    light[..., 3:] = alpha
    return Picture(from_premultiplied_light(light))


def seamless(picture: Picture, tiles: Tiles, share: float) -> Picture:
    """A picture that repeats: `share` percent of its width (and height) at the edges blends into what comes from beyond.

    Blended in linear light; the middle stays.
    """
    light = premultiplied_light(picture.pixels)
    for axis, wanted in ((1, ("across", "both")), (0, ("down", "both"))):
        if tiles in wanted:
            light = _wrapped(light, axis, share)
    return Picture(from_premultiplied_light(light))


_MEASURED = 1 << 24  # bytes


def seam(pixels: npt.NDArray[np.uint8], axis: int) -> float:
    """How much the two edges that meet when a picture repeats along `axis` differ, as a multiple of the usual difference
    between neighbours along it; about 1 when there is no seam.
    """
    lines = np.moveaxis(pixels, axis, 0)
    if len(lines) < 4:
        return 1.0
    first, last = _shown(lines[:1]), _shown(lines[-1:])
    edge = float(np.abs(first - last).mean())
    some = lines[:, :: max(pixels.size // _MEASURED, 1)]  # of a very large picture enough to tell
    usual = float(np.abs(np.diff(_shown(some), axis=0)).mean())
    return edge / max(usual, 0.75)


def _shown(pixels: npt.NDArray[np.uint8]) -> Light:
    return np.asarray(pixels.astype(np.float32) * (pixels[..., 3:] > 0), np.float32)


def _wrapped(light: Light, axis: int, share: float) -> Light:
    """The last rows along an axis mixed with what would come before the first, so that the end meets the beginning."""
    moved = np.moveaxis(light, axis, 0)
    count = len(moved)
    width = min(max(round(count * share / 100), 1), count // 2)
    out = moved.copy()
    reach = ((np.arange(width, dtype=np.float32) + 0.5) / width * 0.5)[:, None, None]
    first, last = moved[:width].copy(), moved[-width:][::-1].copy()
    half = np.float32(0.5) - reach  # at the very edge both count alike
    out[:width] = first * (1 - half) + last * half
    out[-width:] = (last * (1 - half) + first * half)[::-1]
    return np.moveaxis(out, 0, axis)


def _sampled(tile: Picture, across: Light, down: Light) -> Light:
    """Linear light (height, width, 3) of a repeating tile at any places, between pixels by their neighbours."""
    light = to_linear(tile.pixels[..., :3]).reshape(-1, 3)
    x, y = np.floor(across), np.floor(down)
    fx, fy = (across - x)[..., None], (down - y)[..., None]
    left, top = x.astype(np.int32) % tile.width, y.astype(np.int32) % tile.height * tile.width
    right = np.where(left + 1 == tile.width, 0, left + 1)
    bottom = np.where(top + tile.width == len(light), 0, top + tile.width)
    upper = light.take(top + left, axis=0)
    upper += (light.take(top + right, axis=0) - upper) * fx
    lower = light.take(bottom + left, axis=0)
    lower += (light.take(bottom + right, axis=0) - lower) * fx
    upper += (lower - upper) * fy
    return np.asarray(upper, np.float32)


def _blurred(light: Light, radius: float) -> Light:
    from scipy.ndimage import gaussian_filter

    return np.asarray(gaussian_filter(light, (radius, radius, 0), mode="nearest", truncate=3.0), np.float32)
