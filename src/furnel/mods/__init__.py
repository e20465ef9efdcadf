"""Mods: projects, swaps, specs, the fit, building, installing."""
