"""Working the window as a person does: clicks, keys, dropped files, and waiting for what they cause."""

from __future__ import annotations

import time
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QDragEnterEvent, QDragMoveEvent, QDropEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QAbstractSpinBox, QApplication, QWidget

from furnel.desktop.window import Window

_BUSY = 4  # how many others may share the machine


class Hands:
    """Hands on a window."""

    def __init__(self, window: Window) -> None:
        self.window = window

    def until(self, done: Callable[[], object], what: str, seconds: float = 60.0) -> None:
        """Let the window work until something is so. `seconds` are of this process's own work."""
        own, end = time.process_time() + seconds, time.monotonic() + seconds * _BUSY
        while not done():
            if time.process_time() > own or time.monotonic() > end:
                said = [notice.text for notice in self.window.messages[-3:]]
                raise TimeoutError(f"waited {seconds:g} s for {what}; the window last said {said}")
            QApplication.processEvents()
            time.sleep(0.005)

    def settle(self) -> None:
        """Let every job end, and what it causes."""
        quiet = 0
        while quiet < 6:
            self.until(
                lambda: self.window.jobs.busy() == 0 and self.window.tiles.waiting == 0, "the jobs to end"
            )
            QApplication.processEvents()
            time.sleep(0.01)
            quiet = quiet + 1 if self.window.jobs.busy() == 0 else 0

    def open(self, project: Path) -> None:
        """Open a mod and let it settle."""
        self.window.session.open_mod(project)
        self.until(lambda: self.window.session.project is not None, "the mod to open")
        self.settle()

    def click(self, widget: QWidget | None, place: QPoint | None = None) -> None:
        """Click with the left button."""
        assert widget is not None
        QTest.mouseClick(
            widget, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, place or widget.rect().center()
        )
        QApplication.processEvents()

    def key(self, keys: str, widget: QWidget | None = None) -> None:
        """Press keys, such as `Ctrl+2`."""
        from PyQt6.QtGui import QKeySequence

        combination = QKeySequence(keys)[0]
        target = widget or QApplication.focusWidget() or self.window
        QTest.keyClick(target, combination.key(), combination.keyboardModifiers())
        QApplication.processEvents()

    def type(self, text: str, widget: QWidget) -> None:
        """Type into a field."""
        widget.setFocus()
        QTest.keyClicks(widget, text)  # type: ignore[arg-type]  # the stub takes it for a method
        QApplication.processEvents()

    def station(self, number: int) -> None:
        """Go to a station by its key."""
        self.key(f"Ctrl+{number}", self.window)

    def find(self, text: str, path: str) -> None:
        """Search in the sieve, then click the tile."""
        self.station(1)
        self.key("Ctrl+F", self.window)
        self.window.find_station.sieve.text.clear()
        self.type(text, self.window.find_station.sieve.text)
        wall = self.window.find_station.wall
        self.until(lambda: not wall.tile_rect(path).isEmpty() and wall.shown < 40, f"{path} on the wall")
        wall.select(path)
        self.click(wall.viewport(), wall.tile_rect(path).center().toPoint())

    def drop(self, file: Path | list[Path], widget: QWidget | None, place: QPointF | None = None) -> None:
        """Drop a file, or several, on a place of a widget."""
        data = QMimeData()
        data.setUrls([QUrl.fromLocalFile(str(one)) for one in (file if isinstance(file, list) else [file])])
        self.drop_data(data, widget, place)

    def drop_data(self, data: QMimeData, widget: QWidget | None, place: QPointF | None = None) -> None:
        """Drop what another program offers on a place of a widget."""
        assert widget is not None
        place = QPointF(widget.rect().center()) if place is None else place
        buttons, none = Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier
        QApplication.sendEvent(
            widget, QDragEnterEvent(place.toPoint(), Qt.DropAction.CopyAction, data, buttons, none)
        )
        QApplication.sendEvent(
            widget, QDragMoveEvent(place.toPoint(), Qt.DropAction.CopyAction, data, buttons, none)
        )
        QApplication.sendEvent(widget, QDropEvent(place, Qt.DropAction.CopyAction, data, buttons, none))
        QApplication.processEvents()

    def drop_on_tile(self, file: Path, path: str) -> None:
        """Drop a file on an asset's tile."""
        wall = self.window.find_station.wall
        self.drop(file, wall.viewport(), wall.tile_rect(path).center())

    def drag(self, widget: QWidget, start: QPointF, end: QPointF) -> None:
        """Press, move and let go."""
        none = Qt.KeyboardModifier.NoModifier
        QTest.mousePress(widget, Qt.MouseButton.LeftButton, none, start.toPoint())
        for share in (0.3, 0.7, 1.0):
            QTest.mouseMove(widget, (start + (end - start) * share).toPoint())
            QApplication.processEvents()
        QTest.mouseRelease(widget, Qt.MouseButton.LeftButton, none, end.toPoint())
        QApplication.processEvents()

    def add_step(self, title: str) -> None:
        """Choose a step from the menu; its settings are then shown."""
        whole = self.window.fit_station.steps.menu
        for menu in (whole, *(action.menu() for action in whole.actions() if action.menu())):
            for action in menu.actions():
                if action.text() == title:
                    action.trigger()
                    self.settle()
                    return
        raise LookupError(f"no step is called {title}")

    def setting(self, name: str, value: str) -> None:
        """Type into one of the settings that are shown."""
        panel = self.window.fit_station.steps
        fields = [field for field in panel.findChildren(QAbstractSpinBox) if field.isVisible()]
        field = next(
            part for part in fields if name in (part.accessibleName(), part.parentWidget().accessibleName())
        )
        field.selectAll()
        self.type(value, field)
        self.key("Return", field)
        self.settle()

    def shot(self, file: Path) -> None:
        """Save what the window shows."""
        file.parent.mkdir(parents=True, exist_ok=True)
        self.settle()
        self.window.cards.clear()
        self.window.grab().save(str(file))
