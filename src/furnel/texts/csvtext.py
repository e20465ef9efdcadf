"""CSV and TSV (RFC 4180) that keep every byte: a table with a row of names; its separator, quotes and line ends as they are."""

from __future__ import annotations

import re

from furnel.errors import FurnelError
from furnel.texts.document import Document, Item, Node, Value, scalar_text

_SEPARATORS = (",", ";", "\t", "|")
_COMMENT = "#"  # at the beginning of a line
_SAID = re.compile(r"sep=(.)", re.IGNORECASE)


class CsvDocument(Document):
    """A CSV definition: a list of rows, each a table by the names in the first row; all its values are texts."""

    notation = "CSV"
    is_typed = False

    separator: str = ","
    names: tuple[str, ...] = ()
    begin: int = 0
    """Where the row of names begins: comments and a `sep=` line stand before it."""

    def _parse(self) -> Node:
        begin, separator = self._head()
        object.__setattr__(self, "separator", separator)
        object.__setattr__(self, "begin", begin)
        spans = self._spans()
        if not spans:
            return Node("list", 0, len(self.text))
        names = tuple(str(cell.value) for cell in self._cells(spans[0][0])[0])
        twice = next((name for name in names if names.count(name) > 1), None)
        if twice is not None:
            raise self._damage(spans[0][0], f"two columns are called {twice!r}")
        object.__setattr__(self, "names", names)
        for start, _, width in spans[1:]:
            if width > len(names):
                raise self._damage(start, f"it has {width} values, and the first row names {len(names)}")
        rows = [Item("", self._row(start, end), start, end) for start, end, _ in spans[1:]]
        return Node("list", 0, len(self.text), None, tuple(rows))

    def _head(self) -> tuple[int, str]:
        """Where the row of names begins, and what parts its values: what `sep=` says, the tabs of a .tsv, else what
        stands most often outside of quotes."""
        at, said = 0, ""
        while at < len(self.text):
            end = self.text.find("\n", at)
            end = len(self.text) if end < 0 else end
            line = self.text[at:end].removesuffix("\r")
            if (found := _SAID.fullmatch(line)) and not said:
                said = found.group(1)
            elif line.strip() and not line.startswith(_COMMENT):
                bare = re.sub(r'"(?:[^"]|"")*"', "", line)
                own = "\t" if self.where.lower().endswith(".tsv") and "\t" in bare else ""
                most = max(_SEPARATORS, key=bare.count)
                return at, said or own or (most if most in bare else ",")
            at = end + 1
        return 0, said or ","

    def _row(self, start: int, end: int) -> Node:
        """A row, whose cells are looked for when they are asked for."""

        def cells() -> tuple[Item, ...]:
            found = self._cells(start)[0]
            return tuple(
                Item(name, cell, cell.start, cell.end) for name, cell in zip(self.names, found, strict=False)
            )

        def plain() -> Value:
            raw = self.text[start:end]
            if '"' in raw:
                return {item.key: item.node.value for item in cells()}
            return dict(zip(self.names, raw.split(self.separator), strict=False))

        return Node("table", start, end, None, cells, plain)

    def _spans(self) -> list[tuple[int, int, int]]:
        """Where every row that is not empty begins and ends, and how many values it has."""
        text, out, at = self.text, list[tuple[int, int, int]](), self.begin
        while at < len(text):
            line = text.find("\n", at)
            line = len(text) if line < 0 else line
            raw = text[at:line].removesuffix("\r")
            if '"' in raw or "\r" in raw:
                cells, end = self._cells(at)
                width, after = len(cells), self._line_after(end)
            else:
                width, end, after = raw.count(self.separator) + 1, at + len(raw), line + 1
            if (width > 1 or end > at) and not raw.startswith(_COMMENT):
                out.append((at, end, width))
            at = after
        return out

    def _line_after(self, end: int) -> int:
        if self.text.startswith("\r\n", end):
            return end + 2
        if end < len(self.text) and self.text[end] not in "\n\r":
            raise self._damage(end, "a quote stands inside a value, or is never closed")
        return end + 1

    def _cells(self, at: int) -> tuple[list[Node], int]:
        """The values of the row that begins at a sign, and where it ends."""
        cell = re.compile(
            rf'"((?:[^"]|"")*)"|([^{re.escape(self.separator)}\r\n"][^{re.escape(self.separator)}\r\n]*|)'
        )
        row: list[Node] = []
        while True:
            found = cell.match(self.text, at)
            assert found is not None
            quoted = found.group(1)
            value = quoted.replace('""', '"') if quoted is not None else found.group(2)
            row.append(Node("scalar", at, found.end(), value))
            at = found.end()
            if self.text[at : at + 1] != self.separator:
                return row, at
            at += 1

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
