"""The match sheet: a dropped folder's files beside the originals that they are for; confirm, correct, apply."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.actions import shortcut_of, with_key
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, TileStore, paint_tile, tile_of
from furnel.desktop.widgets.basics import button, elided, label, scrolling, ticked
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.steady import Choice
from furnel.media import preview_of_file
from furnel.mods.matching import Match, match_files, match_folder
from furnel.progress import Progress
from furnel.words import number

_ROW = 76
_HOW = {
    "note": "from its note",
    "path": "same path",
    "name": "same name",
    "content": "the same content",
    "likeness": "looks alike",
    "by hand": "chosen by you",
    "": "nothing found",
}


class _Rows(QWidget):
    """The pairs, one a line: yours, how it was found, the original. A click on the box turns a pair on or off."""

    changed = pyqtSignal()
    picked = pyqtSignal(int)

    def __init__(self, look: Look, tiles: TileStore) -> None:
        super().__init__()
        self._look, self._tiles = look, tiles
        self._session: Session | None = None
        self.matches: list[Match] = []
        self._yours: dict[Path, Tile] = {}
        self.current = 0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Pairs"))
        tiles.ready.connect(self.update)
        look.changed.connect(self.update)

    def show_matches(self, session: Session, matches: list[Match]) -> None:
        self._session, self.matches = session, matches
        self.current = min(self.current, max(len(matches) - 1, 0))
        self.setFixedHeight(max(len(matches), 1) * _ROW)
        self.update()

    def add_tile(self, file: Path, tile: Tile) -> None:
        self._yours[file] = tile
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(600, len(self.matches) * _ROW)

    def row_rect(self, row: int) -> QRectF:
        return QRectF(0, row * _ROW, self.width(), _ROW)

    def box_rect(self, row: int) -> QRectF:
        """The little box that says whether a pair is used."""
        return QRectF(14, row * _ROW + _ROW / 2 - 8, 16, 16)

    def toggle(self, row: int) -> None:
        match = self.matches[row]
        if match.original:
            self.matches[row] = replace(match, on=not match.on)
            self.changed.emit()
            self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or not 0 <= (row := int(event.position().y()) // _ROW) < len(self.matches):
            return
        self.setFocus()
        self.current = row
        if event.position().x() < 44:
            self.toggle(row)
        self.picked.emit(row)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or not self.matches:
            return
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        if move:
            self.current = max(0, min(self.current + move, len(self.matches) - 1))
            self.picked.emit(self.current)
            self.update()
        elif event.key() == Qt.Key.Key_Space:
            self.toggle(self.current)
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        area = event.rect() if event is not None else self.rect()
        for row in range(max(area.top() // _ROW, 0), min(area.bottom() // _ROW + 1, len(self.matches))):
            self._paint_row(painter, row)

    def _paint_row(self, painter: QPainter, row: int) -> None:
        look, match, box = self._look, self.matches[row], self.row_rect(row)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        if row == self.current:
            painter.fillRect(box, look.colour("raised"))
        painter.fillRect(QRectF(14, box.bottom() - 1, box.width() - 28, 1), look.colour("hairline"))
        check = self.box_rect(row)
        painter.setPen(QPen(look.colour("text" if match.original else "faint"), 1.4))
        painter.setBrush(Qt.BrushStyle.NoBrush)
        painter.drawRoundedRect(check, 3, 3)
        if match.on:
            corner = check.topLeft()
            ticked(painter, corner, (3.5, 8), (7, 12), (13, 4))
        middle = box.width() / 2
        own = QRectF(46, box.top() + 7, 92, _ROW - 14)
        paint_tile(painter, look, own, self._yours.get(match.file), yours=True)
        self._words(
            painter,
            QRectF(150, box.top(), middle - 220, _ROW),
            match.file.name,
            match.file.parent.name,
            "ember",
        )
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        how = QRectF(middle - 60, box.top() + 14, 120, 18)
        painter.drawText(how, Qt.AlignmentFlag.AlignCenter, tr(_HOW[match.how]))
        track = QRectF(middle - 34, box.top() + 40, 68, 4)
        painter.fillRect(track, look.colour("sunken"))
        painter.fillRect(QRectF(track.left(), track.top(), track.width() * match.sure, 4), look.colour("bar"))
        theirs = QRectF(middle + 74, box.top() + 7, 92, _ROW - 14)
        asset = self._session.asset(match.original) if self._session is not None and match.original else None
        if asset is None:
            painter.setPen(QPen(look.colour("hairline-strong"), 1, Qt.PenStyle.DashLine))
            painter.drawRect(theirs)
            self._words(
                painter,
                QRectF(middle + 178, box.top(), middle - 190, _ROW),
                tr("choose an original"),
                "",
                "quiet",
            )
            return
        paint_tile(painter, look, theirs, self._tiles.get(asset))
        name, folder = match.original.rpartition("/")[2], match.original.rpartition("/")[0]
        self._words(
            painter, QRectF(middle + 178, box.top(), middle - 190, _ROW), asset.title or name, folder, "tarn"
        )

    def _words(self, painter: QPainter, box: QRectF, first: str, second: str, role: str) -> None:
        painter.setFont(font(12, QFont.Weight.DemiBold))
        painter.setPen(self._look.colour(role))
        painter.drawText(QPointF(box.left(), box.center().y() - 3), elided(painter, first, box.width()))
        painter.setFont(font(11))
        painter.setPen(self._look.colour("quiet"))
        painter.drawText(QPointF(box.left(), box.center().y() + 14), elided(painter, second, box.width()))


class MatchSheet(Page):
    """The page. `closed` when the modder is done with it, `pack_wanted` for a folder to be packed instead."""

    pack_wanted = pyqtSignal(object)

    def __init__(self, look: Look, session: Session, tiles: TileStore) -> None:
        super().__init__()
        self._session = session
        self._paths: list[Path] = []
        self._chosen: dict[Path, Match] = {}
        self.rows = _Rows(look, tiles)
        self.others = Choice()
        self.others.setMinimumWidth(320)
        self.others.setToolTip(tr("Another original for this file; the most likely ones come first"))
        self.others.activated.connect(self._correct)
        self.apply = button(
            "Swap", with_key("Put the pairs that are on into the mod, and make them fit", "fit-all"), "next"
        )
        self.apply.setShortcut(shortcut_of("fit-all"))
        self._back = button("Leave it", "Back to the wall; nothing is changed  (Esc)")
        self.pack = button("Pack it as an archive…", "Make an archive of the folder's files instead", "plain")
        self.pack.clicked.connect(lambda: self.pack_wanted.emit(self._paths[0]))
        self.apply.clicked.connect(self._apply)
        self._back.clicked.connect(self.closed)
        area = scrolling(self.rows, "window")
        foot = QHBoxLayout()
        foot.setContentsMargins(22, 10, 22, 12)
        foot.setSpacing(8)
        foot.addWidget(label("The chosen line's original", "caption"))
        foot.addWidget(self.others)
        foot.addStretch(1)
        foot.addWidget(self.pack)
        foot.addWidget(self._back)
        foot.addWidget(self.apply)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(self.heading())
        whole.addWidget(area, 1)
        whole.addLayout(foot)
        self.rows.changed.connect(self._weigh)
        self.rows.picked.connect(lambda _: self._offer())

    def open(self, paths: list[Path]) -> None:
        """Match a folder's files, or some files, with the game's originals."""
        self._paths, self._chosen = paths, {}
        name = paths[0].name if len(paths) == 1 else f"{len(paths)} files"
        self.title.setText(tr(f"What {name} is for" if len(paths) == 1 else f"What {name} are for"))
        self.pack.setVisible(paths[0].is_dir())
        self.rows.show_matches(self._session, [])
        self.said.setText(tr("Matching files with originals …"))
        self._session.learned.learn()
        self._match()

    def look_again(self) -> None:
        """Match again, now that it is known what everything looks like; what was chosen by hand stays."""
        if self.isVisible() and self.rows.matches:
            self._chosen = {match.file: match for match in self.rows.matches if match.how == "by hand"}
            self._match()

    def _match(self) -> None:
        catalogue, paths = self._session.catalogue, self._paths
        if catalogue is None:
            return
        shelf, marks = catalogue.assets, self._session.learned.marks

        def work(progress: Progress) -> list[Match]:
            if paths[0].is_dir():
                return match_folder(paths[0], shelf, marks, progress, catalogue.bytes_of)
            return match_files(paths, paths[0].parent, shelf, marks, progress, catalogue.bytes_of)

        def done(found: list[Match]) -> None:
            self._show([self._chosen.get(match.file, match) for match in found])

        self._session.jobs.start("Matching files with originals", work, done, key="match")

    def _show(self, found: list[Match]) -> None:
        self.rows.show_matches(self._session, found)
        self._weigh()
        self._offer()

        def work(_: object) -> list[tuple[Path, Tile]]:
            files = [match.file for match in found]
            return [(file, tile_of(preview_of_file(file))) for file in files]

        def done(tiles: list[tuple[Path, Tile]]) -> None:
            for file, tile in tiles:
                self.rows.add_tile(file, tile)

        self._session.jobs.start("Previews", work, done, lambda _: None, key="match tiles", shown=False)

    def _weigh(self) -> None:
        matches = self.rows.matches
        on = sum(match.on for match in matches)
        none = sum(not match.original for match in matches)
        parts = [f"{number(len(matches))} files"]
        if none:
            parts.append(f"{none} without an original")
        if unsure := sum(bool(match.original) and not match.on for match in matches):
            parts.append(f"{unsure} to be decided")
        self.said.setText(
            tr(" · ".join(parts) if matches else "There is no picture, sound or text in this folder")
        )
        self.apply.setText(tr(f"Swap {on}" if on else "Swap"))
        self.apply.setEnabled(bool(on))

    def _offer(self) -> None:
        self.others.clear()
        if not self.rows.matches:
            return
        match = self.rows.matches[self.rows.current]
        names = [name for name in dict.fromkeys((match.original, *match.others)) if name]
        self.others.addItems(names or [tr("nothing like it was found")])
        if self._session.catalogue is not None and names:
            known = set(names)
            kin = [path for path in self._session.learned.kin(names[0]) if path not in known]
            self.others.addItems(kin)
        self.others.setEnabled(bool(names))

    def _correct(self, place: int) -> None:
        row = self.rows.current
        if 0 <= row < len(self.rows.matches) and self.others.isEnabled():
            chosen = self.others.itemText(place)
            match = self.rows.matches[row]
            others = tuple(name for name in (match.original, *match.others) if name and name != chosen)
            self.rows.matches[row] = replace(match.to(chosen), others=others)
            self.rows.update()
            self._weigh()

    def _apply(self) -> None:
        pairs = [(match.original, match.file) for match in self.rows.matches if match.on]
        self._session.swaps.swap_many(pairs, self.closed.emit)
