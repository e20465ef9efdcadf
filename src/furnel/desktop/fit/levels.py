"""The level ladder: every level of both sides, one above the other; a click shows that level on the bench."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen

from furnel.desktop.fit.picture_content import PictureContent, Side
from furnel.desktop.fit.tray import Tray
from furnel.desktop.imaging import paint_checks
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font

_TALL = 60


class LevelLadder(Tray):
    """Both sides' levels; `chosen` tells the level that was clicked."""

    KEYS_HERE = (("Left, Right", "from level to level"),)

    chosen = pyqtSignal(int)

    def __init__(self, look: Look) -> None:
        super().__init__(look, "Levels")
        self._level = 0
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setToolTip(tr("Click a level to see it on the bench, as the game shows it from afar"))

    def show_content(self, content: PictureContent) -> None:
        super().show_content(content)
        self._level = min(self._level, self._count() - 1)

    def set_level(self, level: int) -> None:
        self._level = level
        self.update()

    def _count(self) -> int:
        return (
            max(len(self._content.original.levels), len(self._content.yours.levels)) if self._content else 0
        )

    def _boxes(self) -> list[QRectF]:
        assert self._content is not None
        width, height = self._content.original.size
        tall = _TALL if height >= width * 0.4 else _TALL * 0.8
        wide = min(tall * width / height, 200.0)
        tall = wide * height / width
        boxes, left = [], 14.0
        for _ in range(self._count()):
            boxes.append(QRectF(left, 10, wide, tall))
            left += wide + 10
            wide, tall = max(wide / 2, 5), max(tall / 2, 5)
        return boxes

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        painter.fillRect(self.rect(), look.colour("panel"))
        if self._content is None:
            return
        boxes = self._boxes()
        lower = boxes[0].height() + 4 if boxes else 0
        for level, box in enumerate(boxes):
            self._paint(painter, self._content.original, level, box)
            self._paint(painter, self._content.yours, level, box.translated(0, lower))
            if level == self._level:
                painter.setPen(QPen(look.colour("selection"), 2))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRect(
                    QRectF(box.left() - 2, box.top() - 2, box.width() + 4, lower + box.height() + 4)
                )
            width = max(self._content.original.size[0] >> level, 1)
            painter.setFont(font(10))
            painter.setPen(look.colour("quiet"))
            if box.width() > 14:
                painter.drawText(QPointF(box.left(), box.top() + lower + box.height() + 14), str(width))

    def _paint(self, painter: QPainter, side: Side, level: int, box: QRectF) -> None:
        if level >= len(side.levels):
            painter.setPen(QPen(self._look.colour("breaks"), 1, Qt.PenStyle.DotLine))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(box.adjusted(0.5, 0.5, -0.5, -0.5))
            return
        if side.clear:
            paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 6)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(box, side.image(level, "RGB"))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._content is None:
            return
        for level, box in enumerate(self._boxes()):
            if box.left() - 5 <= event.position().x() <= box.right() + 5:
                self._choose(level)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self._content is None:
            return
        move = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if move:
            self._choose(max(0, min(self._level + move, self._count() - 1)))
        else:
            super().keyPressEvent(event)

    def _choose(self, level: int) -> None:
        self._level = level
        self.chosen.emit(level)
        self.update()
