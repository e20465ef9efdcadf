"""What stands in the place of the stations for a while: left by Esc, with a title and a line below it."""

from __future__ import annotations

from typing import ClassVar

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.widgets.basics import hairline, label


class Page(QWidget):
    """A page. `closed` when the modder is done with it, `stepped` when something else can be taken back on it.

    With OWN_UNDO undo and redo act on the page itself, and never on the mod that cannot be seen there.
    """

    closed = pyqtSignal()
    stepped = pyqtSignal()
    OWN_UNDO: ClassVar[bool] = False

    def undoable(self, forward: bool) -> str:
        """What undo (or redo) would take back (or do again) on this page; empty for nothing."""
        return ""

    def step(self, forward: bool) -> None:
        """Take that back, or do it again."""

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

    def titled(self, *parts: QWidget) -> QHBoxLayout:
        """The heading, with buttons and the like at its right."""
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 24, 0)
        row.setSpacing(10)
        row.addLayout(self.heading(), 1)
        for part in parts:
            row.addWidget(part)
        return row

    def laid_out(self, head: QHBoxLayout, body: QHBoxLayout) -> None:
        """The page: its head over everything else."""
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(head)
        whole.addWidget(hairline())
        whole.addLayout(body, 1)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.closed.emit()
        else:
            super().keyPressEvent(event)
