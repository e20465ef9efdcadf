"""The game's window: its scenes move, its sounds play, and it loads itself anew when a mod changes."""

from __future__ import annotations

import io
import sys
import tempfile
from pathlib import Path

import numpy as np
import soundfile
from PyQt6.QtCore import Qt, QTimer, QUrl
from PyQt6.QtGui import QImage, QKeyEvent, QPainter, QPaintEvent, QPixmap
from PyQt6.QtMultimedia import QAudioOutput, QMediaDevices, QMediaPlayer
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QLabel, QPushButton, QVBoxLayout, QWidget

from tarnlight.scenes import HEIGHT, SCENES, TICKS_PER_SECOND, WIDTH, Stage
from tarnlight.sounds import MUSIC_RATE
from tarnlight.world import World

_DRESS = """
QWidget { background: #10202b; color: #d9cba6; font-size: 13px }
QPushButton { background: #1b3442; border: 1px solid #35505c; border-radius: 3px; padding: 5px 14px }
QPushButton:hover { border-color: #d9a45a } QPushButton:pressed { background: #0d1a2b }
"""
_LISTENER_M = {"quay": 8.0, "open water": 45.0, "lamp store": 4.0, "chart room": 4.0, "shore": 12.0}
_SOUNDS = {
    "Bell": "bell_near",
    "Far bell": "bell_far",
    "Horn": "horn",
    "Otter": "otter",
    "Gull": "gull",
    "Oar": "oar_wet",
}


class View(QWidget):
    """The picture of the scene, as large as the window lets it be."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumSize(WIDTH // 2, HEIGHT // 2)
        self._frame = QPixmap()

    def show_frame(self, frame: QImage) -> None:
        self._frame = QPixmap.fromImage(frame)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), Qt.GlobalColor.black)
        if not self._frame.isNull():
            size = self._frame.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
            at = (
                self.rect().center()
                - self._frame.rect().translated(0, 0).center() * size.width() / self._frame.width()
            )
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawPixmap(at.x(), at.y(), size.width(), size.height(), self._frame)


class Game(QWidget):
    """The window: the view, a scene switch, sounds to ring and music to hear."""

    def __init__(self, folder: Path, scene: str = "quay") -> None:
        super().__init__()
        self.setWindowTitle("Tarnlight Ferry")
        self.resize(WIDTH, HEIGHT + 44)
        self.setStyleSheet(_DRESS)
        self._folder, self._scene, self._tick = folder, scene, 0
        self._counts: dict[str, int] = {}
        self._scratch = tempfile.TemporaryDirectory(prefix="tarnlight-")
        self._view, self._says = View(), QLabel()
        bar = QHBoxLayout()
        bar.setContentsMargins(8, 4, 8, 6)
        for name in SCENES:
            button = QPushButton(name.capitalize())
            button.clicked.connect(lambda _=False, name=name: self.enter(name))
            bar.addWidget(button)
        bar.addStretch(1)
        bar.addWidget(self._says)
        for label, event in _SOUNDS.items():
            button = QPushButton(label)
            button.clicked.connect(lambda _=False, event=event: self.sound(event))
            bar.addWidget(button)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._view, 1)
        column.addLayout(bar)
        self._player = self._music = None
        if QMediaDevices.audioOutputs():
            self._player, self._music = QMediaPlayer(self), QMediaPlayer(self)
            for player, volume in ((self._player, 0.9), (self._music, 0.4)):
                output = QAudioOutput(self)
                output.setVolume(volume)
                player.setAudioOutput(output)
            self._music.setLoops(QMediaPlayer.Loops.Infinite)
        else:
            self._says.setText("no sound device")
        self._seen = self._signature()
        self._load()
        self._clock, self._watch = QTimer(self), QTimer(self)
        self._clock.timeout.connect(self._advance)
        self._clock.start(1000 // 15)
        self._watch.timeout.connect(self._reload_when_changed)
        self._watch.start(400)

    def enter(self, scene: str) -> None:
        """Go to a scene; its first tune begins."""
        self._scene = scene
        self._stage = Stage(self._world, scene)
        if self._music is not None:
            tunes = [
                name
                for name in self._world.book("rules/playlist.json").get(scene, [])
                if self._world.book("rules/tunes.json").get(name, {}).get("on")
            ]
            song = self._world.song_of(scene)
            if song is not None:
                self._start(self._music, "crew song.wav", mixed(self._world, list(song["parts"].values())))
                self._says.setText(f"{song['title']}, {song['artist']}")
            elif tunes:
                self._start(self._music, f"music/{tunes[0]}.ogg")

    def sound(self, event: str) -> None:
        """Play an event's next variation."""
        files = self._world.events[event]["sounds"]
        self._counts[event] = self._counts.get(event, -1) + 1
        path = files[self._counts[event] % len(files)]
        self._says.setText(f"{path} from {self._world.winner(path)[0]}")
        if self._player is not None:
            output = self._player.audioOutput()
            if output is not None:
                output.setVolume(self._world.loudness(event, _LISTENER_M[self._scene]))
            self._start(self._player, path)

    @property
    def says(self) -> str:
        """What stands in the bar: which sound played last, and from whom."""
        return self._says.text()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Escape:
            self.close()

    def _start(self, player: QMediaPlayer, path: str, data: bytes = b"") -> None:
        player.stop()
        file = Path(self._scratch.name) / path.replace("/", "_")
        player.setSource(QUrl())
        file.write_bytes(data or self._world.winner(path)[1])
        player.setSource(QUrl.fromLocalFile(str(file)))
        player.play()

    def _load(self) -> None:
        self._world = World(self._folder)
        self.enter(self._scene)
        self._says.setText("; ".join(self._world.notes) or self._says.text())

    def _advance(self) -> None:
        self._tick += TICKS_PER_SECOND // 15
        frame = self._stage.frame(self._tick)
        self._view.show_frame(QImage(frame.tobytes(), WIDTH, HEIGHT, WIDTH * 3, QImage.Format.Format_RGB888))

    def _signature(self) -> tuple[tuple[str, int, int], ...]:
        files = sorted((self._folder / "mods").rglob("*"))
        return tuple((str(f), f.stat().st_mtime_ns, f.stat().st_size) for f in files if f.is_file())

    def _reload_when_changed(self) -> None:
        try:
            now = self._signature()
        except OSError:
            return
        if now != self._seen:
            self._seen = now
            self._load()
            self._says.setText("mods changed: loaded anew")


def mixed(world: World, parts: list[str]) -> bytes:
    """The parts of a song together, as a WAV that goes round; each part goes round by itself."""
    waves = [soundfile.read(io.BytesIO(world.winner(path)[1]), always_2d=True)[0] for path in parts]
    out = np.zeros((max(map(len, waves)), 2))
    for wave in waves:
        out += np.resize(wave, out.shape)
    stream = io.BytesIO()
    soundfile.write(stream, np.clip(out, -1, 1), MUSIC_RATE, "PCM_16", format="WAV")
    return stream.getvalue()


def play(folder: Path, scene: str) -> int:
    """Open the window and play until it is closed."""
    application = QApplication(sys.argv[:1])
    game = Game(folder, scene)
    game.show()
    return application.exec()
