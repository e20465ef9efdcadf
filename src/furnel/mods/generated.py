"""Files that a mod needs beside its swaps' results: loop records of tunes, definitions of events."""

from __future__ import annotations

from collections.abc import Sequence

from furnel.mods.events import event_definition
from furnel.mods.soundspec import SoundSpec
from furnel.mods.workspace import Examined, Workspace


def generated_files(space: Workspace, examined: Sequence[Examined]) -> dict[str, bytes]:
    """By inner path: what goes into the build because of something else in it. Raises FurnelError when it cannot be made.

    A definition that the mod swaps, too, is changed on top of that swap.
    """
    out: dict[str, bytes] = {}
    swapped = {item.swap.original: item.data for item in examined if item.data}
    for item in examined:
        found = _loop_record(space, item)
        if found is not None and found[0] not in swapped:
            out[found[0]] = found[1]
    rule = space.profile.events
    if rule is not None and space.project.events and space.catalogue.has(rule.file):
        base = swapped.get(rule.file) or space.catalogue.read(space.catalogue.get(rule.file))
        out[rule.file] = event_definition(space, base)
    return out


def _loop_record(space: Workspace, item: Examined) -> tuple[str, bytes] | None:
    """The record of a tune that loops somewhere else than the original, with its inner path."""
    original, result = item.original, item.result
    if not isinstance(original, SoundSpec) or not isinstance(result, SoundSpec) or result.loop is None:
        return None
    known = space.demands.loop_record(item.swap.base)
    if known is None or (result.loop == original.loop and result.rate == original.rate):
        return None
    record, where = known
    shipped = space.catalogue.read(space.catalogue.get(where))
    return where, record.write(shipped, *result.loop, result.rate, where)
