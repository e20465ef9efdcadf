"""Bare pixels that are numbers of colours: read as TGA files with a palette, and back."""

from __future__ import annotations

import struct
from typing import Any, Literal

import numpy as np
import numpy.typing as npt
from pydantic import Field, model_validator

from furnel.errors import FurnelError
from furnel.imagefiles import decode_level, read_texture
from furnel.schema import InnerPath, Part

_WRITING = "Writing bare data"
_HEADER = struct.Struct("<BBBHHBHHHHBB")
Colours = npt.NDArray[np.uint8]


class PalettePart(Part):
    """Where the colours of pixels in `P8` are: `before` them or `behind` them, or in an `entry` of its own.

    There are as many as `colours` says, each in a `format`, whose channels have 8 `bits`, or the lowest 6 of a byte; `clear` is
    the number of the colour through which one sees what is behind.
    """

    colours: int = Field(256, ge=1, le=256)
    format: Literal["RGB8", "BGR8", "RGBA8", "BGRA8"] = "RGB8"
    bits: Literal[6, 8] = 8
    place: Literal["before", "behind"] = "before"
    entry: InnerPath | Literal[""] = ""
    clear: int | None = Field(None, ge=0, le=255)

    @model_validator(mode="after")
    def _is_one(self) -> PalettePart:
        if self.clear is not None and self.clear >= self.colours:
            raise ValueError(f"colour {self.clear} is none of the {self.colours}")
        return self

    @property
    def length(self) -> int:
        """The palette's bytes."""
        return self.colours * (len(self.format) - 1)

    @property
    def within(self) -> int:
        """How many of them lie with the pixels."""
        return 0 if self.entry else self.length

    @property
    def has_alpha(self) -> bool:
        return self.clear is not None or "A" in self.format

    def file_size(self, pixels: int) -> int:
        """The bytes of the file that so many pixels are read as."""
        return _HEADER.size + self.colours * (4 if self.has_alpha else 3) + pixels


def header(part: PalettePart, width: int, height: int) -> bytes:
    """The TGA header of such a picture, rows from above."""
    bits = 32 if part.has_alpha else 24
    return _HEADER.pack(0, 1, 1, 0, part.colours, bits, 0, 0, width, height, 8, 0x20)


def colours_in(part: PalettePart, data: bytes | memoryview, where: object) -> Colours:
    """A palette's bytes as colours (colours, RGBA). Raises FurnelError where they are too few."""
    if len(data) < part.length:
        raise FurnelError(
            "Reading bare data", where=where,
            why=f"its palette has {len(data)} bytes, and {part.colours} colours need {part.length}",
            remedy="Say in the layout where the palette is and how many colours it has",
        )  # fmt: skip
    rows = np.frombuffer(data, np.uint8, part.length).reshape(part.colours, -1)
    out = np.full((part.colours, 4), 255, np.uint8)
    for place, channel in enumerate(part.format[:-1]):
        values = rows[:, place]
        full = part.bits == 8 or channel == "A"
        out[:, "RGBA".index(channel)] = values if full else (values & 63) << 2 | (values & 63) >> 4
    if part.clear is not None:
        out[part.clear, 3] = 0
    return out


def palette_bytes(part: PalettePart, colours: Colours) -> bytes:
    """Colours as the palette's bytes."""
    rows = np.stack([colours[:, "RGBA".index(channel)] for channel in part.format[:-1]], axis=1)
    if part.bits == 6:
        rgb = [place for place, channel in enumerate(part.format[:-1]) if channel != "A"]
        rows[:, rgb] >>= 2
    return rows.tobytes()


def file_of(part: PalettePart, colours: Colours, rows: Colours) -> bytes:
    """Numbers of colours (height, width) as a TGA file with its palette."""
    order = [2, 1, 0, 3] if part.has_alpha else [2, 1, 0]
    return header(part, rows.shape[1], rows.shape[0]) + colours[:, order].tobytes() + rows.tobytes()


def numbers_of(
    part: PalettePart, file: bytes, before: Colours | None, where: object
) -> tuple[Colours, Colours]:
    """A picture as numbers of colours (height, width), and its palette: the one `before` where it has all its colours;
    otherwise, where the palette lies with the pixels, new colours stand for those that the picture does not use.

    Raises FurnelError where it has too many colours, or the palette is not its own.
    """
    pixels = np.asarray(decode_level(read_texture(file, where)).pixels)
    if pixels.dtype != np.uint8:
        raise _not_such(where, "its channels have more than 8 bits")
    palette = before.copy() if before is not None else _black(part)
    if part.clear is not None:
        unseen = (pixels[..., 3] == 0) & ~np.isin(_words(pixels), _words(palette))
        pixels = np.where(unseen[..., None], palette[part.clear], pixels)
    elif not part.has_alpha and (pixels[..., 3] != 255).any():
        raise _not_such(where, "it is transparent, and no colour of the palette is")
    wanted, index = np.unique(_words(pixels).ravel(), return_inverse=True)
    words = _words(palette)
    places = {int(word): place for place, word in reversed([*enumerate(words.tolist())])}
    missing = [word for word in wanted.tolist() if word not in places]
    if missing:
        used = {places[word] for word in wanted.tolist() if word in places}
        free = [place for place in range(part.colours) if place not in used and place != part.clear]
        if part.entry or len(missing) > len(free):
            raise _too_many(part, len(missing), len(wanted), where)
        for word, place in zip(missing, free, strict=False):
            palette[place] = np.array([word], np.uint32).view(np.uint8)
            places[word] = place
    numbers = np.array([places[word] for word in wanted.tolist()], np.uint8)
    return numbers[index].reshape(pixels.shape[:2]), palette


def _black(part: PalettePart) -> Colours:
    return colours_in(part, bytes(part.length), "")


def _words(colours: Any) -> npt.NDArray[np.uint32]:
    found: npt.NDArray[np.uint32] = np.ascontiguousarray(colours, np.uint8).view(np.uint32)[..., 0]
    return found


def _not_such(where: object, why: str) -> FurnelError:
    return FurnelError(
        _WRITING, where=where, why=why, remedy="Fit it: the result is a TGA file with a palette"
    )


def _too_many(part: PalettePart, missing: int, wanted: int, where: object) -> FurnelError:
    if part.entry:
        why = f"{missing} of its {wanted} colours are not in {part.entry}, the palette of all such pictures"
        return FurnelError(
            _WRITING, where=where, why=why, remedy="Bring its colours to the original's (step Few colours)"
        )
    why = f"it has {wanted} colours, and its palette holds {part.colours}"
    return FurnelError(_WRITING, where=where, why=why, remedy="Fit it with the step Few colours")
