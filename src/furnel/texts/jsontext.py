"""JSON (RFC 8259) that keeps every byte; comments and trailing commas are taken where a game's file has them."""

from __future__ import annotations

import json
import re
from typing import Any

from furnel.texts.document import DEEPEST, Document, Item, Node, Scalar, Value, indent_at

_SPACE = re.compile(r"(?:[ \t\r\n]+|//[^\n]*|/\*.*?\*/)*", re.DOTALL)
_STRING = re.compile(r'"(?:[^"\\\x00-\x1f]|\\(?:["\\/bfnrt]|u[0-9a-fA-F]{4}))*"')
_NUMBER = re.compile(r"-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][-+]?\d+)?")
_WORD = re.compile(r"true|false|null")
_WORDS: dict[str, Scalar] = {"true": True, "false": False, "null": None}
_ALIKE = (int, float)


class JsonDocument(Document):
    """A JSON definition."""

    notation = "JSON"

    def _parse(self) -> Node:
        at = self._skip(0)
        root, at = self._value(at, 0)
        at = self._skip(at)
        if at != len(self.text):
            raise self._damage(at, f"{self.text[at]!r} stands behind the end")
        return root

    def _skip(self, at: int) -> int:
        found = _SPACE.match(self.text, at)
        return found.end() if found else at

    def _value(self, at: int, depth: int) -> tuple[Node, int]:
        text = self.text
        if depth > DEEPEST:
            raise self._damage(at, f"it is nested more than {DEEPEST} deep")
        sign = text[at : at + 1]
        if sign == "{" or sign == "[":
            return self._several(at, depth, sign == "{")
        if sign == '"':
            word, end = self._string(at)
            return Node("scalar", at, end, word), end
        if found := _NUMBER.match(text, at):
            raw = found.group()
            value: Scalar = float(raw) if any(mark in raw for mark in ".eE") else int(raw[:4000])
            return Node("scalar", at, found.end(), value), found.end()
        if found := _WORD.match(text, at):
            return Node("scalar", at, found.end(), _WORDS[found.group()]), found.end()
        raise self._damage(at, f"a value is missing before {sign!r}" if sign else "it ends too soon")

    def _string(self, at: int) -> tuple[str, int]:
        found = _STRING.match(self.text, at)
        if found is None:
            raise self._damage(at, "a text that is never closed, or has a sign that JSON does not allow")
        return json.loads(found.group()), found.end()

    def _several(self, start: int, depth: int, table: bool) -> tuple[Node, int]:
        text, close = self.text, "}" if table else "]"
        items: list[Item] = []
        keys: set[str] = set()
        at = self._skip(start + 1)
        while text[at : at + 1] != close:
            first, key, key_end = at, "", -1
            if table:
                if text[at : at + 1] != '"':
                    raise self._damage(
                        at, "a key in quotes is missing" if at < len(text) else "it ends too soon"
                    )
                key, key_end = self._string(at)
                if key in keys:
                    raise self._damage(at, f"{key!r} is there twice")
                keys.add(key)
                at = self._skip(key_end)
                if text[at : at + 1] != ":":
                    raise self._damage(at, "a colon is missing")
                at = self._skip(at + 1)
            node, at = self._value(at, depth + 1)
            items.append(Item(key, node, first, at, first if table else -1, key_end))
            at = self._skip(at)
            if text[at : at + 1] == ",":
                at = self._skip(at + 1)
            elif text[at : at + 1] != close:
                raise self._damage(
                    at, f"a comma or {close} is missing" if at < len(text) else "it ends too soon"
                )
        return Node("table" if table else "list", start, at + 1, None, tuple(items)), at + 1

    def _key_spelled(self, key: str) -> str:
        return json.dumps(key, ensure_ascii=False)

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, float) and not isinstance(value, bool) and value.is_integer() and "." in like:
            return f"{value:.1f}" if abs(value) < 1e15 else repr(value)
        return self._dump(value, self._outer(parent))

    def _dump(self, value: Any, outer: str) -> str:
        """A value as text whose further lines are indented behind `outer`."""
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
