"""The colours of both sheets by ramps, with how many pixels have each: lit up, changed, dragged onto each other, locked."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import as_panel, button, label
from furnel.images.picture import Rgb
from furnel.sprites import Colour, ramps, twins

_SIDE, _GAP, _HEAD, _ROW = 26, 12, 18, 66
_BLINK_MS = 450


class PaletteStrip(QWidget):
    """Two rows of colours, the original's over yours. `lit` tells the colour of yours that is chosen (None: none any more),
    `wanted` asks for another in its place, `changed` gives changes (old to new) that were made by dragging one onto another, or
    a whole ramp onto one."""

    lit = pyqtSignal(object)
    wanted = pyqtSignal(object)
    changed = pyqtSignal(object)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._rows: list[list[tuple[QRectF, Colour]]] = [[], []]
        self._ramps: list[tuple[tuple[Rgb, ...], ...]] = [(), ()]
        self._colours: tuple[tuple[Colour, ...], tuple[Colour, ...]] = ((), ())
        self.colour: Rgb | None = None
        self.locked: frozenset[Rgb] = frozenset()
        self._left = frozenset[Rgb]()  # those that are probably forgotten: they blink
        self._on = True
        self._grabbed: tuple[int, Colour] | None = None
        self._start, self._here = QPointF(), QPointF()
        self._clock = timer(self, self._blink, _BLINK_MS, repeats=True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setMouseTracking(True)
        self.setFixedHeight(2 * _ROW)
        self.setAccessibleName(tr("Colours of both sheets"))
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(520, 2 * _ROW)

    def show_colours(
        self,
        colours: tuple[tuple[Colour, ...], tuple[Colour, ...]],
        left: frozenset[Rgb],
        locked: frozenset[Rgb],
    ) -> None:
        """Show both palettes; `left` are colours of yours that were probably forgotten."""
        self._ramps = [ramps([one.rgb for one in part]) for part in colours]
        near = {rare.rgb for rare, _ in twins(colours[1])} if colours[1] else set()
        self._left = left | near
        self.locked = locked
        self._colours = colours
        self._lay_out()
        if self.colour not in {one.rgb for one in colours[1]}:
            self.colour = None
        self._on = True
        (self._clock.start if self._left and not self._look.still else self._clock.stop)()
        self.update()

    def _lay_out(self) -> None:
        for row, part in enumerate(self._colours):
            known = {one.rgb: one for one in part}
            self._rows[row] = []
            x = 8.0
            count = len(part) + len(self._ramps[row]) * _GAP / _SIDE
            side = max(min(_SIDE, (max(self.width(), 320) - 16) / max(count, 1)), 6.0)
            for ramp in self._ramps[row]:
                for rgb in ramp:
                    self._rows[row].append((QRectF(x, row * _ROW + _HEAD, side - 2, _SIDE), known[rgb]))
                    x += side
                x += _GAP

    def choose(self, colour: Rgb | None) -> None:
        """Choose a colour of yours; one that it does not have is none."""
        known = {one.rgb for _, one in self._rows[1]}
        self.colour = colour if colour in known else None
        self.lit.emit(self.colour)
        self.update()

    @property
    def ramp(self) -> tuple[Rgb, ...]:
        """The ramp of the colour that is chosen."""
        return self.ramp_of(self.colour) if self.colour is not None else ()

    def ramp_of(self, colour: Rgb, row: int = 1) -> tuple[Rgb, ...]:
        """The ramp that a colour is in."""
        return next((ramp for ramp in self._ramps[row] if colour in ramp), (colour,))

    def place_of(self, colour: Rgb, row: int = 1) -> QPointF:
        """Where a colour is shown."""
        return next(rect.center() for rect, one in self._rows[row] if one.rgb == colour)

    def _at(self, place: QPointF) -> tuple[int, Colour] | None:
        for row, fields in enumerate(self._rows):
            for rect, one in fields:
                if rect.adjusted(-1, -2, 1, 14).contains(place):
                    return row, one
        return None

    def _blink(self) -> None:
        self._on = not self._on
        self.update()

    def hideEvent(self, event: object) -> None:
        self._clock.stop()

    def showEvent(self, event: object) -> None:
        if self._left:
            self._clock.start()

    # hands

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        found = self._at(event.position())
        self._grabbed, self._start, self._here = found, event.position(), event.position()
        if found is not None and found[0] == 1:
            self.choose(found[1].rgb if found[1].rgb != self.colour else None)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        self._here = event.position()
        found = self._at(event.position())
        self.setToolTip(tr(f"#{found[1].hex}, {found[1].pixels} pixels" if found is not None else ""))
        if self._grabbed is not None:
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        grabbed, self._grabbed = self._grabbed, None
        if event is None or grabbed is None:
            return
        target = self._at(event.position())
        self.update()
        moved = (event.position() - self._start).manhattanLength() > 6
        if not moved or target is None or grabbed[0] != 1 or target[1].rgb == grabbed[1].rgb:
            return
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            own, onto = self.ramp_of(grabbed[1].rgb), self.ramp_of(target[1].rgb, target[0])
            self.changed.emit((own, onto))
        else:
            self.changed.emit({grabbed[1].rgb: target[1].rgb})

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        found = self._at(event.position()) if event is not None else None
        self._grabbed = None
        if found is not None and found[0] == 1:
            self.colour = found[1].rgb
            self.wanted.emit(found[1].rgb)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        key = event.key() if event is not None else 0
        own = [one.rgb for _, one in self._rows[1]]
        if (by := (key == Qt.Key.Key_Right) - (key == Qt.Key.Key_Left)) and own:
            at = own.index(self.colour) + by if self.colour in own else 0
            self.choose(own[max(min(at, len(own) - 1), 0)])
        elif (
            key == Qt.Key.Key_Return
            and event is not None
            and not event.modifiers()
            and self.colour is not None
        ):
            self.wanted.emit(self.colour)
        elif key == Qt.Key.Key_Escape and self.colour is not None:
            self.choose(None)
        else:
            super().keyPressEvent(event)

    # paint

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("panel"))
        for row, (word, role) in enumerate((("original", "tarn"), ("yours", "ember"))):
            painter.setFont(font(11))
            painter.setPen(self._look.colour(role))
            said = tr(word if self._colours[row] else f"{word}: more than 256 colours")
            painter.drawText(QPointF(8, row * _ROW + 13), said)
            for rect, one in self._rows[row]:
                self._field(painter, rect, one, row)
        if self._grabbed is not None and (self._here - self._start).manhattanLength() > 6:
            rect = QRectF(self._here.x() - 9, self._here.y() - 9, 18, 18)
            painter.fillRect(rect, QColor(*self._grabbed[1].rgb))
            painter.setPen(QPen(self._look.colour("selection"), 1))
            painter.drawRect(rect)

    def _field(self, painter: QPainter, rect: QRectF, one: Colour, row: int) -> None:
        painter.fillRect(rect, QColor(*one.rgb))
        if row == 1 and one.rgb == self.colour:
            painter.setPen(QPen(self._look.colour("selection"), 2))
            painter.drawRect(rect.adjusted(-1, -1, 1, 1))
        elif row == 1 and one.rgb in self._left and self._on:
            painter.setPen(QPen(self._look.colour("differs"), 2))
            painter.drawRect(rect.adjusted(-1, -1, 1, 1))
        if row == 1 and one.rgb in self.locked:
            painter.fillRect(QRectF(rect.center().x() - 3, rect.top() - 6, 6, 3), self._look.colour("text"))
        if rect.width() >= 18:
            painter.setFont(font(9))
            painter.setPen(self._look.colour("quiet"))
            told = str(one.pixels) if one.pixels < 1000 else f"{one.pixels / 1000:.0f}k"
            painter.drawText(QPointF(rect.left(), rect.bottom() + 11), told)

    def resizeEvent(self, event: object) -> None:
        self._lay_out()


class PaletteTray(QWidget):
    """The strip, and what can be done with the colour that is chosen in it. `asked` names that: `colour`, `ramp`, `lock`,
    `paint`."""

    asked = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.strip = PaletteStrip(look)
        self._says = label("", "caption")
        row = QHBoxLayout()
        row.setContentsMargins(6, 0, 8, 4)
        row.setSpacing(1)
        self.buttons: dict[str, QPushButton] = {}
        for act, text, tip in (
            ("colour", "Change…", "Another colour in its place, everywhere  (Enter)"),
            ("ramp", "Change its ramp…", "All colours of its hue with it, from dark to light"),
            ("lock", "Lock", "Keep it exactly: what drifted from it is brought back"),
            ("paint", "Paint with it", "Take it for the pencil"),
        ):
            part = self.buttons[act] = button(text, tip, "plain")
            part.clicked.connect(lambda _=False, act=act: self.asked.emit(act))
            row.addWidget(part)
        row.addStretch(1)
        row.addWidget(self._says)
        column = QVBoxLayout(as_panel(self))
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.strip)
        column.addLayout(row)
        column.addStretch(1)
        self.strip.lit.connect(lambda _: self.tell())
        self.tell()

    def tell(self) -> None:
        """Say what is chosen, and offer what can be done with it."""
        colour = self.strip.colour
        for part in self.buttons.values():
            part.setVisible(colour is not None)
        self.buttons["lock"].setText(tr("Unlock" if colour in self.strip.locked else "Lock"))
        said = "Drag one of yours onto another; with Shift its whole ramp"
        self._says.setText(tr(f"#{bytes(colour).hex()}" if colour is not None else said))
