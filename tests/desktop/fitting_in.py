"""What a person cannot read or reach: text that is cut off, parts that lie outside what holds them."""

from __future__ import annotations

from collections.abc import Iterator

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QAbstractButton,
    QAbstractScrollArea,
    QAbstractSpinBox,
    QCheckBox,
    QComboBox,
    QLabel,
    QRadioButton,
    QScrollArea,
    QTabBar,
    QWidget,
)

_SLACK = 1  # pixels by which rounding may be off
_CHEVRON = 18  # beside the text of a box of choices


def cut_off(view: QWidget) -> list[str]:
    """A sentence for each thing in a view, as it is shown now, that is cut off or lies outside."""
    return sorted({f"{_path(part)}: {fault}" for part in _seen(view) for fault in _faults(part)})


def nameless(view: QWidget) -> list[str]:
    """What can have the keys in a view, and says nothing of itself to who does not see it."""
    takes = [
        part for part in _seen(view) if part.focusPolicy() & Qt.FocusPolicy.TabFocus and part.isEnabled()
    ]
    return sorted({_path(part) for part in takes if not _says(part)})


def _says(part: QWidget) -> bool:
    text = part.text() if isinstance(part, QAbstractButton | QLabel) else ""
    inside = isinstance(part.parent(), QAbstractScrollArea | QComboBox | QAbstractSpinBox)
    return bool(
        part.accessibleName() or text or part.toolTip() or inside or isinstance(part, QScrollArea | QTabBar)
    )


def _seen(view: QWidget) -> Iterator[QWidget]:
    for part in (view, *view.findChildren(QWidget)):
        if part.isVisible() and part.window() is view.window():
            yield part


def _faults(part: QWidget) -> Iterator[str]:
    if isinstance(part, QLabel) and part.text():
        if part.wordWrap():
            need, has = part.heightForWidth(part.width()), part.height()
        else:
            need, has = part.sizeHint().width(), part.width()
        if need > has + _SLACK:
            yield f"{part.text()[:50]!r} needs {need} and has {has}"
    elif isinstance(part, QAbstractButton) and part.text():
        need = part.sizeHint().width()
        if not isinstance(part, QCheckBox | QRadioButton):
            need = part.fontMetrics().horizontalAdvance(part.text().replace("&", "")) + 6
        if need > part.width() + _SLACK:
            yield f"{part.text()!r} needs {need} and has {part.width()}"
    elif isinstance(part, QComboBox):
        need = part.fontMetrics().horizontalAdvance(part.currentText()) + _CHEVRON
        if need > part.width() + _SLACK:
            yield f"{part.currentText()!r} needs {need} and has {part.width()}"
    elif isinstance(part, QScrollArea) and (inside := part.widget()) is not None:
        off = part.horizontalScrollBarPolicy() == Qt.ScrollBarPolicy.ScrollBarAlwaysOff
        view = part.viewport()
        if off and view is not None and inside.width() > view.width() + _SLACK:
            yield f"what scrolls down in it is {inside.width()} wide and {view.width()} can be seen"
    above = part.parentWidget()
    if above is None or part.isWindow() or isinstance(above.parentWidget(), QAbstractScrollArea):
        return
    if not above.rect().adjusted(-_SLACK, -_SLACK, _SLACK, _SLACK).contains(part.geometry()):
        yield f"lies outside: {_box(part)} in {above.width()} × {above.height()}"


def _box(part: QWidget) -> str:
    return f"{part.width()} × {part.height()} at {part.x()}, {part.y()}"


def _path(part: QWidget) -> str:
    names: list[str] = []
    at: QWidget | None = part
    while at is not None and len(names) < 3:
        names.append(at.accessibleName() or at.objectName() or type(at).__name__)
        at = at.parentWidget()
    return " in ".join(names)
