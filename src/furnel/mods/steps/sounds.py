"""Steps for sounds."""

from __future__ import annotations

import math
from dataclasses import replace
from typing import cast

import numpy as np

from furnel import sound
from furnel.errors import FurnelError
from furnel.mods.steps.step import Around, Parameter, StepType, Taken, Values
from furnel.sound import Clip
from furnel.sound.words import channels_text
from furnel.words import number

_HOUR_S = 4 * 3600.0
_MOST = 1 << 31
_LAWS = ("fitting", "power", "straight")


def span_of(values: Values, rate: int, frames: int) -> tuple[int, int]:
    """The frames that `start` and `length` in seconds mean, of so many; a length of 0 goes to the end."""
    start, length = (round(float(values[name]) * rate) for name in ("start", "length"))
    return start, start + length if length else frames


PART = StepType(
    "part", "Take a part", "sound",
    (
        Parameter("start", "From", "number", 0.0, 0.0, _HOUR_S, "s"),
        Parameter("length", "Length (0: to the end)", "number", 0.0, 0.0, _HOUR_S, "s"),
    ),
    lambda clip, values, _: sound.part_of(clip, *span_of(values, clip.rate, clip.frames)),
    lambda values: f"{float(values['length']):g} s from {float(values['start']):g} s" if values["length"]
    else f"from {float(values['start']):g} s on",
    "time", takes=lambda values, taken: taken.part(float(values["start"]), float(values["length"])),
    begins=lambda values: "start", moves=True, span=span_of,
)  # fmt: skip


def _trim_takes(values: Values, taken: Taken) -> Taken:
    before, behind = taken.silence_s
    start = max(taken.start_s, before - float(values["lead"]) / 1000)
    return replace(taken, start_s=start, end_s=min(taken.end_s, taken.length_s - behind))


def _loop_takes(values: Values, taken: Taken) -> Taken:
    if not values["only"]:
        return taken
    return taken.part(int(values["start"]) / taken.rate, int(values["length"]) / taken.rate)


def _bars_takes(values: Values, taken: Taken) -> Taken:
    frames = sound.frames_of_bars(
        int(values["bars"]), int(values["meter"]), float(values["tempo"]), taken.rate
    )
    return taken.part(float(values["first"]), frames / taken.rate)


TRIM = StepType(
    "trim", "Cut off silence", "sound",
    (
        Parameter("floor", "Below its loudest", "number", sound.SILENT_DB, -96.0, -20.0, "dB"),
        Parameter("lead", "Silence before", "number", 0.0, 0.0, 5000.0, "ms"),
        Parameter("tail", "Silence behind", "number", 20.0, 0.0, 5000.0, "ms"),
    ),
    lambda clip, values, _: sound.trimmed(
        clip, float(values["floor"]), float(values["lead"]) / 1000, float(values["tail"]) / 1000
    ),
    lambda values: f"{float(values['lead']):g} ms before, {float(values['tail']):g} ms behind",
    "time", takes=_trim_takes, moves=True,
)  # fmt: skip

FADE = StepType(
    "fade", "Fade in and out", "sound",
    (
        Parameter("in", "Fade in", "number", 0.0, 0.0, 60000.0, "ms"),
        Parameter("out", "Fade out", "number", 200.0, 0.0, 60000.0, "ms"),
        Parameter("curve", "Curve", "choice", "straight", choices=sound.FADE_CURVES),
    ),
    lambda clip, values, _: sound.faded(
        clip, float(values["in"]) / 1000, float(values["out"]) / 1000, str(values["curve"])
    ),
    lambda values: f"in {float(values['in']):g} ms, out {float(values['out']):g} ms, {values['curve']}",
    "level",
)  # fmt: skip


def _say_limited(around: Around, limited_db: float) -> None:
    around.tell(f"limited by up to {limited_db:.1f} dB" if limited_db >= 0.05 else "nothing to limit")


def _gain(clip: Clip, values: Values, around: Around) -> Clip:
    louder, limited_db = sound.with_gain(clip, float(values["gain"]), float(values["ceiling"]))
    _say_limited(around, limited_db)
    return louder


_CEILING = Parameter("ceiling", "Never above", "number", -1.0, -24.0, 0.0, "dBTP")

GAIN = StepType(
    "gain", "Louder or quieter", "sound",
    (Parameter("gain", "Gain", "number", 0.0, -60.0, 40.0, "dB"), _CEILING),
    _gain,
    lambda values: f"{float(values['gain']):+g} dB, never above {float(values['ceiling']):g} dBTP",
    "level",
)  # fmt: skip


def _loudness(clip: Clip, values: Values, around: Around) -> Clip:
    target, ceiling = float(values["target"]), float(values["ceiling"])
    limited = 0.0
    for _ in range(3):  # limiting lowers the loudness a little: ask again for what is missing
        now = sound.integrated_loudness(clip.samples, clip.rate)
        if not math.isfinite(now) or abs(target - now) < 0.1:
            break
        clip, limited_db = sound.with_gain(clip, target - now, ceiling)
        limited += limited_db
    clip, limited_db = sound.with_gain(clip, 0.0, ceiling)  # also where the loudness was right already
    limited += limited_db
    _say_limited(around, limited)
    return clip


LOUDNESS = StepType(
    "loudness", "Match loudness", "sound",
    (Parameter("target", "Loudness", "number", -18.0, -70.0, 0.0, "LUFS"), _CEILING),
    _loudness,
    lambda values: f"{float(values['target']):.1f} LUFS, never above {float(values['ceiling']):.1f} dBTP",
    "level", is_last=True,
)  # fmt: skip

DC = StepType(
    "dc",
    "Remove DC",
    "sound",
    (),
    lambda clip, values, _: sound.without_dc(clip),
    lambda values: "centred on zero",
    "level",
)

CHANNELS = StepType(
    "channels", "Mono or stereo", "sound",
    (
        Parameter("channels", "Channels", "whole", 1, 1, 8),
        Parameter("law", "Mix to mono", "choice", "mean", choices=("mean", "power", "left", "right")),
    ),
    lambda clip, values, _: sound.with_channels(clip, int(values["channels"]), cast(sound.MixLaw, values["law"])),
    lambda values: f"to {channels_text(int(values['channels']))}",
    "format",
)  # fmt: skip

RATE = StepType(
    "rate", "Resample", "sound",
    (Parameter("rate", "Rate", "whole", 48000, 4000, 192000, "Hz"),),
    lambda clip, values, _: sound.resampled(clip, int(values["rate"])),
    lambda values: f"to {values['rate']} Hz",
    "format",
)  # fmt: skip


def _filter(id: str, title: str, kind: str, label: str, hertz: float) -> StepType:
    return StepType(
        id, title, "sound",
        (
            Parameter("hertz", label, "number", hertz, 10.0, 20000.0, "Hz"),
            Parameter("slope", "Slope per octave", "choice", "24 dB", choices=("12 dB", "24 dB", "48 dB")),
        ),
        lambda clip, values, _: sound.filtered(
            clip, kind, float(values["hertz"]), int(str(values["slope"]).split()[0])  # type: ignore[arg-type]
        ),
        lambda values: f"{label.lower()} {float(values['hertz']):g} Hz, {values['slope']} per octave",
        "colour",
    )  # fmt: skip


LOW_CUT = _filter("low-cut", "Take away the lows", "highpass", "Below", 80.0)
HIGH_CUT = _filter("high-cut", "Take away the highs", "lowpass", "Above", 12000.0)

STRETCH = StepType(
    "stretch", "Stretch to length", "sound",
    (Parameter("frames", "Length", "whole", 48000, 64, _MOST, "frames"),),
    lambda clip, values, around: _told_stretch(clip, int(values["frames"]), around),
    lambda values: f"to {number(int(values['frames']))} frames, same pitch",
    "time", moves=True,
)  # fmt: skip


def _told_stretch(clip: Clip, frames: int, around: Around) -> Clip:
    around.tell(f"{frames / max(clip.frames, 1):.1%} of its length")
    return sound.stretched(clip, frames)


TEMPO = StepType(
    "tempo", "Change the tempo", "sound",
    (
        Parameter("from", "From", "number", 120.0, 20.0, 400.0, "bpm"),
        Parameter("to", "To", "number", 120.0, 20.0, 400.0, "bpm"),
    ),
    lambda clip, values, around: _told_stretch(clip, round(clip.frames * float(values["from"]) / float(values["to"])), around),
    lambda values: f"{float(values['from']):g} to {float(values['to']):g} bpm at the same pitch",
    "time", moves=True,
)  # fmt: skip

PITCH = StepType(
    "pitch", "Change the pitch", "sound",
    (Parameter("semitones", "By", "number", 0.0, -24.0, 24.0, "semitones"),),
    lambda clip, values, _: sound.shifted(clip, float(values["semitones"])),
    lambda values: f"{float(values['semitones']):+g} semitones at the same length",
    "colour",
)  # fmt: skip


_TOLD_S = 0.01


def _length(clip: Clip, values: Values, around: Around) -> Clip:
    fill: sound.FillWith = "repeats" if values["fill"] == "repeats" else "silence"
    frames = int(values["frames"])
    gap = (frames - clip.frames) / clip.rate
    if abs(gap) >= _TOLD_S:
        more = "of silence behind it" if fill == "silence" else "repeated behind it"
        around.tell(f"{gap:.2f} s {more}" if gap > 0 else f"{-gap:.2f} s cut off its end")
    return sound.with_length(clip, frames, fill, float(values["fade"]) / 1000)


LENGTH = StepType(
    "length", "Cut or fill to length", "sound",
    (
        Parameter("frames", "Length", "whole", 48000, 1, _MOST, "frames"),
        Parameter("fill", "Fill up with", "choice", "silence", choices=("silence", "repeats")),
        Parameter("fade", "Fade where cut", "number", 30.0, 0.0, 10000.0, "ms"),
    ),
    _length,
    lambda values: f"{number(int(values['frames']))} frames, filled with {values['fill']}",
    "time", takes=lambda values, taken: taken.part(0.0, int(values["frames"]) / taken.rate),
)  # fmt: skip


def _loop(clip: Clip, values: Values, around: Around) -> Clip:
    start = min(int(values["start"]), clip.frames - 2)
    length = int(values["length"]) or clip.frames - start
    end = min(start + length, clip.frames)
    reach = round(float(values["search"]) / 1000 * clip.rate)
    if reach:
        start, end, alike = sound.best_seam(clip, start, end, reach, bool(values["keep"]))
        around.tell(f"{start / clip.rate:.2f} to {end / clip.rate:.2f} s, its ends {max(alike, 0):.0%} alike")
    closed = sound.closed_loop(
        clip, start, end, round(float(values["fade"]) / 1000 * clip.rate), cast(sound.SeamLaw, values["law"])
    )
    return sound.part_of(closed, start, end) if values["only"] else closed


LOOP = StepType(
    "loop", "Make a loop", "sound",
    (
        Parameter("start", "From", "whole", 0, 0, _MOST, "frames"),
        Parameter("length", "Length (0: to the end)", "whole", 0, 0, _MOST, "frames"),
        Parameter("search", "Look for a better seam within", "number", 500.0, 0.0, 10000.0, "ms"),
        Parameter("keep", "Keep the length", "switch", True),
        Parameter("fade", "Cross-fade", "number", 60.0, 0.0, 10000.0, "ms"),
        Parameter("law", "Cross-fade keeps", "choice", "fitting", choices=_LAWS),
        Parameter("only", "Only what repeats", "switch", True),
    ),
    _loop,
    lambda values: f"{values['length'] or 'all'} frames from {values['start']}, cross-fade {float(values['fade']):g} ms",
    "loop", takes=_loop_takes, begins=lambda values: "start" if values["only"] else "", leads=True, moves=True,
)  # fmt: skip


def _bars(clip: Clip, values: Values, around: Around) -> Clip:
    tempo, meter, bars = float(values["tempo"]), int(values["meter"]), int(values["bars"])
    first = round(float(values["first"]) * clip.rate)
    want = sound.frames_of_bars(bars, meter, tempo, clip.rate)
    have = math.floor((clip.frames - first) / clip.rate * tempo / 60 / meter + 1e-6)
    fade = round(float(values["fade"]) / 1000 * clip.rate)
    if have < 1:
        raise FurnelError(
            "Cutting to whole bars", why=f"from {float(values['first']):g} s on it has less than one bar",
            remedy="Correct the tempo, the meter or the first beat",
        )  # fmt: skip
    if have >= bars:
        closed = sound.closed_loop(clip, first, min(first + want, clip.frames), fade)
        part = sound.part_of(closed, first, closed.frames)
    else:
        phrase = sound.frames_of_bars(have, meter, tempo, clip.rate)
        part = sound.part_of(
            sound.closed_loop(clip, first, min(first + phrase, clip.frames), fade), first, first + phrase
        )
        around.tell(f"{have} bars, repeated to {bars}")
    copies = -(-want // part.frames)
    return Clip(np.tile(part.samples, (copies, 1))[:want].copy(), clip.rate, (0, want))


BARS = StepType(
    "bars", "Cut to whole bars", "sound",
    (
        Parameter("tempo", "Tempo", "number", 120.0, 20.0, 400.0, "bpm"),
        Parameter("first", "First beat at", "number", 0.0, 0.0, _HOUR_S, "s"),
        Parameter("meter", "Beats to a bar", "whole", 4, 1, 32),
        Parameter("bars", "Bars", "whole", 8, 1, 10000),
        Parameter("fade", "Cross-fade", "number", 30.0, 0.0, 2000.0, "ms"),
    ),
    _bars,
    lambda values: f"{values['bars']} bars of {values['meter']} at {float(values['tempo']):g} bpm",
    "loop", takes=_bars_takes, begins=lambda values: "first", leads=True, moves=True,
)  # fmt: skip


def _named_clip(name: object, clip: Clip, around: Around, what: str) -> Clip:
    """A file that a step names, at the clip's rate and channels."""
    other = around.clip(str(name), what)
    return sound.resampled(sound.with_channels(other, clip.channels), clip.rate)


def _layer(clip: Clip, values: Values, around: Around) -> Clip:
    over = _named_clip(values["file"], clip, around, "Layering sounds")
    over = sound.part_of(over, *span_of(values, over.rate, over.frames))
    fade_in, fade_out = (round(float(values[name]) / 1000 * clip.rate) for name in ("in", "out"))
    at = round(float(values["at"]) * clip.rate)
    return sound.layered(clip, over, at, float(values["gain"]), fade_in, fade_out, bool(values["cross"]))


LAYER = StepType(
    "layer", "Lay a file over it", "sound",
    (
        Parameter("file", "File", "file", ""),
        Parameter("at", "Begins at", "number", 0.0, 0.0, _HOUR_S, "s"),
        Parameter("gain", "Gain", "number", 0.0, -60.0, 24.0, "dB"),
        Parameter("start", "Its part from", "number", 0.0, 0.0, _HOUR_S, "s"),
        Parameter("length", "Length (0: to the end)", "number", 0.0, 0.0, _HOUR_S, "s"),
        Parameter("in", "Fade in", "number", 5.0, 0.0, 60000.0, "ms"),
        Parameter("out", "Fade out", "number", 5.0, 0.0, 60000.0, "ms"),
        Parameter("cross", "What lies under it fades away", "switch", False),
    ),
    _layer,
    lambda values: f"{str(values['file']).rpartition('/')[2] or 'no file yet'} at {float(values['at']):g} s",
    "layers", is_layer=True,
)  # fmt: skip

INTRO = StepType(
    "intro", "Put an intro before the loop", "sound",
    (
        Parameter("file", "File", "file", ""),
        Parameter("fade", "Cross-fade", "number", 30.0, 0.0, 10000.0, "ms"),
    ),
    lambda clip, values, around: sound.with_intro(
        _named_clip(values["file"], clip, around, "Putting an intro before"), clip,
        round(float(values["fade"]) / 1000 * clip.rate),
    ),
    lambda values: f"{str(values['file']).rpartition('/')[2] or 'no file yet'}, then the loop",
    "loop", moves=True,
)  # fmt: skip

STEPS = (
    PART, TRIM, LENGTH, STRETCH, TEMPO, GAIN, LOUDNESS, FADE, DC, RATE, CHANNELS, LOW_CUT, HIGH_CUT, PITCH, LOOP, BARS,
    INTRO, LAYER,
)  # fmt: skip
