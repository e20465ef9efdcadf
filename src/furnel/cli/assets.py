"""`furnel find` and `furnel take`."""

from __future__ import annotations

from pathlib import Path

import click
import numpy as np

from furnel.catalogue import FORMS, KINDS, Asset, Catalogue, Form, Sieve, take_out
from furnel.cli.output import Bar, say_json, say_rows
from furnel.containers import open_container
from furnel.games import Install


def open_catalogue(game: Path) -> Catalogue:
    """The catalogue of the game in a folder, up to date."""
    catalogue = Catalogue(Install(game))
    catalogue.refresh(Bar())
    return catalogue


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.argument("text", default="")
@click.option("--kind", type=click.Choice(KINDS), help="Only assets of this kind.")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def find(game: Path, text: str, kind: str | None, as_json: bool) -> int:
    """List GAME's assets whose path has all words of TEXT."""
    catalogue = open_catalogue(game)
    sieve = Sieve(text=text, kinds=frozenset([kind] if kind else []))
    found = [catalogue.assets[row] for row in np.flatnonzero(sieve.mask(catalogue.assets)).tolist()]
    if as_json:
        say_json([_row(asset) for asset in found])
    else:
        say_rows(
            (a.path, a.facts.kind, a.facts.format, _size(a), a.size, a.archive.name, a.title) for a in found
        )
    catalogue.close()
    return 0 if found else 1


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.argument("assets", nargs=-1, required=True)
@click.option("--to", "folder", type=click.Path(path_type=Path), required=True, help="Where to write them.")
@click.option(
    "--as",
    "form",
    type=click.Choice(FORMS),
    default="raw",
    help="As they are, or pictures as PNG, sounds as WAV.",
)
def take(game: Path, assets: tuple[str, ...], folder: Path, form: Form) -> int:
    """Take ASSETS out of GAME, which may also be a single archive."""
    if game.is_file():
        container = open_container(game)
        written = take_out(assets, container.read, folder, form, Bar())
        container.close()
    else:
        catalogue = open_catalogue(game)
        written = take_out(assets, lambda path: catalogue.read(catalogue.get(path)), folder, form, Bar())
        catalogue.close()
    for file in written:
        click.echo(file)
    return 0


def _size(asset: Asset) -> str:
    facts = asset.facts
    if facts.width:
        return f"{facts.width}x{facts.height}"
    return f"{facts.length_s:.2f}s" if facts.rate else ""


def _row(asset: Asset) -> dict[str, object]:
    facts = asset.facts
    return {
        "path": asset.path, "title": asset.title, "kind": facts.kind, "format": facts.format, "archive": asset.archive.name,
        "bytes": asset.size, "width": facts.width, "height": facts.height, "levels": facts.levels, "rate": facts.rate,
        "channels": facts.channels, "frames": facts.frames, "role": asset.role,
    }  # fmt: skip
