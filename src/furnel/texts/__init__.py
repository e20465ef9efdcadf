"""Definitions in TOML, JSON, XML, CSV and INI."""

from furnel.texts.address import Step, address_text, parse_address
from furnel.texts.definition import FORMATS, check, format_of, read_text
from furnel.texts.document import Document
from furnel.texts.documents import NOTATIONS, document_of, taken_apart
from furnel.texts.events import EventKeys, SoundEvent, read_events, with_events
from furnel.texts.patch import Change, applied, difference, disputes, settled, with_change, without_change
from furnel.texts.shape import Misfits, Shape, misfits, shape_of

__all__ = [
    "FORMATS",
    "NOTATIONS",
    "Change",
    "Document",
    "EventKeys",
    "Misfits",
    "Shape",
    "SoundEvent",
    "Step",
    "address_text",
    "applied",
    "check",
    "difference",
    "disputes",
    "document_of",
    "format_of",
    "misfits",
    "parse_address",
    "read_events",
    "read_text",
    "settled",
    "shape_of",
    "taken_apart",
    "with_change",
    "with_events",
    "without_change",
]  # fmt: skip
