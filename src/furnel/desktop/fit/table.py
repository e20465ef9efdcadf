"""The fit table: point by point, what the original is, what yours is, how it stands and what will be done about it."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QKeyEvent, QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.actions import with_key
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.widgets.basics import (
    button,
    copy_text,
    elided,
    label,
    marked,
    paint_state,
    set_next,
    strong,
    tip,
    toggle,
)
from furnel.desktop.widgets.menus import Row, offers_menu
from furnel.mods.fit import FitPoint
from furnel.states import urgency
from furnel.words import ended

_ROW, _HEAD = 25, 22
_LABEL, _MARK = 92, 24
_ALWAYS = (
    "file",
    "size",
    "format",
    "levels",
    "alpha",
    "brightness",
    "rate",
    "channels",
    "length",
    "loudness",
    "form",
)


class _Table(QWidget):
    KEYS_HERE = (("Up, Down", "from point to point"),)
    picked = pyqtSignal(int)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.points: tuple[FitPoint, ...] = ()
        self.row = -1
        self._all: tuple[FitPoint, ...] = ()
        self._unfolded = False
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(tr("Fit table"))
        look.changed.connect(self.update)

    def show_points(self, points: tuple[FitPoint, ...]) -> None:
        self._all = points
        shown = [point for point in points if point.state != "fits" or point.insisted or point.key in _ALWAYS]
        self.points = points if self._unfolded or len(points) - len(shown) < 2 else tuple(shown)
        hidden = len(points) - len(self.points)
        self.setFixedHeight(_HEAD + (len(self.points) + (1 if hidden or self._unfolded else 0)) * _ROW)
        self.setAccessibleDescription(
            "; ".join(tr(f"{p.label}: {p.original}, yours {p.yours}, {p.state}") for p in points)
        )
        self.update()

    def pick(self, row: int) -> None:
        if 0 <= row < len(self.points):
            self.row = row
            self.picked.emit(row)
            point = self.points[row]
            said = f"{point.label}: {point.original}, yours {point.yours}, {point.state}"
            self.setAccessibleDescription(tr(f"{said}, kept" if point.insisted else said))
            self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        row = int((event.position().y() - _HEAD) // _ROW)
        if row == len(self.points):
            self.unfold(not self._unfolded)
        else:
            self.pick(row)

    def pick_at(self, place: QPoint) -> FitPoint | None:
        """Pick the point at a place; it, or None beside all of them."""
        row = (place.y() - _HEAD) // _ROW
        self.pick(row)
        return self.points[row] if 0 <= row < len(self.points) else None

    def unfold(self, unfolded: bool) -> None:
        """Show all points, or leave out those that fit and matter less."""
        picked = self.points[self.row].key if 0 <= self.row < len(self.points) else ""
        self._unfolded = unfolded
        self.show_points(self._all)
        self.row = next((row for row, point in enumerate(self.points) if point.key == picked), -1)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        if move:
            self.pick(max(0, min(self.row + move, len(self.points) - 1)))
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        wide = (self.width() - _LABEL - _MARK) / 2
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour("tarn"))
        painter.drawText(QPointF(_LABEL, 15), tr("original"))
        painter.setPen(look.colour("ember"))
        painter.drawText(QPointF(_LABEL + wide, 15), tr("yours"))
        for row, point in enumerate(self.points):
            y = _HEAD + row * _ROW
            if row == self.row:
                painter.fillRect(QRectF(-4, y, self.width() + 8, _ROW), look.colour("raised"))
            painter.fillRect(QRectF(0, y, self.width(), 1), look.colour("hairline"))
            painter.setFont(font(12))
            painter.setPen(look.colour("quiet"))
            painter.drawText(QPointF(0, y + 17), elided(painter, tr(point.label), _LABEL - 4))
            painter.setPen(look.colour("text" if point.state != "fits" else "quiet"))
            painter.drawText(QPointF(_LABEL, y + 17), elided(painter, tr(point.original), wide - 6))
            painter.setPen(look.colour("text"))
            painter.drawText(QPointF(_LABEL + wide, y + 17), elided(painter, tr(point.yours), wide - 6))
            paint_state(painter, look, point.state, QRectF(self.width() - 14, y + 8, 10, 10))
            if point.insisted:
                painter.setPen(look.colour("ember"))
                painter.setFont(font(10))
                painter.drawText(QPointF(self.width() - 40, y + 17), tr("kept"))
        hidden = len(self._all) - len(self.points)
        if hidden or self._unfolded:
            y = _HEAD + len(self.points) * _ROW
            painter.fillRect(QRectF(0, y, self.width(), 1), look.colour("hairline"))
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            text = f"and {hidden} more that fit" if hidden else "only what matters"
            painter.drawText(QPointF(_LABEL, y + 17), tr(text))


class FitTable(QWidget):
    """The table with its head, and a box that explains the picked point.

    `wanted` asks for a command, `mend` for one point to be put right, `insist` for one to stay as it is, `shown` for the
    places of one to be shown.
    """

    wanted = pyqtSignal(str)
    mend = pyqtSignal(str)
    insist = pyqtSignal(str, bool)
    shown = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._name, self._source = label("", "title"), label("", "ember")
        self._fit = button(
            "Fit all", with_key("Choose steps and encoding so that every point fits", "fit-all"), "next"
        )
        self._fit.clicked.connect(lambda: self.wanted.emit("fit-all"))
        self.table = _Table(look)
        self._box = QWidget()
        self._box.setObjectName("explain")
        self._box.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._look = look
        self._point, self._why, self._remedy = marked(), label("", "caption"), label("", "")
        for text in (self._why, self._remedy):
            text.setWordWrap(True)
        self._mend = button("Match it", "Add a step that does this", "plain")
        self._mend.clicked.connect(lambda: self.mend.emit(self.table.points[self.table.row].key))
        inner = QVBoxLayout(self._box)
        inner.setContentsMargins(10, 8, 10, 8)
        inner.setSpacing(3)
        for part in (self._point, self._why, self._remedy):
            inner.addWidget(part)
        self._keep = toggle(
            "Keep yours", "Stay with yours: it no longer stops the build, and Fit all leaves it"
        )
        self._keep.clicked.connect(lambda on: self.insist.emit(self.table.points[self.table.row].key, on))
        self._show = button("Show", "Show where in the picture", "plain")
        self._show.clicked.connect(lambda: self.shown.emit(self.table.points[self.table.row].key))
        tools = QHBoxLayout()
        tools.addStretch(1)
        tools.addWidget(self._show)
        tools.addWidget(self._keep)
        tools.addWidget(self._mend)
        inner.addLayout(tools)
        self._mendable: frozenset[str] = frozenset()
        names = QVBoxLayout()
        names.setSpacing(1)
        names.addWidget(self._name)
        names.addWidget(self._source)
        head = QHBoxLayout()
        head.addLayout(names, 1)
        head.addWidget(self._fit)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        column.addLayout(head)
        column.addWidget(self.table)
        column.addWidget(self._box)
        self.table.picked.connect(self._explain)
        offers_menu(self.table, self._offers)
        look.changed.connect(self._dress)
        self._dress()

    def show_swap(
        self,
        name: str,
        source: str,
        points: tuple[FitPoint, ...],
        mendable: frozenset[str] = frozenset(),
        can_fit: bool = True,
    ) -> None:
        """Show a swap's points; the worst one is explained. `mendable` are the keys of those that one step puts right,
        `can_fit` says whether steps can make all of it fit."""
        self._mendable = mendable
        self._name.setText(name)
        self._source.setText(tr(source.rpartition("/")[2]))
        tip(self._source, source)
        self.table.show_points(points)
        needed = any(point.state == "breaks" for point in points)
        self._fit.setVisible(can_fit)
        set_next(self._fit, needed)
        points = self.table.points
        worst = min(range(len(points)), key=lambda row: urgency(points[row].state), default=-1)
        if worst >= 0 and points[worst].state != "fits":
            self.table.pick(worst)
        else:
            self.table.row = -1
            self._box.hide()

    def _explain(self, row: int) -> None:
        point = self.table.points[row]
        self._box.setVisible(bool(point.why or point.remedy))
        self._point.setText(tr(strong(point.label)))
        self._why.setText(tr(ended(point.why)))
        self._why.setVisible(bool(point.why))
        self._remedy.setText(tr(ended(point.remedy)))
        self._remedy.setVisible(bool(point.remedy))
        self._mend.setVisible(point.key in self._mendable and bool(point.remedy))
        self._show.setVisible(bool(point.at) and point.state != "fits")
        self._keep.setVisible(point.state != "fits" or point.insisted)
        self._keep.setChecked(point.insisted)

    def _offers(self, place: QPoint) -> list[Row]:
        """What can be done with the point at a place."""
        point = self.table.pick_at(place)
        if point is None:
            return []
        keep = "No longer keep yours" if point.insisted else "Keep yours"
        said = f"{point.label}: {point.original}, yours {point.yours}"
        return [
            ("Match it", lambda: self.mend.emit(point.key), point.key in self._mendable),
            (
                keep,
                lambda: self.insist.emit(point.key, not point.insisted),
                point.state != "fits" or point.insisted,
            ),
            ("Show where", lambda: self.shown.emit(point.key), bool(point.at) and point.state != "fits"),
            ("Copy as text", lambda: copy_text(said), True),
        ]

    def _dress(self) -> None:
        raised = self._look.colour("raised").name()
        self._box.setStyleSheet(f"QWidget#explain {{ background: {raised}; border-radius: 4px }}")
