"""Kinds of places in definitions: which values are siblings of each other, which tables hold records, what these are called."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from furnel.texts.address import Address, Step
from furnel.texts.document import Document, Value, scalar_text

Place = tuple[str, ...]
"""The steps to a kind of place; `*` stands for a record's name and for any item of a list."""
ANY = "*"
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
    """A table of records that are like each other: its kind of place, its address, and its records by name."""

    place: Place
    address: Address
    records: dict[str, Address]


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
    yield from _spots(document.plain(), (), (), known, document.takes_twins)


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


def names_records(table: dict[Any, Any]) -> bool:
    """Whether the keys of a table are names of records that are like each other, not keys of one."""
    values = list(table.values())
    if len(values) < 2 or not all(isinstance(value, dict) and value for value in values):
        return False
    shared = set.intersection(*(set(value) for value in values))
    return len(shared) * 2 >= min(len(value) for value in values)


def tables(document: Document) -> list[Table]:
    """The tables of records of a definition, the outer ones first; the same records are not told twice."""
    found: dict[Place, Table] = {}
    _tables(document.plain(), (), (), found, document.takes_twins)
    return list(found.values())


def _tables(value: Value, place: Place, address: Address, found: dict[Place, Table], twins: bool) -> None:
    if isinstance(value, list):
        if (naming := naming_of(value)) is not None:
            _note(
                found,
                place,
                address,
                {scalar_text(row[naming]): _joined(address, step) for step, row in _items(value, "")},
            )
        return
    if not isinstance(value, dict):
        return
    if names_records(value) and not twins:
        _note(found, place, address, {str(key): (*address, Step(str(key))) for key in value})
        return
    for key, inner in value.items():
        if isinstance(inner, dict | list):
            _tables(inner, (*place, str(key)), (*address, Step(str(key))), found, twins)


def _joined(address: Address, step: Step) -> Address:
    """The address of a list's item: the list's own with what picks the item."""
    if not address:
        return (step,)
    return (*address[:-1], Step(address[-1].key, step.field, step.value, step.place))


def _note(found: dict[Place, Table], place: Place, address: Address, records: dict[str, Address]) -> None:
    if place not in found:
        found[place] = Table(place, address, records)
