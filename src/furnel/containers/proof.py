"""What was written is read back, before it takes the old one's place, and held against what was to be written."""

from __future__ import annotations

from collections import Counter
from collections.abc import Callable, Iterable
from dataclasses import dataclass
from pathlib import Path
from typing import NamedTuple, Protocol

from furnel.collecting import uncollected
from furnel.containers.container import Changes, Content, Telling
from furnel.containers.mapped import Source
from furnel.containers.same import digest_of, same_bytes
from furnel.errors import FurnelError, reason

_WHAT = "Proving what was written"
_NAMED = 3
_RUN, _BETWEEN = 64 << 20, 1 << 16  # bytes that are compared in one go, and that may lie between two entries


class Stored(NamedTuple):
    """Where an entry's stored bytes lie, and how they are packed."""

    source: Source
    start: int
    end: int
    packing: object


class Provable(Protocol):
    """An opened archive that tells how its entries are stored."""

    def paths(self) -> Iterable[str]:
        """The inner paths of all entries, in the archive's order."""

    def stored(self, path: str) -> Stored:
        """An entry's bytes as they are stored, checked by what is kept beside them."""

    def read(self, path: str) -> bytes:
        """An entry's content, unpacked and checked."""

    def close(self) -> None:
        """Let go of the files."""


@dataclass(frozen=True, slots=True)
class Proof:
    """What an archive that is being written has to be: the `old` one with `changes`, under the name of `target`.

    `reopen` opens what was written; it is given the names of all entries, for archives that have only their hashes. Entries
    that are `numbered` by their place may get other names. Where no field tells sizes, up to `padding` bytes of `fill` become a
    part of new entries.
    """

    reopen: Callable[[list[str], Source], Provable]
    old: Provable | None
    changes: Changes
    target: Path
    numbered: bool = False
    padding: int = 1
    fill: int = 0

    def __call__(self, written: Source) -> None:
        """Every entry has to be there and nothing else; untouched ones stored to the byte as they were, the others with the
        content that was given. Raises FurnelError, which leaves everything as it was."""
        old, changes = self.old, self.changes
        kept = (
            {path: changes.rename.get(path, path) for path in old.paths() if path not in changes.remove}
            if old
            else {}
        )
        fresh = {kept[path]: content for path, content in changes.replace.items()} | dict(changes.add)
        try:
            opened = self.reopen([*kept.values(), *changes.add], written)
        except FurnelError as error:
            raise self._refusal(f"it cannot be read back: {error.why}") from error
        try:
            if self.numbered:
                self._check_numbered(opened, kept, fresh)
            else:
                self._check(opened, kept, fresh)
        except FurnelError as error:
            if error.what == _WHAT:
                raise
            raise self._refusal(f"it cannot be read back: {error.why}") from error
        finally:
            opened.close()

    def _check(self, written: Provable, kept: dict[str, str], fresh: dict[str, Content]) -> None:
        wanted, found = {*kept.values(), *fresh}, set(written.paths())
        if found != wanted:
            lost, more = sorted(wanted - found), sorted(found - wanted)
            told = [f"{', '.join(lost[:_NAMED])} would be gone"] if lost else []
            told += [f"{', '.join(more[:_NAMED])} would be there, too"] if more else []
            raise self._refusal("; ".join(told))
        with uncollected():
            self._check_kept(written, {before: after for before, after in kept.items() if after not in fresh})
        for path, content in fresh.items():
            if not self._is(written.read(path), content):
                raise self._refusal(f"{path} would not have the content that it was given")
            if not self._tells(written, path, path):
                raise self._refusal(f"the archive's fields would not say of {path} what it is")

    def _check_kept(self, written: Provable, kept: dict[str, str]) -> None:
        """Untouched entries are compared as they are stored: those that lie one behind the other in both archives at once."""
        run: list[tuple[str, str]] = []
        begun: tuple[Stored, Stored] | None = None
        last: tuple[Stored, Stored] | None = None
        for before, after in kept.items() if self.old is not None else ():
            assert self.old is not None
            one, other = self.old.stored(before), written.stored(after)
            if begun is not None and last is not None and not _goes_on(begun[0], last, one, other):
                self._compare(written, run, begun, last)
                begun = None
            if begun is None:
                begun, run = (one, other), []
            last = one, other
            run.append((before, after))
        if begun is not None and last is not None:
            self._compare(written, run, begun, last)

    def _compare(
        self,
        written: Provable,
        run: list[tuple[str, str]],
        begun: tuple[Stored, Stored],
        last: tuple[Stored, Stored],
    ) -> None:
        old = self.old
        assert old is not None
        whole = begun[0]._replace(end=last[0].end), begun[1]._replace(end=last[1].end)
        if len(run) > 1 and _same(*whole):
            return
        for before, after in run:
            same = _same(old.stored(before), written.stored(after))
            if not same and (before == after or old.read(before) != written.read(after)):
                raise self._refusal(f"{after} would be stored as something else, and nobody changed it")

    def _check_numbered(self, written: Provable, kept: dict[str, str], fresh: dict[str, Content]) -> None:
        """Entries that have no names: as many as there should be, each of the old ones among them, and each new one."""
        found = list(written.paths())
        if len(found) != len({*kept.values(), *fresh}):
            raise self._refusal(f"it would have {len(found)} entries, not {len({*kept.values(), *fresh})}")
        digests = {path: digest_of(*written.stored(path)[:3]) for path in found}
        left = Counter(digests.values())
        for before, after in kept.items():
            if after not in fresh and self.old is not None:
                left[digest_of(*self.old.stored(before)[:3])] -= 1
        if min(left.values(), default=0) < 0:
            raise self._refusal("an entry that nobody changed would be stored as something else")
        missing = dict(fresh)
        for other in (path for path in found if left[digests[path]]):
            read = written.read(other)
            missing = {
                path: content for path, content in missing.items()
                if not self._is(read, content) or not self._tells(written, other, path)
            }  # fmt: skip
        for path in missing:
            raise self._refusal(f"{path} would not have the content that it was given")

    def _tells(self, written: Provable, found: str, path: str) -> bool:
        """Whether the archive's own fields say of an entry what they are to say of the one with a new path."""
        if not self.changes.facts:
            return True
        back = {new: old for old, new in self.changes.rename.items()}
        facts = self.changes.facts.get(back.get(path, path), {})
        return not facts or (isinstance(written, Telling) and facts.items() <= written.told(found).items())

    def _is(self, read: bytes, content: Content) -> bool:
        size = _size(content)
        if not 0 <= len(read) - size < self.padding:
            return False
        wanted = _bytes(content)
        rest = read[size:]
        return read[:size] == wanted and rest == bytes([self.fill]) * len(rest)

    def _refusal(self, why: str) -> FurnelError:
        return FurnelError(
            _WHAT, where=self.target, why=why,
            remedy="Nothing was written. The description of this kind of archive is to blame, not the disk: a field in it does "
            "not mean what it says, or one is missing (docs/layouts.md)",
        )  # fmt: skip


def _goes_on(begun: Stored, last: tuple[Stored, Stored], one: Stored, other: Stored) -> bool:
    """Whether the next entry lies behind the last one in both archives, as far from it, and is packed alike."""
    between = one.start - last[0].end
    return (
        0 <= between == other.start - last[1].end
        and between <= _BETWEEN
        and one.end - begun.start <= _RUN
        and one.end - one.start == other.end - other.start
        and one.packing == other.packing == begun.packing
        and one.source is begun.source
    )


def _same(one: Stored, other: Stored) -> bool:
    return one.packing == other.packing and same_bytes(
        one.source, one.start, one.end, other.source, other.start, other.end
    )


def _size(content: Content) -> int:
    try:
        return content.stat().st_size if isinstance(content, Path) else len(content)
    except OSError as error:
        raise FurnelError(_WHAT, where=content, why=reason(error)) from error


def _bytes(content: Content) -> bytes:
    try:
        return content.read_bytes() if isinstance(content, Path) else content
    except OSError as error:
        raise FurnelError(_WHAT, where=content, why=reason(error)) from error
