"""The event under the lanes: its sounds side by side, and how loud it is heard from how far."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QContextMenuEvent,
    QDragEnterEvent,
    QDropEvent,
    QFont,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
)
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QSizePolicy, QWidget

from furnel.desktop.fit.sound_content import EventContent, Variation
from furnel.desktop.look import Look, font
from furnel.desktop.tiles import paint_waveform
from furnel.desktop.widgets.basics import as_panel
from furnel.mods.fit.sounds import length_text
from furnel.texts import SoundEvent

_CARD, _GAP, _HIGH = 104, 8, 172
_GRAB = 12


class _Sounds(QWidget):
    """The sounds of an event as cards; the last one takes files. `picked` tells which was clicked."""

    picked = pyqtSignal(str)
    dropped = pyqtSignal(object)
    removed = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._event: EventContent | None = None
        self._current = ""
        self._over = False
        self.setAcceptDrops(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Sounds of the event")
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(_HIGH)
        look.changed.connect(self.update)

    def show_event(self, event: EventContent, current: str) -> None:
        """Show an event's sounds, one of them on the bench."""
        self._event, self._current = event, current
        self.setToolTip(
            f"Drop {event.least} to {event.most} files here: they become the sounds that the event plays in turn. "
            "Backspace, or the right button, takes one out of the event."
        )
        self.update()

    def card(self, place: int) -> QRectF:
        """Where a sound's card is; the one behind the last takes files."""
        count = len(self._event.sounds) if self._event is not None else 0
        wide = min(_CARD, (self.width() - 28) / max(count + 1, 1) - _GAP)
        return QRectF(14 + place * (wide + _GAP), 34, wide, _HIGH - 48)

    def paintEvent(self, _: QPaintEvent | None) -> None:
        painter, look, event = QPainter(self), self._look, self._event
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if event is None:
            return
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(14, 21), event.event.name)
        wide = painter.fontMetrics().horizontalAdvance(event.event.name)
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        count, before = len(event.sounds), len(event.game.sounds)
        words = f"plays {count} sounds in turn" + (f", the game's has {before}" if count != before else "")
        painter.drawText(QPointF(14 + wide + 12, 21), words)
        for place, one in enumerate(event.sounds):
            self._paint_card(painter, self.card(place), one)
        box = self.card(count)
        painter.setBrush(Qt.BrushStyle.NoBrush)
        ink = look.colour("ember" if self._over else "hairline-strong")
        painter.setPen(QPen(ink, 1.2, Qt.PenStyle.DashLine))
        painter.drawRoundedRect(box, 4, 4)
        painter.setFont(font(11))
        painter.setPen(look.colour("text" if self._over else "quiet"))
        painter.drawText(
            box.adjusted(8, 8, -8, -8),
            Qt.AlignmentFlag.AlignCenter | Qt.TextFlag.TextWordWrap,
            "Drop all takes here",
        )

    def _paint_card(self, painter: QPainter, box: QRectF, one: Variation) -> None:
        look = self._look
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(look.colour("raised"))
        painter.drawRoundedRect(box, 4, 4)
        wave = QRectF(box.left() + 8, box.top() + 6, box.width() - 16, box.height() - 44)
        upper, lower = wave, wave
        if one.original is not None and one.yours is not None:
            upper = QRectF(wave.left(), wave.top(), wave.width(), wave.height() / 2 - 2)
            lower = QRectF(wave.left(), wave.center().y() + 2, wave.width(), wave.height() / 2 - 2)
        if one.original is not None:
            paint_waveform(painter, upper, one.original, look.colour("tarn", 0.85))
        if one.yours is not None:
            paint_waveform(painter, lower, one.yours, look.colour("ember", 0.9))
        painter.setFont(font(11))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(box.left() + 8, box.bottom() - 22), str(self._number(one)))
        painter.setFont(font(10))
        painter.setPen(look.colour("quiet"))
        state = "new" if one.original is None else "" if one.yours is not None else "game's"
        painter.drawText(QPointF(box.left() + 8, box.bottom() - 8), length_text(one.length_s))
        wide = painter.fontMetrics().horizontalAdvance(state)
        painter.drawText(QPointF(box.right() - 8 - wide, box.bottom() - 22), state)
        if one.path == self._current:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(look.colour("selection"), 1.4))
            painter.drawRoundedRect(box, 4, 4)

    def _number(self, one: Variation) -> int:
        return self._event.sounds.index(one) + 1 if self._event is not None else 0

    def _at(self, point: QPointF) -> str:
        sounds = self._event.sounds if self._event is not None else ()
        return next((one.path for place, one in enumerate(sounds) if self.card(place).contains(point)), "")

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        path = self._at(event.position()) if event is not None else ""
        if path:
            self.picked.emit(path)

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        path = self._at(QPointF(event.pos())) if event is not None else ""
        if event is not None and path:
            menu = QMenu(self)
            entry = menu.addAction("Take it out of the event")
            assert entry is not None
            entry.triggered.connect(lambda: self.removed.emit(path))
            menu.exec(event.globalPos())

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self._event is None:
            return
        paths = [one.path for one in self._event.sounds]
        move = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if move and self._current in paths:
            place = paths.index(self._current) + move
            if 0 <= place < len(paths):
                self.picked.emit(paths[place])
        elif event.key() == Qt.Key.Key_Backspace and self._current in paths:
            self.removed.emit(self._current)
        else:
            super().keyPressEvent(event)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and event.mimeData().hasUrls():
            self._over = True
            self.update()
            event.acceptProposedAction()

    def dragLeaveEvent(self, _: object) -> None:
        self._over = False
        self.update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self._over = False
        self.update()
        if event is not None:
            files = [Path(url.toLocalFile()) for url in event.mimeData().urls() if url.isLocalFile()]
            event.acceptProposedAction()
            if files:
                self.dropped.emit(files)


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
        self.setFixedHeight(_HIGH)
        self.setMinimumWidth(300)
        self.setMouseTracking(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Distances")
        self.setToolTip(
            "Drag the corners: up and down for the volume, left and right for where it fades and falls silent. "
            "Drag the listener (Left, Right) to hear it from there."
        )
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(340, _HIGH)

    def show_event(self, content: EventContent) -> None:
        """Show an event; the listener stays where it was."""
        self._content, self._event = content, content.event
        if self.listener < 0:
            self.listener = round(self._most() * 0.3)
        self.update()

    @property
    def event_now(self) -> SoundEvent | None:
        """The event with what is being dragged."""
        return self._event

    def _most(self) -> float:
        assert self._content is not None and self._event is not None
        if self._held_scale:
            return self._held_scale
        ends = (self._content.game.silent_at or 0.0, self._event.silent_at or 0.0)
        return max(*ends, 10.0) * 1.2

    def _box(self) -> QRectF:
        return QRectF(40, 34, self.width() - 56, _HIGH - 62)

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
        painter.fillRect(QRectF(0, 12, 1, _HIGH - 24), look.colour("hairline"))
        if event is None or self._content is None:
            return
        box, unit = self._box(), self._content.unit
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(16, 21), "From how far it is heard")
        if event.silent_at is None:
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, "The game does not say")
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
        self._paint_listener(painter, box, unit)

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
        words = (
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
        move = (
            {Qt.Key.Key_Left: -1.0, Qt.Key.Key_Right: 1.0}.get(Qt.Key(event.key()), 0.0)
            if event is not None
            else 0.0
        )
        if move and self._event is not None:
            self._listen(min(max(self.listener + move, 0.0), self._most()))
        elif event is not None:
            super().keyPressEvent(event)

    def _listen(self, distance: float) -> None:
        assert self._event is not None
        self.listener = distance
        self.listened.emit(self._event.gain_at(distance))
        self.update()


class EventPanel(QWidget):
    """An event's sounds and its distances. `heard` asks for a sound at a volume; the others tell of wishes."""

    heard = pyqtSignal(str, float)
    picked = pyqtSignal(str)
    filled = pyqtSignal(str, object)
    removed = pyqtSignal(str, str)
    changed = pyqtSignal(object)

    def __init__(self, look: Look) -> None:
        super().__init__()
        as_panel(self, name="panel")
        self.sounds, self.curve = _Sounds(look), DistanceCurve(look)
        self._name = self._current = ""
        self._content: EventContent | None = None
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.sounds, 3)
        row.addWidget(self.curve, 2)
        self.sounds.picked.connect(self.picked)
        self.sounds.dropped.connect(lambda files: self.filled.emit(self._name, files))
        self.sounds.removed.connect(lambda path: self.removed.emit(self._name, path))
        self.curve.moved.connect(self.changed)
        self.curve.listened.connect(lambda gain: self.heard.emit(self._current, gain))
        self.setVisible(False)

    @property
    def paths(self) -> tuple[str, ...]:
        """The inner paths of the sounds that it shows."""
        return tuple(one.path for one in self._content.sounds) if self._content is not None else ()

    def show_event(self, content: EventContent | None, current: str) -> None:
        """Show the event that plays a sound; nothing when none does."""
        self._content = content
        self.setVisible(content is not None)
        if content is not None:
            self._name, self._current = content.event.name, current
            self.sounds.show_event(content, current)
            self.curve.show_event(content)
