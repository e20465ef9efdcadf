"""Loudness after ITU-R BS.1770-4: K-weighting, 400 ms blocks, gates at -70 LUFS and 10 LU below the rest."""

from __future__ import annotations

import math

import numpy as np
import numpy.typing as npt

from furnel.parallel import over_rows

_ABSOLUTE_GATE = -70.0
_RELATIVE_GATE = -10.0
_CHANNEL_WEIGHTS = (1.0, 1.0, 1.0, 1.41, 1.41)  # left, right, centre, left and right surround

Floats = npt.NDArray[np.floating]


def integrated_loudness(samples: Floats, rate: int) -> float:
    """The loudness of a whole sound in LUFS. `samples` (frames, channels) float; minus infinity for silence.

    A sound shorter than the standard's 400 ms block is measured as one block of its own length.
    """
    energies = _block_energies(samples, rate)
    loudness = _to_lufs(energies)
    kept = energies[loudness > _ABSOLUTE_GATE]
    if kept.size == 0:
        return -math.inf
    relative = float(_to_lufs(kept.mean())) + _RELATIVE_GATE
    kept = energies[(loudness > _ABSOLUTE_GATE) & (loudness > relative)]
    return float(_to_lufs(kept.mean()))


def short_term_loudness(samples: Floats, rate: int, step_s: float = 0.1) -> npt.NDArray[np.float64]:
    """Loudness over 3 s windows (shorter at the beginning), one value each `step_s`, in LUFS."""
    hop = max(int(rate * step_s), 1)
    sums = _hop_power(samples, rate, hop)[: len(samples) // hop]
    whole = np.concatenate([[0.0], np.cumsum(sums)])
    ends = np.arange(1, len(whole))
    starts = np.maximum(ends - max(round(3 * rate / hop), 1), 0)
    return _to_lufs((whole[ends] - whole[starts]) / ((ends - starts) * hop))


def _block_energies(samples: Floats, rate: int) -> npt.NDArray[np.float64]:
    """Mean power of 400 ms blocks, one each 100 ms."""
    hop = max(round(rate / 10), 1)
    sums = _hop_power(samples, rate, hop)
    if len(samples) < 4 * hop:
        return np.array([sums.sum() / len(samples)]) if len(samples) else np.zeros(0)
    whole = sums[: len(samples) // hop]
    return np.asarray(np.convolve(whole, np.ones(4), "valid") / (4 * hop))


def _hop_power(samples: Floats, rate: int, hop: int) -> npt.NDArray[np.float64]:
    """The K-weighted power of all channels, summed over hops; the last one may be shorter."""
    from furnel.sound.weighting import add_power

    data = np.require(samples, np.float32, ["W"])
    sections = np.array([[*b, *a[1:]] for b, a in _k_weighting(rate)])
    count, channels = -(-len(data) // hop), data.shape[1]
    sums = np.zeros((channels, count))

    def channel_power(first: int, end: int) -> None:
        for channel in range(first, end):
            weight = _CHANNEL_WEIGHTS[channel] if channel < len(_CHANNEL_WEIGHTS) else 1.0
            add_power(data, channel, sections, hop, weight, sums[channel])

    over_rows(channel_power, channels, least=1)
    return np.asarray(sums.sum(axis=0))


def _k_weighting(rate: int) -> list[tuple[list[float], list[float]]]:
    """The standard's two filters (its tables 1 and 2 at 48 kHz), as the analogue prototypes that give them at any rate."""
    k = math.tan(math.pi * 1681.974450955533 / rate)
    q, gain = 0.7071752369554196, 10 ** (3.999843853973347 / 20)
    boost = gain**0.4996667741545416
    a0 = 1 + k / q + k * k
    shelf = (
        [(gain + boost * k / q + k * k) / a0, 2 * (k * k - gain) / a0, (gain - boost * k / q + k * k) / a0],
        [1.0, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0],
    )
    k = math.tan(math.pi * 38.13547087602444 / rate)
    q = 0.5003270373238773
    a0 = 1 + k / q + k * k
    high_pass = ([1.0, -2.0, 1.0], [1.0, 2 * (k * k - 1) / a0, (1 - k / q + k * k) / a0])
    return [shelf, high_pass]


def _to_lufs(energy: npt.ArrayLike) -> npt.NDArray[np.float64]:
    return np.asarray(-0.691 + 10 * np.log10(np.maximum(energy, 1e-20)))
