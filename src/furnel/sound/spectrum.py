"""Spectrograms: how strong every pitch is over time."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.sound.clip import Clip, mono_of

LOWEST_HZ = 40.0
_RANGE_DB = 84.0


def spectrogram(clip: Clip, start: int, end: int, columns: int, rows: int) -> npt.NDArray[np.float32]:
    """Strengths 0 to 1 of the frames from `start` to `end`, (rows, columns): the highest pitch in the first row.

    Rows are even in pitch from 40 Hz to half the rate; 0 is 84 dB below full scale.
    """
    size = 1 << int(np.clip(np.ceil(np.log2(max(clip.rate * 0.04, 256))), 8, 13))
    mono = mono_of(clip.samples)
    padded = np.concatenate([np.zeros(size // 2, np.float32), mono, np.zeros(size, np.float32)])
    places = np.linspace(start, max(end, start + 1), columns, endpoint=False).astype(np.int64)
    inside = (places >= 0) & (places < clip.frames)
    window = np.hanning(size).astype(np.float32)
    hertz = LOWEST_HZ * (clip.rate / 2 / LOWEST_HZ) ** np.linspace(1, 0, rows)
    bins = np.clip(hertz * size / clip.rate, 0, size // 2 - 1e-6)
    below, part = bins.astype(np.int64), (bins % 1).astype(np.float32)[:, None]
    out = np.zeros((rows, columns), np.float32)
    for at in range(0, columns, 256):
        chosen = np.clip(places[at : at + 256], 0, max(clip.frames - 1, 0))
        frames = padded[chosen[:, None] + np.arange(size)] * window
        power = np.abs(np.fft.rfft(frames, axis=1)).astype(np.float32).T * (4 / size)
        level = 20 * np.log10(np.maximum(power[below] * (1 - part) + power[below + 1] * part, 1e-6))
        out[:, at : at + 256] = np.clip(1 + level / _RANGE_DB, 0, 1)
    out[:, ~inside] = 0
    return out
