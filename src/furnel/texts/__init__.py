"""Definitions in TOML, JSON, XML, CSV and INI."""

from furnel.texts.definition import FORMATS, check, format_of, read_text
from furnel.texts.events import EventKeys, SoundEvent, read_events, with_events
from furnel.texts.shape import Misfits, Shape, misfits, shape_of

__all__ = [
    "FORMATS", "EventKeys", "Misfits", "Shape", "SoundEvent", "check", "format_of", "misfits", "read_events", "read_text",
    "shape_of", "with_events",
]  # fmt: skip
