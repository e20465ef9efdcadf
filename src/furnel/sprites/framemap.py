"""Frame maps: which figure of a source stands in which cell of a sheet, and how; filled by proposal, drawn as pixels."""

from __future__ import annotations

import bisect
import itertools
import math
import re
from collections.abc import Sequence
from dataclasses import dataclass, replace

import numpy as np

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Pixels, Rgb
from furnel.sprites.grid import Grid
from furnel.sprites.layout import Animation, Mask
from furnel.sprites.poses import Found, Pose
from furnel.sprites.standing import standings

WHAT = "Laying figures out"
MOST_SCALE = 16
_PLACING = re.compile(r"(?:(\d{1,3})(f)?(?:x(\d{1,2}))?(?:([-+]\d{1,3})([-+]\d{1,3}))?|(-)|(=))$")


@dataclass(frozen=True, slots=True)
class Placing:
    """A cell: which pose is in it (from 0; None: it is empty, or with `keep` as the original's), mirrored or not, `scale` times
    as large (0: as all are), moved to the right and down by whole pixels."""

    pose: int | None
    flip: bool = False
    right: int = 0
    down: int = 0
    scale: int = 0
    keep: bool = False

    def mirrored(self) -> Placing:
        """The same cell, its figure the other way round."""
        return self if self.pose is None else replace(self, flip=not self.flip, right=-self.right)

    def text(self) -> str:
        """As it is written: `3`, `3f` mirrored, `3x2` twice as large, `3f+1-2` moved, `-` for an empty cell, `=` for the
        original's."""
        if self.pose is None:
            return "=" if self.keep else "-"
        larger = f"x{self.scale}" if self.scale else ""
        moved = f"{self.right:+d}{self.down:+d}" if self.right or self.down else ""
        return f"{self.pose + 1}{'f' if self.flip else ''}{larger}{moved}"


def map_text(cells: Sequence[Placing]) -> str:
    """A frame map as it is written, cell by cell."""
    return " ".join(cell.text() for cell in cells)


def parse_map(text: str) -> tuple[Placing, ...]:
    """A frame map from its text. Raises FurnelError that names what cannot be read."""
    out = []
    for word in text.split():
        found = _PLACING.match(word)
        if found is None or found.group(1) == "0" or int(found.group(3) or 1) not in range(1, MOST_SCALE + 1):
            raise FurnelError(
                WHAT, where=word, why="it is no cell of a frame map",
                remedy="Write the figure's number, f for mirrored, x2 for twice as large, how far it is moved: 3, 3f, 3fx2+1-2;"
                " or - for an empty cell, = for the original's",
            )  # fmt: skip
        number, flip, larger, right, down, _, keep = found.groups()
        pose = int(number) - 1 if number else None
        out.append(Placing(pose, bool(flip), int(right or 0), int(down or 0), int(larger or 0), bool(keep)))
    return tuple(out)


def spread(poses: Sequence[int], cells: int) -> list[int]:
    """Poses spread over cells: the first and the last stay, between them some are held or left out, evenly."""
    if cells == 1 or len(poses) == 1:
        return [poses[0]] * cells
    return [poses[math.floor(at * (len(poses) - 1) / (cells - 1) + 0.5)] for at in range(cells)]


def spread_by_time(times: Sequence[int], cells: int) -> list[int]:
    """Poses spread over cells that are all shown as long, each for as much of the whole as its time is: what is seen at the
    middle of each cell."""
    ends = list(itertools.accumulate(times))
    return [bisect.bisect_right(ends, ends[-1] * (cell + 0.5) / cells - 1e-9) for cell in range(cells)]


def filled(
    poses: Sequence[Pose], cells: int, runs: Sequence[Animation] = (), times: Sequence[int] = ()
) -> tuple[Placing, ...]:
    """A proposal: poses spread over cells. With several animations each gets a row of poses; one that is left without any holds
    the first pose. Cells of no animation are as the original's. Where poses are shown for different `times`, longer ones get
    more cells."""
    uneven = len(set(times)) > 1
    if not runs:
        found = spread_by_time(times, cells) if uneven else spread(range(len(poses)), cells)
        return tuple(Placing(pose) for pose in found)
    rows = [list(row) for _, row in itertools.groupby(range(len(poses)), lambda place: poses[place].row)]
    if len(runs) == 1:
        rows = [list(range(len(poses)))]
    out = [Placing(None, keep=True)] * cells
    taken = set[int]()
    for number, run in enumerate(runs):
        free = [place for place in dict.fromkeys(run.cells) if place < cells and place not in taken]
        own = rows[number] if number < len(rows) else [0]
        timed = uneven and len(own) == len(times)
        for place, pose in zip(
            free, spread_by_time(times, len(free)) if timed else spread(own, len(free) or 1), strict=False
        ):
            out[place] = Placing(pose)
        taken.update(free)
    return tuple(out)


def scale_for(poses: Sequence[Pose], grid: Grid, anchors: Sequence[Spot]) -> int:
    """The largest whole number by which all poses fit into a cell when they stand on the anchors; below 0 the number by which
    they are made smaller."""
    wide, high = max(pose.width for pose in poses), max(pose.height for pose in poses)
    room = max(min((round(spot.y) for spot in anchors if not spot.centre), default=grid.height), 1)
    larger = min(grid.width // wide, room // high) or min(grid.width // wide, grid.height // high, 1)
    if larger < 1:
        return -max(math.ceil(wide / grid.width), math.ceil(high / room))
    return min(larger - (larger % grid.pixels if larger > grid.pixels else 0), MOST_SCALE)


@dataclass(frozen=True, slots=True)
class Spot:
    """Where a figure is in its cell: the column of the middle of its feet and the row below its lowest ink; with `centre` the
    middle of its box."""

    x: float
    y: float
    centre: bool = False


def anchors_of(
    sheet: Picture, grid: Grid, runs: Sequence[Animation] = (), ink: Mask | None = None
) -> list[Spot]:
    """Where a sheet's figures stand in their cells: the middle of all feet across, the lowest ink of each down; in an animation
    whose figures stay with their centre, the middle of each figure's box."""
    found = standings(sheet, grid, grid.count, ink)
    there = [one for one in found if one.height]
    if not there:
        return [Spot(grid.width / 2, grid.height)] * grid.count
    middle = float(np.median([one.middle for one in there]))
    floor = round(float(np.median([one.floor for one in there])))
    out = [Spot(middle, one.floor if one.height else floor) for one in found]
    for run in runs:
        for place in run.cells if run.anchor == "centre" else ():
            if place < len(found) and found[place].height:
                out[place] = Spot(found[place].centre, (found[place].top + found[place].floor) / 2, True)
    return out


@dataclass(frozen=True, slots=True)
class Bed:
    """What figures are laid into: an original's sheet and its grid, where figures stand in its cells, and the colour (red,
    green, blue) that is clear there, where one is."""

    sheet: Picture
    grid: Grid
    anchors: Sequence[Spot]
    key: Rgb | None = None

    def emptied(self, cells: Sequence[Placing]) -> Pixels:
        """The sheet's pixels, its cells cleared but for those that are kept."""
        out = self.sheet.pixels.copy()
        for place in range(self.grid.columns * self.grid.rows(len(out))):
            if place >= len(cells) or not cells[place].keep:
                out[self.grid.part(place)] = [*self.key, 255] if self.key is not None else 0
        return out


def laid_out(
    source: Picture, found: Found, cells: Sequence[Placing], bed: Bed, scale: int
) -> tuple[Picture, int]:
    """A sheet of the bed's size with the poses in its cells, and how many figures their cells cut.

    `scale` is as `scale_for` gives it. Poses stand on the anchors, moved into the cell where they fit. Raises FurnelError for
    a map that names poses that are not there, or more cells than there are.
    """
    grid = bed.grid
    most = grid.columns * grid.rows(bed.sheet.height)
    if len(cells) > most:
        raise FurnelError(
            WHAT,
            why=f"the frame map has {len(cells)} cells, the sheet {most}",
            remedy="Leave the last ones out",
        )
    out = bed.emptied(cells)
    cut, known = 0, dict[tuple[int, bool, int], tuple[Pixels, float]]()
    for place, cell in enumerate(cells):
        if cell.pose is None:
            continue
        if cell.pose >= len(found.poses):
            raise FurnelError(
                WHAT,
                where=cell.text(),
                why=f"the source has {len(found.poses)} figures",
                remedy="Name one of these",
            )
        anchor, key = (
            bed.anchors[min(place, len(bed.anchors) - 1)],
            (cell.pose, cell.flip, cell.scale or scale),
        )
        if key not in known:  # many cells have the same figure
            known[key] = _drawn(source, found, found.poses[cell.pose], *key[1:])
        drawn, left, top = _placed(found, cell, anchor, grid, key[2], known[key])
        cut += _paste(out, drawn, place, grid, left, top)
    return Picture(out), cut


def placed(
    source: Picture, found: Found, cell: Placing, spot: Spot, grid: Grid, scale: int
) -> tuple[Pixels, int, int]:
    """A cell's figure as it is drawn, and its left and top in the cell."""
    assert cell.pose is not None
    times = cell.scale or scale
    drawn = _drawn(source, found, found.poses[cell.pose], cell.flip, times)
    return _placed(found, cell, spot, grid, times, drawn)


def _placed(
    found: Found, cell: Placing, spot: Spot, grid: Grid, times: int, figure: tuple[Pixels, float]
) -> tuple[Pixels, int, int]:
    assert cell.pose is not None
    pose, (drawn, foot) = found.poses[cell.pose], figure
    high, wide = drawn.shape[:2]
    below = pose.top + pose.height - pose.foot_y  # a soft edge under the feet
    below = below * times if times > 0 else below // -times
    left, top = (
        (spot.x - wide / 2, spot.y - high / 2) if spot.centre else (spot.x - foot, spot.y - high + below)
    )
    side = grid.pixels  # figures lie on the grid of the drawing's own pixels, and are moved by these
    left, top = (_inside(side * round(at / side), size, room) for at, size, room in (
        (left, wide, grid.width), (top, high, grid.height)
    ))  # fmt: skip
    return drawn, int(left) + cell.right * side, int(top) + cell.down * side


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
    ordered = np.sort(codes, axis=2).ravel()
    starts = np.flatnonzero(np.diff(ordered, prepend=ordered[:1]) != 0)
    starts = np.union1d(starts, np.arange(0, ordered.size, by * by))  # runs of equal ones, each in its block
    values, block = ordered[starts], starts // (by * by)
    times = np.where(values != 0, np.diff(starts, append=ordered.size), 0)
    order = np.lexsort((starts, -times, block))  # the longest run of each block first
    longest = order[np.searchsorted(block[order], np.arange(high * wide))]
    best = np.where(times[longest] > 0, values[longest], 0).astype(np.uint32).reshape(high, wide)
    inked = (codes != 0).sum(axis=2) * 2 >= by * by
    return np.where(inked, best, 0).astype(np.uint32)[..., None].view(np.uint8).reshape(high, wide, 4)


def _inside(at: int, length: int, room: int) -> int:
    """A place moved as little as needed for what fits to be inside."""
    return min(max(at, 0), room - length) if length <= room else at


def _paste(out: Pixels, drawn: Pixels, place: int, grid: Grid, left: int, top: int) -> bool:
    """Draw into a cell; whether something of it fell outside."""
    x, y, _, _ = grid.box(place)
    first_row, first_column = max(-top, 0), max(-left, 0)
    part = drawn[first_row : max(grid.height - top, 0), first_column : max(grid.width - left, 0)]
    to = out[y + top + first_row :, x + left + first_column :][: part.shape[0], : part.shape[1]]
    to[part[..., 3] > 0] = part[part[..., 3] > 0]
    return int((drawn[..., 3] > 0).sum()) > int((part[..., 3] > 0).sum())
