"""Kernels of archives: packers that a layout describes (sliding windows with flag bits, run-lengths), beginnings of files."""

from __future__ import annotations

from typing import Any

import numpy as np

from furnel.kernels import kernel

_CHAIN = 96
_HASH = 1 << 15


@kernel()
def _taken(word: int, ranges: Any) -> int:
    """The number whose bits lie in some ranges of a word, the lowest range first."""
    found, done = 0, 0
    for row in range(ranges.shape[0]):
        found |= ((word >> ranges[row, 0]) & ((1 << ranges[row, 1]) - 1)) << done
        done += ranges[row, 1]
    return found


@kernel()
def _put(number: int, ranges: Any) -> int:
    """A word with a number in some ranges of its bits."""
    word, done = 0, 0
    for row in range(ranges.shape[0]):
        word |= ((number >> done) & ((1 << ranges[row, 1]) - 1)) << ranges[row, 0]
        done += ranges[row, 1]
    return word


@kernel()
def _key(source: Any, at: int, least: int) -> int:
    found = int(source[at]) | int(source[at + 1]) << 8
    if least > 2:
        found |= int(source[at + 2]) << 16
    return (found * 2654435761 >> 8) & (_HASH - 1)


@kernel()
def _run(source: Any, at: int, most: int) -> int:
    length = 1
    while length < most and at + length < source.size and source[at + length] == source[at]:
        length += 1
    return length


@kernel("int64(uint8[::1], uint8[::1], int64[::1], int64[:, ::1], int64[:, ::1])")
def unpack_window(source: Any, out: Any, told: Any, places: Any, lengths: Any) -> int:
    """Fill `out` from packed bytes; how many bytes there were for it. `told` are the numbers of `WindowPacking.told`."""
    window, begin, fill, shortest, literal = told[0], told[1], told[2], told[3], told[4]
    high, wide, big, back, add = told[5], told[6], told[7], told[8], told[9]
    ring = np.full(window, fill, np.uint8)
    at, place, made, flags, left = 0, begin, 0, 0, 0
    while made < out.size:
        if left == 0:
            if at >= source.size:
                break
            flags, left = int(source[at]), 8
            at += 1
        bit = (flags >> 7) & 1 if high else flags & 1
        flags = flags << 1 if high else flags >> 1
        left -= 1
        if bit == literal:
            if at >= source.size:
                break
            byte = source[at]
            at += 1
            out[made] = byte
            ring[place] = byte
            made += 1
            place = (place + 1) % window
            continue
        if at + wide > source.size:
            break
        word = 0
        for step in range(wide):
            word |= int(source[at + step]) << (8 * (wide - 1 - step) if big else 8 * step)
        at += wide
        told_place = _taken(word, places) + add
        start = (place - told_place) % window if back else told_place % window
        for _ in range(_taken(word, lengths) + shortest):
            if made >= out.size:
                break
            byte = ring[start]
            out[made] = byte
            ring[place] = byte
            made += 1
            place = (place + 1) % window
            start = (start + 1) % window
    return made


@kernel("int64(uint8[::1], uint8[::1], int64[::1], int64[:, ::1], int64[:, ::1])")
def pack_window(source: Any, out: Any, told: Any, places: Any, lengths: Any) -> int:
    """Pack bytes into `out`, which has room for an eighth more of them; how many bytes it has. Greedy, with chains of
    places that have the same first bytes."""
    window, begin, shortest, literal = told[0], told[1], told[3], told[4]
    high, wide, big, back, add = told[5], told[6], told[7], told[8], told[9]
    most_place, most_length = 0, 0
    for row in range(places.shape[0]):
        most_place += places[row, 1]
    for row in range(lengths.shape[0]):
        most_length += lengths[row, 1]
    most_place, longest = (1 << most_place) - 1, (1 << most_length) - 1 + shortest
    least = 3 if shortest >= 3 else 2
    heads, before = np.full(_HASH, -1, np.int64), np.full(source.size, -1, np.int64)
    at, made, flag_at, bits = 0, 0, 0, 8
    while at < source.size:
        if bits == 8:
            flag_at, bits = made, 0
            out[made] = 0
            made += 1
        best, best_at = 0, 0
        if at + least <= source.size:
            tried, old = 0, heads[_key(source, at, least)]
            while old >= 0 and at - old <= window and tried < _CHAIN:
                start = at - old - add if back else (begin + old) % window - add
                if 0 <= start <= most_place:
                    length = 0
                    while (
                        length < longest
                        and at + length < source.size
                        and source[old + length] == source[at + length]
                    ):
                        length += 1
                    if length > best:
                        best, best_at = length, start
                old = before[old]
                tried += 1
        if best >= shortest and best > wide - 1:
            word = _put(best_at, places) | _put(best - shortest, lengths)
            for step in range(wide):
                out[made + step] = (word >> (8 * (wide - 1 - step) if big else 8 * step)) & 0xFF
            made += wide
        else:
            best = 1
            out[made] = source[at]
            made += 1
        if (best == 1) == (literal == 1):
            out[flag_at] |= np.uint8(0x80 >> bits if high else 1 << bits)
        bits += 1
        for step in range(best):
            if at + step + least <= source.size:
                key = _key(source, at + step, least)
                before[at + step] = heads[key]
                heads[key] = at + step
        at += best
    return made


@kernel("int64(uint8[::1], uint8[::1], int64[::1])")
def unpack_runs(source: Any, out: Any, told: Any) -> int:
    """Fill `out` from packed bytes; how many bytes there were for it. `told` are the numbers of `RunPacking.told`."""
    mark, run_least, copy_least, down, skip = told[0], told[1], told[2], told[3], told[4]
    at, made = 0, 0
    while made < out.size and at < source.size:
        control = int(source[at])
        at += 1
        if control == skip:
            continue
        if control >= mark:
            if at >= source.size:
                break
            for _ in range(run_least + (255 - control if down else control - mark)):
                if made >= out.size:
                    break
                out[made] = source[at]
                made += 1
            at += 1
        else:
            for _ in range(control + copy_least):
                if made >= out.size or at >= source.size:
                    break
                out[made] = source[at]
                made += 1
                at += 1
    return made


@kernel("int64(uint8[::1], uint8[::1], int64[::1])")
def pack_runs(source: Any, out: Any, told: Any) -> int:
    """Pack bytes into `out`, which has twice their room; how many bytes it has."""
    mark, run_least, copy_least, down, skip = told[0], told[1], told[2], told[3], told[4]
    most_run, most_copy = run_least + 255 - mark, mark - 1 + copy_least
    if skip >= mark:  # the code that means nothing is never used: it is at one end
        most_run -= 1
    elif skip >= 0:
        most_copy -= 1
    at, made = 0, 0
    while at < source.size:
        run = _run(source, at, most_run)
        if run >= max(run_least, 3):
            out[made] = 255 - (run - run_least) if down else mark + run - run_least
            out[made + 1] = source[at]
            made += 2
            at += run
            continue
        length = 0
        while length < most_copy and at + length < source.size and _run(source, at + length, 3) < 3:
            length += 1
        if length == 0:  # a run that is shorter than the least that can be told
            length = min(run, most_copy)
        out[made] = length - copy_least
        made += 1
        for _ in range(length):
            out[made] = source[at]
            made += 1
            at += 1
    return made


@kernel("int64(uint8[::1], uint8[:, ::1], int64[::1])")
def begins_in(data: Any, letters: Any, places: Any) -> int:
    """Where four bytes stand of which each may stand there in one of eight texts; `letters` (4, 256) has a bit for each.

    How many were put into `places`, which may be full then.
    """
    count = 0
    for at in range(data.size - 3):
        bits = letters[0, data[at]]
        if (
            bits != 0
            and bits & letters[1, data[at + 1]] & letters[2, data[at + 2]] & letters[3, data[at + 3]] != 0
        ):
            if count == places.size:
                return count
            places[count] = at
            count += 1
    return count
