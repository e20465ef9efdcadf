"""The window. The only package that knows Qt."""

from __future__ import annotations

import logging
import os
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QWidget

    from furnel.desktop.window import Window


_AHEAD_MS = 1_500  # after the start, when the wall is there
_ROOM_MS = 30_000  # when everything is open


def run(paths: Sequence[Path] = (), apart: bool = False) -> int:
    """Open the window on some paths (or what was open last), and stay until it is closed.

    When one is open already it takes the paths, unless this one is to be `apart`.
    """
    from furnel.desktop.handover import hand_over, receive

    if not apart and hand_over(paths):
        return 0
    from furnel.desktop.ahead import load_ahead
    from furnel.desktop.application import ended_by_the_system, make_application, make_window
    from furnel.desktop.look import Look
    from furnel.desktop.opening import Opening
    from furnel.desktop.recent import load_recent
    from furnel.desktop.report import show_report, watch_for_crashes
    from furnel.desktop.settings import load_settings
    from furnel.desktop.timing import timer

    settings = load_settings()
    application = make_application(settings.size, settings.language)
    crashed = watch_for_crashes()
    recent, look = load_recent(), Look(settings.theme_now())
    waiting = [list(paths)] if paths else []
    made: list[Window] = []

    def take(files: list[Path]) -> None:
        """Come to the front, with what was handed over."""
        from furnel.desktop.doing import take_dropped

        opening.raise_()
        opening.activateWindow()
        if not made:
            waiting.append(files)
        elif files:
            take_dropped(made[0], files)

    def take_waiting() -> None:
        while waiting:
            take(waiting.pop(0))

    def make() -> QWidget:
        window = make_window(look=look)
        made.append(window)
        opens = any(files and (files[0].is_dir() or files[0].name == "furnel.toml") for files in waiting)
        if not opens and window.place.go_on(recent):  # what else was handed over is for what was open last
            window.session.opened.connect(take_waiting)
        else:
            take_waiting()
        if crashed:
            window.session.tell(
                "wrong",
                "Furnel ended without warning the last time. What you changed is here.",
                ("Look at the report", lambda: show_report(window, crashed)),
            )
        timer(window, load_ahead, _AHEAD_MS).start()
        timer(window, lambda: _make_room(window), _ROOM_MS).start()
        return window

    opening = Opening(look, recent, make)
    opening.show()
    if not apart:
        opening.closed.connect(receive(opening, take))
    with ended_by_the_system(application):
        code = int(application.exec())
    if made and not made[0].ended:  # a kernel does not stop in its middle, and nothing waits for it
        logging.shutdown()
        os._exit(code)
    return code


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
