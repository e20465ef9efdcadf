"""What every format would make of a picture: its size, how close it comes, where it fails worst, how long it takes."""

from __future__ import annotations

import time
from collections.abc import Iterator
from dataclasses import dataclass

import numpy as np

from furnel import imagefiles
from furnel.blocks import Quality
from furnel.images.colour import alpha_use
from furnel.images.formats import FORMATS, full_levels, level_size
from furnel.images.picture import Picture
from furnel.progress import QUIET, Part, Progress, check

ALLOWED = {one.name: one.formats for one in imagefiles.PICTURE_FILES if one.formats}
_SIDE = 16  # how much of the picture around the worst block is shown, in pixels each way


@dataclass(frozen=True, slots=True, eq=False)
class Trial:
    """A format tried: `size_bytes` with `levels` levels, likeness in dB (PSNR over the channels in use), the worst block's
    place in pixels and its own likeness, how long encoding took, and what it looks like.
    """

    format: str
    size_bytes: int
    psnr_db: float
    worst: tuple[int, int]
    worst_db: float
    seconds: float
    picture: Picture


def allowed_formats(file_type: str, picture: Picture) -> tuple[str, ...]:
    """The formats worth trying for a picture in a kind of file: those that can hold its channels, roughly."""
    use = alpha_use(picture.pixels)
    colours = picture.pixels[..., :3].astype(np.int16)
    grey = int(np.abs(colours[..., :1] - colours).max()) <= 8
    two = int(colours[..., 2].max()) == 0  # a normal map with its third part left out

    def holds(name: str) -> bool:
        channels, alpha = FORMATS[name].channels, FORMATS[name].alpha
        if use != "none" and (alpha == "none" or (use == "smooth" and alpha == "cut-out")):
            return False
        return len(channels) >= 3 or (channels in ("R", "L") and grey) or (channels == "RG" and two)

    return tuple(name for name in ALLOWED.get(file_type, ()) if holds(name))


def try_formats(
    picture: Picture,
    formats: tuple[str, ...],
    quality: Quality = "good",
    levels: int = 1,
    progress: Progress = QUIET,
) -> Iterator[Trial]:
    """Each format tried in turn."""
    for place, fmt in enumerate(formats):
        check(progress, "Trying formats")
        part = Part(progress, place / len(formats), (place + 1) / len(formats))
        part.report(0.0, f"Trying {fmt}")
        started = time.perf_counter()
        texture = imagefiles.encode_texture(
            [picture], fmt, "DDS", quality=quality, progress=part if FORMATS[fmt].compressed else QUIET
        )
        seconds = time.perf_counter() - started
        yield measure(picture, imagefiles.decode_level(texture), fmt, levels, seconds)


def measure(wanted: Picture, got: Picture, fmt: str, levels: int = 1, seconds: float = 0.0) -> Trial:
    """How close a decoded picture comes to what was encoded; colour under zero alpha does not count."""
    entry = FORMATS[fmt]
    error = (wanted.pixels.astype(np.float32) - got.pixels.astype(np.float32)) ** 2
    error[..., :3] *= wanted.pixels[..., 3:] > 0
    if alpha_use(wanted.pixels) == "none":
        error = error[..., :3]
    squared = error.mean(axis=2)
    height, width = squared.shape
    padded = np.pad(squared, ((0, -height % 4), (0, -width % 4)), mode="edge")
    tiles = padded.reshape(padded.shape[0] // 4, 4, -1, 4).mean(axis=(1, 3))
    row, column = np.unravel_index(int(tiles.argmax()), tiles.shape)
    most = min(levels, full_levels(width, height))
    size = sum(entry.level_bytes(*level_size(width, height, level)) for level in range(most))
    worst = int(column) * 4, int(row) * 4
    return Trial(
        fmt, size, _decibels(float(squared.mean())), worst, _decibels(float(tiles.max())), seconds, got
    )


def around_worst(picture: Picture, place: tuple[int, int]) -> Picture:
    """The part of a picture around a place."""
    left = min(max(place[0] - _SIDE + 2, 0), max(picture.width - 2 * _SIDE, 0))
    top = min(max(place[1] - _SIDE + 2, 0), max(picture.height - 2 * _SIDE, 0))
    return Picture(np.ascontiguousarray(picture.pixels[top : top + 2 * _SIDE, left : left + 2 * _SIDE]))


def _decibels(squared: float) -> float:
    return float(10 * np.log10(255.0**2 / squared)) if squared > 1e-9 else float("inf")
