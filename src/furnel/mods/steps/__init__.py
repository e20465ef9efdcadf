"""Steps: the ordered, non-destructive processing between a source file and a result."""

from furnel.errors import FurnelError
from furnel.mods.steps import alpha, colours, detail, geometry, sounds
from furnel.mods.steps.step import ALONE, Around, Kind, Parameter, StepType, Value, Values

STEP_TYPES: dict[str, StepType] = {
    step.id: step for step in (*geometry.STEPS, *alpha.STEPS, *colours.STEPS, *detail.STEPS, *sounds.STEPS)
}


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


__all__ = ["ALONE", "STEP_TYPES", "Around", "Kind", "Parameter", "StepType", "Value", "Values", "step_type"]
