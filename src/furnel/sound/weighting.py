"""The kernels under loudness and peaks: K-weighted power over equal hops, and peaks between the samples."""

from __future__ import annotations

import numpy as np

from furnel.kernels import kernel


@kernel("void(float32[:, :], int64, float64[:, ::1], int64, float64, float64[::1], float64[::1])")
def add_power(samples, channel, sections, hop, weight, state, sums):
    """Filter a channel of `samples` (frames, channels) through two second-order `sections` (2, 5: b0 b1 b2 a1 a2) and add
    the weighted squares of the result to `sums`, `hop` frames to each entry. `state` (4,) goes on from call to call.
    """
    b0, b1, b2, a1, a2 = sections[0, 0], sections[0, 1], sections[0, 2], sections[0, 3], sections[0, 4]
    c0, c1, c2, d1, d2 = sections[1, 0], sections[1, 1], sections[1, 2], sections[1, 3], sections[1, 4]
    s1, s2, t1, t2 = state[0], state[1], state[2], state[3]
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
    state[0], state[1], state[2], state[3] = s1, s2, t1, t2


@kernel("float32(float32[:, :], int64, float32[:, ::1], float32)")
def true_peak(samples, channel, phases, least):
    """The largest value without sign of a channel over-sampled by the filter `phases` (4, taps), or `least` when none is
    larger. Spans whose samples are too small to pass what is known are not over-sampled: the filter's gain is bounded.
    """
    taps = phases.shape[1]
    frames = samples.shape[0]
    bound = np.float32(0.0)
    for phase in range(phases.shape[0]):
        total = np.float32(0.0)
        for tap in range(taps):
            total += abs(phases[phase, tap])
        bound = max(bound, total)
    best = least
    span = 64
    for first in range(0, frames + taps - 1, span):
        end = min(first + span, frames + taps - 1)
        highest = np.float32(0.0)
        for frame in range(max(first - taps + 1, 0), min(end, frames)):
            highest = max(highest, abs(samples[frame, channel]))
        best = max(best, highest)
        if highest * bound <= best:
            continue
        for place in range(first, end):
            for phase in range(phases.shape[0]):
                total = np.float32(0.0)
                for tap in range(max(0, place - frames + 1), min(taps, place + 1)):
                    total += phases[phase, tap] * samples[place - tap, channel]
                best = max(best, abs(total))
    return best


@kernel("void(float32[:, :], float32[:, ::1], float32, float32[::1])")
def needed_gain(samples, phases, ceiling, gains):
    """Into `gains` (frames,): by how much every frame has to be turned down so that no over-sampled value around it, in any
    channel, passes `ceiling`; 1 where none does.
    """
    frames, channels = samples.shape
    taps = phases.shape[1]
    late = taps // 2
    for frame in range(frames):
        gains[frame] = 1.0
    bound = np.float32(0.0)
    for phase in range(phases.shape[0]):
        total = np.float32(0.0)
        for tap in range(taps):
            total += abs(phases[phase, tap])
        bound = max(bound, total)
    span = 64
    for channel in range(channels):
        for first in range(0, frames, span):
            end = min(first + span, frames)
            highest = np.float32(0.0)
            for frame in range(max(first - taps, 0), min(end + taps, frames)):
                highest = max(highest, abs(samples[frame, channel]))
            if highest * bound <= ceiling:
                continue
            for frame in range(first, end):
                peak = abs(samples[frame, channel])
                for phase in range(phases.shape[0]):
                    total = np.float32(0.0)
                    for tap in range(taps):
                        at = frame + late - tap
                        if 0 <= at < frames:
                            total += phases[phase, tap] * samples[at, channel]
                    peak = max(peak, abs(total))
                if peak * gains[frame] > ceiling:
                    gains[frame] = ceiling / peak


@kernel("void(float32[::1], float32)")
def release(gains, step):
    """Let gains (frames,) rise again no faster than by `step` of what is missing to 1, each frame."""
    now = np.float32(1.0)
    for frame in range(len(gains)):
        now = min(gains[frame], now + (np.float32(1.0) - now) * step)
        gains[frame] = now
