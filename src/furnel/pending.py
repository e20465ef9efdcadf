"""What is being written at the moment, noted so that the next start can bring to an end what a kill interrupted.

A note lies in the user's state folder while a change goes on, locked by the process that makes it.
"""

from __future__ import annotations

import contextlib
import fcntl
import json
import os
import shutil
from collections.abc import Iterator, Sequence
from pathlib import Path

from furnel.folders import state_folder

_BEGUN, _READY = ".begun", ".ready"


@contextlib.contextmanager
def noted(parts: Sequence[Path]) -> Iterator[Path]:
    """A note of files and folders that have to go when the block does not come to its end; they go at its end, too.

    Given is where the moves may be written that bring the change to its end (`moves_file`). Where nothing can be noted the
    block runs all the same.
    """
    note = _folder() / f"{os.urandom(16).hex()}{_BEGUN}"
    with contextlib.ExitStack() as stack:
        with contextlib.suppress(OSError):
            _folder().mkdir(parents=True, exist_ok=True)
            lock = stack.enter_context(note.open("x"))
            fcntl.flock(lock, fcntl.LOCK_EX)
            lock.write(json.dumps([str(part.resolve()) for part in parts]))
            lock.flush()
        try:
            yield note
        finally:
            for part in parts:
                remove(part)
            remove(note)


def moves_file(note: Path) -> Path:
    """Where the moves of a change are written once all of it is on the disk: a list of pairs, from and to."""
    return note.with_suffix(_READY)


def move_all(moves: Sequence[Sequence[str]]) -> None:
    """Give files their final names, those that still have the first ones; durable afterwards."""
    folders = set()
    for part, path in moves:
        if Path(part).exists():
            Path(part).replace(path)
        folders.add(Path(path).parent)
    for folder in folders:
        handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
        try:
            os.fsync(handle)
        finally:
            os.close(handle)


def finish_interrupted() -> int:
    """Bring to an end what a kill interrupted; how many changes that were. What other processes work on is left alone."""
    folder = _folder()
    done = 0
    for note in sorted(folder.glob(f"*{_BEGUN}")) if folder.is_dir() else ():
        with contextlib.suppress(OSError), note.open("r+") as lock:
            try:
                fcntl.flock(lock, fcntl.LOCK_EX | fcntl.LOCK_NB)
            except OSError:
                continue
            moves = _load(moves_file(note))
            if moves:
                move_all(moves)
            moves_file(note).unlink(missing_ok=True)
            for path in _load(note):
                remove(Path(str(path)))
            note.unlink()
            done += 1
    return done


def remove(path: Path) -> None:
    """Remove a file or a whole folder, when it is there and can be."""
    if path.is_dir() and not path.is_symlink():
        shutil.rmtree(path, ignore_errors=True)
    else:
        with contextlib.suppress(OSError):
            path.unlink(missing_ok=True)


def _load(file: Path) -> list[list[str]]:
    try:
        found = json.loads(file.read_text("utf-8"))
        return found if isinstance(found, list) else []
    except (OSError, ValueError):
        return []


def _folder() -> Path:
    return state_folder() / "pending"
