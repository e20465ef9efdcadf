"""Learning a game in a process of its own, so that nobody who works meanwhile feels it.

The process keeps what it works out in the catalogue's file, piece by piece: one that was stopped goes on where it was.
"""

from __future__ import annotations

import contextlib
import os
import selectors
import subprocess
import sys
import threading
from pathlib import Path

from furnel.catalogue.index import Catalogue
from furnel.catalogue.marking import WHAT, Marks, is_marked, mark_all
from furnel.errors import Cancelled, FurnelError
from furnel.games import Install
from furnel.progress import QUIET, Progress

_NICE = 5
_LOOK_S = 0.1  # how often it is looked whether the caller wants to stop


def mark_apart(catalogue: Catalogue, progress: Progress = QUIET) -> Marks:
    """`mark_all`, with what is not known yet worked out by another process at low priority. Can be cancelled and resumed."""
    if not is_marked(catalogue):
        command = [sys.executable, "-P", "-m", __name__, str(catalogue.install.folder), str(catalogue.file)]
        with (
            contextlib.suppress(OSError),
            subprocess.Popen(
                command, stdin=subprocess.PIPE, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL
            ) as learner,
        ):
            try:
                _follow(learner, progress)
            finally:
                learner.kill()
    return mark_all(catalogue, progress)  # what the other process could not do, if anything, is done here


def _follow(learner: subprocess.Popen[bytes], progress: Progress) -> None:
    """Pass the progress on until the process ends. Raises Cancelled when the caller wants to stop."""
    assert learner.stdout is not None
    with selectors.DefaultSelector() as ready:
        ready.register(learner.stdout, selectors.EVENT_READ)
        rest = b""
        while True:
            if progress.cancelled():
                raise Cancelled(WHAT)
            if not ready.select(_LOOK_S):
                continue
            got = os.read(learner.stdout.fileno(), 4096)
            if not got:
                return
            *lines, rest = (rest + got).split(b"\n")
            if lines:
                progress.report(float(lines[-1]), WHAT)


class _Told:
    """A progress that is written as lines; the process ends when nobody reads them."""

    def report(self, fraction: float, text: str) -> None:
        print(f"{fraction:.4f}", flush=True)

    def cancelled(self) -> bool:
        return False


def _end_with_parent() -> None:
    sys.stdin.buffer.read()
    os._exit(0)


def main() -> int:
    """Learn a game: its folder and the catalogue's file are the arguments."""
    os.nice(_NICE)
    threading.Thread(target=_end_with_parent, daemon=True).start()
    folder, file = sys.argv[1:]
    try:
        catalogue = Catalogue(Install(Path(folder)), Path(file))
        catalogue.refresh()
        mark_all(catalogue, _Told())
        catalogue.close()
    except FurnelError:  # the one who asked finds out what is wrong, and says it
        return 1
    return 0


if __name__ == "__main__":
    sys.exit(main())
