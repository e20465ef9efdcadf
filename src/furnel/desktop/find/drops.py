"""What is dropped on the wall: on a tile it is a source, elsewhere it is looked at first."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QImage

from furnel.catalogue import Asset, noted_original
from furnel.desktop.find.wall import Wall
from furnel.desktop.session import Session
from furnel.desktop.widgets.dropping import encoded_picture


class Drops(QObject):
    """Takes what is dropped on a wall. `swapped` when it is a source now, `unknown` files that have to be matched first."""

    swapped = pyqtSignal()
    unknown = pyqtSignal(object)

    def __init__(self, session: Session, wall: Wall) -> None:
        super().__init__(wall)
        self._session, self._wall = session, wall
        wall.dropped.connect(self._on_tile)
        wall.files_dropped.connect(self._beside)

    def _on_tile(self, asset: Asset, what: Path | QImage) -> None:
        """Swap a tile, or all marked ones when it is one of them, for a file or a picture."""
        swaps, marked = self._session.swaps, [chosen.path for chosen in self._wall.chosen()]
        if isinstance(what, QImage):
            swaps.keep_picture(asset.path, encoded_picture(what), lambda file: self._on_tile(asset, file))
        elif len(marked) > 1 and asset.path in marked:
            swaps.swap_many([(path, what) for path in marked])
        else:
            swaps.swap_with(asset.path, what, lambda _: self.swapped.emit())

    def _beside(self, files: list[Path]) -> None:
        """One file that a note knows goes where it came from; everything else is for the match sheet."""
        if len(files) > 1 or files[0].is_dir():
            self.unknown.emit(files)
            return

        def done(original: str) -> None:
            if original and self._session.asset(original) is not None:
                self._session.swaps.swap_with(original, files[0], self._by_note)
            else:
                self.unknown.emit(files)

        self._session.jobs.start(
            f"Looking at {files[0].name}", lambda _: noted_original(files[0]), done, key="note"
        )

    def _by_note(self, original: str) -> None:
        self._session.tell("calm", f"It was taken out of {original}, and is swapped for that")
        self._wall.select(original)
        self.swapped.emit()
