"""Hearing: prepared in a worker, kept for the next time, and said when there is nothing to hear with."""

from __future__ import annotations

import threading
from pathlib import Path

import numpy as np
import pytest
from demo.hands import Hands

from furnel.desktop.playback import Player
from furnel.sound import Clip, sound_info

TUNE = "music/slow_water.ogg"


def test_without_a_device_it_is_said_and_the_rest_works(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(Player, "device", property(lambda _: False))
    hands.open(mod)
    hands.find("bell_near 1", "bank0/000.wav")
    hands.key("Space", hands.window.find_station.wall)
    hands.settle()
    assert "no sound device" in hands.window.line.message
    hands.station(2)
    hands.window.fit_station.pick("bank0/000.wav")
    hands.settle()
    hands.click(hands.window.fit_station.benches.of("sound")._play)
    assert "no sound device" in hands.window.line.message


def test_clips_are_made_in_a_worker_and_kept(hands: Hands, monkeypatch: pytest.MonkeyPatch) -> None:
    player = hands.window.player
    begun: list[float] = []
    monkeypatch.setattr(Player, "device", property(lambda _: True))
    monkeypatch.setattr(Player, "_start", lambda self, start_s: begun.append(start_s))
    makers: list[bool] = []

    def make() -> Clip:
        makers.append(threading.current_thread() is threading.main_thread())
        return Clip(np.zeros((4800, 1), np.float32), 48000)

    assert player.play("a", make, 0.5)
    hands.settle()
    assert player.play("a", make, 0.7)
    hands.settle()
    assert (begun, makers) == ([0.5, 0.7], [False])
    assert sound_info(player._ready[1].read_bytes()).frames == 4800


def test_both_lanes_are_heard_at_the_quieter_ones_loudness(
    hands: Hands, mod: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    hands.open(mod)
    hands.station(2)
    hands.window.fit_station.pick("bank0/000.wav")
    hands.settle()
    bench = hands.window.fit_station.benches.of("sound")
    content = bench.content
    assert content is not None
    heard = [lane.loudness + bench._gain(lane) for lane in (content.original, content.yours)]
    assert heard[0] == pytest.approx(heard[1])
    bench._equal.setChecked(False)
    assert bench._gain(content.yours) == 0.0
    played: list[tuple[float, int]] = []
    monkeypatch.setattr(
        Player, "play", lambda self, name, make, start_s, *_: played.append((start_s, make().frames)) or True
    )
    bench._play_from(1.0)
    bench.hear("yours")
    bench._play_from(0.25)
    bench._hear_seam()
    lane = content.yours.clip
    assert played == [
        (1.0, content.original.clip.frames),
        (0.25, lane.frames),
        (0.0, 2 * min(lane.rate, lane.frames)),
    ]
