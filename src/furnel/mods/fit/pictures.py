"""Fitting textures and sheets."""

from __future__ import annotations

import math

from furnel.images.formats import FORMATS
from furnel.mods.fit.point import FitPoint, State, same_or
from furnel.mods.project import Encode, LevelsAs, StepUse
from furnel.mods.spec import PictureSpec
from furnel.words import count

_SEAM = 2.5  # from this multiple of the usual difference between neighbours on, a seam is seen
_KEPT_NOTES = (
    "header", "rows", "run-length", "mode", "alpha", "row alignment", "supercompression", "palette", "alpha bit", "footer",
)  # fmt: skip
_SEAM_TEXTS = {"across": "left to right", "down": "top to bottom", "both": "both ways"}
_WRITTEN = (
    ("header", "Header", "Some games know only one of the two DDS headers"),
    ("supercompression", "Packing", "A game that does not unpack it reads garbage"),
    ("rows", "Rows", "Read in the other order the picture hangs upside down"),
    ("run-length", "Run-length", "A game that does not expect it reads garbage"),
    ("row alignment", "Row padding", "Rows of another length shift the picture line by line"),
)


def compare_pictures(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    """The fit table of a picture."""
    points = [
        same_or(
            "file", "File", original.file_type, yours.file_type, "breaks",
            "The game reads this kind of file only", f"Write it as {original.file_type}",
        ),
        same_or(
            "size", "Size", _size(original), _size(yours), "breaks",
            "Another size is read as garbage, or refused", f"Bring it to {_size(original)}",
        ),
        *_grid(original, yours),
        *_shape(original, yours),
        *_format(original, yours),
    ]  # fmt: skip
    if original.levels > 1 or yours.levels > 1:
        points.append(
            same_or(
                "levels", "Levels", original.levels, yours.levels,
                "breaks" if yours.levels < original.levels else "differs",
                "From afar the game shows a smaller level; without it, nothing",
                f"Make {original.levels} levels in linear light",
            )
        )  # fmt: skip
    same_type = original.file_type == yours.file_type
    for key, label, why in _WRITTEN:
        if original.note(key):
            found = (yours.note(key) or "none") if same_type else "—"
            remedy = f"Write {label.lower()} {original.note(key)}"
            points.append(same_or(key, label, original.note(key), found, "breaks", why, remedy))
    points.append(_alpha(original, yours))
    points += _alpha_details(original, yours)
    points += _channels(original, yours)
    if original.cell is not None:
        points.append(_frames(original, yours))
        points += _cells(original, yours)
    points += _seams(original, yours)
    points += _palette(original, yours)
    points.append(_brightness(original, yours))
    points += _light(original, yours)
    points += _keep_out(original, yours)
    return points


def fit_picture(
    original: PictureSpec, source: PictureSpec, insist: tuple[str, ...] = (), now: Encode | None = None
) -> tuple[tuple[StepUse, ...], Encode]:
    """The steps and the encoding that make a picture fit; what is in `insist` is left as it is (in `now`)."""
    steps: list[StepUse] = []
    wants_alpha = original.alpha != "none" and source.alpha == "none" and "alpha" not in insist
    if wants_alpha and source.background is not None:
        steps.append(clear_step(source.background))
    other = (source.width, source.height * source.pictures) != _whole_size(original)
    if other and "size" not in insist and (original.cell is None or _same_shape(original, source)):
        steps.append(size_step(original, "stretch" if original.cell is not None else "fill"))
    if wants_alpha and source.background is None and original.cell is None:
        steps.append(StepUse(do="keep-alpha"))
    if original.meaning == "grey" and source.meaning == "colour" and "channels" not in insist:
        steps.append(StepUse(do="grey"))
    if "tiling" not in insist and (where := seams_of(original, source)):
        steps.append(seam_step(where))
    if "alpha" not in insist:
        if original.alpha == "none" and source.alpha != "none":
            steps.append(StepUse(do="opaque"))
        elif (
            original.alpha == "cut-out" and (source.alpha == "smooth" or steps) and original.cell is not None
        ):
            steps.append(StepUse(do="hard-alpha", values={"threshold": 128}))
    if original.colours and source.colours != original.colours and "palette" not in insist:
        steps.append(
            StepUse(do="few-colours", values={"from": "the original's", "count": max(original.colours, 2)})
        )
    encode = encode_like(original)
    if now is not None:
        if {"format", "file"} & set(insist):
            encode = encode.model_copy(update={"file": now.file, "format": now.format, "notes": now.notes})
        if "levels" in insist:
            encode = encode.model_copy(update={"levels": now.levels})
        encode = encode.model_copy(update={"quality": now.quality})
        if (weighting := now.notes.get("weighting")) is not None:
            encode = encode.model_copy(update={"notes": {**encode.notes, "weighting": weighting}})
    return tuple(steps), encode


def encode_like(original: PictureSpec) -> Encode:
    """The encoding that gives a file like the original."""
    notes = {key: value for key, value in original.notes if key in _KEPT_NOTES}
    if original.srgb is not None and original.file_type in ("DDS", "KTX2"):
        notes["srgb"] = "on" if original.srgb else "off"
    if original.file_type == "PNG":
        notes = {"mode": "palette", "table": original.note("table")} if original.colours else {}
    if original.brightest > 1:
        notes["white"] = f"{original.brightest:.3g}"
    if original.format == "BC1" and original.alpha == "none":
        notes["cut-out"] = "off"
    levels_as: LevelsAs = "colour"
    if original.levels > 1:
        if original.meaning == "normals":
            levels_as = "normals"
        elif original.meaning == "masks" or FORMATS[original.format].channels in ("R", "RG", "A"):
            levels_as = "values"
        elif original.alpha == "cut-out":
            levels_as = "cut-out"
    return Encode(
        file=original.file_type, format=original.format, levels=original.levels, levels_as=levels_as,
        repeats=original.repeats, shape=original.shape, pictures=original.pictures, notes=notes,
    )  # fmt: skip


def size_step(original: PictureSpec, how: str) -> StepUse:
    """The step that brings a picture to an original's size, all its pictures one below the other."""
    width, height = _whole_size(original)
    return StepUse(do="size", values={"width": width, "height": height, "how": how})


def clear_step(background: tuple[int, int, int]) -> StepUse:
    """The step that clears a background colour."""
    colour = "{:02x}{:02x}{:02x}".format(*background)
    return StepUse(do="clear-colour", values={"colour": colour, "tolerance": 12, "softness": 0})


def seam_step(where: str) -> StepUse:
    """The step that blends the seams in these directions."""
    return StepUse(do="seamless", values={"repeats": where, "share": 12})


def _whole_size(spec: PictureSpec) -> tuple[int, int]:
    return spec.width, spec.height * spec.pictures


def stops_between(original: PictureSpec, yours: PictureSpec) -> float:
    """How many stops of exposure bring one mean brightness to the other (2.2 is about sRGB's exponent)."""
    return 2.2 * math.log2(max(original.brightness, 0.004) / max(yours.brightness, 0.004))


def aspect_point(source: tuple[int, int], target: tuple[int, int]) -> FitPoint:
    """How a source of one size (width, height) was distorted to another."""
    ratio = (target[0] / target[1]) / (source[0] / source[1])
    wider = ratio if ratio >= 1 else 1 / ratio
    bent = wider > 1.02
    return FitPoint(
        "aspect", "Proportions", "as they are",
        f"{wider:.2f} × too {'wide' if ratio > 1 else 'tall'}" if bent else "as they are",
        "differs" if bent else "fits",
        "A stretched picture looks squashed in the game, unless the game stretches it back",
        "Choose fill or inside in Bring to size" if bent else "",
    )  # fmt: skip


def _size(spec: PictureSpec) -> str:
    return f"{spec.width} × {spec.height}"


def _grid(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    """Power of two and multiple of four, where the original is so and yours is not."""
    points = []
    for key, label, test, why in (
        ("power of two", "Power of two", _is_power, "Many games refuse other sides, or cannot make levels of them"),
        ("multiple of four", "Multiple of four", _is_fourfold, "Blocks are four pixels square: other sides crash some games"),
    ):  # fmt: skip
        if test(original) and not test(yours):
            remedy = f"Bring it to {_size(original)}"
            points.append(FitPoint(key, label, "yes", "no", "differs", why, remedy))
    return points


def _is_power(spec: PictureSpec) -> bool:
    return spec.width & (spec.width - 1) == 0 and spec.height & (spec.height - 1) == 0


def _is_fourfold(spec: PictureSpec) -> bool:
    return spec.width % 4 == 0 and spec.height % 4 == 0


def _shape(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    if original.shape == yours.shape == "flat":
        return []
    names = {"flat": "one picture", "array": "layers", "cube": "faces", "volume": "slices"}

    def told(spec: PictureSpec) -> str:
        return names[spec.shape] if spec.shape == "flat" else f"{spec.pictures} {names[spec.shape]}"

    return [
        same_or(
            "pictures", "Pictures", told(original), told(yours), "breaks",
            "The game looks for all of them in one file", f"Write {told(original)}, one below the other in the source",
        )
    ]  # fmt: skip


def _format(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    points = []
    if original.file_type != "PNG" or yours.file_type != "PNG":
        found = yours.format if yours.file_type in ("DDS", "TGA", "KTX2") else yours.file_type
        points.append(
            same_or(
                "format", "Format", original.format, found, "breaks",
                "The game takes the bytes for the original's format", f"Encode as {original.format}",
            )
        )  # fmt: skip
    if original.srgb is not None and original.file_type == yours.file_type and yours.srgb is not None:
        names = {True: "sRGB", False: "linear"}
        points.append(
            same_or(
                "colour space", "Colour space", names[original.srgb], names[yours.srgb], "breaks",
                "Read as the other the picture comes out far too dark or too pale", f"Mark it as {names[original.srgb]}",
            )
        )  # fmt: skip
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
            remedy = "Clear the background colour" if yours.background else "Take the original's alpha"
    shown = {"none": "none used", "cut-out": "cut-out", "smooth": "smooth"}
    return FitPoint("alpha", "Alpha", shown[original.alpha], shown[yours.alpha], state, why, remedy)


def _alpha_details(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    points = []
    if original.note("alpha") or yours.note("alpha"):
        points.append(
            same_or(
                "premultiplied", "Alpha is", original.note("alpha") or "straight", yours.note("alpha") or "straight", "breaks",
                "Read as the other, soft edges get dark or bright rims", f"Write it {original.note('alpha') or 'straight'}",
            )
        )  # fmt: skip
    if original.under != "none" and yours.under != "none":
        names = {"spread": "the nearest colour", "black": "black", "white": "white", "mixed": "of all sorts"}
        rim = original.under == "spread" and yours.under != "spread"
        points.append(
            FitPoint(
                "under alpha", "Under clear pixels", names[original.under], names[yours.under], "differs" if rim else "fits",
                "What lies under clear pixels bleeds into the edges when the game makes the picture smaller",
                "Spread the nearest colour under them" if rim else "",
            )
        )  # fmt: skip
    return points


def _channels(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    names = {
        "colour": "colour",
        "grey": "grey, to be tinted",
        "normals": "a normal map",
        "masks": "a mask a channel",
    }
    if original.meaning == yours.meaning or (original.meaning == "colour" and yours.meaning == "grey"):
        if original.meaning == "colour":
            return []
        return [FitPoint("channels", "Channels", names[original.meaning], names[yours.meaning], "fits")]
    remedies = {
        "grey": "Make it grey",
        "normals": "Use a normal map: it tells which way each spot faces",
        "masks": "Pack one mask into each channel with Mix and pack channels",
    }
    whys = {
        "grey": "The game multiplies it with a colour; a coloured picture comes out in the wrong one",
        "normals": "The game reads directions from it; any other picture gives random light",
        "masks": "Each channel switches something of its own",
        "colour": "The game shows these channels as colours",
    }
    if original.meaning == "masks" and yours.meaning != "normals":
        return [FitPoint("channels", "Channels", names["masks"], names["masks"], "fits", whys["masks"])]
    return [
        FitPoint(
            "channels", "Channels", names[original.meaning], names[yours.meaning], "differs", whys[original.meaning],
            remedies.get(original.meaning, "Use a picture in colour"),
        )
    ]  # fmt: skip


def _frames(original: PictureSpec, yours: PictureSpec) -> FitPoint:
    assert original.cell is not None
    cell = f"{original.cell[0]} × {original.cell[1]}"
    fits = yours.frames == original.frames
    state: State = "fits" if fits else "breaks" if yours.frames == 0 else "differs"
    remedy = f"Lay {original.frames} frames out on cells of {cell}: Fit all does not stretch a strip of another number of them"
    if yours.frames > original.frames:
        remedy = f"Clear the cells after the first {original.frames}: the game never shows them"
    return FitPoint(
        "frames",
        "Frames",
        f"{original.frames} of {cell}",
        f"{yours.frames} of {cell}" if yours.frames else "no whole cells",
        state,
        "The game plays the cells one after the other",
        "" if fits else remedy,
    )


def _same_shape(original: PictureSpec, source: PictureSpec) -> bool:
    """Whether a sheet has the original's proportions, so that its cells come out right when it is brought to its size."""
    width, height = _whole_size(original)
    return abs(source.width * height / (source.height * source.pictures * width) - 1) < 0.01


def _cells(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    """What is drawn across the borders of cells."""
    if yours.crossed <= original.crossed:
        return []
    return [
        FitPoint(
            "outside", "Cells", f"{original.crossed or 'no'} borders crossed", f"{count(yours.crossed, 'border')} crossed",
            "differs", "A figure that reaches over its cell is cut off, and a piece of it shows in the next frame",
            "Move or shrink the figures that touch their cell's border",
        )
    ]  # fmt: skip


def _seams(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    if original.repeats == "no":
        return []
    seen = seams_of(original, yours)
    told = {"across": "repeats left to right", "down": "repeats top to bottom", "both": "repeats both ways"}
    return [
        FitPoint(
            "tiling", "Edges", told[original.repeats], f"a seam shows {_SEAM_TEXTS[seen]}" if seen else told[original.repeats],
            "differs" if seen else "fits", "The game lays it side by side with itself: edges that do not meet show as lines",
            "Blend the seams" if seen else "",
        )
    ]  # fmt: skip


def seams_of(original: PictureSpec, yours: PictureSpec) -> str:
    """In which directions a seam shows where the original repeats: `across`, `down`, `both` or nothing."""
    seen = [
        name
        for name, place, wanted in (("across", 0, ("across", "both")), ("down", 1, ("down", "both")))
        if original.repeats in wanted and yours.seams[place] > max(_SEAM, original.seams[place] * 1.3)
    ]
    return "both" if len(seen) == 2 else "".join(seen)


def _palette(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    if not original.colours:
        return []
    many = yours.colours == 0 or yours.colours > original.colours
    return [
        FitPoint(
            "palette", "Palette", f"{original.colours} colours", f"{yours.colours} colours" if yours.colours else "true colour",
            "breaks" if yours.colours == 0 else "differs" if many else "fits",
            "The game looks colours up in a table of this size", "Reduce it to the original's colours" if many else "",
        )
    ]  # fmt: skip


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


def _light(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    """Contrast, and how bright the brightest is where it may be brighter than white."""
    flat, hard = yours.contrast < original.contrast / 2, yours.contrast > original.contrast * 2
    off = (flat or hard) and abs(yours.contrast - original.contrast) > 0.06
    points = [
        FitPoint(
            "contrast", "Contrast", f"{original.contrast:.0%}", f"{yours.contrast:.0%}", "differs" if off else "fits",
            "Flat among hard pictures, or hard among flat ones, it sticks out",
            "Match the original's tones, if it should sit in like the original" if off else "",
        )
    ]  # fmt: skip
    if original.brightest > 1 or yours.brightest > 1:
        far = not 0.5 <= yours.brightest / max(original.brightest, 1e-3) <= 2
        points.append(
            FitPoint(
                "range", "Brightest", f"{original.brightest:.3g} × white", f"{yours.brightest:.3g} × white",
                "differs" if far else "fits", "The game's glare and exposure follow what is brighter than white",
                f"Let white become {original.brightest:.3g}" if far else "",
            )
        )  # fmt: skip
    return points


def _keep_out(original: PictureSpec, yours: PictureSpec) -> list[FitPoint]:
    if not original.has_keep_out:
        return []
    inked = yours.ink > original.ink + 0.02
    return [
        FitPoint(
            "keep-out", "Keep-out areas", "left alone", f"{yours.ink:.0%} painted over" if inked else "left alone",
            "differs" if inked else "fits", "The game covers or never shows these areas of the picture",
            "Keep what matters out of them" if inked else "",
        )
    ]  # fmt: skip
