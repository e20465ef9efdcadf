"""Sprite sheets: grids, the figures in a picture, and which of them stands in which cell."""

from furnel.sprites.framemap import (
    Placing,
    anchors_of,
    filled,
    laid_out,
    map_text,
    parse_map,
    scale_for,
)
from furnel.sprites.grid import Grid, background, crossings, grid_of
from furnel.sprites.poses import Found, Pose, ground_of, poses_of
from furnel.sprites.standing import Standing, standings

__all__ = [
    "Found", "Grid", "Placing", "Pose", "Standing", "anchors_of", "background", "crossings", "filled", "grid_of", "ground_of",
    "laid_out", "map_text", "parse_map", "poses_of", "scale_for", "standings",
]  # fmt: skip
