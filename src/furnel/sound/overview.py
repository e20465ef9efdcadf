"""The shape of a sound at every scale: lowest and highest samples over spans that grow fourfold, made in one reading."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from furnel.sound.clip import Clip, Samples, highest, lowest
from furnel.sound.files import SoundStream

BASE = 64
_GROWTH = 4
_EXACT = 4 * BASE


@dataclass(frozen=True, slots=True, eq=False)
class Overview:
    """Levels of (2, columns) float32: lowest and highest of all channels, over 64 frames, 256, 1024, …"""

    frames: int
    rate: int
    levels: tuple[Samples, ...]

    def columns(self, start: float, end: float, count: int, samples: Samples | None = None) -> Samples:
        """Lowest and highest in each of `count` equal spans between two frames, (2, count).

        `samples` (frames, channels), where they are at hand, serve spans too short for the first level.
        """
        edges = np.linspace(start, end, count + 1)
        per = max((end - start) / max(count, 1), 1e-9)
        level, span = 0, BASE
        while level + 1 < len(self.levels) and span * _GROWTH * 2 <= per:
            level, span = level + 1, span * _GROWTH
        if samples is not None and per < 2 * BASE:
            first, last = min(max(int(start), 0), len(samples) - 1), min(int(end) + 2, len(samples))
            part = samples[first : max(last, first + 1)]
            return _reduced(lowest(part), highest(part), edges - first, 1)
        return _reduced(self.levels[level][0], self.levels[level][1], edges, span)


def overview_of(clip: Clip) -> Overview:
    """The overview of a clip in memory."""
    return _overview([clip.samples], clip.rate)


def overview_of_file(stream: SoundStream) -> Overview:
    """The overview of a file that is read once, piece by piece."""
    return _overview(stream.pieces(), stream.info.rate)


def _overview(pieces: Iterable[Samples], rate: int) -> Overview:
    rows: list[Samples] = []
    left: Samples | None = None
    frames = 0
    for piece in pieces:
        frames += len(piece)
        joined = np.concatenate([left, piece]) if left is not None and len(left) else piece
        whole = len(joined) // BASE * BASE
        rows.append(_extremes(joined[:whole], BASE))
        left = np.array(joined[whole:])
    if left is not None and len(left):
        rows.append(_extremes(left, len(left)))
    level = np.concatenate(rows, axis=1) if rows else np.zeros((2, 1), np.float32)
    levels = [level]
    while levels[-1].shape[1] > _EXACT:
        last = levels[-1]
        over = -last.shape[1] % _GROWTH
        levels.append(
            _grouped(np.concatenate([last, np.repeat(last[:, -1:], over, axis=1)], axis=1), _GROWTH)
        )
    return Overview(frames, rate, tuple(levels))


def _extremes(samples: Samples, span: int) -> Samples:
    """Lowest and highest of every whole `span` of frames, (2, spans)."""
    from furnel.sound.weighting import span_extremes

    out = np.empty((2, len(samples) // span), np.float32)
    span_extremes(np.require(samples, np.float32, ["W"]), span, out[0], out[1])
    return out


def _grouped(both: Samples, by: int) -> Samples:
    grouped = both.reshape(2, -1, by)
    return np.stack([grouped[0].min(axis=1), grouped[1].max(axis=1)])


def _reduced(low: Samples, high: Samples, edges: np.ndarray, span: int) -> Samples:
    """Columns from values of `span` frames each; outside of the sound they are zero."""
    count = len(edges) - 1
    first = np.floor(edges[:-1] / span).astype(np.int64)
    end = np.maximum(np.ceil(edges[1:] / span).astype(np.int64), first + 1)
    inside = (end > 0) & (first < len(low))
    out = np.zeros((2, count), np.float32)
    starts, ends = np.clip(first, 0, len(low) - 1), np.clip(end, 1, len(low))
    places = np.empty(2 * count, np.int64)
    places[::2], places[1::2] = starts, np.minimum(np.maximum(ends, starts + 1), len(low))
    padded_low, padded_high = np.append(low, low[-1]), np.append(high, high[-1])
    out[0] = np.minimum.reduceat(padded_low, places)[::2]
    out[1] = np.maximum.reduceat(padded_high, places)[::2]
    out[:, ~inside] = 0
    return out
