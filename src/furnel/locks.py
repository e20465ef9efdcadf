"""Locks between programs: two Furnels at one mod, one game or one catalogue wait for each other; a kill frees them."""

from __future__ import annotations

import contextlib
import fcntl
import hashlib
import os
import threading
import time
from collections.abc import Iterator
from pathlib import Path

from furnel.errors import FurnelError
from furnel.folders import state_folder

_PATIENCE_S = 60.0
_PAUSE_S = 0.02
_held = threading.local()


@contextlib.contextmanager
def locked(path: Path, what: str, patience_s: float = _PATIENCE_S) -> Iterator[None]:
    """Hold the lock that belongs to a file or folder; one thread may take it several times.

    The lock itself is an empty file in the user's state folder, which the system frees with the program. Raises FurnelError
    when another program does not let go of it in time.
    """
    own: set[str] = _held.__dict__.setdefault("paths", set())
    name = str(path.resolve())
    if name in own:
        yield
        return
    handle = _open(name)
    try:
        if handle is not None:
            _wait(handle, path, what, patience_s)
        own.add(name)
        yield
    finally:
        own.discard(name)
        if handle is not None:
            os.close(handle)


def _open(name: str) -> int | None:
    """The lock's file; None where the state folder cannot be written, which nobody else can lock either."""
    folder = state_folder() / "locks"
    try:
        folder.mkdir(parents=True, exist_ok=True)
        file = folder / hashlib.sha256(name.encode()).hexdigest()[:24]
        return os.open(file, os.O_RDWR | os.O_CREAT | os.O_CLOEXEC, 0o600)
    except OSError:
        return None


def _wait(handle: int, path: Path, what: str, patience_s: float) -> None:
    end = time.monotonic() + patience_s
    while True:
        try:
            fcntl.flock(handle, fcntl.LOCK_EX | fcntl.LOCK_NB)
            return
        except OSError as error:
            if time.monotonic() > end:
                raise FurnelError(
                    what, where=path, why="another Furnel is working on it and does not come to an end",
                    remedy="Close it, then try again",
                ) from error  # fmt: skip
        time.sleep(_PAUSE_S)
