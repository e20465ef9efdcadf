"""Fit points of sheets: their frames and cells, how figures stand in each, and how they are laid out anew."""

from __future__ import annotations

from collections.abc import Iterable, Iterator, Sequence
from statistics import median

from furnel.media import PictureSpec
from furnel.mods.fit.point import SHEETS, Box, Finding, Fitting, PointType
from furnel.mods.project import StepUse
from furnel.mods.steps import Value
from furnel.sprites import Standing, faces_back
from furnel.sprites.tiles import meets_text
from furnel.words import count

_OFF_FLOOR = 1
_AS_HIGH = 0.7, 1.45
_MOST_NAMED = 4
_SEAM = 2.5  # from this multiple of the usual difference between neighbours on, a seam is seen
_OFF_MIDDLE = 0.08  # of a cell's width
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
    """What is drawn across the borders of cells, or between them."""
    between = yours.sheet.outside if yours.sheet is not None else 0
    if original.cell is None or (yours.crossed <= original.crossed and not between):
        return None
    told = [count(yours.crossed, "border") + " crossed"] if yours.crossed > original.crossed else []
    told += [f"{count(between, 'pixel')} between the cells"] if between else []
    return Finding(
        f"{original.crossed or 'no'} borders crossed",
        ", ".join(told),
        "differs",
        "Move or shrink the figures that touch their cell's border, or take what is between the cells from the original",
    )


def frames_steps(original: PictureSpec, source: PictureSpec) -> list[StepUse]:
    """Figures laid out anew where a sheet has another shape, and so another number of frames; tiles made anew."""
    if original.cell is None or original.pictures > 1:
        return []
    if original.meets:
        return _tiles_steps(original, source)
    return [] if same_shape(original, source) else [layout_use(original)]


def _tiles_steps(original: PictureSpec, source: PictureSpec) -> list[StepUse]:
    """Tiles made of what has another size: a tile a cell where it is a whole sheet, a block of 3 × 3 otherwise."""
    if whole_size(source) == whole_size(original):
        return []
    use = layout_use(original)
    if not same_shape(original, source) or original.width % source.width:
        return [use]
    across = (original.sheet.grid(original.width).columns if original.sheet is not None else 0) or 1
    values = {**use.values, "from": "a tile a cell", "side": source.width // across}
    return [StepUse(do="tiles", values=values)]


def _mend_frames(original: PictureSpec, _: PictureSpec) -> list[StepUse] | None:
    return [layout_use(original)] if original.cell is not None else None


def layout_use(original: PictureSpec) -> StepUse:
    """The step that lays figures out in an original's cells, or makes its tiles."""
    values = cell_values(original)
    if original.meets:
        return StepUse(do="tiles", values={**values, "meets": meets_text(original.meets)})
    layout = original.sheet.layout if original.sheet is not None else None
    if layout is not None and layout.animations:
        values["runs"] = layout.runs
    if layout is not None and layout.key is not None:
        values["key"] = bytes(layout.key).hex()
    if layout is not None and layout.pixels > 1:
        values["pixels"] = layout.pixels
    return StepUse(do="frames", values=values)


def laid_out_anew(original: PictureSpec, steps: Sequence[StepUse], cells: str) -> tuple[StepUse, ...]:
    """Steps whose figures are laid out by a frame map (empty: the proposed one), in place of what brought the whole picture to
    its size."""
    use = layout_use(original)
    values = {**use.values, **({"map": cells} if cells else {})}
    kept = [step for step in steps if step.do not in ("frames", "size", "clear-colour")]
    return (StepUse(do=use.do, values=values), *kept)


def cell_values(original: PictureSpec) -> dict[str, Value]:
    """The settings of a step that say where an original's cells are."""
    width, height = original.cell or (0, 0)
    values: dict[str, Value] = {"width": width, "height": height}
    if original.sheet is not None:
        layout = original.sheet.layout
        around = {"margin": layout.margin, "gutter": layout.gutter}
        values |= {name: number for name, number in around.items() if number}
    return values


def _name(spec: PictureSpec, place: int) -> str:
    """What a cell (from 0) is called."""
    names = spec.sheet.names if spec.sheet is not None else ()
    return names[place] if place < len(names) else f"frame {place + 1}"


def _boxes(spec: PictureSpec, places: Iterable[int]) -> tuple[Box, ...]:
    """Where cells are in the picture."""
    if spec.cell is None or spec.sheet is None:
        return ()
    return tuple(spec.sheet.grid(spec.width).box(place) for place in places)


def _frames_beside(original: PictureSpec, yours: PictureSpec) -> Iterator[tuple[int, Standing, Standing]]:
    """The place of each cell that both have, how the original's figure stands in it, and how yours does."""
    pairs = zip(original.standing, yours.standing, strict=False)
    return ((place, theirs, mine) for place, (theirs, mine) in enumerate(pairs))


def _empty(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Frames with nothing in them where the original has a figure."""
    if not yours.frames:
        return None
    drawn = [place for place, one in enumerate(original.standing) if one.height]
    mine = yours.standing
    lost = [place for place in drawn if place >= len(mine) or not mine[place].height]
    words = "no frame" if original.standing and len(drawn) == original.frames else "as drawn"
    if yours.frames < original.frames:
        lost = [place for place in lost if place < len(mine)]  # the others are told by their number
    if not lost:
        return Finding(words, words)
    remedy = "Draw it, or hold the frame before it: Lay figures out does"
    return Finding(words, f"{_named(yours, lost)} empty", "breaks", remedy, at=_boxes(yours, lost))


def _floor(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether every figure stands on the row that the original's stands on in that frame."""
    free = {
        place for run in (original.sheet.layout.animations if original.sheet else ()) if run.anchor == "centre"
        for place in run.cells
    }  # fmt: skip
    pairs = [
        (place, mine.floor - theirs.floor) for place, theirs, mine in _frames_beside(original, yours)
        if theirs.height and mine.height and place not in free
    ]  # fmt: skip
    if not pairs or not original.cell or original.meets:
        return None
    off = [(place, by) for place, by in pairs if abs(by) > _OFF_FLOOR]
    row = f"row {round(median(one.floor for one in original.standing if one.height))}"
    if not off:
        return Finding(row, row)
    by, places = max((by for _, by in off), key=abs), [place for place, _ in off]
    words = f"{_named(yours, places)} off it, by up to {count(abs(by), 'pixel')} {'down' if by > 0 else 'up'}"
    remedy = "Move them: Lay figures out puts them on the original's floor"
    return Finding(row, words, "differs", remedy, at=_boxes(yours, places))


def _middle(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether the figures stand in the middle of their cells where the original's do, over all frames."""
    pairs = [
        (place, mine.middle - theirs.middle)
        for place, theirs, mine in _frames_beside(original, yours)
        if theirs.height and mine.height
    ]
    if not pairs or original.meets or original.cell is None:
        return None
    by = median(by for _, by in pairs)
    column = f"column {median(one.middle for one in original.standing if one.height):g}"
    if abs(by) <= max(_OFF_MIDDLE * original.cell[0], 2):
        return Finding(column, column)
    told = f"{count(round(abs(by)), 'pixel')} to the {'right' if by > 0 else 'left'}"
    return Finding(
        column, told, "differs", "Move them: Lay figures out puts their feet where the original's are"
    )


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


def _odd_places(spec: PictureSpec) -> list[tuple[int, int, int]]:
    """Single pixels that hang on nothing: the cell, and the column and row in it."""
    return [(place, *pixel) for place, one in enumerate(spec.standing) for pixel in one.odd]


def _odd(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Single pixels that hang on nothing, beyond those that the original has."""
    own = set(_odd_places(original))
    places = [place for place in _odd_places(yours) if place not in own]
    words = count(len(own), "pixel") if own else "none"
    if not places:
        return Finding(words, words) if yours.standing else None
    named = ", ".join(f"{_name(yours, place)} at {x}, {y}" for place, x, y in places[:_MOST_NAMED])
    more = f" and {len(places) - _MOST_NAMED} more" if len(places) > _MOST_NAMED else ""
    at = tuple((x, y, 1, 1) for x, y in _in_picture(yours, places))
    remedy = "Paint them over, or join them; Match it clears them"
    return Finding(words, f"{count(len(places), 'pixel')}: {named}{more}", "differs", remedy, at=at)


def _in_picture(spec: PictureSpec, places: list[tuple[int, int, int]]) -> list[tuple[int, int]]:
    corners = _boxes(spec, (place for place, _, _ in places))
    return [(left + x, top + y) for (left, top, _, _), (_, x, y) in zip(corners, places, strict=False)]


def _mend_odd(original: PictureSpec, yours: PictureSpec) -> list[StepUse] | None:
    own = set(_odd_places(original))
    places = _in_picture(yours, [place for place in _odd_places(yours) if place not in own])
    if not places or yours.sheet is None:
        return None
    clear = bytes(yours.sheet.layout.key).hex() if yours.sheet.layout.key is not None else "-"
    return [StepUse(do="touch-up", values={"pixels": " ".join(f"{x},{y}={clear}" for x, y in places)})]


def _cut(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Figures that end flat at an edge of their cell, where none of the original's does so."""
    most = max((one.at_edge for one in original.standing), default=0)
    cut = [place for place, one in enumerate(yours.standing) if one.at_edge > most + _MEETS_EDGE]
    if not yours.standing or original.meets:
        return None
    words = f"up to {count(most, 'pixel')} at an edge" if most else "inside their cells"
    if not cut:
        return Finding(words, words)
    remedy = "Move or shrink the figures inside their cells"
    return Finding(
        words, f"{_named(yours, cut)} cut off at an edge", "differs", remedy, at=_boxes(yours, cut)
    )


def _unused(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Cells that the game never shows, and that are not as it fills them."""
    if original.sheet is None or yours.sheet is None or not original.sheet.layout.animations:
        return None
    own = set(original.sheet.drawn)
    drawn = [place for place in yours.sheet.drawn if place not in own]
    tone = original.sheet.layout.unused
    words = f"filled with {bytes(tone).hex()}" if tone is not None else "clear"
    if not drawn:
        return Finding(words, words)
    numbers = ", ".join(str(place + 1) for place in drawn[:_MOST_NAMED])
    told = f"drawn in {'cells' if len(drawn) > 1 else 'cell'} {numbers}{' …' if len(drawn) > _MOST_NAMED else ''}"
    return Finding(words, told, "differs", "Take these cells from the original", at=_boxes(yours, drawn))


def _mend_unused(original: PictureSpec, yours: PictureSpec) -> list[StepUse] | None:
    if original.sheet is None or not original.sheet.layout.animations or not yours.frames:
        return None
    values = {**cell_values(original), "runs": original.sheet.layout.runs}
    return [StepUse(do="keep-cells", values=values)]


def _mend_outside(original: PictureSpec, yours: PictureSpec) -> list[StepUse] | None:
    if yours.sheet is None or not yours.sheet.outside:
        return None
    return _mend_unused(original, yours) or [StepUse(do="keep-cells", values=cell_values(original))]


def _facing(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """Whether the figures look the other way than the original's, where their outlines tell."""
    if original.sheet is None or yours.sheet is None or original.meets:
        return None
    back = faces_back(original.sheet.outline, yours.sheet.outline)
    if back is None:
        return None
    words = "as it looks"
    return Finding(words, "the other way", "differs", "Mirror each frame") if back else Finding(words, words)


def _mend_facing(original: PictureSpec, _: PictureSpec) -> list[StepUse] | None:
    return [StepUse(do="mirror-frames", values=cell_values(original))]


def _seams(original: PictureSpec, yours: PictureSpec) -> Finding | None:
    """How tiles go with each other at all sides at which they go on."""
    if not original.meets or original.sheet is None or yours.sheet is None:
        return None
    own, mine = original.sheet.seams, yours.sheet.seams
    gaps = [gap for gap in mine.gaps if gap not in own.gaps]
    words = f"{own.worst:.1f} times the usual step" if own.worst >= 1.5 else "not seen"
    if gaps:
        named = ", ".join(gaps[:_MOST_NAMED])
        return Finding(
            words,
            f"gaps at {named}{' …' if len(gaps) > _MOST_NAMED else ''}",
            "breaks",
            "Draw up to that side",
        )
    if mine.worst <= max(own.worst * 1.2, _SEAM):
        return Finding(words, "not seen" if mine.worst < 1.5 else f"{mine.worst:.1f} times the usual step")
    return Finding(
        words, f"{mine.worst:.1f} times the usual step: {mine.pair}", "differs",
        "Make tiles takes all edges from one block of 3 × 3",
    )  # fmt: skip


def _named(spec: PictureSpec, places: list[int]) -> str:
    names = [_name(spec, place) for place in places]
    if len(names) == 1:
        return f"{names[0]} is"
    more = " …" if len(names) > _MOST_NAMED else ""
    if all(name.startswith("frame ") for name in names):
        return f"frames {', '.join(name.removeprefix('frame ') for name in names[:_MOST_NAMED])}{more} are"
    return f"{', '.join(names[:_MOST_NAMED])}{more} are"


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
        mend=_mend_outside,
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
        mend=lambda original, yours: None if original.meets else _mend_frames(original, yours),
        served_by=("frames",),
    ),
    PointType(
        key="middle",
        label="Middle",
        kinds=SHEETS,
        why="A figure that stands beside its place jumps when the game turns it round, and is hit where it is not seen",
        compare=_middle,
        mend=lambda original, yours: None if original.meets else _mend_frames(original, yours),
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
        mend=_mend_odd,
        served_by=("touch-up",),
    ),
    PointType(
        key="unused",
        label="Unused cells",
        kinds=SHEETS,
        why="The game never shows these cells; what is drawn there was meant for another one",
        compare=_unused,
        mend=_mend_unused,
        served_by=("keep-cells",),
    ),
    PointType(
        key="facing",
        label="Facing",
        kinds=SHEETS,
        why="The game mirrors figures by itself when they turn: one that faces the other way walks backwards",
        compare=_facing,
        mend=_mend_facing,
        served_by=("mirror-frames",),
    ),
    PointType(
        key="tile seams",
        label="Tiles' seams",
        kinds=SHEETS,
        why="The game puts every tile beside every other one that goes on at that side",
        compare=_seams,
        served_by=("tiles",),
    ),
)
