"""The project file: a mod in the making, as TOML that a person can read and edit."""

from __future__ import annotations

import re
from functools import lru_cache
from pathlib import Path
from typing import Annotated, Any, Literal

import tomlkit
from pydantic import Field, field_validator, model_validator
from tomlkit.exceptions import TOMLKitError

from furnel.atomic import write_text
from furnel.errors import FurnelError, reason
from furnel.media import PICTURE, SOUND, medium_by_suffix
from furnel.media.encode import Encode
from furnel.mods.steps import STEP_TYPES, Value, step_type
from furnel.schema import (
    IdText,
    InnerPath,
    LongText,
    NameText,
    Part,
    PlainText,
    VersionText,
    read_toml,
    validated,
)
from furnel.texts.patch import Change
from furnel.words import count

WHAT = "Reading a project"
FILE_NAME = "furnel.toml"
VERSION = 1


LicenceText = Annotated[str, Field(pattern=r"^([A-Za-z0-9][A-Za-z0-9.+-]{0,63})?$")]
"""The SPDX identifier of a licence, such as CC-BY-4.0 (SPDX specification 2.3, annex D), or LicenseRef- and a name."""


class About(Part):
    """What a mod says of itself. `description` is Markdown, `licence` an SPDX identifier, `preview` a picture of it;
    `with-installer` puts a script into its package that merges it with other mods."""

    id: IdText
    name: NameText
    version: VersionText = "0.1"
    author: PlainText = ""
    summary: PlainText = ""
    category: PlainText = ""
    description: LongText = ""
    licence: LicenceText = ""
    tags: tuple[PlainText, ...] = ()
    languages: tuple[PlainText, ...] = ()
    preview: InnerPath | Literal[""] = ""
    with_installer: bool = False


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


class Swap(Part):
    """One replacement: the original it is for, the source, the steps between, and how the result is written.

    Of a definition it can be `changes` of the game's own instead of another file; then it has no source. With no changes
    either it is a definition that is open on the bench, and is not built.
    `insist` names points of the fit that stay as they are, against the original. `like` is set for an asset that the game
    does not have: another one that it has to match. `part_of` names the addition that it belongs to.
    """

    original: InnerPath
    source: str = ""
    like: InnerPath | Literal[""] = ""
    made_for: str = ""
    credit: PlainText = ""
    part_of: PlainText = ""
    insist: tuple[str, ...] = ()
    steps: tuple[StepUse, ...] = ()
    encode: Encode | None = None
    changes: tuple[Change, ...] = ()

    @model_validator(mode="after")
    def _made_of_something(self) -> Swap:
        if not self.source and not self.changes and medium_by_suffix(Path(self.base)) in (PICTURE, SOUND):
            raise ValueError("it has neither a source nor changes")
        if self.changes and (self.source or self.steps or self.encode is not None):
            raise ValueError(
                "changes are of the game's own definition: they go with no source, steps or encoding"
            )
        return self

    @field_validator("insist")
    @classmethod
    def _known(cls, keys: tuple[str, ...]) -> tuple[str, ...]:
        from furnel.mods.fit.registry import point_keys  # the points know steps, and so this module

        if unknown := sorted(set(keys) - set(point_keys())):
            raise ValueError(f"there is no point {unknown[0]!r}; there are {', '.join(point_keys())}")
        return keys

    @field_validator("source")
    @classmethod
    def _a_path(cls, source: str) -> str:
        if "\0" in source:
            raise ValueError("a path has no zero byte")
        return source

    @property
    def is_untouched(self) -> bool:
        """Whether it is a definition with nothing changed yet: it is looked at, and not built."""
        return not self.source and not self.changes

    @property
    def made_from(self) -> str:
        """What it is made from, in a few words."""
        return self.source or (count(len(self.changes), "change") if self.changes else "nothing changed yet")

    @property
    def keeps_name(self) -> bool:
        """Whether the result is a file of the original's kind, whatever the source is called."""
        return self.encode is not None or not self.source

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

    @property
    def made(self) -> tuple[Swap, ...]:
        """The swaps that are built: all but definitions with nothing changed."""
        return tuple(swap for swap in self.swaps if not swap.is_untouched)

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


def file_schema() -> dict[str, Any]:
    """The JSON Schema of a project's file as it is written: `[[swap]]` tables, settings beside a step name."""
    whole: dict[str, Any] = Project.model_json_schema(by_alias=True)
    parts = whole["properties"]
    parts["swap"], parts["event"] = parts.pop("swaps"), parts.pop("events")
    common = {
        name: part for name, part in whole["$defs"]["StepUse"]["properties"].items() if name != "values"
    }
    whole["$defs"]["StepUse"] = {
        "description": whole["$defs"]["StepUse"]["description"],
        "oneOf": [
            {
                "title": step.title,
                "type": "object",
                "properties": {
                    **common,
                    "do": {"const": step.id},
                    **{setting.name: setting.schema() for setting in step.parameters},
                },
                "required": ["do"],
                "additionalProperties": False,
            }
            for step in STEP_TYPES.values()
        ],
    }
    return whole


def load_project(path: Path) -> Project:
    """The project in a file. Raises FurnelError that names line or key, what was found and what is allowed."""
    try:
        raw = read_toml(path.read_text("utf-8-sig"))
    except (OSError, UnicodeDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else "it is not UTF-8 text"
        raise FurnelError(
            WHAT, where=path, why=why, remedy="Open the folder that has a furnel.toml"
        ) from error
    except ValueError as error:
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
    """Write the project atomically, keeping a person's comments and the order and spelling of what did not change."""
    try:
        parts = _parts(path.read_text("utf-8-sig")) if path.is_file() else []
    except (OSError, UnicodeDecodeError):
        parts = []
    swaps = {str(row.get("original")): (row, text) for kind, row, text in parts if kind == "swap"}
    events = {str(row.get("name")): (row, text) for kind, row, text in parts if kind == "event"}
    rows = [_swap_row(swap) for swap in project.swaps]
    uses = [use.model_dump(mode="json", exclude_defaults=True, by_alias=True) for use in project.events]
    pieces = [
        _head(project, "".join(text for kind, _, text in parts if kind == "")),
        *(_kept(swaps.get(str(row["original"])), row, "swap") for row in rows),
        *(_kept(events.get(str(row["name"])), row, "event") for row in uses),
    ]
    write_text(path, re.sub(r"\n{3,}", "\n\n", "\n\n".join(piece.strip("\n") for piece in pieces) + "\n"))


_HEADER = re.compile(r"^(?:#[^\n]*\n)*[ \t]*\[{1,2}[ \t]*(mod|game|swap|event)[ \t]*\]", re.M)


def _parts(text: str) -> list[tuple[str, dict[str, Any], str]]:
    """A project's text cut before its tables (with the comments right above them): kind (empty but for swaps and events),
    what it says, and its text. A text that is not TOML has none."""
    cuts = [(found.start(), found.group(1)) for found in _HEADER.finditer(text)]
    out: list[tuple[str, dict[str, Any], str]] = []
    begun = 0
    for number, (start, _) in enumerate([*cuts, (len(text), "")]):
        row = _read_part(text[begun:start])
        if row is not None:  # otherwise the cut lies inside a text of several lines, or in a list
            name = next((key for key in ("swap", "event") if set(row) == {key} and len(row[key]) == 1), "")
            out.append((name, row[name][0] if name else row, text[begun:start]))
            begun = start
        elif number == len(cuts):
            return []
    return out


@lru_cache(maxsize=2048)
def _read_part(text: str) -> dict[str, Any] | None:
    try:
        return read_toml(text)
    except ValueError:
        return None


def _head(project: Project, text: str) -> str:
    """What stands before the swaps, brought up to date."""
    try:
        document = tomlkit.parse(text)
    except TOMLKitError:
        document = tomlkit.document()
    document["furnel"] = project.furnel
    for name, part in (("mod", project.mod), ("game", project.game)):
        table, needed = document.get(name), part.model_dump(by_alias=True, exclude_defaults=True)
        if table is None:  # a new one shows everything that there is to say
            table = tomlkit.table()
            document[name], needed = table, part.model_dump(by_alias=True)
        for key, value in part.model_dump(by_alias=True).items():
            if table.get(key) != value and (key in table or key in needed):
                table[key] = value
    return tomlkit.dumps(document)


def _kept(old: tuple[dict[str, Any], str] | None, row: dict[str, Any], kind: str) -> str:
    """A table's text as it was when it says the same, or anew with the comments that stood above it."""
    if old is not None and old[0] == row:
        return old[1]
    above = re.match(r"(?:#[^\n]*\n)*", old[1]) if old is not None else None
    tables = tomlkit.aot()
    tables.append(_table(row))
    document = tomlkit.document()
    document[kind] = tables
    return (above.group() if above else "") + tomlkit.dumps(document)


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


def _swap_row(swap: Swap) -> dict[str, Any]:
    """A swap as the file has it."""
    told = (
        ("source", swap.source), ("like", swap.like), ("made-for", swap.made_for), ("credit", swap.credit),
        ("part-of", swap.part_of),
    )  # fmt: skip
    row: dict[str, Any] = {"original": swap.original, **{key: value for key, value in told if value}}
    if swap.insist:
        row["insist"] = list(swap.insist)
    if swap.encode is not None:
        row["encode"] = swap.encode.model_dump(mode="json", exclude_defaults=True, by_alias=True)
    if swap.steps:
        row["steps"] = [_step_row(use) for use in swap.steps]
    if swap.changes:
        row["changes"] = [change_row(change) for change in swap.changes]
    return row


def change_row(change: Change) -> dict[str, Any]:
    """A change as the file has it; TOML has no word for nothing, which is what is left out."""
    row = change.model_dump(exclude_defaults=True, by_alias=True)
    return {
        key: row[key] for key in ("do", "at", "key", "to", "was", "like", "place", "part-of") if key in row
    }


def _step_row(use: StepUse) -> dict[str, Any]:
    values = {key: list(value) if isinstance(value, tuple) else value for key, value in use.values.items()}
    return {
        "do": use.do,
        **({} if use.on else {"on": False}),
        **({"auto": True} if use.auto else {}),
        **values,
    }


def _table(row: dict[str, Any]) -> Any:
    """A swap or event as TOML: settings within a line, a list of tables with a line for each."""
    table = tomlkit.table()
    for key, value in row.items():
        if isinstance(value, list) and value and isinstance(value[0], dict):
            lines = tomlkit.array()
            lines.multiline(True)
            for one in value:
                lines.append(_inline(one))
            table.add(key, lines)
        else:
            table.add(key, _inline(value) if isinstance(value, dict) else value)
    return table


def _inline(values: dict[str, Any]) -> Any:
    table = tomlkit.inline_table()
    for key, value in values.items():
        if value is not None:
            table.add(key, _within(value))
    return table


def _within(value: Any) -> Any:
    """A value inside a line."""
    if isinstance(value, dict):
        return _inline(value)
    if isinstance(value, list | tuple) and any(isinstance(part, dict | list) for part in value):
        row = tomlkit.array()
        for part in value:
            row.append(_within(part))
        return row
    return list(value) if isinstance(value, tuple) else value
