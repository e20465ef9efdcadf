"""The pixel formats that textures are stored in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

AlphaUse = Literal["none", "cut-out", "smooth"]


@dataclass(frozen=True, slots=True)
class PixelFormat:
    """How a level's pixels lie in memory: `block` pixels square take `size_bytes`; `alpha` is what it can hold."""

    name: str
    block: int
    size_bytes: int
    alpha: AlphaUse

    def level_bytes(self, width: int, height: int) -> int:
        """The size of one level of `width` × `height` pixels, in bytes."""
        across = -(-width // self.block)
        down = -(-height // self.block)
        return across * down * self.size_bytes

    @property
    def compressed(self) -> bool:
        return self.block > 1


FORMATS = {
    fmt.name: fmt
    for fmt in (
        PixelFormat("BC1", 4, 8, "cut-out"),
        PixelFormat("BC2", 4, 16, "smooth"),
        PixelFormat("BC3", 4, 16, "smooth"),
        PixelFormat("BC4", 4, 8, "none"),
        PixelFormat("BC5", 4, 16, "none"),
        PixelFormat("BC7", 4, 16, "smooth"),
        PixelFormat("RGBA8", 1, 4, "smooth"),
        PixelFormat("BGRA8", 1, 4, "smooth"),
        PixelFormat("BGRX8", 1, 4, "none"),
        PixelFormat("BGR8", 1, 3, "none"),
    )
}


def full_levels(width: int, height: int) -> int:
    """How many levels a full chain has, from the whole picture down to one pixel."""
    return max(width, height, 1).bit_length()


def level_size(width: int, height: int, level: int) -> tuple[int, int]:
    """Width and height of a level in pixels; level 0 is the whole picture."""
    return max(width >> level, 1), max(height >> level, 1)
