"""A hundred thousand assets: scanning, reopening, sifting, scrolling, likeness and memory, beside plain struct code."""

from __future__ import annotations

import os
import shutil
import statistics
import struct
import subprocess
import sys
import tempfile
import time
import zlib
from pathlib import Path

from benchmarks.measure import seconds, table
from furnel.catalogue import Catalogue, Grouper, Sieve, count_facets, like_picture, mark_all, preview
from furnel.games import Install

SCALE = 770


def main() -> None:
    with tempfile.TemporaryDirectory() as scratch:
        folder = Path(scratch)
        code = "import sys, pathlib; from tarnlight.forge import forge; forge(pathlib.Path(sys.argv[1]), 1, int(sys.argv[2]))"
        subprocess.run([sys.executable, "-c", code, str(folder / "game"), str(SCALE)], check=True)
        _catalogue(folder)
        for _ in range(2):  # the second time the game is known, as it is every day
            subprocess.run(
                [sys.executable, "-m", "benchmarks.scale", str(folder)], check=True, stdout=sys.stdout
            )


def _plain(data: Path) -> int:
    """The same indexes and headers, read with nothing but struct and zlib."""
    total = 0
    for name in ("art.tlp", "hud.tlp", "more.tlp"):
        raw = (data / name).read_bytes()
        count, at = struct.unpack_from("<II", raw, 8)
        for n in range(count):
            path, offset, stored, size, _ = struct.unpack_from("<48sIIII", raw, at + 64 * n)
            head = zlib.decompressobj().decompress(raw[offset : offset + stored], 128)
            height, width, levels = (
                *struct.unpack_from("<II", head, 12),
                struct.unpack_from("<I", head, 28)[0],
            )
            total += size + len(path.rstrip(b"\0").decode()) + height + width + levels
    for name in ("cast.tlc", "more.tlc"):
        raw = (data / name).read_bytes()
        at, stored, _, count, _ = struct.unpack_from("<IIII4s", raw, len(raw) - 20)
        index = zlib.decompress(raw[at : at + stored])
        for n in range(count):
            start, offset, size = struct.unpack_from("<III", index, 12 * n)
            path = index[12 * count + start : index.index(b"\0", 12 * count + start)].decode()
            total += len(path) + size + sum(struct.unpack_from(">II", raw, offset + 16))
    for name in ("bank0", "bank1"):
        raw, index = (data / f"{name}.tls").read_bytes(), (data / f"{name}.tlx").read_bytes()
        count = struct.unpack_from(">I", index, 4)[0]
        for offset in struct.unpack_from(f">{count}I", index, 8):
            total += (
                struct.unpack_from("<I", raw, offset + 24)[0] + struct.unpack_from("<I", raw, offset + 40)[0]
            )
    return total


def _catalogue(folder: Path) -> None:
    """The catalogue by itself; it is kept where the window finds it."""
    os.environ["FURNEL_CACHE"] = str(folder / "cache")
    game, index = folder / "game", folder / "cache" / "catalogues"

    def scan() -> None:
        shutil.rmtree(index, ignore_errors=True)
        made = Catalogue(Install(game))
        made.refresh()
        made.close()

    def reopen() -> None:
        made = Catalogue(Install(game))
        made.refresh()
        made.close()

    first, plain = seconds(scan, 3), seconds(lambda: _plain(game / "data"), 3)
    again = seconds(reopen, 5)
    kept = Catalogue(Install(game))
    kept.refresh()
    shelf = kept.assets
    grouper = Grouper(shelf)
    grouper.groups(None, "folder", "largest")

    def keystroke() -> None:
        mask = Sieve(text="hull_o").mask(shelf)
        grouper.groups(mask, "folder", "largest")
        count_facets(shelf, mask)

    typed = seconds(keystroke, 9)
    started = time.perf_counter()
    marks = mark_all(kept)
    learned = time.perf_counter() - started
    wanted = preview(kept, kept.get("charts/adder_bay.dds")).picture
    assert wanted is not None
    like_picture(marks.pictures, wanted)
    alike = seconds(lambda: like_picture(marks.pictures, wanted), 7)
    kept.close()
    table(
        f"{len(shelf)} assets",
        ("what", "beside", "times"),
        [
            ("first scan", "plain struct code", first / plain),
            ("reopening", "the first scan", again / first),
            ("one keystroke, sifted and grouped", "the first scan", typed / first),
            ("a likeness query", "the first scan", alike / first),
            ("learning what everything looks like, once", "the first scan", learned / first),
        ],
    )


def _window(folder: Path) -> None:
    """A keystroke to a painted wall, frames while scrolling, and memory with the wall open."""
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    os.environ["FURNEL_STATE"] = str(folder / "state")
    os.environ["FURNEL_CACHE"] = str(folder / "cache")
    from demo.hands import Hands

    from furnel.desktop.application import make_application, make_window

    application = make_application()
    window = make_window()
    window.show()
    hands = Hands(window)
    window.session.open_game(folder / "game")
    hands.until(lambda: window.session.catalogue is not None, "the game")
    hands.settle()
    station = window.find_station
    keys = []
    for text in ("h", "hu", "hul", "hull", "hull_o", "7", ""):
        started = time.perf_counter()
        station.sieve.text.setText(text)
        station.sieve._typing.stop()
        station.sieve.changed.emit()
        station.wall.viewport().repaint()
        keys.append((time.perf_counter() - started) * 1000)
        hands.settle()
    bar, frames = station.wall.verticalScrollBar(), []
    for step in range(240):
        started = time.perf_counter()
        bar.setValue(step * 400)
        station.wall.viewport().repaint()
        frames.append((time.perf_counter() - started) * 1000)
        application.processEvents()
    status = dict(line.split(":", 1) for line in Path("/proc/self/status").read_text().splitlines())
    used = int(status["RssAnon"].split()[0]) / 1000
    table(
        "The window with all of them",
        ("what", "aim", "reached"),
        [
            ("a keystroke to a painted wall, worst of seven, ms", "50", max(keys)),
            (
                "a frame while scrolling, thumbnails arriving, 95 of 100 below, ms",
                "33",
                statistics.quantiles(frames, n=20)[-1],
            ),
            ("memory of the process, files that are mapped not counted, MB", "600", used),
        ],
    )
    window.close()


if __name__ == "__main__":
    _window(Path(sys.argv[1]))
