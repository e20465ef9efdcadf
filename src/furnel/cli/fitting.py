"""`furnel spec`, `furnel fit`, `furnel formats` and `furnel compare`."""

from __future__ import annotations

import math
from dataclasses import dataclass
from pathlib import Path

import click

from furnel import sound
from furnel.atomic import write_bytes
from furnel.blocks import QUALITIES, Quality
from furnel.cli.assets import open_catalogue
from furnel.cli.output import Bar, echo, points_json, say_json, say_outcomes, say_points, say_rows, say_spec
from furnel.cli.sheets import cell_size
from furnel.containers.folder import Folder
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.imagefiles import decode_level, read_texture
from furnel.images import full_levels
from furnel.media import SOUND, Spec, medium_of, spec_of
from furnel.mods.batch import MATCHES, Match, fit_folder, pair_up
from furnel.mods.fit import compare as compare_specs
from furnel.mods.fit import worst
from furnel.mods.gamewide import GameWide
from furnel.mods.render import read_source
from furnel.mods.single import fit_file
from furnel.mods.trials import ALLOWED, allowed_formats, try_formats


@click.command()
@click.argument("file_or_game", type=click.Path(path_type=Path))
@click.argument("asset", required=False)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def spec(file_or_game: Path, asset: str | None, as_json: bool) -> int:
    """What a file, or an ASSET of a game, is and demands."""
    found = _original(file_or_game, asset).spec
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
    help="The original: a file, or an asset of --game.",
)
@click.option("--game", type=click.Path(path_type=Path), help="The game that has the original.")
@click.option(
    "--out", "target", type=click.Path(path_type=Path), required=True, help="The file or folder to write."
)
@click.option("--quality", type=click.Choice(QUALITIES), default="good")
@click.option(
    "--match", type=click.Choice(MATCHES), default="path", help="For folders: what pairs the files."
)
@click.option("--cells", help="The original is a sheet with cells of this size, such as 32x48.")
@click.option(
    "--frames", help="How figures go into a sheet's cells: fill, or a frame map such as `1 2f 3 - =`."
)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def fit(
    source: Path,
    original: Path | None,
    game: Path | None,
    target: Path,
    quality: Quality,
    match: Match,
    cells: str | None,
    frames: str | None,
    as_json: bool,
) -> int:
    """Make SOURCE match an original and write the result.

    SOURCE may be a folder: its files are paired with those of the folder --like, or with the assets of --game, and the
    results are written below --out under the originals' paths.
    """
    if source.is_dir():
        return _fit_folder(source, original, game, target, quality, match, as_json)
    if original is None:
        raise click.UsageError("say which original with --like")
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
    known = _original(game, str(original)) if game else _original(original, None)
    role, wanted = known.role, known.spec
    if cells:
        role = RoleRule.model_validate({"path": "*", "role": "sheet", "cell": cell_size(cells)})
        wanted = spec_of(known.data, known.path, role)
    map_of = None if frames is None else "" if frames == "fill" else frames
    result, points = fit_file(source, known.data, known.path, quality, role, Bar(), wanted, map_of)
    write_bytes(target, result)
    if as_json:
        say_json({"out": str(target), "bytes": len(result), "points": points_json(points)})
    else:
        say_points(points)
    return 1 if worst(points) == "breaks" else 0


def _fit_folder(
    source: Path,
    like: Path | None,
    game: Path | None,
    target: Path,
    quality: Quality,
    match: Match,
    as_json: bool,
) -> int:
    """A folder's files against a game's assets, or against the files of another folder."""
    if target.resolve() in (source.resolve(), like.resolve() if like else None):
        raise FurnelError(
            "Fitting a folder",
            where=target,
            why="sources or originals are there",
            remedy="Choose another folder for --out",
        )
    if game is not None:
        catalogue = open_catalogue(game)
        try:
            pairs, left = pair_up(source, [asset.path for asset in catalogue.assets], match)
            found = fit_folder(
                pairs, catalogue.bytes_of, target, quality,
                catalogue.install.profile.role_of, Bar(), GameWide(catalogue).spec,
            )  # fmt: skip
        finally:
            catalogue.close()
    elif like is not None and like.is_dir():
        originals = Folder(like)
        pairs, left = pair_up(source, [entry.path for entry in originals.entries()], match)
        found = fit_folder(pairs, originals.read, target, quality, progress=Bar())
    else:
        raise click.UsageError("a folder needs --game, or a folder as --like")
    if as_json:
        say_json({
            "files": [
                {"source": str(one.pair.source), "original": one.pair.original, "state": one.state, "why": one.refused,
                 "out": str(one.target or ""), "points": points_json(one.points)}
                for one in found
            ],
            "for none": [str(file) for file in left],
        })  # fmt: skip
    else:
        say_outcomes(found, left, source)
    return 1 if any(one.state in ("breaks", "refused") for one in found) or not found else 0


@click.command()
@click.argument("picture", type=click.Path(path_type=Path))
@click.option("--quality", type=click.Choice(QUALITIES), default="good")
@click.option(
    "--file", "file_type", type=click.Choice(sorted(ALLOWED)), default="DDS", help="The kind of file."
)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def formats(picture: Path, quality: Quality, file_type: str, as_json: bool) -> int:
    """What every format would make of PICTURE: size, likeness, the worst block, the time."""
    whole = decode_level(read_texture(read_source(picture), picture))
    levels = full_levels(*whole.size)
    found = list(try_formats(whole, allowed_formats(file_type, whole), quality, levels, Bar()))
    if as_json:
        say_json([
            {"format": one.format, "bytes": one.size_bytes, "psnr db": one.psnr_db, "worst block": one.worst,
             "worst db": one.worst_db, "seconds": one.seconds}
            for one in found
        ])  # fmt: skip
    else:
        head = ("format", "bytes with levels", "likeness", "worst block", "at", "time")
        rows = [
            (one.format, one.size_bytes, _decibels(one.psnr_db), _decibels(one.worst_db), f"{one.worst[0]},{one.worst[1]}",
             f"{one.seconds * 1000:.0f} ms")
            for one in found
        ]  # fmt: skip
        say_rows([head, *rows])
    return 0


@click.command()
@click.argument("a", type=click.Path(path_type=Path))
@click.argument("b", type=click.Path(path_type=Path))
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def compare(a: Path, b: Path, as_json: bool) -> int:
    """Compare file B with file A, as a replacement with its original; sounds also by alignment, level and spectrum."""
    data = read_source(a), read_source(b)
    points = compare_specs(spec_of(data[0], str(a)), spec_of(data[1], str(b)))
    heard = None
    if all(medium_of(one, path) is SOUND for one, path in zip(data, (a, b), strict=True)):
        heard = sound.compare_clips(sound.read_clip(data[0], a)[0], sound.read_clip(data[1], b)[0])
    if as_json:
        say_json({"points": points_json(points), "heard": heard} if heard else points_json(points))
    else:
        say_points(points)
        if heard is not None:
            _say_heard(heard)
    return 1 if worst(points) == "breaks" else 0


def _say_heard(heard: sound.Comparison) -> None:
    side = "later" if heard.offset_s >= 0 else "earlier"
    echo(
        f"  alignment  B begins {abs(heard.offset_s):.4f} s {side}; the waves are {heard.alike:.0%} alike there"
    )
    echo(f"  level      B is {abs(heard.level_lu):.1f} LU {'louder' if heard.level_lu >= 0 else 'quieter'}")
    off = sorted(heard.bands, key=lambda band: -abs(band[1]))[:3]
    said = ", ".join(f"{hertz:.0f} Hz {value:+.1f} dB" for hertz, value in off if abs(value) >= 1)
    echo(f"  spectrum   {heard.spectral_db:.1f} dB apart on average" + (f"; most at {said}" if said else ""))


def _decibels(value: float) -> str:
    return "exact" if math.isinf(value) else f"{value:.1f} dB"


@dataclass(frozen=True, slots=True)
class _Original:
    data: bytes
    path: str
    role: RoleRule | None
    spec: Spec


def _original(file_or_game: Path, asset: str | None) -> _Original:
    """A file, or a game's asset with all that the game says of it."""
    if asset is None:
        data = read_source(file_or_game)
        return _Original(data, str(file_or_game), None, spec_of(data, str(file_or_game)))
    catalogue = open_catalogue(file_or_game)
    try:
        data = catalogue.bytes_of(asset)
        role = catalogue.install.profile.role_of(asset)
        return _Original(data, asset, role, GameWide(catalogue).spec(asset, data))
    finally:
        catalogue.close()
