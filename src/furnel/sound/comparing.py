"""Two sounds beside each other: where one lies in the other, how their levels differ, and at which frequencies."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.sound.clip import Clip, part_of, resampled, with_channels
from furnel.sound.loudness import integrated_loudness

_BANDS = tuple(
    float(1000 * 2 ** (step / 3)) for step in range(-16, 13)
)  # thirds of an octave, 25 Hz to 16 kHz
_MOST_S = 120.0


@dataclass(frozen=True, slots=True)
class Comparison:
    """The second sound against the first: it begins `offset_s` later, is `level_lu` louder, and is `alike` (-1 to 1) there.

    `bands` are middle frequencies in Hz with the second's level less the first's in dB, both at the same loudness; bands
    in which neither has anything are left out. `spectral_db` is their mean without sign.
    """

    offset_s: float
    alike: float
    level_lu: float
    spectral_db: float
    bands: tuple[tuple[float, float], ...]


def compare_clips(first: Clip, second: Clip) -> Comparison:
    """Compare two clips; rates and channels may differ. Of long ones the first two minutes are compared."""
    rate = min(first.rate, second.rate)
    a, b = (
        with_channels(resampled(part_of(clip, 0, int(_MOST_S * clip.rate)), rate), 1)
        .samples[:, 0]
        .astype(float)
        for clip in (first, second)
    )
    offset = _offset(a, b)
    start_a, start_b = max(-offset, 0), max(offset, 0)
    length = min(len(a) - start_a, len(b) - start_b)
    alike = 0.0
    if length > 1:
        part_a, part_b = a[start_a : start_a + length], b[start_b : start_b + length]
        power = math.sqrt(float(part_a @ part_a) * float(part_b @ part_b))
        alike = float(part_a @ part_b) / power if power > 0 else 0.0
    levels = [integrated_loudness(clip.samples, clip.rate) for clip in (first, second)]
    gap = levels[1] - levels[0] if all(math.isfinite(level) for level in levels) else 0.0
    bands = _bands(a, b, rate, gap)
    mean = float(np.mean([abs(value) for _, value in bands])) if bands else 0.0
    return Comparison(offset / rate, alike, gap, mean, bands)


def _offset(a: npt.NDArray[np.float64], b: npt.NDArray[np.float64]) -> int:
    """How many frames later `b` has what is in `a`."""
    size = 1 << int(np.ceil(np.log2(len(a) + len(b))))
    product = np.fft.rfft(b, size) * np.conj(np.fft.rfft(a, size))
    match = np.fft.irfft(product, size)
    place = int(np.argmax(np.concatenate([match[: len(b)], match[size - len(a) + 1 :]])))
    return place if place < len(b) else place - len(b) - len(a) + 1


def _bands(
    a: npt.NDArray[np.float64], b: npt.NDArray[np.float64], rate: int, gap: float
) -> tuple[tuple[float, float], ...]:
    levels = [_band_levels(part, rate) for part in (a, b)]
    floor = max(float(level.max()) for level in levels) - 70
    return tuple(
        (hertz, float(one - other - gap))
        for hertz, other, one in zip(_BANDS, *levels, strict=True)
        if hertz < rate / 2.3 and max(one, other) > floor
    )


def _band_levels(samples: npt.NDArray[np.float64], rate: int) -> npt.NDArray[np.float64]:
    size = min(1 << 14, 1 << max(int(np.log2(max(len(samples), 64))), 6))
    count = max(len(samples) // size, 1)
    padded = np.pad(samples, (0, max(count * size - len(samples), 0)))[: count * size].reshape(count, size)
    power = (np.abs(np.fft.rfft(padded * np.hanning(size), axis=1)) ** 2).mean(axis=0)
    hertz = np.fft.rfftfreq(size, 1 / rate)
    out = []
    for middle in _BANDS:
        inside = (hertz >= middle * 2 ** (-1 / 6)) & (hertz < middle * 2 ** (1 / 6))
        out.append(10 * np.log10(max(float(power[inside].sum()) if inside.any() else 0.0, 1e-12)))
    return np.array(out)
