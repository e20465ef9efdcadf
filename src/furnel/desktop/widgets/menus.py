"""A menu of things to choose one of."""

from __future__ import annotations

from collections.abc import Callable, Iterable
from functools import partial
from typing import TYPE_CHECKING, TypeVar

from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import QAbstractScrollArea, QMenu, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import dressed

if TYPE_CHECKING:
    from furnel.desktop.window import Window

Thing = TypeVar("Thing")
Row = tuple[str, Callable[[], object], bool]


def menu_under(
    under: QWidget, rows: Iterable[tuple[str, Thing]], choose: Callable[[Thing], object], nothing: str = ""
) -> None:
    """Offer some things by their names, as these are, in a menu under a widget; `nothing` stands there for none."""
    acts: list[Row] = [(name, partial(choose, thing), True) for name, thing in rows]
    none: list[Row] = [(tr(nothing), lambda: None, True)] if nothing else []
    _show(under, acts or none, under.mapToGlobal(under.rect().bottomLeft()))


def menu_at(near: QWidget, rows: Iterable[Row], at: QPoint) -> None:
    """Offer what can be done in a menu: its name, what does it, and whether it can be done now."""
    _show(near, ((tr(text), act, can) for text, act, can in rows), at)


def _show(near: QWidget, rows: Iterable[Row], at: QPoint) -> None:
    menu = QMenu(near)
    for text, act, can in rows:
        action = menu.addAction(text)
        if action is not None:
            action.setEnabled(can)
            action.triggered.connect(lambda _=False, act=act: act())
    menu.exec(at)
    menu.deleteLater()


def offers_menu(widget: QWidget, rows: Callable[[QPoint], Iterable[Row]]) -> None:
    """Give a widget a menu for the right button and the menu key; `rows` gives what is in it for a place in the widget
    (in what scrolls there, where it scrolls)."""
    widget.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
    surface = (
        widget.viewport() if isinstance(widget, QAbstractScrollArea) else None
    )  # Qt tells of places in that

    def show(place: QPoint) -> None:
        if told := list(rows(place)):
            menu_at(widget, told, (surface or widget).mapToGlobal(place))

    widget.customContextMenuRequested.connect(show)


def commands_at(window: Window, names: Iterable[str], at: QPoint) -> None:
    """Offer some commands by their ids in a menu, `-` for a line; what cannot be used now says why when it is pointed at."""
    from furnel.desktop.actions import command, key_of

    menu = QMenu(dressed(window))
    menu.setToolTipsVisible(True)
    for name in names:
        if name == "-":
            menu.addSeparator()
            continue
        entry = command(name)
        keys = f"\t{tr(key_of(entry.id))}" if key_of(entry.id) else ""
        action = menu.addAction(tr(entry.text) + keys)
        assert action is not None
        usable = window.usable(entry)
        action.setEnabled(usable)
        action.setToolTip(tr(entry.tip if usable else entry.need.words))
        action.triggered.connect(lambda _=False, name=name: window.run_command(name))
    menu.exec(at)
    menu.deleteLater()


def place_text(path: str, address: str) -> str:
    """A place in a definition, as menus name it."""
    return f"{path.rpartition('/')[2]}  ›  {address}"
