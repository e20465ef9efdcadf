"""Every notation, by the ending of the file. One more is a module with a `Document` and a line in `NOTATIONS`."""

from __future__ import annotations

from collections.abc import Iterable
from fnmatch import fnmatchcase
from functools import lru_cache
from itertools import islice

from furnel.errors import FurnelError
from furnel.signatures import is_text
from furnel.texts.address import address_text
from furnel.texts.csvtext import CsvDocument
from furnel.texts.described import DescribedDocument, Form
from furnel.texts.document import Document, Encoding, declared_encoding, decoded, scalar_text
from furnel.texts.initext import IniDocument
from furnel.texts.jsontext import JsonDocument
from furnel.texts.places import spots
from furnel.texts.properties import PropertiesDocument
from furnel.texts.shaped import ShapedDocument
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
    ".properties": PropertiesDocument,
}


_HEAD = 4096
_forms: list[Form] = []


def use_forms(forms: Iterable[Form]) -> None:
    """Read texts as the game that is open writes them: its profile's notations stand before the known ones."""
    _forms[:] = sorted(forms, key=lambda form: not form.files)
    _form_of.cache_clear()


@lru_cache(1 << 14)
def _form_of(path: str) -> Form | None:
    """What the profile says of a path: by its whole, else by its ending."""
    ending = _ending(path)
    for form in _forms:
        if form.ending.lower() in ("", ending) and (not form.files or fnmatchcase(path, form.files)):
            return form
    return None


def _ending(path: str) -> str:
    name = path.rpartition("/")[2]
    return f".{name.rpartition('.')[2].lower()}" if "." in name else ""


def taken_apart(path: str) -> bool:
    """Whether a file of this name is in a notation that Furnel takes apart."""
    return _ending(path) in NOTATIONS or _form_of(path) is not None


def is_shaped(path: str) -> bool:
    """Whether files of this name are read by a shape: one that does not fit it is still a text."""
    form = _form_of(path)
    return form is not None and not form.written_as and form.shape != "brackets"


def notation_of(path: str) -> str | None:
    """What a file's notation is called, or None for one that is not taken apart."""
    form, kind = _form_of(path), NOTATIONS.get(_ending(path))
    if form is not None:
        return form.written_as or (_ending(path)[1:].upper() if is_shaped(path) else "") or "described"
    return kind.notation if kind is not None else None


def decoded_text(data: bytes, where: str, encoding: str = "") -> tuple[str, Encoding]:
    """A definition's text and how it is stored, by its mark, else as its game writes it. Raises FurnelError for damage."""
    form = _form_of(where)
    said = declared_encoding(data, where) if notation_of(where) == "XML" else ""
    try:
        return decoded(data, where, said or encoding or (form.encoding if form is not None else ""))
    except FurnelError:
        if not is_shaped(where) or not is_text(data[:_HEAD]):
            raise
        return data.decode("latin-1"), Encoding("latin-1")  # every byte stays itself


def document_as(form: Form, text: str, where: str) -> Document:
    """A text read by a form. Raises FurnelError where it does not fit."""
    if form.written_as:
        return next(one for one in NOTATIONS.values() if one.notation == form.written_as)(text, where)
    kind = DescribedDocument if form.shape == "brackets" else ShapedDocument
    return kind(text, where, form=form)


def leaf_rows(document: Document, most: int) -> list[tuple[str, str]]:
    """The first values of a definition with their addresses."""
    some = ((spot.address, spot.value) for spot in spots(document) if not isinstance(spot.value, dict | list))
    return [(address_text(address), scalar_text(value)) for address, value in islice(some, most)]


def document_of(data: bytes, where: str, encoding: str = "") -> Document:
    """A definition's bytes as a document. Raises FurnelError for damage, and for files that are not taken apart.

    `where` is its path, whose ending says the notation; `encoding` what its bytes are where neither a mark nor the game tells.
    """
    form, kind = _form_of(where), NOTATIONS.get(_ending(where))
    if form is not None and form.written_as:
        kind = next(one for one in NOTATIONS.values() if one.notation == form.written_as)
    if form is None and kind is None:
        raise FurnelError(
            "Reading a definition",
            where=where,
            why="this kind of file is not taken apart",
            remedy=f"Known endings: {', '.join([*NOTATIONS, *(form.ending for form in _forms if form.ending)])}",
        )
    text, how = decoded_text(data, where, encoding)
    if form is not None and not form.written_as:
        return (
            DescribedDocument(text, where, how, form)
            if form.shape == "brackets"
            else ShapedDocument(text, where, how, form)
        )
    assert kind is not None
    return kind(text, where, how)
