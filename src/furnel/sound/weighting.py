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


SPAN = 256


@kernel()
def _bound(phases):
    """How much larger than its samples an over-sampled value can be."""
    bound = np.float32(1.0)
    for phase in range(phases.shape[0]):
        total = np.float32(0.0)
        for tap in range(phases.shape[1]):
            total += abs(phases[phase, tap])
        bound = max(bound, total)
    return bound


@kernel()
def _take(samples, channel, first, count, part):
    """Frames `first` up to `first + count` of a channel into `part`, zeros outside of the sound; the largest without sign."""
    frames = samples.shape[0]
    highest = np.float32(0.0)
    for place in range(count):
        frame = first + place
        value = samples[frame, channel] if 0 <= frame < frames else np.float32(0.0)
        part[place] = value
        highest = max(highest, abs(value))
    return highest


@kernel()
def _over_sampled(part, phases, phase, count, out):
    """One phase of the over-sampled values that end at `count` frames of `part` into `out`: frame by frame side by side, so
    that the compiler makes vector instructions of it."""
    taps = phases.shape[1]
    for place in range(count):
        out[place] = np.float32(0.0)
    for tap in range(taps):
        gain = phases[phase, tap]
        shift = taps - 1 - tap
        for place in range(count):
            out[place] += gain * part[place + shift]


@kernel("float32(float32[:, :], int64, float32[:, ::1], float32, int64, int64)")
def true_peak(samples, channel, phases, least, begin, end):
    """The largest value without sign of a channel over-sampled by the filter `phases` (4, taps), or `least` when none is
    larger; of the places from `begin` up to `end`, each of which looks back over as many samples as the filter has taps.
    Spans whose samples are too small to pass what is known are not over-sampled: the filter's gain is bounded.
    """
    taps = phases.shape[1]
    bound, best = _bound(phases), least
    part, out = np.empty(SPAN + taps, np.float32), np.empty(SPAN, np.float32)
    for first in range(begin, end, SPAN):
        highest = _take(samples, channel, first - taps + 1, SPAN + taps - 1, part)
        best = max(best, highest)
        if highest * bound <= best:
            continue
        for phase in range(phases.shape[0]):
            _over_sampled(part, phases, phase, SPAN, out)
            for place in range(min(SPAN, end - first)):
                best = max(best, abs(out[place]))
    return best


@kernel("void(float32[:, :], float32[:, ::1], float32, float32[::1])")
def needed_gain(samples, phases, ceiling, gains):
    """Into `gains` (frames,): by how much every frame has to be turned down so that no over-sampled value around it, in any
    channel, passes `ceiling`; 1 where none does.
    """
    frames, channels = samples.shape
    taps = phases.shape[1]
    bound, late = _bound(phases), taps // 2
    part, out = np.empty(SPAN + taps, np.float32), np.empty(SPAN, np.float32)
    peaks = np.empty(SPAN, np.float32)
    for frame in range(frames):
        gains[frame] = 1.0
    for channel in range(channels):
        for first in range(0, frames, SPAN):
            highest = _take(samples, channel, first + late - taps + 1, SPAN + taps - 1, part)
            if highest * bound <= ceiling:
                continue
            for place in range(SPAN):
                peaks[place] = abs(part[place + taps - 1 - late])
            for phase in range(phases.shape[0]):
                _over_sampled(part, phases, phase, SPAN, out)
                for place in range(SPAN):
                    peaks[place] = max(peaks[place], abs(out[place]))
            for place in range(min(SPAN, frames - first)):
                if peaks[place] * gains[first + place] > ceiling:
                    gains[first + place] = ceiling / peaks[place]


@kernel("void(float32[::1], float32)")
def release(gains, step):
    """Let gains (frames,) rise again no faster than by `step` of what is missing to 1, each frame."""
    now = np.float32(1.0)
    for frame in range(len(gains)):
        now = min(gains[frame], now + (np.float32(1.0) - now) * step)
        gains[frame] = now


@kernel("void(float32[:, :], int64, float32[::1], float32[::1])")
def span_extremes(samples, span, low, high):
    """Into `low` and `high` the lowest and highest sample of all channels in every whole `span` of frames."""
    channels = samples.shape[1]
    for place in range(len(low)):
        least = most = samples[place * span, 0]
        for frame in range(place * span, (place + 1) * span):
            for channel in range(channels):
                value = samples[frame, channel]
                least = min(least, value)
                most = max(most, value)
        low[place], high[place] = least, most


@kernel("void(float32[:, :], int64, float64[::1], int64[::1], float32[::1])")
def add_levels(samples, hop, totals, runs, levels):
    """Add to `totals`: the peak, left times right, left and right squared, then the sum of every channel. `runs` counts frames
    in runs of three or more at full scale, and how long the last run is. `levels` gets the root mean square of every whole hop,
    of the loudest channel.
    """
    frames, channels = samples.shape
    right = min(1, channels - 1)
    for frame in range(frames):
        highest = np.float32(0.0)
        for channel in range(channels):
            value = samples[frame, channel]
            totals[4 + channel] += value
            highest = max(highest, abs(value))
        totals[0] = max(totals[0], np.float64(highest))
        a, b = np.float64(samples[frame, 0]), np.float64(samples[frame, right])
        totals[1] += a * b
        totals[2] += a * a
        totals[3] += b * b
        if highest >= 0.9999:
            runs[1] += 1
            if runs[1] == 3:
                runs[0] += 3
            elif runs[1] > 3:
                runs[0] += 1
        else:
            runs[1] = 0
    for place in range(len(levels)):
        loudest = np.float32(0.0)
        for channel in range(channels):
            total = np.float32(0.0)
            for frame in range(place * hop, (place + 1) * hop):
                total += samples[frame, channel] * samples[frame, channel]
            loudest = max(loudest, total)
        levels[place] = np.sqrt(loudest / np.float32(hop))
