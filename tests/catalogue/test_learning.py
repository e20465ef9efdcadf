"""Learning in a process of its own: the same marks, stopped when asked, gone with the one who asked, resumed."""

from __future__ import annotations

import os
import signal
import subprocess
import sys
import time
from pathlib import Path

import numpy as np
import pytest

from furnel.catalogue import Catalogue, mark_all, mark_apart
from furnel.errors import Cancelled
from furnel.games import Install


def learners(file: Path) -> list[int]:
    """The processes that learn into this catalogue."""
    found = []
    for entry in Path("/proc").iterdir():
        try:
            words = (entry / "cmdline").read_bytes().split(b"\0")
        except OSError:
            continue
        if b"furnel.catalogue.learning" in words and str(file).encode() in words:
            found.append(int(entry.name))
    return found


class Watched:
    """A progress that is cancelled from a fraction on."""

    def __init__(self, until: float = 2.0) -> None:
        self.until, self.told = until, [0.0]

    def report(self, fraction: float, text: str) -> None:
        self.told.append(fraction)

    def cancelled(self) -> bool:
        return self.told[-1] >= self.until


def test_it_is_stopped_and_resumed_and_finds_the_same(forged: Path, tmp_path: Path) -> None:
    apart, here = (Catalogue(Install(forged), tmp_path / f"{name}.sqlite") for name in ("apart", "here"))
    for catalogue in (apart, here):
        catalogue.refresh()
    with pytest.raises(Cancelled):
        mark_apart(apart, Watched(0.6))
    assert not learners(apart.file)
    kept = [archive for archive in apart.install.archives if apart.kept_marks(archive, 0) is not None]
    assert 0 < len(kept) < len(apart.install.archives)
    found, wanted = mark_apart(apart, Watched()), mark_all(here)
    assert np.array_equal(found.digests, wanted.digests) and np.array_equal(
        found.sounds.marks, wanted.sounds.marks
    )
    assert np.array_equal(found.kin.groups, wanted.kin.groups)
    for name in ("rows", "wholes", "signs", "spots", "counts"):  # a query ranks as it did the first time
        assert np.array_equal(getattr(found.pictures, name), getattr(wanted.pictures, name)), name
    for catalogue in (apart, here):
        catalogue.close()


def test_it_ends_with_the_one_who_asked(forged: Path, tmp_path: Path) -> None:
    file = tmp_path / "index.sqlite"
    code = f"""
from pathlib import Path
from furnel.catalogue import Catalogue, mark_apart
from furnel.games import Install
catalogue = Catalogue(Install(Path({str(forged)!r})), Path({str(file)!r}))
catalogue.refresh()
mark_apart(catalogue)
"""
    with subprocess.Popen([sys.executable, "-c", code]) as asking:
        for _ in range(600):
            if learners(file) or asking.poll() is not None:
                break
            time.sleep(0.02)
        assert learners(file), "nothing was started"
        os.kill(asking.pid, signal.SIGKILL)
        asking.wait()
    for _ in range(500):
        if not learners(file):
            return
        time.sleep(0.02)
    raise AssertionError("it goes on for nobody")
