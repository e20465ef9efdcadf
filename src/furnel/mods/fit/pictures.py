"""Fit points of pictures, textures and sheets alike, and how they are brought to fit."""

from __future__ import annotations

import math
from collections.abc import Sequence

from furnel.imagefiles import NOTES, picture_file
from furnel.media import PictureSpec
from furnel.mods.fit.point import TEXTURES, Finding, FitPoint, Fitting, PointType, same
from furnel.mods.fit.sheetcolours import COLOUR_POINTS
from furnel.mods.fit.sheets import SHEET_POINTS, frames_steps, same_shape, whole_size
from furnel.mods.project import StepUse
from furnel.states import State

_SEAM = 2.5  # from this multiple of the usual difference between neighbours on, a seam is seen
_SEAM_TEXTS = {"across": "left to right", "down": "top to bottom", "both": "both ways"}
_REPEATS = {"across": "repeats left to right", "down": "repeats top to bottom", "both": "repeats both ways"}
_MEANINGS = {
    "colour": "colour",
    "grey": "grey, to be tinted",
    "normals": "a normal map",
    "masks": "a mask a channel",
}
_MEANT = {
    "grey": "The game multiplies it with a colour; a coloured picture comes out in the wrong one",
    "normals": "The game reads directions from it; any other picture gives random light",
    "masks": "Each channel switches something of its own",
    "colour": "The game shows these channels as colours",
}


# size and shape


def _file(original: PictureSpec, yours: PictureSpec) -> Finding:
    return same(original.file_type, yours.file_type, "breaks", f"Write it as {original.file_type}")


def _size(original: PictureSpec, yours: PictureSpec) -> Finding:
    return same(_size_text(original), _size_text(yours), "breaks", f"Bring it to {_size_text(original)}")


def _size_text(spec: PictureSpec) -> str:
    return f"{spec.width} × {spec.height}"


def _power(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    return _lost(original, _is_power(original) and not _is_power(yours))


def _fourfold(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    return _lost(original, _is_fourfold(original) and not _is_fourfold(yours))


def _lost(original: PictureSpec, lost: bool) -> Finding | None:
    return Finding("yes", "no", "differs", f"Bring it to {_size_text(original)}") if lost else None


def _is_power(spec: PictureSpec) -> bool:
    return spec.width & (spec.width - 1) == 0 and spec.height & (spec.height - 1) == 0


def _is_fourfold(spec: PictureSpec) -> bool:
    return spec.width % 4 == 0 and spec.height % 4 == 0


def _fit_size(original: PictureSpec, source: PictureSpec, _: Sequence[StepUse]) -> list[StepUse]:
    other = (source.width, source.height * source.pictures) != whole_size(original)
    if other and (original.cell is None or (same_shape(original, source) and not original.meets)):
        return [size_step(original, "stretch" if original.cell is not None else "fill")]
    return []


def _mend_size(original: PictureSpec, yours: PictureSpec) -> list[StepUse]:
    return frames_steps(original, yours) or [size_step(original, "fill")]


def size_step(original: PictureSpec, how: str) -> StepUse:
    """The step that brings a picture to an original's size, all its pictures one below the other."""
    width, height = whole_size(original)
    return StepUse(do="size", values={"width": width, "height": height, "how": how})


def _pictures(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if original.shape == yours.shape == "flat":
        return None
    names = {"flat": "one picture", "array": "layers", "cube": "faces", "volume": "slices"}

    def told(spec: PictureSpec) -> str:
        return names[spec.shape] if spec.shape == "flat" else f"{spec.pictures} {names[spec.shape]}"

    return same(
        told(original), told(yours), "breaks", f"Write {told(original)}, one below the other in the source"
    )


# what the file says


def _format(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if original.file_type == yours.file_type and not picture_file(original.file_type).formats:
        return None  # its colour type and depth tell
    found = yours.format if picture_file(yours.file_type).formats else yours.file_type
    return same(original.format, found, "breaks", f"Encode as {original.format}")


def _colour_space(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if original.srgb is None or yours.srgb is None or original.file_type != yours.file_type:
        return None
    names = {True: "sRGB", False: "linear"}
    return same(names[original.srgb], names[yours.srgb], "breaks", f"Mark it as {names[original.srgb]}")


def _levels(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if original.levels == yours.levels == 1:
        return None
    otherwise: State = "breaks" if yours.levels < original.levels else "differs"
    return same(original.levels, yours.levels, otherwise, f"Make {original.levels} levels in linear light")


def _written(key: str, label: str, why: str) -> PointType:
    """A point for a note that the original's file has, such as in which order its rows are."""

    def compare(original: PictureSpec, yours: PictureSpec) -> Finding | None:
        wanted = original.note(key)
        found = (yours.note(key) or "none") if original.file_type == yours.file_type else "—"
        return same(wanted, found, "breaks", f"Write {label.lower()} {wanted}") if wanted else None

    return PointType(key=key, label=label, kinds=TEXTURES, why=why, compare=compare, encoded="like")


# alpha and channels


def _alpha(original: PictureSpec, yours: PictureSpec) -> Finding:
    shown = {"none": "none used", "cut-out": "cut-out", "smooth": "smooth"}
    both = shown[original.alpha], shown[yours.alpha]
    if original.alpha == yours.alpha:
        return Finding(*both)
    if original.alpha == "none":
        return Finding(*both, "differs", "Drop the alpha")
    if yours.alpha != "none":
        return Finding(*both, "differs")
    remedy = "Clear the background colour" if yours.background else "Take the original's alpha"
    if original.cell is None:
        return Finding(*both, "differs", remedy)
    return Finding(*both, "breaks", remedy, "Without clear pixels the figure stands in a box")


def _wants_alpha(original: PictureSpec, source: PictureSpec) -> bool:
    return original.alpha != "none" and source.alpha == "none"


def _fit_background(original: PictureSpec, source: PictureSpec, steps: Sequence[StepUse]) -> list[StepUse]:
    if any(use.do == "frames" for use in steps):
        return []  # it takes the ground away by itself
    wanted = _wants_alpha(original, source) and source.background is not None
    return [clear_step(source.background)] if wanted and source.background is not None else []


def _fit_alpha(original: PictureSpec, source: PictureSpec, _: Sequence[StepUse]) -> list[StepUse]:
    wanted = _wants_alpha(original, source) and source.background is None and original.cell is None
    return [StepUse(do="keep-alpha")] if wanted else []


def _fit_hardness(original: PictureSpec, source: PictureSpec, steps: Sequence[StepUse]) -> list[StepUse]:
    if original.alpha == "none" and source.alpha != "none":
        return [StepUse(do="opaque")]
    soft = original.alpha == "cut-out" and (source.alpha == "smooth" or steps)
    return [StepUse(do="hard-alpha", values={"threshold": 128})] if soft and original.cell is not None else []


def _mend_alpha(original: PictureSpec, yours: PictureSpec) -> list[StepUse]:
    if original.alpha == "none":
        return [StepUse(do="opaque")]
    if yours.background is not None and yours.alpha == "none":
        return [clear_step(yours.background)]
    return [StepUse(do="keep-alpha" if yours.alpha == "none" else "hard-alpha")]


def clear_step(background: tuple[int, int, int]) -> StepUse:
    """The step that clears a background colour."""
    colour = "{:02x}{:02x}{:02x}".format(*background)
    return StepUse(do="clear-colour", values={"colour": colour, "tolerance": 12, "softness": 0})


def _premultiplied(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if not original.note("alpha") and not yours.note("alpha"):
        return None
    wanted = original.note("alpha") or "straight"
    return same(wanted, yours.note("alpha") or "straight", "breaks", f"Write it {wanted}")


def _under_alpha(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if "none" in (original.under, yours.under):
        return None
    names = {"spread": "the nearest colour", "black": "black", "white": "white", "mixed": "of all sorts"}
    both = names[original.under], names[yours.under]
    if original.under == "spread" and yours.under != "spread":
        return Finding(*both, "differs", "Spread the nearest colour under them")
    return Finding(*both)


def _channels(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    meant = original.meaning
    if meant == yours.meaning or (meant == "colour" and yours.meaning == "grey"):
        return None if meant == "colour" else Finding(_MEANINGS[meant], _MEANINGS[yours.meaning])
    if meant == "masks" and yours.meaning != "normals":
        return Finding(_MEANINGS[meant], _MEANINGS[meant], why=_MEANT[meant])
    remedies = {
        "grey": "Make it grey",
        "normals": "Use a normal map: it tells which way each spot faces",
        "masks": "Pack one mask into each channel with Mix and pack channels",
        "colour": "Use a picture in colour",
    }
    return Finding(_MEANINGS[meant], _MEANINGS[yours.meaning], "differs", remedies[meant], _MEANT[meant])


def _fit_channels(original: PictureSpec, source: PictureSpec, _: Sequence[StepUse]) -> list[StepUse]:
    return [StepUse(do="grey")] if original.meaning == "grey" and source.meaning == "colour" else []


# what it looks like


def _seams(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if original.repeats == "no":
        return None
    seen, told = seams_of(original, yours), _REPEATS[original.repeats]
    return (
        Finding(told, f"a seam shows {_SEAM_TEXTS[seen]}", "differs", "Blend the seams")
        if seen
        else Finding(told, told)
    )


def seams_of(original: PictureSpec, yours: PictureSpec) -> str:
    """In which directions a seam shows where the original repeats: `across`, `down`, `both` or nothing."""
    seen = [
        name
        for name, place, wanted in (("across", 0, ("across", "both")), ("down", 1, ("down", "both")))
        if original.repeats in wanted and yours.seams[place] > max(_SEAM, original.seams[place] * 1.3)
    ]
    return "both" if len(seen) == 2 else "".join(seen)


def _mend_seams(original: PictureSpec, yours: PictureSpec) -> list[StepUse] | None:
    where = seams_of(original, yours)
    return [StepUse(do="seamless", values={"repeats": where, "share": 12})] if where else None


def _palette(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if not original.colours:
        return None
    both = f"{original.colours} colours", f"{yours.colours} colours" if yours.colours else "true colour"
    if 0 < yours.colours <= original.colours:
        return Finding(*both)
    return Finding(
        *both, "breaks" if yours.colours == 0 else "differs", "Reduce it to the original's colours"
    )


def _fit_palette(original: PictureSpec, source: PictureSpec, _: Sequence[StepUse]) -> list[StepUse]:
    if not original.colours or source.colours == original.colours:
        return []
    return [StepUse(do="few-colours", values={"from": "the original's", "count": max(original.colours, 2)})]


def _brightness(original: PictureSpec, yours: PictureSpec) -> Finding:
    gap, both = (
        yours.brightness - original.brightness,
        (f"{original.brightness:.0%}", f"{yours.brightness:.0%}"),
    )
    if abs(gap) <= 0.12:
        return Finding(*both)
    verb, stops = "Darken" if gap > 0 else "Brighten", abs(stops_between(original, yours))
    return Finding(*both, "differs", f"{verb} by {stops:.1f} stops, if it should sit in like the original")


def stops_between(original: PictureSpec, yours: PictureSpec) -> float:
    """How many stops of exposure bring one mean brightness to the other (2.2 is about sRGB's exponent)."""
    return 2.2 * math.log2(max(original.brightness, 0.004) / max(yours.brightness, 0.004))


def _mend_brightness(original: PictureSpec, yours: PictureSpec) -> list[StepUse]:
    return [brightness_step(stops_between(original, yours))]


def brightness_step(stops: float) -> StepUse:
    """The step that makes a picture brighter by so many stops of exposure, as far as it goes."""
    return StepUse(do="brightness", values={"stops": max(-4.0, min(round(stops, 1), 4.0))})


def _contrast(original: PictureSpec, yours: PictureSpec) -> Finding:
    both = f"{original.contrast:.0%}", f"{yours.contrast:.0%}"
    flat, hard = yours.contrast < original.contrast / 2, yours.contrast > original.contrast * 2
    if (flat or hard) and abs(yours.contrast - original.contrast) > 0.06:
        return Finding(*both, "differs", "Match the original's tones, if it should sit in like the original")
    return Finding(*both)


def _range(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """How bright the brightest is where it may be brighter than white."""
    if original.brightest <= 1 and yours.brightest <= 1:
        return None
    both = f"{original.brightest:.3g} × white", f"{yours.brightest:.3g} × white"
    if 0.5 <= yours.brightest / max(original.brightest, 1e-3) <= 2:
        return Finding(*both)
    return Finding(*both, "differs", f"Let white become {original.brightest:.3g}")


def _keep_out(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if not original.has_keep_out:
        return None
    if yours.ink <= original.ink + 0.02:
        return Finding("left alone", "left alone")
    return Finding("left alone", f"{yours.ink:.0%} painted over", "differs", "Keep what matters out of them")


PICTURE_POINTS = (
    PointType(
        key="file",
        label="File",
        kinds=TEXTURES,
        why="The game reads this kind of file only",
        compare=_file,
        encoded="like",
    ),
    PointType(
        key="size",
        label="Size",
        kinds=TEXTURES,
        why="Another size is read as garbage, or refused",
        compare=_size,
        fit=(Fitting(20, _fit_size),),
        mend=_mend_size,
        served_by=("size",),
    ),
    PointType(
        key="power of two",
        label="Power of two",
        kinds=TEXTURES,
        why="Many games refuse other sides, or cannot make levels of them",
        compare=_power,
        mend=_mend_size,
        served_by=("size",),
    ),
    PointType(
        key="multiple of four",
        label="Multiple of four",
        kinds=TEXTURES,
        why="Blocks are four pixels square: other sides crash some games",
        compare=_fourfold,
        mend=_mend_size,
        served_by=("size",),
    ),
    PointType(
        key="pictures",
        label="Pictures",
        kinds=TEXTURES,
        why="The game looks for all of them in one file",
        compare=_pictures,
        encoded="like",
    ),
    PointType(
        key="format",
        label="Format",
        kinds=TEXTURES,
        why="The game takes the bytes for the original's format",
        compare=_format,
        encoded="like",
    ),
    PointType(
        key="colour space",
        label="Colour space",
        kinds=TEXTURES,
        why="Read as the other the picture comes out far too dark or too pale",
        compare=_colour_space,
        encoded="like",
    ),
    PointType(
        key="levels",
        label="Levels",
        kinds=TEXTURES,
        why="From afar the game shows a smaller level; without it, nothing",
        compare=_levels,
        encoded="like",
    ),
    *(_written(note.key, note.label, note.why) for note in NOTES if note.why),
    PointType(
        key="alpha",
        label="Alpha",
        kinds=TEXTURES,
        why="Clear and half-clear pixels mean something to the game",
        compare=_alpha,
        fit=(Fitting(10, _fit_background), Fitting(30, _fit_alpha), Fitting(60, _fit_hardness)),
        mend=_mend_alpha,
        served_by=("clear-colour", "keep-alpha", "opaque", "hard-alpha"),
    ),
    PointType(
        key="premultiplied",
        label="Alpha is",
        kinds=TEXTURES,
        why="Read as the other, soft edges get dark or bright rims",
        compare=_premultiplied,
        encoded="like",
    ),
    PointType(
        key="under alpha",
        label="Under clear pixels",
        kinds=TEXTURES,
        why="What lies under clear pixels bleeds into the edges when the game makes the picture smaller",
        compare=_under_alpha,
        mend=lambda *_: [StepUse(do="spread")],
    ),
    PointType(
        key="channels",
        label="Channels",
        kinds=TEXTURES,
        why="The game reads something of its own from each channel",
        compare=_channels,
        fit=(Fitting(40, _fit_channels),),
        mend=lambda original, _: [StepUse(do="grey")] if original.meaning == "grey" else None,
        served_by=("grey",),
    ),
    *SHEET_POINTS,
    *COLOUR_POINTS,
    PointType(
        key="tiling",
        label="Edges",
        kinds=TEXTURES,
        why="The game lays it side by side with itself: edges that do not meet show as lines",
        compare=_seams,
        fit=(Fitting(50, lambda original, source, _: _mend_seams(original, source) or []),),
        mend=_mend_seams,
        served_by=("seamless",),
    ),
    PointType(
        key="palette",
        label="Palette",
        kinds=TEXTURES,
        why="The game looks colours up in a table of this size",
        compare=_palette,
        fit=(Fitting(70, _fit_palette),),
        mend=lambda *_: [StepUse(do="few-colours", values={"from": "the original's"})],
        served_by=("few-colours",),
    ),
    PointType(
        key="brightness",
        label="Brightness",
        kinds=TEXTURES,
        why="A picture much brighter or darker than its neighbours sticks out in the game",
        compare=_brightness,
        mend=_mend_brightness,
    ),
    PointType(
        key="contrast",
        label="Contrast",
        kinds=TEXTURES,
        why="Flat among hard pictures, or hard among flat ones, it sticks out",
        compare=_contrast,
        mend=lambda *_: [StepUse(do="match-tones")],
    ),
    PointType(
        key="range",
        label="Brightest",
        kinds=TEXTURES,
        why="The game's glare and exposure follow what is brighter than white",
        compare=_range,
        encoded="like",
    ),
    PointType(
        key="keep-out",
        label="Keep-out areas",
        kinds=TEXTURES,
        why="The game covers or never shows these areas of the picture",
        compare=_keep_out,
    ),
    ASPECT := PointType(
        key="aspect",
        label="Proportions",
        kinds=TEXTURES,
        why="A stretched picture looks squashed in the game, unless the game stretches it back",
        mend=_mend_size,
    ),
)


def aspect_point(source: tuple[int, int], target: tuple[int, int]) -> FitPoint:
    """How a source of one size (width, height) was distorted to another."""
    ratio = (target[0] / target[1]) / (source[0] / source[1])
    wider = ratio if ratio >= 1 else 1 / ratio
    if wider <= 1.02:
        return ASPECT.point(Finding("as they are", "as they are"))
    bent = f"{wider:.2f} × too {'wide' if ratio > 1 else 'tall'}"
    return ASPECT.point(Finding("as they are", bent, "differs", "Choose fill or inside in Bring to size"))
