"""`furnel level` and what `furnel mod` does with events and tunes."""

from __future__ import annotations

import math
from concurrent.futures import ThreadPoolExecutor
from dataclasses import replace
from pathlib import Path

import click

from furnel import sound
from furnel.atomic import write_bytes
from furnel.cli.output import Bar, say_json, say_rows
from furnel.errors import FurnelError
from furnel.mods.events import fill_event, mod_events, set_event
from furnel.mods.project import StepUse
from furnel.mods.render import apply_steps, read_source
from furnel.mods.tunes import forecasts, tunes_of
from furnel.mods.workspace import Workspace
from furnel.parallel import cores
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
    files = sorted(file for file in folder.rglob("*") if file.suffix.lower() in sound.SUFFIXES)
    if not files:
        raise FurnelError(
            "Levelling", where=folder, why="there is no sound in it", remedy="Choose another folder"
        )
    if target.resolve() == folder.resolve():
        raise FurnelError(
            "Levelling", where=target, why="the sources are there", remedy="Choose another folder for --out"
        )
    with ThreadPoolExecutor(max_workers=cores()) as pool:
        before = list(pool.map(_loudness, files))
        heard = sorted(value for value in before if math.isfinite(value))
        wanted = loudness if loudness is not None else round(heard[len(heard) // 2], 1) if heard else -20.0
        jobs = [
            pool.submit(_levelled, file, target / file.relative_to(folder), wanted, ceiling) for file in files
        ]
        rows = [
            (file.relative_to(folder), loudness_text(was), *job.result())
            for file, was, job in zip(files, before, jobs, strict=True)
        ]
    if as_json:
        say_json(
            [{"file": str(name), "before": was, "after": now, "said": said} for name, was, now, said in rows]
        )
    else:
        say_rows(rows)
    return 0


def _loudness(file: Path) -> float:
    with sound.SoundStream(file) as stream:
        return sound.measures_of_file(stream).loudness


def _levelled(file: Path, target: Path, wanted: float, ceiling: float) -> tuple[str, str]:
    clip, info = sound.read_clip(read_source(file), file)
    told: dict[int, str] = {}
    use = StepUse(do="loudness", values={"target": wanted, "ceiling": ceiling})
    done = apply_steps(clip, [use], told=told)[-1]
    assert isinstance(done, sound.Clip)
    kind, codec = (info.file_type, info.codec) if sound.codecs_of(info.file_type) else ("WAV", "PCM 24")
    write_bytes(target, sound.write_clip(done, kind, codec, notes=info.notes))
    return loudness_text(sound.integrated_loudness(done.samples, done.rate)), told.get(0, "")


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
) -> None:
    """Fill an event from files, and set what is given of its volume and distances."""
    game = space.demands.events.get(name)
    if game is None:
        raise FurnelError(
            "Changing an event",
            where=name,
            why="the game has no such event",
            remedy="List them with: furnel mod events",
        )
    if files:
        space.save(fill_event(space, name, files, Bar()))
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
    space.save(set_event(space.project, game, event))


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
    found = forecasts(tunes, files, Bar())
    rows = [
        (tune.path, file.name, one.outlook, one.says)
        for tune, file, one in zip(tunes, files, found, strict=False)
    ]
    if as_json:
        say_json([dict(zip(("tune", "song", "outlook", "says"), row, strict=True)) for row in rows])
    else:
        say_rows(rows)
    for extra in files[len(tunes) :]:
        click.echo(f"- {extra.name} is one song more than there are tunes")
    if not plan:
        for tune, file, one in zip(tunes, files, found, strict=False):
            if one.song is not None:
                space.save(space.project.with_swap(space.fitted(space.new_swap(tune.path, file))))
    return 1 if any(one.outlook == "breaks" for one in found) else 0
