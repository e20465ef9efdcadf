"""Sound events of an open mod: what the game says of them, what the mod changes, and filling them from files."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from furnel.errors import FurnelError
from furnel.mods.project import EventUse, Project, StepUse
from furnel.mods.steps import step_type
from furnel.progress import QUIET, Progress, check
from furnel.texts import SoundEvent, with_events

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

WHAT = "Filling an event"


def changed(event: SoundEvent, use: EventUse) -> SoundEvent:
    """An event with what a mod says of it."""
    return SoundEvent(
        event.name,
        use.sounds or event.sounds,
        event.volume if use.volume is None else use.volume,
        event.fade_from if use.fade_from is None else use.fade_from,
        event.silent_at if use.silent_at is None else use.silent_at,
    )


def mod_events(space: Workspace) -> dict[str, SoundEvent]:
    """The events as the mod makes them."""
    out = dict(space.demands.events)
    for use in space.project.events:
        if use.name in out:
            out[use.name] = changed(out[use.name], use)
    return out


def event_of(space: Workspace, path: str) -> SoundEvent | None:
    """The event that plays a sound, as the mod makes it."""
    for event in mod_events(space).values():
        if path in event.sounds:
            return event
    for event in space.demands.events.values():
        if path in event.sounds:
            return mod_events(space)[event.name]
    return None


def lost_sounds(space: Workspace, project: Project) -> dict[str, list[str]]:
    """By event: sounds that it plays and that neither the game nor the mod has."""
    ours = {swap.original for swap in project.swaps}
    out = {}
    for use in project.events:
        lost = [path for path in use.sounds if path not in ours and not space.catalogue.has(path)]
        if lost:
            out[use.name] = lost
    return out


def event_definition(space: Workspace, base: bytes) -> bytes:
    """The definition of events as the mod makes it, from `base`. Raises FurnelError when an event plays what is nowhere."""
    rule = space.profile.events
    assert rule is not None
    for name, lost in lost_sounds(space, space.project).items():
        raise FurnelError(
            "Building the mod", where=name, why=f"it plays {', '.join(lost)}, and neither the game nor the mod has that",
            remedy="Take it out of the event, or swap it in",
        )  # fmt: skip
    events = mod_events(space)
    used = [events[use.name] for use in space.project.events if use.name in events]
    return with_events(base, rule.keys, used, rule.file)


def set_event(project: Project, game: SoundEvent, event: SoundEvent) -> Project:
    """The project with an event like `event`; what is as in the game is not noted."""
    use = EventUse(
        name=event.name,
        sounds=event.sounds if event.sounds != game.sounds else (),
        volume=event.volume if event.volume != game.volume else None,
        fade_from=event.fade_from if event.fade_from != game.fade_from else None,
        silent_at=event.silent_at if event.silent_at != game.silent_at else None,
    )
    return project.with_event(use)


def fill_event(space: Workspace, name: str, files: Sequence[Path], progress: Progress = QUIET) -> Project:
    """The project with an event's sounds made from files: one each, fewer or more than the game has where that is allowed.

    All are brought to the loudness that the event's sounds have in the game, so that none stands out. Raises FurnelError for
    an unknown event, for too few or too many files, and for a file that is no sound.
    """
    rule, game = space.profile.events, space.demands.events.get(name)
    if rule is None or game is None:
        raise FurnelError(
            WHAT,
            where=name,
            why="the game has no such event",
            remedy=f"It has {', '.join(space.demands.events)}",
        )
    most = rule.most if rule.new_sound else len(game.sounds)
    if not rule.least <= len(files) <= (most or len(files)):
        allowed = f"{rule.least} to {most}" if most else f"at least {rule.least}"
        raise FurnelError(
            WHAT,
            where=name,
            why=f"{len(files)} files for {allowed} sounds",
            remedy="Drop another number of files",
        )
    project = space.project.without_added(name, set(game.sounds))
    paths = [*game.sounds[: len(files)]]
    paths += _new_paths(space, project, len(files) - len(paths))
    heard = space.demands.loudness(game.sounds)
    target = round(heard[len(heard) // 2], 1) if heard else None
    for number, (path, file) in enumerate(zip(paths, files, strict=True)):
        check(progress, WHAT)
        progress.report(number / len(files), f"Matching {file.name}")
        like = "" if space.catalogue.has(path) else game.sounds[number % len(game.sounds)]
        old = project.swap_for(path)
        swap = space.fitted(space.new_swap(path, file, like))
        swap = swap.model_copy(
            update={"steps": _at_loudness(swap.steps, target), "credit": old.credit if old else ""}
        )
        project = project.with_swap(swap)
    for left in game.sounds[len(files) :]:  # what the event does not play any more needs no swap
        project = project.without_swap(left)
    wanted = replace(mod_events(space)[name], sounds=tuple(paths))
    return set_event(project, game, wanted)


def _at_loudness(steps: tuple[StepUse, ...], target: float | None) -> tuple[StepUse, ...]:
    if target is None:
        return steps
    return tuple(
        use.model_copy(update={"values": {**use.values, "target": target}, "auto": False})
        if step_type(use.do).is_last
        else use
        for use in steps
    )


def _new_paths(space: Workspace, project: Project, count: int) -> list[str]:
    """Inner paths for sounds that the game does not have, numbered on from those that are taken."""
    rule = space.profile.events
    assert rule is not None
    taken = {swap.original for swap in project.swaps}
    out: list[str] = []
    number = 0
    while len(out) < count:
        path = rule.new_sound.format(number=number)
        if not space.catalogue.has(path) and path not in taken:
            out.append(path)
        number += 1
    return out
