"""The shore: a dock built from tiles, and figures with several animations."""

from __future__ import annotations

from typing import Any

import numpy as np
import numpy.typing as npt

from tarnlight import content
from tarnlight.art import shore
from tarnlight.world import World

Floats = npt.NDArray[np.floating[Any]]

_DOCK = (
    "..##################....",
    ".###################..#.",
    "..####.###.....#####....",
    "...#....#.......###..##.",
    "........#........#......",
)


def dock(world: World) -> Floats:
    """The dock: each tile chosen by the neighbours that it has."""
    tiles, side = world.picture(content.DOCK), shore.TILE
    out = np.zeros((len(_DOCK) * side, len(_DOCK[0]) * side, 4), np.float32)
    for y, row in enumerate(_DOCK):
        for x, mark in enumerate(row):
            if mark == "#":
                number = _neighbours(x, y)
                top, left = number // 4 * side, number % 4 * side
                part = tiles[top : top + side, left : left + side]
                if part.shape[:2] != (side, side):  # the missing pattern
                    part = tiles[:side, :side]
                out[y * side : (y + 1) * side, x * side : (x + 1) * side] = part
    return out / 255


def _neighbours(x: int, y: int) -> int:
    """The number of the dock's tile at a place: which of its sides go on."""
    number = 0
    for bit, (right, down) in enumerate(((0, -1), (1, 0), (0, 1), (-1, 0))):
        row = _DOCK[y + down] if 0 <= y + down < len(_DOCK) else ""
        number |= (0 <= x + right < len(row) and row[x + right] == "#") << bit
    return number


def moving(world: World, path: str, run: str, frame: int, zoom: int = 2) -> Floats:
    """A frame of one of a sheet's animations; a mask is painted first."""
    moves, sheet = content.MOVES[path], world.picture(path)
    cells = moves.runs[run]
    cell = moves.cell(sheet, cells[frame % len(cells)])
    if cell.shape[:2] != (moves.height, moves.width):  # the missing pattern
        cell = sheet[: moves.height, : moves.width]
    if moves.key is not None:
        cell = shore.painted(cell, world.book("rules/palette.json")["sailor"])
    return cell.repeat(zoom, 0).repeat(zoom, 1).astype(np.float32) / 255
