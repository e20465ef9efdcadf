"""The flow strip: four stations in the order of the work, each with its live numbers."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDragLeaveEvent,
    QDragMoveEvent,
    QDropEvent,
    QFont,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
    QPolygonF,
)  # fmt: skip
from PyQt6.QtWidgets import QWidget

from furnel.desktop.actions import with_key
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import elided, paint_state
from furnel.desktop.widgets.dropping import assets_in, welcome_files

STATIONS = ("find", "fit", "build", "try")
_TITLES = {"find": "Find", "fit": "Fit", "build": "Build", "try": "Try"}
_HEIGHT, _NOTCH = 42, 10
_REST_MS = 450


@dataclass(frozen=True, slots=True)
class StationState:
    """What a station's button says: a line, counts of states, and whether something waits there."""

    line: str = ""
    breaks: int = 0
    differs: int = 0
    waiting: bool = False


class FlowStrip(QWidget):
    """The strip; `chosen` tells the station that was clicked, or that something dragged rests on; `brought` the assets
    that were dropped on Fit."""

    OWN_RING = True

    chosen = pyqtSignal(str)
    brought = pyqtSignal(object)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._current, self._hover = "find", ""
        self._states = {name: StationState() for name in STATIONS}
        self.setMouseTracking(True)
        self.setAcceptDrops(True)
        self._resting = timer(self, lambda: self.chosen.emit(self._hover) if self._hover else None, _REST_MS)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setFixedHeight(_HEIGHT)
        self.setMinimumWidth(480)
        self.setMaximumWidth(760)
        self.setAccessibleName(tr("Flow strip"))
        look.changed.connect(self.update)

    def sizeHint(self) -> QSize:
        return QSize(704, _HEIGHT)

    def set_state(self, station: str, state: StationState) -> None:
        self._states[station] = state
        self.setAccessibleDescription(
            "; ".join(tr(f"{_TITLES[name]}: {self._states[name].line}") for name in STATIONS)
        )
        self.update()

    def set_current(self, station: str) -> None:
        self._current = station
        self.update()

    def state(self, station: str) -> StationState:
        return self._states[station]

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and (name := self._at(event.position())):
            self.chosen.emit(name)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self._hover = self._at(event.position())
            name = self._hover
            said = f"{_TITLES[name]}: {self._states[name].line}" if name else ""
            self.setToolTip(tr(with_key(said, f"go-{name}") if name else ""))
            self.update()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event, pictures=True, assets=True)

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        """What rests on a station while it is dragged opens it; assets can be dropped on Fit at once."""
        if event is None:
            return
        name = self._at(event.position())
        if name != self._hover:
            self._hover = name
            self._resting.start()
            self.update()
        event.setAccepted(name == "fit" and bool(assets_in(event.mimeData())))

    def dragLeaveEvent(self, event: QDragLeaveEvent | None) -> None:
        self._resting.stop()
        self._hover = ""
        self.update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self._resting.stop()
        self._hover = ""
        if (
            event is not None
            and self._at(event.position()) == "fit"
            and (assets := assets_in(event.mimeData()))
        ):
            event.acceptProposedAction()
            self.brought.emit(assets)
        self.update()

    def leaveEvent(self, event: object) -> None:
        self._hover = ""
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if move:
            place = (STATIONS.index(self._current) + move) % len(STATIONS)
            self.chosen.emit(STATIONS[place])
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for name in reversed(STATIONS):
            self._paint(painter, name)

    def _paint(self, painter: QPainter, name: str) -> None:
        look, state, current = self._look, self._states[name], name == self._current
        place = STATIONS.index(name)
        width = (self.width() - _NOTCH) / len(STATIONS)
        left = place * width
        shape = [QPointF(left + 1, 1), QPointF(left + width - 1, 1), QPointF(left + width + _NOTCH - 2, _HEIGHT / 2),
                 QPointF(left + width - 1, _HEIGHT - 1), QPointF(left + 1, _HEIGHT - 1)]  # fmt: skip
        if place:
            shape.append(QPointF(left + _NOTCH, _HEIGHT / 2))
        edge = "selection" if current and self.hasFocus() else "quiet" if current else "hairline"
        painter.setPen(QPen(look.colour(edge), 1))
        painter.setBrush(look.colour("raised" if current or name == self._hover else "panel"))
        painter.drawPolygon(QPolygonF(shape))
        text_left = left + 26
        painter.setFont(font(13, QFont.Weight.DemiBold))
        painter.setPen(look.colour("text" if current else "quiet"))
        painter.drawText(QPointF(text_left, 18), tr(_TITLES[name]))
        painter.setFont(font(11))
        painter.setPen(look.colour("text" if current else "quiet"))
        right = left + width - 12
        if state.waiting:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour("ember"))
            painter.drawEllipse(QPointF(right - 4, 14), 3, 3)
        for kind, count in (("differs", state.differs), ("breaks", state.breaks)):
            if count:
                painter.setPen(look.colour("text" if current else "quiet"))
                wide = painter.fontMetrics().horizontalAdvance(str(count))
                painter.drawText(QPointF(right - wide, 18), str(count))
                paint_state(painter, look, kind, QRectF(right - wide - 12, 9, 9, 9))
                right -= wide + 20
        painter.setPen(look.colour("text" if current else "quiet"))
        painter.drawText(
            QPointF(text_left, 34), elided(painter, tr(state.line), left + width - 4 - text_left)
        )

    def _at(self, place: QPointF) -> str:
        number = int(place.x() / ((self.width() - _NOTCH) / len(STATIONS)))
        return STATIONS[number] if 0 <= number < len(STATIONS) else ""
