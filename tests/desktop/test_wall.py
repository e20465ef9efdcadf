"""The wall: ranges dragged and typed, lines with columns, what was changed first, how alike things are."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest
from demo.hands import Hands
from hypothesis import given
from hypothesis import strategies as st
from PyQt6.QtCore import QPoint, QRectF, Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QLineEdit

from furnel.catalogue import Asset, Wanted
from furnel.desktop.find.amounts import read_amount, told_amount
from furnel.desktop.find.head import WallHead
from furnel.desktop.find.lines import LinesHead
from furnel.desktop.keeping import kept_texts


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def test_a_range_is_dragged_across_a_histogram(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    pixels = hands.window.find_station.sieve.pixels
    graph, every = pixels.graph, pixels.range()
    middle = graph.width() // 2
    QTest.mousePress(graph, Qt.MouseButton.LeftButton, pos=QPoint(middle, 20))
    QTest.mouseMove(graph, QPoint(middle + graph.width() // 4, 20))
    QTest.mouseRelease(graph, Qt.MouseButton.LeftButton, pos=QPoint(middle + graph.width() // 4, 20))
    kept = pixels.range()
    assert every is None and kept is not None and 1 < kept[0] < kept[1]
    hands.settle()
    wall = hands.window.find_station.wall
    wall.begin()
    first = wall.current()
    assert first is not None and kept[0] <= max(first.facts.width, first.facts.height) <= kept[1]
    least, most = pixels.findChildren(QLineEdit)
    for end, typed in ((least, "100 px"), (most, "192")):
        retype(hands, end, typed)
    hands.settle()
    assert pixels.range() == (100, 192)  # also between powers of two
    assert {max(one.facts.width, one.facts.height) for one in shown(hands)} <= set(range(100, 193))
    retype(hands, most, "many")
    assert pixels.range() == (100, 192) and most.text() == "192"
    retype(hands, least, "")
    retype(hands, most, "")
    assert pixels.range() is None


def retype(hands: Hands, end: QLineEdit, text: str) -> None:
    end.setFocus()
    QTest.keyClick(end, Qt.Key.Key_A, Qt.KeyboardModifier.ControlModifier)
    QTest.keyClick(end, Qt.Key.Key_Delete)
    hands.type(text, end)
    QTest.keyClick(end, Qt.Key.Key_Return)


def shown(hands: Hands, most: int = 24) -> list[Asset]:
    """What is first on the wall."""
    wall = hands.window.find_station.wall
    QTest.keyClick(wall, Qt.Key.Key_Home)
    out: list[Asset] = []
    while len(out) < most and (asset := wall.current()) is not None and asset not in out:
        out.append(asset)
        QTest.keyClick(wall, Qt.Key.Key_Right)
    return out


def test_the_wall_as_lines_is_ordered_by_its_columns_and_kept(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    station = hands.window.find_station
    head, wall = station.head, station.wall
    head.group.setCurrentIndex(head.group.findData("nothing"))
    hands.click(head.lines)
    columns = head.findChild(LinesHead)
    assert columns is not None and columns.isVisible()
    hands.click(columns, QPoint(columns.width() - 40, 10))  # the last column orders nothing
    assert head.ordered == "largest"
    places = [wall.tile_rect(asset.path) for asset in shown(hands, 9)]
    assert len({(place.left(), place.width()) for place in places}) == 1
    orders: list[tuple[int, Callable[[Asset], float]]] = [
        (
            1,
            lambda asset: asset.facts.width * asset.facts.height or 1 << 60,
        ),  # the largest were first already
        (2, lambda asset: -asset.facts.length_s),
        (3, lambda asset: -asset.size),
    ]
    for presses, key in orders:
        columns.setFocus()
        for _ in range(9):
            QTest.keyClick(columns, Qt.Key.Key_Left)
        for _ in range(presses):
            QTest.keyClick(columns, Qt.Key.Key_Right)
        QTest.keyClick(columns, Qt.Key.Key_Return)
        hands.settle()
        values = [key(asset) for asset in shown(hands)]
        assert values == sorted(values), presses
    head.order.setCurrentIndex(head.order.findData("changed"))
    hands.settle()
    project = hands.window.session.project
    assert project is not None
    latest = [swap.original for swap in reversed(project.made)]
    assert [asset.path for asset in shown(hands)[: len(latest)]] == latest
    hands.window.session.swaps.remove_swap(latest[0])
    hands.settle()
    assert shown(hands)[0].path == latest[1]
    hands.until(lambda: kept_texts("wall")[:3] == ["nothing", "changed", "lines"], "that it is kept")
    again = WallHead(hands.window.look)
    again.recall()
    assert (again.by, again.ordered, again.lines.isChecked()) == ("nothing", "changed", True)


def test_what_was_seen_stays_in_sight_at_another_size(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    wall, head = hands.window.find_station.wall, hands.window.find_station.head
    path = "art/rock/slate.dds"
    wall.select(path)
    wall.bar.setValue(wall.bar.maximum())
    seen = [one.path for one in wall_in_view(hands)]
    assert path not in seen
    for change in (
        lambda: wall.set_zoom(160),
        lambda: hands.click(head.lines),
        lambda: hands.click(head.lines),
    ):
        change()
        now = [one.path for one in wall_in_view(hands)]
        assert path not in now and set(now) & set(seen), "it does not jump to what is chosen elsewhere"
        seen = now
    wall.select(path)
    for height in (60, 200):
        wall.set_zoom(height)
        assert path in [one.path for one in wall_in_view(hands)]


def wall_in_view(hands: Hands) -> list[Asset]:
    """The assets whose tiles are seen."""
    wall, catalogue = hands.window.find_station.wall, hands.window.session.catalogue
    assert catalogue is not None
    room = QRectF(wall.surface.rect())
    return [asset for asset in catalogue.assets if room.intersects(wall.tile_rect(asset.path))]


def test_how_alike_things_are_is_told_beside_the_most_alike(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    station, session = hands.window.find_station, hands.window.session
    session.learned.learn()
    hands.until(lambda: session.learned.marks is not None, "the game is learned")
    wanted = Wanted("teal", colour=(40, 110, 110))
    assert session.learned.marks is not None and session.catalogue is not None
    ranking = wanted.rank(session.learned.marks)
    station.sieve.like.set(wanted)
    hands.until(lambda: station.wall.shown == len(ranking.rows), "the wall is ranked")
    QTest.keyClick(station.wall, Qt.Key.Key_Home)
    assert station.wall.accessibleDescription().endswith("the most alike")
    for _ in range(5):
        QTest.keyClick(station.wall, Qt.Key.Key_Right)
    told = station.wall.accessibleDescription().rpartition(", ")[2]
    assert told == f"{ranking.scores[5] / ranking.scores[0]:.0%} as alike as the first"
    station.sieve.like.set(None)
    hands.settle()
    assert "alike" not in station.wall.accessibleDescription()


@given(st.integers(0, 10**7), st.sampled_from(["px", "B", "ms"]))
def test_what_is_told_of_an_amount_is_understood_as_about_that(value: int, unit: str) -> None:
    told = read_amount(told_amount(value, unit), unit)  # type: ignore[arg-type]
    assert told is not None and abs(told - value) <= 0.051 * value + 5 * (unit == "ms")


def test_amounts_are_understood_as_people_type_them() -> None:
    typed = {
        ("px", "1 024"): 1024, ("px", "2k"): 2048, ("px", "-3"): None, ("px", "12 kB"): None, ("px", ""): None,
        ("B", "1.5 MB"): 1_500_000, ("B", "1,5mb"): 1_500_000, ("B", "4 KiB"): 4096, ("B", "300"): 300,
        ("ms", "0.25"): 250, ("ms", "250 ms"): 250, ("ms", "1:30"): 90_000, ("ms", "1:30 ms"): None, ("B", "1:30"): None,
        ("B", "9" * 400): None,
    }  # fmt: skip
    assert {key: read_amount(text, unit) for key in typed for unit, text in [key]} == typed  # type: ignore[arg-type]
