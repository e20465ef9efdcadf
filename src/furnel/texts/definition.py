"""Definitions: the texts that tell a game how to use its assets."""

from __future__ import annotations

import json
import tomllib

from furnel.errors import FurnelError

WHAT = "Reading a definition"
FORMATS = {".toml": "TOML", ".json": "JSON", ".xml": "XML", ".csv": "CSV", ".ini": "INI", ".txt": "text"}


def format_of(path: str) -> str | None:
    """The text format that a path's ending stands for, or None."""
    return FORMATS.get(f".{path.rpartition('.')[2].lower()}")


def read_text(data: bytes, where: object = "") -> str:
    """A definition's text. Raises FurnelError when it is not UTF-8."""
    try:
        return data.decode("utf-8-sig")
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        raise FurnelError(
            WHAT, where=f"{where}, line {line}", why="it is not UTF-8 text", remedy="Save it as UTF-8"
        ) from error


def check(data: bytes, path: str) -> None:
    """Raise FurnelError, with line and reason, when a definition is not well formed."""
    text = read_text(data, path)
    kind = format_of(path)
    try:
        if kind == "TOML":
            tomllib.loads(text)
        elif kind == "JSON":
            json.loads(text)
        elif kind == "XML":
            _check_xml(data)
    except (ValueError, RecursionError) as error:
        raise FurnelError(
            WHAT, where=path, why=str(error), remedy="Correct it in your text editor"
        ) from error


def _check_xml(data: bytes) -> None:
    from lxml import etree

    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)
    try:
        etree.fromstring(data, parser)
    except etree.XMLSyntaxError as error:
        raise ValueError(str(error)) from error
