"""Both animations, playing in step: with the frames around faintly behind, the line that feet stand on, a place to stop."""

from __future__ import annotations

import math

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QCheckBox, QComboBox, QHBoxLayout, QSlider, QVBoxLayout, QWidget

from furnel.desktop.actions import shortcut_of, with_key
from furnel.desktop.fit.sheet_content import SheetContent
from furnel.desktop.imaging import paint_checks
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import as_panel, button, label
from furnel.desktop.widgets.icons import give_icon
from furnel.desktop.widgets.steady import Choice, Slider
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.sprites import Animation

_FAINT = 0.28
_SPEEDS = 1, 30


class _Stage(QWidget):
    """One animation's frame, as large as whole pixels allow."""

    def __init__(self, look: Look, word: str, role: str) -> None:
        super().__init__()
        self._look, self._word, self._role = look, word, role
        self.image: QImage | None = None
        self.parts, self.others = list[QRectF](), list[QRectF]()
        self.floor: float | None = None
        self.middle: float | None = None
        self.setMinimumHeight(110)
        self.setAccessibleName(tr(f"{word}, playing"))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("window"))
        if self.image is not None and self.parts and not self.parts[0].isEmpty():
            across = math.ceil(math.sqrt(len(self.parts)))
            down = -(-len(self.parts) // across)
            wide, high = (self.width() - 24) / across, (self.height() - 34) / down
            for number, part in enumerate(self.parts):
                left, top = 12 + number % across * wide, 24 + number // across * high
                self._paint(painter, self.image, part, QRectF(left, top, wide, high))
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(self._look.colour(self._role))
        painter.drawText(QPointF(10, 17), tr(self._word))

    def _paint(self, painter: QPainter, image: QImage, part: QRectF, room: QRectF) -> None:
        scale = min(room.width() / part.width(), room.height() / part.height())
        scale = float(int(scale + 0.05)) if scale >= 1 else scale
        box = QRectF(0, 0, part.width() * scale, part.height() * scale)
        box.moveCenter(QPointF(round(room.center().x()), round(room.center().y())))
        paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 8)
        painter.setOpacity(_FAINT)
        for other in self.others:
            painter.drawImage(box, image, other)
        painter.setOpacity(1.0)
        painter.drawImage(box, image, part)
        painter.setPen(QPen(self._look.colour("tarn", 0.8), 1, Qt.PenStyle.DashLine))
        if self.floor is not None:
            y = box.top() + self.floor * scale
            painter.drawLine(QPointF(box.left() - 8, y), QPointF(box.right() + 8, y))
        if self.middle is not None:
            x = box.left() + self.middle * scale
            painter.drawLine(QPointF(x, box.bottom() - 10), QPointF(x, box.bottom() + 8))


class Playing(QWidget):
    """The stages and what moves them. `turned` tells which cell is seen now."""

    turned = pyqtSignal(int)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._content: SheetContent | None = None
        self._images: tuple[QImage, QImage] | None = None
        self._step, self._way = 0, 1
        self._stages = _Stage(look, "original", "tarn"), _Stage(look, "yours", "ember")
        self._plays = False
        self._clock = timer(self, self._advance, repeats=True)
        self._run = Choice()
        self._run.setAccessibleName(tr("Animation"))
        self._run.activated.connect(lambda _: self._begin())
        self._play = button("Pause", with_key("Stop and go on", "hear"), "plain")
        self._play.setShortcut(shortcut_of("hear"))
        self._play.clicked.connect(self._turn)
        back, on = button("", "One frame back", "plain"), button("", "One frame on", "plain")
        for press, name in ((back, "back"), (on, "on"), (self._play, "pause")):
            give_icon(press, look, name)
        back.clicked.connect(lambda: self.go(-1))
        on.clicked.connect(lambda: self.go(1))
        self._scrub, self._speed = Slider(), Slider()
        self._scrub.setAccessibleName(tr("Frame"))
        self._scrub.setToolTip(tr("Frame by frame"))
        self._scrub.sliderMoved.connect(self._scrubbed)
        self._speed.setRange(*_SPEEDS)
        self._speed.setAccessibleName(tr("Frames a second"))
        self._speed.setToolTip(tr("Frames a second"))
        self._speed.valueChanged.connect(self._set_speed)
        self._rate = label("", "caption")
        self._rate.setMinimumWidth(
            self._rate.fontMetrics().horizontalAdvance(tr(f"{_SPEEDS[1]} a second")) + 4
        )
        self._make_boxes()
        panel = as_panel(QWidget(), name="panel")
        bar = QVBoxLayout(panel)
        bar.setContentsMargins(8, 6, 8, 6)
        bar.setSpacing(4)
        for parts in (
            (self._run,), (self._play, back, self._scrub, on), (self._speed, self._rate)
        ):  # fmt: skip
            row = QHBoxLayout()
            row.setSpacing(6)
            for part in parts:
                row.addWidget(part, int(isinstance(part, QSlider | QComboBox)))
            bar.addLayout(row)
        boxes = WrappingRow(spacing=6)
        for box in (self._faint, self._both, self._line):
            boxes.addWidget(box)
        bar.addLayout(boxes)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(1)
        for stage in self._stages:
            column.addWidget(stage, 1)
        column.addWidget(panel)

    def _make_boxes(self) -> None:
        self._faint, self._both, self._line = (
            QCheckBox(tr("Trail")),
            QCheckBox(tr("To and fro")),
            QCheckBox(tr("Floor")),
        )
        self._faint.setToolTip(tr("The frames before and after, faintly behind"))
        self._both.setToolTip(tr("Play it to its end and back again"))
        self._line.setToolTip(tr("Where the original's feet stand"))
        self._line.setChecked(True)
        for box in (self._faint, self._line):
            box.toggled.connect(lambda _: self._show())

    def show_content(self, content: SheetContent, keep_view: bool) -> None:
        """Play a sheet's animations; the one that was seen goes on with `keep_view`."""
        self._content = content
        before = self._run.currentIndex() if keep_view else 0
        self._run.clear()
        self._run.addItems([tr(f"{run.name}, {len(run.cells)} frames") for run in content.runs])
        if len(content.runs) > 1:
            self._run.addItem(tr("all at once"))
        self._run.setCurrentIndex(min(max(before, 0), self._run.count() - 1))
        if not keep_view:
            if self._look.still:
                self._clock.stop()
            else:
                self._clock.start()
            self._say(not self._look.still)
            self._begin()
        self._scrub.setRange(0, len(self.run.cells) - 1)

    def show_images(self, images: tuple[QImage, QImage]) -> None:
        """The sheets as they are seen."""
        self._images = images
        self._show()

    @property
    def run(self) -> Animation:
        """The animation that plays; of all at once the longest."""
        assert self._content is not None
        runs = self._content.runs
        place = max(self._run.currentIndex(), 0)
        return runs[place] if place < len(runs) else max(runs, key=lambda run: len(run.cells))

    @property
    def cell(self) -> int:
        """The cell that is seen."""
        cells = self.run.cells
        return cells[self._step % len(cells)]

    def _say(self, playing: bool) -> None:
        """What the button does now."""
        self._plays = playing
        self._play.setText(tr("Pause" if playing else "Play"))
        give_icon(self._play, self._look, "pause" if playing else "play")

    def go(self, by: int) -> None:
        """Stop, and go some frames on or back."""
        self._clock.stop()
        self._say(False)
        if self._content is not None:
            self._step = (self._step + by) % len(self.run.cells)
            self._show()

    def show_cell(self, cell: int) -> None:
        """Stop at a cell, whatever animation it is of."""
        if self._content is None:
            return
        for number, run in enumerate(self._content.runs):
            if cell in run.cells:
                self._run.setCurrentIndex(number)
                self._speed.setValue(round(run.speed))
                self._scrub.setRange(0, len(run.cells) - 1)
                self._step = run.cells.index(cell)
                self.go(0)
                return

    def hideEvent(self, event: object) -> None:
        self._clock.stop()

    def showEvent(self, event: object) -> None:
        if self._content is not None and self._plays:
            self._clock.start()

    def _begin(self) -> None:
        self._step, self._way = 0, 1
        self._scrub.setRange(0, len(self.run.cells) - 1)
        self._speed.setValue(round(self.run.speed))
        self._set_speed(self._speed.value())
        self._show()

    def _turn(self) -> None:
        if self._clock.isActive():
            self._clock.stop()
        else:
            self._clock.start()
        self._say(self._clock.isActive())

    def _set_speed(self, rate: int) -> None:
        self._clock.setInterval(1000 // max(rate, 1))
        self._rate.setText(tr(f"{rate} a second"))

    def _scrubbed(self, step: int) -> None:
        self._step = step
        self.go(0)

    def _advance(self) -> None:
        if self._content is None:
            return
        last = len(self.run.cells) - 1
        if self._both.isChecked() and last > 0:
            if not 0 <= self._step + self._way <= last:
                self._way = -self._way
            self._step += self._way
        else:
            self._step = (self._step + 1) % (last + 1)
        self._show()

    def _show(self) -> None:
        content = self._content
        if content is None or self._images is None:
            return
        cells = self.run.cells
        self._scrub.blockSignals(True)
        self._scrub.setValue(self._step % len(cells))
        self._scrub.blockSignals(False)
        standing = content.standing(self.cell, yours=False)
        at_once = self._run.currentIndex() >= len(content.runs)
        shown = [run.cells[self._step % len(run.cells)] for run in content.runs] if at_once else [self.cell]
        around = (
            [cells[(self._step + by) % len(cells)] for by in (-1, 1)]
            if self._faint.isChecked() and not at_once
            else []
        )
        for yours, (stage, image) in enumerate(zip(self._stages, self._images, strict=True)):
            stage.image = image
            fits = not yours or content.fits
            whole = [QRectF(0, 0, image.width(), image.height())]
            stage.parts = [QRectF(*content.grid.box(cell)) for cell in shown] if fits else whole
            stage.others = [QRectF(*content.grid.box(cell)) for cell in around] if fits else []
            told = (
                standing
                if self._line.isChecked()
                and fits
                and not at_once
                and standing is not None
                and standing.height
                else None
            )
            stage.floor = told.floor if told is not None else None
            stage.middle = told.middle if told is not None else None
            stage.update()
        self.turned.emit(self.cell)
