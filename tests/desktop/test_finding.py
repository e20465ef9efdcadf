"""Finding in the window: what is alike, kin, folders, unknown archives and games; by mouse, keys and drops."""

from __future__ import annotations

import shutil
import time
from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QPoint, QPointF, Qt
from PyQt6.QtGui import QImage
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QMenu, QPushButton

from furnel.catalogue import preview, take_out
from furnel.containers import find_layout, layouts_folder, open_container
from furnel.desktop.find.take import TakeDialog
from furnel.desktop.widgets import picking, sheets
from furnel.games import profiles_folder
from tarnlight.scenes import still
from tarnlight.world import World


@pytest.fixture
def game(forged: Path) -> Path:
    """The game that all tests here look at and none changes: it is learned once."""
    return forged


def learned(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.window.session.learned.learn()
    hands.until(lambda: hands.window.session.learned.marks is not None, "the game to be learned", 90)


def first_names(hands: Hands, count: int = 5) -> list[str]:
    wall = hands.window.find_station.wall
    assert wall._shelf is not None
    return [wall._shelf.paths[row] for row in wall._spots.rows[:count].tolist()]


def test_another_mod_may_be_opened_while_the_game_is_being_learned(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_CACHE", str(tmp_path / "cache"))  # there nobody learned it yet
    session = hands.window.session
    for _ in range(3):
        hands.open(mod)
        session.learned.learn()
        for _ in range(20):
            QApplication.processEvents()
            time.sleep(0.01)
    hands.open(mod)
    session.learned.learn()
    hands.until(lambda: session.learned.marks is not None, "the game to be learned", 90)
    assert not [notice.text for notice in hands.window.messages if notice.tone == "wrong"]


def test_a_crop_of_the_running_game_ranks_the_wall(
    hands: Hands, mod: Path, game: Path, tmp_path: Path
) -> None:
    learned(hands, mod)
    whole = still(World(game, with_mods=False), "chart room", 90)
    file = tmp_path / "crop.png"
    whole.crop((385, 45, 550, 206)).save(file)
    station = hands.window.find_station
    well = station.sieve.like.well
    hands.drop(file, well, QPointF(well.rect().center()))
    hands.until(lambda: station._ranking is not None, "the ranking")
    assert "charts/cold_sound.dds" in first_names(hands)
    assert station._groups(station.wall._shelf)[0].name == "most like crop.png"  # type: ignore[arg-type]
    hands.key("Ctrl+Shift+F", hands.window)
    assert station.wall.shown == 203
    clipboard = QApplication.clipboard()
    assert clipboard is not None
    clipboard.setImage(QImage(str(file)))
    hands.key("Ctrl+Shift+V", hands.window)
    hands.until(lambda: station._ranking is not None, "the ranking of the pasted crop")
    assert "charts/cold_sound.dds" in first_names(hands)
    hands.click(station.sieve.kinds, QPoint(20, 20 * station.sieve.kinds.names().index("sheet") + 8))
    assert all(path.startswith(("cast/", "tiles/")) for path in first_names(hands))


def test_a_sound_finds_its_like_and_a_text_file_is_refused_kindly(
    hands: Hands, mod: Path, tmp_path: Path
) -> None:
    learned(hands, mod)
    session, station = hands.window.session, hands.window.find_station
    assert session.catalogue is not None
    file = tmp_path / "mine.wav"
    file.write_bytes(session.catalogue.read(session.catalogue.get("bank0/013.wav")))
    hands.drop(file, station.sieve.like.well, QPointF(20, 20))
    hands.until(lambda: station._ranking is not None, "the ranking")
    assert "bank0/013.wav" in first_names(hands, 3)
    (tmp_path / "words.txt").write_text("neither picture nor sound")
    hands.drop(tmp_path / "words.txt", station.sieve.like.well, QPointF(20, 20))
    hands.settle()
    assert (
        "neither a picture nor a sound" in hands.window.messages[-1].text
        and hands.window.messages[-1].tone == "wrong"
    )


def test_kin_are_shown_grouped_and_offered_with_a_swap(
    hands: Hands, mod: Path, sources: Path, tmp_path: Path
) -> None:
    learned(hands, mod)
    window, station = hands.window, hands.window.find_station
    hands.find("ensigns large kettle", "ensigns/large/kettle.tga")
    assert station.card._kin.text() == "Show its 2 kin"
    station.sieve.text.clear()
    hands.settle()
    hands.key("Ctrl+J", window)
    assert sorted(first_names(hands)) == [
        f"ensigns/{size}/kettle.tga" for size in ("large", "medium", "small")
    ]
    hands.key("Ctrl+J", window)
    assert station.wall.shown == 203
    station.head.group.setCurrentIndex(5)
    hands.settle()
    assert 36 <= station.wall.shown < 203
    station.head.group.setCurrentIndex(0)
    flag = tmp_path / "flag.png"
    Image.fromarray(np.full((200, 300, 3), (180, 40, 40), np.uint8)).save(flag)
    station.wall.select("ensigns/large/kettle.tga")
    hands.drop_on_tile(flag, "ensigns/large/kettle.tga")
    hands.settle()
    offer = window.fit_station.kin
    assert offer.isVisible() and offer.accept.text() == "Swap these 2 too"
    hands.click(offer.accept)
    hands.until(lambda: window.session.swap("ensigns/small/kettle.tga") is not None, "the kin to be swapped")
    hands.settle()
    found = window.session.examined["ensigns/small/kettle.tga"]
    assert found.state in ("fits", "differs") and not offer.isVisible()
    hands.key("Ctrl+Z", window)
    assert window.session.swap("ensigns/small/kettle.tga") is None
    assert window.session.swap("ensigns/medium/kettle.tga") is None
    assert window.session.swap("ensigns/large/kettle.tga") is not None


def test_a_dropped_folder_is_matched_corrected_and_applied(hands: Hands, mod: Path, tmp_path: Path) -> None:
    learned(hands, mod)
    window = hands.window
    catalogue = window.session.catalogue
    assert catalogue is not None and window.session.project is not None
    folder = tmp_path / "mine"
    folder.mkdir()
    for path, name in (("charts/adder_bay.dds", "IMG_1.png"), ("art/rock/slate.dds", "slate.png")):
        shown = preview(catalogue, catalogue.get(path)).picture
        assert shown is not None
        Image.fromarray(shown.pixels).convert("RGB").resize((300, 300)).save(folder / name)
    Image.fromarray((np.random.default_rng(1).random((64, 64, 3)) * 255).astype(np.uint8)).save(
        folder / "noise.png"
    )
    before = len(window.session.project.swaps)
    hands.drop(folder, window.find_station.wall.viewport(), QPointF(300, 200))
    sheet = window.pages.match_sheet
    hands.until(lambda: len(sheet.rows.matches) == 3, "the match sheet")
    hands.settle()
    pairs = {match.file.name: (match.original, match.on) for match in sheet.rows.matches}
    assert pairs["IMG_1.png"] == ("charts/adder_bay.dds", True) and pairs["slate.png"] == (
        "art/rock/slate.dds",
        True,
    )
    assert not pairs["noise.png"][1] and sheet.apply.text() == "Swap 2"
    row = next(n for n, match in enumerate(sheet.rows.matches) if match.file.name == "noise.png")
    hands.click(sheet.rows, sheet.rows.row_rect(row).center().toPoint())
    other = sheet.others.itemText(1)
    sheet.others.setCurrentIndex(1)
    sheet.others.activated.emit(1)
    assert sheet.rows.matches[row].original == other and sheet.rows.matches[row].how == "by hand"
    hands.click(sheet.rows, sheet.rows.box_rect(row).center().toPoint())
    assert sheet.apply.text() == "Swap 2"
    hands.click(sheet.apply)
    hands.until(lambda: len(window.session.project.swaps) == before + 2, "the swaps")  # type: ignore[union-attr]
    hands.settle()
    assert window.stations.currentWidget() is window.find_station
    assert window.session.examined["charts/adder_bay.dds"].state in ("fits", "differs")
    hands.key("Ctrl+Z", window)
    assert len(window.session.project.swaps) == before


@pytest.fixture
def own_state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    return tmp_path / "state"


def test_chips_lead_through_the_fields_and_say_what_they_hold(
    hands: Hands, forged: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    file = tmp_path / "pictures.pak"
    file.write_bytes((forged / "data" / "art.tlp").read_bytes())
    page = hands.window.pages.archive_page
    hands.window.pages.work_out(file)
    hands.until(lambda: len(page.anatomy.entries) == 33, "the entries")
    offsets = page.chips.chips["entry", "offset"]
    for row in (0, 1, 2):
        hands.click(offsets)
        assert page.bytes.chosen == (64 + 64 * row, 68 + 64 * row)
    assert page.text.textCursor().selectedText() == 'name = "offset"'
    good = page.text.toPlainText()
    offered: list[str] = []

    def choose(menu: QMenu, *_: object) -> None:
        offered.extend(one.text() for one in menu.actions() if one.isEnabled())
        next(one for one in menu.actions() if one.text() == "It holds the size").trigger()

    monkeypatch.setattr(QMenu, "exec", choose)
    offsets.customContextMenuRequested.emit(QPoint(3, 3))
    assert "It holds nothing that is known" in offered and "It holds the offset" not in offered
    hands.until(
        lambda: "offset" not in {one.holds for one in page.layout_found.index.fields}, "the new meaning"
    )
    page.text.undo()
    assert page.text.toPlainText() == good
    hands.until(lambda: not page.anatomy.faults and page.save.isEnabled(), "the description to hold again")


def test_entries_in_view_have_pictures(hands: Hands, forged: Path, tmp_path: Path) -> None:
    file = tmp_path / "pictures.pak"
    file.write_bytes((forged / "data" / "art.tlp").read_bytes())
    page = hands.window.pages.archive_page
    hands.window.pages.work_out(file)
    hands.until(lambda: len(page.pictures.tiles) >= 5, "pictures")
    first = page.anatomy.entries[0].path
    assert page.pictures.tiles[first].image is not None and not page.pictures.tiles[first].fault
    assert len(page.pictures.tiles) < 33  # not of those that nobody looks at
    drawn = page.entries.list.item(0).icon().pixmap(40, 26).toImage()
    assert len({drawn.pixel(x, 12) for x in range(drawn.width())}) > 5
    page.entries.list.scrollToBottom()
    last = page.anatomy.entries[-1].path
    hands.until(lambda: last in page.pictures.tiles, "the last one's picture")
    hands.window.pages.work_out(file)  # another look lets go of the first
    assert page.pictures.tiles == {}


def test_an_unknown_archive_is_worked_out_on_its_bench(
    hands: Hands, forged: Path, tmp_path: Path, own_state: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    file = tmp_path / "pictures.pak"
    file.write_bytes((forged / "data" / "art.tlp").read_bytes())
    page = hands.window.pages.archive_page
    hands.window.pages.work_out(file)
    hands.until(lambda: page.guesses is not None, "the guesses")
    hands.until(lambda: len(page.anatomy.entries) == 33, "the entries")
    assert page.save.isEnabled() and "explained" in page._verdict.text()
    assert "magic" in page._at.text()  # what is under the cursor is told anew when it is understood
    page.bytes.go(16 + 48)
    assert "offset" in page._at.text() and "entry 0" in page._at.text()
    hands.key("Right", page.bytes)
    assert page.bytes.caret == 65
    page.entries.list.setCurrentRow(2)
    span = page.bytes.span_at(page.bytes.caret)
    assert span is not None and span.name == "art/hulls/hull_mail.dds"
    good = page.text.toPlainText()
    page.text.setPlainText(good.replace('type = "u32", holds = "offset"', 'type = "u33", holds = "offset"'))
    hands.until(lambda: page.layout_found is None, "the fault to be noticed")
    assert page._verdict.text().startswith("line ") and "u33" in page._verdict.text()
    assert page.text.extraSelections() and not page.save.isEnabled()
    page.text.setPlainText(good.replace('packed = "zlib"', 'packed = "deflate"'))
    hands.until(lambda: page.anatomy.faults, "what does not add up")
    assert page.hints.item(0).text().startswith("✕")
    page.text.setPlainText(good.replace('name = "pak"', 'name = "harbour"'))
    hands.until(lambda: not page.anatomy.faults and page.save.isEnabled(), "the description to hold again")
    hands.click(page.save)
    hands.until(lambda: (layouts_folder() / "harbour.toml").is_file(), "the layout to be kept")
    assert find_layout("harbour").files == ("*.pak",)
    hands.settle()
    kept, asked = (layouts_folder() / "harbour.toml").read_bytes(), []
    monkeypatch.setattr(sheets, "ask", lambda *words: asked.append(words))  # not taken
    page.text.setPlainText(page.text.toPlainText() + "\n# another\n")
    hands.until(lambda: page.save.isEnabled(), "the description to hold again")
    hands.click(page.save)
    hands.settle()
    assert "harbour" in asked[0][2] and (layouts_folder() / "harbour.toml").read_bytes() == kept
    hands.key("Esc", page.text)
    assert hands.window.stations.currentWidget() is hands.window.find_station


def test_an_archive_is_described_by_clicks_and_changed(hands: Hands, tmp_path: Path, own_state: Path) -> None:
    from tests.containers.test_guessing import rows_then_data

    texts = {
        f"rules/{name}.txt": name.encode() * 20 for name in ("otter", "kettle", "fjell")
    }  # nothing that is known
    file = tmp_path / "night.hold"
    file.write_bytes(rows_then_data(texts, ">II", ">I"))
    page = hands.window.pages.archive_page
    hands.window.pages.work_out(file)
    hands.until(lambda: page.guesses is not None, "the guesses")
    hands.settle()
    for start, end, what in (
        (0, 4, "letters"),
        (4, 8, "count"),
        (8, 40, "name"),
        (40, 44, "offset"),
        (44, 48, "size"),
    ):
        page.bytes.go(start)
        for _ in range(end - start - 1):
            hands.key("Shift+Right", page.bytes)
        assert page.bytes.chosen == (start, end)
        hands.click(page.saying[what])
    hands.until(lambda: len(page.anatomy.entries) == 3 and page.save.isEnabled(), "the entries")
    assert 'byte-order = "big"' in page.text.toPlainText()
    more = tmp_path / "gull.txt"
    more.write_text("a gull")
    pane = page.entries
    pane.list.setCurrentRow(0)
    pane.add_files([more])
    pane.rename_to("rules/otter.txt", "rules/../otter.txt")
    assert "not safe" in hands.window.messages[-1].text and not pane.pending.rename
    pane.rename_to("rules/otter.txt", "rules/seal.txt")
    pane.list.setCurrentRow(2)
    hands.click(pane.buttons["remove"])
    pane.rename_to("rules/fjell.txt", "rules/kettle.txt")  # its place is free now
    hands.click(pane.buttons["back"])
    assert "two entries" in hands.window.messages[-1].text and pane.pending.remove == {"rules/kettle.txt"}
    pane.rename_to("rules/fjell.txt", "rules/fjell.txt")
    assert pane.current() == "rules/kettle.txt" and pane.pending.many == 3
    hands.window.pages.work_out(more)
    hands.settle()
    hands.window.pages.work_out(file)  # what was to be done is still there
    hands.until(lambda: page.guesses is not None and pane.pending.many == 3, "the changes")
    hands.until(lambda: page.layout_found is not None, "the description")
    page.write_copy(file)
    assert "another file" in hands.window.messages[-1].text
    hands.until(lambda: page.layout_found is not None and len(page.anatomy.entries) == 3, "the entries again")
    page.write_copy(tmp_path / "night-changed.hold")
    hands.until(lambda: (tmp_path / "night-changed.hold").exists(), "the copy")
    hands.settle()
    opened = open_container(tmp_path / "night-changed.hold", page.layout_found)
    assert {one.path: opened.read(one.path) for one in opened.entries()} == {
        "rules/seal.txt": texts["rules/otter.txt"], "rules/fjell.txt": texts["rules/fjell.txt"], "rules/gull.txt": b"a gull",
    }  # fmt: skip


def test_an_unknown_game_is_described_and_opened(
    hands: Hands, forged: Path, own_state: Path, tmp_path: Path
) -> None:
    game = tmp_path / "game"
    shutil.copytree(forged, game)
    (game / "tarnlight.toml").unlink()
    (game / "data" / "art.tlp").rename(game / "data" / "pictures.pak")
    page = hands.window.pages.new_game_page
    hands.window.open_folder(game)
    hands.until(lambda: page.start.isEnabled(), "the survey")
    assert hands.window.stations.currentWidget() is page
    page.name.clear()
    assert not page.start.isEnabled()
    hands.type("Moss Harbour", page.name)
    hands.click(page.start)
    hands.until(lambda: hands.window.session.catalogue is not None, "the game to open")
    hands.settle()
    assert (profiles_folder() / "moss-harbour.toml").is_file()
    assert hands.window.bar.findChild(QPushButton, "game").text() == "Moss Harbour"
    open_too = {
        "pictures.pak",
        "evening_crossing.sum",
        "lamp_round.sum",
    }  # what no archive takes is a file, and there
    assert hands.window.find_station.wall.shown == 170 + len(open_too)
    assert open_too <= {path.rpartition("/")[2] for path in hands.window.session.catalogue.assets.paths}
    assert hands.window.stations.currentWidget() is hands.window.find_station


def test_a_changed_file_that_was_taken_out_goes_back_by_itself(
    hands: Hands, mod: Path, tmp_path: Path
) -> None:
    hands.open(mod)
    window, catalogue = hands.window, hands.window.session.catalogue
    assert catalogue is not None
    read = lambda path: catalogue.read(catalogue.get(path))  # noqa: E731
    file = take_out(["art/rock/granite.dds"], read, tmp_path / "out", "png")[0]
    Image.new("RGB", (256, 256), (120, 90, 60)).save(file)
    moved = file.parents[2] / "granite.png"
    file.rename(moved)
    wall = window.find_station.wall
    hands.drop(moved, wall.viewport(), QPointF(wall.viewport().width() - 2, 3))
    hands.until(lambda: window.session.swap("art/rock/granite.dds") is not None, "the swap")
    hands.settle()
    assert window.fit_station.current == "art/rock/granite.dds"
    stranger = tmp_path / "stranger.png"
    Image.new("RGB", (30, 30), (9, 9, 9)).save(stranger)
    hands.station(1)
    hands.drop(stranger, wall.viewport(), QPointF(wall.viewport().width() - 2, 3))
    hands.until(
        lambda: window.pages.match_sheet.isVisible() and window.pages.match_sheet.rows.matches,
        "the match sheet",
    )
    assert not window.pages.match_sheet.pack.isVisible()


def test_a_folder_is_packed_from_the_match_sheet(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    folder = tmp_path / "loose"
    (folder / "deep").mkdir(parents=True)
    (folder / "deep" / "a.txt").write_text("words " * 90)
    (folder / "b.txt").write_text("more")
    hands.drop(folder, hands.window.find_station.wall.viewport(), QPointF(300, 200))
    hands.settle()
    target = tmp_path / "loose.crate"
    monkeypatch.setattr(picking, "ask_one", lambda *_: "crate")
    monkeypatch.setattr(picking, "pick_target", lambda *_: target)
    hands.click(hands.window.pages.match_sheet.pack)
    hands.until(target.is_file, "the archive")
    hands.settle()
    container = open_container(target)
    assert container.read("deep/a.txt") == b"words " * 90 and len(container.entries()) == 2


def test_several_are_taken_out_with_their_kin(
    hands: Hands, mod: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    learned(hands, mod)
    window, wall = hands.window, hands.window.find_station.wall
    hands.find("ensigns brenna", "ensigns/large/brenna.tga")
    hands.window.find_station.sieve.text.setText("e aldvik")
    hands.settle()
    wall.select("ensigns/large/aldvik.tga")
    place = wall.tile_rect("ensigns/small/aldvik.tga").center().toPoint()
    QTest.mouseClick(wall.viewport(), Qt.MouseButton.LeftButton, Qt.KeyboardModifier.ControlModifier, place)
    assert [asset.path for asset in wall.chosen()] == ["ensigns/large/aldvik.tga", "ensigns/small/aldvik.tga"]

    def choose(dialog: TakeDialog) -> int:
        dialog._group.button(1).setChecked(True)
        dialog._kin.setChecked(True)
        return 1

    monkeypatch.setattr(TakeDialog, "exec", choose)
    monkeypatch.setattr(picking, "pick_folder", lambda *_: tmp_path / "out")
    hands.key("Ctrl+T", window)
    hands.until(lambda: "taken out" in window.messages[-1].text, "the files")
    written = sorted(
        file.relative_to(tmp_path / "out").as_posix() for file in (tmp_path / "out").rglob("*.png")
    )
    assert written == [f"ensigns/{size}/aldvik.png" for size in ("large", "medium", "small")]
    shutil.rmtree(tmp_path / "out")
