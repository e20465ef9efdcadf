"""Programs: what is set to a plain value or a table where nothing else stands with it; all else is left alone."""

from __future__ import annotations

import re
from bisect import bisect_left

from furnel.errors import FurnelError
from furnel.texts.document import Item, Node
from furnel.texts.shapes.brackets import Brackets
from furnel.texts.shapes.scan import NUMBER

_DECLARED = re.compile(
    r"^[ \t]*(?:(?:local|const|static|var|let|final|extern|unsigned|signed|int|float|double|char|bool|long|short|string|auto)"
    r"[ \t]+)*\*?([A-Za-z_][\w.]*)(?:\[[^\]\n]*\])?[ \t]*=(?!=)[ \t]*"
    r"|^[ \t]*#[ \t]*define[ \t]+([A-Za-z_]\w*)[ \t]+",
    re.MULTILINE,
)


class Programs(Brackets):
    """The shape `assignments`."""

    def read(self) -> list[Item]:
        """What is set to a plain value or a table in a program, where nothing else stands with it."""
        items, starts = list[Item](), [token.start for token in self.tokens]
        past = -1
        for found in _DECLARED.finditer(self.text):
            at = bisect_left(starts, found.end())
            if found.start() < past or at >= len(starts) or starts[at] != found.end():
                continue
            name = 1 if found.group(1) else 2
            try:
                node, after = self._alone(at)
            except _NotPlain:
                continue
            key_start, key_end = found.span(name)
            items.append(Item(found.group(name), node, key_start, node.end, key_start, key_end))
            past = self.tokens[after - 1].end
        return items

    def _alone(self, at: int) -> tuple[Node, int]:
        """A plain value or a table with nothing behind it but the statement's end."""
        token = self.tokens[at]
        if token.text == "{":
            try:
                node, after = self.bracket(at, 0)
            except FurnelError as error:
                raise _NotPlain from error
        elif token.sort == "quoted" or NUMBER.fullmatch(token.text) or token.text in ("true", "false", "nil"):
            node, after = self.scalar(token), at + 1
        else:
            raise _NotPlain
        rest = self.tokens[after] if after < len(self.tokens) else None
        if rest is None or rest.sort == "line" or rest.text in self.form.end + ";":
            return node, after
        raise _NotPlain


class _NotPlain(Exception):
    """What is set is an expression."""
