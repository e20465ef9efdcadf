"""The kernel under every loudness: K-weighting of one channel, and its power summed over equal hops."""

from __future__ import annotations

import numpy as np

from furnel.kernels import kernel


@kernel("void(float32[:, :], int64, float64[:, ::1], int64, float64, float64[::1])")
def add_power(samples, channel, sections, hop, weight, sums):
    """Filter a channel of `samples` (frames, channels) through two second-order `sections` (2, 5: b0 b1 b2 a1 a2) and add
    the weighted squares of the result to `sums`, `hop` frames to each entry.
    """
    b0, b1, b2, a1, a2 = sections[0, 0], sections[0, 1], sections[0, 2], sections[0, 3], sections[0, 4]
    c0, c1, c2, d1, d2 = sections[1, 0], sections[1, 1], sections[1, 2], sections[1, 3], sections[1, 4]
    s1 = s2 = t1 = t2 = 0.0
    frames = samples.shape[0]
    for place in range(len(sums)):
        total = 0.0
        for frame in range(place * hop, min((place + 1) * hop, frames)):
            x = np.float64(samples[frame, channel])
            y = b0 * x + s1
            s1 = b1 * x - a1 * y + s2
            s2 = b2 * x - a2 * y
            z = c0 * y + t1
            t1 = c1 * y - d1 * z + t2
            t2 = c2 * y - d2 * z
            total += z * z
        sums[place] += weight * total
