"""The description's fields as chips over the bytes: pressed, each leads to the next place that it stands at."""

from __future__ import annotations

from collections.abc import Callable, Sequence

from PyQt6.QtCore import QPoint, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QIcon, QPainter, QPixmap
from PyQt6.QtWidgets import QPushButton, QWidget

from furnel.containers.telling import Told
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import button, label
from furnel.desktop.widgets.menus import Row, offers_menu
from furnel.desktop.widgets.wrapping import WrappingRow

_GROUPS = {
    "start": "START", "index start": "INDEX START", "folder": "EACH FOLDER", "entry": "EACH ENTRY", "head": "BEFORE EACH ENTRY",
    "footer": "END",
}  # fmt: skip
_SWATCH = QSize(6, 14)


class FieldChips(QWidget):
    """A row of chips. `pressed` tells the record and the name of a field, `meant` also what it is to hold."""

    pressed = pyqtSignal(str, str)
    meant = pyqtSignal(str, str, str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._shown: tuple[tuple[str, str, str, int], ...] = ()
        self.chips: dict[tuple[str, str], QPushButton] = {}
        self._row = WrappingRow(self, 4)
        self._row.setContentsMargins(12, 6, 12, 6)
        look.changed.connect(self._paint)

    def show_fields(self, fields: Sequence[Told], hue: Callable[[str], int]) -> None:
        """Show a description's fields; `hue` says which of the colours of fields a name has."""
        shown = tuple((one.group, one.part.name, one.part.holds or "", hue(one.part.name)) for one in fields)
        if shown == self._shown:
            return
        focus = next((key for key, chip in self.chips.items() if chip.hasFocus()), None)
        self._shown = shown
        while (item := self._row.takeAt(0)) is not None:
            if (part := item.widget()) is not None:
                part.hide()
                part.deleteLater()
        self.chips = {}
        group = ""
        for one in fields:
            if one.group != group:
                if group:
                    self._row.add_gap(8)
                group = one.group
                self._row.addWidget(label(_GROUPS[group], "section"))
            self._row.addWidget(self._chip(one))
        self._paint()
        if focus in self.chips:
            self.chips[focus].setFocus()
        self.updateGeometry()

    def _chip(self, told: Told) -> QPushButton:
        name, holds = told.part.name, told.part.holds
        words = name if holds in (None, name.replace("_", " ")) else f"{name} = {holds}"
        chip = button("", "Go to the next one; a right click says what it holds", "plain")
        chip.setText(words)
        chip.setAccessibleName(words)
        chip.clicked.connect(lambda: self.pressed.emit(told.group, name))

        def means(role: str) -> Callable[[], None]:
            return lambda: self.meant.emit(told.group, name, role)

        def rows(_: QPoint) -> list[Row]:
            acts: list[Row] = [(f"It holds the {role}", means(role), role != holds) for role in told.roles]
            return [("It holds nothing that is known", means(""), holds is not None), *acts]

        offers_menu(chip, rows)
        self.chips[told.group, name] = chip
        return chip

    def _paint(self) -> None:
        for group, name, _, hue in self._shown:
            swatch = QPixmap(_SWATCH * 2)
            swatch.setDevicePixelRatio(2)
            swatch.fill(Qt.GlobalColor.transparent)
            painter = QPainter(swatch)
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(self._look.colour(f"field-{hue}"))
            painter.drawRoundedRect(0, 0, _SWATCH.width(), _SWATCH.height(), 2, 2)
            painter.end()
            chip = self.chips[group, name]
            chip.setIcon(QIcon(swatch))
            chip.setIconSize(_SWATCH)
