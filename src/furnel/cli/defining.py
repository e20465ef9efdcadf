"""`furnel show`, and what `furnel mod` does with definitions."""

from __future__ import annotations

import datetime
import json
import tomllib
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import Any

import click

from furnel.atomic import write_bytes
from furnel.cli.assets import open_catalogue
from furnel.cli.output import Bar, echo, say_json, say_rows
from furnel.errors import FurnelError
from furnel.mods import additions, definitions, strips
from furnel.mods.project import Project
from furnel.mods.workspace import Workspace
from furnel.texts import Change, Document, Step, address_text, document_of, parse_address
from furnel.words import count


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.argument("definition")
@click.argument("address", default="")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def show(game: Path, definition: str, address: str, as_json: bool) -> int:
    """Print the values of a DEFINITION of GAME, or those at an ADDRESS such as otter/speed."""
    catalogue = open_catalogue(game)
    document = document_of(catalogue.bytes_of(definition), definition)
    value = document.look(parse_address(address))
    if as_json:
        say_json(value)
    else:
        say_rows((where, _spelled(one)) for where, one in _rows(value, address))
    catalogue.close()
    return 0


def set_value(
    space: Workspace, definition: str, address: str, value: str | None, game: bool, drop: bool
) -> Workspace:
    """The mod with another value of a definition, the game's own, or nothing there. Raises FurnelError when it cannot be."""
    if (value is not None) + game + drop != 1:
        raise FurnelError(
            "Changing a definition",
            where=address,
            why="it needs a value, --game-value or --drop, and only one of them",
        )
    if game:
        return space.save(
            _tidied(definitions.without_changes(space, definition, address)), f"Take the game's {address}"
        )
    now = definitions.definition(space, definition)[1]
    if drop or value is None:
        change = Change(do="drop", at=address)
    elif now.has(parse_address(address)):
        change = Change(do="set", at=address, to=_read(now, address, value))
    else:
        *within, last = parse_address(address)
        change = Change(do="add", at=address_text(within), key=last.key, to=_read(now, "", value))
    return space.save(_tidied(definitions.with_changes(space, definition, [change])), f"Change {address}")


def set_strip(space: Workspace, definition: str, address: str, picture: Path | None) -> Workspace:
    """The mod with a list of colours as a picture shows them, or as its figure has them."""
    changes = (
        strips.from_picture(space, definition, address, picture)
        if picture is not None
        else strips.from_figure(space, definition, address)
    )
    return space.save(_tidied(definitions.with_changes(space, definition, changes)), f"Take {address}")


def draw_strip(space: Workspace, definition: str, address: str, picture: Path) -> None:
    """Write a list of colours as a picture."""
    write_bytes(picture, strips.as_png(space, definition, address))
    echo(f"{picture}  written")


def _tidied(project: Project) -> Project:
    """The project without definitions in which nothing is changed."""
    return project.model_copy(update={"swaps": project.made})


def say_changes(space: Workspace, as_json: bool, only: str = "") -> None:
    """What a mod changes in definitions, or in one of them."""
    swaps = [swap for swap in space.project.swaps if swap.changes and only in ("", swap.original)]
    if as_json:
        say_json(
            {swap.original: [one.model_dump(exclude_defaults=True) for one in swap.changes] for swap in swaps}
        )
        return
    for swap in swaps:
        echo(f"{swap.original}  {count(len(swap.changes), 'change')}")
        for change in swap.changes:
            echo(f"  {change.said()}")


def add_new(
    space: Workspace, kind: str, name: str, like: str, title: str, files: Sequence[str], values: Sequence[str],
    left_out: Sequence[str],
) -> int:  # fmt: skip
    """Add a new thing and say how its assets fit."""
    given: dict[str, list[Path]] = {}
    for place, file in map(_pair, files):
        given.setdefault(place, []).append(Path(file))
    wanted = additions.Addition(kind, name, like, title, given, dict(map(_pair, values)), frozenset(left_out))
    return _say_added(space, additions.add(space, wanted, Bar()), [wanted])


def add_folder(space: Workspace, kind: str, folder: Path, like: str, only_plan: bool) -> int:
    """Add a new thing for everything in a folder, or say what would become of it."""
    found = additions.plan(space, kind, folder, like)
    for one in found.additions:
        places = ", ".join(
            f"{place}: {', '.join(file.name for file in files)}" for place, files in one.files.items()
        )
        echo(f"{one.kind} {one.id}  “{one.title}”  {places}")
    for file, other in found.twins:
        echo(f"  {file.name} is the same as {other.name}, and is left out")
    echo(found.sentence())
    return (
        0
        if only_plan
        else _say_added(space, additions.add_all(space, found.additions, Bar()), found.additions)
    )


def _say_added(space: Workspace, project: Project, added: Sequence[additions.Addition]) -> int:
    marks = {one.mark for one in added}
    space = space.save(project, f"New {', '.join(sorted(marks))}")
    state = "fits"
    for swap in project.swaps:
        if swap.part_of in marks:
            examined = space.examine(swap)
            echo(f"{swap.original}  {examined.state}")
            state = "breaks" if examined.state == "breaks" else state
    say_changes(space, False)
    return 1 if state == "breaks" else 0


def _pair(text: str) -> tuple[str, str]:
    name, equals, value = text.partition("=")
    if not equals or not name or not value:
        raise FurnelError(
            "Adding something new",
            where=text,
            why="it is not written as name=value",
            remedy="As in hull=oak.png",
        )
    return name, value


def _read(document: Document, address: str, text: str) -> Any:
    """A value as the definition would have it: a text stays one where a text stands, all else is read as JSON."""
    there = document.look(parse_address(address)) if address else None
    if isinstance(there, str):
        return text
    if isinstance(there, datetime.date | datetime.time):
        try:
            return tomllib.loads(f"value = {text}")["value"]
        except tomllib.TOMLDecodeError as error:
            raise FurnelError(
                "Changing a definition", where=address, why=f"{text!r} is neither a date nor a time",
                remedy=f"Write it as what is there now: {there.isoformat()}",
            ) from error  # fmt: skip
    try:
        return json.loads(text)
    except ValueError:
        return text


def _rows(value: Any, at: str) -> Iterator[tuple[str, Any]]:
    if isinstance(value, dict) and value:
        for key, inner in value.items():
            step = address_text([Step(str(key))])
            yield from _rows(inner, f"{at}/{step}" if at else step)
    elif isinstance(value, list) and any(isinstance(inner, dict | list) for inner in value):
        for number, inner in enumerate(value):
            yield from _rows(inner, f"{at}[{number}]")
    else:
        yield at or "the whole", value


def _spelled(value: Any) -> str:
    return value if isinstance(value, str) else json.dumps(value, ensure_ascii=False, default=str)
