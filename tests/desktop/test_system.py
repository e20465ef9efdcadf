"""Furnel among the system's other programs: one window for all starts, a menu entry that can go again, an end by the system,
and a report of what nobody foresaw."""

from __future__ import annotations

import configparser
import json
import os
import shlex
import signal
import socket
import subprocess
import sys
import time
from collections.abc import Callable, Iterator
from pathlib import Path
from xml.etree import ElementTree

import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QObject
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QDialog, QPlainTextEdit, QPushButton

from furnel.desktop.handover import address, hand_over, receive
from furnel.desktop.menuentry import ICON_SIZES, add_to_menu, data_home, entry_files, in_menu, take_off_menu
from furnel.desktop.recent import load_recent
from furnel.desktop.report import report_of
from furnel.desktop.settings import load_settings


@pytest.fixture(autouse=True)
def own_folders(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    for name, folder in (
        ("FURNEL_STATE", "state"),
        ("XDG_DATA_HOME", "data"),
        ("XDG_RUNTIME_DIR", "runtime"),
    ):
        (tmp_path / folder).mkdir()
        monkeypatch.setenv(name, str(tmp_path / folder))


# one window


@pytest.fixture
def taken(application: QApplication) -> Iterator[list[list[Path]]]:
    parent = QObject()
    taken: list[list[Path]] = []
    end = receive(parent, taken.append)
    yield taken
    end()
    parent.deleteLater()


def _start(*words: str) -> subprocess.Popen[str]:
    command = [sys.executable, "-c", "from furnel.cli import main; main()", "desktop", *words]
    return subprocess.Popen(command, stdout=subprocess.PIPE, stderr=subprocess.STDOUT, text=True)


def _until(done: Callable[[], object], seconds: float = 60) -> None:
    end = time.monotonic() + seconds
    while not done() and time.monotonic() < end:
        QTest.qWait(20)  # type: ignore[arg-type]  # the stub takes it for a method
    assert done()


def test_a_second_start_hands_its_files_over_and_ends(
    taken: list[list[Path]], tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.chdir(tmp_path)
    other = _start("boat.png", str(tmp_path / "a folder"))
    _until(lambda: other.poll() is not None)
    assert other.returncode == 0, other.stdout and other.stdout.read()
    assert taken == [[tmp_path / "boat.png", tmp_path / "a folder"]]
    assert oct(address().stat().st_mode & 0o077) == "0o0", "nobody else of this machine can speak to it"


@pytest.mark.parametrize("said", [b"\n", b'{"a": 1}\n', b"[1, 2]\n", b"\xff\xfe\n", b'["x"'])
def test_what_is_not_a_list_of_paths_is_not_taken(taken: list[list[Path]], said: bytes) -> None:
    with socket.socket(socket.AF_UNIX, socket.SOCK_STREAM) as line:
        line.connect(str(address()))
        line.sendall(said)
        for _ in range(20):
            QTest.qWait(10)  # type: ignore[arg-type]
    assert taken == []


def test_the_socket_of_a_killed_window_is_in_nobodys_way(application: QApplication) -> None:
    left = socket.socket(socket.AF_UNIX, socket.SOCK_STREAM)
    left.bind(str(address()))
    left.close()
    assert not hand_over([])
    parent = QObject()
    taken: list[list[Path]] = []
    end = receive(parent, taken.append)
    other = _start()
    _until(lambda: other.poll() is not None)
    assert (other.returncode, taken) == (0, [[]])
    end()


def test_the_system_ends_it_and_its_place_is_kept(mod: Path, tmp_path: Path) -> None:
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    command = [sys.executable, "-c", "from furnel.cli import main; main()", "desktop", str(mod)]
    with subprocess.Popen(
        command, env=environment, stdout=subprocess.PIPE, stderr=subprocess.STDOUT
    ) as window:
        try:
            _until(lambda: load_recent().project == str(mod))
            window.send_signal(signal.SIGTERM)
            assert window.wait(30) == 0
        finally:
            window.kill()
    assert not address().exists()


# the menu


def test_the_menu_entry_is_whole_and_goes_without_a_trace(application: QApplication, tmp_path: Path) -> None:
    program = tmp_path / "my programs" / "furnel 100%"
    before = sorted(data_home().rglob("*"))
    add_to_menu(program)
    assert in_menu()
    entry = configparser.ConfigParser(interpolation=None)
    entry.optionxform = str  # type: ignore[assignment,method-assign]
    entry.read(entry_files()["entry"], "utf-8")
    told = entry["Desktop Entry"]
    assert shlex.split(told["Exec"].replace("%%", "%")) == [str(program), "desktop", "%F"]
    kinds = ElementTree.parse(entry_files()["kinds"])
    spaces = {"m": "http://www.freedesktop.org/standards/shared-mime-info"}
    kind = kinds.find("m:mime-type", spaces)
    assert kind is not None and kind.attrib["type"] in told["MimeType"].split(";")
    for side in ICON_SIZES:
        with Image.open(entry_files()[f"icon {side}"]) as icon:
            colours = {pixel[:3] for _, pixel in icon.convert("RGBA").getcolors(1 << 20) or ()}  # type: ignore[index,misc]
            assert icon.size == (side, side) and len(colours) > 2
    take_off_menu()
    assert not in_menu()
    assert not [file for file in data_home().rglob("furnel*") if file not in before]


def test_the_settings_put_it_there_and_take_it_off(hands: Hands) -> None:
    hands.window.run_command("settings")
    page = hands.window.pages.settings_page
    hands.settle()
    for there in (True, False):
        hands.click(page.menu)
        assert in_menu() is there
    assert load_settings().theme == "dark"


# what nobody foresaw


def test_a_report_says_what_happened_and_not_whose_machine_it_was(
    hands: Hands, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, caplog: pytest.LogCaptureFixture
) -> None:
    monkeypatch.setenv("HOME", str(tmp_path))
    window = hands.window

    def fails() -> None:
        raise ZeroDivisionError(f"in {tmp_path}/secret")

    try:
        fails()
    except ZeroDivisionError as error:
        sys.excepthook(type(error), error, error.__traceback__)
    caplog.clear()
    notice = window.messages[-1]
    assert notice.tone == "wrong" and notice.actions[0][0] == "Look at the report"
    notice.actions[0][1]()
    dialog = next(
        top for top in QApplication.topLevelWidgets() if isinstance(top, QDialog) and top.isVisible()
    )
    text = dialog.findChildren(QPlainTextEdit)[0].toPlainText()
    assert (
        "ZeroDivisionError" in text and "fails" in text and "~/secret" in text and str(tmp_path) not in text
    )
    hands.click(next(part for part in dialog.findChildren(QPushButton) if part.text() == "Copy it"))
    clipboard = QApplication.clipboard()
    assert clipboard is not None and clipboard.text() == text


def test_what_killed_it_is_told_at_the_next_start(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_CACHE", str(tmp_path / "cache"))
    code = "from furnel.desktop.report import watch_for_crashes; print(watch_for_crashes()); import {}"
    dies = "os; os.kill(os.getpid(), 11)"
    said = [
        subprocess.run([sys.executable, "-c", code.format(rest)], capture_output=True, text=True).stdout
        for rest in (dies, "json", "json")
    ]
    assert "Segmentation fault" in said[1] and said[2].strip() == "" == said[0].strip()


def test_a_report_of_an_error_without_a_trace() -> None:
    assert "ValueError: x" in report_of(ValueError("x")) and json.dumps(report_of(KeyError("y")))
