"""Wherever Tab goes, something on the screen says so."""

from __future__ import annotations

from pathlib import Path

import pytest
from demo.hands import Hands
from PyQt6.QtCore import QPoint, QRect
from PyQt6.QtWidgets import QApplication

WALK = "cast/otter_walk.png"
PLACES = {
    "find": ("", WALK), "picture": ("fit", "art/hulls/hull_otter.dds"), "sheet": ("fit", WALK),
    "sound": ("fit", "bank0/000.wav"), "text": ("fit", "rules/playlist.json"), "build": ("build", ""), "try": ("try", ""),
}  # fmt: skip


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def _unseen(hands: Hands, steps: int) -> list[str]:
    """The parts that Tab comes to and that look as they did without it."""
    window, unseen, known = hands.window, [], set[int]()
    window.activateWindow()
    window.setFocus()
    for _ in range(steps):
        hands.key("Tab")
        now = QApplication.focusWidget()
        if now is None or id(now) in known:
            continue
        known.add(id(now))
        box = QRect(now.mapTo(window, QPoint(0, 0)), now.size()).adjusted(-2, -2, 2, 2) & window.rect()
        with_it = window.grab(box).toImage()
        now.clearFocus()
        QApplication.processEvents()
        if window.grab(box).toImage() == with_it:
            unseen.append(f"{type(now).__name__} {now.accessibleName() or now.objectName()}")
        now.setFocus()
    return unseen


@pytest.mark.parametrize("place", PLACES)
def test_wherever_tab_goes_it_is_seen(place: str, hands: Hands, mod: Path) -> None:
    hands.open(mod)
    station, original = PLACES[place]
    if station:
        hands.window.go(station)
    if station == "fit":
        hands.window.fit_station.pick(original)
    elif original:
        hands.window.find_station.wall.select(original)
    if place == "try":
        hands.until(lambda: hands.window.try_station.report is not None, "the report")
    hands.settle()
    assert not _unseen(hands, 70)


def test_the_ring_goes_when_the_mouse_comes(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    hands.window.fit_station.pick("art/hulls/hull_otter.dds")
    hands.settle()
    ring, view = hands.window.ring, hands.window.fit_station.benches.of("texture").view
    view.setFocus()
    assert not ring.isVisible(), "nobody pressed Tab"
    hands.key("Tab")
    hands.key("Shift+Tab")
    assert QApplication.focusWidget() is view and ring.isVisible()
    assert ring.geometry() == QRect(view.mapTo(hands.window, QPoint(0, 0)), view.size())
    hands.click(view)
    assert not ring.isVisible()
