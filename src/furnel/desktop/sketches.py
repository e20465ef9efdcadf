"""What Furnel does, in three small drawings for somebody who sees it for the first time."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent, QPen, QPolygonF, QResizeEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import label, ticked

_DRAWN = QSize(212, 116)  # in the drawings' own units
_SIZE, _LEAST = QSize(284, 155), 190
STEPS = (
    ("find", "Find", "Open a game. Every picture, sound and value in its archives lies on one wall."),
    ("fit", "Fit", "Drop your file on an original. It is brought to the right size, format, length and loudness."),
    ("try", "Build and try", "The mod is built, put into the game, seen before and after, and taken off without a trace."),
)  # fmt: skip


class Sketch(QWidget):
    """One of the drawings, in the colours of the theme."""

    def __init__(self, look: Look, kind: str) -> None:
        super().__init__()
        self._look, self._kind = look, kind
        self.setMinimumWidth(_LEAST)
        self.setMaximumWidth(_SIZE.width())
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return _SIZE

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self.setFixedHeight(self.width() * _DRAWN.height() // _DRAWN.width())

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(self._look.colour("panel"))
        painter.drawRoundedRect(QRectF(self.rect()), 6, 6)
        painter.scale(self.width() / _DRAWN.width(), self.height() / _DRAWN.height())
        {"find": self._find, "fit": self._fit, "try": self._try}[self._kind](painter)

    def _find(self, painter: QPainter) -> None:
        look = self._look
        for row in range(3):
            for column in range(7):
                place = QRectF(18 + column * 26, 20 + row * 27, 21, 21)
                lit = (row, column) == (1, 4)
                painter.setBrush(look.colour("raised"))
                painter.setPen(QPen(look.colour("tarn"), 2) if lit else Qt.PenStyle.NoPen)
                painter.drawRoundedRect(place.adjusted(-3, -3, 3, 3) if lit else place, 2, 2)
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(look.colour("tarn" if lit else "hairline-strong"))
                kind, middle = (row * 7 + column * 3) % 4, place.center()
                if lit or kind == 0:
                    painter.drawPolygon(_sail(middle, 7))
                elif kind == 1:
                    painter.drawEllipse(middle, 5, 5)
                else:
                    for bar, high in enumerate((4, 9, 6, 11) if kind == 2 else (11, 3, 3, 11)):
                        painter.drawRect(QRectF(middle.x() - 7 + bar * 4, middle.y() - high / 2, 2, high))

    def _fit(self, painter: QPainter) -> None:
        look = self._look
        for left, wide, role in ((22, 62, "ember"), (142, 44, "tarn")):
            box = QRectF(left, 58 - wide / 2, wide if role == "tarn" else 74, wide)
            painter.setPen(QPen(look.colour(role), 1.5))
            painter.setBrush(look.colour("raised"))
            painter.drawRect(box)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour(role))
            painter.drawPolygon(_sail(box.center(), wide / 3.2))
        painter.setPen(QPen(look.colour("quiet"), 1.5))
        painter.drawLine(QPointF(106, 58), QPointF(130, 58))
        painter.drawPolyline(QPolygonF([QPointF(125, 53), QPointF(130, 58), QPointF(125, 63)]))
        painter.setPen(QPen(look.colour("text"), 1.6))
        for row in range(3):
            ticked(painter, QPointF(192, 42 + row * 14), (0, 4), (3, 7), (9, 0))

    def _try(self, painter: QPainter) -> None:
        look = self._look
        painter.setBrush(look.colour("raised"))
        for left, role in ((16, "hairline-strong"), (112, "tarn")):
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour("raised"))
            painter.drawRoundedRect(QRectF(left, 22, 84, 72), 3, 3)
            middle = QPointF(left + 42, 52)
            painter.setBrush(look.colour(role))
            painter.drawPolygon(_sail(middle, 19))
            hull = ((-24, 22), (24, 22), (15, 31), (-16, 31))
            painter.drawPolygon(QPolygonF([middle + QPointF(*corner) for corner in hull]))
            painter.setPen(QPen(look.colour("quiet"), 1))
            painter.drawLine(QPointF(left + 6, 84), QPointF(left + 78, 84))


def _sail(middle: QPointF, high: float) -> QPolygonF:
    return QPolygonF(
        [
            middle + QPointF(-high * 0.15, -high),
            middle + QPointF(high * 0.8, high * 0.85),
            middle + QPointF(-high * 0.6, high * 0.85),
        ]
    )


def what_it_does(look: Look) -> QWidget:
    """The three drawings with a sentence each, side by side."""
    whole = QWidget()
    row = QHBoxLayout(whole)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(22)
    for kind, title, text in STEPS:
        column = QVBoxLayout()
        column.setSpacing(6)
        words = label(text, "caption")
        words.setWordWrap(True)
        words.setMaximumWidth(_SIZE.width())
        words.setAlignment(Qt.AlignmentFlag.AlignTop)
        column.addWidget(Sketch(look, kind))
        column.addWidget(label(title))
        column.addWidget(words)
        column.addStretch(1)
        row.addLayout(column, 1)
    return whole
