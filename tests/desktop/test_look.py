"""The look: a theme reaches everything, dialogs have it, tiles are painted once and rightly."""

from __future__ import annotations

import gc
import re
from importlib import resources
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from demo.hands import Hands
from PyQt6.QtCore import QCoreApplication, QEvent, QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter
from PyQt6.QtWidgets import QApplication, QDialog, QLabel, QPushButton, QWidget

from furnel.desktop.look import THEMES, Look, dressed, style_sheet, theme_colours
from furnel.desktop.tiles import Tile, paint_tile
from furnel.desktop.widgets.icons import drawn

SRC = Path(__file__).parents[2] / "src"


def parts_of(window: QWidget) -> list[QWidget]:
    return [part for part in window.findChildren(QWidget) if part.property("dressed")]


def test_a_theme_reaches_what_is_seen_at_once_and_the_rest_soon(hands: Hands) -> None:
    window = hands.window
    hands.station(2)
    window.run_command("theme")
    parts = parts_of(window)
    assert len(parts) > 8
    assert {part.styleSheet() for part in parts if part.isVisible()} == {style_sheet("light")}
    hands.until(lambda: {part.styleSheet() for part in parts} == {style_sheet("light")}, "the rest")
    assert window.grab().toImage().pixelColor(640, 400).lightness() > 150
    window.run_command("theme")
    hands.until(lambda: {part.styleSheet() for part in parts} == {style_sheet("dark")}, "the dark one again")
    assert window.grab().toImage().pixelColor(640, 400).lightness() < 80


def test_dialogs_have_the_theme_of_the_window(hands: Hands) -> None:
    hands.window.run_command("keys")
    dialog = next(
        part for part in QApplication.topLevelWidgets() if isinstance(part, QDialog) and part.isVisible()
    )
    assert dialog.grab().toImage().pixelColor(3, 3).lightness() < 80
    dialog.close()
    assert dressed(hands.window).property("dressed")
    assert dressed(hands.window.fit_station.steps) is hands.window.fit_station.parts()[2]


def test_what_is_gone_is_not_dressed(application: QApplication) -> None:
    look = Look("dark")
    part = QPushButton("short-lived")
    look.dress(part)
    part.deleteLater()
    del part
    QApplication.sendPostedEvents(None, 52)  # deferred deletion
    look.use("light")
    QApplication.processEvents()


@pytest.fixture
def ground(application: QApplication) -> QImage:
    image = QImage(60, 40, QImage.Format.Format_ARGB32_Premultiplied)
    image.fill(QColor("#404040"))
    return image


def painted(ground: QImage, look: Look, tile: Tile | None, rect: QRectF) -> np.ndarray:
    image = ground.copy()
    painter = QPainter(image)
    paint_tile(painter, look, rect, tile)
    painter.end()
    bits = image.constBits()
    bits.setsize(image.sizeInBytes())
    return np.frombuffer(bits, np.uint8).reshape(40, 60, 4).copy()


def test_a_tile_is_the_same_the_second_time_and_another_in_another_theme_or_size(ground: QImage) -> None:
    red = QImage(4, 4, QImage.Format.Format_RGBA8888)
    red.fill(Qt.GlobalColor.red)
    look, box = Look("dark"), QRectF(10, 5, 20, 20)
    first = painted(ground, look, Tile(image=red), box)
    assert (first[15, 20, :3] == (0, 0, 255)).all() and (first[2, 2, :3] == 0x40).all()
    wave = Tile(waveform=np.stack([-np.ones(30, np.float32), np.ones(30, np.float32)]))
    dark = painted(ground, look, wave, box)
    assert (painted(ground, look, wave, box) == dark).all()
    look.use("light")
    assert (painted(ground, look, wave, box) != dark).any()
    assert (painted(ground, look, wave, QRectF(10, 5, 40, 30)) != dark).any()


def test_two_tiles_that_follow_each_other_in_memory_are_not_taken_for_one(ground: QImage) -> None:
    look, box = Look("dark"), QRectF(0, 0, 40, 30)
    for colour in (Qt.GlobalColor.red, Qt.GlobalColor.green, Qt.GlobalColor.blue) * 20:
        image = QImage(2, 2, QImage.Format.Format_RGBA8888)
        image.fill(colour)
        shown = painted(ground, look, Tile(image=image), box)[15, 20, :3]
        assert tuple(shown) == tuple(reversed(QColor(colour).getRgb()[:3]))


def test_a_label_shows_what_stands_in_a_file_and_nothing_else(application: QApplication) -> None:
    from furnel.desktop.widgets.basics import label

    made = label("<b>bold</b> & more")
    assert made.textFormat() == Qt.TextFormat.PlainText and isinstance(made, QLabel)


def _light(code: str) -> float:
    """Relative luminance, as WCAG 2.2 defines it."""
    parts = [QColor(code).redF(), QColor(code).greenF(), QColor(code).blueF()]
    linear = [part / 12.92 if part <= 0.04045 else ((part + 0.055) / 1.055) ** 2.4 for part in parts]
    return sum(share * part for share, part in zip((0.2126, 0.7152, 0.0722), linear, strict=True))


@pytest.mark.parametrize("theme", THEMES)
def test_what_must_be_read_stands_out(theme: str) -> None:
    colours = theme_colours(theme)
    pairs = [
        (ink, ground)
        for ink in ("text", "quiet", "tarn", "ember")
        for ground in ("window", "panel", "raised", "sunken")
    ]
    pairs += [("on-ember", "ember"), ("on-ember", "ember-hover"), ("text", "hairline")]
    weak = {}
    for ink, ground in pairs:
        dark, light = sorted((_light(colours[ink]), _light(colours[ground])))
        if (contrast := (light + 0.05) / (dark + 0.05)) < 4.5:
            weak[ink, ground] = round(contrast, 2)
    assert not weak


def test_what_is_shown_right_after_the_theme_has_it(hands: Hands) -> None:
    window = hands.window
    for number in (2, 3, 4, 1, 4):
        hands.station(number)
    window.run_command("theme")
    window.go("find")  # before the turns in which the rest gets it
    here = window.stations.currentWidget()
    assert here is not None
    parts = [part for part in [here, *parts_of(here)] if part.property("dressed") and part.isVisible()]
    assert parts and {part.styleSheet() for part in parts} == {style_sheet("light")}


def test_our_pictures_follow_the_theme_and_are_one_weight(hands: Hands) -> None:
    folder = resources.files("furnel.desktop") / "themes" / "icons"
    names = sorted(file.name.removesuffix(".svg") for file in folder.iterdir())
    assert len(names) > 10
    for name in names:
        text = (folder / f"{name}.svg").read_text("utf-8")
        assert set(re.findall(r'stroke-width="([^"]*)"', text)) == {"1.4"} and 'fill="none"' in text, name
        shape = drawn(hands.window.look, name).pixmap(14, 14).toImage()
        ink = [shape.pixelColor(x, y).alpha() for x in range(shape.width()) for y in range(shape.height())]
        assert 8 < sum(alpha > 100 for alpha in ink) < 150, f"{name} is seen"
    used = " ".join(file.read_text("utf-8") for file in Path(SRC).rglob("*.py"))
    assert not [name for name in names if f'"{name}"' not in used]
    gc.collect()
    shown: list[Any] = [hands.window.undoing.undo, hands.window.find_station.sieve.text.actions()[0]]
    before, light, again = list[QImage](), list[QImage](), list[QImage]()
    for seen in (before, light, again):
        seen += [part.icon().pixmap(14, 14).toImage() for part in shown]
        hands.window.run_command("theme")
    assert before == again and all(one != other for one, other in zip(before, light, strict=True))


def test_what_is_gone_is_not_kept_in_the_themes_colours(hands: Hands) -> None:
    look, cards = hands.window.look, hands.window.cards

    def listening() -> int:
        for _ in range(3):  # what is gone lets go of what hangs on it
            QCoreApplication.sendPostedEvents(None, QEvent.Type.DeferredDelete)
            QApplication.processEvents()
            gc.collect()
        return int(look.receivers(look.changed))

    before = listening()
    for number in range(12):
        hands.window.session.tell("wrong", f"Wave {number}")
    cards.clear()
    assert listening() == before
