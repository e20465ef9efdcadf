"""Archives with bare pixels and samples in them, as archives of pictures and sounds that everything reads."""

from __future__ import annotations

import fnmatch
from collections.abc import Iterable, Mapping, Sequence
from pathlib import Path

from furnel.atomic import write_bytes
from furnel.containers.alike import Likeness
from furnel.containers.bare import dressed, measure, undressed, whole_size
from furnel.containers.container import Changes, Container, Content, Entry, Order, Telling, missing_entry
from furnel.containers.rawparts import RawPart
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress

_LONGEST_HEAD = 4096
Rule = tuple[RawPart, Order]


class Dressed:
    """A container whose entries that are bare data, by `rules`, are DDS, TGA and WAV files, with that ending behind their
    paths; `roles` is what the archive's own fields tell of such data."""

    def __init__(self, outer: Container, rules: Sequence[Rule], roles: Iterable[str] = ()) -> None:
        self.path, self.kind = outer.path, outer.kind
        self._outer, self._rules, self._roles = outer, rules, tuple(roles)
        self._entries = {entry.path: entry for entry in outer.entries()}
        self._bare: dict[str, tuple[str, Rule]] = {}
        for path in self._entries:
            rule = rule_of(path, rules)
            if rule is not None and path + rule[0].ending not in self._entries:
                self._bare[path + rule[0].ending] = path, rule
        self._shown = {bare: shown for shown, (bare, _) in self._bare.items()}
        self._listed: list[Entry] = []

    def entries(self) -> Sequence[Entry]:
        if not self._listed:  # each is looked into once
            self._listed = [self._entry(path, entry) for path, entry in self._entries.items()]
        return self._listed

    def read(self, path: str) -> bytes:
        if path not in self._bare:
            self._check_bare(path)
            return self._outer.read(path)
        bare, (part, order) = self._bare[path]
        data = memoryview(self._outer.read(bare))
        return dressed(part, data, self._told(bare), order, f"{self.path}, {bare}", self._shared(part))

    def view(self, path: str) -> bytes | memoryview:
        return self.read(path) if path in self._bare else self._outer.view(self._check_bare(path))

    def peek(self, path: str, size: int) -> bytes:
        if path not in self._bare:
            return self._outer.peek(self._check_bare(path), size)
        header = self._measured(path)[0]
        return header[:size] if size <= len(header) else self.read(path)[:size]

    def close(self) -> None:
        self._outer.close()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        shown = {self._shown.get(path, path) for path in self._entries}
        changes.check(dict.fromkeys(shown), self.path)
        replace: dict[str, Content] = {}
        add: dict[str, Content] = {}
        facts: dict[str, dict[str, int]] = {}
        for path, content in changes.replace.items():
            bare, rule = self._bare.get(path, (path, None))
            replace[bare] = content
            if rule is not None:
                replace[bare], facts[bare] = self._undressed(bare, rule, content, bare)
        paths = list(self._entries)
        alike = Likeness(paths if changes.add else ())
        for path, content in changes.add.items():
            bare, rule = bare_path(path, self._rules)
            add[bare] = content
            if rule is not None:
                place = alike.most_like(bare)
                like = paths[place] if place >= 0 else ""
                add[bare], facts[bare] = self._undressed(bare, rule, content, like)
        rename = {
            self._bare.get(old, (old, None))[0]: bare_path(new, self._rules)[0]
            for old, new in changes.rename.items()
        }
        remove = frozenset(self._bare.get(path, (path, None))[0] for path in changes.remove)
        self._outer.rewrite(target, Changes(replace, add, remove, rename, facts, changes.sparse), progress)

    def bare(self, path: str, content: Content) -> tuple[str, bytes] | None:
        if path not in self._bare:
            return None
        bare, rule = self._bare[path]
        made, outside = self._undressed(bare, rule, content, bare)
        told = self._told(bare)
        if any(told[role] != number for role, number in outside.items()):
            raise FurnelError(
                "Writing bare data", where=path,
                why="its size or its format stands in the archive's index, and a loose file cannot tell another one",
                remedy="Give it the original's size and format, or let mods be rebuilt archives (goes = \"rebuilt\")",
            )  # fmt: skip
        return bare, made

    def _check_bare(self, path: str) -> str:
        if path in self._shown:
            raise missing_entry(path, self.path)
        return path

    def _told(self, path: str) -> dict[str, int]:
        return self._outer.told(path) if self._roles and isinstance(self._outer, Telling) else {}

    def _shared(self, part: RawPart) -> bytes | None:
        """The bytes of the palette that lies in another entry."""
        at = part.palette.entry if part.palette is not None else ""
        return self._outer.read(at) if at else None

    def _entry(self, path: str, entry: Entry) -> Entry:
        if path not in self._shown:
            return entry
        shown = self._shown[path]
        try:
            return Entry(shown, self._measured(shown)[1], entry.stored)
        except FurnelError:  # told when it is read
            return entry._replace(path=shown)

    def _measured(self, shown: str) -> tuple[bytes, int]:
        """The header of the file that an entry is read as, and that file's size."""
        path, (part, order) = self._bare[shown]
        head = memoryview(self._outer.peek(path, _LONGEST_HEAD) if part.fields else b"")
        found = measure(part, head, self._entries[path].size, self._told(path), order, f"{self.path}, {path}")
        return found.header, whole_size(part, found)

    def _undressed(self, path: str, rule: Rule, content: Content, like: str) -> tuple[bytes, dict[str, int]]:
        part, order = rule
        known = like in self._entries and like in self._shown
        before = memoryview(self._outer.read(like)) if known else None
        told = self._told(like) if known else dict.fromkeys(self._roles, 0)
        return undressed(
            part, _bytes(content), before, told, order, f"{self.path}, {path}", self._shared(part)
        )


def bare_contents(
    contents: Mapping[str, Content], rules: Sequence[Rule], roles: Iterable[str]
) -> tuple[dict[str, Content], dict[str, dict[str, int]]]:
    """Contents of a new archive as it has them: by the path there, with what its fields have to say of them."""
    told = dict.fromkeys(roles, 0)
    out: dict[str, Content] = {}
    facts: dict[str, dict[str, int]] = {}
    for path, content in contents.items():
        bare, rule = bare_path(path, rules)
        out[bare] = content
        if rule is not None:
            elsewhere = contents.get(rule[0].palette.entry) if rule[0].palette is not None else None
            shared = _bytes(elsewhere) if elsewhere is not None else None
            out[bare], facts[bare] = undressed(rule[0], _bytes(content), None, told, rule[1], path, shared)
    return out, facts


def bare_path(path: str, rules: Sequence[Rule]) -> tuple[str, Rule | None]:
    """Under which path, and by which rule, a new entry goes into an archive. Raises FurnelError for one that has to be bare."""
    for part, _ in rules:
        bare = path.removesuffix(part.ending)
        if bare != path and (found := rule_of(bare, rules)) is not None and found[0].ending == part.ending:
            return bare, found
    if (found := rule_of(path, rules)) is not None:
        raise FurnelError(
            "Changing an archive", where=path, why="such entries are bare data in this archive",
            remedy=f"Call it {path}{found[0].ending}",
        )  # fmt: skip
    return path, None


def rule_of(path: str, rules: Sequence[Rule]) -> Rule | None:
    """The rule for an entry of that path in the archive."""
    return next((rule for rule in rules if fnmatch.fnmatchcase(path, rule[0].files)), None)


def _bytes(content: Content) -> bytes:
    try:
        return content.read_bytes() if isinstance(content, Path) else bytes(content)
    except OSError as error:
        raise FurnelError("Writing bare data", where=content, why=reason(error)) from error


class Single:
    """A loose file that is one picture or sound behind a record of its own, as an archive of one entry."""

    kind = "single"

    def __init__(self, path: Path, data: memoryview) -> None:
        self.path, self._data = path, data

    def entries(self) -> Sequence[Entry]:
        return [Entry(self.path.name, len(self._data), len(self._data))]

    def read(self, path: str) -> bytes:
        return bytes(self.view(path))

    def view(self, path: str) -> bytes | memoryview:
        if path != self.path.name:
            raise missing_entry(path, self.path)
        return self._data

    def peek(self, path: str, size: int) -> bytes:
        return bytes(self.view(path)[:size])

    def close(self) -> None:
        self._data = memoryview(b"")

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        if changes.add or changes.remove or changes.rename:
            raise FurnelError(
                "Changing a file", where=self.path, why="it is one picture or sound, not an archive",
                remedy="Its content can be replaced; nothing can be added, removed or renamed in it",
            )  # fmt: skip
        write_bytes(target, _bytes(changes.replace.get(self.path.name, bytes(self._data))))
