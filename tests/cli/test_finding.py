"""Finding, matching, taking out and unknown games on the command line."""

from __future__ import annotations

import json
import shutil
from pathlib import Path

import pytest
from PIL import Image
from tests.containers import makers

from furnel.catalogue import Catalogue, preview
from furnel.cli import main
from furnel.containers import open_container
from furnel.games import Install


def lines(capsys: pytest.CaptureFixture[str]) -> list[str]:
    return capsys.readouterr().out.splitlines()


def test_what_looks_like_a_file_a_colour_or_an_asset_is_listed(
    forged: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    catalogue = Catalogue(Install(forged))
    catalogue.refresh()
    shown = preview(catalogue, catalogue.get("portraits/tove.dds")).picture
    assert shown is not None
    Image.fromarray(shown.pixels).convert("RGB").resize((80, 80)).save(tmp_path / "face.jpg")
    (tmp_path / "bell.wav").write_bytes(catalogue.read(catalogue.get("bank0/003.wav")))
    catalogue.close()
    assert main(["find", str(forged), "--like", str(tmp_path / "face.jpg"), "--first", "3"]) == 0
    found = lines(capsys)
    assert len(found) == 3 and found[0].startswith("portraits/tove.dds")
    assert main(["find", str(forged), "--like", str(tmp_path / "bell.wav"), "--first", "2", "--json"]) == 0
    assert "bank0/003.wav" in [row["path"] for row in json.loads(capsys.readouterr().out)]
    assert main(["find", str(forged), "sails", "--like", "a8482f", "--first", "2"]) == 0
    assert any(row.startswith("art/sails/sail_rust.dds") for row in lines(capsys))
    assert main(["find", str(forged), "--folder", "art/sails/", "--like", "a8482f"]) == 0
    assert {row.partition("/sails/")[0] for row in lines(capsys)} == {"art"}
    assert main(["find", str(forged), "--like", "reddish"]) == 2
    assert "six hex digits" in capsys.readouterr().err
    assert main(["find", str(forged), "--kin", "ensigns/small/fjell.tga"]) == 0
    assert {row.split()[0] for row in lines(capsys)} == {
        f"ensigns/{s}/fjell.tga" for s in ("small", "medium", "large")
    }


def test_kin_come_along_and_a_folder_is_matched(
    forged: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = tmp_path / "out"
    assert (
        main(["take", str(forged), "ensigns/small/fjell.tga", "--to", str(out), "--as", "png", "--kin"]) == 0
    )
    assert len(lines(capsys)) == 3 and (out / "ensigns/large/fjell.png").is_file()
    shutil.move(out / "ensigns/large/fjell.png", out / "big.png")
    assert main(["match", str(out), "--game", str(forged), "--json"]) == 0
    found = {Path(row["file"]).name: row for row in json.loads(capsys.readouterr().out)}
    assert found["big.png"]["original"] == "ensigns/large/fjell.tga" and found["big.png"]["how"] == "note"
    Image.new("RGB", (20, 20), (1, 200, 30)).save(out / "green.png")
    assert main(["match", str(out), "--game", str(forged)]) == 1
    assert any("green.png" in row for row in lines(capsys))


def test_an_unknown_archive_is_guessed_carved_packed_and_unpacked(
    forged: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file = tmp_path / "art.pak"
    shutil.copy(forged / "data" / "art.tlp", file)
    assert main(["guess", str(file)]) == 0
    said = capsys.readouterr().out
    (tmp_path / "mine.toml").write_text(said)  # what was found stands in comments
    layout = str(tmp_path / "mine.toml")
    assert main(["unpack", str(file), "--layout", layout, "--to", str(tmp_path / "loose")]) == 0
    assert (
        main(["pack", str(tmp_path / "loose"), "--layout", layout, "--out", str(tmp_path / "new.pak")]) == 0
    )
    capsys.readouterr()
    again, theirs = open_container(tmp_path / "loose"), open_container(forged / "data" / "art.tlp")
    assert {e.path: again.read(e.path) for e in again.entries()} == {
        e.path: theirs.read(e.path) for e in theirs.entries()
    }
    assert main(["carve", str(forged / "data" / "cast.tlc"), "--to", str(tmp_path / "carved")]) == 0
    assert len(list((tmp_path / "carved").glob("*.png"))) == 16
    (tmp_path / "nothing.dat").write_bytes(b"nothing in here" * 20)
    assert main(["carve", str(tmp_path / "nothing.dat"), "--to", str(tmp_path / "none")]) == 1


def test_an_unknown_game_is_described_and_then_known(
    forged: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    game = tmp_path / "Moss Harbour"
    game.mkdir()
    shutil.copy(forged / "data" / "rules.zip", game / "rules.zip")
    (game / "side.crate").write_bytes(makers.crate({"a/b.txt": b"hello"}))
    (game / "odd.bin2").write_bytes(bytes(range(256)) * 9)
    assert main(["find", str(game)]) == 2
    assert "New game" in capsys.readouterr().err
    assert main(["describe", str(game), "--name", "Moss Harbour"]) == 0
    said = capsys.readouterr()
    assert 'id = "moss-harbour"' in said.out and "odd.bin2" in said.err
    assert main(["describe", str(game), "--name", "Moss Harbour", "--keep"]) == 0
    assert main(["find", str(game), "b.txt"]) == 0
    assert "side/a/b.txt" in capsys.readouterr().out
