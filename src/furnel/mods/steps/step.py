"""What a step is: a name, declared parameters, and a pure function. Forms, files and the command line read them here."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal

from furnel.errors import FurnelError
from furnel.imagefiles import Frame, Layer
from furnel.images.picture import Picture, Rgb
from furnel.sound import Clip

Value = int | float | str | bool
Values = Mapping[str, Value]


@dataclass(frozen=True, slots=True)
class Taken:
    """From where to where, in seconds of a sound's source, steps take from it.

    `silence_s` is the silence at the source's ends, `rate` that of steps after resampling.
    """

    start_s: float
    end_s: float
    length_s: float
    silence_s: tuple[float, float]
    rate: int

    def part(self, start_s: float, length_s: float = 0.0) -> Taken:
        """What is left of it from `start_s` on, for `length_s` (0: to its end)."""
        start = self.start_s + start_s
        end = min(start + length_s, self.end_s) if length_s else self.end_s
        return replace(self, start_s=start, end_s=end)


@dataclass(frozen=True, slots=True)
class Around:
    """What a step may look at beside what it is given: the original, and files that it names.

    With `tell` it says in a few words what it did, where its settings do not. The first step is given all `frames`
    (with their times) and `layers` of a source that has several.
    """

    original: Picture | None = None
    open_file: Callable[[str], Picture] | None = None
    open_sound: Callable[[str], Clip] | None = None
    tell: Callable[[str], None] = lambda text: None
    frames: Callable[[], tuple[Frame, ...]] | None = None
    layers: Callable[[], tuple[Layer, ...]] | None = None

    def needed_original(self, what: str) -> Picture:
        """The original. Raises FurnelError when there is none."""
        if self.original is None:
            raise FurnelError(what, why="there is no original to look at", remedy="Use it in a swap")
        return self.original

    def picture(self, name: str, what: str) -> Picture:
        """The picture in a file that a step names. Raises FurnelError when it cannot be read."""
        if self.open_file is None or not name:
            raise FurnelError(what, why="no file is chosen", remedy="Choose a picture in the step's settings")
        return self.open_file(name)

    def clip(self, name: str, what: str) -> Clip:
        """The sound in a file that a step names. Raises FurnelError when it cannot be read."""
        if self.open_sound is None or not name:
            raise FurnelError(what, why="no file is chosen", remedy="Choose a sound in the step's settings")
        return self.open_sound(name)


ALONE = Around()


@dataclass(frozen=True, slots=True)
class Parameter:
    """One setting of a step: its type, its range, its default, how it is called and measured."""

    name: str
    label: str
    type: Literal["whole", "number", "choice", "colour", "switch", "file", "files", "text"]
    default: Value
    low: float = 0.0
    high: float = 0.0
    unit: str = ""
    choices: tuple[str, ...] = ()

    def schema(self) -> dict[str, Any]:
        """Its JSON Schema, for editors of files that name it."""
        kind = {"whole": "integer", "number": "number", "switch": "boolean"}.get(self.type, "string")
        out: dict[str, Any] = {"title": self.label, "type": kind, "default": self.default}
        if self.type in ("whole", "number"):
            out |= {"minimum": self.low, "maximum": self.high}
        elif self.type == "choice":
            out["enum"] = list(self.choices)
        elif self.type == "colour":
            out["pattern"] = "^[0-9a-fA-F]{6}$"
        return out

    def checked(self, value: Value, where: str) -> Value:
        """`value`, when it is allowed; FurnelError otherwise."""
        allowed = ""
        if self.type == "switch":
            allowed = "" if isinstance(value, bool) else "true or false"
        elif self.type in ("file", "files", "text"):
            allowed = "" if isinstance(value, str) else "a path" if self.type == "file" else "a text"
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
    """One kind of step. `apply` takes and returns a Picture or a Clip; `summary` says in short what it will do.

    `domain` is the medium that it is for, `group` where menus put it. Settings measured in `px` are scaled along when a small
    preview is made. The rest says what others have to know of it:

    - `is_last`: it stays behind all other steps that are added.
    - `joined`: how its settings add to those of the one that is there; without it they replace them.
    - `takes`: what it takes of a sound's source; `begins` names the setting that says from where, or nothing. One that `leads`
      is moved when another part of the source is wanted, before one that does not.
    - `moves`: what was laid at a time before it is not there any more.
    - `span`: as the first step it needs only these frames of the source, of so many at a rate.
    - `is_layer`: it lays the file of its settings over the sound.
    - `result_size`: what size in pixels it gives; `distorts`: whether it changes proportions for that.
    - `crops`: the area of its settings is one of what it is given, not of what it gives.
    - `turns`: whether it turns a picture round across, down, or on its side. `clears`: the colours (six
      hex digits) of which nothing is to be left; `gives`: those that it puts there.
    """

    id: str
    title: str
    domain: str
    parameters: tuple[Parameter, ...]
    apply: Callable[[Any, Values, Around], Picture | Clip]
    summary: Callable[[Values], str]
    group: str = ""
    uses_original: bool = False
    is_last: bool = False
    joined: Callable[[Values, Values], dict[str, Value]] | None = None
    takes: Callable[[Values, Taken], Taken] | None = None
    begins: Callable[[Values], str] = lambda values: ""
    leads: bool = False
    moves: bool = False
    span: Callable[[Values, int, int], tuple[int, int]] | None = None
    is_layer: bool = False
    result_size: Callable[[Values], tuple[int, int]] | None = None
    distorts: Callable[[Values], bool] = lambda values: False
    crops: bool = False
    turns: Callable[[Values], tuple[bool, bool, bool]] | None = None
    clears: Callable[[Values], tuple[str, ...]] | None = None
    gives: Callable[[Values], tuple[Rgb, ...]] | None = None

    @property
    def file_settings(self) -> tuple[str, ...]:
        """The names of the settings that are files."""
        return tuple(parameter.name for parameter in self.parameters if parameter.type in ("file", "files"))

    def files_in(self, values: Values) -> list[str]:
        """The files that its settings name; several in one setting are divided by `|`."""
        named = [name for setting in self.file_settings for name in str(values.get(setting, "")).split("|")]
        return [name.strip() for name in named if name.strip()]

    @property
    def has_area(self) -> bool:
        """Whether its settings name an area of a picture: left, top, width and height."""
        return {"left", "top", "width", "height"} <= {parameter.name for parameter in self.parameters}

    def scaled(self, values: Values, scale: float) -> dict[str, Value]:
        """Settings for a picture that is `scale` times as large: those in pixels change with it."""
        out = dict(values)
        for parameter in self.parameters:
            if parameter.unit != "px" or parameter.name not in out:
                continue
            value = float(out[parameter.name]) * scale
            least = max(parameter.low, 1.0 if parameter.low >= 1 else parameter.low)
            out[parameter.name] = (
                max(round(value), int(least)) if parameter.type == "whole" else max(value, least)
            )
        return out

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
