"""BC6H, encoding: one line through a block's colours, or two lines through the regions of a partition.

Everything is measured on the numbers that the format interpolates, which are proportional to the bits of the
half-floats and so nearly to the logarithm of the light: dark and bright pixels count alike.
"""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc6h import extended, read_ends
from furnel.blocks.bc6h_tables import PARTITION, PLACES, SHAPES
from furnel.blocks.bc7_fit import rank_partitions
from furnel.blocks.bc7_tables import ANCHORS, SUBSETS, WEIGHTS
from furnel.kernels import kernel

_ONE_REGION = np.array([13, 12, 11, 10])  # modes, the most precise base first; the last of each always fits
_TWO_REGIONS = np.array([2, 3, 4, 0, 5, 6, 7, 8, 1, 9])
_FAR = 1e30


@kernel()
def _target(half, signed):
    """The number that comes out as this half-float; what the format cannot hold becomes the nearest that it can."""
    size = half & 0x7FFF
    if size > 0x7C00:
        size = 0  # not a number
    size = min(size, 0x7BFF)
    if signed:
        wide = min((size * 32 + 15) // 31, 0x7FFF)
        return -wide if half & 0x8000 else wide
    return 0 if half & 0x8000 else min((size * 64 + 32) // 31, 0xFFFF)


@kernel(inlined=False)
def _line(px, members, count, line, room):
    """The members' extremes along their principal axis, into `line` (2, 3); False when they are all one."""
    mean, axis, moved, cov = room[0], room[1], room[2], room[3:]
    room[:] = 0.0
    for m in range(count):
        for c in range(3):
            mean[c] += px[c, members[m]]
    for c in range(3):
        mean[c] /= count
        line[0, c] = line[1, c] = mean[c]
    for m in range(count):
        for c in range(3):
            for d in range(3):
                cov[c, d] += (px[c, members[m]] - mean[c]) * (px[d, members[m]] - mean[d])
    widest = 0
    for c in range(3):
        if cov[c, c] > cov[widest, widest]:
            widest = c
    if cov[widest, widest] == 0:
        return False
    for c in range(3):
        axis[c] = cov[widest, c]
    for _ in range(4):
        top = 0.0
        for c in range(3):
            moved[c] = cov[c, 0] * axis[0] + cov[c, 1] * axis[1] + cov[c, 2] * axis[2]
            top = max(top, abs(moved[c]))
        for c in range(3):
            axis[c] = moved[c] / top
    norm = axis[0] * axis[0] + axis[1] * axis[1] + axis[2] * axis[2]
    low, high = 1e30, -1e30
    for m in range(count):
        i = members[m]
        t = (px[0, i] - mean[0]) * axis[0] + (px[1, i] - mean[1]) * axis[1] + (px[2, i] - mean[2]) * axis[2]
        low, high = min(low, t), max(high, t)
    for c in range(3):
        line[0, c] = mean[c] + low / norm * axis[c]
        line[1, c] = mean[c] + high / norm * axis[c]
    return True


@kernel(inlined=False)
def _along(px, members, count, line, bits, lowest, highest):
    """Least-squares end points, the members put at the nearest steps of the line that they have now."""
    size = (1 << bits) - 1
    d0, d1, d2 = line[1, 0] - line[0, 0], line[1, 1] - line[0, 1], line[1, 2] - line[0, 2]
    norm = d0 * d0 + d1 * d1 + d2 * d2
    if norm == 0:
        return
    aa = ab = bb = 0.0
    l0 = l1 = l2 = r0 = r1 = r2 = 0.0
    for m in range(count):
        i = members[m]
        t = (
            (px[0, i] - line[0, 0]) * d0 + (px[1, i] - line[0, 1]) * d1 + (px[2, i] - line[0, 2]) * d2
        ) / norm
        b = WEIGHTS[bits, np.int64(min(max(t, 0.0), 1.0) * size + 0.5)] / 64.0
        a = 1.0 - b
        aa += a * a
        ab += a * b
        bb += b * b
        l0 += a * px[0, i]
        l1 += a * px[1, i]
        l2 += a * px[2, i]
        r0 += b * px[0, i]
        r1 += b * px[1, i]
        r2 += b * px[2, i]
    det = aa * bb - ab * ab
    if abs(det) < 1e-6:
        return
    line[0, 0], line[0, 1], line[0, 2] = (
        (l0 * bb - r0 * ab) / det,
        (l1 * bb - r1 * ab) / det,
        (l2 * bb - r2 * ab) / det,
    )
    line[1, 0], line[1, 1], line[1, 2] = (
        (r0 * aa - l0 * ab) / det,
        (r1 * aa - l1 * ab) / det,
        (r2 * aa - l2 * ab) / det,
    )
    for c in range(3):
        line[0, c] = min(max(line[0, c], lowest), highest)
        line[1, c] = min(max(line[1, c], lowest), highest)


@kernel(inlined=False)
def _store(lines, mode, signed, fields):
    """End points (4, 3) as the mode's fields, False when a difference is too large for it."""
    regions, base, transformed = SHAPES[mode, 2], SHAPES[mode, 3], SHAPES[mode, 7]
    mask = (1 << base) - 1
    for c in range(3):
        first = np.int64(0)
        for place in range(2 * regions):
            value = lines[place, c]
            if signed:
                size = np.int64(abs(value)) >> (16 - base)
                size = min(size, (1 << (base - 1)) - 1)
                number = -size if value < 0 else size
            else:
                number = min(np.int64(max(value, 0.0)) >> (16 - base), mask)
            if place == 0:
                first = number
                fields[c] = number & mask
            elif transformed:
                bits = SHAPES[mode, 4 + c]
                apart = number - first
                if apart < -(1 << (bits - 1)) or apart >= 1 << (bits - 1):
                    return False
                fields[3 * place + c] = apart & ((1 << bits) - 1)
            else:
                fields[3 * place + c] = number & mask
    return True


@kernel(inlined=False)
def _assign(px, mode, fields, signed, ends, palette, index, stop):
    """The nearest step for every pixel, anchors held to their lower half; the squared error, or any above `stop`."""
    read_ends(fields, mode, signed, ends)
    regions = SHAPES[mode, 2]
    bits = 3 if regions == 2 else 4
    size = 1 << bits
    partition = fields[PARTITION]
    for region in range(regions):
        for c in range(3):
            for k in range(size):
                w = WEIGHTS[bits, k]
                palette[region, c, k] = np.float32(
                    (ends[2 * region, c] * (64 - w) + ends[2 * region + 1, c] * w + 32) >> 6
                )
    total = 0.0
    for i in range(16):
        region = SUBSETS[2, partition, i] if regions == 2 else 0
        anchor = ANCHORS[2, partition, region] if regions == 2 else 0
        limit = size >> 1 if i == anchor else size
        r, g, b = np.float32(px[0, i]), np.float32(px[1, i]), np.float32(px[2, i])
        best, pick = np.float32(_FAR), 0
        for k in range(limit):
            e0, e1, e2 = palette[region, 0, k] - r, palette[region, 1, k] - g, palette[region, 2, k] - b
            error = e0 * e0 + e1 * e1 + e2 * e2
            if error < best:
                best, pick = error, k
        index[i] = pick
        total += best
        if total >= stop:
            break
    return total


@kernel(inlined=False)
def _improve(px, mode, signed, fields, index, best, sweeps, work):
    """Move every stored end point by one as long as that lowers the squared error; what it is then."""
    ends, palette, trial, trial_index = work
    for _ in range(sweeps):
        before = best
        for place in range(2 * SHAPES[mode, 2]):
            for c in range(3):
                differs = place > 0 and SHAPES[mode, 7] == 1
                bits = SHAPES[mode, 4 + c] if differs else SHAPES[mode, 3]
                for step in (-1, 1):
                    trial[:] = fields
                    was = fields[3 * place + c]
                    if differs or signed:
                        was = extended(was, bits)
                        if was + step < -(1 << (bits - 1)) or was + step >= 1 << (bits - 1):
                            continue
                    elif was + step < 0 or (was + step) >> bits:
                        continue
                    trial[3 * place + c] = (was + step) & ((1 << bits) - 1)
                    error = _assign(px, mode, trial, signed, ends, palette, trial_index, best)
                    if error < best:
                        best = error
                        fields[:] = trial
                        index[:] = trial_index
        if best >= before:
            break
    return best


@kernel(inlined=False)
def _write(block, mode, fields, index):
    """Write a block (two words of zeros)."""
    low, high, at = np.uint64(SHAPES[mode, 1]), np.uint64(0), SHAPES[mode, 0]
    for place in range(80):
        field = PLACES[mode, place, 0]
        if field < 0:
            break
        bit = np.uint64(fields[field] >> PLACES[mode, place, 1] & 1)
        if at < 64:
            low |= bit << np.uint64(at)
        else:
            high |= bit << np.uint64(at - 64)
        at += 1
    two = SHAPES[mode, 2] == 2
    for i in range(16):
        region = SUBSETS[2, fields[PARTITION], i] if two else 0
        anchor = ANCHORS[2, fields[PARTITION], region] if two else 0
        count = (3 if two else 4) - (1 if i == anchor else 0)
        value = np.uint64(index[i])
        if at < 64:
            low |= value << np.uint64(at)
            if at + count > 64:
                high |= value >> np.uint64(64 - at)
        else:
            high |= value << np.uint64(at - 64)
        at += count
    block[0], block[1] = low, high


@kernel("void(uint16[:, :, ::1], uint64[:, ::1], int64, int64, boolean, int64, int64, int64)")
def encode_rows(halves, words, first, end, signed, partitions, modes, sweeps):
    """Encode block rows `first`..`end` of `halves` (height, width, 3), bits of half-floats, into `words` (count, 2).

    `partitions` are fitted, each in the `modes` most precise modes that hold it; the winner is swept `sweeps` times.
    """
    height, width = halves.shape[0], halves.shape[1]
    across = (width + 3) // 4
    lowest, highest = (-32767.0, 32767.0) if signed else (0.0, 65535.0)
    px, small = np.zeros((3, 16)), np.zeros((4, 16), np.int32)
    lines, room, members = np.zeros((4, 3)), np.zeros((6, 3)), np.zeros(16, np.int64)
    score = np.zeros(64)
    fields, best_fields = np.zeros(13, np.int64), np.zeros(13, np.int64)
    index, best_index = np.zeros(16, np.int64), np.zeros(16, np.int64)
    ends, palette = np.zeros((4, 3), np.int64), np.zeros((2, 3, 16), np.float32)
    work = (ends, palette, np.zeros(13, np.int64), np.zeros(16, np.int64))
    for row in range(first, end):
        for column in range(across):
            for i in range(16):
                y, x = min(row * 4 + (i >> 2), height - 1), min(column * 4 + (i & 3), width - 1)
                for c in range(3):
                    value = _target(np.int64(halves[y, x, c]), signed)
                    px[c, i] = value
                    small[c, i] = value >> 6
            best, best_mode = _FAR, 10
            for attempt in range(partitions + 1):
                regions = 1 if attempt == 0 else 2
                if regions == 2 and best == 0:
                    break
                partition = 0
                if attempt == 1:
                    rank_partitions(small, 2, 32, score)
                if attempt:
                    partition = np.argmin(score[:32])
                    score[partition] = _FAR
                bits = 4 if regions == 1 else 3
                for region in range(regions):
                    count = 0
                    for i in range(16):
                        if regions == 1 or SUBSETS[2, partition, i] == region:
                            members[count] = i
                            count += 1
                    line = lines[2 * region : 2 * region + 2]
                    if _line(px, members, count, line, room):
                        for _ in range(2):
                            _along(px, members, count, line, bits, lowest, highest)
                    anchor = ANCHORS[2, partition, region] if regions == 2 else 0
                    near = far = 0.0
                    for c in range(3):
                        near += (px[c, anchor] - line[0, c]) ** 2
                        far += (px[c, anchor] - line[1, c]) ** 2
                    if far < near:
                        for c in range(3):
                            line[0, c], line[1, c] = line[1, c], line[0, c]
                fields[PARTITION] = partition
                fitted = 0
                for mode in _ONE_REGION if regions == 1 else _TWO_REGIONS:
                    if fitted == modes:
                        break
                    if not _store(lines, mode, signed, fields):
                        continue
                    fitted += 1
                    error = _assign(px, mode, fields, signed, ends, palette, index, best)
                    if error < best:
                        best, best_mode = error, mode
                        best_fields[:] = fields
                        best_index[:] = index
            if sweeps and best > 0:
                _improve(px, best_mode, signed, best_fields, best_index, best, sweeps, work)
            _write(words[row * across + column], best_mode, best_fields, best_index)
