"""A picture in memory."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError

MOST_PIXELS = 16384 * 16384

Pixels = npt.NDArray[np.uint8]
Rgb = tuple[int, int, int]
"""A colour, red, green and blue, 0 to 255."""


@dataclass(frozen=True, slots=True, eq=False)
class Picture:
    """`pixels` (height, width, 4) uint8, straight alpha, sRGB, first row on top."""

    pixels: Pixels

    def __post_init__(self) -> None:
        shape = self.pixels.shape
        if self.pixels.dtype != np.uint8 or len(shape) != 3 or shape[2] != 4 or 0 in shape:
            raise FurnelError(
                "A picture", why=f"pixels are {self.pixels.dtype} {shape}, not (height, width, 4) uint8"
            )

    @property
    def width(self) -> int:
        return int(self.pixels.shape[1])

    @property
    def height(self) -> int:
        return int(self.pixels.shape[0])

    @property
    def size(self) -> tuple[int, int]:
        return self.width, self.height


def check_size(width: int, height: int, what: str, where: object = "") -> None:
    """Refuse sizes that no picture has, before anything is allocated for them."""
    if width < 1 or height < 1 or width * height > MOST_PIXELS:
        raise FurnelError(
            what,
            where=where,
            why=f"its header says {width} × {height} pixels",
            remedy="The file is damaged or not of this kind",
        )
