"""Steps for alpha: keys, masks, and the colour under clear pixels."""

from __future__ import annotations

import numpy as np

from furnel.images.alpha import filled_under, hardened, keyed, masked, spread_under, unblended, with_alpha_of
from furnel.images.geometry import area_mask, brought_to
from furnel.images.picture import Picture
from furnel.mods.steps.geometry import area_of, area_parameters, area_text
from furnel.mods.steps.step import Around, Parameter, StepType, Values

_GROUP = "Alpha"


def colour_of(value: object) -> tuple[int, int, int]:
    """Six hex digits as red, green and blue."""
    red, green, blue = bytes.fromhex(str(value))
    return red, green, blue


CLEAR_COLOUR = StepType(
    "clear-colour", "Clear a colour", "picture",
    (
        Parameter("colour", "Colour", "colour", "00ff00"),
        Parameter("tolerance", "Tolerance", "whole", 12, 0, 255),
        Parameter("softness", "Soft edge", "whole", 0, 0, 255),
    ),
    lambda picture, values, _: keyed(
        picture, colour_of(values["colour"]), float(values["tolerance"]), float(values["softness"])
    ),
    lambda values: f"#{values['colour']} becomes clear, ±{values['tolerance']}",
    _GROUP, clears=lambda values: (str(values["colour"]),),
)  # fmt: skip

COLOUR_TO_ALPHA = StepType(
    "colour-to-alpha", "Take a colour out of the blend", "picture",
    (Parameter("colour", "Colour", "colour", "000000"),),
    lambda picture, values, _: unblended(picture, colour_of(values["colour"])),
    lambda values: f"#{values['colour']} becomes transparency, softly",
    _GROUP,
)  # fmt: skip


def _opaque(picture: Picture, values: Values, around: Around) -> Picture:
    out = picture.pixels.copy()
    out[..., 3] = 255
    return Picture(out)


OPAQUE = StepType(
    "opaque", "Drop the alpha", "picture", (), _opaque, lambda values: "every pixel opaque", _GROUP
)

HARD_ALPHA = StepType(
    "hard-alpha", "Clear or opaque", "picture",
    (Parameter("threshold", "Opaque from", "whole", 128, 1, 255),),
    lambda picture, values, _: hardened(picture, int(values["threshold"])),
    lambda values: f"opaque from alpha {values['threshold']}",
    _GROUP,
)  # fmt: skip

KEEP_ALPHA = StepType(
    "keep-alpha", "Take the original's alpha", "picture", (),
    lambda picture, values, around: with_alpha_of(picture, around.needed_original("Taking the original's alpha")),
    lambda values: "clear where the original is clear",
    _GROUP, uses_original=True,
)  # fmt: skip


def _only_in(picture: Picture, values: Values, around: Around) -> Picture:
    mask = area_mask(picture.size, area_of(values), float(values["feather"]))
    outside = None
    if values["outside"] == "the original":
        outside = brought_to(around.needed_original("Keeping an area"), *picture.size, "stretch")
    return masked(picture, mask if not values["inverse"] else 1 - mask, outside)


ONLY_IN = StepType(
    "only-in", "Only inside an area", "picture",
    (
        *area_parameters(128, 128),
        Parameter("feather", "Soft edge", "number", 0.0, 0.0, 256.0, "px"),
        Parameter("outside", "Elsewhere", "choice", "the original", choices=("the original", "clear")),
        Parameter("inverse", "The other way round", "switch", False),
    ),
    _only_in,
    lambda values: f"{area_text(values)}, elsewhere {values['outside']}",
    _GROUP, uses_original=True,
)  # fmt: skip

SPREAD = StepType(
    "spread", "Colour under clear pixels", "picture",
    (
        Parameter("with", "Fill with", "choice", "the nearest colour", choices=("the nearest colour", "one colour")),
        Parameter("colour", "Colour", "colour", "000000"),
    ),
    lambda picture, values, _: (
        filled_under(picture, colour_of(values["colour"])) if values["with"] == "one colour" else spread_under(picture)
    ),
    lambda values: f"#{values['colour']}" if values["with"] == "one colour" else "the nearest colour that is seen",
    _GROUP,
)  # fmt: skip


def _strength(picture: Picture, values: Values, around: Around) -> Picture:
    out = picture.pixels.copy()
    out[..., 3] = np.round(np.clip(out[..., 3] * (float(values["percent"]) / 100), 0, 255))
    return Picture(out)


ALPHA_STRENGTH = StepType(
    "alpha-strength", "More or less opaque", "picture",
    (Parameter("percent", "Alpha", "number", 100.0, 0.0, 400.0, "%"),),
    _strength,
    lambda values: f"alpha × {float(values['percent']) / 100:.2g}",
    _GROUP,
)  # fmt: skip

STEPS = (KEEP_ALPHA, CLEAR_COLOUR, COLOUR_TO_ALPHA, HARD_ALPHA, ALPHA_STRENGTH, OPAQUE, ONLY_IN, SPREAD)
