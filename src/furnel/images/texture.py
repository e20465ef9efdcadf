"""A texture as a game stores it: encoded levels, not yet pixels."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from furnel.images.formats import FORMATS, PixelFormat, full_levels, level_size

Shape = Literal["flat", "array", "cube", "volume"]
Levels = tuple[bytes | memoryview, ...]


@dataclass(frozen=True, slots=True)
class Texture:
    """`levels[0]` is the whole picture, each next one half its size; bytes in `format`, first row on top.

    The layers of an array and the six faces of each cube (right, left, top, bottom, front, back) follow in `others`,
    levels each. A volume's levels hold all their slices, `depth` of them in level 0, half as many in the next.
    `srgb` is None where the file does not say; `file_type` and `notes` (such as the header style, row order or
    run-length flag) tell how the file was written, so that a replacement can be written the same way.
    """

    width: int
    height: int
    format: str
    levels: Levels
    file_type: str
    srgb: bool | None = None
    notes: tuple[tuple[str, str], ...] = ()
    shape: Shape = "flat"
    others: tuple[Levels, ...] = ()
    depth: int = 1

    @property
    def pixel_format(self) -> PixelFormat:
        return FORMATS[self.format]

    @property
    def full_chain(self) -> bool:
        return len(self.levels) == full_levels(self.width, self.height, self.depth)

    @property
    def pictures(self) -> int:
        """How many pictures level 0 has: layers, faces or slices."""
        return self.depth if self.shape == "volume" else 1 + len(self.others)

    def level_size(self, level: int) -> tuple[int, int]:
        """Width and height of `levels[level]` in pixels."""
        return level_size(self.width, self.height, level)

    def level_depth(self, level: int) -> int:
        """How many slices a level has; 1 for all but volumes."""
        return max(self.depth >> level, 1)

    def picture_bytes(self, picture: int, level: int) -> bytes | memoryview:
        """The bytes of one layer, face or slice at a level."""
        if self.shape != "volume":
            return (self.levels, *self.others)[picture][level]
        size = self.pixel_format.level_bytes(*self.level_size(level))
        return self.levels[level][picture * size : (picture + 1) * size]

    def note(self, key: str) -> str:
        """One of the notes, or an empty text."""
        return dict(self.notes).get(key, "")
