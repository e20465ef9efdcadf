"""The window. The only package that knows Qt."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QWidget


def run(project: Path | None = None) -> int:
    """Open the window, on a project (or what was open last), and stay until it is closed."""
    from furnel.desktop.application import make_application, make_window
    from furnel.desktop.look import THEMES, Look
    from furnel.desktop.opening import Opening
    from furnel.desktop.recent import load_recent

    application = make_application()
    recent = load_recent()
    look = Look(recent.theme if recent.theme in THEMES else "dark")

    def make() -> QWidget:
        window = make_window(look=look)
        if project is not None:
            window.session.open_mod(project)
        else:
            window.place.go_on(recent)
        return window

    opening = Opening(look, recent, make)
    opening.show()
    return int(application.exec())
