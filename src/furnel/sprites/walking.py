"""Kernels that walk over a picture's pixels: what is no ground, and the boxes of what hangs together."""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.kernels import kernel

Ink = npt.NDArray[np.uint8]


@kernel("void(uint8[:, :, ::1], uint8[:, ::1], int64, int64, uint8[:, ::1])")
def mark_ink(
    pixels: npt.NDArray[np.uint8], grounds: npt.NDArray[np.uint8], tolerance: int, least_alpha: int, out: Ink
) -> None:
    """Set `out` to 1 where a pixel is seen and every channel of no ground colour is within `tolerance`; to 0 elsewhere."""
    for y in range(pixels.shape[0]):
        for x in range(pixels.shape[1]):
            seen = pixels[y, x, 3] >= least_alpha
            for place in range(grounds.shape[0]):
                if not seen:
                    break
                far = False
                for channel in range(3):
                    apart = np.int64(pixels[y, x, channel]) - np.int64(grounds[place, channel])
                    if apart > tolerance or -apart > tolerance:
                        far = True
                seen = far
            out[y, x] = 1 if seen else 0


@kernel("int64(uint8[:, ::1])")
def count_runs(ink: Ink) -> int:
    """How many runs of ink all rows have together."""
    found = 0
    for y in range(ink.shape[0]):
        before = 0
        for x in range(ink.shape[1]):
            if ink[y, x] and not before:
                found += 1
            before = ink[y, x]
    return found


@kernel("void(uint8[:, ::1], int64[:, ::1], int64[:, ::1])")
def join_runs(ink: Ink, runs: npt.NDArray[np.int64], boxes: npt.NDArray[np.int64]) -> None:
    """Runs of ink (first column, one behind the last, its part) with those that touch them in the row above, corners too.

    `boxes`, one a run, gets left, top, right, bottom and the pixels of each part in the row of its first run.
    """
    number, above, above_end = 0, 0, 0
    for y in range(ink.shape[0]):
        first, x = number, 0
        while x < ink.shape[1]:
            if not ink[y, x]:
                x += 1
                continue
            start = x
            while x < ink.shape[1] and ink[y, x]:
                x += 1
            runs[number, 0], runs[number, 1], runs[number, 2] = start, x, number
            number += 1
        other = above
        for run in range(first, number):
            while other < above_end and runs[other, 1] < runs[run, 0]:
                other += 1
            at = other
            while at < above_end and runs[at, 0] <= runs[run, 1]:
                one, two = run, at
                while runs[one, 2] != one:
                    one = runs[one, 2]
                while runs[two, 2] != two:
                    two = runs[two, 2]
                if one < two:
                    runs[two, 2] = one
                else:
                    runs[one, 2] = two
                at += 1
        above, above_end = first, number
        for run in range(first, number):
            boxes[run, 1] = y
    for run in range(number):
        root = run
        while runs[root, 2] != root:
            root = runs[root, 2]
        runs[run, 2] = root
        row = boxes[run, 1]
        if root == run:
            boxes[run, 0], boxes[run, 2] = runs[run, 0], runs[run, 1]
            boxes[run, 3], boxes[run, 4] = row + 1, runs[run, 1] - runs[run, 0]
        else:
            boxes[root, 0] = min(boxes[root, 0], runs[run, 0])
            boxes[root, 2] = max(boxes[root, 2], runs[run, 1])
            boxes[root, 3] = max(boxes[root, 3], row + 1)
            boxes[root, 4] += runs[run, 1] - runs[run, 0]


def ink_of(
    pixels: npt.NDArray[np.uint8], grounds: list[tuple[int, int, int]], tolerance: int, least_alpha: int
) -> Ink:
    """1 where a picture (height, width, 4) shows something that is no ground, 0 elsewhere."""
    out = np.empty(pixels.shape[:2], np.uint8)
    codes = np.array(grounds, np.uint8).reshape(-1, 3)
    mark_ink(np.require(pixels, np.uint8, ["C", "W"]), codes, tolerance, least_alpha, out)
    return out


def parts_of(ink: Ink) -> npt.NDArray[np.int64]:
    """Left, top, width, height and pixels of everything that hangs together, corners too; in the order of their first rows."""
    number = count_runs(ink)
    runs, boxes = np.empty((number, 3), np.int64), np.zeros((number, 5), np.int64)
    join_runs(ink, runs, boxes)
    found: npt.NDArray[np.int64] = boxes[runs[:, 2] == np.arange(number)]
    found[:, 2] -= found[:, 0]
    found[:, 3] -= found[:, 1]
    return found
