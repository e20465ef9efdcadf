"""Steps for sheets: figures of a source laid out in the game's cells."""

from __future__ import annotations

from typing import cast

from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.mods.steps.step import Around, Parameter, StepType, Values
from furnel.sprites import anchors_of, filled, grid_of, laid_out, map_text, parse_map, poses_of, scale_for
from furnel.sprites.scaling import KINDS, Kind, enlarged, mirrored_each
from furnel.words import count

_WHAT = "Laying figures out"


def _frames(picture: Picture, values: Values, around: Around) -> Picture:
    sheet = around.needed_original(_WHAT)
    grid = grid_of(sheet, (int(values["width"]) or sheet.width, int(values["height"]) or sheet.height))
    found = poses_of(picture, int(values["tolerance"]))
    wanted = parse_map(str(values["map"])) or filled(len(found.poses), grid.count)
    if values["flip"]:
        wanted = tuple(cell if cell.pose is None else cell.mirrored() for cell in wanted)
    used = sorted({cell.pose for cell in wanted if cell.pose is not None and cell.pose < len(found.poses)})
    if not used:
        raise FurnelError(
            _WHAT, why="its frame map names no figure", remedy="Write their numbers, or leave it empty"
        )
    anchors = anchors_of(sheet, grid)
    scale = int(values["scale"]) or scale_for([found.poses[place] for place in used], grid, anchors)
    out, cut = laid_out(picture, found, wanted, grid, sheet.size, scale, anchors)
    around.tell(_told(len(found.poses), len(used), map_text(wanted), scale, cut, len(found.others)))
    return out


def _told(poses: int, used: int, cells: str, scale: int, cut: int, others: int) -> str:
    words = [f"{count(poses, 'figure')}: {cells if len(cells) <= 40 else cells[:39] + '…'}"]
    words += [f"{scale} times as large"] if scale > 1 else [f"{-scale} times smaller"] if scale < -1 else []
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
        Parameter("width", "Cell's width", "whole", 0, 0, 4096, "px"),
        Parameter("height", "Cell's height", "whole", 0, 0, 4096, "px"),
        Parameter("map", "Figures", "text", ""),
        Parameter("flip", "Mirror each", "switch", False),
        Parameter("scale", "Size (0: fits)", "whole", 0, -16, 16, "×"),
        Parameter("tolerance", "Ground's spread", "whole", 6, 0, 128),
    ),
    _frames, _summary, "Sheet", uses_original=True,
)  # fmt: skip

MIRROR = StepType(
    "mirror-frames", "Mirror each frame", "picture",
    (
        Parameter("width", "Cell's width", "whole", 0, 0, 4096, "px"),
        Parameter("height", "Cell's height", "whole", 0, 0, 4096, "px"),
        Parameter("down", "Upside down", "switch", False),
    ),
    lambda picture, values, _: mirrored_each(
        picture, int(values["width"]) or picture.width, int(values["height"]) or picture.height, bool(values["down"])
    ),
    lambda values: f"each of {values['width']} × {values['height']}" if values["width"] else "as one frame",
    "Sheet",
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

STEPS = (FRAMES, MIRROR, ENLARGE)
