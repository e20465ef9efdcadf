"""Frame maps: which figure of a source stands in which cell of a sheet, and how; filled by proposal, drawn as pixels."""

from __future__ import annotations

import math
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Pixels
from furnel.sprites.grid import Grid
from furnel.sprites.poses import Found, Pose
from furnel.sprites.standing import standings

WHAT = "Laying figures out"
_PLACING = re.compile(r"(?:(\d{1,3})(f)?(?:([-+]\d{1,3})([-+]\d{1,3}))?|(-))$")


@dataclass(frozen=True, slots=True)
class Placing:
    """A cell: which pose is in it (from 0; None: it is empty), mirrored or not, moved to the right and down by whole pixels."""

    pose: int | None
    flip: bool = False
    right: int = 0
    down: int = 0

    def mirrored(self) -> Placing:
        """The same cell, its figure the other way round."""
        return replace(self, flip=not self.flip)

    def text(self) -> str:
        """As it is written: `3`, `3f` mirrored, `3f+1-2` moved, `-` for an empty cell."""
        if self.pose is None:
            return "-"
        moved = f"{self.right:+d}{self.down:+d}" if self.right or self.down else ""
        return f"{self.pose + 1}{'f' if self.flip else ''}{moved}"


def map_text(cells: Sequence[Placing]) -> str:
    """A frame map as it is written, cell by cell."""
    return " ".join(cell.text() for cell in cells)


def parse_map(text: str) -> tuple[Placing, ...]:
    """A frame map from its text. Raises FurnelError that names what cannot be read."""
    out = []
    for word in text.split():
        found = _PLACING.match(word)
        if found is None or found.group(1) == "0":
            raise FurnelError(
                WHAT, where=word, why="it is no cell of a frame map",
                remedy="Write the figure's number, f for mirrored, how far it is moved: 3, 3f, 3f+1-2; or - for an empty cell",
            )  # fmt: skip
        number, flip, right, down, _ = found.groups()
        pose = int(number) - 1 if number else None
        out.append(Placing(pose, bool(flip), int(right or 0), int(down or 0)))
    return tuple(out)


def filled(poses: int, cells: int) -> tuple[Placing, ...]:
    """Poses spread over cells: the first and the last stay, between them some are held or left out, evenly."""
    if cells == 1 or poses == 1:
        return tuple(Placing(0) for _ in range(cells))
    return tuple(Placing(math.floor(at * (poses - 1) / (cells - 1) + 0.5)) for at in range(cells))


def scale_for(poses: Sequence[Pose], grid: Grid, anchors: Sequence[tuple[float, int]]) -> int:
    """The largest whole number by which all poses fit into a cell when they stand on the anchors; below 0 the number by which
    they are made smaller."""
    wide, high = max(pose.width for pose in poses), max(pose.height for pose in poses)
    room = max(min(floor for _, floor in anchors), 1)
    larger = min(grid.width // wide, room // high)
    return larger if larger >= 1 else -max(math.ceil(wide / grid.width), math.ceil(high / room))


def anchors_of(sheet: Picture, grid: Grid) -> list[tuple[float, int]]:
    """Where a sheet's figures stand in their cells: the middle of all feet across, the lowest ink of each down."""
    found = standings(sheet, grid, grid.count)
    there = [one for one in found if one.height]
    if not there:
        return [(grid.width / 2, grid.height)] * grid.count
    middle = float(np.median([one.middle for one in there]))
    floor = round(float(np.median([one.floor for one in there])))
    return [(middle, one.floor if one.height else floor) for one in found]


def laid_out(
    source: Picture, found: Found, cells: Sequence[Placing], grid: Grid, size: tuple[int, int], scale: int,
    anchors: Sequence[tuple[float, int]],
) -> tuple[Picture, int]:  # fmt: skip
    """A sheet of `size` (width, height) with the poses in its cells, all else clear, and how many figures their cells cut.

    `scale` is as `scale_for` gives it. Poses stand on the anchors, moved into the cell where they fit. Raises FurnelError for
    a map that names poses that are not there, or more cells than there are.
    """
    width, height = size
    if len(cells) > grid.columns * (height // grid.height):
        raise FurnelError(
            WHAT, why=f"the frame map has {len(cells)} cells, the sheet {grid.columns * (height // grid.height)}",
            remedy="Leave the last ones out",
        )  # fmt: skip
    out = np.zeros((height, width, 4), np.uint8)
    cut = 0
    for place, cell in enumerate(cells):
        if cell.pose is None:
            continue
        if cell.pose >= len(found.poses):
            raise FurnelError(
                WHAT, where=cell.text(), why=f"the source has {len(found.poses)} figures",
                remedy="Name one of these",
            )  # fmt: skip
        pose = found.poses[cell.pose]
        drawn, foot = _drawn(source, found, pose, cell.flip, scale)
        anchor = anchors[min(place, len(anchors) - 1)]
        left = _inside(round(anchor[0] - foot), drawn.shape[1], grid.width) + cell.right
        top = _inside(anchor[1] - drawn.shape[0], drawn.shape[0], grid.height) + cell.down
        cut += _paste(out, drawn, place, grid, left, top)
    return Picture(out), cut


def _drawn(source: Picture, found: Found, pose: Pose, flip: bool, scale: int) -> tuple[Pixels, float]:
    """A pose's pixels, clear where there is none of its ink, and the middle of its feet in them."""
    rows, columns = slice(pose.top, pose.top + pose.height), slice(pose.left, pose.left + pose.width)
    part = np.where(found.ink[rows, columns][..., None], source.pixels[rows, columns], 0).astype(np.uint8)
    foot = pose.foot_x - pose.left
    if flip:
        part, foot = part[:, ::-1], pose.width - foot
    if scale > 0:
        return part.repeat(scale, axis=0).repeat(scale, axis=1), foot * scale
    return _smaller(part, -scale), foot / -scale


def _smaller(part: Pixels, by: int) -> Pixels:
    """A pose made smaller by a whole number: of each block the most frequent colour, clear where most of it is clear."""
    high, wide = -(-part.shape[0] // by), -(-part.shape[1] // by)
    padded = np.zeros((high * by, wide * by, 4), np.uint8)
    padded[padded.shape[0] - part.shape[0] :, : part.shape[1]] = part
    blocks = padded.reshape(high, by, wide, by, 4).swapaxes(1, 2).reshape(high, wide, by * by, 4)
    codes = np.ascontiguousarray(blocks).view(np.uint32)[..., 0]
    codes[blocks[..., 3] < 128] = 0
    ordered = np.sort(codes, axis=2)
    best, times = np.zeros((high, wide), np.uint32), np.zeros((high, wide), np.int64)
    for place in range(by * by):  # the longest run of equal ones
        same = (ordered == ordered[..., place : place + 1]).sum(axis=2)
        better = (same > times) & (ordered[..., place] != 0)
        best[better], times[better] = ordered[..., place][better], same[better]
    inked = (codes != 0).sum(axis=2) * 2 >= by * by
    return np.where(inked, best, 0).astype(np.uint32)[..., None].view(np.uint8).reshape(high, wide, 4)


def _inside(at: int, length: int, room: int) -> int:
    """A place moved as little as needed for what fits to be inside."""
    return min(max(at, 0), room - length) if length <= room else at


def _paste(out: Pixels, drawn: Pixels, place: int, grid: Grid, left: int, top: int) -> bool:
    """Draw into a cell; whether something of it fell outside."""
    y, x = place // grid.columns * grid.height, place % grid.columns * grid.width
    first_row, first_column = max(-top, 0), max(-left, 0)
    part = drawn[first_row : max(grid.height - top, 0), first_column : max(grid.width - left, 0)]
    to = out[y + top + first_row :, x + left + first_column :][: part.shape[0], : part.shape[1]]
    to[part[..., 3] > 0] = part[part[..., 3] > 0]
    return int((drawn[..., 3] > 0).sum()) > int((part[..., 3] > 0).sum())
