"""The sound bench: original lane over your lane on one time axis, heard one against the other at equal loudness."""

from __future__ import annotations

import math
from collections.abc import Callable

import numpy as np
from PyQt6.QtCore import pyqtSignal
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QAbstractButton, QButtonGroup, QCheckBox, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.actions import shortcut_of, with_key
from furnel.desktop.fit.bench import Bench
from furnel.desktop.fit.event_panel import EventPanel
from furnel.desktop.fit.lanes import Lanes
from furnel.desktop.fit.measure_table import MeasureTable
from furnel.desktop.fit.meter import Meter
from furnel.desktop.fit.song_panel import SongPanel
from furnel.desktop.fit.sound_content import Lane, SoundContent
from furnel.desktop.fit.source_strip import SourceStrip
from furnel.desktop.keeping import remember_checked
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.playback import Player
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import button, scrolling, toggle
from furnel.desktop.widgets.icons import give_icon
from furnel.desktop.widgets.wrapping import stage_bar
from furnel.sound import Clip, with_gain
from furnel.sound.spectrum import spectrogram

_SEAM_S = 1.0
_SPECTRUM_ROWS, _SPECTRUM_WAIT_MS = 220, 120


class SoundBench(Bench):
    """Compares two sounds by eye and by ear. `spectrum_wanted` asks for a job that draws both spectrograms."""

    silent = pyqtSignal()
    spectrum_wanted = pyqtSignal(object)

    def __init__(self, look: Look, player: Player) -> None:
        super().__init__()
        self._look, self._player = look, player
        self.content: SoundContent | None = None
        self.lanes, self.source, self.meter = Lanes(look), SourceStrip(look), Meter(look)
        self.panel, self.measures = EventPanel(look), MeasureTable(look)
        self.song = SongPanel(look)
        self._side, self._singing = "original", False
        self._offset = self._length_s = 0.0
        self._play = button("Play", with_key("Play or stop", "hear"), "plain")
        give_icon(self._play, look, "play")
        self._play.setShortcut(shortcut_of("hear"))
        self._play.clicked.connect(self._turn)
        self.sides = QButtonGroup(self)
        self._equal = QCheckBox(tr("equal loudness"))
        self._equal.setChecked(True)
        self._equal.setToolTip(
            tr("Turns the louder one down, so that you compare the sound and not the level")
        )
        self._seam = button(
            "Seam", "Hear the last second and the first, again and again, as the loop joins them", "plain"
        )
        self._seam.clicked.connect(self._hear_seam)
        self._spectrum = toggle(
            "Pitches", "Show how strong every pitch is over time, instead of the waves", False
        )
        self._spectrum.toggled.connect(self._show_spectra)
        self._beats = toggle("Beats", "Show the beats; clicks and loop ends snap to yours", True)
        self._beats.toggled.connect(self._show_beats)
        self._figures = toggle("Measures", "Show everything that is measured of both", False)
        side = scrolling(self.measures)
        side.setFixedWidth(self.measures.width() + 2)
        side.setVisible(False)
        self._figures.toggled.connect(side.setVisible)
        middle = QHBoxLayout()
        middle.setSpacing(0)
        lanes = QVBoxLayout()
        lanes.setSpacing(0)
        lanes.addWidget(self.lanes, 1)
        lanes.addWidget(self.source)
        middle.addLayout(lanes, 1)
        middle.addWidget(side)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._bar())
        column.addLayout(middle, 1)
        column.addWidget(self.panel)
        column.addWidget(self.song)
        self._later = timer(self, self._want_spectra, _SPECTRUM_WAIT_MS)
        self.lanes.asked.connect(self._play_from)
        self.lanes.looked.connect(lambda *_: self.looked.emit())
        self.lanes.looked.connect(lambda *_: self._later.start() if self._spectrum.isChecked() else None)
        self.panel.heard.connect(self._hear_event)
        self.song.heard.connect(self._hear_song)
        self.song.hushed.connect(player.stop)
        player.started.connect(lambda: self._say(True))
        player.moved.connect(self._moved)
        player.stopped.connect(self._stopped)

    def _bar(self) -> QWidget:
        bar, row = stage_bar(spacing=4, right=14)
        row.addWidget(self._play)
        row.add_gap(8)
        for word in ("original", "yours"):
            whose = "the original" if word == "original" else "yours"
            part = toggle(word, f"Hear {whose}; switches in mid-play  (Tab then Space)", word == "original")
            part.setProperty("side", word)
            part.clicked.connect(lambda _=False, word=word: self.hear(word))
            self.sides.addButton(part)
            row.addWidget(part)
        row.add_gap(8)
        for widget in (self._equal, self._seam, self._beats, self._spectrum, self._figures):
            row.addWidget(widget)
        switches: tuple[tuple[QAbstractButton, str], ...] = (
            (self._figures, "measures"),
            (self._beats, "beats"),
            (self._equal, "level"),
        )
        for switch, name in switches:
            remember_checked(switch, f"sound-{name}")
        row.add_rest()
        row.addWidget(self.meter)
        return bar

    def show_content(self, content: SoundContent, keep_view: bool) -> None:
        """Show two sounds."""
        self.content = content
        self.lanes.show_content(content, keep_view)
        self.source.show_content(content)
        self.measures.show_content(content)
        self.panel.show_event(content.event, content.swap.original)
        self.song.show_song(content.song, content.swap.original)
        self._seam.setVisible(content.loops or content.yours.clip.loop is not None)
        self._beats.setVisible(content.original.rhythm is not None or content.yours.rhythm is not None)
        self.meter.device = self._player.device
        self.meter.rest()

    def _say(self, playing: bool) -> None:
        """What the button does now."""
        self._play.setText(tr("Stop" if playing else "Play"))
        give_icon(self._play, self._look, "stop" if playing else "play")

    def looking(self) -> list[int]:
        start, end = self.lanes.span
        return [round(start * 1e6), round(end * 1e6)] if end - start < self.lanes.length - 1e-6 else []

    def look_again(self, view: list[int]) -> None:
        if len(view) == 2:
            self.lanes.look_at(view[0] / 1e6, view[1] / 1e6)

    def hear(self, side: str) -> None:
        """Choose what is heard; in mid-play it goes on from the same moment."""
        going, at = self._player.playing, max(self.lanes.head_s, 0.0)
        self._side = side
        for part in self.sides.buttons():
            part.setChecked(part.property("side") == side)
        if going:
            self._play_from(at)

    def _lane(self) -> Lane | None:
        if self.content is None:
            return None
        return self.content.original if self._side == "original" else self.content.yours

    def _turn(self) -> None:
        if self._player.playing:
            self._player.stop()
        else:
            self._play_from(max(self.lanes.head_s, 0.0))

    def _play_from(self, seconds: float) -> None:
        lane = self._lane()
        if lane is not None:
            gain = self._gain(lane)
            self._offset, self._length_s = 0.0, lane.clip.length_s
            self.lanes.head_s = seconds
            self.meter.show_at(lane, seconds, self._side == "yours", gain)
            self.lanes.update()
            self._start(
                f"{id(lane)} {gain}", lambda: with_gain(lane.clip, gain)[0], min(seconds, lane.clip.length_s)
            )

    def _hear_seam(self) -> None:
        """The last second of the loop and its first, again and again."""
        lane = self._lane()
        if lane is not None:
            clip, gain = lane.clip, self._gain(lane)
            start, end = clip.loop or (0, clip.frames)
            around = min(int(_SEAM_S * clip.rate), end - start)
            self._offset, self._length_s = (end - around) / clip.rate, 2 * around / clip.rate
            seam = Clip(
                np.concatenate([clip.samples[end - around : end], clip.samples[start : start + around]]),
                clip.rate,
            )
            self._start(f"{id(lane)} {gain} seam", lambda: with_gain(seam, gain)[0], 0.0, True)

    def _hear_event(self, path: str, volume: float) -> None:
        """The bench's sound as a listener hears it; one that plays already only changes its volume."""
        content = self.content
        if self._player.playing:
            self._player.set_volume(volume)
            return
        lane = content.yours if content is not None and path == content.swap.original else None
        if lane is not None:
            self._side = "yours"
            self._offset, self._length_s = 0.0, lane.clip.length_s
            self._start(f"{id(lane)} 0.0", lambda: lane.clip, 0.0, False, volume)

    def _hear_song(self, name: str, make: Callable[[], Clip], start_s: float) -> None:
        """The parts of the song together, round and round."""
        self._start(name, make, start_s, True)
        if self._player.device:
            self._singing = True
            self.song.show_head(0.0)

    def _start(
        self, name: str, make: Callable[[], Clip], start_s: float, again: bool = False, volume: float = 1.0
    ) -> None:
        if not self._player.play(name, make, start_s, again, volume):
            self.silent.emit()

    def _gain(self, lane: Lane) -> float:
        """What brings a lane down to the quieter one's loudness, in dB; 0 when they are not to be levelled."""
        assert self.content is not None
        levels = (self.content.original.loudness, self.content.yours.loudness)
        if not self._equal.isChecked() or not all(math.isfinite(level) for level in levels):
            return 0.0
        return min(levels) - lane.loudness

    def _moved(self, fraction: float) -> None:
        if self._singing:
            self.song.show_head(fraction)
            return
        lane = self._lane()
        if not self.isVisible() or lane is None:
            return
        seconds = self._offset + fraction * self._length_s
        if self._offset:
            start, end = lane.clip.loop or (0, lane.clip.frames)
            over = seconds - end / lane.clip.rate
            seconds = start / lane.clip.rate + over if over > 0 else seconds
        self.lanes.head_s = seconds
        self.meter.show_at(lane, seconds, self._side == "yours", self._gain(lane))
        self.lanes.update()

    def _stopped(self) -> None:
        if self._singing:
            self._singing = False
            self.song.show_head(-1.0)
        self._say(False)
        self.lanes.head_s = -1.0
        self.meter.rest()
        self.lanes.update()

    # beats and pitches

    def _show_beats(self, on: bool) -> None:
        self.lanes.beats = on
        self.lanes.update()

    def _show_spectra(self, on: bool) -> None:
        self.lanes.spectra = {} if on else None
        self.lanes.update()
        if on:
            self._want_spectra()

    def _want_spectra(self) -> None:
        """Ask for both spectrograms of the span that is shown."""
        content, span = self.content, self.lanes.span
        if content is None:
            return
        columns = max(self.lanes.width() // 2, 100)
        grounds = {word: _ramp(self._look, role) for word, role in (("original", "tarn"), ("yours", "ember"))}

        def work(_: object) -> dict[str, tuple[tuple[float, float], QImage]]:
            out = {}
            for word, lane in (("original", content.original), ("yours", content.yours)):
                start, end = (round(second * lane.clip.rate) for second in span)
                strengths = spectrogram(lane.clip, start, end, columns, _SPECTRUM_ROWS)
                colours = grounds[word][(strengths * 255).astype(np.uint8)]
                image = QImage(
                    colours.tobytes(), columns, _SPECTRUM_ROWS, columns * 4, QImage.Format.Format_RGBA8888
                )
                out[word] = (span, image.copy())
            return out

        self.spectrum_wanted.emit(work)

    def take_spectra(self, made: dict[str, tuple[tuple[float, float], QImage]]) -> None:
        """Show spectrograms that came."""
        if self.lanes.spectra is not None:
            self.lanes.spectra = made
            self.lanes.update()


def _ramp(look: Look, role: str) -> np.ndarray:
    """256 colours (RGBA) from the panel's through a side's own to the text's."""
    stops = [look.colour(name) for name in ("panel", role, "text")]
    codes = np.array([[one.red(), one.green(), one.blue(), 255] for one in stops], np.float32)
    places = np.linspace(0, 1, 256)
    return np.stack([np.interp(places, (0, 0.62, 1), codes[:, part]) for part in range(4)], axis=1).astype(
        np.uint8
    )
