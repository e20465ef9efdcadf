"""True peaks (ITU-R BS.1770-4, annex 2) and a look-ahead limiter that holds them below a ceiling."""

from __future__ import annotations

import numpy as np

from furnel.parallel import over_rows
from furnel.sound.clip import Clip, Samples

_A = (
    0.0017089843750, 0.0109863281250, -0.0196533203125, 0.0332031250000, -0.0594482421875, 0.1373291015625,
    0.9721679687500, -0.1022949218750, 0.0476074218750, -0.0266113281250, 0.0148925781250, -0.0083007812500,
)  # fmt: skip
_B = (
    -0.0291748046875, 0.0292968750000, -0.0517578125000, 0.0891113281250, -0.1665039062500, 0.4650878906250,
    0.7797851562500, -0.2003173828125, 0.1015625000000, -0.0582275390625, 0.0330810546875, -0.0189208984375,
)  # fmt: skip
_PHASES = np.array([_A, _B, _B[::-1], _A[::-1]], np.float32)  # the standard's filter, four times over-sampled
_LOOK_AHEAD_S, _RELEASE_S = 0.004, 0.06


TAPS = len(_A)


def true_peak(samples: Samples, least: float = 0.0, begin: int = 0, end: int | None = None) -> float:
    """The largest value between the samples too, without sign, at four times the rate; `least` when none is larger.

    `samples` are (frames, channels), with silence around them. Of a piece of a longer sound, only the places from `begin` up
    to `end` are looked at; each looks back over `TAPS` samples.
    """
    from furnel.sound import weighting

    data = np.require(samples, np.float32, ["W"])
    found = np.full(data.shape[1], least, np.float32)

    last = len(data) + TAPS - 1 if end is None else end

    def channel_peak(first: int, stop: int) -> None:
        for channel in range(first, stop):
            found[channel] = weighting.true_peak(data, channel, _PHASES, np.float32(least), begin, last)

    if len(data):
        over_rows(channel_peak, data.shape[1], least=1)
    return float(found.max(initial=least))


def with_gain(clip: Clip, gain_db: float, ceiling_db: float = -0.3) -> tuple[Clip, float]:
    """The clip louder or quieter, its true peaks held below `ceiling_db` (dBTP) by a look-ahead limiter.

    It turns down 4 ms before a peak and comes back within about 60 ms. Returns the clip and how far the limiter had to
    turn it down at most, in dB (0 when it did nothing).
    """
    from furnel.sound import weighting

    samples = clip.samples * np.float32(10 ** (gain_db / 20))
    ceiling = np.float32(10 ** (ceiling_db / 20))
    if clip.frames == 0 or true_peak(samples) <= ceiling:
        return Clip(samples, clip.rate, clip.loop), 0.0
    from scipy.ndimage import minimum_filter1d, uniform_filter1d

    reach = max(int(clip.rate * _LOOK_AHEAD_S), 1)
    lowest = 1.0
    for aim in (ceiling, ceiling * np.float32(0.995), ceiling * np.float32(0.98)):
        gains = np.empty(len(samples), np.float32)
        weighting.needed_gain(samples, _PHASES, aim, gains)
        held = minimum_filter1d(gains, 2 * reach + 1, mode="nearest")
        weighting.release(held, np.float32(1 - np.exp(-1 / (clip.rate * _RELEASE_S))))
        gain = uniform_filter1d(
            held, 2 * reach + 1, mode="nearest"
        )  # the mean of the minima never passes a peak
        limited = samples * gain[:, None]
        lowest = float(gain.min())
        if true_peak(limited) <= ceiling:
            break
    else:  # a gain that moves bends the wave between the samples a little: take that off everywhere
        limited *= ceiling / np.float32(true_peak(limited))
    return Clip(np.clip(limited, -ceiling, ceiling), clip.rate, clip.loop), float(
        -20 * np.log10(max(lowest, 1e-9))
    )


def to_decibels(value: float) -> float:
    """An amplitude in dB below full scale; -120 for silence."""
    return float(20 * np.log10(max(value, 1e-6)))
