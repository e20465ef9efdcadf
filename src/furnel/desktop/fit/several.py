"""What the definition bench asks: a new record's name, which record to copy from, what to do with several values."""

from __future__ import annotations

from PyQt6.QtWidgets import QComboBox, QDialog, QHBoxLayout, QInputDialog, QLineEdit, QVBoxLayout, QWidget

from furnel.desktop.fit.records_table import shown
from furnel.desktop.look import dressed
from furnel.desktop.widgets.basics import button, label
from furnel.mods.records import Book, Sheet, reckoned
from furnel.texts import Change, address_text

_WAYS = {"multiply by": "multiply", "add": "add", "set to": "set"}
_PREVIEWED = 8


def ask_name(parent: QWidget, like: str, taken: set[str]) -> str:
    """A name for a new record that is like another; nothing when it is called off."""
    text = "What is it called? Its id, as the game's definitions write it."
    start = f"{like}_2"
    while True:
        name, wanted = QInputDialog.getText(dressed(parent), f"New record like {like}", text, text=start)
        name = name.strip()
        if not wanted or not name:
            return ""
        if name not in taken:
            return name
        start, text = name, f"There is a {name} already. Another name:"


def ask_record(parent: QWidget, name: str, others: list[str]) -> str:
    """Which record's values to copy; nothing when it is called off."""
    chosen, wanted = QInputDialog.getItem(
        dressed(parent), f"Copy values to {name}", "All values of", others, 0, False
    )
    return chosen if wanted else ""


class _Reckon(QDialog):
    """A value of several records, reckoned with, and what comes of it."""

    def __init__(self, parent: QWidget, book: Book, sheet: Sheet, names: list[str], place: int) -> None:
        super().__init__(parent)
        self.setWindowTitle("Change several")
        self._book, self._sheet, self._names = book, sheet, names
        self._columns = [column for column in sheet.columns if column.meaning.types <= {"number"}]
        self.changes: list[Change] = []
        self.what, self.way, self.by = QComboBox(), QComboBox(), QLineEdit("1.2")
        for part, name in ((self.what, "Which value"), (self.way, "How"), (self.by, "By how much")):
            part.setAccessibleName(name)
        self.what.addItems([column.label for column in self._columns])
        if 0 <= place < len(sheet.columns) and sheet.columns[place] in self._columns:
            self.what.setCurrentIndex(self._columns.index(sheet.columns[place]))
        self.way.addItems(list(_WAYS))
        self._preview = label("")
        self._preview.setMinimumWidth(320)
        row = QHBoxLayout()
        row.setSpacing(8)
        row.addWidget(self.what, 1)
        row.addWidget(self.way)
        row.addWidget(self.by)
        leave, self._go = (
            button("Leave it", "Change nothing  (Esc)"),
            button("Change them", "Change all of them", "next"),
        )
        leave.clicked.connect(self.reject)
        self._go.clicked.connect(self.accept)
        buttons = QHBoxLayout()
        buttons.addStretch(1)
        buttons.addWidget(leave)
        buttons.addWidget(self._go)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 18, 20, 16)
        column.setSpacing(12)
        column.addWidget(label(f"{len(names)} records", "title"))
        column.addLayout(row)
        column.addWidget(self._preview)
        column.addLayout(buttons)
        self.what.currentIndexChanged.connect(lambda _: self._weigh())
        self.way.currentIndexChanged.connect(lambda _: self._weigh())
        self.by.textChanged.connect(lambda _: self._weigh())
        self._weigh()

    def _weigh(self) -> None:
        self.changes = []
        if not self._columns:
            self._preview.setText("These records have no numbers")
            self._go.setEnabled(False)
            return
        column = self._columns[max(self.what.currentIndex(), 0)]
        try:
            by = float(self.by.text().replace(",", "."))
        except ValueError:
            self._preview.setText("Write a number")
            self._go.setEnabled(False)
            return
        where = {address_text((*self._sheet.records[name], *column.key)): name for name in self._names}
        there = [address for address in where if self._sheet.state(where[address]) != "gone"]
        self.changes = reckoned(self._book, there, _WAYS[self.way.currentText()], by)
        lines = [
            f"{where[change.at]}:  {shown(self._sheet.cell(where[change.at], column)[0])} → {shown(change.to)}"
            for change in self.changes[:_PREVIEWED]
        ]
        more = len(self.changes) - len(lines)
        self._preview.setText("\n".join([*lines, f"and {more} more"] if more else lines))
        self._go.setEnabled(bool(self.changes))


def reckon(parent: QWidget, book: Book, sheet: Sheet, names: list[str], place: int) -> list[Change]:
    """Ask how a value of several records is to be changed; the changes, or none when it is called off."""
    dialog = _Reckon(dressed(parent), book, sheet, names, place)
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    return dialog.changes if accepted else []
