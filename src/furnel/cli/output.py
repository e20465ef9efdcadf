"""How the command line speaks: tables, JSON, a progress bar, one message for a refusal."""

from __future__ import annotations

import dataclasses
import json
import sys
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

import click

from furnel.states import MARKS
from furnel.words import plain

if TYPE_CHECKING:
    from furnel.media import Spec
    from furnel.mods.batch import Outcome
    from furnel.mods.fit import FitPoint

_COLOURS = {"fits": "bright_black", "differs": "yellow", "breaks": "magenta"}


def echo(text: object, err: bool = False, fg: str | None = None, then: str = "") -> None:
    """Say a line; names from files come out as plain text, without control characters that a terminal would obey.

    `fg` colours it, `then` goes behind it uncoloured.
    """
    click.echo(click.style(plain(str(text)), fg=fg) + plain(then) if fg else plain(f"{text}{then}"), err=err)


class Bar:
    """Progress on standard error, only when somebody watches."""

    def __init__(self) -> None:
        self._shown = sys.stderr.isatty()
        self._last = ""

    def report(self, fraction: float, text: str) -> None:
        line = f"\r{fraction:4.0%} {plain(text)[:70]:70}"
        if self._shown and line != self._last:
            self._last = line
            sys.stderr.write(line if fraction < 1 else "\r" + " " * 76 + "\r")
            sys.stderr.flush()

    def cancelled(self) -> bool:
        return False


def say_json(value: Any) -> None:
    """A value as JSON on standard output."""
    echo(json.dumps(value, indent=1, default=_plain))


def say_rows(rows: Iterable[Sequence[object]]) -> None:
    """Rows with aligned columns."""
    texts = [[str(cell) for cell in row] for row in rows]
    if not texts:
        return
    widths = [max(len(row[column]) for row in texts) for column in range(len(texts[0]))]
    for row in texts:
        echo("  ".join(cell.ljust(width) for cell, width in zip(row, widths, strict=True)).rstrip())


def say_table(rows: Sequence[Mapping[str, object]], as_json: bool) -> None:
    """Rows of the same things, under their names; or as JSON."""
    if as_json:
        say_json(rows)
    elif rows:
        say_rows([list(rows[0]), *(list(row.values()) for row in rows)])


def say_points(points: Iterable[FitPoint]) -> None:
    """A fit table."""
    listed = list(points)
    widths = [
        max([len(getattr(point, part)) for point in listed], default=0)
        for part in ("label", "original", "yours")
    ]
    for point in listed:
        mark, colour = MARKS[point.state], _COLOURS[point.state]
        text = f"{mark} {point.label:{widths[0]}}  {point.original:{widths[1]}}  {point.yours:{widths[2]}}"
        echo(text, fg=colour, then=f"  {point.remedy}" if point.remedy else "")


def say_outcomes(outcomes: Iterable[Outcome], left: Iterable[Path], folder: Path) -> None:
    """A folder fitted: a line a file, what is not right with it, and what was for nothing."""
    for one in outcomes:
        state = "breaks" if one.refused else one.state
        mark, colour = MARKS[state], _COLOURS[state]
        name = one.pair.source.relative_to(folder)
        said = one.refused or ", ".join(point.label.lower() for point in one.points if point.state != "fits")
        echo(f"{mark} {name} → {one.pair.original}", fg=colour, then=f"  {said}" if said else "")
    for file in left:
        echo(f"- {file.relative_to(folder)}  is for no original")


def say_spec(spec: Spec) -> None:
    """A spec, a line a field."""
    say_rows(_rows_of(spec))


def _rows_of(value: Any) -> list[tuple[str, object]]:
    """Name and value of every field that says something to a person, those of parts in their place."""
    rows: list[tuple[str, object]] = []
    for field in dataclasses.fields(value):
        part = getattr(value, field.name)
        if dataclasses.is_dataclass(part):
            rows += _rows_of(part)
        elif said := _in_words(part):
            rows.append((field.name.replace("_", " "), said))
    return rows


_MOST_LISTED = 24


def _in_words(value: Any) -> str:
    """A value as a person reads it; nothing for what only measures something for others."""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, float):
        return f"{value:.4g}"
    if isinstance(value, tuple) and len(value) <= _MOST_LISTED:
        parts = [" ".join(map(str, part)) if isinstance(part, tuple) else part for part in value]
        if all(isinstance(part, str | int | float) for part in parts):
            return ", ".join(f"{part:.4g}" if isinstance(part, float) else str(part) for part in parts)
        return ""
    return "" if value is None or isinstance(value, tuple) or not isinstance(value, str | int) else str(value)


def points_json(points: Iterable[FitPoint]) -> list[dict[str, Any]]:
    return [dataclasses.asdict(point) for point in points]


def _plain(value: Any) -> Any:
    return (
        dataclasses.asdict(value)
        if dataclasses.is_dataclass(value) and not isinstance(value, type)
        else str(value)
    )
