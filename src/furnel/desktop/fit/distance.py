"""The distance tray: both pictures as the game shows them from near to far, every level at its own size."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF
from PyQt6.QtGui import QFont, QPainter, QPaintEvent

from furnel.desktop.fit.picture_content import Side
from furnel.desktop.fit.tray import Tray
from furnel.desktop.imaging import paint_checks
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font


class DistanceRow(Tray):
    """Pairs of pictures, each half as large as the one before, in real pixels: the original left, yours right."""

    def __init__(self, look: Look) -> None:
        super().__init__(look, "Both pictures from near to far")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        painter.fillRect(self.rect(), look.colour("stage"))
        if self._content is None:
            return
        left = 16.0
        high = self.height() - 32
        for level in range(len(self._content.original.levels)):
            width, height = (max(side >> level, 1) for side in self._content.original.size)
            if height > high or width > self.width() / 3:
                continue
            if left + 2 * width + 6 > self.width() - 12:
                break
            top = 22 + (high - height) / 2
            for number, side in enumerate((self._content.original, self._content.yours)):
                box = QRectF(left + number * (width + 4), top, width, height)
                self._paint(painter, side, level, box)
                if width >= 12:
                    painter.fillRect(
                        QRectF(box.left(), box.bottom() + 3, box.width(), 2),
                        look.colour("ember" if number else "tarn"),
                    )
            painter.setFont(font(10))
            painter.setPen(look.colour("text"))
            painter.drawText(QPointF(left, 16), tr(f"level {level}" if width >= 24 else ""))
            left += 2 * width + max(width * 0.35, 14)
        painter.setFont(font(11, QFont.Weight.Medium))
        painter.setPen(look.colour("text"))
        if left < self.width() - 190:
            text = tr("near to far, in the game's own levels")
            painter.drawText(
                QPointF(self.width() - 14 - painter.fontMetrics().horizontalAdvance(text), 16), text
            )

    def _paint(self, painter: QPainter, side: Side, level: int, box: QRectF) -> None:
        if level >= len(side.levels):
            painter.setPen(self._look.colour("breaks"))
            painter.drawRect(box)
            return
        if side.clear:
            paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 6)
        painter.drawImage(box, side.image(level, "RGB"))
