"""Furnel: find a game's assets, match replacements to them, build and try override mods."""

__version__ = "0.2.0"
