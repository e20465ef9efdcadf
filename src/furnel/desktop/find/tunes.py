"""The tunes page: the game's music as a list, and an album laid over it."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
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
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.actions import shortcut_of, with_key
from furnel.desktop.language import tr, tr_all
from furnel.desktop.look import Look, font
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore, paint_tile, paint_waveform
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import button, elided, label, paint_state, scrolling
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.desktop.widgets.page import Page
from furnel.media import SOUND, medium_by_suffix
from furnel.mods.tunes import Forecast, Song, Tune, forecast, read_songs, tunes_of
from furnel.sound.words import length_text

_ROW = 74
_WAVE = 168


class _Rows(QWidget):
    """Tunes on the left, songs on the right, one pair a line; songs are dragged, or moved with Alt and the arrows."""

    moved = pyqtSignal()
    left_out = pyqtSignal(int)

    def __init__(self, look: Look, tiles: TileStore, session: Session) -> None:
        super().__init__()
        self._look, self._tiles, self._session = look, tiles, session
        self.tunes: list[Tune] = []
        self.songs: list[Song] = []
        self.current = 0
        self._lifted = -1
        self._over = -1
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Tunes and songs"))
        self.setToolTip(
            tr(
                "Drag a song onto another line, or move it with Alt and the arrow keys; Backspace leaves it out"
            )
        )
        tiles.ready.connect(self.update)
        look.changed.connect(self.update)

    def renew(self) -> None:
        """Show what changed."""
        self.setFixedHeight(max(len(self.tunes), len(self.songs), 1) * _ROW)
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(700, max(len(self.tunes), len(self.songs), 1) * _ROW)

    def forecast_of(self, row: int) -> Forecast | None:
        """What would become of a line's song."""
        if row >= len(self.songs):
            return None
        if row >= len(self.tunes):
            return Forecast("breaks", "one song more than the game has tunes")
        return forecast(self.tunes[row], self.songs[row])

    def move_song(self, place: int, to: int) -> None:
        """Put a song into another line; those between move up."""
        if 0 <= place < len(self.songs) and 0 <= to < len(self.songs) and place != to:
            self.songs.insert(to, self.songs.pop(place))
            self.current = to
            self.moved.emit()
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        for row in range(max(len(self.tunes), len(self.songs))):
            box = QRectF(0, row * _ROW, self.width(), _ROW)
            if row == self.current and self.songs:
                painter.fillRect(box, self._look.colour("raised"))
            painter.fillRect(QRectF(24, box.bottom() - 1, box.width() - 48, 1), self._look.colour("hairline"))
            if row < len(self.tunes):
                self._tune(painter, box, self.tunes[row])
            self._song(painter, box, row)
        if self._over >= 0 and self._over != self._lifted:
            y = (self._over + (self._over > self._lifted)) * _ROW
            painter.fillRect(
                QRectF(self.width() / 2, y - 1, self.width() / 2 - 24, 2), self._look.colour("ember")
            )

    def _tune(self, painter: QPainter, box: QRectF, tune: Tune) -> None:
        asset = self._session.asset(tune.path)
        if asset is not None:
            paint_tile(
                painter, self._look, QRectF(24, box.top() + 12, _WAVE, _ROW - 26), self._tiles.get(asset)
            )
        swapped = self._session.swap(tune.path) is not None
        facts = [length_text(tune.spec.length_s)]
        if tune.spec.rhythm is not None:
            facts.append(f"{tune.spec.rhythm.tempo:g} bpm")
        facts.append(f"{tune.spec.loudness:.1f} LUFS")
        if tune.spec.loop is not None:
            facts.append(
                "repeats whole"
                if tune.spec.loop[0] == 0
                else f"repeats from {length_text(tune.spec.loop[0] / tune.spec.rate)}"
            )
        wide = box.width() / 2 - _WAVE - 76
        self._words(painter, 36 + _WAVE, box, wide, tune.name, "   ".join(tr_all(facts)), "tarn")
        if swapped:
            painter.setPen(Qt.PenStyle.NoPen)
            painter.setBrush(self._look.colour("ember"))
            painter.drawEllipse(QPointF(27, box.top() + 15), 3, 3)

    def _song(self, painter: QPainter, box: QRectF, row: int) -> None:
        look, left = self._look, box.width() / 2 + 12
        area = QRectF(left, box.top() + 12, _WAVE, _ROW - 26)
        if row >= len(self.songs):
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(look.colour("hairline-strong"), 1, Qt.PenStyle.DashLine))
            painter.drawRoundedRect(area, 3, 3)
            painter.setFont(font(11))
            painter.setPen(look.colour("faint"))
            painter.drawText(area, Qt.AlignmentFlag.AlignCenter, tr("drop songs"))
            return
        song, found = self.songs[row], self.forecast_of(row)
        painter.fillRect(area, look.colour("panel"))
        if song.shape is not None:
            paint_waveform(
                painter,
                area.adjusted(0, 3, 0, -3),
                song.shape.wave[:, :: max(song.shape.wave.shape[1] // 400, 1)],
                look.colour("ember", 0.9),
            )
        name = song.file.stem
        if song.shape is not None:
            name += f"   {length_text(song.shape.length_s)}"
        beats = song.spec.beats if song.spec is not None else None
        if beats is not None:
            name += f"   {beats.tempo:.4g} bpm"
        self._words(
            painter,
            left + _WAVE + 12,
            box,
            box.width() / 2 - _WAVE - 80,
            name,
            tr(found.says) if found else "",
            "ember",
        )
        if found is not None:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            paint_state(painter, look, found.outlook, QRectF(box.width() - 44, box.center().y() - 6, 11, 11))

    def _words(
        self, painter: QPainter, x: float, box: QRectF, wide: float, first: str, second: str, role: str
    ) -> None:
        painter.setFont(font(12, QFont.Weight.DemiBold))
        painter.setPen(self._look.colour(role))
        painter.drawText(QPointF(x, box.center().y() - 4), elided(painter, first, wide))
        painter.setFont(font(11))
        painter.setPen(self._look.colour("quiet"))
        painter.drawText(QPointF(x, box.center().y() + 14), elided(painter, second, wide))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        row = int(event.position().y()) // _ROW
        self.current = max(min(row, max(len(self.tunes), len(self.songs)) - 1), 0)
        self._lifted = row if row < len(self.songs) and event.position().x() > self.width() / 2 else -1
        self.update()

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self._lifted >= 0:
            self._over = max(min(int(event.position().y()) // _ROW, len(self.songs) - 1), 0)
            self.update()

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        lifted, over = self._lifted, self._over
        self._lifted = self._over = -1
        if lifted >= 0 and over >= 0:
            self.move_song(lifted, over)
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        if step and event.modifiers() & Qt.KeyboardModifier.AltModifier:
            self.move_song(self.current, self.current + step)
        elif step:
            self.current = max(min(self.current + step, max(len(self.tunes), len(self.songs)) - 1), 0)
            self.update()
        elif event.key() == Qt.Key.Key_Backspace and self.current < len(self.songs):
            self.left_out.emit(self.current)
        else:
            super().keyPressEvent(event)


class TunesPage(Page):
    """The page. `closed` when the modder is done with it."""

    def __init__(self, look: Look, session: Session, tiles: TileStore) -> None:
        super().__init__()
        self._session = session
        self.rows = _Rows(look, tiles, session)
        self.apply = button(
            "Swap", with_key("Put the songs into the tunes' places, and make them fit", "fit-all"), "next"
        )
        self.apply.setShortcut(shortcut_of("fit-all"))
        back = button("Leave it", "Back to the wall; nothing is changed  (Esc)")
        more = button("Add songs…", "Choose files; an album's folder can be dropped here, too", "plain")
        self.apply.clicked.connect(self._apply)
        back.clicked.connect(self.closed)
        more.clicked.connect(self._ask)
        foot = QHBoxLayout()
        foot.setContentsMargins(22, 10, 22, 12)
        foot.setSpacing(8)
        foot.addWidget(more)
        foot.addWidget(label("Songs go to the tunes in this order; drag them to change it.", "caption"))
        foot.addStretch(1)
        foot.addWidget(back)
        foot.addWidget(self.apply)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(self.heading())
        whole.addWidget(scrolling(self.rows, "window"), 1)
        whole.addLayout(foot)
        self.title.setText(tr("The game's tunes"))
        self.setAcceptDrops(True)
        self.rows.moved.connect(self._weigh)
        self.rows.left_out.connect(self._leave_out)

    def open(self) -> None:
        """List the open game's tunes; songs that are there stay."""
        space = self._session.space
        if space is None:
            return
        self.said.setText(tr("Listening to the game's tunes …"))

        def done(found: list[Tune]) -> None:
            self.rows.tunes = found
            self._weigh()

        self._session.jobs.start(
            "Listening to tunes", lambda progress: tunes_of(space, progress), done, key="tunes"
        )

    def lay(self, paths: list[Path]) -> None:
        """Add songs, or a folder's, behind those that are there; in the order of their names."""
        files = sorted(
            (
                file
                for path in paths
                for file in (path.rglob("*") if path.is_dir() else [path])
                if file.is_file()
            ),
            key=lambda file: file.name,
        )
        songs = [file for file in files if medium_by_suffix(file) is SOUND]
        if not songs:
            self._session.tell("wrong", "There is no sound among these files: drop WAV, FLAC, Ogg or MP3")
            return

        def done(found: list[Song]) -> None:
            known = {song.file for song in self.rows.songs}
            self.rows.songs += [song for song in found if song.file not in known]
            self._weigh()

        self._session.jobs.start(
            "Listening to songs", lambda progress: read_songs(songs, progress), done, key="songs"
        )

    def _weigh(self) -> None:
        rows = self.rows
        found = [rows.forecast_of(row) for row in range(len(rows.songs))]
        usable = sum(song.spec is not None for song in rows.songs[: len(rows.tunes)])
        total = sum(tune.spec.length_s for tune in rows.tunes)
        parts = [f"{len(rows.tunes)} tunes, {length_text(total)} in all"]
        if rows.songs:
            parts.append(f"{len(rows.songs)} songs")
        for state, words in (("differs", "worth a look"), ("breaks", "that will not do")):
            if count := sum(one is not None and one.outlook == state for one in found):
                parts.append(f"{count} {words}")
        self.said.setText(
            tr(" · ".join(parts) if rows.tunes else "This game has no music that Furnel knows of")
        )
        self.apply.setText(tr(f"Swap {usable}" if usable else "Swap"))
        self.apply.setEnabled(bool(usable))
        rows.renew()

    def _leave_out(self, place: int) -> None:
        del self.rows.songs[place]
        self._weigh()

    def _ask(self) -> None:
        songs = [("Sounds", " ".join(f"*{end}" for end in SOUND.suffixes))]
        if files := picking.pick_files(self, "Songs", "songs", songs):
            self.lay(files)

    def _apply(self) -> None:
        pairs = [
            (tune.path, song.file)
            for tune, song in zip(self.rows.tunes, self.rows.songs, strict=False)
            if song.spec is not None
        ]

        def done() -> None:
            self.rows.songs = []
            self.closed.emit()

        self._session.swaps.swap_many(pairs, done)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None:
            event.acceptProposedAction()
            self.lay(files_of(event))
