"""How mods reach a game: chosen in New game and on This game."""

from __future__ import annotations

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QRadioButton, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.widgets.basics import label

WAYS = {
    "in-place": (
        "In the place of its files",
        "The game knows nothing of mods: changed files stand in the place of its own, which Furnel keeps and brings back.",
    ),
    "mirror": (
        "In a folder that mirrors them",
        "The game looks into another folder first, for files under the same paths as its own.",
    ),
    "loose": (
        "As loose files in a mods folder",
        "The game has a mods folder: each mod is a folder in it, with its files under their inner paths and a load order.",
    ),
}
"""What each way is called, and what it means."""


class Ways(QWidget):
    """The ways, and the folder that two of them need. `changed` when something was chosen or typed."""

    changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.goes = "in-place"
        self.folder = QLineEdit("mods")
        words = "Where mods go: a folder in the game's, or in your own, such as ~/.moss/mods or $XDG_DATA_HOME/moss"
        self.folder.setToolTip(tr(words))
        self.folder.setAccessibleName(tr(words))
        self.folder.textChanged.connect(lambda _: self.changed.emit())
        self._parts = {way: QRadioButton(tr(words)) for way, (words, _) in WAYS.items()}
        self._means = label("", "caption")
        self._means.setWordWrap(True)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(8)
        for way, part in self._parts.items():
            part.setToolTip(tr(WAYS[way][1]))
            part.clicked.connect(lambda _, way=way: self.go(way))
            column.addWidget(part)
        column.addWidget(self._means)
        self._home = QWidget()
        home = QHBoxLayout(self._home)
        home.setContentsMargins(0, 2, 0, 0)
        home.addWidget(label("Their folder", "caption"))
        home.addWidget(self.folder, 1)
        column.addWidget(self._home)
        self.go(self.goes)

    def go(self, way: str) -> None:
        """Say how mods reach the game; empty: in a way that only the profile's file can say."""
        self.goes = way
        for other, part in self._parts.items():
            part.setAutoExclusive(bool(way))
            part.setChecked(other == way)
        means = WAYS[way][1] if way else "In another way, which the profile's file says."
        self._means.setText(tr(means))
        self._home.setVisible(way in ("mirror", "loose"))
        self.changed.emit()

    @property
    def whole(self) -> bool:
        """Whether all is said that the way needs."""
        return self.goes in ("", "in-place") or bool(self.folder.text().strip())
