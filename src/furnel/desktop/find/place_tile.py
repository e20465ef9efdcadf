"""A place of a new thing on its page: what the other has there, until a file of one's own is dropped on it."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PyQt6 import sip
from PyQt6.QtCore import QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import (
    QDragEnterEvent,
    QDropEvent,
    QFont,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
)
from PyQt6.QtWidgets import QWidget

from furnel.catalogue import Asset
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, TileStore, data_tile, paint_tile
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import elided
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.games.additions import PlaceRule
from furnel.media import medium_of
from furnel.mods.render import read_source
from furnel.words import count

_WIDE, _HIGH = 168, 132


class PlaceTile(QWidget):
    """An empty place: what the other has there, until a file of one's own is dropped on it."""

    OWN_RING = True

    changed = pyqtSignal()

    def __init__(
        self, look: Look, session: Session, tiles: TileStore, place: PlaceRule, like: Asset | None
    ) -> None:
        super().__init__()
        self._look, self._session, self._tiles, self.place, self._like = look, session, tiles, place, like
        self._own: Tile | None = None
        self.files: list[Path] = []
        self.setFixedSize(QSize(_WIDE, _HIGH))
        self.setAcceptDrops(True)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr(f"Place for {place.name}"))
        self.setToolTip(tr("Drop a file here, or click to choose one; Del takes it out again"))
        tiles.ready.connect(self.update)

    def take(self, files: Sequence[Path]) -> None:
        """Put files into the place."""
        self.files = [*self.files, *files] if self.place.many else list(files[:1])
        self._own = None
        if self.files:
            self._session.jobs.start(
                "A look at it",
                lambda _: _file_tile(self.files[0]),
                self._show_own,
                lambda _: None,
                lane="eye",
                shown=False,
            )
        self.changed.emit()
        self.update()

    def _show_own(self, tile: Tile) -> None:
        if not sip.isdeleted(self):
            self._own = tile
            self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if files := picking.pick_files(self, f"Files for {self.place.name}", "sources"):
            self.take(files)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Delete:
            self.files = []
            self.changed.emit()
            self.update()
        elif event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Space):
            self.mousePressEvent(None)
        else:
            super().keyPressEvent(event)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        files = [file for file in files_of(event) if file.is_file()]
        if files:
            self.take(files)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        box = QRectF(0.5, 0.5, _WIDE - 1, _HIGH - 1)
        painter.setBrush(look.colour("sunken"))
        colour = "ember" if self.files else "selection" if self.hasFocus() else "hairline-strong"
        dash = Qt.PenStyle.SolidLine if self.files else Qt.PenStyle.DashLine
        painter.setPen(QPen(look.colour(colour), 1, dash))
        painter.drawRoundedRect(box, 4, 4)
        stage = QRectF(8, 8, _WIDE - 16, _HIGH - 58)
        if self.files:
            paint_tile(painter, look, stage, self._own, yours=True)
        elif self._like is not None:
            painter.setOpacity(0.4)
            paint_tile(painter, look, stage, self._tiles.get(self._like))
            painter.setOpacity(1)
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour("text"))
        must = tr(" (needed)") if self.place.needed and not self.files else ""
        painter.drawText(QRectF(10, _HIGH - 46, _WIDE - 20, 18), self.place.name + must)
        painter.setFont(font(11))
        painter.setPen(look.colour("ember" if self.files else "quiet"))
        if len(self.files) > 1:
            says = count(len(self.files), "file")
        elif self.files:
            says = self.files[0].name
        else:
            says = tr("as the other's, or drop")
            for asked, words in (
                (self.place.own, "left out, or drop"), (self.place.needed, "drop a file here"),
                (self.place.many, "drop files here"), (self.place.strip, "drop a row of colours"),
            ):  # fmt: skip
                says = tr(words) if asked else says
        painter.drawText(QRectF(10, _HIGH - 27, _WIDE - 20, 18), elided(painter, says, _WIDE - 20))


def _file_tile(file: Path) -> Tile:
    data = read_source(file)
    return data_tile(data, medium_of(data, file).kinds[0], str(file))
