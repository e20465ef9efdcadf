"""Cutting, turning and placing pictures."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.images.resample import Filter, looks_drawn_in_pixels, resize

How = Literal["fill", "inside", "stretch"]
HOWS: tuple[How, ...] = ("fill", "inside", "stretch")
Box = tuple[int, int, int, int]  # left, top, width and height in pixels


def cropped(picture: Picture, box: Box) -> Picture:
    """The part of a picture inside `box`; what of the box lies outside is left off. Raises FurnelError when all does."""
    left, top, width, height = box
    part = picture.pixels[max(top, 0) : max(top + height, 0), max(left, 0) : max(left + width, 0)]
    if 0 in part.shape:
        raise FurnelError(
            "Cropping",
            why=f"the area at {left}, {top} lies outside the picture of {picture.width} × {picture.height}",
            remedy="Move the area into the picture",
        )
    return Picture(np.ascontiguousarray(part))


def turned(picture: Picture, quarters: int, mirror: Literal["no", "across", "down"]) -> Picture:
    """Turned to the right by `quarters` of a full turn, then mirrored left to right (`across`) or top to bottom (`down`)."""
    pixels = np.rot90(picture.pixels, -quarters)
    if mirror != "no":
        pixels = pixels[:, ::-1] if mirror == "across" else pixels[::-1]
    return Picture(np.ascontiguousarray(pixels))


def brought_to(picture: Picture, width: int, height: int, how: How, kernel: Filter | None = None) -> Picture:
    """A picture at exactly a size: `fill` cuts what is too much, `inside` leaves clear margins, `stretch` distorts.

    Without a `kernel` pixel art keeps its pixels and everything else is averaged.
    """
    kernel = kernel or ("nearest" if looks_drawn_in_pixels(picture) else "lanczos")
    if how == "stretch":
        return resize(picture, width, height, kernel)
    scales = (width / picture.width, height / picture.height)
    if how == "fill":
        scale = max(scales)
        wide, high = min(round(width / scale), picture.width), min(round(height / scale), picture.height)
        left, top = (picture.width - wide) // 2, (picture.height - high) // 2
        return resize(cropped(picture, (left, top, max(wide, 1), max(high, 1))), width, height, kernel)
    scale = min(scales)
    wide, high = max(round(picture.width * scale), 1), max(round(picture.height * scale), 1)
    wide, high = min(wide, width), min(high, height)
    canvas = np.zeros((height, width, 4), np.uint8)
    left, top = (width - wide) // 2, (height - high) // 2
    canvas[top : top + high, left : left + wide] = resize(picture, wide, high, kernel).pixels
    return Picture(canvas)


def placed(
    base: Picture,
    picture: Picture,
    box: Box,
    *,
    how: How = "fill",
    stretch: float = 1.0,
    feather: float = 0.0,
    keep_alpha: bool = True,
) -> Picture:
    """`picture` in the area `box` of `base`, the rest of which stays.

    `stretch` is how much wider than tall the game shows the area: the picture is squeezed by as much, so that it looks
    right there. `feather` pixels of its edge blend. The base's alpha stays, or the picture's counts (`keep_alpha` off).
    """
    left, top, width, height = box
    if (
        width < 1
        or height < 1
        or left >= base.width
        or top >= base.height
        or left + width <= 0
        or top + height <= 0
    ):
        raise FurnelError(
            "Placing on the original",
            why=f"the area at {left}, {top} lies outside the original of {base.width} × {base.height}",
            remedy="Move the area into the picture",
        )
    wide = max(round(width * stretch), 1)
    fitting = brought_to(picture, wide, height, how)
    part = resize(fitting, width, height, "area") if wide != width else fitting
    seen = (
        slice(max(top, 0), min(top + height, base.height)),
        slice(max(left, 0), min(left + width, base.width)),
    )
    inner = (
        slice(seen[0].start - top, seen[0].stop - top),
        slice(seen[1].start - left, seen[1].stop - left),
    )
    cover = _feathered(width, height, feather)[inner][..., None]
    out = base.pixels.copy()
    below, above = out[seen].astype(np.float32), part.pixels[inner].astype(np.float32)
    share = cover * above[..., 3:] / 255
    mixed = below + (above - below) * (share if keep_alpha else cover)
    out[seen] = np.round(mixed).astype(np.uint8)
    if keep_alpha:
        out[..., 3] = base.pixels[..., 3]
    return Picture(out)


def area_mask(size: tuple[int, int], box: Box, feather: float) -> npt.NDArray[np.float32]:
    """(height, width) float32: 1 inside `box`, 0 outside, falling over `feather` pixels inside its edge."""
    out = np.zeros((size[1], size[0]), np.float32)
    left, top, width, height = box
    first, end = max(top, 0), min(top + height, size[1])
    start, stop = max(left, 0), min(left + width, size[0])
    if first < end and start < stop:
        cover = _feathered(width, height, feather)
        out[first:end, start:stop] = cover[first - top : end - top, start - left : stop - left]
    return out


def _feathered(width: int, height: int, feather: float) -> npt.NDArray[np.float32]:
    if feather <= 0:
        return np.ones((height, width), np.float32)
    across = np.minimum(np.arange(width), np.arange(width)[::-1]) + 0.5
    down = np.minimum(np.arange(height), np.arange(height)[::-1]) + 0.5
    near = np.minimum(across[None, :], down[:, None]) / feather
    return np.clip(near, 0.0, 1.0).astype(np.float32)
