"""Tempo, beats and key of music.

Onsets by spectral flux; tempo by autocorrelation with a preference for about 120 beats a minute, and beats by dynamic
programming (D. Ellis, "Beat Tracking by Dynamic Programming", 2007); a straight line through the beats gives the tempo
exactly where it does not change. Key by the profiles of C. Krumhansl and E. Kessler (1982).
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.sound.clip import Clip, mono_of, part_of
from furnel.sound.shaping import sounding_span

Floats = npt.NDArray[np.float64]

_STEPS_S = 100  # onset values a second
_MOST_S = 120.0
_TIGHT = 120.0
_BASS_HZ = 180.0
_MAJOR = np.array([6.35, 2.23, 3.48, 2.33, 4.38, 4.09, 2.52, 5.19, 2.39, 3.66, 2.29, 2.88])
_MINOR = np.array([6.33, 2.68, 3.52, 5.38, 2.60, 3.53, 2.54, 4.75, 3.98, 2.69, 3.34, 3.17])
_NAMES = ("C", "C sharp", "D", "E flat", "E", "F", "F sharp", "G", "A flat", "A", "B flat", "B")


@dataclass(frozen=True, slots=True)
class Rhythm:
    """A beat that goes through: `tempo` in beats a minute, the time at which its first whole bar begins, its meter (beats to a
    bar).

    `steady` is 0 to 1: the share of the beats that lie within 30 ms of an even grid.
    """

    tempo: float
    first_s: float
    meter: int
    steady: float
    beats: tuple[float, ...]


def rhythm_of(clip: Clip) -> Rhythm | None:
    """The rhythm of the first two minutes; None for what is too short or has none."""
    if clip.length_s < 3.0:
        return None
    heard = part_of(clip, 0, int(_MOST_S * clip.rate))
    onsets = onset_strength(heard)
    if len(onsets) < 2 * _STEPS_S or onsets.std() < 1e-9:
        return None
    period = _period(onsets)
    beats = _track(onsets, period)
    if len(beats) < 5:
        return None
    times = beats / _STEPS_S
    tempo, first, steady = _grid(times)
    if steady < 0.3:
        return None
    start = sounding_span(heard)[0] / clip.rate - 0.05
    meter, first = _bars(onset_strength(heard, _BASS_HZ), tempo, first, start)
    return Rhythm(tempo, first, meter, steady, tuple(float(time) for time in times))


def onset_strength(clip: Clip, below_hz: float = 0.0) -> Floats:
    """How much new sound begins, a hundred values a second: the rise of log magnitudes over all frequencies, or those
    below one."""
    hop = clip.rate / _STEPS_S
    size = 1 << max(int(np.ceil(np.log2(clip.rate * 0.04))), 6)
    mono = mono_of(clip.samples)
    padded = np.concatenate([np.zeros(size // 2, np.float32), mono, np.zeros(size, np.float32)])
    count = int(clip.frames / hop)
    window = np.hanning(size).astype(np.float32)
    starts = (np.arange(count) * hop).astype(np.int64)
    out = np.zeros(count)
    last: npt.NDArray[np.float32] | None = None
    bins = max(int(below_hz * size / clip.rate), 2) if below_hz else size // 2 + 1
    for at in range(0, count, 512):
        frames = padded[starts[at : at + 512, None] + np.arange(size)] * window
        logs = np.log1p(30 * np.abs(np.fft.rfft(frames, axis=1)[:, :bins]).astype(np.float32))
        before = logs[:1] if last is None else last
        rise = np.diff(np.concatenate([before, logs]), axis=0)
        out[at : at + len(rise)] = np.maximum(rise, 0).mean(axis=1)
        last = logs[-1:]
    from scipy.ndimage import convolve1d, uniform_filter1d

    smooth = convolve1d(out, np.hanning(7) / np.hanning(7).sum(), mode="constant")
    around = uniform_filter1d(smooth, _STEPS_S, mode="constant")
    return np.asarray(np.maximum(smooth - around, 0))


def key_of(clip: Clip) -> str:
    """The likeliest key, like `D minor`; empty for what has no clear pitch. A hint: relative keys are easily mixed up."""
    clip = part_of(clip, 0, int(_MOST_S * clip.rate)) if clip.frames else clip
    size = 1 << 14
    if clip.frames < size:
        return ""
    mono = mono_of(clip.samples)
    starts = np.arange(0, len(mono) - size, size)[:400]
    frames = mono[starts[:, None] + np.arange(size)] * np.hanning(size).astype(np.float32)
    power = (
        np.sqrt(np.abs(np.fft.rfft(frames, axis=1)).mean(axis=0)) if len(starts) else np.zeros(size // 2 + 1)
    )
    hertz = np.fft.rfftfreq(size, 1 / clip.rate)
    kept = (hertz > 60) & (hertz < 2000)
    classes = np.round(12 * np.log2(hertz[kept] / 440) + 9).astype(int) % 12
    strength = np.bincount(classes, np.maximum(power[kept] - np.median(power[kept]), 0), 12)
    chroma = strength / np.maximum(np.bincount(classes, minlength=12), 1)
    if chroma.std() < 1e-9:
        return ""
    scores = {
        f"{_NAMES[tonic]} {mode}": float(np.corrcoef(np.roll(profile, tonic), chroma)[0, 1])
        for tonic in range(12)
        for mode, profile in (("major", _MAJOR), ("minor", _MINOR))
    }
    best = max(scores, key=lambda name: scores[name])
    return best if scores[best] > 0.5 else ""


def kin_of(key: str) -> frozenset[str]:
    """The keys that are easily taken for one: it, its relative, those a fifth away, the other mode on the same note.

    None for a text that is no key.
    """
    name, _, mode = key.strip().rpartition(" ")
    if name not in _NAMES or mode not in ("major", "minor"):
        return frozenset()
    tonic = _NAMES.index(name) + (3 if mode == "minor" else 0)
    majors = [(tonic + step) % 12 for step in (0, 5, 7)]
    other = f"{name} {'minor' if mode == 'major' else 'major'}"
    minors = {f"{_NAMES[(one - 3) % 12]} minor" for one in majors}
    return frozenset(f"{_NAMES[one]} major" for one in majors) | minors | {other}


def frames_of_bars(bars: int, meter: int, tempo: float, rate: int) -> int:
    """How many frames so many bars last, to the sample."""
    return round(bars * meter * 60 / tempo * rate)


def _period(onsets: Floats) -> float:
    """Steps from beat to beat."""
    size = 1 << int(np.ceil(np.log2(2 * len(onsets))))
    spectrum = np.fft.rfft(onsets - onsets.mean(), size)
    same = np.fft.irfft(np.abs(spectrum) ** 2, size)[: len(onsets)]
    lags = np.arange(25, min(151, len(same) // 2))  # 240 to 40 beats a minute
    multiples = same[lags] + 0.5 * same[np.minimum(2 * lags, len(same) - 1)]
    liked = np.exp(-0.5 * (np.log2(lags / 50.0) / 0.9) ** 2)
    best = int(np.argmax(multiples * liked))
    if 0 < best < len(lags) - 1:
        low, mid, high = multiples[best - 1 : best + 2]
        bend = low - 2 * mid + high
        return float(lags[best] + (0.5 * (low - high) / bend if bend < 0 else 0.0))
    return float(lags[best])


def _track(onsets: Floats, period: float) -> npt.NDArray[np.float64]:
    """Places of beats in steps: onsets that are strong and nearly a period apart."""
    strength = onsets / onsets.std()
    back = np.arange(-round(2 * period), -max(round(period / 2), 1) + 1)
    cost = -_TIGHT * np.log(-back / period) ** 2
    score, before = strength.copy(), np.full(len(strength), -1)
    for place in range(-int(back[0]), len(strength)):
        ways = score[place + back] + cost
        best = int(np.argmax(ways))
        score[place] += max(ways[best], 0.0)
        before[place] = place + back[best] if ways[best] > 0 else -1
    tail = max(len(score) - round(2 * period), 0)
    place = tail + int(np.argmax(score[tail:]))
    places: list[float] = []
    while place >= 0:
        shift = 0.0
        if 0 < place < len(onsets) - 1:
            low, mid, high = onsets[place - 1 : place + 2]
            bend = low - 2 * mid + high
            shift = float(np.clip(0.5 * (low - high) / bend, -0.5, 0.5)) if bend < 0 else 0.0
        places.append(place + shift)
        place = int(before[place])
    return np.array(places[::-1])


def _grid(times: Floats) -> tuple[float, float, float]:
    """Tempo, first beat and steadiness of the even grid that fits beats best."""
    numbers = np.concatenate(
        [[0], np.cumsum(np.maximum(np.round(np.diff(times) / np.median(np.diff(times))), 1))]
    )
    kept = np.ones(len(times), bool)
    slope, start = 1.0, 0.0
    for _ in range(4):
        slope, start = np.polyfit(numbers[kept], times[kept], 1)
        off = np.abs(times - (start + slope * numbers))
        kept = off <= max(float(np.percentile(off, 70)), 0.02)
    steady = float(np.mean(np.abs(times - (start + slope * numbers)) < 0.03))
    first = start - np.floor(start / slope + 0.05) * slope
    tempo = 60 / float(slope)
    if abs(tempo - round(tempo)) < 0.03:  # most music is played to a clock that shows whole numbers
        tempo = float(round(tempo))
    return tempo, float(max(first, 0.0)), steady


def _bars(bass: Floats, tempo: float, first: float, start: float) -> tuple[int, float]:
    """Beats to a bar, 3 or 4, and where the first bar begins at or after `start`: where the bass comes in again and again."""
    period = 60 / tempo
    numbers = np.arange(max(int((len(bass) / _STEPS_S - first) / period), 1))
    places = np.round((first + numbers * period) * _STEPS_S).astype(int)
    near = places[:, None] + np.arange(-3, 4)
    strong = bass[np.clip(near, 0, len(bass) - 1)].max(axis=1)
    best = (0.0, 4, 0)
    for meter in (4, 3):
        if len(strong) >= 3 * meter:
            means = strong[: len(strong) // meter * meter].reshape(-1, meter).mean(axis=0)
            stands_out = float(means.max() / max(means.mean(), 1e-9)) * (1.05 if meter == 4 else 1.0)
            best = max(best, (stands_out, meter, int(np.argmax(means))), key=lambda one: one[0])
    _, meter, phase = best
    bar = meter * period
    downbeat = first + phase * period
    return meter, float(
        downbeat + max(np.ceil((start - downbeat) / bar), -np.floor(downbeat / bar + 0.02)) * bar
    )
