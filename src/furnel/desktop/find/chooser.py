"""Choosing an asset: the wall in a small window, sifted by what belongs in the place."""

from __future__ import annotations

from fnmatch import fnmatchcase

import numpy as np
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from furnel.catalogue import Group, Sieve
from furnel.desktop.find.wall import Wall
from furnel.desktop.language import tr
from furnel.desktop.look import Look, dressed
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore
from furnel.desktop.widgets.basics import button, field, label


class AssetChooser(QDialog):
    """The wall with those assets that match a pattern."""

    def __init__(
        self, parent: QWidget, look: Look, session: Session, tiles: TileStore, now: str, pattern: str
    ) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("Choose an asset"))
        self.resize(820, 560)
        self._session, self._pattern, self._now = session, pattern, now
        self.search, self.wall = field("Search", "Search the wall"), Wall(look, tiles)
        self._take, leave = (
            button("Take it", "Name this asset  (Enter)", "next"),
            button("Leave it", "Change nothing  (Esc)"),
        )
        self._says = label("", "caption")
        row = QHBoxLayout()
        row.addWidget(self._says, 1)
        row.addWidget(leave)
        row.addWidget(self._take)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 14, 16, 14)
        column.setSpacing(10)
        column.addWidget(self.search)
        column.addWidget(self.wall, 1)
        column.addLayout(row)
        self.search.textChanged.connect(lambda _: self._sift())
        self.wall.selected.connect(lambda asset: self._chosen(asset.path))
        self.wall.opened.connect(lambda _: self.accept())
        self._take.clicked.connect(self.accept)
        leave.clicked.connect(self.reject)
        self._sift()
        self.wall.select(now)

    @property
    def path(self) -> str:
        """The asset that is chosen."""
        asset = self.wall.current()
        return asset.path if asset is not None else ""

    def _sift(self) -> None:
        catalogue = self._session.catalogue
        if catalogue is None:
            return
        shelf = catalogue.assets
        rows = np.flatnonzero(Sieve(text=self.search.text()).mask(shelf))
        if self._pattern:
            rows = np.array(
                [row for row in rows.tolist() if fnmatchcase(shelf.paths[row], self._pattern)], np.int64
            )
        groups = [Group(self._pattern or "everything", rows)] if len(rows) else []
        self.wall.show_groups(shelf, groups, "Nothing that the game has fits here.")
        self._chosen(self.path)

    def _chosen(self, path: str) -> None:
        self._take.setEnabled(bool(path))
        self._says.setText(path)


def choose_asset(
    parent: QWidget, look: Look, session: Session, tiles: TileStore, now: str, pattern: str
) -> str:
    """Let an asset be chosen; nothing when it is called off."""
    dialog = AssetChooser(dressed(parent), look, session, tiles, now, pattern)
    look.dress(dialog)
    path = dialog.path if dialog.exec() else ""
    dialog.deleteLater()
    return path
