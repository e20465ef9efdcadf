"""The menus of records and their values on the definition bench."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING

from PyQt6.QtCore import QPoint

from furnel.desktop.fit.records_table import shown
from furnel.desktop.widgets.basics import copy_text
from furnel.desktop.widgets.menus import Row
from furnel.mods import records
from furnel.texts.document import Value, alike
from furnel.texts.places import ABSENT

if TYPE_CHECKING:
    from furnel.desktop.fit.definition_bench import DefinitionBench

_LONGEST = 24


def value_rows(bench: DefinitionBench, place: QPoint) -> list[Row]:
    """What can be done with the value at a place of the table, and with its record, which is picked for that."""
    table, sheet = bench.table, bench.sheet
    index = table.indexAt(place)
    if sheet is None:
        return []
    if index.isValid() and table.records.names[index.row()] not in table.chosen():
        table.setCurrentIndex(index)
    name = table.current
    if not name:
        return []
    several = len(table.chosen()) > 1
    rows: list[Row] = []
    column = table.records.column(index.column()) if index.isValid() else None
    if column is not None and not several:
        now, game = sheet.cell(name, column)
        rows += of_value(table.records.address(index), now, game, bench.form.games.emit)
    whole = sheet.name == records.WHOLE
    return [
        *rows,
        (f"New like {name}…", bench.new.click, not whole and not several),
        ("Copy values from…", bench.copy.click, not whole and not several),
        ("Change several…", bench.several.click, several),
        (f"What uses {name}…", bench.uses.click, not whole and not several),
        (f"Take the game's {name}", bench.games.click, bool(sheet.state(name))),
    ]


def of_value(address: str, now: Value, game: Value, take_games: Callable[[str], object]) -> list[Row]:
    """What can be done with one value: copied, found again by its address, made the game's again by `take_games`."""
    differs = now is ABSENT or game is ABSENT or not alike(now, game)
    back = "Take it out again" if game is ABSENT else f"Take the game's: {_short(shown(game))}"
    return [
        ("Copy the value", lambda: copy_text(shown(now)), now is not ABSENT),
        ("Copy its address", lambda: copy_text(address), True),
        (back, lambda: take_games(address), differs),
    ]


def _short(text: str) -> str:
    return text if len(text) <= _LONGEST else f"{text[: _LONGEST - 1]}…"
