"""An edit of a mod: what it changes and nothing else, by address, so that it can be applied, taken back and merged.

Swaps are addressed by their original, their fields by name, changes of a definition by what they change, events by name, what
a mod says of itself by key. Two edits of different addresses never contradict each other.
"""

from __future__ import annotations

from collections.abc import Iterable, Iterator
from dataclasses import dataclass, replace
from typing import Any, TypeVar

from furnel.mods.project import About, EventUse, GameRef, Project, Swap
from furnel.texts import Change
from furnel.texts.patch import is_in

_WORKED_OUT = ("steps", "encode")  # what a job works out of a swap, and of which fields
_WORKED_FROM = ("source", "changes", "steps", "encode", "insist", "like")
Row = TypeVar("Row", Swap, EventUse, About)


@dataclass(frozen=True, slots=True)
class Applied:
    """A project with an edit in it. `conflicts` are the names of what somebody else changed as well: that stays as it was."""

    project: Project
    conflicts: tuple[str, ...] = ()


@dataclass(frozen=True, slots=True)
class Edit:
    """One change of a project: only what differs, before and after. `order` is that of the swaps, where it changed."""

    text: str
    swaps: tuple[tuple[str, Swap | None, Swap | None], ...] = ()
    order: tuple[tuple[str, ...], tuple[str, ...]] | None = None
    mod: tuple[About, About] | None = None
    game: tuple[GameRef, GameRef] | None = None
    events: tuple[tuple[str, EventUse | None, EventUse | None], ...] = ()

    @classmethod
    def between(cls, text: str, before: Project, after: Project) -> Edit:
        """What turns one project into another."""
        old = {swap.original: swap for swap in before.swaps}
        new = {swap.original: swap for swap in after.swaps}
        was = {use.name: use for use in before.events}
        now = {use.name: use for use in after.events}
        return cls(
            text,
            tuple((name, old.get(name), new.get(name)) for name in old | new if _other(old, new, name)),
            None if list(old) == list(new) else (tuple(old), tuple(new)),
            None if before.mod == after.mod else (before.mod, after.mod),
            None if before.game == after.game else (before.game, after.game),
            tuple((name, was.get(name), now.get(name)) for name in was | now if _other(was, now, name)),
        )

    def __bool__(self) -> bool:
        return bool(self.swaps or self.order or self.mod or self.game or self.events)

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

    def inverse(self) -> Edit:
        """The edit that takes this one back."""
        return replace(
            self,
            swaps=tuple((name, new, old) for name, old, new in self.swaps),
            order=self.order and self.order[::-1],
            mod=self.mod and self.mod[::-1],
            game=self.game and self.game[::-1],
            events=tuple((name, new, old) for name, old, new in self.events),
        )

    def onto(self, project: Project, forward: bool = True) -> Project | None:
        """The project with this change done (or taken back); None when it is not in the state that this needs."""
        edit = self if forward else self.inverse()
        swaps = {swap.original: swap for swap in project.swaps}
        events = {use.name: use for use in project.events}
        if not (_put(swaps, edit.swaps) and _put(events, edit.events)):
            return None
        if edit.order is not None:
            before, after = edit.order
            if tuple(swap.original for swap in project.swaps) != before or set(after) != set(swaps):
                return None
            swaps = {name: swaps[name] for name in after}
        update: dict[str, Any] = {"swaps": tuple(swaps.values()), "events": _ordered(project, events)}
        for key, pair in (("mod", edit.mod), ("game", edit.game)):
            if pair is not None:
                if getattr(project, key) != pair[0]:
                    return None
                update[key] = pair[1]
        return project.model_copy(update=update)

    def over(self, project: Project) -> Project:
        """The project with everything that this edit changed as it is after it, whatever the project has there."""
        swaps = {swap.original: swap for swap in project.swaps}
        for name, _, new in self.swaps:
            if new is None:
                swaps.pop(name, None)
            else:
                swaps[name] = new
        events = {use.name: use for use in project.events} | {
            name: use for name, _, use in self.events if use
        }
        for name in (name for name, _, use in self.events if use is None):
            events.pop(name, None)
        mod = project.mod
        if self.mod is not None:
            before, after = self.mod
            said = {
                key: getattr(after, key)
                for key in About.model_fields
                if getattr(after, key) != getattr(before, key)
            }
            mod = mod.model_copy(update=said)
        return project.model_copy(
            update={"mod": mod, "swaps": tuple(swaps.values()), "events": _ordered(project, events)}
            | ({"game": self.game[1]} if self.game is not None else {})
        )

    def apply(self, project: Project, worked_out: bool = True) -> Applied:
        """Bring this edit into a project that may have been changed since: by address, nothing of the others' is lost.

        Steps and encodings that a job worked out (`worked_out`) only go with the source, the steps, the encoding and the kept
        points that they were worked out from. What contradicts stays as the project has it, and is named.
        """
        conflicts: list[str] = []
        swaps = {swap.original: swap for swap in project.swaps}
        for name, old, new in self.swaps:
            here = swaps.get(name)
            if old is not None and new is not None and here is not None:
                joined = _joined_swap(old, new, here, worked_out)
            else:
                joined = new if here == old else here if here == new else _AT_ODDS
            if joined is _AT_ODDS:
                conflicts.append(name)
            elif joined is None:
                swaps.pop(name, None)
            else:
                swaps[name] = joined
        events = {use.name: use for use in project.events}
        for name, was, wanted in self.events:
            empty = EventUse(name=name)
            use = _joined(was or empty, wanted or empty, events.get(name, empty), EventUse.model_fields)
            if use is None:
                conflicts.append(name)
            elif use.empty:
                events.pop(name, None)
            else:
                events[name] = use
        if self.order is not None and not self.swaps and set(self.order[1]) == set(swaps):
            swaps = {name: swaps[name] for name in self.order[1]}
        mod, game = project.mod, project.game
        for key in About.model_fields if self.mod is not None else ():
            said = None if self.mod is None else _joined(*self.mod, mod, (key,))
            if said is None:
                conflicts.append(key.replace("_", "-"))
            else:
                mod = said
        if self.game is not None:
            if game in self.game:
                game = self.game[1]
            else:
                conflicts.append("game")
        fresh = project.model_copy(
            update={
                "mod": mod, "game": game, "swaps": tuple(swaps.values()), "events": _ordered(project, events),
            }
        )  # fmt: skip
        return Applied(_without_lost(project, fresh, self), tuple(conflicts))


class _AtOdds:
    """A swap that two edits want differently."""


_AT_ODDS: Any = _AtOdds()


def _other(old: dict[str, Row], new: dict[str, Row], name: str) -> bool:
    """Whether a row is another one; most are the very same, and that is told at once."""
    before, after = old.get(name), new.get(name)
    return before is not after and before != after


def _put(rows: dict[str, Row], wanted: Iterable[tuple[str, Row | None, Row | None]]) -> bool:
    """Put rows in the place of others; whether these were what they had to be."""
    for name, old, new in wanted:
        if rows.get(name) != old:
            return False
        if new is None:
            del rows[name]
        else:
            rows[name] = new
    return True


def _joined(old: Row, new: Row, here: Row, fields: Iterable[str]) -> Row | None:
    """`here` with the fields that `new` has other than `old`; None when one of them is another in `here` as well."""
    wanted = {name: getattr(new, name) for name in fields if getattr(new, name) != getattr(old, name)}
    for name, value in wanted.items():
        if getattr(here, name) not in (getattr(old, name), value):
            return None
    return here.model_copy(update=wanted)


def _joined_swap(old: Swap, new: Swap, here: Swap, worked_out: bool) -> Any:
    """`here` with what became of `old` in `new`, or _AT_ODDS."""
    changed = {name for name in Swap.model_fields if getattr(new, name) != getattr(old, name)}
    if (
        worked_out
        and changed.intersection(_WORKED_OUT)
        and any(getattr(here, name) != getattr(old, name) for name in _WORKED_FROM)
    ):
        return _AT_ODDS
    if "changes" in changed:
        changes = _joined_changes(old.changes, new.changes, here.changes)
        if changes is None or (here.source, here.steps, here.encode) != (old.source, old.steps, old.encode):
            return _AT_ODDS
        here = here.model_copy(update={"changes": changes})
        old = old.model_copy(update={"changes": new.changes})
    if here.credit != old.credit:  # it was said meanwhile
        new = new.model_copy(update={"credit": old.credit})
    joined = _joined(old, new, here, Swap.model_fields)
    return _AT_ODDS if joined is None else joined


def _joined_changes(
    old: tuple[Change, ...], new: tuple[Change, ...], here: tuple[Change, ...]
) -> tuple[Change, ...] | None:
    """Changes of a definition with what another edit made of `old`; None when both changed the same, or one in the other."""
    if here in (old, new):
        return new
    mine = [change for change in new if change not in old]
    gone = [change for change in old if change not in new]
    theirs = [change.target for change in (*here, *old) if (change in here) != (change in old)]
    touched = [change.target for change in (*mine, *gone)]
    if any(is_in(one, other) or is_in(other, one) for one in touched for other in theirs):
        return None
    return (*(change for change in here if change not in gone), *mine)


def _ordered(project: Project, events: dict[str, EventUse]) -> tuple[EventUse, ...]:
    """Events by name, unless a person wrote them in another order."""
    names = [use.name for use in project.events]
    rows = tuple(events.values())
    return tuple(sorted(rows, key=lambda use: use.name)) if names == sorted(names) else rows


def _without_lost(before: Project, after: Project, edit: Edit) -> Project:
    """The project with no event that plays a sound that the edit took out of the mod."""
    lost = {
        name for name, old, new in edit.swaps if new is None and old is not None and old.like and not after.swap_for(name)
    }  # fmt: skip
    if not lost:
        return after
    return after.model_copy(update={"events": tuple(_playing(after.events, lost))})


def _playing(events: tuple[EventUse, ...], lost: set[str]) -> Iterator[EventUse]:
    for use in events:
        kept = use.model_copy(update={"sounds": tuple(path for path in use.sounds if path not in lost)})
        if not kept.empty:
            yield kept
