"""How lengths, loudness and channels of sounds are said, everywhere alike."""

from __future__ import annotations

import math


def length_text(seconds: float) -> str:
    """A length as people say it: `0.84 s`, `1:04.00`."""
    minutes, rest = divmod(seconds, 60)
    return f"{int(minutes)}:{rest:05.2f}" if minutes else f"{rest:.2f} s"


def span_text(span: tuple[int, int], rate: int) -> str:
    """A span of frames in time."""
    return f"{length_text(span[0] / rate)} to {length_text(span[1] / rate)}"


def loudness_text(loudness: float) -> str:
    """A loudness in LUFS, or that there is none."""
    return f"{loudness:.1f} LUFS" if math.isfinite(loudness) else "silent"


def channels_text(channels: int) -> str:
    """How many channels there are: `mono`, `stereo`, `6 channels`."""
    return {1: "mono", 2: "stereo"}.get(channels, f"{channels} channels")
