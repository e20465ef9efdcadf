"""`furnel sheet` and `furnel recolour`."""

from __future__ import annotations

import re
from pathlib import Path

import click

from furnel.cli.output import Bar, echo, say_json, say_rows, say_table
from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.media import PICTURE
from furnel.mods.framefiles import frames_in, write_as_animation, write_as_files, write_as_layers
from furnel.mods.recolouring import recolour_files
from furnel.mods.render import read_source
from furnel.sprites import (
    SheetLayout,
    cells_of,
    colours_seen,
    parse_changes,
    parse_colours,
    parse_runs,
    poses_of,
    ramp_onto,
    ramps,
    standings,
    twins,
)
from furnel.sprites.palette import MOST
from furnel.words import count


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option(
    "--cells", help="How large its cells are, such as 32x48: says how the figure stands in each; or `found`."
)
@click.option("--runs", default="", help="The cells of its animations, such as `1-5 6-7`.")
@click.option("--gutter", type=click.IntRange(0, 256), default=0, help="Pixels between cells.")
@click.option("--margin", type=click.IntRange(0, 256), default=0, help="Pixels around all cells.")
@click.option("--poses", is_flag=True, help="The figures, although --cells are given.")
@click.option(
    "--colours", is_flag=True, help="Its colours instead, by ramps, with how many pixels have each."
)
@click.option(
    "--tolerance", type=click.IntRange(0, 128), default=6, help="How far a colour may be from the ground's."
)
@click.option("--animation", type=click.Path(path_type=Path), help="Write its cells as .gif or .png (APNG).")
@click.option(
    "--speed", type=click.FloatRange(0.1, 100), default=8.0, help="Frames a second of the animation."
)
@click.option(
    "--into", type=click.Path(path_type=Path), help="Write its cells as numbered PNGs into this folder."
)
@click.option("--layers", type=click.Path(path_type=Path), help="Write its cells as .ora, a layer each.")
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def sheet(
    file: Path, cells: str | None, runs: str, gutter: int, margin: int, poses: bool, colours: bool, tolerance: int,
    animation: Path | None, speed: float, into: Path | None, layers: Path | None, as_json: bool,
) -> int:  # fmt: skip
    """The figures in a picture, in reading order; or, with --cells, how they stand in the cells of a sheet."""
    picture = PICTURE.opened(read_source(file), file)
    assert isinstance(picture, Picture)
    if cells == "found":
        rows = _found_cells(picture)
    elif colours:
        rows = _colours(picture)
    elif cells and not poses:
        layout = SheetLayout(cell_size(cells), margin, gutter, parse_runs(runs))
        rows = _standing(picture, layout)
        _write(picture, layout, animation, speed, into, layers)
    else:
        rows = _figures(picture, tolerance, as_json)
    if (animation or into or layers) and not (cells and not poses):
        raise click.UsageError("say with --cells which cells to write")
    say_table(rows, as_json)
    return 0


@click.command()
@click.argument("files", nargs=-1, required=True, type=click.Path(path_type=Path, exists=True))
@click.option(
    "--map", "changes", multiple=True, help="A colour and what it becomes: c03020=2060c0. Several times."
)
@click.option(
    "--ramp",
    "ramp",
    multiple=True,
    help="Colours from dark to light onto others: 401010,a02020=102040,2060c0.",
)
@click.option(
    "--out", "target", type=click.Path(path_type=Path), required=True, help="The folder to write to."
)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def recolour(
    files: tuple[Path, ...], changes: tuple[str, ...], ramp: tuple[str, ...], target: Path, as_json: bool
) -> int:
    """Change exactly these colours in FILES, or in all pictures below folders, each written as the kind of file that it is."""
    wanted = parse_changes(" ".join(changes))
    for one in ramp:
        old, _, new = one.partition("=")
        wanted |= ramp_onto(*(parse_colours(part.replace(",", " ")) for part in (old, new)))
    if not wanted:
        raise click.UsageError("say which colours with --map or --ramp")
    found = recolour_files(files, target, wanted, Bar())
    rows: list[dict[str, object]] = [
        {
            "file": str(one.file), "pixels": one.pixels, "left over": one.left_over, "out": str(one.target or ""),
            "why": one.refused,
        }
        for one in found
    ]  # fmt: skip
    if as_json:
        say_json(rows)
    else:
        say_rows(
            [list(rows[0]), *(list(row.values()) for row in rows)] if rows else [["there is no picture"]]
        )
        if rows and not any(row["out"] or row["why"] for row in rows):
            echo("furnel: none of these colours is in them: nothing is written", err=True)
    return 1 if any(one.refused for one in found) else 0


def cell_size(text: str) -> tuple[int, int]:
    """A cell's width and height from `32x48`. Raises FurnelError for what is none."""
    found = re.fullmatch(r"(\d{1,5})[x×](\d{1,5})", text)
    if found is None:
        raise FurnelError(
            "Cutting a sheet into frames", where=text, why="it is no size", remedy="Write it as 32x48"
        )
    return int(found.group(1)), int(found.group(2))


def _write(
    picture: Picture,
    layout: SheetLayout,
    animation: Path | None,
    speed: float,
    into: Path | None,
    layers: Path | None,
) -> None:
    """The sheet's cells as an animation, as files, as layers."""
    grid = layout.grid(picture)
    names = layout.names(grid.columns * grid.rows(picture.height))
    frames = frames_in(picture, grid, names, layout.used or range(grid.count))
    if animation is not None:
        write_as_animation(frames, speed, animation)
    if layers is not None:
        write_as_layers(frames, layers)
    if into is not None:
        write_as_files(frames, into)


def _found_cells(picture: Picture) -> list[dict[str, object]]:
    names = ("cell", "left", "top", "width", "height")
    return [
        dict(zip(names, (place, *box), strict=True)) for place, box in enumerate(cells_of(picture), start=1)
    ]


def _colours(picture: Picture) -> list[dict[str, object]]:
    known = {colour.rgb: colour for colour in colours_seen([picture])}
    near = {rare.rgb: other.hex for rare, other in twins(tuple(known.values()))} if len(known) <= MOST else {}
    return [
        {"ramp": number, "colour": bytes(rgb).hex(), "pixels": known[rgb].pixels, "like": near.get(rgb, "")}
        for number, ramp in enumerate(ramps(list(known)), start=1) for rgb in ramp
    ]  # fmt: skip


def _standing(picture: Picture, layout: SheetLayout) -> list[dict[str, object]]:
    grid = layout.grid(picture)
    names = layout.names(grid.count)
    places = [place for place in (layout.used or range(grid.count)) if place < grid.count]
    found = standings(picture, grid, grid.count, layout.ink(picture))
    return [
        {
            "frame": names[place] if layout.animations else place + 1, "height": one.height, "floor": one.floor,
            "feet": one.middle, "at edge": one.at_edge, "odd pixels": " ".join(f"{x},{y}" for x, y in one.odd),
        }
        for place in places for one in (found[place],)
    ]  # fmt: skip


def _figures(picture: Picture, tolerance: int, quiet: bool) -> list[dict[str, object]]:
    found = poses_of(picture, tolerance)
    if not quiet:
        grounds = ", ".join(bytes(colour).hex() for colour in found.ground) or "clear"
        marks = f", {count(len(found.others), 'mark')} that are none" if found.others else ""
        echo(f"{count(len(found.poses), 'figure')} on {grounds}{marks}")
    return [
        {
            "figure": place, "left": pose.left, "top": pose.top, "width": pose.width, "height": pose.height,
            "feet": f"{pose.foot_x:g},{pose.foot_y}",
        }
        for place, pose in enumerate(found.poses, start=1)
    ]  # fmt: skip
