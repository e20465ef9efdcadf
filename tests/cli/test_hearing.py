"""Sounds on the command line: measured, compared, levelled, events filled, an album laid over the tunes."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest
import soundfile

from furnel import sound
from furnel.cli import main
from tarnlight.cli import main as tarnlight


def run(*arguments: object) -> int:
    return main([str(argument) for argument in arguments])


def bell(file: Path, level: float, hertz: float = 500, rate: int = 44100) -> Path:
    t = np.arange(rate) / rate
    soundfile.write(file, level * np.exp(-3 * t) * np.sin(2 * np.pi * hertz * t), rate, subtype="PCM_16")
    return file


def test_sounds_are_measured_and_compared(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    first, second = bell(tmp_path / "a.wav", 0.5), bell(tmp_path / "b.wav", 0.25)
    assert run("spec", first) == 0
    said = capsys.readouterr().out
    assert "true peak" in said and "lead s" in said
    assert run("compare", first, second) == 0
    said = capsys.readouterr().out
    assert "B is 6.0 LU quieter" in said and "100% alike" in said
    assert run("compare", first, second, "--json") == 0
    assert json.loads(capsys.readouterr().out)["heard"]["offset_s"] == 0


def test_a_games_tune_tells_its_loop_and_a_sound_its_family(
    forged: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert run("spec", forged, "music/fog.ogg", "--json") == 0
    assert json.loads(capsys.readouterr().out)["loop"] == [0, 16 * 44100]
    assert run("spec", forged, "bank0/000.wav", "--json") == 0
    assert len(json.loads(capsys.readouterr().out)["family"]) == 2
    loud = bell(tmp_path / "loud.wav", 0.9)
    assert (
        run("fit", loud, "--game", forged, "--like", "bank0/003.wav", "--out", tmp_path / "out.wav", "--json")
        == 0
    )
    points = {point["key"]: point for point in json.loads(capsys.readouterr().out)["points"]}
    assert points["family"]["state"] == "fits"
    folder = tmp_path / "mine" / "bank0"
    folder.mkdir(parents=True)
    bell(folder / "004.wav", 0.8)
    assert run("fit", folder.parent, "--game", forged, "--out", tmp_path / "made", "--json") == 0
    made = json.loads(capsys.readouterr().out)["files"][0]
    assert "family" in [point["key"] for point in made["points"]] and made["state"] == "fits"


def test_a_folder_is_levelled(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    folder = tmp_path / "takes"
    folder.mkdir()
    for number in range(4):
        bell(folder / f"take {number}.wav", 0.05 + 0.15 * number, 400 + 90 * number)
    assert run("level", folder, "--out", folder) == 2
    assert run("level", folder, "--out", tmp_path / "out", "--to", "-20") == 0
    for file in (tmp_path / "out").iterdir():
        clip, _ = sound.open_clip(file)
        assert sound.integrated_loudness(clip.samples, clip.rate) == pytest.approx(-20, abs=0.2)
        assert sound.to_decibels(sound.true_peak(clip.samples)) <= -0.95
    assert run("level", tmp_path / "nowhere", "--out", tmp_path / "x") == 2


def test_events_and_tunes_of_a_mod(game: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    mod = tmp_path / "mod"
    assert run("mod", "new", mod, "--game", game, "--name", "Evening Post") == 0
    takes = [bell(tmp_path / f"{n}.wav", 0.2 + 0.1 * n) for n in range(4)]
    assert run("mod", "event", mod, "bell_far", *takes, "--silent-at", 60) == 0
    assert run("mod", "event", mod, "bell_far", "--fade-from", 70) == 2
    capsys.readouterr()
    assert run("mod", "events", mod, "--json") == 0
    events = {event["name"]: event for event in json.loads(capsys.readouterr().out)}
    assert len(events["bell_far"]["sounds"]) == 4 and events["bell_far"]["silent_at"] == 60
    songs = []
    for tempo, length in ((100, 25.0), (90, 3.2)):
        t = np.arange(int(44100 * length)) / 44100
        beat = (t * tempo / 60) % 1
        songs.append(tmp_path / f"song {tempo}.flac")
        soundfile.write(songs[-1], 0.5 * np.exp(-6 * beat) * np.sin(2 * np.pi * 180 * t), 44100)
    assert run("mod", "tunes", mod) == 0
    assert "120 bpm" in capsys.readouterr().out
    assert run("mod", "tunes", mod, *songs, "--plan", "--json") in (0, 1)
    plan = json.loads(capsys.readouterr().out)
    assert (
        plan[0]["tune"] == "music/fog.ogg"
        and plan[0]["outlook"] == "fits"
        and "bars at 100 bpm" in plan[0]["says"]
    )
    assert plan[1]["outlook"] != "fits" and "short" in plan[1]["says"]
    assert run("mod", "tunes", mod, songs[0]) == 0
    assert run("mod", "build", mod) == 0 and run("mod", "install", mod) == 0
    capsys.readouterr()
    assert tarnlight(["report", str(game)]) == 0
