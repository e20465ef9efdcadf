"""Watching the sources of the open mod: a file that another program saves is looked at again."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QFileSystemWatcher, QObject, pyqtSignal

from furnel.desktop.timing import timer

if TYPE_CHECKING:
    from furnel.desktop.session import Session

_PAUSE_MS = 120
_GONE = 0, 0


class Sources(QObject):
    """A session's source files; `touched` tells a swap whose source is not what it was."""

    touched = pyqtSignal(object)

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self._watch = QFileSystemWatcher(self)
        self._watch.fileChanged.connect(self._source_changed)
        self._watch.directoryChanged.connect(lambda _: self._later.start())
        self._later = timer(self, self._look, _PAUSE_MS)
        self._watched: tuple[Path, set[str]] | None = None
        self._stamps: dict[str, tuple[int, int]] = {}

    def renew(self) -> None:
        """Watch the sources that the mod has now."""
        sources = (
            {swap.source for swap in self._session.space.project.swaps if swap.source}
            if self._session.space is not None
            else set()
        )
        if self._session.space is not None and (self._session.space.file, sources) == self._watched:
            return
        self._watched = (self._session.space.file, sources) if self._session.space is not None else None
        old = [*self._watch.files(), *self._watch.directories()]
        if old:
            self._watch.removePaths(old)
        if self._session.space is None:
            return
        files = {str(self._session.space.source_path(swap)) for swap in self._session.space.project.swaps}
        folders = {str(Path(file).parent) for file in files}
        present = [path for path in (*files, *folders) if Path(path).exists()]
        if present:
            self._watch.addPaths(present)
        self._stamps = {file: _stamp(file) for file in files}

    def _source_changed(self, _: str) -> None:
        self._later.start()

    def _look(self) -> None:
        """Look again at swaps whose source file is not what it was; editors that replace the file are followed."""
        if self._session.space is None:
            return
        watched = set(self._watch.files())
        for swap in self._session.space.project.swaps:
            file = str(self._session.space.source_path(swap))
            stamp = _stamp(file)
            if stamp != self._stamps.get(file):
                self._stamps[file] = stamp
                self.touched.emit(swap)
            if file not in watched and stamp != _GONE:
                self._watch.addPath(file)


def _stamp(file: str) -> tuple[int, int]:
    try:
        state = Path(file).stat()
    except OSError:
        return _GONE
    return state.st_size, state.st_mtime_ns
