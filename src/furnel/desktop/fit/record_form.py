"""The values of one record, each with an editor that fits it; the game's own beside what is yours."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QScrollArea, QVBoxLayout, QWidget

from furnel.desktop.fit.records_table import number_in, shown
from furnel.desktop.fit.strip_field import StripField
from furnel.desktop.fit.value_editors import (
    Among,
    AssetField,
    ListField,
    NumberField,
    Swatch,
    choice_field,
    kind_of,
    switch_field,
    text_field,
)
from furnel.desktop.fit.value_menu import of_value
from furnel.desktop.language import tr
from furnel.desktop.widgets.basics import StateMark, button, label, scrolling, tip, verbatim
from furnel.desktop.widgets.menus import Row, menu_under, offers_menu
from furnel.mods.fit.texts import fault_state
from furnel.mods.records import Book, Line, Sheet
from furnel.texts import parse_address
from furnel.texts.document import Value
from furnel.texts.places import ABSENT

if TYPE_CHECKING:
    from furnel.desktop.fit.bench import Hands

_MOST_LINES = 90


class RecordForm(QWidget):
    """A record. `changed` gives an address and its new value, `games` an address that is to be the game's again,
    `asset_shown` an asset to be seen on the wall, `added` the key of a value that the record is to have; of a strip
    `strip_taken` the picture to take it from (None: its figure), `strip_drawn` the file to draw it into."""

    KEYS_HERE = (
        ("Return or Tab", "takes what was typed"),
        ("Up or Down", "a number a step more or less"),
    )

    changed = pyqtSignal(str, object)
    games = pyqtSignal(str)
    asset_shown = pyqtSignal(str)
    added = pyqtSignal(str)
    strip_taken = pyqtSignal(str, object)
    strip_drawn = pyqtSignal(str, object)

    def __init__(self, hands: Hands) -> None:
        super().__init__()
        self.setAccessibleName(tr("Values of the record"))
        self._hands = hands
        self._holder = QWidget()
        self._column = QVBoxLayout(self._holder)
        self._column.setContentsMargins(0, 0, 8, 0)
        self._area: QScrollArea = scrolling(self._holder, "window")
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.addWidget(self._area)
        self._body: QWidget | None = None
        self._of, self._is_new = "", False
        self._focused = ""

    def show_record(self, book: Book, sheet: Sheet, name: str) -> None:
        """Show a record's values; where the cursor was it stays."""
        bar = self._area.verticalScrollBar()
        at = bar.value() if bar is not None and self._of == f"{book.path} {sheet.name} {name}" else 0
        self._of = f"{book.path} {sheet.name} {name}"
        focused = self._holder.focusWidget()
        keep = focused.property("address") if focused is not None and focused.hasFocus() else ""
        if self._body is not None:
            self._column.removeWidget(self._body)
            self._body.hide()
            self._body.deleteLater()
        self._body = QWidget()
        grid = QGridLayout(self._body)
        grid.setContentsMargins(0, 2, 0, 8)
        grid.setHorizontalSpacing(12)
        grid.setVerticalSpacing(7)
        grid.setColumnMinimumWidth(0, 92)
        grid.setColumnStretch(1, 1)
        self._is_new = bool(name) and sheet.state(name) == "new"
        lines = book.lines(sheet, name) if name else []
        row = 0
        for line in lines[:_MOST_LINES]:
            row = self._add_line(grid, row, line, book)
        if len(lines) > _MOST_LINES:
            grid.addWidget(label(f"and {len(lines) - _MOST_LINES} more: see the text", "caption"), row, 1)
            row += 1
        missing = book.missing(sheet, name) if name else []
        if missing:
            more = button("Add a value…", "A value that this record may have: " + ", ".join(missing[:8]))
            more.clicked.connect(lambda: menu_under(more, ((key, key) for key in missing), self.added.emit))
            grid.addWidget(more, row, 1, Qt.AlignmentFlag.AlignLeft)
        self._column.addWidget(self._body)
        self._hands.look.dress(self._body)
        if bar is not None:
            bar.setValue(at)
        if keep:
            again = next(
                (part for part in self._body.findChildren(QWidget) if part.property("address") == keep), None
            )
            if again is not None:
                again.setFocus()

    def _add_line(self, grid: QGridLayout, row: int, line: Line, book: Book) -> int:
        name = verbatim(line.label, "ember" if line.changed else "caption")
        tip(name, line.address)
        offers_menu(name, lambda _: self._offers(line))
        middle, top = Qt.AlignmentFlag.AlignVCenter, Qt.AlignmentFlag.AlignTop
        grid.addWidget(name, row, 0, top if isinstance(line.now, list) else middle)
        gone = line.now is ABSENT
        editor = (
            label(f"taken out; the game has {shown(line.game)}", "caption")
            if gone
            else self._editor(line, book)
        )
        editor.setProperty("address", line.address)
        editor.setAccessibleName(line.label)
        holder = QHBoxLayout()
        holder.setSpacing(8)
        kind = kind_of(line, book)
        holder.addWidget(editor, 0 if kind in ("number", "colour") and not gone else 1)
        if kind == "number" and not gone:
            if line.meaning.unit:
                holder.addWidget(verbatim(line.meaning.unit, "caption"))
            holder.addWidget(
                Among(self._hands.look, line.meaning, number_in(line.game), number_in(line.now)), 1
            )
        if kind == "colour":
            holder.addStretch(1)
        grid.addLayout(holder, row, 1)
        if line.changed and not self._is_new:
            grid.addWidget(self._of_game(line), row, 2, top if isinstance(line.now, list) else middle)
        words = self._words_beside(line, book)
        if words:
            row += 1
            grid.addWidget(_wrapped(words), row, 1, 1, 2)
        if line.fault is not None:
            row += 1
            fault = QHBoxLayout()
            fault.setSpacing(6)
            fault.addWidget(
                StateMark(self._hands.look, fault_state(line.fault), 8), 0, Qt.AlignmentFlag.AlignTop
            )
            said = ". ".join(
                part.rstrip(".") for part in (line.fault.said, line.fault.why, line.fault.remedy) if part
            )
            fault.addWidget(_wrapped(said), 1)
            grid.addLayout(fault, row, 1, 1, 2)
        return row + 1

    def _offers(self, line: Line) -> list[Row]:
        rows = of_value(line.address, line.now, line.game, self.games.emit)
        found = self._hands.session.asset(line.now) if isinstance(line.now, str) else None
        if found is not None:
            rows.append(("Show it on the wall", lambda: self.asset_shown.emit(line.now), True))
        return rows

    def _of_game(self, line: Line) -> QWidget:
        """The game's own value, which takes its place again when it is pressed."""
        if line.game is ABSENT:
            text, words = "Take out", "The game has no such value"
        else:
            text, words = shown(line.game), f"Take the game's value: {shown(line.game)}"
        made = button(text if len(text) <= 18 else f"…{text[-17:]}", words, "games")
        made.clicked.connect(lambda: self.games.emit(line.address))
        return made

    def _words_beside(self, line: Line, book: Book) -> str:
        """What a key stands for, in every language that there is."""
        rule = line.meaning.rule
        table = rule.of if rule is not None and rule.takes == "record" else line.meaning.names
        space = self._hands.session.space
        if space is None or "/" not in table or table == book.path or not isinstance(line.now, str):
            return ""
        return space.demands.texts.words_of(table, line.now)

    def _editor(self, line: Line, book: Book) -> QWidget:
        def change(value: Value) -> None:
            self.changed.emit(line.address, value)

        kind = kind_of(line, book)
        made: QWidget
        if kind == "switch":
            return switch_field(self._hands.look, line, book, change)
        if kind == "number":
            made = NumberField(line, book)
        elif kind == "strip" and line.meaning.rule is not None and line.meaning.rule.strip is not None:
            strip = StripField(self._hands.look, line.meaning.rule.strip, line.now)
            strip.from_picture.connect(lambda file: self.strip_taken.emit(line.address, file))
            strip.from_figure.connect(lambda: self.strip_taken.emit(line.address, None))
            strip.drawn.connect(lambda file: self.strip_drawn.emit(line.address, file))
            made = strip
        elif kind == "list":
            items = book.meaning((*parse_address(line.address), *_ANY_ITEM))
            made = ListField(line.now, book.options(items), items.types == {"number"})
        elif kind == "colour":
            made = Swatch(str(line.now))
        elif kind == "asset":
            text, session = str(line.now), self._hands.session
            found = session.asset(text)
            rule = line.meaning.rule
            made = AssetField(
                self._hands.look, self._hands.tiles, text, found,
                lambda now: self._hands.choose_asset(now, rule.of if rule is not None else ""),
            )  # fmt: skip
            made.shown.connect(self.asset_shown)
        elif kind == "choice":
            return choice_field(book.options(line.meaning), str(line.now), change)
        else:
            return text_field("" if line.now is None else str(line.now), change)
        made.changed.connect(change)
        return made


_ANY_ITEM = parse_address("[0]")


def _wrapped(text: str) -> QLabel:
    made = label(text, "caption")
    made.setWordWrap(True)
    return made
