"""Archives with several indexes, as one: each has its own layout, and the file is shared by all of them."""

from __future__ import annotations

import shutil
from collections.abc import Mapping, Sequence
from contextlib import ExitStack
from pathlib import Path
from typing import TypeVar

from furnel.atomic import replacing, scratch_in
from furnel.containers.alike import Likeness
from furnel.containers.container import Changes, Content, Entry, missing_entry
from furnel.containers.indexed import Indexed
from furnel.containers.indexed import create as create_one
from furnel.containers.mapped import Source
from furnel.containers.same import same_bytes
from furnel.containers.schema import Layout
from furnel.errors import FurnelError
from furnel.progress import QUIET, Part, Progress

Told = TypeVar("Told", Content, str)


class Several:
    """An archive opened with a layout that has more than one index. `known` are names for entries that only have hashes."""

    def __init__(
        self, path: Path, layout: Layout, known: Sequence[str] = (), source: Source | None = None
    ) -> None:
        self.path, self.layout, self.kind = path, layout, layout.name
        self._known = known
        self._parts: list[Indexed] = []
        self._home: dict[str, int] = {}
        try:
            for number, part in enumerate(layout.with_one_index):
                self._parts.append(Indexed(path, part, known, source, layout.told_of_indexes))
                for found in self._parts[-1].paths():
                    if found in self._home:
                        raise FurnelError(
                            "Reading an archive", where=path, why=f"{found} is in two of its indexes",
                            remedy="Give each index a prefix of its own ([[more]] entry)",
                        )  # fmt: skip
                    self._home[found] = number
        except FurnelError:
            self.close()
            raise

    def entries(self) -> Sequence[Entry]:
        return [entry for part in self._parts for entry in part.entries()]

    def read(self, path: str) -> bytes:
        return self._part(path).read(path)

    def view(self, path: str) -> bytes | memoryview:
        return self._part(path).view(path)

    def peek(self, path: str, size: int) -> bytes:
        return self._part(path).peek(path, size)

    def told(self, path: str) -> dict[str, int]:
        return self._part(path).told(path)

    def close(self) -> None:
        for part in self._parts:
            part.close()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        changes.check(self._home, self.path)
        shares = self._shares(changes)
        if not shares:
            self._parts[0].rewrite(target, Changes(), progress)
            return
        with scratch_in(target.parent) as scratch, ExitStack() as opened:
            done = self.path
            for number, (place, share) in enumerate(shares.items()):
                part = self._parts[place]
                if number:
                    part = Indexed(done, part.layout, self._known, None, self.layout.told_of_indexes)
                    opened.callback(part.close)
                done = scratch / f"{number}{target.suffix}"
                part.rewrite(done, share, Part(progress, number / len(shares), (number + 1) / len(shares)))
            self._prove(done, changes, target)
            with replacing(target) as out, done.open("rb") as made:
                shutil.copyfileobj(made, out, 1 << 20)

    def _part(self, path: str) -> Indexed:
        if path not in self._home:
            raise missing_entry(path, self.path)
        return self._parts[self._home[path]]

    def _shares(self, changes: Changes) -> dict[int, Changes]:
        """What is to be changed, by the index that it is in; new entries go into that whose prefix and suffix they have, and of
        several into that of the entry that they are most like."""
        paths = list(self._home)
        alike = Likeness(paths if changes.add else ())
        added: dict[str, int] = {}
        for path in changes.add:
            fitting = _fitting([part.layout for part in self._parts], path)
            like = alike.most_like(path)
            home = self._home[paths[like]] if like >= 0 else -1
            added[path] = home if home in fitting else fitting[0]
        out = {}
        for number in range(len(self._parts)):
            share = Changes(
                _of(changes.replace, self._home, number), _of(changes.add, added, number),
                frozenset(path for path in changes.remove if self._home[path] == number),
                _of(changes.rename, self._home, number), changes.facts, changes.sparse,
            )  # fmt: skip
            if share:
                out[number] = share
        return out

    def _prove(self, file: Path, changes: Changes, target: Path) -> None:
        """What one index's entries were changed to has been read back; none of it may have touched another's."""
        known = [changes.rename.get(path, path) for path in self._home] + [*changes.add]
        written = Several(file, self.layout, [*self._known, *known])
        try:
            wanted = {changes.rename.get(path, path) for path in self._home if path not in changes.remove} | {
                *changes.add
            }
            lost = sorted(wanted ^ {*written._home})
            for before in self._home:
                after = changes.rename.get(before, before)
                if lost or before in changes.replace or before in changes.remove:
                    continue
                one, other = self._part(before).stored(before), written._part(after).stored(after)
                if not same_bytes(one.source, one.start, one.end, other.source, other.start, other.end):
                    lost.append(after)
            if lost:
                raise FurnelError(
                    "Proving what was written", where=target,
                    why=f"{lost[0]}, in another of its indexes, would not be what it was",
                    remedy="Nothing was written. The description of one of the indexes is to blame (docs/layouts.md)",
                )  # fmt: skip
        finally:
            written.close()


def create(target: Path, layout: Layout, contents: Changes, progress: Progress = QUIET) -> None:
    """A new archive: its first index, then the others behind it."""
    layouts = layout.with_one_index
    homes = {path: _fitting(layouts, path)[0] for path in contents.add}
    with scratch_in(target.parent) as scratch:
        first = scratch / target.name
        mine = Changes(add=_of(contents.add, homes, 0), facts=contents.facts)
        create_one(first, layouts[0], mine, Part(progress, 0, 0.5))
        begun = Several(first, layout)
        try:
            rest = {path: content for path, content in contents.add.items() if homes[path]}
            begun.rewrite(target, Changes(add=rest, facts=contents.facts), Part(progress, 0.5, 1))
        finally:
            begun.close()


def _fitting(layouts: Sequence[Layout], path: str) -> list[int]:
    """The indexes that a new path can go into: those whose prefix and suffix tell most of it."""
    fitting = [number for number, layout in enumerate(layouts) if layout.entry.fits(path)]
    if not fitting:
        raise FurnelError(
            "Writing an archive", where=path, why="none of its indexes has such paths",
            remedy="Give it the beginning and the ending of one ([entry] prefix and suffix)",
        )  # fmt: skip
    most = max(layouts[number].entry.told for number in fitting)
    return [number for number in fitting if layouts[number].entry.told == most]


def _of(told: Mapping[str, Told], homes: Mapping[str, int], number: int) -> dict[str, Told]:
    return {path: value for path, value in told.items() if homes[path] == number}
