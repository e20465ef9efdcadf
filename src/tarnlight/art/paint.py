"""Brushes: noise, gradients, light and colour for all the pictures. Pictures are float arrays (height, width, 3 or 4), 0..1."""

from __future__ import annotations

from typing import Any

import numpy as np
import numpy.typing as npt
from PIL import Image, ImageDraw, ImageFilter

Floats = npt.NDArray[np.floating[Any]]


def rgb(code: str) -> Floats:
    """`8a5a33` as three floats."""
    return np.array([int(code[i : i + 2], 16) / 255 for i in (0, 2, 4)], np.float32)


def noise(
    rng: np.random.Generator, width: int, height: int, across: int, down: int, octaves: int = 4
) -> Floats:
    """Smooth noise, 0..1, that repeats at the edges; `across` × `down` lumps in the first octave."""
    total = np.zeros((height, width), np.float32)
    weight = 0.0
    for octave in range(octaves):
        columns, rows = across << octave, down << octave
        if columns > width or rows > height:
            break
        grid = rng.random((rows, columns), np.float32)
        wrapped = np.pad(grid, 3, mode="wrap")
        scale_x, scale_y = width / columns, height / rows
        whole = Image.fromarray(wrapped).resize(
            (round((columns + 6) * scale_x), round((rows + 6) * scale_y)), Image.Resampling.BICUBIC
        )
        left, top = round(3 * scale_x), round(3 * scale_y)
        part = np.asarray(whole)[top : top + height, left : left + width]
        total += part * 0.5**octave
        weight += 0.5**octave
    total /= weight
    low, high = total.min(), total.max()
    return np.asarray((total - low) / max(high - low, 1e-6), np.float32)


def mix(first: Floats, second: Floats, amount: Floats | float) -> Floats:
    """`first` where amount is 0, `second` where it is 1."""
    t = np.asarray(amount, np.float32)
    if t.ndim == 2:
        t = t[..., None]
    return np.asarray(first * (1 - t) + second * t, np.float32)


def ramp(values: Floats, *codes: str) -> Floats:
    """Values 0..1 to colours along a row of them."""
    stops = np.stack([rgb(code) for code in codes])
    place = np.clip(values, 0, 1) * (len(codes) - 1)
    low = np.minimum(place.astype(np.int32), len(codes) - 2)
    return mix(stops[low], stops[low + 1], np.asarray(place - low, np.float32))


def grid(width: int, height: int) -> tuple[Floats, Floats]:
    """x and y of every pixel's centre, 0..1."""
    y, x = np.mgrid[0:height, 0:width].astype(np.float32)
    return (x + 0.5) / width, (y + 0.5) / height


def stretch(values: Floats, centre: float, contrast: float) -> Floats:
    """More contrast around `centre`, clipped to 0..1."""
    return np.asarray(np.clip((values - centre) * contrast + 0.5, 0, 1))


def shape(width: int, height: int, draw: object, scale: int = 4, blur: float = 0.0) -> Floats:
    """A smooth mask 0..1: `draw(pen, s)` draws in white at `scale` times the size."""
    image = Image.new("L", (width * scale, height * scale))
    draw(ImageDraw.Draw(image), scale)  # type: ignore[operator]
    if blur:
        image = image.filter(ImageFilter.GaussianBlur(blur * scale))
    return np.asarray(image.resize((width, height), Image.Resampling.BOX), np.float32) / 255


def blurred(values: Floats, radius: float) -> Floats:
    """A mask, blurred."""
    image = Image.fromarray((np.clip(values, 0, 1) * 255).astype(np.uint8))
    return np.asarray(image.filter(ImageFilter.GaussianBlur(radius)), np.float32) / 255


def emboss(values: Floats, strength: float) -> Floats:
    """Light from the upper left over a height field that repeats: around 0, to be added."""
    return np.asarray(
        (np.roll(values, (1, 1), (0, 1)) - np.roll(values, (-1, -1), (0, 1))) * -strength, np.float32
    )


def rgba(colour: Floats, alpha: Floats | float = 1.0) -> npt.NDArray[np.uint8]:
    """Colours and alpha as (height, width, 4) bytes."""
    out = np.ones((*colour.shape[:2], 4), np.float32)
    out[..., :3] = colour
    out[..., 3] = alpha
    return (np.clip(out, 0, 1) * 255 + 0.5).astype(np.uint8)
