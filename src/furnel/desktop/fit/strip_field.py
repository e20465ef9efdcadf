"""An editor for strips: the colours side by side, taken from a picture or from the figure, and drawn as one."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QDragEnterEvent,
    QDropEvent,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
)
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import button, label
from furnel.desktop.widgets.colours import ask_colour
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.images.picture import Rgb
from furnel.texts.strips import StripRule
from furnel.words import count

_SIDE, _MOST_SIDE = 22, 34


class Row(QWidget):
    """Colours side by side; a click, or Return on the one that the arrow keys chose, gives another in its place."""

    changed = pyqtSignal(object)
    dropped = pyqtSignal(object)

    def __init__(self, look: Look, colours: list[Rgb]) -> None:
        super().__init__()
        self._look, self.colours, self.current = look, colours, 0
        self.setAcceptDrops(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setFixedHeight(_SIDE + 6)
        self.setAccessibleName(tr("Colours"))
        self.setToolTip(tr("Click a colour to choose another, or drop a picture of a row of colours here"))

    def sizeHint(self) -> QSize:
        return QSize(int(self._side * max(len(self.colours), 1)) + 6, _SIDE + 6)

    @property
    def _side(self) -> float:
        return min(_MOST_SIDE, max((self.width() - 6) / max(len(self.colours), 1), 3))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        side = self._side
        for number, colour in enumerate(self.colours):
            box = QRectF(3 + number * side, 3, side, _SIDE)
            painter.fillRect(box, QColor(*colour))
            if number == self.current and self.hasFocus():
                painter.setPen(QPen(self._look.colour("ember"), 2))
                painter.drawRect(box.adjusted(1, 1, -1, -1))
        painter.setPen(QPen(self._look.colour("hairline-strong"), 1))
        painter.drawRect(QRectF(2.5, 2.5, side * len(self.colours) + 1, _SIDE + 1))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            place = int((event.position().x() - 3) / self._side)
            if 0 <= place < len(self.colours):
                self.current = place
                self._choose()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        key = event.key() if event is not None else 0
        if by := (key == Qt.Key.Key_Right) - (key == Qt.Key.Key_Left):
            self.current = max(min(self.current + by, len(self.colours) - 1), 0)
            self.update()
        elif key == Qt.Key.Key_Return:
            self._choose()
        else:
            super().keyPressEvent(event)

    def _choose(self) -> None:
        if not self.colours:
            return
        place, families = self.current, [("The strip", self.colours)]
        ask_colour(self, "A colour", self.colours[place], lambda chosen: self._take(place, chosen), families)

    def _take(self, place: int, chosen: Rgb) -> None:
        fresh = list(self.colours)
        fresh[place] = chosen
        self.changed.emit(fresh)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if files := files_of(event):
            self.dropped.emit(files[0])


class StripField(QWidget):
    """A strip. `changed` gives its new value, `from_picture` a picture to take it from, `from_figure` asks for the figure's
    colours, `drawn` gives a file to draw it into."""

    changed = pyqtSignal(object)
    from_picture = pyqtSignal(object)
    from_figure = pyqtSignal()
    drawn = pyqtSignal(object)

    def __init__(self, look: Look, rule: StripRule, value: object) -> None:
        super().__init__()
        self._rule = rule
        colours = rule.read(value) or []
        self.row = Row(look, colours)
        self.row.changed.connect(lambda colours: self.changed.emit(rule.write(colours)))
        self.row.dropped.connect(self.from_picture)
        wanted = count(rule.colours, "colour") if rule.colours else "any number of colours"
        order = "" if rule.order == "any" else f", {rule.order}"
        take = button("From a picture…", "Take the colours from a picture of a row of them")
        take.clicked.connect(self._ask_picture)
        buttons = QHBoxLayout()
        buttons.setSpacing(6)
        buttons.addWidget(take)
        if rule.figure and rule.has == "these":
            figure = button("From the figure", "Take the colours that the figure has")
            figure.clicked.connect(self.from_figure)
            buttons.addWidget(figure)
        draw = button("As a picture…", "Write the colours as a picture, a field each")
        draw.clicked.connect(self._ask_target)
        draw.setEnabled(bool(colours))
        buttons.addWidget(draw)
        buttons.addWidget(label(wanted + order, "caption"))
        buttons.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self.row)
        column.addLayout(buttons)

    def _ask_picture(self) -> None:
        file = picking.pick_file(self, "A picture of a row of colours", "sources", [picking.PICTURES])
        if file:
            self.from_picture.emit(file)

    def _ask_target(self) -> None:
        file = picking.pick_target(
            self, "The colours as a picture", "taken out", Path("strip.png"), [("PNG", "*.png")]
        )
        if file:
            self.drawn.emit(file)
