"""A plain folder, read as if it were an archive."""

from __future__ import annotations

import shutil
from collections.abc import Callable, Sequence
from pathlib import Path

from furnel.atomic import replacing, write_bytes
from furnel.containers.container import Changes, Content, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile
from furnel.errors import FurnelError, reason
from furnel.listing import list_folder
from furnel.progress import QUIET, Progress, steps

_MAPPED_FROM = 16 << 20


class Folder:
    """Every file below a folder, and behind links what is in it, or `outside`, too (`list_folder` says what is left out).
    `own` gives the file to read for one that is there, or None for one that does not belong to it; what `skip` is true of is
    not looked at."""

    kind = "folder"

    def __init__(
        self,
        path: Path,
        own: Callable[[Path], Path | None] = lambda file: file,
        skip: Callable[[str], bool] = lambda _: False,
        outside: bool = False,
    ) -> None:
        self.path, self._own = path, own
        found = list_folder(path, skip, outside)
        self._sizes: dict[str, int] = {}
        for inner, size, _ in found.files:
            try:
                file = own(path / check_path(inner, path))
                if file is not None:
                    self._sizes[inner] = size if file == path / inner else file.stat().st_size
            except (FurnelError, OSError):  # a name that no inner path has, or what vanished meanwhile
                continue

    def entries(self) -> Sequence[Entry]:
        return [Entry(inner, size, size) for inner, size in self._sizes.items()]

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
        changes.check(self._sizes, self.path)
        kept: dict[str, Content] = {
            changes.rename.get(inner, inner): changes.replace.get(inner, self._file(inner))
            for inner in self._sizes
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
        if path not in self._sizes:
            raise missing_entry(path, self.path)
        return self._own(self.path / path) or self.path / path

    def files(self) -> dict[str, Path]:
        """The file of every entry."""
        return {inner: self.path / inner for inner in self._sizes}

    def close(self) -> None:
        pass
