"""The lines of the command line's page, typed as they stand there."""

from __future__ import annotations

import re
import shlex
import shutil
import zipfile
from pathlib import Path

import pytest
from PIL import Image, ImageOps
from tests.mods.test_bridge import about, put

from furnel.cli import main
from furnel.mods.workspace import Workspace
from tarnlight.cli import main as game_main

DOCS = Path(__file__).parents[2] / "docs"
LINES = [
    line
    for block in re.findall(r"```sh\n(.*?)```", (DOCS / "cli.md").read_text("utf-8"), re.DOTALL)
    for line in block.splitlines()
]
PYTHONS_OWN = re.compile(r"\b(?:None|True(?! peak)|False)\b|\(\(|\w+\(\w+=|<[\w.]+ object|PosixPath")


def test_every_line_of_the_page_works_and_says_something_in_words(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str]
) -> None:
    monkeypatch.chdir(tmp_path)
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    assert len(LINES) > 25
    for line in LINES:
        program, *arguments = shlex.split(line)
        code = (main if program == "furnel" else game_main)(arguments)
        out, err = capsys.readouterr()
        assert code == 0, (line, code, err)
        assert out.strip() or "--json" in line, line
        assert not PYTHONS_OWN.search(out), (line, PYTHONS_OWN.search(out))


def lines_of(page: str) -> list[str]:
    """The lines of the command line that a page shows, in its order."""
    blocks = re.findall(r"```\n(.*?)```", (DOCS / page).read_text("utf-8"), re.DOTALL)
    return [
        line.removeprefix("./run ") for block in blocks for line in block.splitlines() if "furnel " in line
    ]


def test_the_lines_of_the_other_pages_work_too(
    fitted_ensign: Workspace,
    game: Path,
    sources: Path,
    tmp_path: Path,
    monkeypatch: pytest.MonkeyPatch,
    capsys: pytest.CaptureFixture[str],
) -> None:
    monkeypatch.chdir(tmp_path)
    rows, walk = (
        fitted_ensign.catalogue.read(fitted_ensign.catalogue.get(path))
        for path in ("rules/boats.toml", "cast/ferryman_shore.png")
    )
    slow, fast, paint = (
        rows.replace(b"speed = 3.2", b"speed = %s" % speed) for speed in (b"2.1", b"4.5", b"3.3")
    )
    put(game, **{"slow-sails": {"rules/boats.toml": slow}, "fast": {"rules/boats.toml": fast}})
    with zipfile.ZipFile("mod.zip", "w") as package:
        package.writestr("paint/mod.toml", about("paint"))
        package.writestr("paint/rules/boats.toml", paint)
    for name, file in (
        ("photo.jpg", "dusk_paint.jpg"),
        ("stranger.png", "stranger_walker.png"),
        ("oak.png", "dusk_paint.jpg"),
        ("oars.wav", "bell_take_1.wav"),
        ("bass.wav", "bell_take_2.wav"),
        ("pictures/dawn.png", "sail_aurora.png"),
    ):
        Path(name).parent.mkdir(exist_ok=True)
        shutil.copy(sources / file, name)
    Path("sheets").mkdir()
    for name in ("walk.png", "sheets/walk.png"):
        Path(name).write_bytes(walk)
    strip = [
        "mod",
        "strip",
        str(fitted_ensign.folder),
        "rules/passengers.json",
        "[id=nurse]/strip",
        "coat.png",
    ]
    assert main(strip) == 0
    with Image.open("coat.png") as coat:  # what is the game's own is no change
        ImageOps.invert(coat.convert("RGB")).save("coat.png")
    seen = 0
    for page in ("sheets.md", "definitions.md", "several-mods.md"):
        for line in lines_of(page):
            said = line.replace("GAME", str(game)).replace("DIR", str(fitted_ensign.folder))
            code, (out, err) = main(shlex.split(said, comments=True)[1:]), capsys.readouterr()
            assert code == 0, (line, code, err)
            assert out.strip() and not PYTHONS_OWN.search(out), (line, out)
            seen += 1
    assert seen > 20


def test_the_readme_names_commands_that_there_are() -> None:
    from furnel.cli import COMMANDS

    told = set(re.findall(r"furnel ([a-z]+)\b", (DOCS.parent / "README.md").read_text("utf-8")))
    assert told - {"desktop"} <= COMMANDS.keys() | {"mod"}
