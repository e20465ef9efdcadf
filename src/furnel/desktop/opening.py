"""The window before it is there: what is seen at once, while everything else is loaded."""

from __future__ import annotations

import contextlib
import threading
from collections.abc import Callable
from importlib import import_module

from PyQt6.QtCore import QByteArray, QPointF, QRectF, QSize, QTimer, pyqtSignal
from PyQt6.QtGui import QCloseEvent, QFont, QMoveEvent, QPainter, QPaintEvent, QResizeEvent
from PyQt6.QtWidgets import QApplication, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.recent import Recent
from furnel.desktop.timing import timer
from furnel.desktop.widgets.flowstrip import FlowStrip
from furnel.remembered import recall, remember

_FRAME = QSize(8, 36)  # pixels that a window manager's borders and title bar take
_PLACE_MS = 400  # after its last move
_BAR, _SIDE, _LINE, _TILE = 56, 202, 25, 92


def room() -> QSize:
    """1280 × 800, or what the screen has room for beside the window's own frame."""
    screen = QApplication.primaryScreen()
    if screen is None or QApplication.platformName() in ("offscreen", "minimal"):
        return QSize(1280, 800)
    return QSize(1280, 800).boundedTo(screen.availableGeometry().size() - _FRAME)


class Opening(QWidget):
    """The top-level window: the strip, the last game's name and where the wall will be, until `make` can give what it is.

    `make` is called on the interface thread once the modules that it needs are loaded by another one.
    """

    closed = pyqtSignal()
    _loaded = pyqtSignal()

    def __init__(self, look: Look, recent: Recent, make: Callable[[], QWidget]) -> None:
        super().__init__()
        self._look, self._recent, self._make = look, recent, make
        self._inner: QWidget | None = None
        self.setWindowTitle(f"{recent.mod_name} — Furnel" if recent.mod_name else "Furnel")
        self._moved = timer(self, self._keep_place, _PLACE_MS)
        if not self._take_place():
            self.resize(room())
        self._strip: FlowStrip | None = FlowStrip(look)
        self._strip.setParent(self)
        self._strip.setGeometry(218, 7, 760, 42)
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._loaded.connect(self._replace)
        self._begun = False

    def _take_place(self) -> bool:
        """Be where the window was last, and as large."""
        told = recall("window")
        place = QByteArray.fromBase64(told.encode()) if isinstance(told, str) else QByteArray()
        if not self.restoreGeometry(place):
            return False
        screen = self.screen()
        if screen is not None and not self.isMaximized() and not self.isFullScreen():
            self.resize(
                self.size().boundedTo(screen.availableGeometry().size() - _FRAME)
            )  # it may be another screen
        return True

    def _keep_place(self) -> None:
        place = bytes(self.saveGeometry().toBase64().data()).decode()
        threading.Thread(target=remember, args=("window", place), name="furnel-place").start()

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._moved.start()

    def moveEvent(self, event: QMoveEvent | None) -> None:
        self._moved.start()

    def _begin(self) -> None:
        threading.Thread(target=self._load, name="furnel-opening").start()

    def _load(self) -> None:
        # what is wrong is raised again, and told, where the window is made
        with contextlib.suppress(Exception):
            import_module("furnel.desktop.window")
        with contextlib.suppress(RuntimeError):  # closed meanwhile
            self._loaded.emit()

    def _replace(self) -> None:
        inner = self._inner = self._make()
        inner.windowTitleChanged.connect(self.setWindowTitle)
        self._column.addWidget(inner)
        if self._strip is not None:
            self._strip.deleteLater()
            self._strip = None
        inner.setFocus()

    def closeEvent(self, event: QCloseEvent | None) -> None:
        self.hide()  # what has still to be written is written meanwhile
        self.closed.emit()
        if self._inner is not None:
            self._inner.close()
        super().closeEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self._inner is not None:
            return
        look, painter, wide, high = self._look, QPainter(self), self.width(), self.height()
        painter.fillRect(self.rect(), look.colour("window"))
        for box in (
            QRectF(0, 0, wide, _BAR),
            QRectF(0, _BAR, _SIDE, high),
            QRectF(0, high - _LINE, wide, _LINE),
        ):
            painter.fillRect(box, look.colour("panel"))
        for y in (_BAR, high - _LINE):
            painter.fillRect(QRectF(0, y, wide, 1), look.colour("hairline"))
        for role, y, text in (("tarn", 24, self._recent.game_name), ("ember", 42, self._recent.mod_name)):
            painter.setFont(font(12, QFont.Weight.DemiBold if role == "tarn" else QFont.Weight.Normal))
            painter.setPen(look.colour(role))
            painter.drawText(QPointF(16, y), text)
        for top in range(_BAR + 66, high - _LINE - _TILE, 168):
            for left in range(_SIDE + 24, wide - 272 - _TILE, _TILE + 8):
                painter.fillRect(QRectF(left, top, _TILE, _TILE), look.colour("panel"))
        painter.setPen(look.colour("quiet"))
        painter.setFont(font(12))
        what = self._recent.mod_name or self._recent.game_name
        painter.drawText(QPointF(32, high - 8), tr(f"Opening {what} …" if what else "Opening …"))
        if not self._begun:  # everything else begins when this can be seen
            self._begun = True
            QTimer.singleShot(0, self._begin)
