"""BC7, encoding: a block's choices as its 128 bits."""

from __future__ import annotations

import numpy as np

from furnel.blocks.bc7_tables import ANCHORS, MODES, SUBSETS
from furnel.kernels import kernel


@kernel()
def _put(block, at, value, count):
    """Write `count` (up to 16) bits at bit `at`; where the next ones go."""
    if count:
        place, bits = at & 31, np.uint32(value & ((1 << count) - 1))
        block[at >> 5] |= bits << np.uint32(place)
        if place + count > 32:
            block[(at >> 5) + 1] |= bits >> np.uint32(32 - place)
    return at + count


@kernel(inlined=False)
def write_block(block, mode, partition, rotation, select, stored, index, second):
    """Write a block (four words of zeros). Subsets whose anchor index is too high change their ends over."""
    subsets, colour_bits, alpha_bits, p_kind = MODES[mode, 0], MODES[mode, 4], MODES[mode, 5], MODES[mode, 6]
    first_bits, second_bits = MODES[mode, 7], MODES[mode, 8]
    shift = 1 if p_kind else 0
    for subset in range(subsets):
        if index[ANCHORS[subsets, partition, subset]] >> (first_bits - 1):
            for i in range(16):
                if SUBSETS[subsets, partition, i] == subset:
                    index[i] = (1 << first_bits) - 1 - index[i]
            alpha_too = second_bits == 0
            scalar = select == 1  # the first index then belongs to alpha
            for c in range(4):
                if (c < 3 and not (second_bits and scalar)) or (c == 3 and (alpha_too or scalar)):
                    stored[subset, 0, c], stored[subset, 1, c] = stored[subset, 1, c], stored[subset, 0, c]
    if second_bits and second[0] >> (second_bits - 1):
        for i in range(16):
            second[i] = (1 << second_bits) - 1 - second[i]
        for c in range(4):
            if (c == 3 and select == 0) or (c < 3 and select == 1):
                stored[0, 0, c], stored[0, 1, c] = stored[0, 1, c], stored[0, 0, c]
    at = _put(block, 0, np.int64(1) << mode, mode + 1)
    at = _put(block, at, partition, MODES[mode, 1])
    at = _put(block, at, rotation, MODES[mode, 2])
    at = _put(block, at, select, MODES[mode, 3])
    for c in range(4):
        for subset in range(subsets):
            for place in range(2):
                at = _put(block, at, stored[subset, place, c] >> shift, colour_bits if c < 3 else alpha_bits)
    for subset in range(subsets):
        if p_kind == 2:
            at = _put(block, at, stored[subset, 0, 0] & 1, 1)
        elif p_kind == 1:
            at = _put(block, at, stored[subset, 0, 0] & 1, 1)
            at = _put(block, at, stored[subset, 1, 0] & 1, 1)
    for i in range(16):
        short = 1 if i == ANCHORS[subsets, partition, SUBSETS[subsets, partition, i]] else 0
        at = _put(block, at, index[i], first_bits - short)
    if second_bits:
        for i in range(16):
            at = _put(block, at, second[i], second_bits - (1 if i == 0 else 0))
