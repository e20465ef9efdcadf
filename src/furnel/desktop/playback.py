"""Hearing clips through QtMultimedia; without a sound device everything else still works."""

from __future__ import annotations

import tempfile
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QTimer, QUrl, pyqtSignal

from furnel.sound import Clip, write_clip

if TYPE_CHECKING:
    from PyQt6.QtMultimedia import QMediaPlayer


class Player(QObject):
    """Plays one clip at a time. `moved` tells the position as a fraction of the clip, `stopped` its end."""

    moved = pyqtSignal(float)
    stopped = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self._folder = tempfile.TemporaryDirectory(prefix="furnel-")
        self._count = 0
        self._player: QMediaPlayer | None = None
        self._length_s = 0.0
        self._clock = QTimer(self, interval=33)
        self._clock.timeout.connect(self._tick)
        self.playing = False

    @property
    def device(self) -> bool:
        """Whether there is anything to hear with."""
        from PyQt6.QtMultimedia import QMediaDevices

        return bool(QMediaDevices.audioOutputs())

    def play(self, clip: Clip, start: float = 0.0) -> bool:
        """Play from a fraction of the clip; False when there is no sound device."""
        self.stop()
        if not self.device:
            return False
        from PyQt6.QtMultimedia import QAudioOutput, QMediaPlayer

        if self._player is None:
            self._player = QMediaPlayer(self)
            self._player.setAudioOutput(QAudioOutput(self))
        self._count += 1
        file = Path(self._folder.name) / f"{self._count}.wav"
        file.write_bytes(write_clip(clip, "WAV", "PCM 16"))
        self._length_s = clip.length_s
        self._player.setSource(QUrl.fromLocalFile(str(file)))
        self._player.setPosition(int(start * clip.length_s * 1000))
        self._player.play()
        self.playing = True
        self._clock.start()
        return True

    def stop(self) -> None:
        """Be quiet."""
        if self._player is not None and self.playing:
            self._player.stop()
        if self.playing:
            self.playing = False
            self._clock.stop()
            self.stopped.emit()

    def _tick(self) -> None:
        from PyQt6.QtMultimedia import QMediaPlayer

        assert self._player is not None
        if self._player.playbackState() == QMediaPlayer.PlaybackState.StoppedState:
            self.stop()
        else:
            self.moved.emit(self._player.position() / 1000 / max(self._length_s, 1e-6))
