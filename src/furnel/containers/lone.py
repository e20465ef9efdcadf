"""One file that is packed as a whole, and nothing around it: `notes.txt.gz` has the entry `notes.txt`."""

from __future__ import annotations

import contextlib
import io
from collections.abc import Iterable, Sequence
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing
from furnel.containers.container import Changes, Entry, check_path, missing_entry
from furnel.containers.mapped import MappedFile, Source, Written
from furnel.containers.packing import pack_stream
from furnel.containers.proof import Proof, Stored
from furnel.containers.tarred import packing_of, unpacked
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

_ENDINGS = {".gz": "gzip", ".bz2": "bzip2", ".xz": "xz", ".zst": "zstd"}


def is_lone(path: Path) -> bool:
    """Whether a file is packed as a whole, and called so."""
    with path.open("rb") as stream:
        return _ENDINGS.get(path.suffix.lower()) == packing_of(stream.read(8))


class Lone:
    """A packed file as an archive of one entry, which is called as the file is without its last ending."""

    kind = "packed"

    def __init__(self, path: Path, source: Source | None = None) -> None:
        self.path = path
        self._holding = contextlib.ExitStack()
        self._outer: Source = source or MappedFile(path)
        self._holding.callback(self._outer.close)
        try:
            self._name = check_path(path.stem, path)
            self._packed = packing_of(bytes(self._outer.view[:8]))
            self._main = unpacked(self._outer, self._packed, path, self._holding)
        except FurnelError:
            self.close()
            raise
        self._holding.callback(self._main.close)

    def paths(self) -> Iterable[str]:
        return [self._name]

    def entries(self) -> Sequence[Entry]:
        return [Entry(self._name, len(self._main.view), len(self._outer.view))]

    def read(self, path: str) -> bytes:
        return bytes(self.view(path))

    def view(self, path: str) -> bytes | memoryview:
        return self._main.view[: self.stored(path).end]

    def peek(self, path: str, size: int) -> bytes:
        return bytes(self.view(path)[:size])

    def stored(self, path: str) -> Stored:
        if path != self._name:
            raise missing_entry(path, self.path)
        return Stored(self._main, 0, len(self._main.view), "none")

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check({self._name: None}, self.path)
        if changes.add or changes.remove or changes.rename:
            raise FurnelError(
                "Changing an archive", where=self.path, why="it is one packed file, and not an archive of several",
                remedy="Replace the file, or make a ZIP or TAR of several",
            )  # fmt: skip
        with replacing(target) as out:
            if not changes:
                self._outer.copy(0, len(self._outer.view), out)
                return
            content = changes.replace[self._name]
            stream: BinaryIO = content.open("rb") if isinstance(content, Path) else io.BytesIO(content)
            with stream:
                pack_stream(stream, out, self._packed)
            named = target.with_name(self.path.name)
            Proof(lambda _, written: Lone(named, written), self, changes, target)(Written(out, target))

    def close(self) -> None:
        self._holding.close()
