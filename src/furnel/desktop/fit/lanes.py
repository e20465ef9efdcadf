"""The lanes of the sound bench: both sounds over one time axis, from the whole down to single samples."""

from __future__ import annotations

import math
from dataclasses import replace

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QFont,
    QImage,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPainterPath,
    QPaintEvent,
    QPen,
    QPolygonF,
    QWheelEvent,
)
from PyQt6.QtWidgets import QSizePolicy, QWidget

from furnel.desktop.fit.sound_content import CURVE_S, Lane, SoundContent
from furnel.desktop.language import tr, tr_all
from furnel.desktop.look import Look, font
from furnel.desktop.tiles import paint_waveform
from furnel.mods.shapes import Layer
from furnel.sound import to_decibels
from furnel.sound.words import length_text, loudness_text

_EDGE = 16
_HEAD, _RULER = 26, 24
_GRAB = 7
_CLOSEST_S = 24  # samples that a lane shows at least


class Lanes(QWidget):
    """Both waveforms with their loudness over them, loop brackets, beats and layers.

    `asked` tells where in time (seconds) was clicked, `looked` the span that is shown, `looped` a loop (frames of yours) that
    was dragged, `laid` a layer's step and where it is to begin.
    """

    KEYS_HERE = (
        ("+ and −, wheel", "closer and wider"),
        ("Home, double-click", "all of it"),
        ("Left, Right", "along the sound"),
        ("Drag", "an edge or a layer; below the sounds or with the middle button the view"),
    )

    asked = pyqtSignal(float)
    looked = pyqtSignal(float, float)
    looped = pyqtSignal(int, int)
    laid = pyqtSignal(int, float)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.content: SoundContent | None = None
        self.head_s = -1.0
        self.span = (0.0, 1.0)
        self.beats = True
        self.spectra: dict[str, tuple[tuple[float, float], QImage]] | None = None
        self._drag = ""
        self._drag_from = 0.0
        self._loop: tuple[int, int] | None = None
        self._layers: list[Layer] = []
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(240)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Lanes"))
        self.setToolTip(
            tr("Click to play from there; the wheel zooms, Shift and the wheel move along, Home shows all")
        )
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(640, 400)

    def show_content(self, content: SoundContent, keep_view: bool) -> None:
        """Show two sounds, with `keep_view` the same span as before."""
        self.content = content
        self._loop = content.yours.clip.loop
        self._layers = list(content.layers)
        if not keep_view or self.span[0] >= self.length:
            self.span = (0.0, self.length)
        self.spectra = {} if self.spectra is not None else None
        self.look_at(*self.span)

    @property
    def length(self) -> float:
        """The longer sound's length in seconds."""
        assert self.content is not None
        return max(self.content.original.clip.length_s, self.content.yours.clip.length_s, 1e-3)

    # the view

    def zoom(self, factor: float, at: float | None = None) -> None:
        """Show `factor` times as much, around a second."""
        if self.content is None:
            return
        start, end = self.span
        at = (start + end) / 2 if at is None else at
        least = _CLOSEST_S / max(self.content.original.clip.rate, self.content.yours.clip.rate)
        width = min(max((end - start) * factor, least), self.length)
        part = (at - start) / max(end - start, 1e-9)
        self.look_at(at - part * width, at - part * width + width)

    def show_all(self) -> None:
        """Show both sounds whole."""
        if self.content is not None:
            self.look_at(0.0, self.length)

    def look_at(self, start: float, end: float) -> None:
        """Show the span from second to second, as far as there is so much."""
        width = min(max(end - start, 1e-6), self.length)
        start = min(max(start, 0.0), self.length - width)
        self.span = (start, start + width)
        self.looked.emit(*self.span)
        self.update()

    def _x(self, seconds: float) -> float:
        start, end = self.span
        return _EDGE + (seconds - start) / max(end - start, 1e-9) * (self.width() - 2 * _EDGE)

    def _seconds(self, x: float) -> float:
        start, end = self.span
        return start + (x - _EDGE) / max(self.width() - 2 * _EDGE, 1) * (end - start)

    def snapped(self, seconds: float) -> float:
        """The nearest beat of yours when beats are shown and one is near, else the same second."""
        rhythm = self.content.yours.rhythm if self.content is not None and self.beats else None
        if rhythm is None:
            return seconds
        period = 60 / rhythm.tempo
        beat = rhythm.first_s + round((seconds - rhythm.first_s) / period) * period
        return beat if abs(self._x(beat) - self._x(seconds)) < 9 else seconds

    def lane_box(self, yours: bool) -> QRectF:
        """Where a side's waveform is drawn."""
        tall = (self.height() - _RULER) / 2
        return QRectF(_EDGE, (tall if yours else 0) + _HEAD, self.width() - 2 * _EDGE, tall - _HEAD - 6)

    # painting

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        look = self._look
        painter.fillRect(self.rect(), look.colour("window"))
        if self.content is None:
            return
        for lane, word, role in (
            (self.content.original, "original", "tarn"),
            (self.content.yours, "yours", "ember"),
        ):
            self._lane(painter, self.lane_box(word == "yours"), lane, word, role)
        self._paint_layers(painter)
        below = self.lane_box(True).bottom() + 6
        self._ruler(painter, below)
        if self.head_s >= 0 and self.span[0] <= self.head_s <= self.span[1]:
            painter.fillRect(QRectF(self._x(self.head_s), 0, 1.5, below), look.colour("selection"))

    def _lane(self, painter: QPainter, box: QRectF, lane: Lane, word: str, role: str) -> None:
        look = self._look
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour(role))
        painter.drawText(QPointF(_EDGE, box.top() - 9), tr(word))
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        facts, room = tr_all(_facts(lane)), self.width() - 2 * _EDGE - 62
        while len(facts) > 1 and painter.fontMetrics().horizontalAdvance("   ".join(facts)) > room:
            facts.pop()  # half a number would mislead
        painter.drawText(QPointF(_EDGE + 62, box.top() - 9), "   ".join(facts))
        painter.fillRect(box, look.colour("panel"))
        painter.save()
        painter.setClipRect(box)
        left, right = self._x(0), self._x(lane.clip.length_s)
        painter.fillRect(
            QRectF(right, box.top(), max(box.right() - right, 0), box.height()), look.colour("window", 0.55)
        )
        if self.beats and lane.rhythm is not None:
            self._beat_grid(painter, box, lane)
        spectrum = (self.spectra or {}).get(word)
        if self.spectra is not None:
            if spectrum is not None:
                (start, end), image = spectrum
                painter.drawImage(
                    QRectF(self._x(start), box.top(), self._x(end) - self._x(start), box.height()), image
                )
        else:
            painter.fillRect(QRectF(left, box.center().y(), right - left, 1), look.colour("hairline"))
            self._wave(painter, box, lane, role)
        self._curve(painter, box, lane)
        painter.restore()
        if (self.content is not None and self.content.loops) or lane.clip.loop is not None:
            self._brackets(painter, box, lane, word == "yours")

    def _wave(self, painter: QPainter, box: QRectF, lane: Lane, role: str) -> None:
        assert self.content is not None
        loudest = max(self.content.original.measures.peak, self.content.yours.measures.peak, 0.05)
        rate = lane.clip.rate
        start, end = (seconds * rate for seconds in self.span)
        columns = max(int(box.width()), 2)
        per = (end - start) / columns
        inner = box.adjusted(0, 3, 0, -3)
        if per >= 1:
            wave = lane.shape.columns(start, end, columns, lane.clip.samples if per < 64 else None)
            paint_waveform(painter, inner, wave, self._look.colour(role, 0.85), loudest)
            return
        first, last = max(int(start) - 1, 0), min(int(end) + 2, lane.clip.frames)
        middle, half = inner.center().y(), inner.height() / 2
        dots = per < 0.2
        for channel in range(min(lane.clip.channels, 2)):
            ink = self._look.colour(role, 0.95 if channel == 0 else 0.5)
            points = [
                QPointF(
                    self._x(number / rate),
                    middle - float(lane.clip.samples[number, channel]) / loudest * half,
                )
                for number in range(first, last)
            ]
            painter.setPen(QPen(ink, 1.3))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawPolyline(QPolygonF(points))
            if dots:
                painter.setBrush(ink)
                painter.setPen(Qt.PenStyle.NoPen)
                for point in points:
                    painter.drawEllipse(point, 2.6, 2.6)

    def _curve(self, painter: QPainter, box: QRectF, lane: Lane) -> None:
        """Short-term loudness: -50 LUFS at the bottom, 0 at the top."""
        if len(lane.curve) < 2:
            return
        first = max(int(self.span[0] / CURVE_S) - 1, 0)
        last = min(int(self.span[1] / CURVE_S) + 2, len(lane.curve))
        stride = max((last - first) // 600, 1)
        path = QPainterPath()
        for place in range(first, last, stride):
            height = min(max((float(lane.curve[place]) + 50) / 50, 0), 1)
            point = QPointF(self._x((place + 1) * CURVE_S), box.bottom() - height * box.height())
            path.lineTo(point) if path.elementCount() else path.moveTo(point)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(self._look.colour("text", 0.75), 1.4))
        painter.drawPath(path)

    def _beat_grid(self, painter: QPainter, box: QRectF, lane: Lane) -> None:
        rhythm = lane.rhythm
        assert rhythm is not None
        period = 60 / rhythm.tempo
        wide = period / max(self.span[1] - self.span[0], 1e-9) * box.width()
        every = 1 if wide >= 9 else rhythm.meter if wide * rhythm.meter >= 9 else rhythm.meter * 4
        number = max(math.ceil((self.span[0] - rhythm.first_s) / period), 0)
        number += -number % every
        while (seconds := rhythm.first_s + number * period) <= min(self.span[1], lane.clip.length_s):
            bar = number % rhythm.meter == 0
            ink = self._look.colour("hairline-strong" if bar else "hairline", 1.0 if bar else 0.8)
            painter.fillRect(QRectF(self._x(seconds), box.top(), 1, box.height()), ink)
            number += every

    def layer_box(self, number: int) -> QRectF:
        """Where a layer's block is drawn, over the lower edge of yours."""
        box, layer = self.lane_box(True), self._layers[number]
        left, right = self._x(layer.at_s), self._x(layer.at_s + layer.length_s)
        return QRectF(left, box.bottom() - 20 - 19 * (number % 3), max(right - left, 6), 17)

    def _paint_layers(self, painter: QPainter) -> None:
        look = self._look
        painter.setFont(font(10))
        for number, layer in enumerate(self._layers):
            box = self.layer_box(number).intersected(self.lane_box(True))
            if box.isEmpty():
                continue
            painter.setPen(QPen(look.colour("ember"), 1))
            painter.setBrush(look.colour("raised", 0.92))
            painter.drawRoundedRect(box, 3, 3)
            painter.setPen(look.colour("text"))
            words = painter.fontMetrics().elidedText(
                layer.name, Qt.TextElideMode.ElideRight, int(box.width()) - 10
            )
            painter.drawText(box.adjusted(6, 0, -4, 0), Qt.AlignmentFlag.AlignVCenter, words)

    def _brackets(self, painter: QPainter, box: QRectF, lane: Lane, yours: bool) -> None:
        loop = self._loop if yours else lane.clip.loop
        start, end = loop or (0, lane.clip.frames)
        painter.setPen(QPen(self._look.colour("text"), 2))
        for frame, turn in ((start, 7), (end, -7)):
            x = self._x(frame / lane.clip.rate)
            if not box.left() - 1 <= x <= box.right() + 1:
                continue
            painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
            painter.drawLine(QPointF(x, box.top() + 1), QPointF(x + turn, box.top() + 1))
            painter.drawLine(QPointF(x, box.bottom() - 1), QPointF(x + turn, box.bottom() - 1))

    def _ruler(self, painter: QPainter, y: float) -> None:
        start, end = self.span
        steps = (
            1e-4,
            2e-4,
            5e-4,
            1e-3,
            2e-3,
            5e-3,
            0.01,
            0.02,
            0.05,
            0.1,
            0.2,
            0.5,
            1,
            2,
            5,
            10,
            30,
            60,
            300,
            600,
            1800,
            1e9,
        )
        step = next(step for step in steps if (end - start) / step <= 12)
        painter.fillRect(QRectF(0, y, self.width(), 1), self._look.colour("hairline"))
        painter.setFont(font(10))
        for number in range(math.ceil(start / step - 1e-9), int(end / step + 1e-9) + 1):
            x = self._x(number * step)
            painter.fillRect(QRectF(x, y, 1, 5), self._look.colour("hairline-strong"))
            painter.setPen(self._look.colour("quiet"))
            if x < self.width() - 44:
                painter.drawText(QPointF(x + 4, y + 14), _time(number * step, step))

    # mouse and keys

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.content is None:
            return
        at = event.position()
        edge = self._edge_near(at)
        if (layer := self._layer_at(at)) >= 0:
            self._drag, self._drag_from = f"layer {layer}", self._seconds(at.x()) - self._layers[layer].at_s
        elif edge:
            self._drag = edge
        elif event.button() == Qt.MouseButton.MiddleButton or at.y() > self.lane_box(True).bottom() + 4:
            self._drag, self._drag_from = "move", self._seconds(at.x())
        else:
            self.asked.emit(min(max(self.snapped(self._seconds(at.x())), 0.0), self.length))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self.content is None:
            return
        at = event.position()
        if not self._drag:
            over = self._edge_near(at)
            self.setCursor(Qt.CursorShape.SizeHorCursor if over else Qt.CursorShape.ArrowCursor)
        elif self._drag == "move":
            shift = self._drag_from - self._seconds(at.x())
            self.look_at(self.span[0] + shift, self.span[1] + shift)
        elif self._drag.startswith("layer"):
            number = int(self._drag.split()[1])
            start = max(self.snapped(self._seconds(at.x()) - self._drag_from), 0.0)
            self._layers[number] = replace(self._layers[number], at_s=start)
            self.update()
        else:
            clip = self.content.yours.clip
            frame = round(min(max(self.snapped(self._seconds(at.x())), 0.0), clip.length_s) * clip.rate)
            start, end = self._loop or (0, clip.frames)
            least = max(clip.rate // 50, 2)
            if self._drag == "start":
                self._loop = (min(frame, end - least), end)
            else:
                self._loop = (start, max(frame, start + least))
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        drag, self._drag = self._drag, ""
        if drag in ("start", "end") and self._loop is not None:
            self.looped.emit(*self._loop)
        elif drag.startswith("layer"):
            layer = self._layers[int(drag.split()[1])]
            self.laid.emit(layer.place, layer.at_s)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self.show_all()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is None or self.content is None:
            return
        turn = event.angleDelta().y() or event.angleDelta().x()
        if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            shift = -turn / 120 * 0.12 * (self.span[1] - self.span[0])
            self.look_at(self.span[0] + shift, self.span[1] + shift)
        else:
            self.zoom(0.8 ** (turn / 120), self._seconds(event.position().x()))
        event.accept()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self.content is None:
            return
        key, wide = event.key(), self.span[1] - self.span[0]
        if key in (Qt.Key.Key_Plus, Qt.Key.Key_Equal):
            self.zoom(0.5)
        elif key == Qt.Key.Key_Minus:
            self.zoom(2.0)
        elif key == Qt.Key.Key_Home:
            self.show_all()
        elif key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            shift = wide * (0.15 if key == Qt.Key.Key_Right else -0.15)
            self.look_at(self.span[0] + shift, self.span[1] + shift)
        else:
            super().keyPressEvent(event)

    def _layer_at(self, at: QPointF) -> int:
        return next((n for n in range(len(self._layers)) if self.layer_box(n).contains(at)), -1)

    def _edge_near(self, at: QPointF) -> str:
        """The loop bracket of yours under the mouse."""
        if self.content is None or not (self.content.loops or self._loop):
            return ""
        if not self.lane_box(True).adjusted(-_GRAB, 0, _GRAB, 0).contains(at):
            return ""
        clip = self.content.yours.clip
        start, end = self._loop or (0, clip.frames)
        for name, frame in (("start", start), ("end", end)):
            if abs(self._x(frame / clip.rate) - at.x()) <= _GRAB:
                return name
        return ""


def _facts(lane: Lane) -> list[str]:
    out = [lane.label, length_text(lane.clip.length_s), loudness_text(lane.measures.loudness)]
    if lane.measures.true_peak > 0:
        out.append(f"{to_decibels(lane.measures.true_peak):.1f} dBTP")
    if lane.rhythm is not None:
        out.append(f"{lane.rhythm.tempo:.4g} bpm")
    return out


def _time(seconds: float, step: float) -> str:
    if step >= 60 or seconds >= 60:
        minutes, rest = divmod(round(seconds, 6), 60)
        return f"{int(minutes)}:{rest:02.0f}" if step >= 1 else f"{int(minutes)}:{rest:06.3f}"
    if step >= 0.05:
        return f"{seconds:g} s" if step >= 1 else f"{seconds:.2f} s"
    return f"{seconds:.4f} s" if step < 1e-3 else f"{seconds:.3f} s"
