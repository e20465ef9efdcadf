"""Steps for sounds."""

from __future__ import annotations

import math

from furnel.mods.steps.step import Around, Parameter, StepType, Values
from furnel.sound import Clip, FillWith, integrated_loudness, resampled, with_channels, with_gain, with_length

RATE = StepType(
    "rate", "Resample", "sound",
    (Parameter("rate", "Rate", "whole", 48000, 4000, 192000, "Hz"),),
    lambda clip, values, _: resampled(clip, int(values["rate"])),
    lambda values: f"to {values['rate']} Hz",
)  # fmt: skip

CHANNELS = StepType(
    "channels", "Mono or stereo", "sound",
    (Parameter("channels", "Channels", "whole", 1, 1, 8),),
    lambda clip, values, _: with_channels(clip, int(values["channels"])),
    lambda values: {1: "to mono", 2: "to stereo"}.get(int(values["channels"]), f"to {values['channels']} channels"),
)  # fmt: skip


def _length(clip: Clip, values: Values, around: Around) -> Clip:
    fill: FillWith = "repeats" if values["fill"] == "repeats" else "silence"
    return with_length(clip, int(values["frames"]), fill, float(values["fade"]) / 1000)


LENGTH = StepType(
    "length", "Cut or fill to length", "sound",
    (
        Parameter("frames", "Length", "whole", 48000, 1, 1 << 31, "frames"),
        Parameter("fill", "Fill up with", "choice", "silence", choices=("silence", "repeats")),
        Parameter("fade", "Fade where cut", "number", 30.0, 0.0, 10000.0, "ms"),
    ),
    _length,
    lambda values: f"{values['frames']} frames, filled with {values['fill']}",
)  # fmt: skip


def _loudness(clip: Clip, values: Values, around: Around) -> Clip:
    target, ceiling = float(values["target"]), float(values["ceiling"])
    for _ in range(3):  # limiting lowers the loudness a little: ask again for what is missing
        now = integrated_loudness(clip.samples, clip.rate)
        if not math.isfinite(now) or abs(target - now) < 0.1:
            break
        clip, _limited_db = with_gain(clip, target - now, ceiling)
    return clip


LOUDNESS = StepType(
    "loudness", "Match loudness", "sound",
    (
        Parameter("target", "Loudness", "number", -18.0, -70.0, 0.0, "LUFS"),
        Parameter("ceiling", "Never above", "number", -0.3, -24.0, 0.0, "dBFS"),
    ),
    _loudness,
    lambda values: f"{float(values['target']):.1f} LUFS, never above {float(values['ceiling']):.1f} dBFS",
)  # fmt: skip

STEPS = (RATE, CHANNELS, LENGTH, LOUDNESS)
