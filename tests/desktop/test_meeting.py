"""Where mods meet, in the window: looked at, decided, bridged, taken off; somebody's mod dropped, looked into, installed."""

from __future__ import annotations

import zipfile
from pathlib import Path

import pytest
from demo.hands import Hands

from furnel.desktop.trying import loadouts
from furnel.desktop.trying.station import TryStation
from furnel.games import BRIDGE, Install, read_stack
from furnel.sound import read_clip
from tarnlight import loaders
from tarnlight.world import World
from tests.conftest import digest
from tests.mods.test_bridge import BOAT, about, put


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    monkeypatch.setattr(TryStation, "renew", lambda self: None)  # what the game draws is looked at elsewhere


def opened(hands: Hands, game: Path) -> None:
    hands.window.session.open_game(game)
    hands.until(lambda: hands.window.session.catalogue is not None, "the game to open")
    hands.settle()
    hands.station(4)
    hands.settle()


def otter(game: Path) -> tuple[float, float]:
    record = World(game).book("rules/boats.toml")["otter"]
    return record["speed"], record["length_m"]


def test_two_mods_are_bridged_from_the_try_station(hands: Hands, game: Path) -> None:
    put(
        game,
        slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        fast={"rules/boats.toml": BOAT % (b"8.8", b"4.0")},
    )
    before = digest(game)
    opened(hands, game)
    window, in_game = hands.window, hands.window.session.game
    assert in_game.bridge == ("", "") and otter(game) == (4.0, 8.8)
    hands.key("Ctrl+Shift+B", window)
    page = window.pages.meeting_page
    hands.until(lambda: page.stand is not None, "the mods to be looked at")
    hands.settle()
    assert page.map.how(page.map.meetings[0], "slow") == "hidden"
    assert page.map.how(page.map.meetings[0], "fast") == "together"
    assert "1 contradiction not decided" in page.said.text()
    hands.click(page.choices["rules/boats.toml:otter/speed", "slow"])
    hands.settle()
    assert otter(game) == (4.0, 8.8) and digest(game) == before  # nothing before the bridge is made
    hands.click(page.bridge)
    hands.until(lambda: in_game.bridge[0] == "current", "the bridge")
    hands.settle()
    assert otter(game) == (1.1, 8.8) and [mod.id for mod in in_game.stack][-1] == BRIDGE
    assert "what was chosen is seen" in window.messages[-1].text
    hands.click(page.remove)
    hands.until(lambda: in_game.bridge[0] == "", "the bridge to come off")
    hands.settle()
    assert digest(game) == before
    hands.key("Esc", page)
    assert window.stations.currentWidget() is window.try_station


def test_the_order_is_changed_on_the_map_and_undone_there(hands: Hands, game: Path) -> None:
    put(
        game,
        slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        fast={"rules/boats.toml": BOAT % (b"8.8", b"4.0")},
        apart={"rules/wares.json": b"{}"},
    )
    opened(hands, game)
    window, in_game = hands.window, hands.window.session.game
    hands.key("Ctrl+Shift+B", window)
    page = window.pages.meeting_page
    hands.until(lambda: page.stand is not None, "the mods to be looked at")
    hands.settle()

    def order() -> list[str]:
        hands.settle()
        return [mod.id for mod in read_stack(Install(game))]

    hands.drag(page.map, page.map.name_place("fast"), page.map.name_place("slow"))
    assert order() == ["fast", "slow", "apart"] and otter(game) == (1.1, 7.4)
    assert page.map.how(page.map.meetings[0], "slow") == "together"  # it was hidden
    hands.key("Ctrl+Z", window)  # what is in sight
    assert order() == ["slow", "fast", "apart"] and otter(game) == (4.0, 8.8)
    page.map.setFocus()
    page.map.column = 0
    hands.key("Alt+Right", page.map)
    assert order()[:2] == ["fast", "slow"] and in_game.stack[0].id == "fast"
    hands.key("Alt+Right", page.map)  # it is the last one here already
    assert order()[:2] == ["fast", "slow"]


def test_a_changed_order_makes_the_bridge_stale_and_undo_does_not(hands: Hands, game: Path) -> None:
    put(
        game,
        slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        long={"rules/boats.toml": BOAT % (b"8.8", b"3.2")},
    )
    opened(hands, game)
    window, in_game = hands.window, hands.window.session.game
    in_game.make_bridge({})
    hands.until(lambda: in_game.bridge[0] == "current", "the bridge")
    hands.settle()
    assert otter(game) == (1.1, 8.8)
    window.try_station.stack.setFocus()
    hands.key("Down", window.try_station.stack)
    hands.key("Return", window.try_station.stack)  # switches the second one off
    hands.until(lambda: in_game.bridge[0] == "stale", "it to be stale")
    hands.settle()
    window.undoing.step(False)
    hands.until(lambda: in_game.bridge[0] == "current", "it to be current again")
    hands.settle()


def test_somebodys_mod_is_dropped_looked_into_and_installed(hands: Hands, game: Path, tmp_path: Path) -> None:
    put(game, slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")})
    source = tmp_path / "sea wind.zip"
    with zipfile.ZipFile(source, "w") as packed:
        packed.writestr("sea/mod.toml", about("sea"))
        packed.writestr("sea/rules/boats.toml", BOAT % (b"9.9", b"3.2"))
        packed.writestr("sea/README.txt", "ahoy")
    before = digest(game)
    opened(hands, game)
    window = hands.window
    hands.drop(source, window.try_station)
    page = window.pages.stranger_page
    hands.until(lambda: page.told is not None, "it to be looked into")
    hands.settle()
    assert [(state, path) for state, path, _ in page.files.rows] == [
        ("differs", "rules/boats.toml"),
        ("waiting", "README.txt"),
    ]
    assert "Slow" in page.files.rows[0][2] and digest(game) == before
    hands.click(page.install)
    hands.until(lambda: len(window.session.game.stack) == 2, "it to be installed")
    hands.settle()
    assert otter(game) == (3.2, 9.9) and window.stations.currentWidget() is window.try_station
    stack = window.try_station.stack
    assert stack.chosen is not None and stack.chosen.id == "sea"
    hands.click(window.try_station.take_off)
    hands.until(lambda: len(window.session.game.stack) == 1, "it to come off")
    hands.settle()
    assert digest(game) == before
    bad = tmp_path / "bad.zip"
    with zipfile.ZipFile(bad, "w") as packed:
        packed.writestr("../evil", "x")
    hands.drop(bad, window.try_station)
    hands.settle()
    assert "cannot be used" in page.said.text() and not page.install.isEnabled()
    assert "Nothing was put into the game" in window.messages[-1].text
    assert [mod.id for mod in read_stack(Install(game))] == ["slow"]


def test_sounds_are_heard_as_the_game_and_each_mod_has_them(
    hands: Hands, game: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    sounds = loaders.load_container(game / "data/bank0.tls")
    first, *others = sorted(sounds)
    put(game, one={first: sounds[others[0]]}, two={first: sounds[others[1]]})
    opened(hands, game)
    heard: list[tuple[str, float]] = []
    monkeypatch.setattr(
        hands.window.player,
        "play",
        lambda name, make, *rest: heard.append((name, round(make().length_s, 2))) or True,
    )
    hands.window.run_command("meetings")
    page = hands.window.pages.meeting_page
    hands.until(lambda: page.stand is not None, "the mods to be looked at")
    hands.settle()
    assert list(page.hearing) == ["the game", "One", "Two"]
    for part in page.hearing.values():
        hands.click(part)
    lengths = [round(read_clip(sounds[path])[0].length_s, 2) for path in (first, others[0], others[1])]
    assert [length for _, length in heard] == lengths and len({name for name, _ in heard}) == 3


def test_a_mod_is_gone_on_from_in_the_window(hands: Hands, game: Path, tmp_path: Path) -> None:
    put(game, slow={"rules/boats.toml": BOAT % (b"7.4", b"2.1")})
    opened(hands, game)
    station, session = hands.window.try_station, hands.window.session
    assert not station.mine.isHidden() and station.take_off.text() == "Take Slow off"
    station.go_on_from(tmp_path / "mine")
    hands.until(lambda: session.project is not None, "the new mod to open")
    hands.settle()
    assert session.project is not None and session.project.mod.name == "Slow again"
    swap = session.swap("rules/boats.toml")
    assert swap is not None and [change.to for change in swap.changes] == [2.1] and swap.credit == "Slow"
    station.go_on_from(tmp_path / "mine")
    hands.settle()
    assert "a project already" in hands.window.messages[-1].text


def test_a_load_out_is_kept_used_and_taken_back(hands: Hands, game: Path, tmp_path: Path) -> None:
    put(
        game,
        slow={"rules/boats.toml": BOAT % (b"7.4", b"1.1")},
        fast={"rules/boats.toml": BOAT % (b"8.8", b"4.0")},
    )
    opened(hands, game)
    window, in_game = hands.window, hands.window.session.game
    loadouts.keep(window.session, "Races")
    in_game.set_order([("fast", False), ("slow", True)])
    hands.until(lambda: [mod.on for mod in in_game.stack] == [False, True], "another order")
    hands.settle()
    menu = loadouts.load_out_menu(window.try_station, window.session)
    races = next(action for action in menu.actions() if action.text() == "Races")
    assert not races.isChecked()
    races.trigger()
    hands.until(lambda: [mod.id for mod in in_game.stack] == ["slow", "fast"], "the load-out")
    hands.settle()
    assert otter(game) == (4.0, 8.8) and "as in Races" in window.messages[-1].text
    menu = loadouts.load_out_menu(window.try_station, window.session)
    assert next(action for action in menu.actions() if action.text() == "Races").isChecked()
    window.undoing.step(False)
    hands.until(lambda: [mod.id for mod in in_game.stack] == ["fast", "slow"], "the order of before")
    hands.settle()
    (tmp_path / "bad.toml").write_text("nonsense")
    loadouts.take(window.session, tmp_path / "bad.toml")
    assert "bad.toml" in window.messages[-1].text


def test_build_leads_to_where_mods_meet(hands: Hands, mod: Path, game: Path) -> None:
    put(game, other={"art/hulls/hull_otter.dds": b"theirs", "art/hulls/hull_mail.dds": b"theirs alone"})
    hands.open(mod)
    hands.station(3)
    station = hands.window.build_station
    hands.until(station.where.isVisible, "the way to where they meet")
    hands.click(station.where)
    hands.until(lambda: hands.window.pages.meeting_page.isVisible(), "the page")
    (game / "mods" / "order.toml").unlink()
