"""The textures' story in the window: a photo on a hull, a sail patterned, a gauge's hue turned, an emblem at three sizes."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands
from PIL import Image
from PyQt6.QtCore import QEvent, QPointF, QRectF, Qt
from PyQt6.QtGui import QKeyEvent, QKeySequence
from PyQt6.QtWidgets import QApplication, QDialog, QLabel, QPushButton, QWidget

from furnel.desktop.fit.picture_bench import PictureBench
from furnel.mods.workspace import create_project
from tarnlight.scenes import still
from tarnlight.world import World

ENSIGNS = ("ensigns/large/aldvik.tga", "ensigns/medium/aldvik.tga", "ensigns/small/aldvik.tga")


def test_the_textures_story(hands: Hands, game: Path, sources: Path, tmp_path: Path) -> None:
    project = create_project(tmp_path / "story", "Tarn Colours", game)
    hands.open(project)
    session, station = hands.window.session, hands.window.fit_station
    _photo_on_a_hull(hands, sources)
    _pattern_on_a_sail(hands, sources)
    _hue_of_the_gauge(hands, sources)
    for original in ENSIGNS:
        hands.find(f"aldvik {original.split('/')[1]}", original)
        hands.drop_on_tile(sources / "ensign_large.png", original)
        hands.settle()
        hands.station(2)
        station.pick(original)
        hands.key("Ctrl+Return", hands.window)
        hands.settle()
    assert {name: found.state != "breaks" for name, found in session.examined.items()} == dict.fromkeys(
        session.examined, True
    )
    before = {scene: np.asarray(still(World(game), scene, 90)) for scene in ("quay", "open water")}
    hands.key("Ctrl+B", hands.window)
    hands.until(lambda: session.builds.last is not None and not session.builds.stale, "the build")
    hands.window.run_command("install")
    hands.until(lambda: session.game.installed, "the install")
    words = {word.path: word for word in World(game).verdicts()}
    assert len(session.examined) == 6
    for original in session.examined:
        assert (words[original].winner, words[original].verdict) == ("tarn-colours", "accepted"), words[
            original
        ]
    after = {scene: np.asarray(still(World(game), scene, 90)) for scene in before}
    changed = {scene: np.abs(after[scene].astype(int) - before[scene]).max(axis=2) > 24 for scene in before}
    assert changed["quay"][432:524, 16:108].mean() > 0.15  # the gauge
    assert changed["quay"][150:250, 476:608].mean() > 0.2  # the ensign
    assert changed["open water"].mean() > 0.01  # sail and hull of the boat behind


def _swap(hands: Hands, words: str, original: str, source: Path) -> None:
    hands.find(words, original)
    hands.drop_on_tile(source, original)
    hands.settle()
    hands.station(2)
    hands.window.fit_station.pick(original)
    hands.settle()


def _photo_on_a_hull(hands: Hands, sources: Path) -> None:
    original = "art/hulls/hull_heron.dds"
    _swap(hands, "hull heron", original, sources / "phone_photo.jpg")
    hands.add_step("Place on the original")
    view = hands.window.fit_station.benches.of("texture").view
    target = view._target(QRectF(view.rect()))
    scale = target.width() / 512
    hands.drag(view, target.topLeft() + QPointF(60, 60) * scale, target.topLeft() + QPointF(210, 150) * scale)
    hands.settle()
    hands.setting("Game widens it", "1.3")
    swap = hands.window.session.swap(original)
    assert swap is not None
    values = swap.steps[0].values
    assert (
        values["stretch"] == 1.3 and abs(int(values["left"]) - 150) <= 2 and abs(int(values["top"]) - 90) <= 2
    )
    found = hands.window.session.examined[original]
    assert found.state == "fits", found.points


def _pattern_on_a_sail(hands: Hands, sources: Path) -> None:
    original = "art/sails/sail_night.dds"
    _swap(hands, "sail night", original, sources / "weave_red.png")
    hands.add_step("Lay over the original as a pattern")
    hands.setting("Scale", "60")
    hands.setting("Turn", "30")
    content = hands.window.fit_station.benches.of("texture").content
    assert content is not None
    first, second = (
        np.asarray(side.pixels.pixels[..., :3], float).mean(2) for side in (content.original, content.yours)
    )
    plain = slice(0, 120)  # cloth without the bird
    columns = [part[:, plain].mean(0) for part in (first, second)]
    assert np.corrcoef(*columns)[0, 1] > 0.6  # the folds are still where they were


def _hue_of_the_gauge(hands: Hands, sources: Path) -> None:
    original = "hud/oil_level.dds"
    _swap(hands, "oil level", original, sources / "oil_copy.png")
    hands.add_step("Hue, saturation, lightness")
    hands.setting("Turn the hue", "118")
    content = hands.window.fit_station.benches.of("texture").content
    assert content is not None and content.scene is not None and content.scene.kind == "gauge"
    mean = content.yours.pixels.pixels[100:160, 100:160, :3].reshape(-1, 3).mean(0)
    assert mean[1] > mean[0] + 40
    own = np.asarray(Image.open(sources / "oil_copy.png").convert("RGBA"))[..., 3]
    assert np.abs(content.yours.pixels.pixels[..., 3].astype(int) - own).max() <= 18


def test_how_large_a_picture_is_seen_is_in_sight(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    hands.station(2)
    station = hands.window.fit_station
    station.pick("art/hulls/hull_otter.dds")
    hands.settle()
    bench = hands.window.findChild(PictureBench)

    def told() -> float:
        return (
            float(next(one.text() for one in bench.findChildren(QLabel) if one.text().endswith(" %"))[:-2])
            / 100
        )

    hands.until(lambda: bench.content is not None, "the pictures")
    fitting = bench.view.scale()
    assert told() == pytest.approx(fitting, abs=0.006)
    hands.key("+", bench.view)
    assert bench.view.scale() > fitting and told() == pytest.approx(bench.view.scale(), abs=0.006)
    hands.click(next(one for one in bench.findChildren(QPushButton) if one.text() == "1:1"))
    assert told() == 1.0
    hands.window.resize(1000, 620)
    hands.key("0", bench.view)
    assert told() == pytest.approx(bench.view.scale(), abs=0.006)


def test_the_sheet_of_keys_begins_with_those_of_the_place(hands: Hands, mod: Path) -> None:
    hands.open(mod)
    places = {
        "find": "from tile to tile",
        "fit": "from swap to swap",
        "build": "to its bench",
        "try": "load order",
    }
    for station, wanted in places.items():
        hands.window.run_command(f"go-{station}")
        hands.settle()
        hands.window.run_command("keys")
        sheet = next(
            one for one in QApplication.topLevelWidgets() if isinstance(one, QDialog) and one.isVisible()
        )
        texts = [one.text() for one in sheet.findChildren(QLabel)]
        assert wanted in texts[0] and len(texts) > 2, texts[0]
        sheet.close()
        hands.settle()


def test_every_key_that_is_told_does_something(hands: Hands, mod: Path) -> None:
    """What the sheet says of a part's keys is what the part takes."""
    names = {
        "Arrows": ["Left", "Right", "Up", "Down"],
        "+ and −": ["+", "-"],
        "Alt and Up": ["Alt+Up"],
        "Return": ["Return"],
    }
    hands.open(mod)
    seen = set()
    for station in (1, 2, 3):
        hands.station(station)
        if station == 2:
            hands.window.fit_station.pick("art/hulls/hull_otter.dds")
            hands.until(
                lambda: any(one.content for one in hands.window.findChildren(PictureBench)), "the pictures"
            )
        hands.settle()
        shown = [
            one for one in hands.window.findChildren(QWidget) if one.isVisible() and hasattr(one, "KEYS_HERE")
        ]
        for part in sorted(
            shown, key=lambda one: one.accessibleName() == "Swaps"
        ):  # which shows another bench
            for keys, _ in part.KEYS_HERE:
                for key in (name for word in keys.split(", ") for name in names.get(word, [word])):
                    if key in ("Left", "Right", "Up", "Down", "Home", "End", "+", "-", "0"):
                        code = QKeySequence(key)[0].key()
                        words = key if len(key) == 1 else ""
                        event = QKeyEvent(QEvent.Type.KeyPress, code, Qt.KeyboardModifier.NoModifier, words)
                        part.keyPressEvent(event)
                        assert event.isAccepted(), (type(part).__name__, key)
                        hands.settle()
                        seen.add((type(part).__name__, key))
    assert len(seen) > 15
