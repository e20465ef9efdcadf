"""The tones tray: how often each tone occurs, the original's as an area, yours as a line over it."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QFont, QPainter, QPainterPath, QPaintEvent, QPen

from furnel.desktop.fit.picture_content import Counts
from furnel.desktop.fit.tray import Tray
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font

_NAMES = ("light and dark", "red", "green", "blue")


class ToneGraphs(Tray):
    """Four graphs: lightness, red, green and blue."""

    def __init__(self, look: Look) -> None:
        super().__init__(look, "Tones of both pictures")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        painter.fillRect(self.rect(), look.colour("panel"))
        if self._content is None:
            return
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        gap, top = 18.0, 24.0
        wide = (self.width() - 28 - 3 * gap) / 4
        high = self.height() - top - 24
        first, second = self._content.original.tones, self._content.yours.tones
        for place, name in enumerate(_NAMES):
            box = QRectF(14 + place * (wide + gap), top, wide, high)
            painter.setFont(font(10, QFont.Weight.DemiBold))
            painter.setPen(look.colour("quiet"))
            painter.drawText(QPointF(box.left(), 16), tr(name).upper())
            painter.fillRect(box, look.colour("sunken"))
            most = max(float(_smooth(first[place]).max()), float(_smooth(second[place]).max()), 1e-6)
            theirs, mine = _path(_smooth(first[place]) / most, box), _path(_smooth(second[place]) / most, box)
            closed = QPainterPath(theirs)
            closed.lineTo(box.bottomRight())
            closed.lineTo(box.bottomLeft())
            painter.fillPath(closed, look.colour("tarn", 0.35))
            painter.setPen(QPen(look.colour("tarn"), 1.2))
            painter.drawPath(theirs)
            painter.setPen(QPen(look.colour("ember"), 1.6))
            painter.drawPath(mine)
            painter.setFont(font(10))
            for values, role, share in ((first[place], "tarn", 0.0), (second[place], "ember", 0.5)):
                painter.setPen(look.colour(role))
                mean = float((values * np.arange(256)).sum())
                painter.drawText(
                    QPointF(box.left() + share * wide, box.bottom() + 15), tr(f"mean {mean:.0f}")
                )


def _smooth(values: Counts) -> Counts:
    """Neighbouring tones together, so that pictures of few colours can be read; the root, so that rare ones are seen."""
    return np.sqrt(np.convolve(values, np.ones(5) / 5, mode="same"))


def _path(values: Counts, box: QRectF) -> QPainterPath:
    path = QPainterPath(QPointF(box.left(), box.bottom() - values[0] * box.height()))
    for tone in range(1, 256):
        x = box.left() + tone / 255 * box.width()
        path.lineTo(x, box.bottom() - float(values[tone]) * (box.height() - 4))
    return path
