"""A moving picture of a mod's figures for its page: the frames of a fitted sheet, as large as whole pixels go, run after run.
It is an animated PNG (PNG specification, third edition, 11.3.2), which shows its first frame where nothing moves.
"""

from __future__ import annotations

import io
from collections.abc import Sequence
from typing import TYPE_CHECKING

import numpy as np

from furnel.errors import FurnelError
from furnel.imagefiles import decode_level, read_texture
from furnel.images.geometry import brought_to
from furnel.images.picture import Picture
from furnel.mods.workspace import Workspace
from furnel.progress import QUIET, Progress, steps
from furnel.sprites.layout import Animation

if TYPE_CHECKING:
    from PIL import Image

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
    frames: list[Image.Image] = []
    times: list[int] = []
    whole = grid.columns * max(grid.rows(picture.height), 1)
    runs = layout.animations or (Animation("frames", tuple(range(whole))),)
    for run in steps(runs, len(runs), progress, "Drawing figures"):
        each = max(round(1000 / run.speed), _LEAST_MS)
        cells = [pixels[grid.part(cell)] for cell in run.cells]
        cells = [cell for cell in cells if cell.shape[:2] == (layout.cell[1], layout.cell[0])]
        rounds = max(-(-_ROUND_MS // (each * max(len(cells), 1))), 1)
        shown = [_on_ground(cell) for cell in cells]
        frames += shown * rounds
        times += [each] * len(shown) * rounds
    if not frames:
        raise FurnelError(_WHAT, where=original, why="none of the cells of its animations is in it")
    return moving(frames[:_MOST_FRAMES], times[:_MOST_FRAMES])


def _on_ground(cell: np.ndarray[tuple[int, ...], np.dtype[np.uint8]]) -> Image.Image:
    """A frame in the middle, as many times as large as goes."""
    from PIL import Image

    width, height = SIZE
    image = Image.fromarray(cell)
    scale = min(width // cell.shape[1], height // cell.shape[0])
    if scale >= 1:
        image = image.resize((image.width * scale, image.height * scale), Image.Resampling.NEAREST)
    else:
        image.thumbnail(SIZE)
    ground = Image.new("RGBA", SIZE, _GROUND)
    ground.alpha_composite(image, ((width - image.width) // 2, (height - image.height) // 2))
    return ground


def moving(frames: Sequence[Image.Image], times: Sequence[int]) -> bytes:
    """Pictures as an animated PNG that begins anew at its end; `times` are in milliseconds."""
    out = io.BytesIO()
    frames[0].save(
        out,
        "PNG",
        save_all=True,
        append_images=list(frames[1:]),
        duration=list(times),
        loop=0,
        default_image=False,
    )
    return out.getvalue()


def moving_to(data: bytes, width: int, height: int) -> bytes | None:
    """An animated PNG brought to another size, every frame of it; None for a picture that does not move."""
    from PIL import Image

    frames, times = [], []
    with Image.open(io.BytesIO(data)) as image:
        count = getattr(image, "n_frames", 1)
        if image.format != "PNG" or count < 2:
            return None
        for place in range(min(count, _MOST_FRAMES)):
            image.seek(place)
            times.append(int(image.info.get("duration", 100)))
            made = brought_to(Picture(np.asarray(image.convert("RGBA"))), width, height, "fill")
            frames.append(Image.fromarray(np.asarray(made.pixels, np.uint8)))
    return moving(frames, times)
