"""Editors for values, each for what the value means: a number, a switch, a choice, a colour, an asset, a list."""

from __future__ import annotations

import math
from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QEvent, QObject, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QPushButton,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.widgets.basics import Switch, button, label
from furnel.desktop.widgets.colours import ask_colour
from furnel.desktop.widgets.steady import Choice
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.mods.records import Book, Line
from furnel.texts import Meaning
from furnel.texts.document import Value, scalar_text
from furnel.texts.places import ABSENT

Change = Callable[[Value], object]
_MOST_LISTED = 8


def kind_of(line: Line, book: Book) -> str:
    """Which editor a value has: `switch`, `strip`, `list`, `number`, `colour`, `asset`, `choice` or `text`."""
    value = line.game if line.now is ABSENT else line.now
    meaning, takes = line.meaning, line.meaning.rule.takes if line.meaning.rule is not None else None
    if isinstance(value, list) and meaning.rule is not None and meaning.rule.strip is not None:
        return "strip"
    if isinstance(value, bool) or takes == "switch":
        return "switch"
    if isinstance(value, list):
        return "list"
    if (
        takes in ("number", "whole number")
        or meaning.types == {"number"}
        or (takes is None and isinstance(value, int | float))
    ):
        return "number"
    if takes in ("asset", "colour") or (takes is None and meaning.names in ("asset", "colour")):
        return takes or meaning.names
    return "choice" if book.options(meaning) else "text"


def typed(text: str, line: Line, book: Book) -> Value | None:
    """A number as it was typed, of the type that the definition has; None for what is none."""
    try:
        number = float(text.strip().replace(",", "."))
    except ValueError:
        return None
    if not math.isfinite(number):
        return None
    whole = number.is_integer() and (line.meaning.whole or isinstance(line.game, int))
    value: int | float = int(number) if whole else number
    return value if book.now.is_typed else scalar_text(value)


class NumberField(QLineEdit):
    """A number; the arrow keys count it up and down by a step that goes with its siblings."""

    changed = pyqtSignal(object)

    def __init__(self, line: Line, book: Book) -> None:
        super().__init__(scalar_text(line.now) if line.now is not ABSENT else "")
        self._line, self._book = line, book
        self._kept = self.text()
        self.setMaximumWidth(96)
        self.editingFinished.connect(self._take)

    def _take(self) -> None:
        value = typed(self.text(), self._line, self._book)
        if value is None:
            self.setText(self._kept)
        elif self.text() != self._kept:
            self._kept = self.text()
            self.changed.emit(value)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            meaning = self._line.meaning
            spread = (meaning.high or 0) - (meaning.low or 0)
            step = 1.0 if meaning.whole or spread <= 0 else 10.0 ** (math.floor(math.log10(spread)) - 1)
            old = typed(self.text(), self._line, self._book)
            if old is not None:
                new = float(old) + (step if event.key() == Qt.Key.Key_Up else -step)
                self.setText(f"{round(new, 6):g}")
            return
        super().keyPressEvent(event)


class Among(QWidget):
    """A number among its siblings: the usual range as a line, the game's in teal on it, yours in ember."""

    def __init__(self, look: Look, meaning: Meaning, game: float | None, now: float | None) -> None:
        super().__init__()
        self._look, self._meaning, self._game, self._now = look, meaning, game, now
        self.setFixedHeight(20)
        self.setMinimumWidth(90)
        self.setToolTip(tr(f"The game's own: {meaning.usual}"))

    def sizeHint(self) -> QSize:
        return QSize(150, 20)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        low, high = self._meaning.low, self._meaning.high
        if low is None or high is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        some = [low, high, *(one for one in (self._game, self._now) if one is not None)]
        first, last = min(some), max(some)
        left, width = 6.0, self.width() - 12.0
        middle = self.height() / 2

        def at(value: float) -> float:
            return left + (value - first) / max(last - first, 1e-12) * width

        painter.setPen(QPen(self._look.colour("hairline"), 1))
        painter.drawLine(QPointF(left, middle), QPointF(left + width, middle))
        painter.setPen(QPen(self._look.colour("hairline-strong"), 5, cap=Qt.PenCapStyle.RoundCap))
        painter.drawLine(QPointF(at(low), middle), QPointF(max(at(high), at(low) + 1), middle))
        painter.setPen(Qt.PenStyle.NoPen)
        for value, name in ((self._game, "tarn"), (self._now if self._now != self._game else None, "ember")):
            if value is not None:
                x = at(value)
                painter.setBrush(self._look.colour(name))
                painter.drawPolygon(
                    QPolygonF(
                        [QPointF(x, middle + 5), QPointF(x - 4, middle - 4), QPointF(x + 4, middle - 4)]
                    )
                )


class Swatch(QPushButton):
    """A colour to see and to choose."""

    changed = pyqtSignal(object)

    def __init__(self, text: str) -> None:
        super().__init__(text)
        self._text = text
        self.setFixedWidth(110)
        self.setAccessibleName(tr(f"Colour {text}"))
        self.clicked.connect(self._choose)

    def _choose(self) -> None:
        mark = "#" if self._text.startswith("#") else ""
        digits = self._text.removeprefix("#")
        now = QColor(f"#{digits[:6]}")
        ask_colour(
            self, "A colour", (now.red(), now.green(), now.blue()),
            lambda chosen: self.changed.emit(mark + bytes(chosen).hex() + digits[6:]),
        )  # fmt: skip

    def paintEvent(self, event: QPaintEvent | None) -> None:
        super().paintEvent(event)
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(QColor(f"#{self._text.removeprefix('#')[:6]}"))
        painter.drawRoundedRect(QRectF(7, self.height() / 2 - 6, 12, 12), 2, 2)


class AssetField(QWidget):
    """The asset that a value names: its picture or waveform, its path, and a button to choose another on the wall."""

    changed = pyqtSignal(object)
    shown = pyqtSignal(str)

    def __init__(
        self, look: Look, tiles: TileStore, text: str, asset: Any, choose: Callable[[str], str]
    ) -> None:
        super().__init__()
        self._look, self._tiles, self._asset = look, tiles, asset
        self._field = QLineEdit(text)
        self._field.setAccessibleName(tr("Asset"))
        self._field.editingFinished.connect(lambda: self._typed(text))
        pick = button("Choose…", "Choose another on the wall")
        pick.clicked.connect(lambda: self._chosen(choose(text), text))
        row = QHBoxLayout(self)
        row.setContentsMargins(54 if asset is not None else 0, 0, 0, 0)
        row.setSpacing(6)
        row.addWidget(self._field, 1)
        row.addWidget(pick)
        tiles.ready.connect(self.update)
        if asset is not None:
            self.setToolTip(tr("Click the picture to see it on the wall"))

    def _typed(self, before: str) -> None:
        if self._field.text() != before:
            self.changed.emit(self._field.text())

    def _chosen(self, path: str, before: str) -> None:
        if path and path != before:
            self.changed.emit(path)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._asset is not None and event.position().x() < 48:
            self.shown.emit(self._asset.path)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self._asset is not None:
            painter = QPainter(self)
            paint_tile(painter, self._look, QRectF(0, 0, 48, self.height()), self._tiles.get(self._asset))


class ListField(QWidget):
    """A list to put in order by dragging or Alt and the arrow keys, to add to and to take from."""

    changed = pyqtSignal(object)

    def __init__(self, values: list[Value], options: list[str], numbers: bool) -> None:
        super().__init__()
        self._numbers = numbers
        self.list = QListWidget()
        self.list.setAccessibleName(tr("List"))
        self.list.installEventFilter(self)
        self.list.setDragDropMode(QAbstractItemView.DragDropMode.InternalMove)
        self.list.addItems(
            [scalar_text(value) if not isinstance(value, dict | list) else "…" for value in values]
        )
        self.list.setFixedHeight(min(max(len(values), 2), _MOST_LISTED) * 21 + 8)
        if (model := self.list.model()) is not None:
            model.rowsMoved.connect(lambda *_: self._tell())
        self._new: QComboBox | QLineEdit
        if options:
            self._new = Choice()
            self._new.addItems(options)
            self._new.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
            self._new.setMinimumContentsLength(6)
        else:
            self._new = QLineEdit()
            self._new.setPlaceholderText(tr("another"))
            self._new.returnPressed.connect(self._add)
        self._new.setAccessibleName(tr("What to add"))
        add, out = button("Add", "Put it at the end"), button("Take out", "Take what is selected out  (Del)")
        add.clicked.connect(self._add)
        out.clicked.connect(self._drop)
        empty = button("Empty", "Take all of them out")
        empty.clicked.connect(self._empty)
        empty.setEnabled(bool(values))
        row = WrappingRow(spacing=6)
        for part in (self._new, add, out, empty):
            row.addWidget(part)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.list)
        column.addLayout(row)

    def _add(self) -> None:
        text = self._new.currentText() if isinstance(self._new, QComboBox) else self._new.text()
        if text:
            self.list.addItem(text)
            self._tell()

    def _drop(self) -> None:
        if self.list.currentRow() >= 0:
            self.list.takeItem(self.list.currentRow())
            self._tell()

    def _empty(self) -> None:
        self.list.clear()
        self.changed.emit([])

    def _shift(self, by: int) -> None:
        """Move what is selected up or down."""
        row = self.list.currentRow()
        if row >= 0 and 0 <= row + by < self.list.count():
            item = self.list.takeItem(row)
            self.list.insertItem(row + by, item)
            self.list.setCurrentRow(row + by)
            self._tell()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if watched is self.list and isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            if event.key() == Qt.Key.Key_Delete:
                self._drop()
                return True
            by = -1 if event.key() == Qt.Key.Key_Up else 1 if event.key() == Qt.Key.Key_Down else 0
            if by and event.modifiers() & Qt.KeyboardModifier.AltModifier:
                self._shift(by)
                return True
        return super().eventFilter(watched, event)

    def _tell(self) -> None:
        items = (self.list.item(row) for row in range(self.list.count()))
        texts = [item.text() for item in items if item is not None]
        values: list[Value] = [_as_number(text) for text in texts] if self._numbers else list(texts)
        if None not in values:
            self.changed.emit(values)


def _as_number(text: str) -> Value:
    try:
        number = float(text)
    except ValueError:
        return None
    return int(number) if number.is_integer() else number


def choice_field(options: list[str], now: str, change: Change) -> QComboBox:
    """A choice that can be typed into, for long lists; what is not in it stays as it is until another is chosen."""
    box = Choice()
    box.setEditable(True)
    box.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
    box.addItems(options if now in options else [now, *options])
    box.setCurrentText(now)
    completer = box.completer()
    if completer is not None:
        completer.setFilterMode(Qt.MatchFlag.MatchContains)
    box.activated.connect(lambda _: change(box.currentText()) if box.currentText() != now else None)
    line = box.lineEdit()
    if line is not None:
        line.returnPressed.connect(lambda: change(box.currentText()) if box.currentText() != now else None)
    return box


def text_field(now: str, change: Change) -> QLineEdit:
    """A text."""
    made = QLineEdit(now)
    made.editingFinished.connect(lambda: change(made.text()) if made.text() != now else None)
    return made


def switch_field(look: Look, line: Line, book: Book, change: Change) -> QWidget:
    """A switch, with its word beside it."""
    on = line.now is True or line.now == "true"
    made = Switch(look, line.label)
    made.setChecked(on)
    made.toggled.connect(lambda now: change(now if book.now.is_typed else scalar_text(now)))
    holder = QWidget()
    row = QHBoxLayout(holder)
    row.setContentsMargins(0, 0, 0, 0)
    row.addWidget(made)
    row.addWidget(label("on" if on else "off", "caption"))
    row.addStretch(1)
    return holder
