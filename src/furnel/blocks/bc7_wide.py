"""BC7, encoding quickly: all blocks of a row at once, so that compilers turn every step into vector instructions.

Modes 6, 1, 3 and 5 are fitted by principal axis and least squares to see which suits a block; the winner is written as it is,
or first refined by the thorough encoder. Blocks with alpha are left to that one whole. Arrays are (…, blocks of the row).
"""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc7_bits import write_block
from furnel.blocks.bc7_fit import fit_mode, fit_subset
from furnel.blocks.bc7_tables import MODES, SUBSETS
from furnel.kernels import kernel

_EVEN_WORSE = 1 << 60
_PARTITIONS = 64
_TRIES, _CHANCES = 8, 2  # partitions looked at, and candidates fitted thoroughly, where blocks are refined


@kernel(inlined=False)
def _moments(px, keep, channels, count, sums, products):
    """Per block: how many pixels are kept, the sums of their channels and of the products of each pair."""
    width = count.shape[0]
    count[:] = 0
    sums[:] = 0
    products[:] = 0
    for i in range(16):
        kept = keep[i]
        for n in range(width):
            count[n] = np.int32(count[n] + kept[n])
        pair = 0
        for c in range(len(channels)):
            first, total = px[channels[c], i], sums[c]
            for n in range(width):
                total[n] = np.int32(total[n] + np.int32(first[n] * kept[n]))
            for d in range(c, len(channels)):
                second, product = px[channels[d], i], products[pair]
                for n in range(width):
                    product[n] = np.int32(product[n] + np.int32(np.int32(first[n] * second[n]) * kept[n]))
                pair += 1


@kernel(inlined=False)
def _axes(count, sums, products, channels, mean, axis, moved):
    """Per block: the mean colour and the principal axis of the kept pixels."""
    width, size = count.shape[0], channels
    share = moved[3]
    for n in range(width):
        share[n] = np.float32(1.0) / np.float32(max(count[n], np.int32(1)))
    pair = 0
    for c in range(size):
        total, middle = sums[c], mean[c]
        for n in range(width):
            middle[n] = np.float32(total[n]) * share[n]
        for d in range(c, size):
            other, product = sums[d], products[pair]
            for n in range(width):  # n times the covariance, still whole
                product[n] = np.int32(np.int32(product[n] * count[n]) - np.int32(total[n] * other[n]))
            pair += 1
    for c in range(size):  # begin along a channel's own row, that of the widest so far
        row = axis[c]
        row[:] = np.float32(1.0)
    for _ in range(4):
        for c in range(size):
            out = moved[c] if c < 3 else moved[4]
            out[:] = np.float32(0.0)
            for d in range(size):
                low, high = min(c, d), max(c, d)
                product, row = products[low * size - low * (low - 1) // 2 + high - low], axis[d]
                for n in range(width):
                    out[n] = out[n] + np.float32(product[n]) * row[n]
        top = share
        top[:] = np.float32(1e-20)
        for c in range(size):
            out = moved[c] if c < 3 else moved[4]
            for n in range(width):
                top[n] = max(top[n], abs(out[n]))
        for c in range(size):
            out, row = moved[c] if c < 3 else moved[4], axis[c]
            for n in range(width):
                row[n] = out[n] / top[n]


@kernel(inlined=False)
def _extremes(px, keep, channels, mean, axis, ends, low, high, along, norm):
    """Per block: the ends (2, channels) of the stretch of the axis that the kept pixels take up."""
    width = low.shape[0]
    low[:] = np.float32(1e30)
    high[:] = np.float32(-1e30)
    norm[:] = np.float32(1e-12)
    for c in range(len(channels)):
        row = axis[c]
        for n in range(width):
            norm[n] = norm[n] + row[n] * row[n]
    for i in range(16):
        along[:] = np.float32(0.0)
        for c in range(len(channels)):
            values, row, middle = px[channels[c], i], axis[c], mean[c]
            for n in range(width):
                along[n] = along[n] + (np.float32(values[n]) - middle[n]) * row[n]
        kept = keep[i]
        for n in range(width):
            low[n] = min(low[n], along[n] if kept[n] else low[n])
            high[n] = max(high[n], along[n] if kept[n] else high[n])
    for c in range(len(channels)):
        row, middle, first, second = axis[c], mean[c], ends[0, c], ends[1, c]
        for n in range(width):
            first[n] = min(max(middle[n] + low[n] / norm[n] * row[n], np.float32(0.0)), np.float32(255.0))
            second[n] = min(max(middle[n] + high[n] / norm[n] * row[n], np.float32(0.0)), np.float32(255.0))


@kernel(inlined=False)
def _steps(px, channels, ends, top, index, scale, along):
    """Per block: the nearest of the steps 0..top between the ends for every pixel, into `index` (16)."""
    width = scale.shape[0]
    scale[:] = np.float32(1e-6)
    for c in range(len(channels)):
        first, second = ends[0, c], ends[1, c]
        for n in range(width):
            apart = second[n] - first[n]
            scale[n] = scale[n] + apart * apart
    for n in range(width):
        scale[n] = np.float32(top) / scale[n]
    for i in range(16):
        along[:] = np.float32(0.0)
        for c in range(len(channels)):
            values, first, second = px[channels[c], i], ends[0, c], ends[1, c]
            for n in range(width):
                along[n] = along[n] + (np.float32(values[n]) - first[n]) * (second[n] - first[n])
        out = index[i]
        for n in range(width):
            place = along[n] * scale[n] + np.float32(0.5)
            out[n] = np.int32(min(max(place, np.float32(0.0)), np.float32(top)))


@kernel(inlined=False)
def _solve(px, keep, channels, top, index, ends, sums):
    """Per block: least-squares ends for the steps given; where they leave one undetermined the ends stay."""
    width = index.shape[1]
    aa, ab, bb, left, right = sums[0], sums[1], sums[2], sums[3], sums[4]
    sums[:3] = np.float32(0.0)
    unit = np.float32(1.0 / top)
    for i in range(16):
        row, kept = index[i], keep[i]
        for n in range(width):
            b = np.float32(row[n]) * unit
            a = np.float32(1.0) - b
            k = np.float32(kept[n])
            aa[n] = aa[n] + a * a * k
            ab[n] = ab[n] + a * b * k
            bb[n] = bb[n] + b * b * k
    for c in range(len(channels)):
        left[:] = np.float32(0.0)
        right[:] = np.float32(0.0)
        for i in range(16):
            row, kept, values = index[i], keep[i], px[channels[c], i]
            for n in range(width):
                b = np.float32(row[n]) * unit
                v = np.float32(values[n] * kept[n])
                left[n] = left[n] + (np.float32(1.0) - b) * v
                right[n] = right[n] + b * v
        first, second = ends[0, c], ends[1, c]
        for n in range(width):
            det = aa[n] * bb[n] - ab[n] * ab[n]
            sure = abs(det) > np.float32(1e-3)
            share = np.float32(1.0) / (det if sure else np.float32(1.0))
            one, two = (
                (left[n] * bb[n] - right[n] * ab[n]) * share,
                (right[n] * aa[n] - left[n] * ab[n]) * share,
            )
            first[n] = min(max(one if sure else first[n], np.float32(0.0)), np.float32(255.0))
            second[n] = min(max(two if sure else second[n], np.float32(0.0)), np.float32(255.0))


@kernel(inlined=False)
def _quantise(ends, size, bits, p_kind, stored, errors):
    """Per block: the ends as stored numbers (p-bit lowest), p-bits by their rounding error; the ends become what they give."""
    width = errors.shape[1]
    full = bits + (1 if p_kind else 0)
    most, whole = np.float32((1 << bits) - 1), np.float32((1 << full) - 1)
    up, down = 8 - full, 2 * full - 8
    if p_kind:
        errors[:] = np.float32(0.0)
        for place in range(2):
            for p in range(2):
                error = errors[p if p_kind == 2 else 2 * place + p]
                for c in range(size):
                    value = ends[place, c]
                    for n in range(width):
                        exact = (value[n] * whole / np.float32(255.0) - np.float32(p)) * np.float32(0.5)
                        number = np.int32(min(max(exact + np.float32(0.5), np.float32(0.0)), most))
                        number = np.int32(np.int32(number << 1) | np.int32(p))
                        off = (
                            np.float32(np.int32(np.int32(number << up) | np.int32(number >> down))) - value[n]
                        )
                        error[n] = error[n] + off * off
    for place in range(2):
        zero, one = errors[0 if p_kind == 2 else 2 * place], errors[1 if p_kind == 2 else 2 * place + 1]
        for c in range(size):
            value, out = ends[place, c], stored[place, c]
            for n in range(width):
                if p_kind:
                    p = np.int32(1) if one[n] < zero[n] else np.int32(0)
                    exact = (value[n] * whole / np.float32(255.0) - np.float32(p)) * np.float32(0.5)
                    number = np.int32(min(max(exact + np.float32(0.5), np.float32(0.0)), most))
                    number = np.int32(np.int32(number << 1) | p)
                else:
                    number = np.int32(value[n] * most / np.float32(255.0) + np.float32(0.5))
                out[n] = number
                value[n] = np.float32(np.int32(np.int32(number << up) | np.int32(number >> down)))


@kernel(inlined=False)
def _cost(px, keep, channels, ends, top, index, cost):
    """Per block: the squared error with these ends and steps, added to `cost`."""
    width = cost.shape[0]
    half, unit = (
        np.int32(top >> 1),
        np.int32(65536 // top + 1),
    )  # so that weights come out as the format's table has them
    for c in range(len(channels)):
        first, second = ends[0, c], ends[1, c]
        for i in range(16):
            values, row, kept = px[channels[c], i], index[i], keep[i]
            for n in range(width):
                w = np.int32(np.int32(np.int32(np.int32(row[n] << 6) + half) * unit) >> 16)
                a, b = np.int32(first[n]), np.int32(second[n])
                value = np.int32(
                    np.int32(np.int32(a << 6) + np.int32(np.int32(b - a) * w) + np.int32(32)) >> 6
                )
                off = np.int32(values[n] - value)
                cost[n] = np.int32(cost[n] + np.int32(np.int32(off * off) * kept[n]))


@kernel(inlined=False)
def _fit(px, keep, channels, mode, rounds, stored, index, cost, room):
    """Per block: ends and steps for the kept pixels in a mode; the squared error is added to `cost`."""
    whole, exact, ends = room
    top = (1 << MODES[mode, 7]) - 1
    count, sums, products = whole[0], whole[1:5], whole[5:15]
    mean, axis, moved = exact[0:4], exact[4:8], exact[8:13]
    _moments(px, keep, channels, count, sums, products)
    _axes(count, sums, products, len(channels), mean, axis, moved)
    _extremes(px, keep, channels, mean, axis, ends, exact[8], exact[9], exact[10], exact[11])
    for _ in range(rounds):
        _steps(px, channels, ends, top, index, exact[8], exact[9])
        _solve(px, keep, channels, top, index, ends, exact[8:13])
    _quantise(ends, len(channels), MODES[mode, 4], MODES[mode, 6], stored, exact[8:12])
    _steps(px, channels, ends, top, index, exact[8], exact[9])
    _cost(px, keep, channels, ends, top, index, cost)


@kernel(inlined=False)
def _rank(px, total, first, score, key, picks):
    """Per block: the partitions whose two subsets spread least around their means, the best first, into `picks`."""
    width = score.shape[0]
    total[:] = 0
    for c in range(3):
        for i in range(16):
            values, out = px[c, i], total[c]
            for n in range(width):
                out[n] = np.int32(out[n] + values[n])
    picks[:] = -1
    for partition in range(_PARTITIONS):
        first[:] = 0
        ones = 0
        for i in range(16):
            if SUBSETS[2, partition, i]:
                ones += 1
                for c in range(3):
                    values, out = px[c, i], first[c]
                    for n in range(width):
                        out[n] = np.int32(out[n] + values[n])
        share, other = np.float32(1.0 / ones), np.float32(1.0 / (16 - ones))
        score[:] = np.float32(0.0)
        for c in range(3):
            one, both = first[c], total[c]
            for n in range(width):
                a, b = np.float32(one[n]), np.float32(both[n] - one[n])
                score[n] = score[n] + a * a * share + b * b * other
        for n in range(width):  # how little they spread, and the partition in the lowest bits
            key[n] = np.int32(np.int32(np.int32(score[n]) << 6) | np.int32(partition))
        for place in range(len(picks)):  # put it into the list; what it pushes out goes on
            held = picks[place]
            for n in range(width):
                more, less = max(held[n], key[n]), min(held[n], key[n])
                held[n] = more
                key[n] = less
    for place in range(len(picks)):
        held = picks[place]
        for n in range(width):
            held[n] = held[n] & np.int32(63)


@kernel(inlined=False)
def _scalar_cost(values, low, high, cost):
    """Per block: the squared error of one channel with four steps between its extremes, added to `cost`."""
    width = cost.shape[0]
    low[:] = np.int32(255)
    high[:] = np.int32(0)
    for i in range(16):
        row = values[i]
        for n in range(width):
            low[n] = min(low[n], row[n])
            high[n] = max(high[n], row[n])
    for i in range(16):
        row = values[i]
        for n in range(width):
            span = np.float32(max(np.int32(high[n] - low[n]), np.int32(1)))
            step = np.int32(np.float32(row[n] - low[n]) * np.float32(3.0) / span + np.float32(0.5))
            off = np.float32(row[n] - low[n]) - np.float32(step) * span / np.float32(3.0)
            cost[n] = np.int32(cost[n] + np.int32(off * off))


@kernel(inlined=False)
def _masks(picks, ones, zeros):
    """Per block: which pixels belong to the second subset of its partition, and which to the first."""
    for i in range(16):
        one, zero = ones[i], zeros[i]
        for n in range(len(picks)):
            member = np.int32(SUBSETS[2, picks[n], i])
            one[n], zero[n] = member, np.int32(1) - member


@kernel(inlined=False)
def _keep_better(cost, best, mode, picks, modes, parts, ones, index, other, kept_index, stored, kept_stored):
    """Take a partitioned mode's ends and steps where they are better than what is kept."""
    for i in range(16):
        kept, one, two, member = kept_index[i], index[i], other[i], ones[i]
        for n in range(len(cost)):
            chosen = two[n] if member[n] else one[n]
            kept[n] = chosen if cost[n] < best[n] else kept[n]
    for subset in range(2):
        for place in range(2):
            for c in range(3):
                kept, fresh = kept_stored[subset, place, c], stored[subset, place, c]
                for n in range(len(cost)):
                    kept[n] = fresh[n] if cost[n] < best[n] else kept[n]
    for n in range(len(cost)):
        better = cost[n] < best[n]
        modes[n] = mode if better else modes[n]
        parts[n] = picks[n] if better else parts[n]
    for n in range(len(cost)):
        best[n] = min(best[n], cost[n])


@kernel(inlined=False)
def _refined(px, mode, part, stop, numbers, steps, second, turned, members, work):
    """Fit one block thoroughly in a mode, with a partition (or mode 5's rotation); its squared error, or any above `stop`."""
    if mode != 5:
        return fit_mode(px, mode, part, 4 if mode == 6 else 3, 2, 1, numbers, steps, members, stop, work)
    turned[:] = px
    turned[part - 1, :], turned[3, :] = px[3, :], px[part - 1, :]
    for i in range(16):
        members[i] = i
    error = fit_subset(turned, members, 16, 0, 3, 7, 0, 2, 2, 1, numbers[0], steps, work)
    return error + fit_subset(turned, members, 16, 3, 4, 8, 0, 2, 2, 1, numbers[0], second, work)


@kernel("void(uint8[:, :, ::1], uint32[:, ::1], int64, int64, boolean)")
def encode_rows(pixels, words, first, end, refine):
    """Encode block rows `first`..`end` of `pixels` (height, width, 4) into `words` (count, 4); with `refine` the winner
    of every block is fitted again, thoroughly, and more modes are looked at. Blocks with alpha are left alone.
    """
    height, width = pixels.shape[0], pixels.shape[1]
    across = (width + 3) // 4
    px = np.zeros((4, 16, across), np.int32)
    everyone, ones, zeros = (
        np.ones((16, across), np.int32),
        np.zeros((16, across), np.int32),
        np.zeros((16, across), np.int32),
    )
    whole, exact = np.zeros((15, across), np.int32), np.zeros((13, across), np.float32)
    ends = np.zeros((2, 4, across), np.float32)
    room = (whole, exact, ends)
    stored, kept_stored = np.zeros((2, 2, 4, across), np.int32), np.zeros((2, 2, 4, across), np.int32)
    index, other = np.zeros((16, across), np.int32), np.zeros((16, across), np.int32)
    kept_index = np.zeros((16, across), np.int32)
    best = np.zeros(across, np.int32)
    modes, parts, lowest = np.zeros(across, np.int32), np.zeros(across, np.int32), np.zeros(across, np.int32)
    tries = _TRIES if refine else 2
    costs = np.zeros((2 * tries + 4, across), np.int32)
    picks, key = np.zeros((tries, across), np.int32), np.zeros(across, np.int32)
    all_four, colours = np.array([0, 1, 2, 3]), np.array([0, 1, 2])
    one_block, turned = np.zeros((4, 16), np.int32), np.zeros((4, 16), np.int32)
    members, steps, second = np.arange(16), np.zeros(16, np.int64), np.zeros(16, np.int64)
    numbers, best_numbers = np.zeros((3, 2, 4), np.int64), np.zeros((3, 2, 4), np.int64)
    best_steps, best_second = np.zeros(16, np.int64), np.zeros(16, np.int64)
    work = (
        np.zeros((2, 4)), np.zeros((7, 4)), np.zeros((2, 4), np.int64), np.zeros((2, 4), np.int64), np.zeros((2, 4), np.int64),
        np.zeros(16, np.int64), np.zeros((4, 16), np.int32),
    )  # fmt: skip
    for row in range(first, end):
        for i in range(16):
            line, place = pixels[min(row * 4 + (i >> 2), height - 1)], i & 3
            inside = (width - 1 - place) // 4 + 1 if place < width else 0
            for c in range(4):
                values = px[c, i]
                for n in range(inside):
                    values[n] = line[4 * n + place, c]
                for n in range(inside, across):
                    values[n] = line[width - 1, c]
        lowest[:] = np.int32(255)
        for i in range(16):
            values = px[3, i]
            for n in range(across):
                lowest[n] = min(lowest[n], values[n])
        costs[:] = 0
        _fit(px, everyone, all_four, 6, 1, kept_stored[0], kept_index, costs[0], room)
        best[:] = costs[0]
        modes[:] = 6
        parts[:] = 0
        _rank(px, whole[0:3], whole[3:6], exact[0], key, picks)
        for attempt in range(tries):
            _masks(picks[attempt], ones, zeros)
            for mode in (1, 3):
                if mode == 3 and not refine:
                    break
                cost = costs[1 + 2 * attempt + (mode == 3)]
                _fit(px, zeros, colours, mode, 1, stored[0], index, cost, room)
                _fit(px, ones, colours, mode, 1, stored[1], other, cost, room)
                if not refine:
                    _keep_better(
                        cost, best, np.int32(mode), picks[attempt], modes, parts, ones, index, other, kept_index, stored,
                        kept_stored,
                    )  # fmt: skip
        if refine:
            for rotation in range(1, 4):
                cost = costs[2 * tries + rotation]
                pair = (
                    np.array([1, 2])
                    if rotation == 1
                    else np.array([0, 2])
                    if rotation == 2
                    else np.array([0, 1])
                )
                _fit(px, everyone, pair, 5, 1, stored[0], index, cost, room)
                _scalar_cost(px[rotation - 1], whole[0], whole[1], cost)
        for n in range(across):
            block = words[row * across + n]
            if lowest[n] < 255:
                continue
            block[:] = 0
            if not refine:
                for i in range(16):
                    steps[i] = kept_index[i, n]
                for subset in range(2):
                    for place in range(2):
                        for c in range(4):
                            numbers[subset, place, c] = kept_stored[subset, place, c, n]
                write_block(block, np.int64(modes[n]), np.int64(parts[n]), 0, 0, numbers, steps, second)
                continue
            for c in range(4):
                for i in range(16):
                    one_block[c, i] = px[c, i, n]
            least = costs[:, n].min()
            worth = least + least // 4 + 8
            found, mode, part = np.int64(_EVEN_WORSE), 6, 0
            for _ in range(_CHANCES):
                pick = np.argmin(costs[:, n])
                if costs[pick, n] > worth or found == 0:
                    break
                costs[pick, n] = 1 << 30
                m, p = 6, 0
                if pick > 2 * tries:
                    m, p = 5, pick - 2 * tries
                elif pick:
                    m, p = (1 if pick & 1 else 3), np.int64(picks[(pick - 1) >> 1, n])
                error = _refined(one_block, m, p, found, numbers, steps, second, turned, members, work)
                if error < found:
                    found, mode, part = error, m, p
                    best_numbers[:] = numbers
                    best_steps[:] = steps
                    best_second[:] = second
            rotation = part if mode == 5 else 0
            write_block(
                block, mode, 0 if mode == 5 else part, rotation, 0, best_numbers, best_steps, best_second
            )
