"""Sound events in a definition: which sounds a game plays for what, how loud and how far they are heard."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from furnel.errors import FurnelError
from furnel.texts.address import Step
from furnel.texts.document import Document, Value
from furnel.texts.documents import document_of

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
    """The events of a definition, by name. Raises FurnelError when it is not one."""
    out = {}
    for name, raw in _document(data, where).plain().items():
        if isinstance(raw, dict) and isinstance(raw.get(keys.sounds), list):
            sounds = tuple(str(path) for path in raw[keys.sounds])
            numbers = (_number(raw, key) for key in (keys.volume, keys.fade_from, keys.silent_at))
            out[name] = SoundEvent(name, sounds, *numbers)
    return out


def with_events(data: bytes, keys: EventKeys, events: Sequence[SoundEvent], where: str) -> bytes:
    """The definition with these events changed, or added; everything else stays to the byte."""
    document = _document(data, where)
    for event in events:
        told = {
            keys.volume: event.volume, keys.fade_from: event.fade_from, keys.silent_at: event.silent_at,
        }  # fmt: skip
        wanted: dict[str, Value] = {keys.sounds: list(event.sounds)}
        wanted |= {key: value for key, value in told.items() if key and value is not None}
        at = (Step(event.name),)
        old = document.look(at) if document.has(at) else {}
        if not isinstance(old, dict):
            raise FurnelError(
                WHAT, where=f"{where}, {event.name}", why="it is no event: it has no keys of its own"
            )
        fresh = {
            key: _spelled(value, old.get(key, 0)) for key, value in wanted.items() if value != old.get(key)
        }
        if not document.has(at):
            document = document.add((), event.name, fresh)
            continue
        for key, value in fresh.items():
            inside = (*at, Step(key))
            document = document.set(inside, value) if key in old else document.add(at, key, value)
    return document.data


def _spelled(value: Value, like: Value) -> Value:
    """A whole number where one stood."""
    return int(value) if isinstance(value, float) and value.is_integer() and isinstance(like, int) else value


def _document(data: bytes, where: str) -> Document:
    document = document_of(data, where)
    if not document.is_typed or not isinstance(document.plain(), dict):
        raise FurnelError(
            WHAT, where=where, why="it has no events by name", remedy="Correct the game's profile"
        )
    return document


def _number(raw: dict[str, Any], key: str) -> float | None:
    value = raw.get(key) if key else None
    if not isinstance(value, int | float) or isinstance(value, bool):
        return None
    return float(value) if abs(value) < _MOST else None  # neither endless nor no number
