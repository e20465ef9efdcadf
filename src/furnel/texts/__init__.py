"""Definitions in TOML, JSON, XML, CSV and INI."""

from furnel.texts.definition import check, format_of, read_text

__all__ = ["check", "format_of", "read_text"]
