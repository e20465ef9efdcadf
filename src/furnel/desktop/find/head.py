"""What stands over the wall: how many there are, how they are grouped, ordered and sized, and what the sieve holds back."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from furnel.catalogue import GROUPINGS, ORDERS
from furnel.desktop.find.lines import LinesHead
from furnel.desktop.keeping import keep, kept_texts
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import button, emptied, label, marked, strong, toggle
from furnel.desktop.widgets.icons import give_icon
from furnel.desktop.widgets.steady import Choice, Slider
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.words import number

_ORDERED = {
    "largest": "largest first", "smallest": "smallest first", "longest": "longest first", "heaviest": "most bytes first",
    "name": "by name", "changed": "your changes first",
}  # fmt: skip


class WallHead(QWidget):
    """The head of the wall: how it is shown is kept for the next start.

    `changed` tells of another grouping or order, `zoomed` of tiles' height in pixels, `formed` whether they are lines.
    """

    changed = pyqtSignal()
    zoomed = pyqtSignal(int)
    formed = pyqtSignal(bool)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._count, self._mended = marked(), label("", "caption")
        self.group, self.order = Choice(), Choice()
        for way in (*GROUPINGS, "kin"):
            self.group.addItem(tr(f"grouped by {way}"), way)
        self.group.addItem(tr("not grouped"), "nothing")
        self.group.setToolTip(tr("How the wall is grouped"))
        for order in ORDERS:
            self.order.addItem(tr(_ORDERED[order]), order)
        self.order.setToolTip(tr("The order within a group"))
        for box in (self.group, self.order):
            box.setStyleSheet("QComboBox { border: none; background: transparent; padding: 2px 4px }")
            box.currentIndexChanged.connect(lambda _: self.changed.emit())
        self._zoom = zoom = Slider()
        zoom.setRange(48, 220)
        zoom.setValue(92)
        zoom.setFixedWidth(96)
        zoom.setToolTip(tr("How large the tiles are"))
        zoom.setAccessibleName(tr("Tile size"))
        zoom.valueChanged.connect(self.zoomed)
        self.lines = toggle("lines", "One asset a line, with what is known of it in columns")
        give_icon(self.lines, look, "lines")
        self._columns = LinesHead(look)
        self._columns.hide()
        self.lines.toggled.connect(self._form)
        self._columns.ordered.connect(lambda order: self.order.setCurrentIndex(ORDERS.index(order)))
        self.order.currentIndexChanged.connect(lambda _: self._columns.show_order(self.ordered))
        self._columns.show_order(self.ordered)
        head = WrappingRow(spacing=14)
        head.setContentsMargins(14, 8, 14, 4)
        for part in (self._count, self.group):
            head.addWidget(part)
        head.add_rest()
        self._sized = label("zoom", "caption")
        for shown in (self._sized, zoom, self.lines):
            head.addWidget(shown)
        head.addWidget(self.order)
        self._chips = QWidget()
        self._row = WrappingRow(self._chips, spacing=6)
        self._row.setContentsMargins(14, 2, 14, 4)
        self._mended.setContentsMargins(14, 2, 14, 4)
        self._mended.hide()
        self._chips.hide()
        self._told: tuple[str, ...] = ()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addLayout(head)
        column.addWidget(self._chips)
        column.addWidget(self._mended)
        column.addWidget(self._columns)
        self._later = timer(self, self._keep, 300)
        for change in (self.changed, self.zoomed, self.formed):
            change.connect(lambda *_: self._later.start())

    def _form(self, lines: bool) -> None:
        self._columns.setVisible(lines)
        for part in (self._sized, self._zoom):
            part.setVisible(not lines)
        self.formed.emit(lines)

    def recall(self) -> None:
        """Show everything as it was shown last."""
        by, order, form, tall, *_ = (*kept_texts("wall"), "", "", "", "")
        for box, name in ((self.group, by), (self.order, order)):
            if (place := box.findData(name)) >= 0:
                box.setCurrentIndex(place)
        self.lines.setChecked(form == "lines")
        if tall.isdecimal():
            self._zoom.setValue(int(tall))

    def _keep(self) -> None:
        form = "lines" if self.lines.isChecked() else "tiles"
        keep("wall", [self.by, self.ordered, form, str(self._zoom.value())])

    @property
    def by(self) -> str:
        """What the wall is grouped by: one of GROUPINGS, kin, or nothing."""
        return str(self.group.currentData())

    @property
    def ordered(self) -> str:
        """One of ORDERS."""
        return str(self.order.currentData())

    def show_count(self, kept: int, every: int) -> None:
        """How many assets the sieve leaves."""
        told = number(kept)
        said = tr(f"{told} assets" if kept == every else f"{told} of {number(every)}")
        self._count.setText(said.replace(told, strong(told), 1))

    def show_mended(self, said: str) -> None:
        """Say that something else was looked for than what was typed; nothing when it was not."""
        self._mended.setText(tr(said))
        self._mended.setVisible(bool(said))

    def show_held(self, held: Sequence[tuple[str, Callable[[], object]]]) -> None:
        """Show each thing that the sieve goes by, to be let go of by a click."""
        told = tuple(text for text, _ in held)
        if told == self._told:
            return
        self._told = told
        emptied(self._row)
        for text, let_go in held:
            chip = button(f"{text}   ×", f"Let go of this: {text}", "chip")
            chip.setFocusPolicy(Qt.FocusPolicy.TabFocus)
            chip.clicked.connect(lambda _=False, let_go=let_go: let_go())
            self._row.addWidget(chip)
        self._chips.setVisible(bool(held))
