"""The first minute: an empty room says what to do, and a newcomer comes to a mod that is built, seen and in the game."""

from __future__ import annotations

from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtCore import Qt

from furnel.desktop import shelf
from furnel.desktop.recent import Recent
from furnel.mods.shelf import look_at_shelf
from furnel.mods.workspace import create_project


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    monkeypatch.setenv("HOME", str(tmp_path / "home"))


def texts(page: shelf.ShelfPage) -> list[str]:
    role = Qt.ItemDataRole.AccessibleTextRole
    return [page.list.item(row).data(role) for row in range(page.list.count())]


def test_from_an_empty_state_to_a_mod_in_the_game_in_under_twenty_actions(
    hands: Hands, game: Path, sources: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    """The made-up game is made by a program of its own (tests/cli/test_firsthour.py); here it is there at once."""
    window, done = hands.window, [0]

    def act(what: object) -> None:
        done[0] += 1
        hands.settle()

    def made(home: Path, progress: object) -> Path:
        assert home == tmp_path / "home" / "Tarnlight Ferry"
        return create_project(tmp_path / "mod", "Evening Post", game)

    monkeypatch.setattr(shelf, "made_demo", made)
    window.place.go_on(Recent())
    hands.settle()
    page = window.pages.shelf_page
    assert page.isVisible() and page.title.text() == "Welcome to Furnel" and not texts(page)
    act(hands.click(page.try_it))
    hands.until(lambda: window.session.project is not None, "the mod to open")
    hands.settle()
    assert window.stations.shown == "find" and not page.isVisible()
    act(hands.find("hull_otter", "art/hulls/hull_otter.dds"))  # a key, a word, a click
    act(hands.drop_on_tile(sources / "dusk_paint.jpg", "art/hulls/hull_otter.dds"))
    act(hands.key("Ctrl+2", window))
    act(hands.key("Ctrl+Return", window))
    act(hands.key("Ctrl+B", window))
    act(hands.key("Ctrl+I", window))
    act(hands.key("Ctrl+4", window))
    hands.until(lambda: window.try_station.stills.images, "the stills")
    assert done[0] + 2 < 20
    assert {word.verdict for word in window.try_station.report.words if word.winner == "evening-post"} == {
        "accepted"
    }
    act(hands.key("Ctrl+0", window))
    hands.settle()
    assert texts(page)[1] == "Evening Post 0.1, in the game as it was built last"
    rows = look_at_shelf()
    assert rows[0].is_game and rows[0].picture is not None  # the still that the game drew
    page.list.setFocus()
    act(hands.key("Return", page.list))
    hands.settle()
    assert window.stations.shown == "find" and window.session.project is not None


def test_what_is_dropped_is_done_what_it_is_for(hands: Hands, game: Path, mod: Path, sources: Path) -> None:
    window = hands.window
    window.place.go_on(Recent())
    hands.settle()
    page = window.pages.shelf_page
    hands.drop(sources / "dusk_paint.jpg", page)
    assert "open a mod first" in window.messages[-1].text and page.isVisible()
    hands.drop(game / "data" / "hud.tlp", page)
    hands.settle()
    assert window.pages.archive_page.isVisible()
    window.pages.open(window.pages.shelf_page, "find")
    hands.drop(game, page)
    hands.until(lambda: window.session.catalogue is not None, "the game to open")
    hands.settle()
    assert window.session.project is None and window.stations.shown == "find"
    window.pages.open(window.pages.shelf_page, "find")
    hands.drop(mod.parent, page)
    hands.until(lambda: window.session.project is not None, "the mod to open")
    hands.settle()
    hands.key("Ctrl+0", window)
    hands.settle()
    assert [text.split(",")[0] for text in texts(page)] == ["Tarnlight Ferry", "Evening Post 0.1"]
    hands.key("Esc", page)
    assert window.stations.shown == "find"


def test_a_demo_that_fails_says_why_and_can_be_begun_again(hands: Hands, tmp_path: Path) -> None:
    (tmp_path / "home").mkdir()
    (tmp_path / "home" / "Tarnlight Ferry").write_text("a file is in the way")
    window = hands.window
    window.place.go_on(Recent())
    hands.settle()
    hands.click(window.pages.shelf_page.try_it)
    hands.until(lambda: window.messages, "the refusal")
    hands.settle()
    assert "Making Tarnlight Ferry" in window.messages[-1].text and window.pages.shelf_page.try_it.isEnabled()
