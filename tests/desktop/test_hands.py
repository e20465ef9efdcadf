"""Menus where things are, steps from swap to swap, and the quick command: ranked, forgiving, and it says why not."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QMimeData, QPoint, QPointF, Qt, QUrl
from PyQt6.QtGui import QColor, QContextMenuEvent, QDesktopServices, QImage
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QPushButton, QWidget

from furnel.desktop.ranking import fit, ranked
from furnel.desktop.widgets.quickcommand import QuickCommand
from tests.desktop.menuing import menu_on

HULL, WALK = "art/hulls/hull_otter.dds", "cast/otter_walk.png"


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def test_a_tile_has_a_menu_of_what_can_be_done_with_it(
    hands: Hands, mod: Path, menus: Callable[[str], list[dict[str, bool]]], monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    window, wall = hands.window, hands.window.find_station.wall
    hands.find("slate", "art/rock/slate.dds")
    seen = menus("Copy inner path")
    menu_on(wall.viewport(), wall.tile_rect("art/rock/slate.dds").center().toPoint())
    clipboard = QApplication.clipboard()
    assert clipboard is not None and clipboard.text() == "art/rock/slate.dds"
    assert seen[0]["Swap with a file…"] and not seen[0]["Open its source"] and not seen[0]["Remove the swap"]
    window.find_station.sieve.text.clear()
    hands.settle()
    wall.select(HULL)
    opened: list[str] = []
    monkeypatch.setattr(
        QDesktopServices, "openUrl", lambda url: bool(opened.append(url.toLocalFile())) or True
    )
    seen = menus("Open its source")
    menu_on(
        wall.viewport(), QPoint(), QContextMenuEvent.Reason.Keyboard
    )  # the key for menus, on what is selected
    assert seen[0]["Remove the swap"] and opened and opened[0].endswith("dusk_paint.jpg")
    before = len(seen)
    menu_on(wall.viewport(), QPoint(2, 2))  # beside the tiles
    assert len(seen) == before


def test_steps_go_from_swap_to_swap_and_back_by_undo(
    hands: Hands, mod: Path, sources: Path, menus: Callable[[str], list[dict[str, bool]]]
) -> None:
    hands.open(mod)
    session, window = hands.window.session, hands.window
    session.swaps.swap_with("art/hulls/hull_heron.dds", sources / "dusk_paint.jpg")
    hands.settle()
    session.swaps.fit_all([HULL])
    hands.settle()
    hands.station(2)
    rows = window.fit_station.queue.rows
    window.fit_station.pick(HULL)
    menus("Copy its steps")
    menu_on(rows, QPoint(), QContextMenuEvent.Reason.Keyboard)
    assert session.swaps.copied and "Copied" in window.messages[-1].text
    window.fit_station.pick("art/hulls/hull_heron.dds")
    seen = menus("Use the copied steps")
    menu_on(rows, QPoint(), QContextMenuEvent.Reason.Keyboard)
    hands.settle()
    assert seen[0]["Use the copied steps"]
    assert session.swap("art/hulls/hull_heron.dds").steps == session.swap(HULL).steps != ()
    hands.key("Ctrl+Z", window)
    hands.settle()
    assert session.swap("art/hulls/hull_heron.dds").steps == ()
    menus("Show the original")
    menu_on(rows, QPoint(), QContextMenuEvent.Reason.Keyboard)
    assert (
        window.stations.shown == "find"
        and window.find_station.wall.current().path == "art/hulls/hull_heron.dds"
    )


def test_a_mod_of_the_stack_has_a_menu(
    hands: Hands, mod: Path, menus: Callable[[str], list[dict[str, bool]]]
) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    session.swaps.fit_all([HULL])
    hands.settle()
    hands.key("Ctrl+B", window)
    hands.settle()
    hands.key("Ctrl+I", window)
    hands.until(lambda: session.game.installed, "the install")
    hands.station(4)
    hands.settle()
    seen = menus("Switch it off")
    assert window.try_station.stack.accessibleDescription() == f"{session.game.stack[0].name}, on, the winner"
    menu_on(window.try_station.stack, QPoint(40, 20))
    hands.until(lambda: not session.game.stack[0].on, "the switch")
    hands.settle()
    assert (
        window.try_station.stack.accessibleDescription() == f"{session.game.stack[0].name}, off, the winner"
    )
    assert seen[0]["Show in folder"] and seen[0]["Take it off…"]


def quick(hands: Hands) -> QuickCommand:
    hands.key("Ctrl+K", hands.window)
    shown = [one for one in hands.window.findChildren(QuickCommand) if one.isVisible()]
    assert len(shown) == 1
    return shown[0]


def listed(dialog: QuickCommand) -> list[str]:
    role = Qt.ItemDataRole.AccessibleTextRole
    return [dialog.list.item(row).data(role) for row in range(dialog.list.count())]


def test_the_quick_command_forgives_a_slip_finds_assets_and_says_why_not(hands: Hands, mod: Path) -> None:
    dialog = quick(hands)
    hands.type("pacakge", dialog.field)
    assert listed(dialog)[0].startswith("Package: start or open a mod first")
    hands.key("Return", dialog.field)
    hands.settle()
    assert hands.window.messages[-1].text == "Package: start or open a mod first"
    hands.open(mod)
    dialog = quick(hands)
    hands.type("hull_otter", dialog.field)
    assert [line.partition(":")[2] for line in listed(dialog)[:2]] == [
        f" your swap, {HULL}",
        f" on the wall, {HULL}",
    ]
    hands.key("Return", dialog.field)
    hands.settle()
    assert hands.window.stations.shown == "fit" and hands.window.fit_station.current == HULL
    dialog = quick(hands)
    hands.type("slate", dialog.field)
    hands.key("Return", dialog.field)
    hands.settle()
    assert hands.window.find_station.wall.current().path == "art/rock/slate.dds"


def test_what_was_used_last_comes_first(hands: Hands) -> None:
    dialog = quick(hands)
    first = listed(dialog)[0]
    hands.type("light or dark", dialog.field)
    hands.key("Return", dialog.field)
    hands.settle()
    dialog = quick(hands)
    assert listed(dialog)[0].startswith("Light or dark") and not first.startswith("Light or dark")
    hands.key("Esc", dialog.field)


@pytest.mark.parametrize(
    ("wanted", "better", "worse"),
    [
        ("take", "Take out…", "Undo take"), ("open", "Open a mod", "Reopen"), ("biuld", "Build", "Package"),
        ("copy path", "Copy inner path", "Copy its steps"), ("where", "Where mods meet", "Show the folder where"),
    ],
)  # fmt: skip
def test_a_better_fit_comes_first(wanted: str, better: str, worse: str) -> None:
    assert ranked(wanted, [worse, better], lambda one: (one, "", 1.0), 9)[0] == better
    assert fit(wanted, better) > fit(wanted, worse) and fit("zzzz", better) == 0


def _mark(hands: Hands, *paths: str) -> None:
    wall = hands.window.find_station.wall
    for path, keys in zip(
        paths, [Qt.KeyboardModifier.NoModifier, *[Qt.KeyboardModifier.ControlModifier] * 9], strict=False
    ):
        hands.until(lambda path=path: not wall.tile_rect(path).isEmpty(), f"{path} on the wall")
        QTest.mouseClick(
            wall.viewport(), Qt.MouseButton.LeftButton, keys, wall.tile_rect(path).center().toPoint()
        )
    assert {asset.path for asset in wall.chosen()} == set(paths)


def test_one_file_for_several_originals_and_back_in_one_step(
    hands: Hands, mod: Path, sources: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    window.find_station.sieve.text.setText("art/hulls -otter")
    hands.settle()
    wanted = ["art/hulls/hull_heron.dds", "art/hulls/hull_mail.dds", "art/hulls/hull_skiff.dds"]
    before = session.project
    _mark(hands, *wanted)
    monkeypatch.setattr(
        "furnel.desktop.widgets.picking.pick_file", lambda *_, **__: sources / "dusk_paint.jpg"
    )
    window.run_command("swap")
    hands.settle()
    assert {session.examined[path].state for path in wanted} <= {"fits", "differs"}, (
        "each was made to fit its own original"
    )
    hands.key("Del", window)
    hands.settle()
    assert not any(session.swap(path) for path in wanted) and "3 assets" in window.messages[-1].text
    hands.key("Ctrl+Z", window)
    assert all(session.swap(path) for path in wanted)
    hands.key("Ctrl+Z", window)
    assert session.project == before
    _mark(hands, *wanted[:2])
    wall = window.find_station.wall
    hands.drop(sources / "dusk_paint.jpg", wall.viewport(), wall.tile_rect(wanted[1]).center())
    hands.settle()
    assert [bool(session.swap(path)) for path in wanted] == [True, True, False], (
        "a drop on one of the marked is for all of them"
    )


def test_a_copied_picture_becomes_a_source_of_the_mod(hands: Hands, mod: Path, tmp_path: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    clipboard = QApplication.clipboard()
    assert clipboard is not None
    picture = QImage(64, 48, QImage.Format.Format_RGB32)
    picture.fill(QColor(10, 200, 30))
    clipboard.setImage(picture)
    window.find_station.wall.select("art/rock/slate.dds")
    hands.key("Ctrl+V", window)
    hands.until(lambda: session.swap("art/rock/slate.dds") is not None, "the swap")
    swap = session.swap("art/rock/slate.dds")
    assert swap is not None and session.space is not None
    kept = session.space.source_path(swap)
    assert kept.parent == mod.parent / "sources"
    with Image.open(kept) as read:
        assert read.size == (64, 48) and read.convert("RGB").getpixel((5, 5)) == (10, 200, 30)
    assert window.stations.shown == "fit"
    window.go("find")
    window.find_station.sieve.text.setText("art/hulls -otter")
    hands.settle()
    several = ["art/hulls/hull_heron.dds", "art/hulls/hull_mail.dds"]
    _mark(hands, *several)
    for _ in range(2):  # as fast as a hand can: no picture takes the place of another
        hands.key("Ctrl+V", window)
    hands.settle()
    assert all(session.swap(path) is not None for path in several)
    assert len(list((mod.parent / "sources").glob("*pasted*.png"))) == 3
    window.find_station.sieve.text.clear()
    hands.settle()
    clipboard.setText("no picture")
    hands.key("Ctrl+V", window)
    assert "neither a picture nor a file" in window.messages[-1].text
    data = QMimeData()
    data.setImageData(picture)
    data.setUrls([QUrl("https://example.com/green.png")])
    window.go("find")
    wall = window.find_station.wall
    assert wall.select("art/rock/granite.dds") or wall.select("art/hulls/hull_mail.dds")
    target = wall.current()
    assert target is not None
    hands.drop_data(data, wall.viewport(), wall.tile_rect(target.path).center())
    hands.until(lambda: session.swap(target.path) is not None, "the dropped picture")


def test_the_search_leads_to_the_wall_and_what_holds_back_is_let_go_of(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    station = hands.window.find_station
    every = station.wall.shown
    hands.key("Ctrl+F", hands.window)
    hands.type("huls", station.sieve.text)
    hands.until(lambda: 0 < station.wall.shown < 20, "what comes nearest")
    hands.key("Down", station.sieve.text)
    first = station.wall.current()
    assert station.wall.hasFocus() and first is not None and first.path.startswith("art/hulls/")
    station.sieve.kinds.choose("texture")
    hands.settle()
    chips = [
        part
        for part in station.head.findChildren(QPushButton)
        if part.isVisible() and part.text().endswith("×")
    ]
    assert [chip.text().removesuffix("×").strip() for chip in chips] == ["“huls”", "Textures"]
    for chip in chips:
        hands.click(chip)
    hands.until(lambda: station.wall.shown == every, "the whole wall")


def test_points_steps_and_the_builds_rows_have_menus(
    hands: Hands, mod: Path, menus: Callable[[str], list[dict[str, bool]]]
) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    hands.station(2)
    window.fit_station.pick(HULL)
    hands.settle()
    table = window.fit_station.table.table
    place = next(row for row, point in enumerate(table.points) if point.key == "size")
    seen = menus("Match it")
    menu_on(table, QPoint(40, 22 + 25 * place + 10))
    hands.settle()
    swap = session.swap(HULL)
    assert swap is not None and [use.do for use in swap.steps] == ["size"]
    assert seen[0] == {"Match it": True, "Keep yours": True, "Show where": False, "Copy as text": True}
    session.swaps.fit_all([HULL])
    hands.settle()

    def order() -> list[str]:
        swap = session.swap(HULL)
        return [use.do for use in swap.steps] if swap is not None else []

    steps = order()
    assert len(steps) > 1

    def card(number: int) -> QWidget:
        return next(
            part
            for part in window.fit_station.steps.findChildren(QWidget)
            if part.accessibleName() == f"Step {number}"
        )

    menus("Later")
    menu_on(card(1), QPoint(5, 5))
    hands.settle()
    assert order() == [steps[1], steps[0], *steps[2:]]
    title = card(2).findChildren(QPushButton)[0]
    hands.key("Alt+Up", title)
    hands.settle()
    assert order() == steps
    dragged, target = card(1).findChildren(QPushButton)[0], card(2)
    to = dragged.mapFromGlobal(target.mapToGlobal(target.rect().center()))
    hands.drag(dragged, QPointF(5, 5), QPointF(to))
    hands.settle()
    assert order()[:2] == steps[1::-1]
    hands.station(3)
    hands.settle()
    contents = window.build_station.contents
    seen = menus("Remove the swap")
    menu_on(contents, QPoint(60, 26 + 58 * contents.names.index(HULL) + 20))
    assert session.swap(HULL) is None and seen[0]["Put it on the bench"]


def test_the_queue_stays_in_its_order_until_it_is_asked(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    window, session = hands.window, hands.window.session
    hands.station(2)
    hands.settle()
    queue = window.fit_station.queue
    before = list(queue.rows.order)
    assert before[0] == HULL and not queue.anew.isVisible(), "the worst one first"
    session.swaps.swap_with(WALK, sources / "dusk_paint.jpg")
    hands.settle()
    session.swaps.set_swap(session.swap(WALK).model_copy(update={"steps": ()}), "No steps")
    hands.settle()
    assert session.examined[WALK].state == "breaks"
    assert queue.rows.order == before, "it does not run away from under the hand"
    assert queue.anew.isVisible()
    hands.click(queue.anew)
    assert queue.rows.order != before and not queue.anew.isVisible()
    queue.sort.setCurrentText("by name")
    queue.sort.activated.emit(1)
    names = [session.name_of(path).casefold() for path in queue.rows.order]
    assert names == sorted(names)
    session.swaps.remove_swap(WALK)
    hands.settle()
    assert WALK not in queue.rows.order and len(queue.rows.order) == len(before) - 1
    hands.key("Ctrl+Z", window)
    hands.settle()
    assert queue.rows.order[0] == WALK, "what is new comes first"
    queue.seek.setText("playlist")
    assert set(queue.rows.order) == {"rules/playlist.json", queue.rows.current}
    window.open_bench("bank0/000.wav")
    assert queue.seek.text() == "" and queue.rows.current == "bank0/000.wav", "what is asked for is shown"
    assert set(queue.rows.order) == set(before)
