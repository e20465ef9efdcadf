"""The sheet bench: both sheets with their grid, and both animations playing in step."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QFont, QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QSlider, QVBoxLayout, QWidget

from furnel.desktop.actions import key_of, with_key
from furnel.desktop.fit.bench import Bench, BenchType
from furnel.desktop.fit.picture_content import PictureContent, Side, load_pictures
from furnel.desktop.imaging import paint_checks, to_image
from furnel.desktop.look import Look, font
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import as_panel, button, label
from furnel.images import compose

_SHOWN = "tinted"  # the image that the sheet bench keeps for itself


class _Sheets(QWidget):
    """Both sheets, one over the other, with the cell that is playing outlined."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.content: PictureContent | None = None
        self.frame = 0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setAccessibleName("Sheets")

    def sizeHint(self) -> QSize:
        return QSize(600, 260)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("stage"))
        if self.content is None:
            return
        half = self.height() / 2
        self._paint(painter, QRectF(0, 0, self.width(), half), self.content.original, "original", "tarn")
        self._paint(painter, QRectF(0, half, self.width(), half), self.content.yours, "yours", "ember")

    def _paint(self, painter: QPainter, area: QRectF, side: Side, word: str, role: str) -> None:
        assert self.content is not None
        width, height = side.size
        inner = area.adjusted(24, 30, -24, -12)
        scale = min(inner.width() / width, inner.height() / height)
        scale = float(int(scale)) if scale >= 1 else scale
        box = QRectF(
            inner.center().x() - width * scale / 2,
            inner.center().y() - height * scale / 2,
            width * scale,
            height * scale,
        )
        paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 8)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, scale < 1)
        painter.drawImage(box, side.image(0, _SHOWN))
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(self._look.colour(role))
        painter.drawText(QPointF(box.left(), box.top() - 9), word)
        cell = self.content.cell
        if (
            cell is None
            or side.size[0] % cell[0]
            or side.size[1] % cell[1]
            or side.size != self.content.original.size
        ):
            return
        painter.setPen(QPen(self._look.colour("window", 0.55), 1))
        for column in range(width // cell[0] + 1):
            x = box.left() + column * cell[0] * scale
            painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
        for row in range(height // cell[1] + 1):
            y = box.top() + row * cell[1] * scale
            painter.drawLine(QPointF(box.left(), y), QPointF(box.right(), y))
        row, column = divmod(self.frame, width // cell[0])
        painter.setPen(QPen(self._look.colour("selection"), 2))
        painter.drawRect(
            QRectF(
                box.left() + column * cell[0] * scale,
                box.top() + row * cell[1] * scale,
                cell[0] * scale,
                cell[1] * scale,
            )
        )


class _Stage(QWidget):
    """One animation's current frame, as large as whole pixels allow."""

    def __init__(self, look: Look, word: str, role: str) -> None:
        super().__init__()
        self._look, self._word, self._role = look, word, role
        self.image: QImage | None = None
        self.part = QRectF()
        self.setMinimumHeight(150)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("window"))
        if self.image is not None and not self.part.isEmpty():
            scale = min((self.width() - 40) / self.part.width(), (self.height() - 44) / self.part.height())
            scale = float(int(scale + 0.1)) if scale >= 1 else scale
            width, height = self.part.width() * scale, self.part.height() * scale
            box = QRectF((self.width() - width) / 2, (self.height() - height) / 2 + 8, width, height)
            paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 8)
            painter.drawImage(box, self.image, self.part)
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(self._look.colour(self._role))
        painter.drawText(QPointF(14, 20), self._word)


class SheetBench(Bench):
    """Compares two sheets, still and moving."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._content: PictureContent | None = None
        self._sheets = _Sheets(look)
        self._stages = (_Stage(look, "original, playing", "tarn"), _Stage(look, "yours, playing", "ember"))
        self._clock = timer(self, self._advance, repeats=True)
        self._frame = 0
        bar = as_panel(QWidget(), name="stagebar")
        row = QHBoxLayout(bar)
        row.setContentsMargins(10, 4, 14, 4)
        self._play = button("Pause", with_key("Stop and go on", "hear"), "plain")
        self._play.setShortcut(key_of("hear"))
        self._play.clicked.connect(self._turn)
        self._step = button("Next frame", "One frame on", "plain")
        self._step.clicked.connect(self._advance)
        self._speed = QSlider(Qt.Orientation.Horizontal)
        self._speed.setRange(2, 30)
        self._speed.setValue(8)
        self._speed.setFixedWidth(110)
        self._speed.setToolTip("Frames a second")
        self._speed.setAccessibleName("Frames a second")
        self._speed.valueChanged.connect(self._set_speed)
        self._tint = button(
            "As stored",
            "Show it in the colours that the game multiplies it with, one after the other",
            "plain",
        )
        self._tint.clicked.connect(self._next_tint)
        self._tinted = -1  # as stored
        self._says, self._rate = label("", "caption"), label("", "caption")
        for part in (self._play, self._step, self._speed, self._rate, self._tint):
            row.addWidget(part)
        row.addStretch(1)
        row.addWidget(self._says)
        moving = QHBoxLayout()
        moving.setSpacing(1)
        for stage in self._stages:
            moving.addWidget(stage, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(bar)
        column.addWidget(self._sheets, 4)
        column.addLayout(moving, 5)
        self._set_speed(8)

    def show_content(self, content: PictureContent, keep_view: bool) -> None:
        """Show two sheets; the animation starts."""
        self._content = self._sheets.content = content
        if not keep_view:
            self._frame = 0
            self._tinted = -1
        self._tint.setVisible(bool(self._tints))
        self._dress()
        cell = content.cell or (0, 0)
        self._says.setText(f"{content.frames} frames of {cell[0]} × {cell[1]}, yours {content.yours_frames}")
        self._clock.start()
        self._play.setText("Pause")
        self._show()

    @property
    def _tints(self) -> tuple[tuple[int, int, int], ...]:
        scene = self._content.scene if self._content is not None else None
        return scene.tints if scene is not None else ()

    def _next_tint(self) -> None:
        self._tinted = (self._tinted + 2) % (len(self._tints) + 1) - 1
        self._dress()
        self._show()

    def _dress(self) -> None:
        """Make the images of the tint that is chosen; sheets are small."""
        if self._content is None:
            return
        self._tint.setText(
            "As stored" if self._tinted < 0 else f"Tint {self._tinted + 1} of {len(self._tints)}"
        )
        for side in (self._content.original, self._content.yours):
            side.images[0, _SHOWN] = side.image(0, "RGB")
            if self._tinted >= 0:
                side.images[0, _SHOWN] = to_image(compose.tinted(side.levels[0], self._tints[self._tinted]))

    def hideEvent(self, event: object) -> None:
        self._clock.stop()

    def showEvent(self, event: object) -> None:
        if self._content is not None:
            self._clock.start()

    def _turn(self) -> None:
        if self._clock.isActive():
            self._clock.stop()
        else:
            self._clock.start()
        self._play.setText("Pause" if self._clock.isActive() else "Play")

    def _set_speed(self, rate: int) -> None:
        self._clock.setInterval(1000 // rate)
        self._rate.setText(f"{rate} a second")

    def _advance(self) -> None:
        self._frame += 1
        self._show()

    def _show(self) -> None:
        content = self._content
        if content is None or content.cell is None:
            return
        sides = ((content.original, content.frames), (content.yours, content.yours_frames))
        for stage, (side, count) in zip(self._stages, sides, strict=True):
            columns = max(side.size[0] // content.cell[0], 1)
            row, column = divmod(self._frame % max(count, 1), columns)
            stage.image = side.image(0, _SHOWN)
            fits = count > 0 and side.size == content.original.size
            part = QRectF(column * content.cell[0], row * content.cell[1], *content.cell)
            stage.part = part if fits else QRectF(0, 0, *side.size)
            stage.update()
        self._sheets.frame = self._frame % max(content.frames, 1)
        self._sheets.update()


SHEET_BENCH = BenchType(("sheet",), lambda hands: SheetBench(hands.look), load_pictures)
