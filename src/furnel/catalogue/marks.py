"""Marks: what a picture or a sound is recognised by, whatever its size, tint, rate or loudness.

A picture has a *whole* (8 × 8 cells of colour and alpha) and up to 64 *patches*: small squares of it at three sizes, each
reduced to 128 signs of fixed random sums over its brightness and its colour ratios. Patches compare by the number of signs that
agree (random hyperplanes: M. Charikar, "Similarity estimation techniques from rounding algorithms", STOC 2002). Brightness
is taken without its mean and contrast, colour as logarithms of ratios without their mean, so that a tint or a lamp
that multiplies the channels changes nothing. A sound has its length, its loudness over time and its energy in bands.
"""

from __future__ import annotations

import hashlib
from dataclasses import dataclass
from functools import cache

import numpy as np
import numpy.typing as npt
from PIL import Image

from furnel.images.picture import Picture
from furnel.sound import Clip

Floats = npt.NDArray[np.float32]

CELLS = 8
PATCHES = 64
_SIDE = 12
_ROOT = 56.0  # pixels: the square root of the area that patches are taken from, largest size first
_LONGEST = 160
_SIGNS = 128
_FLAT = 0.05
TIMES, BANDS = 16, 12
_BAND_EDGES_HZ = np.geomspace(60, 8000, BANDS + 1)


@dataclass(frozen=True, slots=True, eq=False)
class Patches:
    """Local marks: (count, 2) uint64 signs, and where each is: centre x, y and side, in parts of the picture's root area."""

    signs: npt.NDArray[np.uint64]
    places: Floats

    def __len__(self) -> int:
        return len(self.signs)


@dataclass(frozen=True, slots=True, eq=False)
class PictureMarks:
    """A picture's marks: `whole` is (8, 8, 4) uint8 straight alpha."""

    whole: npt.NDArray[np.uint8]
    patches: Patches


def picture_marks(picture: Picture, frame: Picture | None = None) -> PictureMarks:
    """The marks of a picture; its patches are those of `frame` when a sheet's first frame is given."""
    image = Image.fromarray(picture.pixels)
    premultiplied = _boxed(image, CELLS, CELLS)
    part = frame or picture
    return PictureMarks(premultiplied, patches_of(part.pixels, (1.0, 0.5, 0.25), PATCHES))


def _boxed(image: Image.Image, width: int, height: int) -> npt.NDArray[np.uint8]:
    """Averages of cells; what is clear has no say in their colour (Pillow weighs by alpha itself for RGBa)."""
    small = image.convert("RGBa").resize((width, height), Image.Resampling.BOX)
    return np.asarray(small.convert("RGBA"))


def patches_of(
    pixels: npt.NDArray[np.uint8], sizes: tuple[float, ...], most: int, stride: int = 6
) -> Patches:
    """The `most` richest patches of (height, width, 4) pixels, looked at in some sizes."""
    height, width = pixels.shape[:2]
    signs, places, strength = [], [], []
    image = Image.fromarray(pixels).convert("RGBa")
    for size in sizes:
        scale = _ROOT * size / (width * height) ** 0.5
        scale = min(scale, _LONGEST / max(width, height))
        wide, high = max(round(width * scale), _SIDE), max(round(height * scale), _SIDE)
        small = np.asarray(
            image.resize((wide, high), Image.Resampling.BOX if scale < 1 else Image.Resampling.BILINEAR)
        )
        found, where, rich = _patches(small, stride)
        signs.append(found)
        root = (wide * high) ** 0.5
        places.append(np.column_stack([where / root, np.full(len(where), _SIDE / root)]))
        strength.append(rich * (1.0 if size == sizes[0] else 1.5))
    all_signs, all_places, rich = np.concatenate(signs), np.concatenate(places), np.concatenate(strength)
    best = np.argsort(-rich, kind="stable")[:most]
    best = best[rich[best] > _FLAT]
    return Patches(all_signs[best], all_places[best].astype(np.float32))


def _patches(small: npt.NDArray[np.uint8], stride: int) -> tuple[npt.NDArray[np.uint64], Floats, Floats]:
    """Signs, centres and contrast of the patches of one size."""
    from furnel.catalogue.patchkernel import patch_vectors

    vector, rich = patch_vectors(small.copy(), stride)
    down, across = ((side - _SIDE) // stride + 1 for side in small.shape[:2])
    y, x = np.mgrid[0:down, 0:across]
    centres = np.column_stack([x.ravel(), y.ravel()]).astype(np.float32) * stride + _SIDE / 2
    bits = (vector @ _planes()) > 0
    return np.packbits(bits, axis=1).view(np.uint64), centres, rich


@cache
def _planes() -> Floats:
    """The fixed random sums."""
    return np.random.default_rng(20240131).standard_normal((54, _SIGNS)).astype(np.float32)


def content_digest(data: bytes | memoryview) -> bytes:
    """16 bytes that tell contents apart, whatever they are called."""
    return hashlib.blake2b(data, digest_size=16).digest()


def sound_marks(clip: Clip) -> Floats:
    """(1 + 16 + 12) numbers: the logarithm of the length in seconds, loudness over time and over bands, both in bels."""
    from scipy import fft

    mono = clip.samples.mean(1)
    length = max(len(mono) / clip.rate, 1e-3)
    edges = np.linspace(0, len(mono), TIMES + 1).astype(np.int64)
    energy = np.concatenate([np.zeros(1), np.cumsum(mono.astype(np.float64) ** 2)])
    power = (energy[edges[1:]] - energy[edges[:-1]]) / np.maximum(np.diff(edges), 1)
    spectrum = np.abs(np.asarray(fft.rfft(_short(mono, clip.rate)))) ** 2
    bins = np.clip(
        (_BAND_EDGES_HZ * 2 * (len(spectrum) - 1) / clip.rate).astype(np.int64), 0, len(spectrum) - 1
    )
    sums = np.concatenate([np.zeros(1), np.cumsum(spectrum)])
    bands = (sums[bins[1:] + 1] - sums[bins[:-1]]) / max(float(sums[-1]), 1e-20)
    return np.concatenate(
        [[np.log2(length)], np.log10(power + 1e-8), np.log10(np.maximum(bands, 1e-6))]
    ).astype(np.float32)


def _short(mono: Floats, rate: int) -> Floats:
    """At most ten seconds from the middle of it."""
    most = 10 * rate
    if len(mono) <= most:
        return mono
    start = (len(mono) - most) // 2
    return mono[start : start + most]
