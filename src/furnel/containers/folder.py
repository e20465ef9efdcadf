"""A plain folder, read as if it were an archive."""

from __future__ import annotations

import shutil
from collections.abc import Sequence
from pathlib import Path

from furnel.atomic import replacing, write_bytes
from furnel.containers.container import Changes, Content, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, steps

_MAPPED_FROM = 16 << 20


class Folder:
    """Every regular file below a folder; links that lead out of it are left out."""

    kind = "folder"

    def __init__(self, path: Path) -> None:
        self.path = path
        root = path.resolve()
        self._files: dict[str, Path] = {}
        for file in sorted(path.rglob("*")):
            if file.is_file() and file.resolve().is_relative_to(root):
                inner = file.relative_to(path).as_posix()
                self._files[check_path(inner, path)] = file

    def entries(self) -> Sequence[Entry]:
        return [Entry(inner, file.stat().st_size, file.stat().st_size) for inner, file in self._files.items()]

    def read(self, path: str) -> bytes:
        return self.peek(path, -1)

    def view(self, path: str) -> bytes | memoryview:
        if path not in self._files:
            raise missing_entry(path, self.path)
        if (
            self._files[path].stat().st_size <= _MAPPED_FROM
        ):  # a loose file may be saved over while it is looked at
            return self.read(path)
        return MappedFile(self._files[path], here_and_there=True).view

    def peek(self, path: str, size: int) -> bytes:
        if path not in self._files:
            raise missing_entry(path, self.path)
        try:
            with self._files[path].open("rb") as stream:
                return stream.read(size)
        except OSError as error:
            raise FurnelError("Reading a file", where=self._files[path], why=reason(error)) from error

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._files, self.path)
        kept: dict[str, Content] = {
            changes.rename.get(inner, inner): changes.replace.get(inner, file)
            for inner, file in self._files.items()
            if inner not in changes.remove
        }
        kept.update(changes.add)
        for inner, content in steps(kept.items(), len(kept), progress, f"Copying {self.path.name}"):
            if isinstance(content, Path):
                with replacing(target / inner) as out, content.open("rb") as stream:
                    shutil.copyfileobj(stream, out, 1 << 20)
            else:
                write_bytes(target / inner, content)

    def files(self) -> dict[str, Path]:
        """The file of every entry."""
        return dict(self._files)

    def close(self) -> None:
        pass
