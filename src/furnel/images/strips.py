"""Rows of colours in pictures: reading and drawing them, and which colours of a figure a row lacks."""

from __future__ import annotations

import numpy as np

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Pixels, Rgb
from furnel.words import count

_GREY = 3  # channels that are so near are grey
_MOST = 4096


def colours_in(picture: Picture, wanted: int = 0, where: object = "") -> list[Rgb]:
    """The colours of a row (or, in a picture that is higher than wide, of a column) of equal fields, in their order.

    Of `wanted` ones (0: as many as there are fields that differ) each is the middle of its field. Raises FurnelError when
    the picture shows another number of colours than that.
    """
    pixels = picture.pixels if picture.width >= picture.height else picture.pixels.transpose(1, 0, 2)
    row = np.ascontiguousarray(pixels[pixels.shape[0] // 2])
    row = row[row[:, 3] > 0]
    length = len(row)
    if wanted and length >= wanted and length % wanted == 0:
        size = length // wanted
        fields = row.reshape(wanted, size, 4)
        if size == 1 or bool((fields == fields[:, size // 2 : size // 2 + 1]).all()):
            return [_rgb(field[size // 2]) for field in fields]
    found = _runs(row)
    if not found or len(found) > _MOST or (wanted and len(found) != wanted):
        raise FurnelError(
            "Taking a strip from a picture",
            where=where,
            why=f"its middle row shows {count(len(found), 'colour')}" + (f", not {wanted}" if wanted else ""),
            remedy="Give a picture with one field for each colour, side by side",
        )
    return found


def _runs(row: Pixels) -> list[Rgb]:
    if not len(row):
        return []
    starts = np.flatnonzero(np.r_[True, (row[1:, :3] != row[:-1, :3]).any(axis=1)])
    return [_rgb(row[at]) for at in starts[: _MOST + 1]]


def row_of(colours: list[Rgb], size: int = 8) -> Picture:
    """A picture of colours side by side, each a field of `size` pixels a side."""
    row = np.array([[*colour, 255] for colour in colours], np.uint8)
    return Picture(np.ascontiguousarray(np.broadcast_to(row.repeat(size, 0), (size, len(row) * size, 4))))


def palette_of(picture: Picture) -> list[tuple[Rgb, int]]:
    """Every colour that is seen in a picture and how many pixels have it, the most frequent first."""
    seen = picture.pixels[picture.pixels[..., 3] > 0].astype(np.uint32)
    codes, times = np.unique((seen[:, 0] << 16) | (seen[:, 1] << 8) | seen[:, 2], return_counts=True)
    order = np.argsort(-times, kind="stable")
    return [(_rgb(np.array([code >> 16 & 255, code >> 8 & 255, code & 255])), int(n)) for code, n in zip(
        codes[order], times[order], strict=True
    )]  # fmt: skip


def strangers(picture: Picture, colours: list[Rgb]) -> list[tuple[Rgb, int]]:
    """The colours that are seen in a picture and are none of these, with their pixels, the most frequent first."""
    known = set(colours)
    return [(colour, times) for colour, times in palette_of(picture) if colour not in known]


def coloured(picture: Picture) -> int:
    """How many pixels that are seen are not grey."""
    seen = picture.pixels[picture.pixels[..., 3] > 0][:, :3].astype(np.int16)
    return int((seen.max(axis=1) - seen.min(axis=1) > _GREY).sum()) if len(seen) else 0


def _rgb(pixel: Pixels) -> Rgb:
    return int(pixel[0]), int(pixel[1]), int(pixel[2])
