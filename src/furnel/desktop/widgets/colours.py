"""Choosing a colour: by tone, by number, from the pictures at hand, from those used before, from anywhere in the window."""

from __future__ import annotations

import colorsys
import re
from collections.abc import Callable, Sequence

from PyQt6.QtCore import QEvent, QObject, QPointF, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QLinearGradient, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QApplication, QDialog, QGridLayout, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.keeping import keep, kept_texts
from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.widgets.basics import answers, button, field, label
from furnel.images.picture import Rgb

_RECENT = 16
_CODE = re.compile("[0-9a-f]{6}")
_recent: list[Rgb] = []
_TONES = ("Hue", "Strength", "Light")

Family = tuple[str, Sequence[Rgb]]


class Pipette(QObject):
    """Takes the colour of the next pixel that is clicked anywhere in Furnel; Escape and the right button put it away."""

    def __init__(self, took: Callable[[Rgb | None], object]) -> None:
        super().__init__()
        self._took = took
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        self._application = application
        application.installEventFilter(self)
        application.setOverrideCursor(Qt.CursorShape.CrossCursor)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QKeyEvent) and event.key() == Qt.Key.Key_Escape:
            self._end(None)
            return True
        if (
            not isinstance(event, QMouseEvent)
            or event.type() != QEvent.Type.MouseButtonPress
            or not isinstance(watched, QWidget)
        ):
            return False
        if event.button() != Qt.MouseButton.LeftButton:
            self._end(None)
            return True
        whole = watched.window()
        assert whole is not None
        place = watched.mapTo(whole, event.position().toPoint())
        colour = whole.grab(QRect(place, QSize(1, 1))).toImage().pixelColor(0, 0)
        self._end((colour.red(), colour.green(), colour.blue()))
        return True

    def _end(self, colour: Rgb | None) -> None:
        self._application.removeEventFilter(self)
        self._application.restoreOverrideCursor()
        self._took(colour)


class Swatches(QWidget):
    """Fields of colour in rows; a click takes one."""

    taken = pyqtSignal(object)

    def __init__(self, colours: Sequence[Rgb], name: str) -> None:
        super().__init__()
        self._colours = list(colours)
        self._side, self._across = 18, 18
        rows = -(-max(len(self._colours), 1) // self._across)
        self.setFixedSize(self._side * self._across + 1, rows * self._side + 1)
        self.setAccessibleName(tr(name))

    def colour_at(self, place: QPointF) -> Rgb | None:
        number = int(place.y() // self._side) * self._across + int(place.x() // self._side)
        return (
            self._colours[number]
            if 0 <= number < len(self._colours) and place.x() < self._side * self._across
            else None
        )

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        for number, colour in enumerate(self._colours):
            row, column = divmod(number, self._across)
            painter.fillRect(
                QRectF(column * self._side, row * self._side, self._side - 1, self._side - 1), QColor(*colour)
            )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and (colour := self.colour_at(event.position())) is not None:
            self.taken.emit(colour)


class _Tone(QWidget):
    """A bar from one end of a tone to the other, with the place that is chosen; arrow keys move it."""

    moved = pyqtSignal(float)

    def __init__(self, name: str) -> None:
        super().__init__()
        self.value, self._stops = 0.0, list[QColor]()
        self.setFixedHeight(20)
        self.setMinimumWidth(240)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr(name))

    def sizeHint(self) -> QSize:
        return QSize(300, 20)

    def show_value(self, value: float, stops: list[QColor]) -> None:
        self.value, self._stops = value, stops
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        bar = QRectF(4, 4, self.width() - 8, 12)
        gradient = QLinearGradient(bar.topLeft(), bar.topRight())
        for number, colour in enumerate(self._stops):
            gradient.setColorAt(number / max(len(self._stops) - 1, 1), colour)
        painter.fillRect(bar, gradient)
        x = bar.left() + self.value * bar.width()
        painter.setPen(QPen(Qt.GlobalColor.black, 3))
        painter.drawRect(QRectF(x - 2, 2, 4, 16))
        painter.setPen(QPen(Qt.GlobalColor.white, 1 + self.hasFocus()))
        painter.drawRect(QRectF(x - 2, 2, 4, 16))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.mouseMoveEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and event.buttons() & Qt.MouseButton.LeftButton:
            self.moved.emit(min(max((event.position().x() - 4) / (self.width() - 8), 0.0), 1.0))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        key = event.key() if event is not None else 0
        if by := (key == Qt.Key.Key_Right) - (key == Qt.Key.Key_Left):
            self.moved.emit(min(max(self.value + by / 100, 0.0), 1.0))
        else:
            super().keyPressEvent(event)


class ColourChooser(QDialog):
    """The chooser. `families` are palettes to choose from, with what they are called. `colour` is what is chosen."""

    def __init__(self, under: QWidget, title: str, now: Rgb, families: Sequence[Family] = ()) -> None:
        super().__init__(dressed(under))
        self.setModal(True)
        self.setWindowTitle(tr(title))
        self.colour, self._before = now, now
        self._tone = colorsys.rgb_to_hsv(*(part / 255 for part in now))
        self._pipette: Pipette | None = None
        self._bars = [_Tone(name) for name in _TONES]
        self._code = field("c03020", "Six hex digits")
        self._code.setFixedWidth(86)
        self._code.textEdited.connect(self._typed)
        self._shown = _Beside()
        grid = QGridLayout()
        grid.setHorizontalSpacing(10)
        for row, (name, bar) in enumerate(zip(_TONES, self._bars, strict=True)):
            grid.addWidget(label(name, "caption"), row, 0)
            grid.addWidget(bar, row, 1)
            bar.moved.connect(lambda value, row=row: self._moved(row, value))
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 14, 16, 14)
        column.setSpacing(9)
        head = QHBoxLayout()
        head.addWidget(self._shown)
        head.addWidget(self._code)
        pipette = button("From the window", "Take the colour of any pixel that Furnel shows: click it next")
        pipette.clicked.connect(self._take_next)
        pipette.setAutoDefault(False)
        head.addWidget(pipette)
        head.addStretch(1)
        column.addLayout(head)
        column.addLayout(grid)
        for name, colours in (*families, ("Used before", used_before())):
            if colours:
                column.addWidget(label(name, "caption"))
                swatches = Swatches(colours[:72], name)
                swatches.taken.connect(self.choose)
                column.addWidget(swatches)
        leave, take = (
            button("Leave it", "Keep the colour as it was"),
            button("Take it", "Use this colour", "next"),
        )
        column.addLayout(answers(self, leave, take))
        self._show()
        self._code.setFocus()
        self._code.selectAll()

    def choose(self, colour: Rgb) -> None:
        """Show another colour."""
        self.colour = colour
        tone = colorsys.rgb_to_hsv(*(part / 255 for part in colour))
        self._tone = (tone[0] if tone[1] else self._tone[0], tone[1], tone[2])
        self._show()

    def _show(self) -> None:
        hue, strength, light = self._tone
        ends = [
            [_colour(place / 6, max(strength, 0.3), max(light, 0.4)) for place in range(7)],
            [_colour(hue, 0, light), _colour(hue, 1, light)],
            [_colour(hue, strength, 0), _colour(hue, strength, 1)],
        ]
        for bar, value, stops in zip(self._bars, self._tone, ends, strict=True):
            bar.show_value(value, stops)
        if self._code.text().lstrip("#").lower() != bytes(self.colour).hex():
            self._code.setText(bytes(self.colour).hex())
        self._shown.show_colours(self._before, self.colour)

    def _moved(self, row: int, value: float) -> None:
        tone = list(self._tone)
        tone[row] = value
        self._tone = (tone[0], tone[1], tone[2])
        red, green, blue = (round(part * 255) for part in colorsys.hsv_to_rgb(*self._tone))
        self.colour = (red, green, blue)
        self._show()

    def _typed(self, text: str) -> None:
        text = text.strip().lstrip("#")
        try:
            code = bytes.fromhex(text) if len(text) == 6 else b""
        except ValueError:
            return
        if code:
            self.choose((code[0], code[1], code[2]))

    def _take_next(self) -> None:
        self.hide()
        self._pipette = Pipette(self._took)

    def _took(self, colour: Rgb | None) -> None:
        if colour is not None:
            self.choose(colour)
        self.show()
        self._code.setFocus()

    def accept(self) -> None:
        remember(self.colour)
        super().accept()


class _Beside(QWidget):
    """The colour before and the one that is chosen, side by side."""

    def __init__(self) -> None:
        super().__init__()
        self._colours = QColor(), QColor()
        self.setFixedSize(64, 26)

    def show_colours(self, before: Rgb, now: Rgb) -> None:
        self._colours = QColor(*before), QColor(*now)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(QRectF(0, 0, 32, 26), self._colours[0])
        painter.fillRect(QRectF(32, 0, 32, 26), self._colours[1])


def _colour(hue: float, strength: float, light: float) -> QColor:
    return QColor.fromHsvF(hue % 1.0, strength, light)


def used_before() -> list[Rgb]:
    """The colours that were used before, also in earlier sessions, the newest first."""
    if not _recent:
        codes = [bytes.fromhex(text) for text in kept_texts("colours") if _CODE.fullmatch(text)]
        _recent.extend((code[0], code[1], code[2]) for code in codes[:_RECENT])
    return _recent


def remember(colour: Rgb) -> None:
    """Keep a colour among those used before."""
    _recent[:] = [colour, *(one for one in used_before() if one != colour)][:_RECENT]
    keep("colours", [bytes(one).hex() for one in _recent])


def ask_colour(
    under: QWidget, title: str, now: Rgb, then: Callable[[Rgb], object], families: Sequence[Family] = ()
) -> ColourChooser:
    """Let a colour be chosen in a window over `under`; `then` is called with it, unless it is left as it was."""
    chooser = ColourChooser(under, title, now, families)
    chooser.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    chooser.accepted.connect(lambda: then(chooser.colour) if chooser.colour != now else None)
    chooser.show()
    return chooser
