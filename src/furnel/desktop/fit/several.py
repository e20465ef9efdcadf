"""What the definition bench asks: a new record's name, which record to copy from, what to do with several values."""

from __future__ import annotations

from PyQt6.QtCore import QSignalBlocker
from PyQt6.QtWidgets import QComboBox, QDialog, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.fit.records_table import shown
from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import answers, button, label
from furnel.desktop.widgets.steady import Choice
from furnel.mods.records import Book, Column, Sheet, reckoned, set_values
from furnel.texts import Change, address_text
from furnel.texts.places import ABSENT

_RECKONED = {"multiply by": "multiply", "add": "add", "set to": "set"}
_SWITCHED = {"switch off": False, "switch on": True}
_PREVIEWED = 8


def ask_name(parent: QWidget, like: str, taken: set[str]) -> str:
    """A name for a new record that is like another; nothing when it is called off."""
    text = "What is it called? Its id, as the game's definitions write it."
    start = f"{like}_2"
    while True:
        name = picking.ask_name(parent, f"New record like {like}", text, start, "Make it")
        if name is None:
            return ""
        if name not in taken:
            return name
        start, text = name, f"There is a {name} already. Another name:"


def ask_record(parent: QWidget, name: str, others: list[str]) -> str:
    """Which record's values to copy; nothing when it is called off."""
    return picking.ask_one(parent, f"Copy values to {name}", "All values of", others, "Copy them") or ""


class _Reckon(QDialog):
    """A value of several records, reckoned with, and what comes of it."""

    def __init__(self, parent: QWidget, book: Book, sheet: Sheet, names: list[str], place: int) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Change several"))
        self._book, self._sheet, self._names = book, sheet, names
        self._columns = list(sheet.columns)
        self.changes: list[Change] = []
        self.what, self.way, self.by = Choice(), Choice(), Choice()
        for part, name in ((self.what, "Which value"), (self.way, "How"), (self.by, "To what")):
            part.setAccessibleName(tr(name))
        self.what.addItems([column.label for column in self._columns])
        if 0 <= place < len(sheet.columns) and sheet.columns[place] in self._columns:
            self.what.setCurrentIndex(self._columns.index(sheet.columns[place]))
        self.by.setEditable(True)
        self.by.setInsertPolicy(QComboBox.InsertPolicy.NoInsert)
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
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 18, 20, 16)
        column.setSpacing(12)
        column.addWidget(label(f"{len(names)} records", "title"))
        column.addLayout(row)
        column.addWidget(self._preview)
        column.addLayout(answers(self, leave, self._go))
        self.what.currentIndexChanged.connect(lambda _: self._turn())
        self.way.currentIndexChanged.connect(lambda _: self._weigh())
        self.by.editTextChanged.connect(lambda _: self._weigh())
        self._turn()

    @property
    def _column(self) -> Column | None:
        return self._columns[max(self.what.currentIndex(), 0)] if self._columns else None

    def _turn(self) -> None:
        """Offer what can be done with the chosen value."""
        column = self._column
        if column is not None:
            values = [self._sheet.cell(name, column)[0] for name in self._names]
            switches = all(isinstance(value, bool) for value in values)
            numbers = column.meaning.types <= {"number"} and not switches
            with QSignalBlocker(self.way), QSignalBlocker(self.by):
                self.way.clear()
                for way in _SWITCHED if switches else _RECKONED if numbers else ("set to",):
                    self.way.addItem(tr(way), way)
                self.by.clear()
                self.by.addItems([] if numbers else self._book.options(column.meaning))
                self.by.setEditText("1.2" if numbers else self.by.itemText(0))
            self.by.setVisible(not switches)
        self._weigh()

    def _made(self, column: Column, addresses: list[str]) -> list[Change]:
        """The changes that are asked for. Raises ValueError for what is no number where one is needed."""
        way, by = self.way.currentData(), self.by.currentText()
        if way in _SWITCHED:
            return set_values(self._book, addresses, _SWITCHED[way])
        if column.meaning.types <= {"number"}:
            return reckoned(self._book, addresses, _RECKONED[way], float(by.replace(",", ".")))
        return set_values(self._book, addresses, by) if by else []

    def _weigh(self) -> None:
        self.changes = []
        column = self._column
        if column is None:
            self._preview.setText(tr("These records have no values"))
            self._go.setEnabled(False)
            return
        where = {address_text((*self._sheet.records[name], *column.key)): name for name in self._names}
        there = [
            address for address, name in where.items()
            if self._sheet.state(name) != "gone" and self._sheet.cell(name, column)[0] is not ABSENT
        ]  # fmt: skip
        try:
            self.changes = self._made(column, there)
        except ValueError:
            self._preview.setText(tr("Write a number"))
            self._go.setEnabled(False)
            return
        lines = [
            f"{where[change.at]}:  {shown(self._sheet.cell(where[change.at], column)[0])} → {shown(change.to)}"
            for change in self.changes[:_PREVIEWED]
        ]
        more = len(self.changes) - len(lines)
        words = [*lines, f"and {more} more"] if more else lines or ["Nothing changes"]
        self._preview.setText(tr("\n".join(words)))
        self._go.setEnabled(bool(self.changes))


def reckon(parent: QWidget, book: Book, sheet: Sheet, names: list[str], place: int) -> list[Change]:
    """Ask how a value of several records is to be changed; the changes, or none when it is called off."""
    dialog = _Reckon(dressed(parent), book, sheet, names, place)
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    return dialog.changes if accepted else []
