"""Steps for brightness and colour."""

from __future__ import annotations

from typing import Any, cast

import numpy as np

from furnel.images import tones
from furnel.images.colour import from_premultiplied_light, premultiplied_light
from furnel.images.geometry import brought_to
from furnel.images.picture import Picture
from furnel.mods.steps.alpha import colour_of
from furnel.mods.steps.step import Around, Parameter, StepType, Value, Values

_GROUP = "Light and colour"


def _brightness(picture: Picture, values: Values, around: Around) -> Picture:
    light = premultiplied_light(picture.pixels)
    light[..., :3] *= np.float32(2.0 ** float(values["stops"]))
    return Picture(from_premultiplied_light(np.minimum(light, 1.0)))


def _more_stops(before: Values, more: Values) -> dict[str, Value]:
    stops = float(before.get("stops", 0.0)) + float(more["stops"])
    return {**before, "stops": max(-4.0, min(round(stops, 1), 4.0))}


BRIGHTNESS = StepType(
    "brightness", "Brighter or darker", "picture",
    (Parameter("stops", "Exposure", "number", 0.0, -4.0, 4.0, "stops"),),
    _brightness,
    lambda values: f"{'brighter' if float(values['stops']) > 0 else 'darker'} by {abs(float(values['stops'])):.1f} stops",
    _GROUP, joined=_more_stops,
)  # fmt: skip

CONTRAST = StepType(
    "contrast", "Contrast and gamma", "picture",
    (
        Parameter("contrast", "Contrast", "number", 0.0, -100.0, 200.0, "%"),
        Parameter("gamma", "Gamma", "number", 1.0, 0.2, 5.0),
    ),
    lambda picture, values, _: tones.with_contrast(picture, float(values["contrast"]), float(values["gamma"])),
    lambda values: f"contrast {float(values['contrast']):+.0f} %, gamma {float(values['gamma']):.2f}",
    _GROUP,
)  # fmt: skip

_POINTS = (
    ("black", "Black", 0),
    ("dark", "Dark", 64),
    ("middle", "Middle", 128),
    ("light", "Light", 191),
    ("white", "White", 255),
)

CURVE = StepType(
    "curve", "Tone curve", "picture",
    (
        Parameter("of", "Of", "choice", "colours", choices=("colours", "red", "green", "blue", "alpha")),
        *(Parameter(name, f"{label} becomes", "whole", value, 0, 255) for name, label, value in _POINTS),
    ),
    lambda picture, values, _: tones.through_curve(
        picture, tuple(float(values[name]) for name, _, _ in _POINTS), str(values["of"])
    ),
    lambda values: f"{values['of']}: " + " ".join(str(values[name]) for name, _, _ in _POINTS),
    _GROUP,
)  # fmt: skip

HUE = StepType(
    "hue", "Hue, saturation, lightness", "picture",
    (
        Parameter("turn", "Turn the hue", "number", 0.0, -180.0, 180.0, "°"),
        Parameter("saturation", "Saturation", "number", 0.0, -100.0, 200.0, "%"),
        Parameter("lightness", "Lightness", "number", 0.0, -100.0, 100.0, "%"),
        Parameter("around", "Only hues around", "number", 0.0, 0.0, 360.0, "°"),
        Parameter("reach", "Within", "number", 180.0, 1.0, 180.0, "°"),
    ),
    lambda picture, values, _: tones.hue_turned(
        picture, float(values["turn"]), float(values["saturation"]), float(values["lightness"]), float(values["around"]),
        float(values["reach"]),
    ),
    lambda values: f"{float(values['turn']):+.0f}°, {float(values['saturation']):+.0f} %, {float(values['lightness']):+.0f} %",
    _GROUP,
)  # fmt: skip

MATCH_TONES = StepType(
    "match-tones", "Match the original's tones", "picture",
    (
        Parameter("how", "How", "choice", "mean and spread", choices=("mean and spread", "whole distribution")),
        Parameter("amount", "Amount", "number", 100.0, 0.0, 100.0, "%"),
    ),
    lambda picture, values, around: tones.matched(
        picture, around.needed_original("Matching tones"), cast(Any, values["how"]), float(values["amount"])
    ),
    lambda values: f"{values['how']}, {float(values['amount']):.0f} %",
    _GROUP, uses_original=True,
)  # fmt: skip

REPLACE_COLOUR = StepType(
    "replace-colour", "Replace a colour", "picture",
    (
        Parameter("old", "Colour", "colour", "c03020"),
        Parameter("new", "Becomes", "colour", "2060c0"),
        Parameter("tolerance", "Tolerance", "whole", 24, 0, 255),
        Parameter("softness", "Soft border", "whole", 16, 0, 255),
        Parameter("shading", "Keep light and dark", "switch", True),
    ),
    lambda picture, values, _: tones.replaced(
        picture, colour_of(values["old"]), colour_of(values["new"]), float(values["tolerance"]), float(values["softness"]),
        bool(values["shading"]),
    ),
    lambda values: f"#{values['old']} becomes #{values['new']}, ±{values['tolerance']}",
    _GROUP,
)  # fmt: skip

GREY = StepType(
    "grey", "Make it grey", "picture",
    (Parameter("by", "By", "choice", "as seen", choices=("as seen", "even parts", "lightest", "darkest")),),
    lambda picture, values, _: tones.greyed(picture, cast(Any, values["by"])),
    lambda values: str(values["by"]),
    _GROUP,
)  # fmt: skip

_CHANNELS = (
    *tones.CHANNEL_SOURCES,
    *(f"other's {channel}" for channel in ("red", "green", "blue", "alpha", "grey")),
)


def _mix(picture: Picture, values: Values, around: Around) -> Picture:
    sources = str(values["red"]), str(values["green"]), str(values["blue"]), str(values["alpha"])
    other = None
    if any(source.startswith("other's") for source in sources):
        other = around.picture(str(values["file"]), "Mixing channels")
        if other.size != picture.size:
            other = brought_to(other, *picture.size, "stretch")
    return tones.mixed(picture, sources, other)


MIX = StepType(
    "mix", "Mix and pack channels", "picture",
    (
        Parameter("red", "Red from", "choice", "red", choices=_CHANNELS),
        Parameter("green", "Green from", "choice", "green", choices=_CHANNELS),
        Parameter("blue", "Blue from", "choice", "blue", choices=_CHANNELS),
        Parameter("alpha", "Alpha from", "choice", "alpha", choices=_CHANNELS),
        Parameter("file", "Other picture", "file", ""),
    ),
    _mix,
    lambda values: ", ".join(
        f"{name} ← {values[name]}" for name in ("red", "green", "blue", "alpha") if values[name] != name
    ) or "as it is",
    _GROUP,
)  # fmt: skip


def _few(picture: Picture, values: Values, around: Around) -> Picture:
    table = None
    if values["from"] == "the original's":
        table = tones.colours_of(around.needed_original("Reducing colours"))
    return tones.few_colours(picture, int(values["count"]), table, bool(values["dither"]))


FEW_COLOURS = StepType(
    "few-colours", "Few colours", "picture",
    (
        Parameter("from", "Palette", "choice", "the original's", choices=("the original's", "the picture's best")),
        Parameter("count", "At most", "whole", 16, 2, 256, "colours"),
        Parameter("dither", "Dither", "switch", False),
    ),
    _few,
    lambda values: values["from"] + " palette" if values["from"] == "the original's" else f"the best {values['count']}",
    _GROUP, uses_original=True,
)  # fmt: skip

STEPS = (BRIGHTNESS, CONTRAST, CURVE, HUE, MATCH_TONES, REPLACE_COLOUR, GREY, MIX, FEW_COLOURS)
