"""`python -m firsthour FOLDER`: the demo for everybody, from an installed wheel, gone on with where it was stopped."""

from __future__ import annotations

import shutil
import subprocess
import sys
from pathlib import Path

import pytest

from firsthour.make import make_demo
from furnel.mods.workspace import open_workspace


def test_it_is_made_once_and_gone_on_with(
    forged: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    home = tmp_path / "Tarnlight Ferry"
    home.mkdir()
    (home / "game").symlink_to(tmp_path / "copy")
    shutil.copytree(forged, tmp_path / "copy")
    (home / ".making").touch()  # stopped in the middle of the mod
    (home / "northern-lights").mkdir()
    (home / "northern-lights/furnel.toml").write_text("half")
    ran = subprocess.run(
        [sys.executable, "-m", "firsthour", str(home)], capture_output=True, text=True, check=False, cwd="/"
    )
    assert ran.returncode == 0, ran.stderr
    assert ran.stdout.splitlines()[-1] == str(home / "northern-lights/furnel.toml")
    space = open_workspace(home / "northern-lights")
    assert len(space.project.swaps) > 10 and not (home / ".making").exists()
    space.close()
    before = (home / "northern-lights/furnel.toml").read_bytes()
    said: list[str] = []
    assert make_demo(home, said.append) == home / "northern-lights/furnel.toml" and not said
    assert (home / "northern-lights/furnel.toml").read_bytes() == before
