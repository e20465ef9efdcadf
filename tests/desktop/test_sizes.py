"""Every view at the sizes that people have: nothing is cut off, nothing lies outside."""

from __future__ import annotations

import json
import subprocess
import sys
from collections.abc import Iterator
from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtGui import QFont
from PyQt6.QtWidgets import QApplication

from furnel.texts import Change

from .fitting_in import cut_off, nameless

SIZES = {100: [(1280, 800), (1920, 1080)], 130: [(1024, 640)]}  # by the width of the letters in per cent


def views(hands: Hands, project: Path, game: Path, sources: Path) -> Iterator[str]:
    """Show one view after the other; their names."""
    window, session = hands.window, hands.window.session
    window.pages.open(window.pages.shelf_page, "find")
    yield "shelf, empty"
    hands.open(project)
    yield "find"
    window.find_station.wall.select("art/hulls/hull_otter.dds")
    yield "find, a hull"
    window.find_station.wall.select("bank0/003.wav")
    yield "find, a bell"
    window.run_command("new-thing")
    yield "new thing"
    window.run_command("tunes")
    yield "tunes"
    window.pages.work_out(game / "data" / "art.tlp")
    yield "archive"
    window.pages.match_files([sources])
    hands.until(lambda: window.pages.match_sheet.rows.matches, "the pairs")
    yield "match"
    session.swaps.change_values("rules/boats.toml", [Change(do="set", at="otter/speed", to=3.84)], "Faster")
    hands.settle()
    kinds = {Path(swap.original).suffix: swap.original for swap in session.project.made}  # a bench each
    for swap in kinds.values():
        hands.station(2)
        window.fit_station.pick(swap)
        yield f"fit, {swap}"
    hands.station(3)
    yield "build"
    hands.station(4)
    hands.until(lambda: window.try_station.report is not None, "the report")
    yield "try"
    window.run_command("meetings")
    yield "meetings"
    window.run_command("share")
    yield "share"
    window.pages.describe_game(game / "data")
    hands.settle()
    yield "new game"
    for name in ("settings", "past", "said", "keys", "quick"):
        window.run_command(name)
        yield name
    hands.key("Esc")
    window.pages.open(window.pages.shelf_page, "find")
    yield "shelf"


@pytest.fixture(params=[100, 130])
def wide_letters(request: pytest.FixtureRequest, application: QApplication) -> Iterator[int]:
    """Letters as they are, and so wide that all words are as long as another language's."""
    before, wide = QApplication.font(), QFont(QApplication.font())
    wide.setStretch(request.param)
    QApplication.setFont(wide)
    yield request.param
    QApplication.setFont(before)


def test_nothing_is_cut_off(wide_letters: int, hands: Hands, mod: Path, game: Path, sources: Path) -> None:
    faults = []
    for view in views(hands, mod, game, sources):
        hands.settle()
        faults += [f"{view}: {part} has no name" for part in nameless(hands.window)]
        for wide, high in SIZES[wide_letters]:
            hands.window.resize(wide, high)
            hands.settle()
            if (hands.window.width(), hands.window.height()) != (wide, high):
                faults.append(f"{view} does not fit {wide} × {high}: {hands.window.minimumSizeHint()}")
            faults += [f"{view} at {wide} × {high}: {fault}" for fault in cut_off(hands.window)]
    assert not faults, "\n".join(faults)


def test_between_screens_of_different_scale_it_stays_sharp_and_whole(mod: Path, tmp_path: Path) -> None:
    found = subprocess.run(
        [sys.executable, "-m", "tests.desktop.two_screens", str(mod), str(tmp_path)], capture_output=True, text=True,
        timeout=120, cwd=Path(__file__).parents[2],
    )  # fmt: skip
    assert found.returncode == 0, found.stderr[-2000:]
    views = json.loads(found.stdout.splitlines()[-1])
    assert [view["screen"] for view in views] == [
        name for name in ("left", "right", "left") for _ in range(2)
    ]
    for view in views:
        assert view["size"] == [1280, 800] and not view["cut"]
        assert view["pixels"] == (1920 if view["screen"] == "right" else 1280)
    for once, larger in ((views[0], views[2]), (views[1], views[3])):
        one, other = (
            Image.open(tmp_path / view["picture"])
            .convert("L")
            .crop((0, 0, 1280 * times // 2, 90 * times // 2))
            for view, times in ((once, 2), (larger, 3))
        )
        blown_up = one.resize(other.size, Image.Resampling.BICUBIC)
        edges = [
            np.abs(np.diff(np.asarray(picture, float), axis=1)).max(axis=1).mean()
            for picture in (blown_up, other)
        ]
        assert edges[1] > edges[0], "drawn anew, not blown up"
    again = [np.asarray(Image.open(tmp_path / view["picture"])) for view in (views[0], views[4])]
    assert (again[0][:90] == again[1][:90]).all(), "and back again as it was"
