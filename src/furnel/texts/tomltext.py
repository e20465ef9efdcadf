"""TOML 1.0 that keeps comments, order and spelling, by tomlkit; the standard library's own reader proves what comes out."""

from __future__ import annotations

import copy
import re
import tomllib
from typing import Any

from furnel.errors import FurnelError
from furnel.schema import read_toml
from furnel.texts.address import Address, Step
from furnel.texts.document import Document, Found, Item, Node, Value, alike


class TomlDocument(Document):
    """A TOML definition."""

    notation = "TOML"

    def _parse(self) -> Node:
        try:
            return _node(read_toml(self.text))
        except (ValueError, RecursionError) as error:
            told = re.search(r"at line (\d+)", str(error))
            raise FurnelError(
                "Reading a definition",
                where=self.where,
                line=int(told.group(1)) if told else 0,
                why=str(error) or "it is nested too deep",
                remedy="Correct it in a text editor",
            ) from error

    def set(self, address: Address, value: Value) -> Document:
        if not address:
            raise self._refusal(address, "the whole cannot be set")
        if alike(self.look(address), value):
            return self

        def change(place: Any, key: Any) -> None:
            place[key] = value

        return self._changed(address, change)

    def add(self, address: Address, key: str, value: Value, at: int | None = None) -> Document:
        found = self.find(address)
        if found.node.kind == "scalar" or (found.node.kind == "table" and not key):
            raise self._refusal(address, "nothing can be added to it so")
        if found.node.kind == "table" and any(item.key == key for item in found.node.items):
            raise self._refusal(address, f"it has a {key} already")

        def change(place: Any, name: Any) -> None:
            inner = place if name is None else place[name]
            if isinstance(inner, list):
                inner.insert(len(inner) if at is None else at, value)
            else:
                inner[key] = value

        return self._changed(address, change)

    def drop(self, address: Address) -> Document:
        if not address:
            raise self._refusal(address, "the whole cannot be dropped")

        def change(place: Any, key: Any) -> None:
            del place[key]

        return self._changed(address, change)

    def rename(self, address: Address, key: str) -> Document:
        found = self.find(address)
        if found.item is None or not found.item.key or found.parent is None:
            raise self._refusal(address, "it has no key of its own")
        if key == found.item.key:
            return self
        if any(item.key == key for item in found.parent.items):
            raise self._refusal(address, f"there is a {key} already")
        made = self.drop(address)
        return made.add(address[:-1], key, self.look(address), found.place)

    def _changed(self, address: Address, change: Any) -> Document:
        import tomlkit
        from tomlkit.exceptions import TOMLKitError

        wanted = copy.deepcopy(read_toml(self.text))
        keys = self._keys(address)
        try:
            document = tomlkit.parse(self.text)
            if tomlkit.dumps(document) != self.text:
                raise self._refusal(address, "its spelling cannot be kept")
            for tree in (wanted, document):
                change(*_place(tree, keys))
            made = type(self)(tomlkit.dumps(document), self.where, self.encoding)
        except (TOMLKitError, ValueError, TypeError, LookupError, AttributeError) as error:
            raise self._refusal(address, f"it cannot be written in TOML ({error})") from error
        if not alike(tomllib.loads(made.text), wanted):
            raise self._refusal(address, "it would not read back as it is meant")
        return made

    def _keys(self, address: Address) -> list[str | int]:
        """An address as keys and places."""
        out: list[str | int] = []
        found = Found(self.root)
        for number, step in enumerate(address):
            through = self._step(found.node, Step(step.key)) if step.key and step.picks else None
            inner = self._step(found.node, step)
            if inner is None:
                raise self._nowhere(address, number, found.node)
            if through is not None and through.node.kind == "list":
                out.append(step.key)
            out.append(inner.item.key if inner.item is not None and inner.item.key else inner.place)
            found = inner
        return out


def _place(tree: Any, keys: list[str | int]) -> tuple[Any, Any]:
    """What holds the last of some keys, and that one."""
    if not keys:
        return tree, None
    for key in keys[:-1]:
        tree = tree[key]
    return tree, keys[-1]


def _node(value: Any) -> Node:
    if isinstance(value, dict):
        return Node("table", 0, 0, None, tuple(Item(key, _node(part), 0, 0) for key, part in value.items()))
    if isinstance(value, list):
        return Node("list", 0, 0, None, tuple(Item("", _node(part), 0, 0) for part in value))
    return Node("scalar", 0, 0, value)
