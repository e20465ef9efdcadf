"""A game's own files where a mod stands in their place: which those are, and where they are kept.

A mod of a game without a mods folder is its files put in the place of the game's own. These are kept in the user's state
folder, with a record of what was put where, and everything that reads the game reads them: a mod is never taken for an
original.
"""

from __future__ import annotations

import hashlib
import json
from dataclasses import asdict, dataclass
from functools import lru_cache
from pathlib import Path

from furnel.digests import file_digest
from furnel.folders import state_folder

RECORD = "placed.json"


@dataclass(frozen=True, slots=True)
class PlacedFile:
    """A file that was put into a game: the SHA-256 of what was there `before` (empty: nothing) and of what was put there, and
    the size and modification time that this then had."""

    before: str
    after: str
    size: int
    time: int


@dataclass(frozen=True, slots=True)
class Placed:
    """A mod's files in a game, by their paths below its folder; `tree` tells the build that they are from, `clear` are files
    that have still to go."""

    mod: str
    name: str
    version: str
    tree: str
    files: dict[str, PlacedFile]
    clear: tuple[str, ...] = ()

    def text(self) -> str:
        """As it is kept."""
        return json.dumps(asdict(self), indent=1)


def placed_home(folder: Path) -> Path:
    """Where records and kept files of a game in `folder` are."""
    return _home(state_folder(), folder)


def kept_file(folder: Path, mod: str, path: str) -> Path:
    """Where the game's own file is kept while a mod stands in its place."""
    return placed_home(folder) / mod / "originals" / path.lstrip("/")


def read_placed(folder: Path, mod: str) -> Placed | None:
    """What is recorded of a mod; None when it is not in the game."""
    file = placed_home(folder) / mod / RECORD
    try:
        return _read(file, file.stat().st_mtime_ns)
    except OSError:
        return None


def all_placed(folder: Path) -> list[Placed]:
    """Every mod that stands in the place of files of a game."""
    home = placed_home(folder)
    found = [read_placed(folder, place.name) for place in sorted(home.iterdir())] if home.is_dir() else []
    return [placed for placed in found if placed is not None]


def placed_files(folder: Path) -> set[Path]:
    """Every file that mods have put into a game in `folder`."""
    return {folder / path for placed in all_placed(folder) for path in placed.files}


def stands(file: Path, put: PlacedFile) -> bool:
    """Whether a file is still what was put there."""
    try:
        state = file.stat()
    except OSError:
        return False
    if (state.st_size, state.st_mtime_ns) == (put.size, put.time):
        return True
    return state.st_size == put.size and _digest(file, state.st_size, state.st_mtime_ns) == put.after


def own_file(folder: Path, file: Path) -> Path | None:
    """The game's own file for one in its folder: itself, the one that is kept, or None where the game has none.

    Where something else came into the place of what Furnel put there, such as an update of the game, that is the game's own.
    """
    for placed in all_placed(folder):
        path = file.relative_to(folder).as_posix() if file.is_relative_to(folder) else ""
        put = placed.files.get(path)
        if put is not None and stands(file, put):
            return kept_file(folder, placed.mod, path) if put.before else None
    return file


@lru_cache(64)
def _home(state: Path, folder: Path) -> Path:
    return state / "in-place" / hashlib.sha256(str(folder.resolve()).encode()).hexdigest()[:16]


@lru_cache(64)
def _read(file: Path, time: int) -> Placed | None:
    try:
        told = json.loads(file.read_text("utf-8"))
        files = {path: PlacedFile(**put) for path, put in told.pop("files").items()}
        return Placed(**{**told, "clear": tuple(told["clear"])}, files=files)
    except (OSError, ValueError, TypeError, KeyError):
        return None


@lru_cache(256)
def _digest(file: Path, size: int, time: int) -> str:
    return file_digest(file)
