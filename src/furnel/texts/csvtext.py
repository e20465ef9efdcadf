"""CSV and TSV (RFC 4180) that keep every byte: a table with a row of names; its separator, quotes and line ends as they are."""

from __future__ import annotations

import re

from furnel.errors import FurnelError
from furnel.texts.document import Document, Item, Node, Value, scalar_text

_SEPARATORS = (",", ";", "\t", "|")


class CsvDocument(Document):
    """A CSV definition: a list of rows, each a table by the names in the first row; all its values are texts."""

    notation = "CSV"

    def _parse(self) -> Node:
        first = self.text.partition("\n")[0]
        separator = max(_SEPARATORS, key=first.count)
        object.__setattr__(self, "separator", separator if separator in first else ",")
        rows = self._rows()
        if not rows:
            return Node("list", 0, len(self.text))
        names = [str(cell.value) for cell in rows[0]]
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None:
            raise self._damage(rows[0][0].start, f"two columns are called {twice!r}")
        object.__setattr__(self, "names", names)
        items = []
        for row in rows[1:]:
            if len(row) != len(names):
                raise self._damage(
                    row[0].start, f"it has {len(row)} values, and the first row names {len(names)}"
                )
            cells = tuple(
                Item(name, cell, cell.start, cell.end) for name, cell in zip(names, row, strict=True)
            )
            node = Node("table", row[0].start, row[-1].end, None, cells)
            items.append(Item("", node, node.start, node.end))
        return Node("list", 0, len(self.text), None, tuple(items))

    separator: str = ","
    names: tuple[str, ...] = ()

    def _rows(self) -> list[list[Node]]:
        text, rows, at = self.text, list[list[Node]](), 0
        cell = re.compile(rf'"((?:[^"]|"")*)"|([^{re.escape(self.separator)}\r\n"]*)')
        while at < len(text):
            row: list[Node] = []
            while True:
                found = cell.match(text, at)
                assert found is not None
                quoted = found.group(1)
                value = quoted.replace('""', '"') if quoted is not None else found.group(2)
                row.append(Node("scalar", at, found.end(), value))
                at = found.end()
                if text[at : at + 1] != self.separator:
                    break
                at += 1
            if text.startswith("\r\n", at):
                at += 2
            elif text[at : at + 1] in ("\n", "\r"):
                at += 1
            elif at < len(text):
                raise self._damage(at, "a quote stands inside a value, or is never closed")
            if len(row) > 1 or row[0].end > row[0].start:
                rows.append(row)
        return rows

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        if isinstance(value, dict | list):
            raise self._refusal((), "a value is a text")
        text = scalar_text(value)
        needs = any(sign in text for sign in (self.separator, '"', "\n", "\r"))
        return '"' + text.replace('"', '""') + '"' if needs or like.startswith('"') else text

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        if parent is not self.root or not isinstance(value, dict):
            raise self._refusal((), "rows can be added to the table, columns cannot")
        unknown = [name for name in value if name not in self.names]
        if unknown:
            raise FurnelError(
                "Changing a definition",
                where=self.where,
                why=f"there is no column {unknown[0]!r}",
                remedy=f"There are {', '.join(self.names)}",
            )
        like = (
            [self.text[item.node.start : item.node.end] for item in parent.items[-1].node.items]
            if parent.items
            else []
        )
        cells = [
            self._spelled(value.get(name, ""), parent, like[number] if number < len(like) else "")
            for number, name in enumerate(self.names)
        ]
        end = "\r\n" if "\r\n" in self.text else "\n"
        line = self.separator.join(cells)
        if place < len(parent.items):
            at = parent.items[place].start
            return at, at, line + end
        at = parent.items[-1].end if parent.items else len(self.text.rstrip("\r\n"))
        return at, at, end + line

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        if parent is not self.root:
            raise self._refusal((), "a row has all its columns")
        item = parent.items[place]
        after = self.text.find("\n", item.end)
        return item.start, len(self.text) if after < 0 else after + 1, ""
