"""Fitting sounds."""

from __future__ import annotations

import math

from furnel import sound
from furnel.mods.fit.point import FitPoint, State, same_or
from furnel.mods.project import Encode, StepUse
from furnel.mods.soundspec import SoundSpec
from furnel.mods.steps import Value
from furnel.sound.words import channels_text, length_text, loudness_text, span_text
from furnel.words import number

_CEILING_DB = -1.0
_LEAD_S, _DC = 0.03, 0.005
_FAMILY_LU = 2.0
_STRETCH_MOST = 0.08
_LONG_S = 900.0
_OPPOSITE = -0.3
# tags that say what a recording is and whose: they are not another recording's
DESCRIBING = frozenset({
    "title", "artist", "album", "albumartist", "tracknumber", "discnumber", "date", "year", "genre", "comment", "description",
    "copyright", "license", "composer", "performer", "lyricist", "conductor", "arranger", "organization", "publisher",
    "contact", "isrc", "website", "location", "version",
})  # fmt: skip


def compare_sounds(original: SoundSpec, yours: SoundSpec) -> list[FitPoint]:
    """The fit table of a sound."""
    points = [
        same_or(
            "file", "File", original.file_type, yours.file_type, "breaks", "The game reads this kind of file only",
            f"Write it as {original.file_type}",
        ),
        same_or(
            "codec", "Codec", original.codec, yours.codec, "breaks", "Another codec stays silent",
            f"Encode as {original.codec}",
        ),
        same_or(
            "rate", "Rate", f"{number(original.rate)} Hz", f"{number(yours.rate)} Hz", "breaks",
            "Played at the original's rate, its pitch changes", f"Resample to {number(original.rate)} Hz",
        ),
        same_or(
            "channels", "Channels", channels_text(original.channels), channels_text(yours.channels), "breaks",
            "The game expects this many channels", f"Mix to {channels_text(original.channels)}",
        ),
        _length(original, yours),
    ]  # fmt: skip
    if yours.loop is not None or (original.loop is not None and not (original.loops and _is_whole(original))):
        points.append(_loop(original, yours))
    if original.rhythm is not None and yours.rhythm is not None:
        points.append(_tempo(original, yours))
    points += [_loudness(original, yours), _peak(original, yours), _lead(original, yours)]
    if original.family is not None:
        points.insert(-2, _family(original, yours))
    return [*points, *_faults(original, yours), *_file_points(original, yours)]


def _is_whole(spec: SoundSpec) -> bool:
    """Whether its loop is all of it: what a game repeats needs no loop in the file then."""
    return spec.loop == (0, spec.frames)


def _length(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    shown = "length", "Length", length_text(original.length_s), length_text(yours.length_s)
    if yours.frames == 0:
        return FitPoint(*shown, "breaks", "There is no sound in it", "Use a sound that has a length")
    if original.exact:
        same = abs(yours.frames / yours.rate - original.length_s) < 0.5 / original.rate
        if original.record and yours.loop is not None and not same:
            why = "Its own loop record goes into the mod with it"
            return FitPoint(*shown, "differs", why, "Fit all gives it the original's length")
        state: State = "fits" if same else "breaks" if yours.length_s < original.length_s else "differs"
        why = (
            "The loop jumps back at the original's last frame"
            if original.loops
            else "The game counts its frames"
        )
        return FitPoint(
            *shown, state, why, "" if same else f"Cut or repeat to {number(original.frames)} frames"
        )
    ratio = yours.length_s / max(original.length_s, 1e-6)
    state = "fits" if 0.5 <= ratio <= 1.5 else "differs"
    remedy = "" if state == "fits" else f"Cut or fill to {original.length_s:.2f} s"
    return FitPoint(*shown, state, "Much longer than the original it runs into the next sound", remedy)


def _loop(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    """Whether it repeats, and where; the whole sound when nothing says so."""
    wanted = original.loop or (0, original.frames)
    got = yours.loop
    shown = span_text(wanted, original.rate), span_text(got, yours.rate) if got else "none"
    same = got is not None and all(
        abs(a / original.rate - b / yours.rate) < 0.5 / original.rate
        for a, b in zip(wanted, got, strict=True)
    )
    why = "The game jumps back from its end to its start"
    if same:
        return FitPoint("loop", "Loop", *shown, "fits", why)
    if original.record and yours.loop is not None:
        return FitPoint("loop", "Loop", *shown, "differs", "Its own loop record goes into the mod with it")
    if original.record and yours.length_s >= original.length_s - 1 / original.rate:
        return FitPoint(
            "loop", "Loop", *shown, "differs", why, "Make a loop that ends where the original's does"
        )
    return FitPoint("loop", "Loop", *shown, "breaks", why, "Make a loop at the original's place")


def _tempo(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    assert original.rhythm is not None and yours.rhythm is not None
    return FitPoint(
        "tempo", "Tempo", f"{original.rhythm.tempo:.1f} bpm", f"{yours.rhythm.tempo:.1f} bpm", "fits",
        "Only a hint: what the game times by beats has to keep its tempo",
    )  # fmt: skip


def _loudness(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    gap = yours.loudness - original.loudness
    if yours.loudness == original.loudness or abs(gap) <= 1.5:
        loud = ""
    elif not math.isfinite(yours.loudness):
        loud = "It is silent: use another source, or another channel of it"
    elif not math.isfinite(original.loudness):
        loud = "The original is silent: what is heard now was not meant to be, or is new"
    else:
        loud = f"{'Turn down' if gap > 0 else 'Turn up'} by {abs(gap):.1f} LU"
    return FitPoint(
        "loudness", "Loudness", loudness_text(original.loudness), loudness_text(yours.loudness),
        "differs" if loud else "fits", "It should sit beside the game's other sounds", loud,
    )  # fmt: skip


def _family(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    assert original.family is not None
    low, high = original.family
    off = max(low - _FAMILY_LU - yours.loudness, yours.loudness - high - _FAMILY_LU, 0.0)
    remedy = f"Bring it to {(low + high) / 2:.1f} LUFS" if off else ""
    return FitPoint(
        "family", "Family", f"{low:.1f} to {high:.1f} LUFS", loudness_text(yours.loudness), "differs" if off else "fits",
        "The event plays its sounds in turn: one that stands out is heard at once", remedy,
    )  # fmt: skip


def _peak(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    over = yours.measures.true_peak > 1.0 and original.measures.true_peak <= 1.0
    return FitPoint(
        "peak", "True peak", _decibels(original.measures.true_peak), _decibels(yours.measures.true_peak),
        "differs" if over else "fits", "Above full scale it crackles when it is played",
        f"Hold it below {_CEILING_DB:g} dBTP" if over else "",
    )  # fmt: skip


def _lead(original: SoundSpec, yours: SoundSpec) -> FitPoint:
    late = yours.measures.lead_s - original.measures.lead_s
    off = late > _LEAD_S and not original.loops
    return FitPoint(
        "lead-in", "Lead-in", f"{original.measures.lead_s * 1000:.0f} ms", f"{yours.measures.lead_s * 1000:.0f} ms",
        "differs" if off else "fits", "Silence before a sound makes it come late", "Cut it off" if off else "",
    )  # fmt: skip


def _faults(original: SoundSpec, yours: SoundSpec) -> list[FitPoint]:
    """What is only worth a line when it is there."""
    out = []
    if yours.measures.clipped and not original.measures.clipped:
        out.append(
            FitPoint(
                "clipping", "Clipping", "none", f"{number(yours.measures.clipped)} frames", "differs",
                "Flat tops were recorded too loud: they crackle at any loudness", "Record it again, quieter",
            )
        )  # fmt: skip
    if yours.measures.dc > _DC and yours.measures.dc > 2 * original.measures.dc:
        out.append(
            FitPoint(
                "dc", "DC", f"{original.measures.dc:.2%}", f"{yours.measures.dc:.2%}", "differs",
                "A wave beside zero clicks when it begins and ends", "Centre it on zero",
            )
        )  # fmt: skip
    if yours.channels >= 2 and yours.measures.correlation < _OPPOSITE <= original.measures.correlation:
        out.append(
            FitPoint(
                "phase", "Left and right", f"{original.measures.correlation:+.2f}", f"{yours.measures.correlation:+.2f}",
                "differs", "Opposite channels cancel each other on one loudspeaker", "Use one of its channels for both",
            )
        )  # fmt: skip
    return out


def _file_points(original: SoundSpec, yours: SoundSpec) -> list[FitPoint]:
    out = []
    if original.codec in sound.LOSSY and yours.codec == original.codec:
        thin = yours.kilobits < 0.5 * original.kilobits
        out.append(
            FitPoint(
                "bit rate", "Bit rate", f"{original.kilobits:.0f} kbit/s", f"{yours.kilobits:.0f} kbit/s",
                "differs" if thin else "fits", "Too few bits are heard as a gurgle", "Encode it better" if thin else "",
            )
        )  # fmt: skip
    wanted = [name for name, _ in original.tags if name not in DESCRIBING]
    if wanted:
        missing = [name for name in wanted if dict(yours.tags).get(name) is None]
        out.append(
            FitPoint(
                "tags", "Tags", ", ".join(wanted),
                ", ".join(name for name, _ in yours.tags) or "none", "differs" if missing else "fits",
                "Some games read them", "Take over the original's" if missing else "",
            )
        )  # fmt: skip
    if original.cues:
        missing_cues = len(yours.cues) < len(original.cues)
        out.append(
            FitPoint(
                "cues", "Marked places", str(len(original.cues)), str(len(yours.cues)),
                "differs" if missing_cues else "fits", "The game may act when the sound comes to them",
                "Take over the original's" if missing_cues else "",
            )
        )  # fmt: skip
    if original.most_bytes:
        over = yours.size > original.most_bytes
        out.append(
            FitPoint(
                "size", "Size", f"up to {number(original.most_bytes)} bytes", f"{number(yours.size)} bytes",
                "breaks" if over else "fits", "The game has no room for more",
                "Shorten it or encode it smaller" if over else "",
            )
        )  # fmt: skip
    return out


def fit_sound(
    original: SoundSpec, source: SoundSpec, insist: tuple[str, ...] = (), now: Encode | None = None
) -> tuple[tuple[StepUse, ...], Encode]:
    """The steps and the encoding that make a sound fit. What `insist` names is left alone: for the encoding, as it is `now`."""
    steps: list[StepUse] = []
    if source.length_s > _LONG_S and "length" not in insist:
        steps.append(_first_part(original, source))
    if _lead(original, source).state != "fits" and "lead-in" not in insist:
        steps.append(trim_step(original))
    if source.measures.dc > _DC and source.measures.dc > 2 * original.measures.dc:
        steps.append(StepUse(do="dc"))
    if source.channels != original.channels and "channels" not in insist:
        opposite = original.channels == 1 and source.channels == 2 and source.measures.correlation < _OPPOSITE
        law = "left" if opposite else "mean"  # opposite channels would cancel each other
        steps.append(StepUse(do="channels", values={"channels": original.channels, "law": law}))
    if source.rate != original.rate and "rate" not in insist:
        steps.append(StepUse(do="rate", values={"rate": original.rate}))
    if "length" not in insist:
        steps += (
            loop_steps(original, source)
            if original.exact and original.loops
            else _length_steps(original, source)
        )
    if original.loop is not None and not original.loops and "loop" not in insist:
        steps += _carried_loop(original, source)
    if not math.isfinite(original.loudness) and source.measures.true_peak > 1 and "peak" not in insist:
        steps.append(StepUse(do="gain", values={"gain": 0.0, "ceiling": _CEILING_DB}))
    if math.isfinite(original.loudness) and "loudness" not in insist:
        steps.append(loudness_step(original))
    kept = now is not None and bool({"file", "codec"} & set(insist))
    return tuple(steps), now if kept and now is not None else encode_sound_like(original)


def _first_part(original: SoundSpec, source: SoundSpec) -> StepUse:
    """Enough of a long recording for what the original needs, so that no more of it is decoded."""
    lead = source.beats.first_s if source.beats is not None else source.measures.lead_s
    return StepUse(
        do="part", values={"start": 0.0, "length": float(math.ceil(lead + original.length_s * 1.6 + 5))}
    )


def loudness_step(original: SoundSpec) -> StepUse:
    """Matching the original's loudness, inside what its event's other sounds have."""
    target = original.loudness
    if original.family is not None:
        low, high = original.family
        target = min(max(target, low - _FAMILY_LU / 2), high + _FAMILY_LU / 2)
    return StepUse(do="loudness", values={"target": round(target, 1), "ceiling": _CEILING_DB})


def trim_step(original: SoundSpec) -> StepUse:
    """Cutting off the silence at the ends, down to what the original has before its sound."""
    return StepUse(do="trim", values={"lead": float(round(original.measures.lead_s * 1000))})


def _length_steps(original: SoundSpec, source: SoundSpec) -> list[StepUse]:
    frames = round(source.frames * original.rate / source.rate)
    if original.loop is not None and not original.loops:
        return []  # its loop decides
    free = not original.exact and 0.5 <= frames / max(original.frames, 1) <= 1.5
    if free or frames == original.frames:
        return []
    fade = 30 if original.exact or frames < original.frames else 60
    return [StepUse(do="length", values={"frames": original.frames, "fill": "silence", "fade": fade})]


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
    if rhythm is not None:
        bar_s = rhythm.meter * 60 / rhythm.tempo
        bars = max(round(original.length_s / bar_s), 1)
        frames = sound.frames_of_bars(bars, rhythm.meter, rhythm.tempo, original.rate)
        if abs(frames / original.frames - 1) <= _STRETCH_MOST and source.length_s - rhythm.first_s >= bar_s:
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


def mend_sound(key: str, original: SoundSpec, result: SoundSpec) -> list[StepUse] | None:
    """The steps that put one point right after all others, or None when none do."""
    if key in ("loudness", "family", "peak"):
        return [loudness_step(original)]
    if key == "lead-in":
        return [trim_step(original)]
    if key == "dc":
        return [StepUse(do="dc")]
    if key == "loop" and not original.loops and original.loop is not None:
        return _carried_loop(original, result)
    if key == "rate":
        return [StepUse(do="rate", values={"rate": original.rate})]
    if key in ("channels", "phase"):
        to_mono = StepUse(do="channels", values={"channels": 1, "law": "left" if key == "phase" else "mean"})
        out = [to_mono] if key == "phase" or original.channels == 1 else []
        return out + (
            [StepUse(do="channels", values={"channels": original.channels})] if original.channels > 1 else []
        )
    if key in ("length", "loop"):
        return loop_steps(original, result) if original.loops else _length_steps(original, result)
    return None


def encode_sound_like(original: SoundSpec) -> Encode:
    """The encoding that gives a file like the original, tags included."""
    file_type, codec = sound.writable_as(original.file_type, original.codec)
    if codec != original.codec:
        return Encode(file=file_type, format=codec, levels=1)
    notes = {f"tag {name}": value for name, value in original.tags if name not in DESCRIBING}
    notes |= {f"cue {cue.frame}": cue.name for cue in original.cues}
    return Encode(file=file_type, format=codec, levels=1, notes=notes)


def _decibels(peak: float) -> str:
    return f"{sound.to_decibels(peak):.1f} dBTP" if peak > 0 else "silent"
