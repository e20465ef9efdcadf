"""The definition bench: records to compare, the values of one with editors that fit them, and the text itself."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtWidgets import QHBoxLayout, QSplitter, QStackedWidget, QVBoxLayout, QWidget

from furnel.desktop.actions import with_key
from furnel.desktop.fit.bench import Bench, BenchType, Hands, Loading
from furnel.desktop.fit.record_form import RecordForm
from furnel.desktop.fit.records_table import RecordsTable
from furnel.desktop.fit.several import ask_name, ask_record, reckon
from furnel.desktop.fit.text_sides import Texts, TextSides, compared
from furnel.desktop.fit.value_menu import value_rows
from furnel.desktop.language import tr
from furnel.desktop.widgets.basics import button, field, label, toggle
from furnel.desktop.widgets.menus import menu_under, offers_menu, place_text
from furnel.desktop.widgets.panes import remember_split
from furnel.desktop.widgets.steady import Choice
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.errors import FurnelError
from furnel.mods import records
from furnel.mods.records import Book, Sheet, open_book
from furnel.texts import Change, address_text, is_shaped, read_text, taken_apart
from furnel.texts.document import Value

_SIFT_MS = 120
_MOST_USES = 24


@dataclass(frozen=True, slots=True)
class DefinitionContent:
    """A definition for the bench: its records, when it has any that are taken apart, and both texts."""

    path: str
    book: Book | None
    texts: Texts
    fault: str = ""
    whole: bool = False  # what is written into its text goes into the mod as a whole


def load_definition(loading: Loading) -> DefinitionContent:
    """Read a definition of the mod. Raises FurnelError when not even its text can be read."""
    swap = loading.examined.swap
    texts = compared(read_text(loading.original, swap.base), read_text(loading.yours, loading.name))
    book, fault, apart = None, "", taken_apart(swap.base)
    if loading.space is not None and apart:
        try:
            book = open_book(loading.space, swap.original)
        except FurnelError as error:
            fault = error.sentence()
    return DefinitionContent(
        swap.original, book, texts, fault, not apart or bool(fault and is_shaped(swap.base))
    )


class DefinitionBench(Bench):
    """A definition's records, values and text."""

    def __init__(self, hands: Hands) -> None:
        super().__init__()
        self._hands = hands
        self._book: Book | None = None
        self._path = ""
        self._sized, self._record = ("", ""), ""
        self._kept: dict[str, tuple[str, str]] = {}
        self._drafts: dict[str, tuple[str, str]] = {}
        self.sheets = Choice()
        self.sheets.setAccessibleName(tr("Table of records"))
        self.search = field("Search the records", "Search the records")
        self.search.setClearButtonEnabled(True)
        self.table, self.form, self.texts = RecordsTable(hands.look), RecordForm(hands), TextSides(hands.look)
        self.view = toggle("Text", with_key("The text itself, to be read and edited", "text"))
        self._title, self._fault = label("", "title"), label("", "caption")
        self._fault.setWordWrap(True)
        self.new = button("New like this…", "A new record with all values of this one")
        self.copy = button("Copy values from…", "All values of another record, but for its name")
        self.several = button("Change several…", "Set, multiply or add to a value of all chosen records")
        self.uses = button("Used by", "Every place in the game's definitions that names this record")
        self.games = button("Take the game's", "The whole record as the game has it")
        self._pages = QStackedWidget()
        self._pages.addWidget(self._records_page())
        self._pages.addWidget(self.texts)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(14, 10, 14, 12)
        whole.setSpacing(8)
        bar = QHBoxLayout()
        bar.setSpacing(8)
        bar.addWidget(self.sheets)
        bar.addWidget(self.search, 1)
        bar.addWidget(self.view)
        whole.addLayout(bar)
        whole.addWidget(self._fault)
        whole.addWidget(self._pages, 1)
        self._sift = QTimer(self)
        self._sift.setSingleShot(True)
        self._sift.setInterval(_SIFT_MS)
        self._awaited = "", ""  # the definition and the record that is picked when it is there
        self._connect()

    def _records_page(self) -> QWidget:
        buttons = WrappingRow(spacing=6)
        buttons.addWidget(self._title)
        buttons.add_rest()
        for part in (self.uses, self.games, self.several, self.copy, self.new):
            buttons.addWidget(part)
        lower = QWidget()
        column = QVBoxLayout(lower)
        column.setContentsMargins(0, 6, 0, 0)
        column.setSpacing(8)
        column.addLayout(buttons)
        column.addWidget(self.form, 1)
        self._split = QSplitter(Qt.Orientation.Vertical)
        self._split.setChildrenCollapsible(False)
        self._split.addWidget(self.table)
        self._split.addWidget(lower)
        self._split.setStretchFactor(1, 1)
        self._split.setHandleWidth(6)
        remember_split(self._split, "records")
        return self._split

    def _connect(self) -> None:
        swaps = self._hands.session.swaps
        self.sheets.currentIndexChanged.connect(lambda _: self._show_sheet())
        self.search.textChanged.connect(lambda _: self._sift.start())
        self._sift.timeout.connect(self._sifted)
        self.table.picked.connect(lambda _: self._show_record())
        offers_menu(self.table, lambda place: value_rows(self, place))
        self.view.toggled.connect(self._turn)
        self.form.changed.connect(self._set)
        self.form.games.connect(lambda address: swaps.take_games(self._path, address))
        self.form.asset_shown.connect(self._hands.show_asset)
        self.form.added.connect(self._add_value)
        self.form.strip_taken.connect(lambda at, file: swaps.take_strip(self._path, at, file))
        self.form.strip_drawn.connect(lambda at, file: swaps.draw_strip(self._path, at, file))
        self.texts.edited.connect(self._edited)
        self.new.clicked.connect(self._new_like)
        self.copy.clicked.connect(self._copy_from)
        self.several.clicked.connect(self._change_several)
        self.uses.clicked.connect(self._show_uses)
        self.games.clicked.connect(lambda: swaps.take_games(self._path, self._address()))
        selection = self.table.selectionModel()
        if selection is not None:
            selection.selectionChanged.connect(lambda *_: self._weigh())

    # showing

    def show_content(self, content: DefinitionContent, keep_view: bool) -> None:
        """Show a definition; as another state of the one that is shown, where that stood."""
        if self._path and not keep_view:
            self._keep()
        self._path, self._book = content.path, content.book
        draft, said = self._drafts.get(content.path, ("", ""))
        if content.book is not None and draft and not keep_view:
            self.view.setChecked(True)
        self.texts.show_texts(content.texts, draft, said, content.whole)
        self._fault.setText(tr(content.fault))
        self._fault.setVisible(bool(content.fault))
        self.view.setVisible(content.book is not None)
        for part in (self.sheets, self.search):
            part.setVisible(content.book is not None)
        if content.book is None:
            self._pages.setCurrentWidget(self.texts)
            return
        self._pages.setCurrentIndex(int(self.view.isChecked()))
        sheet_name, record = (
            self._kept.get(content.path, ("", ""))
            if not keep_view
            else (self._sheet_name(), self.table.current)
        )
        self.sheets.blockSignals(True)
        self.sheets.clear()
        self.sheets.addItems([sheet.name for sheet in content.book.sheets])
        self.sheets.setCurrentIndex(max(self.sheets.findText(sheet_name), 0))
        self.sheets.blockSignals(False)
        self.sheets.setVisible(len(content.book.sheets) > 1)
        if not keep_view:
            self.search.clear()
        self._show_sheet(record)
        sheet, (path, name) = self.sheet, self._awaited
        if path == self._path and sheet is not None and name in sheet.names:
            self._awaited = "", ""
            self.table.pick(name)

    def _keep(self) -> None:
        """Where this definition stood, and what was written in its text and not taken."""
        self._kept[self._path] = self._sheet_name(), self.table.current
        if self.texts.draft:
            self._edited(self.texts.draft)

    @property
    def path(self) -> str:
        """The definition that is on the bench."""
        return self._path

    def _sheet_name(self) -> str:
        return self.sheets.currentText()

    @property
    def sheet(self) -> Sheet | None:
        """The table of records that is shown."""
        if self._book is None:
            return None
        return next((sheet for sheet in self._book.sheets if sheet.name == self._sheet_name()), None)

    def _show_sheet(self, record: str = "") -> None:
        sheet = self.sheet
        if sheet is None or self._book is None:
            return
        self.table.setVisible(sheet.name != records.WHOLE)
        self.search.setEnabled(sheet.name != records.WHOLE)
        self.table.show_sheet(self._book, sheet, record)
        if self._sized != (self._path, sheet.name):
            self._sized = self._path, sheet.name
            whole = max(self._split.height(), 300)
            tall = min(self.table.wanted_height(), whole * 2 // 5)
            self._split.setSizes([tall, whole - tall])
        self._show_record()

    def _show_record(self) -> None:
        sheet, name = self.sheet, self.table.current
        self._record = name or self._record
        if sheet is None or self._book is None:
            return
        state = sheet.state(name) if name else ""
        words = {"new": "  yours", "gone": "  taken out", "changed": "  changed"}.get(state, "")
        shown = self._path.rpartition("/")[2] if name == records.WHOLE else name
        chosen = len(self.table.chosen())
        alone = tr(f" alone, of {chosen} that are chosen") if chosen > 1 else ""
        self._title.setText(f"{shown}{tr(words)}{alone}")
        self.form.show_record(self._book, sheet, name)
        self._weigh()

    def _weigh(self) -> None:
        """Which buttons can be used."""
        sheet, name = self.sheet, self.table.current
        many = sheet is not None and sheet.name != records.WHOLE and bool(name)
        self.several.setVisible(many and len(self.table.chosen()) > 1)
        self.copy.setVisible(many and len(self.table.chosen()) <= 1)
        self.new.setVisible(many)
        self.uses.setVisible(many)
        self.games.setVisible(bool(sheet is not None and name and sheet.state(name)))

    def _sifted(self) -> None:
        self.table.records.sift(self.search.text())
        names = self.table.records.names
        self.table.pick(self._record if self._record in names or not names else names[0])
        self._show_record()

    def turn(self) -> None:
        """Show the text instead of the records, or these again."""
        self.view.toggle()

    def _turn(self, on: bool) -> None:
        if not on and self.texts.draft:
            self.texts.leave()
        self._pages.setCurrentIndex(int(on))

    # changing

    def _address(self) -> str:
        sheet = self.sheet
        return (
            address_text(sheet.records[self.table.current])
            if sheet is not None and self.table.current
            else ""
        )

    def _set(self, address: str, value: Value) -> None:
        self._change([Change(do="set", at=address, to=value)], f"Set {address}")

    def _add_value(self, key: str) -> None:
        sheet, name, book = self.sheet, self.table.current, self._book
        if sheet is not None and book is not None and name:
            self._change([book.added(sheet, name, key)], f"Add {key} to {name}")

    def _change(self, changes: list[Change], text: str) -> None:
        if changes:
            self._hands.session.swaps.change_values(self._path, changes, text)

    def _edited(self, text: str) -> None:
        path = self._path

        def done() -> None:
            self._drafts.pop(path, None)

        self._drafts[path] = text, "This cannot be taken as it is: it stays here, and nothing is lost."
        self._hands.session.swaps.change_text(path, text, done)

    def _new_like(self) -> None:
        sheet, name, book = self.sheet, self.table.current, self._book
        if sheet is None or book is None or not name:
            return
        wanted = ask_name(self, name, set(sheet.names))
        if wanted:
            change = records.like_another(book, sheet, wanted, name)
            self._change([change], f"New {wanted} like {name}")
            self._awaited = self._path, wanted

    def _copy_from(self) -> None:
        sheet, name, book = self.sheet, self.table.current, self._book
        if sheet is None or book is None or not name:
            return
        other = ask_record(
            self, name, [one for one in sheet.names if one != name and sheet.state(one) != "gone"]
        )
        if other:
            self._change(records.copied(book, sheet, name, other), f"Copy all values from {other} to {name}")

    def _change_several(self) -> None:
        sheet, book = self.sheet, self._book
        if sheet is None or book is None:
            return
        changes = reckon(
            self, book, sheet, self.table.chosen(), max(self.table.currentIndex().column() - 1, 0)
        )
        self._change(changes, f"Change {len(changes)} values")

    def _show_uses(self) -> None:
        space, name = self._hands.session.space, self.table.current
        if space is None or not name:
            return
        uses = [
            use
            for use in space.demands.texts.uses(name)
            if (use.path, use.address) != (self._path, self._address())
        ]
        rows = ((place_text(use.path, use.address), use.path) for use in uses[:_MOST_USES])
        nothing = "Nothing in the game's definitions names it"
        menu_under(self.uses, rows, self._hands.open_definition, nothing)


DEFINITION_BENCH = BenchType(("definition",), DefinitionBench, load_definition)
