"""One file that is packed as a whole, and nothing around it: `notes.txt.gz` has the entry `notes.txt`."""

from __future__ import annotations

import io
from collections.abc import Iterable, Iterator
from pathlib import Path

from furnel.atomic import replacing
from furnel.containers.container import Changes, Content, Entry
from furnel.containers.fresh import opened_content
from furnel.containers.mapped import Written
from furnel.containers.packing import pack_stream
from furnel.containers.proof import Proof, Stored
from furnel.containers.readonly import Listed
from furnel.containers.tarred import packing_of, unpacked
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

_ENDINGS = {".gz": "gzip", ".bz2": "bzip2", ".xz": "xz", ".zst": "zstd"}


def is_lone(path: Path) -> bool:
    """Whether a file is packed as a whole, and called so."""
    packing = _ENDINGS.get(path.suffix.lower())
    if packing is None:
        return False
    with path.open("rb") as stream:
        return packing_of(stream.read(8)) == packing


class Lone(Listed):
    """A packed file as an archive of one entry, which is called as the file is without its last ending."""

    kind, called = "packed", "a packed file"

    def _listed(self) -> Iterator[Entry]:
        self._packed = packing_of(bytes(self._outer.view[:8]))
        self._main = unpacked(self._outer, self._packed, self.path, self._holding)
        self._holding.callback(self._main.close)
        yield Entry(self.path.stem, len(self._main.view), len(self._outer.view))

    def _bytes(self, path: str) -> bytes | memoryview:
        return self._main.view

    def paths(self) -> Iterable[str]:
        return self._entries

    def stored(self, path: str) -> Stored:
        return Stored(self._main, 0, len(self.view(path)), "none")

    def packed(self, content: Content) -> bytes:
        """Another content, packed as this one is."""
        out = io.BytesIO()
        with opened_content(content) as stream:
            pack_stream(stream, out, self._packed)
        return out.getvalue()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._entries, self.path)
        if changes.add or changes.remove or changes.rename:
            raise FurnelError(
                "Changing an archive", where=self.path, why="it is one packed file, and not an archive of several",
                remedy="Replace the file, or make a ZIP or TAR of several",
            )  # fmt: skip
        with replacing(target) as out:
            if not changes:
                self._outer.copy(0, len(self._outer.view), out)
                return
            (content,) = changes.replace.values()
            with opened_content(content) as stream:
                pack_stream(stream, out, self._packed)
            named = target.with_name(self.path.name)
            Proof(lambda _, written: Lone(named, written), self, changes, target)(Written(out, target))
