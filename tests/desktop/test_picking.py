"""Choosing files, folders and names: by keys and clicks, with what was used before, and never over a file unasked."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path
from typing import Any

import numpy as np
import pytest
import soundfile
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QDialog, QLineEdit, QPushButton, QWidget

from furnel.desktop.newmod import ask_new_mod, folder_for
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.filepicker import FilePicker
from furnel.desktop.widgets.foldersread import natural
from furnel.mods.project import load_project


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    monkeypatch.setenv("HOME", str(tmp_path / "home"))


@pytest.fixture
def home(tmp_path: Path) -> Path:
    home = tmp_path / "home"
    for number in (1, 2, 10):
        Image.new("RGB", (40 * number, 30), (9, 90, 200)).save(_in(home) / f"take {number}.png")
    soundfile.write(home / "bell.wav", np.zeros(8000), 8000)
    (home / "notes.txt").write_text("x")
    (home / ".hidden").write_text("x")
    (home / "gone.png").symlink_to(home / "nothing.png")  # what cannot be looked at hides nothing else
    (_in(home / "deep") / "one.png").write_bytes((home / "take 1.png").read_bytes())
    return home


def _in(folder: Path) -> Path:
    folder.mkdir(parents=True, exist_ok=True)
    return folder


def answered(hands: Hands, question: Callable[[QWidget], Any], *acts: Callable[[Any], object]) -> Any:
    """What a question comes to when somebody does things in its window, one after the other, each when that is ready."""
    waiting, end = list(acts), time.monotonic() + 20

    def act() -> None:
        dialog = QApplication.activeModalWidget()
        if isinstance(dialog, QDialog) and waiting and waiting[0](dialog) is not False:
            waiting.pop(0)
        if waiting and time.monotonic() < end:
            QTimer.singleShot(20, act)
        elif waiting and isinstance(dialog, QDialog):
            dialog.reject()

    QTimer.singleShot(20, act)
    found = question(hands.window)
    assert not waiting
    return found


def names(dialog: FilePicker) -> list[str]:
    return [dialog.list.item(row).text() for row in range(dialog.list.count())]


def choose(*wanted: str) -> Callable[[FilePicker], object]:
    def act(dialog: FilePicker) -> object:
        if not set(wanted) <= set(names(dialog)):
            return False
        dialog.list.clearSelection()
        for name in wanted:
            dialog.list.item(names(dialog).index(name)).setSelected(True)
        return None

    return act


def press(key: Qt.Key) -> Callable[[QWidget], object]:
    return lambda dialog: QTest.keyClick(QApplication.focusWidget() or dialog, key)


def test_a_file_is_found_looked_at_and_the_folder_remembered(hands: Hands, home: Path) -> None:
    seen: list[str] = []

    def is_shown(dialog: FilePicker) -> object:
        assert names(dialog) == [
            "deep",
            "take 1.png",
            "take 2.png",
            "take 10.png",
        ]  # no texts, nothing hidden
        seen.append(dialog._about.text())
        return "pixels" in seen[-1] and not dialog._picture.pixmap().isNull()

    def take(dialog: FilePicker) -> object:
        dialog.go.click()
        return None

    question = lambda near: picking.pick_file(near, "A picture", "sources", [picking.PICTURES])  # noqa: E731
    assert answered(hands, question, choose("take 2.png"), is_shown, take) == home / "take 2.png"
    assert "80 × 30 pixels" in seen[-1]

    def enter(dialog: FilePicker) -> object:
        assert not dialog.go.isEnabled()
        dialog.list.setCurrentRow(0)
        QTest.keyClick(dialog.list, Qt.Key.Key_Return)  # into the folder
        return None

    def up(dialog: FilePicker) -> object:
        if names(dialog) != ["one.png"]:
            return False
        QTest.keyClick(dialog.list, Qt.Key.Key_Backspace)
        return None

    assert (
        answered(hands, question, choose("deep"), enter, up, choose("take 1.png"), press(Qt.Key.Key_Escape))
        is None
    )
    assert (
        answered(hands, question, choose("deep"), enter, choose("one.png"), take) == home / "deep" / "one.png"
    )
    begins: list[Path] = []
    answered(hands, question, lambda dialog: begins.append(dialog.folder), press(Qt.Key.Key_Escape))
    assert begins == [home / "deep"]


def test_sounds_say_how_long_they_are_and_a_path_can_be_typed(hands: Hands, home: Path) -> None:
    said: list[str] = []

    def is_said(dialog: FilePicker) -> object:
        said.append(dialog._about.text())
        return " s, " in said[-1]

    def wrong(dialog: FilePicker) -> object:
        dialog.where.setText("/no/such/place")
        QTest.keyClick(dialog.where, Qt.Key.Key_Return)
        said.append(dialog._about.text())
        dialog.where.setText(str(home / "notes.txt"))
        QTest.keyClick(dialog.where, Qt.Key.Key_Return)
        return None

    question = lambda near: picking.pick_files(near, "Files", "sources")  # noqa: E731
    assert answered(hands, question, choose("bell.wav"), is_said, wrong) == [home / "notes.txt"]
    assert "1.0 s, 8000 Hz, mono" in said[-2] and "There is no /no/such/place" in said[-1]

    def take(dialog: FilePicker) -> object:
        dialog.go.click()
        return None

    assert answered(hands, question, choose("bell.wav", "notes.txt"), take) == [
        home / "bell.wav",
        home / "notes.txt",
    ]
    assert (
        answered(hands, lambda near: picking.pick_folder(near, "Where", "out"), choose("deep"), take)
        == home / "deep"
    )


def test_a_file_that_is_there_is_only_replaced_when_that_was_said_twice(hands: Hands, home: Path) -> None:
    said: list[str] = []

    def save(dialog: FilePicker) -> object:
        assert dialog.name.text() == "notes.txt"
        dialog.go.click()
        said.append(dialog.go.text())
        dialog.go.click()
        return None

    question = lambda near: picking.pick_target(near, "Save", "out", Path("notes.txt"))  # noqa: E731
    assert answered(hands, question, save) == home / "notes.txt" and said == ["Replace it"]

    def other(dialog: FilePicker) -> object:
        dialog.go.click()
        dialog.name.setText("bell.wav")  # another one that is there: asked anew
        dialog.go.click()
        assert not dialog.chosen
        said.append(dialog.go.text())
        dialog.name.setText("fresh.txt")
        dialog.go.click()
        return None

    assert answered(hands, question, other) == home / "fresh.txt" and said[-1] == "Replace it"


def test_names_and_choices_are_asked_for_in_our_own_windows(hands: Hands, home: Path) -> None:
    def write(dialog: QDialog) -> object:
        line = dialog.findChild(QLineEdit)
        go = next(part for part in dialog.findChildren(QPushButton) if part.text() == "Make it")
        assert go.isEnabled() and line.text() == "raft"
        line.setText("   ")
        assert not go.isEnabled()  # nothing is no name
        line.setText(" skiff ")
        QTest.keyClick(line, Qt.Key.Key_Return)
        return None

    assert (
        answered(hands, lambda near: picking.ask_name(near, "New", "Called?", "raft", "Make it"), write)
        == "skiff"
    )
    assert (
        answered(hands, lambda near: picking.ask_name(near, "New", "Called?"), press(Qt.Key.Key_Escape))
        is None
    )
    question = lambda near: picking.ask_one(near, "Kind", "Which?", ["zip", "crate"])  # noqa: E731
    assert answered(hands, question, press(Qt.Key.Key_Down), press(Qt.Key.Key_Return)) == "crate"


def test_a_new_mod_is_one_window_and_its_folder_is_made(hands: Hands, game: Path, home: Path) -> None:
    window = hands.window
    window.open_folder(game)
    hands.settle()
    _in(home / "Mods" / "night-boats")

    def name(dialog: Any) -> object:
        assert not dialog.go.isEnabled()
        QTest.keyClicks(dialog.title, "Night  Boats!")  # type: ignore[arg-type]
        assert dialog.folder == home / "Mods" / "night-boats-2"  # the first is somebody's
        dialog.go.click()
        return None

    answered(hands, lambda _: window.run_command("new-mod"), name)
    hands.until(lambda: window.session.project is not None, "the mod to open")
    hands.settle()
    assert load_project(home / "Mods" / "night-boats-2" / "furnel.toml").mod.name == "Night  Boats!"

    def taken(dialog: Any) -> object:
        dialog.title.setText("Another")
        dialog.where.setText(str(home / "Mods" / "night-boats-2"))
        assert not dialog.go.isEnabled() and "already" in dialog._says.text()
        dialog.reject()
        return None

    assert answered(hands, lambda near: ask_new_mod(near, window.session), taken) is None
    assert folder_for("…", home).name == "mod" and folder_for("Åse's Ferry", home).name == "åse-s-ferry"


def test_numbers_in_names_are_in_order() -> None:
    assert sorted(["b", "a10", "a2", "A1", "1", "10", "2"], key=natural) == [
        "1",
        "2",
        "10",
        "A1",
        "a2",
        "a10",
        "b",
    ]
