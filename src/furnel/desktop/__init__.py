"""The window. The only package that knows Qt."""

from __future__ import annotations

from pathlib import Path


def run(project: Path | None = None) -> int:
    """Open the window, on a project (or what was open last), and stay until it is closed."""
    from furnel.desktop.application import make_application, make_window
    from furnel.desktop.recent import Recent, load_recent, save_recent

    application = make_application()
    recent = load_recent()
    window = make_window(recent.theme)
    window.show()
    if project is not None:
        window.session.open_mod(project)
    elif recent.project and Path(recent.project).is_file():
        window.session.open_mod(Path(recent.project))
    elif recent.game and Path(recent.game).is_dir():
        window.session.open_game(Path(recent.game))
    result = int(application.exec())
    space, game = window.session.opened_last
    save_recent(Recent(space, game, window.look.theme))
    return result
