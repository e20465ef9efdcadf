"""The event under the lanes: its sounds side by side, and how loud it is heard from how far."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
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
)
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QSizePolicy, QWidget

from furnel.desktop.fit.distance_curve import PANEL_PX, DistanceCurve
from furnel.desktop.fit.sound_content import EventContent, Variation
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.tiles import paint_waveform
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import as_panel
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.sound.words import length_text

_CARD, _GAP = 104, 8


class _Sounds(QWidget):
    """The sounds of an event as cards; the last one takes files. `picked` tells which was clicked."""

    KEYS_HERE = (
        ("Left, Right", "from sound to sound"), ("Insert", "choose the files of all takes"),
        ("Backspace", "take it out of the event"),
    )  # fmt: skip

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
        self.setAccessibleName(tr("Sounds of the event"))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        self.setFixedHeight(PANEL_PX)
        look.changed.connect(self.update)

    def show_event(self, event: EventContent, current: str) -> None:
        """Show an event's sounds, one of them on the bench."""
        self._event, self._current = event, current
        self.setToolTip(
            tr(
                f"Drop {event.least} to {event.most} files here, or click (Insert) to choose them: "
                "they become the sounds that the event plays in turn. "
                "Backspace, or the right button, takes one out of the event."
            )
        )
        self.update()

    def card(self, place: int) -> QRectF:
        """Where a sound's card is; the one behind the last takes files."""
        count = len(self._event.sounds) if self._event is not None else 0
        wide = min(_CARD, (self.width() - 28) / max(count + 1, 1) - _GAP)
        return QRectF(14 + place * (wide + _GAP), 34, wide, PANEL_PX - 48)

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
        words = tr(
            f"plays {count} sounds in turn" + (f", the game's has {before}" if count != before else "")
        )
        painter.drawText(QPointF(14 + wide + 12, 21), words)
        for place, one in enumerate(event.sounds):
            self._paint_card(painter, self.card(place), one, place + 1)
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
            tr("Drop all takes here, or click to choose them"),
        )

    def _paint_card(self, painter: QPainter, box: QRectF, one: Variation, number: int) -> None:
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
            paint_waveform(painter, upper, one.original.wave, look.colour("tarn", 0.85))
        if one.yours is not None:
            paint_waveform(painter, lower, one.yours.wave, look.colour("ember", 0.9))
        painter.setFont(font(11))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(box.left() + 8, box.bottom() - 22), str(number))
        painter.setFont(font(10))
        painter.setPen(look.colour("quiet"))
        state = tr("new" if one.original is None else "" if one.yours is not None else "game's")
        painter.drawText(QPointF(box.left() + 8, box.bottom() - 8), length_text(one.length_s))
        wide = painter.fontMetrics().horizontalAdvance(state)
        painter.drawText(QPointF(box.right() - 8 - wide, box.bottom() - 22), state)
        if one.path == self._current:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(look.colour("selection"), 1.4))
            painter.drawRoundedRect(box, 4, 4)

    def _at(self, point: QPointF) -> str:
        sounds = self._event.sounds if self._event is not None else ()
        return next((one.path for place, one in enumerate(sounds) if self.card(place).contains(point)), "")

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        path = self._at(event.position()) if event is not None else ""
        if path:
            self.picked.emit(path)
        elif event is not None and self._event is not None and self._is_free(event.position()):
            self._choose_takes()

    def _is_free(self, point: QPointF) -> bool:
        """Whether a point is on the card that takes files."""
        return self._event is not None and self.card(len(self._event.sounds)).contains(point)

    def _choose_takes(self) -> None:
        """Ask for the files of all takes."""
        if files := picking.pick_files(self, "All takes of the event", "sources"):
            self.dropped.emit(files)

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        path = self._at(QPointF(event.pos())) if event is not None else ""
        if event is not None and path:
            menu = QMenu(self)
            entry = menu.addAction("Take it out of the event")
            assert entry is not None
            entry.triggered.connect(lambda: self.removed.emit(path))
            menu.exec(event.globalPos())
            menu.deleteLater()

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
        elif event.key() == Qt.Key.Key_Insert:
            self._choose_takes()
        else:
            super().keyPressEvent(event)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if welcome_files(event):
            self._over = True
            self.update()

    def dragLeaveEvent(self, _: object) -> None:
        self._over = False
        self.update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self._over = False
        self.update()
        if event is not None:
            files = files_of(event)
            event.acceptProposedAction()
            if files:
                self.dropped.emit(files)


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
