"""Fitting sounds."""

from __future__ import annotations

import math

from furnel.mods.fit.point import FitPoint, State, same_or
from furnel.mods.project import Encode, StepUse
from furnel.mods.spec import SoundSpec


def compare_sounds(original: SoundSpec, yours: SoundSpec) -> list[FitPoint]:
    """The fit table of a sound."""
    points = [
        same_or(
            "file",
            "File",
            original.file_type,
            yours.file_type,
            "breaks",
            "The game reads this kind of file only",
            f"Write it as {original.file_type}",
        ),
        same_or(
            "codec",
            "Codec",
            original.codec,
            yours.codec,
            "breaks",
            "Another codec stays silent",
            f"Encode as {original.codec}",
        ),
        same_or(
            "rate",
            "Rate",
            f"{_thousands(original.rate)} Hz",
            f"{_thousands(yours.rate)} Hz",
            "breaks",
            "Played at the original's rate, its pitch changes",
            f"Resample to {_thousands(original.rate)} Hz",
        ),
        same_or(
            "channels",
            "Channels",
            _channels(original),
            _channels(yours),
            "breaks",
            "The game expects this many channels",
            f"Mix to {_channels(original)}",
        ),
        _length(original, yours),
    ]
    gap = yours.loudness - original.loudness
    if not math.isfinite(gap):
        gap = 0.0 if yours.loudness == original.loudness else 99.0
    loud = "" if abs(gap) <= 1.5 else f"{'Turn down' if gap > 0 else 'Turn up'} by {min(abs(gap), 99):.1f} LU"
    points.append(
        FitPoint(
            "loudness",
            "Loudness",
            _lufs(original),
            _lufs(yours),
            "differs" if loud else "fits",
            "It should sit beside the game's other sounds",
            loud,
        )
    )
    clips = yours.peak > 0.999 and original.peak <= 0.999
    points.append(
        FitPoint(
            "peak",
            "Peak",
            _decibels(original.peak),
            _decibels(yours.peak),
            "differs" if clips else "fits",
            "At full scale it crackles",
            "Hold it below -0.3 dBFS" if clips else "",
        )
    )
    return points


def _length(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    if original.loops:
        same = abs(yours.frames / yours.rate - original.length_s) < 0.5 / original.rate
        state: State = "fits" if same else "breaks" if yours.length_s < original.length_s else "differs"
        why, remedy = (
            "The loop jumps back at the original's last frame",
            f"Cut or repeat to {_thousands(original.frames)} frames",
        )
        return FitPoint(
            "length", "Length", _seconds(original), _seconds(yours), state, why, "" if same else remedy
        )
    ratio = yours.length_s / max(original.length_s, 1e-6)
    state = "fits" if 0.5 <= ratio <= 1.5 else "differs"
    why, remedy = (
        "Much longer than the original it runs into the next sound",
        f"Cut or fill to {original.length_s:.2f} s",
    )
    return FitPoint(
        "length", "Length", _seconds(original), _seconds(yours), state, why, "" if state == "fits" else remedy
    )


def fit_sound(original: SoundSpec, source: SoundSpec) -> tuple[tuple[StepUse, ...], Encode]:
    """The steps and the encoding that make a sound fit."""
    steps: list[StepUse] = []
    if source.channels != original.channels:
        steps.append(StepUse(do="channels", values={"channels": original.channels}))
    if source.rate != original.rate:
        steps.append(StepUse(do="rate", values={"rate": original.rate}))
    frames = round(source.frames * original.rate / source.rate)
    if frames != original.frames and (original.loops or not 0.5 <= frames / max(original.frames, 1) <= 1.5):
        fill = "repeats" if original.loops else "silence"
        fade = 0 if original.loops else 30
        if original.loops or frames > original.frames:
            steps.append(StepUse(do="length", values={"frames": original.frames, "fill": fill, "fade": fade}))
    if math.isfinite(original.loudness):
        steps.append(StepUse(do="loudness", values={"target": round(original.loudness, 1)}))
    return tuple(steps), encode_sound_like(original)


def encode_sound_like(original: SoundSpec) -> Encode:
    """The encoding that gives a file like the original."""
    return Encode(file=original.file_type, format=original.codec, levels=1)


def _thousands(value: int) -> str:
    return f"{value:,}".replace(",", "\u2009")


def _channels(spec: SoundSpec) -> str:
    return {1: "mono", 2: "stereo"}.get(spec.channels, f"{spec.channels} channels")


def _seconds(spec: SoundSpec) -> str:
    minutes, seconds = divmod(spec.length_s, 60)
    return f"{int(minutes)}:{seconds:05.2f}" if minutes else f"{seconds:.2f} s"


def _lufs(spec: SoundSpec) -> str:
    return f"{spec.loudness:.1f} LUFS" if math.isfinite(spec.loudness) else "silent"


def _decibels(peak: float) -> str:
    return f"{20 * math.log10(peak):.1f} dBFS" if peak > 0 else "silent"
