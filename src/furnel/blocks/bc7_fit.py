"""BC7, fitting: end points and indices for some of a block's pixels, by principal axis and least squares.

Partitions are ranked by what their subsets' colours leave beside a straight line; p-bits are chosen by their rounding
error; end points are then moved to their neighbours where the effort allows.
"""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc7 import widened
from furnel.blocks.bc7_tables import MODES, SUBSETS, WEIGHTS
from furnel.kernels import kernel


@kernel()
def _assign(px, members, count, first, last, ends, bits, palette, index):
    """Nearest of the interpolated values for every member, into `index`; the squared error over channels first..last."""
    size = 1 << bits
    for c in range(first, last):
        for k in range(size):
            w = WEIGHTS[bits, k]
            palette[c, k] = np.int32(((64 - w) * ends[0, c] + w * ends[1, c] + 32) >> 6)
    total = np.int64(0)
    for m in range(count):
        i = members[m]
        best = np.int32(0x7FFFFFFF)  # the error, and the entry in its lowest four bits
        if last - first == 1:
            v = px[first, i]
            for k in range(size):
                off = palette[first, k] - v
                best = min(best, np.int32(off * off << 4 | k))
        else:
            r, g, b = px[0, i], px[1, i], px[2, i]
            if last == 4:
                alpha = px[3, i]
                for k in range(size):
                    e0, e1, e2, e3 = (
                        palette[0, k] - r,
                        palette[1, k] - g,
                        palette[2, k] - b,
                        palette[3, k] - alpha,
                    )
                    best = min(best, np.int32((e0 * e0 + e1 * e1 + e2 * e2 + e3 * e3) << 4 | k))
            else:
                for k in range(size):
                    e0, e1, e2 = palette[0, k] - r, palette[1, k] - g, palette[2, k] - b
                    best = min(best, np.int32((e0 * e0 + e1 * e1 + e2 * e2) << 4 | k))
        index[i] = best & 15
        total += best >> 4
    return total


@kernel(inlined=False)
def _axis(px, members, count, first, last, value, room):
    """The members' extremes along their principal axis, into `value` (2, 4); False when they are one colour."""
    mean, axis, moved, cov = room[0], room[1], room[2], room[3:]
    room[:] = 0.0
    for m in range(count):
        for c in range(first, last):
            mean[c] += px[c, members[m]]
    for c in range(first, last):
        mean[c] /= count
    for m in range(count):
        for c in range(first, last):
            for d in range(first, last):
                cov[c, d] += (px[c, members[m]] - mean[c]) * (px[d, members[m]] - mean[d])
    widest = first
    for c in range(first, last):
        value[0, c] = value[1, c] = mean[c]
        if cov[c, c] > cov[widest, widest]:
            widest = c
    if cov[widest, widest] == 0:
        return False
    for c in range(first, last):
        axis[c] = cov[widest, c]
    for _ in range(4):
        top = 0.0
        for c in range(first, last):
            moved[c] = 0.0
            for d in range(first, last):
                moved[c] += cov[c, d] * axis[d]
            top = max(top, abs(moved[c]))
        for c in range(first, last):
            axis[c] = moved[c] / top
    norm = 0.0
    for c in range(first, last):
        norm += axis[c] * axis[c]
    low, high = 1e30, -1e30
    for m in range(count):
        t = 0.0
        for c in range(first, last):
            t += (px[c, members[m]] - mean[c]) * axis[c]
        low, high = min(low, t), max(high, t)
    for c in range(first, last):
        value[0, c] = mean[c] + low / norm * axis[c]
        value[1, c] = mean[c] + high / norm * axis[c]
    return True


@kernel()
def _round(value, first, last, bits, p_kind, place, p):
    """The rounding error of one end point in `bits` bits (and p-bit `p`)."""
    error = 0.0
    for c in range(first, last):
        full = bits + (1 if p_kind else 0)
        got = widened(_nearest(value[place, c], bits, p_kind, p), full)
        error += (got - value[place, c]) ** 2
    return error


@kernel()
def _nearest(value, bits, p_kind, p):
    """The stored number (with its p-bit, when there is one) that comes nearest to a value of 0..255."""
    if not p_kind:
        top = (1 << bits) - 1
        return np.int64(min(max(value * top / 255.0 + 0.5, 0.0), float(top)))
    top = (1 << (bits + 1)) - 1
    halved = np.int64(np.floor((value * top / 255.0 - p) / 2.0 + 0.5))
    return min(max(halved, 0), (1 << bits) - 1) << 1 | p


@kernel(inlined=False)
def _quantise(value, first, last, bits, p_kind, forced, stored, ends):
    """Float end points to stored numbers (p-bit lowest, when there is one) and the 8-bit values that they stand for.

    The p-bits are those in `forced` (the first end point's lowest), or where that is -1 those that round best.
    """
    low_p = high_p = 0
    if forced >= 0:
        low_p, high_p = forced & 1, forced >> 1
    elif p_kind == 1:
        low_p = (
            1
            if _round(value, first, last, bits, p_kind, 0, 1) < _round(value, first, last, bits, p_kind, 0, 0)
            else 0
        )
        high_p = (
            1
            if _round(value, first, last, bits, p_kind, 1, 1) < _round(value, first, last, bits, p_kind, 1, 0)
            else 0
        )
    elif p_kind == 2:
        zero = _round(value, first, last, bits, p_kind, 0, 0) + _round(value, first, last, bits, p_kind, 1, 0)
        one = _round(value, first, last, bits, p_kind, 0, 1) + _round(value, first, last, bits, p_kind, 1, 1)
        low_p = high_p = 1 if one < zero else 0
    for place in range(2):
        for c in range(first, last):
            stored[place, c] = _nearest(value[place, c], bits, p_kind, high_p if place else low_p)
            ends[place, c] = widened(stored[place, c], bits + (1 if p_kind else 0))


@kernel(inlined=False)
def _solve(px, members, count, first, last, index, bits, value, room):
    """Least-squares end points for the indices given; False when they leave one undetermined."""
    aa = ab = bb = 0.0
    left, right = room[0], room[1]
    left[:] = 0.0
    right[:] = 0.0
    for m in range(count):
        i = members[m]
        b = WEIGHTS[bits, index[i]] / 64.0
        a = 1.0 - b
        aa += a * a
        ab += a * b
        bb += b * b
        for c in range(first, last):
            left[c] += a * px[c, i]
            right[c] += b * px[c, i]
    det = aa * bb - ab * ab
    if abs(det) < 1e-6:
        return False
    for c in range(first, last):
        value[0, c] = min(max((left[c] * bb - right[c] * ab) / det, 0.0), 255.0)
        value[1, c] = min(max((right[c] * aa - left[c] * ab) / det, 0.0), 255.0)
    return True


@kernel(inlined=False)
def fit_subset(
    px, members, count, first, last, bits, p_kind, index_bits, rounds, sweeps, stored, index, work
):
    """Fit channels `first`..`last` of some pixels; stored numbers and indices come back, and the squared error.

    `px` (4, 16), `members` the pixels' places, `stored` (2, 4) with the p-bit lowest where the mode has one, `work` scratch.
    """
    value, room, ends, trial, trial_stored, trial_index, palette = work
    _axis(px, members, count, first, last, value, room)
    for place in range(2):
        for c in range(first, last):
            value[place, c] = min(max(value[place, c], 0.0), 255.0)
    _quantise(value, first, last, bits, p_kind, -1, stored, ends)
    best = _assign(px, members, count, first, last, ends, index_bits, palette, index)
    full = bits + (1 if p_kind else 0)
    combinations = (4 if p_kind == 1 else p_kind) if sweeps else 0
    for turn in range(rounds * combinations):
        if best == 0:
            break
        forced = turn % combinations
        if forced == 0 and not _solve(px, members, count, first, last, index, index_bits, value, room):
            break
        if p_kind == 2:
            forced *= 3
        _quantise(value, first, last, bits, p_kind, forced, trial_stored, trial)
        error = _assign(px, members, count, first, last, trial, index_bits, palette, trial_index)
        if error < best:
            best = error
            for end in range(2):
                for d in range(first, last):
                    stored[end, d] = trial_stored[end, d]
            for m in range(count):
                index[members[m]] = trial_index[members[m]]
    tries = rounds + sweeps * 4 * (last - first)
    step, moved = 0, False
    for attempt in range(tries):
        if best == 0:
            break
        if attempt < rounds:
            if step < 0 or not _solve(px, members, count, first, last, index, index_bits, value, room):
                continue
            _quantise(value, first, last, bits, p_kind, -1, trial_stored, trial)
        else:
            turn = (attempt - rounds) % (4 * (last - first))
            if turn == 0:
                if attempt > rounds and not moved:
                    break
                moved = False
            place, c, up = turn & 1, first + (turn >> 2), (turn >> 1) & 1
            for end in range(2):
                for d in range(first, last):
                    trial_stored[end, d] = stored[end, d]
            trial_stored[place, c] += (2 if p_kind else 1) * (1 if up else -1)
            if trial_stored[place, c] < 0 or trial_stored[place, c] >> full:
                continue
            for end in range(2):
                for d in range(first, last):
                    trial[end, d] = widened(trial_stored[end, d], full)
        error = _assign(px, members, count, first, last, trial, index_bits, palette, trial_index)
        if error < best:
            best, moved = error, True
            for end in range(2):
                for d in range(first, last):
                    stored[end, d] = trial_stored[end, d]
            for m in range(count):
                index[members[m]] = trial_index[members[m]]
        elif attempt < rounds:
            step = -1  # least squares has come to its end
    return best


@kernel()
def _beside_axis(n, sr, sg, sb, rr, rg, rb, gg, gb, bb):
    """The variance that lies beside the principal axis, times n, from a subset's sums; one power step from its widest row."""
    if n == 0:
        return 0.0
    share = 1.0 / n
    vrr, vrg, vrb = rr - sr * sr * share, rg - sr * sg * share, rb - sr * sb * share
    vgg, vgb, vbb = gg - sg * sg * share, gb - sg * sb * share, bb - sb * sb * share
    trace = vrr + vgg + vbb
    if trace <= 0:
        return 0.0
    if vrr >= vgg and vrr >= vbb:
        x, y, z = vrr, vrg, vrb
    elif vgg >= vbb:
        x, y, z = vrg, vgg, vgb
    else:
        x, y, z = vrb, vgb, vbb
    x, y, z = vrr * x + vrg * y + vrb * z, vrg * x + vgg * y + vgb * z, vrb * x + vgb * y + vbb * z
    norm = x * x + y * y + z * z
    along = vrr * x * x + vgg * y * y + vbb * z * z + 2 * (vrg * x * y + vrb * x * z + vgb * y * z)
    return trace - along / norm


@kernel(inlined=False)
def rank_partitions(px, subsets, partitions, score):
    """What each partition's subsets would leave beside straight lines through their colours, into `score`."""
    for partition in range(partitions):
        total = 0.0
        for subset in range(subsets):
            n = sr = sg = sb = rr = rg = rb = gg = gb = bb = np.int32(0)
            for i in range(16):
                m = np.int32(1) if SUBSETS[subsets, partition, i] == subset else np.int32(0)
                r, g, b = np.int32(px[0, i] * m), np.int32(px[1, i] * m), np.int32(px[2, i] * m)
                n = np.int32(n + m)
                sr = np.int32(sr + r)
                sg = np.int32(sg + g)
                sb = np.int32(sb + b)
                rr = np.int32(rr + np.int32(r * r))
                rg = np.int32(rg + np.int32(r * g))
                rb = np.int32(rb + np.int32(r * b))
                gg = np.int32(gg + np.int32(g * g))
                gb = np.int32(gb + np.int32(g * b))
                bb = np.int32(bb + np.int32(b * b))
            total += _beside_axis(
                np.float64(n), np.float64(sr), np.float64(sg), np.float64(sb), np.float64(rr), np.float64(rg), np.float64(rb),
                np.float64(gg), np.float64(gb), np.float64(bb),
            )  # fmt: skip
        score[partition] = total


@kernel(inlined=False)
def fit_mode(px, mode, partition, last, rounds, sweeps, stored, index, members, stop, work):
    """Fit every subset of a partitioned mode (or mode 6); the squared error, or any above `stop`. `stored` (3, 2, 4)."""
    subsets = MODES[mode, 0]
    total = np.int64(0)
    for subset in range(subsets):
        count = 0
        for i in range(16):
            if SUBSETS[subsets, partition, i] == subset:
                members[count] = i
                count += 1
        total += fit_subset(
            px,
            members,
            count,
            0,
            last,
            MODES[mode, 4],
            MODES[mode, 6],
            MODES[mode, 7],
            rounds,
            sweeps,
            stored[subset],
            index,
            work,
        )
        if total > stop:
            break
    return total
