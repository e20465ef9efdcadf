"""A definition as people look at it: tables of records with the game's values and the mod's, what each means, what is wrong."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable
from dataclasses import dataclass, field
from functools import cached_property
from itertools import islice
from typing import TYPE_CHECKING

from furnel.errors import FurnelError
from furnel.mods.definitions import definition, faults_between, known_to, meanings_of
from furnel.texts import (
    Change,
    Document,
    Fault,
    Known,
    Meaning,
    Meanings,
    Step,
    address_text,
    parse_address,
    tables,
)
from furnel.texts.address import Address
from furnel.texts.document import Value, alike, scalar_text
from furnel.texts.places import ABSENT, Table, leaves, pick, place_of

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

WHOLE = "the whole"
_FEW_COLOURS = 4
_TELLING = 500  # so many records show which values a table has


@dataclass(frozen=True, slots=True)
class Line:
    """A value of a record: its address, what it is called, what it is in the mod and in the game (ABSENT where it is not), its
    meaning, and what is wrong with it."""

    address: str
    label: str
    now: Value
    game: Value
    meaning: Meaning
    fault: Fault | None = None

    @property
    def changed(self) -> bool:
        return (
            self.now is ABSENT
            or self.game is ABSENT
            or not alike(self.now, self.game)
            or type(self.now) is not type(self.game)
        )


@dataclass(frozen=True, slots=True)
class Column:
    """A value that records of a table have: its address in them, what it is called, its unit, its meaning."""

    key: Address
    label: str
    unit: str
    meaning: Meaning


@dataclass(frozen=True)
class Sheet:
    """A table of records: its name, the values that they have, the names of all in order (what the mod took out comes last)."""

    name: str
    address: Address
    columns: tuple[Column, ...]
    names: tuple[str, ...]
    records: dict[str, Address]
    now: dict[str, Value] = field(repr=False)
    game: dict[str, Value] = field(repr=False)

    def cell(self, name: str, column: Column) -> tuple[Value, Value]:
        """A record's value in the mod and in the game; ABSENT where there is none."""
        return pick(self.now.get(name, ABSENT), column.key), pick(self.game.get(name, ABSENT), column.key)

    def state(self, name: str) -> str:
        """Whether a record is the game's (nothing), `changed`, `new` or `gone`."""
        now, game = self.now.get(name, ABSENT), self.game.get(name, ABSENT)
        if now is ABSENT or game is ABSENT:
            return "gone" if now is ABSENT else "new"
        return "" if alike(now, game) else "changed"


@dataclass(frozen=True)
class Book:
    """A definition opened: its tables, what is known of its values, what is wrong with them, both texts, what is changed."""

    path: str
    game: Document = field(repr=False)
    now: Document = field(repr=False)
    changes: tuple[Change, ...]
    meanings: Meanings = field(repr=False)
    known: Known = field(repr=False)
    faults: tuple[Fault, ...]
    sheets: tuple[Sheet, ...]

    @cached_property
    def _faults(self) -> dict[str, Fault]:
        return {fault.address: fault for fault in self.faults}

    def fault_at(self, address: str) -> Fault | None:
        """What is wrong with a value, or nothing."""
        return self._faults.get(address)

    def meaning(self, address: Address) -> Meaning:
        """What is known of the value at an address."""
        place = place_of(address, self.meanings.records, bool(self.now.twins))
        return self.meanings.of.get(place, Meaning())

    def lines(self, sheet: Sheet, name: str) -> list[Line]:
        """All values of a record, in their order; those that the mod took out stand last."""
        at = sheet.records[name]
        sides = (side.get(name, ABSENT) for side in (sheet.now, sheet.game))
        now, game = (dict(_leaves(value, bool(self.now.twins))) for value in sides)
        return [
            self._line((*at, *key), key, now.get(key, ABSENT), game.get(key, ABSENT))
            for key in {**now, **game}
        ]

    def _line(self, address: Address, key: Address, now: Value, game: Value) -> Line:
        meaning, text = self.meaning(address), address_text(address)
        return Line(text, _label(key, meaning), now, game, meaning, self.fault_at(text))

    def missing(self, sheet: Sheet, name: str) -> list[str]:
        """The values that a record may have, as others do or a profile says, and does not."""
        row = sheet.now.get(name)
        if not isinstance(row, dict):
            return []
        place = place_of(sheet.records[name], self.meanings.records, bool(self.now.twins))
        inside = [(key, part) for key, part in row.items() if isinstance(part, dict)]
        out = [key for key in self.meanings.keys.get(place, ()) if key not in row]
        for around, part in inside:
            known = self.meanings.keys.get((*place, str(around)), ())
            out += [address_text((Step(str(around)), Step(key))) for key in known if key not in part]
        return sorted(out)

    def added(self, sheet: Sheet, name: str, key: str) -> Change:
        """A value that a record may have, as another record has it, or the least that it can be."""
        steps = parse_address(key)
        at = (*sheet.records[name], *steps[:-1])
        found = (pick(row, steps) for row in sheet.now.values())
        rule = self.meaning((*at, steps[-1])).rule
        value: Value = next((one for one in found if one is not ABSENT), None)
        if value is None and rule is not None and rule.strip is not None:
            value = rule.strip.write(
                [(grey, grey, grey) for grey in _greys(rule.strip.colours or _FEW_COLOURS)]
            )
        elif value is None:
            takes = rule.takes if rule is not None else None
            value = {"number": 0, "whole number": 0, "switch": False}.get(takes or "", "")
        return Change(do="add", at=address_text(at), key=steps[-1].key, to=value)

    def options(self, meaning: Meaning) -> list[str]:
        """What may stand in a place, as far as that is a choice: texts, or the ids of records."""
        rule = meaning.rule
        if rule is not None and rule.choices:
            return list(rule.choices)
        table = rule.of if rule is not None and rule.takes == "record" else meaning.names
        return sorted(self.known.tables.get(table, ())) or list(meaning.choices)


def open_book(space: Workspace, original: str) -> Book:
    """A definition of the mod, or of the game alone. Raises FurnelError as `definition` does."""
    game, now, changes = definition(space, original)
    known = known_to(space)
    swap = space.project.swap_for(original)
    base = swap.base if swap is not None else original
    of = meanings_of(space, base)
    found = faults_between(space, base, game, now, known)
    return Book(original, game, now, changes, of, known, tuple(found), _sheets(game, now, of))


def _sheets(game: Document, now: Document, of: Meanings) -> tuple[Sheet, ...]:
    theirs, ours = {table.place: table for table in tables(game)}, tables(now)
    lost = [table for place, table in theirs.items() if all(place != other.place for other in ours)]
    out = [_sheet(table, table.rows, theirs.get(table.place), now, of) for table in ours]
    out += [_sheet(table, {}, table, now, of) for table in lost]
    plain, covered = now.plain(), {table.address[0].key if table.address else "" for table in ours}
    if not any(not table.address for table in ours):
        rest = (
            {key: value for key, value in plain.items() if key not in covered}
            if isinstance(plain, dict)
            else plain
        )
        if rest:
            out.append(Sheet(WHOLE, (), (), (WHOLE,), {WHOLE: ()}, {WHOLE: plain}, {WHOLE: game.plain()}))
    return tuple(out)


def _sheet(
    table: Table, rows: dict[str, Value], theirs: Table | None, document: Document, of: Meanings
) -> Sheet:
    game = theirs.rows if theirs is not None else {}
    before = theirs.records if theirs is not None else {}
    gone = {name: address for name, address in before.items() if name not in rows}
    records = {**(table.records if rows else {}), **gone}
    told = [*islice((rows or game).values(), _TELLING)]
    keys = Counter(
        key
        for row in told
        for key, _ in leaves(row, bool(document.twins))
        if key and not any(step.picks for step in key)
    )
    some = next(iter(records.values()), table.address)
    columns = []
    for key in sorted(keys, key=lambda key: keys[key] * 2 < len(told)):  # what most of them have comes first
        meaning = of.of.get(place_of((*some, *key), of.records, bool(document.twins)), Meaning())
        columns.append(Column(key, _label(key, meaning), meaning.unit, meaning))
    return Sheet(
        address_text(table.address) or "records",
        table.address,
        tuple(columns),
        tuple(records),
        records,
        rows,
        game,
    )


def _leaves(value: Value, twins: bool) -> Iterable[tuple[Address, Value]]:
    return () if value is ABSENT else leaves(value, twins)


def _greys(number: int) -> list[int]:
    return [round(place * 255 / max(number - 1, 1)) for place in range(number)]


def _label(key: Address, meaning: Meaning) -> str:
    if meaning.rule is not None and meaning.rule.called:
        return meaning.rule.called
    words = (step.key.removeprefix("@") + (f" {step.value}" if step.picks else "") for step in key)
    return " › ".join(word.strip() for word in words) or "value"


# changes that the bench makes


def set_values(book: Book, addresses: Iterable[str], value: Value) -> list[Change]:
    """The same value at several addresses, where it is not yet."""
    written = value if book.now.is_typed else scalar_text(value)
    return [
        Change(do="set", at=address, to=written)
        for address in addresses
        if book.now.look(parse_address(address)) != written
    ]


def reckoned(book: Book, addresses: Iterable[str], how: str, by: float) -> list[Change]:
    """Numbers at several addresses reckoned with: `set`, `multiply` or `add` by a number; what is no number stays."""
    out = []
    for address in addresses:
        old = book.now.look(parse_address(address))
        typed = old if book.now.is_typed else _number(old)
        if isinstance(typed, bool) or not isinstance(typed, int | float):
            continue
        new = by if how == "set" else typed * by if how == "multiply" else typed + by
        new = round(new, 6)
        whole = isinstance(typed, int) and float(new).is_integer()
        value: Value = int(new) if whole else float(new)
        out.append(Change(do="set", at=address, to=value if book.now.is_typed else scalar_text(value)))
    return out


def _number(text: Value) -> Value:
    try:
        return int(text) if str(text).lstrip("-").isdigit() else float(text)
    except (TypeError, ValueError):
        return text


def copied(book: Book, sheet: Sheet, name: str, other: str) -> list[Change]:
    """The values of another record, but for what names it; values that this one does not have are added."""
    mine, theirs = sheet.now[name], sheet.now[other]
    at, naming = sheet.records[name], sheet.records[name][-1].field if sheet.records[name] else None
    out = []
    for key, value in theirs.items():
        if key == naming or (key in mine and mine[key] == value):
            continue
        where = (*at, Step(str(key)))
        change = Change(do="set", at=address_text(where), to=value)
        out.append(change if key in mine else Change(do="add", at=address_text(at), key=str(key), to=value))
    return out


def like_another(book: Book, sheet: Sheet, name: str, like: str) -> Change:
    """A new record with all values of another, behind it. Raises FurnelError when there is one of that name."""
    if name in sheet.records:
        raise FurnelError(
            "A new record", where=book.path, why=f"there is a {name} already", remedy="Give it another name"
        )
    at, last = sheet.address, sheet.records[like][-1]
    if not last.picks:
        return Change(do="add", at=address_text(at), key=name, to={}, like=like, place=f"after {like}")
    key = ""
    if book.now.twins and at:
        at, key = at[:-1], at[-1].key  # elements of one name stand in the element around them
    picked = str(Step("", last.field, like))[1:-1]
    return Change(
        do="add", at=address_text(at), key=key, to={str(last.field): name}, like=picked, place=f"after {like}"
    )
