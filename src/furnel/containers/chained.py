"""Archives that are a chain of records, each followed by its data, opened and made as a layout describes."""

from __future__ import annotations

from collections import Counter
from collections.abc import Iterable, Sequence
from pathlib import Path

from furnel.atomic import replacing
from furnel.collecting import uncollected
from furnel.containers.chains import Chunk, chunk_entries, read_chain
from furnel.containers.chainwriting import ChainWriter
from furnel.containers.container import Changes, Entry, check_path, many_entries, missing_entry
from furnel.containers.contents import beginning, content, packing_of
from furnel.containers.fresh import Fresh
from furnel.containers.mapped import MappedFile, Source
from furnel.containers.masks import unmasked
from furnel.containers.naming import Packing
from furnel.containers.proof import Proof, Stored
from furnel.containers.reading import CHECKED_AT_ONCE, Head, check_file_sum
from furnel.containers.records import Meanings
from furnel.containers.schema import ChainPart, Layout
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

_WHAT, _WRITING = "Reading an archive", "Writing an archive"


class Chained:
    """An archive opened with a layout that has a `[chain]`."""

    def __init__(
        self, path: Path, layout: Layout, known: Sequence[str] = (), source: Source | None = None
    ) -> None:
        if layout.chain is None:
            raise FurnelError("Opening an archive", where=layout.name, why="the layout has no chain")
        self.path, self.layout, self.kind = path, layout, layout.name
        self._chain: ChainPart = layout.chain
        self._meanings = Meanings(self._chain.fields)
        self._main: Source = source or MappedFile(path)
        try:
            with uncollected():
                self._head, self._chunks, self._begin, self._stop = read_chain(self._main, layout, known)
            found = list(chunk_entries(self._chunks))
            self._entries: dict[str, Chunk] = {chunk.path: chunk for chunk in found}
            if len(self._entries) != len(found):
                ((twice, _),) = Counter(chunk.path for chunk in found).most_common(1)
                raise FurnelError(_WHAT, where=path, why=f"the path {twice} occurs twice")
        except FurnelError:
            self._main.close()
            raise

    def entries(self) -> Sequence[Entry]:
        out = []
        with uncollected():
            if self.layout.entry.packed == "none" and "packing" not in self._meanings:
                sizes = [chunk.end - chunk.start for chunk in self._entries.values()]
                return many_entries(self._entries, sizes, sizes)
            for path, chunk in self._entries.items():
                size = self._size(chunk)
                out.append(Entry(path, len(self.read(path)) if size < 0 else size, chunk.end - chunk.start))
        return out

    def read(self, path: str) -> bytes:
        chunk = self._chunk(path)
        raw, where = self._raw(chunk), f"{self.path}, {path}"
        fields = self._chain.fields
        return content(self.layout, fields, chunk.values, raw, self._packing(chunk), self._size(chunk), where)

    def view(self, path: str) -> bytes | memoryview:
        chunk = self._chunk(path)
        return self._raw(chunk) if self._packing(chunk) == "none" else self.read(path)

    def peek(self, path: str, size: int) -> bytes:
        chunk = self._chunk(path)
        return beginning(
            self._raw(chunk), self._packing(chunk), size, self._size(chunk), f"{self.path}, {path}"
        )

    def close(self) -> None:
        self._main.close()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._entries, self.path)
        if not changes:
            with replacing(target) as out:
                self._main.copy(0, len(self._main.view), out)
            return
        if len(self._main.view) > CHECKED_AT_ONCE:
            check_file_sum(self._main, self.layout)
        writer = ChainWriter(self.layout, self._chain, self._head.scope, self._main, target)
        made: list[Fresh] = []
        try:
            chunks = writer.changed(self._chunks, changes, made)
            tail = (self._stop, len(self._main.view) - self.layout.footer_width)
            writer.write(
                chunks, self._head, (self._begin, tail), progress,
                _proof(target, self.layout, self, changes),
            )  # fmt: skip
        finally:
            for fresh in made:
                fresh.close()

    def paths(self) -> Iterable[str]:
        return self._entries

    def told(self, path: str) -> dict[str, int]:
        values, scope = self._chunk(path).values, self._head.scope
        found = {role: self._meanings.of(values, role, scope) for role in self.layout.told_roles}
        return {role: int(number) for role, number in found.items() if number is not None}

    def stored(self, path: str) -> Stored:
        chunk = self._chunk(path)
        return Stored(self._main, chunk.start, chunk.end, self._packing(chunk))

    def _raw(self, chunk: Chunk) -> memoryview:
        """A chunk's data as it is under its mask."""
        return memoryview(
            unmasked(self._main.view[chunk.start : chunk.end], self.layout.masks, "entry", self._head.scope)
        )

    def _chunk(self, path: str) -> Chunk:
        if path not in self._entries:
            raise missing_entry(path, self.path)
        return self._entries[path]

    def _size(self, chunk: Chunk) -> int:
        """The size unpacked, -1 when nobody tells."""
        if self._packing(chunk) == "none":
            return chunk.end - chunk.start
        stored = self._meanings.of(chunk.values, "stored size", self._head.scope)
        size = self._meanings.of(chunk.values, "size", self._head.scope)
        return int(size) if size is not None and stored is not None else -1

    def _packing(self, chunk: Chunk) -> Packing:
        if "packing" not in self._meanings:
            return self.layout.entry.packed
        code = self._meanings.of(chunk.values, "packing", self._head.scope)
        return packing_of(self.layout, None if code is None else int(code), f"{self.path}, {chunk.path}")


def create(target: Path, layout: Layout, contents: Changes, progress: Progress = QUIET) -> None:
    """A new chain after `layout`; what `contents` adds by inner path, those of one nest grouped by its name."""
    if layout.chain is None:
        raise FurnelError(_WRITING, where=layout.name, why="the layout has no chain")
    for path in contents.add:
        check_path(path, target)
    writer = ChainWriter(layout, layout.chain, {}, None, target)
    made: list[Fresh] = []
    try:
        chunks = writer.changed([], contents, made)
        if layout.chain.last:
            chunks.append(writer.plain(layout.chain.last, b""))
        writer.write(
            chunks, Head(), (0, (0, 0)), progress,
            _proof(target, layout, None, contents),
        )  # fmt: skip
    finally:
        for fresh in made:
            fresh.close()


def _proof(target: Path, layout: Layout, old: Chained | None, changes: Changes) -> Proof:
    chain = layout.chain
    assert chain is not None
    named = any({"path", "name hash"} & part.roles for part in chain.fields)
    return Proof(
        lambda names, written: Chained(target, layout, names, written),
        old,
        changes,
        target,
        numbered=not named,
    )
