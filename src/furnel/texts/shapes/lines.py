"""Texts of lines: `head value key=value`, and what stands further in below them."""

from __future__ import annotations

import re
from collections.abc import Sequence

from furnel.texts.document import Item, Node
from furnel.texts.shapes.scan import Scan, Token, head_name


class Lines(Scan):
    """The shapes `lines` and `indented`."""

    def read(self) -> list[Item]:
        """Lines of words, and what stands further in below them."""
        nests = self.form.shape == "indented"
        open_: list[tuple[int, Item, list[Item]]] = []
        top: list[Item] = []

        def close(depth: int) -> None:
            while open_ and open_[-1][0] >= depth:
                _, item, inner = open_.pop()
                made = self._with_inner(item, inner) if inner else item
                (open_[-1][2] if open_ else top).append(made)

        for line in self._token_lines():
            depth = len(self.text[self.text.rfind("\n", 0, line[0].start) + 1 : line[0].start].expandtabs(8))
            close(depth if nests else 0)
            open_.append((depth, self._line(line), []))
        close(0)
        return top

    def _token_lines(self) -> list[list[Token]]:
        out: list[list[Token]] = [[]]
        for token in self.tokens:
            if token.sort == "line":
                out.append([])
            else:
                out[-1].append(token)
        return [line for line in out if line]

    def _line(self, line: Sequence[Token]) -> Item:
        first, assign = line[0], self.form.assign
        last = line[-1].end
        if assign and first.sort == "word":
            whole = self.text[first.start : last]
            sign = min((at for at in (whole.find(one) for one in assign) if at > 0), default=-1)
            blanks = whole[:sign].strip() if sign > 0 else ""
            if blanks and not re.search(r"\s", blanks):  # key = all the rest of the line
                begin = first.start + sign + 1
                begin += len(self.text[begin:last]) - len(self.text[begin:last].lstrip())
                node = (
                    self.scalar(line[-1]) if line[-1].sort == "quoted" and line[-1].start == begin else None
                )
                node = node or Node("scalar", begin, max(begin, last), self.text[begin:last])
                return Item(
                    blanks, node, first.start, max(begin, last), first.start, first.start + len(blanks)
                )
        parts = [self._argument(token) for token in line[1:]]
        node = self.of_parts(parts, first.start, last) if parts else Node("table", last, last)
        return Item(self.plain(first), node, first.start, last, first.start, first.end)

    def _argument(self, token: Token) -> Item | Token:
        """A word behind a head; `key=value` is an item of its own."""
        if token.sort == "word" and self.form.assign:
            key, sign, value = token.text.partition(self.form.assign[0])
            if sign and key and value:
                begin = token.start + len(key) + 1
                node = Node("scalar", begin, token.end, value)
                return Item(key, node, token.start, token.end, token.start, token.start + len(key))
        return token

    def _with_inner(self, item: Item, inner: Sequence[Item]) -> Item:
        """A line with what stands further in."""
        own: list[Item] = []
        if item.node.kind == "scalar":
            own = [Item("@name", item.node, item.node.start, item.node.end)]
        elif item.node.kind == "list":
            own = [
                Item(head_name(number), one.node, one.start, one.end)
                for number, one in enumerate(item.node.items, 1)
            ]
        else:
            own = [*item.node.items]
        end = inner[-1].end
        return item._replace(node=Node("table", item.start, end, None, (*own, *inner)), end=end)
