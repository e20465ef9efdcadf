"""Patches: changes of a definition by address, in order; worked out from an edited file, applied, judged against updates."""

from __future__ import annotations

import copy
import re
from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from difflib import SequenceMatcher
from typing import Any, Literal

from pydantic import Field, field_validator

from furnel.errors import FurnelError
from furnel.schema import Part
from furnel.texts.address import Address, Step, address_text, parse_address
from furnel.texts.document import Document, Node, Value, alike, scalar_text
from furnel.texts.places import NAMING as _NAMING

WHAT = "Changing a definition"


class Change(Part):
    """One change of a definition.

    `set` puts `to` at an address; `add` puts `to` under `key` into the table or list there (`like` an item beside it, whose
    values it begins with; `place` is `first`, `last`, or `before` or `after` an item's key); `drop` takes out what is there;
    `rename` gives it another `key`; `move` brings it to another `place`. `was` is what the game had there.
    """

    do: Literal["set", "add", "drop", "rename", "move"]
    at: str
    key: str = ""
    to: Any = None
    was: Any = None
    like: str = ""
    part_of: str = ""
    place: str = Field(default="last", pattern=r"^(first|last|(before|after) [\s\S]*)$")

    @field_validator("at")
    @classmethod
    def _an_address(cls, at: str) -> str:
        try:
            parse_address(at)
        except FurnelError as error:
            raise ValueError(f"{error.why}; {error.remedy}") from error
        return at

    @property
    def address(self) -> Address:
        return parse_address(self.at)

    @property
    def target(self) -> str:
        """The address of what is changed: for what is added its own."""
        if self.do != "add":
            return self.at
        if self.key:
            return address_text((*self.address, Step(self.key)))
        if isinstance(self.to, dict):
            naming = next((name for name in _NAMING if isinstance(self.to.get(name), str | int)), None)
            return (
                _inside(self.address, Step("", naming, scalar_text(self.to[naming]))) if naming else self.at
            )
        return _inside(self.address, Step("", "", scalar_text(self.to)))

    def said(self) -> str:
        """The change in a few words."""
        if self.do == "set":
            before = f"{short_value(self.was)} → " if self.was is not None else ""
            return f"{self.at}: {before}{short_value(self.to)}"
        if self.do == "add":
            inside = f" in {self.at}" if self.at else ""
            mark = self.key or short_value(self.to)
            if isinstance(self.to, dict) and (name := next(filter(None, map(self.to.get, _NAMING)), None)):
                mark = f"{self.key} {name}".strip()
            return f"new {mark}{inside}" + (f", like {self.like.rpartition('=')[2]}" if self.like else "")
        if self.do == "rename":
            return f"{self.at} is called {self.key}"
        return f"{self.at} moves {self.place}" if self.do == "move" else f"without {self.at}"


@dataclass(frozen=True, slots=True)
class Dispute:
    """A change whose place is another one now: what the change was made for, and what the game has there today."""

    change: Change
    now: Value

    def said(self) -> str:
        """The dispute in a sentence's part."""
        return f"{self.change.at} was {short_value(self.change.was)} and is {short_value(self.now)} in the game now"


def applied(document: Document, changes: Iterable[Change]) -> Document:
    """The document with changes, in their order. Raises FurnelError that names the change and what is nearest."""
    for change in changes:
        document = _apply(document, change)
    return document


def _apply(document: Document, change: Change) -> Document:
    address = change.address
    if change.do == "set":
        return document.set(address, change.to)
    if change.do == "drop":
        if change.was is not None and not document.has(address):
            return document  # somebody else dropped it as well
        return document.drop(address)
    if change.do == "rename":
        return document.rename(address, change.key)
    if change.do == "move":
        found = document.find(address)
        if found.parent is None or found.item is None:
            raise FurnelError(WHAT, where="the whole", why="it has no place of its own")
        within = address[:-1]
        if found.parent.kind == "list" and address[-1].key:
            within = (*within, Step(address[-1].key))
        without = document.drop(address)
        place = _place(without.find(within).node, change)
        return without.add(within, found.item.key, document.moving(found.node), place)
    node = document.find(address).node
    if document.twins == "all":
        at = _twin_target(change, _known_naming(document, change))
        there = (
            document.look(parse_address(at)) if "[+" not in at and document.has(parse_address(at)) else None
        )
        if there is not None and isinstance(change.to, dict):
            if there == change.to:
                return document  # somebody else added the same
            raise FurnelError(
                WHAT, where=at, why="there is one of that name already, and it is another",
                remedy="Give the new one another name, or change the one that is there",
            )  # fmt: skip
    return document.add(address, change.key, _new_value(document, node, change), _place(node, change))


def _known_naming(document: Document, change: Change) -> str | None:
    """What names the items of a key in a table, by those that are there."""
    if (
        change.do != "add"
        or not change.key
        or not isinstance(change.to, dict)
        or not document.has(change.address)
    ):
        return None
    table = document.look(change.address)
    rows = _rows(table.get(change.key, [])) if isinstance(table, dict) else []
    return _naming(rows, rows) if rows else None


def _twin_target(change: Change, naming: str | None) -> str:
    """The address of what a change is about in a notation whose tables have several items of one key; of one that comes in
    and has no name an address that nothing else has."""
    if change.do != "add" or not isinstance(change.to, dict):
        return change.target
    own = change.to
    naming = naming or next((name for name in _NAMING if isinstance(own.get(name), str | int)), None)
    if naming is None or not isinstance(own.get(naming), str | int):
        return f"{change.target}[+]"
    return _inside((*change.address, Step(change.key)), Step("", naming, scalar_text(own[naming])))


def _new_value(document: Document, node: Node, change: Change) -> Value:
    if not change.like:
        return change.to
    if node.kind == "table" and document.twins:
        step = parse_address(f"{Step(change.key)}[{change.like}]")[0]
    else:
        step = Step(change.like) if node.kind == "table" else parse_address(f"[{change.like}]")[0]
    value = copy.deepcopy(document.look((*change.address, step)))
    if isinstance(value, dict) and isinstance(change.to, dict):
        return {**value, **change.to}
    return value if change.to is None else change.to


def _place(node: Node, change: Change) -> int | None:
    if change.place == "last":
        return None
    if change.place == "first":
        return 0
    side, _, name = change.place.partition(" ")
    for by_any in (False, True):
        for number, item in enumerate(node.items):
            if name in _names(item.node, by_any) or (item.key == name and node.kind == "table"):
                return number + (side == "after")
    raise FurnelError(
        WHAT, where=change.at, why=f"there is no {name} to put it {side}", remedy="Put it first or last"
    )


def _names(node: Node, by_any: bool) -> list[str]:
    """What an item may be called: by a field that names, or `by_any` of its texts."""
    if node.kind == "scalar":
        return [scalar_text(node.value)]
    return [
        scalar_text(item.node.value)
        for item in node.items
        if item.key in _NAMING or (by_any and item.node.kind == "scalar")
    ]


def disputes(document: Document, changes: Iterable[Change]) -> list[Dispute]:
    """Changes whose place is not what it was when they were made. What is gone altogether is told when they are applied."""
    out = []
    for change in changes:
        if change.do in ("set", "drop") and change.was is not None and document.has(change.address):
            now = document.look(change.address)
            if now != change.was and now != change.to:
                out.append(Dispute(change, now))
    return out


def with_change(kept: Sequence[Change], change: Change) -> tuple[Change, ...]:
    """Changes with one more: a value that was set is set once, and one that is the game's own again not at all."""
    last = next(
        (one for one in reversed(kept) if is_in(one.target, change.at) or is_in(change.at, one.target)), None
    )
    rest = tuple(one for one in kept if one is not last)
    if change.do == "set" and last is not None and last.do == "set" and last.at == change.at:
        if last.was == change.to and type(last.was) is type(change.to):
            return rest
        return (*rest, change.model_copy(update={"was": last.was}))
    if change.do == "drop" and last is not None and last.do == "add" and last.target == change.at:
        return rest
    return (*kept, change)


def without_change(kept: Sequence[Change], address: str) -> tuple[Change, ...]:
    """Changes without those of what is at an address, and in it."""
    return tuple(one for one in kept if not is_in(one.target, address))


def is_in(inner: str, outer: str) -> bool:
    """Whether one address is another, or lies in what that leads to."""
    return inner == outer or not outer or inner.startswith((f"{outer}/", f"{outer}["))


def settled(document: Document, changes: Iterable[Change]) -> tuple[Change, ...]:
    """The changes as made for a document: what each finds there now is what it `was`. FurnelError when one finds nothing."""
    out = []
    for change in changes:
        if change.do == "set" or (change.do == "drop" and document.has(change.address)):
            change = change.model_copy(update={"was": document.look(change.address)})
        document = _apply(document, change)
        out.append(change)
    return tuple(out)


@dataclass(frozen=True, slots=True)
class Merged:
    """Two changed definitions as one, and the changes of the second that the first contradicts: there it has the first's."""

    document: Document
    disputes: tuple[Dispute, ...]


def merged(base: Document, theirs: Document, mine: Document) -> Merged:
    """What both made of a definition. Where both want the same it is done once, lists get what both put into them, and what
    both changed in different ways stays as theirs and is told. Raises FurnelError where a side is not told value by value."""
    others, result = difference(base, theirs), theirs
    told: list[Dispute] = []
    targets = [(one, target_in(base, one)) for one in others]
    for change in difference(base, mine):
        own = target_in(base, change)
        if any(
            (one.do, one.at, one.key, one.to) == (change.do, change.at, change.key, change.to)
            for one in others
        ):
            continue
        beside = [one for one, at in targets if meet(at, own) and not _apart(one, change)]
        try:
            if beside:
                raise FurnelError(WHAT, why="both changed it")
            result = _apply(result, change)
        except FurnelError:
            loose = change.model_copy(update={"place": "last"})
            if not beside and change.do == "add" and (made := _tried(result, loose)) is not None:
                result = made
                continue
            address = change.address
            told.append(Dispute(change, theirs.look(address) if theirs.has(address) else None))
    return Merged(result, tuple(told))


def target_in(base: Document, change: Change) -> str:
    """The address of what a change of a definition is about, as its notation has it."""
    return _twin_target(change, _known_naming(base, change)) if base.twins == "all" else change.target


_NUMBER = re.compile(r"[-+.\d]+(?:[eE][-+]?\d+)?")
_PLACED = re.compile(r"\[\d+\]")


def meet(one: str, other: str) -> bool:
    """Whether two changes' targets meet: one in the other, or one told by its place among others that the other may shift."""
    if "[+]" in one or "[+]" in other:
        return False
    if is_in(one, other) or is_in(other, one):
        return True
    for placed, named in ((one, other), (other, one)):
        for found in _PLACED.finditer(placed):
            before = placed[: found.start()]
            if named.startswith(f"{before}[") and not _PLACED.match(named, len(before)):
                return True
            if named == f"{before}{found.group()}" or (
                named.startswith(f"{before}[") and _PLACED.fullmatch(named[len(before) :])
            ):
                return True  # one goes or is another: those behind it have other places then
    return False


def _apart(one: Change, other: Change) -> bool:
    """Whether two changes of one record have nothing to do with each other: where it stands, and what is in it."""
    return ("move" in (one.do, other.do)) and one.do != other.do and "drop" not in (one.do, other.do)


def _tried(document: Document, change: Change) -> Document | None:
    try:
        return _apply(document, change)
    except FurnelError:
        return None


def difference(base: Document, theirs: Document) -> tuple[Change, ...]:
    """The changes that turn one document into another, record by record and value by value; proven by applying them."""
    changes = tuple(_differences(base.plain(), theirs.plain(), (), base.twins))
    try:
        made = applied(base, changes)
        if alike(made.plain(), theirs.plain()) and made.same_besides(theirs):
            return changes
    except FurnelError:
        pass
    raise FurnelError(
        WHAT,
        where=theirs.where,
        why="what is different cannot be told value by value",
        remedy="Use the whole file as the source of a swap",
    )


def _differences(base: Value, theirs: Value, at: Address, twins: str) -> list[Change]:
    if repr(base) == repr(theirs):
        return []
    if isinstance(base, dict) and isinstance(theirs, dict):
        return _of_tables(base, theirs, at, twins)
    if isinstance(base, list) and isinstance(theirs, list):
        return _of_lists(base, theirs, at, twins)
    return [Change(do="set", at=address_text(at), to=theirs, was=base)]


def _of_tables(base: dict[str, Value], theirs: dict[str, Value], at: Address, twins: str) -> list[Change]:
    out = []
    for key, value in base.items():
        inside = (*at, Step(key))
        if key not in theirs:
            times = len(_rows(value)) if _several(value, twins) else 1
            was = value if times == 1 else None
            naming = _naming([value], [value]) if twins == "all" and isinstance(value, dict) else None
            if naming is not None:  # others may come in beside it
                inside = (*at, Step(key, naming, scalar_text(value[naming])))
            out += [Change(do="drop", at=address_text(inside), was=was) for _ in range(times)]
        elif _several(value, twins) or _several(theirs[key], twins):
            out += _of_twins(_rows(value), _rows(theirs[key]), at, key, twins)
        elif twins == "all" and _is_another(value, theirs[key]):
            out += _of_twins([value], [theirs[key]], at, key, twins)
        else:
            out += _differences(value, theirs[key], inside, twins)
    previous: str | None = None
    for key, value in theirs.items():
        if key not in base:
            place = _behind(previous)
            rows = _rows(value) if _several(value, twins) else [value]
            if len(rows) > 1 or not base:
                place = "last"
            out += [Change(do="add", at=address_text(at), key=key, to=row, place=place) for row in rows]
        previous = key
    return out


def _is_another(one: Value, other: Value) -> bool:
    """Whether a record stands where one stood that has nothing in common with it."""
    if (
        not isinstance(one, dict)
        or not isinstance(other, dict)
        or len(one) < 2
        or _naming([one], [other]) is None
    ):
        return False
    return not any(key in other and other[key] == value for key, value in one.items())


def _behind(name: str | None) -> str:
    """The place behind an item, whatever that is called; the first without one."""
    return "first" if name is None else f"after {name}"


def _several(value: Value, twins: str) -> bool:
    """Whether plain data stands for several items of one key: any list, or, where values may be lists, one of records."""
    return isinstance(value, list) and (
        twins == "all" or (twins != "" and any(isinstance(row, dict) for row in value))
    )


def _rows(value: Value) -> list[Value]:
    return value if isinstance(value, list) else [value]


def _of_twins(base: list[Value], theirs: list[Value], at: Address, key: str, twins: str) -> list[Change]:
    """Items of one key in a table: by what names them, else all of them anew."""
    naming = _naming(base, theirs)
    if naming is not None:
        mine, yours = ({scalar_text(row[naming]): row for row in rows} for rows in (base, theirs))
        return _arranged(mine, yours, (*at, Step(key)), naming, twins, key)
    if base and len(base) <= len(theirs):  # by their places; more come behind them
        places = (
            _differences(old, new, (*at, Step(key, place=place)), twins)
            for place, (old, new) in enumerate(zip(base, theirs, strict=False))
        )
        more = [Change(do="add", at=address_text(at), key=key, to=row) for row in theirs[len(base) :]]
        return [*(change for some in places for change in some), *more]
    drops = [Change(do="drop", at=address_text((*at, Step(key)))) for _ in base]
    return [*drops, *(Change(do="add", at=address_text(at), key=key, to=row) for row in theirs)]


def _of_lists(base: list[Value], theirs: list[Value], at: Address, twins: str) -> list[Change]:
    naming = _naming(base, theirs)
    if naming is None:
        if _are_scalars(base) and _are_scalars(theirs) and _are_distinct(base) and _are_distinct(theirs):
            mine, yours = ({scalar_text(value): value for value in rows} for rows in (base, theirs))
            if all(type(mine[name]) is type(yours[name]) for name in mine.keys() & yours.keys()):
                return _arranged(mine, yours, at, "", twins)
        return [Change(do="set", at=address_text(at), to=theirs, was=base)]
    mine, yours = ({scalar_text(row[naming]): row for row in rows} for rows in (base, theirs))
    return _arranged(mine, yours, at, naming, twins)


def _arranged(
    mine: dict[str, Value], yours: dict[str, Value], at: Address, naming: str, twins: str, key: str = ""
) -> list[Change]:
    """What turns a list of things with names into another: what is in them first, then what comes in, then the order.

    With a `key` they are not in a list, but items of that key in the table around.
    """
    out: list[Change] = []
    within = address_text(at[:-1] if key else at)
    for name, row in mine.items():
        step = Step("", naming, name)
        if name not in yours:
            out.append(Change(do="drop", at=_inside(at, step), was=row))
        elif naming:
            out += [
                change.model_copy(update={"at": _inside(at, step) + (f"/{change.at}" if change.at else "")})
                for change in _differences(row, yours[name], (), twins)
            ]
    order = [name for name in mine if name in yours]
    previous: str | None = None
    for name, row in yours.items():
        if name not in mine:
            place = _behind(previous) if mine else "last"
            out.append(Change(do="add", at=within, key=key, to=row, place=place))
            order.insert(0 if previous is None else order.index(previous) + 1, name)
        previous = name
    wanted = list(yours)
    still: set[str] = set()
    for block in SequenceMatcher(None, order, wanted, autojunk=False).get_matching_blocks():
        still.update(order[block.a : block.a + block.size])
    for number, name in enumerate(wanted):
        if name not in still:
            place = _behind(wanted[number - 1] if number else None)
            out.append(Change(do="move", at=_inside(at, Step("", naming, name)), place=place))
    return out


def _inside(at: Address, step: Step) -> str:
    """The address of a list's item, through the key that the list stands under."""
    if at and not at[-1].picks:
        return address_text((*at[:-1], Step(at[-1].key, step.field, step.value, step.place)))
    return address_text((*at, step))


def _naming(base: Sequence[Value], theirs: Sequence[Value]) -> str | None:
    for name in _NAMING:
        if all(
            all(isinstance(row, dict) and isinstance(row.get(name), str | int) for row in rows)
            and len({scalar_text(row[name]) for row in rows}) == len(rows)
            for rows in (base, theirs)
        ):
            return name
    if not base or not all(isinstance(row, dict) for row in (*base, *theirs)):
        return None
    for name in base[0]:
        if all(_are_names([row.get(name) for row in rows]) for rows in (base, theirs)):
            return str(name)
    return None


def _are_names(values: Sequence[Value]) -> bool:
    """Whether values could tell rows apart: texts, no numbers, another in each."""
    return all(isinstance(value, str) and value and not _NUMBER.fullmatch(value) for value in values) and len(
        set(values)
    ) == len(values)


def _are_scalars(rows: Sequence[Value]) -> bool:
    return not any(isinstance(row, dict | list) for row in rows)


def _are_distinct(rows: Sequence[Value]) -> bool:
    return len({scalar_text(row) for row in rows}) == len(rows)


def short_value(value: Value) -> str:
    """A value in a few letters."""
    if isinstance(value, dict):
        return "{…}" if value else "{}"
    if isinstance(value, list):
        return f"[{len(value)}]"
    text = scalar_text(value) if value is not None else "nothing"
    return text if len(text) <= 40 else text[:39] + "…"
