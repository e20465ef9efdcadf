"""Properties files that keep every byte: a key and a value a line, with escapes and lines that go on.

As in the documentation of `java.util.Properties.load` (Oracle, Java SE).
"""

from __future__ import annotations

import re

from furnel.texts.document import Document, Item, Node, Value, scalar_text

_GAP = r"(?:[ \t\f]|\\\r?\n)*"
_PIECE = r"\\(?:\r\n|[\s\S])"
_LINE = re.compile(
    rf"[ \t\f]*(?:(?P<comment>[#!][^\r\n]*)|(?P<key>(?:{_PIECE}|[^ \t\f\r\n=:\\])+){_GAP}(?:[=:]{_GAP})?"
    rf"(?P<value>(?:{_PIECE}|[^\\\r\n])*)|(?P<bare>[=:]{_GAP})(?P<of_bare>(?:{_PIECE}|[^\\\r\n])*))?(?:\r\n|\r|\n|$)"
)
_ESCAPE = re.compile(r"\\(?:(\r?\n)[ \t\f]*|u([0-9a-fA-F]{4})|([\s\S]))")
_SIGNS = {"t": "\t", "n": "\n", "r": "\r", "f": "\f"}
_WRITTEN = {"\t": "\\t", "\n": "\\n", "\r": "\\r", "\f": "\\f", "\\": "\\\\"}


def _meant(raw: str) -> str:
    """What a key or a value means."""

    def one(found: re.Match[str]) -> str:
        if found.group(1) is not None:
            return ""
        if found.group(2) is not None:
            return chr(int(found.group(2), 16))
        return _SIGNS.get(found.group(3), found.group(3))

    text = _ESCAPE.sub(one, raw)
    return text.encode("utf-16", "surrogatepass").decode("utf-16", "replace")


class PropertiesDocument(Document):
    """A properties file; all its values are texts, and of two lines with one key the file is refused."""

    notation = "properties"
    is_typed = False

    def _parse(self) -> Node:
        items: dict[str, Item] = {}
        at = 0
        while at < len(self.text):
            found = _LINE.match(self.text, at)
            if found is None:
                raise self._damage(at, "a line ends in a single \\")
            if found.group("key") is not None or found.group("bare") is not None:
                name = "key" if found.group("key") is not None else "bare"
                start, end = found.span("value" if name == "key" else "of_bare")
                key = _meant(found.group("key")) if name == "key" else ""
                if key in items:
                    raise self._damage(at, f"{key!r} is there twice")
                node = Node("scalar", start, end, _meant(self.text[start:end]))
                items[key] = Item(
                    key, node, at, end, found.start(name), found.end("key") if name == "key" else start
                )
            at = found.end()
        return Node("table", 0, len(self.text), None, tuple(items.values()))

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, dict | list):
            raise self._refusal((), "a value is one text")
        text = "".join(self._sign(sign) for sign in scalar_text(value))
        return f"\\{text}" if text.startswith(" ") else text

    def _sign(self, sign: str) -> str:
        """A sign as it is written; one that the file's encoding does not have by its number."""
        try:
            sign.encode(self.encoding.name)
        except UnicodeEncodeError:
            units = sign.encode("utf-16-be", "surrogatepass")
            return "".join(f"\\u{units[at]:02x}{units[at + 1]:02x}" for at in range(0, len(units), 2))
        return _WRITTEN.get(sign, sign)

    def _key_spelled(self, key: str) -> str:
        return "".join(f"\\{sign}" if sign in " =:#!" else self._sign(sign) for sign in key)

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        end = "\r\n" if "\r\n" in self.text else "\n"
        between = " = "
        if parent.items:
            between = self.text[parent.items[0].key_end : parent.items[0].node.start].split("\\")[0] or " = "
        line = f"{self._key_spelled(key)}{between}{self._spelled(value, parent, '')}"
        if place < len(parent.items):
            at = parent.items[place].start
            return at, at, line + end
        lead = end if self.text and not self.text.endswith(("\n", "\r")) else ""
        return len(self.text), len(self.text), lead + line + end

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        found = _LINE.match(self.text, parent.items[place].start)
        assert found is not None
        return found.start(), found.end(), ""
