"""What the user has given leave to: commands that a profile runs, files outside a project's folder that it reads.

A profile or a project that came from somewhere else runs and reads nothing of that kind before it was shown and allowed.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Iterable
from functools import lru_cache
from pathlib import Path

from furnel.atomic import write_text
from furnel.folders import state_folder

_MOST = 20_000


def given(*what: str) -> bool:
    """Whether there is leave for this (a kind, and what tells it from others of its kind)."""
    return _mark(what) in _known()


def give(many: Iterable[tuple[str, ...]]) -> None:
    """Give leave for all of these, for good."""
    known = _known()
    fresh = [mark for what in many if (mark := _mark(what)) not in known]
    if fresh:
        write_text(_file(), json.dumps({"leave": [*known, *fresh][-_MOST:]}) + "\n")


def _mark(what: tuple[str, ...]) -> str:
    return hashlib.sha256("\0".join(what).encode("utf-8", "surrogatepass")).hexdigest()[:32]


def _known() -> dict[str, None]:
    try:
        state = _file().stat()
    except OSError:
        return {}
    return _read(_file(), (state.st_ino, state.st_size, state.st_mtime_ns))


@lru_cache(maxsize=4)
def _read(file: Path, _: tuple[int, int, int]) -> dict[str, None]:
    """The marks in a file as it was; it is asked for every file that a mod reads."""
    try:
        found = json.loads(file.read_text("utf-8"))["leave"]
        return dict.fromkeys(str(mark) for mark in found)
    except (OSError, ValueError, KeyError, TypeError):
        return {}


def _file() -> Path:
    return state_folder() / "leave.json"
