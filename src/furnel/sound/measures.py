"""Everything that is measured of a sound, in one reading where that can be."""

from __future__ import annotations

import math
from dataclasses import dataclass

import numpy as np

from furnel.progress import QUIET, Progress, check
from furnel.sound.beats import Rhythm, key_of, rhythm_of
from furnel.sound.clip import Clip, Samples, highest
from furnel.sound.files import SoundStream
from furnel.sound.loops import seam_click
from furnel.sound.loudness import LoudnessMeter
from furnel.sound.peaks import true_peak
from furnel.sound.shaping import HOPS_S, hop_levels, sounding_hops

_OVERLAP = 16


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


@dataclass(frozen=True, slots=True)
class Musical:
    """What is heard in music: its rhythm, a hint of its key, and how hard its loop's seam is (1: as the sound itself)."""

    rhythm: Rhythm | None
    key: str
    seam: float


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


def music_of(clip: Clip) -> Musical:
    """What is heard in a tune."""
    start, end = clip.loop or (0, clip.frames)
    return Musical(rhythm_of(clip), key_of(clip), seam_click(clip, start, end))


class _Measuring:
    def __init__(self, rate: int, channels: int) -> None:
        self._rate, self._channels = rate, channels
        self._meter = LoudnessMeter(rate, channels)
        self._sums, self._products = np.zeros(channels), np.zeros(3)
        self._peak = self._true = 0.0
        self._frames = self._clipped = self._run = 0
        self._hop = max(rate // HOPS_S, 1)
        self._levels: list[Samples] = []
        self._rest = np.zeros((0, channels), np.float32)
        self._tail = np.zeros((0, channels), np.float32)

    def feed(self, piece: np.ndarray) -> None:
        self._meter.feed(piece)
        if not len(piece):
            return
        self._sums += piece.sum(axis=0, dtype=np.float64)
        left, right = piece[:, 0], piece[:, min(1, self._channels - 1)]
        self._products += [float(np.dot(left, right)), float(np.dot(left, left)), float(np.dot(right, right))]
        high = highest(np.abs(piece))
        self._peak = max(self._peak, float(high.max()))
        joined = np.concatenate([self._tail, piece]) if len(self._tail) else piece
        self._true = max(self._true, true_peak(joined))
        self._tail = np.array(piece[-_OVERLAP:])
        joined = np.concatenate([self._rest, piece])
        whole = len(joined) // self._hop * self._hop
        self._levels.append(hop_levels(joined[:whole], self._hop))
        self._rest = np.array(joined[whole:])
        self._count_clipped(high >= 0.9999)
        self._frames += len(piece)

    def _count_clipped(self, full: np.ndarray) -> None:
        """Frames in runs of at least three at full scale; a run may go on from the last piece."""
        if not full.any():
            self._run = 0
            return
        edges = np.flatnonzero(np.diff(np.concatenate([[False], full, [False]])))
        for start, end in zip(edges[::2].tolist(), edges[1::2].tolist(), strict=True):
            before = self._run if start == 0 else 0
            run = before + end - start
            self._clipped += (run if run >= 3 else 0) - (before if before >= 3 else 0)
            self._run = run if end == len(full) else 0
        if not full[-1]:
            self._run = 0

    def _silence(self) -> tuple[int, int]:
        """The frames of silence at both ends; all of them at the front when there is nothing else."""
        rest = [hop_levels(self._rest, len(self._rest))] if len(self._rest) else []
        first, end = sounding_hops(np.concatenate([*self._levels, *rest])) if self._frames else (0, 0)
        if first == end:
            return self._frames, 0
        return first * self._hop, max(self._frames - end * self._hop, 0)

    def done(self) -> Measures:
        """What was measured."""
        meter, frames = self._meter, max(self._frames, 1)
        short, moments = meter.short_term(), meter.momentary()
        both, left, right = self._products
        lead, tail = self._silence()
        silent = lead >= self._frames
        return Measures(
            meter.integrated(),
            float(short.max()) if len(short) and not silent else -math.inf,
            float(moments.max()) if len(moments) and not silent else -math.inf,
            meter.loudness_range(),
            self._peak,
            self._true,
            lead / self._rate,
            tail / self._rate,
            float(np.abs(self._sums / frames).max()),
            self._clipped,
            float(np.clip(both / math.sqrt(left * right), -1, 1)) if left > 0 and right > 0 else 1.0,
        )
