"""Timers, made in one way."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QObject, QTimer


def timer(parent: QObject, call: Callable[[], object], ms: int = 0, repeats: bool = False) -> QTimer:
    """A timer that calls something `ms` milliseconds after its start, once or again and again; 0 is the end of this turn."""
    made = QTimer(parent)
    made.setSingleShot(not repeats)
    made.setInterval(ms)
    made.timeout.connect(call)
    return made
