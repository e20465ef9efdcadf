"""Steps: the ordered, non-destructive processing between a source file and a result."""

from furnel.errors import FurnelError
from furnel.mods.steps import pictures, sounds
from furnel.mods.steps.step import Kind, Parameter, StepType, Value, Values

STEP_TYPES: dict[str, StepType] = {step.id: step for step in (*pictures.STEPS, *sounds.STEPS)}


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


__all__ = ["STEP_TYPES", "Kind", "Parameter", "StepType", "Value", "Values", "step_type"]
