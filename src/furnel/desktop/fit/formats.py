"""The formats tray: what every format would make of the picture, in numbers and where it fails worst."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from furnel.desktop.imaging import to_image
from furnel.desktop.language import tr
from furnel.desktop.look import Look, byte_size, font
from furnel.desktop.widgets.basics import elided
from furnel.mods.trials import Trial, around_worst

_WIDE, _TALL = 118.0, 148.0


class FormatCards(QWidget):
    """A card a format; `picked` carries the trial that was clicked (None: back to the result), `used` one to encode with."""

    picked = pyqtSignal(object)
    used = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._trials: list[Trial] = []
        self._crops: list[QImage] = []
        self._now = ""
        self._wanted = ""
        self._busy = ""
        self.row = -1
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(tr("Formats"))
        self.setToolTip(
            tr("Click a format to see what it would look like on the bench; click it again to go back")
        )
        look.changed.connect(self.update)

    def start(self, now: str, wanted: str, busy: str) -> None:
        """Empty the tray; `now` is the format in use, `wanted` the original's, `busy` what is being done."""
        self._trials, self._crops, self.row = [], [], -1
        self._now, self._wanted, self._busy = now, wanted, busy
        self.setMinimumWidth(0)
        self.update()

    def add(self, trial: Trial) -> None:
        """One more format tried."""
        self._trials.append(trial)
        self._crops.append(to_image(around_worst(trial.picture, trial.worst)))
        self.setMinimumWidth(int(14 + len(self._trials) * (_WIDE + 8)))
        self.update()

    def finish(self, said: str = "") -> None:
        self._busy = said
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        painter.fillRect(self.rect(), look.colour("panel"))
        for number, trial in enumerate(self._trials):
            self._paint(painter, number, trial)
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        left = 14 + len(self._trials) * (_WIDE + 8)
        if self._busy and left < self.width() - 60:
            painter.drawText(
                QPointF(left + 6, self.height() / 2), elided(painter, self._busy, self.width() - left - 20)
            )

    def _paint(self, painter: QPainter, number: int, trial: Trial) -> None:
        look, box = self._look, self._box(number)
        chosen = number == self.row
        painter.setPen(QPen(look.colour("selection" if chosen else "hairline"), 2 if chosen else 1))
        painter.setBrush(look.colour("raised") if chosen else Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(box, 4, 4)
        painter.setFont(font(12, QFont.Weight.DemiBold))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(box.left() + 9, box.top() + 19), trial.format)
        right = box.right() - 9
        for name, role in ((self._now, "ember"), (self._wanted, "tarn")):
            if trial.format == name:
                right -= 8
                painter.fillRect(QRectF(right, box.top() + 11, 8, 8), look.colour(role))
                right -= 4
        painter.setFont(font(10))
        crop = QRectF(box.left() + 9, box.top() + 28, 52, 52)
        painter.drawImage(crop, self._crops[number])
        painter.setPen(look.colour("quiet"))
        painter.setFont(font(10))
        painter.drawText(QPointF(crop.right() + 7, crop.top() + 10), tr("worst"))
        painter.drawText(QPointF(crop.right() + 7, crop.top() + 23), tr("block"))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(crop.right() + 7, crop.top() + 38), _decibels(trial.worst_db))
        painter.drawText(QPointF(crop.right() + 7, crop.top() + 52), f"{trial.worst[0]}, {trial.worst[1]}")
        likeness = tr("exact") if math.isinf(trial.psnr_db) else f"{trial.psnr_db:.1f} dB"
        rows = (("likeness", likeness), ("size", byte_size(trial.size_bytes)), ("time", _time(trial.seconds)))
        for place, (name, value) in enumerate(rows):
            y = crop.bottom() + 17 + place * 15
            painter.setPen(look.colour("quiet"))
            painter.drawText(QPointF(box.left() + 9, y), tr(name))
            painter.setPen(look.colour("text"))
            wide = painter.fontMetrics().horizontalAdvance(value)
            painter.drawText(QPointF(box.right() - 9 - wide, y), value)

    def _box(self, number: int) -> QRectF:
        return QRectF(14 + number * (_WIDE + 8), 6, _WIDE, min(_TALL, self.height() - 12.0))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        for number in range(len(self._trials)):
            if self._box(number).contains(event.position()):
                self._pick(number)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        for number, trial in enumerate(self._trials):
            if self._box(number).contains(event.position()):
                self.used.emit(trial.format)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if Qt.Key(event.key()) in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.row >= 0:
            self.used.emit(self._trials[self.row].format)
        elif move and self._trials:
            self._pick(min(max(self.row + move, 0), len(self._trials) - 1), again=False)
        else:
            super().keyPressEvent(event)

    def _pick(self, number: int, again: bool = True) -> None:
        self.row = -1 if again and self.row == number else number
        self.picked.emit(self._trials[self.row] if self.row >= 0 else None)
        self.update()


def _decibels(value: float) -> str:
    return "exact" if math.isinf(value) else f"{value:.1f} dB"


def _time(seconds: float) -> str:
    return f"{seconds:.1f} s" if seconds >= 1 else f"{seconds * 1000:.0f} ms"
