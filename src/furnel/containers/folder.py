"""A plain folder, read as if it were an archive."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Sequence
from pathlib import Path

from furnel.atomic import replacing, write_bytes
from furnel.containers.container import Changes, Content, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, steps

_MAPPED_FROM = 16 << 20


class Folder:
    """Every regular file below a folder; links that lead out of it are left out. `own` gives the file to read for one that is
    there, or None for one that does not belong to it."""

    kind = "folder"

    def __init__(self, path: Path, own: Callable[[Path], Path | None] = lambda file: file) -> None:
        self.path, self._own = path, own
        root = path.resolve()
        self._files: dict[str, Path] = {}
        for file in sorted(path.rglob("*")):
            if file.is_file() and file.resolve().is_relative_to(root) and own(file) is not None:
                inner = file.relative_to(path).as_posix()
                self._files[check_path(inner, path)] = file

    def entries(self) -> Sequence[Entry]:
        sizes = {inner: self._file(inner).stat().st_size for inner in self._files}
        return [Entry(inner, size, size) for inner, size in sizes.items()]

    def read(self, path: str) -> bytes:
        return self.peek(path, -1)

    def view(self, path: str) -> bytes | memoryview:
        file = self._file(path)
        if file.stat().st_size <= _MAPPED_FROM:  # a loose file may be saved over while it is looked at
            return self.read(path)
        return MappedFile(file, here_and_there=True).view

    def peek(self, path: str, size: int) -> bytes:
        file = self._file(path)
        try:
            with file.open("rb") as stream:
                return stream.read(size)
        except OSError as error:
            raise FurnelError("Reading a file", where=file, why=reason(error)) from error

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._files, self.path)
        kept: dict[str, Content] = {
            changes.rename.get(inner, inner): changes.replace.get(inner, self._file(inner))
            for inner in self._files
            if inner not in changes.remove
            and (not changes.sparse or inner in changes.replace or inner in changes.rename)
        }
        kept.update(changes.add)
        for inner, content in steps(kept.items(), len(kept), progress, f"Copying {self.path.name}"):
            if isinstance(content, Path):
                with replacing(target / inner) as out, content.open("rb") as stream:
                    shutil.copyfileobj(stream, out, 1 << 20)
            else:
                write_bytes(target / inner, content)

    def _file(self, path: str) -> Path:
        """The file that an entry is read from. Raises FurnelError when there is none."""
        if path not in self._files:
            raise missing_entry(path, self.path)
        return self._own(self._files[path]) or self._files[path]

    def files(self) -> dict[str, Path]:
        """The file of every entry."""
        return dict(self._files)

    def close(self) -> None:
        pass
