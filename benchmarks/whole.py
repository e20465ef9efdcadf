"""Starting, scanning, repacking: beside plain lower limits."""

from __future__ import annotations

import os
import shutil
import struct
import subprocess
import sys
import tempfile
import zlib
from pathlib import Path

import numpy as np

from benchmarks.measure import seconds, table
from furnel.catalogue import Catalogue, Sieve
from furnel.containers import Changes, find_layout, open_container, write_archive
from furnel.games import Install
from tarnlight.forge import forge

_EMPTY = "from PyQt6.QtWidgets import *; a=QApplication([]); w=QWidget(); w.resize(1280,800); w.show(); a.processEvents()"
_OURS = """
from furnel.desktop.application import *
a = make_application(); w = make_window(); w.show(); a.processEvents(); w.close()
"""


def main() -> None:
    rows = [("start to a window", "an empty PyQt6 window", _started(_OURS) / _started(_EMPTY))]
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        rows += _archives(folder)
        rows += _catalogue(folder)
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


def _catalogue(folder: Path) -> list[tuple[str, str, float]]:
    game = folder / "game"
    forge(game)
    count = 20_000
    small = struct.pack("<4s7I44x", b"DDS ", 124, 0x1007, 64, 64, 0, 0, 0)
    small += struct.pack("<2I4s5I5I", 32, 4, b"DXT1", 0, 0, 0, 0, 0, 0x1000, 0, 0, 0, 0) + bytes(2048)
    write_archive(
        game / "data" / "many.tlp",
        {f"art/{n % 50:02}/t{n}.dds": small for n in range(count)},
        find_layout("tlp"),
    )

    def plain() -> int:
        data = (game / "data" / "many.tlp").read_bytes()
        total = 0
        for n in range(count):
            name, offset, stored, size, _ = struct.unpack_from("<48sIIII", data, 16 + 64 * n)
            head = zlib.decompressobj().decompress(data[offset : offset + stored], 128)
            total += size + len(name.rstrip(b"\0")) + struct.unpack_from("<II", head, 12)[0]
        return total

    def scan() -> Catalogue:
        (folder / "x.sqlite").unlink(missing_ok=True)
        made = Catalogue(Install(game), folder / "x.sqlite")
        made.refresh()
        return made

    first, reading = seconds(scan, 3), seconds(plain, 3)
    kept = scan()
    again = seconds(lambda: Catalogue(Install(game), folder / "x.sqlite").refresh(), 3)
    sieve = seconds(lambda: [asset for asset in kept.assets if Sieve(text="t77").keeps(asset)], 3)
    kept.close()
    return [
        ("first scan of 20 000 assets", "plain struct code", first / reading),
        ("reopening them", "the first scan", again / first),
        ("one keystroke in the sieve", "reopening", sieve / again),
    ]
