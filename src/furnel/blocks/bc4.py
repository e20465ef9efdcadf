"""BC4: one channel of a 4×4 block as two 8-bit end points and sixteen 3-bit indices, after the Khronos Data Format
Specification 1.3, chapter 19 (RGTC). The alpha half of BC3 is the same block.
"""

from __future__ import annotations

import numpy as np

from furnel.kernels import kernel


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


@kernel("void(uint8[:, ::1], uint8[:, :, ::1], int64, int64, int64, int64)")
def decode_rows(blocks, out, first, end, offset, channel):
    """Decode block rows `first`..`end` of `blocks` (count, block bytes) into one channel of `out`."""
    height, width = out.shape[0], out.shape[1]
    across = (width + 3) // 4
    palette = np.zeros(8, np.int64)
    for row in range(first, end):
        for column in range(across):
            data = blocks[row * across + column]
            alpha_palette(np.int64(data[offset]), np.int64(data[offset + 1]), palette)
            bits = np.int64(0)
            for byte in range(6):
                bits |= np.int64(data[offset + 2 + byte]) << (8 * byte)
            for y in range(min(4, height - row * 4)):
                for x in range(min(4, width - column * 4)):
                    out[row * 4 + y, column * 4 + x, channel] = palette[(bits >> (3 * (y * 4 + x))) & 7]


@kernel()
def _cost(values, a, b, palette, stop):
    """The squared error of a block with these end points; gives up once it is past `stop`."""
    alpha_palette(a, b, palette)
    total = 0
    for i in range(16):
        near = 1 << 30
        for k in range(8):
            off = values[i] - palette[k]
            near = min(near, off * off)
        total += near
        if total >= stop:
            return stop
    return total


@kernel()
def _search(values, reach, palette):
    """The best end points near the block's extremes, in the eight-value and the six-value mode."""
    low, high = values.min(), values.max()
    if low == high:
        return low, low
    inner_low, inner_high = 256, -1
    for i in range(16):
        if values[i] != 0 and values[i] != 255:
            inner_low, inner_high = min(inner_low, values[i]), max(inner_high, values[i])
    best_a, best_b = high, low
    best = _cost(values, high, low, palette, 1 << 30)
    for a in range(max(high - reach, 0), min(high + reach, 255) + 1):
        for b in range(max(low - reach, 0), min(low + reach, 255) + 1):
            if a > b and best > 0:
                cost = _cost(values, a, b, palette, best)
                if cost < best:
                    best, best_a, best_b = cost, a, b
    if best > 0 and (low < 8 or high > 247):
        if inner_high < 0:
            return low, high
        for a in range(max(inner_low - reach, 0), min(inner_low + reach, 255) + 1):
            for b in range(max(inner_high - reach, 0), min(inner_high + reach, 255) + 1):
                if a <= b and best > 0:
                    cost = _cost(values, a, b, palette, best)
                    if cost < best:
                        best, best_a, best_b = cost, a, b
    return best_a, best_b


@kernel("void(uint8[:, :, ::1], uint8[:, ::1], int64, int64, int64, int64, int64)")
def encode_rows(pixels, blocks, first, end, offset, channel, reach):
    """Encode one channel of block rows `first`..`end`; `reach` is how far end points are tried around the extremes."""
    height, width = pixels.shape[0], pixels.shape[1]
    across = (width + 3) // 4
    values = np.zeros(16, np.int64)
    palette = np.zeros(8, np.int64)
    for row in range(first, end):
        for column in range(across):
            for y in range(4):
                for x in range(4):
                    values[y * 4 + x] = pixels[
                        min(row * 4 + y, height - 1), min(column * 4 + x, width - 1), channel
                    ]
            a, b = _search(values, reach, palette)
            alpha_palette(a, b, palette)
            bits = np.int64(0)
            for i in range(16):
                near, pick = 1 << 30, 0
                for k in range(8):
                    off = values[i] - palette[k]
                    if off * off < near:
                        near, pick = off * off, k
                bits |= np.int64(pick) << (3 * i)
            out = blocks[row * across + column]
            out[offset], out[offset + 1] = a, b
            for byte in range(6):
                out[offset + 2 + byte] = (bits >> (8 * byte)) & 255
