"""A texture as a game stores it: encoded levels, not yet pixels."""

from __future__ import annotations

from dataclasses import dataclass

from furnel.images.formats import FORMATS, PixelFormat, full_levels, level_size


@dataclass(frozen=True, slots=True)
class Texture:
    """`levels[0]` is the whole picture, each next one half its size; bytes in `format`, first row on top.

    `srgb` is None where the file does not say; `file_type` and `notes` (such as the header style, row order or
    run-length flag) tell how the file was written, so that a replacement can be written the same way.
    """

    width: int
    height: int
    format: str
    levels: tuple[bytes | memoryview, ...]
    file_type: str
    srgb: bool | None = None
    notes: tuple[tuple[str, str], ...] = ()

    @property
    def pixel_format(self) -> PixelFormat:
        return FORMATS[self.format]

    @property
    def full_chain(self) -> bool:
        return len(self.levels) == full_levels(self.width, self.height)

    def level_size(self, level: int) -> tuple[int, int]:
        """Width and height of `levels[level]` in pixels."""
        return level_size(self.width, self.height, level)

    def note(self, key: str) -> str:
        """One of the notes, or an empty text."""
        return dict(self.notes).get(key, "")
