"""What a screen reader is told of Furnel's own widgets: which thing is chosen, and how it stands, at every key."""

from __future__ import annotations

from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtWidgets import QWidget

HULL, WALK = "art/hulls/hull_otter.dds", "cast/otter_walk.png"


def _told(hands: Hands, widget: QWidget, *keys: str) -> list[str]:
    """What it says after each key."""
    widget.setFocus()
    said = []
    for key in keys:
        hands.key(key, widget)
        said.append(widget.accessibleDescription())
    return said


@pytest.fixture
def open_mod(hands: Hands, mod: Path) -> Hands:
    hands.open(mod)
    return hands


def test_the_wall_says_what_is_chosen(open_mod: Hands) -> None:
    window = open_mod.window
    wall = window.find_station.wall
    assert wall.accessibleDescription().endswith("tiles, none chosen")
    wall.select(HULL)
    first = wall.accessibleDescription()
    assert first.startswith("hull_otter, 512 × 512") and "swapped" in first
    (second,) = _told(open_mod, wall, "Right")
    assert second != first and f"of {wall.shown}" in second


def test_the_sieve_says_what_is_kept(open_mod: Hands) -> None:
    sieve = open_mod.window.find_station.sieve
    down, chosen = _told(open_mod, sieve.kinds, "Down", "Return")
    assert down.startswith("Sounds, ") and down.endswith("not chosen")
    assert chosen.endswith(", chosen; 1 chosen")
    before = sieve.pixels.graph.accessibleDescription()
    (after,) = _told(open_mod, sieve.pixels.graph, "Right")
    assert " to " in before and before != after


def test_the_queue_and_its_points_say_how_they_stand(open_mod: Hands) -> None:
    window = open_mod.window
    open_mod.station(2)
    rows = window.fit_station.queue.rows
    window.fit_station.pick(HULL)
    assert (
        rows.accessibleDescription().startswith("hull_otter, breaks, ")
        and "1 of " in rows.accessibleDescription()
    )
    (below,) = _told(open_mod, rows, "Down")
    assert "hull_otter" not in below and "2 of " in below
    window.fit_station.pick(HULL)
    open_mod.settle()
    table = window.fit_station.table.table
    told = _told(open_mod, table, "Up", "Up", "Up", "Down")
    assert all(", yours " in said for said in told) and told[-1] != told[-2]
    assert told[-1].endswith(("fits", "differs", "breaks"))


def test_the_build_says_what_is_chosen(open_mod: Hands) -> None:
    window = open_mod.window
    open_mod.station(3)
    contents = window.build_station.contents
    first, second = _told(open_mod, contents, "Down", "Down")
    assert first.split(", ")[0] == contents.names[0] and second.split(", ")[0] == contents.names[1]
