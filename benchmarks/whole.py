"""Starting and repacking, beside plain lower limits."""

from __future__ import annotations

import os
import shutil
import subprocess
import sys
import tempfile
from pathlib import Path

import numpy as np

from benchmarks.measure import seconds, table
from furnel.containers import Changes, find_layout, open_container, write_archive

_EMPTY = "from PyQt6.QtWidgets import *; a=QApplication([]); w=QWidget(); w.resize(1280,800); w.show(); a.processEvents()"
_OURS = """
from furnel.desktop.application import *
a = make_application(); w = make_window(); w.show(); a.processEvents(); w.close()
"""
_FIRST = """
from furnel.desktop.application import make_application
from furnel.desktop.look import Look
from furnel.desktop.opening import Opening
from furnel.desktop.recent import Recent
a = make_application(); w = Opening(Look(), Recent(game_name="A game"), lambda: None); w._begun = True
w.show(); a.processEvents()
"""
_LIST = "from furnel.cli import main; main(['--help'])"


def main() -> None:
    empty = _started(_EMPTY)
    rows = [
        ("start to the first paint", "an empty PyQt6 window", _started(_FIRST) / empty),
        ("start to a window that works", "an empty PyQt6 window", _started(_OURS) / empty),
        ("furnel --help", "a bare interpreter", _started(_LIST) / _started("pass")),
    ]
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        rows += _archives(folder)
    table("The rest: times the peer's time", ("what", "peer", "times"), rows)


def _started(code: str) -> float:
    environment = {**os.environ, "QT_QPA_PLATFORM": "offscreen"}
    return seconds(
        lambda: subprocess.run(
            [sys.executable, "-c", code], env=environment, check=True, capture_output=True
        ),
        5,
    )


def _archives(folder: Path) -> list[tuple[str, str, float]]:
    rng = np.random.default_rng(1)
    contents = {f"art/{n:03}.dds": rng.bytes(1 << 20) for n in range(256)}
    write_archive(folder / "big.tlc", contents, find_layout("tlc"))
    copy = seconds(lambda: shutil.copyfile(folder / "big.tlc", folder / "copy.tlc"), 3)
    container = open_container(folder / "big.tlc")
    same = seconds(lambda: container.rewrite(folder / "same.tlc", Changes()), 3)
    one = seconds(lambda: container.rewrite(folder / "one.tlc", Changes({"art/100.dds": bytes(999)})), 3)
    container.close()
    return [
        ("unchanged repack of 256 MiB", "shutil.copyfile", same / copy),
        ("one changed entry", "shutil.copyfile", one / copy),
    ]
