"""Two stills of the same scene: without mods and with them."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QFont, QImage, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font


class Stills(QWidget):
    """Before over after (or beside it when the window is wide); while the button is held, each shows the other."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._images: dict[str, QImage] = {}
        self._says = ""
        self._held = False
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName(tr("Stills before and after"))
        self.setToolTip(tr("Hold the mouse button to see before and after change places"))
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(640, 720)

    @property
    def images(self) -> dict[str, QImage]:
        return self._images

    def show_images(self, images: dict[str, QImage], says: str = "") -> None:
        self._images, self._says = images, says
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self._held = True
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._held = False
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("sunken"))
        if not self._images:
            painter.setPen(self._look.colour("quiet"))
            painter.setFont(font(12))
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, tr(self._says))
            return
        wide = self.width() > self.height() * 2.4
        order = [("before", "tarn"), ("after", "ember")]
        for place, (name, role) in enumerate(order):
            shown = order[1 - place] if self._held else (name, role)
            if wide:
                area = QRectF(place * self.width() / 2, 0, self.width() / 2, self.height())
            else:
                area = QRectF(0, place * self.height() / 2, self.width(), self.height() / 2)
            self._paint(painter, area.adjusted(14, 28, -14, -6), *shown)

    def _paint(self, painter: QPainter, area: QRectF, name: str, role: str) -> None:
        image = self._images.get(name)
        if image is None or image.isNull():
            return
        scale = min(area.width() / image.width(), area.height() / image.height())
        width, height = image.width() * scale, image.height() * scale
        box = QRectF(area.center().x() - width / 2, area.top(), width, height)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.drawImage(box, image)
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(self._look.colour(role))
        painter.drawText(
            QPointF(box.left(), box.top() - 8),
            tr("before: the game alone" if name == "before" else "after: with the enabled mods"),
        )
