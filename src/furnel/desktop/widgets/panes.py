"""Side panes: as wide as they were made last time, folded away or not."""

from __future__ import annotations

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QEnterEvent, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QSplitter, QWidget

from furnel.desktop.keeping import keep, kept_numbers
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.timing import timer

_GRIP, _FOLDED, _STEP, _SAVE_MS = 5, 13, 16, 300


class SidePane(QWidget):
    """What stands beside the middle of a view, with an edge to drag, and to double-click to fold it away.

    `side` is where it stands, `width` in pixels is what it has before anybody dragged. Width and fold are remembered by
    `name` as soon as they are changed.
    """

    def __init__(
        self, look: Look, name: str, title: str, inside: QWidget, side: str, width: int, least: int = 0
    ) -> None:
        super().__init__()
        self._name, self._inside, self._side = name, inside, side
        self._least, self._most = least or width * 3 // 4, max(width * 2, 480)
        self._wide, self.folded, self._room = width, False, 1 << 20
        inside.setMinimumWidth(0)
        inside.setSizePolicy(QSizePolicy.Policy.Ignored, inside.sizePolicy().verticalPolicy())
        self.grip = _Grip(look, title, side)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        for part in (inside, self.grip) if side == "left" else (self.grip, inside):
            row.addWidget(part, 1 if part is inside else 0)
        self.grip.pulled.connect(self._pull)
        self.grip.turned.connect(lambda: self.fold(not self.folded))
        self._later = timer(self, self._save, _SAVE_MS)
        if len(told := kept_numbers(name)) == 2:
            self._wide, self.folded = self._bound(told[0]), bool(told[1])
        self._lay_out()

    def _bound(self, wide: int) -> int:
        return max(self._least, min(wide, self._most))

    def _pull(self, by: int) -> None:
        """Make it wider or narrower by pixels to the right; pulled out again when it was folded."""
        if self.folded:
            return
        self._wide = self._bound(self._wide + (by if self._side == "left" else -by))
        self._lay_out()
        self._later.start()

    def fold(self, away: bool) -> None:
        """Fold it away, or bring it back."""
        if away == self.folded:
            return
        self.folded = away
        self._lay_out()
        self._later.start()

    def _lay_out(self) -> None:
        self._inside.setVisible(not self.folded)
        self.grip.show_folded(self.folded)
        self.setFixedWidth(_FOLDED if self.folded else max(min(self._wide, self._room), self._least) + _GRIP)

    def hold_to(self, room: int) -> None:
        """Let it be no wider than the room that a small window has for it; what it was made is remembered all the same."""
        if room != self._room:
            self._room = room
            self._lay_out()

    def _save(self) -> None:
        keep(self._name, [self._wide, int(self.folded)])


def remember_split(split: QSplitter, name: str) -> None:
    """Give a splitter the sizes that it had last, and keep those that it gets."""
    if len(told := kept_numbers(name)) == split.count():
        split.setSizes(told)
    later = timer(split, lambda: keep(name, split.sizes()), _SAVE_MS)
    split.splitterMoved.connect(lambda *_: later.start())


class _Grip(QWidget):
    """The edge of a side pane. `pulled` says by how many pixels to the right, `turned` that it was double-clicked."""

    OWN_RING = True

    pulled = pyqtSignal(int)
    turned = pyqtSignal()

    def __init__(self, look: Look, title: str, side: str) -> None:
        super().__init__()
        self._look, self._title, self._side = look, title, side
        self._from: float | None = None
        self._over = self._folded = False
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        look.changed.connect(self.update)

    def show_folded(self, folded: bool) -> None:
        """How it looks and what it says: an edge to drag, or a strip that brings the pane back."""
        self._folded = folded
        self.setFixedWidth(_FOLDED if folded else _GRIP)
        self.setCursor(Qt.CursorShape.PointingHandCursor if folded else Qt.CursorShape.SplitHCursor)
        self.setAccessibleName(tr(f"{self._title}, {'folded away' if folded else 'edge'}"))
        hint = "Click to bring it back" if folded else "Drag for its width; double-click to fold it away"
        self.setToolTip(tr(f"{self._title}: {hint}"))
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() != Qt.MouseButton.LeftButton:
            return
        if self._folded:
            self.turned.emit()
        else:
            self._from = event.globalPosition().x()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._from is not None:
            at = event.globalPosition().x()
            self.pulled.emit(round(at - self._from))
            self._from = at

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._from = None

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if not self._folded:
            self._from = None
            self.turned.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Left: -_STEP, Qt.Key.Key_Right: _STEP}.get(Qt.Key(event.key()), 0)
        if move:
            self.pulled.emit(move)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.turned.emit()
        else:
            super().keyPressEvent(event)

    def enterEvent(self, event: QEnterEvent | None) -> None:
        self._over = True
        self.update()

    def leaveEvent(self, event: object) -> None:
        self._over = False
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.fillRect(self.rect(), look.colour("raised" if self._folded and self._over else "panel"))
        strong = self._over or self.hasFocus()
        line = QRectF(self.width() - 1 if self._side == "left" else 0, 0, 1, self.height())
        painter.fillRect(line, look.colour("hairline"))
        if strong and not self._folded:
            inner = QRectF(self.width() - 3 if self._side == "left" else 0, 0, 3, self.height())
            painter.fillRect(inner, look.colour("selection" if self.hasFocus() else "hairline-strong"))
        if self._folded:
            painter.setRenderHint(QPainter.RenderHint.Antialiasing)
            painter.setPen(QPen(look.colour("text" if strong else "quiet"), 1.4))
            x, y = self.width() / 2 - 0.5, 28.0
            out = 2.5 if self._side == "left" else -2.5
            painter.drawPolyline(
                QPolygonF([QPointF(x - out, y - 5), QPointF(x + out, y), QPointF(x - out, y + 5)])
            )
