"""Overrides in parts: a definition with nothing but the records that a mod changes, for games that lay these over their own."""

from __future__ import annotations

import json
from dataclasses import replace
from typing import Any

from furnel.errors import FurnelError
from furnel.texts.address import Step
from furnel.texts.document import Document, Value, scalar_text
from furnel.texts.places import naming_of


def changed_part(game: Document, now: Document) -> Document | None:
    """The records of `now` that are not the game's, each whole, in a document of their own.

    None when the game's with these laid over it would not be `now`: when a record is gone, when another order counts, or
    when the definition is no table of records.
    """
    if game.twins:
        return None
    theirs, ours = _records(game.plain()), _records(now.plain())
    if theirs is None or ours is None or not ours or not theirs.keys() <= ours.keys():
        return None
    wanted = {
        name: row for name, row in ours.items() if name not in theirs or _mark(row) != _mark(theirs[name])
    }
    laid = {**theirs, **wanted}
    is_list = isinstance(now.plain(), list)
    if not wanted or len(wanted) == len(ours) or (is_list and list(laid) != list(ours)):
        return None
    try:
        part = _with_nothing_but(now, ours, wanted, is_list)
        return part if _records(part.plain()) == wanted else None
    except FurnelError:
        return None


def laid_over(game: Document, part: Document) -> Document:
    """The game's definition with the records of `part` in the place of its own, or behind them. Raises FurnelError where either
    is no table of records."""
    theirs, more = _records(game.plain()), _records(part.plain())
    if game.twins or theirs is None or more is None:
        raise FurnelError("Laying records over others", where=part.where, why="it is no table of records")
    rows = part.plain()
    naming = naming_of(rows) if isinstance(rows, list) else ""
    for name, row in more.items():
        step = Step("", naming or "", name) if naming else Step(name)
        if name not in theirs:
            game = game.add((), "" if naming else name, row)
        elif _mark(row) != _mark(theirs[name]):
            game = _replaced(game, step, theirs[name], row)
    return game


def _replaced(game: Document, step: Step, old: Any, row: Any) -> Document:
    """A record in the place of another; of a notation whose records are only cells, one after the other."""
    try:
        return game.set((step,), row)
    except FurnelError:
        if not isinstance(old, dict) or not isinstance(row, dict) or old.keys() != row.keys():
            raise
        for key, value in row.items():
            if _mark(value) != _mark(old[key]):
                game = game.set((step, Step(key)), value)
        return game


def gone(game: Document, now: Document) -> list[str]:
    """The names of the game's records that a definition has no more, where it is a table of records."""
    theirs, ours = (_records(one.plain()) for one in (game, now))
    return [] if theirs is None or ours is None else [name for name in theirs if name not in ours]


def _with_nothing_but(now: Document, ours: dict[str, Any], wanted: dict[str, Any], is_list: bool) -> Document:
    items = now.root.items
    if not items[-1].end:  # a notation whose records may be spread over the text
        for name in ours.keys() - wanted.keys():
            now = now.drop((Step(name),))
        return now
    rest = now.text[items[-1].end :]
    part = replace(now, text=now.text[: items[0].start] + (rest if rest.strip() else ""))
    for name, row in wanted.items():
        part = part.add((), "" if is_list else name, row)
    return part


def _mark(row: Value) -> str:
    """What tells one record from another: 1, 1.0 and true are not the same, the order of keys is nothing."""
    return json.dumps(row, sort_keys=True, default=repr)


def _records(plain: Value) -> dict[str, Any] | None:
    """The records of a definition by name, in their order; None when it has anything else."""
    if isinstance(plain, dict):
        return plain if all(isinstance(row, dict | list) for row in plain.values()) else None
    naming = naming_of(plain) if isinstance(plain, list) else None
    return None if naming is None else {scalar_text(row[naming]): row for row in plain}
