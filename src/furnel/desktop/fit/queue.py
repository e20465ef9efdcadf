"""The queue of a mod's swaps with their states; it stays in its order until it is asked to sort anew."""

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
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.language import tr, tr_all
from furnel.desktop.look import Look, font
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import (
    as_panel,
    button,
    elided,
    field,
    marked,
    paint_state,
    scrolling,
    strong,
)
from furnel.desktop.widgets.dropping import assets_in, files_of, welcome_files
from furnel.desktop.widgets.steady import Choice
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.mods.workspace import Examined
from furnel.states import WAITING, urgency
from furnel.words import count

_ROW = 48
SORTS = ("worst first", "by name", "by kind")
_FEW = 7  # swaps that are seen at a glance


class _Rows(QWidget):
    KEYS_HERE = (("Up, Down", "from swap to swap"),)
    picked = pyqtSignal(str)
    menu_wanted = pyqtSignal(QPoint)
    let_go = pyqtSignal()

    def __init__(self, look: Look, session: Session, tiles: TileStore, results: ResultTiles) -> None:
        super().__init__()
        self._look, self._session, self._tiles, self._results = look, session, tiles, results
        self.order: list[str] = []  # what is shown
        self._order: list[str] = []  # all of them
        self.sort, self.stale = SORTS[0], False
        self._sorting, self._sought = True, ""
        self._names: dict[str, str] = {}
        self.current = ""
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Swaps"))
        self.setAcceptDrops(True)
        tiles.ready.connect(self.update)
        results.ready.connect(self.update)

    def forget(self) -> None:
        """Another game is open: the names of the one before are not its."""
        self._names, self._order, self._sorting = {}, [], True

    def renew(self) -> None:
        """Show the swaps that there are; those that stay keep their places, new ones come first."""
        project = self._session.project
        swaps = [swap.original for swap in project.swaps] if project else []
        if self._names.keys() != set(swaps):
            endings = Counter(name.rpartition("/")[2] for name in swaps)
            self._names = {name: self._name(name, endings) for name in swaps}
        wanted = self._sorted(swaps)
        if self._sorting:  # until all of them were looked at once
            self._order = wanted
            self._sorting = not swaps or any(self._state(name) == WAITING for name in swaps)
        elif set(self._order) != set(swaps):
            known = set(self._order)
            fresh = [name for name in wanted if name not in known]
            self._order = [*fresh, *(name for name in self._order if name in self._names)]
        self.stale = self._order != wanted
        words = self._sought.casefold().split()
        self.order = [
            name
            for name in self._order
            if name == self.current or all(word in f"{self._names[name]} {name}".casefold() for word in words)
        ]
        self.setFixedHeight(max(len(self.order) * _ROW, 1))
        if self.current not in self.order:
            self.current = self.order[0] if self.order else ""
            self.picked.emit(self.current)
        self._say()
        self.update()

    def _say(self) -> None:
        """Tell who does not see it which swap is on the bench, and how it stands."""
        if not self.current:
            self.setAccessibleDescription(tr("no swaps"))
            return
        state, faults = self._state(self.current), _faults(self._session.examined.get(self.current))
        place = f"{self.order.index(self.current) + 1} of {len(self.order)}"
        self.setAccessibleDescription(
            tr(", ".join(filter(None, (self._names[self.current], state, faults, place))))
        )

    def _sorted(self, names: list[str]) -> list[str]:
        """The swaps in the order that was asked for."""
        if self.sort == "by name":
            return sorted(names, key=lambda name: (self._names[name].casefold(), name))
        if self.sort == "by kind":
            return sorted(names, key=lambda name: (self._kind(name), name))
        return sorted(names, key=lambda name: (urgency(self._state(name)), name))

    def _kind(self, original: str) -> str:
        swap = self._session.swap(original)
        asset = self._session.asset(swap.base) if swap is not None else None
        return asset.facts.kind if asset is not None else ""

    def sort_by(self, sort: str) -> None:
        """Sort anew, in one of SORTS."""
        self.sort, self._sorting = sort, True
        self.renew()

    def seek(self, text: str) -> None:
        """Show only the swaps that have some words in their names, and the one on the bench."""
        self._sought = text
        self.renew()

    def pick(self, original: str) -> None:
        if original in self._order and original not in self.order:
            self.let_go.emit()  # what is looked for
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
            painter.drawText(QPointF(96, box.top() + 36), elided(painter, tr(faults), box.width() - 124))
        paint_state(
            painter, look, self._state(original), QRectF(box.width() - 24, box.center().y() - 5, 10, 10)
        )


class SwapQueue(QWidget):
    """The queue; `picked` tells which swap is to be shown, `dropped` a new source for one, `begun` assets that were dragged
    here from the wall."""

    picked = pyqtSignal(str)
    dropped = pyqtSignal(str, object)
    begun = pyqtSignal(object)
    menu_wanted = pyqtSignal(QPoint)

    def __init__(self, look: Look, session: Session, tiles: TileStore, results: ResultTiles) -> None:
        super().__init__()
        as_panel(self)
        self._session = session
        self._head = marked()
        self.rows = _Rows(look, session, tiles, results)
        self.sort = Choice()
        self.sort.addItems(tr_all(SORTS))
        self.sort.setAccessibleName(tr("Order of the swaps"))
        self.sort.setStyleSheet("QComboBox { border: none; background: transparent; padding: 2px 4px }")
        self.anew = button("sort anew", "Swaps stand otherwise than when they were sorted", "plain")
        self.seek = field("Name", "Look for a swap")
        self.seek.setClearButtonEnabled(True)
        area = scrolling(self.rows)
        head = WrappingRow(spacing=4)
        head.setContentsMargins(12, 0, 8, 0)
        head.addWidget(self._head)
        head.addWidget(self.sort)
        looking = QHBoxLayout()
        looking.setContentsMargins(12, 0, 4, 0)
        looking.addWidget(self.seek, 1)
        looking.addWidget(self.anew)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 10, 0, 0)
        column.setSpacing(6)
        column.addLayout(head)
        column.addLayout(looking)
        column.addWidget(area, 1)
        self.setAcceptDrops(True)
        self.sort.activated.connect(lambda place: self._sort(SORTS[place]))
        self.anew.clicked.connect(lambda: self._sort(self.rows.sort))
        self.seek.textChanged.connect(self.rows.seek)
        self.rows.let_go.connect(self.seek.clear)
        self.rows.picked.connect(self.picked)
        self.rows.menu_wanted.connect(self.menu_wanted)
        self._soon = timer(self, self.renew)  # many results come in one turn
        session.opened.connect(self.rows.forget)
        session.project_changed.connect(self.renew)
        session.fitted.connect(lambda _: self._soon.start())
        self.renew()

    def renew(self) -> None:
        """Count, and show what there is."""
        counts = self._session.tally()
        self._head.setText(tr(strong(count(counts["all"], "swap") if counts["all"] else "No swaps yet")))
        self.sort.setVisible(counts["all"] > 1)
        self.seek.setVisible(counts["all"] > _FEW)
        self.rows.renew()
        self.anew.setVisible(self.rows.stale)

    def _sort(self, sort: str) -> None:
        self.rows.sort_by(sort)
        self.renew()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event, assets=True)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None and (assets := assets_in(event.mimeData())):
            self.begun.emit(assets)
        elif event is not None and self.rows.current:
            files = files_of(event)
            if files:
                self.dropped.emit(self.rows.current, files[0])


def _faults(found: Examined | None) -> str:
    if found is None:
        return ""
    points = [point for point in found.points if point.state == found.state and point.state != "fits"]
    return ", ".join(point.label.lower() for point in points)
