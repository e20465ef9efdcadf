"""The whole source below the lanes, and which part of it is taken."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QBrush, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from furnel.desktop.fit.sound_content import SoundContent
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.tiles import paint_waveform
from furnel.sound.words import length_text

_EDGE, _HIGH = 16, 52


class SourceStrip(QWidget):
    """A source as a whole. `taken` tells from which second on it is to be taken, when the part is dragged or moved by keys."""

    taken = pyqtSignal(float)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._content: SoundContent | None = None
        self._used = (0.0, 0.0)
        self._grip: float | None = None
        self.setFixedHeight(_HIGH)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Source"))
        self.setToolTip(
            tr("The whole source, with the part that is taken: drag it, or move it with Left and Right")
        )
        look.changed.connect(self.update)

    def show_content(self, content: SoundContent) -> None:
        """Show a swap's source; nothing when it cannot be read."""
        self._content, self._used = content, content.used
        self.setVisible(content.source is not None)
        self.setAccessibleDescription(tr(self.said()))
        self.update()

    @property
    def _length(self) -> float:
        return (
            self._content.source.length_s
            if self._content is not None and self._content.source is not None
            else 0.0
        )

    def said(self) -> str:
        """How long the source is, and what trimming takes of it."""
        if self._content is None or self._content.source is None:
            return ""
        words = f"source  {length_text(self._length)}"
        cut = [
            f"{length_text(seconds)} {where}"
            for seconds, where in zip(self._content.trimmed, ("before", "behind"), strict=True)
            if seconds >= 0.005
        ]
        return f"{words}    trimming takes {' and '.join(cut)}" if cut else words

    def box(self) -> QRectF:
        """Where the source is drawn."""
        return QRectF(_EDGE, 18, self.width() - 2 * _EDGE, _HIGH - 24)

    def x_of(self, seconds: float) -> float:
        """Where a second of the source is drawn."""
        box = self.box()
        return box.left() + seconds / max(self._length, 1e-6) * box.width()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), look.colour("window"))
        painter.fillRect(QRectF(0, 0, self.width(), 1), look.colour("hairline"))
        if self._content is None or self._content.source is None:
            return
        wave, box = self._content.source.wave, self.box()
        painter.setFont(font(10))
        painter.setPen(look.colour("quiet"))
        painter.drawText(QPointF(_EDGE, 13), tr(self.said()))
        words = tr(f"{length_text(self._used[0])} to {length_text(self._used[1])} is taken")
        painter.drawText(QRectF(0, 2, self.width() - _EDGE, 14), Qt.AlignmentFlag.AlignRight, words)
        painter.fillRect(box, look.colour("panel"))
        paint_waveform(painter, box.adjusted(0, 2, 0, -2), wave, look.colour("ember", 0.3))
        before, behind = self._content.trimmed
        for start, end in ((0.0, before), (self._length - behind, self._length)):
            cut = QRectF(self.x_of(start), box.top(), self.x_of(end) - self.x_of(start), box.height())
            painter.fillRect(cut, QBrush(look.colour("hairline-strong"), Qt.BrushStyle.BDiagPattern))
        left = self.x_of(self._used[0])
        part = QRectF(left, box.top(), max(self.x_of(self._used[1]) - left, 3), box.height())
        painter.save()
        painter.setClipRect(part)
        painter.fillRect(box, look.colour("raised"))
        paint_waveform(painter, box.adjusted(0, 2, 0, -2), wave, look.colour("ember", 0.85))
        painter.restore()
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.setPen(QPen(look.colour("selection"), 1.2))
        painter.drawRect(part)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not self._length:
            return
        left, right = self.x_of(self._used[0]), self.x_of(self._used[1])
        inside = left <= event.position().x() <= right
        self._grip = event.position().x() - left if inside else (right - left) / 2
        self._move_to(event.position().x() - self._grip)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._grip is not None:
            self._move_to(event.position().x() - self._grip)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if self._grip is not None:
            self._grip = None
            self._tell()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        side = (
            {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0) if event is not None else 0
        )
        if side and self._length:
            self._move_to(self.x_of(self._used[0] + side * max(self._length / 200, 0.05)))
            self._tell()
        elif event is not None:
            super().keyPressEvent(event)

    def _move_to(self, x: float) -> None:
        box = self.box()
        wide = self._used[1] - self._used[0]
        start = min(
            max((x - box.left()) / max(box.width(), 1) * self._length, 0.0), max(self._length - wide, 0.0)
        )
        self._used = (start, start + wide)
        self.update()

    def _tell(self) -> None:
        if self._content is not None and abs(self._used[0] - self._content.used[0]) > 1e-3:
            self.taken.emit(self._used[0])
