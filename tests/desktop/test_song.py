"""A song on the bench: its parts on one grid, some switched off, heard together."""

from __future__ import annotations

from pathlib import Path

import numpy as np
from demo.hands import Hands
from PyQt6.QtCore import QPointF, Qt
from PyQt6.QtTest import QTest

from furnel.desktop.fit.song_panel import mixing
from furnel.desktop.fit.sound_bench import SoundBench
from furnel.sound import read_clip


def test_the_parts_of_a_song_are_seen_and_heard_together(hands: Hands, mod: Path, sources: Path) -> None:
    hands.open(mod)
    session = hands.window.session
    session.swaps.swap_with("songs/evening_crossing/bass.ogg", sources / "night_song.wav")
    hands.settle()
    hands.window.open_bench("songs/evening_crossing/bass.ogg")
    hands.settle()
    bench = hands.window.fit_station.benches.of("sound")
    assert isinstance(bench, SoundBench) and bench.content is not None and bench.content.song is not None
    song, panel = bench.content.song, bench.song
    assert panel.isVisible() and not bench.panel.isVisible()
    assert [(part.name, part.mine) for part in song.parts] == [
        ("bass", True),
        ("oars", False),
        ("reed", False),
    ]
    assert (song.tempo, song.beats, song.length_s) == (128, 32, 15.0)
    asked: list[tuple[str, float]] = []
    panel.heard.connect(lambda name, make, start: asked.append((name, start)))
    hands.click(panel.play)
    row = panel.grid.height() - 16
    QTest.mouseClick(panel.grid, Qt.MouseButton.LeftButton, pos=QPointF(12, row // 3 // 2 + 2).toPoint())
    assert panel.grid.off == {"songs/evening_crossing/bass.ogg"}
    hands.click(panel.play)
    assert "bass" in asked[0][0] and "bass" not in asked[-1][0] and asked[-1][1] == 0.0
    on = [part for part in song.parts if part.path not in panel.grid.off]
    mixed = mixing(song, on)()
    assert session.catalogue is not None
    alone = [read_clip(session.catalogue.bytes_of(part.path), part.path)[0].samples for part in on]
    whole = alone[0] + alone[1]
    peak = np.abs(whole).max()
    np.testing.assert_allclose(mixed.samples, whole if peak <= 0.98 else whole * (0.98 / peak), atol=1e-6)
    panel.grid.setFocus()
    hands.key("Down", panel.grid)
    hands.key("Return", panel.grid)
    hands.settle()
    assert "is the game's own" in hands.window.messages[-1].text
