"""Steps for sharpness, patterns and seams."""

from __future__ import annotations

from typing import Any, cast

from furnel.images import detail
from furnel.mods.steps.step import Parameter, StepType

_GROUP = "Detail"

SHARPEN = StepType(
    "sharpen", "Sharpen", "picture",
    (
        Parameter("amount", "Amount", "number", 60.0, 0.0, 400.0, "%"),
        Parameter("radius", "Radius", "number", 1.0, 0.2, 20.0, "px"),
    ),
    lambda picture, values, _: detail.sharpened(picture, float(values["amount"]), float(values["radius"])),
    lambda values: f"{float(values['amount']):.0f} % at {float(values['radius']):.1f} px",
    _GROUP,
)  # fmt: skip

SOFTEN = StepType(
    "soften", "Soften", "picture",
    (Parameter("radius", "Radius", "number", 1.0, 0.2, 64.0, "px"),),
    lambda picture, values, _: detail.softened(picture, float(values["radius"])),
    lambda values: f"{float(values['radius']):.1f} px",
    _GROUP,
)  # fmt: skip

PATTERN = StepType(
    "pattern", "Lay over the original as a pattern", "picture",
    (
        Parameter("scale", "Scale", "number", 100.0, 5.0, 400.0, "%"),
        Parameter("turn", "Turn", "number", 0.0, -180.0, 180.0, "°"),
        Parameter("folds", "Folds and shade", "number", 100.0, 0.0, 200.0, "%"),
        Parameter("lines", "Lines and dirt", "number", 100.0, 0.0, 200.0, "%"),
        Parameter("colour", "The original's colour", "number", 0.0, 0.0, 100.0, "%"),
    ),
    lambda picture, values, around: detail.patterned(
        around.needed_original("Laying a pattern"), picture, scale=float(values["scale"]), degrees=float(values["turn"]),
        folds=float(values["folds"]), detail=float(values["lines"]), colour=float(values["colour"]),
    ),
    lambda values: f"{float(values['scale']):.0f} %, {float(values['turn']):+.0f}°, folds {float(values['folds']):.0f} %",
    _GROUP, uses_original=True,
)  # fmt: skip

SEAMLESS = StepType(
    "seamless", "Blend the seams", "picture",
    (
        Parameter("repeats", "Repeats", "choice", "both", choices=("across", "down", "both")),
        Parameter("share", "Blend", "number", 15.0, 1.0, 50.0, "%"),
    ),
    lambda picture, values, _: detail.seamless(picture, cast(Any, values["repeats"]), float(values["share"])),
    lambda values: f"repeats {values['repeats']}, blended over {float(values['share']):.0f} %",
    _GROUP,
)  # fmt: skip

STEPS = (SHARPEN, SOFTEN, PATTERN, SEAMLESS)
