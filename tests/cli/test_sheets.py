"""Sheets on the command line: laid out, taken apart, written for other programs, recoloured by folders."""

from __future__ import annotations

import io
import json
from pathlib import Path
from typing import Any

import numpy as np
import pytest
from PIL import Image

from firsthour.strangers import stranger_sheet
from furnel.cli import main
from furnel.imagefiles import read_frames, read_layers
from tarnlight.art import shore, sprites


@pytest.fixture
def walk(tmp_path: Path) -> Path:
    file = tmp_path / "walk.png"
    Image.fromarray(sprites.sheet(shore.ferryman_walk(), 5)).save(file)
    return file


def told(capsys: pytest.CaptureFixture[str]) -> Any:
    return json.loads(capsys.readouterr().out)


def pixels(file: Path) -> Any:
    return np.asarray(Image.open(file).convert("RGBA"))


def test_a_sheet_is_written_as_animation_files_and_layers(
    walk: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    out = [str(tmp_path / name) for name in ("a.gif", "a.ora", "frames")]
    assert (
        main(
            [
                "sheet",
                str(walk),
                "--cells",
                "32x48",
                "--animation",
                out[0],
                "--layers",
                out[1],
                "--into",
                out[2],
                "--json",
            ]
        )
        == 0
    )
    assert [row["floor"] for row in told(capsys)] == [48] * 5
    wanted = [pixels(walk)[:, left : left + 32] for left in range(0, 160, 32)]
    for place, frame in enumerate(wanted):
        np.testing.assert_array_equal(pixels(Path(out[2]) / f"frame_{place + 1:02}.png"), frame)
    assert len(read_layers(Path(out[1]).read_bytes())) == 5
    assert (
        sum(frame.ms for frame in read_frames(Path(out[0]).read_bytes())) == 5 * 120
    )  # GIF counts hundredths of a second
    assert main(["sheet", str(walk), "--animation", out[0]]) == 2
    assert main(["sheet", str(walk), "--cells", "30x48"]) == 2


def test_figures_are_laid_out_in_a_sheets_cells(
    walk: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    source, out = tmp_path / "stranger.png", tmp_path / "out.png"
    stranger_sheet().save(source)
    base = ["fit", str(source), "--like", str(walk), "--cells", "32x48", "--out", str(out), "--json"]
    assert main([*base, "--frames", "fill"]) == 0
    assert {
        point["state"]
        for point in told(capsys)["points"]
        if point["key"] in ("frames", "floor", "empty", "middle")
    } == {"fits"}
    filled = pixels(out)
    assert main([*base, "--frames", "1 1f 1 - ="]) in (0, 1)
    capsys.readouterr()
    own = pixels(out)
    np.testing.assert_array_equal(own[:, :32], own[:, 64:96])
    assert (
        not own[:, 96:128, 3].any()
        and (own[:, 128:] == pixels(walk)[:, 128:]).all()
        and (own != filled).any()
    )
    assert main([*base, "--frames", "1 9"]) == 2
    assert "6 figures" in capsys.readouterr().err


def test_colours_change_in_whole_folders_and_palettes_keep_their_numbers(
    tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    sheets = tmp_path / "sheets" / "deep"
    sheets.mkdir(parents=True)
    for number in range(5):
        picture = np.full((8, 8, 4), (138, 90, 52, 255), np.uint8)
        picture[number] = (10, 20, 30, 255)
        Image.fromarray(picture).save(sheets / f"{number}.png")
    indexed = Image.new("P", (6, 4))
    indexed.putpalette([9, 9, 9, 138, 90, 52, 142, 92, 50, 1, 2, 3])
    indexed.putdata([0, 1, 2, 3] * 6)
    indexed.save(tmp_path / "sheets" / "few.png")
    (tmp_path / "sheets" / "broken.png").write_bytes(b"\x89PNG\r\n\x1a\n")
    out = tmp_path / "out"
    assert (
        main(["recolour", str(tmp_path / "sheets"), "--map", "8a5a34=2060c0", "--out", str(out), "--json"])
        == 1
    )
    rows = {Path(row["file"]).name: row for row in told(capsys)}
    assert [rows[f"{number}.png"]["pixels"] for number in range(5)] == [56] * 5
    assert rows["few.png"]["left over"] == "8e5c32" and rows["broken.png"]["why"]
    assert (pixels(out / "deep" / "3.png")[0, 0] == (0x20, 0x60, 0xC0, 255)).all()
    with Image.open(out / "few.png") as image:
        assert image.mode == "P" and np.asarray(image).ravel().tolist() == [0, 1, 2, 3] * 6
        assert image.getpalette()[3:6] == [0x20, 0x60, 0xC0]  # type: ignore[index]
    assert main(["recolour", str(sheets), "--map", "8a5a34=2060c0", "--out", str(sheets)]) == 2
    assert (pixels(sheets / "3.png")[0, 0] == (138, 90, 52, 255)).all()
    assert main(["recolour", str(sheets), "--map", "brown=blue", "--out", str(out)]) == 2
    assert main(["recolour", str(sheets), "--out", str(out)]) == 2


def test_a_ramp_becomes_another_one(tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    file = tmp_path / "a.png"
    Image.fromarray(np.array([[(64, 16, 16, 255), (160, 32, 32, 255)]], np.uint8)).save(file)
    assert (
        main(["recolour", str(file), "--ramp", "401010,a02020=102040,2060c0", "--out", str(tmp_path / "out")])
        == 0
    )
    assert pixels(tmp_path / "out" / "a.png")[0, :, :3].tolist() == [[16, 32, 64], [32, 96, 192]]
    assert main(["sheet", str(file), "--colours", "--json"]) == 0
    capsys.readouterr()
    stream = io.BytesIO()
    Image.fromarray(pixels(file)).save(stream, "PNG")
    assert file.read_bytes()  # the source is as it was
