"""Texts of `[heads]` and `key = value`, as games write them: heads and keys again and again, lists and tables over lines."""

from __future__ import annotations

import re
from collections.abc import Sequence
from functools import cached_property

from furnel.texts.document import Item, Node
from furnel.texts.shapes.scan import NUMBER, Scan, Token

_PLAIN = re.compile(r"[\w.+%-]+")
_COMMA, _BLANKS, _MARK, _UNMARK = (
    re.compile(text) for text in (r"[ \t]*,", r"[ \t]*", r"_\([ \t]*|_[ \t]*(?=[\"'])", r"[ \t]*\)")
)
_MARKED, _CELL = re.compile(r"_\([ \t]*$"), re.compile(r"[^,\n}]*")


class Sections(Scan):
    """The shape `sections`."""

    @cached_property
    def _signs(self) -> tuple[str, ...]:
        """What begins a comment."""
        return tuple(filter(None, (self.form.comment, *self.form.comments)))

    @cached_property
    def _going(self) -> re.Pattern[str]:
        """From the end of one line to what stands first in another, past lines of comment."""
        quiet = "|".join(map(re.escape, self._signs))
        rest = rf"[^\S\n]*(?:(?:{quiet})[^\n]*)?" if quiet else r"[^\S\n]*"
        return re.compile(rf"{rest}(?:\n{rest})+")

    def read(self) -> list[Item]:
        """Everything in the text. Heads that are closed (`[/head]`) may stand in one another."""
        text, signs = self.text, re.escape(self.form.assign)
        pair = re.compile(rf"([^\s{signs}\[{{}}][^\n{signs}]*?)[ \t]*[{signs}][ \t]*")
        ends = "|".join(["[\\r\\n]", "$", *map(re.escape, self._signs)])
        head = re.compile(rf"[ \t]*\[([^\]\n]+)\][ \t]*(?={ends})")
        nests = re.search(r"^[ \t]*\[/", text, re.MULTILINE) is not None
        top: list[Item] = []
        open_: list[tuple[re.Match[str], list[Item]]] = []

        def close(end: int) -> None:
            found, inner = open_.pop()
            begin = found.end() - len(found.group().lstrip())
            node = Node("table", begin, end, None, tuple(inner))
            item = Item(found.group(1).strip(), node, begin, end, *found.span(1))
            (open_[-1][1] if open_ else top).append(item)

        at = last = 0
        while at < len(text):
            stop = text.find("\n", at)
            stop = len(text) if stop < 0 else stop
            line = text[at:stop].strip()
            if self.form.block and line.startswith(self.form.block[0]):
                done = text.find(self.form.block[1], at)
                at = len(text) if done < 0 else done + len(self.form.block[1])
                continue
            if not line or line.startswith(self._signs):
                at = stop + 1
                continue
            if found := head.match(text, at, stop):
                name, at = found.group(1).strip(), stop + 1
                if nests and name.startswith("/"):
                    if not open_ or open_[-1][0].group(1).strip().lstrip("+") != name[1:]:
                        raise self.damage(found.start(1), f"[{name}] closes nothing")
                    close(found.end(1) + 1)
                    continue
                if not nests and open_:
                    close(last)
                open_.append((found, []))
                last = found.end(1) + 1
                continue
            begin = text.index(line[0], at)
            if found := pair.match(text, begin, stop):
                node, last = self._sectioned(found.end())
                item = Item(found.group(1), node, begin, last, *found.span(1))
            else:
                last = begin + len(line)
                item = Item("@line", Node("scalar", begin, last, line), begin, last)
            (open_[-1][1] if open_ else top).append(item)
            after = text.find("\n", last)
            at = len(text) if after < 0 else after + 1
        if nests and open_:
            raise self.damage(open_[-1][0].start(1), f"[{open_[-1][0].group(1)}] is never closed")
        if open_:
            close(last)
        return top

    def _sectioned(self, at: int) -> tuple[Node, int]:
        """A value of a section: a table in braces, a list behind commas (over several lines), or what stands on the line."""
        text = self.text
        stop = text.find("\n", at)
        stop = len(text) if stop < 0 else stop
        if not self.cut(text[at:stop]):
            further = self._going.match(text, at)
            line = text[further.end() :].partition("\n")[0] if further is not None else ""
            if (
                line[:1] in ("{", "_", *self.form.quote)
                and further is not None
                and text[further.end() - 1] in " \t"
            ):
                at = further.end()
                stop = at + len(line)
        if text[at : at + 1] == "{":
            return self._rows(at)
        cells = list[Token]()
        place = at
        while True:
            cell = self._cell(place)
            cells.append(cell)
            place = self._past_mark(cell)
            comma = _COMMA.match(text, place)
            if comma is None:
                break
            place = comma.end()
            going = self._going.match(text, place)
            if going is not None and cell.sort == "quoted":
                place = going.end()
            place = _BLANKS.match(text, place).end()  # type: ignore[union-attr]
            if place >= len(text) or text[place] in "\r\n":
                break
        rest = text[place : max(stop, place)]
        rest = rest[: rest.find("\n")] if "\n" in rest else rest
        strange = self.cut(rest)
        plain = all(cell.sort == "quoted" or _PLAIN.fullmatch(cell.text) for cell in cells)
        told = any(cell.sort == "quoted" or NUMBER.fullmatch(cell.text) for cell in cells)
        if len(cells) > 1 and plain and told and not strange:
            return Node("list", cells[0].start, place, None, self.cells(cells)), place
        if len(cells) == 1 and cells[0].sort == "quoted" and not strange:
            return self.scalar(cells[0]), place
        raw = self.cut(text[at:stop])
        return Node("scalar", at, at + len(raw), raw), at + len(raw)

    @cached_property
    def _quoted(self) -> dict[str, re.Pattern[str]]:
        """A text in each of the quotes."""
        escape = re.escape(self.form.escape)
        return {
            mark: re.compile(
                rf"{mark}(?:{escape}.|[^{mark}{escape}])*{mark}" if escape else f"{mark}[^{mark}]*{mark}",
                re.DOTALL,
            )
            for mark in self.form.quote
        }

    def _cell(self, at: int) -> Token:
        """One of the values behind commas: a text in quotes, also marked `_( )`, or what stands up to the next comma."""
        quote = self.form.quote
        found = _MARK.match(self.text, at)
        begin = found.end() if found else at
        if quote and self.text[begin : begin + 1] in tuple(quote):
            whole = self._quoted[self.text[begin]].match(self.text, begin)
            if whole is not None:
                return Token("quoted", whole.group(), begin, whole.end())
            raise self.damage(begin, f"{self.text[begin]} is never closed")
        word = _CELL.match(self.text, at)
        assert word is not None
        text = self.cut(word.group())
        return Token("word", text, at, at + len(text))

    def _past_mark(self, cell: Token) -> int:
        """Where a cell ends, with the bracket of its mark."""
        if cell.sort == "quoted" and _MARKED.search(self.text[max(cell.start - 8, 0) : cell.start]):
            found = _UNMARK.match(self.text, cell.end)
            return found.end() if found else cell.end
        return cell.end

    def _rows(self, at: int) -> tuple[Node, int]:
        """`{ "head", "head" ⏎ cell, cell ⏎ … }`: rows by their heads."""
        rows, end = self._rows_of_cells(at)
        heads: list[str] = []
        if len(rows) > 1 and all(cell.sort == "quoted" for cell in rows[0]):
            heads = [self.plain(cell) for cell in rows[0]]
            rows = rows[1:]
        items = [self._row(row, heads if len(set(heads)) == len(heads) else []) for row in rows]
        return Node("list", at, end, None, tuple(items)), end

    def _row(self, row: Sequence[Token], heads: Sequence[str]) -> Item:
        """A row as a record by its heads, or as a list where it has none, or more cells than there are."""
        first, last = row[0].start, self._past_mark(row[-1])
        if 0 < len(row) <= len(heads):
            inner = tuple(
                Item(key, self.scalar(cell), cell.start, cell.end)
                for key, cell in zip(heads, row, strict=False)
            )
            return Item("", Node("table", first, last, None, inner), first, last)
        return Item("", Node("list", first, last, None, self.cells(row)), first, last)

    def _rows_of_cells(self, at: int) -> tuple[list[list[Token]], int]:
        """The cells of each row of a table in braces, and where it ends; a row goes on behind a comma at the line's end."""
        text, place = self.text, at + 1
        rows: list[list[Token]] = [[]]
        while place < len(text):
            sign = text[place]
            if sign == "}":
                return [row for row in rows if row], place + 1
            if sign == "\n":
                rows.append([])
            if sign in " \t\r\n,":
                place += 1
                going = self._going.match(text, place) if sign == "," and rows[-1] else None
                if going is not None and text[going.end() : going.end() + 1] not in ("", "}"):
                    place = going.end()
            elif self._signs and text.startswith(self._signs, place):
                end = text.find("\n", place)
                place = len(text) if end < 0 else end
            else:
                cell = self._cell(place)
                if cell.end == place:
                    raise self.damage(place, f"{sign!r} stands where a value should be")
                rows[-1].append(cell)
                place = self._past_mark(cell)
        raise self.damage(at, "{ is never closed")
