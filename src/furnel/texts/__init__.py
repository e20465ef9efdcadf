"""Definitions in TOML, JSON, XML, CSV and INI."""

from furnel.texts.definition import FORMATS, check, format_of, read_text

__all__ = ["FORMATS", "check", "format_of", "read_text"]
