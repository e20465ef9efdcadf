"""The wall as lines: one asset each, what is known of it in columns, and their head, by which they are ordered."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QWidget

from furnel.catalogue import Asset
from furnel.desktop.find.spots import MARGIN
from furnel.desktop.language import tr
from furnel.desktop.look import Look, byte_size, font
from furnel.desktop.widgets.basics import elided
from furnel.media import KIND_TITLES
from furnel.words import number

THUMB = 38
_YOURS = "Name, your changes first"
_APART = 12
_NAME_LEAST = 150
_RIGHT = Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter
_LEFT = Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter


@dataclass(frozen=True, slots=True)
class Column:
    """A column: its title, its width in pixels, what stands in it, and the orders that a click on its head goes through."""

    title: str
    width: int
    told: Callable[[Asset], str]
    orders: tuple[str, ...] = ()
    right: bool = True


def _sides(asset: Asset) -> str:
    facts = asset.facts
    return f"{number(facts.width)} × {number(facts.height)}" if facts.width else ""


NAME = Column("Name", 0, lambda asset: asset.name, ("name", "changed"), right=False)
COLUMNS = (
    Column("Pixels", 88, _sides, ("largest", "smallest")),
    Column(
        "Length", 56, lambda asset: f"{asset.facts.length_s:.2f} s" if asset.facts.rate else "", ("longest",)
    ),
    Column("Bytes", 62, lambda asset: byte_size(asset.size), ("heaviest",)),
    Column("Kind", 68, lambda asset: tr(KIND_TITLES[asset.facts.kind]), right=False),
    Column("Format", 84, lambda asset: asset.facts.format, right=False),
    Column("Folder", 128, lambda asset: asset.folder, right=False),
)


def columns_over(left: float, width: float) -> list[tuple[Column, QRectF]]:
    """The columns that have room, the name first and with what is left, and where each stands (at y 0, with no height)."""
    room = width - THUMB - _NAME_LEAST
    shown = []
    for column in COLUMNS:
        room -= column.width + _APART
        if room < 0:
            break
        shown.append(column)
    x = left + THUMB + 8
    wide = left + width - x - sum(column.width + _APART for column in shown)
    out = [(NAME, QRectF(x, 0, wide, 0))]
    x += wide
    for column in shown:
        out.append((column, QRectF(x + _APART, 0, column.width, 0)))
        x += _APART + column.width
    return out


def paint_line(painter: QPainter, look: Look, rect: QRectF, asset: Asset) -> None:
    """What is told of an asset, beside its tile."""
    for column, place in columns_over(rect.left(), rect.width()):
        box = QRectF(place.left(), rect.top(), place.width(), rect.height())
        painter.setFont(font(12 if column is NAME else 11))
        painter.setPen(look.colour("text" if column is NAME else "quiet"))
        mode = Qt.TextElideMode.ElideMiddle if column.title == "Folder" else Qt.TextElideMode.ElideRight
        told = elided(painter, column.told(asset), box.width(), mode)
        painter.drawText(box, _RIGHT if column.right else _LEFT, told)


class LinesHead(QWidget):
    """The columns' heads. `ordered` asks for another order by its name."""

    OWN_RING = True

    ordered = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look, self._order, self._at = look, "", 0
        self.setFixedHeight(24)
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(tr("Columns"))
        self.setMouseTracking(True)
        self.setToolTip(tr("Click a column to order by it; once more for the other way, where there is one"))
        look.changed.connect(self.update)

    def show_order(self, order: str) -> None:
        """Which order the wall has."""
        self._order = order
        self._say()
        self.update()

    def _heads(self) -> list[tuple[Column, QRectF]]:
        return columns_over(MARGIN, self.width() - 2 * MARGIN - 10)  # the wall's bar is beside its surface

    def _say(self) -> None:
        column = self._heads()[min(self._at, len(self._heads()) - 1)][0]
        self.setAccessibleDescription(
            tr(f"{column.title}, {'orders' if self._order in column.orders else 'does not order'}")
        )

    def _press(self, column: Column) -> None:
        if column.orders:
            next_one = column.orders.index(self._order) + 1 if self._order in column.orders else 0
            self.ordered.emit(column.orders[next_one % len(column.orders)])

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            over = self._over(event.position().x())
            can = over is not None and over.orders
            self.setCursor(Qt.CursorShape.PointingHandCursor if can else Qt.CursorShape.ArrowCursor)

    def _over(self, x: float) -> Column | None:
        return next((column for column, at in self._heads() if at.left() - 6 <= x <= at.right() + 6), None)

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and (column := self._over(event.position().x())) is not None:
            self._press(column)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if move:
            self._at = max(0, min(self._at + move, len(self._heads()) - 1))
            self._say()
            self.update()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter, Qt.Key.Key_Space):
            self._press(self._heads()[min(self._at, len(self._heads()) - 1)][0])
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(font(11))
        painter.fillRect(QRectF(0, self.height() - 1, self.width(), 1), look.colour("hairline"))
        for place, (column, at) in enumerate(self._heads()):
            box = QRectF(at.left(), 0, at.width(), self.height() - 1)
            by = self._order in column.orders
            painter.setPen(look.colour("text" if by else "quiet"))
            painter.drawText(
                box,
                _RIGHT if column.right else _LEFT,
                tr(_YOURS if by and self._order == "changed" else column.title),
            )
            if by and self._order != "changed":
                self._paint_way(painter, box, column, painter.fontMetrics().horizontalAdvance(column.title))
            if self.hasFocus() and place == self._at:
                painter.setPen(QPen(look.colour("selection"), 1))
                painter.drawRect(box.adjusted(-4, 2.5, 4, -2.5))

    def _paint_way(self, painter: QPainter, box: QRectF, column: Column, wide: int) -> None:
        """A small wedge beside the title: down for the most first, up for the least."""
        x = box.right() - wide - 9 if column.right else box.left() + wide + 9
        y, way = box.center().y() + 0.5, -1 if self._order in ("smallest", "name") else 1
        painter.setBrush(self._look.colour("quiet"))
        painter.setPen(Qt.PenStyle.NoPen)
        painter.drawPolygon(
            QPolygonF([QPointF(x - 3, y - 2 * way), QPointF(x + 3, y - 2 * way), QPointF(x, y + 2 * way)])
        )
