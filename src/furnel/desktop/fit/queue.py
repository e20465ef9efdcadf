"""The queue of a mod's swaps with their states, worst first."""

from __future__ import annotations

from collections import Counter

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QContextMenuEvent,
    QDragEnterEvent,
    QDropEvent,
    QFont,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
)
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from furnel.desktop.look import Look, font
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import as_panel, elided, marked, paint_state, scrolling
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.mods.workspace import Examined
from furnel.states import WAITING, urgency
from furnel.words import count

_ROW = 48


class _Rows(QWidget):
    picked = pyqtSignal(str)
    menu_wanted = pyqtSignal(QPoint)

    def __init__(self, look: Look, session: Session, tiles: TileStore, results: ResultTiles) -> None:
        super().__init__()
        self._look, self._session, self._tiles, self._results = look, session, tiles, results
        self.order: list[str] = []
        self._names: dict[str, str] = {}
        self.current = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Swaps")
        self.setAcceptDrops(True)
        tiles.ready.connect(self.update)
        results.ready.connect(self.update)

    def forget(self) -> None:
        """Another game is open: the names of the one before are not its."""
        self._names = {}

    def renew(self) -> None:
        """Sort the swaps, worst first."""
        project = self._session.project
        swaps = project.swaps if project else ()
        self.order = sorted(
            (swap.original for swap in swaps), key=lambda name: (urgency(self._state(name)), name)
        )
        if self._names.keys() != set(self.order):
            endings = Counter(name.rpartition("/")[2] for name in self.order)
            self._names = {name: self._name(name, endings) for name in self.order}
        self.setFixedHeight(max(len(self.order) * _ROW, 1))
        if self.current not in self.order:
            self.current = self.order[0] if self.order else ""
            self.picked.emit(self.current)
        self._say()
        self.update()

    def _say(self) -> None:
        """Tell who does not see it which swap is on the bench, and how it stands."""
        if not self.current:
            self.setAccessibleDescription("no swaps")
            return
        state, faults = self._state(self.current), _faults(self._session.examined.get(self.current))
        place = f"{self.order.index(self.current) + 1} of {len(self.order)}"
        self.setAccessibleDescription(
            ", ".join(filter(None, (self._names[self.current], state, faults, place)))
        )

    def pick(self, original: str) -> None:
        if original in self.order:
            self.current = original
            self.picked.emit(original)
            self._say()
            self.update()

    def _name(self, original: str, endings: Counter[str]) -> str:
        """The asset's name; with its folder where another swap has the same name."""
        name = self._session.name_of(original)
        parts = original.split("/")
        return f"{name}, {parts[-2]}" if endings[parts[-1]] > 1 and len(parts) > 1 else name

    def _state(self, original: str) -> str:
        found = self._session.examined.get(original)
        return found.state if found else WAITING

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and 0 <= (row := int(event.position().y()) // _ROW) < len(self.order):
            self.pick(self.order[row])

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        if event is None or not self.current:
            return
        at = event.globalPos()
        if event.reason() == QContextMenuEvent.Reason.Keyboard:
            at = self.mapToGlobal(QPoint(40, self.order.index(self.current) * _ROW + _ROW // 2))
        elif not 0 <= (row := event.pos().y() // _ROW) < len(self.order):
            return
        else:
            self.pick(self.order[row])
        self.menu_wanted.emit(at)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        if move and self.order:
            place = self.order.index(self.current) if self.current in self.order else 0
            self.pick(self.order[max(0, min(place + move, len(self.order) - 1))])
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        seen = event.rect() if event is not None else self.rect()
        for row in range(max(seen.top() // _ROW, 0), min(seen.bottom() // _ROW + 1, len(self.order))):
            self._paint_row(painter, self.order[row], QRectF(0, row * _ROW, self.width(), _ROW))

    def _paint_row(self, painter: QPainter, original: str, box: QRectF) -> None:
        look = self._look
        if original == self.current:
            painter.fillRect(box, look.colour("raised"))
            painter.fillRect(QRectF(0, box.top(), 2, box.height()), look.colour("selection"))
        swap = self._session.swap(original)
        asset = self._session.asset(swap.base if swap is not None else original)
        left, right = QRectF(12, box.top() + 6, 36, 36), QRectF(52, box.top() + 6, 36, 36)
        painter.fillRect(left, look.colour("stage"))
        painter.fillRect(right, look.colour("stage"))
        if asset is not None:
            paint_tile(painter, look, left, self._tiles.get(asset), crop=True)
        paint_tile(painter, look, right, self._results.get(original), yours=True, crop=True)
        found = self._session.examined.get(original)
        painter.setFont(font(12, QFont.Weight.Medium if original == self.current else QFont.Weight.Normal))
        painter.setPen(look.colour("text"))
        name = self._names[original]
        faults = _faults(found)
        painter.drawText(
            QPointF(96, box.top() + (20 if faults else 29)), elided(painter, name, box.width() - 124)
        )
        if faults:
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            painter.drawText(QPointF(96, box.top() + 36), elided(painter, faults, box.width() - 124))
        paint_state(
            painter, look, self._state(original), QRectF(box.width() - 24, box.center().y() - 5, 10, 10)
        )


class SwapQueue(QWidget):
    """The queue; `picked` tells which swap is to be shown, `dropped` a new source for one."""

    picked = pyqtSignal(str)
    dropped = pyqtSignal(str, object)
    menu_wanted = pyqtSignal(QPoint)

    def __init__(self, look: Look, session: Session, tiles: TileStore, results: ResultTiles) -> None:
        super().__init__()
        as_panel(self)
        self._session = session
        self._head = marked()
        self.rows = _Rows(look, session, tiles, results)
        area = scrolling(self.rows)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 10, 0, 0)
        column.setSpacing(6)
        self._head.setContentsMargins(12, 0, 12, 0)
        column.addWidget(self._head)
        column.addWidget(area, 1)
        self.setAcceptDrops(True)
        self.rows.picked.connect(self.picked)
        self.rows.menu_wanted.connect(self.menu_wanted)
        self._soon = timer(self, self.renew)  # many results come in one turn
        session.opened.connect(self.rows.forget)
        session.project_changed.connect(self.renew)
        session.fitted.connect(lambda _: self._soon.start())
        self.renew()

    def renew(self) -> None:
        """Count and sort anew."""
        counts = self._session.tally()
        self._head.setText(
            f"<b>{count(counts['all'], 'swap')}</b>&nbsp;&nbsp;worst first"
            if counts["all"]
            else "<b>No swaps yet</b>"
        )
        self.rows.renew()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None and self.rows.current:
            files = files_of(event)
            if files:
                self.dropped.emit(self.rows.current, files[0])


def _faults(found: Examined | None) -> str:
    if found is None:
        return ""
    points = [point for point in found.points if point.state == found.state and point.state != "fits"]
    return ", ".join(point.label.lower() for point in points)
