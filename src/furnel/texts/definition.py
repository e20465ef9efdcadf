"""Definitions: the texts that tell a game how to use its assets."""

from __future__ import annotations

from furnel.texts.documents import decoded_text, document_of, notation_of, taken_apart

FORMATS = {
    ".toml": "TOML", ".json": "JSON", ".xml": "XML", ".csv": "CSV", ".tsv": "TSV", ".ini": "INI", ".cfg": "INI",
    ".properties": "properties", ".txt": "text",
}  # fmt: skip


def format_of(path: str) -> str | None:
    """The text format that a path's ending stands for, or None."""
    return FORMATS.get(f".{path.rpartition('.')[2].lower()}") or notation_of(path)


def read_text(data: bytes, where: object = "") -> str:
    """A definition's text. Raises FurnelError when it is neither UTF-8 nor marked as UTF-16."""
    return decoded_text(data, str(where))[0]


def check(data: bytes, path: str) -> None:
    """Raise FurnelError, with line and reason, when a definition is not well formed."""
    if taken_apart(path):
        document_of(data, path)
    else:
        read_text(data, path)
