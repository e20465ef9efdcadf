"""A sound in memory, and the changes that keep it a sound of the same kind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError

Samples = npt.NDArray[np.float32]
FillWith = Literal["silence", "repeats"]


@dataclass(frozen=True, slots=True, eq=False)
class Clip:
    """`samples` (frames, channels) float32, nominally -1 to 1, at `rate` frames a second."""

    samples: Samples
    rate: int

    def __post_init__(self) -> None:
        if self.samples.ndim != 2 or self.samples.shape[1] < 1 or self.samples.dtype != np.float32:
            raise FurnelError(
                "A clip",
                why=f"samples are {self.samples.dtype} {self.samples.shape}, not (frames, channels) float32",
            )
        if not 1 <= self.rate <= 768_000:
            raise FurnelError("A clip", why=f"{self.rate} Hz is no sample rate")

    @property
    def frames(self) -> int:
        return int(self.samples.shape[0])

    @property
    def channels(self) -> int:
        return int(self.samples.shape[1])

    @property
    def length_s(self) -> float:
        return self.frames / self.rate

    @property
    def peak(self) -> float:
        """The largest sample, without sign."""
        return float(np.abs(self.samples).max()) if self.frames else 0.0


def resampled(clip: Clip, rate: int) -> Clip:
    """The clip at another rate, through soxr at its high quality."""
    if rate == clip.rate:
        return clip
    import soxr

    return Clip(np.asarray(soxr.resample(clip.samples, clip.rate, rate, quality="HQ"), np.float32), rate)


def with_channels(clip: Clip, channels: int) -> Clip:
    """Mono is the mean of all channels; more channels than there are repeat the last one."""
    if channels == clip.channels:
        return clip
    if channels == 1:
        return Clip(clip.samples.mean(axis=1, keepdims=True, dtype=np.float32), clip.rate)
    picks = np.minimum(np.arange(channels), clip.channels - 1)
    return Clip(np.ascontiguousarray(clip.samples[:, picks]), clip.rate)


def with_length(clip: Clip, frames: int, fill: FillWith, fade_s: float = 0.0) -> Clip:
    """The clip cut to exactly `frames`, or filled up with silence or repeats of itself.

    Repeats are cross-faded over 20 ms at equal power. What is cut off ends in a fade of `fade_s` seconds.
    """
    if frames < 1 or frames > 1 << 31:
        raise FurnelError("Changing a sound's length", why=f"{frames} frames is no length")
    samples = clip.samples
    if clip.frames < frames:
        if fill == "silence" or clip.frames == 0:
            samples = np.concatenate([samples, np.zeros((frames - clip.frames, clip.channels), np.float32)])
        else:
            samples = _repeated(samples, frames, min(clip.rate // 50, clip.frames // 2))
    samples = samples[:frames]
    fade = min(int(fade_s * clip.rate), frames)
    if clip.frames > frames and fade > 1:
        samples = samples.copy()
        samples[-fade:] *= np.cos(np.linspace(0, np.pi / 2, fade, dtype=np.float32))[:, None]
    return Clip(np.ascontiguousarray(samples), clip.rate)


def with_gain(clip: Clip, gain_db: float, ceiling_db: float = -0.3) -> tuple[Clip, float]:
    """The clip louder or quieter, held below `ceiling_db` by a look-ahead limiter.

    Returns the clip and how far the limiter had to turn it down at most, in dB (0 when it did nothing).
    """
    samples = clip.samples * np.float32(10 ** (gain_db / 20))
    ceiling = np.float32(10 ** (ceiling_db / 20))
    if clip.frames == 0 or np.abs(samples).max() <= ceiling:
        return Clip(samples, clip.rate), 0.0
    from scipy.ndimage import minimum_filter1d, uniform_filter1d

    wanted = np.minimum(1.0, ceiling / np.maximum(np.abs(samples).max(axis=1), 1e-9))
    reach = max(clip.rate // 200, 1)  # 5 ms to either side: the mean of the minima never passes a peak
    gain = uniform_filter1d(
        minimum_filter1d(wanted, 2 * reach + 1, mode="nearest"), 2 * reach + 1, mode="nearest"
    )
    limited = np.clip(samples * gain[:, None], -ceiling, ceiling).astype(np.float32)
    return Clip(limited, clip.rate), float(-20 * np.log10(gain.min()))


def waveform(clip: Clip, columns: int) -> tuple[Samples, Samples]:
    """Lowest and highest sample of all channels in each of `columns` equal spans: two (columns,) arrays."""
    if clip.frames == 0 or columns < 1:
        return np.zeros(max(columns, 0), np.float32), np.zeros(max(columns, 0), np.float32)
    starts = np.arange(columns, dtype=np.int64) * clip.frames // columns
    low = np.minimum.reduceat(clip.samples.min(axis=1), starts)
    high = np.maximum.reduceat(clip.samples.max(axis=1), starts)
    return low.astype(np.float32), high.astype(np.float32)


def _repeated(samples: Samples, frames: int, overlap: int) -> Samples:
    period = len(samples) - overlap
    copies = -(-(frames - overlap) // period) if period else 1
    out = np.zeros((copies * period + overlap, samples.shape[1]), np.float32)
    turn = np.linspace(0, np.pi / 2, overlap, dtype=np.float32)[:, None]
    for copy in range(copies):
        part = samples.copy()
        if copy and overlap:
            part[:overlap] *= np.sin(turn)
        if copy < copies - 1 and overlap:
            part[-overlap:] *= np.cos(turn)
        out[copy * period : copy * period + len(samples)] += part
    return out
