"""Two pictures compared on one stage: side by side, with a wipe, or by their difference; zoomed and moved together."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QFont,
    QHideEvent,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QShowEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from furnel.desktop.fit.area import AreaTool
from furnel.desktop.fit.picture_content import PictureContent, Side
from furnel.desktop.imaging import paint_checks
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.timing import timer

MODES = ("Wipe", "Side by side", "Blink", "Difference")
_BLINK_MS = 600
_GRID_FROM = 8.0
_FRAME = 36


class PictureView(QWidget):
    """The stage. `pointed` tells the pixel under the pointer in the original's own pixels, or -1."""

    KEYS_HERE = (
        ("+ and −, wheel", "larger and smaller"),
        ("0, double-click", "all of it"),
        ("Drag", "moves the picture, or the wipe by its line"),
        ("Left, Right", "the wipe"),
    )

    pointed = pyqtSignal(int, int)
    zoomed = pyqtSignal(float)
    area_moving = pyqtSignal(object)
    area_moved = pyqtSignal(object)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._content: PictureContent | None = None
        self.mode, self.channel, self.level, self.scale_of_difference = "Wipe", "RGB", 0, 4
        self._instead: tuple[QImage, str] | None = (
            None  # what is shown in place of yours for now, and what it is
        )
        self._tool = AreaTool()
        self._second = False
        self._clock = timer(self, self._blink, _BLINK_MS, repeats=True)
        self.tiled = False
        self.zoom = 0.0  # that was asked for; 0: as large as fits
        self.shift = QPointF()
        self._wipe = 0.5
        self._grabbed = ""
        self._last = QPointF()
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumSize(240, 160)
        self.setAccessibleName(tr("Picture bench"))
        look.changed.connect(lambda: self.set_mode(self.mode))

    def sizeHint(self) -> QSize:
        return QSize(640, 420)

    def show_content(self, content: PictureContent | None, keep_view: bool) -> None:
        """Show two pictures; the zoom and place stay when the same swap is shown again."""
        self._content = content
        self._instead = None
        if not keep_view:
            self.zoom, self.shift, self.level = 0.0, QPointF(), 0
        self._tell_zoom()
        self.update()

    def resizeEvent(self, event: object) -> None:
        self._tell_zoom()

    def _tell_zoom(self) -> None:
        if self._content is not None:
            self.zoomed.emit(self.scale())

    def show_instead(self, image: QImage | None, word: str = "yours") -> None:
        """Show a picture in place of yours, until the next content comes: a quick look, or another format's result."""
        self._instead = (image, word) if image is not None else None
        self.update()

    def set_area(self, box: tuple[int, int, int, int] | None) -> None:
        """Show an area (left, top, width, height in the original's pixels) that can be moved and drawn; None takes it off."""
        self._tool.box = box
        self.update()

    def set_mode(self, mode: str) -> None:
        self.mode = mode
        if mode == "Blink" and self.isVisible() and not self._look.still:
            self._clock.start()
        else:
            self._clock.stop()
        self.update()

    def set_difference(self, scale: int) -> None:
        """How many times differences are enlarged."""
        self.scale_of_difference = scale
        self.update()

    def hideEvent(self, event: QHideEvent | None) -> None:
        self._clock.stop()

    def showEvent(self, event: QShowEvent | None) -> None:
        self.set_mode(self.mode)

    def _blink(self) -> None:
        self._second = not self._second
        self.update()

    def set_channel(self, channel: str) -> None:
        self.channel = channel
        self.update()

    def set_level(self, level: int) -> None:
        self.level = level
        self.update()

    def set_tiled(self, tiled: bool) -> None:
        self.tiled = tiled
        self.update()

    def set_zoom(self, zoom: float, shift: QPointF | None = None) -> None:
        """Screen pixels per pixel of the original, 0 for as large as fits; `shift` moves it from the middle."""
        self.zoom = zoom
        if not zoom or shift is not None:
            self.shift = shift or QPointF()
        self._tell_zoom()
        self.update()

    def scale(self) -> float:
        """The zoom that is seen."""
        return self.zoom or self._fitting()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("stage"))
        if self._content is None:
            return
        if self.mode == "Side by side":
            left, right = self._halves()
            self._paint_side(painter, left, self._content.original)
            self._paint_side(painter, right, self._content.yours)
            painter.fillRect(
                QRectF(self.width() / 2 - 0.5, 0, 1, self.height()), self._look.colour("hairline")
            )
            self._say(painter, left.left() + 12, "original", "tarn")
            self._say(painter, right.left() + 12, self._word(), "ember")
        elif self.mode == "Blink":
            side = self._content.yours if self._second else self._content.original
            self._paint_side(painter, QRectF(self.rect()), side)
            self._say(
                painter, 12, self._word() if self._second else "original", "ember" if self._second else "tarn"
            )
        elif self.mode == "Difference":
            self._paint_difference(painter)
        else:
            self._paint_wipe(painter)
        self._paint_area(painter)

    def _word(self) -> str:
        return self._instead[1] if self._instead is not None else "yours"

    def _paint_area(self, painter: QPainter) -> None:
        """The area of the open step, and what lies outside it dimmed a little."""
        assert self._content is not None
        if self._tool.box is None:
            return
        areas = self._halves() if self.mode == "Side by side" else (QRectF(self.rect()),)
        for area in areas:
            painter.save()
            painter.setClipRect(area, Qt.ClipOperation.IntersectClip)
            self._tool.paint(painter, self._look, self._target(area), self._content.original.size)
            painter.restore()

    def _paint_wipe(self, painter: QPainter) -> None:
        assert self._content is not None
        whole = QRectF(self.rect())
        target = self._target(whole)
        line = target.left() + self._wipe * target.width()
        painter.save()
        painter.setClipRect(QRectF(whole.left(), whole.top(), line - whole.left(), whole.height()))
        self._paint_side(painter, whole, self._content.original)
        painter.setClipRect(QRectF(line, whole.top(), whole.right() - line, whole.height()))
        self._paint_side(painter, whole, self._content.yours)
        painter.restore()
        top, bottom = max(target.top() - 14, 4), min(target.bottom() + 14, self.height() - 4)
        painter.fillRect(QRectF(line - 2, top, 2, bottom - top), self._look.colour("tarn"))
        painter.fillRect(QRectF(line, top, 2, bottom - top), self._look.colour("ember"))
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self._look.colour("window"), 1))
        painter.setBrush(self._look.colour("selection"))
        painter.drawEllipse(QPointF(line, bottom), 5, 5)
        self._say(painter, max(target.left(), 12), "original", "tarn", max(target.top() - 10, 16))
        painter.setFont(font(12, QFont.Weight.Medium))
        word = self._word()
        wide = painter.fontMetrics().horizontalAdvance(word)
        self._say(
            painter,
            min(target.right(), self.width() - 12) - wide,
            word,
            "ember",
            max(target.top() - 10, 16),
        )

    def _paint_difference(self, painter: QPainter) -> None:
        assert self._content is not None
        image = self._content.differences.get(self.scale_of_difference)
        if not self._content.comparable:
            painter.setPen(self._look.colour("text"))
            painter.setFont(font(12))
            text = "The two differ in size: fit the swap first, then compare pixel by pixel."
            painter.drawText(self.rect(), Qt.AlignmentFlag.AlignCenter, tr(text))
            return
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, self.scale() < 2.0)
        if image is not None:
            painter.drawImage(self._target(QRectF(self.rect())), image)
        times = {1: "as it is", 4: "four times enlarged", 16: "sixteen times enlarged"}[
            self.scale_of_difference
        ]
        self._say(painter, 12, f"difference, {times}", "text")

    def _paint_side(self, painter: QPainter, area: QRectF, side: Side) -> None:
        painter.save()
        painter.setClipRect(area, Qt.ClipOperation.IntersectClip)
        target = self._target(area)
        assert self._content is not None
        image = side.image(self.level, self.channel)
        if self._instead is not None and side is self._content.yours and self.level == 0:
            image = self._instead[0]
        spots = [(column, row) for row in (-1, 0, 1) for column in (-1, 0, 1)] if self.tiled else [(0, 0)]
        for column, row in spots:
            box = target.translated(column * target.width(), row * target.height())
            if side.clear and self.channel == "RGB":
                paint_checks(
                    painter,
                    box.intersected(area),
                    self._look.colour("stage"),
                    self._look.colour("stage-dark"),
                    10,
                )
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, self.scale() < 2.0)
            painter.drawImage(box, image)
        if self.zoom >= _GRID_FROM and self.level == 0:
            paint_grid(
                painter,
                self._look.colour("window", 0.45),
                QRectF(self.rect()),
                target,
                self._content.original.size,
            )
        painter.restore()

    def _say(self, painter: QPainter, x: float, text: str, role: str, y: float = 20.0) -> None:
        text = tr(text)
        painter.setFont(font(12, QFont.Weight.Medium))
        wide = painter.fontMetrics().horizontalAdvance(text)
        painter.fillRect(QRectF(x - 5, y - 13, wide + 10, 18), self._look.colour("window", 0.72))
        painter.setPen(self._look.colour(role))
        painter.drawText(QPointF(x, y), text)

    def _halves(self) -> tuple[QRectF, QRectF]:
        middle = self.width() / 2
        return QRectF(0, 0, middle, self.height()), QRectF(middle, 0, middle, self.height())

    def _area_under(self, place: QPointF) -> QRectF:
        if self.mode != "Side by side":
            return QRectF(self.rect())
        return self._halves()[1 if place.x() > self.width() / 2 else 0]

    def _area(self) -> QRectF:
        return self._halves()[0] if self.mode == "Side by side" else QRectF(self.rect())

    def _fitting(self) -> float:
        if self._content is None:
            return 1.0
        width, height = self._content.original.size
        area = self._area()
        times = 3 if self.tiled else 1
        scale = min((area.width() - 2 * _FRAME) / width, (area.height() - 2 * _FRAME) / height) / times
        return max(min(scale, 24.0), 0.01) if scale < 1 else float(int(scale)) if scale >= 2 else scale

    def _target(self, area: QRectF) -> QRectF:
        assert self._content is not None
        width, height = (side * self.scale() for side in self._content.original.size)
        centre = area.center() + self.shift
        return QRectF(centre.x() - width / 2, centre.y() - height / 2, width, height)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._content is None:
            return
        self._last = event.position()
        area = self._area_under(event.position())
        if self._tool.press(event.position(), self._target(area), self._content.original.size):
            self._grabbed = "area"
            return
        target = self._target(QRectF(self.rect()))
        line = target.left() + self._wipe * target.width()
        if self.mode == "Blink" and self._look.still:
            self._blink()
        self._grabbed = "wipe" if self.mode == "Wipe" and abs(event.position().x() - line) < 12 else "move"

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._content is None:
            return
        if self._grabbed == "wipe":
            target = self._target(QRectF(self.rect()))
            self._wipe = min(max((event.position().x() - target.left()) / target.width(), 0.0), 1.0)
            self.update()
        elif self._grabbed == "area":
            self._tool.move(
                event.position(),
                self._target(self._area_under(event.position())),
                self._content.original.size,
            )
            self.area_moving.emit(self._tool.box)
            self.update()
        elif self._grabbed == "move":
            self.shift += event.position() - self._last
            self._last = event.position()
            self.update()
        self._point(event.position())

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._grabbed == "area":
            self.area_moved.emit(self._tool.box)
        elif self._grabbed == "move":
            self._tell_zoom()
        self._grabbed = ""

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.set_zoom(0.0)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None or self._content is None:
            return
        before = self.scale()
        after = min(max(before * (1.25 if event.angleDelta().y() > 0 else 0.8), 0.05), 64.0)
        area = self._area_under(event.position())
        from_centre = event.position() - area.center() - self.shift
        self.shift -= from_centre * (after / before - 1)
        self.set_zoom(after)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key = Qt.Key(event.key())
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self._wipe = min(max(self._wipe + (0.02 if key == Qt.Key.Key_Right else -0.02), 0.0), 1.0)
            self.update()
        elif key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal, Qt.Key.Key_Minus):
            self.set_zoom(min(max(self.scale() * (0.8 if key == Qt.Key.Key_Minus else 1.25), 0.05), 64.0))
        elif key == Qt.Key.Key_0:
            self.set_zoom(0.0)
        elif key == Qt.Key.Key_Space and self.mode == "Blink":
            self._blink()
        else:
            super().keyPressEvent(event)

    def _point(self, place: QPointF) -> None:
        assert self._content is not None
        target = self._target(self._area_under(place))
        width, height = self._content.original.size
        x = int((place.x() - target.left()) / target.width() * width)
        y = int((place.y() - target.top()) / target.height() * height)
        inside = 0 <= x < width and 0 <= y < height
        self.pointed.emit(x if inside else -1, y if inside else -1)


def paint_grid(painter: QPainter, ink: QColor, around: QRectF, target: QRectF, size: tuple[int, int]) -> None:
    """Lines between the pixels of a picture of a `size` that is drawn in `target`, as far as they lie in what is `around`."""
    seen = target.intersected(around)
    painter.setPen(QPen(ink, 1))
    scale = target.width() / size[0]
    for x in range(
        int((seen.left() - target.left()) / scale), int((seen.right() - target.left()) / scale) + 1
    ):
        at = target.left() + x * scale
        painter.drawLine(QPointF(at, seen.top()), QPointF(at, seen.bottom()))
    for y in range(int((seen.top() - target.top()) / scale), int((seen.bottom() - target.top()) / scale) + 1):
        at = target.top() + y * scale
        painter.drawLine(QPointF(seen.left(), at), QPointF(seen.right(), at))
