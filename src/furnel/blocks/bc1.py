"""BC1: a 4×4 block as two RGB 5:6:5 end points and sixteen 2-bit indices, after the Khronos Data Format
Specification 1.3, chapter 18 (S3TC). The colour half of BC3 is the same block, always with four colours.

The encoder starts at the principal axis of the block's colours, alternates index assignment with a least-squares
solution for the end points, then tries the neighbours of both end points in the 5:6:5 grid.
"""

from __future__ import annotations

import numpy as np
import numpy.typing as npt

from furnel.blocks.bc4 import alpha_palette
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


@kernel()
def _packed(red, green, blue):
    return np.uint32(red) | np.uint32(green) << np.uint32(8) | np.uint32(blue) << np.uint32(16)


@kernel()
def _palette(ends, four_only, palette):
    """The block's four colours as packed RGBA; with `four_only` their alpha is left 0."""
    c0, c1 = ends & np.uint32(0xFFFF), ends >> np.uint32(16)
    r0, g0, b0 = c0 >> np.uint32(11), (c0 >> np.uint32(5)) & np.uint32(63), c0 & np.uint32(31)
    r1, g1, b1 = c1 >> np.uint32(11), (c1 >> np.uint32(5)) & np.uint32(63), c1 & np.uint32(31)
    solid = np.uint32(0) if four_only else np.uint32(0xFF000000)
    palette[0] = _packed(_ENDS5[r0], _ENDS6[g0], _ENDS5[b0]) | solid
    palette[1] = _packed(_ENDS5[r1], _ENDS6[g1], _ENDS5[b1]) | solid
    if four_only or c0 > c1:
        palette[2] = _packed(_THIRD5[r0, r1], _THIRD6[g0, g1], _THIRD5[b0, b1]) | solid
        palette[3] = _packed(_THIRD5[r1, r0], _THIRD6[g1, g0], _THIRD5[b1, b0]) | solid
    else:
        palette[2] = _packed(_HALF5[r0, r1], _HALF6[g0, g1], _HALF5[b0, b1]) | solid
        palette[3] = np.uint32(0)


@kernel("void(uint32[:, ::1], uint32[:, ::1], int64, int64)")
def decode_rows(words, out, first, end):
    """Decode block rows `first`..`end` of BC1 blocks (count, 2 words) into `out` (height, width) packed RGBA."""
    height, width = out.shape
    across = (width + 3) // 4
    palette = np.zeros(4, np.uint32)
    for row in range(first, end):
        for column in range(across):
            block = row * across + column
            _palette(words[block, 0], False, palette)
            bits = words[block, 1]
            if row * 4 + 4 <= height and column * 4 + 4 <= width:
                for y in range(4):
                    line = out[row * 4 + y]
                    for x in range(4):
                        line[column * 4 + x] = palette[bits & np.uint32(3)]
                        bits >>= np.uint32(2)
            else:
                for y in range(min(4, height - row * 4)):
                    for x in range(min(4, width - column * 4)):
                        out[row * 4 + y, column * 4 + x] = palette[
                            (bits >> np.uint32(8 * y + 2 * x)) & np.uint32(3)
                        ]


@kernel("void(uint32[:, ::1], uint32[:, ::1], int64, int64)")
def decode_bc3_rows(words, out, first, end):
    """The same for BC3 (count, 4 words): always four colours, and alpha from the BC4 block before them."""
    height, width = out.shape
    across = (width + 3) // 4
    palette = np.zeros(4, np.uint32)
    alphas, shifted = np.zeros(8, np.int64), np.zeros(8, np.uint32)
    for row in range(first, end):
        for column in range(across):
            block = row * across + column
            _palette(words[block, 2], True, palette)
            alpha_palette(
                np.int64(words[block, 0] & np.uint32(255)),
                np.int64((words[block, 0] >> np.uint32(8)) & np.uint32(255)),
                alphas,
            )
            for k in range(8):
                shifted[k] = np.uint32(alphas[k]) << np.uint32(24)
            fine = np.uint64(words[block, 0]) >> np.uint64(16) | np.uint64(words[block, 1]) << np.uint64(16)
            bits = words[block, 3]
            if row * 4 + 4 <= height and column * 4 + 4 <= width:
                for y in range(4):
                    line = out[row * 4 + y]
                    for x in range(4):
                        line[column * 4 + x] = palette[bits & np.uint32(3)] | shifted[fine & np.uint64(7)]
                        bits >>= np.uint32(2)
                        fine >>= np.uint64(3)
                continue
            for y in range(min(4, height - row * 4)):
                for x in range(min(4, width - column * 4)):
                    place = np.uint64(y * 4 + x)
                    colour = palette[(bits >> np.uint32(8 * y + 2 * x)) & np.uint32(3)]
                    out[row * 4 + y, column * 4 + x] = (
                        colour | shifted[(fine >> (np.uint64(3) * place)) & np.uint64(7)]
                    )


# The encoder counts in whole numbers: sums come out the same on every machine, however they are vectorised.


@kernel()
def _assign(px, keep, ends, four, index, scale):
    """Nearest palette entry of every pixel, into `index`; the squared error of the pixels that count."""
    r0, g0, b0, r1, g1, b1 = ends[0], ends[1], ends[2], ends[3], ends[4], ends[5]
    ar, ag, ab = np.int32(_ENDS5[r0]), np.int32(_ENDS6[g0]), np.int32(_ENDS5[b0])
    br, bg, bb = np.int32(_ENDS5[r1]), np.int32(_ENDS6[g1]), np.int32(_ENDS5[b1])
    if four:
        cr, cg, cb = np.int32(_THIRD5[r0, r1]), np.int32(_THIRD6[g0, g1]), np.int32(_THIRD5[b0, b1])
        dr, dg, db = np.int32(_THIRD5[r1, r0]), np.int32(_THIRD6[g1, g0]), np.int32(_THIRD5[b1, b0])
    else:
        cr, cg, cb = np.int32(_HALF5[r0, r1]), np.int32(_HALF6[g0, g1]), np.int32(_HALF5[b0, b1])
        dr, dg, db = cr, cg, cb
    sr, sg, sb = scale[0], scale[1], scale[2]
    ar, ag, ab = np.int32(ar * sr), np.int32(ag * sg), np.int32(ab * sb)
    br, bg, bb = np.int32(br * sr), np.int32(bg * sg), np.int32(bb * sb)
    cr, cg, cb = np.int32(cr * sr), np.int32(cg * sg), np.int32(cb * sb)
    dr, dg, db = np.int32(dr * sr), np.int32(dg * sg), np.int32(db * sb)
    total = np.int32(0)
    for i in range(16):
        r, g, b = px[0, i], px[1, i], px[2, i]
        first = np.int32((r - ar) * (r - ar) + (g - ag) * (g - ag) + (b - ab) * (b - ab))
        second = np.int32((r - br) * (r - br) + (g - bg) * (g - bg) + (b - bb) * (b - bb))
        third = np.int32((r - cr) * (r - cr) + (g - cg) * (g - cg) + (b - cb) * (b - cb))
        fourth = np.int32((r - dr) * (r - dr) + (g - dg) * (g - dg) + (b - db) * (b - db))
        low, near = (second, np.int32(1)) if second < first else (first, np.int32(0))
        mid, far = (fourth, np.int32(3)) if fourth < third else (third, np.int32(2))
        index[i] = far if mid < low else near
        total = np.int32(total + np.int32(min(low, mid) * keep[i]))
    return total


@kernel()
def _quantise(value, ends, scale):
    """Six channel values (0..255 times their scale) to the nearest 5:6:5 end points."""
    for c in range(6):
        top = 63.0 if c % 3 == 1 else 31.0
        ends[c] = np.int64(min(max(value[c] / scale[c % 3] * top / 255.0 + 0.5, 0.0), top))


@kernel()
def _axis_ends(px, keep, value):
    """The block's extremes along its principal colour axis, into `value`; False when it has but one colour."""
    n = sr = sg = sb = np.int32(0)
    rr = rg = rb = gg = gb = bb = np.int32(0)
    for i in range(16):
        m = keep[i]
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
    if n == 0:
        return False
    share = 1.0 / n
    mr, mg, mb = sr * share, sg * share, sb * share
    vrr, vrg, vrb = np.float64(n * rr - sr * sr), np.float64(n * rg - sr * sg), np.float64(n * rb - sr * sb)
    vgg, vgb, vbb = np.float64(n * gg - sg * sg), np.float64(n * gb - sg * sb), np.float64(n * bb - sb * sb)
    if vrr + vgg + vbb == 0:
        value[0] = value[3] = mr
        value[1] = value[4] = mg
        value[2] = value[5] = mb
        return False
    if vrr >= vgg and vrr >= vbb:
        x, y, z = vrr, vrg, vrb
    elif vgg >= vbb:
        x, y, z = vrg, vgg, vgb
    else:
        x, y, z = vrb, vgb, vbb
    for _ in range(3):  # the numbers grow, but not past what a float64 holds
        x, y, z = vrr * x + vrg * y + vrb * z, vrg * x + vgg * y + vgb * z, vrb * x + vgb * y + vbb * z
    scale = 512.0 / max(abs(x), abs(y), abs(z))
    ix, iy, iz = np.int32(x * scale), np.int32(y * scale), np.int32(z * scale)
    low, high = np.int32(1 << 30), np.int32(-(1 << 30))
    for i in range(16):
        t = np.int32(px[0, i] * ix + px[1, i] * iy + px[2, i] * iz)
        low = min(low, t if keep[i] else np.int32(1 << 30))
        high = max(high, t if keep[i] else np.int32(-(1 << 30)))
    middle = mr * ix + mg * iy + mb * iz
    shrink = 1.0 / (np.float64(ix) * ix + np.float64(iy) * iy + np.float64(iz) * iz)
    for end, t in ((0, high), (3, low)):
        along = (t - middle) * shrink
        value[end], value[end + 1], value[end + 2] = mr + along * ix, mg + along * iy, mb + along * iz
    return True


@kernel()
def _solve(px, keep, index, four, value):
    """Least-squares end points for the indices given, into `value`; False when they leave one undetermined."""
    aa = ab = bb = np.int32(0)
    a0 = a1 = a2 = b0 = b1 = b2 = np.int32(0)
    whole = np.int32(3) if four else np.int32(2)
    for i in range(16):
        k = index[i]
        far = np.int32(4) - k if four else np.int32(1)  # two thirds, one third; or the half
        t = whole if k == 0 else (np.int32(0) if k == 1 else far)
        s = whole - t
        t, s = np.int32(t * keep[i]), np.int32(s * keep[i])
        aa = np.int32(aa + np.int32(t * t))
        ab = np.int32(ab + np.int32(t * s))
        bb = np.int32(bb + np.int32(s * s))
        a0 = np.int32(a0 + np.int32(t * px[0, i]))
        a1 = np.int32(a1 + np.int32(t * px[1, i]))
        a2 = np.int32(a2 + np.int32(t * px[2, i]))
        b0 = np.int32(b0 + np.int32(s * px[0, i]))
        b1 = np.int32(b1 + np.int32(s * px[1, i]))
        b2 = np.int32(b2 + np.int32(s * px[2, i]))
    det = aa * bb - ab * ab
    if det == 0:
        return False
    scale = whole / det
    value[0], value[1], value[2] = (
        (a0 * bb - b0 * ab) * scale,
        (a1 * bb - b1 * ab) * scale,
        (a2 * bb - b2 * ab) * scale,
    )
    value[3], value[4], value[5] = (
        (b0 * aa - a0 * ab) * scale,
        (b1 * aa - a1 * ab) * scale,
        (b2 * aa - a2 * ab) * scale,
    )
    return True


@kernel()
def _solid(value, four, ends, scale):
    """The end points whose third (or half) point comes nearest to one colour, channel by channel."""
    for c in range(3):
        top = 64 if c == 1 else 32
        target = value[c] / scale[c]
        centre = np.int64(target * (top - 1) / 255.0 + 0.5)
        best = 1e9
        for a in range(max(0, centre - 4), min(top, centre + 5)):
            for b in range(max(0, centre - 4), min(top, centre + 5)):
                if c == 1:
                    got = _THIRD6[a, b] if four else _HALF6[a, b]
                else:
                    got = _THIRD5[a, b] if four else _HALF5[a, b]
                off = abs(np.float64(got) - target) + 0.001 * abs(a - b)
                if off < best:
                    best, ends[c], ends[c + 3] = off, a, b


@kernel()
def _fit(px, keep, four, rounds, sweeps, worth, ends, index, work):
    """Find end points and indices for one block; returns the squared error. `work` is scratch space.

    Blocks with a squared error up to `worth` are left at the least-squares solution.
    """
    value, trial, trial_index, scale = work
    if not _axis_ends(px, keep, value):
        _solid(value, four, ends, scale)
        return _assign(px, keep, ends, four, index, scale)
    _quantise(value, ends, scale)
    best = _assign(px, keep, ends, four, index, scale)
    for _ in range(rounds):
        if not _solve(px, keep, index, four, value):
            break
        _quantise(value, trial, scale)
        same = True
        for c in range(6):
            same &= trial[c] == ends[c]
        if same:
            break
        error = _assign(px, keep, trial, four, trial_index, scale)
        if error >= best:
            break
        best = error
        ends[:] = trial
        index[:] = trial_index
    for _ in range(sweeps):
        if best <= worth:
            break
        before = best
        for c in range(9):
            bound = 63 if c % 3 == 1 else 31
            for step in (-1, 1):
                trial[:] = ends
                if c < 6:
                    trial[c] += step
                else:
                    trial[c - 6] += step
                    trial[c - 3] += step
                if (
                    trial[c % 6] < 0
                    or trial[c % 6] > bound
                    or (c >= 6 and (trial[c - 3] < 0 or trial[c - 3] > bound))
                ):
                    continue
                error = _assign(px, keep, trial, four, trial_index, scale)
                if error < best:
                    best = error
                    ends[:] = trial
                    index[:] = trial_index
        if best >= before:
            break
    return best


@kernel()
def _pack(words, block, word, ends, index, four, any_clear, clear, four_only):
    """Write the block; the order of the end points tells the mode, so indices may have to be mirrored."""
    c0 = np.uint32(ends[0] << 11 | ends[1] << 5 | ends[2])
    c1 = np.uint32(ends[3] << 11 | ends[4] << 5 | ends[5])
    bits = np.uint32(0)
    for i in range(16):
        bits |= np.uint32(index[i]) << np.uint32(2 * i)
    low_bits = np.uint32(0x55555555)
    if not four:  # both middle entries are the same colour, and 3 would be clear
        bits &= ~((bits >> np.uint32(1)) & low_bits)
    if (four and c0 < c1 and not four_only) or (not four and c0 > c1):
        c0, c1 = c1, c0
        bits ^= low_bits if four else low_bits & ~(bits >> np.uint32(1))
    if four and c0 == c1 and not four_only:
        bits = np.uint32(0)
    if any_clear:
        for i in range(16):
            if clear[i]:
                bits |= np.uint32(3) << np.uint32(2 * i)
    words[block, word] = c0 | c1 << np.uint32(16)
    words[block, word + 1] = bits


@kernel("void(uint8[:, :, ::1], uint32[:, ::1], int64, int64, int64, int64, int64, int64, boolean, boolean)")
def encode_rows(pixels, words, first, end, word, rounds, sweeps, worth, four_only, as_seen):
    """Encode block rows `first`..`end` of `pixels` (height, width, 4) into `words` (count, words a block) from `word` on.

    With `four_only` (BC3) alpha is stored elsewhere; else pixels with alpha below 128 become clear. With `as_seen` errors
    in red, green and blue weigh 4, 9 and 1, about as the eye sees them: all values are scaled by 2, 3 and 1.
    """
    height, width = pixels.shape[0], pixels.shape[1]
    across = (width + 3) // 4
    px = np.empty((3, 16), np.int32)
    alpha = np.empty(16, np.uint8)
    keep = np.ones(16, np.int32)
    kept_less = False  # whether the last block left a pixel out
    clear = np.zeros(16, np.bool_)
    ends, other_ends = np.zeros(6, np.int64), np.zeros(6, np.int64)
    index, other_index = np.zeros(16, np.int32), np.zeros(16, np.int32)
    scale = np.ones(3, np.int32)
    if as_seen:
        scale[0], scale[1] = 2, 3
    work = (np.zeros(6, np.float64), np.zeros(6, np.int64), np.zeros(16, np.int32), scale)
    for row in range(first, end):
        for column in range(across):
            lowest = np.uint8(255)
            inside = row * 4 + 4 <= height and column * 4 + 4 <= width
            for i in range(16):
                y, x = row * 4 + (i >> 2), column * 4 + (i & 3)
                if not inside:
                    y, x = min(y, height - 1), min(x, width - 1)
                px[0, i], px[1, i], px[2, i] = (
                    pixels[y, x, 0] * scale[0],
                    pixels[y, x, 1] * scale[1],
                    pixels[y, x, 2],
                )
                alpha[i] = pixels[y, x, 3]
                lowest = min(lowest, alpha[i])
            any_clear = lowest < 128 and not four_only
            if lowest < 128 or kept_less:
                kept_less = False
                for i in range(16):
                    clear[i] = any_clear and alpha[i] < 128
                    keep[i] = 0 if clear[i] or alpha[i] == 0 else 1
                    kept_less |= keep[i] == 0
            four = not any_clear
            error = _fit(px, keep, four, rounds, sweeps, worth, ends, index, work)
            three_too = four and not four_only and sweeps >= _PATIENCE and error > 0
            if (
                three_too
                and _fit(px, keep, False, rounds, sweeps, worth, other_ends, other_index, work) < error
            ):
                four = False
                ends[:] = other_ends
                index[:] = other_index
            _pack(words, row * across + column, word, ends, index, four, any_clear, clear, four_only)
