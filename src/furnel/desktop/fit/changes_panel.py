"""What a mod changes in a definition, change by change; each can be taken back."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import button, label, tip, verbatim
from furnel.mods.project import Swap
from furnel.texts import Change

_MOST = 40


class ChangesPanel(QWidget):
    """The changes. `dropped` gives the address of what is to be the game's own again."""

    dropped = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._shown: tuple[Change, ...] | None = None
        self._body = QWidget()
        self._column = QVBoxLayout(self)
        self._column.setContentsMargins(0, 0, 0, 0)
        self._column.setSpacing(8)
        self._column.addWidget(label("CHANGES", "section"))
        self._column.addWidget(self._body)
        self._column.addStretch(1)

    def show_swap(self, swap: Swap) -> None:
        """Show a definition's changes."""
        if swap.changes == self._shown:
            return
        self._shown = swap.changes
        self._column.removeWidget(self._body)
        self._body.hide()
        self._body.deleteLater()
        self._body = QWidget()
        rows = QVBoxLayout(self._body)
        rows.setContentsMargins(0, 0, 0, 0)
        rows.setSpacing(4)
        for change in swap.changes[:_MOST]:
            rows.addLayout(self._row(change))
        more = len(swap.changes) - _MOST
        if more > 0 or not swap.changes:
            words = f"and {more} more" if more > 0 else "Nothing yet: it is the game's own, and is not built."
            rows.addWidget(label(words, "caption"))
        self._column.insertWidget(1, self._body)
        self._look.dress(self._body)

    def _row(self, change: Change) -> QHBoxLayout:
        row = QHBoxLayout()
        row.setSpacing(6)
        words = verbatim(change.said()) if change.do == "set" else label(change.said())
        words.setWordWrap(True)
        tip(words, change.target)
        out = button("✕", f"Take the game's {change.target}", "plain")
        out.clicked.connect(lambda: self.dropped.emit(change.target))
        row.addWidget(words, 1)
        row.addWidget(out, 0, Qt.AlignmentFlag.AlignTop)
        return row
