"""Menus where things are: asked for as a hand or the menu key does."""

from __future__ import annotations

from PyQt6.QtCore import QPoint
from PyQt6.QtGui import QContextMenuEvent
from PyQt6.QtWidgets import QApplication, QWidget


def menu_on(
    widget: QWidget | None, place: QPoint, reason: QContextMenuEvent.Reason = QContextMenuEvent.Reason.Mouse
) -> None:
    assert widget is not None
    QApplication.sendEvent(widget, QContextMenuEvent(reason, place, widget.mapToGlobal(place)))
    QApplication.processEvents()
