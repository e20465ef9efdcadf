"""`furnel find` and `furnel take`."""

from __future__ import annotations

import re
from pathlib import Path

import click
import numpy as np

from furnel.catalogue import FORMS, Asset, Catalogue, Form, Sieve, Wanted, mark_all, read_wanted, take_out
from furnel.cli.output import Bar, echo, say_json, say_rows
from furnel.containers import layout_named, open_container
from furnel.errors import FurnelError
from furnel.games import Install
from furnel.media import KINDS


def open_catalogue(game: Path) -> Catalogue:
    """The catalogue of the game in a folder, up to date."""
    catalogue = Catalogue(Install(game))
    catalogue.refresh(Bar())
    return catalogue


@click.command()
@click.argument("game", type=click.Path(path_type=Path))
@click.argument("text", default="")
@click.option("--kind", type=click.Choice(KINDS), help="Only assets of this kind.")
@click.option("--folder", default="", help="Only what is below this folder of the game.")
@click.option("--like", help="A picture or sound file, or a colour such as a8482f: the most alike first.")
@click.option("--kin", help="Only this asset and what is the same picture or sound.")
@click.option("--first", type=click.IntRange(1), default=20, show_default=True, help="How many, with --like.")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def find(
    game: Path, text: str, kind: str | None, folder: str, like: str | None, kin: str | None, first: int, as_json: bool
) -> int:  # fmt: skip
    """List GAME's assets whose path has all words of TEXT."""
    catalogue = open_catalogue(game)
    sieve = Sieve(text=text, kinds=frozenset([kind] if kind else []), folder=folder.strip("/"))
    kept = sieve.mask(catalogue.assets)
    rows = np.flatnonzero(kept)
    if kin:
        own = catalogue.assets.row(catalogue.get(kin).path)
        rows = np.array(
            [row for row in (own, *mark_all(catalogue, Bar()).kin.of(own)) if kept[row]], np.int64
        )
    if like:
        ranked = wanted(like).rank(mark_all(catalogue, Bar()), kin_once=False).rows
        rows = ranked[np.isin(ranked, rows)][:first]
    found = [catalogue.assets[row] for row in rows.tolist()]
    if as_json:
        say_json([_row(asset) for asset in found])
    else:
        say_rows(
            (a.path, a.facts.kind, a.facts.format, _size(a), a.size, a.archive.name, a.title) for a in found
        )
    catalogue.close()
    if not found:
        echo("furnel: nothing in the game is like that", err=True)
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
@click.option("--kin", "with_kin", is_flag=True, help="Also what is the same picture or sound.")
@click.option("--layout", help="Of a single archive: a layout's name or its .toml file.")
def take(
    game: Path, assets: tuple[str, ...], folder: Path, form: Form, with_kin: bool, layout: str | None
) -> int:
    """Take ASSETS out of GAME, which may also be a single archive."""
    if game.is_file():
        container = open_container(game, layout_named(layout) if layout else None)
        written = take_out(assets, container.read, folder, form, Bar())
        container.close()
    else:
        catalogue = open_catalogue(game)
        if with_kin:
            shelf, kin = catalogue.assets, mark_all(catalogue, Bar()).kin
            others = [
                shelf.paths[row] for path in assets for row in kin.of(shelf.row(catalogue.get(path).path))
            ]
            assets = tuple(dict.fromkeys((*assets, *others)))
        written = take_out(assets, catalogue.bytes_of, folder, form, Bar())
        catalogue.close()
    for file in written:
        echo(file)
    return 0


def wanted(text: str) -> Wanted:
    """What is looked for: a file's picture or sound, or a colour by its code."""
    file = Path(text)
    if file.is_file():
        return read_wanted(file.read_bytes(), file.name, file)
    code = text.removeprefix("#")
    if re.fullmatch(r"[0-9a-fA-F]{6}", code):
        return Wanted(code, colour=(int(code[:2], 16), int(code[2:4], 16), int(code[4:], 16)))
    raise FurnelError(
        "Looking for what is alike", where=text, why="it is neither a file nor a colour such as a8482f",
        remedy="Give a picture, a sound or six hex digits",
    )  # fmt: skip


@click.command()
@click.argument("folder", type=click.Path(path_type=Path))
@click.option("--game", type=click.Path(path_type=Path), required=True, help="The game's folder.")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def match(folder: Path, game: Path, as_json: bool) -> int:
    """Pair FOLDER's files with the originals that they are for: by note, path, name and likeness."""
    catalogue = open_catalogue(game)
    marks = mark_all(catalogue, Bar())
    from furnel.mods.matching import match_folder

    found = match_folder(folder, catalogue.assets, marks, Bar(), catalogue.bytes_of)
    catalogue.close()
    if as_json:
        say_json([
            {
                "file": str(one.file), "original": one.original, "how": one.how, "sure": round(one.sure, 2), "on": one.on,
                "others": list(one.others),
            }
            for one in found
        ])  # fmt: skip
    else:
        say_rows(
            (one.file, one.original or "-", one.how or "nothing found", f"{one.sure:.0%}") for one in found
        )
    return 0 if all(one.on for one in found) else 1


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
