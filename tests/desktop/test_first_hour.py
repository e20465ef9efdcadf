"""The first hour, as its page tells it, done by mouse and keys on a game that was just made."""

from __future__ import annotations

import re
from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtWidgets import QLineEdit, QPushButton

from furnel.desktop.actions import COMMANDS
from furnel.mods.workspace import create_project
from tarnlight.world import World

PAGE = Path(__file__).parents[2] / "docs" / "first-hour.md"
SWAPS = {
    "hull otter": ("art/hulls/hull_otter.dds", "dusk_paint.jpg"), "otter walk": ("cast/otter_walk.png", "otter_teal.png"),
    "000": ("bank0/000.wav", "church_bell.mp3"),
}  # fmt: skip


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def test_the_keys_of_the_page_are_the_real_ones() -> None:
    keys = {entry.key.replace("Return", "Enter") for entry in COMMANDS} | {"F"}
    told = set(re.findall(r"`((?:Ctrl|Shift|Alt|F\d*|Space)[^`]*)`", PAGE.read_text("utf-8")))
    assert len(told) > 10 and told <= keys


def test_the_first_hour_goes_as_its_page_says(
    hands: Hands, game: Path, sources: Path, tmp_path: Path
) -> None:
    page = PAGE.read_text("utf-8")
    window, session = hands.window, hands.window.session
    hands.open(create_project(tmp_path / "mine", "My first mod", game))
    assert window.find_station.wall.shown == 203 and "all 203 things" in page
    for words, (path, file) in SWAPS.items():
        assert f"`{words}`" in page and f"`{file}`" in page
        hands.find(words, path)
        hands.drop_on_tile(sources / file, path)
        hands.until(lambda path=path: window.fit_station.current == path, "it is on the bench")
        hands.settle()
        assert session.examined[path].state == "breaks", words
        hands.key("Ctrl+Return", window)
        hands.settle()
        assert session.examined[path].state == "fits", words
        hands.key("Ctrl+1", window)
    hands.find("slate", "art/rock/slate.dds")
    hands.key("Ctrl+Shift+E", window)
    hands.until(lambda: window.fit_station.current == "art/rock/slate.dds", "the game's own")
    hands.settle()
    assert session.examined["art/rock/slate.dds"].state == "fits"
    assert "*Hue, saturation, lightness*" in page
    hands.add_step("Hue, saturation, lightness")
    hands.setting("Turn the hue", "90")
    hands.key("Ctrl+1", window)
    hands.find("boats", "rules/boats.toml")
    hands.key("Ctrl+D", window)
    hands.settle()
    bench = window.fit_station.benches.of("definition")
    bench.table.pick("otter")
    for typed, state in (("6", "breaks"), ("3.84", "fits")):
        speed = next(one for one in bench.form.findChildren(QLineEdit) if one.accessibleName() == "speed")
        speed.selectAll()
        hands.type(typed, speed)
        hands.key("Return", speed)
        hands.settle()
        assert f"`{typed}`" in page and session.examined["rules/boats.toml"].state == state
    hands.key("Ctrl+3", window)
    hands.key("Ctrl+B", window)
    hands.until(lambda: session.builds.last is not None and not session.builds.stale, "the build")
    hands.key("Ctrl+I", window)
    hands.until(lambda: session.game.installed, "the install")
    world = World(game)
    assert world.book("rules/boats.toml")["otter"]["speed"] == 3.84
    changed = [*(path for path, _ in SWAPS.values()), "art/rock/slate.dds"]
    assert {world.verdict(path) for path in changed} == {"accepted"}
    hands.key("Ctrl+Shift+S", window)
    hands.settle()
    assert any(
        part.text() == "Package and try it" for part in window.pages.share_page.findChildren(QPushButton)
    )
    assert "**Package and try it**" in page
