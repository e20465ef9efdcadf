"""Reading folders and small pictures of files off the interface thread, for who chooses one."""

from __future__ import annotations

import os
import re
from collections.abc import Sequence
from concurrent.futures import Future, ThreadPoolExecutor
from contextlib import suppress
from dataclasses import dataclass
from fnmatch import fnmatchcase
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QImage

from furnel.errors import FurnelError, reason
from furnel.words import count

_MOST = 5000
_LARGEST = 64 << 20
_DIGITS = re.compile(r"(\d+)")


@dataclass(frozen=True, slots=True)
class Found:
    """Something in a folder: a folder, or a file with its size in bytes and when it was changed (seconds)."""

    path: Path
    is_folder: bool
    size: int
    changed: float


class FolderReader(QObject):
    """Reads one folder at a time. `listed` has what is in the last one that was asked for, or why it cannot be read;
    `seen` a small picture of a file, a line about it, and whether it can be heard."""

    listed = pyqtSignal(object, list, str)
    seen = pyqtSignal(object, QImage, str, bool)

    def __init__(self) -> None:
        super().__init__()
        self._pool = ThreadPoolExecutor(2, thread_name_prefix="furnel-folders")
        self._wanted = Path()
        self._waiting: list[Future[None]] = []

    def read(self, folder: Path, patterns: Sequence[str], folders_only: bool) -> None:
        """Read a folder; what was asked for before is dropped."""
        self._wanted = folder
        for future in self._waiting:
            future.cancel()
        self._waiting = [self._pool.submit(self._read, folder, tuple(patterns), folders_only)]

    def look(self, file: Path) -> None:
        """Look at a file."""
        self._waiting.append(self._pool.submit(self._look, file))

    def stop(self) -> None:
        """Let the threads end."""
        self._pool.shutdown(wait=True, cancel_futures=True)

    def _read(self, folder: Path, patterns: tuple[str, ...], folders_only: bool) -> None:
        found: list[Found] = []
        said = ""
        try:
            with os.scandir(folder) as entries:
                for entry in entries:
                    if entry.name.startswith(".") or len(found) >= _MOST:
                        continue
                    is_folder = entry.is_dir()
                    fits = not patterns or any(fnmatchcase(entry.name.lower(), one) for one in patterns)
                    if is_folder or (fits and not folders_only):
                        with suppress(OSError):  # a link that leads nowhere
                            state = entry.stat()
                            found.append(Found(Path(entry.path), is_folder, state.st_size, state.st_mtime))
        except OSError as error:
            said = reason(error)
        found.sort(key=lambda one: (not one.is_folder, natural(one.path.name)))
        if folder == self._wanted:
            self.listed.emit(folder, found, said)

    def _look(self, file: Path) -> None:
        try:
            self.seen.emit(file, *glance(file))
        except (FurnelError, OSError, ValueError):
            self.seen.emit(file, QImage(), "it cannot be read", False)


def natural(name: str) -> list[tuple[int, int, str]]:
    """A name in the order that people expect: `take 2` before `take 10`."""
    return [
        (1, int(part), "") if part.isdecimal() else (0, 0, part.casefold()) for part in _DIGITS.split(name)
    ]


def glance(file: Path) -> tuple[QImage, str, bool]:
    """A small picture of a file, if it is one, what it is in a line, and whether it can be heard. Raises FurnelError, OSError
    for what is damaged."""
    from furnel.desktop.imaging import to_image
    from furnel.imagefiles import read_header, read_small, recognises
    from furnel.media import SOUND, medium_by_suffix
    from furnel.sound import sound_info

    data = file.read_bytes() if file.stat().st_size <= _LARGEST else b""
    if data and medium_by_suffix(file) is SOUND:
        info = sound_info(data, file.name)
        channels = {1: "mono", 2: "stereo"}.get(info.channels, count(info.channels, "channel"))
        return QImage(), f"{info.length_s:.1f} s, {info.rate} Hz, {channels}", True
    if not recognises(data):
        return QImage(), "", False
    header = read_header(data, file)
    return to_image(read_small(data, 220, file)), f"{header.width} × {header.height} pixels", False
