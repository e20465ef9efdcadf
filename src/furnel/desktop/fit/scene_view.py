"""The tray of the role's own preview: a gauge at a fill, a tint over grey, an emblem at its sizes, a lamp over a relief."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QImage, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.fit.picture_content import PictureContent
from furnel.desktop.fit.scene import Scene
from furnel.desktop.imaging import paint_checks, to_image
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.widgets.basics import label
from furnel.desktop.widgets.steady import Slider

_AMOUNTS = {"gauge": "filled", "glow": "strength", "normals": "lamp's height"}


class _Pair(QWidget):
    """Both sides' pictures in a row, as large as fits in whole steps."""

    moved = pyqtSignal(float, float)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.images: tuple[list[QImage], list[QImage]] = ([], [])
        self.names: list[str] = []
        self.keep_out: tuple[tuple[int, int, int, int], ...] = ()
        self._boxes: list[QRectF] = []
        self.setMouseTracking(True)
        self.setAccessibleName(tr("What the game makes of it"))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        painter.fillRect(self.rect(), look.colour("stage"))
        self._boxes = []
        count = len(self.images[0])
        if not count:
            return
        real = bool(self.names)
        widths = [image.width() for image in self.images[0]]
        tallest = max(image.height() for image in self.images[0])
        room = self.height() - 34.0
        fit = min(room / tallest, (self.width() / 2 - 40 - 10 * count) / sum(widths))
        scale = min(fit, 1.0) if real else max(float(int(fit)), fit if fit < 2 else 1.0)
        half = self.width() / 2
        for side, role in enumerate(("tarn", "ember")):
            left = 16 + side * half
            painter.setFont(font(11, QFont.Weight.Medium))
            painter.setPen(look.colour(role))
            painter.drawText(QPointF(left, 15), tr("yours" if side else "original"))
            for place, image in enumerate(self.images[side]):
                wide, high = image.width() * scale, image.height() * scale
                box = QRectF(left, 22 + (room - high) / 2, wide, high)
                paint_checks(painter, box, look.colour("stage"), look.colour("stage-dark"), 6)
                painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, scale < 1.5)
                painter.drawImage(box, image)
                self._boxes.append(box)
                painter.setPen(QPen(look.colour("differs"), 1, Qt.PenStyle.DashLine))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                for x, y, w, h in self.keep_out:
                    painter.drawRect(
                        QRectF(box.left() + x * scale, box.top() + y * scale, w * scale, h * scale)
                    )
                if real and place < len(self.names):
                    painter.setFont(font(10))
                    painter.setPen(look.colour("quiet"))
                    painter.drawText(QPointF(box.left(), self.height() - 4.0), tr(self.names[place]))
                left += wide + 10

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        for box in self._boxes:
            if box.contains(event.position()):
                place = event.position() - box.topLeft()
                self.moved.emit(place.x() / box.width(), place.y() / box.height())


class SceneView(QWidget):
    """The preview with its slider. `wanted` carries a function that makes both sides' pictures, for a worker to call."""

    wanted = pyqtSignal(object)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._scene: Scene | None = None
        self._place = (0.35, 0.25)
        self._pair = _Pair(look)
        self._pair.moved.connect(self._lamp)
        self._says, self._slider = label("", "caption"), Slider()
        self._slider.setRange(0, 100)
        self._slider.setToolTip(tr("How full, how strong or how high: what the preview shows"))
        self._slider.setValue(62)
        self._slider.setFixedWidth(150)
        self._slider.valueChanged.connect(lambda _: self._show())
        row = QHBoxLayout()
        row.setContentsMargins(14, 3, 14, 3)
        row.setSpacing(12)
        row.addWidget(self._slider)
        row.addWidget(self._says)
        row.addStretch(1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._pair, 1)
        column.addLayout(row)

    def show_content(self, content: PictureContent) -> None:
        """Show the role's preview of both sides."""
        self._scene = content.scene
        self._pair.images = [], []
        if content.scene is not None:
            self._slider.setVisible(content.scene.kind in _AMOUNTS)
            self._slider.setAccessibleName(tr(_AMOUNTS.get(content.scene.kind, "")))
            self._show()

    def _lamp(self, x: float, y: float) -> None:
        if self._scene is not None and self._scene.kind == "normals":
            self._place = x, y
            self._show()

    def _show(self) -> None:
        scene = self._scene
        if scene is None:
            return
        amount, place = self._slider.value() / 100, self._place
        self.wanted.emit(lambda: (_images(scene, 0, amount, place), _images(scene, 1, amount, place)))
        self._pair.names = [f"{name}  {picture.width} × {picture.height}" for name, picture, _ in scene.sizes]
        self._pair.keep_out = scene.keep_out
        self._says.setText(
            tr(
                {
                    "gauge": f"{amount:.0%} filled, with its glow",
                    "glow": f"{amount:.0%} of its strength, over what it lights",
                    "normals": "move the mouse: the lamp follows; the slider lifts it",
                    "tint": "multiplied with the colours that the game uses",
                    "sizes": "the same emblem at all its sizes, in proportion",
                    "badge": "inside the dashes the game draws something of its own",
                }[scene.kind]
            )
        )

    def show_images(self, images: tuple[list[QImage], list[QImage]]) -> None:
        """Show what was asked for with `wanted`."""
        self._pair.images = images
        self._pair.update()


def _images(scene: Scene, side: int, amount: float, place: tuple[float, float]) -> list[QImage]:
    return [to_image(picture) for picture in scene.shown(side, amount, place)]
