"""The wall: everything the game has, as one surface of tiles in groups."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
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
    QResizeEvent,
    QWheelEvent,
)  # fmt: skip
from PyQt6.QtWidgets import QAbstractScrollArea, QFrame

from furnel.catalogue import Asset
from furnel.desktop.look import Look, byte_size, font, number
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.widgets.basics import elided

_MARGIN, _GAP, _HEADER, _CAPTION = 14, 8, 28, 34
_NARROWEST, _WIDE = 90, 3.0  # pixels: a caption has to fit; times the height


@dataclass(frozen=True, slots=True)
class _Spot:
    asset: Asset
    x: float
    y: float
    width: float


@dataclass(frozen=True, slots=True)
class _Header:
    y: float
    title: str
    detail: str


class Wall(QAbstractScrollArea):
    """Tiles at true proportions. `selected` an asset, `opened` it by double click or Enter, `dropped` a file on it."""

    selected = pyqtSignal(object)
    opened = pyqtSignal(object)
    dropped = pyqtSignal(object, object)

    def __init__(self, look: Look, tiles: TileStore) -> None:
        super().__init__()
        self._look, self._tiles = look, tiles
        self._groups: Sequence[tuple[str, list[Asset]]] = []
        self._swapped: frozenset[str] = frozenset()
        self._spots: list[_Spot] = []
        self._rows: list[tuple[float, int]] = []
        self._headers: list[_Header] = []
        self._height = 0.0
        self._tile_height = 92
        self._current = -1
        self._target = -1
        self._empty = ""
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setAcceptDrops(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName("Wall")
        self.viewport().setMouseTracking(True)
        tiles.ready.connect(self.viewport().update)
        look.changed.connect(self.viewport().update)

    # what is shown

    def show_groups(self, groups: Sequence[tuple[str, list[Asset]]], empty: str) -> None:
        """Show assets in named groups; `empty` is said when there are none. The selection stays when it can."""
        kept = self.current()
        self._groups, self._empty = groups, empty
        self._lay_out()
        self._current = -1
        if kept is not None:
            self._current = next(
                (n for n, spot in enumerate(self._spots) if spot.asset.path == kept.path), -1
            )
        self.viewport().update()

    def set_swapped(self, paths: frozenset[str]) -> None:
        """Which assets carry an ember corner."""
        self._swapped = paths
        self.viewport().update()

    def set_zoom(self, height: int) -> None:
        """The height of the tiles in pixels."""
        self._tile_height = height
        self._lay_out()
        self.viewport().update()

    def current(self) -> Asset | None:
        """The selected asset."""
        return self._spots[self._current].asset if 0 <= self._current < len(self._spots) else None

    def select(self, path: str) -> bool:
        """Select an asset by its path and bring it into view; False when it is not on the wall."""
        for place, spot in enumerate(self._spots):
            if spot.asset.path == path:
                self._choose(place)
                return True
        return False

    def tile_rect(self, path: str) -> QRectF:
        """Where an asset's tile is in the viewport (empty when it is not on the wall)."""
        for spot in self._spots:
            if spot.asset.path == path:
                return self._rect(spot)
        return QRectF()

    @property
    def shown(self) -> int:
        return len(self._spots)

    # layout and painting

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._lay_out()

    def _lay_out(self) -> None:
        width = self.viewport().width() - 2 * _MARGIN
        tall = self._tile_height
        self._spots, self._headers, self._rows = [], [], []
        y = 4.0
        for title, members in self._groups:
            total = sum(asset.size for asset in members)
            self._headers.append(
                _Header(y, title or "at the top", f"{number(len(members))} · {byte_size(total)}")
            )
            y += _HEADER
            x = 0.0
            self._rows.append((y, len(self._spots)))
            for asset in members:
                wide = _tile_width(asset, tall)
                if x and x + wide > width:
                    x = 0.0
                    y += tall + _CAPTION + _GAP
                    self._rows.append((y, len(self._spots)))
                self._spots.append(_Spot(asset, _MARGIN + x, y, min(wide, width)))
                x += wide + _GAP
            y += tall + _CAPTION + _GAP + 6
        self._height = y + _MARGIN
        bar = self.verticalScrollBar()
        bar.setRange(0, max(0, int(self._height - self.viewport().height())))
        bar.setPageStep(self.viewport().height())
        bar.setSingleStep(40)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self.viewport())
        look = self._look
        painter.fillRect(self.viewport().rect(), look.colour("window"))
        if not self._spots:
            painter.setPen(look.colour("quiet"))
            painter.setFont(font(13))
            painter.drawText(self.viewport().rect(), Qt.AlignmentFlag.AlignCenter, self._empty)
            return
        top = self.verticalScrollBar().value()
        bottom = top + self.viewport().height()
        for header in self._headers:
            if top - _HEADER < header.y < bottom:
                self._paint_header(painter, header, top)
        first = max(bisect_right(self._rows, (top - self._tile_height - _CAPTION, 1 << 60)) - 1, 0)
        for place in range(self._rows[first][1], len(self._spots)):
            spot = self._spots[place]
            if spot.y > bottom:
                break
            self._paint_spot(painter, place, spot)

    def _paint_header(self, painter: QPainter, header: _Header, top: int) -> None:
        painter.setFont(font(12, QFont.Weight.DemiBold))
        painter.setPen(self._look.colour("text"))
        painter.drawText(QPointF(_MARGIN, header.y - top + 18), header.title)
        offset = painter.fontMetrics().horizontalAdvance(header.title) + 10
        painter.setFont(font(11))
        painter.setPen(self._look.colour("quiet"))
        painter.drawText(QPointF(_MARGIN + offset, header.y - top + 18), header.detail)

    def _paint_spot(self, painter: QPainter, place: int, spot: _Spot) -> None:
        look, rect, asset = self._look, self._rect(spot), spot.asset
        paint_tile(painter, look, rect, self._tiles.get(asset))
        if asset.path in self._swapped:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour("ember"))
            corner = rect.topRight()
            painter.drawPolygon(QPolygonF([corner, corner - QPointF(15, 0), corner + QPointF(0, 15)]))
        if place in (self._current, self._target):
            role = "ember" if place == self._target else "selection"
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(look.colour(role), 2))
            painter.drawRect(rect.adjusted(-2, -2, 2, 2))
        painter.setFont(font(12))
        painter.setPen(look.colour("text"))
        painter.drawText(
            QPointF(rect.left(), rect.bottom() + 14), elided(painter, asset.name, rect.width() + 4)
        )
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        painter.drawText(
            QPointF(rect.left(), rect.bottom() + 28), elided(painter, _caption(asset), rect.width() + 4)
        )

    def _rect(self, spot: _Spot) -> QRectF:
        return QRectF(spot.x, spot.y - self.verticalScrollBar().value(), spot.width, self._tile_height)

    # hands

    def _at(self, place: QPointF) -> int:
        y = place.y() + self.verticalScrollBar().value()
        row = bisect_right(self._rows, (y, 1 << 60)) - 1
        if row < 0:
            return -1
        end = self._rows[row + 1][1] if row + 1 < len(self._rows) else len(self._spots)
        for number_ in range(self._rows[row][1], end):
            if self._rect(self._spots[number_]).adjusted(-3, -3, 5, _CAPTION).contains(place):
                return number_
        return -1

    def _choose(self, place: int) -> None:
        if not 0 <= place < len(self._spots):
            return
        self._current = place
        spot = self._spots[place]
        bar = self.verticalScrollBar()
        if spot.y - _HEADER < bar.value():
            bar.setValue(int(spot.y - _HEADER))
        elif spot.y + self._tile_height + _CAPTION > bar.value() + self.viewport().height():
            bar.setValue(int(spot.y + self._tile_height + _CAPTION + 4 - self.viewport().height()))
        self.viewport().update()
        self.selected.emit(spot.asset)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.setFocus()
        if event is not None and (place := self._at(event.position())) >= 0:
            self._choose(place)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and (place := self._at(event.position())) >= 0:
            self.opened.emit(self._spots[place].asset)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            place = self._at(event.position())
            self.viewport().setToolTip(_tip(self._spots[place].asset) if place >= 0 else "")

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            bar = self.verticalScrollBar()
            delta = event.pixelDelta().y() or event.angleDelta().y() * 0.9
            bar.setValue(int(bar.value() - delta))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key = Qt.Key(event.key())
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            self._choose(max(self._current, 0) + (1 if key == Qt.Key.Key_Right else -1))
        elif key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._choose(self._neighbour(1 if key == Qt.Key.Key_Down else -1))
        elif key == Qt.Key.Key_Home:
            self._choose(0)
        elif key == Qt.Key.Key_End:
            self._choose(len(self._spots) - 1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and (asset := self.current()) is not None:
            self.opened.emit(asset)
        else:
            super().keyPressEvent(event)

    def _neighbour(self, step: int) -> int:
        if not self._spots:
            return -1
        spot = self._spots[max(self._current, 0)]
        row = bisect_right(self._rows, (spot.y, 1 << 60)) - 1 + step
        if not 0 <= row < len(self._rows):
            return self._current
        end = self._rows[row + 1][1] if row + 1 < len(self._rows) else len(self._spots)
        middle = spot.x + spot.width / 2
        return min(
            range(self._rows[row][1], end),
            key=lambda n: abs(self._spots[n].x + self._spots[n].width / 2 - middle),
        )

    # files dropped on tiles

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        if event is not None:
            self._target = self._at(event.position())
            event.setAccepted(self._target >= 0)
            self.viewport().update()

    def dragLeaveEvent(self, event: QDragLeaveEvent | None) -> None:
        self._target = -1
        self.viewport().update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self._target = -1
        if event is None:
            return
        place = self._at(event.position())
        files = [Path(url.toLocalFile()) for url in event.mimeData().urls() if url.isLocalFile()]
        if place >= 0 and files:
            self._choose(place)
            self.dropped.emit(self._spots[place].asset, files[0])
            event.acceptProposedAction()
        self.viewport().update()


def _tile_width(asset: Asset, tall: int) -> float:
    facts = asset.facts
    if facts.width:
        return max(tall * min(facts.width / facts.height, _WIDE), _NARROWEST)
    if facts.kind == "sound":
        return tall * min(max(0.7 + facts.length_s * 0.35, 0.9), 2.2)
    if facts.kind == "music":
        return tall * 3.0
    return tall * (1.5 if facts.kind == "definition" else 0.8)


def _caption(asset: Asset) -> str:
    facts = asset.facts
    if facts.width:
        return f"{number(facts.width)} × {number(facts.height)}  {facts.format}"
    if facts.rate:
        return f"{facts.length_s:.2f} s  {facts.format}"
    return f"{facts.format}  {byte_size(asset.size)}"


def _tip(asset: Asset) -> str:
    return f"{asset.path}\n{_caption(asset)}, {byte_size(asset.size)}, from {asset.archive.name}\nDrop a file here to swap it"
