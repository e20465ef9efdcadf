"""Steps for sheets: figures of a source laid out in the game's cells."""

from __future__ import annotations

from collections.abc import Sequence
from typing import cast

from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.mods.steps.step import Around, Parameter, StepType, Values
from furnel.sprites import (
    Bed,
    Found,
    Grid,
    Placing,
    SheetLayout,
    anchors_of,
    filled,
    laid_out,
    map_text,
    parse_cells,
    parse_colours,
    parse_map,
    parse_runs,
    poses_of,
    poses_of_frames,
    scale_for,
)
from furnel.sprites.poses import brought_together
from furnel.sprites.scaling import KINDS, Kind, enlarged, mirrored_each
from furnel.words import count

_WHAT = "Laying figures out"


CELL = (
    Parameter("width", "Cell's width", "whole", 0, 0, 4096, "px"),
    Parameter("height", "Cell's height", "whole", 0, 0, 4096, "px"),
    Parameter("margin", "Around the cells", "whole", 0, 0, 256, "px"),
    Parameter("gutter", "Between cells", "whole", 0, 0, 256, "px"),
)


def layout_in(values: Values, size: tuple[int, int]) -> SheetLayout:
    """The layout that a step's settings tell; without a cell's size the whole picture is one. Raises FurnelError."""
    cell = int(values["width"]) or size[0], int(values["height"]) or size[1]
    key = parse_colours(str(values.get("key", "")))
    runs = parse_runs(str(values.get("runs", "")))
    clear, pixels = key[0] if key else None, int(values.get("pixels", 1))
    return SheetLayout(cell, int(values["margin"]), int(values["gutter"]), runs, None, clear, pixels)


def figures_in(picture: Picture, values: Values, around: Around) -> tuple[Picture, Found]:
    """The figures that a step lays out, and the picture that they are in. Raises FurnelError when there are none."""
    timed = around.frames() if around.frames is not None else ()
    frames, times = tuple(frame.picture for frame in timed), tuple(frame.ms for frame in timed)
    more = [name.strip() for name in str(values["more"]).split("|") if name.strip()]
    if more:
        frames, times = (picture, *(around.picture(name, _WHAT) for name in more)), ()
    if len(frames) < 2:
        return picture, poses_of(picture, int(values["tolerance"]))
    if len({frame.size for frame in frames}) > 1:
        frames = brought_together(frames)
    return poses_of_frames(frames, times)


def bed_of(sheet: Picture, layout: SheetLayout) -> Bed:
    """What figures are laid into. Raises FurnelError when the sheet has no whole cells."""
    grid = layout.grid(sheet)
    return Bed(sheet, grid, anchors_of(sheet, grid, layout.animations, layout.ink(sheet)), layout.key)


def cells_in(
    values: Values, found: Found, layout: SheetLayout, grid: Grid, height: int
) -> tuple[Placing, ...]:
    """The frame map of a step's settings, or the one that is proposed, for a sheet of this height."""
    wanted = parse_map(str(values["map"])) or filled(found.poses, grid.count, layout.animations, found.times)
    if layout.animations:  # what no animation has stays as the original's
        rest = (Placing(None, keep=True),) * (grid.columns * grid.rows(height) - len(wanted))
        wanted = (*wanted, *rest)
    return tuple(cell.mirrored() for cell in wanted) if values["flip"] else wanted


def scale_in(values: Values, found: Found, cells: Sequence[Placing], bed: Bed) -> int:
    """How large the step's settings make figures: the number that is set, or the largest that fits. Raises FurnelError."""
    used = sorted({cell.pose for cell in cells if cell.pose is not None and cell.pose < len(found.poses)})
    if not used:
        raise FurnelError(
            _WHAT, why="its frame map names no figure", remedy="Write their numbers, or leave it empty"
        )
    return int(values["scale"]) or scale_for([found.poses[place] for place in used], bed.grid, bed.anchors)


def _frames(picture: Picture, values: Values, around: Around) -> Picture:
    sheet = around.needed_original(_WHAT)
    layout = layout_in(values, sheet.size)
    bed = bed_of(sheet, layout)
    source, found = figures_in(picture, values, around)
    cells = cells_in(values, found, layout, bed.grid, sheet.height)
    scale = scale_in(values, found, cells, bed)
    out, cut = laid_out(source, found, cells, bed, scale)
    around.tell(_told(len(found.poses), cells, scale, cut, len(found.others)))
    return out


def _told(poses: int, cells: Sequence[Placing], scale: int, cut: int, others: int) -> str:
    placed = [cell.pose for cell in cells if cell.pose is not None]
    used = len(set(placed))
    held, text = len(placed) - used, map_text(cells)
    words = [f"{count(poses, 'figure')}: {text if len(text) <= 40 else text[:39] + '…'}"]
    words += [f"{scale} times as large"] if scale > 1 else [f"{-scale} times smaller"] if scale < -1 else []
    words += [f"{held} held"] if held > 0 else []
    words += [f"{poses - used} left out"] if used < poses else []
    words += [f"{count(cut, 'cell')} cut it off"] if cut else []
    words += [f"{count(others, 'mark')} taken for writing"] if others else []
    return ", ".join(words)


def _summary(values: Values) -> str:
    cells = f"cells of {values['width']} × {values['height']}"
    if not values["width"] and not values["height"]:
        cells = "one cell"
    return f"{values['map']}, {cells}" if values["map"] else f"filled, {cells}"


FRAMES = StepType(
    "frames", "Lay figures out", "picture",
    (
        *CELL,
        Parameter("runs", "Animations' cells", "text", ""),
        Parameter("key", "Clear colour", "text", ""),
        Parameter("pixels", "One pixel is", "whole", 1, 1, 16, "×"),
        Parameter("map", "Figures", "text", ""),
        Parameter("flip", "Mirror each", "switch", False),
        Parameter("scale", "Size (0: fits)", "whole", 0, -16, 16, "×"),
        Parameter("tolerance", "Ground's spread", "whole", 6, 0, 128),
        Parameter("more", "Further files", "files", ""),
    ),
    _frames, _summary, "Sheet", uses_original=True,
)  # fmt: skip

MIRROR = StepType(
    "mirror-frames", "Mirror each frame", "picture",
    (
        *CELL,
        Parameter("down", "Upside down", "switch", False),
    ),
    lambda picture, values, _: mirrored_each(
        picture, layout_in(values, picture.size).grid(picture), bool(values["down"])
    ),
    lambda values: f"each of {values['width']} × {values['height']}" if values["width"] else "as one frame",
    "Sheet",
)  # fmt: skip


def _keep(picture: Picture, values: Values, around: Around) -> Picture:
    sheet = around.needed_original("Taking cells from the original")
    layout = layout_in(values, sheet.size)
    grid = layout.grid(sheet)
    if not layout.animations and not values["cells"] and not layout.margin and not layout.gutter:
        return picture
    if picture.size != sheet.size:
        raise FurnelError(
            "Taking cells from the original", why=f"it has {sheet.width} × {sheet.height} pixels, and this is another size",
            remedy="Bring the sheet to the original's size before",
        )  # fmt: skip
    named = set(parse_cells(str(values["cells"])))
    out, kept = sheet.pixels.copy(), 0
    for place in range(grid.columns * grid.rows(sheet.height)):
        if place in named or (layout.animations and place not in layout.used):
            kept += 1
        else:
            out[grid.part(place)] = picture.pixels[grid.part(place)]
    around.tell(count(kept, "cell") + " as the original's")
    return Picture(out)


KEEP = StepType(
    "keep-cells", "Take cells from the original", "picture",
    (
        *CELL,
        Parameter("cells", "Cells", "text", ""),
        Parameter("runs", "All but those of", "text", ""),
    ),
    _keep,
    lambda values: str(values["cells"]) or ("what no animation has" if values["runs"] else "what is between the cells"),
    "Sheet", uses_original=True,
)  # fmt: skip

ENLARGE = StepType(
    "enlarge", "Larger pixels", "picture",
    (
        Parameter("times", "Times", "whole", 2, 1, 16, "×"),
        Parameter("edges", "How", "choice", "squares", choices=KINDS),
    ),
    lambda picture, values, _: enlarged(picture, int(values["times"]), cast(Kind, values["edges"])),
    lambda values: f"{values['times']} times, {values['edges']}",
    "Sheet",
)  # fmt: skip

STEPS = (FRAMES, KEEP, MIRROR, ENLARGE)
