"""Definitions: the texts that tell a game how to use its assets."""

from __future__ import annotations

from furnel.errors import FurnelError
from furnel.signatures import is_text
from furnel.texts.document import Encoding
from furnel.texts.documents import decoded_text, document_of, is_shaped, notation_of, taken_apart

_HEAD = 4096
FORMATS = {
    ".toml": "TOML", ".json": "JSON", ".xml": "XML", ".csv": "CSV", ".tsv": "TSV", ".ini": "INI", ".cfg": "INI",
    ".properties": "properties", ".txt": "text",
}  # fmt: skip


def format_of(path: str) -> str | None:
    """The text format that a path's ending stands for, or None."""
    return FORMATS.get(f".{path.rpartition('.')[2].lower()}") or notation_of(path)


def read_text(data: bytes, where: object = "") -> str:
    """A definition's text. One that is not taken apart may be in an encoding with a byte a letter, which is read as Latin-1:
    every byte stays itself. Raises FurnelError when it is no text."""
    return _decoded(data, str(where))[0]


def _decoded(data: bytes, where: str) -> tuple[str, Encoding]:
    try:
        return decoded_text(data, where)
    except FurnelError:
        if taken_apart(where) or not is_text(data[:_HEAD]):
            raise
        return data.decode("latin-1"), Encoding("latin-1")


def stored_like(text: str, game: bytes, where: str) -> bytes:
    """A text in the encoding of the game's own. Raises FurnelError for a letter that this does not have."""
    how = _decoded(game, where)[1]
    try:
        return how.mark + text.encode(how.name)
    except UnicodeEncodeError as error:
        raise FurnelError(
            "Writing a text", where=where, line=text[: error.start].count("\n") + 1,
            why=f"the game's own is in {how.name}, which has no {text[error.start]!r}", remedy="Write it with other letters",
        ) from error  # fmt: skip


def check(data: bytes, path: str) -> None:
    """Raise FurnelError, with line and reason, when a definition is not well formed."""
    if taken_apart(path) and not is_shaped(path):
        document_of(data, path)
    else:
        read_text(data, path)
