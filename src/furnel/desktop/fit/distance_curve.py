"""How loud an event is from how far: a curve to drag, and a listener to hear it by."""

from __future__ import annotations

from dataclasses import replace

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget

from furnel.desktop.fit.sound_content import EventContent
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.texts import SoundEvent

PANEL_PX = 172
_GRAB = 12


class DistanceCurve(QWidget):
    """How loud an event is from how far: the game's in teal, yours in ember with handles, and a listener to move.

    `moved` tells of an event with other settings when a handle is let go, `listened` how loud the listener hears it.
    """

    moved = pyqtSignal(object)
    listened = pyqtSignal(float)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._content: EventContent | None = None
        self._event: SoundEvent | None = None
        self.listener = -1.0
        self._held_scale = 0.0
        self._drag = ""
        self.setFixedHeight(PANEL_PX)
        self.setMinimumWidth(300)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Distances"))
        self.setToolTip(
            tr(
                "Drag the corners: up and down for the volume, left and right for where it fades and falls silent. "
                "Drag the listener (Left, Right) to hear it from there. Up and Down set the volume, Shift or Alt with Left and "
                "Right the distances."
            )
        )
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(340, PANEL_PX)

    def show_event(self, content: EventContent) -> None:
        """Show an event; the listener stays where it was."""
        self._content, self._event = content, content.event
        self.setAccessibleDescription(tr(self.said()))
        if self.listener < 0:
            self.listener = round(self._most() * 0.3)
        self.update()

    def _most(self) -> float:
        assert self._content is not None and self._event is not None
        if self._held_scale:
            return self._held_scale
        ends = (self._content.game.silent_at or 0.0, self._event.silent_at or 0.0)
        return max(*ends, 10.0) * 1.2

    def _box(self) -> QRectF:
        return QRectF(40, 34, self.width() - 56, PANEL_PX - 62)

    def point(self, distance: float, gain: float) -> QPointF:
        """Where a distance and an amplitude are drawn."""
        box = self._box()
        return QPointF(
            box.left() + distance / self._most() * box.width(), box.bottom() - min(gain, 1.0) * box.height()
        )

    def _handles(self) -> dict[str, QPointF]:
        event = self._event
        if event is None or event.silent_at is None or event.fade_from is None:
            return {}
        volume = 1.0 if event.volume is None else event.volume
        return {"fade": self.point(event.fade_from, volume), "silent": self.point(event.silent_at, 0.0)}

    def paintEvent(self, _: QPaintEvent | None) -> None:
        painter, look, event = QPainter(self), self._look, self._event
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(QRectF(0, 12, 1, PANEL_PX - 24), look.colour("hairline"))
        if event is None or self._content is None:
            return
        box, unit = self._box(), self._content.unit
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(16, 21), tr("From how far it is heard"))
        if event.silent_at is None:
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, tr("The game does not say"))
            return
        painter.fillRect(box, look.colour("panel"))
        self._axes(painter, box, unit)
        for one, role, wide in ((self._content.game, "tarn", 1.6), (event, "ember", 2.0)):
            corners = [
                self.point(d, one.gain_at(d))
                for d in (0.0, one.fade_from or 0.0, one.silent_at or 0.0, self._most())
            ]
            if role == "ember":
                painter.setPen(Qt.PenStyle.NoPen)
                painter.setBrush(look.colour(role, 0.16))
                painter.drawPolygon(QPolygonF([*corners, box.bottomRight(), box.bottomLeft()]))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(look.colour(role), wide))
            painter.drawPolyline(QPolygonF(corners))
        painter.setPen(QPen(look.colour("window"), 1.5))
        painter.setBrush(look.colour("ember"))
        for point in self._handles().values():
            painter.drawEllipse(point, 5.5, 5.5)
        self._numbers(painter, box, unit)
        self._paint_listener(painter, box, unit)

    def said(self) -> str:
        """Both sides' numbers in words."""
        if self._content is None or self._event is None or self._event.silent_at is None:
            return "the game does not say"
        unit = self._content.unit
        return "; ".join(
            f"{side}: {one.gain_at(0):.0%}, fades from {one.fade_from or 0:g} {unit}, silent at {one.silent_at or 0:g} {unit}"
            for side, one in (("the game's", self._content.game), ("yours", self._event))
        )

    def _numbers(self, painter: QPainter, box: QRectF, unit: str) -> None:
        """Beside the corners what they say, yours above the line and the game's below it, where they differ."""
        assert self._content is not None and self._event is not None
        painter.setFont(font(10, QFont.Weight.Medium))
        mine = self._corners(self._event, unit)
        for corners, role, down in (
            (mine, "ember", -8),
            (self._corners(self._content.game, unit), "tarn", 15),
        ):
            painter.setPen(self._look.colour(role))
            for (point, words), (_, other) in zip(corners, mine, strict=True):
                if role == "tarn" and words == other:
                    continue
                wide = painter.fontMetrics().horizontalAdvance(words)
                left = min(max(point.x() - wide / 2, box.left() + 2), box.right() - wide - 2)
                y = min(point.y() + down, box.bottom() - (8 if role == "tarn" else 12))
                painter.drawText(QPointF(left, max(y, box.top() + 10)), words)

    def _corners(self, one: SoundEvent, unit: str) -> list[tuple[QPointF, str]]:
        """Where an event begins to fade and where it falls silent, each with what stands there."""
        fade, silent = one.fade_from or 0.0, one.silent_at or 0.0
        return [
            (self.point(fade, one.gain_at(0)), f"{fade:g} {unit}, {one.gain_at(0):.0%}"),
            (self.point(silent, 0.0), f"{silent:g} {unit}"),
        ]

    def _axes(self, painter: QPainter, box: QRectF, unit: str) -> None:
        look = self._look
        painter.setFont(font(10))
        for gain in (0.0, 0.5, 1.0):
            y = self.point(0, gain).y()
            painter.fillRect(QRectF(box.left(), y, box.width(), 1), look.colour("hairline"))
            painter.setPen(look.colour("quiet"))
            painter.drawText(
                QRectF(6, y - 8, 28, 16),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                f"{gain:.0%}",
            )
        step = next(step for step in (1, 2, 5, 10, 20, 50, 100, 200, 500, 1e6) if self._most() / step <= 7)
        for number in range(int(self._most() / step) + 1):
            x = self.point(number * step, 0).x()
            painter.fillRect(QRectF(x, box.bottom(), 1, 4), look.colour("hairline-strong"))
            painter.setPen(look.colour("quiet"))
            painter.drawText(
                QRectF(x - 24, box.bottom() + 5, 48, 14),
                Qt.AlignmentFlag.AlignCenter,
                f"{number * step:g} {unit}",
            )

    def _paint_listener(self, painter: QPainter, box: QRectF, unit: str) -> None:
        assert self._event is not None
        look, x = self._look, self.point(self.listener, 0).x()
        painter.fillRect(QRectF(x - 0.75, box.top(), 1.5, box.height()), look.colour("selection"))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(look.colour("selection"))
        painter.drawEllipse(QPointF(x, box.top() - 1), 4, 4)
        painter.setPen(look.colour("text"))
        painter.setFont(font(10))
        gain = self._event.gain_at(self.listener)
        words = tr(
            f"at {self.listener:.0f} {unit}: {gain:.0%}"
            if gain > 0
            else f"at {self.listener:.0f} {unit}: silent"
        )
        wide = painter.fontMetrics().horizontalAdvance(words)
        left = x + 8 if x + 10 + wide < box.right() else x - 8 - wide
        painter.drawText(QPointF(left, box.top() + 10), words)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._event is None or self._event.silent_at is None:
            return
        at = event.position()
        near = {name: (point - at).manhattanLength() for name, point in self._handles().items()}
        name = min(near, key=lambda one: near[one], default="")
        self._drag = name if name and near[name] <= _GRAB else "listener"
        self._held_scale = self._most()
        self.mouseMoveEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._event is None or not self._drag:
            return
        box, at, now = self._box(), event.position(), self._event
        distance = min(max((at.x() - box.left()) / box.width(), 0.0), 1.0) * self._most()
        if self._drag == "listener":
            self._listen(distance)
            return
        if self._drag == "fade":
            volume = min(max((box.bottom() - at.y()) / box.height(), 0.0), 1.0)
            fade = min(round(distance), (now.silent_at or 1.0) - 1)
            self._event = replace(now, fade_from=float(max(fade, 0)), volume=round(volume, 2))
        else:
            self._event = replace(now, silent_at=float(max(round(distance), (now.fade_from or 0.0) + 1)))
        self.listened.emit(self._event.gain_at(self.listener))
        self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        drag, self._drag = self._drag, ""
        self._held_scale = 0.0
        self.update()
        if drag in ("fade", "silent") and self._content is not None and self._event != self._content.event:
            self.moved.emit(self._event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and self._nudged(event):
            return
        move = (
            {Qt.Key.Key_Left: -1.0, Qt.Key.Key_Right: 1.0}.get(Qt.Key(event.key()), 0.0)
            if event is not None
            else 0.0
        )
        if move and self._event is not None:
            self._listen(min(max(self.listener + move, 0.0), self._most()))
        elif event is not None:
            super().keyPressEvent(event)

    def _nudged(self, event: QKeyEvent) -> bool:
        """Volume by Up and Down; with Shift, Left and Right move where it falls silent, with Alt where it begins to fade."""
        now, key, held = self._event, Qt.Key(event.key()), event.modifiers()
        if now is None or now.silent_at is None:
            return False
        side = {Qt.Key.Key_Left: -1.0, Qt.Key.Key_Right: 1.0}.get(key, 0.0)
        rise = {Qt.Key.Key_Down: -0.05, Qt.Key.Key_Up: 0.05}.get(key, 0.0)
        fade = now.fade_from or 0.0
        if rise:
            volume = (1.0 if now.volume is None else now.volume) + rise
            fresh = replace(now, volume=round(min(max(volume, 0.0), 1.0), 2))
        elif side and held & Qt.KeyboardModifier.ShiftModifier:
            fresh = replace(now, silent_at=max(now.silent_at + side, fade + 1))
        elif side and held & Qt.KeyboardModifier.AltModifier:
            fresh = replace(now, fade_from=min(max(fade + side, 0.0), now.silent_at - 1))
        else:
            return False
        self._event = fresh
        self.moved.emit(fresh)
        return True

    def _listen(self, distance: float) -> None:
        assert self._event is not None
        self.listener = distance
        self.listened.emit(self._event.gain_at(distance))
        self.update()
