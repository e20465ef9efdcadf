"""Everything that is measured of a sound, in one reading where that can be."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from furnel.progress import QUIET, Progress, check
from furnel.sound.clip import Clip, Samples
from furnel.sound.files import SoundStream
from furnel.sound.loudness import LoudnessMeter
from furnel.sound.peaks import TAPS, true_peak
from furnel.sound.shaping import HOPS_S, sounding_hops


@dataclass(frozen=True, slots=True)
class Measures:
    """Levels of a sound: loudness in LUFS (minus infinity for silence) and its range in LU, peaks as amplitudes.

    `lead_s` and `tail_s` are the silence at both ends (`sounding_span`), `dc` the largest mean of a channel, `clipped` how
    many frames lie in runs of three or more at full scale, `correlation` -1 to 1 between the first two channels (1: mono).
    """

    loudness: float
    loudest_short: float
    loudest_moment: float
    loudness_range: float
    peak: float
    true_peak: float
    lead_s: float
    tail_s: float
    dc: float
    clipped: int
    correlation: float


def measures_of(clip: Clip) -> Measures:
    """The measures of a clip in memory."""
    work = _Measuring(clip.rate, clip.channels)
    work.feed(clip.samples)
    return work.done()


def measures_of_file(stream: SoundStream, progress: Progress = QUIET) -> Measures:
    """The measures of a file that is read once, piece by piece."""
    return measures_and_head(stream, 0, progress)[0]


def measures_and_head(
    stream: SoundStream, frames: int, progress: Progress = QUIET
) -> tuple[Measures, Clip | None]:
    """The measures of a file, and about its first `frames`, in one reading."""
    work, done = _Measuring(stream.info.rate, stream.info.channels), 0
    head: list[Samples] = []
    for piece in stream.pieces():
        check(progress, "Measuring a sound")
        work.feed(piece)
        if done < frames:
            head.append(piece)
        done += len(piece)
        progress.report(done / max(stream.info.frames, 1), "Measuring a sound")
    return work.done(), Clip(np.concatenate(head), stream.info.rate) if head else None


class _Measuring:
    def __init__(self, rate: int, channels: int) -> None:
        self._rate, self._channels = rate, channels
        self._meter = LoudnessMeter(rate, channels)
        self._totals, self._runs = np.zeros(4 + channels), np.zeros(2, np.int64)
        self._true = 0.0
        self._frames = 0
        self._hop = max(rate // HOPS_S, 1)
        self._levels: list[Samples] = []
        self._rest = np.zeros((0, channels), np.float32)
        self._tail = np.zeros((0, channels), np.float32)

    def feed(self, piece: Samples) -> None:
        """Take the next frames."""
        from furnel.sound.weighting import add_levels

        if not len(piece):
            return
        self._meter.feed(piece)
        whole = np.concatenate([self._rest, piece]) if len(self._rest) else piece
        count = len(whole) // self._hop
        levels = np.empty(count, np.float32)
        part = np.require(whole[: count * self._hop], np.float32, ["W"])
        add_levels(part, self._hop, self._totals, self._runs, levels)
        self._levels.append(levels)
        self._rest = np.array(whole[count * self._hop :])
        joined = np.concatenate([self._tail, piece]) if len(self._tail) else piece
        self._true = true_peak(joined, self._true, len(self._tail), len(joined))
        self._tail = np.array(joined[-(TAPS - 1) :])
        self._frames += len(piece)

    def _silence(self) -> tuple[int, int]:
        """The frames of silence at both ends; all of them at the front when there is nothing else."""
        first, end = sounding_hops(np.concatenate(self._levels)) if self._levels else (0, 0)
        if first == end:
            return self._frames, 0
        return first * self._hop, max(self._frames - end * self._hop, 0)

    def done(self) -> Measures:
        """What was measured."""
        from furnel.sound.weighting import add_levels

        meter, frames = self._meter, max(self._frames, 1)
        if len(self._rest):
            last = np.empty(1, np.float32)
            add_levels(self._rest, len(self._rest), self._totals, self._runs, last)
            self._levels.append(last)
            self._rest = self._rest[:0]
        self._true = true_peak(self._tail, self._true, len(self._tail))
        lead, tail = self._silence()
        silent = lead >= self._frames
        short, moments = meter.short_term(), meter.momentary()
        peak, both, left, right = self._totals[:4]
        return Measures(
            meter.integrated(),
            float(short.max()) if len(short) and not silent else -math.inf,
            float(moments.max()) if len(moments) and not silent else -math.inf,
            meter.loudness_range(),
            float(peak),
            self._true,
            lead / self._rate,
            tail / self._rate,
            float(np.abs(self._totals[4:] / frames).max()),
            int(self._runs[0]),
            float(np.clip(both / math.sqrt(left * right), -1, 1)) if left > 0 and right > 0 else 1.0,
        )
