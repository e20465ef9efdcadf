"""The kernels under a level chain: 2×2 averages of linear light multiplied by alpha."""

from __future__ import annotations

import numpy as np

from furnel.kernels import kernel


@kernel("void(uint8[:, :, ::1], float32[::1], float32[:, :, ::1], int64, int64)")
def halve_bytes(pixels, to_linear, out, first, end):
    """Rows `first`..`end` of `out` (height, width, 4) from sRGB bytes of twice the size; `to_linear` has 256 entries."""
    share = np.float32(1.0 / 255.0)
    for y in range(first, end):
        for x in range(out.shape[1]):
            red = green = blue = alpha = np.float32(0.0)
            for k in range(4):
                source = pixels[2 * y + (k >> 1), 2 * x + (k & 1)]
                a = source[3] * share
                red += to_linear[source[0]] * a
                green += to_linear[source[1]] * a
                blue += to_linear[source[2]] * a
                alpha += a
            quarter = np.float32(0.25)
            out[y, x, 0], out[y, x, 1], out[y, x, 2], out[y, x, 3] = (
                red * quarter,
                green * quarter,
                blue * quarter,
                alpha * quarter,
            )


@kernel("void(float32[:, :, ::1], float32[:, :, ::1], int64, int64)")
def halve_light(light, out, first, end):
    """The same from light that is linear and multiplied by alpha already."""
    for y in range(first, end):
        for x in range(out.shape[1]):
            for c in range(4):
                upper = light[2 * y, 2 * x, c] + light[2 * y, 2 * x + 1, c]
                lower = light[2 * y + 1, 2 * x, c] + light[2 * y + 1, 2 * x + 1, c]
                out[y, x, c] = (upper + lower) * np.float32(0.25)


@kernel("void(float32[:, :, ::1], uint8[::1], uint8[:, :, ::1], int64, int64)")
def bytes_of(light, to_srgb, out, first, end):
    """Rows of sRGB bytes, straight alpha, from light multiplied by alpha; `to_srgb` covers 0..1 in equal steps."""
    top = np.float32(len(to_srgb) - 1)
    for y in range(first, end):
        for x in range(light.shape[1]):
            alpha = light[y, x, 3]
            scale = top / max(alpha, np.float32(1e-6))
            for c in range(3):
                out[y, x, c] = to_srgb[
                    np.int64(min(max(light[y, x, c] * scale, np.float32(0.0)), top) + np.float32(0.5))
                ]
            out[y, x, 3] = np.uint8(
                min(max(alpha, np.float32(0.0)), np.float32(1.0)) * np.float32(255.0) + np.float32(0.5)
            )
