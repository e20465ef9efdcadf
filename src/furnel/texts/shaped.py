"""Notations by their shape: what real games write of their own, read as records and kept to the byte.

| shape | what it is |
|---|---|
| `sections` | `[heads]` (that may be closed) and `key = value`, again and again; lists over lines; `{ tables }` of rows |
| `lists` | `(head value (head value …))` |
| `nested` | `head name { key value … }`, with or without a sign between key and value |
| `indented` | `head name` and, further in, what belongs to it |
| `lines` | `head value key=value` on each line |
| `assignments` | `name = value` and `name = { … }` wherever that stands alone in a program; all else is left as it is |

A head with one value is that value; with several, a list; with more inside, a table whose `@name`, `@2` … are the values behind
the head. A line that is nothing of that kind is `@line`. Keys may be there several times. All values are texts; `_("…")` is the
text inside. Something new is written as what stands beside it, value for value.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field
from itertools import pairwise
from typing import Literal

from furnel.texts.address import Address, Step
from furnel.texts.described import Form
from furnel.texts.document import Document, Found, Item, Node, Value, alike, scalar_text
from furnel.texts.shapes import Brackets, Lines, Programs, Scan, Sections, Token, pieces_of

_READERS: dict[str, type[Brackets | Lines | Programs | Sections]] = {
    "sections": Sections,
    "lists": Brackets,
    "nested": Brackets,
    "indented": Lines,
    "lines": Lines,
    "assignments": Programs,
}


@dataclass(frozen=True)
class ShapedDocument(Document):
    """A definition whose notation a profile describes by its shape."""

    form: Form = field(default=Form(ending=".x", shape="lists"))
    notation = "described"
    is_typed = False

    @property
    def twins(self) -> Literal["", "all"]:  # type: ignore[override]
        """Whether a key is there several times in one table: if so, all keys may be."""
        if "twins" not in self.kept:
            self.kept["twins"] = "all" if self.form.shape != "sections" or _has_twins(self.root) else ""
        found: Literal["", "all"] = self.kept["twins"]
        return found

    def _parse(self) -> Node:
        reader = _READERS[self.form.shape](self.text, self.form, self._damage)
        self.kept["scan"] = reader
        return Node("table", 0, len(self.text), None, tuple(reader.read()))

    @property
    def _scan(self) -> Scan:
        found: Scan = self.kept["scan"]
        return found

    @property
    def tokens(self) -> list[Token]:
        """The pieces of the whole text, without blanks and comments; line ends count."""
        return self._scan.tokens

    # writing

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, dict | list):
            raise self._refusal((), "it is changed value by value")
        text, quote, escape = scalar_text(value), self.form.quote, self.form.escape
        sign = like[:1] if like[:1] and like[:1] in quote else ""
        if not sign and self._is_bare(text):
            return text
        sign = sign or quote[:1]
        if not sign or (not escape and sign in text):
            raise self._refusal((), f"{text!r} cannot be written in this notation")
        if escape:
            text = text.replace(escape, escape * 2).replace(sign, escape + sign)
        return sign + text + sign

    def _is_bare(self, text: str) -> bool:
        if self.form.shape == "sections":
            return (
                text == text.strip()
                and "\n" not in text
                and self._scan.cut(text) == text
                and text[:1] not in ("{", *self.form.quote)
            )
        found = pieces_of(self.form).fullmatch(text)
        return found is not None and found.lastgroup == "word"

    def _respelled(self, value: Value, found: Found, old: str) -> str:
        node = found.node
        if (
            not isinstance(value, list)
            or node.kind != "list"
            or any(item.node.kind != "scalar" for item in node.items)
        ):
            return self._spelled(value, found.parent or self.root, old)
        items = node.items
        if not items or not value or any(isinstance(part, dict | list) for part in value):
            raise self._refusal((), "a list keeps one value at least, and is changed value by value")
        between = self._between(items[0], items[1]) if len(items) > 1 else ", "
        parts = [
            self._spelled(part, node, self.text[item.node.start : item.node.end])
            for part, item in zip(value, [*items, *[items[-1]] * len(value)], strict=False)
        ]
        return old[: items[0].start - node.start] + between.join(parts) + old[items[-1].end - node.start :]

    def add(self, address: Address, key: str, value: Value, at: int | None = None) -> Document:
        """A new item, written as one that stands beside it. Raises FurnelError where nothing does."""
        found = self.find(address)
        node = found.node
        if node.kind == "scalar":
            raise self._refusal(address, "it is a single value, and nothing can be added to it")
        items = node.items
        place = len(items) if at is None else max(0, min(at, len(items)))
        like = self._like(items, key, value, place)
        if like is None:
            raise self._refusal(address, "nothing of its kind stands there, as which it could be written")
        text = self.text[like.start : like.end]
        between = self._gap(items, place)
        if place == len(items):
            where, copy = items[-1].end, between + text
        else:
            where, copy = items[place].start, text + between
        made = self._replaced(where, where, copy)
        number = sum(item.key == like.key for item in items[:place])
        keyed = node.kind == "table"
        there = (*address, Step(like.key if keyed else "", place=number if keyed else place))
        if keyed and key != like.key:
            item = made.find(there).item
            if item is None or item.key_start < 0:
                raise self._refusal(address, "what stands beside it has no key of its own")
            made = made._replaced(item.key_start, item.key_end, self._key_spelled(key))
            there = (*address, Step(key, place=sum(item.key == key for item in items[:place])))
        made = _made_into(made, there, value)
        if not alike(_texts(made.look(there)), _texts(value)):
            raise self._refusal(address, "it cannot be written in this notation")
        return made

    def _like(self, items: Sequence[Item], key: str, value: Value, place: int) -> Item | None:
        """What a new item is written as: one of its key and kind, else of its kind, the nearest."""
        kind = "table" if isinstance(value, dict) else "list" if isinstance(value, list) else "scalar"

        def rank(number: int) -> tuple[bool, bool, int]:
            item = items[number]
            return item.node.kind != kind, item.key != key, abs(place - number)

        numbers = [
            number for number, item in enumerate(items) if not item.key.startswith("@") or item.key == key
        ]
        best = min(numbers, key=rank, default=None)
        return items[best] if best is not None and items[best].node.kind == kind else None

    def _between(self, one: Item, other: Item) -> str:
        """What stands between two items, without comments."""
        text = self.text[one.end : other.start]
        pieces = pieces_of(self.form).finditer(text)
        return "".join(found.group() for found in pieces if found.lastgroup not in ("comment", "block"))

    def _gap(self, items: Sequence[Item], place: int) -> str:
        pairs = list(pairwise(items))
        if not pairs:
            line = self.text.rfind("\n", 0, items[0].start)
            lead = self.text[line + 1 : items[0].start]
            return ("\r\n" if "\r\n" in self.text else "\n") + lead if not lead.strip() else " "
        one, other = pairs[min(max(place - 1, 0), len(pairs) - 1)]
        return self._between(one, other)

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        items, item = parent.items, parent.items[place]
        if item.key.startswith("@") and item.key not in ("@item", "@line", "@list"):
            raise self._refusal((), "what stands behind a head stays with it: give it another value")
        before = self.text.rfind("\n", 0, item.start) + 1
        after = self.text.find("\n", item.end)
        after = len(self.text) if after < 0 else after + 1
        behind = self._scan.pieces(item.end, after)
        ends = [token.sort for token in behind if token.sort != "line"]
        if place and place + 1 == len(items) and not ends:
            last = items[place - 1]
            if self.form.separator in self._between(last, item) and self.form.shape in (
                "nested",
                "assignments",
            ):
                return last.end, item.end, ""
        if not self.text[before : item.start].strip() and all(sort == "sign" for sort in ends):
            return before, after, ""
        if place + 1 < len(items):
            return item.start, items[place + 1].start, ""
        return (items[place - 1].end if place else item.start), item.end, ""

    def _key_spelled(self, key: str) -> str:
        return self._spelled(key, self.root, "")


def _has_twins(node: Node) -> bool:
    if node.kind == "table" and len({item.key for item in node.items}) < len(node.items):
        return True
    return any(_has_twins(item.node) for item in node.items if item.node.kind != "scalar")


def _texts(value: Value) -> Value:
    """Plain data with all its values as texts."""
    if isinstance(value, dict):
        return {key: _texts(part) for key, part in value.items()}
    if isinstance(value, list):
        return [_texts(part) for part in value]
    return scalar_text(value)


def _made_into(document: Document, there: Address, value: Value) -> Document:
    """A copied item with the values of another: what it has and should not have goes, what is missing is added."""
    now = document.look(there)
    if isinstance(value, dict) and isinstance(now, dict):
        for key in [key for key in now if key not in value]:
            many = sum(item.key == key for item in document.find(there).node.items)
            for _ in range(many):
                document = document.drop((*there, Step(key, place=0)))
        for key, part in value.items():
            if key not in now:
                several = isinstance(part, list) and any(isinstance(row, dict) for row in part)
                for one in part if several else [part]:
                    document = document.add(there, key, one)
            elif not alike(_texts(now[key]), _texts(part)):
                document = _made_into(document, (*there, Step(key, place=0)), part)
        return document
    if alike(_texts(now), _texts(value)):
        return document
    return document.set(there, value)
