"""Poses: the figures that a picture shows, whatever its ground, found and put in reading order."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Pixels, Rgb
from furnel.sprites.standing import middle_of_feet

Mask = npt.NDArray[np.bool_]

_SOLID = 127
_SEEN = 16  # an alpha below is nothing that anybody sees
_OF_BORDER = 0.08  # so much of the border a colour has to have to be ground
_GROUND_MOST = 4
_UNEVEN = 12
_LEAST_BOX = 36
_IN_BOX = 0.02  # so much of a box is a figure
_STRAY = 0.06  # beside the usual figure what has so little ink is a mark, no figure
_WRITING = ((0.35, 0.8), (0.5, 0.5))  # so low beside the usual figure, with so much less ink: letters


@dataclass(frozen=True, slots=True)
class Pose:
    """A figure in a picture: its box (left, top, width, height), where it stands there (the middle of its feet), and in which
    row of figures it is."""

    left: int
    top: int
    width: int
    height: int
    foot_x: float
    foot_y: int
    row: int = 0

    @property
    def box(self) -> tuple[int, int, int, int]:
        return self.left, self.top, self.width, self.height


@dataclass(frozen=True, slots=True, eq=False)
class Found:
    """What was found in a picture: its ground colours (red, green, blue), the figures' ink, the poses in reading order, and
    the boxes of what is no figure: writing, stray marks; for how long each pose is shown (milliseconds), where that is told."""

    ground: tuple[Rgb, ...]
    ink: Mask
    poses: tuple[Pose, ...]
    others: tuple[tuple[int, int, int, int], ...]
    times: tuple[int, ...] = ()


def ground_of(picture: Picture) -> tuple[Rgb, ...]:
    """The colours of an opaque picture's ground, the most frequent first: those of its border, and boxes of one colour that
    lie around figures. None for a picture with clear pixels."""
    pixels = picture.pixels
    if bool((pixels[..., 3] < _SEEN).any()):
        return ()
    edge = np.concatenate([pixels[0], pixels[-1], pixels[1:-1, 0], pixels[1:-1, -1]])
    colours, times = np.unique(edge[:, :3], axis=0, return_counts=True)
    order = sorted(range(len(colours)), key=lambda place: -times[place])
    found = [_rgb(colours[place]) for place in order if times[place] >= len(edge) * _OF_BORDER][:_GROUND_MOST]
    if not found and (uneven := _uneven_ground(edge)) is not None:
        return (uneven,)
    while len(found) < _GROUND_MOST and (inner := _box_colour(pixels, found)) is not None:
        found.append(inner)
    return tuple(found)


def _rgb(colour: Pixels) -> Rgb:
    return int(colour[0]), int(colour[1]), int(colour[2])


def _uneven_ground(edge: Pixels) -> Rgb | None:
    """The middle of a ground that is not of one colour, as lossy files make it; None when the border has no such ground."""
    middle = np.median(edge[:, :3], axis=0)
    near = np.abs(edge[:, :3] - middle).max(axis=1) <= _UNEVEN
    return (int(middle[0]), int(middle[1]), int(middle[2])) if near.mean() >= 0.8 else None


def _box_colour(pixels: Pixels, ground: list[Rgb]) -> Rgb | None:
    """A further ground colour: what most of what touches the ground is filled with, when that is in boxes, not in figures."""
    from furnel.sprites.walking import ink_of, parts_of

    parts = parts_of(ink_of(pixels, ground, 0, _SEEN))
    votes: dict[Rgb, int] = {}
    for left, top, wide, high, inked in parts:
        if inked < 0.98 * wide * high or wide * high < _LEAST_BOX:  # a figure does not fill its box
            return None
        part = pixels[top : top + high, left : left + wide, :3]
        rim = np.concatenate([part[0], part[-1], part[:, 0], part[:, -1]])
        colours, times = np.unique(rim, axis=0, return_counts=True)
        colour = _rgb(colours[times.argmax()])
        if times.max() >= len(rim) * 0.8 and (part != colour).any(axis=2).mean() >= _IN_BOX:
            votes[colour] = votes.get(colour, 0) + 1
    if not votes:
        return None
    best = max(votes, key=lambda colour: votes[colour])
    return best if votes[best] * 2 > len(parts) else None


def poses_of(picture: Picture, tolerance: int = 0) -> Found:
    """The figures of a picture. `tolerance` (0 to 255) is how far a colour may be from the ground's and still be ground.

    Parts belong together when their boxes meet, or nearly so beside their size; rows are read from the top, each from the
    left. Raises FurnelError when nothing is drawn.
    """
    ground = ground_of(picture)
    from furnel.sprites.walking import ink_of, parts_of

    ink = ink_of(picture.pixels, list(ground), tolerance, _SEEN)
    seen = ink.view(np.bool_)
    boxes = _grouped([(int(x), int(y), int(w), int(h)) for x, y, w, h, _ in parts_of(ink)])
    if not boxes:
        raise FurnelError(
            "Looking for figures",
            why="there is nothing but ground in it",
            remedy="Use a picture with figures",
        )
    figures, others = _told_apart(boxes, seen)
    solid = picture.pixels[..., 3] > _SOLID
    rows = enumerate(_in_reading_order(figures))
    poses = [_pose(seen, solid, box, number) for number, row in rows for box in row]
    return Found(ground, seen, tuple(poses), tuple(others))


_Box = tuple[int, int, int, int]


def poses_of_frames(frames: Sequence[Picture], times: Sequence[int] = ()) -> tuple[Picture, Found]:
    """The frames of an animated file one beside the other, with a figure for each: what is drawn in it, on its own ground.

    Each figure's box is the whole frame, so that it moves in its cell as it does in the file. Raises FurnelError when nothing
    is drawn in any.
    """
    ground = ground_of(frames[0])
    from furnel.sprites.walking import ink_of

    inks = [ink_of(frame.pixels, list(ground), 0, _SEEN).view(np.bool_) for frame in frames]
    whole = np.logical_or.reduce(inks)
    if not whole.any():
        raise FurnelError(
            "Looking for figures",
            why="there is nothing but ground in any of its frames",
            remedy="Use a file with figures",
        )
    down, across = np.flatnonzero(whole.any(axis=1)), np.flatnonzero(whole.any(axis=0))
    rows, columns = slice(int(down[0]), int(down[-1]) + 1), slice(int(across[0]), int(across[-1]) + 1)
    wide, high = columns.stop - columns.start, rows.stop - rows.start
    foot = middle_of_feet(whole[rows, columns])
    poses = [Pose(place * wide, 0, wide, high, place * wide + foot, high) for place in range(len(frames))]
    picture = Picture(np.concatenate([frame.pixels[rows, columns] for frame in frames], axis=1))
    ink = np.concatenate([one[rows, columns] for one in inks], axis=1)
    return picture, Found(ground, ink, tuple(poses), (), tuple(times))


def brought_together(frames: Sequence[Picture]) -> tuple[Picture, ...]:
    """Pictures of several sizes on ground of one size: each in the middle across, and on the floor."""
    wide, high = max(frame.width for frame in frames), max(frame.height for frame in frames)
    out = []
    for frame in frames:
        ground = ground_of(frame)
        whole = np.zeros((high, wide, 4), np.uint8)
        whole[:] = [*ground[0], 255] if ground else 0
        left = (wide - frame.width) // 2
        whole[high - frame.height :, left : left + frame.width] = frame.pixels
        out.append(Picture(whole))
    return tuple(out)


def _grouped(parts: list[_Box]) -> list[_Box]:
    """Parts that belong to one figure as one: small ones go to the large one whose box they meet or nearly touch."""
    if not parts:
        return []
    tall = float(np.median(sorted(height for *_, height in parts)[-max(len(parts) // 2, 1) :]))
    near = max(round(tall * 0.08), 1)
    boxes = sorted(parts, key=lambda box: -box[2] * box[3])
    merged = True
    while merged:
        merged, out = False, list[_Box]()
        for box in boxes:
            for place, other in enumerate(out):
                if _touch(box, other, near) and _is_piece(box, other):
                    out[place], merged = _around(box, other), True
                    break
            else:
                out.append(box)
        boxes = out
    return boxes


def _touch(one: _Box, other: _Box, near: int) -> bool:
    return (
        one[0] - near <= other[0] + other[2] and other[0] - near <= one[0] + one[2]
        and one[1] - near <= other[1] + other[3] and other[1] - near <= one[1] + one[3]
    )  # fmt: skip


def _is_piece(small: _Box, large: _Box) -> bool:
    """Whether a part can be a piece of a figure: it is much smaller, or the boxes lie over each other."""
    over = max(min(small[0] + small[2], large[0] + large[2]) - max(small[0], large[0]), 0)
    down = max(min(small[1] + small[3], large[1] + large[3]) - max(small[1], large[1]), 0)
    return small[2] * small[3] * 3 <= large[2] * large[3] or over * down * 3 >= small[2] * small[3]


def _around(one: _Box, other: _Box) -> _Box:
    left, top = min(one[0], other[0]), min(one[1], other[1])
    right, bottom = max(one[0] + one[2], other[0] + other[2]), max(one[1] + one[3], other[1] + other[3])
    return left, top, right - left, bottom - top


def _told_apart(boxes: list[_Box], ink: Mask) -> tuple[list[_Box], list[_Box]]:
    """Figures, and what is none beside them: stray marks and writing."""
    amounts = [int(ink[y : y + h, x : x + w].sum()) for x, y, w, h in boxes]
    half, order = 0, sorted(range(len(boxes)), key=lambda place: -amounts[place])
    usual = order[0]
    for usual in order:  # the one at which half of all ink is reached
        half += amounts[usual]
        if half * 2 >= sum(amounts):
            break
    much, tall = amounts[usual], boxes[usual][3]
    figures, others = list[_Box](), list[_Box]()
    for box, amount in zip(boxes, amounts, strict=True):
        is_flat = any(box[3] <= tall * low and amount < much * little for low, little in _WRITING)
        is_mark = amount < much * _STRAY or is_flat
        (others if is_mark else figures).append(box)
    return figures, others


def _in_reading_order(boxes: list[_Box]) -> list[list[_Box]]:
    """Rows from the top, each from the left; a box is in a row when its middle lies in the row's height."""
    rows: list[list[_Box]] = []
    for box in sorted(boxes, key=lambda box: box[1] + box[3]):
        middle = box[1] + box[3] / 2
        for row in rows:
            if min(one[1] for one in row) <= middle <= max(one[1] + one[3] for one in row):
                row.append(box)
                break
        else:
            rows.append([box])
    rows.sort(key=lambda row: min(box[1] for box in row))
    return [sorted(row) for row in rows]


def _pose(ink: Mask, solid: Mask, box: _Box, row: int) -> Pose:
    left, top, width, height = box
    part = ink[top : top + height, left : left + width]
    hard = part & solid[top : top + height, left : left + width]
    rows = np.flatnonzero(hard.any(axis=1))
    floor = int(rows[-1]) + 1 if rows.size else height  # a soft edge is nothing to stand on
    middle = middle_of_feet((hard if rows.size else part)[:floor])
    return Pose(left, top, width, height, left + middle, top + floor, row)
