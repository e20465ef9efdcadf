"""Kinds of places in definitions: which values are siblings of each other, which tables hold records, what these are called."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from furnel.texts.address import Address, Step
from furnel.texts.document import Document, Value, alike, scalar_text

Place = tuple[str, ...]
"""The steps to a kind of place; `*` stands for a record's name and for any item of a list."""
ANY = "*"
_MANY = 8
NAMING = ("id", "name", "key", "@id", "@name")
"""Fields by which the items of a list are told apart, the first that all of them have and that is another in each."""


@dataclass(frozen=True, slots=True)
class Spot:
    """A value in a definition: its kind of place, its address, itself as plain data."""

    place: Place
    address: Address
    value: Value


@dataclass(frozen=True, slots=True)
class Table:
    """A table of records that are like each other: its kind of place, its address, its records' addresses and values."""

    place: Place
    address: Address
    records: dict[str, Address]
    rows: dict[str, Value]


def naming_of(rows: list[Any]) -> str | None:
    """The field by which rows are told apart, or None. A row's first column is one when it is another in each."""
    if not rows or not all(isinstance(row, dict) and row for row in rows):
        return None
    first = next(iter(rows[0]))
    for name in (*NAMING, first):
        values = [row.get(name) for row in rows]
        if all(isinstance(value, str | int) for value in values):
            named = [scalar_text(value) for value in values]  # type: ignore[arg-type]
            if len(set(named)) == len(rows) and all(named):
                return name
    return None


def spots(document: Document, records: set[Place] | None = None) -> Iterator[Spot]:
    """Every value of a definition, the outer ones first. Places whose keys are names of records are added to `records`."""
    known = set() if records is None else records
    yield from _spots(document.plain(), (), (), known, bool(document.twins))


def _spots(value: Value, place: Place, address: Address, records: set[Place], twins: bool) -> Iterator[Spot]:
    yield Spot(place, address, value)
    if isinstance(value, dict):
        if names_records(value) and not twins:
            records.add(place)
        for key, inner in value.items():
            inside = (*place, ANY if place in records else str(key))
            if twins and isinstance(inner, list):
                for step, part in _items(inner, str(key)):
                    yield from _spots(part, inside, (*address, step), records, twins)
            elif isinstance(inner, list):
                yield Spot(inside, (*address, Step(str(key))), inner)
                for step, part in _items(inner, str(key)):
                    yield from _spots(part, (*inside, ANY), (*address, step), records, twins)
            else:
                yield from _spots(inner, inside, (*address, Step(str(key))), records, twins)
    elif isinstance(value, list):
        for step, part in _items(value, ""):
            yield from _spots(part, (*place, ANY), (*address, step), records, twins)


def _items(rows: list[Any], key: str) -> Iterator[tuple[Step, Value]]:
    """The items of a list, and the step to each: by what names it, by its value, or by its number."""
    naming = naming_of(rows)
    scalar = not any(isinstance(row, dict | list) for row in rows)
    plain = scalar and len({scalar_text(row) for row in rows}) == len(rows)
    for number, row in enumerate(rows):
        if naming is not None:
            yield Step(key, naming, scalar_text(row[naming])), row
        else:
            yield (Step(key, "", scalar_text(row)) if plain else Step(key, place=number)), row


ABSENT = object()
"""What stands where nothing is."""


def changed_spots(document: Document, game: Document, records: set[Place]) -> Iterator[Spot]:
    """Every value of a definition that the game's own does not have at that address, and the tables around it."""
    yield from _changed(document.plain(), game.plain(), (), (), records, bool(document.twins))


def _changed(
    value: Value, own: Value, place: Place, address: Address, records: set[Place], twins: bool
) -> Iterator[Spot]:
    if own is not ABSENT and type(own) is type(value) and alike(own, value):
        return
    yield Spot(place, address, value)
    if isinstance(value, dict):
        if names_records(value) and not twins:
            records.add(place)
        known = own if isinstance(own, dict) else {}
        for key, inner in value.items():
            inside, before = (*place, ANY if place in records else str(key)), known.get(key, ABSENT)
            if twins and isinstance(inner, list | dict):
                yield from _changed_items(
                    _rows(inner), _rows(before), inside, address, str(key), records, twins
                )
            elif isinstance(inner, list):
                if inner != before:
                    yield Spot(inside, (*address, Step(str(key))), inner)
                    yield from _changed_items(
                        inner, _rows(before), (*inside, ANY), address, str(key), records, twins
                    )
            else:
                yield from _changed(inner, before, inside, (*address, Step(str(key))), records, twins)
    elif isinstance(value, list):
        yield from _changed_items(value, _rows(own), (*place, ANY), address, "", records, twins)


def _rows(value: Value) -> list[Any]:
    if value is ABSENT:
        return []
    return value if isinstance(value, list) else [value]


def _changed_items(
    rows: list[Any],
    before: list[Any],
    place: Place,
    address: Address,
    key: str,
    records: set[Place],
    twins: bool,
) -> Iterator[Spot]:
    known = {(step.field, step.value, step.place): part for step, part in _items(before, key)}
    for step, part in _items(rows, key) if len(rows) != 1 or not twins else [(Step(key), rows[0])]:
        own = known.get((step.field, step.value, step.place), ABSENT)
        if own is ABSENT and len(rows) == len(before) == 1:
            own = before[0]
        yield from _changed(part, own, place, (*address, step), records, twins)


def leaves(value: Value, twins: bool = False, at: Address = ()) -> Iterator[tuple[Address, Value]]:
    """The values of a record by their address in it; a list of texts or numbers is one value."""
    if isinstance(value, dict):
        for key, inner in value.items():
            step = Step(str(key))
            if isinstance(inner, list) and any(isinstance(part, dict | list) for part in inner):
                for one, part in _items(inner, str(key)):
                    yield from leaves(part, twins, (*at, one))
            else:
                yield from leaves(inner, twins, (*at, step))
    elif isinstance(value, list) and not at and any(isinstance(part, dict | list) for part in value):
        for one, part in _items(value, ""):
            yield from leaves(part, twins, (one,))
    else:
        yield at, value


def pick(value: Value, address: Address) -> Value:
    """What stands at an address of plain data; ABSENT where nothing does."""
    for step in address:
        if isinstance(value, dict) and step.key:
            value = value.get(step.key, ABSENT)
            if not step.picks:
                continue
        if step.picks and not (
            isinstance(value, dict) and step.field and scalar_text(value.get(step.field)) == step.value
        ):
            rows = value if isinstance(value, list) else []
            if step.place is not None:
                value = rows[step.place] if step.place < len(rows) else ABSENT
            elif step.field:
                value = next(
                    (
                        row
                        for row in rows
                        if isinstance(row, dict) and scalar_text(row.get(step.field)) == step.value
                    ),
                    ABSENT,
                )
            else:
                value = next(
                    (
                        row
                        for row in rows
                        if not isinstance(row, dict | list) and scalar_text(row) == step.value
                    ),
                    ABSENT,
                )
        if value is ABSENT or (not step.picks and not isinstance(value, dict)):
            return ABSENT
    return value


def place_of(address: Address, records: frozenset[Place], twins: bool = False) -> Place:
    """The kind of place that an address leads to."""
    place: Place = ()
    for step in address:
        if step.key:
            place = (*place, ANY if place in records else step.key)
        if step.picks and not (twins and step.key):
            place = (*place, ANY)
    return place


def names_records(table: dict[Any, Any]) -> bool:
    """Whether the keys of a table are names of records that are like each other, not keys of one."""
    values = list(table.values())
    if len(values) < 2 or not all(isinstance(value, dict) and value for value in values):
        return False
    shared = set.intersection(*(set(value) for value in values))
    if shared and len(shared) * 2 >= min(len(value) for value in values):
        return True
    if len(values) < _MANY:
        return False
    often = Counter(key for value in values for key in value)
    usual = {
        key for key, number in often.items() if number * 2 >= len(values)
    }  # some of many may be of another kind
    alike_ = sum(len(usual & value.keys()) * 2 >= len(value) for value in values)
    return len(usual) > 1 and alike_ * 4 >= len(values) * 3


def tables(document: Document) -> list[Table]:
    """The tables of records of a definition, the outer ones first; the same records are not told twice."""
    known: list[Table] | None = document.kept.get("tables")
    if known is None:
        found: dict[Place, Table] = {}
        _tables(document.plain(), (), (), found, bool(document.twins))
        known = document.kept["tables"] = list(found.values())
    return known


def gather(
    document: Document, values: dict[Place, list[Value]], keys: dict[Place, set[str]], records: set[Place]
) -> None:
    """Add a definition's values to those of each kind of place, its keys and the places of its records."""
    _gather([document.plain()], (), values, keys, records, bool(document.twins))


def _gather(
    some: list[Value],
    place: Place,
    values: dict[Place, list[Value]],
    keys: dict[Place, set[str]],
    records: set[Place],
    twins: bool,
) -> None:
    """All values of one kind of place together: column by column, for there are few places and many records."""
    tables = [value for value in some if isinstance(value, dict)]
    lists = [value for value in some if isinstance(value, list)]
    scalars = [value for value in some if not isinstance(value, dict | list)] if tables or lists else some
    found = values.setdefault(place, [])
    found += scalars
    found += [{}] * len(tables) + [[]] * len(lists)
    if lists:
        _gather([part for value in lists for part in value], (*place, ANY), values, keys, records, twins)
    if not tables:
        return
    known = keys.setdefault(place, set())
    columns = dict.fromkeys(key for table in tables for key in table)
    known.update(map(str, columns))
    if not twins and place not in records and any(map(names_records, tables)):
        records.add(place)
    if place in records:
        _gather(
            [part for table in tables for part in table.values()], (*place, ANY), values, keys, records, twins
        )
        return
    for key in columns:
        column = [table[key] for table in tables if key in table]
        if twins:  # several of one key stand as a list
            column = [part for value in column for part in (value if isinstance(value, list) else [value])]
        _gather(column, (*place, str(key)), values, keys, records, twins)


def _tables(value: Value, place: Place, address: Address, found: dict[Place, Table], twins: bool) -> None:
    if isinstance(value, list):
        if naming_of(value) is not None:
            items = list(_items(value, ""))
            found.setdefault(
                place,
                Table(
                    place,
                    address,
                    {step.value: _joined(address, step) for step, _ in items},
                    {step.value: row for step, row in items},
                ),
            )
        return
    if not isinstance(value, dict):
        return
    if names_records(value) and not twins:
        records = {str(key): (*address, Step(str(key))) for key in value}
        found.setdefault(place, Table(place, address, records, {str(key): row for key, row in value.items()}))
        return
    for key, inner in value.items():
        if isinstance(inner, dict | list):
            _tables(inner, (*place, str(key)), (*address, Step(str(key))), found, twins)


def _joined(address: Address, step: Step) -> Address:
    """The address of a list's item: the list's own with what picks the item."""
    if not address:
        return (step,)
    return (*address[:-1], Step(address[-1].key, step.field, step.value, step.place))
