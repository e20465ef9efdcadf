"""Every notation, by the ending of the file. One more is a module with a `Document` and a line in `NOTATIONS`."""

from __future__ import annotations

from furnel.errors import FurnelError
from furnel.texts.csvtext import CsvDocument
from furnel.texts.document import Document, decoded
from furnel.texts.initext import IniDocument
from furnel.texts.jsontext import JsonDocument
from furnel.texts.tomltext import TomlDocument
from furnel.texts.xmltext import XmlDocument

NOTATIONS: dict[str, type[Document]] = {
    ".toml": TomlDocument,
    ".json": JsonDocument,
    ".xml": XmlDocument,
    ".csv": CsvDocument,
    ".tsv": CsvDocument,
    ".ini": IniDocument,
    ".cfg": IniDocument,
    ".properties": IniDocument,
}


def taken_apart(path: str) -> bool:
    """Whether a file of this name is in a notation that Furnel takes apart."""
    return f".{path.rpartition('.')[2].lower()}" in NOTATIONS


def document_of(data: bytes, where: str, encoding: str = "") -> Document:
    """A definition's bytes as a document. Raises FurnelError for damage, and for files that are not taken apart.

    `where` is its path, whose ending says the notation; `encoding` what its bytes are where no mark tells and it is not UTF-8.
    """
    kind = NOTATIONS.get(f".{where.rpartition('.')[2].lower()}")
    if kind is None:
        raise FurnelError(
            "Reading a definition",
            where=where,
            why="this kind of file is not taken apart",
            remedy=f"Known endings: {', '.join(NOTATIONS)}",
        )
    text, how = decoded(data, where, encoding)
    return kind(text, where, how)
