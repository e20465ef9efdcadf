"""How a view was left: its widths, its open trays, its zooms and orders, kept as soon as they are changed."""

from __future__ import annotations

import threading
from collections.abc import Callable

from PyQt6.QtWidgets import QAbstractButton

from furnel.remembered import recall, remember

Kept = list[int] | list[str]
_saving = threading.Lock()
_latest: dict[str, Kept] = {}  # what is not written yet


def kept_numbers(name: str) -> list[int]:
    """Whole numbers that were kept by a name; none when there are none, or other things."""
    told = _kept(name)
    return told if isinstance(told, list) and all(type(part) is int for part in told) else []


def kept_texts(name: str) -> list[str]:
    """Texts that were kept by a name; none when there are none, or other things."""
    told = _kept(name)
    return told if isinstance(told, list) and all(type(part) is str for part in told) else []


def keep(name: str, what: Kept) -> None:
    """Keep something by a name, without waiting for the disk; of several the last."""
    _latest[name] = what
    _in_time(_write)


def _kept(name: str) -> object:
    known = recall("panes")
    return known.get(name) if isinstance(known, dict) else None


def _write() -> None:
    known, fresh = recall("panes"), dict(_latest)
    if fresh:
        remember("panes", {**(known if isinstance(known, dict) else {}), **fresh})
    for name, what in fresh.items():
        if _latest.get(name) is what:
            del _latest[name]


def _in_time(write: Callable[[], None]) -> None:
    """Write in a thread of its own, one after the other."""

    def work() -> None:
        with _saving:
            write()

    threading.Thread(target=work, name="furnel-panes").start()


class Views:
    """How far in and where things were looked at last, by what they are; the oldest are forgotten."""

    def __init__(self, name: str, most: int = 200) -> None:
        self._name, self._most = name, most
        told = recall(name)
        rows = told.items() if isinstance(told, dict) else ()
        self._views = {
            str(key): view
            for key, view in rows
            if isinstance(view, list) and all(type(part) is int for part in view)
        }

    def of(self, key: str) -> list[int]:
        """What was kept by a key; nothing when nothing was."""
        return self._views.get(key, [])

    def keep(self, key: str, view: list[int]) -> None:
        """Keep a view; an empty one is forgotten."""
        if self.of(key) == view:
            return
        self._views.pop(key, None)
        if view:
            self._views[key] = view
        for old in list(self._views)[: -self._most]:
            del self._views[old]
        _in_time(lambda: remember(self._name, dict(self._views)))


def remember_checked(part: QAbstractButton, name: str) -> None:
    """Give a switch the state that it had last, and keep the one that a person gives it."""
    if (told := kept_numbers(name)) in ([0], [1]):
        part.setChecked(bool(told[0]))
    part.clicked.connect(lambda _=False: keep(name, [int(part.isChecked())]))
