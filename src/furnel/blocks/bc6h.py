"""BC6H, decoding: a 4×4 block of RGB half-floats in one of fourteen modes, after the Khronos Data Format
Specification 1.3, chapter 20.2 (BPTC float).
"""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc6h_tables import MODE_OF_BITS, PARTITION, PLACES, SHAPES
from furnel.blocks.bc7_tables import ANCHORS, SUBSETS, WEIGHTS
from furnel.kernels import kernel


@kernel()
def extended(value, bits):
    """A two's complement number of `bits` bits."""
    return value - (1 << bits) if value >> (bits - 1) & 1 else value


@kernel()
def unquantised(value, bits, signed):
    """An end point's stored number as the 16-bit (with a sign: 17-bit) number that is interpolated."""
    if signed:
        if bits >= 16 or value == 0:
            return value
        size = abs(value)
        wide = 0x7FFF if size >= (1 << (bits - 1)) - 1 else ((size << 15) + 0x4000) >> (bits - 1)
        return -wide if value < 0 else wide
    if bits >= 15 or value == 0:
        return value
    return 0xFFFF if value == (1 << bits) - 1 else ((value << 15) + 0x4000) >> (bits - 1)


@kernel()
def half_of(value, signed):
    """The bits of the half-float that an interpolated number stands for."""
    if signed:
        return (((-value * 31) >> 5) | 0x8000) if value < 0 else (value * 31) >> 5
    return (value * 31) >> 6


@kernel()
def read_ends(fields, mode, signed, ends):
    """Stored fields (12) to unquantised end points (4, 3): differences added, signs extended."""
    base, transformed = SHAPES[mode, 3], SHAPES[mode, 7]
    for c in range(3):
        first = extended(fields[c], base) if signed else fields[c]
        ends[0, c] = unquantised(first, base, signed)
        for place in range(1, 2 * SHAPES[mode, 2]):
            value = fields[3 * place + c]
            if transformed:
                value = (fields[c] + extended(value, SHAPES[mode, 4 + c])) & ((1 << base) - 1)
            if signed:
                value = extended(value, base)
            ends[place, c] = unquantised(value, base, signed)


@kernel("void(uint64[:, ::1], uint16[:, :, ::1], int64, int64, boolean)")
def decode_rows(words, out, first, end, signed):
    """Decode block rows `first`..`end` of blocks (count, 2 words) into `out` (height, width, 3), bits of half-floats.

    Blocks with a reserved mode are zero.
    """
    height, width = out.shape[0], out.shape[1]
    across = (width + 3) // 4
    fields, ends = np.zeros(13, np.int64), np.zeros((4, 3), np.int64)
    for row in range(first, end):
        for column in range(across):
            low, high = words[row * across + column, 0], words[row * across + column, 1]
            mode = MODE_OF_BITS[low & np.uint64(31)]
            at, regions, index_bits = 0, 1, 4
            if mode >= 0:
                at, regions = SHAPES[mode, 0], SHAPES[mode, 2]
                fields[:] = 0
                for place in range(80):
                    field = PLACES[mode, place, 0]
                    if field < 0:
                        break
                    word = low >> np.uint64(at) if at < 64 else high >> np.uint64(at - 64)
                    fields[field] |= np.int64(word & np.uint64(1)) << PLACES[mode, place, 1]
                    at += 1
                read_ends(fields, mode, signed, ends)
                index_bits = 3 if regions == 2 else 4
            for pixel in range(16):
                y, x = row * 4 + (pixel >> 2), column * 4 + (pixel & 3)
                inside = y < height and x < width
                if mode < 0:
                    if inside:
                        out[y, x, 0] = out[y, x, 1] = out[y, x, 2] = 0
                    continue
                region = SUBSETS[2, fields[PARTITION], pixel] if regions == 2 else 0
                anchor = ANCHORS[2, fields[PARTITION], region] if regions == 2 else 0
                count = index_bits - (1 if pixel == anchor else 0)
                index = np.int64(0)
                if at < 64:
                    index = np.int64(low >> np.uint64(at))
                    if at + count > 64:
                        index |= np.int64(high << np.uint64(64 - at))
                else:
                    index = np.int64(high >> np.uint64(at - 64))
                index &= (1 << count) - 1
                at += count
                if inside:
                    w = WEIGHTS[index_bits, index]
                    for c in range(3):
                        value = (ends[2 * region, c] * (64 - w) + ends[2 * region + 1, c] * w + 32) >> 6
                        out[y, x, c] = half_of(value, signed)
