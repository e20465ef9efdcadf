"""Pixel art at whole-number sizes: squares as squares, or with edges that are kept (EPX, Eric Johnston, 1992)."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import MOST_PIXELS, Picture
from furnel.sprites.grid import Grid

Kind = Literal["squares", "kept edges"]
KINDS: tuple[Kind, ...] = ("squares", "kept edges")


def enlarged(picture: Picture, times: int, kind: Kind = "squares") -> Picture:
    """A picture `times` as large; with `kept edges` diagonal edges stay lines where that is a power of two, as far as it is.

    No colour comes in that was not there. Raises FurnelError for what would be larger than any picture.
    """
    if picture.width * picture.height * times * times > MOST_PIXELS:
        raise FurnelError(
            "Enlarging a picture",
            why=f"{times} times as large it has too many pixels",
            remedy="Use a smaller number",
        )
    pixels = np.ascontiguousarray(picture.pixels).view(np.uint32)[..., 0]
    left = times
    while kind == "kept edges" and left % 2 == 0:
        pixels, left = _doubled(pixels), left // 2
    whole = np.ascontiguousarray(pixels.repeat(left, axis=0).repeat(left, axis=1))
    return Picture(whole[..., None].view(np.uint8).reshape(*whole.shape, 4))


def _doubled(pixels: npt.NDArray[np.uint32]) -> npt.NDArray[np.uint32]:
    """Each pixel as four; a corner takes the colour of two neighbours that meet there and are alike."""
    padded = np.pad(pixels, 1, mode="edge")
    up, down = padded[:-2, 1:-1], padded[2:, 1:-1]
    left, right = padded[1:-1, :-2], padded[1:-1, 2:]
    out = pixels.repeat(2, axis=0).repeat(2, axis=1)
    for row, column, one, other, far, further in (
        (0, 0, up, left, right, down), (0, 1, up, right, left, down),
        (1, 0, down, left, right, up), (1, 1, down, right, left, up),
    ):  # fmt: skip
        meets = (one == other) & (one != far) & (other != further)
        out[row::2, column::2] = np.where(meets, one, out[row::2, column::2])
    return out


def mirrored_each(picture: Picture, grid: Grid, down: bool = False) -> Picture:
    """A sheet whose cells are mirrored each by itself, what lies between them left as it is."""
    out = picture.pixels.copy()
    for place in range(grid.columns * grid.rows(picture.height)):
        part = picture.pixels[grid.part(place)]
        out[grid.part(place)] = part[::-1] if down else part[:, ::-1]
    return Picture(out)
