"""Parts of the window by themselves: fields of settings, the encoding card, the role's preview, the line at the bottom."""

from __future__ import annotations

import shutil
import time
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands
from PyQt6.QtCore import Qt
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import (
    QAbstractSpinBox,
    QApplication,
    QCheckBox,
    QComboBox,
    QLabel,
    QLineEdit,
    QMenu,
    QPushButton,
    QSlider,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.fit.benches import BENCHES
from furnel.desktop.fit.encoding import encoding_card, summary
from furnel.desktop.fit.fields import parameter_field
from furnel.desktop.fit.scene import scene_of
from furnel.desktop.jobs import JobRunner
from furnel.desktop.look import Look
from furnel.desktop.session import Notice
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.jobline import JobLine
from furnel.games import keep_profile, profile_text, survey
from furnel.images.picture import Picture
from furnel.media import KINDS, MEDIA, PICTURE, Encode
from furnel.mods.steps import STEP_TYPES, Parameter, Value
from furnel.mods.workspace import Workspace, create_project
from furnel.progress import Progress
from tests.conftest import digest

SETTINGS = [(step.id, setting) for step in STEP_TYPES.values() for setting in step.parameters]


@pytest.mark.parametrize(("step", "setting"), SETTINGS, ids=[f"{step}-{one.name}" for step, one in SETTINGS])
def test_a_settings_field_shows_it_and_gives_only_what_is_allowed(
    application: QApplication, step: str, setting: Parameter
) -> None:
    took: list[Value] = []
    field = parameter_field(setting, setting.default, took.append, took.append)
    assert field.accessibleName() == setting.label
    if isinstance(field, QCheckBox):
        field.click()
        assert took == [not setting.default]
    elif isinstance(field, QComboBox):
        assert field.currentText() == setting.default
        field.activated.emit(field.count() - 1)
        assert took == [setting.choices[-1]]
    elif isinstance(field, QLineEdit):
        assert field.text() == setting.default
        QTest.keyClicks(field, "1 2f")  # type: ignore[arg-type]  # the stub takes it for a method
        QTest.keyClick(field, Qt.Key.Key_Return)
        assert took == ["1 2f"]
    elif not isinstance(field, QPushButton):
        spin = field if isinstance(field, QAbstractSpinBox) else field.findChild(QAbstractSpinBox)
        assert spin is not None
        for key in (Qt.Key.Key_Up, Qt.Key.Key_Down, Qt.Key.Key_Down):
            QTest.keyClick(spin, key)
        if slider := field.findChild(QSlider):
            for place in (slider.minimum(), slider.maximum()):
                slider.setValue(place)
        assert took
    for value in took:
        setting.checked(value, step)
    field.deleteLater()


def test_a_file_that_is_chosen_is_taken_and_none_is_nothing(
    application: QApplication, monkeypatch: pytest.MonkeyPatch
) -> None:
    setting = Parameter("file", "File", "file", "")
    took: list[Value] = []
    field = parameter_field(setting, "sounds/over.wav", took.append, took.append)
    assert isinstance(field, QPushButton) and field.text() == "over.wav"
    for answer in (None, Path("/tmp/other.wav")):
        monkeypatch.setattr(picking, "pick_file", lambda *_, answer=answer, **__: answer)
        field.click()
    assert took == ["/tmp/other.wav"]


def card(encode: Encode, took: list[Encode], unfolded: bool = True) -> QWidget:
    holder = QWidget()
    encoding_card(Look(), encode, QVBoxLayout(holder), unfolded, lambda: None, took.append)
    return holder


@pytest.mark.parametrize(
    ("encode", "choices"),
    [
        (Encode(file="DDS", format="BC1", levels=3, notes={"header": "legacy"}),
         {"Format": ("BC7", "format"), "Levels": ("5", "levels"), "Header": ("DX10", "header"),
          "Colours weigh": ("as seen", "weighting"), "Levels made as": ("crisp", "levels_as")}),
        (Encode(file="TGA", format="BGRA8", notes={"rows": "bottom first"}),
         {"Rows": ("top first", "rows"), "Run-length": ("on", "run-length")}),
        (Encode(file="KTX2", format="BC7", levels=2),
         {"Packing": ("zlib", "supercompression"), "Colour space": ("off", "srgb")}),
        (Encode(file="Ogg", format="Vorbis"), {"File": ("WAV", "file")}),
        (Encode(file="WAV", format="PCM 16"), {"Codec": ("PCM 24", "format")}),
    ],
)  # fmt: skip
def test_the_encoding_card_offers_what_the_files_record_says(
    application: QApplication, encode: Encode, choices: dict[str, tuple[str, str]]
) -> None:
    for name, (choice, key) in choices.items():
        took: list[Encode] = []
        holder = card(encode, took)
        box = next(box for box in holder.findChildren(QComboBox) if box.accessibleName() == name)
        assert choice in [box.itemText(place) for place in range(box.count())]
        box.activated.emit(box.findText(choice))
        (changed,) = took
        found = changed.notes.get(key, str(getattr(changed, key.replace("-", "_"), "")))
        assert found == choice and Encode.model_validate(changed.model_dump()) == changed
        holder.deleteLater()
    folded = card(encode, [], False)
    assert not [box for box in folded.findChildren(QComboBox) if box.accessibleName() in choices]


def test_an_encoding_in_short_names_what_matters() -> None:
    cube = Encode(
        file="DDS",
        format="BC3",
        levels=4,
        levels_as="cut-out",
        shape="cube",
        pictures=6,
        notes={"header": "DX10"},
    )
    assert summary(cube) == "BC3, 6 faces, 4 levels as cut-out, header DX10"
    assert summary(Encode(file="PNG", format="RGBA8", notes={"mode": "palette", "table": "00"})) == "PNG"
    assert summary(Encode(file="TGA", format="BGRA8", notes={"rows": "top first"})) == "TGA, rows top first"


def test_every_kind_with_something_to_see_has_one_bench() -> None:
    kinds = [kind for bench in BENCHES for kind in bench.kinds]
    assert len(kinds) == len(set(kinds)) and set(kinds) == set(KINDS) - set(MEDIA[-1].kinds)


@pytest.mark.parametrize(
    ("path", "kind"),
    [
        ("hud/oil.dds", "gauge"), ("hud/oil_level.dds", "gauge"), ("art/lamps/glow_warm.dds", "glow"),
        ("ensigns/small/kettle.tga", "sizes"), ("hud/badge_mail.dds", "badge"), ("art/water/tarn_normals.dds", "normals"),
        ("art/sails/sail_heron.dds", ""),
    ],
)  # fmt: skip
def test_the_game_shows_what_its_profile_says_a_picture_is_for(
    space: Workspace, path: str, kind: str
) -> None:
    original = PICTURE.opened(space.catalogue.bytes_of(path), path)
    yours = Picture(original.pixels // 2)
    scene = scene_of(path, original, yours, space.catalogue, {})
    assert (scene.kind if scene is not None else "") == kind
    if scene is None:
        return
    for amount in (0.0, 0.5, 1.0):
        theirs, mine = (scene.shown(side, amount, (0.3, 0.4)) for side in (0, 1))
        assert [one.size for one in theirs] == [one.size for one in mine]
    assert any((a.pixels != b.pixels).any() for a, b in zip(theirs, mine, strict=True))
    other = Picture(np.zeros((8, 8, 4), np.uint8))
    assert scene_of(path, original, other, space.catalogue, {}) is None


def test_a_gauge_is_fuller_with_more_in_it(space: Workspace) -> None:
    original = PICTURE.opened(space.catalogue.bytes_of("hud/oil.dds"), "hud/oil.dds")
    scene = scene_of("hud/oil.dds", original, original, space.catalogue, {})
    assert scene is not None
    empty, half, full = (
        scene.shown(0, amount, (0.5, 0.5))[0].pixels.astype(int) for amount in (0.02, 0.5, 1.0)
    )
    assert 0 < np.abs(half - empty).sum() < np.abs(full - empty).sum()


def turn(until: Callable[[], object], seconds: float = 60.0) -> None:
    end = time.monotonic() + seconds
    while not until():
        assert time.monotonic() < end
        QApplication.processEvents()
        time.sleep(0.005)


def test_the_line_shows_what_takes_long_and_stops_it(application: QApplication) -> None:
    jobs = JobRunner()
    line = JobLine(Look(), jobs)
    line.show()
    cancel = next(part for part in line.findChildren(QPushButton) if part.text() == "cancel")
    ended: list[str] = []

    def work(progress: Progress) -> None:
        progress.report(0.4, "Rowing")
        while not progress.cancelled():
            time.sleep(0.005)

    line.tell(Notice("calm", "Built"))
    jobs.start("Rowing home", work, lambda _: ended.append("done"), lambda _: ended.append("refused"))
    assert not cancel.isVisible() and line.message == "Built"
    turn(cancel.isVisible)
    cancel.click()
    turn(lambda: not jobs.busy() and not cancel.isVisible())
    assert ended in ([], ["refused"]) and line.message == "Built"
    jobs.stop()
    line.deleteLater()


def test_of_several_jobs_each_is_stopped_by_its_name(
    application: QApplication, monkeypatch: pytest.MonkeyPatch
) -> None:
    jobs = JobRunner()
    line = JobLine(Look(), jobs)
    line.show()
    cancel = next(part for part in line.findChildren(QPushButton) if part.text() == "cancel")

    def work(progress: Progress) -> None:
        while not progress.cancelled():
            time.sleep(0.005)

    for title in ("Rowing home", "Mending nets"):
        jobs.start(title, work, lambda _: None, lambda _: None, lane="eye")
    turn(lambda: cancel.text() == "cancel…")
    offered: list[str] = []

    def choose(menu: QMenu, *_: object) -> None:
        offered.extend(one.text() for one in menu.actions())
        menu.actions()[1].trigger()

    monkeypatch.setattr(QMenu, "exec", choose)
    cancel.click()
    turn(lambda: jobs.busy() == 1 and cancel.text() == "cancel")
    assert offered == ["Rowing home", "Mending nets"]
    cancel.click()
    turn(lambda: not jobs.busy())
    jobs.stop()
    line.deleteLater()


def test_a_new_game_needs_a_name_a_place_for_mods_and_something_to_open(hands: Hands, game: Path) -> None:
    page = hands.window.pages.new_game_page
    hands.window.pages.describe_game(game)
    hands.until(page.start.isEnabled, "the folder to be looked through")
    assert page.name.text() and "assets in" in page.said.text()
    assert (
        page.ways.goes == "in-place" and not page.mods.isVisible()
    )  # nobody said that the game knows of mods
    page.ways.go("mirror")
    for field in (page.name, page.mods):
        before = field.text()
        field.setText("  ")
        assert not page.start.isEnabled()
        field.setText(before)
        assert page.start.isEnabled()
    empty = game / "mods"
    empty.mkdir(exist_ok=True)
    hands.window.pages.describe_game(empty)
    hands.settle()
    assert not page.start.isEnabled() and "work out one of its archives" in page.said.text()


def test_a_game_that_knows_nothing_of_mods_gets_one_and_its_own_files_back(
    hands: Hands, game: Path, sources: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "own-state"))
    moss = tmp_path / "moss harbour"
    shutil.copytree(game, moss, ignore=shutil.ignore_patterns("mods", "tarnlight.toml"))
    before = digest(moss)
    window = hands.window
    session = window.session
    window.pages.describe_game(moss)
    hands.until(window.pages.new_game_page.start.isEnabled, "the folder to be looked through")
    hands.click(window.pages.new_game_page.start)
    hands.until(
        lambda: session.catalogue is not None and session.catalogue.install.folder == moss, "the game to open"
    )
    hands.open(create_project(tmp_path / "own", "Evening Post", moss))
    session.swaps.swap_with("bank0/000.wav", sources / "church_bell.mp3")
    hands.settle()
    session.swaps.fit_all(["bank0/000.wav"])
    hands.settle()
    window.run_command("build")
    hands.until(lambda: session.builds.last is not None and not session.builds.stale, "the build")
    window.run_command("install")
    hands.until(lambda: session.game.presence == "built", "the install")
    assert digest(moss) != before
    hands.station(4)
    shown = window.try_station.stack  # the station is made only now, and has the mod and the game in it
    assert shown.height() == 2 * 46 and "game's own files" in shown.toolTip()
    hands.key("Return", shown)
    hands.settle()
    assert (
        session.game.presence == "built" and not (moss / "mods").exists()
    )  # there is no order to switch it off in
    window.run_command("remove")
    hands.until(lambda: session.game.presence == "", "the removal")
    assert digest(moss) == before


def test_several_originals_are_swapped_as_one_change(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    before = session.project
    pairs = [(f"ensigns/{size}/fjell.tga", sources / f"ensign_{size}.png") for size in ("small", "medium")]
    done: list[bool] = []
    session.swaps.swap_many([*pairs, ("ensigns/large/fjell.tga", mod)], lambda: done.append(True))
    hands.until(lambda: done, "both to be swapped")
    assert session.project is not None and before is not None
    assert {swap.original for swap in session.project.swaps} - {swap.original for swap in before.swaps} == {
        path for path, _ in pairs
    }
    assert hands.window.messages[-1].tone == "wrong" and "1 of 3 files" in hands.window.messages[-1].text
    session.undo()
    assert session.project == before
    session.redo()
    hands.settle()
    assert all(session.examined[path].state != "breaks" for path, _ in pairs)


def test_without_a_mod_a_swap_says_how_to_begin_one(hands: Hands, game: Path, sources: Path) -> None:
    session = hands.window.session
    session.open_game(game)
    hands.until(lambda: session.catalogue is not None, "the game to open")
    session.swaps.swap_with("ensigns/small/moss.tga", sources / "ensign_small.png")
    said = hands.window.messages[-1]
    assert said.tone == "wrong" and "New mod" in said.text and "Ctrl+N" in said.text


def test_what_is_known_of_a_game_is_changed_later_and_its_start_is_tried(
    hands: Hands, game: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "own-state"))
    moss = tmp_path / "moss"
    shutil.copytree(game / "data", moss / "data")
    keep_profile(profile_text(survey(moss), "Moss Harbour"))
    window, session = hands.window, hands.window.session
    session.open_game(moss)
    hands.until(lambda: session.catalogue is not None, "the game to open")
    hands.settle()
    assert not session.game.can_start
    window.run_command("this-game")
    page = window.pages.game_page
    hands.settle()
    assert page.isVisible() and not page.keep.isEnabled() and not page.try_it.isEnabled()
    page.play.setText("""python -c "raise SystemExit('the harbour is shut')" """)
    hands.click(page.try_it)
    hands.until(
        lambda: any("the harbour is shut" in one.text() for one in page.findChildren(QLabel)),
        "its last words",
    )
    page.play.setText("python -c pass")
    hands.click(page.try_it)
    hands.until(
        lambda: any("without an error" in one.text() for one in page.findChildren(QLabel)), "the start"
    )
    page.ways.go("mirror")
    page.ways.folder.setText("")
    assert not page.keep.isEnabled()
    page.ways.folder.setText("override")
    hands.click(page.keep)
    hands.until(lambda: session.game.can_start, "the game to be opened anew")
    assert session.catalogue is not None and session.catalogue.install.profile.mods.goes == "mirror"
    assert not page.isVisible()
