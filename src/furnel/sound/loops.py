"""Loops: where a sound can jump back with nothing to be heard, and how the seam is closed."""

from __future__ import annotations

import numpy as np

from furnel.errors import FurnelError
from furnel.sound.clip import Clip, SeamLaw, crossfaded, mono_of

_WHAT = "Making a loop"


def seam_click(clip: Clip, start: int, end: int) -> float:
    """How hard the jump from `end` back to `start` is, as a multiple of the 99.9th percentile of the sound's own steps.

    Up to 1 the seam is no louder than the sound itself.
    """
    if not 0 <= start < end <= clip.frames or end - start < 2:
        return 0.0
    part = clip.samples[start:end]
    step = float(np.abs(clip.samples[start] - clip.samples[end - 1]).max())
    usual = float(np.percentile(np.abs(np.diff(part[: 1 << 22], axis=0)).max(axis=1), 99.9))
    return 0.0 if step == 0 else step / max(usual, 1e-6)


def best_seam(
    clip: Clip, start: int, end: int, reach: int, keep_length: bool = False
) -> tuple[int, int, float]:
    """The loop near `start` and `end` (within `reach` frames) whose ends sound most alike, and how alike (-1 to 1).

    The frames around the start are compared with those around every possible end by normalised correlation. With
    `keep_length` both move together. Raises FurnelError for points outside the sound.
    """
    if not 0 <= start < end <= clip.frames:
        raise FurnelError(_WHAT, why=f"{start} to {end} is not inside its {clip.frames} frames")
    mono = mono_of(clip.samples).astype(np.float64)
    half = max(min(int(0.08 * clip.rate), (end - start) // 3), 8)
    padded = np.concatenate([np.zeros(half), mono, np.zeros(half)])
    length = end - start
    if keep_length:
        low, high = max(start - reach, 0), min(start + reach, clip.frames - length)
    else:
        low, high = max(end - reach, start + half), min(end + reach, clip.frames)
    if high < low + (not keep_length):
        return start, end, 0.0
    there = padded[low : high + 2 * half]
    energy = _windowed(there**2, 2 * half)
    if keep_length:
        later = padded[low + length : high + length + 2 * half]
        match, other = _windowed(there * later, 2 * half), _windowed(later**2, 2 * half)
    else:
        from scipy.signal import correlate

        here = padded[start : start + 2 * half]
        match, other = correlate(there, here, "valid", "fft")[: len(energy)], np.sum(here**2)
    alike = match / np.sqrt(np.maximum(energy * other, 0.0) + 1e-12)
    away = np.abs(np.arange(low, low + len(alike)) - (start if keep_length else end)) / max(reach, 1)
    best = int(np.argmax(alike - 0.02 * away))
    found = (low + best, low + best + length) if keep_length else (start, low + best)
    return *found, float(alike[best])


def closed_loop(clip: Clip, start: int, end: int, fade: int, law: SeamLaw = "fitting") -> Clip:
    """The clip up to `end`, its last `fade` frames cross-faded into those before `start`, so that it can jump back there.

    Where there are not enough frames before the start, the frames behind the end are faded out over the loop's beginning
    instead. `power` keeps the power, `straight` the amplitude; `fitting` does what the two parts' likeness asks for.
    """
    if not 0 <= start < end <= clip.frames:
        raise FurnelError(_WHAT, why=f"{start} to {end} is not inside its {clip.frames} frames")
    out = clip.samples[:end].copy()
    fade = min(fade, (end - start) // 2)
    before, behind = min(fade, start), min(fade, clip.frames - end)
    if before >= behind and before > 1:
        out[end - before : end] = crossfaded(
            clip.samples[end - before : end], clip.samples[start - before : start], law
        )
    elif behind > 1:
        out[start : start + behind] = crossfaded(
            clip.samples[end : end + behind], clip.samples[start : start + behind], law
        )
    return Clip(out, clip.rate, (start, end))


def with_intro(intro: Clip, loop: Clip, fade: int) -> Clip:
    """An intro that goes over into a loop, which alone repeats. Both need the same rate and channels."""
    if intro.rate != loop.rate or intro.channels != loop.channels:
        raise FurnelError(
            _WHAT,
            why="intro and loop have other rates or channels",
            remedy="Resample and mix them alike first",
        )
    fade = min(fade, intro.frames // 2, loop.frames // 2)
    start, end = loop.loop or (0, loop.frames)
    head = intro.samples
    if fade > 1:  # the intro's end fades out under the loop's own last frames, which lead into its first
        lead = loop.samples[end - fade : end]
        head = np.concatenate([head[:-fade], crossfaded(head[-fade:], lead)])
    joined = np.concatenate([head, loop.samples[start:end]])
    return Clip(np.ascontiguousarray(joined, np.float32), loop.rate, (len(head), len(joined)))


def _windowed(values: np.ndarray, width: int) -> np.ndarray:
    """Sums over `width` neighbours, at every place where there are that many."""
    sums = np.concatenate([[0.0], np.cumsum(values)])
    return np.asarray(sums[width:] - sums[:-width])
