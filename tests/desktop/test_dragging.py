"""Assets dragged from the wall: to the queue, to Fit and to a bench; what rests on a station opens it."""

from __future__ import annotations

import io
import shutil
from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QMimeData, QPointF, Qt
from PyQt6.QtGui import QDrag, QDragEnterEvent, QDragMoveEvent
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication

from furnel.desktop.anywhere import purpose
from furnel.desktop.widgets.dropping import assets_in, dragged

HULL, WALK, SLATE, GRANITE = (
    "art/hulls/hull_otter.dds",
    "cast/otter_walk.png",
    "art/rock/slate.dds",
    "art/rock/granite.dds",
)


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def test_what_is_chosen_is_carried_and_a_click_alone_carries_nothing(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    carried: list[list[str]] = []
    monkeypatch.setattr(QDrag, "exec", lambda drag, *_: carried.append(assets_in(drag.mimeData())))
    hands.open(mod)
    hands.find("rock", SLATE)
    wall = hands.window.find_station.wall
    surface = wall.surface
    there, here = (wall.tile_rect(path).center() for path in (GRANITE, SLATE))
    QTest.mouseClick(surface, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier, there.toPoint())
    hands.drag(surface, here, here + QPointF(40, 9))
    assert [sorted(paths) for paths in carried] == [[GRANITE, SLATE]]
    assert len(wall.chosen()) == 2, "they stay marked"
    hands.click(surface, here.toPoint())
    assert [asset.path for asset in wall.chosen()] == [SLATE] and len(carried) == 1
    hands.drag(surface, there, there + QPointF(30, 0))
    assert carried[1:] == [[GRANITE]]


def test_on_the_queue_it_begins_as_the_games_own(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    hands.station(2)
    hands.drop_data(dragged([SLATE, WALK, GRANITE]), window.fit_station.queue)
    hands.until(lambda: session.swap(GRANITE) is not None, "the swaps")
    hands.settle()
    assert "otter_walk.png: it is swapped already" in window.messages[-1].text
    assert window.fit_station.current == SLATE
    for path in (SLATE, GRANITE):
        swap = session.swap(path)
        assert swap is not None and swap.source == f"sources/from the game/{path.removesuffix('.dds')}.png"
        picture = np.array(Image.open(mod.parent / swap.source).convert("RGBA"))
        shipped = np.array(Image.open(io.BytesIO(session.catalogue.bytes_of(path))).convert("RGBA"))
        assert np.abs(picture.astype(int) - shipped).max() <= 1  # another decoder of the same blocks
        assert session.examined[path].state == "fits" and swap.credit == "Tarnlight Ferry, the game's own"
    hands.key("Ctrl+Z", window)
    hands.settle()
    assert session.swap(SLATE) is None and session.swap(GRANITE) is None


def test_on_a_bench_it_is_another_source_for_the_same_steps(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    hands.station(2)
    hands.window.fit_station.pick(HULL)
    session.swaps.fit_all([HULL])
    hands.settle()
    before = session.swap(HULL)
    hands.drop_data(dragged([SLATE]), hands.window.fit_station.benches)
    hands.until(lambda: session.swap(HULL).source.endswith("slate.png"), "another source")
    assert session.swap(HULL).steps == before.steps
    hands.settle()


def test_a_definition_and_what_others_drag_are_refused(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window = hands.window
    hands.station(2)
    hands.drop_data(dragged(["rules/boats.toml"]), window.fit_station.queue)
    hands.until(lambda: "neither a picture nor a sound" in window.messages[-1].text, "the refusal")
    foreign = QMimeData()
    foreign.setData("application/x-furnel-assets", b"{ no")
    before = window.session.project
    hands.drop_data(foreign, window.fit_station.queue)
    hands.settle()
    assert window.session.project == before


def test_what_rests_on_a_station_opens_it_and_fit_takes_it(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window, data = hands.window, dragged([SLATE])
    strip = window.strip
    over = {
        name: QPointF(strip.width() * (0.12 + 0.25 * place), 20)
        for place, name in enumerate(("find", "fit", "build"))
    }

    def send(kind: type[QDragMoveEvent], name: str) -> None:
        copied, left, held = (
            Qt.DropAction.CopyAction,
            Qt.MouseButton.LeftButton,
            Qt.KeyboardModifier.NoModifier,
        )
        QApplication.sendEvent(strip, kind(over[name].toPoint(), copied, data, left, held))

    def rest(name: str, rested_ms: int) -> None:
        send(QDragMoveEvent, name)
        QTest.qWait(rested_ms)  # type: ignore[arg-type]

    send(QDragEnterEvent, "find")
    rest("build", 50)
    assert window.stations.shown == "find"
    rest("build", 600)
    assert window.stations.shown == "build"
    hands.drop_data(data, strip, over["fit"])
    hands.until(
        lambda: window.fit_station.current == SLATE and window.stations.shown == "fit", "it is on the bench"
    )
    hands.settle()


def test_a_folder_of_a_game_dropped_anywhere_is_opened(
    hands: Hands, game: Path, mod: Path, tmp_path: Path
) -> None:
    window = hands.window
    strange = tmp_path / "reeds"
    strange.mkdir()
    (strange / "a.txt").write_text("reed\n")
    assert purpose(window, [game]) == "Opens Tarnlight Ferry" and "mod" in purpose(window, [mod])
    assert purpose(window, [strange]) == "Looks at reeds as a new game"
    hands.drop(game, window)
    hands.until(lambda: window.session.catalogue is not None, "the game to open")
    hands.drop(strange, window)
    hands.until(lambda: window.pages.new_game_page.start.isEnabled(), "the survey")
    assert window.stations.currentWidget() is window.pages.new_game_page
    other = tmp_path / "other"
    shutil.copytree(game, other)
    hands.key("Esc", window.pages.new_game_page)
    hands.settle()
    hands.drop(other, window.find_station.wall.viewport(), QPointF(5, 5))
    hands.until(lambda: window.session.catalogue.install.folder == other.resolve(), "the other game to open")
    hands.settle()
