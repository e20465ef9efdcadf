"""Sound events in a definition: which sounds a game plays for what, how loud and how far they are heard."""

from __future__ import annotations

import json
import re
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from furnel.errors import FurnelError
from furnel.texts.definition import format_of, read_text

WHAT = "Reading sound events"
_MOST = 1e30


@dataclass(frozen=True, slots=True)
class EventKeys:
    """What a game calls the parts of an event: its list of sounds, its volume, where it begins to fade, where it is silent."""

    sounds: str = "sounds"
    volume: str = ""
    fade_from: str = ""
    silent_at: str = ""


@dataclass(frozen=True, slots=True)
class SoundEvent:
    """An event: the inner paths of its variations, its volume (an amplitude), and distances in the game's unit.

    Up to `fade_from` it is heard in full, from `silent_at` on not at all; None where the game does not say.
    """

    name: str
    sounds: tuple[str, ...]
    volume: float | None = None
    fade_from: float | None = None
    silent_at: float | None = None

    def gain_at(self, distance: float) -> float:
        """How loud it is for a listener at a distance, as an amplitude."""
        volume = 1.0 if self.volume is None else self.volume
        if self.silent_at is None:
            return volume
        start = self.fade_from or 0.0
        if distance >= self.silent_at:
            return 0.0
        return volume * min((self.silent_at - distance) / max(self.silent_at - start, 1e-9), 1.0)


def read_events(data: bytes, keys: EventKeys, where: str) -> dict[str, SoundEvent]:
    """The events of a JSON definition, by name. Raises FurnelError when it is not one."""
    out = {}
    for name, raw in _tree(data, where).items():
        if isinstance(raw, dict) and isinstance(raw.get(keys.sounds), list):
            sounds = tuple(str(path) for path in raw[keys.sounds])
            numbers = (_number(raw, key) for key in (keys.volume, keys.fade_from, keys.silent_at))
            out[name] = SoundEvent(name, sounds, *numbers)
    return out


def with_events(data: bytes, keys: EventKeys, events: Sequence[SoundEvent], where: str) -> bytes:
    """The definition with these events changed, or added; everything else stays, indented as it was."""
    tree = _tree(data, where)
    for event in events:
        raw = tree.setdefault(event.name, {})
        if not isinstance(raw, dict):
            raise FurnelError(
                WHAT, where=f"{where}, {event.name}", why="it is no event: it has no keys of its own"
            )
        raw[keys.sounds] = list(event.sounds)
        told = (
            (keys.volume, event.volume),
            (keys.fade_from, event.fade_from),
            (keys.silent_at, event.silent_at),
        )
        for key, value in told:
            if key and value is not None and value != raw.get(key):
                raw[key] = (
                    int(value) if float(value).is_integer() and isinstance(raw.get(key, 0), int) else value
                )
    indent = re.search(rb"\n([ \t]+)\S", data)
    text = json.dumps(tree, indent=indent.group(1).decode() if indent else None, ensure_ascii=False)
    return text.encode() + (b"\n" if data.endswith(b"\n") else b"")


def _tree(data: bytes, where: str) -> dict[str, Any]:
    if format_of(where) != "JSON":
        raise FurnelError(WHAT, where=where, why="only JSON definitions can hold sound events")
    try:
        tree = json.loads(read_text(data, where))
    except (ValueError, RecursionError) as error:
        raise FurnelError(
            WHAT, where=where, why=str(error), remedy="Correct it in your text editor"
        ) from error
    if not isinstance(tree, dict):
        raise FurnelError(WHAT, where=where, why="it has no events by name")
    return tree


def _number(raw: dict[str, Any], key: str) -> float | None:
    value = raw.get(key) if key else None
    if not isinstance(value, int | float) or isinstance(value, bool):
        return None
    return float(value) if abs(value) < _MOST else None  # neither endless nor no number
