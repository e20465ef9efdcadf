"""A plain folder, read as if it were an archive."""

from __future__ import annotations

import shutil
from collections.abc import Mapping, Sequence
from pathlib import Path

from furnel.atomic import replacing, write_bytes
from furnel.containers.container import Entry, check_path, missing_entry, unknown_changes
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

    def rewrite(self, target: Path, changes: Mapping[str, bytes], progress: Progress = QUIET) -> None:
        unknown_changes(changes, self._files, self.path)
        for inner, file in steps(
            self._files.items(), len(self._files), progress, f"Copying {self.path.name}"
        ):
            if inner in changes:
                write_bytes(target / inner, changes[inner])
            else:
                with replacing(target / inner) as out, file.open("rb") as stream:
                    shutil.copyfileobj(stream, out, 1 << 20)

    def close(self) -> None:
        pass
