"""The window. The only package that knows Qt."""

from __future__ import annotations

from pathlib import Path


def run(project: Path | None = None) -> int:
    """Open the window, on a project when there is one, and stay until it is closed."""
    from furnel.desktop.application import make_application, make_window

    application = make_application()
    window = make_window()
    window.show()
    if project is not None:
        window.session.open_mod(project)
    return int(application.exec())
