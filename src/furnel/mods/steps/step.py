"""What a step is: a name, declared parameters, and a pure function. Forms, files and the command line read them here."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from typing import Any, Literal

from furnel.errors import FurnelError
from furnel.images.picture import Picture
from furnel.sound import Clip

Value = int | float | str | bool
Values = Mapping[str, Value]
Kind = Literal["picture", "sound"]


@dataclass(frozen=True, slots=True)
class Parameter:
    """One setting of a step: its type, its range, its default, how it is called and measured."""

    name: str
    label: str
    type: Literal["whole", "number", "choice", "colour", "switch"]
    default: Value
    low: float = 0.0
    high: float = 0.0
    unit: str = ""
    choices: tuple[str, ...] = ()

    def checked(self, value: Value, where: str) -> Value:
        """`value`, when it is allowed; FurnelError otherwise."""
        allowed = ""
        if self.type == "switch":
            allowed = "" if isinstance(value, bool) else "true or false"
        elif self.type == "choice":
            allowed = "" if value in self.choices else f"one of {', '.join(self.choices)}"
        elif self.type == "colour":
            allowed = (
                ""
                if isinstance(value, str) and re.fullmatch("[0-9a-fA-F]{6}", value)
                else "six hex digits, like 20a040"
            )
        elif (
            isinstance(value, bool)
            or not isinstance(value, int | float)
            or not self.low <= value <= self.high
        ):
            allowed = f"a number from {self.low:g} to {self.high:g}"
        elif self.type == "whole":
            allowed = "" if float(value).is_integer() else "a whole number"
            value = int(value)
        if allowed:
            raise FurnelError(
                "Reading a step",
                where=f"{where}, {self.name}",
                why=f"{value!r} is not allowed",
                remedy=f"Use {allowed}",
            )
        return value


@dataclass(frozen=True, slots=True)
class StepType:
    """One kind of step. `apply` takes and returns a Picture or a Clip; `summary` says in short what it will do."""

    id: str
    title: str
    kind: Kind
    parameters: tuple[Parameter, ...]
    apply: Callable[[Any, Values], Picture | Clip]
    summary: Callable[[Values], str]

    def complete(self, values: Values) -> dict[str, Value]:
        """Checked values, with defaults for what is not given. Raises FurnelError for unknown or disallowed ones."""
        known = {parameter.name: parameter for parameter in self.parameters}
        for name in values:
            if name not in known:
                raise FurnelError(
                    "Reading a step",
                    where=f"{self.id}, {name}",
                    why="it has no such setting",
                    remedy=f"It has {', '.join(known)}",
                )
        return {name: part.checked(values.get(name, part.default), self.id) for name, part in known.items()}
