"""`furnel pack` and `furnel unpack`."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.cli.output import Bar
from furnel.containers import find_layout, open_container, pack_folder, unpack_to


@click.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--layout", required=True, help="A layout's name, its .toml file, or zip.")
@click.option("--out", "target", type=click.Path(path_type=Path), required=True, help="The archive to write.")
def pack(folder: Path, layout: str, target: Path) -> int:
    """Make an archive of every file in FOLDER."""
    chosen = None if layout == "zip" else find_layout(layout)
    click.echo(f"{pack_folder(folder, chosen, target, Bar())} entries in {target}")
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
    click.echo(f"{unpack_to(container, folder, Bar())} files in {folder}")
    container.close()
    return 0
