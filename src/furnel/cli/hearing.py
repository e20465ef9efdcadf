"""`furnel level` and what `furnel mod` does with events and tunes."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import click

from furnel.cli.output import Bar, echo, say_json, say_rows
from furnel.errors import FurnelError
from furnel.mods.events import fill_event, mod_events, set_event
from furnel.mods.levelling import level_folder
from furnel.mods.tunes import forecast, read_songs, tunes_of
from furnel.mods.workspace import Workspace
from furnel.sound.words import length_text, loudness_text


@click.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option(
    "--out", "target", type=click.Path(path_type=Path), required=True, help="The folder to write to."
)
@click.option(
    "--to", "loudness", type=click.FloatRange(-70, 0), help="LUFS; without it the middle one of the folder."
)
@click.option(
    "--ceiling", type=click.FloatRange(-24, 0), default=-1.0, help="No true peak above this, in dBTP."
)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def level(folder: Path, target: Path, loudness: float | None, ceiling: float, as_json: bool) -> int:
    """Bring all sounds below FOLDER to one loudness, each written as the kind of file that it is."""
    done = level_folder(folder, target, loudness, ceiling, Bar())
    if as_json:
        say_json(done)
    else:
        say_rows([(one.file, loudness_text(one.before), loudness_text(one.after), one.said) for one in done])
    return 0


def say_events(space: Workspace, as_json: bool) -> None:
    """The events of an open mod, one a line."""
    events = mod_events(space)
    if as_json:
        say_json(list(events.values()))
        return
    rows = [
        (name, f"{len(event.sounds)} sounds", f"volume {event.volume}", f"fades from {event.fade_from}",
         f"silent at {event.silent_at}",
         "changed" if space.project.event_for(name) else "")
        for name, event in events.items()
    ]  # fmt: skip
    say_rows(rows)


def change_event(
    space: Workspace,
    name: str,
    files: tuple[Path, ...],
    volume: float | None,
    fade_from: float | None,
    silent_at: float | None,
) -> Workspace:
    """Fill an event from files, and set what is given of its volume and distances; the mod as it is then."""
    game = space.demands.events.get(name)
    if game is None:
        raise FurnelError(
            "Changing an event",
            where=name,
            why="the game has no such event",
            remedy="List them with: furnel mod events",
        )
    if files:
        space = space.save(fill_event(space, name, files, Bar()), f"Fill {name}")
    event = mod_events(space)[name]
    event = replace(
        event,
        volume=event.volume if volume is None else volume,
        fade_from=event.fade_from if fade_from is None else fade_from,
        silent_at=event.silent_at if silent_at is None else silent_at,
    )
    if event.fade_from is not None and event.silent_at is not None and event.fade_from >= event.silent_at:
        raise FurnelError(
            "Changing an event", where=name,
            why=f"it would fade from {event.fade_from:g} on and be silent at {event.silent_at:g}",
            remedy="Let it fall silent farther away than where it begins to fade",
        )  # fmt: skip
    return space.save(set_event(space.project, game, event), f"Change {name}")


def lay_album(space: Workspace, files: tuple[Path, ...], plan: bool, as_json: bool) -> int:
    """Say what songs would become in the tunes' places, in order; unless only a `plan` is wanted, swap them in."""
    tunes = tunes_of(space, Bar())
    if not files:
        say_rows([
            (tune.path, length_text(tune.spec.length_s), f"{tune.spec.rhythm.tempo:g} bpm" if tune.spec.rhythm else "no beat",
             loudness_text(tune.spec.loudness), "swapped" if space.project.swap_for(tune.path) else "")
            for tune in tunes
        ])  # fmt: skip
        return 0
    album = read_songs(files, Bar())
    pairs = [(tune, song, forecast(tune, song)) for tune, song in zip(tunes, album, strict=False)]
    rows = [(tune.path, song.file.name, found.outlook, found.says) for tune, song, found in pairs]
    if as_json:
        say_json([dict(zip(("tune", "song", "outlook", "says"), row, strict=True)) for row in rows])
    else:
        say_rows(rows)
    for extra in files[len(tunes) :]:
        echo(f"- {extra.name} is one song more than there are tunes")
    if not plan:
        for tune, song, _ in pairs:
            if song.spec is not None:
                space = space.save(
                    space.project.with_swap(space.fitted(space.new_swap(tune.path, song.file))),
                    f"Swap {tune.path}",
                )
    return 1 if any(found.outlook == "breaks" for _, _, found in pairs) else 0
