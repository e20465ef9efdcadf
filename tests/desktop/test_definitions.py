"""The definition bench, worked by mouse and keys."""

from __future__ import annotations

import tomllib
from pathlib import Path
from typing import Any

import pytest
from demo.hands import Hands
from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QInputDialog, QLineEdit, QPushButton, QWidget

from furnel.desktop.find.chooser import AssetChooser
from furnel.desktop.fit import several
from furnel.mods.project import load_project

BOATS = "rules/boats.toml"


@pytest.fixture
def bench(hands: Hands, mod: Path) -> Any:
    """The boats on the bench, opened from the wall."""
    hands.open(mod)
    hands.find("boats", BOATS)
    hands.key("Return", hands.window.find_station.wall)
    hands.settle()
    assert hands.window.stations.shown == "fit" and hands.window.fit_station.current == BOATS
    return hands.window.fit_station.benches.of("definition")


def part(bench: QWidget, kind: type, name: str) -> Any:
    """The part of a kind with this accessible name that is seen."""
    found: list[Any] = bench.findChildren(kind)
    return next(one for one in found if one.accessibleName() == name and one.isVisible())


def value(hands: Hands, address: str) -> Any:
    space = hands.window.session.space
    assert space is not None
    from furnel.mods.definitions import definition
    from furnel.texts import parse_address

    return definition(space, BOATS)[1].look(parse_address(address))


def test_a_boat_is_made_faster_refused_at_the_cliff_and_taken_back(
    hands: Hands, bench: Any, mod: Path
) -> None:
    session = hands.window.session
    assert session.project is not None and BOATS not in {swap.original for swap in session.project.made}
    for text, state in (("3.84", "fits"), ("6", "breaks")):
        field = part(bench, QLineEdit, "speed")
        field.selectAll()
        hands.type(text, field)
        hands.key("Return", field)
        hands.settle()
        assert session.examined[BOATS].state == state
    point = next(point for point in session.examined[BOATS].points if point.key == "rules")
    assert "hull planes" in point.why and "otter/speed: 6.0 is not below 6" in point.yours
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert value(hands, "otter/speed") == 3.84 and session.examined[BOATS].state == "fits"
    assert [
        change.said()
        for change in load_project(mod / "furnel.toml" if mod.is_dir() else mod).swap_for(BOATS).changes
    ] == [  # type: ignore[union-attr]
        "otter/speed: 3.2 → 3.84"
    ]
    hands.click(part(bench, QPushButton, "3.2"))
    hands.settle()
    assert value(hands, "otter/speed") == 3.2 and session.examined[BOATS].swap.is_untouched


def test_a_number_that_is_none_is_put_back(hands: Hands, bench: Any) -> None:
    field = part(bench, QLineEdit, "speed")
    field.setText("fast")
    hands.key("Return", field)
    hands.settle()
    assert field.text() == "3.2" and value(hands, "otter/speed") == 3.2
    hands.key("Up", field)
    hands.key("Return", field)
    hands.settle()
    assert value(hands, "otter/speed") == 3.3


def test_sorted_sifted_and_several_changed_at_once(
    hands: Hands, bench: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    bench.table.sortByColumn(5, Qt.SortOrder.DescendingOrder)
    assert bench.table.records.names == ["heron", "otter", "herring", "skiff"]
    bench.search.setText("herr")
    hands.until(lambda: bench.table.records.names == ["herring"], "the sifting")
    bench.search.clear()
    hands.until(lambda: len(bench.table.records.names) == 4, "the sifting")
    bench.table.selectAll()

    def accept(dialog: QDialog) -> int:
        dialog.by.setText("0.5")  # type: ignore[attr-defined]
        dialog.what.setCurrentIndex(dialog.what.findText("speed"))  # type: ignore[attr-defined]
        return 1

    monkeypatch.setattr(several._Reckon, "exec", accept)
    hands.click(part(bench, QPushButton, "Change several…"))
    hands.settle()
    assert [value(hands, f"{name}/speed") for name in ("otter", "heron", "skiff", "herring")] == [
        1.6,
        1.95,
        1.2,
        1.45,
    ]
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert value(hands, "heron/speed") == 3.9


def test_a_record_like_another_with_an_asset_from_the_wall(
    hands: Hands, bench: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    bench.table.pick("skiff")
    monkeypatch.setattr(QInputDialog, "getText", lambda *_, **__: ("raft", True))
    hands.click(part(bench, QPushButton, "New like this…"))
    hands.until(lambda: bench.table.current == "raft", "the new record")
    hands.settle()
    assert value(hands, "raft") == value(hands, "skiff")

    def choose(dialog: AssetChooser) -> int:
        assert dialog.wall.shown == 5  # hulls alone
        dialog.wall.select("art/hulls/hull_wreck.dds")
        return 1

    monkeypatch.setattr(AssetChooser, "exec", choose)
    hands.click(
        next(one for one in bench.findChildren(QPushButton) if one.text() == "Choose…" and one.isVisible())
    )
    hands.settle()
    assert value(hands, "raft/hull") == "art/hulls/hull_wreck.dds"
    monkeypatch.setattr(QInputDialog, "getItem", lambda *_, **__: ("heron", True))
    hands.click(part(bench, QPushButton, "Copy values from…"))
    hands.settle()
    assert value(hands, "raft") == value(hands, "heron")
    hands.click(part(bench, QPushButton, "Take the game's"))
    hands.settle()
    assert "raft" not in value(hands, "")


def test_the_text_is_edited_and_what_cannot_be_read_is_kept(hands: Hands, bench: Any) -> None:
    hands.key("Ctrl+Shift+T", hands.window)
    yours = bench.texts.yours
    yours.setPlainText(yours.toPlainText().replace("speed = 3.9", "speed = 3.5").replace('"Heron"', '"Reed"'))
    hands.click(bench.view)  # leaving it takes it
    hands.settle()
    assert (value(hands, "heron/speed"), value(hands, "heron/name")) == (3.5, "Reed")
    hands.click(bench.view)
    broken = yours.toPlainText().replace("[skiff]", "[skiff")
    yours.setPlainText(broken)
    hands.click(bench.view)
    hands.settle()
    assert "line 16" in hands.window.messages[-1].text and value(hands, "heron/speed") == 3.5
    hands.window.fit_station.pick("bank0/000.wav")
    hands.settle()
    hands.window.fit_station.pick(BOATS)
    hands.settle()
    assert yours.toPlainText() == broken and yours.isVisible()
    tomllib.loads(bench.texts.game.toPlainText())
