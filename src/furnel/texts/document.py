"""Documents: definitions that give back every byte that they were not asked to change.

A document is a text with a tree of spans over it. An edit replaces one span and reads the text again: what comes out was read
by the same rules as every other text, and an edit that would not read back as it was meant is refused.
"""

from __future__ import annotations

import codecs
import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field, replace
from typing import Any, ClassVar, Literal, NamedTuple

from furnel.errors import FurnelError
from furnel.texts.address import WHAT, Address, Step, address_text
from furnel.words import near

Scalar = str | int | float | bool | None
Value = Any
"""Plain data: scalars, lists and tables (dicts) of them."""
MOST_TEXT = 64 << 20
DEEPEST = 200
_MARKS = ((codecs.BOM_UTF8, "utf-8"), (codecs.BOM_UTF16_LE, "utf-16-le"), (codecs.BOM_UTF16_BE, "utf-16-be"))


Kind = Literal["table", "list", "scalar"]


class Node:
    """A value and where its text is. A table's items have keys, a list's have none; a scalar has a `value` and no items.

    The items of a large text are looked for when they are first asked for: `items` is then what finds them.
    """

    __slots__ = ("_items", "_plain", "end", "kind", "start", "value")

    def __init__(
        self,
        kind: Kind,
        start: int,
        end: int,
        value: Scalar = None,
        items: tuple[Item, ...] | Callable[[], tuple[Item, ...]] = (),
        plain: Callable[[], Value] | None = None,
    ) -> None:
        self.kind, self.start, self.end, self.value, self._items, self._plain = (
            kind,
            start,
            end,
            value,
            items,
            plain,
        )

    @property
    def items(self) -> tuple[Item, ...]:
        """What is in it, in order."""
        if not isinstance(self._items, tuple):
            self._items = self._items()
        return self._items

    def plain(self) -> Value:
        """The same as plain data; of items with one key a list."""
        if self.kind == "scalar":
            return self.value
        if self._plain is not None:
            return self._plain()
        if self.kind == "list":
            return [item.node.plain() for item in self.items]
        out: dict[str, Value] = {}
        several: set[str] = set()
        for item in self.items:
            if item.key not in out:
                out[item.key] = item.node.plain()
            elif item.key in several:
                out[item.key].append(item.node.plain())
            else:
                out[item.key] = [out[item.key], item.node.plain()]
                several.add(item.key)
        return out


class Item(NamedTuple):
    """A part of a table or a list: its key, the key's span, its value, and the span of both together."""

    key: str
    node: Node
    start: int
    end: int
    key_start: int = -1
    key_end: int = -1


@dataclass(frozen=True, slots=True)
class Found:
    """Where an address leads: the node, and the item and the node that it is in (none for the whole)."""

    node: Node
    item: Item | None = None
    parent: Node | None = None
    place: int = 0


@dataclass(frozen=True, slots=True)
class Encoding:
    """How a text is stored: its bytes' encoding, and the mark before them."""

    name: str = "utf-8"
    mark: bytes = b""


def decoded(data: bytes, where: object, encoding: str = "") -> tuple[str, Encoding]:
    """A definition's text, by its byte-order mark, else as UTF-8, else as `encoding` says. Raises FurnelError for damage."""
    if len(data) > MOST_TEXT:
        raise FurnelError(
            "Reading a definition", where=where, why=f"{len(data)} bytes are more than a definition has"
        )
    for mark, name in _MARKS:
        if data.startswith(mark):
            return _decode(data[len(mark) :], name, where), Encoding(name, mark)
    name = encoding or "utf-8"
    return _decode(data, name, where), Encoding(name)


_DECLARED = re.compile(rb"""^<\?xml[^>]*?\sencoding\s*=\s*["']([A-Za-z][\w.\-]*)["']""")


def declared_encoding(data: bytes, where: object) -> str:
    """What an XML text says its bytes are (XML 1.0, 4.3.3); nothing when it does not. FurnelError for one that nobody knows."""
    found = _DECLARED.match(data[:256])
    if found is None:
        return ""
    name = found.group(1).decode("ascii")
    try:
        return codecs.lookup(name).name
    except LookupError as error:
        raise FurnelError(
            "Reading a definition", where=where, line=1, why=f"it says that it is in {name}, which is no known encoding",
            remedy="Correct the declaration in a text editor",
        ) from error  # fmt: skip


def _decode(data: bytes, name: str, where: object) -> str:
    try:
        return data.decode(name)
    except UnicodeDecodeError as error:
        line = data[: error.start].count(b"\n") + 1
        raise FurnelError(
            "Reading a definition",
            where=where,
            line=line,
            why=f"it is not {name.upper()} text",
            remedy="Save it as UTF-8, or say in the profile which encoding the game uses",
        ) from error


@dataclass(frozen=True)
class Document:
    """A definition in one notation. Frozen: every edit gives another document, or raises FurnelError and changes nothing."""

    text: str
    where: str = ""
    encoding: Encoding = field(default=Encoding())
    root: Node = field(init=False, compare=False, repr=False)
    kept: dict[str, Any] = field(init=False, compare=False, repr=False, default_factory=dict)
    """What was worked out of it once: it never changes."""
    notation: ClassVar[str] = ""
    is_typed: ClassVar[bool] = True
    """Whether it tells numbers and switches from texts."""
    twins: ClassVar[Literal["", "records", "all"]] = ""
    """Whether a table may have several items of one key: none, several records, or several of anything (there are no lists)."""

    def __post_init__(self) -> None:
        object.__setattr__(self, "root", self._parse())

    # what each notation says

    def _parse(self) -> Node:
        """The text's tree of spans. Raises FurnelError with line and column."""
        raise NotImplementedError

    def _spelled(self, value: Value, parent: Node, like: str) -> str:
        """A value's text, to stand in `parent`; `like` is the text that it replaces."""
        raise NotImplementedError

    def _respelled(self, value: Value, found: Found, old: str) -> str:
        """A value's text in the place of an old one."""
        return self._spelled(value, found.parent or self.root, old)

    def _inserted(self, parent: Node, place: int, key: str, value: Value) -> tuple[int, int, str]:
        """What to replace (start, end) by what text, to add an item to a table or list at a place."""
        raise NotImplementedError

    def _removed(self, parent: Node, place: int) -> tuple[int, int, str]:
        """What to replace by what, to take an item out."""
        raise NotImplementedError

    def _key_spelled(self, key: str) -> str:
        return key

    # reading

    def same_besides(self, other: Document) -> bool:
        """Whether two documents of one notation are the same in what their plain data does not show."""
        return True

    def moving(self, node: Node) -> Value:
        """A value as it is written again elsewhere in the document: as it stands there, where the notation allows it."""
        return node.plain()

    @property
    def data(self) -> bytes:
        """The bytes of the file."""
        return self.encoding.mark + self.text.encode(self.encoding.name)

    def plain(self) -> Value:
        """The whole as plain data, the same each time: it is not to be changed."""
        if "plain" not in self.kept:
            self.kept["plain"] = self.root.plain()
        return self.kept["plain"]

    def look(self, address: Address) -> Value:
        """What stands at an address, as plain data. Raises FurnelError when nothing does, with the nearest names."""
        return self.find(address).node.plain()

    def find(self, address: Address) -> Found:
        """Where an address leads. Raises FurnelError when it leads nowhere, with the nearest names."""
        found = Found(self.root)
        for number, step in enumerate(address):
            inner = self._step(found.node, step)
            if inner is None:
                raise self._nowhere(address, number, found.node)
            found = inner
        return found

    def has(self, address: Address) -> bool:
        """Whether an address leads somewhere."""
        try:
            self.find(address)
        except FurnelError:
            return False
        return True

    def _step(self, node: Node, step: Step) -> Found | None:
        """One step on: to the first item that is meant; through a list that stands under the key, to one of its items."""
        some = list(enumerate(node.items))
        if step.key or node.kind == "table":
            some = [(place, item) for place, item in some if item.key == step.key]
            if len(some) == 1 and step.picks and some[0][1].node.kind == "list":
                inner = some[0][1].node
                return self._step(inner, Step("", step.field, step.value, step.place))
        if step.place is not None:
            some = some[step.place : step.place + 1]
        elif step.field is not None:
            some = [(place, item) for place, item in some if _is_picked(item.node, step)]
        if not some:
            return None
        place, item = some[0]
        return Found(item.node, item, node, place)

    def _nowhere(self, address: Address, number: int, node: Node) -> FurnelError:
        step, before = address[number], address_text(address[:number]) or "the whole"
        known = [item.key for item in node.items if item.key]
        if step.field is not None:
            known = [
                str(inner.node.value)
                for item in _picked_from(node, step.key)
                for inner in (item.node.items if step.field else (item,))
                if inner.key == step.field or not step.field
            ]
        return FurnelError(
            WHAT,
            where=f"{self.where}, {address_text(address)}" if self.where else address_text(address),
            why=f"{before} has no {step}",
            remedy=near(step.value if step.field is not None else step.key, known) or "Look at what is there",
        )

    # changing

    def set(self, address: Address, value: Value) -> Document:
        """Another value at an address that is there."""
        found = self.find(address)
        if alike(found.node.plain(), value):
            return self
        text = self._respelled(value, found, self.text[found.node.start : found.node.end])
        return self._proven(found.node.start, found.node.end, text, address, value)

    def add(self, address: Address, key: str, value: Value, at: int | None = None) -> Document:
        """A new item in the table or list at an address: with a key in a table, at a place (none: last)."""
        found = self.find(address)
        node = found.node
        if node.kind == "scalar":
            raise self._refusal(address, "it is a single value, and nothing can be added to it")
        if node.kind == "table" and not key:
            raise self._refusal(address, "a table takes nothing without a key")
        if node.kind == "table" and any(item.key == key for item in node.items) and not self.twins:
            raise self._refusal(address, f"it has a {key} already")
        count = len(node.items)
        place = count if at is None else max(0, min(at, count))
        start, end, text = self._inserted(node, place, key, value)
        return self._replaced(start, end, text)

    def drop(self, address: Address) -> Document:
        """Without what stands at an address."""
        found = self.find(address)
        if found.parent is None:
            raise self._refusal(address, "the whole cannot be dropped")
        start, end, text = self._removed(found.parent, found.place)
        return self._replaced(start, end, text)

    def rename(self, address: Address, key: str) -> Document:
        """Another key for what stands at an address."""
        found = self.find(address)
        if found.item is None or found.item.key_start < 0 or found.parent is None:
            raise self._refusal(address, "it has no key of its own")
        if key != found.item.key and any(item.key == key for item in found.parent.items):
            raise self._refusal(address, f"there is a {key} already")
        return self._replaced(found.item.key_start, found.item.key_end, self._key_spelled(key))

    def _storable(self, text: str) -> str:
        """A text that can be stored as the definition is. Raises FurnelError for signs that its encoding does not have."""
        try:
            text.encode(self.encoding.name)
        except UnicodeEncodeError as error:
            raise self._refusal(
                (), f"{text[error.start]!r} cannot be written in {self.encoding.name.upper()}"
            ) from error
        return text

    def _replaced(self, start: int, end: int, text: str) -> Document:
        self._storable(text)
        return replace(self, text=self.text[:start] + text + self.text[end:])

    def _proven(self, start: int, end: int, text: str, address: Address, value: Value) -> Document:
        made = self._replaced(start, end, text)
        if not any(_same(node.plain(), value) for node in _beginning(made.root, start)):
            raise self._refusal(address, f"{value!r} cannot be written in {self.notation}")
        return made

    def _refusal(self, address: Address, why: str) -> FurnelError:
        text = address_text(address) or "the whole"
        return FurnelError(
            "Changing a definition", where=f"{self.where}, {text}" if self.where else text, why=why
        )

    def _damage(self, at: int, why: str) -> FurnelError:
        """A refusal of a text that breaks the rules at a sign."""
        line = self.text.count("\n", 0, at) + 1
        column = at - (self.text.rfind("\n", 0, at) + 1) + 1
        return FurnelError(
            "Reading a definition",
            where=self.where,
            line=line,
            why=f"{why} (column {column})",
            remedy="Correct it in a text editor",
        )


def _beginning(node: Node, start: int) -> Iterator[Node]:
    """The nodes that begin at a sign."""
    if node.start == start:
        yield node
    for item in node.items:
        if item.node.start <= start <= item.node.end:
            yield from _beginning(item.node, start)


class Verbatim(str):
    """A value that is written as it stands."""


def alike(one: Value, other: Value) -> bool:
    """Whether plain data is the same, of the same types: 1, 1.0 and true are not. What is no number is like itself."""
    if isinstance(one, dict) and isinstance(other, dict):
        return one.keys() == other.keys() and all(alike(part, other[key]) for key, part in one.items())
    if isinstance(one, list) and isinstance(other, list):
        return len(one) == len(other) and all(map(alike, one, other))
    if type(one) is not type(other):
        return False
    return bool(one == other) or (isinstance(one, float) and one != one and other != other)


def _same(found: Value, wanted: Value) -> bool:
    """Whether what was read is what was meant; numbers and texts of texts-only notations by their spelling."""
    if isinstance(wanted, dict) and isinstance(found, dict):
        return found.keys() == {str(key) for key in wanted} and all(
            _same(found[str(key)], part) for key, part in wanted.items()
        )
    if isinstance(wanted, list) and isinstance(found, list):
        return len(found) == len(wanted) and all(map(_same, found, wanted))
    if isinstance(found, str) and not isinstance(wanted, str):
        return found == scalar_text(wanted)
    return isinstance(found, bool) == isinstance(wanted, bool) and bool(found == wanted)


def scalar_text(value: Scalar) -> str:
    """A scalar as texts-only notations write it."""
    if value is None:
        return ""
    return str(value).lower() if isinstance(value, bool) else str(value)


def _is_picked(node: Node, step: Step) -> bool:
    if not step.field:
        return node.kind == "scalar" and scalar_text(node.value) == step.value
    if node.kind != "table":
        return False
    value = node.plain().get(step.field)
    return not isinstance(value, dict | list) and value is not None and scalar_text(value) == step.value


def _picked_from(node: Node, key: str) -> Iterator[Item]:
    for item in node.items:
        if item.key == key or not key:
            if item.node.kind == "list" and key:
                yield from item.node.items
            else:
                yield item


def indent_at(text: str, at: int) -> str:
    """The white space before a sign, when nothing else stands before it on its line; else nothing."""
    line = text.rfind("\n", 0, at) + 1
    before = text[line:at]
    return before if not before.strip(" \t") else ""
