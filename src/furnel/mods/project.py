"""The project file: a mod in the making, as TOML that a person can read and edit."""

from __future__ import annotations

import re
import tomllib
from pathlib import Path
from typing import Any, Literal

import tomlkit
from pydantic import Field, field_validator, model_validator
from tomlkit.exceptions import TOMLKitError

from furnel import imagefiles, sound
from furnel.atomic import write_text
from furnel.errors import FurnelError, reason
from furnel.images.formats import FORMATS
from furnel.mods.steps import Value, step_type
from furnel.schema import IdText, InnerPath, NameText, Part, PlainText, VersionText, validated

WHAT = "Reading a project"
FILE_NAME = "furnel.toml"
VERSION = 1
POINTS = (
    "file", "size", "power of two", "multiple of four", "pictures", "format", "colour space", "levels", "header",
    "supercompression", "rows", "run-length", "row alignment", "alpha", "premultiplied", "under alpha", "channels", "frames",
    "order", "cut", "leftover", "outside", "tiling", "palette", "brightness", "contrast", "range", "keep-out", "aspect",
    "codec", "rate", "length", "loop", "tempo", "loudness", "family", "peak", "lead-in", "clipping", "dc", "phase", "bit rate",
    "tags", "cues", "kind", "form", "keys", "types", "assets", "drift", "name", "source",
)  # fmt: skip
LevelsAs = Literal["colour", "crisp", "values", "normals", "cut-out", "pixels"]


class About(Part):
    """What a mod says of itself."""

    id: IdText
    name: NameText
    version: VersionText = "0.1"
    author: PlainText = ""
    summary: PlainText = ""
    category: PlainText = ""


class GameRef(Part):
    """Which game the mod is for; `folder` is relative to the project's folder or absolute."""

    profile: str
    folder: str


class StepUse(Part):
    """A step in use, with its settings, switched on or off; `auto` when Fit all chose it and nobody changed it since."""

    do: str
    on: bool = True
    auto: bool = False
    values: dict[str, Value] = {}

    def checked(self) -> dict[str, Value]:
        """The settings, complete. Raises FurnelError for unknown steps or disallowed settings."""
        return step_type(self.do).complete(self.values)


class Encode(Part):
    """How a result is written. `levels_as` says how smaller levels are made, `repeats` in which directions the picture does.

    Of an array, a cube or a volume the result has all `pictures`, one below the other. `notes` carries header style, row
    order, run-length flag and the like.
    """

    file: str
    format: str = ""
    levels: int = Field(default=1, ge=1, le=16)
    levels_as: LevelsAs = "colour"
    repeats: Literal["no", "across", "down", "both"] = "no"
    quality: Literal["fast", "good", "best"] = "good"
    shape: Literal["flat", "array", "cube", "volume"] = "flat"
    pictures: int = Field(default=1, ge=1, le=12288)
    notes: dict[str, str] = {}

    @model_validator(mode="after")
    def _can_be_written(self) -> Encode:
        if codecs := sound.codecs_of(self.file):
            if self.format not in codecs:
                raise ValueError(f"{self.file} is written with {', '.join(codecs)}, not {self.format or 'nothing'!r}")
        elif self.file not in imagefiles.WRITTEN:
            known = (*imagefiles.WRITTEN, *sound.WRITTEN_TYPES)
            raise ValueError(f"{self.file!r} is not written: use one of {', '.join(known)}")
        elif self.format and self.format not in FORMATS:
            raise ValueError(f"there is no format {self.format!r}: use one of {', '.join(FORMATS)}")
        return self


class Swap(Part):
    """One replacement: the original it is for, the source, the steps between, and how the result is written.

    `insist` names points of the fit that stay as they are, against the original. `like` is set for an asset that the game
    does not have: another one that it has to match.
    """

    original: InnerPath
    source: str = Field(min_length=1)
    like: InnerPath | Literal[""] = ""
    made_for: str = ""
    credit: PlainText = ""
    insist: tuple[str, ...] = ()
    steps: tuple[StepUse, ...] = ()
    encode: Encode | None = None

    @field_validator("insist")
    @classmethod
    def _known(cls, keys: tuple[str, ...]) -> tuple[str, ...]:
        if unknown := sorted(set(keys) - set(POINTS)):
            raise ValueError(f"there is no point {unknown[0]!r}; there are {', '.join(POINTS)}")
        return keys

    @field_validator("source")
    @classmethod
    def _a_path(cls, source: str) -> str:
        if "\0" in source:
            raise ValueError("a path has no zero byte")
        return source

    @property
    def base(self) -> str:
        """The asset of the game that the result has to match."""
        return self.like or self.original


class EventUse(Part):
    """What a mod changes of a sound event: the sounds that it plays, its volume, how far it is heard."""

    name: str
    sounds: tuple[InnerPath, ...] = ()
    volume: float | None = Field(default=None, ge=0, le=16)
    fade_from: float | None = Field(default=None, ge=0)
    silent_at: float | None = Field(default=None, ge=0)

    @property
    def empty(self) -> bool:
        """Whether it changes nothing."""
        return not self.sounds and self.volume is None and self.fade_from is None and self.silent_at is None


class Project(Part):
    """A mod in the making."""

    furnel: Literal[1] = 1
    mod: About
    game: GameRef
    swaps: tuple[Swap, ...] = ()
    events: tuple[EventUse, ...] = ()

    def swap_for(self, original: str) -> Swap | None:
        """The swap of an original, or None."""
        return next((swap for swap in self.swaps if swap.original == original), None)

    def with_swap(self, swap: Swap) -> Project:
        """The project with a swap added, or put in place of the one for the same original."""
        if self.swap_for(swap.original) is None:
            return self.model_copy(update={"swaps": (*self.swaps, swap)})
        kept = tuple(swap if old.original == swap.original else old for old in self.swaps)
        return self.model_copy(update={"swaps": kept})

    def without_swap(self, original: str) -> Project:
        """The project without the swap of an original; a sound that the mod added is taken out of its events, too."""
        gone = self.swap_for(original)
        kept = self.model_copy(
            update={"swaps": tuple(swap for swap in self.swaps if swap.original != original)}
        )
        if gone is None or not gone.like:
            return kept
        uses = tuple(
            use.model_copy(update={"sounds": tuple(path for path in use.sounds if path != original)})
            for use in self.events
        )
        return kept.model_copy(update={"events": tuple(use for use in uses if not use.empty)})

    def event_for(self, name: str) -> EventUse | None:
        """What the mod changes of an event, or None."""
        return next((use for use in self.events if use.name == name), None)

    def with_event(self, use: EventUse) -> Project:
        """The project with an event changed so; one that changes nothing is left out."""
        others = tuple(old for old in self.events if old.name != use.name)
        events = others if use.empty else tuple(sorted((*others, use), key=lambda use: use.name))
        return self.model_copy(update={"events": events})

    def without_added(self, name: str, game: set[str]) -> Project:
        """The project without the sounds that it added to an event beyond the game's."""
        use, project = self.event_for(name), self
        for path in use.sounds if use is not None else ():
            if path not in game:
                project = project.without_swap(path)
        return project


def load_project(path: Path) -> Project:
    """The project in a file. Raises FurnelError that names line or key, what was found and what is allowed."""
    try:
        raw = tomllib.loads(path.read_text("utf-8"))
    except (OSError, UnicodeDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else "it is not UTF-8 text"
        raise FurnelError(
            WHAT, where=path, why=why, remedy="Open the folder that has a furnel.toml"
        ) from error
    except tomllib.TOMLDecodeError as error:
        raise FurnelError(
            WHAT, where=path, why=str(error), remedy="Correct the TOML in a text editor"
        ) from error
    version = raw.get("furnel")
    if isinstance(version, int) and version > VERSION:
        raise FurnelError(
            WHAT, where=path, why=f"it was saved by a newer Furnel (format {version}, this one knows {VERSION})",
            remedy="Open it with that version; nothing was changed",
        )  # fmt: skip
    project = validated(Project, _from_file(raw), WHAT, path, "docs/projects.md")
    seen: set[str] = set()
    for swap in project.swaps:
        if swap.original in seen:
            raise FurnelError(
                WHAT, where=path, why=f"{swap.original} is swapped twice", remedy="Keep one of the two"
            )
        seen.add(swap.original)
        for use in swap.steps:
            use.checked()
    return project


def save_project(path: Path, project: Project) -> None:
    """Write the project atomically, keeping a person's comments and the order of what did not change."""
    try:
        document = tomlkit.parse(path.read_text("utf-8")) if path.is_file() else tomlkit.document()
    except (OSError, UnicodeDecodeError, TOMLKitError):
        document = tomlkit.document()
    document["furnel"] = project.furnel
    for name, part in (("mod", project.mod), ("game", project.game)):
        table = document.get(name)
        if table is None:
            table = tomlkit.table()
            document[name] = table
        for key, value in part.model_dump(by_alias=True).items():
            if table.get(key) != value:
                table[key] = value
    kept = {str(table.get("original")): table for table in document.get("swap", [])}
    tables = tomlkit.aot()
    for swap in project.swaps:
        fresh = _swap_table(swap)
        old = kept.get(swap.original)
        tables.append(old if old is not None and old.unwrap() == fresh.unwrap() else fresh)
    document.pop("swap", None)
    if project.swaps:
        document["swap"] = tables
    document.pop("event", None)
    if project.events:
        events = tomlkit.aot()
        for use in project.events:
            table = tomlkit.table()
            for key, value in use.model_dump(exclude_defaults=True, by_alias=True).items():
                table.add(key, list(value) if isinstance(value, tuple) else value)
            events.append(table)
        document["event"] = events
    write_text(path, re.sub(r"\n{3,}", "\n\n", tomlkit.dumps(document)))


def project_file(path: Path) -> Path:
    """The project file that a path means: itself, or the one in that folder."""
    return path / FILE_NAME if path.is_dir() else path


def mod_id(name: str) -> str:
    """An id made from a mod's name: lower case, hyphens."""
    return re.sub(r"[^a-z0-9]+", "-", name.lower()).strip("-")[:64] or "mod"


def _from_file(raw: dict[str, Any]) -> dict[str, Any]:
    """TOML's tables as the model's: `swap` to `swaps`, a step's settings gathered in `values`."""
    out = dict(raw)
    swaps = out.pop("swap", [])
    if "event" in out:
        out["events"] = out.pop("event")
    if isinstance(swaps, list):
        out["swaps"] = [_swap_from_file(swap) if isinstance(swap, dict) else swap for swap in swaps]
    return out


def _swap_from_file(swap: dict[str, Any]) -> dict[str, Any]:
    steps = swap.get("steps", [])
    if not isinstance(steps, list):
        return swap
    uses = []
    for use in steps:
        if not isinstance(use, dict):
            return swap
        rest = {key: value for key, value in use.items() if key not in ("do", "on", "auto")}
        kept = {key: use[key] for key in ("do", "on", "auto") if key in use}
        uses.append({**kept, "values": rest})
    return {**swap, "steps": uses}


def _swap_table(swap: Swap) -> Any:
    table = tomlkit.table()
    table.add("original", swap.original)
    table.add("source", swap.source)
    for key, value in (("like", swap.like), ("made-for", swap.made_for), ("credit", swap.credit)):
        if value:
            table.add(key, value)
    if swap.insist:
        table.add("insist", list(swap.insist))
    if swap.encode is not None:
        table.add("encode", _inline(swap.encode.model_dump(exclude_defaults=True, by_alias=True)))
    if swap.steps:
        uses = tomlkit.array()
        uses.multiline(True)
        for use in swap.steps:
            uses.append(_inline(_step_row(use)))
        table.add("steps", uses)
    return table


def _step_row(use: StepUse) -> dict[str, Any]:
    return {"do": use.do, **({} if use.on else {"on": False}), **({"auto": True} if use.auto else {}), **use.values}


def _inline(values: dict[str, Any]) -> Any:
    table = tomlkit.inline_table()
    for key, value in values.items():
        table.add(key, _inline(value) if isinstance(value, dict) else value)
    return table
