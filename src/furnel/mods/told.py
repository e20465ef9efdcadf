"""What an edit changed, line by line, in words."""

from __future__ import annotations

from collections.abc import Iterator

from furnel.mods.edit import Edit
from furnel.mods.project import StepUse, Swap
from furnel.mods.steps import step_type
from furnel.texts import Change
from furnel.words import count

_MOST = 12  # values of a definition that are told one by one


def told(edit: Edit) -> list[tuple[str, str]]:
    """Of each thing that an edit changed the original it is about (nothing for the whole mod), and what became of it."""
    lines = [(name, line) for name, old, new in edit.swaps for line in _swap(old, new)]
    if edit.order is not None and not edit.swaps:
        lines.append(("", "the order of the swaps"))
    if edit.mod is not None:
        before, after = (about.model_dump() for about in edit.mod)
        lines += [
            ("", f"{key}: {_short(before[key])} → {_short(after[key])}")
            for key in after
            if before[key] != after[key]
        ]
    if edit.game is not None:
        lines.append(("", f"the game: {edit.game[0].folder} → {edit.game[1].folder}"))
    lines += [
        ("", f"event {name}: other settings") for name, *_ in sorted(edit.events, key=lambda row: row[0])
    ]
    return lines


def _swap(old: Swap | None, new: Swap | None) -> Iterator[str]:
    if new is None:
        yield "no longer swapped"
    elif old is None:
        yield from _values((), new.changes) if new.changes else (f"swapped for {new.made_from}",)
    else:
        if old.source != new.source:
            yield f"source: {old.made_from} → {new.made_from}"
        if old.steps != new.steps:
            yield (
                f"steps: {_steps(old.steps)} → {_steps(new.steps)}"
                if _titles(old) != _titles(new)
                else "a step's settings"
            )
        if old.encode != new.encode:
            yield "how it is encoded"
        if old.insist != new.insist:
            yield f"kept as it is: {', '.join(new.insist) or 'nothing'}"
        if old.credit != new.credit:
            yield f"credit: {_short(old.credit)} → {_short(new.credit)}"
        yield from _values(old.changes, new.changes)


def _values(old: tuple[Change, ...], new: tuple[Change, ...]) -> Iterator[str]:
    lines = [_value(change) for change in new if change not in old]
    kept = {change.at for change in new}
    lines += [f"{change.at}: the game's own again" for change in old if change.at not in kept]
    yield from lines[:_MOST]
    if len(lines) > _MOST:
        yield f"and {count(len(lines) - _MOST, 'more value')}"


def _value(change: Change) -> str:
    verb = {
        "add": f"{change.key} is new",
        "drop": "taken out",
        "rename": f"called {change.key}",
        "move": "moved",
    }
    return f"{change.at}: {_short(change.to) if change.do == 'set' else verb[change.do]}"


def _titles(swap: Swap) -> list[str]:
    return [_title(use) for use in swap.steps]


def _title(use: StepUse) -> str:
    return step_type(use.do).title + ("" if use.on else " (off)")


def _steps(uses: tuple[StepUse, ...]) -> str:
    return ", ".join(map(_title, uses)) or "none"


def _short(value: object) -> str:
    text = str(value)
    return f"“{text[:60]}…”" if len(text) > 60 else f"“{text}”" if isinstance(value, str) else text
