"""Time-stretching without a change of pitch, and the reverse: a phase vocoder with locked phases and care for attacks.

J. Laroche and M. Dolson, "Improved Phase Vocoder Time-Scale Modification of Audio" (1999) for the locking of every bin to
the peak that it belongs to; attacks are kept at their own speed with their own phases, in the manner of A. Roebel, "A new
approach to transient processing in the phase vocoder" (2003).
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, check
from furnel.sound.beats import onset_strength
from furnel.sound.clip import Clip, Samples
from furnel.sound.loops import closed_loop

Floats = npt.NDArray[np.float64]
Spectra = npt.NDArray[np.complex128]
_WHAT = "Stretching a sound"
_WINDOW_S = 0.046
_SEAM_S = 0.06
_BATCH = 128
_ATTACK_BEFORE_S, _ATTACK_AFTER_S = 0.008, 0.035


def stretched(clip: Clip, frames: int, progress: Progress = QUIET) -> Clip:
    """The clip made to last exactly `frames` at the same pitch, between a quarter and four times of its length.

    A loop is moved along; one that goes to the end has its seam closed again.
    """
    if frames == clip.frames:
        return clip
    if clip.loop is not None and clip.loop[1] == clip.frames:
        return _stretched_loop(clip, clip.loop[0], frames, progress)
    if not clip.frames / 4 <= frames <= clip.frames * 4 or clip.frames < 64:
        raise FurnelError(
            _WHAT, why=f"from {clip.frames} to {frames} frames is more than four times",
            remedy="Cut or repeat it first, then stretch what is missing",
        )  # fmt: skip
    size = 1 << int(np.round(np.log2(max(clip.rate * _WINDOW_S, 64))))
    hop = size // 4
    count = -(-frames // hop) + 4
    attacks = _attacks(clip)
    wanted = (np.arange(count) * hop).astype(np.float64)
    places, held = _time_map(clip.frames, frames, attacks, clip.rate, wanted)
    out = _vocoded(clip.samples, places, held, size, hop, progress)
    loop = None
    if clip.loop is not None:
        start, end = (min(round(place * frames / clip.frames), frames) for place in clip.loop)
        loop = (start, end) if start < end else None
    return Clip(np.ascontiguousarray(out[:frames]), clip.rate, loop)


def _stretched_loop(clip: Clip, start: int, frames: int, progress: Progress) -> Clip:
    """A clip that repeats from `start`: what follows its end is stretched with it, and faded over the loop's beginning."""
    more = min(max(int(clip.rate * _SEAM_S), 1), clip.frames - start)
    samples = np.concatenate([clip.samples, clip.samples[start : start + more]])
    extra = max(round(more * frames / clip.frames), 2)
    longer = stretched(Clip(samples, clip.rate), frames + extra, progress)
    first = min(round(start * frames / clip.frames), frames - 2)
    return closed_loop(longer, first, frames, extra)


def shifted(clip: Clip, semitones: float, progress: Progress = QUIET) -> Clip:
    """The clip higher or lower by `semitones`, as long as before to the frame."""
    if not semitones:
        return clip
    import soxr

    factor = 2.0 ** (semitones / 12)
    longer = stretched(Clip(clip.samples, clip.rate), max(round(clip.frames * factor), 1), progress)
    samples = np.asarray(soxr.resample(longer.samples, longer.frames, clip.frames, quality="HQ"), np.float32)
    if len(samples) < clip.frames:
        samples = np.concatenate([samples, np.zeros((clip.frames - len(samples), clip.channels), np.float32)])
    return Clip(np.ascontiguousarray(samples[: clip.frames]), clip.rate, clip.loop)


def _attacks(clip: Clip) -> Floats:
    """Frames where something begins hard."""
    onsets = onset_strength(clip)
    if len(onsets) < 5 or onsets.max() <= 1e-9:
        return np.zeros(0)
    level = max(onsets.mean() + 1.5 * onsets.std(), 0.25 * onsets.max())
    mid = onsets[1:-1]
    places = np.flatnonzero((mid >= onsets[:-2]) & (mid > onsets[2:]) & (mid > level)) + 1
    return places * clip.rate / 100.0


def _time_map(
    have: int, want: int, attacks: Floats, rate: int, wanted: Floats
) -> tuple[Floats, npt.NDArray[np.bool_]]:
    """For every place in the result the place in the source, running at its own speed around attacks; and whether it is
    on one."""
    before, after = _ATTACK_BEFORE_S * rate, _ATTACK_AFTER_S * rate
    spans: list[tuple[float, float]] = []
    for attack in attacks:
        start, end = max(attack - before, 0.0), min(attack + after, float(have))
        if not spans or start >= spans[-1][1]:
            spans.append((start, end))
    kept = sum(end - start for start, end in spans)
    ratio = (want - kept) / (have - kept) if have > kept else 0.0
    if not 0.15 < ratio < 8:  # too many attacks to spare them all
        return wanted * have / want, np.zeros(len(wanted), bool)
    source, result, inside = [0.0], [0.0], [False]
    for start, end in spans:
        result += [result[-1] + (start - source[-1]) * ratio, 0.0]
        result[-1] = result[-2] + end - start
        source += [start, end]
        inside += [False, True]
    result.append(float(want))
    source.append(float(have))
    inside.append(False)
    held = np.array(inside)[np.minimum(np.searchsorted(result, wanted, "right"), len(inside) - 1)]
    return np.interp(wanted, result, source), held


def _vocoded(
    samples: Samples, places: Floats, held: npt.NDArray[np.bool_], size: int, hop: int, progress: Progress
) -> Samples:
    channels = samples.shape[1]
    window = np.sqrt(np.hanning(size + 1)[:size]).astype(np.float32)
    padded = np.concatenate(
        [np.zeros((size + hop, channels)), samples, np.zeros((2 * size, channels))]
    ).astype(np.float32)
    planes = np.ascontiguousarray(padded.T)
    starts = np.round(places).astype(np.int64) + hop + size // 2
    length = len(places) * hop + 2 * size
    out, norm = np.zeros((length, channels), np.float32), np.zeros(length, np.float32)
    spin = np.zeros(size // 2 + 1)
    last = np.zeros((channels, size // 2 + 1), np.complex128)
    for first in range(0, len(places), _BATCH):
        check(progress, _WHAT)
        progress.report(first / len(places), _WHAT)
        batch = starts[first : first + _BATCH]
        now, back = _spectra(planes, batch, window), _spectra(planes, batch - hop, window)
        spins = np.empty((len(batch), size // 2 + 1))
        for place in range(len(batch)):
            number = first + place
            if number and starts[number] - starts[number - 1] != hop:
                spin = _locked(now[place], back[place], last, spin)
            if number and held[number] and not held[number - 1]:
                begins = (np.abs(now[place]) ** 2).sum(axis=0) > 2 * (np.abs(back[place]) ** 2).sum(axis=0)
                spin = np.where(begins, 0.0, spin)  # what begins here keeps its own phases
            spins[place], last = spin, now[place]
        grains = np.fft.irfft(now * np.exp(1j * spins)[:, None, :], size, axis=2).astype(np.float32) * window
        for place in range(len(batch)):
            at = (first + place) * hop
            out[at : at + size] += grains[place].T
            norm[at : at + size] += window**2
    out /= np.maximum(norm, 1e-3)[:, None]
    return out[size // 2 :]


def _locked(now: Spectra, back: Spectra, last: Spectra, spin: Floats) -> Floats:
    """By how much every bin's phase has to be turned: each peak goes on where it was, its neighbours turn with it.

    Spectra (channels, bins): of this grain, of the source one hop before it, of the grain before.
    """
    power = (now.real**2 + now.imag**2).sum(axis=0)
    mid = power[2:-2]
    higher = (mid > power[1:-3]) & (mid >= power[3:-1]) & (mid > power[:-4]) & (mid >= power[4:])
    peaks = np.flatnonzero(higher) + 2
    if not len(peaks):
        return spin
    # the phase of the last grain, plus how far it goes in one hop here, less what it is here
    turn = np.angle((last[:, peaks] * np.conj(back[:, peaks])).sum(axis=0))
    owner = np.searchsorted((peaks[1:] + peaks[:-1] + 1) // 2, np.arange(len(power)), "right")
    return np.asarray((spin[peaks] + turn)[owner])


def _spectra(planes: Samples, starts: npt.NDArray[np.int64], window: npt.NDArray[np.float32]) -> Spectra:
    """Spectra (grains, channels, bins) of `planes` (channels, frames) from some frames on."""
    grains = planes[:, np.maximum(starts, 0)[:, None] + np.arange(len(window))] * window
    return np.asarray(np.fft.rfft(grains, axis=2).transpose(1, 0, 2))
