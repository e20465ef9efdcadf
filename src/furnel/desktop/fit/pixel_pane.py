"""A picture of few pixels, by whole ones: zoomed with the wheel, moved with the middle button, read out under the pointer."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QWheelEvent
from PyQt6.QtWidgets import QSizePolicy, QWidget

from furnel.desktop.imaging import paint_checks
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font

_HEAD = 22
_MOST_ZOOM = 32.0


class PixelPane(QWidget):
    """A pane. `pointed` tells the pixel under the pointer, or -1; `viewed` its zoom and place for others to follow."""

    OWN_RING = True

    pointed = pyqtSignal(int, int)
    viewed = pyqtSignal(float, object)

    def __init__(self, look: Look, word: str, role: str, name: str) -> None:
        super().__init__()
        self._look, self.word, self._role = look, word, role
        self.image: QImage | None = None
        self._zoom, self._shift = 0.0, QPointF()  # 0: as large as fits
        self._moving: QPointF | None = None
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(200, 90)
        self.setAccessibleName(tr(name))
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(420, 180)

    def show_image(self, image: QImage | None, keep_view: bool = True) -> None:
        """Show a picture; the zoom and place stay with `keep_view`."""
        if not keep_view or image is None or (self.image is not None and image.size() != self.image.size()):
            self._zoom, self._shift = 0.0, QPointF()
        self.image = image
        self.update()

    # where pixels are

    @property
    def scale(self) -> float:
        """How large a pixel is."""
        if self._zoom:
            return self._zoom
        if self.image is None:
            return 1.0
        fits = min(
            (self.width() - 20) / max(self.image.width(), 1),
            (self.height() - _HEAD - 10) / max(self.image.height(), 1),
        )
        return float(int(fits)) if fits >= 1 else max(fits, 0.01)

    @property
    def box(self) -> QRectF:
        """Where the picture is."""
        if self.image is None:
            return QRectF()
        wide, high = self.image.width() * self.scale, self.image.height() * self.scale
        left = (self.width() - wide) / 2 + self._shift.x()
        return QRectF(
            round(left), round(_HEAD + (self.height() - _HEAD - high) / 2 + self._shift.y()), wide, high
        )

    def pixel_at(self, place: QPointF) -> tuple[int, int]:
        """The pixel (column, row) at a place of the pane, or -1, -1."""
        box = self.box
        if self.image is None or not box.contains(place):
            return -1, -1
        x, y = int((place.x() - box.left()) / self.scale), int((place.y() - box.top()) / self.scale)
        return min(x, self.image.width() - 1), min(y, self.image.height() - 1)

    def part(self, box: tuple[int, int, int, int]) -> QRectF:
        """Where an area (left, top, width, height in pixels) is in the pane."""
        scale, whole = self.scale, self.box
        return QRectF(
            whole.left() + box[0] * scale, whole.top() + box[1] * scale, box[2] * scale, box[3] * scale
        )

    # view

    @property
    def looks(self) -> tuple[float, QPointF]:
        """The zoom (0: as large as fits), and how far from the middle it was moved."""
        return self._zoom, self._shift

    def set_view(self, zoom: float, shift: QPointF) -> None:
        """Show it at a zoom (0: as large as fits) and place, as another pane does."""
        self._zoom, self._shift = zoom, QPointF(shift)
        self.update()

    def look_at(self, box: tuple[int, int, int, int]) -> None:
        """Bring an area into the middle, large enough to see its pixels."""
        scale = max(self.scale, min(8.0, self.width() / max(box[2] * 3, 24)))
        self._zoom = float(int(scale)) if scale >= 1 else scale
        self._shift = QPointF()
        middle = self.part(box).center()
        self._shift = QPointF(self.width() / 2 - middle.x(), _HEAD + (self.height() - _HEAD) / 2 - middle.y())
        self._tell()

    def zoom_by(self, up: bool, around: QPointF | None = None) -> None:
        """One whole step larger or smaller, the pixel under `around` staying where it is."""
        around = around or QPointF(self.width() / 2, self.height() / 2)
        before, old = self.box, self.scale
        new = old + 1 if up else old - 1
        new = float(int(new)) if new >= 1 else (old * 2 if up else old / 2)
        new = min(max(new, 0.05), _MOST_ZOOM)
        self._zoom = new
        wanted = around - (around - before.topLeft()) * (new / old)
        self._shift += wanted - self.box.topLeft()
        self._tell()

    def whole(self) -> None:
        """As large as fits again."""
        self._zoom, self._shift = 0.0, QPointF()
        self._tell()

    def _tell(self) -> None:
        self.viewed.emit(self._zoom, self._shift)
        self.update()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None and event.angleDelta().y():
            self.zoom_by(event.angleDelta().y() > 0, event.position())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if event.button() == Qt.MouseButton.MiddleButton:
            self._moving = event.position()
        else:
            self.pressed(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if self._moving is not None:
            if not self._zoom:
                self._zoom = self.scale
            self._shift += event.position() - self._moving
            self._moving = event.position()
            self._tell()
            return
        self.pointed.emit(*self.pixel_at(event.position()))
        self.dragged(event)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        if event.button() == Qt.MouseButton.MiddleButton:
            self._moving = None
        else:
            self.let_go(event)

    def leaveEvent(self, event: object) -> None:
        self.pointed.emit(-1, -1)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        key = event.text() if event is not None else ""
        if key in ("+", "-"):
            self.zoom_by(key == "+")
        elif key == "0":
            self.whole()
        else:
            super().keyPressEvent(event)

    # for panes of their own

    def pressed(self, event: QMouseEvent) -> None:
        """A button other than the middle one went down."""

    def dragged(self, event: QMouseEvent) -> None:
        """The pointer moved."""

    def let_go(self, event: QMouseEvent) -> None:
        """A button other than the middle one went up."""

    def paint_over(self, painter: QPainter) -> None:
        """Paint over the picture."""

    def place_of(self, everywhere: QPoint) -> QPointF:
        """A place on the screen in this pane."""
        return QPointF(self.mapFromGlobal(everywhere))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("stage"))
        if self.image is not None:
            box = self.box
            paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 8)
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, self.scale < 1)
            painter.drawImage(box, self.image)
            self.paint_over(painter)
        painter.fillRect(QRectF(0, 0, self.width(), _HEAD - 4), self._look.colour("stage"))
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(self._look.colour(self._role))
        painter.drawText(QPointF(10, 15), tr(self.word))
        if self.hasFocus():
            painter.setPen(self._look.colour("quiet"))
            painter.drawRect(QRectF(0.5, 0.5, self.width() - 1, self.height() - 1))
