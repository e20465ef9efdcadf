"""Side panes and the window keep the size that they were given, also when nobody closes them."""

from __future__ import annotations

import subprocess
import sys
import threading
from collections.abc import Iterator
from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6 import sip
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLabel, QWidget

from furnel.desktop.application import make_window
from furnel.desktop.keeping import keep, kept_numbers, kept_texts
from furnel.desktop.look import Look
from furnel.desktop.opening import Opening
from furnel.desktop.recent import Recent
from furnel.desktop.widgets.panes import SidePane
from furnel.remembered import recall, remember

HULL, WALK, BELL = "art/hulls/hull_otter.dds", "cast/otter_walk.png", "bank0/000.wav"
LEFT = Qt.MouseButton.LeftButton


@pytest.fixture(autouse=True)
def own_state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Iterator[None]:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    yield
    for pane in _made:
        sip.delete(pane)
    _made.clear()


_made: list[SidePane] = []


def _pane(application: QApplication, side: str = "left") -> SidePane:
    pane = SidePane(Look(), "shelf", "The shelf", QLabel("inside"), side, 200)
    pane.resize(pane.width(), 300)
    pane.show()
    _made.append(pane)
    return pane


def _drag(pane: SidePane, by: int) -> None:
    grip, at = pane.grip, QPoint(2, 80)
    QTest.mousePress(grip, LEFT, pos=at)
    QTest.mouseMove(grip, at + QPoint(by, 0))
    QTest.mouseRelease(grip, LEFT, pos=at + QPoint(by, 0))


def _written(name: str) -> object:
    for _ in range(200):
        QTest.qWait(10)  # type: ignore[arg-type]  # the stub takes it for a method
        known = recall("panes")
        if isinstance(known, dict) and name in known:
            return known[name]
    return None


@pytest.mark.parametrize(("side", "by"), [("left", 60), ("right", -60)])
def test_an_edge_is_dragged_outwards_and_kept(application: QApplication, side: str, by: int) -> None:
    pane = _pane(application, side)
    before = pane.width()
    _drag(pane, by)
    assert pane.width() == before + 60
    assert _written("shelf") == [260, 0]
    assert _pane(application, side).width() == pane.width(), "the next one begins as wide"


def test_nothing_is_dragged_out_of_sight(application: QApplication) -> None:
    pane = _pane(application)
    _drag(pane, -190)
    assert pane.width() >= 150
    _drag(pane, 5000)
    assert pane.width() <= 500


def test_a_pane_folds_and_comes_back(application: QApplication) -> None:
    pane = _pane(application)
    before = pane.width()
    QTest.mouseDClick(pane.grip, LEFT)
    assert pane.folded and pane.width() < 20
    assert pane.grip.accessibleName() == "The shelf, folded away"
    assert _written("shelf") == [200, 1]
    QTest.mouseClick(pane.grip, LEFT)
    assert (pane.folded, pane.width()) == (False, before)
    QTest.keyClick(pane.grip, Qt.Key.Key_Right)
    assert pane.width() > before


@pytest.mark.parametrize("told", [[1], ["a", 0], {"a": 1}, [10**9, 7], None])
def test_what_was_kept_badly_does_no_harm(application: QApplication, told: object) -> None:
    remember("panes", {"shelf": told})
    assert 150 <= _pane(application).width() <= 500 or _pane(application).folded


def test_one_key_makes_room_and_search_brings_the_sieve_back(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window = hands.window
    hands.station(1)
    wall = window.find_station.wall
    before = wall.width()
    hands.key("F8", window)
    hands.settle()
    assert wall.width() > before + 300
    hands.key("Ctrl+F", window)
    assert window.find_station.sieve.text.isVisible() and window.find_station.sieve.text.hasFocus()
    hands.key("F8", window)
    hands.key("F8", window)
    hands.settle()
    assert wall.width() == before


def test_the_window_comes_back_as_large_as_it_was(application: QApplication) -> None:
    def opened() -> Opening:
        made = Opening(Look(), Recent(), QWidget)
        made.show()
        return made

    first = opened()
    first.resize(777, 666)
    for _ in range(200):
        QTest.qWait(10)  # type: ignore[arg-type]  # the stub takes it for a method
        if recall("window"):
            break
    again = opened()  # the first one was never closed
    assert (again.width(), again.height()) == (777, 666)
    for window in (first, again):
        window.close()
        window.deleteLater()


def test_zooms_trays_and_switches_are_as_they_were_left_also_after_a_kill(
    application: QApplication, hands: Hands, mod: Path
) -> None:
    def seen(hands: Hands) -> tuple[object, ...]:
        fit = hands.window.fit_station
        out: list[object] = []
        for original in (HULL, WALK, BELL):
            fit.pick(original)
            hands.settle()
            out.append(tuple(fit.benches.shown.looking()))
        picture = fit.benches.of("texture")
        out.append(picture.trays.checkedButton().text())
        return tuple(out)

    hands.open(mod)
    hands.station(2)
    assert seen(hands)[:3] == ((), (), ())
    fit = hands.window.fit_station
    fit.pick(HULL)
    hands.settle()
    picture = fit.benches.of("texture")
    for _ in range(3):
        hands.key("+", picture.view)
    hands.drag(picture.view, QPointF(60, 60), QPointF(90, 75))
    hands.click(next(part for part in picture.trays.buttons() if part.text() == "Tones"))
    fit.pick(WALK)
    hands.settle()
    hands.key("+", fit.benches.of("sheet").cells)
    fit.pick(BELL)
    hands.settle()
    hands.key("+", fit.benches.of("sound").lanes)
    left = seen(hands)
    assert all(left[:3]) and left[3] == "Tones"
    hands.until(lambda: len(recall("views") or {}) == 3, "all of it is kept")
    again = make_window()  # nothing was closed: as after a kill
    again.show()
    other = Hands(again)
    other.open(mod)
    other.station(2)
    assert seen(other) == left
    again.close()
    sys.excepthook = sys.__excepthook__
    again.deleteLater()


def test_colours_that_were_used_are_offered_again_after_a_restart(application: QApplication) -> None:
    here = (
        "from furnel.desktop.widgets.colours import remember, used_before; import sys;"
        "[remember(tuple(bytes.fromhex(one))) for one in sys.argv[1:]]; print([bytes(one).hex() for one in used_before()])"
    )

    def told(*colours: str) -> str:
        run = subprocess.run(
            [sys.executable, "-c", here, *colours], capture_output=True, text=True, check=True
        )
        return run.stdout.strip()

    assert told() == "[]"
    told("c03020", "20a0b0", "c03020")
    assert told() == "['c03020', '20a0b0']"
    remember("panes", {"colours": ["zz", "c03020", "1", 7]})
    assert told() == "[]", "what is no list of texts is none"


def test_of_many_things_that_are_kept_at_once_the_last_stays() -> None:
    for number in range(60):
        keep("shelf", [number, 1])
        keep("tray", [f"tray {number}"])
    for thread in threading.enumerate():
        if thread.name == "furnel-panes":
            thread.join(10)
    assert kept_numbers("shelf") == [59, 1] and kept_texts("tray") == ["tray 59"]
