"""BC7, encoding: the modes that pay, each fitted, the best of them written."""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc7_bits import write_block
from furnel.blocks.bc7_fit import fit_mode, fit_subset, rank_partitions
from furnel.blocks.bc7_tables import MODES
from furnel.kernels import kernel

_FAR = 1 << 60


@kernel()
def _gather(pixels, row, column, px):
    """The block's pixels into `px` (4, 16); colour under zero alpha becomes the mean of what is seen. Its lowest alpha."""
    height, width = pixels.shape[0], pixels.shape[1]
    lowest, seen = np.int32(255), 0
    mean = np.zeros(3, np.int64)
    for i in range(16):
        y, x = min(row * 4 + (i >> 2), height - 1), min(column * 4 + (i & 3), width - 1)
        for c in range(4):
            px[c, i] = pixels[y, x, c]
        lowest = min(lowest, px[3, i])
        if px[3, i] > 0:
            seen += 1
            for c in range(3):
                mean[c] += px[c, i]
    if lowest == 0 and seen:
        for i in range(16):
            if px[3, i] == 0:
                for c in range(3):
                    px[c, i] = mean[c] // seen
    return lowest


@kernel()
def block_room():
    """What `encode_block` works in."""
    work = (
        np.zeros((2, 4)), np.zeros((7, 4)), np.zeros((2, 4), np.int64), np.zeros((2, 4), np.int64), np.zeros((2, 4), np.int64),
        np.zeros(16, np.int64), np.zeros((4, 16), np.int32),
    )  # fmt: skip
    return (
        np.zeros((4, 16), np.int32), np.zeros((4, 16), np.int32), np.arange(16), np.zeros(16, np.int64), work,
        np.zeros((3, 2, 4), np.int64), np.zeros((3, 2, 4), np.int64), np.zeros(16, np.int64), np.zeros(16, np.int64),
        np.zeros(16, np.int64), np.zeros(16, np.int64), np.zeros(64),
    )  # fmt: skip


@kernel(inlined=False)
def encode_block(pixels, row, column, block, effort, rounds, sweeps, room):
    """Encode the block at a row and column of blocks of `pixels` (height, width, 4) into `block` (4 words).

    `effort` is how many partitions are fitted: 1 tries modes 6 and 1 (or 6, 5 and 7), more tries all of them.
    """
    (
        px,
        turned,
        everyone,
        members,
        work,
        stored,
        best_stored,
        index,
        best_index,
        second,
        best_second,
        score,
    ) = room
    lowest = _gather(pixels, row, column, px)
    solid = lowest == 255
    best = fit_mode(px, 6, 0, 4, rounds, sweeps, best_stored, best_index, members, _FAR, work)
    mode, partition, rotation, select = 6, 0, 0, 0
    if best > 0 and (not solid or effort > 1):
        for turn in range(4 if effort > 1 else 1):
            turned[:] = px
            if turn:
                turned[turn - 1, :], turned[3, :] = px[3, :], px[turn - 1, :]
            for kind in range(3 if effort > 1 else 1):
                m = 5 if kind == 0 else 4
                chosen = 1 if kind == 2 else 0
                colour_index = 3 if chosen else 2
                alpha_index = 2 if m == 5 or chosen else 3
                error = fit_subset(
                    turned, everyone, 16, 0, 3, MODES[m, 4], 0, colour_index, rounds, sweeps, stored[0],
                    second if chosen else index, work,
                )  # fmt: skip
                if error < best:
                    error += fit_subset(
                        turned, everyone, 16, 3, 4, MODES[m, 5], 0, alpha_index, rounds, sweeps, stored[0],
                        index if chosen else second, work,
                    )  # fmt: skip
                if error < best:
                    best, mode, partition, rotation, select = error, m, 0, turn, chosen
                    best_stored[:] = stored
                    best_index[:] = index
                    best_second[:] = second
    if best > 0:
        last = 3 if solid else 4
        for subsets in (2, 3):
            if subsets == 3 and (effort == 1 or not solid):
                continue
            rank_partitions(px, subsets, 64, score)
            for _ in range(effort):
                pick = np.argmin(score)
                score[pick] = 1e300
                for m in (1, 3, 7, 0, 2):
                    wanted = (m == 7) != solid if subsets == 2 else solid
                    if (
                        MODES[m, 0] != subsets
                        or not wanted
                        or pick >> MODES[m, 1]
                        or (m == 3 and effort == 1)
                    ):
                        continue
                    error = fit_mode(px, m, pick, last, rounds, sweeps, stored, index, members, best, work)
                    if error < best:
                        best, mode, partition, rotation, select = error, m, pick, 0, 0
                        best_stored[:] = stored
                        best_index[:] = index
    block[:] = 0
    write_block(block, mode, partition, rotation, select, best_stored, best_index, best_second)


@kernel("void(uint8[:, :, ::1], uint32[:, ::1], int64, int64, int64, int64, int64, boolean)")
def encode_rows(pixels, words, first, end, effort, rounds, sweeps, with_alpha_only):
    """Encode block rows `first`..`end` of `pixels` (height, width, 4) into `words` (count, 4), or only those with alpha."""
    height, width = pixels.shape[0], pixels.shape[1]
    across = (width + 3) // 4
    room = block_room()
    for row in range(first, end):
        for column in range(across):
            wanted = not with_alpha_only
            for i in range(16):
                if wanted:
                    break
                y, x = min(row * 4 + (i >> 2), height - 1), min(column * 4 + (i & 3), width - 1)
                wanted = pixels[y, x, 3] < 255
            if wanted:
                encode_block(pixels, row, column, words[row * across + column], effort, rounds, sweeps, room)
