"""BC4 and BC5: one or two channels of a 4×4 block, each two 8-bit end points and sixteen 3-bit indices, after the Khronos
Data Format Specification 1.3, chapter 19 (RGTC). The alpha half of BC3 is the same block.

With a sign, -127 to 127 stand for the bytes 0 to 255, so that a normal map looks the same in both kinds. Inside, they
are counted from 0 to 254.
"""

from __future__ import annotations

import numpy as np

from furnel.kernels import kernel

_THOROUGH = 8  # from this reach on, six steps are tried in blocks far from the ends of the scale as well


@kernel()
def alpha_palette(a, b, palette):
    """The eight values that two end points stand for."""
    palette[0], palette[1] = a, b
    if a > b:
        for k in range(1, 7):
            palette[k + 1] = ((7 - k) * a + k * b) // 7
    else:
        for k in range(1, 5):
            palette[k + 1] = ((5 - k) * a + k * b) // 5
        palette[6], palette[7] = 0, 255


@kernel()
def _signed_palette(a, b, palette):
    """The same for end points with a sign, as bytes: what they stand for, exactly, then rounded."""
    a, b = max(a, -127), max(b, -127)
    for k in range(8):
        share, value = 7, np.int64(0)
        if k < 2:
            value = 7 * (a if k == 0 else b)
        elif a > b:
            value = (8 - k) * a + (k - 1) * b
        elif k < 6:
            share, value = 5, (6 - k) * a + (k - 1) * b
        else:
            share, value = 1, np.int64(-127 if k == 6 else 127)
        palette[k] = (255 * (value + 127 * share) + 127 * share) // (254 * share)


@kernel("void(uint32[:, ::1], uint32[:, ::1], int64, int64, boolean)")
def decode_rows(words, out, first, end, signed):
    """Decode block rows `first`..`end` of BC4 (count, 2 words) or BC5 (count, 4) into `out` (height, width) packed RGBA.

    Red, and for BC5 green; the rest is 0 and alpha 255.
    """
    height, width = out.shape
    across = (width + 3) // 4
    two = words.shape[1] == 4
    values = np.zeros(8, np.int64)
    red, green = np.zeros(8, np.uint32), np.zeros(8, np.uint32)
    for row in range(first, end):
        for column in range(across):
            block = row * across + column
            for channel in range(2 if two else 1):
                ends = words[block, 2 * channel]
                a, b = np.int64(ends & np.uint32(255)), np.int64((ends >> np.uint32(8)) & np.uint32(255))
                if signed:
                    _signed_palette(a - 256 if a > 127 else a, b - 256 if b > 127 else b, values)
                else:
                    alpha_palette(a, b, values)
                if channel:
                    for k in range(8):
                        green[k] = np.uint32(values[k]) << np.uint32(8)
                else:
                    for k in range(8):
                        red[k] = np.uint32(values[k]) | np.uint32(0xFF000000)
            fine = np.uint64(words[block, 0]) >> np.uint64(16) | np.uint64(words[block, 1]) << np.uint64(16)
            other = np.uint64(0)
            if two:
                other = np.uint64(words[block, 2]) >> np.uint64(16) | np.uint64(words[block, 3]) << np.uint64(
                    16
                )
            if row * 4 + 4 <= height and column * 4 + 4 <= width:
                for y in range(4):
                    line = out[row * 4 + y]
                    for x in range(4):
                        value = red[fine & np.uint64(7)]
                        if two:
                            value |= green[other & np.uint64(7)]
                        line[column * 4 + x] = value
                        fine >>= np.uint64(3)
                        other >>= np.uint64(3)
                continue
            for y in range(min(4, height - row * 4)):
                for x in range(min(4, width - column * 4)):
                    place = np.uint64(3 * (y * 4 + x))
                    value = red[(fine >> place) & np.uint64(7)]
                    if two:
                        value |= green[(other >> place) & np.uint64(7)]
                    out[row * 4 + y, column * 4 + x] = value


# The encoder works on a whole row of blocks at a time, pixel by pixel over all blocks, which compilers turn into vector
# instructions. Everything is counted in 32-bit whole numbers. A value goes to the step that is nearest before the steps
# are rounded; 9363 and 13108 over 65536 divide by 7 and 5 exactly for all numbers that occur.


@kernel(inlined=False)
def _eight(values, a, b, up, scale, half, cost):
    """The squared error of every block with its end points a > b; `up` is 0 where steps are rounded down, else 3."""
    for n in range(len(a)):
        span = max(np.int32(a[n] - b[n]), np.int32(1))
        scale[n] = np.int32(np.float32(7 << 16) / np.float32(span))
        rounding = np.int32(0) if up else np.int32(np.int32(scale[n] * np.int32(28086)) >> np.int32(16))
        half[n] = np.int32(np.int32(32768) - rounding)
        cost[n] = np.int32(0)
    for i in range(16):
        for n in range(len(a)):
            span = np.int32(a[n] - b[n])
            step = np.int32(np.int32(np.int32(a[n] - values[i, n]) * scale[n] + half[n]) >> np.int32(16))
            step = min(max(step, np.int32(0)), np.int32(7))
            level = np.int32(np.int32(np.int32(7) * a[n] + up) - np.int32(step * span))
            off = np.int32(values[i, n] - np.int32(np.int32(level * np.int32(9363)) >> np.int32(16)))
            cost[n] = np.int32(cost[n] + np.int32(off * off))


@kernel(inlined=False)
def _six(values, a, b, up, top, scale, half, cost):
    """The same for a <= b: six steps between them, and both ends of the scale, exactly."""
    more = np.int32(2) if up else np.int32(0)
    for n in range(len(a)):
        span = max(np.int32(b[n] - a[n]), np.int32(1))
        scale[n] = np.int32(np.float32(5 << 16) / np.float32(span))
        rounding = np.int32(0) if up else np.int32(np.int32(scale[n] * np.int32(26214)) >> np.int32(16))
        half[n] = np.int32(np.int32(32768) + rounding)
        cost[n] = np.int32(0)
    for i in range(16):
        for n in range(len(a)):
            v, span = values[i, n], np.int32(b[n] - a[n])
            step = np.int32(np.int32(np.int32(v - a[n]) * scale[n] + half[n]) >> np.int32(16))
            step = min(max(step, np.int32(0)), np.int32(5))
            level = np.int32(np.int32(np.int32(5) * a[n] + more) + np.int32(step * span))
            off = np.int32(v - np.int32(np.int32(level * np.int32(13108)) >> np.int32(16)))
            far = np.int32(top - v)
            near = min(np.int32(off * off), np.int32(v * v))
            cost[n] = np.int32(cost[n] + min(near, np.int32(far * far)))


@kernel(inlined=False)
def _search(values, reach, up, top, ends, scratch):
    """The best end points near every block's extremes, into `ends` (2, blocks): a > b, or a <= b for six steps."""
    best_a, best_b = ends
    low, high, a, b, scale, half, cost, best = scratch
    extreme = False
    for n in range(len(a)):
        low[n], high[n] = top, np.int32(0)
    for i in range(16):
        for n in range(len(a)):
            low[n] = min(low[n], values[i, n])
            high[n] = max(high[n], values[i, n])
    for n in range(len(a)):
        extreme |= low[n] < 8 or high[n] > top - 8
        best[n], best_a[n], best_b[n] = np.int32(1 << 30), high[n], low[n]
    for high_step in range(-reach, reach + 2):
        for low_step in range(-reach, reach + 1):
            inset = high_step > reach  # the last one: a share of the span inwards
            if (inset and low_step) or abs(high_step) + abs(low_step) > reach + reach // 4 + inset:
                continue
            for n in range(len(a)):
                inwards = np.int32(np.int32(high[n] - low[n]) >> np.int32(5)) if inset else np.int32(0)
                up_step = -inwards if inset else high_step
                a[n] = min(max(np.int32(high[n] + up_step), np.int32(0)), top)
                b[n] = min(max(np.int32(low[n] + low_step + inwards), np.int32(0)), top)
            _eight(values, a, b, up, scale, half, cost)
            for n in range(len(a)):
                better = (a[n] > b[n]) & (cost[n] < best[n])
                best[n] = cost[n] if better else best[n]
                best_a[n] = a[n] if better else best_a[n]
                best_b[n] = b[n] if better else best_b[n]
    if not extreme and reach < _THOROUGH:
        return
    for n in range(len(a)):  # the extremes of what is not at the ends of the scale
        low[n], high[n] = top, np.int32(0)
    for i in range(16):
        for n in range(len(a)):
            v = values[i, n]
            inside = (v > 7) & (v < top - 7)
            low[n] = min(low[n], v if inside else top)
            high[n] = max(high[n], v if inside else np.int32(0))
    reach = (reach + 1) // 2
    for low_step in range(-reach, reach + 1):
        for high_step in range(-reach, reach + 1):
            for n in range(len(a)):
                a[n] = min(max(np.int32(low[n] + low_step), np.int32(0)), top)
                b[n] = min(max(np.int32(high[n] + high_step), np.int32(0)), top)
            _six(values, a, b, up, top, scale, half, cost)
            for n in range(len(a)):
                better = (a[n] <= b[n]) & (cost[n] < best[n])
                best[n] = cost[n] if better else best[n]
                best_a[n] = a[n] if better else best_a[n]
                best_b[n] = b[n] if better else best_b[n]


@kernel(inlined=False)
def _codes_of_eight(values, ends, up, scale, half, codes):
    """The nearest of the eight values for every pixel, into `codes` (2, blocks): three bits each, eight pixels a word."""
    a, b = ends
    for n in range(len(a)):
        span = max(np.int32(a[n] - b[n]), np.int32(1))
        scale[n] = np.int32(np.float32(7 << 16) / np.float32(span))
        rounding = np.int32(0) if up else np.int32(np.int32(scale[n] * np.int32(28086)) >> np.int32(16))
        half[n] = np.int32(np.int32(32768) - rounding)
        codes[0, n] = codes[1, n] = np.int32(0)
    for i in range(16):
        word, place = codes[i >> 3], np.int32(3 * (i & 7))
        for n in range(len(a)):
            v, span, most = values[i, n], np.int32(a[n] - b[n]), np.int32(np.int32(np.int32(7) * a[n]) + up)
            step = np.int32(np.int32(np.int32(a[n] - v) * scale[n] + half[n]) >> np.int32(16))
            step = min(max(step, np.int32(0)), np.int32(7))
            above, below = max(np.int32(step - 1), np.int32(0)), min(np.int32(step + 1), np.int32(7))
            off = np.int32(
                v
                - np.int32(np.int32(np.int32(most - np.int32(step * span)) * np.int32(9363)) >> np.int32(16))
            )
            off_above = np.int32(
                v
                - np.int32(np.int32(np.int32(most - np.int32(above * span)) * np.int32(9363)) >> np.int32(16))
            )
            off_below = np.int32(
                v
                - np.int32(np.int32(np.int32(most - np.int32(below * span)) * np.int32(9363)) >> np.int32(16))
            )
            step = above if abs(off_above) < abs(off) else below if abs(off_below) < abs(off) else step
            code = np.int32(0) if step == 0 else np.int32(1) if step == 7 else np.int32(step + 1)
            word[n] = np.int32(word[n] | np.int32(code << place))


@kernel()
def _codes_of_six(values, n, a, b, up, top, codes):
    """The same for one block whose end points a <= b ask for six steps."""
    codes[0, n] = codes[1, n] = np.int32(0)
    for i in range(16):
        v = values[i, n]
        near, pick = v * v, np.int32(6)
        if (top - v) * (top - v) < near:
            near, pick = (top - v) * (top - v), np.int32(7)
        for step in range(6):
            off = v - (5 * a + step * (b - a) + (2 if up else 0)) // 5
            if off * off < near:
                near, pick = off * off, np.int32(0 if step == 0 else 1 if step == 5 else step + 1)
        codes[i >> 3, n] |= pick << (3 * (i & 7))


@kernel()
def _write(values, ends, up, top, codes, words, start, word):
    """The end points and the codes as two words a block."""
    for n in range(values.shape[1]):
        a, b = ends[0][n], ends[1][n]
        if a <= b:
            _codes_of_six(values, n, a, b, up, top, codes)
        if up:
            a, b = (a - 127) & 255, (b - 127) & 255
        low, high = np.uint32(codes[0, n]), np.uint32(codes[1, n])
        words[start + n, word] = np.uint32(a) | np.uint32(b) << np.uint32(8) | low << np.uint32(16)
        words[start + n, word + 1] = low >> np.uint32(16) | high << np.uint32(8)


@kernel("void(uint8[:, :, ::1], uint32[:, ::1], int64, int64, int64, int64, int64, boolean)")
def encode_rows(pixels, words, first, end, word, channel, reach, signed):
    """Encode one channel of block rows `first`..`end` of `pixels` (height, width, 4) into `words` from `word` on.

    `reach` is how far end points are tried around the block's extremes.
    """
    height, width = pixels.shape[0], pixels.shape[1]
    across = (width + 3) // 4
    values = np.zeros((16, across), np.int32)
    ends, scratch = np.zeros((2, across), np.int32), np.zeros((8, across), np.int32)
    codes = np.zeros((2, across), np.int32)
    top, up = (np.int32(254), np.int32(3)) if signed else (np.int32(255), np.int32(0))
    for row in range(first, end):
        for i in range(16):
            line = pixels[min(row * 4 + (i >> 2), height - 1)]
            place = i & 3
            whole = (width - 1 - place) // 4 + 1 if place < width else 0
            for n in range(whole):
                values[i, n] = line[4 * n + place, channel]
            for n in range(whole, across):
                values[i, n] = line[width - 1, channel]
        if signed:
            for i in range(16):
                for n in range(across):
                    values[i, n] = (values[i, n] * 508 + 255) // 510
        _search(
            values,
            np.int32(reach),
            up,
            top,
            (ends[0], ends[1]),
            (
                scratch[0],
                scratch[1],
                scratch[2],
                scratch[3],
                scratch[4],
                scratch[5],
                scratch[6],
                scratch[7],
            ),
        )
        _codes_of_eight(values, (ends[0], ends[1]), up, scratch[0], scratch[1], codes)
        _write(values, (ends[0], ends[1]), up, top, codes, words, row * across, word)
