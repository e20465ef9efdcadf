"""The pixel formats that textures are stored in."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

AlphaUse = Literal["none", "cut-out", "smooth"]


Sample = Literal["whole", "signed", "float"]


@dataclass(frozen=True, slots=True)
class PixelFormat:
    """How a level's pixels lie in memory: `block` pixels square take `size_bytes`; `alpha` is what it can hold.

    `channels` are those that are stored; `sample` tells whole numbers for 0..1, signed ones for -1..1, and floats in
    linear light without an upper limit.
    """

    name: str
    block: int
    size_bytes: int
    alpha: AlphaUse
    channels: str = "RGBA"
    sample: Sample = "whole"

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
        PixelFormat("BC4", 4, 8, "none", "R"),
        PixelFormat("BC4S", 4, 8, "none", "R", "signed"),
        PixelFormat("BC5", 4, 16, "none", "RG"),
        PixelFormat("BC5S", 4, 16, "none", "RG", "signed"),
        PixelFormat("BC6H", 4, 16, "none", "RGB", "float"),
        PixelFormat("BC6HS", 4, 16, "none", "RGB", "float"),
        PixelFormat("BC7", 4, 16, "smooth"),
        PixelFormat("RGBA8", 1, 4, "smooth"),
        PixelFormat("RGBX8", 1, 4, "none", "RGB"),
        PixelFormat("RGB8", 1, 3, "none", "RGB"),
        PixelFormat("BGRA8", 1, 4, "smooth"),
        PixelFormat("BGRX8", 1, 4, "none", "RGB"),
        PixelFormat("BGR8", 1, 3, "none", "RGB"),
        PixelFormat("RGB565", 1, 2, "none", "RGB"),
        PixelFormat("RGBA5551", 1, 2, "cut-out"),
        PixelFormat("RGBA4444", 1, 2, "smooth"),
        PixelFormat("R8", 1, 1, "none", "R"),
        PixelFormat("RG8", 1, 2, "none", "RG"),
        PixelFormat("A8", 1, 1, "smooth", "A"),
        PixelFormat("L8", 1, 1, "none", "L"),
        PixelFormat("LA8", 1, 2, "smooth", "LA"),
        PixelFormat("RGBA16", 1, 8, "smooth"),
        PixelFormat("R16F", 1, 2, "none", "R", "float"),
        PixelFormat("RG16F", 1, 4, "none", "RG", "float"),
        PixelFormat("RGBA16F", 1, 8, "smooth", "RGBA", "float"),
        PixelFormat("R32F", 1, 4, "none", "R", "float"),
        PixelFormat("RG32F", 1, 8, "none", "RG", "float"),
        PixelFormat("RGBA32F", 1, 16, "smooth", "RGBA", "float"),
    )
}


def full_levels(width: int, height: int, depth: int = 1) -> int:
    """How many levels a full chain has, from the whole picture down to one pixel."""
    return max(width, height, depth, 1).bit_length()


def level_size(width: int, height: int, level: int) -> tuple[int, int]:
    """Width and height of a level in pixels; level 0 is the whole picture."""
    return max(width >> level, 1), max(height >> level, 1)
