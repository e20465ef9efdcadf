"""Ten thousand loose files opened for the first time beside `os.walk` and `stat`, learned beside Pillow's decode."""

from __future__ import annotations

import os
import tempfile
import time
from pathlib import Path

import numpy as np
from PIL import Image

from benchmarks.measure import seconds
from furnel.catalogue import Catalogue, mark_all
from furnel.games import Install, keep_profile, profile_text, survey

FILES, PICTURES = 10_000, 1_000


def main() -> None:
    with tempfile.TemporaryDirectory() as scratch:
        os.environ["FURNEL_STATE"] = f"{scratch}/state"
        game = Path(scratch, "game")
        _make(game)
        began = time.process_time()
        _learn_few(Path(scratch))
        first = time.process_time() - began
        walked = seconds(lambda: _walk(game), 3)
        began = time.perf_counter()
        keep_profile(profile_text(survey(game), "Ten Thousand"))
        surveyed = time.perf_counter() - began
        began = time.perf_counter()
        catalogue = Catalogue(Install(game), Path(scratch, "index.sqlite"))
        catalogue.refresh()
        scanned = time.perf_counter() - began
        pictures = [asset.path for asset in catalogue.assets if asset.path.endswith(".png")]
        began, cpu = time.perf_counter(), time.process_time()
        mark_all(catalogue)
        learned, worked = time.perf_counter() - began, time.process_time() - cpu
        decoded = seconds(lambda: [Image.open(game / path).load() for path in pictures], 1)
        catalogue.close()
        again = seconds(lambda: _again(game, Path(scratch, "index.sqlite")), 3)
    ratio = f"{scanned / walked:.0f} × os.walk and stat, {walked:.2f} s"
    print(
        f"{FILES} loose files: surveyed {surveyed:.2f} s, listed {scanned:.2f} s ({ratio}), opened again {again:.2f} s"
    )
    print(
        f"{len(pictures)} pictures of 128 × 128 learned in {learned:.1f} s, {worked / len(pictures) * 1000:.1f} ms of CPU each"
        f" ({learned / decoded:.1f} × Pillow's decode of the same files, {decoded:.2f} s); the first ten, with all"
        f" that is loaded for it, took {first:.1f} s of CPU"
    )


def _learn_few(scratch: Path) -> None:
    game = scratch / "few"
    _make(game, 10)
    keep_profile(profile_text(survey(game), "Ten"))
    catalogue = Catalogue(Install(game), scratch / "few.sqlite")
    catalogue.refresh()
    mark_all(catalogue)
    catalogue.close()


def _make(game: Path, files: int = FILES) -> None:
    chance = np.random.default_rng(1)
    for number in range(files):
        file = game / f"part{number % 40}" / f"{game.name}thing{number}"
        file.parent.mkdir(parents=True, exist_ok=True)
        if number < PICTURES:
            small = chance.integers(0, 255, (16, 16, 3), np.uint8)
            Image.fromarray(np.kron(small, np.ones((8, 8, 1), np.uint8))).save(file.with_suffix(".png"))
        else:
            file.with_suffix(".reed").write_text(f"(thing {number})\n" * 20)


def _walk(game: Path) -> int:
    return sum(Path(at, name).stat().st_size for at, _, names in os.walk(game) for name in names)


def _again(game: Path, index: Path) -> None:
    catalogue = Catalogue(Install(game), index)
    catalogue.refresh()
    catalogue.close()
