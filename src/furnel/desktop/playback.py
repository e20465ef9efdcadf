"""Hearing clips through QtMultimedia; without a sound device everything else still works."""

from __future__ import annotations

import tempfile
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, QUrl, pyqtSignal

from furnel.desktop.jobs import JobRunner
from furnel.desktop.timing import timer
from furnel.sound import Clip, write_clip

if TYPE_CHECKING:
    from PyQt6.QtMultimedia import QMediaPlayer


class Player(QObject):
    """Plays one clip at a time. `started`, `moved` (the position as a fraction of the clip) and `stopped` follow it."""

    moved = pyqtSignal(float)
    started = pyqtSignal()
    stopped = pyqtSignal()

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__()
        self._jobs = jobs
        self._folder = tempfile.TemporaryDirectory(prefix="furnel-")
        self._count = 0
        self._ready: tuple[str, Path, float] = ("", Path(), 0.0)  # what is written, where, and how long it is
        self._player: QMediaPlayer | None = None
        self._clock = timer(self, self._tick, 33, repeats=True)
        self.playing = False
        self._again, self._volume = False, 1.0
        self._output, self._general = "", 1.0

    @property
    def device(self) -> bool:
        """Whether there is anything to hear with."""
        from PyQt6.QtMultimedia import QMediaDevices

        return bool(QMediaDevices.audioOutputs())

    def play(
        self,
        name: str,
        make: Callable[[], Clip],
        start_s: float = 0.0,
        again: bool = False,
        volume: float = 1.0,
    ) -> bool:
        """Play what `make` gives (in a worker) from a second on, again and again if wanted; False without a sound device.

        The clip is kept under its `name`: playing the same again, from elsewhere, begins at once.
        """
        self.stop()
        self._again, self._volume = again, volume
        if not self.device:
            return False
        if self._ready[0] == name:
            self._start(start_s)
            return True
        self._count += 1
        file = Path(self._folder.name) / f"{self._count}.wav"

        def work(_: object) -> float:
            clip = make()
            file.write_bytes(write_clip(clip, "WAV", "PCM 16"))
            return clip.length_s

        def done(length_s: float) -> None:
            self._ready = (name, file, length_s)
            self._start(start_s)

        self._jobs.start("Preparing to play", work, done, key="play", lane="eye", shown=False)
        return True

    def _start(self, start_s: float) -> None:
        from PyQt6.QtMultimedia import QAudioOutput, QMediaPlayer

        if self._player is None:
            self._player = QMediaPlayer(self)
            self._player.setAudioOutput(QAudioOutput(self))
        self._take_output()
        self._player.setSource(QUrl.fromLocalFile(str(self._ready[1])))
        self._player.setLoops(QMediaPlayer.Loops.Infinite if self._again else 1)
        self.set_volume(self._volume)
        self._player.setPosition(int(start_s * 1000))
        self._player.play()
        self.playing = True
        self._clock.start()
        self.started.emit()

    def set_volume(self, volume: float) -> None:
        """How loud it is heard, an amplitude up to 1; at once when something plays."""
        self._volume = volume
        output = self._player.audioOutput() if self._player is not None else None
        if output is not None:
            output.setVolume(min(max(volume, 0.0), 1.0) * self._general)

    def use_output(self, device: str, volume: float) -> None:
        """Where everything is heard (a device's name; the system's own for none or one that is gone), and how loud, up to 1."""
        self._output, self._general = device, volume
        self._take_output()
        self.set_volume(self._volume)

    def _take_output(self) -> None:
        output = self._player.audioOutput() if self._player is not None else None
        if output is None:
            return
        from PyQt6.QtMultimedia import QMediaDevices

        named = [one for one in QMediaDevices.audioOutputs() if one.description() == self._output]
        output.setDevice(named[0] if named else QMediaDevices.defaultAudioOutput())

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
            self.moved.emit(self._player.position() / 1000 / max(self._ready[2], 1e-6))
