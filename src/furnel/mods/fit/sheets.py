"""Fit points of sheets: their frames and cells, how figures stand in each, and how they are laid out anew."""

from __future__ import annotations

from collections.abc import Iterator
from statistics import median

from furnel.media import PictureSpec
from furnel.mods.fit.point import SHEETS, Finding, Fitting, PointType
from furnel.mods.project import StepUse
from furnel.sprites import Standing
from furnel.words import count

_OFF_FLOOR = 1
_AS_HIGH = 0.7, 1.45
_MOST_NAMED = 4
_MEETS_EDGE = 2  # so many pixels more touch an edge by chance


def whole_size(spec: PictureSpec) -> tuple[int, int]:
    """All its pictures, one below the other: width and height in pixels."""
    return spec.width, spec.height * spec.pictures


def same_shape(original: PictureSpec, source: PictureSpec) -> bool:
    """Whether a sheet has the original's proportions, so that its cells come out right when it is brought to its size."""
    width, height = whole_size(original)
    return abs(source.width * height / (source.height * source.pictures * width) - 1) < 0.01


def _frames(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    if original.cell is None:
        return None
    cell = f"{original.cell[0]} × {original.cell[1]}"
    both = f"{original.frames} of {cell}", f"{yours.frames} of {cell}" if yours.frames else "no whole cells"
    if yours.frames == original.frames:
        return Finding(*both)
    remedy = f"Match it lays the figures out on {original.frames} cells of {cell}"
    if yours.frames > original.frames:
        remedy = f"Clear the cells after the first {original.frames}: the game never shows them"
    return Finding(*both, "breaks" if yours.frames == 0 else "differs", remedy)


def _cells(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """What is drawn across the borders of cells."""
    if original.cell is None or yours.crossed <= original.crossed:
        return None
    return Finding(
        f"{original.crossed or 'no'} borders crossed",
        f"{count(yours.crossed, 'border')} crossed",
        "differs",
        "Move or shrink the figures that touch their cell's border",
    )


def frames_steps(original: PictureSpec, source: PictureSpec) -> list[StepUse]:
    """Figures laid out anew where a sheet has another shape, and so another number of frames."""
    if original.cell is None or original.pictures > 1 or same_shape(original, source):
        return []
    return _mend_frames(original, source) or []


def _mend_frames(original: PictureSpec, _: PictureSpec) -> list[StepUse] | None:
    if original.cell is None:
        return None
    return [StepUse(do="frames", values={"width": original.cell[0], "height": original.cell[1]})]


def _frames_beside(original: PictureSpec, yours: PictureSpec) -> Iterator[tuple[int, Standing, Standing]]:
    """The number of each frame that both have, how the original's figure stands in it, and how yours does."""
    pairs = zip(original.standing, yours.standing, strict=False)
    return ((place, theirs, mine) for place, (theirs, mine) in enumerate(pairs, start=1))


def _empty(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Frames with nothing in them where the original has a figure."""
    if not yours.frames:
        return None
    beside = _frames_beside(original, yours)
    lost = [place for place, theirs, mine in beside if theirs.height and not mine.height]
    words = "no frame" if original.standing and all(one.height for one in original.standing) else "as drawn"
    if not lost:
        return Finding(words, words)
    remedy = "Draw it, or hold the frame before it: Lay figures out does"
    return Finding(words, f"{_named(lost)} empty", "breaks", remedy)


def _floor(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether every figure stands on the row that the original's stands on in that frame."""
    beside = _frames_beside(original, yours)
    pairs = [
        (place, mine.floor - theirs.floor) for place, theirs, mine in beside if theirs.height and mine.height
    ]
    if not pairs or not original.cell:
        return None
    off = [(place, by) for place, by in pairs if abs(by) > _OFF_FLOOR]
    row = f"row {round(median(one.floor for one in original.standing if one.height))}"
    if not off:
        return Finding(row, row)
    by = max((by for _, by in off), key=abs)
    words = f"{_named([place for place, _ in off])} off it, by up to {count(abs(by), 'pixel')} {'down' if by > 0 else 'up'}"
    return Finding(row, words, "differs", "Move them: Lay figures out puts them on the original's floor")


def _height(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether the figures are about as high as the original's."""
    own = [one.height for one in original.standing if one.height]
    mine = [one.height for one in yours.standing if one.height]
    if not own or not mine:
        return None
    usual, got = median(own), median(mine)
    both = f"{usual:g} pixels", f"{got:g} pixels"
    if _AS_HIGH[0] <= got / usual <= _AS_HIGH[1]:
        return Finding(*both)
    return Finding(*both, "differs", f"Bring them to a whole number of times their size, near {usual:g}")


def _odd(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Single pixels that hang on nothing, beyond those that the original has."""
    places = [
        (place, *pixel) for place, one in enumerate(yours.standing, start=1) for pixel in one.odd
    ]  # fmt: skip
    own = sum(len(one.odd) for one in original.standing)
    words = count(own, "pixel") if own else "none"
    if len(places) <= own:
        return Finding(words, words) if yours.standing else None
    named = ", ".join(f"frame {place} at {x}, {y}" for place, x, y in places[:_MOST_NAMED])
    more = f" and {len(places) - _MOST_NAMED} more" if len(places) > _MOST_NAMED else ""
    return Finding(
        words, f"{count(len(places), 'pixel')}: {named}{more}", "differs", "Paint them over, or join them"
    )


def _cut(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Figures that end flat at an edge of their cell, where none of the original's does so."""
    most = max((one.at_edge for one in original.standing), default=0)
    cut = [place for place, one in enumerate(yours.standing, start=1) if one.at_edge > most + _MEETS_EDGE]
    if not yours.standing:
        return None
    words = f"up to {count(most, 'pixel')} at an edge" if most else "inside their cells"
    if not cut:
        return Finding(words, words)
    return Finding(
        words, f"{_named(cut)} cut off at an edge", "differs", "Move or shrink the figures inside their cells"
    )


def _named(places: list[int]) -> str:
    shown = ", ".join(map(str, places[:_MOST_NAMED]))
    more = " …" if len(places) > _MOST_NAMED else ""
    return f"frame {shown} is" if len(places) == 1 else f"frames {shown}{more} are"


SHEET_POINTS = (
    PointType(
        key="frames",
        label="Frames",
        kinds=SHEETS,
        why="The game plays the cells one after the other",
        compare=_frames,
        fit=(Fitting(5, lambda original, source, _: frames_steps(original, source)),),
        mend=_mend_frames,
        served_by=("frames",),
    ),
    PointType(
        key="outside",
        label="Cells",
        kinds=SHEETS,
        why="A figure that reaches over its cell is cut off, and a piece of it shows in the next frame",
        compare=_cells,
    ),
    PointType(
        key="empty",
        label="Empty frames",
        kinds=SHEETS,
        why="A frame with nothing in it makes the figure blink",
        compare=_empty,
        served_by=("frames",),
    ),
    PointType(
        key="floor",
        label="Floor",
        kinds=SHEETS,
        why="A figure that leaves its floor for a frame hops, or sinks into the ground",
        compare=_floor,
        served_by=("frames",),
    ),
    PointType(
        key="height",
        label="Height",
        kinds=SHEETS,
        why="Much higher or lower than the original it does not go with what the game shows around it",
        compare=_height,
        served_by=("frames",),
    ),
    PointType(
        key="cells cut",
        label="Cut off",
        kinds=SHEETS,
        why="What a cell cuts off is not seen: the figure has a flat side",
        compare=_cut,
        served_by=("frames",),
    ),
    PointType(
        key="odd",
        label="Odd pixels",
        kinds=SHEETS,
        why="A single forgotten pixel is seen as soon as the figure moves",
        compare=_odd,
    ),
)
