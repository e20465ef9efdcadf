"""A song under the lanes: its parts on one grid of beats, each with a switch, heard together."""

from __future__ import annotations

from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QSizePolicy, QVBoxLayout, QWidget

from furnel.desktop.fit.sound_content import SongContent, SongPart
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.tiles import paint_waveform
from furnel.desktop.widgets.basics import as_panel, button, elided, label
from furnel.sound import Clip

_ROW, _NAME, _SWITCH = 26, 92, 26
_LOUDEST = 0.98


class _Grid(QWidget):
    """The parts, a row each, on the song's beats. `turned` tells that a switch was turned, `picked` a part, `asked` a place."""

    turned = pyqtSignal()
    picked = pyqtSignal(str)
    asked = pyqtSignal(float)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._song: SongContent | None = None
        self._chosen = 0
        self._current = ""
        self.off: set[str] = set()
        self.head = -1.0
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Parts of the song"))
        self.setSizePolicy(QSizePolicy.Policy.Expanding, QSizePolicy.Policy.Fixed)
        look.changed.connect(self.update)

    def show_song(self, song: SongContent, current: str) -> None:
        """Show a song's parts, one of them on the bench."""
        if self._song is None or self._song.name != song.name:
            self.off = set()
        self._song, self._current = song, current
        self._chosen = min(self._chosen, max(len(song.parts) - 1, 0))
        self.setFixedHeight(len(song.parts) * _ROW + 16)
        self.setToolTip(
            tr("Click a switch to leave a part out, a wave to play from there, a name to put it on the bench")
        )
        self.update()

    def _wave(self, place: int) -> QRectF:
        return QRectF(_SWITCH + _NAME, 2 + place * _ROW, self.width() - _SWITCH - _NAME - 14, _ROW - 4)

    def paintEvent(self, _: QPaintEvent | None) -> None:
        song, look = self._song, self._look
        if song is None:
            return
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        longest = max([song.length_s, *(part.clip.length_s for part in song.parts)])
        peak = max((float(np.abs(part.wave).max()) for part in song.parts), default=0.0)
        for place, part in enumerate(song.parts):
            self._paint_part(painter, place, part, longest, peak)
        field = self._wave(0)
        bottom = 2 + len(song.parts) * _ROW
        painter.setFont(font(10))
        for beat in range(song.beats + 1):
            x = field.left() + beat * 60 / song.tempo / longest * field.width()
            strong = beat % 4 == 0
            painter.setPen(QPen(look.colour("hairline-strong" if strong else "hairline"), 1))
            painter.drawLine(QPointF(x, 0), QPointF(x, bottom))
            if strong and beat < song.beats:
                painter.setPen(look.colour("quiet"))
                painter.drawText(QPointF(x + 3, bottom + 10), str(beat // 4 + 1))
        if self.head >= 0:
            x = field.left() + self.head * song.length_s / longest * field.width()
            painter.setPen(QPen(look.colour("text"), 1.2))
            painter.drawLine(QPointF(x, 0), QPointF(x, bottom))

    def _paint_part(self, painter: QPainter, place: int, part: SongPart, longest: float, peak: float) -> None:
        look, wave, on = self._look, self._wave(place), part.path not in self.off
        middle = wave.center().y()
        dot = QRectF(8, middle - 5, 10, 10)
        painter.setPen(QPen(look.colour("hairline-strong"), 1.2))
        painter.setBrush(look.colour("ember" if part.mine else "tarn") if on else Qt.GlobalColor.transparent)
        painter.drawEllipse(dot)
        painter.setFont(font(12))
        painter.setPen(look.colour("text" if part.path == self._current else "quiet"))
        painter.drawText(QPointF(_SWITCH, middle + 4), elided(painter, part.name, _NAME - 8))
        if self.hasFocus() and place == self._chosen:
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.setPen(QPen(look.colour("selection"), 1.2))
            painter.drawRoundedRect(QRectF(2, wave.top(), _SWITCH + _NAME - 8, wave.height()), 4, 4)
        ink = look.colour("ember" if part.mine else "tarn", 0.85 if on else 0.25)
        own = QRectF(wave.left(), wave.top(), wave.width() * part.clip.length_s / longest, wave.height())
        paint_waveform(painter, own, part.wave, ink, max(peak, 1e-3))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._song is None:
            return
        place, x = int((event.position().y() - 2) // _ROW), event.position().x()
        if not 0 <= place < len(self._song.parts):
            return
        self._chosen = place
        if x < _SWITCH:
            self._turn(place)
        elif x < _SWITCH + _NAME:
            self.picked.emit(self._song.parts[place].path)
        else:
            wave = self._wave(place)
            longest = max([self._song.length_s, *(part.clip.length_s for part in self._song.parts)])
            self.asked.emit(min((x - wave.left()) / wave.width() * longest, self._song.length_s))
        self.update()

    def _turn(self, place: int) -> None:
        assert self._song is not None
        self.off ^= {self._song.parts[place].path}
        self.turned.emit()
        self.update()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        count = len(self._song.parts) if self._song is not None else 0
        if event is None or self._song is None or not count:
            return
        if event.key() in (Qt.Key.Key_Up, Qt.Key.Key_Down):
            step = -1 if event.key() == Qt.Key.Key_Up else 1
            self._chosen = min(max(self._chosen + step, 0), count - 1)
            self.update()
        elif event.key() == Qt.Key.Key_Return:
            self.picked.emit(self._song.parts[self._chosen].path)
        elif event.key() == Qt.Key.Key_X:
            self._turn(self._chosen)
        else:
            super().keyPressEvent(event)


class SongPanel(QWidget):
    """A song's parts. `heard` asks for a clip under a name, from a second on; `picked` for a part on the bench."""

    heard = pyqtSignal(str, object, float)
    picked = pyqtSignal(str)
    hushed = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        as_panel(self, name="panel")
        self.grid = _Grid(look)
        self._song: SongContent | None = None
        self._title, self._says = label("", "strong"), label("", "caption")
        self.play = button("Play together", "All parts that are on, round and round")
        self.play.clicked.connect(self._turn)
        top = QHBoxLayout()
        top.setContentsMargins(8, 0, 10, 0)
        top.setSpacing(10)
        top.addWidget(self._title)
        top.addWidget(self._says)
        top.addStretch(1)
        top.addWidget(self.play)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 8, 0, 4)
        column.setSpacing(6)
        column.addLayout(top)
        column.addWidget(self.grid)
        self.grid.turned.connect(self._again)
        self.grid.picked.connect(self.picked)
        self.grid.asked.connect(self.sound)
        self.setVisible(False)

    @property
    def playing(self) -> bool:
        """Whether the parts are heard now."""
        return self.grid.head >= 0

    def show_song(self, song: SongContent | None, current: str) -> None:
        """Show the song that a sound is a part of; nothing when it is none."""
        self._song = song
        self.setVisible(song is not None)
        if song is not None:
            self._title.setText(song.title)
            words = [f"{song.beats} beats at {song.tempo:g} bpm", song.key, *song.wrong]
            self._says.setText(tr("   ".join(filter(None, words))))
            self.grid.show_song(song, current)

    def show_head(self, fraction: float) -> None:
        """Where the parts are heard, as a part of the song; below 0: they are not."""
        self.grid.head = fraction
        self.play.setText(tr("Stop" if fraction >= 0 else "Play together"))
        self.grid.update()

    def _turn(self) -> None:
        if self.playing:
            self.hushed.emit()
        else:
            self.sound(0.0)

    def _again(self) -> None:
        if self.playing and self._song is not None:
            self.sound(self.grid.head * self._song.length_s)

    def sound(self, start_s: float) -> None:
        """Ask for all parts that are on, from a second on."""
        song = self._song
        if song is not None:
            on = [part for part in song.parts if part.path not in self.grid.off]
            name = "song " + " ".join(f"{part.path} {id(part.clip)}" for part in on)
            self.heard.emit(name, mixing(song, on), start_s)


def mixing(song: SongContent, parts: list[SongPart]) -> Callable[[], Clip]:
    """What makes the clip of some parts together, as long as the song; each part goes round by itself, as in the game."""

    def make() -> Clip:
        rate = song.parts[0].clip.rate
        frames = round(song.length_s * rate)
        out = np.zeros((frames, 2), np.float32)
        for part in parts:
            own = (
                part.clip.samples
                if part.clip.channels == 2
                else np.repeat(part.clip.samples[:, :1], 2, axis=1)
            )
            times = -(-frames // max(len(own), 1))
            out += np.tile(own, (times, 1))[:frames]
        peak = float(np.abs(out).max(initial=0.0))
        return Clip(out if peak <= _LOUDEST else out * (_LOUDEST / peak), rate)

    return make
