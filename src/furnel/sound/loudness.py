"""Loudness after ITU-R BS.1770-4, with EBU Tech 3341 (momentary, short-term) and Tech 3342 (loudness range).

K-weighting, 400 ms blocks, gates at -70 LUFS and 10 LU below the rest.
"""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from furnel.parallel import over_rows
from furnel.sound.layout import loudness_weights

_ABSOLUTE_GATE = -70.0
_RELATIVE_GATE, _RANGE_GATE = -10.0, -20.0

Floats = npt.NDArray[np.floating]
Curve = npt.NDArray[np.float64]


class LoudnessMeter:
    """Measures a sound that is fed in pieces; it holds ten numbers a second, not the samples."""

    def __init__(self, rate: int, channels: int) -> None:
        self._sections = np.array([[*b, *a[1:]] for b, a in _k_weighting(rate)])
        self._state = np.zeros((channels, 4))
        self._hop = max(round(rate / 10), 1)
        self._parts: list[Curve] = []
        self._left = np.zeros((0, channels), np.float32)
        self._frames = 0

    def feed(self, samples: Floats) -> None:
        """Take the next (frames, channels)."""
        data = np.require(samples, np.float32)
        self._frames += len(data)
        if len(self._left):
            data = np.concatenate([self._left, data])
        whole = len(data) // self._hop * self._hop
        if whole:
            self._parts.append(self._power(data[:whole]))
        self._left = np.array(data[whole:])

    def integrated(self) -> float:
        """The loudness of everything so far in LUFS; minus infinity for silence.

        A sound shorter than the standard's 400 ms block is measured as one block of its own length.
        """
        energies = self._blocks(4)
        loudness = to_lufs(energies)
        kept = energies[loudness > _ABSOLUTE_GATE]
        if kept.size == 0:
            return -math.inf
        relative = float(to_lufs(kept.mean())) + _RELATIVE_GATE
        return float(to_lufs(energies[(loudness > _ABSOLUTE_GATE) & (loudness > relative)].mean()))

    def momentary(self) -> Curve:
        """Loudness over 400 ms in LUFS, one value each 100 ms."""
        return to_lufs(self._blocks(4))

    def short_term(self, from_start: bool = False) -> Curve:
        """Loudness over 3 s in LUFS, one value each 100 ms; with `from_start` over what there is before, too."""
        if not from_start:
            return to_lufs(self._blocks(30))
        whole = np.concatenate([[0.0], np.cumsum(self._sums())])
        ends = np.arange(1, len(whole))
        starts = np.maximum(ends - 30, 0)
        return to_lufs((whole[ends] - whole[starts]) / ((ends - starts) * self._hop))

    def loudness_range(self) -> float:
        """How far soft and loud parts are apart in LU: the 10th to the 95th percentile of short-term loudness."""
        energies = self._blocks(30)
        loudness = to_lufs(energies)
        kept = loudness > _ABSOLUTE_GATE
        if len(energies) < 2 or not kept.any():
            return 0.0
        relative = float(to_lufs(energies[kept].mean())) + _RANGE_GATE
        low, high = np.percentile(loudness[kept & (loudness > relative)], (10, 95))
        return float(high - low)

    def _blocks(self, hops: int) -> Curve:
        """Mean power of blocks of so many hops; of everything when that is shorter."""
        sums = self._sums()
        if len(sums) < hops:
            if not self._frames:
                return np.zeros(0)
            state = self._state.copy()
            rest = float(self._power(self._left).sum()) if len(self._left) else 0.0
            self._state = state
            return np.array([(sums.sum() + rest) / self._frames])
        whole = np.concatenate([[0.0], np.cumsum(sums)])
        return np.asarray((whole[hops:] - whole[:-hops]) / (hops * self._hop))

    def _sums(self) -> Curve:
        """The power of every whole 100 ms."""
        return np.concatenate(self._parts) if self._parts else np.zeros(0)

    def _power(self, data: npt.NDArray[np.float32]) -> Curve:
        return _hop_power(data, self._sections, self._hop, self._state)


def integrated_loudness(samples: Floats, rate: int) -> float:
    """The loudness of a whole sound in LUFS. `samples` (frames, channels) float; minus infinity for silence."""
    meter = LoudnessMeter(rate, samples.shape[1])
    meter.feed(samples)
    return meter.integrated()


def to_lufs(energy: npt.ArrayLike) -> Curve:
    """Mean weighted power as LUFS."""
    return np.asarray(-0.691 + 10 * np.log10(np.maximum(energy, 1e-20)))


def _hop_power(data: npt.NDArray[np.float32], sections: Curve, hop: int, state: Curve) -> Curve:
    """The K-weighted power of all channels, summed over hops; the last one may be shorter. `state` (channels, 4) goes on."""
    from furnel.sound.weighting import add_power

    count, channels = -(-len(data) // hop), data.shape[1]
    sums = np.zeros((channels, count))
    data, weights = np.require(data, np.float32, ["W"]), loudness_weights(channels)

    def channel_power(first: int, end: int) -> None:
        for channel in range(first, end):
            add_power(data, channel, sections, hop, weights[channel], state[channel], sums[channel])

    over_rows(channel_power, channels, least=1)
    return np.asarray(sums.sum(axis=0))


def _k_weighting(rate: int) -> list[tuple[list[float], list[float]]]:
    """The standard's two filters (its tables 1 and 2 at 48 kHz), as the analogue prototypes that give them at any rate."""
    k = math.tan(math.pi * min(1681.974450955533 / rate, 0.49))
    q, gain = 0.7071752369554196, 10 ** (3.999843853973347 / 20)
    boost = gain**0.4996667741545416
    a0 = 1 + k / q + k * k
    shelf = (
        [(gain + boost * k / q + k * k) / a0, 2 * (k * k - gain) / a0, (gain - boost * k / q + k * k) / a0],
        [1.0, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0],
    )
    k = math.tan(math.pi * min(38.13547087602444 / rate, 0.49))
    q = 0.5003270373238773
    a0 = 1 + k / q + k * k
    high_pass = ([1.0, -2.0, 1.0], [1.0, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0])
    return [shelf, high_pass]
