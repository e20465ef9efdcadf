"""What every archive is to the rest of Furnel."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Protocol

from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress

LONGEST_PATH = 1024
MOST_ENTRY_BYTES = 2 << 30


@dataclass(frozen=True, slots=True)
class Entry:
    """One thing in an archive: its inner `path` ('/' between parts), its size and the size it is stored in, in bytes."""

    path: str
    size: int
    stored: int


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

    def rewrite(self, target: Path, changes: Mapping[str, bytes], progress: Progress = QUIET) -> None:
        """Write a copy with some entries' content replaced to `target` (atomically, side files too).

        Unchanged entries are copied as they are stored; with no changes the copy is the same bytes.
        """

    def close(self) -> None:
        """Let go of the files."""


def check_path(path: str, archive: object) -> str:
    """`path`, when it is safe to write below a folder; FurnelError otherwise."""
    parts = path.split("/")
    why = ""
    if not path or len(path) > LONGEST_PATH:
        why = "it is empty or longer than any file's"
    elif any(part in ("", ".", "..") for part in parts):
        why = "it has an empty part, '.' or '..'"
    elif "\\" in path or "\0" in path or (len(parts[0]) > 1 and parts[0][1] == ":") or not path.isprintable():
        why = "it has characters that no inner path has"
    if why:
        raise FurnelError(
            "Reading an archive's index",
            where=f"{archive}, entry {path[:80]!r}",
            why=f"the entry's path is not safe to write: {why}",
            remedy="The archive is damaged, made to do harm, or described by the wrong layout",
        )
    return path


def missing_entry(path: str, archive: object) -> FurnelError:
    """The refusal for an entry that is not there."""
    return FurnelError(
        "Reading an entry",
        where=archive,
        why=f"there is no entry {path!r}",
        remedy="Names are case-sensitive: copy the inner path from the entry itself",
    )


def unknown_changes(changes: Mapping[str, bytes], known: Mapping[str, object], archive: object) -> None:
    """Refuse to replace what is not in the archive."""
    for path in changes:
        if path not in known:
            raise missing_entry(path, archive)
