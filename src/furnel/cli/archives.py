"""Archives on the command line: listed, packed, unpacked, changed, guessed at, carved; games described."""

from __future__ import annotations

import contextlib
from pathlib import Path

import click

from furnel.cli.output import Bar, echo, say_table
from furnel.containers import (
    Carved,
    Changes,
    Content,
    layout_named,
    layout_to_write,
    open_container,
    pack_folder,
    unpack_to,
    write_changed,
)
from furnel.containers import guess as guess_file
from furnel.errors import FurnelError
from furnel.games import (
    UnknownGame,
    choose_profile,
    keep_profile,
    known_profiles,
    profile_text,
    profiles_folder,
    recognise,
    survey,
)
from furnel.games.describing import Standing
from furnel.words import count

_MOST_TOLD = 3
_LEFT: dict[Standing, str] = {"unknown": "nothing in it is known", "none": "not listed"}


@click.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--layout", required=True, help="A layout's name, its .toml file, or zip.")
@click.option("--out", "target", type=click.Path(path_type=Path), required=True, help="The archive to write.")
def pack(folder: Path, layout: str, target: Path) -> int:
    """Make an archive of every file in FOLDER."""
    chosen = layout_to_write(layout)
    echo(f"{pack_folder(folder, chosen, target, Bar())} entries in {target}")
    return 0


@click.command()
@click.argument("archive", type=click.Path(path_type=Path))
@click.option(
    "--to", "folder", type=click.Path(path_type=Path), required=True, help="Where to write its entries."
)
@click.option(
    "--layout", help="A layout's name or its .toml file; without it, the one that recognises the file."
)
def unpack(archive: Path, folder: Path, layout: str | None) -> int:
    """Write every entry of ARCHIVE as a file."""
    container = open_container(archive, layout_named(layout) if layout else None)
    echo(f"{count(unpack_to(container, folder, Bar()), 'file')} in {folder}")
    container.close()
    return 0


@click.command("list")
@click.argument("archive", type=click.Path(path_type=Path, exists=True))
@click.option(
    "--layout", help="A layout's name or its .toml file; without it, the one that recognises the file."
)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def list_entries(archive: Path, layout: str | None, as_json: bool) -> int:
    """What is in ARCHIVE: every entry's path, its size and the size in which it is stored."""
    container = open_container(archive, layout_named(layout) if layout else None)
    rows = [{"path": entry.path, "size": entry.size, "stored": entry.stored} for entry in container.entries()]
    container.close()
    say_table(rows, as_json)
    return 0


@click.command()
@click.argument("archive", type=click.Path(path_type=Path, exists=True, dir_okay=False))
@click.option(
    "--layout", help="A layout's name or its .toml file; without it, the one that recognises the file."
)
@click.option(
    "--replace",
    multiple=True,
    help="An entry and the file whose content it gets: art/a.dds=new.dds. Several times.",
)
@click.option("--add", multiple=True, help="A new entry and its file. Several times.")
@click.option("--remove", multiple=True, help="An entry that is left out. Several times.")
@click.option("--rename", multiple=True, help="An entry and its new path: old=new. Several times.")
@click.option("--out", "target", type=click.Path(path_type=Path), required=True, help="The archive to write.")
def change(
    archive: Path, layout: str | None, replace: tuple[str, ...], add: tuple[str, ...], remove: tuple[str, ...],
    rename: tuple[str, ...], target: Path,
) -> int:  # fmt: skip
    """Write a changed copy of ARCHIVE: entries replaced, added, removed, renamed; all others to the byte as they were."""
    if target.resolve() == archive.resolve():
        raise FurnelError(
            "Changing an archive",
            where=target,
            why="it is the archive itself",
            remedy="Write the copy to another file",
        )
    renamed = dict(_pair(one, "--rename") for one in rename)
    changes = Changes(_files(replace, "--replace"), _files(add, "--add"), frozenset(remove), renamed)
    if not changes:
        raise click.UsageError("say what to change with --replace, --add, --remove or --rename")
    number = write_changed(archive, layout_named(layout) if layout else None, target, changes, Bar())
    echo(f"{number} entries in {target}, read back and found as they should be")
    return 0


def _files(pairs: tuple[str, ...], option: str) -> dict[str, Content]:
    return {path: Path(file) for path, file in (_pair(one, option) for one in pairs)}


def _pair(text: str, option: str) -> tuple[str, str]:
    path, given, value = text.partition("=")
    if not given or not path or not value:
        raise click.UsageError(
            f"{option} takes {'old=new' if option == '--rename' else 'path=file'}, not {text!r}"
        )
    return path, value


@click.command()
@click.argument("archive", type=click.Path(path_type=Path, exists=True, dir_okay=False))
def guess(archive: Path) -> int:
    """Say what an unknown ARCHIVE looks like, and print a layout to begin its description from."""
    found = guess_file(archive, Bar())
    for one in found.guesses:
        echo(f"# {one.text}" + (f" (byte {one.at})" if one.at >= 0 else ""))
    echo(found.draft)
    return 0


@click.command()
@click.argument("file", type=click.Path(path_type=Path, exists=True, dir_okay=False))
@click.option(
    "--to", "folder", type=click.Path(path_type=Path), required=True, help="Where to write what is found."
)
def carve(file: Path, folder: Path) -> int:
    """Write every known file (pictures, sounds, ZIPs) that lies inside FILE, whatever that is."""
    carved = Carved(file, Bar())
    number = unpack_to(carved, folder, Bar())
    carved.close()
    echo(f"{count(number, 'file')} in {folder}")
    if not number:
        echo("furnel: no known file lies in it as it is: it is packed, or has none", err=True)
    return 0 if number else 1


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.option("--name", default="", help="What the game is called.")
@click.option(
    "--mods", default="mods", show_default=True, help="The folder below the game's that mods go to."
)
@click.option("--version", default="1.0", show_default=True, help="The version that mods are made for.")
@click.option(
    "--goes",
    type=click.Choice(["in-place", "mirror", "loose"]),
    default="in-place",
    show_default=True,
    help="How mods reach the game: in the place of its own files, in a folder that has the same paths, or as loose files.",
)
@click.option("--keep", is_flag=True, help="Keep the profile, so that the game can be opened.")
@click.option(
    "--is", "known_as", metavar="ID", help="Of several profiles that recognise the folder, which it is."
)
def describe(
    game: Path, name: str, mods: str, version: str, goes: str, keep: bool, known_as: str | None
) -> int:
    """Look at an unknown GAME's folder and print a profile for it."""
    if known_as:
        choose_profile(game, known_as)
        echo(f"{game} is opened as {known_profiles()[known_as].name} from now on")
        return 0
    if not name:
        raise click.UsageError("Say what the game is called: --name NAME")
    found = survey(game, Bar())
    text = profile_text(found, name, mods, version, goes=goes)
    if keep:
        with contextlib.suppress(UnknownGame):
            known = recognise(game)
            raise FurnelError(
                "Keeping a profile", where=game, why=f"{known.name} knows this game already, and two would fight over it",
                remedy="Look at the profile without --keep, or edit the one in your profiles folder",
            )  # fmt: skip
        made = keep_profile(text)
        echo(f"{made.name} is known now, by {profiles_folder() / f'{made.id}.toml'}")
    else:
        echo(text)
    for standing, words in _LEFT.items():
        if some := found.of(standing):
            shown = "; ".join(
                f"{one.path}: {one.note}" if one.note else one.path for one in some[:_MOST_TOLD]
            )
            more = f"; and {len(some) - _MOST_TOLD} more" if len(some) > _MOST_TOLD else ""
            echo(f"# {words}: {count(len(some), 'file')} ({shown}{more})", err=True)
    return 0
