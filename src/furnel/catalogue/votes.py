"""The kernels behind likeness: patches of a query against those of many pictures, and which matches agree on a place."""

from __future__ import annotations

import numpy as np

from furnel.kernels import kernel

_SHIFTS = 8
_SCALES = 12


@kernel()
def _count_ones(word):  # type: ignore[no-untyped-def]
    """How many bits are set (S. E. Anderson, "Bit Twiddling Hacks", counting in parallel)."""
    word = word - ((word >> np.uint64(1)) & np.uint64(0x5555555555555555))
    word = (word & np.uint64(0x3333333333333333)) + ((word >> np.uint64(2)) & np.uint64(0x3333333333333333))
    word = (word + (word >> np.uint64(4))) & np.uint64(0x0F0F0F0F0F0F0F0F)
    return (word * np.uint64(0x0101010101010101)) >> np.uint64(56)


@kernel("void(u8[:,::1], u8[:,:,::1], i8[::1], i8[::1], i8, i8, u1[:,::1], u1[:,::1])")
def nearest(query, signs, counts, rows, first, last, apart, which):  # type: ignore[no-untyped-def]
    """For the pictures `rows[first:last]`: how many signs each patch of `query` (n, 2) differs in from their nearest of
    `signs` (pictures, 64, 2), into `apart` (pictures, n), and which one that is. 255: the picture has no patches."""
    for place in range(first, last):
        row = rows[place]
        for patch in range(query.shape[0]):
            best, found = np.int64(255), 0
            for other in range(counts[row]):
                differ = np.int64(_count_ones(query[patch, 0] ^ signs[row, other, 0])) + np.int64(
                    _count_ones(query[patch, 1] ^ signs[row, other, 1])
                )
                if differ < best:
                    best, found = differ, other
            apart[place, patch] = best
            which[place, patch] = found


@kernel("void(f4[:,::1], u1[:,::1], f4[:,::1], f4[:,:,::1], i8[::1], i8, i8, f4[::1])")
def vote(weights, which, places, spots, rows, first, last, scores):  # type: ignore[no-untyped-def]
    """Score the pictures `rows[first:last]`: the largest weight of matches that agree where the picture is in the query.

    `weights` and `which` (pictures, n) are of the query's patches at `places` (x, y, side); `spots` (pictures, 64, 3). A match
    says how large the picture is in the query and where its corner is; what says about the same is counted together.
    """
    bins = np.zeros((_SCALES, _SHIFTS * 4, _SHIFTS * 4), np.float32)
    for place in range(first, last):
        row = rows[place]
        bins[:] = 0
        best = np.float32(0)
        for patch in range(places.shape[0]):
            weight = weights[place, patch]
            if weight <= 0:
                continue
            found = which[place, patch]
            ratio = places[patch, 2] / spots[row, found, 2]
            left = (places[patch, 0] - spots[row, found, 0] * ratio) / ratio
            top = (places[patch, 1] - spots[row, found, 1] * ratio) / ratio
            scale = int(np.floor(2 * np.log2(ratio) + 6.5))
            column, line = int(np.floor(left * 4 + 2 * _SHIFTS)), int(np.floor(top * 4 + 2 * _SHIFTS))
            for ds in range(2):
                for dx in range(2):
                    for dy in range(2):
                        s, c, r = scale - ds, column - dx, line - dy
                        if 0 <= s < _SCALES and 0 <= c < 4 * _SHIFTS and 0 <= r < 4 * _SHIFTS:
                            bins[s, r, c] += weight
                            if bins[s, r, c] > best:
                                best = bins[s, r, c]
        scores[place] = best


@kernel("void(i8[:,::1], u8[:,:,::1], f4[:,:,::1], i8[::1], i8, f4, f4[::1])")
def agree(pairs, signs, spots, counts, worst, reach, shares):  # type: ignore[no-untyped-def]
    """For pairs of pictures: the share of the first one's patches that the second has at the same place and of the same size,
    with at most `worst` signs that differ. -1: nothing to compare."""
    for place in range(pairs.shape[0]):
        first, second = pairs[place, 0], pairs[place, 1]
        asked, found = 0, 0
        for patch in range(counts[first]):
            near, same = False, False
            for other in range(counts[second]):
                if (
                    abs(spots[first, patch, 0] - spots[second, other, 0]) > reach
                    or abs(spots[first, patch, 1] - spots[second, other, 1]) > reach
                    or abs(spots[first, patch, 2] - spots[second, other, 2]) > reach * spots[first, patch, 2]
                ):
                    continue
                near = True
                apart = np.int64(_count_ones(signs[first, patch, 0] ^ signs[second, other, 0])) + np.int64(
                    _count_ones(signs[first, patch, 1] ^ signs[second, other, 1])
                )
                same = same or apart <= worst
            if near:
                asked += 1
                found += 1 if same else 0
        shares[place] = np.float32(found) / np.float32(asked) if asked > 2 else np.float32(-1)
