"""JSON (RFC 8259) that keeps every byte; comments and trailing commas are taken where a game's file has them."""

from __future__ import annotations

import json
import re
from typing import Any

from furnel.errors import FurnelError
from furnel.texts.document import DEEPEST, Document, Item, Node, Value, Verbatim, indent_at

_SPACE = re.compile(r"(?:[ \t\r\n]+|//[^\n]*|/\*.*?\*/)*", re.DOTALL)
_BLANK = re.compile(r"[ \t\r\n]*")
_STRING = re.compile(r'"[^"\\]*(?:\\.[^"\\]*)*"', re.DOTALL)
_BARE = re.compile(r"[-+.\w]+")
_BRACKET = re.compile(r'(?:[^"\[\]{}]|"[^"\\]*(?:\\.[^"\\]*)*")*+[\[\]{}]', re.DOTALL)
_EXTRA = re.compile(r'"[^"\\]*(?:\\.[^"\\]*)*"|//[^\n]*|/\*.*?\*/', re.DOTALL)
_LAST_COMMA = re.compile(r'"[^"\\]*(?:\\.[^"\\]*)*"|[\[{,:]?[ \t\r\n]*,(?=[ \t\r\n]*[\]}])', re.DOTALL)
_SAID = {
    "Expecting value": "a value is missing",
    "Expecting ',' delimiter": "a comma or a closing bracket is missing",
    "Expecting ':' delimiter": "a colon is missing",
    "Expecting property name enclosed in double quotes": "a key in quotes is missing",
    "Extra data": "something stands behind the end",
    "Unterminated string starting at": "a text is never closed",
    "Invalid control character at": "a text is never closed, or has a sign that JSON does not allow",
    "Invalid \\escape": "a text has a sign behind \\ that JSON does not know",
}


class _Twice(ValueError):
    """A key that is there twice."""

    def __init__(self, key: str) -> None:
        super().__init__(key)
        self.key = key


def _table(pairs: list[tuple[str, Value]]) -> dict[str, Value]:
    out = dict(pairs)
    if len(out) != len(pairs):
        seen: set[str] = set()
        for key, _ in pairs:
            if key in seen:
                raise _Twice(key)
            seen.add(key)
    return out


def _no_number(name: str) -> Value:
    raise ValueError(f"{name} is no JSON value")


def _whole(digits: str) -> int | float:
    return int(digits) if len(digits) < 400 else float(digits)


def _read(text: str) -> Value:
    """Strict JSON as plain data. Raises ValueError; for nesting that no machine reads, too."""
    try:
        return json.loads(text, object_pairs_hook=_table, parse_constant=_no_number, parse_int=_whole)
    except RecursionError:
        raise ValueError(f"it is nested more than {DEEPEST} deep") from None


def _without_extras(text: str) -> str:
    """The text with white space for comments and for commas behind a last item."""

    def blank(found: re.Match[str]) -> str:
        whole = found.group()
        return whole if whole.startswith('"') else re.sub(r"[^\r\n]", " ", whole)

    def last(found: re.Match[str]) -> str:
        whole = found.group()
        return whole if whole[0] in '"[{,:' and whole != "," else whole[:-1] + " "

    return _LAST_COMMA.sub(last, _EXTRA.sub(blank, text))


class JsonDocument(Document):
    """A JSON definition.

    Whether it is well formed is for the standard reader to say, which is quick; where its parts stand is looked for when they
    are asked for, and what is wrong with it only when something is.
    """

    notation = "JSON"
    _clean: str = ""
    _ends: dict[int, int] = {}

    def _parse(self) -> Node:
        clean = self.text
        try:
            self.kept["plain"] = _read(clean)
        except ValueError:
            clean = _without_extras(clean)
            try:
                self.kept["plain"] = _read(clean)
            except ValueError as error:
                raise self._fault(error) from error
        object.__setattr__(self, "_clean", clean)
        object.__setattr__(self, "_ends", self._matched())
        return self._value(self._past_space(0))

    def _matched(self) -> dict[int, int]:
        """Where every bracket's partner stands. Raises FurnelError for nesting that is too deep."""
        opened: list[int] = []
        ends = {}
        for found in _BRACKET.finditer(self._clean):
            at = found.end() - 1
            if self._clean[at] in "{[":
                opened.append(at)
                if len(opened) > DEEPEST:
                    raise self._damage(at, f"it is nested more than {DEEPEST} deep")
            else:
                ends[opened.pop()] = at + 1
        return ends

    def _value(self, at: int) -> Node:
        text = self._clean
        if text[at] in "{[":
            end = self._ends[at]
            return Node(
                "table" if text[at] == "{" else "list",
                at,
                end,
                items=lambda: self._items_of(at, end),
                plain=lambda: _read(text[at:end]),
            )
        found = (_STRING if text[at] == '"' else _BARE).match(text, at)
        assert found is not None
        raw = found.group()
        plain = text[at] == '"' and "\\" not in raw
        return Node("scalar", at, found.end(), raw[1:-1] if plain else _read(raw))

    def _items_of(self, start: int, end: int) -> tuple[Item, ...]:
        text, items = self._clean, list[Item]()
        at = self._past_space(start + 1)
        while at < end - 1:
            first, key, key_end = at, "", -1
            if text[start] == "{":
                found = _STRING.match(text, at)
                assert found is not None
                raw, key_end = found.group(), found.end()
                key = json.loads(raw) if "\\" in raw else raw[1:-1]
                at = self._past_space(self._past_space(key_end) + 1)
            node = self._value(at)
            items.append(Item(key, node, first, node.end, first if key_end >= 0 else -1, key_end))
            at = self._past_space(node.end)
            if text[at] == ",":
                at = self._past_space(at + 1)
        return tuple(items)

    def _past_space(self, at: int) -> int:
        found = _BLANK.match(self._clean, at)
        return found.end() if found else at

    def _skip(self, at: int) -> int:
        found = _SPACE.match(self.text, at)
        return found.end() if found else at

    def _fault(self, error: ValueError) -> FurnelError:
        """What is wrong, and where."""
        if isinstance(error, _Twice):
            places = [
                found.start()
                for found in re.finditer(re.escape(json.dumps(error.key, ensure_ascii=False)), self.text)
            ]
            return self._damage(places[1] if len(places) > 1 else 0, f"{error.key!r} is there twice")
        if isinstance(error, json.JSONDecodeError):
            said = _SAID.get(error.msg.partition(":")[0], error.msg)
            return self._damage(error.pos, said if error.pos < len(self.text) else "it ends too soon")
        return self._damage(0, str(error))

    def _key_spelled(self, key: str) -> str:
        return json.dumps(key, ensure_ascii=False)

    def moving(self, node: Node) -> Value:
        return Verbatim(self.text[node.start : node.end])

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, float) and not isinstance(value, bool) and value.is_integer() and "." in like:
            return f"{value:.1f}" if abs(value) < 1e15 else repr(value)
        return self._dump(value, self._outer(parent))

    def _dump(self, value: Any, outer: str) -> str:
        """A value as text whose further lines are indented behind `outer`."""
        if isinstance(value, Verbatim):
            return str(value)
        unit = self._unit()
        try:
            text = json.dumps(value, ensure_ascii=False, indent=unit or None, allow_nan=False)
        except (ValueError, TypeError) as error:
            raise self._refusal((), f"{value!r} cannot be written in JSON") from error
        flat = json.dumps(value, ensure_ascii=False, allow_nan=False)
        if (
            isinstance(value, list)
            and len(flat) < 80
            and not any(isinstance(part, list | dict) for part in value)
        ):
            return flat
        return text.replace("\n", self._line_end() + outer)

    def _line_end(self) -> str:
        return "\r\n" if "\r\n" in self.text else "\n"

    def _unit(self) -> str:
        """What one level is indented by; nothing where the text is on one line."""
        for item in self.root.items:
            if found := indent_at(self.text, item.start):
                return found
        return "\t" if "\n\t" in self.text else "  " if "\n" in self.text.strip() else ""

    def _outer(self, parent: Node) -> str:
        for item in parent.items:
            if "\n" in self.text[parent.start : item.start]:
                return indent_at(self.text, item.start)
        return ""

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        text = self.text
        inner = self._outer(parent)
        spread = bool(parent.items) and "\n" in text[parent.start : parent.items[0].start]
        if not parent.items:
            own = self._own_indent(parent)
            unit = self._unit()
            spread, inner = bool(unit), own + unit
        entry = (f"{self._key_spelled(key)}: " if parent.kind == "table" else "") + self._dump(value, inner)
        between = self._line_end() + inner if spread else " "
        if not parent.items:
            end = self._line_end() + self._own_indent(parent) if spread else ""
            lead = between if spread else ""
            return parent.start + 1, parent.end - 1, f"{lead}{entry}{end}"
        if place < len(parent.items):
            at = parent.items[place].start
            return at, at, f"{entry},{between}"
        at = parent.items[-1].end
        return at, at, f",{between}{entry}"

    def _own_indent(self, parent: Node) -> str:
        line = self.text.rfind("\n", 0, parent.start) + 1
        before = self.text[line : parent.start]
        return before[: len(before) - len(before.lstrip(" \t"))]

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        items, text = parent.items, self.text
        if place + 1 < len(items):
            after = self._past_comma(items[place].end)
            end = items[place + 1].start if not text[after : items[place + 1].start].strip() else after
            return items[place].start, end, ""
        if place:
            return items[place - 1].end, items[place].end, ""
        rest = self._past_comma(items[place].end)
        inner = text[parent.start + 1 : items[place].start] + text[rest : parent.end - 1]
        keep = inner if inner.strip() else ""
        return parent.start + 1, parent.end - 1, keep

    def _past_comma(self, at: int) -> int:
        after = self._skip(at)
        return after + 1 if self.text[after : after + 1] == "," else at
