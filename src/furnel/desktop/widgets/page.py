"""What stands in the place of the stations for a while: left by Esc, with a title and a line below it."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QVBoxLayout, QWidget

from furnel.desktop.widgets.basics import label


class Page(QWidget):
    """A page. `closed` when the modder is done with it."""

    closed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.title, self.said = label("", "title"), label("", "caption")

    def heading(self) -> QVBoxLayout:
        """The title over the line that says how things stand."""
        column = QVBoxLayout()
        column.setContentsMargins(24, 18, 24, 8)
        column.setSpacing(4)
        column.addWidget(self.title)
        column.addWidget(self.said)
        return column

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
        else:
            super().keyPressEvent(event)
