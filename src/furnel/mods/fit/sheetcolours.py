"""Fit points of sheets' colours and pixels: how many, half-clear ones, larger ones, near twins, those that a game knows."""

from __future__ import annotations

from collections.abc import Sequence

from furnel.media import PictureSpec
from furnel.mods.fit.point import SHEETS, Finding, Fitting, PointType
from furnel.mods.project import StepUse
from furnel.words import count

_FEW = 48


def _colours_used(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether a sheet of few colours has few colours again."""
    if (
        original.sheet is None
        or yours.sheet is None
        or not original.sheet.palette
        or original.meaning == "masks"
    ):
        return None
    own, mine = len(original.sheet.palette), len(yours.sheet.palette)
    if mine and mine <= max(4 * own, _FEW):
        return Finding(str(own), str(mine))
    return Finding(
        str(own),
        str(mine) if mine else "more than 256",
        "differs",
        f"Bring it to {max(own, _FEW)} colours or fewer",
    )


def _half_clear(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Pixels that are neither clear nor not, in a sheet of hard edges."""
    if original.sheet is None or yours.sheet is None or original.sheet.half_clear:
        return None
    look = yours.sheet
    if not look.half_clear:
        return Finding("none", "none")
    at = tuple((x, y, 1, 1) for x, y in look.half_clear_at)
    named = ", ".join(f"{x}, {y}" for x, y in look.half_clear_at)
    told = f"{count(look.half_clear, 'pixel')} at {named}{' …' if look.half_clear > len(at) else ''}"
    return Finding("none", told, "differs", "Make each clear or not", at=at)


def _doubled(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether each of the drawing's pixels is of one colour, where it is several of the sheet."""
    if (
        original.sheet is None
        or yours.sheet is None
        or original.sheet.layout.pixels == 1
        or original.sheet.broken
    ):
        return None
    side = original.sheet.layout.pixels
    words = f"{side} × {side} each"
    if not yours.sheet.broken:
        return Finding(words, words)
    at = tuple((x, y, side, side) for x, y in yours.sheet.broken_at)
    told = f"{count(yours.sheet.broken, 'pixel')} of several colours at {', '.join(f'{x}, {y}' for x, y, _, _ in at)}"
    remedy = "Draw it at its own size, and enlarge it by whole numbers: Larger pixels, or Lay figures out"
    return Finding(words, told, "differs", remedy, at=at)


def _twins(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Colours that nobody tells apart, more than the original has."""
    if original.sheet is None or yours.sheet is None or not yours.sheet.palette:
        return None
    own, found = len(original.sheet.twins), yours.sheet.twins
    words = count(own, "pair") if own else "none"
    if len(found) <= own:
        return Finding(words, words)
    named = ", ".join(f"{rare} beside {near} at {x}, {y}" for rare, near, (x, y) in found[:2])
    told = f"{count(len(found), 'pair')}: {named}{' …' if len(found) > 2 else ''}"
    at = tuple((x, y, 1, 1) for _, _, (x, y) in found)
    return Finding(words, told, "differs", "Make each pair one colour", at=at)


def _mend_twins(_: PictureSpec, yours: PictureSpec) -> list[StepUse] | None:
    if yours.sheet is None or not yours.sheet.twins:
        return None
    changes: dict[str, str] = {}
    for rare, near, _at in yours.sheet.twins:
        changes[rare] = changes.get(near, near)
    text = " ".join(f"{rare}>{near}" for rare, near in changes.items() if rare != near)
    return [StepUse(do="palette", values={"changes": text})]


def _mask_colours(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Colours of a mask that the game does not know."""
    if original.sheet is None or yours.sheet is None or original.meaning != "masks":
        return None
    strange = sorted(set(yours.sheet.palette) - set(original.sheet.palette))
    words = count(len(original.sheet.palette), "colour")
    if yours.sheet.palette and not strange:
        return Finding(words, words)
    told = f"{len(strange)} others: {', '.join(strange[:3])}" if strange else "more than a palette has"
    return Finding(words, told, "breaks", "Bring each back to the nearest of the original's")


def _mend_mask(original: PictureSpec, _: PictureSpec) -> list[StepUse] | None:
    if original.sheet is None or not original.sheet.palette:
        return None
    key = original.sheet.layout.key
    clear = bytes(key).hex() if key is not None else ""
    locked = " ".join(colour for colour in original.sheet.palette if colour != clear)
    return [
        StepUse(do="palette", values={"locked": locked, "within": 255, **({"key": clear} if clear else {})})
    ]


def _fit_mask(original: PictureSpec, source: PictureSpec, steps: Sequence[StepUse]) -> list[StepUse]:
    """Mask colours brought back after steps that can let them drift."""
    return (
        (_mend_mask(original, source) or [])
        if original.meaning == "masks" and original.cell and steps
        else []
    )


COLOUR_POINTS = (
    PointType(
        key="colours used",
        label="Colours used",
        kinds=SHEETS,
        why="A sheet of few colours is changed by colour; hundreds that differ little cannot be",
        compare=_colours_used,
        mend=lambda original, _: [
            StepUse(do="few-colours", values={"from": "the picture's best", "count": _FEW})
        ],
        served_by=("few-colours",),
    ),
    PointType(
        key="half-clear",
        label="Half-clear pixels",
        kinds=SHEETS,
        why="The original's edges are hard: a pixel that is half clear is seen as a smear",
        compare=_half_clear,
        mend=lambda *_: [StepUse(do="hard-alpha", values={"threshold": 128})],
        served_by=("hard-alpha",),
    ),
    PointType(
        key="pixel size",
        label="Pixels' size",
        kinds=SHEETS,
        why="The game's sheet is drawn with larger pixels; finer ones beside them look like another game",
        compare=_doubled,
        served_by=("frames", "enlarge"),
    ),
    PointType(
        key="twins",
        label="Near twins",
        kinds=SHEETS,
        why="Two colours that nobody tells apart: when one is changed later, the other is forgotten",
        compare=_twins,
        mend=_mend_twins,
        served_by=("palette",),
    ),
    PointType(
        key="mask colours",
        label="Mask's colours",
        kinds=SHEETS,
        why="The game paints areas by their exact colour, and does not know any other",
        compare=_mask_colours,
        fit=(Fitting(70, _fit_mask),),
        mend=_mend_mask,
        served_by=("palette",),
    ),
)
