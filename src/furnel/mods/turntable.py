"""A moving picture of a mod's figures for its page: the frames of a fitted sheet, as large as whole pixels go, run after run.
It is an animated PNG (PNG specification, third edition, 11.3.2), which shows its first frame where nothing moves.
"""

from __future__ import annotations

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles import decode_level, read_texture, write_animation
from furnel.images.geometry import brought_to, placed
from furnel.images.picture import Picture
from furnel.images.resample import resize
from furnel.mods.framefiles import frames_in
from furnel.mods.workspace import Workspace
from furnel.progress import QUIET, Progress, steps
from furnel.sprites.layout import Animation

_WHAT = "Making a moving picture"
_GROUND = (38, 43, 48, 255)
_LEAST_MS, _MOST_FRAMES, _ROUND_MS = 20, 240, 1600
SIZE = (640, 360)


def figures_of(space: Workspace) -> list[str]:
    """The originals of the sheets that a mod has swapped: those with figures, not tiles and masks."""
    roles = ((swap.original, space.profile.role_of(swap.original)) for swap in space.project.swaps)
    return [
        path for path, role in roles
        if role is not None and "sheet" in role.does and not role.does & {"tiles", "mask"}
    ]  # fmt: skip


def turntable(space: Workspace, original: str, progress: Progress = QUIET) -> bytes:
    """The frames of a fitted sheet as an animated PNG of 640 × 360. Raises FurnelError for a swap that has no result."""
    role = space.profile.role_of(original)
    layout = role.layout if role is not None else None
    swap = space.project.swap_for(original)
    if layout is None or swap is None:
        raise FurnelError(_WHAT, where=original, why="it is no sheet of frames that this mod changes")
    examined = space.examine(swap)
    if examined.kept is None:
        raise FurnelError(_WHAT, where=original, why="there is no result yet", remedy="Make it fit first")
    picture = decode_level(read_texture(examined.data, original))
    grid, pixels = layout.across(picture.width), np.array(picture.pixels)
    if layout.key is not None:
        pixels[(pixels[..., :3] == layout.key).all(axis=2)] = 0
    frames: list[Picture] = []
    times: list[int] = []
    whole = grid.columns * max(grid.rows(picture.height), 1)
    runs = layout.animations or (Animation("frames", tuple(range(whole))),)
    for run in steps(runs, len(runs), progress, "Drawing figures"):
        each = max(round(1000 / run.speed), _LEAST_MS)
        cells = [cell for cell in run.cells if cell < whole]
        shown = [_on_ground(cell) for _, cell in frames_in(Picture(pixels), grid, layout.names(whole), cells)]
        rounds = max(-(-_ROUND_MS // (each * max(len(cells), 1))), 1)
        frames += shown * rounds
        times += [each] * len(shown) * rounds
    if not frames:
        raise FurnelError(_WHAT, where=original, why="none of the cells of its animations is in it")
    return write_animation(frames[:_MOST_FRAMES], times[:_MOST_FRAMES], "APNG")


def _on_ground(cell: Picture) -> Picture:
    """A frame in the middle, as many times as large as goes."""
    width, height = SIZE
    ground = Picture(np.full((height, width, 4), _GROUND, np.uint8))
    times = min(width // cell.width, height // cell.height)
    if times < 1:
        return placed(ground, brought_to(cell, width, height, "inside"), (0, 0, width, height), how="stretch")
    figure = resize(cell, cell.width * times, cell.height * times, "nearest")
    box = ((width - figure.width) // 2, (height - figure.height) // 2, *figure.size)
    return placed(ground, figure, box, how="stretch")
