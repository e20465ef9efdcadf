"""Steps: the ordered, non-destructive processing between a source file and a result."""

from furnel.errors import FurnelError
from furnel.mods.steps import alpha, colours, detail, frames, geometry, pixels, sounds
from furnel.mods.steps.step import ALONE, Around, Parameter, StepType, Taken, Value, Values

STEP_TYPES: dict[str, StepType] = {
    step.id: step
    for step in (
        *geometry.STEPS,
        *alpha.STEPS,
        *colours.STEPS,
        *detail.STEPS,
        *frames.STEPS,
        *pixels.STEPS,
        *sounds.STEPS,
    )
}

STEP_DOMAINS = frozenset(step.domain for step in STEP_TYPES.values())
"""The media that there are steps for."""


def step_type(name: str) -> StepType:
    """The step with this id. Raises FurnelError when there is none."""
    if name not in STEP_TYPES:
        raise FurnelError(
            "Reading a step",
            where=name,
            why="there is no such step",
            remedy=f"Known ones: {', '.join(STEP_TYPES)}",
        )
    return STEP_TYPES[name]


__all__ = [
    "ALONE",
    "STEP_DOMAINS",
    "STEP_TYPES",
    "Around",
    "Parameter",
    "StepType",
    "Taken",
    "Value",
    "Values",
    "step_type",
]
