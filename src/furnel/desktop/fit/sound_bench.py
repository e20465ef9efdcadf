"""The sound bench: original lane over your lane on one time axis, heard one against the other at equal loudness."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QMouseEvent, QPainter, QPainterPath, QPaintEvent, QPen
from PyQt6.QtWidgets import QButtonGroup, QCheckBox, QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from furnel.desktop.fit.content import Lane, SoundContent
from furnel.desktop.look import Look, font
from furnel.desktop.playback import Player
from furnel.desktop.tiles import paint_waveform
from furnel.desktop.widgets.basics import as_panel, button, label
from furnel.sound import Clip, with_gain

_SEAM_S = 1.0


class _Lanes(QWidget):
    """Both waveforms with their loudness over them. `asked` tells where in time (seconds) was clicked."""

    asked = pyqtSignal(float)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.content: SoundContent | None = None
        self.head_s = -1.0
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Expanding)
        self.setMinimumHeight(220)
        self.setAccessibleName("Lanes")
        self.setToolTip("Click to play from there")
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(640, 400)

    def _length(self) -> float:
        assert self.content is not None
        return max(self.content.original.clip.length_s, self.content.yours.clip.length_s, 1e-3)

    def _x(self, seconds: float) -> float:
        return 16 + seconds / self._length() * (self.width() - 32)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), self._look.colour("window"))
        if self.content is None:
            return
        tall = (self.height() - 30) / 2
        self._ruler(painter, self.height() - 24)
        self._lane(painter, QRectF(0, 0, self.width(), tall), self.content.original, "original", "tarn")
        self._lane(painter, QRectF(0, tall, self.width(), tall), self.content.yours, "yours", "ember")
        painter.fillRect(QRectF(0, tall, self.width(), 1), self._look.colour("hairline"))
        if self.head_s >= 0:
            painter.fillRect(
                QRectF(self._x(self.head_s), 0, 1.5, self.height() - 24), self._look.colour("selection")
            )

    def _lane(self, painter: QPainter, area: QRectF, lane: Lane, word: str, role: str) -> None:
        look = self._look
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour(role))
        painter.drawText(QPointF(16, area.top() + 20), word)
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        loud = f"{lane.loudness:.1f} LUFS" if math.isfinite(lane.loudness) else "silent"
        painter.drawText(QPointF(84, area.top() + 20), f"{lane.label}   {lane.clip.length_s:.2f} s   {loud}")
        left, right = self._x(0), self._x(lane.clip.length_s)
        box = QRectF(left, area.top() + 30, right - left, area.height() - 42)
        painter.fillRect(box, look.colour("panel"))
        painter.fillRect(QRectF(left, box.center().y(), box.width(), 1), look.colour("hairline"))
        assert self.content is not None
        loudest = max(self.content.original.clip.peak, self.content.yours.clip.peak, 0.05)
        paint_waveform(painter, box.adjusted(0, 4, 0, -4), lane.wave, look.colour(role, 0.85), loudest)
        self._curve(painter, box, lane)
        if self.content.loops:
            painter.setPen(QPen(look.colour("text"), 2))
            for x, turn in ((box.left() + 1, 7), (box.right() - 1, -7)):
                painter.drawLine(QPointF(x, box.top()), QPointF(x, box.bottom()))
                painter.drawLine(QPointF(x, box.top() + 1), QPointF(x + turn, box.top() + 1))
                painter.drawLine(QPointF(x, box.bottom() - 1), QPointF(x + turn, box.bottom() - 1))

    def _curve(self, painter: QPainter, box: QRectF, lane: Lane) -> None:
        if len(lane.curve) < 2:
            return
        height = np.clip((lane.curve + 50) / 50, 0, 1)
        path = QPainterPath()
        for place, value in enumerate(height):
            point = QPointF(
                box.left() + place / (len(height) - 1) * box.width(),
                box.bottom() - float(value) * box.height(),
            )
            path.lineTo(point) if place else path.moveTo(point)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(self._look.colour("text", 0.75), 1.4))
        painter.drawPath(path)

    def _ruler(self, painter: QPainter, y: float) -> None:
        length = self._length()
        step = next(s for s in (0.05, 0.1, 0.2, 0.5, 1, 2, 5, 10, 30, 60, 300, 1e9) if length / s <= 12)
        painter.fillRect(QRectF(0, y, self.width(), 1), self._look.colour("hairline"))
        painter.setFont(font(10))
        for number in range(int(length / step) + 1):
            x = self._x(number * step)
            painter.fillRect(QRectF(x, y, 1, 5), self._look.colour("hairline-strong"))
            painter.setPen(self._look.colour("quiet"))
            if x < self.width() - 40:
                painter.drawText(QPointF(x + 4, y + 14), f"{number * step:g} s")

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self.content is not None:
            self.asked.emit(
                min(max((event.position().x() - 16) / (self.width() - 32), 0), 1) * self._length()
            )


class SoundBench(QWidget):
    """Compares two sounds by eye and by ear."""

    silent = pyqtSignal()

    def __init__(self, look: Look, player: Player) -> None:
        super().__init__()
        self._player = player
        self._content: SoundContent | None = None
        self._lanes = _Lanes(look)
        self._side = "original"
        self._offset = self._length_s = 0.0
        bar = as_panel(QWidget(), name="stagebar")
        row = QHBoxLayout(bar)
        row.setContentsMargins(10, 4, 14, 4)
        row.setSpacing(4)
        self._play = button("Play", "Play or stop  (Space)", "plain")
        self._play.setShortcut("Space")
        self._play.clicked.connect(self._turn)
        row.addWidget(self._play)
        row.addSpacing(10)
        self.sides = QButtonGroup(self)
        for word in ("original", "yours"):
            part = button(
                word,
                f"Hear {'the original' if word == 'original' else 'yours'}; switches in mid-play  (Tab then Space)",
                "plain",
            )
            part.setCheckable(True)
            part.setChecked(word == "original")
            part.clicked.connect(lambda _=False, word=word: self.hear(word))
            self.sides.addButton(part)
            row.addWidget(part)
        self._equal = QCheckBox("at equal loudness")
        self._equal.setChecked(True)
        self._equal.setToolTip("Turns the louder one down, so that you compare the sound and not the level")
        row.addSpacing(10)
        row.addWidget(self._equal)
        self._seam = button("Hear the seam", "The last second and the first, as the loop joins them", "plain")
        self._seam.clicked.connect(self._hear_seam)
        row.addWidget(self._seam)
        row.addStretch(1)
        self._says = label("", "caption")
        row.addWidget(self._says)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(bar)
        column.addWidget(self._lanes, 1)
        self._lanes.asked.connect(self._play_from)
        player.started.connect(lambda: self._play.setText("Stop"))
        player.moved.connect(self._moved)
        player.stopped.connect(self._stopped)

    def show_content(self, content: SoundContent, keep_view: bool) -> None:
        """Show two sounds."""
        self._content = self._lanes.content = content
        self._seam.setVisible(content.loops)
        self._says.setText("" if self._player.device else "no sound device: everything but hearing works")
        self._lanes.update()

    def hear(self, side: str) -> None:
        """Choose what is heard; in mid-play it goes on from the same moment."""
        going, at = self._player.playing, max(self._lanes.head_s, 0.0)
        self._side = side
        for part in self.sides.buttons():
            part.setChecked(part.text() == side)
        if going:
            self._play_from(at)

    def _lane(self) -> Lane | None:
        if self._content is None:
            return None
        return self._content.original if self._side == "original" else self._content.yours

    def _turn(self) -> None:
        if self._player.playing:
            self._player.stop()
        else:
            self._play_from(0.0)

    def _play_from(self, seconds: float) -> None:
        lane = self._lane()
        if lane is not None:
            gain = self._gain(lane)
            self._offset, self._length_s = 0.0, lane.clip.length_s
            self._start(
                f"{id(lane)} {gain}", lambda: with_gain(lane.clip, gain)[0], min(seconds, lane.clip.length_s)
            )

    def _hear_seam(self) -> None:
        lane = self._lane()
        if lane is not None:
            clip, gain = lane.clip, self._gain(lane)
            around = min(int(_SEAM_S * clip.rate), clip.frames)
            self._offset, self._length_s = clip.length_s - around / clip.rate, 2 * around / clip.rate
            seam = Clip(np.concatenate([clip.samples[-around:], clip.samples[:around]]), clip.rate)
            self._start(f"{id(lane)} {gain} seam", lambda: with_gain(seam, gain)[0], 0.0)

    def _start(self, name: str, make: Callable[[], Clip], start_s: float) -> None:
        if not self._player.play(name, make, start_s):
            self.silent.emit()

    def _gain(self, lane: Lane) -> float:
        """What brings a lane down to the quieter one's loudness, in dB; 0 when they are not to be levelled."""
        assert self._content is not None
        levels = (self._content.original.loudness, self._content.yours.loudness)
        if not self._equal.isChecked() or not all(math.isfinite(level) for level in levels):
            return 0.0
        return min(levels) - lane.loudness

    def _moved(self, fraction: float) -> None:
        if self.isVisible():
            seconds = self._offset + fraction * self._length_s
            lane = self._lane()
            self._lanes.head_s = (
                seconds % lane.clip.length_s if lane is not None and self._offset else seconds
            )
            self._lanes.update()

    def _stopped(self) -> None:
        self._play.setText("Play")
        self._lanes.head_s = -1.0
        self._lanes.update()
