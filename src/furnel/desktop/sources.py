"""Watching the sources of the open mod: a file that another program saves is looked at again."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QFileSystemWatcher, QObject, pyqtSignal

from furnel.desktop.timing import timer

if TYPE_CHECKING:
    from furnel.desktop.session import Session
    from furnel.mods.project import Swap
    from furnel.mods.workspace import Workspace

_PAUSE_MS = 120
_GONE = 0, 0


class Sources(QObject):
    """A session's source files; `touched` tells a swap whose source is not what it was, `file_touched` that the mod's
    own file is not."""

    touched = pyqtSignal(object)
    file_touched = pyqtSignal()

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
        space = self._session.space
        files = {str(space.source_path(swap)) for swap in space.project.swaps if swap.source} | {
            str(space.file)
        }
        folders = {str(Path(file).parent) for file in files}
        present = [path for path in (*files, *folders) if Path(path).exists()]
        if present:
            self._watch.addPaths(present)
        self._stamps = {file: _stamp(file) for file in files}

    def _source_changed(self, _: str) -> None:
        self._later.start()

    def _look(self) -> None:
        """Look again at swaps whose source file is not what it was; editors that replace the file are followed."""
        space = self._session.space
        if space is None:
            return
        if self._is_another(str(space.file)):
            self.file_touched.emit()
        for file, swaps in self._by_source(space).items():
            if self._is_another(file):
                for swap in swaps:
                    self.touched.emit(swap)

    def _by_source(self, space: Workspace) -> dict[str, list[Swap]]:
        out: dict[str, list[Swap]] = {}
        for swap in space.project.swaps:
            if swap.source:
                out.setdefault(str(space.source_path(swap)), []).append(swap)
        return out

    def _is_another(self, file: str) -> bool:
        """Whether a file is not what it was when this was asked last; it is watched from then on."""
        stamp = _stamp(file)
        if stamp != _GONE and file not in self._watch.files():
            self._watch.addPath(file)
        known, self._stamps[file] = self._stamps.get(file), stamp
        return stamp != known


def _stamp(file: str) -> tuple[int, int]:
    try:
        state = Path(file).stat()
    except OSError:
        return _GONE
    return state.st_size, state.st_mtime_ns
