"""Definitions in TOML, JSON, XML, CSV and INI."""

from furnel.texts.definition import FORMATS, check, format_of, read_text
from furnel.texts.events import EventKeys, SoundEvent, read_events, with_events

__all__ = [
    "FORMATS", "EventKeys", "SoundEvent", "check", "format_of", "read_events", "read_text", "with_events",
]  # fmt: skip
