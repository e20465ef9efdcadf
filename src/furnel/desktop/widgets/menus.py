"""A menu of things to choose one of."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from typing import TypeVar

from PyQt6.QtWidgets import QMenu, QWidget

Thing = TypeVar("Thing")


def menu_under(
    under: QWidget, rows: Iterable[tuple[str, Thing]], choose: Callable[[Thing], object], nothing: str = ""
) -> None:
    """Offer some things by their names in a menu under a widget; `nothing` stands there for none."""
    menu = QMenu(under)
    for text, thing in rows:
        action = menu.addAction(text)
        if action is not None:
            action.triggered.connect(lambda _=False, thing=thing: choose(thing))
    if menu.isEmpty() and nothing:
        menu.addAction(nothing)
    menu.exec(under.mapToGlobal(under.rect().bottomLeft()))
    menu.deleteLater()


def place_text(path: str, address: str) -> str:
    """A place in a definition, as menus name it."""
    return f"{path.rpartition('/')[2]}  ›  {address}"
