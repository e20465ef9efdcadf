"""Sprite sheets: grids and frames."""

from furnel.sprites.grid import Grid, background, crossings, grid_of

__all__ = ["Grid", "background", "crossings", "grid_of"]
