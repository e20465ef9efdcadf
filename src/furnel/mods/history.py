"""What was changed in a mod, so that it can be taken back and done again, also after the program was killed.

Kept beside the user's state, one line a change, appended and flushed to disk before the project itself is written.
"""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from pydantic import ValidationError

from furnel.atomic import write_text
from furnel.folders import state_folder
from furnel.mods.past import Past
from furnel.mods.project import About, EventUse, GameRef, Project, Swap


def _other(old: dict[str, Swap], new: dict[str, Swap], name: str) -> bool:
    """Whether a swap is another one; most are the very same, and that is told at once."""
    before, after = old.get(name), new.get(name)
    return before is not after and before != after


@dataclass(frozen=True, slots=True)
class Edit:
    """One change of a project: only what differs, before and after. `order` is that of the swaps, where it changed."""

    text: str
    swaps: tuple[tuple[str, Swap | None, Swap | None], ...] = ()
    order: tuple[tuple[str, ...], tuple[str, ...]] | None = None
    mod: tuple[About, About] | None = None
    game: tuple[GameRef, GameRef] | None = None
    events: tuple[tuple[EventUse, ...], tuple[EventUse, ...]] | None = None

    @classmethod
    def between(cls, text: str, before: Project, after: Project) -> Edit:
        """What turns one project into another."""
        old = {swap.original: swap for swap in before.swaps}
        new = {swap.original: swap for swap in after.swaps}
        return cls(
            text,
            tuple((name, old.get(name), new.get(name)) for name in old | new if _other(old, new, name)),
            None if list(old) == list(new) else (tuple(old), tuple(new)),
            None if before.mod == after.mod else (before.mod, after.mod),
            None if before.game == after.game else (before.game, after.game),
            None if before.events == after.events else (before.events, after.events),
        )

    @property
    def about(self) -> str:
        """The original that it is about, when it is about one."""
        return self.swaps[0][0] if self.swaps else ""

    @property
    def only_said(self) -> bool:
        """Whether nothing but what the mod says of itself and of its sources is another."""
        return not (self.order or self.game or self.events) and all(
            one is not None and other is not None and one.model_copy(update={"credit": other.credit}) == other
            for _, one, other in self.swaps
        )

    def onto(self, project: Project, forward: bool = True) -> Project | None:
        """The project with this change done (or taken back); None when it is not in the state that this needs."""
        here, there = (0, 1) if forward else (1, 0)
        swaps = {swap.original: swap for swap in project.swaps}
        for name, *states in self.swaps:
            if swaps.get(name) != states[here]:
                return None
            wanted = states[there]
            if wanted is None:
                del swaps[name]
            else:
                swaps[name] = wanted
        if self.order is not None:
            if tuple(swap.original for swap in project.swaps) != self.order[here] or set(
                self.order[there]
            ) != set(swaps):
                return None
            swaps = {name: swaps[name] for name in self.order[there]}
        update: dict[str, Any] = {"swaps": tuple(swaps.values())}
        for key, pair in (("mod", self.mod), ("game", self.game), ("events", self.events)):
            if pair is not None:
                if getattr(project, key) != pair[here]:
                    return None
                update[key] = pair[there]
        return project.model_copy(update=update)


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
    lines = [json.dumps(row) for row in [*rows, {"place": past.place}]]
    write_text(file, "\n".join(lines) + "\n")


def _append(file: Path, row: dict[str, Any]) -> None:
    file.parent.mkdir(parents=True, exist_ok=True)
    with file.open("a", encoding="utf-8") as stream:
        stream.write(json.dumps(row) + "\n")
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
            row = json.loads(line)
            out.append(_loaded(row["edit"]) if "edit" in row else int(row["place"]))
        except (ValueError, TypeError, KeyError, ValidationError):  # cut off when the program was killed
            break
    return out


def _dumped(edit: Edit) -> dict[str, Any]:
    def plain(value: Any) -> Any:
        if isinstance(value, Swap | About | GameRef | EventUse):
            return value.model_dump(exclude_defaults=True)
        return [plain(part) for part in value] if isinstance(value, tuple) else value

    return {name: plain(value) for name in Edit.__slots__ if (value := getattr(edit, name)) not in (None, ())}


def _loaded(row: dict[str, Any]) -> Edit:
    def swap(value: Any) -> Swap | None:
        return None if value is None else Swap.model_validate(value)

    def pair(name: str, load: Any) -> Any:
        return (load(row[name][0]), load(row[name][1])) if name in row else None

    return Edit(
        str(row["text"]),
        tuple((str(name), swap(old), swap(new)) for name, old, new in row.get("swaps", [])),
        pair("order", tuple),
        pair("mod", About.model_validate),
        pair("game", GameRef.model_validate),
        pair("events", lambda uses: tuple(EventUse.model_validate(use) for use in uses)),
    )
