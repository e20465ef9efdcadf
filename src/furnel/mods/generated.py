"""Files that a mod needs beside its swaps' results, or in their place: loop records, events, tables in parts."""

from __future__ import annotations

import hashlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass

from furnel.media import SoundSpec
from furnel.mods.events import event_definition
from furnel.mods.workspace import Examined, Workspace
from furnel.texts import changed_part, document_of


@dataclass(frozen=True, slots=True)
class Companion:
    """A file that goes into the build because of something else in it: its inner path, a key that is another when its content
    is, and how it is made."""

    path: str
    key: str
    make: Callable[[], bytes]


def companions(space: Workspace, examined: Sequence[Examined]) -> list[Companion]:
    """What has to go with some swaps. Nothing is read or made yet.

    A definition that the mod swaps, too, is changed on top of that swap.
    """
    swapped = {item.swap.original: item for item in examined if item.size}
    out = [
        one for item in examined if (one := _loop_record(space, item)) is not None and one.path not in swapped
    ]
    out += [one for item in swapped.values() if (one := _part_of(space, item)) is not None]
    rule = space.profile.events
    if rule is not None and space.project.events and space.catalogue.has(rule.file):
        own = swapped.get(rule.file)
        key = _key(space.project.events, own.key if own is not None else "")
        out = [one for one in out if one.path != rule.file]
        out.append(Companion(rule.file, key, lambda: _definition(space, rule.file, own)))
    return out


def _part_of(space: Workspace, item: Examined) -> Companion | None:
    """Only the changed records of a definition, for a game that lays them over its own."""
    swap, role = item.swap, space.profile.role_of(item.swap.base)
    if role is None or not role.partial or not swap.changes or swap.like:
        return None

    def make() -> bytes:
        game = document_of(space.catalogue.bytes_of(swap.base), swap.base)
        part = changed_part(game, document_of(item.data, swap.base))
        return item.data if part is None else part.data

    return Companion(swap.original, _key(item.key, "part"), make)


def _definition(space: Workspace, path: str, own: Examined | None) -> bytes:
    base = own.data if own is not None else space.catalogue.bytes_of(path)
    return event_definition(space, base)


def _loop_record(space: Workspace, item: Examined) -> Companion | None:
    """The record of a tune that loops somewhere else than the original."""
    original, result = item.original, item.result
    if not isinstance(original, SoundSpec) or not isinstance(result, SoundSpec) or result.loop is None:
        return None
    known = space.demands.loop_record(item.swap.base)
    if known is None:
        return None
    record, shipped_at = known
    is_new = bool(item.swap.like)
    where = record.of(item.swap.original) if is_new else shipped_at
    start, end = result.loop
    tempo = round(result.rhythm.tempo, 2) if result.rhythm is not None else None
    was = original.told_tempo
    other_tempo = tempo is not None and was is not None and abs(tempo - was) > 0.5
    if not is_new and result.loop == original.loop and result.rate == original.rate and not other_tempo:
        return None

    def make() -> bytes:
        shipped = space.catalogue.bytes_of(shipped_at)
        return record.write(shipped, start, end, result.rate, where, tempo)

    return Companion(where, _key(result.loop, result.rate, tempo), make)


def _key(*parts: object) -> str:
    return hashlib.sha256(repr(parts).encode()).hexdigest()
