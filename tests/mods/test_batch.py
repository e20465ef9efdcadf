"""Whole folders made to fit."""

from __future__ import annotations

import json
from pathlib import Path

import numpy as np
import pytest
from PIL import Image

from furnel.cli import main
from furnel.errors import Cancelled, FurnelError
from furnel.mods.batch import fit_folder, pair_up
from furnel.mods.workspace import Workspace
from tarnlight.world import World


def picture(path: Path, colour: tuple[int, int, int], size: int = 90) -> Path:
    path.parent.mkdir(parents=True, exist_ok=True)
    y, x = np.mgrid[0:size, 0:size]
    shade = (0.7 + 0.3 * np.sin(x / 9) * np.cos(y / 7))[..., None]
    Image.fromarray((np.array(colour) * shade).astype(np.uint8)).save(path)
    return path


@pytest.fixture
def folder(tmp_path: Path) -> Path:
    picture(tmp_path / "own" / "art" / "rock" / "slate.png", (90, 100, 120))
    picture(tmp_path / "own" / "art" / "planks" / "Deck.PNG", (150, 120, 80))
    picture(tmp_path / "own" / "nothing.png", (1, 2, 3))
    return tmp_path / "own"


def test_files_are_paired_by_path_and_by_name(folder: Path) -> None:
    originals = [
        "art/rock/slate.dds",
        "art/planks/deck.dds",
        "ensigns/large/fjell.tga",
        "ensigns/small/fjell.tga",
    ]
    pairs, left = pair_up(folder, originals, "path")
    assert {(pair.source.name, pair.original) for pair in pairs} == {
        ("slate.png", "art/rock/slate.dds"),
        ("Deck.PNG", "art/planks/deck.dds"),
    }
    assert [file.name for file in left] == ["nothing.png"]
    picture(folder / "fjell.png", (20, 90, 60))
    pairs, _ = pair_up(folder, originals, "name")
    assert [pair.original for pair in pairs if pair.source.name == "fjell.png"] == originals[2:]
    picture(folder / "again" / "slate.png", (1, 1, 1))
    with pytest.raises(FurnelError, match="both"):
        pair_up(folder, originals, "name")


def test_a_folder_is_fitted_to_a_game_and_the_game_takes_it(folder: Path, game: Path, tmp_path: Path) -> None:
    picture(folder / "ensigns" / "medium" / "fjell.jpg", (20, 90, 60))
    before = {file: file.read_bytes() for file in folder.rglob("*") if file.is_file()}
    mod = game / "mods" / "batch"
    assert main(["fit", str(folder), "--game", str(game), "--out", str(mod), "--quality", "fast"]) == 0
    (mod / "mod.toml").write_text('id = "batch"\nname = "B"\nversion = "1"\ngame-version = "1.2"\n')
    (game / "mods" / "order.toml").write_text('[[mod]]\nid = "batch"\n')
    words = {word.path: word for word in World(game).verdicts()}
    for path in ("art/rock/slate.dds", "art/planks/deck.dds", "ensigns/medium/fjell.tga"):
        assert (words[path].winner, words[path].verdict) == ("batch", "accepted")
    assert {file: file.read_bytes() for file in folder.rglob("*") if file.is_file()} == before


def test_what_cannot_be_fitted_stops_nothing_else(
    folder: Path, game: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    (folder / "art" / "rock" / "granite.png").write_bytes(b"no picture at all")
    assert main(["fit", str(folder), "--game", str(game), "--out", str(tmp_path / "out"), "--json"]) == 1
    told = json.loads(capsys.readouterr().out)
    states = {Path(one["source"]).name: one["state"] for one in told["files"]}
    assert states["granite.png"] == "refused" and states["slate.png"] in ("fits", "differs")
    assert (tmp_path / "out" / "art" / "planks" / "deck.dds").is_file()
    assert [Path(name).name for name in told["for none"]] == ["nothing.png"]


def test_sources_and_originals_are_never_written_over(folder: Path, game: Path) -> None:
    assert main(["fit", str(folder), "--game", str(game), "--out", str(folder)]) == 2
    assert main(["fit", str(folder), "--out", str(folder.parent / "out")]) == 2


def test_a_cancelled_batch_stops(space: Workspace, folder: Path, tmp_path: Path) -> None:
    class Hasty:
        said = 0

        def report(self, fraction: float, text: str) -> None:
            self.said += 1

        def cancelled(self) -> bool:
            return self.said > 0

    for number in range(6):
        picture(folder / "more" / f"{number}.png", (9, 9, number))
    pairs, _ = pair_up(folder, [f"more/{number}.dds" for number in range(6)], "path")
    original = space.catalogue.read(space.catalogue.get("art/rock/slate.dds"))
    with pytest.raises(Cancelled):
        fit_folder(pairs, lambda _: original, tmp_path / "out", progress=Hasty())
    assert len(list((tmp_path / "out").rglob("*.dds"))) < 6


def test_formats_are_tried_from_the_command_line(folder: Path, capsys: pytest.CaptureFixture[str]) -> None:
    source = folder / "art" / "rock" / "slate.png"
    assert main(["formats", str(source), "--quality", "fast", "--json"]) == 0
    rows = {row["format"]: row for row in json.loads(capsys.readouterr().out)}
    assert (
        rows["BC7"]["psnr db"] > rows["BC1"]["psnr db"] and rows["BC1"]["bytes"] < rows["BGRA8"]["bytes"] / 5
    )
    assert main(["formats", str(source)]) == 0
    assert "BC7" in capsys.readouterr().out
