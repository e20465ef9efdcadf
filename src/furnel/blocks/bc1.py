"""BC1: a 4×4 block as two RGB 5:6:5 end points and sixteen 2-bit indices, after the Khronos Data Format
Specification 1.3, chapter 18 (S3TC). The colour half of BC3 is the same block, always with four colours.

The encoder starts at the principal axis of the block's colours, alternates index assignment with a least-squares
solution for the end points, then tries the neighbours of both end points in the 5:6:5 grid.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.kernels import kernel

_PATIENCE = 8  # with at least as many sweeps, the three-colour mode is tried as well


def _tables() -> tuple[npt.NDArray[np.uint8], ...]:
    """Interpolated 8-bit values of two 5-bit (and 6-bit) end points: at the ends, a third and a half."""
    a5, b5 = np.meshgrid(np.arange(32), np.arange(32), indexing="ij")
    a6, b6 = np.meshgrid(np.arange(64), np.arange(64), indexing="ij")
    return (
        ((np.arange(32) * 527 + 23) >> 6).astype(np.uint8),
        ((np.arange(64) * 259 + 33) >> 6).astype(np.uint8),
        (((2 * a5 + b5) * 351 + 61) >> 7).astype(np.uint8),
        (((2 * a6 + b6) * 2763 + 1039) >> 11).astype(np.uint8),
        (((a5 + b5) * 1053 + 125) >> 8).astype(np.uint8),
        (((a6 + b6) * 4145 + 1019) >> 11).astype(np.uint8),
    )


_ENDS5, _ENDS6, _THIRD5, _THIRD6, _HALF5, _HALF6 = _tables()


@kernel("void(uint8[:, ::1], uint8[:, :, ::1], int64, int64, int64, boolean)")
def decode_rows(blocks, out, first, end, offset, four_only):
    """Decode block rows `first`..`end` of `blocks` (count, block bytes) into `out` (height, width, 4)."""
    height, width = out.shape[0], out.shape[1]
    across = (width + 3) // 4
    palette = np.zeros((4, 4), np.uint8)
    for row in range(first, end):
        for column in range(across):
            data = blocks[row * across + column]
            c0 = np.int64(data[offset]) | np.int64(data[offset + 1]) << 8
            c1 = np.int64(data[offset + 2]) | np.int64(data[offset + 3]) << 8
            r0, g0, b0 = c0 >> 11, (c0 >> 5) & 63, c0 & 31
            r1, g1, b1 = c1 >> 11, (c1 >> 5) & 63, c1 & 31
            palette[0, 0], palette[0, 1], palette[0, 2], palette[0, 3] = (
                _ENDS5[r0],
                _ENDS6[g0],
                _ENDS5[b0],
                255,
            )
            palette[1, 0], palette[1, 1], palette[1, 2], palette[1, 3] = (
                _ENDS5[r1],
                _ENDS6[g1],
                _ENDS5[b1],
                255,
            )
            palette[2, 3] = 255
            if four_only or c0 > c1:
                palette[2, 0], palette[2, 1], palette[2, 2] = (
                    _THIRD5[r0, r1],
                    _THIRD6[g0, g1],
                    _THIRD5[b0, b1],
                )
                palette[3, 0], palette[3, 1], palette[3, 2] = (
                    _THIRD5[r1, r0],
                    _THIRD6[g1, g0],
                    _THIRD5[b1, b0],
                )
                palette[3, 3] = 255
            else:
                palette[2, 0], palette[2, 1], palette[2, 2] = _HALF5[r0, r1], _HALF6[g0, g1], _HALF5[b0, b1]
                palette[3, 0] = palette[3, 1] = palette[3, 2] = palette[3, 3] = 0
            for y in range(min(4, height - row * 4)):
                bits = np.int64(data[offset + 4 + y])
                for x in range(min(4, width - column * 4)):
                    index = (bits >> (2 * x)) & 3
                    target = out[row * 4 + y, column * 4 + x]
                    target[0], target[1], target[2] = palette[index, 0], palette[index, 1], palette[index, 2]
                    if not four_only:
                        target[3] = palette[index, 3]


@kernel()
def _assign(px, weight, ends, four, index):
    """Nearest palette entry of every pixel, into `index`; the weighted squared error of the whole block."""
    r0, g0, b0, r1, g1, b1 = ends[0], ends[1], ends[2], ends[3], ends[4], ends[5]
    ar, ag, ab = np.float32(_ENDS5[r0]), np.float32(_ENDS6[g0]), np.float32(_ENDS5[b0])
    br, bg, bb = np.float32(_ENDS5[r1]), np.float32(_ENDS6[g1]), np.float32(_ENDS5[b1])
    if four:
        cr, cg, cb = np.float32(_THIRD5[r0, r1]), np.float32(_THIRD6[g0, g1]), np.float32(_THIRD5[b0, b1])
        dr, dg, db = np.float32(_THIRD5[r1, r0]), np.float32(_THIRD6[g1, g0]), np.float32(_THIRD5[b1, b0])
    else:
        cr, cg, cb = np.float32(_HALF5[r0, r1]), np.float32(_HALF6[g0, g1]), np.float32(_HALF5[b0, b1])
        dr, dg, db = cr, cg, cb
    total = np.float32(0.0)
    for i in range(16):
        r, g, b = px[0, i], px[1, i], px[2, i]
        da = (r - ar) * (r - ar) + (g - ag) * (g - ag) + (b - ab) * (b - ab)
        dbb = (r - br) * (r - br) + (g - bg) * (g - bg) + (b - bb) * (b - bb)
        dc = (r - cr) * (r - cr) + (g - cg) * (g - cg) + (b - cb) * (b - cb)
        dd = (r - dr) * (r - dr) + (g - dg) * (g - dg) + (b - db) * (b - db)
        low = min(da, dbb)
        near = np.uint8(1) if dbb < da else np.uint8(0)
        mid = min(dc, dd)
        far = np.uint8(3) if dd < dc else np.uint8(2)
        index[i] = far if mid < low else near
        total += min(low, mid) * weight[i]
    return total


@kernel()
def _quantise(value, ends):
    """Six float channel values (0..255) to the nearest 5:6:5 end points."""
    for c in range(6):
        top = 63.0 if c % 3 == 1 else 31.0
        ends[c] = np.int64(min(max(value[c] * top / 255.0 + 0.5, 0.0), top))


@kernel()
def _axis_ends(px, weight, value):
    """The block's extremes along its principal colour axis, into `value`; False when it has but one colour."""
    total = np.float32(0.0)
    mr = mg = mb = np.float32(0.0)
    for i in range(16):
        w = weight[i]
        total += w
        mr += w * px[0, i]
        mg += w * px[1, i]
        mb += w * px[2, i]
    if total <= 0:
        return False
    mr, mg, mb = mr / total, mg / total, mb / total
    rr = rg = rb = gg = gb = bb = np.float32(0.0)
    for i in range(16):
        w = weight[i]
        r, g, b = px[0, i] - mr, px[1, i] - mg, px[2, i] - mb
        rr += w * r * r
        rg += w * r * g
        rb += w * r * b
        gg += w * g * g
        gb += w * g * b
        bb += w * b * b
    if rr + gg + bb < np.float32(1e-3):
        value[0] = value[3] = mr
        value[1] = value[4] = mg
        value[2] = value[5] = mb
        return False
    x, y, z = rr, gg, bb
    if rr >= gg and rr >= bb:
        x, y, z = rr, rg, rb
    elif gg >= bb:
        x, y, z = rg, gg, gb
    else:
        x, y, z = rb, gb, bb
    for _ in range(4):
        x, y, z = rr * x + rg * y + rb * z, rg * x + gg * y + gb * z, rb * x + gb * y + bb * z
        scale = np.float32(1.0) / max(abs(x), abs(y), abs(z), np.float32(1e-6))
        x, y, z = x * scale, y * scale, z * scale
    norm = x * x + y * y + z * z
    low, high = np.float32(1e9), np.float32(-1e9)
    for i in range(16):
        if weight[i] > 0:
            t = ((px[0, i] - mr) * x + (px[1, i] - mg) * y + (px[2, i] - mb) * z) / norm
            low, high = min(low, t), max(high, t)
    value[0], value[1], value[2] = mr + high * x, mg + high * y, mb + high * z
    value[3], value[4], value[5] = mr + low * x, mg + low * y, mb + low * z
    return True


@kernel()
def _solve(px, weight, index, four, value):
    """Least-squares end points for the indices given, into `value`; False when they leave one undetermined."""
    aa = ab = bb = np.float32(0.0)
    a0 = a1 = a2 = b0 = b1 = b2 = np.float32(0.0)
    for i in range(16):
        k = index[i]
        t = np.float32(1.0)
        if k == 1:
            t = np.float32(0.0)
        elif k == 2:
            t = np.float32(2.0 / 3.0) if four else np.float32(0.5)
        elif k == 3:
            t = np.float32(1.0 / 3.0) if four else np.float32(0.5)
        w = weight[i]
        s = np.float32(1.0) - t
        aa += w * t * t
        ab += w * t * s
        bb += w * s * s
        a0 += w * t * px[0, i]
        a1 += w * t * px[1, i]
        a2 += w * t * px[2, i]
        b0 += w * s * px[0, i]
        b1 += w * s * px[1, i]
        b2 += w * s * px[2, i]
    det = aa * bb - ab * ab
    if abs(det) < np.float32(1e-4):
        return False
    inv = np.float32(1.0) / det
    value[0], value[1], value[2] = (
        (a0 * bb - b0 * ab) * inv,
        (a1 * bb - b1 * ab) * inv,
        (a2 * bb - b2 * ab) * inv,
    )
    value[3], value[4], value[5] = (
        (b0 * aa - a0 * ab) * inv,
        (b1 * aa - a1 * ab) * inv,
        (b2 * aa - a2 * ab) * inv,
    )
    return True


@kernel()
def _solid(value, four, ends):
    """The end points whose third (or half) point comes nearest to one colour, channel by channel."""
    for c in range(3):
        top = 64 if c == 1 else 32
        target = value[c]
        centre = np.int64(target * (top - 1) / 255.0 + 0.5)
        best = np.float32(1e9)
        for a in range(max(0, centre - 4), min(top, centre + 5)):
            for b in range(max(0, centre - 4), min(top, centre + 5)):
                if c == 1:
                    got = _THIRD6[a, b] if four else _HALF6[a, b]
                else:
                    got = _THIRD5[a, b] if four else _HALF5[a, b]
                off = abs(np.float32(got) - target) + np.float32(0.001) * abs(a - b)
                if off < best:
                    best, ends[c], ends[c + 3] = off, a, b


@kernel()
def _fit(px, weight, four, rounds, sweeps, ends, index, work):
    """Find end points and indices for one block; returns the squared error. `work` is scratch space."""
    value, trial, trial_index = work
    if not _axis_ends(px, weight, value):
        _solid(value, four, ends)
        return _assign(px, weight, ends, four, index)
    _quantise(value, ends)
    best = _assign(px, weight, ends, four, index)
    for _ in range(rounds):
        if not _solve(px, weight, index, four, value):
            break
        _quantise(value, trial)
        error = _assign(px, weight, trial, four, trial_index)
        if error >= best:
            break
        best = error
        ends[:] = trial
        index[:] = trial_index
    for _ in range(sweeps):
        before = best
        for c in range(9):
            for step in (-1, 1):
                trial[:] = ends
                if c < 6:
                    trial[c] += step
                else:
                    trial[c - 6] += step
                    trial[c - 3] += step
                bound = 63 if c % 3 == 1 else 31
                if trial[c % 6] < 0 or trial[c % 6] > bound:
                    continue
                if c >= 6 and (trial[c - 3] < 0 or trial[c - 3] > bound):
                    continue
                error = _assign(px, weight, trial, four, trial_index)
                if error < best:
                    best = error
                    ends[:] = trial
                    index[:] = trial_index
        if best >= before:
            break
    return best


@kernel()
def _pack(out, offset, ends, index, four, clear, four_only):
    """Write the block; the order of the end points tells the mode, so indices may have to be mirrored."""
    c0 = ends[0] << 11 | ends[1] << 5 | ends[2]
    c1 = ends[3] << 11 | ends[4] << 5 | ends[5]
    swap = (four and c0 < c1 and not four_only) or (not four and c0 > c1)
    if swap:
        c0, c1 = c1, c0
    flat = four and c0 == c1 and not four_only
    bits = np.int64(0)
    for i in range(16):
        k = np.int64(index[i])
        if not four and k == 3:
            k = 2
        if swap:
            k = (k ^ 1) if (four or k < 2) else k
        if flat:
            k = 0
        if clear[i]:
            k = 3
        bits |= k << (2 * i)
    out[offset], out[offset + 1] = c0 & 255, c0 >> 8
    out[offset + 2], out[offset + 3] = c1 & 255, c1 >> 8
    for byte in range(4):
        out[offset + 4 + byte] = (bits >> (8 * byte)) & 255


@kernel("void(uint8[:, :, ::1], uint8[:, ::1], int64, int64, int64, int64, int64, boolean)")
def encode_rows(pixels, blocks, first, end, offset, rounds, sweeps, four_only):
    """Encode block rows `first`..`end` of `pixels` (height, width, 4) into `blocks` (count, block bytes).

    With `four_only` (BC3) alpha is stored elsewhere; else pixels with alpha below 128 become clear.
    """
    height, width = pixels.shape[0], pixels.shape[1]
    across = (width + 3) // 4
    px = np.empty((3, 16), np.float32)
    weight = np.empty(16, np.float32)
    clear = np.zeros(16, np.bool_)
    ends, other_ends = np.zeros(6, np.int64), np.zeros(6, np.int64)
    index, other_index = np.zeros(16, np.uint8), np.zeros(16, np.uint8)
    work = (np.zeros(6, np.float32), np.zeros(6, np.int64), np.zeros(16, np.uint8))
    for row in range(first, end):
        for column in range(across):
            any_clear = False
            for y in range(4):
                for x in range(4):
                    source = pixels[min(row * 4 + y, height - 1), min(column * 4 + x, width - 1)]
                    i = y * 4 + x
                    px[0, i], px[1, i], px[2, i] = source[0], source[1], source[2]
                    if four_only:
                        weight[i] = 1.0 if source[3] > 0 else 0.0
                    else:
                        clear[i] = source[3] < 128
                        any_clear |= clear[i]
                        weight[i] = 0.0 if clear[i] else 1.0
            four = not any_clear
            error = _fit(px, weight, four, rounds, sweeps, ends, index, work)
            three_too = four and not four_only and sweeps >= _PATIENCE and error > 0
            if three_too and _fit(px, weight, False, rounds, sweeps, other_ends, other_index, work) < error:
                four = False
                ends[:] = other_ends
                index[:] = other_index
            _pack(blocks[row * across + column], offset, ends, index, four, clear, four_only)
