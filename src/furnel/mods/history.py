"""What was changed in a mod, so that it can be taken back and done again, also after the program was killed.

Kept beside the user's state, one line a change, appended and flushed to disk before the project itself is written.
"""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import tomllib
from dataclasses import replace
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from furnel.atomic import write_text
from furnel.folders import state_folder
from furnel.mods.edit import Edit
from furnel.mods.past import Past
from furnel.mods.project import About, EventUse, GameRef, Project, Swap


def history_file(project: Path) -> Path:
    """Where the history of a project is kept."""
    name = hashlib.sha256(str(project.resolve()).encode()).hexdigest()[:24]
    return state_folder() / "histories" / f"{name}.jsonl"


def note_edit(file: Path, edit: Edit) -> None:
    """Append a change to a history."""
    _append(file, {"edit": _dumped(edit)})


def note_place(file: Path, place: int) -> None:
    """Append how many of the changes are in force now."""
    _append(file, {"place": place})


def read_history(file: Path, project: Project) -> Past[Edit]:
    """The history that leads to a project as it is; an empty one when the project was changed by other means.

    What was noted last may not have reached the project's file: then the place that fits is taken.
    """
    past: Past[Edit] = Past()
    for row in _rows(file):
        if isinstance(row, Edit):
            if past.last is None or replace(past.last, text=row.text) != row:  # what two programs noted
                past.push(row)
        elif 0 <= row <= len(past.changes):
            past.place = row
    noted = past.place
    for place in sorted(range(len(past.changes) + 1), key=lambda place: abs(place - noted)):
        past.place = place
        last, after = past.last, past.next
        if (last is None or last.onto(project, forward=False) is not None) and (
            after is None or after.onto(project) is not None
        ):
            break
    else:
        past.clear()
    with contextlib.suppress(OSError):
        _write(file, past)
    return past


def _write(file: Path, past: Past[Edit]) -> None:
    if not past.changes:
        file.unlink(missing_ok=True)
        return
    rows = [{"edit": _dumped(edit)} for edit in past.changes]
    lines = [*map(_line, rows), _line({"place": past.place})]
    write_text(file, "\n".join(lines) + "\n")


def _append(file: Path, row: dict[str, Any]) -> None:
    file.parent.mkdir(parents=True, exist_ok=True)
    with file.open("a", encoding="utf-8") as stream:
        stream.write(_line(row) + "\n")
        stream.flush()
        os.fsync(stream.fileno())


def _rows(file: Path) -> list[Edit | int]:
    """Changes, and how many of them were in force from then on, as far as the file is whole."""
    try:
        lines = file.read_text("utf-8").splitlines()
    except (OSError, UnicodeDecodeError):
        return []
    out: list[Edit | int] = []
    for line in lines:
        try:
            row = json.loads(line, object_hook=_dated)
            out.append(_loaded(row["edit"]) if "edit" in row else int(row["place"]))
        except (ValueError, TypeError, KeyError, ValidationError):  # cut off when the program was killed
            break
    return out


_DATE = "a date or time"  # the one key of what stands for one: JSON has none


def _line(row: dict[str, Any]) -> str:
    return json.dumps(row, default=lambda value: {_DATE: value.isoformat()})


def _dated(table: dict[str, Any]) -> Any:
    return tomllib.loads(f"v = {table[_DATE]}")["v"] if table.keys() == {_DATE} else table


def _dumped(edit: Edit) -> dict[str, Any]:
    def plain(value: Any) -> Any:
        if isinstance(value, Swap | About | GameRef | EventUse):
            return value.model_dump(exclude_defaults=True)
        return [plain(part) for part in value] if isinstance(value, tuple) else value

    return {name: plain(value) for name in Edit.__slots__ if (value := getattr(edit, name)) not in (None, ())}


def _loaded(row: dict[str, Any]) -> Edit:
    def swap(value: Any) -> Swap | None:
        return None if value is None else Swap.model_validate(value)

    def event(value: Any) -> EventUse | None:
        return None if value is None else EventUse.model_validate(value)

    def pair(name: str, load: Any) -> Any:
        return (load(row[name][0]), load(row[name][1])) if name in row else None

    return Edit(
        str(row["text"]),
        tuple((str(name), swap(old), swap(new)) for name, old, new in row.get("swaps", [])),
        pair("order", tuple),
        pair("mod", About.model_validate),
        pair("game", GameRef.model_validate),
        tuple((str(name), event(old), event(new)) for name, old, new in _by_name(row.get("events", []))),
    )


def _by_name(events: list[Any]) -> list[Any]:
    """Events as they are noted now; before, all were noted as they had been and as they became."""
    if not (len(events) == 2 and all(isinstance(part, dict) for side in events for part in side)):
        return events
    was, now = ({use["name"]: use for use in side} for side in events)
    return [(name, was.get(name), now.get(name)) for name in was | now if was.get(name) != now.get(name)]
