"""Archives with an index, opened as a layout describes."""

from __future__ import annotations

import contextlib
from collections.abc import Sequence
from functools import cached_property
from pathlib import Path

import numpy as np
import numpy.typing as npt

from furnel.collecting import uncollected
from furnel.containers import records, spreading, writing
from furnel.containers.container import Changes, Entry, many_entries, missing_entry
from furnel.containers.contents import beginning, content, packing_of, without_padding
from furnel.containers.fields import RAW_ROLES, SUM_BYTES, held
from furnel.containers.hints import read_or_hint
from furnel.containers.mapped import MappedFile, Source
from furnel.containers.masks import unmasked
from furnel.containers.naming import Packing
from furnel.containers.proof import Proof, Stored
from furnel.containers.reading import CHECKED_AT_ONCE, Index, check_file_sum
from furnel.containers.schema import Layout
from furnel.containers.sums import listed_names, sum_of
from furnel.containers.volumes import Volumes
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, steps

_WHAT = "Reading an archive"


class Indexed:
    """An archive opened with a layout that has an `[index]`. `known` are names for entries that only have hashes; `others` are
    the fields that tell of other indexes in the same file, whose entries then stay where they are."""

    def __init__(
        self,
        path: Path,
        layout: Layout,
        known: Sequence[str] = (),
        source: Source | None = None,
        others: frozenset[str] = frozenset(),
    ) -> None:
        if layout.index is None:
            raise FurnelError("Opening an archive", where=layout.name, why="the layout has no index")
        self.path, self.layout, self.kind = path, layout, layout.name
        self._others = others
        self._part = layout.index
        self._has_sums = bool({"sum", "stored sum"} & held(layout.index.fields))
        self._main: Source = source or MappedFile(path)
        self._side: Source = self._main
        self._data: Source = self._main
        self._volumes: Volumes | None = None
        self._sums: bytes | None = None
        try:
            if layout.index.file:
                self._side = self._main.beside(layout.index.file)
            names = [*known, *_listed(self._main, layout)]
            if layout.volumes is not None:
                self._data = self._volumes = Volumes(self._main, layout.volumes)
            with uncollected():
                self._index: Index = read_or_hint(
                    self._main, self._side, layout, names, volumes=self._volumes
                )
            self._rows = dict(zip(self._index.paths, range(len(self._index.paths)), strict=True))
            self._starts, self._lengths = self._index.offsets.tolist(), self._index.stored.tolist()
            self._sizes = self._index.sizes.tolist()
            self._read_sums()
            self.layout = layout.with_dictionaries(self.read)
        except FurnelError:
            self.close()
            raise

    def entries(self) -> Sequence[Entry]:
        index = self._index
        sizes, stored = self._sizes, self._lengths
        if -1 in sizes:
            sizes = [
                len(self.read(path)) if size < 0 else size
                for path, size in zip(index.paths, sizes, strict=True)
            ]
        with uncollected():
            return many_entries(index.paths, sizes, stored)

    def read(self, path: str) -> bytes:
        place = self._place(path)
        raw, where = self._raw(place), f"{self.path}, {path}"
        self._check_side(place, raw, where)
        raw = memoryview(unmasked(raw, self.layout.masks, "entry", self._index.head.scope))
        values = self._index.table.row(int(self._index.rows[place])) if self._has_sums else {}
        packing, size = self._packing(place), self._sizes[place]
        return content(self.layout, self._part.fields, values, raw, packing, size, where)

    def view(self, path: str) -> bytes | memoryview:
        place = self._place(path)
        if self._packing(place) != "none":
            return self.read(path)
        raw = memoryview(unmasked(self._raw(place), self.layout.masks, "entry", self._index.head.scope))
        return without_padding(self.layout, raw, "none", self._sizes[place])

    def peek(self, path: str, size: int) -> bytes:
        place = self._place(path)
        packing = self._packing(place) if self._index.codes is not None else self.layout.entry.packed
        raw = memoryview(unmasked(self._raw(place), self.layout.masks, "entry", self._index.head.scope))
        raw = without_padding(self.layout, raw, packing, self._sizes[place])
        return beginning(raw, packing, size, self._sizes[place], self.path)

    def told(self, path: str) -> dict[str, int]:
        place = self._place(path)
        scope = self._index.head.scope
        out = {}
        for role, column in self._facts.items():
            out[role] = int(column[self._index.rows[place]])
        if self._head_facts:
            start = self._starts[place]
            values, _ = records.read_record(
                self.layout.entry.head, self._data.view, start, self.layout.byte_order, self.path, scope
            )
            found = {
                role: records.meaning(self.layout.entry.head, values, role, scope)
                for role in self._head_facts
            }
            out |= {role: int(number) for role, number in found.items() if number is not None}
        return out

    @cached_property
    def _facts(self) -> dict[str, npt.NDArray[np.int64]]:
        """What the index tells of bare data, a column for each role."""
        told = held(self._part.fields) & set(RAW_ROLES)
        return {role: np.asarray(self._index.table.meaning(role, self._index.head.scope)) for role in told}

    @cached_property
    def _head_facts(self) -> frozenset[str]:
        """What the record before each entry's data tells."""
        return held(self.layout.entry.head) & set(RAW_ROLES)

    def close(self) -> None:
        self._main.close()
        if self._side is not self._main:
            self._side.close()
        if self._volumes is not None:
            self._volumes.close()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._rows, self.path)
        if touched := self.layout.dictionary_entries & {*changes.replace, *changes.remove, *changes.rename}:
            raise FurnelError(
                "Changing an archive", where=f"{self.path}, {min(touched)}", why="others are packed with this dictionary",
                remedy="Leave it as it is: without it they could not be read",
            )  # fmt: skip
        if len(self._main.view) > CHECKED_AT_ONCE:
            check_file_sum(self._main, self.layout)
        if self._sums is not None:
            for path, place in steps(self._rows.items(), len(self._rows), progress, "Checking the archive"):
                self._check_side(place, self._raw(place), f"{self.path}, {path}")
        proof = _proof(target, self.layout, self, changes)
        if self._volumes is not None:
            spreading.rewrite(
                target, self.layout, self._main, self._volumes, self._index, changes, progress, proof
            )
            return
        writing.rewrite(
            target, self.layout, self._main, self._side, self._index, changes, progress, proof, self._others
        )

    def paths(self) -> Sequence[str]:
        return self._index.paths

    def stored(self, path: str) -> Stored:
        place = self._place(path)
        if self._sums is not None:
            self._check_side(place, self._raw(place), f"{self.path}, {path}")
        if self._index.codes is None and not self.layout.entry.head:  # nothing is to be looked up for each
            start = self._starts[place]
            return Stored(self._data, start, start + self._lengths[place], self.layout.entry.packed)
        start, end = self._span(place)
        return Stored(self._data, start, end, self._packing(place))

    def _place(self, path: str) -> int:
        if path not in self._rows:
            raise missing_entry(path, self.path)
        return self._rows[path]

    def _packing(self, place: int) -> Packing:
        if self._index.codes is None:
            return self.layout.entry.packed
        code = int(self._index.codes[place])
        return packing_of(self.layout, code, f"{self.path}, {self._index.paths[place]}")

    def _raw(self, place: int) -> memoryview:
        start, end = self._span(place)
        return self._data.view[start:end]

    def _span(self, place: int) -> tuple[int, int]:
        """Where an entry's stored bytes lie, behind the record before them."""
        start = self._starts[place]
        if self.layout.entry.head:
            _, start = records.read_record(
                self.layout.entry.head, self._data.view, start, self.layout.byte_order, self.path, self._index.head.scope
            )  # fmt: skip
        end = start + self._lengths[place]
        if end > len(self._data.view):
            raise FurnelError(
                _WHAT, where=f"{self.path}, {self._index.paths[place]}", why="it runs over the file's end"
            )
        return start, end

    def _read_sums(self) -> None:
        if self.layout.sums is None:
            return
        side = self._main.beside(self.layout.sums.file)
        try:
            self._sums = bytes(side.view)
        finally:
            side.close()
        if len(self._sums) != len(self._rows) * SUM_BYTES[self.layout.sums.sum]:
            raise _other_sums(side.name, "are not as many as the entries of the archive beside it")

    def _check_side(self, place: int, raw: memoryview, where: str) -> None:
        """The stored bytes against the side file's sum."""
        if self._sums is not None and self.layout.sums is not None:
            kind = self.layout.sums.sum
            width = SUM_BYTES[kind]
            if sum_of(kind, self.layout.byte_order, raw) != self._sums[place * width : (place + 1) * width]:
                raise _other_sums(where, "do not match the archive beside it")


def create(target: Path, layout: Layout, contents: Changes, progress: Progress = QUIET) -> None:
    """A new archive; entries in the order of what `contents` adds."""
    work = writing.create if layout.volumes is None else spreading.create
    work(target, layout, contents, progress, _proof(target, layout, None, contents))


def _proof(target: Path, layout: Layout, old: Indexed | None, changes: Changes) -> Proof:
    assert layout.index is not None
    told = layout.index.tells_sizes
    return Proof(
        lambda names, written: Indexed(target, layout, names, written), old, changes, target,
        padding=1 if told else layout.entry.align, fill=layout.entry.fill,
    )  # fmt: skip


def _listed(source: Source, layout: Layout) -> list[str]:
    """The names in the list beside the archive, when the layout says that there may be one."""
    if not layout.names.list:
        return []
    with contextlib.suppress(FurnelError):
        side = source.beside(layout.names.list)
        text = bytes(side.view).decode("utf-8", "replace")
        side.close()
        return listed_names(text)
    return []


def _other_sums(where: object, why: str) -> FurnelError:
    return FurnelError(
        _WHAT,
        where=where,
        why=f"the checksums {why}",
        remedy="One of the two files is damaged or from another version: take fresh copies of both",
    )
