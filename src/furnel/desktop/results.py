"""Tiles of the swaps' results, renewed as they are fitted."""

from __future__ import annotations

from PyQt6.QtCore import QObject, pyqtSignal

from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, data_tile


class ResultTiles(QObject):
    """A tile for every swap's result. `ready` tells that there is a new one."""

    ready = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__()
        self._session = session
        self._kept: dict[str, tuple[str, Tile]] = {}
        session.fitted.connect(self._fitted)
        session.opened.connect(self._kept.clear)

    def get(self, original: str) -> Tile | None:
        """The newest tile of a swap's result, or None while there is none."""
        kept = self._kept.get(original)
        return kept[1] if kept else None

    def _fitted(self, original: str) -> None:
        found = self._session.examined.get(original)
        asset = self._session.asset(found.swap.base) if found is not None else None
        if (
            found is None
            or asset is None
            or not found.size
            or self._kept.get(original, ("",))[0] == found.key
        ):
            return
        name = original if found.swap.keeps_name else found.swap.source

        def done(tile: Tile, key: str = found.key) -> None:
            self._kept[original] = (key, tile)
            self.ready.emit()

        self._session.jobs.start(
            "Previews",
            lambda _: data_tile(found.data, asset.facts.kind, name),
            done,
            lambda _: None,
            key=f"tile {original}",
            shown=False,
        )
