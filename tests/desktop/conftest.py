"""A real window offscreen, hands to work it, and a net for what it leaves behind."""

from __future__ import annotations

import gc
import logging
import os
import sys
import threading
from collections.abc import Callable, Iterator
from pathlib import Path

import pytest

os.environ.setdefault("QT_QPA_PLATFORM", "offscreen")

from demo.hands import Hands
from PyQt6.QtCore import QCoreApplication, QEvent
from PyQt6.QtWidgets import QApplication, QMenu

from furnel.desktop.application import make_application, make_window
from furnel.folders import state_folder
from furnel.mods.workspace import create_project, open_workspace


@pytest.fixture(scope="session")
def application() -> QApplication:
    return make_application()


@pytest.fixture
def hands(
    application: QApplication, caplog: pytest.LogCaptureFixture, monkeypatch: pytest.MonkeyPatch
) -> Iterator[Hands]:
    """Hands on a new window, which learns its game only where a test asks for it: that takes longer than most tests.

    Afterwards nothing may be left: no thread, no window, no error in the log.
    """
    monkeypatch.setattr("furnel.desktop.learned.AFTER_MS", 1 << 30)
    monkeypatch.setattr(
        "furnel.desktop.window._PATIENCE_S", 60.0
    )  # here nobody waits for the window to be gone
    before = set(threading.enumerate())
    for name in ("settings", "panes"):  # as they came
        (state_folder() / f"{name}.json").unlink(missing_ok=True)
    window = make_window()
    window.show()
    with caplog.at_level(logging.ERROR, "furnel"):
        yield Hands(window)
    window.close()
    sys.excepthook = sys.__excepthook__
    window.deleteLater()
    for _ in range(3):
        QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
        QApplication.processEvents()
    gc.collect()
    for thread in set(threading.enumerate()) - before:
        if thread.name == "furnel-panes":  # writes one small file, and ends
            thread.join(5)
    left = [
        t.name
        for t in set(threading.enumerate()) - before
        if t.is_alive() and not t.name.startswith("furnel-rows")
    ]
    assert not left, f"threads left: {left}"
    assert not [widget for widget in QApplication.topLevelWidgets() if widget.isVisible()]
    assert not [record.getMessage() for record in caplog.records if record.levelno >= logging.ERROR]


@pytest.fixture
def mod(game: Path, sources: Path, tmp_path: Path) -> Path:
    """A mod with a hull that breaks, a sheet that fits, a bell and a text."""
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", game))
    project = space.project
    for original, source in (("cast/otter_walk.png", "otter_teal.png"), ("bank0/000.wav", "church_bell.mp3")):
        project = project.with_swap(space.fitted(space.new_swap(original, sources / source)))
    project = project.with_swap(space.new_swap("art/hulls/hull_otter.dds", sources / "dusk_paint.jpg"))
    text = tmp_path / "playlist.json"
    text.write_bytes(
        space.catalogue.read(space.catalogue.get("rules/playlist.json")).replace(b"fog", b"lantern_waltz")
    )
    space.save(project.with_swap(space.new_swap("rules/playlist.json", text)))
    space.close()
    return tmp_path / "mod" / "furnel.toml"


@pytest.fixture
def menus(monkeypatch: pytest.MonkeyPatch) -> Callable[[str], list[dict[str, bool]]]:
    """Menus that come up choose something at once; what was in each, and whether it could be done."""

    def choose(text: str) -> list[dict[str, bool]]:
        seen: list[dict[str, bool]] = []

        def exec(menu: QMenu, *_: object) -> None:
            actions = [one for one in menu.actions() if not one.isSeparator()]
            seen.append({one.text().partition("\t")[0]: one.isEnabled() for one in actions})
            for one in actions:
                if text and one.text().startswith(text):
                    one.trigger()

        monkeypatch.setattr(QMenu, "exec", exec)
        return seen

    return choose
