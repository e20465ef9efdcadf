"""The command line: the whole story, exit codes, one clear message for a refusal."""

from __future__ import annotations

import json
import subprocess
import sys
from pathlib import Path

import pytest
from tests.conftest import digest

from furnel.cli import main
from tarnlight.cli import main as tarnlight

FOUR = {
    "art/hulls/hull_otter.dds": "dusk_paint.jpg",
    "cast/otter_walk.png": "otter_teal.png",
    "bank0/000.wav": "church_bell.mp3",
    "music/slow_water.ogg": "night_song.wav",
}


def run(*arguments: object) -> int:
    return main([str(argument) for argument in arguments])


def test_the_story(game: Path, sources: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    mod, before = tmp_path / "mod", digest(game)
    assert run("mod", "new", mod, "--game", game, "--name", "Evening Post") == 0
    for original, source in FOUR.items():
        assert run("mod", "add", mod, original, sources / source, "--as-it-is") == 1
    assert run("mod", "check", mod) == 1
    assert run("mod", "build", mod) == 2
    for original, source in FOUR.items():
        assert run("mod", "add", mod, original, sources / source, "--credit", "own work") == 0
    assert run("mod", "check", mod) == 0
    assert run("mod", "install", mod) == 2
    assert run("mod", "build", mod) == 0
    assert run("mod", "install", mod) == 0
    capsys.readouterr()
    assert tarnlight(["report", str(game), "--json"]) == 0
    words = json.loads(capsys.readouterr().out)["assets"]
    assert {w["path"]: w["verdict"] for w in words if w["winner"] == "evening-post"} == dict.fromkeys(
        [*FOUR, "music/slow_water.loop"], "accepted"
    )
    assert run("mod", "package", mod, "--out", tmp_path / "x.zip") == 0
    assert run("mod", "remove", mod) == 0
    assert "as it was before" in capsys.readouterr().out
    assert digest(game) == before


def test_find_and_spec_for_people_and_for_scripts(forged: Path, capsys: pytest.CaptureFixture[str]) -> None:
    assert run("find", forged, "otter walk", "--kind", "sheet") == 0
    assert "cast/otter_walk.png" in capsys.readouterr().out
    assert run("find", forged, "otter", "--json") == 0
    assert {row["kind"] for row in json.loads(capsys.readouterr().out)} == {"texture", "sheet", "sound"}
    assert run("find", forged, "submarine") == 1
    assert run("spec", forged, "cast/otter_walk.png", "--json") == 0
    assert json.loads(capsys.readouterr().out)["cell"] == [40, 24]


def test_take_fit_and_compare(
    forged: Path, sources: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "out"
    assert run("take", forged, "art/hulls/hull_otter.dds", "bank0/000.wav", "--to", out) == 0
    assert run("take", forged / "data" / "cast.tlc", "cast/otter_walk.png", "--to", out, "--as", "png") == 0
    hull = out / "art/hulls/hull_otter.dds"
    assert run("compare", hull, sources / "dusk_paint.jpg") == 1
    assert (
        run("fit", sources / "dusk_paint.jpg", "--like", hull, "--out", out / "new.dds", "--quality", "fast")
        == 0
    )
    assert run("compare", hull, out / "new.dds") == 0
    assert run("spec", out / "new.dds") == 0
    capsys.readouterr()
    like = ["--like", "cast/otter_walk.png", "--game", forged]
    assert run("fit", sources / "otter_teal.png", *like, "--out", out / "new.png", "--json") == 0
    assert {point["state"] for point in json.loads(capsys.readouterr().out)["points"]} == {"fits"}


def test_fit_never_writes_over_source_or_original(forged: Path, sources: Path, tmp_path: Path) -> None:
    run("take", forged, "art/hulls/hull_otter.dds", "--to", tmp_path)
    hull = tmp_path / "art/hulls/hull_otter.dds"
    before = hull.read_bytes()
    assert run("fit", sources / "dusk_paint.jpg", "--like", hull, "--out", hull) == 2
    assert run("fit", sources / "dusk_paint.jpg", "--like", hull, "--out", sources / "dusk_paint.jpg") == 2
    assert hull.read_bytes() == before


def test_pack_and_unpack(forged: Path, tmp_path: Path) -> None:
    assert run("unpack", forged / "data" / "cast.tlc", "--to", tmp_path / "cast") == 0
    assert run("pack", tmp_path / "cast", "--layout", "tlc", "--out", tmp_path / "new.tlc") == 0
    assert run("unpack", tmp_path / "new.tlc", "--to", tmp_path / "again", "--layout", "tlc") == 0
    assert digest(tmp_path / "cast") == digest(tmp_path / "again")
    assert run("pack", tmp_path / "cast", "--layout", "zip", "--out", tmp_path / "new.zip") == 0


def test_steps_by_hand(game: Path, sources: Path, tmp_path: Path) -> None:
    mod = tmp_path / "mod"
    run("mod", "new", mod, "--game", game, "--name", "Steps")
    darker = ["--step", "brightness:stops=-1.5"]
    assert run("mod", "add", mod, "art/rock/slate.dds", sources / "moss_bright.png", *darker) == 0
    assert "stops = -1.5" in (mod / "furnel.toml").read_text()
    assert (
        run(
            "mod",
            "add",
            mod,
            "art/rock/slate.dds",
            sources / "moss_bright.png",
            "--step",
            "brightness:stops=dark",
        )
        == 2
    )


@pytest.mark.parametrize(
    "arguments",
    [
        ["find", "/nowhere"],
        ["take", "{game}", "art/nothing.dds", "--to", "{tmp}/o"],
        ["unpack", "/nowhere.tlp", "--to", "{tmp}/o"],
        ["pack", "/nowhere", "--layout", "tlp", "--out", "{tmp}/o"],
        ["spec", "/nowhere.dds"],
        ["mod", "check", "/nowhere"],
        ["mod", "new", "{tmp}/m", "--game", "{tmp}", "--name", "x"],
        ["take", "{game}"],
        ["fit"],
        ["dance"],
        ["find", "{game}", "--kind", "smell"],
    ],
)
def test_bad_input_is_one_message_and_exit_code_two(
    arguments: list[str], forged: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    assert run(*(part.format(game=forged, tmp=tmp_path) for part in arguments)) == 2
    said = capsys.readouterr()
    assert said.err.strip() and "Traceback" not in said.err
    assert not said.out.strip()


def test_the_entry_point_answers() -> None:
    ran = subprocess.run(
        [sys.executable, "-m", "furnel.cli", "--help"], capture_output=True, text=True, check=True
    )
    assert all(
        name in ran.stdout
        for name in ("find", "take", "spec", "fit", "compare", "pack", "unpack", "mod", "desktop")
    )
