"""`furnel spec`, `furnel fit` and `furnel compare`."""

from __future__ import annotations

from pathlib import Path

import click

from furnel.atomic import write_bytes
from furnel.blocks import QUALITIES, Quality
from furnel.cli.assets import open_catalogue
from furnel.cli.output import Bar, points_json, say_json, say_points, say_spec
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.mods.fit import compare as compare_specs
from furnel.mods.fit import worst
from furnel.mods.render import read_source
from furnel.mods.single import fit_file
from furnel.mods.spec import spec_of


@click.command()
@click.argument("file_or_game", type=click.Path(path_type=Path))
@click.argument("asset", required=False)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def spec(file_or_game: Path, asset: str | None, as_json: bool) -> int:
    """What a file, or an ASSET of a game, is and demands."""
    data, path, role = _original(file_or_game, asset)
    found = spec_of(data, path, role)
    if as_json:
        say_json(found)
    else:
        say_spec(found)
    return 0


@click.command()
@click.argument("source", type=click.Path(path_type=Path))
@click.option(
    "--like",
    "original",
    type=click.Path(path_type=Path),
    required=True,
    help="The original: a file, or an asset of --game.",
)
@click.option("--game", type=click.Path(path_type=Path), help="The game that has the original.")
@click.option("--out", "target", type=click.Path(path_type=Path), required=True, help="The file to write.")
@click.option("--quality", type=click.Choice(QUALITIES), default="good")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def fit(
    source: Path, original: Path, game: Path | None, target: Path, quality: Quality, as_json: bool
) -> int:
    """Make SOURCE match an original and write the result."""
    if target.exists() and source.exists() and target.samefile(source):
        raise FurnelError(
            "Fitting", where=target, why="it is the source itself", remedy="Write the result to another file"
        )
    if target.exists() and original.exists() and target.samefile(original):
        raise FurnelError(
            "Fitting",
            where=target,
            why="it is the original itself",
            remedy="Write the result to another file",
        )
    data, path, role = _original(game, str(original)) if game else _original(original, None)
    result, points = fit_file(source, data, path, quality, role, Bar())
    write_bytes(target, result)
    if as_json:
        say_json({"out": str(target), "bytes": len(result), "points": points_json(points)})
    else:
        say_points(points)
    return 1 if worst(points) == "breaks" else 0


@click.command()
@click.argument("a", type=click.Path(path_type=Path))
@click.argument("b", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def compare(a: Path, b: Path, as_json: bool) -> int:
    """Compare file B with file A, as a replacement with its original."""
    points = compare_specs(spec_of(read_source(a), str(a)), spec_of(read_source(b), str(b)))
    if as_json:
        say_json(points_json(points))
    else:
        say_points(points)
    return 1 if worst(points) == "breaks" else 0


def _original(file_or_game: Path, asset: str | None) -> tuple[bytes, str, RoleRule | None]:
    if asset is None:
        return read_source(file_or_game), str(file_or_game), None
    catalogue = open_catalogue(file_or_game)
    try:
        return catalogue.read(catalogue.get(asset)), asset, catalogue.install.profile.role_of(asset)
    finally:
        catalogue.close()
