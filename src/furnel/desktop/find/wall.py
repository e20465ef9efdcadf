"""The wall: everything the game has, as one surface of tiles in groups."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QContextMenuEvent,
    QDrag,
    QDragEnterEvent,
    QDragLeaveEvent,
    QDragMoveEvent,
    QDropEvent,
    QFocusEvent,
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
from PyQt6.QtWidgets import QApplication, QFrame

from furnel.catalogue import Asset, Group, Shelf
from furnel.desktop.find.lines import THUMB, paint_line
from furnel.desktop.find.spots import CAPTION, HEADER, LINE, MARGIN, Header, Spots
from furnel.desktop.language import tr, tr_all
from furnel.desktop.look import Look, byte_size, font
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.widgets.basics import elided
from furnel.desktop.widgets.canvas import Canvas
from furnel.desktop.widgets.dropping import dragged, files_of, picture_in, welcome_files
from furnel.words import number


class Wall(Canvas):
    """Tiles at true proportions, or one asset a line with its facts in columns.

    `selected` an asset, `opened` it by double click or Enter, `dropped` a file on it; `files_dropped` a folder, several files,
    or one beside the tiles.
    """

    OWN_RING = True

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
        self._degrees: Mapping[int, float] = {}
        self._spots = Spots()
        self._tile_height = 92
        self._in_lines = False
        self._current = -1
        self._target = -1
        self._pressed: QPointF | None = None  # where a tile was, that may be dragged
        self._empty = ""
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setAcceptDrops(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Wall"))
        self.surface.setMouseTracking(True)
        tiles.ready.connect(self.surface.update)
        look.changed.connect(self.surface.update)

    # what is shown

    def show_groups(
        self, shelf: Shelf, groups: Sequence[Group], empty: str, degrees: Mapping[int, float] | None = None
    ) -> None:
        """Show assets in named groups; `empty` is said when there are none. The selection stays when it can.

        `degrees` (0 to 1, by row) say how alike something they are, beside the most alike.
        """
        kept = self._spots.row(self._current) if shelf is self._shelf else -1
        self._shelf, self._groups, self._empty = shelf, groups, empty
        self._degrees = degrees or {}
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
        self._laid_out_anew(height, self._in_lines)

    def set_form(self, lines: bool) -> None:
        """Show one asset a line, or tiles."""
        self._laid_out_anew(self._tile_height, lines)

    def _laid_out_anew(self, height: int, lines: bool) -> None:
        """In another size or form; what is chosen, or what was seen first, stays where it was."""
        spots, top = self._spots, self.bar.value()
        first = spots.line_at(top)
        seen = self._current >= 0 and top <= spots.tops[self._current] < top + self.surface.height()
        anchor = self._current if seen else spots.lines[first][1] if first >= 0 else -1
        before = float(spots.tops[anchor]) - top if anchor >= 0 else 0.0
        self._tile_height, self._in_lines = height, lines
        self._lay_out()
        if anchor >= 0 and top:
            self.bar.setValue(int(self._spots.tops[anchor] - before))
        if seen:
            self._scroll_to(self._current)
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
        tall = 0 if self._in_lines else self._tile_height
        self._spots = Spots(self._shelf, self._groups, self.surface.width(), tall)
        bar = self.bar
        bar.setRange(0, max(0, int(self._spots.height - self.surface.height())))
        bar.setPageStep(self.surface.height())
        bar.setSingleStep(40)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self.surface)
        look = self._look
        painter.fillRect(self.surface.rect(), look.colour("window"))
        if not len(self._spots):
            painter.setPen(look.colour("quiet"))
            painter.setFont(font(13))
            painter.drawText(self.surface.rect(), Qt.AlignmentFlag.AlignCenter, tr(self._empty))
            return
        top = self.bar.value()
        bottom = top + self.surface.height()
        spots = self._spots
        for header in spots.headers:
            if top - HEADER < header.y < bottom:
                self._paint_header(painter, header, top)
        first = max(spots.line_at(top - spots.pitch), 0)
        for place in range(spots.lines[first][1], len(spots)):
            if spots.tops[place] > bottom:
                break
            self._paint_spot(painter, place)

    def _paint_header(self, painter: QPainter, header: Header, top: int) -> None:
        painter.setFont(font(12, QFont.Weight.DemiBold))
        painter.setPen(self._look.colour("text"))
        painter.drawText(QPointF(MARGIN, header.y - top + 18), header.title)
        offset = painter.fontMetrics().horizontalAdvance(header.title) + 10
        painter.setFont(font(11))
        painter.setPen(self._look.colour("quiet"))
        painter.drawText(QPointF(MARGIN + offset, header.y - top + 18), header.detail)

    def _paint_spot(self, painter: QPainter, place: int) -> None:
        assert self._shelf is not None
        row = self._spots.row(place)
        look, rect, asset = self._look, self._rect(place), self._shelf[row]
        tile, held = rect, place in (self._current, self._target) or row in self._marked
        if held and self._in_lines:
            painter.fillRect(rect.adjusted(-6, 1, 6, -1), look.colour("raised"))
        if self._in_lines:
            tile = QRectF(rect.left(), rect.top() + 2, THUMB, LINE - 4)
        paint_tile(painter, look, tile, self._tiles.get(asset), crop=self._in_lines)
        if asset.path in self._swapped:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(look.colour("ember"))
            corner, side = tile.topRight(), 9 if self._in_lines else 15
            painter.drawPolygon(QPolygonF([corner, corner - QPointF(side, 0), corner + QPointF(0, side)]))
        if self._in_lines:
            paint_line(painter, look, rect, asset)
        else:
            self._paint_caption(painter, rect, asset)
        if (degree := self._degrees.get(row)) is not None:
            painter.fillRect(QRectF(tile.left(), tile.bottom() - 3, tile.width(), 3), look.colour("sunken"))
            painter.fillRect(
                QRectF(tile.left(), tile.bottom() - 3, tile.width() * degree, 3), look.colour("tarn")
            )
        if held:
            self._paint_ring(painter, place, rect)

    def _paint_caption(self, painter: QPainter, rect: QRectF, asset: Asset) -> None:
        for down, size, role, text in ((14, 12, "text", asset.name), (28, 11, "quiet", _caption(asset))):
            painter.setFont(font(size))
            painter.setPen(self._look.colour(role))
            painter.drawText(
                QPointF(rect.left(), rect.bottom() + down), elided(painter, text, rect.width() + 4)
            )

    def _paint_ring(self, painter: QPainter, place: int, rect: QRectF) -> None:
        """Around what is chosen or marked, a bar before it in lines; a thin one more around the one that keys act on."""
        colour = self._look.colour("ember" if place == self._target else "selection")
        painter.setBrush(Qt.BrushStyle.NoBrush)
        if self._in_lines:
            ring = rect.adjusted(-6, 1, 6, -1)
            painter.fillRect(QRectF(ring.left(), ring.top(), 3, ring.height()), colour)
        else:
            ring = rect.adjusted(-5, -5, 5, 5)
            painter.setPen(QPen(colour, 2))
            painter.drawRect(rect.adjusted(-2, -2, 2, 2))
        if place == self._current and self.hasFocus():
            painter.setPen(QPen(colour, 1))
            painter.drawRect(ring.adjusted(0.5, 0.5, -0.5, -0.5))

    def _rect(self, place: int) -> QRectF:
        spots = self._spots
        top = float(spots.tops[place]) - self.bar.value()
        tall = LINE if self._in_lines else self._tile_height
        return QRectF(float(spots.lefts[place]), top, float(spots.widths[place]), tall)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        self.surface.update()

    def focusOutEvent(self, event: QFocusEvent | None) -> None:
        self.surface.update()

    # hands

    def _at(self, place: QPointF) -> int:
        line = self._spots.line_at(place.y() + self.bar.value())
        if line < 0:
            return -1
        below = 0 if self._in_lines else CAPTION
        return next(
            (
                at
                for at in self._spots.in_line(line)
                if self._rect(at).adjusted(-3, -3, 5, below).contains(place)
            ),
            -1,
        )

    def _say(self) -> None:
        """Tell who does not see it what is chosen."""
        asset, marked = self.current(), len(self._marked)
        if asset is None:
            self.setAccessibleDescription(tr(f"{len(self._spots)} tiles, none chosen"))
            return
        words = [asset.name, _caption(asset), f"{self._current + 1} of {len(self._spots)}"]
        words += ["swapped"] if asset.path in self._swapped else []
        words += [f"{marked} marked"] if marked > 1 else []
        degree = self._degrees.get(self._spots.row(self._current))
        words += [_alike(degree)] if degree is not None else []
        self.setAccessibleDescription(", ".join(tr_all(words)))

    def _choose(self, place: int, marking: bool = False) -> None:
        if not 0 <= place < len(self._spots):
            return
        self._current = place
        if not marking:
            self._marked = frozenset()
        self._scroll_to(place)
        self._say()
        self.surface.update()
        self.selected.emit(self.current())

    def _scroll_to(self, place: int) -> None:
        top, bar, pitch = float(self._spots.tops[place]), self.bar, self._spots.pitch
        if top - HEADER < bar.value():
            bar.setValue(int(top - HEADER))
        elif top + pitch > bar.value() + self.surface.height():
            bar.setValue(int(top + pitch - self.surface.height()))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.setFocus()
        if event is None or (place := self._at(event.position())) < 0:
            return
        if event.button() == Qt.MouseButton.RightButton:
            return  # its menu comes
        row, before = self._spots.row(place), self._spots.row(self._current)
        self._pressed = event.position()
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self._marked = (self._marked | ({before} - {-1})) ^ {row}
        elif event.modifiers() & Qt.KeyboardModifier.ShiftModifier and self._current >= 0:
            low, high = sorted((self._current, place))
            self._marked |= frozenset(self._spots.rows[low : high + 1].tolist())
        elif row not in self._marked:  # all of them may be dragged; let go of when they were not
            self._marked = frozenset()
        self._choose(place, marking=True)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        plain = event is not None and event.modifiers() == Qt.KeyboardModifier.NoModifier
        if self._pressed is not None and plain and self._marked:
            self._choose(self._current)
        self._pressed = None

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
        if event is not None and self._pressed is not None and event.buttons() & Qt.MouseButton.LeftButton:
            if (event.position() - self._pressed).manhattanLength() >= QApplication.startDragDistance():
                self._pressed = None
                self._drag()
        elif event is not None:
            place = self._at(event.position())
            degree = self._degrees.get(self._spots.row(place))
            alike = f"{_alike(degree)}\n" if degree is not None else ""
            self.surface.setToolTip(tr(alike + _tip(self._asset(place)) if place >= 0 else ""))

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
            step = 1 if key == Qt.Key.Key_Down else -1
            self._choose(self._spots.beside(self._current, step) if self._current >= 0 else 0)
        elif key == Qt.Key.Key_Home:
            self._choose(0)
        elif key == Qt.Key.Key_End:
            self._choose(len(self._spots) - 1)
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and (asset := self.current()) is not None:
            self.opened.emit(asset)
        else:
            super().keyPressEvent(event)

    def _asset(self, place: int) -> Asset:
        assert self._shelf is not None
        return self._shelf[self._spots.row(place)]

    def _drag(self) -> None:
        """Carry what is chosen: to the queue or to Fit, where it is begun with, or to a bench as its source."""
        drag = QDrag(self)
        drag.setMimeData(dragged([asset.path for asset in self.chosen()]))
        shown = self._rect(self._current).intersected(QRectF(self.surface.rect())).toRect()
        drag.setPixmap(self.surface.grab(shown).scaledToHeight(min(shown.height(), 72)))
        drag.exec(Qt.DropAction.CopyAction)

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


def _caption(asset: Asset) -> str:
    facts = asset.facts
    if facts.width:
        return f"{number(facts.width)} × {number(facts.height)}  {facts.format}"
    if facts.rate:
        return f"{facts.length_s:.2f} s  {facts.format}"
    return f"{facts.format}  {byte_size(asset.size)}"


def _tip(asset: Asset) -> str:
    return f"{asset.path}\n{_caption(asset)}, {byte_size(asset.size)}, from {asset.archive.name}\nDrop a file here to swap it"


def _alike(degree: float) -> str:
    """How alike something is, beside the most alike."""
    return "the most alike" if degree >= 1 else f"{degree:.0%} as alike as the first"
