"""A sound in memory, and the changes that keep it a sound of the same kind."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.sound.layout import mixing

Samples = npt.NDArray[np.float32]
FillWith = Literal["silence", "repeats"]
MixLaw = Literal["mean", "power", "left", "right"]
FadeCurve = Literal["straight", "even power", "slow start", "fast start"]
SeamLaw = Literal["fitting", "power", "straight"]


@dataclass(frozen=True, slots=True, eq=False)
class Clip:
    """`samples` (frames, channels) float32, nominally -1 to 1, at `rate` frames a second.

    `loop` is the span (first frame, end frame) that repeats, or None.
    """

    samples: Samples
    rate: int
    loop: tuple[int, int] | None = None

    def __post_init__(self) -> None:
        if self.samples.ndim != 2 or self.samples.shape[1] < 1 or self.samples.dtype != np.float32:
            raise FurnelError(
                "A clip",
                why=f"samples are {self.samples.dtype} {self.samples.shape}, not (frames, channels) float32",
            )
        if not 1 <= self.rate <= 768_000:
            raise FurnelError("A clip", why=f"{self.rate} Hz is no sample rate")
        if self.loop is not None and not 0 <= self.loop[0] < self.loop[1] <= len(self.samples):
            raise FurnelError(
                "A clip", why=f"{len(self.samples)} frames cannot repeat {self.loop[0]} to {self.loop[1]}"
            )

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


def highest(samples: Samples) -> Samples:
    """The highest channel of every frame, (frames,)."""
    out = samples[:, 0]
    for channel in range(1, samples.shape[1]):  # much quicker than reducing an axis of two
        out = np.maximum(out, samples[:, channel])
    return out


def lowest(samples: Samples) -> Samples:
    """The lowest channel of every frame, (frames,)."""
    return -highest(-samples)


def mono_of(samples: Samples) -> Samples:
    """The mean of all channels, (frames,)."""
    out = samples[:, 0].copy()
    for channel in range(1, samples.shape[1]):
        out += samples[:, channel]
    return out / np.float32(samples.shape[1])


def fade_gains(frames: int, curve: str) -> Samples:
    """The gains of a fade-in, (frames,), from 0 up to 1."""
    x = np.linspace(0, 1, max(frames, 0), dtype=np.float32)
    if curve == "even power":
        return np.asarray(np.sin(x * np.pi / 2), np.float32)
    if curve == "slow start":
        return x**2
    return np.asarray(1 - (1 - x) ** 2, np.float32) if curve == "fast start" else x


def crossfaded(leaving: Samples, coming: Samples, law: SeamLaw = "fitting") -> Samples:
    """Two stretches of the same length, one fading into the other."""
    turn = np.linspace(0, np.pi / 2, len(leaving), dtype=np.float32)[:, None]
    out_gain, in_gain = np.cos(turn), np.sin(turn)
    if law == "straight":
        out_gain, in_gain = out_gain**2, in_gain**2
    elif law == "fitting":
        power = float(np.sqrt((leaving**2).sum() * (coming**2).sum()))
        alike = max(float((leaving * coming).sum()) / power, 0.0) if power > 1e-12 else 0.0
        level = np.sqrt(1 + 2 * alike * out_gain * in_gain)
        out_gain, in_gain = out_gain / level, in_gain / level
    mixed: Samples = (leaving * out_gain + coming * in_gain).astype(np.float32)
    return mixed


def resampled(clip: Clip, rate: int) -> Clip:
    """The clip at another rate, through soxr at its high quality."""
    if rate == clip.rate:
        return clip
    import soxr

    samples = np.asarray(soxr.resample(clip.samples, clip.rate, rate, quality="HQ"), np.float32)
    loop = None
    if clip.loop is not None and len(samples):
        start, end = (min(round(place * rate / clip.rate), len(samples)) for place in clip.loop)
        loop = (start, end) if start < end else None
    return Clip(samples, rate, loop)


def with_channels(clip: Clip, channels: int, law: MixLaw = "mean") -> Clip:
    """Mono is the mix of all channels, that at equal power, or the first or the second alone.

    Channels go where they belong (`furnel.sound.layout`): centre and surround into left and right, low frequencies nowhere;
    loudspeakers that nothing is for stay silent. Beyond eight channels the last one is repeated, or left out.
    """
    if channels == clip.channels:
        return clip
    if channels == 1:
        if law in ("left", "right"):
            mixed = clip.samples[:, [0 if law == "left" else min(1, clip.channels - 1)]]
        else:
            matrix = mixing(clip.channels, 1)
            mixed = (
                mono_of(clip.samples)[:, None]
                if matrix is None or clip.channels == 2
                else clip.samples @ matrix
            )
            if law == "power":
                mixed = mixed * np.float32(np.sqrt(clip.channels))
        return Clip(np.ascontiguousarray(mixed), clip.rate, clip.loop)
    matrix = mixing(clip.channels, channels)
    if matrix is not None:
        return Clip(np.ascontiguousarray(clip.samples @ matrix), clip.rate, clip.loop)
    picks = np.minimum(np.arange(channels), clip.channels - 1)
    return Clip(np.ascontiguousarray(clip.samples[:, picks]), clip.rate, clip.loop)


def part_of(clip: Clip, start: int, end: int) -> Clip:
    """The frames from `start` up to `end`; a loop that lies in them stays. Raises FurnelError when nothing is left."""
    start, end = max(start, 0), min(end, clip.frames)
    if start >= end:
        raise FurnelError(
            "Taking a part of a sound", why=f"there is nothing from frame {start} to {end}",
            remedy=f"It has {clip.frames} frames",
        )  # fmt: skip
    loop = None
    if clip.loop is not None and start <= clip.loop[0] and clip.loop[1] <= end:
        loop = (clip.loop[0] - start, clip.loop[1] - start)
    return Clip(np.ascontiguousarray(clip.samples[start:end]), clip.rate, loop)


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
        samples[-fade:] *= fade_gains(fade, "even power")[::-1, None]
    loop = clip.loop if clip.loop is not None and clip.loop[1] <= frames else None
    return Clip(np.ascontiguousarray(samples), clip.rate, loop)


def waveform(clip: Clip, columns: int) -> tuple[Samples, Samples]:
    """Lowest and highest sample of all channels in each of `columns` equal spans: two (columns,) arrays."""
    if clip.frames == 0 or columns < 1:
        return np.zeros(max(columns, 0), np.float32), np.zeros(max(columns, 0), np.float32)
    starts = np.arange(columns, dtype=np.int64) * clip.frames // columns
    low = np.minimum.reduceat(lowest(clip.samples), starts)
    high = np.maximum.reduceat(highest(clip.samples), starts)
    return low.astype(np.float32), high.astype(np.float32)


def _repeated(samples: Samples, frames: int, overlap: int) -> Samples:
    """At least `frames` of `samples` again and again, the end of each fading into the beginning of the next."""
    middle = len(samples) - overlap
    seam = crossfaded(samples[middle:], samples[:overlap], "power")
    turn = np.concatenate([seam, samples[overlap:middle]])
    copies = max(-(-(frames - overlap) // middle), 1)
    return np.concatenate([samples[:middle], np.tile(turn, (copies - 1, 1)), samples[middle:]])
