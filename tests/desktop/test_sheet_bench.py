"""The sheet bench by mouse and keys: a stranger's walker into the game, exact colours, single pixels, tiles, places shown."""

from __future__ import annotations

from collections.abc import Callable
from itertools import pairwise
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtGui import QColor
from PyQt6.QtTest import QTest
from PyQt6.QtWidgets import QApplication, QLineEdit, QMenu, QPushButton, QWidget

from furnel.desktop.fit.sheet_bench import SheetBench
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.colours import ColourChooser, Swatches
from furnel.imagefiles import read_frames, read_layers
from tarnlight.scenes import Stage
from tarnlight.world import World
from tests.desktop.menuing import menu_on

SHORE, DOCK, WALK, GREY = (
    "cast/ferryman_shore.png",
    "tiles/dock.png",
    "cast/otter_walk.png",
    "cast/otter_grey_walk.png",
)


class Counting:
    """Hands that count what they do, and let everything end after it."""

    def __init__(self, hands: Hands) -> None:
        self._hands, self.actions = hands, 0

    def __getattr__(self, name: str) -> Any:
        act = getattr(self._hands, name)

        def counted(*args: Any) -> None:
            self.actions += {"find": 3, "station": 1, "settle": 0}.get(name, 1)
            act(*args)
            self._hands.settle()

        return counted


def on_bench(hands: Hands, original: str, source: Path) -> SheetBench:
    """A fitted swap on the bench."""
    session = hands.window.session
    session.swaps.swap_with(original, source)
    hands.settle()
    session.swaps.fit_all([original])
    hands.settle()
    hands.station(2)
    hands.window.fit_station.pick(original)
    hands.settle()
    bench = hands.window.fit_station.benches.shown
    assert isinstance(bench, SheetBench)
    return bench


def part(root: QWidget, kind: type[QPushButton], text: str) -> QPushButton:
    return next(one for one in root.findChildren(kind) if one.text() == text and one.isVisible())


def result(hands: Hands, original: str) -> Any:
    import io

    return np.asarray(Image.open(io.BytesIO(hands.window.session.examined[original].data)).convert("RGBA"))


def drag_figure(hands: Any, bench: SheetBench, figure: int, cell: int) -> None:
    assert bench.content is not None and bench.source.figures.found is not None
    start = bench.source.part(bench.source.figures.found.poses[figure].box).center()
    there = bench.cells.mapToGlobal(bench.cells.part(bench.content.grid.box(cell)).center().toPoint())
    hands.drag(bench.source, start, QPointF(bench.source.mapFromGlobal(there)))


def test_a_strangers_walker_becomes_the_ferryman_in_few_actions(
    hands: Hands, mod: Path, sources: Path, game: Path
) -> None:
    hands.open(mod)
    hand, window = Counting(hands), hands.window
    for other in ("art/hulls/hull_otter.dds", "rules/playlist.json"):
        window.session.swaps.remove_swap(other)
    hand.find("ferryman shore", SHORE)
    hand.drop_on_tile(sources / "stranger_walker.png", SHORE)
    hand.station(2)
    hands.window.fit_station.pick(SHORE)
    hands.settle()
    hand.key("Ctrl+Return", window)
    bench = window.fit_station.benches.shown
    assert isinstance(bench, SheetBench) and bench.content is not None
    assert bench.content.figures.found is not None and len(bench.content.figures.found.poses) == 6
    hand.click(bench.mirror)
    drag_figure(hand, bench, 2, 11)  # a step in his rest, too
    hand.click(bench.cells, bench.cells.part(bench.content.grid.box(6)).center().toPoint())
    hand.key("Shift+Up", bench.cells)
    assert {point.state for point in window.session.examined[SHORE].points} == {"fits"}
    hand.key("Ctrl+B", window)
    hands.until(lambda: window.session.builds.last is not None, "the build")
    hand.key("Ctrl+I", window)
    hands.until(lambda: window.session.game.installed, "the install")
    assert hand.actions < 25
    world = World(game)
    word = next(one for one in world.verdicts() if one.path == SHORE)
    assert (word.verdict, word.winner) == ("accepted", "evening-post")
    stage = Stage(world, "shore")
    seen = [stage.frame(tick)[270:380, 140:480] for tick in (0, 12, 160, 240)]
    assert all((one != other).any() for one, other in pairwise(seen))
    cells = result(hands, SHORE)
    assert (cells[48:, 96:, :3] == (0x4A, 0x3F, 0x55)).all()
    assert (cells[96:, 32:64] == cells[:48, 96:128]).all()  # the step that was dragged into his rest


def test_cells_are_worked_on_by_keys_and_everything_is_taken_back(
    hands: Hands, mod: Path, sources: Path
) -> None:
    hands.open(mod)
    bench = on_bench(hands, SHORE, sources / "stranger_walker.png")
    before = hands.window.session.project
    bench.cells.choose([1])
    done = 0
    for keys, seen in (
        ("F", "2f"), ("L", "2fx3"), ("S", "2fx2"), ("Shift+Right", "2fx2+1+0"), ("H", "1"), ("Backspace", "-"), ("K", "="),
    ):  # fmt: skip
        hands.key(keys, bench.cells)
        hands.settle()
        done += 1
        swap = hands.window.session.swap(SHORE)
        assert swap is not None and str(swap.steps[0].values["map"]).split()[1] == seen
    assert (
        result(hands, SHORE)[:48, 32:64] == bench.content.pictures.original.pixels.pixels[:48, 32:64]
    ).all()  # type: ignore[union-attr]
    bench.source.setFocus()
    hands.key("Right", bench.source)
    hands.key("Return", bench.source)
    hands.settle()
    assert bench.cells.cells == [2]  # on to the next cell
    for _ in range(done + 1):
        hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert hands.window.session.project == before


def chooser() -> ColourChooser:
    return next(
        one for one in QApplication.topLevelWidgets() if isinstance(one, ColourChooser) and one.isVisible()
    )


def test_a_colour_is_lit_up_and_changed_by_number_by_swatch_and_by_dragging(
    hands: Hands, mod: Path, sources: Path
) -> None:
    hands.open(mod)
    bench = on_bench(hands, WALK, sources / "otter_teal.png")
    bench.show_tray("Colours")
    strip = bench.colours
    assert bench.content is not None
    own = [one.rgb for one in bench.content.colours[1]]
    hands.click(strip, strip.place_of(own[0]).toPoint())
    seen = result(hands, WALK)
    assert int(bench.cells.lit.sum()) == int((seen[..., :3] == own[0]).all(axis=2).sum()) > 100
    hands.click(strip, strip.place_of(own[0]).toPoint())
    assert strip.colour is None and bench.cells.lit is None, "pressed again it is chosen no more"
    hands.click(strip, strip.place_of(own[0]).toPoint())
    hands.key("Return", strip)
    dialog = chooser()
    line = dialog.findChild(QLineEdit)
    assert line is not None
    line.selectAll()
    hands.type("10c8f0", line)
    hands.click(part(dialog, QPushButton, "Take it"))
    hands.settle()
    assert (result(hands, WALK)[..., :3] == (0x10, 0xC8, 0xF0)).all(axis=2).sum() == (
        seen[..., :3] == own[0]
    ).all(axis=2).sum()
    theirs = bench.content.colours[0][0].rgb
    hands.drag(strip, strip.place_of(own[1]), strip.place_of(theirs, 0))
    hands.settle()
    assert (result(hands, WALK)[..., :3] == theirs).all(axis=2).any()
    assert not (result(hands, WALK)[..., :3] == own[1]).all(axis=2).any()
    hands.window.activateWindow()
    hands.settle()
    for _ in range(2):
        hands.key("Ctrl+Z", hands.window)
    hands.settle()
    np.testing.assert_array_equal(result(hands, WALK), seen)


def test_a_colour_is_taken_from_anywhere_in_the_window(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    bench = on_bench(hands, WALK, sources / "otter_teal.png")
    bench.show_tray("Colours")
    assert bench.content is not None
    first = bench.content.colours[1][0].rgb
    bench.colours.choose(first)
    hands.click(bench.colour_tray.buttons["colour"])
    dialog = chooser()
    swatches = dialog.findChildren(Swatches)
    assert {one.accessibleName() for one in swatches} >= {"Original", "Yours"}
    hands.click(part(dialog, QPushButton, "From the window"))
    assert not dialog.isVisible()
    field = bench.colours.place_of(bench.content.colours[0][2].rgb, 0).toPoint()
    wanted = QColor(bench.colours.grab().toImage().pixel(field))
    hands.click(bench.colours, field)
    assert dialog.isVisible() and dialog.colour == (wanted.red(), wanted.green(), wanted.blue())
    hands.click(part(dialog, QPushButton, "Leave it"))
    assert hands.window.session.swap(WALK).steps[-1].do != "palette"  # type: ignore[union-attr]


def test_pixels_are_painted_and_filled_and_a_colour_is_picked(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    bench = on_bench(hands, WALK, sources / "otter_teal.png")
    before = result(hands, WALK).copy()
    bench.use_tool("Pencil")
    y, x = np.argwhere(before[..., 3] > 0)[40]
    at = bench.cells.part((int(x), int(y), 1, 1)).center()
    QTest.mouseClick(bench.cells, Qt.MouseButton.RightButton, pos=at.toPoint())
    assert bench.cells.pencil == tuple(int(one) for one in before[y, x, :3])
    bench.use_colour((250, 10, 20))
    hands.drag(bench.cells, at, bench.cells.part((int(x) + 3, int(y), 1, 1)).center())
    hands.settle()
    after = result(hands, WALK)
    assert (after[y, x : x + 4] == (250, 10, 20, 255)).all() and (after != before).any(axis=2).sum() == 4
    bench.use_tool("Fill")
    bench.use_colour((1, 2, 3))
    hands.click(bench.cells, at.toPoint())
    hands.settle()
    assert (result(hands, WALK)[y, x : x + 4, :3] == (1, 2, 3)).all()
    swap = hands.window.session.swap(WALK)
    assert swap is not None and [use.do for use in swap.steps].count("touch-up") == 1
    hands.window.session.swaps.fit_all([WALK])
    hands.settle()
    assert (result(hands, WALK)[y, x : x + 4, :3] == (1, 2, 3)).all()


def test_a_whole_character_is_recoloured_with_its_strip_as_one_change(
    hands: Hands, mod: Path, tmp_path: Path
) -> None:
    hands.open(mod)
    session = hands.window.session
    assert session.catalogue is not None
    source = tmp_path / "grey.png"
    source.write_bytes(session.catalogue.bytes_of(GREY))
    bench = on_bench(hands, GREY, source)
    before = session.project
    hands.click(bench.character)
    bench.show_tray("Colours")
    assert bench.content is not None
    old, new = bench.content.colours[1][0].rgb, bench.content.colours[1][-1].rgb
    hands.drag(bench.colours, bench.colours.place_of(old), bench.colours.place_of(new))
    hands.settle()
    assert not (result(hands, GREY)[..., :3] == old).all(axis=2).any()
    assert session.examined["rules/palette.json"].state != "breaks"
    assert bytes(old).hex().encode() not in session.examined["rules/palette.json"].data
    assert next(point.state for point in session.examined[GREY].points if point.key == "strip") == "fits"
    hands.key("Ctrl+Z", hands.window)
    hands.settle()
    assert session.project == before


def test_tiles_are_made_and_built_into_ground(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    bench = on_bench(hands, DOCK, sources / "stranger_tiles.png")
    assert bench.content is not None and bench.content.ground is not None and bench.tray.currentIndex() == 2
    one, other = bench.content.ground
    assert one.size() == other.size() and one != other
    assert {point.state for point in hands.window.session.examined[DOCK].points} == {"fits"}


def test_where_a_point_is_not_met_is_shown(hands: Hands, mod: Path, tmp_path: Path) -> None:
    hands.open(mod)
    session, station = hands.window.session, hands.window.fit_station
    assert session.catalogue is not None
    import io

    pixels = np.array(Image.open(io.BytesIO(session.catalogue.bytes_of(WALK))).convert("RGBA"))
    pixels[1, 81] = (9, 250, 9, 255)
    Image.fromarray(pixels).save(tmp_path / "odd.png")
    bench = on_bench(hands, WALK, tmp_path / "odd.png")
    row = [point.key for point in station.table.table.points].index("odd")
    station.table.table.pick(row)
    hands.click(part(station.table, QPushButton, "Show"))
    assert bench.cells.marks == ((81, 1, 1, 1),) and bench.cells.scale >= 8 and bench.playing.cell == 2
    assert bench.cells.rect().contains(bench.cells.part((81, 1, 1, 1)).center().toPoint())
    hands.click(part(station.table, QPushButton, "Match it"))
    hands.settle()
    assert result(hands, WALK)[1, 81, 3] == 0


@pytest.mark.parametrize(
    ("kind", "ending"), [("GIF", ".gif"), ("APNG", ".png"), ("OpenRaster", ".ora"), ("Numbered", ".png")]
)
def test_frames_are_saved_for_other_programs(
    hands: Hands,
    mod: Path,
    sources: Path,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    kind: str,
    ending: str,
) -> None:
    hands.open(mod)
    bench = on_bench(hands, SHORE, sources / "stranger_walker.png")
    file = tmp_path / f"walk{ending}"
    monkeypatch.setattr(picking, "pick_target", lambda *_: file)
    monkeypatch.setattr(
        QMenu, "exec", lambda menu, *_: next(one for one in menu.actions() if kind in one.text()).trigger()
    )
    hands.click(bench.save)
    hands.settle()
    wanted = [result(hands, SHORE)[:48, left : left + 32] for left in range(0, 160, 32)]
    if kind == "Numbered":
        got = [
            np.asarray(Image.open(tmp_path / f"walk_{number:02}.png").convert("RGBA"))
            for number in range(1, 6)
        ]
    elif kind == "OpenRaster":
        layers = read_layers(file.read_bytes())
        assert [layer.name for layer in layers] == [f"walk {number}" for number in range(1, 6)]
        got = [layer.picture.pixels for layer in layers]
    else:  # frames that stay the same are one that stays longer
        got = [frame.picture.pixels for frame in read_frames(file.read_bytes())]
        wanted = [
            one
            for one, before in zip(wanted, [None, *wanted], strict=False)
            if before is None or (one != before).any()
        ]
    for one, other in zip(got, wanted, strict=True):
        np.testing.assert_array_equal(
            np.where(one[..., 3:] > 0, one, 0), np.where(other[..., 3:] > 0, other, 0)
        )


def test_files_dropped_together_are_frames_in_the_order_of_their_numbers(
    hands: Hands, mod: Path, tmp_path: Path
) -> None:
    hands.open(mod)
    files = []
    for number in (10, 9, 1, 2):
        pixels = np.zeros((20, 14, 4), np.uint8)
        pixels[4:20, 3:9] = (10 * number, 60, 90, 255)
        files.append(tmp_path / f"step_{number}.png")
        Image.fromarray(pixels).save(files[-1])
    bench = on_bench(hands, WALK, files[0])
    hands.drop(files, hands.window.fit_station.benches)
    hands.settle()
    swap = hands.window.session.swap(WALK)
    assert swap is not None and swap.source.endswith("step_1.png")
    assert bench.content is not None and bench.content.figures.found is not None
    assert len(bench.content.figures.found.poses) == 4
    cells = result(hands, WALK)
    tones = [
        int(cells[:, left : left + 40][cells[:, left : left + 40, 3] > 0][0, 0]) for left in range(0, 240, 40)
    ]
    assert tones == sorted(tones) and set(tones) == {10, 20, 90, 100}


def test_figures_and_cells_have_menus(
    hands: Hands, mod: Path, sources: Path, menus: Callable[[str], list[dict[str, bool]]]
) -> None:
    hands.open(mod)
    bench = on_bench(hands, SHORE, sources / "stranger_walker.png")
    figures = bench.content.figures
    assert figures.laid_out and figures.found is not None
    first = bench.cells.part(bench.content.grid.box(0)).center().toPoint()
    seen = menus("Mirror")
    menu_on(bench.cells, first)
    hands.settle()
    assert bench.cells.cells == [0] and bench.content.figures.cells[0].flip != figures.cells[0].flip
    assert seen[0]["Put figure 1 here"] and seen[0]["Empty"]
    bench.source.choose(3)
    menus("Put figure 4 here")
    menu_on(bench.cells, first)
    hands.settle()
    assert bench.content.figures.cells[0].pose == 3
    menus("Choose the")
    fourth = bench.source.part(figures.found.poses[3].box).center().toPoint()
    menu_on(bench.source, fourth)
    has = [cell for cell, one in enumerate(bench.content.figures.cells) if one.pose == 3]
    assert bench.cells.cells == has and 0 in has
    bench.source.choose(0)
    menus("Show its figure")
    menu_on(bench.cells, first)
    assert bench.source.figure == 3
    bench.use_tool("Pencil")
    seen = menus("")
    menu_on(bench.cells, first)
    assert not seen, "while painting the right button takes a colour"
