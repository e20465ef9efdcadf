"""`furnel mod`: a mod from its first swap to the game."""

from __future__ import annotations

import contextlib
from collections.abc import Iterator
from pathlib import Path

import click

from furnel.cli.defining import add_folder, add_new, draw_strip, say_changes, set_strip, set_value
from furnel.cli.hearing import change_event, lay_album, say_events
from furnel.cli.output import Bar, echo, points_json, say_json, say_points
from furnel.errors import FurnelError
from furnel.mods import additions, sharing
from furnel.mods.build import build as build_mod
from furnel.mods.build import examine_all, last_build, stale
from furnel.mods.build import package as package_mod
from furnel.mods.deploy import install_mod, installed_words, remove_mod
from furnel.mods.outside import choose, choose_all, gathered, outside_files
from furnel.mods.project import StepUse
from furnel.mods.render import read_source
from furnel.mods.steps import Value, step_type
from furnel.mods.workspace import Workspace, create_project, open_workspace
from furnel.words import count

PROJECT = click.argument("project", type=click.Path(path_type=Path))
GAME = click.option("--game", type=click.Path(path_type=Path), help="Where the game is, when it has moved.")

OVER = click.option(
    "--over",
    is_flag=True,
    help="Also over a folder that Furnel did not put there, or that was changed since.",
)


@contextlib.contextmanager
def opened(project: Path, game: Path | None) -> Iterator[Workspace]:
    """The project with its game, closed afterwards."""
    space = open_workspace(project, Bar(), game)
    try:
        yield space
    finally:
        space.close()


@click.group()
def mod() -> None:
    """Start a mod, add swaps, check, build, install, remove, package."""


@mod.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--game", type=click.Path(path_type=Path), required=True, help="The game's folder.")
@click.option("--name", required=True, help="What the mod is called.")
@click.option("--author", default="")
def new(folder: Path, game: Path, name: str, author: str) -> int:
    """Start a mod in FOLDER."""
    echo(create_project(folder, name, game, author))
    return 0


@mod.command()
@PROJECT
@click.argument("original")
@click.argument("source", type=click.Path(path_type=Path))
@click.option("--as-it-is", is_flag=True, help="Take the file unchanged, without fitting it.")
@click.option(
    "--step", "extra", multiple=True, metavar="NAME[:KEY=VALUE,…]", help="A step before the fitting ones."
)
@click.option("--credit", default="", help="Whose source it is, and under what terms.")
@GAME
def add(
    project: Path,
    original: str,
    source: Path,
    as_it_is: bool,
    extra: tuple[str, ...],
    credit: str,
    game: Path | None,
) -> int:
    """Swap ORIGINAL for SOURCE, and fit it."""
    with opened(project, game) as space:
        if as_it_is and extra:
            raise click.UsageError("--as-it-is takes the file unchanged: leave out --step")
        given = tuple(_step(text) for text in extra)
        swap = space.new_swap(original, source, whole=as_it_is).model_copy(
            update={"credit": credit, "steps": given}
        )
        choose_all(space.file, swap)
        if not as_it_is:
            swap = space.fitted(swap, Bar())
        space.save(space.project.with_swap(swap), f"Swap {original}")
        examined = space.examine(swap, Bar())
        say_points(examined.points)
        return 1 if examined.state == "breaks" else 0


@mod.command()
@PROJECT
@GAME
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def check(project: Path, game: Path | None, as_json: bool) -> int:
    """Say how every swap fits."""
    with opened(project, game) as space:
        examined = examine_all(space, Bar())
        if as_json:
            say_json(
                [
                    {"original": e.swap.original, "state": e.state, "points": points_json(e.points)}
                    for e in examined
                ]
            )
        else:
            for item in examined:
                echo(f"{item.swap.original}  from {item.swap.made_from}")
                say_points(point for point in item.points if point.state != "fits" or item.state == "fits")
            changed = stale(space, last_build(space), examined)
            good = sum(item.state != "breaks" for item in examined)
            echo(f"{good} of {len(examined)} fit; {len(changed)} changed since the last build")
        return 1 if any(item.state == "breaks" for item in examined) else 0


@mod.command()
@PROJECT
@GAME
@click.option("--anyway", is_flag=True, help="Build even what breaks, to see what the game says.")
def build(project: Path, game: Path | None, anyway: bool) -> int:
    """Build the mod and read it back."""
    with opened(project, game) as space:
        done = build_mod(space, Bar(), anyway)
        for file in done.files:
            echo(f"{file.path}  {file.before} → {file.after} bytes")
        echo(f"{count(len(done.files), 'file')} in {done.folder}")
        return 0


@mod.command()
@PROJECT
@OVER
@GAME
def install(project: Path, over: bool, game: Path | None) -> int:
    """Put the built mod in the game: in its mods folder, switched on, or where its profile says."""
    with opened(project, game) as space:
        install_mod(space.catalogue.install, space.project.mod.id, _built(space), Bar(), over)
        echo(installed_words(space.catalogue.install, space.project.mod.id))
        return 0


@mod.command()
@PROJECT
@OVER
@GAME
def remove(project: Path, over: bool, game: Path | None) -> int:
    """Take the mod off; the game's folder is as it was before."""
    with opened(project, game) as space:
        echo(remove_mod(space.catalogue.install, space.project.mod.id, over))
        return 0


@mod.command()
@PROJECT
@click.option("--out", "target", type=click.Path(path_type=Path), help="The ZIP to write.")
@GAME
def package(project: Path, target: Path | None, game: Path | None) -> int:
    """Make one ZIP of the mod as it is now, to share; what is not built yet is built first."""
    with opened(project, game) as space:
        echo(package_mod(space, target, Bar()))
        return 0


@mod.command()
@PROJECT
@click.option("--author", default=None)
@click.option("--version", default=None, help="What this version is called.")
@click.option("--summary", default=None, help="A sentence on what it does.")
@click.option(
    "--description",
    type=click.Path(path_type=Path),
    default=None,
    help="A file with more about it, in Markdown.",
)
@click.option(
    "--licence", default=None, metavar="SPDX", help="What others may do with it, such as CC-BY-4.0."
)
@click.option("--tag", "tags", multiple=True, metavar="WORD")
@click.option("--language", "languages", multiple=True, metavar="CODE")
@click.option("--preview", type=click.Path(path_type=Path), default=None, help="A picture of it.")
@click.option(
    "--credit",
    multiple=True,
    metavar="PATTERN=TEXT",
    help="Whose sources are, by the paths of their originals.",
)
@click.option(
    "--with-installer/--without-installer",
    "installer",
    default=None,
    help="Whether a script that merges the mod with others goes into the package.",
)
@click.option("--out", "target", type=click.Path(path_type=Path), help="The ZIP to write.")
@click.option("--look", is_flag=True, help="Only say what is missing.")
@GAME
def share(
    project: Path, author: str | None, version: str | None, summary: str | None, description: Path | None, licence: str | None,
    tags: tuple[str, ...], languages: tuple[str, ...], preview: Path | None, credit: tuple[str, ...], installer: bool | None,
    target: Path | None, look: bool, game: Path | None,
) -> int:  # fmt: skip
    """Say what others should know of the mod, package it, and try the package as a stranger would."""
    with opened(project, game) as space:
        told = {"author": author, "version": version, "summary": summary, "licence": licence}
        facts: dict[str, object] = {key: value for key, value in told.items() if value is not None}
        facts |= (
            {"description": read_source(description).decode("utf-8", "replace")}
            if description is not None
            else {}
        )
        facts |= {"with_installer": installer} if installer is not None else {}
        facts |= {key: value for key, value in (("tags", tags), ("languages", languages)) if value}
        space = sharing.with_facts(space, facts, preview, dict(_credit(text) for text in credit))
        points = sharing.share_points(space)
        if not look:
            made = package_mod(space, target, Bar())
            points += sharing.check_package(space, made, Bar())
            echo(made)
        for point in points:
            echo(f"{point.state:7}  {point.key}" + (f": {point.said}" if point.said else ""))
        return 1 if any(point.state == "breaks" for point in points) else 0


def _credit(text: str) -> tuple[str, str]:
    pattern, _, credit = text.partition("=")
    if not pattern or not credit:
        raise click.UsageError(f"--credit {text}: write it as art/hulls/*=Mira Solheim, CC-BY-4.0")
    return pattern, credit


def _built(space: Workspace) -> Path:
    built = last_build(space)
    if built is None:
        raise FurnelError(
            "Installing the mod",
            where=space.project.mod.name,
            why="it is not built yet",
            remedy="Run `furnel mod build` first",
        )
    if built.broken:
        named = ", ".join(built.broken[:3])
        echo(f"furnel: it was built though {count(len(built.broken), 'swap')} of it break: {named}", err=True)
    changed = stale(space, built, examine_all(space, Bar()))
    if changed:
        echo(
            f"furnel: the build is older than {len(changed)} of the swaps: {', '.join(changed[:3])}", err=True
        )
    return built.folder


def _step(text: str) -> StepUse:
    name, _, settings = text.partition(":")
    known = {parameter.name: parameter for parameter in step_type(name).parameters}
    values: dict[str, Value] = {}
    for setting in filter(None, settings.split(",")):
        key, _, raw = setting.partition("=")
        value: Value = raw
        if key in known and known[key].type in ("whole", "number"):
            try:
                value = int(raw) if known[key].type == "whole" else float(raw)
            except ValueError as error:
                raise FurnelError("Reading a step", where=text, why=f"{raw!r} is no number") from error
        values[key] = raw == "true" if key in known and known[key].type == "switch" else value
    use = StepUse(do=name, values=values)
    use.checked()
    return use


@mod.command()
@PROJECT
@GAME
def gather(project: Path, game: Path | None) -> int:
    """Copy all sources that lie outside the mod's folder into it."""
    with opened(project, game) as space:
        after = gathered(space.file, space.project, Bar())
        moved = sum(old != new for old, new in zip(space.project.swaps, after.swaps, strict=True))
        space.save(after, "Gather sources")
        echo(f"{count(moved, 'swap')} read from the mod's own folder now")
        return 0


@mod.command()
@PROJECT
@click.option("--yes", is_flag=True, help="Allow them; without it they are only listed.")
@GAME
def allow(project: Path, yes: bool, game: Path | None) -> int:
    """List the files outside its folder that a mod from somewhere else wants to read, and allow them."""
    with opened(project, game) as space:
        wanted = outside_files(space.file, space.project.swaps)
        for path in wanted:
            echo(path)
        if yes:
            choose(space.file, wanted)
        echo(f"{count(len(wanted), 'file')} {'allowed' if yes else 'not allowed yet'}")
        return 0 if yes or not wanted else 1


@mod.command("set")
@PROJECT
@click.argument("definition")
@click.argument("address")
@click.argument("value", required=False)
@click.option("--game-value", is_flag=True, help="Take the game's own again.")
@click.option("--drop", is_flag=True, help="Take out what is there.")
@click.option("--strip", type=click.Path(path_type=Path), help="A picture of a row of colours for it.")
@click.option("--strip-of-figure", is_flag=True, help="The colours of the figure that it is for.")
@GAME
def set_(
    project: Path, definition: str, address: str, value: str | None, game_value: bool, drop: bool, strip: Path | None,
    strip_of_figure: bool, game: Path | None,
) -> int:  # fmt: skip
    """Set what is at an ADDRESS of a DEFINITION, such as otter/speed, to VALUE; a new key is added to its record."""
    with opened(project, game) as space:
        if strip is not None or strip_of_figure:
            if value is not None or game_value or drop or (strip is not None and strip_of_figure):
                raise click.UsageError("Give a value, a strip or what to take, and only one of them.")
            space = set_strip(space, definition, address, strip)
        else:
            space = set_value(space, definition, address, value, game_value, drop)
        say_changes(space, False, definition)
    return 0


@mod.command()
@PROJECT
@click.argument("definition")
@click.argument("address")
@click.argument("picture", type=click.Path(path_type=Path))
@GAME
def strip(project: Path, definition: str, address: str, picture: Path, game: Path | None) -> int:
    """Draw the list of colours at an ADDRESS of a DEFINITION as a row of fields: a PNG."""
    with opened(project, game) as space:
        draw_strip(space, definition, address, picture)
    return 0


@mod.command()
@PROJECT
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
@GAME
def diff(project: Path, as_json: bool, game: Path | None) -> int:
    """List what the mod changes in the game's definitions, value by value."""
    with opened(project, game) as space:
        say_changes(space, as_json)
    return 0


@mod.command("new-like")
@PROJECT
@click.argument("kind")
@click.argument("name")
@click.option("--like", required=True, help="What it begins with all values of.")
@click.option("--title", default="", help="What people read; made of the name otherwise.")
@click.option(
    "--file",
    "files",
    multiple=True,
    metavar="PLACE=FILE",
    help="An asset of its own; fitted to what it is like.",
)
@click.option("--value", "values", multiple=True, metavar="KEY=VALUE", help="Another value of its record.")
@click.option(
    "--leave-out", "left_out", multiple=True, metavar="NAME", help="A list or text that it is not to join."
)
@GAME
def new_like(
    project: Path, kind: str, name: str, like: str, title: str, files: tuple[str, ...], values: tuple[str, ...],
    left_out: tuple[str, ...], game: Path | None,
) -> int:  # fmt: skip
    """Add a new thing of a KIND (a boat, a tune …) to the game, like one that it has."""
    with opened(project, game) as space:
        return add_new(space, kind, name, like, title, files, values, left_out)


@mod.command("new-all")
@PROJECT
@click.argument("kind")
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--like", required=True, help="What they begin with all values of.")
@click.option("--plan", "only_plan", is_flag=True, help="Only say what would become of them.")
@GAME
def new_all(project: Path, kind: str, folder: Path, like: str, only_plan: bool, game: Path | None) -> int:
    """Add a new thing of a KIND for every file or sub-folder of FOLDER."""
    with opened(project, game) as space:
        return add_folder(space, kind, folder, like, only_plan)


@mod.command("take-back")
@PROJECT
@click.argument("kind")
@click.argument("name")
@GAME
def take_back(project: Path, kind: str, name: str, game: Path | None) -> int:
    """Take a new thing out of the mod: its assets, its record, and what it had joined."""
    with opened(project, game) as space:
        space.save(additions.without(space, f"{kind} {name}"), f"Take {kind} {name} back")
        echo(f"{kind} {name} is out of the mod")
    return 0


@mod.command()
@PROJECT
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
@GAME
def events(project: Path, as_json: bool, game: Path | None) -> int:
    """List the game's sound events as the mod makes them."""
    with opened(project, game) as space:
        say_events(space, as_json)
    return 0


@mod.command()
@PROJECT
@click.argument("name")
@click.argument("files", nargs=-1, type=click.Path(path_type=Path))
@click.option("--volume", type=click.FloatRange(0, 16), help="An amplitude: 1 is full.")
@click.option("--fade-from", type=click.FloatRange(0), help="The distance from which on it fades.")
@click.option("--silent-at", type=click.FloatRange(0), help="The distance at which it falls silent.")
@GAME
def event(
    project: Path, name: str, files: tuple[Path, ...], volume: float | None, fade_from: float | None,
    silent_at: float | None, game: Path | None,
) -> int:  # fmt: skip
    """Fill the event NAME from FILES, one sound each, and set its volume and distances."""
    with opened(project, game) as space:
        space = change_event(space, name, files, volume, fade_from, silent_at)
        say_events(space, False)
    return 0


@mod.command()
@PROJECT
@click.argument("songs", nargs=-1, type=click.Path(path_type=Path))
@click.option("--plan", is_flag=True, help="Only say what would become of them.")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
@GAME
def tunes(project: Path, songs: tuple[Path, ...], plan: bool, as_json: bool, game: Path | None) -> int:
    """List the game's tunes; with SONGS, swap them in their order."""
    with opened(project, game) as space:
        return lay_album(space, songs, plan, as_json)
