"""Definitions in TOML, JSON, XML, CSV and INI."""

from furnel.texts.address import Step, address_text, parse_address
from furnel.texts.definition import FORMATS, check, format_of, read_text, stored_like
from furnel.texts.described import Form
from furnel.texts.document import Document, Node
from furnel.texts.documents import (
    NOTATIONS,
    document_as,
    document_of,
    is_shaped,
    leaf_rows,
    taken_apart,
    use_forms,
)
from furnel.texts.events import EventKeys, SoundEvent, read_events, with_events
from furnel.texts.guessing import Guess, guess_form, guesses, spread
from furnel.texts.meaning import Fault, Known, Meaning, Meanings, ValueRule, faults, ids_of, meanings
from furnel.texts.overlay import changed_part, gone, laid_over
from furnel.texts.patch import (
    Change,
    applied,
    difference,
    disputes,
    merged,
    settled,
    with_change,
    without_change,
)
from furnel.texts.places import spots, tables

__all__ = [
    "FORMATS",
    "NOTATIONS",
    "Change",
    "Document",
    "EventKeys",
    "Fault",
    "Form",
    "Guess",
    "Known",
    "Meaning",
    "Meanings",
    "Node",
    "SoundEvent",
    "Step",
    "ValueRule",
    "address_text",
    "applied",
    "changed_part",
    "check",
    "difference",
    "disputes",
    "document_as",
    "document_of",
    "faults",
    "format_of",
    "gone",
    "guess_form",
    "guesses",
    "ids_of",
    "is_shaped",
    "laid_over",
    "leaf_rows",
    "meanings",
    "merged",
    "parse_address",
    "read_events",
    "read_text",
    "settled",
    "spots",
    "spread",
    "stored_like",
    "tables",
    "taken_apart",
    "use_forms",
    "with_change",
    "with_events",
    "without_change",
]
