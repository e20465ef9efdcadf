"""The quick command: any command by its name."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import (
    QDialog,
    QHBoxLayout,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.actions import COMMANDS, Command
from furnel.desktop.widgets.basics import label


class QuickCommand(QDialog):
    """A field over a list; Enter runs the first match. Commands that cannot be used now are left out."""

    def __init__(
        self, parent: QWidget, usable: Callable[[Command], bool], run: Callable[[str], None]
    ) -> None:
        super().__init__(parent, Qt.WindowType.Popup)
        self._usable, self._run = usable, run
        self.setFixedSize(460, 330)
        self._field = QLineEdit(placeholderText="What do you want to do?")
        self._field.setAccessibleName("Command")
        self._list = QListWidget()
        self._list.setAccessibleName("Commands")
        self._list.setStyleSheet(
            "QListWidget { background: transparent; border: none; outline: 0 } QListWidget::item { border-radius: 3px }"
        )
        column = QVBoxLayout(self)
        column.setContentsMargins(8, 8, 8, 8)
        column.addWidget(self._field)
        column.addWidget(self._list)
        self._field.textChanged.connect(self._fill)
        self._field.installEventFilter(self)
        self._field.returnPressed.connect(self._go)
        self._list.itemClicked.connect(lambda _: self._go())
        self._fill("")

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
            if move and self._list.count():
                self._list.setCurrentRow(max(0, min(self._list.currentRow() + move, self._list.count() - 1)))
                return True
        return super().eventFilter(watched, event)

    def _fill(self, text: str) -> None:
        words = text.casefold().split()
        self._list.clear()
        for entry in COMMANDS:
            whole = f"{entry.group} {entry.text} {entry.tip}".casefold()
            if entry.id == "quick" or not self._usable(entry) or not all(word in whole for word in words):
                continue
            item = QListWidgetItem()
            item.setData(Qt.ItemDataRole.UserRole, entry.id)
            row = QWidget()
            line = QHBoxLayout(row)
            line.setContentsMargins(8, 4, 8, 4)
            line.addWidget(label(entry.text.rstrip("…")))
            line.addWidget(label(entry.tip, "caption"), 1)
            line.addWidget(label(entry.key, "caption"))
            item.setSizeHint(row.sizeHint())
            self._list.addItem(item)
            self._list.setItemWidget(item, row)
        self._list.setCurrentRow(0)

    def _go(self) -> None:
        item = self._list.currentItem()
        if item is not None:
            self.accept()
            self._run(item.data(Qt.ItemDataRole.UserRole))
