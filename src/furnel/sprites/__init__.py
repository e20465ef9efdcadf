"""Sprite sheets: grids and frames."""

from furnel.sprites.grid import Grid, background, frames, grid_of

__all__ = ["Grid", "background", "frames", "grid_of"]
