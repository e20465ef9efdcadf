"""The lines of the command line's page, typed as they stand there."""

from __future__ import annotations

import re
import shlex
from pathlib import Path

import pytest

from furnel.cli import main
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


def test_the_readme_names_commands_that_there_are() -> None:
    from furnel.cli import COMMANDS

    told = set(re.findall(r"furnel ([a-z]+)\b", (DOCS.parent / "README.md").read_text("utf-8")))
    assert told - {"desktop"} <= COMMANDS.keys() | {"mod"}
