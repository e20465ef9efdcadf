"""The window, worked by mouse and keyboard."""

from __future__ import annotations

import shutil
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from demo.hands import Hands
from demo.story import tell
from PIL import Image
from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, QTimer
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLineEdit

from furnel.desktop.actions import ALWAYS, COMMANDS
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.quickcommand import QuickCommand
from furnel.mods.project import load_project

HULL = "art/hulls/hull_otter.dds"


def test_the_whole_story(
    application: QApplication, tmp_path: Path, forged: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    shutil.copytree(forged, tmp_path / "game")
    assert tell(tmp_path, with_sounds=False) == 0
    said = capsys.readouterr().out
    assert said.count("accepted") == 5 and "the same to the byte" in said
    assert (tmp_path / "stills" / "after.png").stat().st_size > 10_000


def test_the_strip_says_what_is_left_to_do(hands: Hands, mod: Path) -> None:
    assert hands.window.strip.state("find").line == "no game open"
    hands.open(mod)
    states = {name: hands.window.strip.state(name) for name in ("find", "fit", "build", "try")}
    assert states["find"].line == "203 assets"
    assert (states["fit"].line, states["fit"].breaks) == ("3 of 4 fit", 1)
    assert states["build"].waiting and states["build"].line == "not built yet"
    assert states["try"].line == "0 mods on"


def test_searching_narrows_the_wall_and_keys_walk_over_it(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    wall = hands.window.find_station.wall
    assert wall.shown == 203
    hands.find("otter walk", "cast/otter_walk.png")
    assert wall.shown == 3
    assert hands.window.find_station.card._name.text() == "otter_walk"
    wall.setFocus()
    hands.key("Home", wall)
    first = wall.current()
    hands.key("Right", wall)
    assert first is not None and wall.current() is not None and wall.current() is not first
    hands.key("Ctrl+Shift+F", hands.window)
    hands.settle()
    assert wall.shown == 203
    facets = hands.window.find_station.sieve.kinds
    hands.click(facets, QPoint(20, 20 * facets.names().index("sound") + 8))
    assert wall.shown == 46
    hands.window.find_station.sieve.clear()
    hands.window.find_station.sieve.pixels.keep(512, 2047)
    assert 0 < wall.shown < 40


def test_selecting_shows_the_spec(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.find("ensigns large fjell", "ensigns/large/fjell.tga")
    hands.settle()
    grid = hands.window.find_station.card._facts
    texts = [grid.itemAt(place).widget().text() for place in range(grid.count())]  # type: ignore[union-attr]
    assert "bottom first, run-length off" in texts and "192 × 128" in texts


def test_fit_undo_redo_and_the_file_follows(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    hands.station(2)
    assert hands.window.fit_station.current == HULL
    broken = load_project(mod)
    hands.key("Ctrl+Return", hands.window)
    hands.until(lambda: session.examined[HULL].state == "fits", "the hull to fit")
    hands.settle()
    fitted = load_project(mod)
    assert fitted.swap_for(HULL) != broken.swap_for(HULL)
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert load_project(mod) == broken and session.examined[HULL].state == "breaks"
    hands.key("Ctrl+Shift+Z", hands.window)
    hands.settle()
    assert load_project(mod) == fitted and session.examined[HULL].state == "fits"


def test_every_bench_shows_its_kind(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    station = hands.window.fit_station
    for original, bench in (
        (HULL, station.benches.of("texture")), ("cast/otter_walk.png", station.benches.of("sheet")),
        ("bank0/000.wav", station.benches.of("sound")), ("rules/playlist.json", station.benches.of("definition")),
    ):  # fmt: skip
        station.pick(original)
        hands.settle()
        assert station.benches.currentWidget() is bench
        assert station.table.table.points


def test_the_picture_bench_compares_in_every_way(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    hands.key("Ctrl+Return", hands.window)
    hands.settle()
    view = hands.window.fit_station.benches.of("texture").view
    seen = {}
    for part in hands.window.fit_station.benches.of("texture").modes.buttons():
        hands.click(part)
        seen[part.text()] = view.grab().toImage()
    assert seen["Wipe"] != seen["Side by side"] != seen["Difference"]
    hands.click(hands.window.fit_station.benches.of("texture").modes.buttons()[0])
    before = view.grab().toImage()
    line = QPoint(view.width() // 2, view.height() // 2)
    QTest.mousePress(view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, line)
    QTest.mouseMove(view, line + QPoint(90, 0))
    QTest.mouseRelease(view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, line + QPoint(90, 0))
    assert view.grab().toImage() != before
    hands.key("+", view)
    hands.window.fit_station.benches.of("texture").ladder._choose(4)
    assert view.level == 4


def test_the_bench_shows_channels_blinks_and_enlarges_differences(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    hands.key("Ctrl+Return", hands.window)
    hands.settle()
    bench = hands.window.fit_station.benches.of("texture")
    by_name = {part.text(): part for part in (*bench.modes.buttons(), *bench.channels.buttons())}
    seen = []
    for channel in ("R", "G", "B"):
        hands.click(by_name[channel])
        hands.settle()
        seen.append(bench.view.grab().toImage())
    assert seen[0] != seen[1] != seen[2]
    hands.click(by_name["RGB"])
    hands.click(by_name["Blink"])
    first = bench.view.grab().toImage()
    hands.until(lambda: bench.view.grab().toImage() != first, "the other side", 3)
    hands.click(by_name["Difference"])
    hands.settle()
    calm = bench.view.grab().toImage()
    hands.click(bench._times)
    hands.settle()
    assert bench.view.grab().toImage() != calm


def test_formats_are_tried_seen_and_chosen(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session, station = hands.window.session, hands.window.fit_station
    hands.station(2)
    hands.key("Ctrl+Return", hands.window)
    hands.settle()
    bench = station.benches.of("texture")
    hands.click(next(part for part in bench.trays.buttons() if part.text() == "Formats"))
    hands.settle()
    trials = {trial.format: trial for trial in bench.formats._trials}
    assert trials["BC7"].psnr_db > trials["BC1"].psnr_db + 4
    assert trials["BC1"].size_bytes * 2 == trials["BC3"].size_bytes
    before = bench.view.grab().toImage()
    place = (
        bench.formats._box(list(trials).index("RGBA4444" if "RGBA4444" in trials else "BC1"))
        .center()
        .toPoint()
    )
    hands.click(bench.formats, place)
    assert bench.view.grab().toImage() != before
    bench.formats.used.emit("BC7")
    hands.settle()
    swap = session.swap(HULL)
    assert swap is not None and swap.encode is not None
    assert (swap.encode.format, swap.insist) == ("BC7", ("format", "header"))
    point = next(point for point in session.examined[HULL].points if point.key == "format")
    assert point.insisted and session.examined[HULL].state == "differs"
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert session.examined[HULL].state == "fits"


def test_a_point_is_matched_or_kept_from_the_table(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session, station = hands.window.session, hands.window.fit_station
    hands.station(2)
    table = station.table
    keys = [point.key for point in table.table.points]
    table.table.pick(keys.index("size"))
    hands.click(table._mend)
    hands.settle()
    swap = session.swap(HULL)
    assert swap is not None and [use.do for use in swap.steps] == ["size"] and swap.encode is not None
    keys = [point.key for point in table.table.points]
    table.table.pick(keys.index("tiling"))
    hands.click(table._keep)
    hands.settle()
    assert session.swap(HULL).insist == ("tiling",)  # type: ignore[union-attr]
    hands.key("Ctrl+Return", hands.window)
    hands.settle()
    assert "seamless" not in [use.do for use in session.swap(HULL).steps]  # type: ignore[union-attr]


def test_an_area_is_dragged_on_the_stage_and_settings_are_seen_at_once(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    session, station = hands.window.session, hands.window.fit_station
    hands.station(2)
    view, steps = station.benches.of("texture").view, station.steps
    steps._append("place")
    hands.settle()
    box = view._tool.box
    assert box == (0, 0, 128, 128)
    target = view._target(QRectF(view.rect()))
    start = (target.topLeft() + QPointF(30, 30)).toPoint()
    QTest.mousePress(view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start)
    QTest.mouseMove(view, start + QPoint(60, 40))
    hands.until(lambda: view._instead is not None, "the quick look", 5)
    assert session.swap(HULL).steps[0].values["left"] == 0  # type: ignore[union-attr]
    QTest.mouseRelease(
        view, Qt.MouseButton.LeftButton, Qt.KeyboardModifier.NoModifier, start + QPoint(60, 40)
    )
    hands.settle()
    moved = session.swap(HULL).steps[0].values  # type: ignore[union-attr]
    scale = target.width() / 512
    assert (moved["left"], moved["top"], moved["width"]) == (round(60 / scale), round(40 / scale), 128)


@pytest.mark.parametrize(
    ("original", "source", "kind"),
    [
        ("hud/oil_level.dds", "oil_copy.png", "gauge"), ("hud/badge_mail.dds", "moss_bright.png", "badge"),
        ("art/lamps/glow_warm.dds", "glow_green.png", "glow"), ("ensigns/large/fjell.tga", "ensign_large.png", "sizes"),
        ("art/water/tarn_normals.dds", "moss_bright.png", "normals"),
    ],
)  # fmt: skip
def test_the_roles_own_preview(
    hands: Hands, mod: Path, sources: Path, original: str, source: str, kind: str
) -> None:
    hands.open(mod)
    session, station = hands.window.session, hands.window.fit_station
    session.swaps.swap_with(original, sources / source)
    hands.settle()
    session.swaps.fit_all([original])
    hands.settle()
    hands.station(2)
    station.pick(original)
    hands.settle()
    bench = station.benches.of("texture")
    assert bench.content is not None and bench.content.scene is not None and bench.content.scene.kind == kind
    shown = bench.scene.grab().toImage()
    if kind in ("gauge", "glow", "normals"):
        bench.scene._slider.setValue(15)
        hands.settle()
        assert bench.scene.grab().toImage() != shown


def test_a_grey_sheet_is_seen_in_the_games_tints(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    session, station = hands.window.session, hands.window.fit_station
    original = "cast/passenger_idle.png"
    assert session.catalogue is not None
    copy = mod.parent / "passenger.png"
    copy.write_bytes(session.catalogue.read(session.catalogue.get(original)))
    session.swaps.swap_with(original, copy)
    hands.settle()
    hands.station(2)
    station.pick(original)
    hands.settle()
    bench = station.benches.of("sheet")
    bench.playing.go(0)
    seen = []
    for _ in range(4):
        seen.append((bench.tint.text(), bench.cells.grab().toImage()))
        hands.click(bench.tint)
    assert [text for text, _ in seen] == ["As stored", "Tint 1 of 3", "Tint 2 of 3", "Tint 3 of 3"]
    assert seen[0][1] != seen[1][1] != seen[2][1] and bench.tint.text() == "As stored"


def test_saving_the_source_in_another_program_is_noticed(hands: Hands, mod: Path, sources: Path) -> None:
    own = mod.parent / "own.png"
    shutil.copy(sources / "moss_bright.png", own)
    hands.open(mod)
    session = hands.window.session
    session.swaps.swap_with("art/rock/slate.dds", own)
    hands.settle()
    session.swaps.fit_all(["art/rock/slate.dds"])
    hands.settle()
    before = session.examined["art/rock/slate.dds"].key
    fresh = own.with_name("saving.tmp.png")
    Image.fromarray(np.full((300, 300, 4), (9, 80, 200, 255), np.uint8)).save(fresh)
    fresh.replace(own)
    hands.until(lambda: session.examined["art/rock/slate.dds"].key != before, "the change to be seen", 5)
    Image.fromarray(np.full((300, 300, 4), (200, 80, 9, 255), np.uint8)).save(own)
    second = session.examined["art/rock/slate.dds"].key
    hands.until(lambda: session.examined["art/rock/slate.dds"].key != second, "the next change to be seen", 5)


def test_a_wrong_file_is_refused_kindly_and_nothing_is_lost(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    before = load_project(mod)
    notes = mod.parent / "notes.bin"
    notes.write_bytes(b"\0\1\2 nothing")
    hands.station(2)
    hands.window.fit_station.pick("cast/otter_walk.png")
    hands.drop(notes, hands.window.fit_station.benches, QPointF(50, 50))
    hands.settle()
    point = hands.window.session.examined["cast/otter_walk.png"].points[0]
    assert point.state == "breaks" and point.remedy
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert load_project(mod) == before
    hands.window.session.open_mod(mod.parent / "nowhere.toml")
    hands.settle()
    assert hands.window.messages[-1].tone == "wrong" and "Traceback" not in hands.window.line.message
    assert hands.window.session.project == before


def test_steps_are_edited_switched_and_removed(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    hands.key("Ctrl+Return", hands.window)
    hands.settle()
    steps, session = hands.window.fit_station.steps, hands.window.session
    steps._append("brightness")
    hands.settle()
    swap = session.swap(HULL)
    assert swap is not None and [use.do for use in swap.steps] == ["size", "seamless", "brightness"]
    fresh = swap.steps[2].model_copy(update={"values": {"stops": -1.0}})
    steps._replace(2, fresh, "Change")
    hands.settle()
    darker = session.examined[HULL].key
    steps._move(2, 1)
    hands.settle()
    assert session.examined[HULL].key != darker
    steps._remove(0)
    hands.settle()
    swap = session.swap(HULL)
    assert swap is not None and [use.do for use in swap.steps] == ["brightness", "seamless"]


def test_the_mod_is_described_on_the_build_station(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(3)
    field: QLineEdit = hands.window.build_station._fields["author"]
    hands.type("Mira", field)
    hands.key("Return", field)
    hands.settle()
    assert load_project(mod).mod.author == "Mira"


def test_load_order_is_switched_by_hand(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.window.session.swaps.fit_all([HULL])
    hands.settle()
    hands.key("Ctrl+B", hands.window)
    hands.until(lambda: hands.window.session.builds.last is not None, "the build")
    hands.key("Ctrl+I", hands.window)
    hands.until(lambda: hands.window.session.game.installed, "the install")
    hands.station(4)
    hands.settle()
    view = hands.window.try_station.stack
    assert hands.window.try_station.report is not None
    hands.click(view, QPoint(view.width() - 20, 22))
    hands.until(lambda: not hands.window.session.game.stack[0].on, "the switch")
    hands.settle()
    assert not [word for word in hands.window.try_station.report.words if word.winner != "game"]


def test_the_quick_command_runs_what_is_typed(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.key("Ctrl+K", hands.window)
    dialog = hands.window.findChild(QuickCommand)
    assert dialog is not None
    hands.type("light or dark", dialog.field)
    hands.key("Return", dialog.field)
    hands.until(lambda: hands.window.look.theme == "light", "the theme to change")


def test_commands_have_names_of_their_own_keys_of_their_own_and_do_something(hands: Hands) -> None:
    ids, keys = [entry.id for entry in COMMANDS], [entry.key for entry in COMMANDS if entry.key]
    assert len(set(ids)) == len(ids) and len(set(keys)) == len(keys)
    for entry in COMMANDS:
        assert entry.tip and entry.text and callable(entry.run)
        if entry.need is not ALWAYS:  # nothing is open: nothing is met, and the words say what would be
            hands.window.run_command(entry.id)
            said = hands.window.messages[-1]
            assert said.tone == "wrong" and entry.need.words and said.text.endswith(entry.need.words)


def test_everything_has_an_accessible_name_or_text(hands: Hands, mod: Path) -> None:
    from PyQt6.QtWidgets import QAbstractButton, QComboBox, QLineEdit, QSlider

    hands.open(mod)
    for kind in (QAbstractButton, QComboBox, QLineEdit, QSlider):
        for widget in hands.window.findChildren(kind):
            text = widget.text() if isinstance(widget, QAbstractButton) else ""
            named = (
                widget.accessibleName() or widget.toolTip() or text or isinstance(widget.parent(), QLineEdit)
            )
            assert named, f"{widget} in {widget.parent()}"


def test_the_next_start_goes_on_where_the_last_one_ended(
    application: QApplication, mod: Path, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    import furnel.desktop.application as module
    from furnel.desktop import run
    from furnel.desktop.recent import load_recent

    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    real, opened = module.make_window, []

    def watched(**given: Any) -> object:
        window = real(**given)
        opened.append(window)
        window.session.opened.connect(lambda: window.window().close())
        return window

    monkeypatch.setattr(module, "make_window", watched)
    for given in ([mod], []):
        assert run(given) == 0
        assert load_recent().project == str(mod)


def test_a_start_with_a_source_goes_on_with_the_last_mod_and_takes_it(
    application: QApplication, mod: Path, sources: Path, monkeypatch: pytest.MonkeyPatch, tmp_path: Path
) -> None:
    import furnel.desktop.application as module
    from furnel.desktop import run

    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    real, shown = module.make_window, []

    def watched(**given: Any) -> object:
        window = real(**given)

        def look() -> None:
            shown.append("match_sheet" in vars(window.pages) and window.pages.match_sheet.isVisible())
            window.window().close()

        window.session.opened.connect(lambda: QTimer.singleShot(0, look))
        return window

    monkeypatch.setattr(module, "make_window", watched)
    assert [run([mod]), run([sources / "dusk_paint.jpg"])] == [0, 0]
    assert shown == [False, True]


def test_a_selected_asset_is_swapped_taken_out_and_copied_by_key(
    hands: Hands, mod: Path, sources: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    path = "art/rock/slate.dds"
    hands.find("slate", path)
    hands.key("Ctrl+Shift+C", hands.window)
    clipboard = QApplication.clipboard()
    assert clipboard is not None and clipboard.text() == path
    monkeypatch.setattr(picking, "pick_folder", lambda *_: tmp_path / "out")
    monkeypatch.setattr("furnel.desktop.find.take.TakeDialog.exec", lambda _: 1)
    hands.key("Ctrl+T", hands.window)
    hands.settle()
    assert (tmp_path / "out" / path).stat().st_size > 1000
    monkeypatch.setattr(picking, "pick_file", lambda *_: sources / "moss_bright.png")
    hands.key("Ctrl+E", hands.window)
    hands.settle()
    assert load_project(mod).swap_for(path) is not None
    assert (
        hands.window.fit_station.current == path
        and hands.window.stations.currentWidget() is hands.window.fit_station
    )
    hands.key("Del", hands.window)
    hands.settle()
    assert load_project(mod).swap_for(path) is None


def test_a_game_is_opened_and_a_mod_begun_from_nothing(
    hands: Hands, game: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(picking, "pick_folder", lambda *_: game)
    hands.key("Ctrl+Shift+O", hands.window)
    hands.settle()
    assert hands.window.find_station.wall.shown == 203
    monkeypatch.setattr("furnel.desktop.newmod.ask_new_mod", lambda *_: (tmp_path / "new", "Evening Post"))
    hands.key("Ctrl+N", hands.window)
    hands.until(lambda: hands.window.session.project is not None, "the mod to begin")
    hands.settle()
    assert load_project(tmp_path / "new" / "furnel.toml").mod.id == "evening-post"


def test_every_step_shows_what_it_gives(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    hands.window.fit_station.pick("cast/otter_walk.png")
    hands.settle()
    steps = hands.window.fit_station.steps
    assert len(steps._thumbs) == 3 and all(
        thumb.tile is not None and thumb.tile.image for thumb in steps._thumbs
    )
    hands.window.fit_station.pick("bank0/000.wav")
    hands.settle()
    assert [thumb.tile.waveform is not None for thumb in steps._thumbs if thumb.tile] == [True] * len(
        steps._thumbs
    )
