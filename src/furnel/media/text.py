"""Definitions: texts that a game reads."""

from __future__ import annotations

from dataclasses import dataclass

from furnel import texts
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.media.medium import Data, Facts, Kind, Medium, Preview, Rows, Spec
from furnel.signatures import is_text, text_sort
from furnel.words import number

_LINES, _WIDE, _HEAD = 8, 60, 4096


@dataclass(frozen=True, slots=True)
class TextSpec(Spec):
    """A definition; `fault` says why it cannot be read, or nothing. What is not `taken_apart` is any text."""

    file_type: str
    lines: int
    fault: str = ""
    taken_apart: bool = True

    @property
    def kind(self) -> Kind:
        return "definition"


class _Text(Medium):
    name = "text"
    called = "text"
    kinds = ("definition",)
    titles = ("Definitions",)
    spec_type = TextSpec
    suffixes = tuple(texts.FORMATS)

    def recognises(self, data: Data, path: str) -> bool:
        return texts.format_of(path) is not None or is_text(data[:_HEAD])

    def facts(self, data: Data, size: int, path: str, does: frozenset[str]) -> Facts:
        return Facts("definition", texts.format_of(path) or text_sort(path).format)

    def spec(self, data: Data, path: str, role: RoleRule | None) -> TextSpec:
        data, fault = bytes(data), ""
        try:
            texts.check(data, path)
        except FurnelError as error:
            fault = f"line {error.line}: {error.why}" if error.line else error.why
        file_type = texts.format_of(path) or text_sort(path).format
        return TextSpec(file_type, data.count(b"\n") + 1, fault, texts.taken_apart(path))

    def rows(self, facts: Facts, spec: Spec | None) -> Rows:
        rows = [("Format", facts.format)]
        if isinstance(spec, TextSpec):
            rows.append(("Lines", number(spec.lines)))
        return rows

    def preview(self, data: Data, where: object) -> Preview:
        head = bytes(data[:_HEAD])
        whole = head.rsplit(b"\n", 1)[0] if len(data) > _HEAD else head
        lines = texts.read_text(whole, where).splitlines()
        return Preview(text="\n".join(line[:_WIDE] for line in lines[:_LINES]))


TEXT = _Text()
