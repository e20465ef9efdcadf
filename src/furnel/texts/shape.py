"""What a definition looks like: its keys, the types of its values, which values name assets; learned from the game's own."""

from __future__ import annotations

import configparser
import csv
import json
import tomllib
from collections.abc import Callable, Iterator
from dataclasses import dataclass, field
from typing import Any

from furnel.texts.definition import check, format_of, read_text

Address = tuple[str, ...]
_ANY = "*"


@dataclass(frozen=True, slots=True)
class Shape:
    """For every kind of place in a definition (names of records and places in lists left open): the types of its values, its
    keys, whether all that stand there name assets, and whether its keys are names of `records`."""

    types: dict[Address, set[str]] = field(default_factory=dict)
    keys: dict[Address, set[str]] = field(default_factory=dict)
    assets: set[Address] = field(default_factory=set)
    records: set[Address] = field(default_factory=set)


@dataclass(frozen=True, slots=True)
class Misfits:
    """What a definition has that the game's own has not, by where it stands: keys, types, assets that are nowhere."""

    keys: tuple[str, ...] = ()
    types: tuple[str, ...] = ()
    assets: tuple[str, ...] = ()


def shape_of(data: bytes, path: str, exists: Callable[[str], bool]) -> Shape:
    """The shape of a definition; an empty one of a text whose form Furnel does not take apart. FurnelError for damage."""
    check(data, path)
    shape, named = Shape(), dict[Address, list[str]]()
    for place, _, value in _nodes(_tree(data, path), shape.records):
        if isinstance(value, dict):
            shape.keys.setdefault(place, set()).update(map(str, value))
        elif not isinstance(value, list):
            shape.types.setdefault(place, set()).add(_type(value))
            named.setdefault(place, []).append(str(value) if isinstance(value, str) else "")
    shape.assets.update(
        place for place, values in named.items() if all(value and exists(value) for value in values)
    )
    return shape


def misfits(original: Shape, data: bytes, path: str, exists: Callable[[str], bool]) -> Misfits:
    """What does not go with the game's own definition. FurnelError for damage."""
    check(data, path)
    keys, types, assets = [], [], []
    for place, address, value in _nodes(_tree(data, path), set(original.records)):
        where = ".".join(address) or "the whole"
        if isinstance(value, dict):
            known = original.keys.get(place)
            if known is not None and place not in original.records:
                keys += [
                    f"{where}.{key}".removeprefix("the whole.") for key in value if str(key) not in known
                ]
            elif place in original.types:
                types.append(f"{where} holds keys, not {_listed(original.types[place])}")
        elif not isinstance(value, list):
            known_types = original.types.get(place)
            if known_types is not None and _type(value) not in known_types:
                types.append(f"{where} = {value!r:.40} is no {_listed(known_types)}")
            elif place in original.assets and not exists(str(value)):
                assets.append(f"{where} = {value!r:.60}")
    return Misfits(tuple(keys), tuple(types), tuple(assets))


def _nodes(
    tree: Any, records: set[Address], place: Address = (), address: Address = ()
) -> Iterator[tuple[Address, Address, Any]]:
    """Every value: its kind of place, its address, itself. Places whose keys are names of records are noted in `records`."""
    if isinstance(tree, dict) and _names_records(tree):
        records.add(place)
    yield place, address, tree
    if isinstance(tree, dict):
        for key, value in tree.items():
            kind = _ANY if place in records else str(key)
            yield from _nodes(value, records, (*place, kind), (*address, str(key)))
    elif isinstance(tree, list):
        for number, value in enumerate(tree):
            yield from _nodes(
                value, records, (*place, _ANY), (*address, _record_name(value) or str(number + 1))
            )


def _names_records(table: dict[Any, Any]) -> bool:
    """Whether the keys of a table are names of records that are like each other, not keys of one."""
    values = list(table.values())
    if len(values) < 2 or not all(isinstance(value, dict) and value for value in values):
        return False
    shared = set.intersection(*(set(value) for value in values))
    return len(shared) * 2 >= min(len(value) for value in values)


def _record_name(value: Any) -> str:
    if isinstance(value, dict):
        return next((str(value[key]) for key in ("id", "name") if isinstance(value.get(key), str)), "")
    return ""


def _type(value: Any) -> str:
    if isinstance(value, bool):
        return "switch"
    if isinstance(value, int | float):
        return "number"
    return "nothing" if value is None else "text" if isinstance(value, str) else type(value).__name__


def _listed(types: set[str]) -> str:
    return " or ".join(sorted(types))


def _tree(data: bytes, path: str) -> Any:
    kind, text = format_of(path), read_text(data, path)
    if kind == "TOML":
        return tomllib.loads(text)
    if kind == "JSON":
        return json.loads(text)
    if kind == "XML":
        return _from_xml(data)
    if kind == "CSV":
        rows = list(csv.DictReader(text.splitlines()))
        return [{str(key): _plain(value) for key, value in row.items()} for row in rows]
    if kind == "INI":
        parser = configparser.ConfigParser(interpolation=None, strict=False)
        try:
            parser.read_string(text)
        except configparser.Error:
            return {}
        return {
            name: {key: _plain(value) for key, value in parser[name].items()} for name in parser.sections()
        }
    return {}


def _plain(value: Any) -> Any:
    """A number where a text says one."""
    if not isinstance(value, str):
        return value
    try:
        return float(value)
    except ValueError:
        return value


def _from_xml(data: bytes) -> Any:
    from lxml import etree

    parser = etree.XMLParser(resolve_entities=False, no_network=True, load_dtd=False, huge_tree=False)

    def table(node: Any) -> dict[str, Any]:
        out: dict[str, Any] = {f"@{key}": _plain(str(value)) for key, value in node.attrib.items()}
        for child in node:
            if isinstance(child.tag, str):
                out.setdefault(child.tag, []).append(table(child))
        if node.text and node.text.strip():
            out["text"] = _plain(node.text.strip())
        return out

    root = etree.fromstring(data, parser)
    return {str(root.tag): table(root)}
