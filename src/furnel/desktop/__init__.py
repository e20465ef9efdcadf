"""The window. The only package that knows Qt."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QWidget

    from furnel.desktop.window import Window


_ROOM_MS = 30_000  # after the start, when everything is open


def run(project: Path | None = None) -> int:
    """Open the window, on a project (or what was open last), and stay until it is closed."""
    from PyQt6.QtCore import QTimer

    from furnel.desktop.application import make_application, make_window
    from furnel.desktop.look import Look
    from furnel.desktop.opening import Opening
    from furnel.desktop.recent import load_recent
    from furnel.desktop.settings import load_settings

    settings = load_settings()
    application = make_application(settings.size)
    recent, look = load_recent(), Look(settings.theme_now())

    def make() -> QWidget:
        window = make_window(look=look)
        if project is not None:
            window.session.open_mod(project)
        else:
            window.place.go_on(recent)
        QTimer.singleShot(_ROOM_MS, lambda: _make_room(window))
        return window

    opening = Opening(look, recent, make)
    opening.show()
    return int(application.exec())


def _make_room(window: Window) -> None:
    """Let go of what was kept longest, when it is more than was set."""
    from furnel.desktop.settings import GB
    from furnel.desktop.settingspage import make_room

    most = window.settings.now.kept * GB
    window.jobs.start(
        "Making room",
        make_room(window.session, most),
        lambda _: None,
        lambda _: None,
        lane="eye",
        shown=False,
    )
