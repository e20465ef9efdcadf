"""The stack: the game and its mods in load order, to be switched and dragged."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QContextMenuEvent, QFont, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.session import Session
from furnel.desktop.widgets.basics import elided
from furnel.games import BRIDGE, InstalledMod

_ROW = 46
_ORDERED = "Drag to change the order, or Alt+Up and Alt+Down; Enter switches a mod on or off"
_IN_PLACE = "These mods stand in the place of the game's own files; Remove brings those back"


class StackView(QWidget):
    """Rows from the game at the bottom to the winner on top; drag to reorder, click the switch to turn off."""

    KEYS_HERE = (
        ("Up, Down", "from mod to mod"),
        ("Alt and Up, Down", "moves it in the load order"),
        ("Return", "on and off"),
    )

    picked = pyqtSignal()
    menu_wanted = pyqtSignal(QPoint)

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._look, self._session = look, session
        self._row = 0
        self._drag = -1
        self._at = 0.0
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(tr("Load order"))
        session.game.changed.connect(self._renew)
        session.opened.connect(self._renew)
        look.changed.connect(self.update)
        self.picked.connect(self._say)
        self._renew()

    def _renew(self) -> None:
        ordered = self._session.game.has_order
        self.setToolTip(tr(_ORDERED if ordered else _IN_PLACE))
        self.setFixedHeight((len(self._session.game.stack) + 1) * _ROW)
        self._row = max(0, min(self._row, len(self._session.game.stack) - 1))
        self.picked.emit()
        self.update()

    def _say(self) -> None:
        """Tell who does not see it which mod is chosen, and whether it is on."""
        mod, many = self.chosen, len(self._session.game.stack)
        place = "the winner" if self._row == 0 else f"{self._row + 1} of {many} from the winner"
        self.setAccessibleDescription(
            tr(f"{mod.name}, {'on' if mod.on else 'off'}, {place}" if mod is not None else "no mods")
        )

    @property
    def chosen(self) -> InstalledMod | None:
        """The mod whose row is chosen."""
        stack = self._session.game.stack
        return stack[self._top_down()[self._row]] if 0 <= self._row < len(stack) else None

    def _top_down(self) -> list[int]:
        """Places in the stack in the order of the rows: the winner first."""
        return list(range(len(self._session.game.stack) - 1, -1, -1))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        stack = self._session.game.stack
        project = self._session.project
        for row, place in enumerate(self._top_down()):
            mod = stack[place]
            y = self._at - _ROW / 2 if row == self._drag else row * _ROW
            self._paint(
                painter,
                y,
                mod.name,
                f"{mod.version} · {len(mod.paths)} files",
                mod.on,
                bool(project and project.mod.id == mod.id) or mod.id == BRIDGE,
                row,
            )
        catalogue = self._session.catalogue
        if catalogue is not None:
            name = catalogue.install.profile.name
            self._paint(
                painter, len(stack) * _ROW, name, f"the game, {len(catalogue.assets)} assets", None, False, -1
            )

    def _paint(
        self, painter: QPainter, y: float, name: str, detail: str, on: bool | None, ours: bool, row: int
    ) -> None:
        look = self._look
        box = QRectF(0.5, y + 2.5, self.width() - 1, _ROW - 6)
        edge = "quiet" if row == self._row and self.hasFocus() else "hairline"
        painter.setPen(QPen(look.colour(edge), 1))
        painter.setBrush(look.colour("raised" if row >= 0 else "panel"))
        painter.drawRoundedRect(box, 4, 4)
        role = "tarn" if on is None else "ember" if ours else "text" if on else "faint"
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour(role))
        painter.drawText(
            QPointF(12, y + 21), elided(painter, tr(name) if on is None else name, self.width() - 60)
        )
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        painter.drawText(QPointF(12, y + 36), tr(detail))
        if on is None or not self._session.game.has_order:
            return
        painter.setPen(QPen(look.colour("hairline-strong"), 1))
        painter.setBrush(look.colour("hairline-strong" if on else "sunken"))
        switch = QRectF(self.width() - 38, y + 16, 25, 13)
        painter.drawRoundedRect(switch, 6.5, 6.5)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(look.colour("text" if on else "faint"))
        painter.drawEllipse(
            QPointF(switch.right() - 6.5 if on else switch.left() + 6.5, switch.center().y()), 4.5, 4.5
        )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or event.button() == Qt.MouseButton.RightButton:
            return
        row = int(event.position().y() // _ROW)
        if not 0 <= row < len(self._session.game.stack):
            return
        self._row = row
        self.picked.emit()
        if event.position().x() > self.width() - 46:
            self._switch(row)
        elif self._session.game.has_order:
            self._drag, self._at = row, event.position().y()
        self.update()

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """What can be done with a mod of the stack."""
        if event is None or not self._session.game.stack:
            return
        at = event.globalPos()
        if event.reason() == QContextMenuEvent.Reason.Keyboard:
            at = self.mapToGlobal(QPoint(40, self._row * _ROW + _ROW // 2))
        elif not 0 <= (row := event.pos().y() // _ROW) < len(self._session.game.stack):
            return
        else:
            self._row = row
            self.picked.emit()
            self.update()
        self.menu_wanted.emit(at)

    def switch_chosen(self) -> None:
        """Switch the chosen mod on or off."""
        self._switch(self._row)

    def move_chosen(self, to_top: bool) -> None:
        """Put the chosen mod where it is seen over all others, or below them."""
        self._move(self._row, 0 if to_top else len(self._session.game.stack) - 1)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._drag >= 0:
            self._at = event.position().y()
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._drag >= 0:
            target = max(0, min(int(event.position().y() // _ROW), len(self._session.game.stack) - 1))
            source, self._drag = self._drag, -1
            self._move(source, target)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        target = max(0, min(self._row + move, len(self._session.game.stack) - 1))
        if move and event.modifiers() & Qt.KeyboardModifier.AltModifier:
            self._move(self._row, target)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._switch(self._row)
        elif not move:
            super().keyPressEvent(event)
            return
        self._row = target
        self.picked.emit()
        self.update()

    def _switch(self, row: int) -> None:
        stack = self._session.game.stack
        if not stack:
            return
        place = self._top_down()[row]
        self._session.game.set_order(
            [(mod.id, mod.on != (number == place)) for number, mod in enumerate(stack)]
        )

    def _move(self, source: int, target: int) -> None:
        if source == target or not self._session.game.stack:
            return
        rows = [self._session.game.stack[place] for place in self._top_down()]
        rows.insert(target, rows.pop(source))
        self._session.game.set_order([(mod.id, mod.on) for mod in reversed(rows)])
