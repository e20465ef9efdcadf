"""Archives inside archives, as one: what is in `boats.crate` in `all.zip` is `boats.crate/…`."""

from __future__ import annotations

import fnmatch
from collections.abc import Callable, Sequence
from pathlib import Path

from furnel.atomic import scratch_in
from furnel.containers.container import Changes, Container, Content, Entry, Undressing, missing_entry
from furnel.containers.lone import Lone
from furnel.containers.mapped import HeldBytes
from furnel.containers.schema import InsidePart
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

OpenInner = Callable[[Path, str, HeldBytes], Container]
"""Opens an archive in memory: its path, the name of its layout, its bytes."""


class Nested:
    """A container whose entries of some names are opened too; one that cannot be opened stays an entry."""

    def __init__(self, outer: Container, rules: Sequence[InsidePart], open_inner: OpenInner) -> None:
        self.path, self.kind = outer.path, outer.kind
        self._outer = outer
        self._inner: dict[str, Container] = {}
        self.faults: dict[str, FurnelError] = {}
        names = [entry.path for entry in outer.entries()]
        for name in names:
            rule = next((rule for rule in rules if fnmatch.fnmatchcase(name, rule.files)), None)
            if rule is not None:
                try:
                    self._inner[name] = self._open(name, rule, open_inner)
                except FurnelError as error:
                    self.faults[name] = error

    def entries(self) -> Sequence[Entry]:
        out: list[Entry] = []
        for entry in self._outer.entries():
            inner = self._inner.get(entry.path)
            if inner is None:
                out.append(entry)
            else:
                out += [found._replace(path=f"{entry.path}/{found.path}") for found in inner.entries()]
        return out

    def read(self, path: str) -> bytes:
        container, inner = self._find(path)
        return container.read(inner)

    def view(self, path: str) -> bytes | memoryview:
        container, inner = self._find(path)
        return container.view(inner)

    def peek(self, path: str, size: int) -> bytes:
        container, inner = self._find(path)
        return container.peek(inner, size)

    def bare(self, path: str, content: Content) -> tuple[str, bytes] | None:
        container, inner = self._find(path)
        if isinstance(container, Lone):
            return path.removesuffix(f"/{inner}"), container.packed(content)
        found = container.bare(inner, content) if isinstance(container, Undressing) else None
        return (path.removesuffix(inner) + found[0], found[1]) if found is not None else None

    def close(self) -> None:
        for inner in self._inner.values():
            inner.close()
        self._outer.close()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        outer: dict[str, Changes] = {}
        split: dict[str, tuple[dict[str, Content], dict[str, Content], set[str], dict[str, str]]] = {}

        def at(path: str) -> tuple[dict[str, Content], dict[str, Content], set[str], dict[str, str], str]:
            archive, inner = self._split(path)
            return (*split.setdefault(archive, ({}, {}, set(), {})), inner)

        for path, content in changes.replace.items():
            replaced, _, _, _, inner = at(path)
            replaced[inner] = content
        for path, content in changes.add.items():
            _, added, _, _, inner = at(path)
            added[inner] = content
        for path in changes.remove:
            _, _, removed, _, inner = at(path)
            removed.add(inner)
        for old, new in changes.rename.items():
            _, _, _, renamed, inner = at(old)
            archive, fresh = self._split(new)
            if archive != self._split(old)[0]:
                raise FurnelError(
                    "Changing an archive", where=old, why=f"{new} is in another archive",
                    remedy="Remove it here and add it there",
                )  # fmt: skip
            renamed[inner] = fresh
        for archive, (replaced, added, removed, renamed) in split.items():
            outer[archive] = Changes(replaced, added, frozenset(removed), renamed)
        own = outer.pop("", Changes())
        with scratch_in(target.parent) as scratch:
            fresh_inner: dict[str, Content] = {}
            for number, (archive, inside) in enumerate(outer.items()):
                file = scratch / f"{number}{Path(archive).suffix}"
                self._inner[archive].rewrite(file, inside, progress)
                fresh_inner[archive] = file
                for side in scratch.glob(f"{number}.*"):
                    beside = archive.rsplit(".", 1)[0] + side.suffix
                    if side != file and any(entry.path == beside for entry in self._outer.entries()):
                        fresh_inner[beside] = side
            whole = Changes(
                {**own.replace, **fresh_inner}, own.add, own.remove, own.rename, sparse=changes.sparse
            )
            self._outer.rewrite(target, whole, progress)

    def _open(self, name: str, rule: InsidePart, open_inner: OpenInner) -> Container:
        def fetch(suffix: str) -> bytes | memoryview:
            return self._outer.view(name.rsplit(".", 1)[0] + suffix)

        held = HeldBytes(self._outer.view(name), f"{self.path}/{name}", fetch)
        return open_inner(self.path / name, rule.layout, held)

    def _split(self, path: str) -> tuple[str, str]:
        """The archive inside that a path leads into (empty: none) and the rest of the path."""
        for archive in self._inner:
            if path.startswith(f"{archive}/"):
                return archive, path[len(archive) + 1 :]
        return "", path

    def _find(self, path: str) -> tuple[Container, str]:
        archive, inner = self._split(path)
        if not archive and path in self._inner:
            raise missing_entry(path, self.path)
        return (self._inner[archive], inner) if archive else (self._outer, path)
