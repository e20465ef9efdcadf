"""Changes to a sound's level and colour: fades, filters, silence, several sounds on one time line."""

from __future__ import annotations

from typing import Literal, get_args

import numpy as np

from furnel.errors import FurnelError
from furnel.sound.clip import Clip, FadeCurve, Samples, fade_gains, part_of

SILENT_DB = -38.0
"""A sound begins where it comes this near to its loudest: what lies below, before it, is room and hum."""
_TAIL_DB = -16.0  # it dies away further than that
_SILENCE = 1e-4
HOPS_S = 200
FADE_CURVES: tuple[str, ...] = get_args(FadeCurve)


def faded(clip: Clip, in_s: float, out_s: float, curve: str = "straight") -> Clip:
    """The clip with its beginning and its end faded."""
    samples = clip.samples.copy()
    first, last = (min(int(length * clip.rate), clip.frames) for length in (in_s, out_s))
    samples[:first] *= fade_gains(first, curve)[:, None]
    if last:
        samples[-last:] *= fade_gains(last, curve)[::-1, None]
    return Clip(samples, clip.rate, clip.loop)


def without_dc(clip: Clip) -> Clip:
    """Every channel moved so that its mean is zero."""
    mean = clip.samples.mean(axis=0, dtype=np.float64).astype(np.float32) if clip.frames else 0
    return Clip(clip.samples - mean, clip.rate, clip.loop)


def filtered(clip: Clip, kind: Literal["highpass", "lowpass"], hertz: float, slope_db: int = 24) -> Clip:
    """Without what lies below or above `hertz`: a Butterworth filter, run both ways so that nothing moves in time.

    `slope_db` per octave counts both ways together: 12, 24 or 48. Raises FurnelError when the sound has no such frequency.
    """
    if hertz >= clip.rate / 2:
        if kind == "lowpass":
            return clip
        raise FurnelError(
            "Filtering a sound",
            why=f"at {clip.rate} Hz it has nothing above {clip.rate // 2} Hz",
            remedy="Choose less",
        )
    from scipy.signal import butter, sosfiltfilt

    sections = butter(max(slope_db // 12, 1), hertz, kind, fs=clip.rate, output="sos")
    pad = min(clip.frames - 1, int(clip.rate * 0.2))
    if pad < 1:
        return clip
    samples = sosfiltfilt(sections, clip.samples, axis=0, padlen=pad)
    return Clip(np.ascontiguousarray(samples, np.float32), clip.rate, clip.loop)


def sounding_hops(levels: Samples, floor_db: float = SILENT_DB) -> tuple[int, int]:
    """The first hop that comes within `floor_db` of the loudest, and the end of those that do within 16 dB more.

    (0, 0) for silence.
    """
    loudest = float(levels.max(initial=0.0))
    if loudest < _SILENCE:
        return 0, 0
    first = int(np.argmax(levels > loudest * 10 ** (floor_db / 20)))
    heard = np.flatnonzero(levels > max(loudest * 10 ** ((floor_db + _TAIL_DB) / 20), _SILENCE))
    return (first, int(heard[-1]) + 1) if len(heard) else (0, 0)


def sounding_span(clip: Clip, floor_db: float = SILENT_DB) -> tuple[int, int]:
    """The first and the end frame of what is heard, to 5 ms; (0, 0) for silence."""
    from furnel.sound.weighting import add_levels

    hop = max(clip.rate // HOPS_S, 1)
    padded = np.concatenate([clip.samples, np.zeros((-clip.frames % hop, clip.channels), np.float32)])
    levels = np.empty(len(padded) // hop, np.float32)
    add_levels(padded, hop, np.zeros(4 + clip.channels), np.zeros(2, np.int64), levels)
    first, end = sounding_hops(levels, floor_db)
    return first * hop, min(end * hop, clip.frames)


def trimmed(clip: Clip, floor_db: float = SILENT_DB, lead_s: float = 0.0, tail_s: float = 0.0) -> Clip:
    """Without the silence at both ends, but for `lead_s` before (made of silence when there is less) and `tail_s` behind."""
    start, end = sounding_span(clip, floor_db)
    if start == end:
        return clip
    lead = round(lead_s * clip.rate)
    part = part_of(clip, max(start - lead, 0), end + round(tail_s * clip.rate))
    missing = lead - start
    if missing <= 0:
        return part
    samples = np.concatenate([np.zeros((missing, clip.channels), np.float32), part.samples])
    loop = (part.loop[0] + missing, part.loop[1] + missing) if part.loop else None
    return Clip(samples, clip.rate, loop)


def layered(
    base: Clip,
    over: Clip,
    at: int,
    gain_db: float = 0.0,
    fade_in: int = 0,
    fade_out: int = 0,
    cross: bool = False,
) -> Clip:
    """`over` mixed into `base` from frame `at` on, with a gain and fades in frames; the result lasts as long as both need.

    With `cross`, what lies under the fades of `over` fades the other way, and what lies between is replaced. Both need
    the same rate and channels.
    """
    if base.rate != over.rate or base.channels != over.channels:
        raise FurnelError("Layering sounds", why="they have other rates or channels")
    frames = max(base.frames, at + over.frames)
    out = np.zeros((frames, base.channels), np.float32)
    out[: base.frames] = base.samples
    gains = np.full(over.frames, 10 ** (gain_db / 20), np.float32)
    shape = np.ones(over.frames, np.float32)
    first, last = min(fade_in, over.frames), min(fade_out, over.frames)
    if first:
        shape[:first] *= fade_gains(first, "even power")
    if last:
        shape[over.frames - last :] *= fade_gains(last, "even power")[::-1]
    span = slice(at, at + over.frames)
    if cross:
        out[span] *= np.sqrt(np.maximum(1 - shape**2, 0))[:, None]
    out[span] += over.samples * (gains * shape)[:, None]
    return Clip(out, base.rate, base.loop)
