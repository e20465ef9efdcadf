"""The mod's contents as original → yours pairs."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QContextMenuEvent, QFont, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QWidget

from furnel.desktop.language import tr, tr_all
from furnel.desktop.look import Look, byte_size, font
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore, paint_tile
from furnel.desktop.widgets.basics import elided, paint_state
from furnel.mods.build import BuiltFile
from furnel.mods.workspace import Examined

_ROW, _HEAD = 58, 26
_THUMB_W, _THUMB_H = 76, 46


class Contents(QWidget):
    """A row a swap: both pictures, path, format, sizes, and whether the build has it."""

    KEYS_HERE = (
        ("Up, Down", "from row to row"),
        ("Return", "to its bench"),
    )

    picked = pyqtSignal(str)
    menu_wanted = pyqtSignal(QPoint)

    def __init__(self, look: Look, session: Session, tiles: TileStore, results: ResultTiles) -> None:
        super().__init__()
        self._look, self._session, self._tiles, self._results = look, session, tiles, results
        self._current = -1
        self.names: list[str] = []
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(tr("Contents of the mod"))
        tiles.ready.connect(self.update)
        results.ready.connect(self.update)
        session.project_changed.connect(self._resize)
        session.builds.changed.connect(self._resize)
        look.changed.connect(self.update)
        self._resize()

    def _resize(self) -> None:
        """List the inner paths of the swaps, then those of what the last build made to go with them."""
        project, built = self._session.project, self._session.builds.last
        swaps = {swap.original for swap in project.made} if project is not None else set()
        made = (
            {file.path for file in built.files} - swaps
            if project is not None and built is not None
            else set()
        )
        self.names = [*sorted(swaps), *sorted(made)]
        self.setFixedHeight(_HEAD + max(len(self.names), 1) * _ROW)
        self.update()

    @property
    def current(self) -> str:
        """The chosen row's path, or nothing."""
        return self.names[self._current] if 0 <= self._current < len(self.names) else ""

    def contextMenuEvent(self, event: QContextMenuEvent | None) -> None:
        """A menu for a row; by the menu key for the chosen one."""
        if event is None:
            return
        keyed = event.reason() == QContextMenuEvent.Reason.Keyboard
        if not keyed:
            self._pick((event.pos().y() - _HEAD) // _ROW)
        if self.current:
            place = QPoint(60, _HEAD + self._current * _ROW + _ROW // 2)
            self.menu_wanted.emit(self.mapToGlobal(place) if keyed else event.globalPos())

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None:
            self._pick(int((event.position().y() - _HEAD) // _ROW))

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if 0 <= self._current < len(self.names):
            self.picked.emit(self.names[self._current])

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        if move:
            self._pick(self._current + move)
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self.mouseDoubleClickEvent(None)
        else:
            super().keyPressEvent(event)

    def _pick(self, row: int) -> None:
        if 0 <= row < len(self.names):
            self._current = row
            found = self._session.examined.get(self.current)
            state = found.state if found is not None else "made by the build"
            self.setAccessibleDescription(tr(f"{self.current}, {state}, {row + 1} of {len(self.names)}"))
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        names = self.names
        painter.setFont(font(11))
        if not names:
            painter.setPen(look.colour("quiet"))
            painter.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignCenter,
                tr("Nothing is swapped yet. Drop a file on an asset in Find."),
            )
            return
        columns = self._columns()
        painter.setFont(font(12, QFont.Weight.Medium))
        painter.setPen(look.colour("tarn"))
        painter.drawText(QPointF(16, 17), tr("original"))
        painter.setPen(look.colour("ember"))
        painter.drawText(QPointF(16 + _THUMB_W + 34, 17), tr("yours"))
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        for x, text in zip(columns, tr_all(("inner path", "format", "bytes", "in the build")), strict=True):
            painter.drawText(QPointF(x, 17), text)
        built = (
            {file.path: file for file in self._session.builds.last.files} if self._session.builds.last else {}
        )
        seen = event.rect() if event is not None else self.rect()
        for row in range(
            max((seen.top() - _HEAD) // _ROW, 0), min((seen.bottom() - _HEAD) // _ROW + 1, len(names))
        ):
            self._row(painter, row, names[row], columns, built)

    def _columns(self) -> tuple[int, int, int, int]:
        right = self.width() - 16
        return 16 + 2 * _THUMB_W + 52, right - 330, right - 240, right - 112

    def _row(
        self,
        painter: QPainter,
        row: int,
        original: str,
        columns: tuple[int, int, int, int],
        built: dict[str, BuiltFile],
    ) -> None:
        look, y = self._look, _HEAD + row * _ROW
        if row == self._current:
            painter.fillRect(QRectF(6, y + 1, self.width() - 12, _ROW - 1), look.colour("raised"))
        painter.fillRect(QRectF(16, y, self.width() - 32, 1), look.colour("hairline"))
        asset, found = self._session.asset(original), self._session.examined.get(original)
        first = QRectF(16, y + 6, _THUMB_W, _THUMB_H)
        second = first.translated(_THUMB_W + 34, 0)
        for box in (first, second):
            painter.fillRect(box, look.colour("stage"))
        if asset is not None:
            paint_tile(painter, look, first, self._tiles.get(asset), crop=True)
        paint_tile(painter, look, second, self._results.get(original), yours=True, crop=True)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(look.colour("quiet"), 1.4))
        middle = QPointF(first.right() + 17, first.center().y())
        painter.drawLine(middle - QPointF(7, 0), middle + QPointF(7, 0))
        painter.drawLine(middle + QPointF(7, 0), middle + QPointF(3, -4))
        painter.drawLine(middle + QPointF(7, 0), middle + QPointF(3, 4))
        folder, _, name = original.rpartition("/")
        painter.setFont(font(12))
        painter.setPen(look.colour("text"))
        painter.drawText(QPointF(columns[0], y + 25), elided(painter, name, columns[1] - columns[0] - 12))
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        made = found is None and self._session.swap(original) is None and original in built
        source = (
            tr(found.swap.made_from.rpartition("/")[2])
            if found
            else tr("made to go with the swaps")
            if made
            else ""
        )
        painter.drawText(
            QPointF(columns[0], y + 42),
            elided(painter, f"{folder}  ←  {source}", columns[1] - columns[0] - 12),
        )
        painter.setFont(font(12))
        painter.setPen(look.colour("text"))
        painter.drawText(
            QPointF(columns[1], y + 33), elided(painter, tr("changed" if made else _format(found)), 82)
        )
        before = byte_size(asset.size) if asset else "—"
        after = (
            byte_size(found.size)
            if found and found.size
            else byte_size(built[original].after)
            if made
            else "—"
        )
        painter.drawText(QPointF(columns[2], y + 33), elided(painter, f"{before} → {after}", 122))
        state, text = self._standing(original, found, built)
        paint_state(painter, look, state, QRectF(columns[3], y + 24, 10, 10)) if state else None
        painter.setPen(look.colour("quiet" if state == "fits" else "text"))
        painter.drawText(QPointF(columns[3] + (18 if state else 0), y + 33), tr(text))

    def _standing(
        self, original: str, found: Examined | None, built: dict[str, BuiltFile]
    ) -> tuple[str, str]:
        if found is None and (original not in built or self._session.swap(original) is not None):
            return "waiting", "looking"
        if found is not None and found.state == "breaks":
            return "breaks", "breaks"
        if original not in built:
            return "", "new"
        return ("", "changed since") if original in self._session.builds.stale else ("fits", "up to date")


def _format(found: Examined | None) -> str:
    if found is None or found.swap.encode is None:
        return "as it is"
    encode = found.swap.encode
    return encode.format if encode.format not in ("RGBA8", "BGRA8", "") else encode.file
