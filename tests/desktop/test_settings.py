"""Settings: used at once, remembered, never in the way of what is there; keys that collide are refused with the reason."""

from __future__ import annotations

import stat
from dataclasses import asdict
from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtGui import QKeySequence
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QPushButton

from furnel.desktop.actions import COMMANDS, key_of, use_keys
from furnel.desktop.settings import Settings, load_settings, why_not
from furnel.desktop.settingspage import SettingsPage
from furnel.remembered import remember


@pytest.fixture(autouse=True)
def own_state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


@pytest.fixture
def page(hands: Hands, mod: Path) -> SettingsPage:
    hands.open(mod)
    hands.window.run_command("settings")
    hands.settle()
    return hands.window.pages.settings_page


def _give(hands: Hands, page: SettingsPage, name: str, keys: str) -> None:
    page.search.setText(name)
    page.keys.setKeySequence(QKeySequence(keys))
    hands.click(page.use)


def test_a_command_gets_another_key_and_its_own_again(hands: Hands, page: SettingsPage) -> None:
    window = hands.window
    _give(hands, page, "where mods meet", "F9")
    assert key_of("meetings") == "F9"
    hands.key("F9", window)
    hands.settle()
    assert window.stations.currentWidget() is window.pages.meeting_page
    window.run_command("settings")
    hands.key("Ctrl+Shift+B", window)
    assert window.stations.currentWidget() is page, "the old key does nothing any more"
    assert load_settings().keys == {"meetings": "F9"}
    page.search.setText("where mods meet")
    hands.click(page.usual)
    assert (key_of("meetings"), load_settings().keys) == ("Ctrl+Shift+B", {})


@pytest.mark.parametrize(
    ("keys", "says"),
    [
        ("Ctrl+B", "“Build”"),
        ("A", "typing"),
        ("Return", "lists"),
        ("Shift+Tab", "lists"),
        ("Ctrl+K, B", "One key"),
    ],
)
def test_a_key_that_is_taken_or_needed_is_refused(
    hands: Hands, page: SettingsPage, keys: str, says: str
) -> None:
    assert says in why_not(keys, "meetings", Settings())
    _give(hands, page, "where mods meet", keys)
    assert key_of("meetings") == "Ctrl+Shift+B" and load_settings().keys == {}


def test_no_two_commands_share_a_key_as_they_come() -> None:
    assert not [
        why for entry in COMMANDS if entry.key and "“" in (why := why_not(entry.key, entry.id, Settings()))
    ]
    freed = Settings(keys={"build": "Ctrl+Alt+B"})
    assert not why_not("Ctrl+B", "meetings", freed), "a key that was given up is free"


def test_the_theme_comes_at_once_and_is_there_at_the_next_start(hands: Hands, page: SettingsPage) -> None:
    hands.click(page.themes.buttons()[1])
    assert hands.window.look.theme == "light" == load_settings().theme_now()
    hands.window.run_command("theme")
    assert hands.window.look.theme == "dark" and page.themes.buttons()[0].isChecked()
    hands.click(page.themes.buttons()[2])
    assert load_settings().theme == "system" and hands.window.look.theme in ("dark", "light")


def test_a_source_opens_in_the_program_that_was_chosen(
    hands: Hands, page: SettingsPage, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    program, told = tmp_path / "paint", tmp_path / "told"
    program.write_text(f'#!/bin/sh\nprintf %s "$1" > "{told}"\n')
    program.chmod(program.stat().st_mode | stat.S_IXUSR)
    monkeypatch.setattr("furnel.desktop.widgets.picking.pick_file", lambda *_, **__: program)
    hands.click(page.programs["picture"][0])
    assert load_settings().programs == {"picture": str(program)}
    hands.station(2)
    hands.window.fit_station.pick("art/hulls/hull_otter.dds")
    hands.window.run_command("open-source")
    hands.until(lambda: told.exists() and told.read_text(), "the program to be started")
    assert Path(told.read_text()).name == "dusk_paint.jpg"
    program.unlink()
    hands.window.run_command("open-source")
    assert "could not be started" in hands.window.messages[-1].text


def test_emptying_spares_what_is_open(hands: Hands, page: SettingsPage) -> None:
    session = hands.window.session
    junk = session.space.results / "0old"
    junk.write_bytes(bytes(9000))
    hands.click(page.empty)
    hands.settle()
    assert not junk.exists() and "came free" in hands.window.messages[-1].text
    assert all(found.kept is None or found.kept.file.exists() for found in session.examined.values())
    hands.station(3)
    hands.window.run_command("build")
    hands.until(
        lambda: session.builds.last is not None or "breaks" in hands.window.messages[-1].text, "the build"
    )


def test_the_quick_command_finds_a_setting(hands: Hands, page: SettingsPage) -> None:
    hands.window.go("find")
    hands.window.run_command("quick")
    field = QApplication.focusWidget()
    assert field is not None
    hands.type("volume", field)
    hands.key("Return", field)
    assert hands.window.stations.currentWidget() is page and page.volume.hasFocus()


@pytest.mark.parametrize(
    "told",
    [
        None,
        [],
        {"theme": "pink", "size": 3, "volume": "loud", "kept": True},
        {"keys": {"build": 7, "no": "F3"}, "programs": 1},
    ],
)
def test_settings_that_cannot_be_understood_are_as_they_came(told: object) -> None:
    remember("settings", told)
    assert load_settings() == Settings()


def test_everything_set_is_read_again(hands: Hands) -> None:
    want = Settings("light", "de", 125, True, "Left ear", 40, 8, {"sound": "/bin/true"}, {"said": "F12"})
    hands.window.settings.set(**asdict(want))
    assert load_settings() == want
    hands.window.settings.set(keys={}, theme="dark")


@pytest.fixture(autouse=True, scope="module")
def keys_as_they_came() -> object:
    yield
    use_keys({})


def test_nothing_moves_by_itself_when_that_was_asked(hands: Hands, page: SettingsPage, mod: Path) -> None:
    hands.click(page.motion.buttons()[1])
    assert load_settings().still and hands.window.look.still
    hands.open(mod)
    hands.station(2)
    fit = hands.window.fit_station
    fit.pick("cast/otter_walk.png")
    hands.settle()
    seen: list[int] = []
    playing = fit.benches.of("sheet").playing
    playing.turned.connect(seen.append)
    QTest.qWait(400)  # type: ignore[arg-type]
    assert not seen
    hands.click(next(part for part in playing.findChildren(QPushButton) if part.text() == "Play"))
    hands.until(lambda: len(seen) > 1, "the animation that was asked for")
    fit.pick("art/hulls/hull_otter.dds")
    hands.settle()
    view = fit.benches.of("texture").view
    view.set_mode("Blink")
    first = view.grab().toImage()
    QTest.qWait(900)  # type: ignore[arg-type]
    assert view.grab().toImage() == first
    hands.key("Space", view)
    assert view.grab().toImage() != first
    page.motion.buttons()[0].click()
    hands.until(lambda: view.grab().toImage() == first, "it blinks again")
