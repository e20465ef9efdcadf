"""BC7, decoding: a 4×4 block in one of eight modes, after the Khronos Data Format Specification 1.3, chapter 20 (BPTC)."""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc7_tables import ANCHORS, MODES, SUBSETS, WEIGHTS
from furnel.kernels import kernel


@kernel()
def _take(low, high, at, count):
    """`count` (up to 8) bits from bit `at` of a block given as two 64-bit words."""
    if at < 64:
        value = low >> np.uint64(at)
        if at + count > 64:
            value |= high << np.uint64(64 - at)
    else:
        value = high >> np.uint64(at - 64)
    return np.int64(value & np.uint64((1 << count) - 1))


@kernel()
def widened(value, bits):
    """A value of `bits` bits as 8 bits, its high bits repeated below."""
    return (value << (8 - bits)) | (value >> (2 * bits - 8)) if bits < 8 else value


@kernel()
def _decode_block(low, high, mode, ends, pixels):
    subsets, partition_bits, rotation_bits, select_bits = (
        MODES[mode, 0],
        MODES[mode, 1],
        MODES[mode, 2],
        MODES[mode, 3],
    )
    colour_bits, alpha_bits, p_kind = MODES[mode, 4], MODES[mode, 5], MODES[mode, 6]
    at = mode + 1
    partition = _take(low, high, at, partition_bits)
    at += partition_bits
    rotation = _take(low, high, at, rotation_bits)
    at += rotation_bits
    select = _take(low, high, at, select_bits)
    at += select_bits
    count = 2 * subsets
    for channel in range(4):
        bits = colour_bits if channel < 3 else alpha_bits
        for place in range(count):
            ends[place, channel] = _take(low, high, at, bits)
            at += bits
    for place in range(count):
        p = 0
        if p_kind == 1:
            p = _take(low, high, at + place, 1)
        elif p_kind == 2:
            p = _take(low, high, at + place // 2, 1)
        for channel in range(4):
            bits = colour_bits if channel < 3 else alpha_bits
            if bits == 0:
                ends[place, channel] = 255
            elif p_kind:
                ends[place, channel] = widened(ends[place, channel] << 1 | p, bits + 1)
            else:
                ends[place, channel] = widened(ends[place, channel], bits)
    if p_kind:
        at += count if p_kind == 1 else subsets
    first_bits, second_bits = MODES[mode, 7], MODES[mode, 8]
    second_at = at + 16 * first_bits - subsets
    for pixel in range(16):
        subset = SUBSETS[subsets, partition, pixel]
        short = 1 if pixel == ANCHORS[subsets, partition, subset] else 0
        index = _take(low, high, at, first_bits - short)
        at += first_bits - short
        colour_weight = WEIGHTS[first_bits, index]
        alpha_weight = colour_weight
        if second_bits:
            short = 1 if pixel == 0 else 0
            other = WEIGHTS[second_bits, _take(low, high, second_at, second_bits - short)]
            second_at += second_bits - short
            if select:
                colour_weight, alpha_weight = other, colour_weight
            else:
                alpha_weight = other
        a, b = 2 * subset, 2 * subset + 1
        red = ((64 - colour_weight) * ends[a, 0] + colour_weight * ends[b, 0] + 32) >> 6
        green = ((64 - colour_weight) * ends[a, 1] + colour_weight * ends[b, 1] + 32) >> 6
        blue = ((64 - colour_weight) * ends[a, 2] + colour_weight * ends[b, 2] + 32) >> 6
        alpha = ((64 - alpha_weight) * ends[a, 3] + alpha_weight * ends[b, 3] + 32) >> 6
        if rotation == 1:
            red, alpha = alpha, red
        elif rotation == 2:
            green, alpha = alpha, green
        elif rotation == 3:
            blue, alpha = alpha, blue
        pixels[pixel] = red | green << 8 | blue << 16 | alpha << 24


@kernel("void(uint64[:, ::1], uint32[:, ::1], int64, int64)")
def decode_rows(words, out, first, end):
    """Decode block rows `first`..`end` of blocks (count, 2 words) into `out` (height, width) packed RGBA.

    A block with the reserved mode is all zero.
    """
    height, width = out.shape
    across = (width + 3) // 4
    ends = np.zeros((6, 4), np.int64)
    pixels = np.zeros(16, np.uint32)
    for row in range(first, end):
        for column in range(across):
            low, high = words[row * across + column, 0], words[row * across + column, 1]
            mode = 0
            while mode < 8 and not (low >> np.uint64(mode)) & np.uint64(1):
                mode += 1
            if mode == 8:
                pixels[:] = 0
            else:
                _decode_block(low, high, mode, ends, pixels)
            for y in range(min(4, height - row * 4)):
                for x in range(min(4, width - column * 4)):
                    out[row * 4 + y, column * 4 + x] = pixels[y * 4 + x]
