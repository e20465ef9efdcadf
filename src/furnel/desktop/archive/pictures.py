"""Small pictures of an archive's entries, made as they come into view."""

from __future__ import annotations

import threading
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal

from furnel.containers import Container, Layout, open_container
from furnel.desktop.jobs import JobRunner
from furnel.desktop.tiles import Tile, data_tile
from furnel.errors import FurnelError
from furnel.media import medium_of
from furnel.progress import Progress, check

_AT_ONCE, _MOST_BYTES = 24, 64 << 20


class EntryPictures(QObject):
    """Pictures by entry path for one file and description; `ready` tells that there are more of them."""

    ready = pyqtSignal()

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__()
        self._jobs = jobs
        self._opened: _Opened | None = None
        self._busy = False
        self.tiles: dict[str, Tile] = {}

    def look_into(self, file: Path | None, layout: Layout | None) -> None:
        """Make pictures of another archive's entries from now on; of none without a description."""
        if self._opened is not None:
            self._opened.close()
        self._opened = _Opened(file, layout) if file is not None and layout is not None else None
        self._busy = False
        self.tiles = {}
        self.ready.emit()

    def want(self, paths: list[str]) -> None:
        """Make pictures of entries that are in view, as far as they are not there."""
        missing = [path for path in paths if path not in self.tiles][:_AT_ONCE]
        opened = self._opened
        if opened is None or self._busy or not missing:
            return
        self._busy = True

        def done(made: dict[str, Tile]) -> None:
            if self._opened is opened:
                self._busy = False
                self.tiles.update(made)
                self.ready.emit()

        self._jobs.start(
            "Pictures of entries", lambda progress: opened.tiles_of(missing, progress), done, lambda _: None,
            lane="preview", shown=False,
        )  # fmt: skip


class _Opened:
    """An archive that is opened when the first entry of it is wanted, and closed when nobody reads in it any more."""

    def __init__(self, file: Path, layout: Layout) -> None:
        self._file, self._layout = file, layout
        self._container: Container | None = None
        self._sizes: dict[str, int] = {}
        self._reading = threading.Lock()
        self._given_up = False

    def tiles_of(self, paths: list[str], progress: Progress) -> dict[str, Tile]:
        """The pictures of some entries; what cannot be read has its reason."""
        with self._reading:
            if self._given_up:
                return {}
            if self._container is None:
                self._container = open_container(self._file, self._layout)
                self._sizes = {entry.path: entry.size for entry in self._container.entries()}
            made = {}
            for path in paths:
                if self._given_up:
                    break
                check(progress, "Pictures of entries")
                made[path] = (
                    self._tile(self._container, path) if self._sizes.get(path, 0) < _MOST_BYTES else Tile()
                )
        self._end()
        return made

    def _tile(self, container: Container, path: str) -> Tile:
        try:
            data = container.read(path)
            return data_tile(data, medium_of(data, path).kinds[0], path)
        except FurnelError as error:
            return Tile(fault=error.why)

    def close(self) -> None:
        """Let go of it, at once or when what is being read is there."""
        self._given_up = True
        self._end()

    def _end(self) -> None:
        if not self._given_up or not self._reading.acquire(blocking=False):
            return  # whoever reads in it lets go of it afterwards
        try:
            if self._container is not None:
                self._container.close()
            self._container = None
        finally:
            self._reading.release()
