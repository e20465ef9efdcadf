"""Fit points of parts of songs: whether they go with their song's beats and key, and how they are cut to its bars."""

from __future__ import annotations

from furnel import sound
from furnel.media import SoundSpec
from furnel.mods.fit.point import SOUNDS, Finding, PointType
from furnel.mods.project import StepUse
from furnel.mods.steps import Value

STRETCH_MOST = 0.08
"""How much longer or shorter a tune may become, as a share of its length."""
_OCTAVES = (0.5, 1.0, 2.0)
_OFF_TEMPO, _LATE_S = 0.012, 0.045


def _step(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    """Whether a part of a song goes with its song's beats, as far as any are heard in it."""
    if original.grid is None:
        return None
    beats, tempo = original.grid
    wanted, heard = f"{beats} beats at {tempo:g} bpm", yours.beats
    if heard is None:
        return Finding(wanted, "no steady beat is heard")
    ratio = min((heard.tempo * factor / tempo for factor in _OCTAVES), key=lambda ratio: abs(ratio - 1))
    if abs(ratio - 1) > _OFF_TEMPO:
        remedy = "Fit all cuts whole bars where they come near; or give the song its tempo"
        return Finding(wanted, f"{heard.tempo:.1f} bpm", "differs", remedy)
    beat_s = 60 / tempo
    late = (heard.first_s + beat_s / 4) % (beat_s / 2) - beat_s / 4
    if abs(late) > _LATE_S:
        words = f"its beats come {abs(late) * 1000:.0f} ms {'late' if late > 0 else 'early'}"
        return Finding(wanted, words, "differs", "Fit all begins it with a bar")
    return Finding(wanted, f"{tempo * ratio:.1f} bpm")


def _key(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    kin = sound.kin_of(original.told_key)
    if not kin or not yours.pitch:
        return None
    if yours.pitch in kin:
        return Finding(original.told_key, yours.pitch)
    return Finding(
        original.told_key, yours.pitch, "differs", "Play it in the song's key, or give the song this one"
    )


def grid_steps(original: SoundSpec, source: SoundSpec, rhythm: sound.Rhythm) -> list[StepUse]:
    """As many whole bars as a song has, brought to its tempo; none when they are too far from it."""
    assert original.grid is not None
    beats, wanted = original.grid
    tempo = min((rhythm.tempo * factor for factor in _OCTAVES), key=lambda tempo: abs(tempo / wanted - 1))
    meter = 4 if beats % 4 == 0 else 3 if beats % 3 == 0 else 1
    frames = sound.frames_of_bars(beats // meter, meter, tempo, original.rate)
    if abs(frames / original.frames - 1) > STRETCH_MOST or source.length_s < beats * 60 / tempo - 0.2:
        return []
    first = rhythm.first_s
    if (
        first + beats * 60 / tempo > source.length_s
    ):  # it is a loop already: what is before its first bar comes last
        first = 0.0
    values: dict[str, Value] = {
        "tempo": round(tempo, 3), "first": round(first, 3), "meter": meter, "bars": beats // meter,
    }  # fmt: skip
    out = [StepUse(do="bars", values=values)]
    return (
        out
        if frames == original.frames
        else [*out, StepUse(do="stretch", values={"frames": original.frames})]
    )


PART_POINTS = (
    PointType(
        key="step",
        label="In step",
        kinds=SOUNDS,
        why="The parts of a song play together: one that goes at another pace, or comes late, is heard at once",
        compare=_step,
        served_by=("bars", "stretch"),
    ),
    PointType(
        key="key",
        label="Key",
        kinds=SOUNDS,
        why="A part in another key sounds wrong beside the others; a hint, for keys are easily mixed up",
        compare=_key,
    ),
)
