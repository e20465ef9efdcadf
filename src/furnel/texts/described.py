"""Notations that a profile describes: a game's own text of records in brackets and values behind a sign, kept to the byte.

A record may have a name behind its kind (`boat otter { … }`): it is a table under the kind whose `@name` is the name, so that
an address picks it as in `boat[@name=otter]/speed`. All values are texts.
"""

from __future__ import annotations

import codecs
import re
from dataclasses import dataclass, field
from functools import cached_property
from typing import Annotated, Literal

from pydantic import Field, StringConstraints, field_validator, model_validator

from furnel.schema import Part
from furnel.texts.document import DEEPEST, Document, Item, Node, Value, indent_at, scalar_text

Sign = Annotated[str, StringConstraints(max_length=4, pattern=r"^[^\w\s]*$")]


Shape = Literal["brackets", "sections", "lists", "nested", "indented", "lines", "assignments"]


class Form(Part):
    """How a game's texts of one `ending` are written (all of them, or those whose path is like `files`): their `encoding`, and
    either `written-as` a known notation, or described by a `shape` (`shaped.py` says what each is; `brackets` is the strict
    one of this module) and the signs in it.

    Described is what begins a `comment` (to the end of its line), what stands around a record's inside (`open`, `close`),
    between a key and its value (`assign`), behind a value (`end`; nothing: the end of the line), around a list (`list-open`,
    `list-close`) and between its items (`separator`), and the sign that quotes a text, with the one that goes before a
    quote inside it (`escape`). Shapes other than `brackets` take several `comments`, comments in a `block` (its two signs),
    several quotes, and may have no `assign`.
    """

    ending: Annotated[str, Field(pattern=r"^(\.[\w+-]{1,16})?$")]
    files: str = ""
    shape: Shape = "brackets"
    comments: tuple[Sign, ...] = ()
    block: tuple[Sign, ...] = ()
    encoding: str = "utf-8"
    written_as: Literal["", "TOML", "JSON", "XML", "CSV", "INI", "properties"] = ""
    comment: Sign = ""
    open: Sign = "{"
    close: Sign = "}"
    assign: Sign = "="
    end: Sign = ""
    list_open: Sign = ""
    list_close: Sign = ""
    separator: Sign = ","
    quote: Annotated[str, StringConstraints(max_length=3, pattern=r"^[^\w\s]*$")] = '"'
    escape: Annotated[str, StringConstraints(max_length=1)] = ""

    @field_validator("encoding")
    @classmethod
    def _known(cls, name: str) -> str:
        try:
            return codecs.lookup(name).name
        except LookupError as error:
            raise ValueError(
                "there is no such encoding: utf-8, utf-16-le, cp1252, latin-1 … are known"
            ) from error

    @model_validator(mode="after")
    def _tells_apart(self) -> Form:
        if not self.ending and not self.files:
            raise ValueError("it has neither an ending nor files")
        if self.shape != "brackets":
            if len(self.block) not in (0, 2) or not all((*self.block, *self.comments)):
                raise ValueError("block has two signs, and no comment is empty")
            return self
        if self.comments or self.block or len(self.quote) > 1:
            raise ValueError("comments, block and several quotes are for other shapes")
        around = self.open, self.close, self.list_open, self.list_close
        used = [sign for sign in (*around, self.assign, self.end, self.quote, self.comment) if sign]
        if not self.open or not self.close or not self.assign:
            raise ValueError("open, close and assign cannot be empty")
        if len(set(used)) != len(used):
            raise ValueError("two of its signs are the same")
        if bool(self.list_open) != bool(self.list_close) or (self.list_open and not self.separator):
            raise ValueError("a list needs list-open, list-close and separator")
        return self

    @cached_property
    def token(self) -> re.Pattern[str]:
        """A piece of a text: white space and comments, a quoted text, a sign, a line's end, or a word."""
        signs = sorted(
            filter(None, {self.open, self.close, self.assign, self.end, self.list_open, self.list_close, self.separator}),
            key=len, reverse=True,
        )  # fmt: skip
        sign = "|".join(map(re.escape, signs))
        parts = [
            r"(?P<space>[ \t\r]+" + (rf"|{re.escape(self.comment)}[^\n]*" if self.comment else "") + ")",
            r"(?P<line>\n)",
        ]
        stops = [re.escape(one) for one in (*signs, self.comment, self.quote) if one]
        if self.quote:
            mark = re.escape(self.quote)
            inner = (
                rf"(?:{re.escape(self.escape)}.|[^{mark}\n{re.escape(self.escape)}])*"
                if self.escape
                else rf"[^{mark}\n]*"
            )
            parts.append(f"(?P<quoted>{mark}{inner}{mark})")
        parts += [f"(?P<sign>{sign})", rf"(?P<word>(?:(?!{'|'.join(stops)})\S)+)"]
        return re.compile("|".join(parts), re.DOTALL)


@dataclass(frozen=True)
class DescribedDocument(Document):
    """A definition in a notation that a profile describes."""

    form: Form = field(default=Form(ending=".x"))
    notation = "described"
    is_typed = False
    twins = "records"

    def _parse(self) -> Node:
        items, at = self._entries(0, 0)
        if at < len(self.text):
            raise self._damage(at, f"{self.form.close} stands here, and nothing is open")
        return Node("table", 0, len(self.text), None, items)

    def _next(self, at: int, lines: bool = False) -> tuple[str, str, int, int]:
        """The next piece: its sort, its text, where it begins and ends. Line ends count only when asked for."""
        while at < len(self.text):
            found = self.form.token.match(self.text, at)
            if found is None or found.lastgroup is None:
                raise self._damage(at, f"{self.text[at]!r} is never closed")
            if found.lastgroup != "space" and (lines or found.lastgroup != "line"):
                return found.lastgroup, found.group(), found.start(), found.end()
            at = found.end()
        return "end", "", len(self.text), len(self.text)

    def _entries(self, at: int, depth: int) -> tuple[tuple[Item, ...], int]:
        """What stands up to the closing bracket, or the end."""
        form, items = self.form, list[Item]()
        if depth > DEEPEST:
            raise self._damage(at, f"it is nested more than {DEEPEST} deep")
        while True:
            sort, text, start, end = self._next(at)
            if sort == "end" or text == form.close:
                if sort == "end" and depth:
                    raise self._damage(start, f"it ends before {form.close}")
                return tuple(items), start
            if text == form.end:  # behind a record
                at = end
                continue
            words = []
            while sort in ("word", "quoted"):
                words.append((text, start, end))
                sort, text, start, end = self._next(end)
            if not words:
                raise self._damage(start, f"a name is missing before {text!r}")
            (_, first, key_end), key = words[0], self._plain(words[0][0])
            if text == form.assign and len(words) == 1:
                node, at = self._value(end)
                items.append(Item(key, node, first, at, first, key_end))
            elif text == form.open and len(words) <= 2:
                inside, close = self._entries(end, depth + 1)
                if len(words) == 2:
                    name, name_start, name_end = words[1]
                    named = Node("scalar", name_start, name_end, self._plain(name))
                    inside = (Item("@name", named, name_start, name_end), *inside)
                at = close + len(form.close)
                items.append(Item(key, Node("table", first, at, None, inside), first, at, first, key_end))
            else:
                raise self._damage(start, f"{form.assign} or {form.open} is missing behind {words[-1][0]}")

    def _value(self, at: int) -> tuple[Node, int]:
        form = self.form
        sort, text, start, end = self._next(at, lines=True)
        if form.list_open and text == form.list_open:
            node, end = self._list(start, end)
        elif sort == "quoted":
            node = Node("scalar", start, end, self._plain(text))
        else:
            if sort != "word":
                raise self._damage(start, "a value is missing")
            while True:  # several words are one value, up to its end
                sort, text, _, after = self._next(end, lines=True)
                if sort != "word":
                    break
                end = after
            node = Node("scalar", start, end, self.text[start:end])
        if not form.end:
            return node, end
        sort, text, start, after = self._next(end)
        if text != form.end:
            raise self._damage(end, f"{form.end} is missing behind a value")
        return node, after

    def _list(self, start: int, at: int) -> tuple[Node, int]:
        form, items = self.form, list[Item]()
        while True:
            sort, text, first, end = self._next(at)
            if text == form.list_close:
                return Node("list", start, end, None, tuple(items)), end
            if text == form.separator and items:
                at = end
                continue
            if sort not in ("word", "quoted"):
                raise self._damage(first, f"{form.list_close} is missing")
            node = Node("scalar", first, end, self._plain(text))
            items.append(Item("", node, first, end))
            at = end

    def _plain(self, text: str) -> str:
        quote, escape = self.form.quote, self.form.escape
        if not quote or not text.startswith(quote):
            return text
        inner = text[1:-1]
        return re.sub(re.escape(escape) + "(.)", r"\1", inner, flags=re.DOTALL) if escape else inner

    # writing

    def _word(self, text: str, quoted: bool) -> str:
        """A text as it has to be written to be read as itself."""
        form = self.form
        found = form.token.fullmatch(text)
        if not quoted and found is not None and found.lastgroup == "word":
            return text
        inner = text
        if form.escape:
            inner = text.replace(form.escape, form.escape * 2).replace(form.quote, form.escape + form.quote)
        if not form.quote or "\n" in text or (not form.escape and form.quote in text):
            raise self._refusal((), f"{text!r} cannot be written in this notation")
        return form.quote + inner + form.quote

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        form = self.form
        if isinstance(value, dict):
            raise self._refusal((), "a record is changed value by value")
        if isinstance(value, list):
            if not form.list_open:
                raise self._refusal((), "this notation has no lists")
            quoted = bool(form.quote) and form.quote in like
            inner = f"{form.separator} ".join(self._word(scalar_text(part), quoted) for part in value)
            return f"{form.list_open}{inner}{form.list_close}"
        return self._word(scalar_text(value), bool(form.quote) and like.startswith(form.quote))

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        items = [item for item in parent.items if item.key != "@name"]
        place = max(place - (len(parent.items) - len(items)), 0)
        if parent.kind == "list":
            text = self._spelled(value, parent, self.text[items[0].start : items[0].end] if items else "")
            if not items:
                return parent.start + len(self.form.list_open), parent.start + len(self.form.list_open), text
            if place < len(items):
                return items[place].start, items[place].start, f"{text}{self.form.separator} "
            return items[-1].end, items[-1].end, f"{self.form.separator} {text}"
        line = "\r\n" if "\r\n" in self.text else "\n"
        outer = "" if parent is self.root else self._indent_of(parent)
        inner = (
            indent_at(self.text, items[0].start)
            if items
            else outer + self._unit()
            if parent is not self.root
            else ""
        )
        text = self._entry(key, value, inner, line)
        if items and place < len(items):
            at = items[place].start
            return at, at, text + line + inner
        if items:
            after = self._line_rest(items[-1].end)
            return after, after, line + inner + text
        if parent is self.root:
            return (
                len(self.text),
                len(self.text),
                ("" if not self.text or self.text.endswith("\n") else line) + text + line,
            )
        close = parent.end - len(self.form.close)
        body = self.text.rfind(self.form.open, parent.start, close) + len(self.form.open)
        return body, close, f"{line}{inner}{text}{line}{outer}"

    def _entry(self, key: str, value: Value, indent: str, line: str) -> str:
        form, name = self.form, self._word(key, False)
        if not isinstance(value, dict):
            return f"{name} {form.assign} {self._spelled(value, self.root, self._others(key))}{form.end}"
        head = name + (f" {self._word(scalar_text(value['@name']), False)}" if "@name" in value else "")
        inner = indent + self._unit()
        rows = []
        for one, part in value.items():
            for single in (
                part if isinstance(part, list) and any(isinstance(row, dict) for row in part) else [part]
            ):
                if one != "@name":
                    rows.append(f"{inner}{self._entry(one, single, inner, line)}{line}")
        return f"{head} {form.open}{line}{''.join(rows)}{indent}{form.close}"

    def _others(self, key: str) -> str:
        """How another record writes the value of a key."""
        for item in self.root.items:
            for inner in item.node.items:
                if inner.key == key:
                    return self.text[inner.node.start : inner.node.end]
        return ""

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        items, item = parent.items, parent.items[place]
        if item.key == "@name":
            raise self._refusal((), "a record keeps its name: give it another, or drop it")
        if parent.kind == "list":
            if place + 1 < len(items):
                return item.start, items[place + 1].start, ""
            return (items[place - 1].end if place else item.start), item.end, ""
        start, end = item.start, self._line_rest(item.end)
        before = self.text.rfind("\n", 0, start) + 1
        if not self.text[before:start].strip() and end < len(self.text):
            return before, end + (2 if self.text.startswith("\r\n", end) else 1), ""
        return start, item.end, ""

    def _line_rest(self, at: int) -> int:
        """The end of the line behind an item, when only white space and a comment stand there."""
        sort, _, start, _ = self._next(at, lines=True)
        if sort not in ("line", "end"):
            return at
        return start - 1 if self.text[start - 1 : start] == "\r" else start

    def _indent_of(self, node: Node) -> str:
        return indent_at(self.text, node.start)

    def _unit(self) -> str:
        """What one level is indented by."""
        for item in self.root.items:
            for inner in item.node.items:
                if inner.key != "@name" and (found := indent_at(self.text, inner.start)):
                    return found
        return "  "

    def _key_spelled(self, key: str) -> str:
        return self._word(key, False)
