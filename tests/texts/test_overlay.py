"""Parts of tables: what a game makes of them when it lays them over its own is what the mod says, or there is no part."""

from __future__ import annotations

import configparser
import csv
import io
import json
import tomllib
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.texts import changed_part, document_of

NAMES = st.sampled_from(["ada", "bram", "corin", "dora"])
TABLES = st.dictionaries(
    NAMES, st.fixed_dictionaries({"x": st.integers(0, 2), "y": st.integers(0, 2)}), min_size=1
)


def toml(table: dict[str, Any]) -> str:
    return "# all of them\n" + "".join(
        f"[{name}]\nx = {row['x']}\ny = {row['y']}\n\n" for name, row in table.items()
    )


def rows(table: dict[str, Any]) -> str:
    return json.dumps([{"id": name, **row} for name, row in table.items()], indent=2) + "\n"


def sheet(table: dict[str, Any]) -> str:
    return "key,x,y\n" + "".join(f"{name},{row['x']},{row['y']}\n" for name, row in table.items())


def ini(table: dict[str, Any]) -> str:
    return "".join(f"[{name}]\nx = {row['x']}\ny = {row['y']}\n\n" for name, row in table.items())


def of_ini(text: str) -> dict[str, Any]:
    parser = configparser.ConfigParser()
    parser.read_string(text)
    return {name: {key: int(value) for key, value in parser[name].items()} for name in parser.sections()}


def of_csv(text: str) -> dict[str, Any]:
    return {row["key"]: {"x": int(row["x"]), "y": int(row["y"])} for row in csv.DictReader(io.StringIO(text))}


def of_rows(text: str) -> dict[str, Any]:
    return {row["id"]: {"x": row["x"], "y": row["y"]} for row in json.loads(text)}


WAYS: dict[str, tuple[Any, Any, bool]] = {
    "a.toml": (toml, tomllib.loads, False), "a.json": (lambda table: json.dumps(table) + "\n", json.loads, False),
    "rows.json": (rows, of_rows, True), "a.csv": (sheet, of_csv, True), "a.ini": (ini, of_ini, False),
}  # fmt: skip


@pytest.mark.parametrize("name", WAYS)
@given(TABLES, TABLES)
def test_a_part_laid_over_the_games_is_what_the_mod_says(
    name: str, game: dict[str, Any], mod: dict[str, Any]
) -> None:
    write, read, ordered = WAYS[name]
    part = changed_part(*(document_of(write(table).encode(), name) for table in (game, mod)))
    changed = {key: row for key, row in mod.items() if game.get(key) != row}
    laid = game | changed
    can = laid == mod and 0 < len(changed) < len(mod) and (not ordered or list(laid) == list(mod))
    assert (part is not None) == can
    if part is not None:
        assert read(part.text) == changed
        assert part.text.startswith("# all of them") == (name == "a.toml")
