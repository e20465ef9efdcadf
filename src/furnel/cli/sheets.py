"""`furnel sheet`."""

from __future__ import annotations

import re
from pathlib import Path

import click

from furnel.cli.output import echo, say_json, say_rows
from furnel.errors import FurnelError
from furnel.images import Picture
from furnel.media import PICTURE
from furnel.mods.render import read_source
from furnel.sprites import grid_of, poses_of, standings
from furnel.words import count


@click.command()
@click.argument("file", type=click.Path(path_type=Path))
@click.option("--cells", help="How large its cells are, such as 32x48: says how the figure stands in each.")
@click.option(
    "--tolerance", type=click.IntRange(0, 128), default=6, help="How far a colour may be from the ground's."
)
@click.option("--json", "as_json", is_flag=True, help="For scripts.")
def sheet(file: Path, cells: str | None, tolerance: int, as_json: bool) -> int:
    """The figures in a picture, in reading order; or, with --cells, how they stand in the cells of a sheet."""
    picture = PICTURE.opened(read_source(file), file)
    assert isinstance(picture, Picture)
    rows = _standing(picture, cells) if cells else _figures(picture, tolerance, as_json)
    if as_json:
        say_json(rows)
    elif rows:
        say_rows([list(rows[0]), *(list(row.values()) for row in rows)])
    return 0


def _standing(picture: Picture, cells: str) -> list[dict[str, object]]:
    found = re.fullmatch(r"(\d{1,5})[x×](\d{1,5})", cells)
    if found is None:
        raise FurnelError(
            "Cutting a sheet into frames", where=cells, why="it is no size", remedy="Write it as 32x48"
        )
    grid = grid_of(picture, (int(found.group(1)), int(found.group(2))))
    return [
        {
            "frame": place, "height": one.height, "floor": one.floor, "feet": one.middle, "at edge": one.at_edge,
            "odd pixels": " ".join(f"{x},{y}" for x, y in one.odd),
        }
        for place, one in enumerate(standings(picture, grid, grid.count), start=1)
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
