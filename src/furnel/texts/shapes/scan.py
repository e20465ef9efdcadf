"""The pieces that texts of a shape are made of."""

from __future__ import annotations

import re
from collections.abc import Callable, Sequence
from functools import cache, cached_property
from typing import NamedTuple

from furnel.errors import FurnelError
from furnel.texts.described import Form
from furnel.texts.document import Item, Node

NUMBER = re.compile(r"[+-]?(?:\d+\.?\d*|\.\d+)(?:[eE][+-]?\d+)?[fF%]?")


class Token(NamedTuple):
    """A piece of a text: its sort (word, quoted, open, close, sign, line), its text and where it stands."""

    sort: str
    text: str
    start: int
    end: int


@cache
def pieces_of(form: Form) -> re.Pattern[str]:
    """What tells the pieces of a text apart."""
    signs = {"sections": "", "lists": "", "indented": "", "lines": ""}.get(
        form.shape, "".join(filter(None, (form.assign, form.separator, form.end)))
    )
    brackets = {"lists": "()", "nested": "(){}[]", "assignments": "(){}[]"}.get(form.shape, "")
    parts = []
    if form.block:
        first, last = map(re.escape, form.block)
        parts.append(f"(?P<block>{first}.*?{last})")
    if comments := "|".join(map(re.escape, (*filter(None, (form.comment,)), *form.comments))):
        parts.append(rf"(?P<comment>(?<![^\s,;(){{}}\[\]])(?:{comments})[^\n]*)")
    parts.append(r"(?P<line>\n)")
    if form.shape == "lists":
        parts.append(r"(?P<run>[-+\d.]+(?:\s+[-+\d.]+){15,}(?=\s*\)))")
    parts.append(r"(?P<space>[^\S\n]+)")
    over = "" if form.shape in ("indented", "lines") else "\n"  # whether a text may go on in the next line
    for number, mark in enumerate(form.quote):
        escape, quote = re.escape(form.escape), re.escape(mark)
        inner = (
            rf"(?:{escape}.|[^{quote}{escape}{'' if over else chr(10)}])*"
            if escape
            else rf"[^{quote}{'' if over else chr(10)}]*"
        )
        parts.append(f"(?P<quoted{number}>{quote}{inner}{quote})")
    if brackets:
        parts += [f"(?P<open>[{re.escape(brackets[::2])}])", f"(?P<close>[{re.escape(brackets[1::2])}])"]
    stops = brackets + (form.quote if brackets else "")
    if signs:
        parts.append(f"(?P<sign>[{re.escape(signs)}])")
    parts.append(rf"(?P<word>[^\s{re.escape(stops + signs)}]+|\S)")
    return re.compile("|".join(parts), re.DOTALL)


class Scan:
    """A text and how it is written: its pieces, and nodes made of them. `damage` makes the refusal of a place."""

    def __init__(self, text: str, form: Form, damage: Callable[[int, str], FurnelError]) -> None:
        self.text, self.form, self.damage = text, form, damage

    @cached_property
    def tokens(self) -> list[Token]:
        """The pieces of the whole text, without blanks and comments; line ends count."""
        return self.pieces(0, len(self.text))

    def pieces(self, start: int, end: int) -> list[Token]:
        out = []
        for found in pieces_of(self.form).finditer(self.text, start, end):
            sort = found.lastgroup or ""
            if sort not in ("space", "comment", "block"):
                out.append(Token(sort.rstrip("0123456789"), found.group(), found.start(), found.end()))
        return out

    def cut(self, line: str) -> str:
        """What is left of a line without its comment."""
        found = self._quiet.search(line) if self._quiet is not None else None
        return (line[: found.start()] if found else line).rstrip()

    @cached_property
    def _quiet(self) -> re.Pattern[str] | None:
        """Where a comment begins on a line."""
        signs = "|".join(map(re.escape, filter(None, (self.form.comment, *self.form.comments))))
        return re.compile(rf"(?:^|[ \t])(?:{signs})") if signs else None

    @cached_property
    def _escaped(self) -> re.Pattern[str]:
        return re.compile(re.escape(self.form.escape) + "(.)", re.DOTALL)

    def plain(self, token: Token) -> str:
        """What a piece says: without its quotes and escapes."""
        if token.sort != "quoted":
            return token.text
        escape, inner = self.form.escape, token.text[1:-1]
        return self._escaped.sub(r"\1", inner) if escape and escape in inner else inner

    def scalar(self, token: Token) -> Node:
        """A piece as a value."""
        return Node("scalar", token.start, token.end, self.plain(token))

    def words(self, run: Token) -> list[Token]:
        """The numbers of a long run of them."""
        found = re.compile(r"\S+").finditer(self.text, run.start, run.end)
        return [Token("word", one.group(), one.start(), one.end()) for one in found]

    def cells(self, words: Sequence[Token]) -> tuple[Item, ...]:
        """Pieces as the items of a list."""
        return tuple(Item("", self.scalar(word), word.start, word.end) for word in words)

    def of_parts(self, parts: Sequence[Item | Token], start: int, end: int) -> Node:
        """What stands behind a head, as one value, a list, or a table."""
        words = [part for part in parts if isinstance(part, Token)]
        if len(parts) == 1 and words and words[0].sort == "run":
            run = words[0]
            return Node("list", run.start, run.end, None, lambda: self.cells(self.words(run)))
        if len(parts) == 1 and words:
            return self.scalar(words[0])
        if words and len(words) == len(parts):
            return Node("list", words[0].start, words[-1].end, None, self.cells(words))
        inner, number = list[Item](), 0
        for part in parts:
            if isinstance(part, Item):
                inner.append(part)
            else:
                number += 1
                inner.append(Item(head_name(number), self.scalar(part), part.start, part.end))
        return Node("table", start, end, None, tuple(inner))


def head_name(number: int) -> str:
    """The key of a value behind a head, from 1."""
    return "@name" if number == 1 else f"@{number}"
