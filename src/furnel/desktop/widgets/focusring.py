"""A ring around what keys act on, for parts that paint themselves: seen from Tab until the mouse is used again."""

from __future__ import annotations

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QApplication, QScrollArea, QWidget

from furnel.desktop.look import Look

_TABS = (Qt.Key.Key_Tab, Qt.Key.Key_Backtab)
_MOVES = (QEvent.Type.Resize, QEvent.Type.Move, QEvent.Type.Hide)


class FocusRing(QWidget):
    """The ring of a window. Parts that show their focus by themselves have OWN_RING."""

    def __init__(self, window: QWidget, look: Look) -> None:
        super().__init__(window)
        self._look = look
        self._around: QWidget | None = None
        self.setAttribute(Qt.WidgetAttribute.WA_TransparentForMouseEvents)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.hide()
        self._held: QWidget | None = None  # has the focus, and is listened to
        self._by_keys = False
        app = QApplication.instance()
        assert isinstance(app, QApplication)
        app.focusChanged.connect(self._moved)

    def _moved(self, _: QWidget | None, now: QWidget | None) -> None:
        window = self.parentWidget()
        if self._held is not None and not sip.isdeleted(self._held):
            self._held.removeEventFilter(self)
        self._held = now if now is not None and window is not None and window.isAncestorOf(now) else None
        if self._held is not None:
            self._held.installEventFilter(self)
        if QApplication.mouseButtons() != Qt.MouseButton.NoButton:
            self._by_keys = False
        kind = type(self._held)
        own = self._held is not None and (kind.__module__.startswith("furnel.desktop") or kind is QScrollArea)
        self._around = self._held if own and not hasattr(self._held, "OWN_RING") else None
        self._place()

    def _place(self) -> None:
        window, around = self.parentWidget(), self._around
        if window is None or around is None or not self._by_keys or not around.isVisible():
            self.hide()
            return
        seen = around.visibleRegion().boundingRect()
        self.setGeometry(seen.translated(around.mapTo(window, seen.topLeft()) - seen.topLeft()))
        self.raise_()
        self.show()
        self.update()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is None:
            return False
        kind = event.type()
        if kind == QEvent.Type.MouseButtonPress and self._by_keys:
            self._by_keys = False
            self.hide()
        elif kind == QEvent.Type.KeyPress and isinstance(event, QKeyEvent) and event.key() in _TABS:
            self._by_keys = True
            self._place()
        elif watched is self._around and kind in _MOVES:
            self._place()
        return False

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setPen(QPen(self._look.colour("selection"), 1))
        painter.drawRect(QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5))
        painter.setPen(QPen(self._look.colour("window"), 1))
        painter.drawRect(QRectF(self.rect()).adjusted(1.5, 1.5, -1.5, -1.5))
