"""Everything that was said since the start, the latest on top, with what can still be done about it."""

from __future__ import annotations

from bisect import bisect_right
from collections.abc import Iterator, Sequence

from PyQt6.QtCore import QPoint, QPointF, QRect, QRectF, Qt
from PyQt6.QtGui import QFontMetrics, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QResizeEvent, QWheelEvent
from PyQt6.QtWidgets import QFrame, QHBoxLayout

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.session import Notice, Session
from furnel.desktop.widgets.basics import button, copy_text, paint_state, toggle
from furnel.desktop.widgets.canvas import Canvas
from furnel.desktop.widgets.menus import Row, offers_menu
from furnel.desktop.widgets.page import Page
from furnel.words import count

_LEFT, _TIME, _WORDS, _RIGHT, _APART, _PAD = 24, 64, 112, 24, 18, 8  # pixels
_WRAPPED = Qt.TextFlag.TextWordWrap | Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignTop


class _Rows(Canvas):
    """The notices that are shown. Enter does what a notice offers first, its menu the rest."""

    KEYS_HERE = (("Up, Down", "from notice to notice"), ("Return", "do what it offers first"))

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.notices: list[Notice] = []
        self._tops: list[int] = [0]
        self._row = 0
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("What was said, the latest first"))
        self.surface.setMouseTracking(True)
        offers_menu(self, self._offers)
        look.changed.connect(self.surface.update)

    def show_notices(self, notices: list[Notice]) -> None:
        """Show some, in this order; the one with the cursor keeps it."""
        kept = self.notices[self._row] if self._row < len(self.notices) else None
        self.notices = notices
        self._row = next((row for row, one in enumerate(notices) if one is kept), 0)
        self._lay_out()
        self._say()

    def _lay_out(self) -> None:
        metrics = QFontMetrics(font(12))
        top, self._tops = 10, [10]
        for notice in self.notices:
            top += (
                max(metrics.boundingRect(self._words(notice), _WRAPPED, tr(notice.text)).height(), 16)
                + 2 * _PAD
            )
            self._tops.append(top)
        self.bar.setRange(0, max(0, top + 24 - self.surface.height()))
        self.bar.setPageStep(self.surface.height())
        self.bar.setSingleStep(40)
        self.surface.update()

    def _words(self, notice: Notice) -> QRect:
        """The room for a notice's words, at the top of the surface."""
        room = self.surface.width() - _WORDS - _RIGHT
        taken = sum(QFontMetrics(font(12)).horizontalAdvance(tr(text)) + _APART for text, _ in notice.actions)
        return QRect(_WORDS, 0, max(room - taken, 60), 10_000)

    def _links(self, row: int) -> Iterator[tuple[QRectF, int]]:
        """Where a notice's actions are drawn, from the right, each with its place among them."""
        right = float(self.surface.width() - _RIGHT)
        actions = self.notices[row].actions
        for place in reversed(range(len(actions))):
            wide = QFontMetrics(font(12)).horizontalAdvance(tr(actions[place][0]))
            yield QRectF(right - wide, self._tops[row] - self.bar.value() + _PAD - 3, wide, 22), place
            right -= wide + _APART

    def _at(self, y: float) -> int:
        """The row at a height of the surface, or -1."""
        row = bisect_right(self._tops, y + self.bar.value()) - 1
        return row if 0 <= row < len(self.notices) else -1

    def _say(self) -> None:
        if not self.notices:
            self.setAccessibleDescription(tr("nothing"))
            return
        notice = self.notices[self._row]
        offers = "; it offers: " + ", ".join(text for text, _ in notice.actions) if notice.actions else ""
        self.setAccessibleDescription(
            tr(f"{'refused: ' if notice.tone == 'wrong' else ''}{notice.text}{offers}")
        )

    def _go(self, row: int) -> None:
        self._row = max(0, min(row, len(self.notices) - 1))
        if self.notices:
            top, bottom = self._tops[self._row], self._tops[self._row + 1]
            if top < self.bar.value():
                self.bar.setValue(top - 10)
            elif bottom > self.bar.value() + self.surface.height():
                self.bar.setValue(bottom - self.surface.height())
        self._say()
        self.surface.update()

    def _offers(self, place: QPoint) -> list[Row]:
        row = self._at(place.y())
        if row < 0:
            row = self._row
        if row >= len(self.notices):
            return []
        self._go(row)
        notice = self.notices[row]
        return [
            *((text, act, True) for text, act in notice.actions),
            ("Copy the words", lambda: copy_text(notice.text), True),
        ]

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.setFocus()
        if (
            event is None
            or event.button() != Qt.MouseButton.LeftButton
            or (row := self._at(event.position().y())) < 0
        ):
            return
        self._go(row)
        for box, place in self._links(row):
            if box.contains(event.position()):
                self.notices[row].actions[place][1]()
                return

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            row = self._at(event.position().y())
            over = row >= 0 and any(box.contains(event.position()) for box, _ in self._links(row))
            self.surface.setCursor(Qt.CursorShape.PointingHandCursor if over else Qt.CursorShape.ArrowCursor)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            self.bar.setValue(
                int(self.bar.value() - (event.pixelDelta().y() or event.angleDelta().y() * 0.9))
            )

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        key = Qt.Key(event.key()) if event is not None else Qt.Key.Key_unknown
        if key in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            self._go(self._row + (1 if key == Qt.Key.Key_Down else -1))
        elif key in (Qt.Key.Key_Home, Qt.Key.Key_End):
            self._go(0 if key == Qt.Key.Key_Home else len(self.notices) - 1)
        elif (
            key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self.notices and self.notices[self._row].actions
        ):
            self.notices[self._row].actions[0][1]()
        else:
            super().keyPressEvent(event)

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._lay_out()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self.surface), self._look
        painter.fillRect(self.surface.rect(), look.colour("window"))
        painter.setFont(font(12))
        if not self.notices:
            painter.setPen(look.colour("quiet"))
            painter.drawText(QPointF(_LEFT, 30), tr("Nothing to show"))
        for row in range(max(self._at(0), 0), len(self.notices)):
            top = self._tops[row] - self.bar.value()
            if top > self.surface.height():
                break
            self._paint_row(painter, row, top)

    def _paint_row(self, painter: QPainter, row: int, top: int) -> None:
        look, notice, high = self._look, self.notices[row], self._tops[row + 1] - self._tops[row]
        if row == self._row and self.hasFocus():
            painter.fillRect(
                QRect(_LEFT - 10, top + 1, self.surface.width() - 28, high - 1), look.colour("raised")
            )
        painter.fillRect(QRect(_LEFT, top + high, self.surface.width() - 48, 1), look.colour("hairline"))
        line = QRect(_LEFT, top + _PAD, _TIME, 16)
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        painter.drawText(
            line, Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter, f"{notice.at:%H:%M:%S}"
        )
        state = "breaks" if notice.tone == "wrong" else "fits"
        paint_state(painter, look, state, QRectF(_WORDS - 24, top + _PAD + 3, 10, 10))
        painter.setFont(font(12))
        painter.setPen(look.colour("text"))
        painter.drawText(self._words(notice).translated(0, top + _PAD), _WRAPPED, tr(notice.text))
        painter.setPen(look.colour("quiet"))
        for box, place in self._links(row):
            painter.drawText(box, Qt.AlignmentFlag.AlignCenter, tr(notice.actions[place][0]))


class SaidPage(Page):
    """The notices of a window, as they were told: when, how it went, the words, and their actions."""

    def __init__(self, look: Look, session: Session, notices: Sequence[Notice]) -> None:
        super().__init__()
        self._notices = notices
        self.title.setText(tr("What was said"))
        self.refusals = toggle("refusals only", "Show only what could not be done")
        self.refusals.toggled.connect(lambda _: self._renew())
        copy = button("Copy", "Copy what is shown, a line each", "plain")
        copy.clicked.connect(lambda: copy_text(self.told()))
        back = button("Back", "Esc", "plain")
        back.clicked.connect(self.closed)
        self.rows = _Rows(look)
        body = QHBoxLayout()
        body.addWidget(self.rows)
        self.laid_out(self.titled(self.refusals, copy, back), body)
        self.setFocusProxy(self.rows)
        session.told.connect(lambda _: self._renew() if self.isVisible() else None)

    def open(self) -> None:
        """Show what was said up to now."""
        self._renew()
        self.rows.setFocus()

    def told(self) -> str:
        """What is shown, as text."""
        shown = self.rows.notices
        return "\n".join(f"{n.at:%H:%M:%S}  {'✕' if n.tone == 'wrong' else '✓'}  {n.text}" for n in shown)

    def _renew(self) -> None:
        wrong = sum(notice.tone == "wrong" for notice in self._notices)
        self.said.setText(
            tr(
                f"{count(len(self._notices), 'notice')} since the start"
                + (f", {count(wrong, 'refusal')}" if wrong else "")
            )
        )
        only = self.refusals.isChecked()
        self.rows.show_notices([one for one in reversed(self._notices) if one.tone == "wrong" or not only])
