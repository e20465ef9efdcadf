"""Fit points of sounds and music, and how they are brought to fit."""

from __future__ import annotations

import math
from collections.abc import Sequence

from furnel import sound
from furnel.media import SoundSpec
from furnel.media.sound import DESCRIBING
from furnel.mods.fit.point import SOUNDS, Finding, Fitting, PointType, same
from furnel.mods.fit.songs import STRETCH_MOST, grid_steps
from furnel.mods.project import StepUse
from furnel.mods.steps import Value
from furnel.sound.words import channels_text, length_text, loudness_text, span_text
from furnel.states import State
from furnel.words import number

_CEILING_DB = -1.0
_LEAD_S, _DC = 0.03, 0.005
_FAMILY_LU = 2.0
_LONG_S = 900.0
_OPPOSITE = -0.3
_PARTS_LU = 18.0


def _is_whole(spec: SoundSpec) -> bool:
    """Whether its loop is all of it: what a game repeats needs no loop in the file then."""
    return spec.loop == (0, spec.frames)


def _file(original: SoundSpec, yours: SoundSpec) -> Finding:
    return same(original.file_type, yours.file_type, "breaks", f"Write it as {original.file_type}")


def _codec(original: SoundSpec, yours: SoundSpec) -> Finding:
    return same(original.codec, yours.codec, "breaks", f"Encode as {original.codec}")


def _rate(original: SoundSpec, yours: SoundSpec) -> Finding:
    wanted = f"{number(original.rate)} Hz"
    return same(wanted, f"{number(yours.rate)} Hz", "breaks", f"Resample to {wanted}")


def _fit_rate(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return [] if source.rate == original.rate else _mend_rate(original, source)


def _mend_rate(original: SoundSpec, _: SoundSpec) -> list[StepUse]:
    return [StepUse(do="rate", values={"rate": original.rate})]


def _channels(original: SoundSpec, yours: SoundSpec) -> Finding:
    wanted = channels_text(original.channels)
    return same(wanted, channels_text(yours.channels), "breaks", f"Mix to {wanted}")


def _fit_channels(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    if source.channels == original.channels:
        return []
    opposite = original.channels == 1 and source.channels == 2 and source.measures.correlation < _OPPOSITE
    law = "left" if opposite else "mean"  # opposite channels would cancel each other
    return [StepUse(do="channels", values={"channels": original.channels, "law": law})]


def _mend_channels(original: SoundSpec, _: SoundSpec) -> list[StepUse]:
    if original.channels > 1:
        return [StepUse(do="channels", values={"channels": original.channels})]
    return [StepUse(do="channels", values={"channels": 1, "law": "mean"})]


# length, loop, tempo


def _length(original: SoundSpec, yours: SoundSpec) -> Finding:
    both = length_text(original.length_s), length_text(yours.length_s)
    if yours.frames == 0:
        return Finding(*both, "breaks", "Use a sound that has a length", "There is no sound in it")
    if original.exact:
        why = (
            "The loop jumps back at the original's last frame"
            if original.loops
            else "The game counts its frames"
        )
        if abs(yours.frames / yours.rate - original.length_s) < 0.5 / original.rate:
            return Finding(*both, why=why)
        if original.record and yours.loop is not None:
            why = "Its own loop record goes into the mod with it"
            return Finding(*both, "differs", "Fit all gives it the original's length", why)
        state: State = "breaks" if yours.length_s < original.length_s else "differs"
        return Finding(*both, state, f"Cut or repeat to {number(original.frames)} frames", why)
    return Finding(*both, why="Nothing says that the game counts it: it is played as long as it is")


def _fit_part(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    """Enough of a long recording for what the original needs, so that no more of it is decoded."""
    if source.length_s <= _LONG_S or not (original.exact or original.loops):
        return []
    lead = source.beats.first_s if source.beats is not None else source.measures.lead_s
    length = float(math.ceil(lead + original.length_s * 1.6 + 5))
    return [StepUse(do="part", values={"start": 0.0, "length": length})]


def _fit_length(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return (
        loop_steps(original, source) if original.exact and original.loops else _length_steps(original, source)
    )


def _mend_length(original: SoundSpec, yours: SoundSpec) -> list[StepUse]:
    return loop_steps(original, yours) if original.loops else _length_steps(original, yours)


def _length_steps(original: SoundSpec, source: SoundSpec) -> list[StepUse]:
    frames = round(source.frames * original.rate / source.rate)
    if not original.exact or frames == original.frames:
        return []  # a length that nobody counts is the modder's; a loop of the file's own decides by itself
    return [StepUse(do="length", values={"frames": original.frames, "fill": "silence", "fade": 30})]


def _loop(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    """Whether it repeats, and where; the whole sound when nothing says so."""
    if yours.loop is None and (original.loop is None or (original.loops and _is_whole(original))):
        return None
    wanted, got = original.loop or (0, original.frames), yours.loop
    both = span_text(wanted, original.rate), span_text(got, yours.rate) if got else "none"
    if got is not None and all(
        abs(a / original.rate - b / yours.rate) < 0.5 / original.rate
        for a, b in zip(wanted, got, strict=True)
    ):
        return Finding(*both)
    if original.record and yours.loop is not None:
        return Finding(*both, "differs", why="Its own loop record goes into the mod with it")
    if original.record and yours.length_s >= original.length_s - 1 / original.rate:
        return Finding(*both, "differs", "Make a loop that ends where the original's does")
    return Finding(*both, "breaks", "Make a loop at the original's place")


def _fit_loop(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return _carried_loop(original, source) if original.loop is not None and not original.loops else []


def _mend_loop(original: SoundSpec, yours: SoundSpec) -> list[StepUse]:
    return _fit_loop(original, yours, ()) or _mend_length(original, yours)


def _carried_loop(original: SoundSpec, source: SoundSpec) -> list[StepUse]:
    """What gives a sound the original's loop where a file alone tells it: the same length, the same place."""
    assert original.loop is not None
    start, end = original.loop
    if source.loop == original.loop and (source.rate, source.frames) == (original.rate, original.frames):
        return []
    frames = round(source.frames * original.rate / source.rate)
    cut = [] if frames == original.frames else [_exact_length(original)]
    values: dict[str, Value] = {"start": start, "length": end - start, "search": 0.0, "only": False}
    return [*cut, StepUse(do="loop", values=values)]


def _exact_length(original: SoundSpec) -> StepUse:
    return StepUse(do="length", values={"frames": original.frames, "fill": "repeats", "fade": 0})


def loop_steps(original: SoundSpec, source: SoundSpec) -> list[StepUse]:
    """What makes a tune exactly as long as the original's loop, at the original's rate.

    With a steady beat: as many whole bars as come nearest, stretched by a few percent. Without one: a stretch of it whose
    ends are alike, or repeats when it is too short.
    """
    have = round(source.frames * original.rate / source.rate)
    start, end = original.loop or (0, original.frames)
    if have == original.frames and source.loop == original.loop:
        return []
    if original.loop is not None and original.loop[0] > 0:  # an intro, then what repeats
        out = []
        if have < original.frames:
            out.append(StepUse(do="length", values={"frames": original.frames, "fill": "repeats", "fade": 0}))
        return [
            *out,
            StepUse(do="loop", values={"start": start, "length": end - start, "search": 0.0, "only": False}),
            *([StepUse(do="length", values={"frames": original.frames, "fade": 0})] if end != original.frames else []),
        ]  # fmt: skip
    rhythm = source.beats
    if rhythm is not None and original.grid is not None and (steps := grid_steps(original, source, rhythm)):
        return steps
    if rhythm is not None:
        bar_s = rhythm.meter * 60 / rhythm.tempo
        bars = max(round(original.length_s / bar_s), 1)
        frames = sound.frames_of_bars(bars, rhythm.meter, rhythm.tempo, original.rate)
        if abs(frames / original.frames - 1) <= STRETCH_MOST and source.length_s - rhythm.first_s >= bar_s:
            values: dict[str, Value] = {
                "tempo": round(rhythm.tempo, 3), "first": round(rhythm.first_s, 3), "meter": rhythm.meter, "bars": bars,
            }  # fmt: skip
            out = [StepUse(do="bars", values=values)]
            if frames != original.frames:
                out.append(StepUse(do="stretch", values={"frames": original.frames}))
            return out
    if have > original.frames:
        lead = round(source.measures.lead_s * original.rate)
        begin = min(lead, have - original.frames)
        wanted: dict[str, Value] = {"start": begin, "length": original.frames, "search": 1500.0}
        return [StepUse(do="loop", values=wanted)]
    if have == original.frames:
        return []
    return [StepUse(do="length", values={"frames": original.frames, "fill": "repeats", "fade": 0})]


def _tempo(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if original.rhythm is None or yours.rhythm is None:
        return None
    return Finding(f"{original.rhythm.tempo:.1f} bpm", f"{yours.rhythm.tempo:.1f} bpm")


# loudness and levels


def _loudness(original: SoundSpec, yours: SoundSpec) -> Finding:
    gap = yours.loudness - original.loudness
    both = loudness_text(original.loudness), loudness_text(yours.loudness)
    if yours.loudness == original.loudness or abs(gap) <= 1.5:
        return Finding(*both)
    if original.grid is not None and abs(gap) <= _PARTS_LU:
        return Finding(*both, why="The parts of a song need not be equally loud")
    if not math.isfinite(yours.loudness):
        return Finding(*both, "differs", "It is silent: use another source, or another channel of it")
    if not math.isfinite(original.loudness):
        return Finding(
            *both, "differs", "The original is silent: what is heard now was not meant to be, or is new"
        )
    return Finding(*both, "differs", f"{'Turn down' if gap > 0 else 'Turn up'} by {abs(gap):.1f} LU")


def _fit_loudness(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return _mend_loudness(original, source) if math.isfinite(original.loudness) else []


def _mend_loudness(original: SoundSpec, _: SoundSpec) -> list[StepUse]:
    return [loudness_step(original)]


def loudness_step(original: SoundSpec) -> StepUse:
    """Matching the original's loudness, inside what its event's other sounds have."""
    target = original.loudness
    if original.family is not None:
        low, high = original.family
        target = min(max(target, low - _FAMILY_LU / 2), high + _FAMILY_LU / 2)
    return StepUse(do="loudness", values={"target": round(target, 1), "ceiling": _CEILING_DB})


def _family(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if original.family is None:
        return None
    low, high = original.family
    both = f"{low:.1f} to {high:.1f} LUFS", loudness_text(yours.loudness)
    if not max(low - _FAMILY_LU - yours.loudness, yours.loudness - high - _FAMILY_LU, 0.0):
        return Finding(*both)
    return Finding(*both, "differs", f"Bring it to {(low + high) / 2:.1f} LUFS")


def _peak(original: SoundSpec, yours: SoundSpec) -> Finding:
    both = _decibels(original.measures.true_peak), _decibels(yours.measures.true_peak)
    if yours.measures.true_peak <= 1.0 or original.measures.true_peak > 1.0:
        return Finding(*both)
    return Finding(*both, "differs", f"Hold it below {_CEILING_DB:g} dBTP")


def _fit_peak(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    """Beside a silent original there is no loudness to match: only the ceiling."""
    if math.isfinite(original.loudness) or source.measures.true_peak <= 1:
        return []
    return [StepUse(do="gain", values={"gain": 0.0, "ceiling": _CEILING_DB})]


def _decibels(peak: float) -> str:
    return f"{sound.to_decibels(peak):.1f} dBTP" if peak > 0 else "silent"


# faults


def _lead(original: SoundSpec, yours: SoundSpec) -> Finding:
    both = f"{original.measures.lead_s * 1000:.0f} ms", f"{yours.measures.lead_s * 1000:.0f} ms"
    if original.loops or yours.measures.lead_s - original.measures.lead_s <= _LEAD_S:
        return Finding(*both)
    return Finding(*both, "differs", "Cut it off")


def _fit_lead(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return [] if _lead(original, source).state == "fits" else _mend_lead(original, source)


def _mend_lead(original: SoundSpec, _: SoundSpec) -> list[StepUse]:
    """Cutting off the silence at the ends, down to what the original has before its sound."""
    return [StepUse(do="trim", values={"lead": float(round(original.measures.lead_s * 1000))})]


def _clipping(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if not yours.measures.clipped or original.measures.clipped:
        return None
    return Finding("none", f"{number(yours.measures.clipped)} frames", "differs", "Record it again, quieter")


def _dc(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if yours.measures.dc <= _DC or yours.measures.dc <= 2 * original.measures.dc:
        return None
    return Finding(f"{original.measures.dc:.2%}", f"{yours.measures.dc:.2%}", "differs", "Centre it on zero")


def _fit_dc(original: SoundSpec, source: SoundSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return [StepUse(do="dc")] if _dc(original, source) else []


def _phase(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    ours, theirs = yours.measures.correlation, original.measures.correlation
    if yours.channels < 2 or not ours < _OPPOSITE <= theirs:
        return None
    return Finding(f"{theirs:+.2f}", f"{ours:+.2f}", "differs", "Use one of its channels for both")


def _mend_phase(original: SoundSpec, _: SoundSpec) -> list[StepUse]:
    back = [StepUse(do="channels", values={"channels": original.channels})] if original.channels > 1 else []
    return [StepUse(do="channels", values={"channels": 1, "law": "left"}), *back]


# what the file says


_NOMINAL = 0.85


def _bit_rate(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if original.codec not in sound.LOSSY or yours.codec != original.codec:
        return None
    if original.nominal and yours.nominal:
        told = f"{original.nominal:.0f} kbit/s nominal", f"{yours.nominal:.0f} kbit/s nominal"
        worse = yours.nominal < _NOMINAL * original.nominal
        return Finding(*told, "differs", "Encode it better") if worse else Finding(*told)
    both = f"{original.kilobits:.0f} kbit/s", f"{yours.kilobits:.0f} kbit/s"
    return (
        Finding(*both, "differs", "Encode it better")
        if yours.kilobits < 0.5 * original.kilobits
        else Finding(*both)
    )


def _tags(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    wanted = [name for name, _ in original.tags if name not in DESCRIBING]
    if not wanted:
        return None
    both = ", ".join(wanted), ", ".join(name for name, _ in yours.tags) or "none"
    if set(wanted) <= {name for name, _ in yours.tags}:
        return Finding(*both)
    return Finding(*both, "differs", "Take over the original's")


def _cues(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if not original.cues:
        return None
    both = str(len(original.cues)), str(len(yours.cues))
    if len(yours.cues) >= len(original.cues):
        return Finding(*both)
    return Finding(*both, "differs", "Take over the original's")


def _size(original: SoundSpec, yours: SoundSpec) -> Finding | None:
    if not original.most_bytes:
        return None
    both = f"up to {number(original.most_bytes)} bytes", f"{number(yours.size)} bytes"
    if yours.size <= original.most_bytes:
        return Finding(*both)
    return Finding(*both, "breaks", "Shorten it or encode it smaller")


SOUND_POINTS = (
    PointType(
        key="file",
        label="File",
        kinds=SOUNDS,
        why="The game reads this kind of file only",
        compare=_file,
        encoded="like",
    ),
    PointType(
        key="codec",
        label="Codec",
        kinds=SOUNDS,
        why="Another codec stays silent",
        compare=_codec,
        encoded="like",
    ),
    PointType(
        key="rate",
        label="Rate",
        kinds=SOUNDS,
        why="Played at the original's rate, its pitch changes",
        compare=_rate,
        fit=(Fitting(50, _fit_rate),),
        mend=_mend_rate,
        served_by=("rate",),
    ),
    PointType(
        key="channels",
        label="Channels",
        kinds=SOUNDS,
        why="The game expects this many channels",
        compare=_channels,
        fit=(Fitting(40, _fit_channels),),
        mend=_mend_channels,
        served_by=("channels",),
    ),
    PointType(
        key="length",
        label="Length",
        kinds=SOUNDS,
        why="A sound that the game counts and that is of another length is cut, or followed by silence",
        compare=_length,
        fit=(Fitting(10, _fit_part), Fitting(60, _fit_length)),
        mend=_mend_length,
        served_by=("part", "length", "loop", "bars", "stretch"),
    ),
    PointType(
        key="loop",
        label="Loop",
        kinds=SOUNDS,
        why="The game jumps back from its end to its start",
        compare=_loop,
        fit=(Fitting(70, _fit_loop),),
        mend=_mend_loop,
        encoded="like",
        served_by=("length", "loop", "bars", "stretch"),
    ),
    PointType(
        key="tempo",
        label="Tempo",
        kinds=SOUNDS,
        why="Only a hint: what the game times by beats has to keep its tempo",
        compare=_tempo,
    ),
    PointType(
        key="loudness",
        label="Loudness",
        kinds=SOUNDS,
        why="It should sit beside the game's other sounds",
        compare=_loudness,
        fit=(Fitting(90, _fit_loudness),),
        mend=_mend_loudness,
        served_by=("loudness",),
    ),
    PointType(
        key="family",
        label="Family",
        kinds=SOUNDS,
        why="The event plays its sounds in turn: one that stands out is heard at once",
        compare=_family,
        mend=_mend_loudness,
        served_by=("loudness",),
    ),
    PointType(
        key="peak",
        label="True peak",
        kinds=SOUNDS,
        why="Above full scale it crackles when it is played",
        compare=_peak,
        fit=(Fitting(80, _fit_peak),),
        mend=_mend_loudness,
        served_by=("loudness", "gain"),
    ),
    PointType(
        key="lead-in",
        label="Lead-in",
        kinds=SOUNDS,
        why="Silence before a sound makes it come late",
        compare=_lead,
        fit=(Fitting(20, _fit_lead),),
        mend=_mend_lead,
        served_by=("trim",),
    ),
    PointType(
        key="clipping",
        label="Clipping",
        kinds=SOUNDS,
        why="Flat tops were recorded too loud: they crackle at any loudness",
        compare=_clipping,
    ),
    PointType(
        key="dc",
        label="DC",
        kinds=SOUNDS,
        why="A wave beside zero clicks when it begins and ends",
        compare=_dc,
        fit=(Fitting(30, _fit_dc),),
        mend=lambda *_: [StepUse(do="dc")],
        served_by=("dc",),
    ),
    PointType(
        key="phase",
        label="Left and right",
        kinds=SOUNDS,
        why="Opposite channels cancel each other on one loudspeaker",
        compare=_phase,
        mend=_mend_phase,
    ),
    PointType(
        key="bit rate",
        label="Bit rate",
        kinds=SOUNDS,
        why="Too few bits are heard as a gurgle",
        compare=_bit_rate,
        encoded="best",
    ),
    PointType(
        key="tags",
        label="Tags",
        kinds=SOUNDS,
        why="Some games read them",
        compare=_tags,
        encoded="like",
    ),
    PointType(
        key="cues",
        label="Marked places",
        kinds=SOUNDS,
        why="The game may act when the sound comes to them",
        compare=_cues,
        encoded="like",
    ),
    PointType(
        key="size",
        label="Size",
        kinds=SOUNDS,
        why="The game has no room for more",
        compare=_size,
    ),
)
