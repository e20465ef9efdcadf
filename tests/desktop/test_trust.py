"""Keys, buttons and words are true: they act on what is in sight, and nothing of another game or mod stays."""

from __future__ import annotations

import shutil
import threading
import time
from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands
from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtWidgets import QApplication, QLabel

from furnel.catalogue import Wanted
from furnel.desktop.find.like import LikeBox
from furnel.desktop.jobs import JobRunner
from furnel.desktop.look import Look
from furnel.desktop.recent import load_recent
from furnel.desktop.session import Notice
from furnel.desktop.tiles import paint_waveform
from furnel.desktop.widgets.basics import label
from furnel.desktop.widgets.jobline import JobLine
from furnel.mods.project import Swap, load_project
from furnel.mods.workspace import Examined, Workspace, create_project, open_workspace
from furnel.progress import Progress

HULL, BELL = "art/hulls/hull_otter.dds", "bank0/000.wav"


def test_keys_do_nothing_to_what_is_not_in_sight(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window, before = hands.window, load_project(mod)
    window.fit_station.pick(HULL)
    hands.station(1)
    for keys in ("Del", "Ctrl+Return"):
        hands.key(keys, window)
        hands.settle()
        assert load_project(mod) == before
    hands.find("hull_otter", HULL)
    window.find_station.sieve.text.setText("bell_near")  # the selection is filtered away, and let go
    hands.until(lambda: window.find_station.wall.current() is None, "the selection to go")
    window.find_station.sieve.text.clear()
    hands.settle()
    hands.key("Del", window)
    hands.settle()
    assert load_project(mod) == before
    for station in (3, 4):
        hands.station(station)
        window.run_command("remove-swap")
        assert window.messages[-1].tone == "wrong" and load_project(mod) == before


def test_the_first_arrow_takes_the_first_tile(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    wall = hands.window.find_station.wall
    wall.setFocus()
    hands.key("Right", wall)
    first = wall.current()
    hands.key("Home", wall)
    assert first is not None and wall.current() == first
    hands.key("Right", wall)
    assert wall.current() != first


def test_games_and_mods_opened_in_turn_leave_nothing_behind(
    hands: Hands, mod: Path, game: Path, tmp_path: Path
) -> None:
    small = tmp_path / "small"
    shutil.copytree(game, small)
    for file in (small / "data").glob("*.tlh"):
        file.write_bytes(b"TLH")  # damaged: this game cannot be opened
    other = tmp_path / "other"
    space = open_workspace(create_project(other, "Herring Day", game))
    space.close()
    hands.open(mod)
    window, session = hands.window, hands.window.session
    hands.find("hull_otter", HULL)
    window.fit_station.pick(HULL)
    hands.station(2)
    hands.settle()
    for target, swaps in ((other / "furnel.toml", 0), (mod, 4), (other / "furnel.toml", 0)):
        session.open_mod(target)
        hands.until(
            lambda target=target: session.space is not None and session.space.file == target.resolve(),
            "the mod",
        )
        hands.settle()
        assert session.tally()["all"] == swaps
        assert window.find_station.sieve.text.text() == "" and window.find_station.wall.current() is None
        assert window.find_station.wall.shown == len(session.catalogue.assets)  # type: ignore[union-attr]
    session.open_game(game)
    hands.until(lambda: session.space is None and session.catalogue is not None, "the game without a mod")
    hands.settle()
    assert session.builds.last is None and not session.examined and session.undo() is None
    session.open_game(small)
    hands.settle()
    assert hands.window.messages[-1].tone == "wrong" and session.catalogue is not None


def test_undo_has_a_place_and_says_what_it_took_back(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    swap = session.swap(BELL)
    assert swap is not None
    session.swaps.set_swap(swap.model_copy(update={"credit": "mine"}), "Change the credit")
    hands.settle()
    hands.station(4)
    hands.key("Ctrl+Z", window)
    hands.settle()
    assert session.swap(BELL).credit == "mine"  # type: ignore[union-attr]
    hands.station(1)
    hands.key("Ctrl+Z", window)
    hands.settle()
    assert session.swap(BELL).credit == ""  # type: ignore[union-attr]
    assert "Taken back: Change the credit" in window.messages[-1].text
    assert window.fit_station.current == BELL and window.stations.currentWidget() is window.fit_station


def test_undo_never_acts_on_a_mod_that_is_not_in_sight(
    hands: Hands, mod: Path, game: Path, tmp_path: Path
) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    session.swaps.remove_swap("bank0/000.wav")
    hands.settle()
    before = session.project
    window.pages.open(window.pages.shelf_page, "find")
    assert not window.undoing.undo.isEnabled()
    for name in ("settings", "shelf"):
        window.run_command(name)
        window.run_command("undo")
        assert session.project == before and "nothing to take back here" in window.messages[-1].text
    shutil.copy(game / "data" / "art.tlp", tmp_path / "art.pak")
    window.pages.work_out(tmp_path / "art.pak")
    page = window.pages.archive_page
    hands.until(lambda: page.anatomy.entries, "the entries")
    draft = page.text.toPlainText()
    page.text.setFocus()
    hands.type("# mine ", page.text)
    written = page.text.toPlainText()
    page.begin.setCurrentIndex(page.begin.findText("the guess"))
    page.begin.activated.emit(page.begin.currentIndex())
    assert page.text.toPlainText() == draft
    hands.click(window.undoing.undo)
    assert page.text.toPlainText() == written, "another beginning is taken back"
    hands.click(window.undoing.redo)
    assert page.text.toPlainText() == draft and session.project == before
    window.go("fit")
    window.run_command("undo")
    assert session.swap("bank0/000.wav") is not None


def test_undo_and_the_place_are_there_after_another_start(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    session.swaps.remove_swap(BELL)
    hands.station(2)
    hands.window.fit_station.pick(HULL)
    hands.settle()
    recent = load_recent()
    assert (recent.project, recent.station, recent.swap) == (str(mod), "fit", HULL)
    session.open_mod(mod)  # as a start does
    hands.settle()
    assert session.undo() is not None and session.swap(BELL) is not None
    hands.settle()
    assert load_project(mod).swap_for(BELL) is not None


def test_a_start_shows_what_was_known_last_and_never_a_count_of_what_was_not_looked_at(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    def lines() -> dict[str, str]:
        return {name: window.strip.state(name).line for name in ("fit", "build", "try")}

    window = hands.window
    hands.open(mod)
    hands.station(2)
    window.fit_station.pick(HULL)
    hands.settle()
    known = lines()
    assert known == {"fit": "3 of 4 fit", "build": "not built yet", "try": "0 mods on"}
    hands.until(lambda: load_recent().swap == HULL and load_recent().numbers, "the place to be kept")
    window.session.close()
    begun: list[str] = []
    gate, examine = threading.Event(), Workspace.examine

    def slow(space: Workspace, swap: Swap, progress: Progress) -> Examined:
        begun.append(swap.original)
        gate.wait(60)
        return examine(space, swap, progress)

    monkeypatch.setattr(Workspace, "examine", slow)
    assert window.place.go_on(load_recent())
    assert lines() == known
    hands.until(lambda: begun, "the swaps to be looked at")
    assert begun[0] == HULL and lines() == known
    try:
        hands.until(lambda: window.fit_station.benches.shown is None, "the bench to be cleared")
    finally:
        gate.set()
    hands.settle()
    assert lines() == known and window.fit_station.benches.shown is not None


def test_an_edit_made_while_fit_runs_is_kept(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    session.swaps.fit_all([HULL])
    swap = session.swap(HULL)
    assert swap is not None
    session.swaps.set_swap(swap.model_copy(update={"credit": "typed meanwhile"}), "Change the credit")
    hands.settle()
    now = session.swap(HULL)
    assert now is not None and now.credit == "typed meanwhile" and now.steps
    assert session.examined[HULL].state != "breaks"


def test_what_lies_in_the_game_is_read_there(hands: Hands, mod: Path, game: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    session.swaps.fit_all([HULL])
    hands.settle()
    session.builds.start()
    hands.until(lambda: session.builds.last is not None, "the build")
    session.game.install()
    hands.settle()
    assert session.game.presence == "built"
    (game / "mods/evening-post" / BELL).write_bytes(b"by another hand")
    session.game.refresh()
    hands.settle()
    assert session.game.presence == "foreign" and "changed since" in session.game.foreign
    session.game.install()
    hands.settle()
    assert (game / "mods/evening-post" / BELL).read_bytes() == b"by another hand"
    assert hands.window.messages[-1].tone == "wrong" and session.game.presence == "foreign"
    session.game.install(over=True)
    hands.settle()
    assert session.game.presence == "built"
    shutil.rmtree(game / "mods/evening-post")
    session.game.refresh()
    hands.settle()
    assert session.game.presence == "" and not session.game.installed


def test_a_refusal_stays_to_be_read(application: QApplication, monkeypatch: pytest.MonkeyPatch) -> None:
    jobs, now = JobRunner(), [100.0]
    monkeypatch.setattr("furnel.desktop.widgets.jobline.time.monotonic", lambda: now[0])
    line = JobLine(Look(), jobs)
    line.tell(Notice("wrong", "It is damaged"))
    line.tell(Notice("calm", "Catalogue up to date"))
    assert line.message == "It is damaged"
    now[0] += 30
    line.tell(Notice("calm", "Built"))
    assert line.message == "Built"
    line.tell(Notice("wrong", "One"))
    line.tell(Notice("wrong", "Two"))
    assert line.message == "Two"
    jobs.stop()


def test_a_name_is_nothing_but_text(application: QApplication) -> None:
    shown = label("<b>bold</b><img src='/etc/passwd'>")
    plain = QLabel("<b>bold</b>")
    assert shown.textFormat() != plain.textFormat() and shown.sizeHint().width() > plain.sizeHint().width()


def test_a_colour_that_is_looked_for_is_shown(application: QApplication) -> None:
    box = LikeBox(Look())
    box.resize(200, 120)
    box.set(Wanted("c", colour=(200, 30, 40)))
    colour = box.well.grab().toImage().pixelColor(box.well.width() // 2, box.well.height() // 2)
    assert (colour.red(), colour.green(), colour.blue()) == (200, 30, 40)


@pytest.mark.parametrize("columns", [7, 80, 500])
def test_a_waveform_is_drawn_as_high_as_it_is(application: QApplication, columns: int) -> None:
    image = QImage(80, 100, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(0)
    painter = QPainter(image)
    wave = np.stack([np.full(columns, -0.25), np.full(columns, 0.5)]).astype(np.float32)
    paint_waveform(painter, QRectF(0, 0, 80, 100), wave, QColor(250, 120, 40), 1.0)
    painter.end()
    alphas = [[image.pixelColor(x, y).alpha() for y in range(100)] for x in (0, 40, 79)]
    for column in alphas:
        assert column[:24] == [0] * 24 and column[64:] == [0] * 36
        assert column[25:62] == [255] * 37
        assert abs(column[24] - 0.4 * 255) < 3 and abs(column[62] - 0.9 * 255) < 3, "edges are soft"
    assert image.pixelColor(40, 40).getRgb()[:3] == (250, 120, 40)


def test_the_loudest_of_what_shares_a_column_is_seen(application: QApplication) -> None:
    image = QImage(50, 60, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(0)
    painter = QPainter(image)
    wave = np.zeros((2, 5000), np.float32)
    wave[1, 2512] = 1.0  # one sample of a hundred that are one pixel
    paint_waveform(painter, QRectF(0, 0, 50, 60), wave, QColor("white"), 1.0)
    painter.end()
    assert image.pixelColor(25, 1).alpha() == 255 and image.pixelColor(24, 20).alpha() == 0


def test_of_forty_requests_the_newest_runs_and_the_eye_does_not_wait(application: QApplication) -> None:
    jobs, gate = JobRunner(), threading.Event()
    ran: list[object] = []
    seen: list[object] = []
    for _ in range(8):
        jobs.start("examine", lambda _: gate.wait(10), lambda _: None)
    for number in range(40):
        jobs.start("bench", lambda _, n=number: ran.append(n), lambda _: None, key="same")
    jobs.start("look", lambda _: 1, seen.append, lane="eye")
    end = time.monotonic() + 5
    while not seen and time.monotonic() < end:
        QApplication.processEvents()
        time.sleep(0.002)
    assert seen == [1] and ran == []
    assert jobs.busy() == 9  # superseded ones are gone, not queued
    gate.set()
    while jobs.busy() and time.monotonic() < end:
        QApplication.processEvents()
        time.sleep(0.002)
    assert ran == [39]
    late = jobs.start("late", lambda _: 1, seen.append)
    late.cancel()
    jobs.start("must be written", lambda _: ran.append(-1), lambda _: None, lane="write")
    jobs.stop()
    assert ran[-1] == -1


def test_many_results_do_not_keep_the_window_waiting(application: QApplication) -> None:
    jobs, got = JobRunner(), []

    def slow(value: int) -> None:
        time.sleep(0.004)
        got.append(value)

    for number in range(40):
        jobs.start("x", lambda _, n=number: n, slow)
    time.sleep(0.1)
    turns = []
    end = time.monotonic() + 10
    while len(got) < 40 and time.monotonic() < end:
        before = len(got)
        QApplication.sendPostedEvents()
        turns.append(len(got) - before)
        QApplication.processEvents()
    assert len(got) == 40 and max(turns) <= 8
    jobs.stop()


def test_what_was_changed_is_a_list_to_go_back_in_also_after_a_restart(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    first = session.project
    session.swaps.remove_swap(BELL)
    session.swaps.fit_all([HULL])
    hands.settle()
    latest = session.project
    window.run_command("past")
    page = window.pages.past_page
    assert [page.list.item(row).text().partition("   ")[0] for row in range(3)] == [
        "Fit hull_otter.dds", f"Remove {BELL.rpartition('/')[2]}", "As it was when this list begins",
    ]  # fmt: skip
    page.list.setCurrentRow(2)
    hands.click(page.back_here)
    assert session.project == first and "2 changes taken back" in window.messages[-1].text
    hands.settle()
    assert load_project(mod) == first
    page.list.setCurrentRow(0)
    hands.key("Return", page.list)
    hands.settle()
    assert session.project == latest == load_project(mod)
    hands.open(mod)
    window.run_command("past")
    page.list.setCurrentRow(2)
    hands.click(page.back_here)
    assert session.project == first, "the list outlives the opening"
