"""Records as a table to sort and compare: the game's values plain, yours in ember, what is wrong marked."""

from __future__ import annotations

from typing import Any

from PyQt6.QtCore import QAbstractTableModel, QModelIndex, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFont, QPainter, QPen
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QHeaderView,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QTableView,
)

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.widgets.basics import elided, paint_state
from furnel.mods.fit.texts import fault_state
from furnel.mods.records import Book, Column, Sheet
from furnel.texts import address_text
from furnel.texts.document import Value
from furnel.texts.places import ABSENT

_ROW, _NAME_WIDTH, _WIDEST = 26, 130, 210
_STATE = Qt.ItemDataRole.UserRole + 1
_PART = Qt.ItemDataRole.UserRole + 2
_COLOURS = Qt.ItemDataRole.UserRole + 3


class RecordsModel(QAbstractTableModel):
    """One table of records; the first column is their names."""

    def __init__(self) -> None:
        super().__init__()
        self._book: Book | None = None
        self.sheet: Sheet | None = None
        self.names: list[str] = []
        self._tops: list[float] = []
        self._sorted: tuple[int, bool] | None = None
        self._words = ""

    def show_sheet(self, book: Book, sheet: Sheet) -> None:
        """Show a table as it is now, sorted and sifted as it was."""
        self.beginResetModel()
        self._book, self.sheet = book, sheet
        self._arrange()
        self.endResetModel()

    def sift(self, words: str) -> None:
        """Only records whose name or values have some words."""
        self.beginResetModel()
        self._words = words.casefold()
        self._arrange()
        self.endResetModel()

    def _arrange(self) -> None:
        sheet = self.sheet
        if sheet is None:
            return
        words = self._words.split()
        names = [
            name for name in sheet.names if not words or all(word in self._text_of(name) for word in words)
        ]
        if self._sorted is not None:
            place, up = self._sorted
            names.sort(
                key=lambda name: _order(name if not place else self._value(name, place)), reverse=not up
            )
        self.names = names
        self._tops = [
            max((abs(number) for number in self._numbers(place)), default=0.0)
            for place in range(len(sheet.columns))
        ]

    def _numbers(self, place: int) -> list[float]:
        found = (number_in(self._value(name, place + 1)) for name in self.names)
        return [number for number in found if number is not None]

    def _text_of(self, name: str) -> str:
        assert self.sheet is not None
        return " ".join(
            [name, *(shown(self.sheet.cell(name, column)[0]) for column in self.sheet.columns)]
        ).casefold()

    def _value(self, name: str, place: int) -> Value:
        assert self.sheet is not None
        now, game = self.sheet.cell(name, self.sheet.columns[place - 1])
        return game if now is ABSENT and self.sheet.state(name) == "gone" else now

    def column(self, place: int) -> Column | None:
        """What a column shows; None for the names."""
        return self.sheet.columns[place - 1] if self.sheet is not None and place else None

    def address(self, index: QModelIndex) -> str:
        """The address of a cell's value."""
        assert self.sheet is not None
        column = self.column(index.column())
        return address_text((*self.sheet.records[self.names[index.row()]], *(column.key if column else ())))

    def rowCount(self, parent: QModelIndex | None = None) -> int:
        return len(self.names)

    def columnCount(self, parent: QModelIndex | None = None) -> int:
        return len(self.sheet.columns) + 1 if self.sheet is not None else 0

    def headerData(self, section: int, orientation: Qt.Orientation, role: int = 0) -> Any:
        if (
            orientation != Qt.Orientation.Horizontal
            or role != Qt.ItemDataRole.DisplayRole
            or self.sheet is None
        ):
            return None
        column = self.column(section)
        return (f"{column.label}, {column.unit}" if column.unit else column.label) if column else tr("record")

    def data(self, index: QModelIndex, role: int = 0) -> Any:
        if self.sheet is None or self._book is None or not index.isValid():
            return None
        name = self.names[index.row()]
        column = self.column(index.column())
        if role == Qt.ItemDataRole.DisplayRole:
            return name if column is None else shown(self._value(name, index.column()))
        if role == _STATE:
            if column is None:
                return self.sheet.state(name), ""
            now, game = self.sheet.cell(name, column)
            state = "gone" if now is ABSENT else "" if now == game else "new" if game is ABSENT else "changed"
            fault = self._book.fault_at(self.address(index))
            return state, "" if fault is None else fault_state(fault)
        if role == _PART and column is not None:
            number, top = number_in(self._value(name, index.column())), self._tops[index.column() - 1]
            return abs(number) / top if number is not None and top else None
        if role == _COLOURS and column is not None:
            rule = column.meaning.rule
            strip = rule.strip if rule is not None else None
            return strip.read(self._value(name, index.column())) if strip is not None else None
        if role == Qt.ItemDataRole.ToolTipRole:
            fault = self._book.fault_at(self.address(index))
            return f"{fault.said}. {fault.why or fault.remedy}" if fault else None
        return None

    def sort(self, column: int, order: Qt.SortOrder = Qt.SortOrder.AscendingOrder) -> None:
        if column < 0 or self.sheet is None:
            return
        self.beginResetModel()
        self._sorted = column, order == Qt.SortOrder.AscendingOrder
        self._arrange()
        self.endResetModel()


_LONGEST = 400  # letters of a text that a cell may show


def shown(value: Value) -> str:
    """A value in a cell."""
    if value is ABSENT or value is None:
        return "—"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return ", ".join(map(shown, value))
    if isinstance(value, str):
        return " ".join(value[:_LONGEST].split())
    return f"{value:g}" if isinstance(value, float) else "…" if isinstance(value, dict) else str(value)


def number_in(value: Value) -> float | None:
    """The number that a value is or says; None for what is none."""
    if isinstance(value, bool) or value is ABSENT:
        return None
    try:
        return float(value)
    except (TypeError, ValueError):
        return None


def _order(value: Value) -> tuple[bool, float, str]:
    number = number_in(value)
    return number is None, number or 0.0, shown(value).casefold()


class _Cells(QStyledItemDelegate):
    """Paints cells: a thin bar for how much a number is beside its column's largest, ember for what is yours."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if painter is None:
            return
        look, rect = self._look, QRectF(option.rect)
        painter.save()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(rect, look.colour("hairline"))
        state, wrong = index.data(_STATE)
        part = index.data(_PART)
        colour: QColor = look.colour(
            "ember" if state in ("changed", "new") else "faint" if state == "gone" else "text"
        )
        inner = rect.adjusted(10, 0, -8, 0)
        if part is not None:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour("ember" if state in ("changed", "new") else "hairline-strong"))
            width = max(inner.width() * part, 2)
            painter.drawRoundedRect(QRectF(inner.left(), rect.bottom() - 4, width, 2), 1, 1)
        if wrong:
            paint_state(painter, look, wrong, QRectF(inner.right() - 9, inner.center().y() - 5, 10, 10))
            inner.setRight(inner.right() - 14)
        colours = index.data(_COLOURS)
        if colours:
            side = min(inner.width() / len(colours), 16)
            for number, one in enumerate(colours):
                painter.fillRect(
                    QRectF(inner.left() + number * side, inner.center().y() - 6, side, 12), QColor(*one)
                )
            painter.restore()
            return
        painter.setPen(QPen(colour))
        letters = QFont(font(weight=QFont.Weight.Medium if not index.column() else QFont.Weight.Normal))
        letters.setStrikeOut(state == "gone")
        painter.setFont(letters)
        text = elided(painter, str(index.data()), inner.width())
        painter.drawText(inner, Qt.AlignmentFlag.AlignVCenter | Qt.AlignmentFlag.AlignLeft, text)
        painter.restore()


class RecordsTable(QTableView):
    """The table. `picked` names the record whose values are to be shown."""

    KEYS_HERE = (
        ("Up, Down", "from record to record"),
        ("Shift and arrows", "choose several"),
        ("Click on a heading", "sort by it"),
    )

    picked = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.records = RecordsModel()
        self.setModel(self.records)
        self._cells = _Cells(look)
        self.setItemDelegate(self._cells)
        self.setShowGrid(False)
        self.setSortingEnabled(True)
        self.setAccessibleName(tr("Records"))
        self.setSelectionBehavior(QAbstractItemView.SelectionBehavior.SelectRows)
        self.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.setHorizontalScrollMode(QAbstractItemView.ScrollMode.ScrollPerPixel)
        self.setTabKeyNavigation(False)
        self.setWordWrap(False)
        rows, columns = self.verticalHeader(), self.horizontalHeader()
        assert rows is not None and columns is not None
        rows.setVisible(False)
        rows.setDefaultSectionSize(_ROW)
        rows.setSectionResizeMode(QHeaderView.ResizeMode.Fixed)
        columns.setHighlightSections(False)
        columns.setDefaultAlignment(Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter)
        columns.setSortIndicator(-1, Qt.SortOrder.AscendingOrder)
        columns.setStretchLastSection(True)

    def show_sheet(self, book: Book, sheet: Sheet, keep: str) -> None:
        """Show a table, with a record picked when it is there."""
        other = self.records.sheet is None or self.records.sheet.name != sheet.name
        self.blockSignals(True)
        self.records.show_sheet(book, sheet)
        self.blockSignals(False)
        if other:
            self.setColumnWidth(0, _NAME_WIDTH)
            for place, column in enumerate(sheet.columns, 1):
                some = [shown(sheet.cell(name, column)[0]) for name in sheet.names[:40]]
                longest = max([column.label, *some], key=len)
                metrics = self.fontMetrics()
                self.setColumnWidth(place, min(metrics.horizontalAdvance(longest) + 34, _WIDEST))
        self.pick(keep if keep in self.records.names else self.records.names[0] if self.records.names else "")

    def pick(self, name: str) -> None:
        """Pick a record."""
        if name in self.records.names:
            place = self.records.names.index(name)
            self.setCurrentIndex(self.records.index(place, max(self.currentIndex().column(), 0)))

    def wanted_height(self) -> int:
        """How tall it has to be to show all its records."""
        columns = self.horizontalHeader()
        head = columns.sizeHint().height() if columns is not None else 0
        return head + _ROW * (len(self.records.names) + 1) + 4

    @property
    def current(self) -> str:
        """The record that is picked; nothing when none is."""
        row = self.currentIndex().row()
        return self.records.names[row] if 0 <= row < len(self.records.names) else ""

    def chosen(self) -> list[str]:
        """The records that are chosen, in the table's order."""
        found = self.selectionModel()
        rows = sorted(index.row() for index in found.selectedRows()) if found is not None else []
        return [self.records.names[row] for row in rows if row < len(self.records.names)]

    def currentChanged(self, current: QModelIndex, previous: QModelIndex) -> None:
        super().currentChanged(current, previous)
        if self.current:
            self.picked.emit(self.current)
