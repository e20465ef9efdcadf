"""Sprite sheets: grids, the figures in a picture, and which of them stands in which cell."""

from furnel.sprites.cells import cells_of
from furnel.sprites.framemap import (
    Bed,
    Placing,
    Spot,
    anchors_of,
    filled,
    laid_out,
    map_text,
    parse_map,
    placed,
    scale_for,
    spread,
    spread_by_time,
)
from furnel.sprites.grid import Grid, background, crossings, grid_of
from furnel.sprites.layout import Animation, SheetLayout, cells_text, parse_cells, parse_runs, runs_text
from furnel.sprites.looked import SheetLook, faces_back, looked_at
from furnel.sprites.palette import (
    Colour,
    changes_text,
    colours_seen,
    parse_changes,
    parse_colours,
    ramp_moved,
    ramp_onto,
    ramps,
    recoloured,
    snapped,
    twins,
)
from furnel.sprites.poses import Found, Pose, ground_of, poses_of, poses_of_frames
from furnel.sprites.standing import Standing, standings

__all__ = [
    "Animation", "Bed", "Colour", "Found", "Grid", "Placing", "Pose", "SheetLayout", "SheetLook", "Spot", "Standing",
    "anchors_of", "background", "cells_of", "cells_text", "changes_text", "colours_seen", "crossings", "faces_back",
    "filled", "grid_of", "ground_of", "laid_out", "looked_at", "map_text", "parse_cells", "parse_changes", "parse_colours",
    "parse_map", "parse_runs", "placed", "poses_of", "poses_of_frames", "ramp_moved", "ramp_onto", "ramps", "recoloured",
    "runs_text", "scale_for", "snapped", "spread", "spread_by_time", "standings", "twins",
]  # fmt: skip
