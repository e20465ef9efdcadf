"""INI files that keep every byte: sections, `key = value` or `key: value`, comments on lines of their own."""

from __future__ import annotations

import io
import re

from furnel.texts.document import Document, Item, Node, Value, scalar_text

_SECTION = re.compile(r"[ \t]*\[([^\]\n]+)\][ \t]*(?:[#;][^\n]*)?$")
_PAIR = re.compile(r"([^\s=:#;\[][^=:\n]*?)([ \t]*[=:][ \t]*)([^\n]*?)[ \t\r]*$")


class IniDocument(Document):
    """An INI file; all its values are texts."""

    notation = "INI"
    is_typed = False

    @property
    def _comment(self) -> re.Pattern[str]:
        """Where a comment behind a value begins: at a blank and the sign that this file's own lines of comment begin with."""
        if "comment" not in self.kept:
            signs = {line.lstrip()[:1] for line in self.text.splitlines()} & {";", "#"} or {";"}
            self.kept["comment"] = re.compile(f"[ \\t]+[{''.join(sorted(signs))}][^\n]*")
        found: re.Pattern[str] = self.kept["comment"]
        return found

    def _parse(self) -> Node:
        outer: list[Item] = []
        inner: list[Item] = outer
        head: tuple[str, int, int, int] | None = None
        for start, end in self._lines():
            line = self.text[start:end]
            if not line.strip() or line.lstrip()[:1] in "#;":
                continue
            if found := _SECTION.match(line.rstrip("\r")):
                self._close(outer, head, inner, start)
                head = found.group(1).strip(), start, start + found.start(1), start + found.end(1)
                inner = []
                if any(item.key == head[0] for item in outer):
                    raise self._damage(start, f"the section {head[0]!r} is there twice")
            elif line[:1] in " \t" and inner:
                last = inner[-1]
                if self._comment.match(self.text, last.node.end):
                    raise self._damage(start, "a value with a comment behind it goes on in the next line")
                text = self.text[last.node.start : start + len(line.rstrip())]
                value = "\n".join(part.strip() for part in text.splitlines())
                node = Node("scalar", last.node.start, last.node.start + len(text), value)
                inner[-1] = Item(last.key, node, last.start, node.end, last.key_start, last.key_end)
            elif found := _PAIR.match(line):
                key = found.group(1)
                value, quiet = found.group(3), self._comment.search(found.group(3))
                if quiet is not None:
                    value = value[: quiet.start()]
                if any(item.key == key for item in inner):
                    raise self._damage(start, f"{key!r} is there twice")
                begin = start + found.start(3)
                node = Node("scalar", begin, begin + len(value), value)
                inner.append(Item(key, node, start, node.end, start + found.start(1), start + found.end(1)))
            else:
                raise self._damage(start, "it is neither a [section], nor key = value, nor a comment")
        self._close(outer, head, inner, len(self.text))
        return Node("table", 0, len(self.text), None, tuple(outer))

    def _lines(self) -> list[tuple[int, int]]:
        out, at = [], 0
        for line in io.StringIO(self.text):  # other readers begin a line behind \n alone, too
            out.append((at, at + len(line.rstrip("\n"))))
            at += len(line)
        return out

    def _close(
        self, outer: list[Item], head: tuple[str, int, int, int] | None, inner: list[Item], end: int
    ) -> None:
        if head is not None:
            node = Node("table", head[1], end, None, tuple(inner))
            outer.append(Item(head[0], node, head[1], end, head[2], head[3]))

    def _line_end(self) -> str:
        return "\r\n" if "\r\n" in self.text else "\n"

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, dict | list):
            raise self._refusal((), "a value is one line of text")
        if self._comment.search(scalar_text(value)):
            raise self._refusal((), "a blank before ; or # would make a comment of the rest")
        return scalar_text(value)

    def _between(self) -> str:
        inner = (part for section in self.root.items for part in section.node.items)
        for item in (*self.root.items, *inner):
            if item.node.kind == "scalar":
                return self.text[item.key_end : item.node.start]
        return " = "

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        end, between = self._line_end(), self._between()
        if isinstance(value, dict):
            lines = [f"{name}{between}{scalar_text(part)}{end}" for name, part in value.items()]
            at = parent.items[place].start if place < len(parent.items) else len(self.text)
            lead = end if at and not self.text[:at].endswith("\n") else ""
            gap = end if at and self.text[:at].strip() else ""
            return at, at, lead + (gap if at == len(self.text) else "") + f"[{key}]{end}" + "".join(lines)
        line = f"{key}{between}{self._spelled(value, parent, '')}"
        scalars = [item for item in parent.items if item.node.kind == "scalar"]
        if place < len(scalars):
            return scalars[place].start, scalars[place].start, line + end
        if scalars:
            return scalars[-1].end, scalars[-1].end, end + line
        if parent is self.root:
            return 0, 0, line + end
        newline = self.text.find("\n", parent.start)
        at = len(self.text) if newline < 0 else newline + 1
        return at, at, (end if newline < 0 else "") + line + end

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        item = parent.items[place]
        if item.node.kind == "table":
            return item.start, item.end, ""
        after = self.text.find("\n", item.end)
        return item.start, len(self.text) if after < 0 else after + 1, ""
