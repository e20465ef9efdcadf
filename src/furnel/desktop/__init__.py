"""The window. The only package that knows Qt."""

from __future__ import annotations

from pathlib import Path


def run(project: Path | None = None) -> int:
    """Open the window, on a project (or what was open last), and stay until it is closed."""
    from furnel.desktop.application import make_application, make_window
    from furnel.desktop.recent import load_recent

    application = make_application()
    recent = load_recent()
    window = make_window(recent.theme)
    window.show()
    if project is not None:
        window.session.open_mod(project)
    else:
        window.go_on(recent)
    return int(application.exec())
