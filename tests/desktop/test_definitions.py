"""The definition bench, worked by mouse and keys."""

from __future__ import annotations

import shutil
import tomllib
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QPoint, Qt
from PyQt6.QtWidgets import (
    QApplication,
    QComboBox,
    QDialog,
    QLabel,
    QLineEdit,
    QListWidget,
    QMenu,
    QPushButton,
    QWidget,
)

from furnel.desktop.find.chooser import AssetChooser
from furnel.desktop.fit import several
from furnel.desktop.fit.strip_field import StripField
from furnel.desktop.widgets import picking
from furnel.games import keep_profile, profile_text, profiles_folder, survey
from furnel.mods import additions
from furnel.mods.project import load_project
from furnel.mods.workspace import create_project
from furnel.texts import Change, taken_apart
from furnel.texts.strips import StripRule
from tests.desktop.menuing import menu_on

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
    return next(one for one in found if one.accessibleName() == name and one.isVisibleTo(bench))


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
        part(dialog, QComboBox, "Which value").setCurrentText("speed")
        part(dialog, QComboBox, "To what").setEditText("0.5")
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


def opened(hands: Hands, path: str) -> Any:
    hands.find(path, path)
    hands.key("Return", hands.window.find_station.wall)
    hands.settle()
    assert hands.window.fit_station.current == path
    return hands.window.fit_station.benches.of("definition")


def test_the_games_tunes_are_switched_off_and_own_ones_put_in_a_list(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    bench = opened(hands, "rules/tunes.json")
    bench.table.selectAll()

    def accept(dialog: QDialog) -> int:
        part(dialog, QComboBox, "Which value").setCurrentText("on")
        ways = part(dialog, QComboBox, "How")
        assert [ways.itemText(number) for number in range(ways.count())] == ["switch off", "switch on"]
        return 1

    monkeypatch.setattr(several._Reckon, "exec", accept)
    hands.click(part(bench, QPushButton, "Change several…"))
    hands.settle()
    assert {row["on"] for row in bench._book.now.plain().values()} == {False}
    bench = opened(hands, "rules/playlist.json")
    space = hands.window.session.space
    assert space is not None

    def quay() -> Any:
        return bench._book.now.plain()["quay"]

    names = [button for button in bench.findChildren(QPushButton) if button.accessibleName() == "Empty"]
    hands.click(names[0])
    hands.settle()
    assert quay() == []
    for name in ("lantern_waltz", "reel_night"):
        part(bench, QComboBox, "What to add").setCurrentText(name)
        hands.click(part(bench, QPushButton, "Add"))
        hands.settle()
    assert quay() == ["lantern_waltz", "reel_night"]
    rows = part(bench, QListWidget, "List")
    rows.setCurrentRow(1)
    hands.key("Alt+Up", rows)
    hands.settle()
    assert quay() == ["reel_night", "lantern_waltz"]
    for wanted in (["lantern_waltz", "reel_night"], ["lantern_waltz"], []):
        hands.key("Ctrl+Z", hands.window)
        hands.settle()
        assert quay() == wanted


def test_a_record_like_another_with_an_asset_from_the_wall(
    hands: Hands, bench: Any, monkeypatch: pytest.MonkeyPatch
) -> None:
    bench.table.pick("skiff")
    monkeypatch.setattr(picking, "ask_name", lambda *_: "raft")
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
    monkeypatch.setattr(picking, "ask_one", lambda *_: "heron")
    hands.click(part(bench, QPushButton, "Copy values from…"))
    hands.settle()
    assert value(hands, "raft") == value(hands, "heron")
    hands.click(part(bench, QPushButton, "Take the game's"))
    hands.settle()
    assert "raft" not in value(hands, "")


def test_the_key_turns_the_bench_over_as_soon_as_a_definition_is_on_it(hands: Hands, bench: Any) -> None:
    station = hands.window.fit_station
    for original in ("art/hulls/hull_otter.dds", BOATS):
        station.pick(original)
        hands.settle()
        hands.key("Ctrl+Shift+T", hands.window)
        assert bench.texts.isVisible() == (original == BOATS)


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


def test_something_new_is_made_on_its_page_and_taken_back(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    hands.key("Ctrl+Shift+D", hands.window)
    page = hands.window.pages.new_thing_page
    assert not page.go.isEnabled() and page.isVisible()
    page.like.setCurrentText("skiff")
    hands.drop(sources / "dusk_paint.jpg", page.places[0])
    assert (page.name.text(), page.id.text()) == ("Dusk paint", "dusk_paint")
    page.name.clear()
    hands.type("Raft", page.name)
    hands.settle()
    hands.click(page.go)
    hands.settle()
    project = hands.window.session.project
    assert project is not None and hands.window.stations.shown == "fit"
    assert hands.window.fit_station.current == "art/hulls/raft.dds"
    assert {swap.original for swap in project.made} >= {"art/hulls/raft.dds", BOATS, "rules/scene.xml"}
    assert value(hands, "raft/name") == "Raft"
    assert hands.window.session.examined["art/hulls/raft.dds"].state in ("fits", "differs")
    hands.key("Ctrl+Shift+D", hands.window)
    hands.click(page.back)
    hands.settle()
    hands.key("Ctrl+Z", hands.window)  # and it is there again
    hands.settle()
    assert value(hands, "raft/hull") == "art/hulls/raft.dds"
    hands.key("Ctrl+Z", hands.window)  # one step for all of it
    hands.settle()
    after = hands.window.session.project
    assert after is not None and {swap.original for swap in after.swaps} == {
        swap.original for swap in load_project(mod / "furnel.toml" if mod.is_dir() else mod).swaps
    }
    assert "art/hulls/raft.dds" not in {swap.original for swap in after.swaps}


def test_a_folder_on_the_page_says_first_what_would_become_of_it(
    hands: Hands, mod: Path, tmp_path: Path
) -> None:
    hands.open(mod)
    hands.window.run_command("new-thing")
    page = hands.window.pages.new_thing_page
    page.kinds.setCurrentItem(page.kinds.findItems("Picture for sale", Qt.MatchFlag.MatchExactly)[0])
    folder = tmp_path / "pictures"
    folder.mkdir()
    for number in range(3):
        Image.new("RGB", (64, 64), (40 * number, 90, 160)).save(folder / f"view_{number}.png")
    page.take_folder(folder)
    hands.settle()
    assert page._wrong.text().startswith("3 new things: View 0, View 1, View 2")
    hands.window.session.project_changed.emit()  # whatever happens meanwhile
    hands.settle()
    assert page._wrong.text().startswith("3 new things: View 0, View 1, View 2")
    before = hands.window.session.project
    assert before is not None
    hands.click(page.go)
    hands.settle()
    now = hands.window.session.project
    assert now is not None and len(now.swaps) == len(before.swaps) + 3 + 2


def test_the_wall_says_where_an_asset_is_named_and_finds_words_in_definitions(
    hands: Hands, mod: Path
) -> None:
    hands.open(mod)
    station = hands.window.find_station
    station.wall.select("art/hulls/hull_skiff.dds")
    hands.settle()
    named = next(one for one in station.card.findChildren(QPushButton) if one.text().startswith("Named in"))
    assert named.text() == "Named in boats.toml › skiff/hull"
    hands.click(named)
    hands.settle()
    assert hands.window.fit_station.current == BOATS
    hands.station(1)
    station.sieve.text.setText("lantern waltz boathouse")
    hands.settle()
    hands.until(lambda: station.wall.shown == 1, "the sifting")
    assert station.wall.select("rules/tunes.json")


def test_a_strip_is_taken_from_a_picture_and_an_optional_one_added(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    bench = opened(hands, "rules/passengers.json")
    picture = tmp_path / "coat.png"
    Image.frombytes("RGB", (4, 1), bytes(range(0, 240, 20))).save(picture)
    monkeypatch.setattr(picking, "pick_file", lambda *_: picture)
    hands.click(part(bench, QPushButton, "From a picture…"))
    hands.settle()
    clerk = bench._book.now.plain()[0]
    assert clerk["strip"] == [0x001428, 0x3C5064, 0x788CA0, 0xB4C8DC]
    target = tmp_path / "out.png"
    monkeypatch.setattr(picking, "pick_target", lambda *_: target)
    hands.click(part(bench, QPushButton, "As a picture…"))
    hands.settle()
    assert Image.open(target).convert("RGB").getpixel((12, 2)) == (0x3C, 0x50, 0x64)
    monkeypatch.setattr(QMenu, "exec", lambda menu, *_: menu.actions()[0].trigger())
    hands.click(part(bench, QPushButton, "Add a value…"))
    hands.settle()
    assert bench._book.now.plain()[0]["portrait_strip"] == ["000000", "555555", "aaaaaa", "ffffff"]
    for _ in range(2):
        hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert bench._book.now.plain()[0] == bench._book.game.plain()[0]


def test_a_definition_is_looked_at_again_when_what_it_names_is_taken_away(
    hands: Hands, mod: Path, sources: Path
) -> None:
    hands.open(mod)
    session = hands.window.session
    wanted = additions.Addition("boat", "raft", "skiff", files={"hull": [sources / "dusk_paint.jpg"]})
    assert session.space is not None
    session.edit(additions.add(session.space, wanted), "New raft")
    hands.settle()
    assert session.examined[BOATS].state != "breaks"
    session.swaps.remove_swap("art/hulls/raft.dds")
    hands.settle()
    told = next(point for point in session.examined[BOATS].points if point.key == "rules")
    assert told.state == "breaks" and "art/hulls/raft.dds" in told.yours


def test_a_strip_without_colours_has_none_to_choose(hands: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    asked: list[object] = []
    monkeypatch.setattr("furnel.desktop.fit.strip_field.ask_colour", lambda *_: asked.append(1))
    field = StripField(hands.window.look, StripRule(), [])
    field.show()
    for key in ("Left", "Right", "Return"):
        hands.key(key, field.row)
    assert asked == [] and field.row.current == 0
    field.close()


def test_values_and_records_have_menus(
    hands: Hands, bench: Any, menus: Callable[[str], list[dict[str, bool]]]
) -> None:
    table, model = bench.table, bench.table.records
    speed = next(place for place in range(1, model.columnCount()) if model.column(place).label == "speed")
    row = model.names.index("heron")

    def over() -> QPoint:
        return table.visualRect(model.index(row, speed)).center()

    menus("Copy its address")
    menu_on(table.viewport(), over())
    assert table.current == "heron" and QApplication.clipboard().text() == "heron/speed"  # type: ignore[union-attr]
    menus("Copy the value")
    menu_on(table.viewport(), over())
    before = value(hands, "heron/speed")
    assert float(QApplication.clipboard().text()) == before  # type: ignore[union-attr]
    field = part(bench, QLineEdit, "speed")
    field.selectAll()
    hands.type("3.3", field)
    hands.key("Return", field)
    hands.settle()
    seen = menus("Take the game's: ")
    menu_on(table.viewport(), over())
    hands.settle()
    assert value(hands, "heron/speed") == before and seen[0][f"Take the game's: {before:g}"]
    assert seen[0]["New like heron…"] and not seen[0]["Change several…"]
    seen = menus("Copy its address")
    name = next(one for one in bench.form.findChildren(QLabel) if one.text() == "speed" and one.isVisible())
    menu_on(name, QPoint(4, 4))
    assert QApplication.clipboard().text() == "heron/speed"  # type: ignore[union-attr]
    assert seen[0][f"Take the game's: {before:g}"] is False, "it is the game's"
    table.selectAll()
    seen = menus("")
    menu_on(table.viewport(), over())
    assert seen[0]["Change several…"] and not seen[0]["New like heron…"] and "Copy the value" not in seen[0]


def test_how_a_games_own_texts_are_read_is_guessed_shown_and_changed(
    hands: Hands, game: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "own-state"))
    moss = tmp_path / "moss"
    for number in range(4):
        file = moss / f"boats/boat{number}.reed"
        file.parent.mkdir(parents=True, exist_ok=True)
        file.write_text(f'(boat "otter{number}"\n  (speed {number})\n  (oil 2) ; enough\n)\n')
    shutil.copytree(game / "data/ensigns", moss / "ensigns")
    keep_profile(profile_text(survey(moss), "Moss Harbour"))
    window, session = hands.window, hands.window.session
    hands.open(create_project(tmp_path / "own", "Evening Post", moss))
    path = "boats/boat1.reed"
    session.swaps.open_definition(path, window.open_bench)
    hands.until(lambda: window.stations.shown == "fit", "the bench")
    hands.settle()
    session.swaps.change_values(path, [Change(do="set", at="boat/speed", to="7")], "Faster")
    hands.settle()
    window.run_command("build")
    hands.until(lambda: session.builds.last is not None and not session.builds.stale, "the build")
    assert session.builds.last is not None
    built = next(session.builds.last.folder.rglob("boat1.reed")).read_text()
    assert built == (moss / path).read_text().replace("(speed 1)", "(speed 7)")
    window.run_command("reading")
    page = window.pages.reading_page
    hands.until(page.use.isEnabled, "the ways to be tried")
    assert "boat/speed   1" in page.shown.toPlainText() and page.list.topLevelItemCount() >= 1
    hands.click(page.plain)
    hands.until(lambda: not taken_apart(path) and session.space is not None, "the game to be opened anew")
    hands.settle()
    assert "notations" not in (profiles_folder() / "moss-harbour.toml").read_text()
