"""`furnel pack` and `furnel unpack`."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.cli.output import Bar, echo
from furnel.containers import Carved, find_layout, open_container, pack_folder, unpack_to
from furnel.containers import guess as guess_file
from furnel.games import keep_profile, profile_text, survey


@click.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--layout", required=True, help="A layout's name, its .toml file, or zip.")
@click.option("--out", "target", type=click.Path(path_type=Path), required=True, help="The archive to write.")
def pack(folder: Path, layout: str, target: Path) -> int:
    """Make an archive of every file in FOLDER."""
    chosen = None if layout == "zip" else find_layout(layout)
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
    chosen = find_layout(layout) if layout and layout != "zip" else None
    container = open_container(archive, chosen)
    echo(f"{unpack_to(container, folder, Bar())} files in {folder}")
    container.close()
    return 0


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
    count = unpack_to(carved, folder, Bar())
    carved.close()
    echo(f"{count} files in {folder}")
    return 0 if count else 1


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.option("--name", required=True, help="What the game is called.")
@click.option(
    "--mods", default="mods", show_default=True, help="The folder below the game's that mods go to."
)
@click.option("--version", default="1.0", show_default=True, help="The version that mods are made for.")
@click.option("--keep", is_flag=True, help="Keep the profile, so that the game can be opened.")
def describe(game: Path, name: str, mods: str, version: str, keep: bool) -> int:
    """Look at an unknown GAME's folder and print a profile for it."""
    found = survey(game, Bar())
    text = profile_text(found, name, mods, version)
    if keep:
        echo(f"{keep_profile(text).name} is known now")
    else:
        echo(text)
    for one in found.of("unknown"):
        echo(f"# unknown: {one.path}: {one.note}", err=True)
    return 0
