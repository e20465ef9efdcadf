"""The wall: everything the game has, as one surface of tiles in groups."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt
from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QContextMenuEvent,
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
from PyQt6.QtWidgets import QFrame

from furnel.catalogue import Asset, Group, Shelf
from furnel.desktop.look import Look, byte_size, font
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.widgets.basics import elided
from furnel.desktop.widgets.canvas import Canvas
from furnel.desktop.widgets.dropping import files_of, picture_in, welcome_files
from furnel.media import KINDS
from furnel.words import number

_MARGIN, _GAP, _HEADER, _CAPTION = 14, 8, 28, 34
_NARROWEST, _WIDE = 90, 3.0  # pixels: a caption has to fit; times the height

Numbers = npt.NDArray[np.float64] | npt.NDArray[np.int64]


@dataclass(frozen=True, slots=True)
class _Header:
    y: float
    title: str
    detail: str


class Wall(Canvas):
    """Tiles at true proportions.

    `selected` an asset, `opened` it by double click or Enter, `dropped` a file on it; `files_dropped` a folder, several files,
    or one beside the tiles.
    """

    KEYS_HERE = (
        ("Arrows", "from tile to tile"),
        ("Home, End", "the first and the last"),
        ("Return", "open what is chosen"),
        ("Wheel", "up and down"),
    )

    selected = pyqtSignal(object)
    let_go = pyqtSignal()
    opened = pyqtSignal(object)
    dropped = pyqtSignal(object, object)
    files_dropped = pyqtSignal(object)
    menu_wanted = pyqtSignal(QPoint)

    def __init__(self, look: Look, tiles: TileStore) -> None:
        super().__init__()
        self._look, self._tiles = look, tiles
        self._shelf: Shelf | None = None
        self._groups: Sequence[Group] = []
        self._swapped: frozenset[str] = frozenset()
        self._marked: frozenset[int] = frozenset()
        self._spots = _Spots()
        self._lines: list[tuple[float, int]] = []
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
        self.surface.setMouseTracking(True)
        tiles.ready.connect(self.surface.update)
        look.changed.connect(self.surface.update)

    # what is shown

    def show_groups(self, shelf: Shelf, groups: Sequence[Group], empty: str) -> None:
        """Show assets in named groups; `empty` is said when there are none. The selection stays when it can."""
        kept = self._spots.row(self._current) if shelf is self._shelf else -1
        self._shelf, self._groups, self._empty = shelf, groups, empty
        had = self._current >= 0
        self._lay_out()
        self._current = self._spots.place(kept)
        self._marked = frozenset(row for row in self._marked if kept >= 0 and self._spots.place(row) >= 0)
        self._say()
        self.surface.update()
        if had and self._current < 0:
            self.let_go.emit()

    @property
    def swapped(self) -> frozenset[str]:
        """The assets that carry an ember corner."""
        return self._swapped

    def set_swapped(self, paths: frozenset[str]) -> None:
        """Which assets carry an ember corner."""
        if paths != self._swapped:
            self._swapped = paths
            self.surface.update()

    def set_zoom(self, height: int) -> None:
        """The height of the tiles in pixels."""
        self._tile_height = height
        self._lay_out()
        self.surface.update()

    def current(self) -> Asset | None:
        """The selected asset."""
        row = self._spots.row(self._current)
        return self._shelf[row] if self._shelf is not None and row >= 0 else None

    def chosen(self) -> list[Asset]:
        """The selected asset and those marked with it (Ctrl or Shift and a click), in the wall's order."""
        if self._shelf is None:
            return []
        rows = set(self._marked) | ({self._spots.row(self._current)} - {-1})
        return [self._shelf[row] for row in sorted(rows, key=self._spots.place)]

    def select(self, path: str) -> bool:
        """Select an asset by its path and bring it into view; False when it is not on the wall."""
        place = self._spots.place(self._shelf.row(path)) if self._shelf is not None else -1
        if place < 0:
            return False
        self._choose(place)
        return True

    def tile_rect(self, path: str) -> QRectF:
        """Where an asset's tile is in the viewport (empty when it is not on the wall)."""
        place = self._spots.place(self._shelf.row(path)) if self._shelf is not None else -1
        return self._rect(place) if place >= 0 else QRectF()

    def begin(self) -> None:
        """Choose the first tile, unless one is chosen."""
        if self._current < 0 and len(self._spots):
            self._choose(0)

    def to_top(self) -> None:
        """Show the beginning."""
        self.bar.setValue(0)

    @property
    def shown(self) -> int:
        return len(self._spots)

    # layout and painting

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._lay_out()

    def _lay_out(self) -> None:
        width = self.surface.width() - 2 * _MARGIN
        tall = self._tile_height
        self._headers, self._lines, parts = [], [], []
        y, place = 4.0, 0
        widths = _tile_widths(self._shelf, tall) if self._shelf is not None else np.zeros(0, np.float32)
        sizes = self._shelf.columns["size"] if self._shelf is not None else np.zeros(0, np.int64)
        for group in self._groups:
            rows = group.rows
            total = int(sizes[rows].sum())
            self._headers.append(
                _Header(y, group.name or "at the top", f"{number(len(rows))} · {byte_size(total)}")
            )
            y += _HEADER
            wide = np.minimum(widths[rows], width)
            ends = np.cumsum(wide + _GAP, dtype=np.float64)
            firsts, before = _broken(ends.tolist(), width + _GAP)
            counts = np.diff([*firsts, len(rows)])
            lines = y + np.arange(len(firsts)) * (tall + _CAPTION + _GAP)
            lefts = ends - wide - _GAP - np.repeat(before, counts) + _MARGIN
            parts.append((rows, lefts, np.repeat(lines, counts), wide))
            self._lines += zip(lines.tolist(), [place + first for first in firsts], strict=True)
            y += len(firsts) * (tall + _CAPTION + _GAP) + 6
            place += len(rows)
        self._spots = _Spots(parts)
        self._height = y + _MARGIN
        bar = self.bar
        bar.setRange(0, max(0, int(self._height - self.surface.height())))
        bar.setPageStep(self.surface.height())
        bar.setSingleStep(40)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self.surface)
        look = self._look
        painter.fillRect(self.surface.rect(), look.colour("window"))
        if not len(self._spots):
            painter.setPen(look.colour("quiet"))
            painter.setFont(font(13))
            painter.drawText(self.surface.rect(), Qt.AlignmentFlag.AlignCenter, self._empty)
            return
        top = self.bar.value()
        bottom = top + self.surface.height()
        for header in self._headers:
            if top - _HEADER < header.y < bottom:
                self._paint_header(painter, header, top)
        first = max(bisect_right(self._lines, (top - self._tile_height - _CAPTION, 1 << 60)) - 1, 0)
        for place in range(self._lines[first][1], len(self._spots)):
            if self._spots.tops[place] > bottom:
                break
            self._paint_spot(painter, place)

    def _paint_header(self, painter: QPainter, header: _Header, top: int) -> None:
        painter.setFont(font(12, QFont.Weight.DemiBold))
        painter.setPen(self._look.colour("text"))
        painter.drawText(QPointF(_MARGIN, header.y - top + 18), header.title)
        offset = painter.fontMetrics().horizontalAdvance(header.title) + 10
        painter.setFont(font(11))
        painter.setPen(self._look.colour("quiet"))
        painter.drawText(QPointF(_MARGIN + offset, header.y - top + 18), header.detail)

    def _paint_spot(self, painter: QPainter, place: int) -> None:
        assert self._shelf is not None
        row = self._spots.row(place)
        look, rect, asset = self._look, self._rect(place), self._shelf[row]
        paint_tile(painter, look, rect, self._tiles.get(asset))
        if asset.path in self._swapped:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour("ember"))
            corner = rect.topRight()
            painter.drawPolygon(QPolygonF([corner, corner - QPointF(15, 0), corner + QPointF(0, 15)]))
        if place in (self._current, self._target) or row in self._marked:
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

    def _rect(self, place: int) -> QRectF:
        spots = self._spots
        top = float(spots.tops[place]) - self.bar.value()
        return QRectF(float(spots.lefts[place]), top, float(spots.widths[place]), self._tile_height)

    # hands

    def _at(self, place: QPointF) -> int:
        y = place.y() + self.bar.value()
        line = bisect_right(self._lines, (y, 1 << 60)) - 1
        if line < 0:
            return -1
        for number_ in range(self._lines[line][1], self._line_end(line)):
            if self._rect(number_).adjusted(-3, -3, 5, _CAPTION).contains(place):
                return number_
        return -1

    def _say(self) -> None:
        """Tell who does not see it what is chosen."""
        asset, marked = self.current(), len(self._marked)
        if asset is None:
            self.setAccessibleDescription(f"{len(self._spots)} tiles, none chosen")
            return
        words = [asset.name, _caption(asset), f"{self._current + 1} of {len(self._spots)}"]
        words += ["swapped"] if asset.path in self._swapped else []
        words += [f"{marked} marked"] if marked > 1 else []
        self.setAccessibleDescription(", ".join(words))

    def _line_end(self, line: int) -> int:
        return self._lines[line + 1][1] if line + 1 < len(self._lines) else len(self._spots)

    def _choose(self, place: int, marking: bool = False) -> None:
        if not 0 <= place < len(self._spots):
            return
        self._current = place
        if not marking:
            self._marked = frozenset()
        top = float(self._spots.tops[place])
        bar = self.bar
        if top - _HEADER < bar.value():
            bar.setValue(int(top - _HEADER))
        elif top + self._tile_height + _CAPTION > bar.value() + self.surface.height():
            bar.setValue(int(top + self._tile_height + _CAPTION + 4 - self.surface.height()))
        self._say()
        self.surface.update()
        self.selected.emit(self.current())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.setFocus()
        if event is None or (place := self._at(event.position())) < 0:
            return
        if event.button() == Qt.MouseButton.RightButton:
            return  # its menu comes
        row, before = self._spots.row(place), self._spots.row(self._current)
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._marked = (self._marked | ({before} - {-1})) ^ {row}
        elif event.modifiers() & Qt.KeyboardModifier.ShiftModifier and self._current >= 0:
            low, high = sorted((self._current, place))
            self._marked |= frozenset(self._spots.rows[low : high + 1].tolist())
        else:
            self._marked = frozenset()
        self._choose(place, marking=True)

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """A menu of what can be done with a tile, or with all that are marked when it is one of them."""
        if event is None:
            return
        at = event.globalPos()
        if event.reason() == QContextMenuEvent.Reason.Keyboard:
            if self._current < 0:
                return
            at = self.surface.mapToGlobal(self._rect(self._current).center().toPoint())
        else:
            place = self._at(QPointF(self.surface.mapFromGlobal(at)))
            if place < 0:
                return
            self._choose(place, marking=self._spots.row(place) in self._marked)
        self.menu_wanted.emit(at)

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and (place := self._at(event.position())) >= 0:
            self.opened.emit(self._asset(place))

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            place = self._at(event.position())
            self.surface.setToolTip(_tip(self._asset(place)) if place >= 0 else "")

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            bar = self.bar
            delta = event.pixelDelta().y() or event.angleDelta().y() * 0.9
            bar.setValue(int(bar.value() - delta))

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        key = Qt.Key(event.key())
        if key in (Qt.Key.Key_Left, Qt.Key.Key_Right):
            step = 1 if key == Qt.Key.Key_Right else -1
            self._choose(self._current + step if self._current >= 0 else 0)
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
        if not len(self._spots):
            return -1
        if self._current < 0:
            return 0
        spots, here = self._spots, max(self._current, 0)
        line = bisect_right(self._lines, (float(spots.tops[here]), 1 << 60)) - 1 + step
        if not 0 <= line < len(self._lines):
            return self._current
        middle = spots.lefts[here] + spots.widths[here] / 2
        return min(
            range(self._lines[line][1], self._line_end(line)),
            key=lambda n: abs(spots.lefts[n] + spots.widths[n] / 2 - middle),
        )

    def _asset(self, place: int) -> Asset:
        assert self._shelf is not None
        return self._shelf[self._spots.row(place)]

    # files dropped on tiles

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event, pictures=True)

    def dragMoveEvent(self, event: QDragMoveEvent | None) -> None:
        if event is not None:
            self._target = self._at(event.position())
            files = files_of(event)
            if len(files) > 1 or any(file.is_dir() for file in files):
                self._target = -1
            event.setAccepted(bool(files) or (self._target >= 0 and picture_in(event.mimeData()) is not None))
            self.surface.update()

    def dragLeaveEvent(self, event: QDragLeaveEvent | None) -> None:
        self._target = -1
        self.surface.update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self._target = -1
        if event is None:
            return
        place = self._at(event.position())
        files = files_of(event)
        if files and (place < 0 or len(files) > 1 or files[0].is_dir()):
            self.files_dropped.emit(files[:1] if files[0].is_dir() else files)
            event.acceptProposedAction()
        elif place >= 0 and (what := files[0] if files else picture_in(event.mimeData())) is not None:
            self._choose(place, marking=self._spots.row(place) in self._marked)
            self.dropped.emit(self._asset(place), what)
            event.acceptProposedAction()
        self.surface.update()


def _broken(ends: list[float], width: float) -> tuple[list[int], list[float]]:
    """Where lines begin, for tiles that end at `ends` when they stand in one line; and what lies before each line."""
    firsts, before, first, done = [], [], 0, 0.0
    while first < len(ends):
        firsts.append(first)
        before.append(done)
        first = max(bisect_right(ends, done + width, first), first + 1)
        done = ends[first - 1]
    return firsts, before


class _Spots:
    """Where the tiles are, in the order in which they are shown: rows of the shelf, left, top and width in pixels."""

    def __init__(self, parts: Sequence[tuple[Numbers, Numbers, Numbers, Numbers]] = ()) -> None:
        empty = np.zeros(0)
        columns = [np.concatenate([part[n] for part in parts]) if parts else empty for n in range(4)]
        self.rows: npt.NDArray[np.int64] = columns[0].astype(np.int64)
        self.lefts, self.tops, self.widths = columns[1:]
        self._places: dict[int, int] | None = None

    def __len__(self) -> int:
        return len(self.rows)

    def row(self, place: int) -> int:
        """The shelf's row at a place of the wall, or -1."""
        return int(self.rows[place]) if 0 <= place < len(self.rows) else -1

    def place(self, row: int) -> int:
        """Where on the wall a row of the shelf is, or -1."""
        if row < 0:
            return -1
        if self._places is None:
            self._places = {found: place for place, found in enumerate(self.rows.tolist())}
        return self._places.get(row, -1)


def _tile_widths(shelf: Shelf, tall: int) -> npt.NDArray[np.float32]:
    """How wide every asset's tile is."""
    columns = shelf.columns
    codes = {kind: code for code, kind in enumerate(KINDS)}
    kind, width = columns["kind"], columns["width"]
    seconds = shelf.length_ms / 1000
    wide = np.full(len(shelf), tall * 0.8)
    wide[kind == codes["definition"]] = tall * 1.5
    wide[kind == codes["music"]] = tall * 3.0
    wide = np.where(kind == codes["sound"], tall * np.clip(0.7 + seconds * 0.35, 0.9, 2.2), wide)
    true = np.maximum(tall * np.minimum(width / np.maximum(columns["height"], 1), _WIDE), _NARROWEST)
    return np.where(width > 0, true, wide).astype(np.float32)


def _caption(asset: Asset) -> str:
    facts = asset.facts
    if facts.width:
        return f"{number(facts.width)} × {number(facts.height)}  {facts.format}"
    if facts.rate:
        return f"{facts.length_s:.2f} s  {facts.format}"
    return f"{facts.format}  {byte_size(asset.size)}"


def _tip(asset: Asset) -> str:
    return f"{asset.path}\n{_caption(asset)}, {byte_size(asset.size)}, from {asset.archive.name}\nDrop a file here to swap it"
