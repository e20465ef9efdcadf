"""The fit: a result compared with the spec of its original, point by point, and what to do about each."""

from __future__ import annotations

import math
from dataclasses import dataclass
from typing import Literal

from furnel.errors import FurnelError
from furnel.mods.project import Encode, StepUse
from furnel.mods.spec import PictureSpec, RawSpec, SoundSpec, Spec, TextSpec

State = Literal["fits", "differs", "breaks"]
STATES: tuple[State, ...] = ("fits", "differs", "breaks")


@dataclass(frozen=True, slots=True)
class FitPoint:
    """One line of the fit table: what is compared, both values, how it stands, why it matters, what can be done."""

    key: str
    label: str
    original: str
    yours: str
    state: State
    why: str = ""
    remedy: str = ""


_KINDS = {"picture": "a picture", "sound": "a sound", "text": "a text", "other": "a file of another kind"}


def worst(points: list[FitPoint]) -> State:
    """The worst state among some points; `fits` when there are none."""
    return max((point.state for point in points), key=STATES.index, default="fits")


def compare(original: Spec, yours: Spec) -> list[FitPoint]:
    """The fit table of a result against its original."""
    if isinstance(original, PictureSpec) and isinstance(yours, PictureSpec):
        return _pictures(original, yours)
    if isinstance(original, SoundSpec) and isinstance(yours, SoundSpec):
        return _sounds(original, yours)
    if isinstance(original, TextSpec) and isinstance(yours, TextSpec):
        return _texts(original, yours)
    if isinstance(original, RawSpec) and isinstance(yours, RawSpec):
        same = original.file_type == yours.file_type
        return [FitPoint("file", "File", original.file_type, yours.file_type, "fits" if same else "differs")]
    return [
        FitPoint(
            "kind",
            "Kind",
            kind_of(original),
            kind_of(yours),
            "breaks",
            "The game expects another kind of file here",
            "Drop another source on the swap",
        )
    ]


def kind_of(spec: Spec) -> str:
    """What a spec is of, in a word."""
    if isinstance(spec, PictureSpec):
        return "picture"
    if isinstance(spec, SoundSpec):
        return "sound"
    return "text" if isinstance(spec, TextSpec) else "other"


def fit_all(original: Spec, source: Spec) -> tuple[tuple[StepUse, ...], Encode | None]:
    """The steps and the encoding that make a source fit its original. Raises FurnelError when none can."""
    if isinstance(original, PictureSpec) and isinstance(source, PictureSpec):
        return _fit_picture(original, source)
    if isinstance(original, SoundSpec) and isinstance(source, SoundSpec):
        return _fit_sound(original, source)
    if kind_of(original) == kind_of(source):
        return (), None
    raise FurnelError(
        "Fitting",
        why=f"the original is {_KINDS[kind_of(original)]} and the source {_KINDS[kind_of(source)]}",
        remedy="Drop another source",
    )


def _point(
    key: str, label: str, original: object, yours: object, bad: State, why: str, remedy: str
) -> FitPoint:
    same = original == yours
    return FitPoint(
        key, label, str(original), str(yours), "fits" if same else bad, why, "" if same else remedy
    )


def _pictures(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    points = [
        _point(
            "file",
            "File",
            original.file_type,
            yours.file_type,
            "breaks",
            "The game reads this kind of file only",
            f"Write it as {original.file_type}",
        ),
        _point(
            "size",
            "Size",
            f"{original.width} × {original.height}",
            f"{yours.width} × {yours.height}",
            "breaks",
            "Another size is read as garbage, or refused",
            f"Bring it to {original.width} × {original.height}",
        ),
    ]
    if original.file_type != "PNG" or yours.file_type != "PNG":
        points.append(
            _point(
                "format",
                "Format",
                original.format,
                _format_name(yours),
                "breaks",
                "The game takes the bytes for the original's format",
                f"Encode as {original.format}",
            )
        )
    if original.levels > 1 or yours.levels > 1:
        points.append(
            _point(
                "levels",
                "Levels",
                original.levels,
                yours.levels,
                "breaks" if yours.levels < original.levels else "differs",
                "From afar the game shows a smaller level; without it, nothing",
                f"Make {original.levels} levels in linear light",
            )
        )
    same_type = original.file_type == yours.file_type
    for key, label, why in (
        ("header", "Header", "Some games know only one of the two DDS headers"),
        ("rows", "Rows", "Read in the other order the picture hangs upside down"),
        ("run-length", "Run-length", "A game that does not expect it reads garbage"),
    ):
        if original.note(key):
            found = yours.note(key) if same_type else "—"
            points.append(
                _point(
                    key,
                    label,
                    original.note(key),
                    found,
                    "breaks",
                    why,
                    f"Write {label.lower()} {original.note(key)}",
                )
            )
    points.append(_alpha(original, yours))
    if original.cell is not None:
        points.append(_frames(original, yours))
    points.append(_brightness(original, yours))
    return points


def _alpha(original: PictureSpec, yours: PictureSpec) -> FitPoint:
    state: State = "fits"
    why, remedy = "Clear and half-clear pixels mean something to the game", ""
    if original.alpha != yours.alpha:
        state = "differs"
        if original.alpha == "none":
            remedy = "Drop the alpha"
        elif yours.alpha == "none":
            state = "breaks" if original.cell is not None else "differs"
            why = "Without clear pixels the figure stands in a box" if original.cell else why
            remedy = (
                "Clear the background colour"
                if yours.background
                else "Make the background clear in the source"
            )
    shown = {"none": "none used", "cut-out": "cut-out", "smooth": "smooth"}
    return FitPoint("alpha", "Alpha", shown[original.alpha], shown[yours.alpha], state, why, remedy)


def _frames(original: PictureSpec, yours: PictureSpec) -> FitPoint:
    assert original.cell is not None
    cell = f"{original.cell[0]} × {original.cell[1]}"
    fits = yours.frames == original.frames
    state: State = "fits" if fits else "breaks" if yours.frames == 0 else "differs"
    return FitPoint(
        "frames",
        "Frames",
        f"{original.frames} of {cell}",
        f"{yours.frames} of {cell}" if yours.frames else "no whole cells",
        state,
        "The game plays the cells one after the other",
        "" if fits else "Bring the sheet to the original's size",
    )


def _brightness(original: PictureSpec, yours: PictureSpec) -> FitPoint:
    gap = yours.brightness - original.brightness
    remedy = ""
    if abs(gap) > 0.12:
        verb, stops = "Darken" if gap > 0 else "Brighten", abs(stops_between(original, yours))
        remedy = f"{verb} by {stops:.1f} stops, if it should sit in like the original"
    return FitPoint(
        "brightness",
        "Brightness",
        f"{original.brightness:.0%}",
        f"{yours.brightness:.0%}",
        "differs" if remedy else "fits",
        "A picture much brighter or darker than its neighbours sticks out in the game",
        remedy,
    )


def stops_between(original: PictureSpec, yours: PictureSpec) -> float:
    """How many stops of exposure bring one mean brightness to the other (2.2 is about sRGB's exponent)."""
    return 2.2 * math.log2(max(original.brightness, 0.004) / max(yours.brightness, 0.004))


def _format_name(spec: PictureSpec) -> str:
    return spec.format if spec.file_type in ("DDS", "TGA") else spec.file_type


def _sounds(original: SoundSpec, yours: SoundSpec) -> list[FitPoint]:
    points = [
        _point(
            "file",
            "File",
            original.file_type,
            yours.file_type,
            "breaks",
            "The game reads this kind of file only",
            f"Write it as {original.file_type}",
        ),
        _point(
            "codec",
            "Codec",
            original.codec,
            yours.codec,
            "breaks",
            "Another codec stays silent",
            f"Encode as {original.codec}",
        ),
        _point(
            "rate",
            "Rate",
            f"{_thousands(original.rate)} Hz",
            f"{_thousands(yours.rate)} Hz",
            "breaks",
            "Played at the original's rate, its pitch changes",
            f"Resample to {_thousands(original.rate)} Hz",
        ),
        _point(
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


def _texts(original: TextSpec, yours: TextSpec) -> list[FitPoint]:
    well = "well formed"
    return [
        _point(
            "file",
            "File",
            original.file_type,
            yours.file_type,
            "breaks",
            "The game reads this kind of text only",
            "Save it so",
        ),
        FitPoint(
            "form",
            "Form",
            well,
            yours.fault or well,
            "breaks" if yours.fault else "fits",
            "A text that cannot be read is ignored, or stops the game",
            yours.fault and "Correct it in your text editor",
        ),
    ]


def _fit_picture(original: PictureSpec, source: PictureSpec) -> tuple[tuple[StepUse, ...], Encode | None]:
    steps: list[StepUse] = []
    if original.alpha != "none" and source.alpha == "none" and source.background is not None:
        colour = "{:02x}{:02x}{:02x}".format(*source.background)
        steps.append(StepUse(do="clear-colour", values={"colour": colour, "tolerance": 12, "softness": 0}))
    if (source.width, source.height) != (original.width, original.height):
        how = "stretch" if original.cell is not None else "fill"
        steps.append(
            StepUse(do="size", values={"width": original.width, "height": original.height, "how": how})
        )
    if original.alpha == "none" and source.alpha != "none":
        steps.append(StepUse(do="opaque"))
    elif original.alpha == "cut-out" and (source.alpha == "smooth" or steps) and original.cell is not None:
        steps.append(StepUse(do="hard-alpha", values={"threshold": 128}))
    notes = {key: value for key, value in original.notes if key in ("header", "rows", "run-length", "mode")}
    if original.file_type == "DDS" and original.srgb is not None:
        notes["srgb"] = "on" if original.srgb else "off"
    if original.file_type == "PNG":
        notes = {}
    encode = Encode(file=original.file_type, format=original.format, levels=original.levels, notes=notes)
    return tuple(steps), encode


def _fit_sound(original: SoundSpec, source: SoundSpec) -> tuple[tuple[StepUse, ...], Encode | None]:
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
    return tuple(steps), Encode(file=original.file_type, format=original.codec, levels=1)


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
