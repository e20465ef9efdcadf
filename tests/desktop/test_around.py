"""Showing somebody around: seven things to do, each seen to be done, and never a second time unasked."""

from __future__ import annotations

from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtWidgets import QLabel, QPushButton

from furnel.desktop.around import HULL, Around, stops


@pytest.fixture(autouse=True)
def own_state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    monkeypatch.setenv("HOME", str(tmp_path))


def _cards(hands: Hands) -> list[Around]:
    return [card for card in hands.window.findChildren(Around) if card.isVisible()]


def _press(hands: Hands, text: str) -> None:
    hands.click(next(part for part in _cards(hands)[0].findChildren(QPushButton) if part.text() == text))


def test_the_whole_round_by_doing_what_it_says(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window = hands.window
    window.run_command("show-around")
    (card,) = _cards(hands)
    acts = (
        lambda: hands.find("hull otter", HULL),
        lambda: hands.key("Return", window.find_station.wall),
        lambda: hands.key("Ctrl+Return", window),
        lambda: hands.key("Ctrl+Z", window),
        lambda: hands.key("Ctrl+Shift+Z", window),
        lambda: (
            hands.key("Ctrl+3", window),
            hands.key("Ctrl+B", window),
            hands.settle(),
            hands.key("Ctrl+I", window),
        ),
        lambda: hands.key("Ctrl+4", window),
    )
    assert len(stops()) == len(acts) == 7
    titles = []
    for place, act in enumerate(acts):
        assert card.at == place and any(
            part.text() == f"{place + 1} OF 7" for part in card.findChildren(QLabel)
        )
        titles.append(stops()[place].title)
        assert not stops()[place].done(window), f"{titles[-1]} is done before anybody did it"
        act()
        hands.settle()
        hands.until(
            lambda place=place: not _cards(hands) or card.at > place, f"“{titles[-1]}” to be seen as done"
        )
    assert not _cards(hands) and "the whole way" in window.messages[-1].text


def test_it_comes_by_itself_once_and_on_the_demo_alone(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr("furnel.desktop.window.ask", lambda *_: True)  # its sources lie elsewhere
    hands.open(mod)
    assert not _cards(hands), "a mod of somebody's own"
    home = tmp_path / "Tarnlight Ferry"
    mod.parent.rename(home)
    hands.open(home / mod.name)
    hands.until(lambda: _cards(hands), "the first stop")
    _press(hands, "Skip it")
    assert _cards(hands)[0].at == 1
    _press(hands, "End the round")
    hands.open(home / mod.name)
    hands.settle()
    assert not _cards(hands), "it was ended"
    hands.window.run_command("show-around")
    assert _cards(hands)[0].at == 0
    hands.window.session.swaps.remove_swap(HULL)
    hands.window.run_command("show-around")
    assert "Tarnlight Ferry" in hands.window.messages[-1].text, "it says what it needs"
