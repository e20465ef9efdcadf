"""An area on the stage: drawn, moved and resized with the mouse, in whole pixels of the original."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPen

from furnel.desktop.look import Look

Box = tuple[int, int, int, int]
_GRIP = 8.0


class AreaTool:
    """The area's box, and what the mouse does to it. `target` is where the whole picture lies on the stage."""

    def __init__(self) -> None:
        self.box: Box | None = None
        self._part = ""
        self._start = QPointF()
        self._was: Box = (0, 0, 1, 1)

    def press(self, place: QPointF, target: QRectF, size: tuple[int, int]) -> bool:
        """Take hold of the area or one of its edges; False when the mouse is not on it."""
        if self.box is None:
            return False
        shown = self._shown(target, size)
        near = shown.adjusted(-_GRIP, -_GRIP, _GRIP, _GRIP)
        if not near.contains(place):
            return False
        edges = ""
        if abs(place.x() - shown.left()) <= _GRIP:
            edges += "l"
        elif abs(place.x() - shown.right()) <= _GRIP:
            edges += "r"
        if abs(place.y() - shown.top()) <= _GRIP:
            edges += "t"
        elif abs(place.y() - shown.bottom()) <= _GRIP:
            edges += "b"
        self._part, self._start, self._was = edges or "all", place, self.box
        return True

    def move(self, place: QPointF, target: QRectF, size: tuple[int, int]) -> None:
        """Follow the mouse."""
        scale = target.width() / size[0]
        dx, dy = round((place.x() - self._start.x()) / scale), round((place.y() - self._start.y()) / scale)
        left, top, width, height = self._was
        right, bottom = left + width, top + height
        if self._part == "all":
            left = min(max(left + dx, 0), max(size[0] - width, 0))
            top = min(max(top + dy, 0), max(size[1] - height, 0))
            self.box = left, top, width, height
            return
        if "l" in self._part:
            left = min(max(left + dx, 0), right - 1)
        if "r" in self._part:
            right = max(min(right + dx, size[0]), left + 1)
        if "t" in self._part:
            top = min(max(top + dy, 0), bottom - 1)
        if "b" in self._part:
            bottom = max(min(bottom + dy, size[1]), top + 1)
        self.box = left, top, right - left, bottom - top

    def paint(self, painter: QPainter, look: Look, target: QRectF, size: tuple[int, int]) -> None:
        """The area's outline with its corners; what lies around it is dimmed."""
        shown = self._shown(target, size)
        around = QPainterPath()
        around.addRect(target)
        inner = QPainterPath()
        inner.addRect(shown)
        painter.fillPath(around.subtracted(inner), look.colour("window", 0.35))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(look.colour("window", 0.8), 3))
        painter.drawRect(shown)
        painter.setPen(QPen(look.colour("selection"), 1))
        painter.drawRect(shown)
        painter.setBrush(look.colour("selection"))
        for corner in (shown.topLeft(), shown.topRight(), shown.bottomLeft(), shown.bottomRight()):
            painter.drawRect(QRectF(corner.x() - 3, corner.y() - 3, 6, 6))

    def _shown(self, target: QRectF, size: tuple[int, int]) -> QRectF:
        assert self.box is not None
        scale = target.width() / size[0]
        left, top, width, height = self.box
        return QRectF(target.left() + left * scale, target.top() + top * scale, width * scale, height * scale)
