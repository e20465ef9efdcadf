"""What every archive is to the rest of Furnel."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import dataclass, field
from functools import partial
from pathlib import Path
from typing import Literal, NamedTuple, Protocol, runtime_checkable

from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

LONGEST_PATH = 1024
MOST_ENTRY_BYTES = 2 << 30
Order = Literal["little", "big"]

Content = bytes | Path
"""What goes into an archive: bytes, or a file that is read piece by piece."""

_PART = r"(?!\.)[\w\-.+()!@#&' ]++"
_OTHERS = {"Zs", "Co"}  # blanks, and signs of a game's own
_JOINERS = "\u200c\u200d\u00ad"  # of Persian, of emoji; the soft hyphen
_PLAIN = re.compile(f"{_PART}(?:/{_PART})*+", re.ASCII)
_PLAIN_LINES = re.compile(f"(?:{_PART}(?:/{_PART})*+\n)*+", re.ASCII)


class Entry(NamedTuple):
    """One thing in an archive: its inner `path` ('/' between parts), its size and the size it is stored in, in bytes."""

    path: str
    size: int
    stored: int


def many_entries(paths: Iterable[str], sizes: Iterable[int], stored: Iterable[int]) -> list[Entry]:
    """Very many entries at once, with no call in Python for each of them."""
    make: Callable[[tuple[str, int, int]], Entry] = partial(tuple.__new__, Entry)
    return list(map(make, zip(paths, sizes, stored, strict=True)))


@dataclass(frozen=True, slots=True)
class Remark:
    """Something to know about a file's bytes, and at which of them (-1: nowhere in particular)."""

    text: str
    at: int = -1


@dataclass(frozen=True, slots=True)
class Changes:
    """What a rewritten archive has otherwise: contents replaced and added by inner path, entries removed, renamed.

    `facts` are what the archive's own fields have to say of replaced and added entries, by role. Of a folder only what is
    changed is written when it is `sparse`.
    """

    replace: Mapping[str, Content] = field(default_factory=dict)
    add: Mapping[str, Content] = field(default_factory=dict)
    remove: frozenset[str] = frozenset()
    rename: Mapping[str, str] = field(default_factory=dict)
    facts: Mapping[str, Mapping[str, int]] = field(default_factory=dict)
    sparse: bool = False

    def __bool__(self) -> bool:
        return bool(self.replace or self.add or self.remove or self.rename)

    def check(self, known: Mapping[str, object], archive: object) -> None:
        """Refuse to touch what is not in the archive, and paths that would be there twice or are not safe."""
        for path in (*self.replace, *self.remove, *self.rename):
            if path not in known:
                raise missing_entry(path, archive)
        left = set(known) - self.remove - set(self.rename)
        for path in (*self.rename.values(), *self.add):
            check_path(path, archive)
            if path in left:
                raise FurnelError(
                    "Changing an archive", where=archive, why=f"there would be two entries {path!r}",
                    remedy="Replace the one that is there, or choose another name",
                )  # fmt: skip
            left.add(path)


class Container(Protocol):
    """An opened archive. Reading raises FurnelError for damage; nothing here ever changes the archive itself."""

    path: Path
    kind: str

    def entries(self) -> Sequence[Entry]:
        """All entries, in the archive's own order."""

    def read(self, path: str) -> bytes:
        """An entry's content, unpacked and checked."""

    def view(self, path: str) -> bytes | memoryview:
        """An entry's content for looking into, mapped and not read where it is stored as it is; unchecked then."""

    def peek(self, path: str, size: int) -> bytes:
        """The first `size` bytes of an entry (or all of it), with as little work as the archive allows."""

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        """Write a changed copy to `target` (atomically, side files too).

        Unchanged entries are copied as they are stored; with no changes the copy is the same bytes.
        """

    def close(self) -> None:
        """Let go of the files."""


@runtime_checkable
class Telling(Protocol):
    """An archive whose own fields say of entries what bare data does not say itself."""

    def told(self, path: str) -> dict[str, int]:
        """Width, height, rate and the like of an entry, by role."""


@runtime_checkable
class Undressing(Protocol):
    """An archive with bare data in it, which the rest of Furnel sees as files."""

    def bare(self, path: str, content: Content) -> tuple[str, bytes] | None:
        """The path and the bytes that the game itself has for an entry with this content; None for one that is not bare.

        Raises FurnelError where the archive's own fields tell a part of it: no file can stand for it alone.
        """


def check_path(path: str, archive: object) -> str:
    """`path`, when it is safe to write below a folder; FurnelError otherwise."""
    if len(path) <= LONGEST_PATH and _PLAIN.fullmatch(path):
        return path
    parts = path.split("/")
    why = ""
    if not path or len(path) > LONGEST_PATH:
        why = "it is empty or longer than any file's"
    elif any(part in ("", ".", "..") for part in parts):
        why = "it has an empty part, '.' or '..'"
    elif "\\" in path or "\0" in path or (len(parts[0]) > 1 and parts[0][1] == ":") or not _can_be_seen(path):
        why = "it has characters that no inner path has"
    if why:
        raise FurnelError(
            "Reading an archive's index",
            where=f"{archive}, entry {path[:80]!r}",
            why=f"the entry's path is not safe to write: {why}",
            remedy="The archive is damaged, made to do harm, or described by the wrong layout",
        )
    return path


def _can_be_seen(path: str) -> bool:
    """Whether all signs of a path are letters, or blanks and joiners of other scripts; not line ends, controls, or signs that
    turn what is shown around."""
    return all(
        sign.isprintable() or unicodedata.category(sign) in _OTHERS or sign in _JOINERS for sign in path
    )


def check_paths(paths: Sequence[str], archive: object) -> list[str]:
    """As `check_path` for each of many paths, most of which are plain: those are looked at in one go."""
    joined = "\n".join(paths) + "\n"
    is_short = len(max(paths, key=len, default="")) <= LONGEST_PATH
    if is_short and joined.count("\n") == len(paths) and _PLAIN_LINES.fullmatch(joined):
        return list(paths)
    return [check_path(path, archive) for path in paths]


def missing_entry(path: str, archive: object) -> FurnelError:
    """The refusal for an entry that is not there."""
    return FurnelError(
        "Reading an entry",
        where=archive,
        why=f"there is no entry {path!r}",
        remedy="Names are case-sensitive: copy the inner path from the entry itself",
    )
