"""Killed at any durable step, the next start finds the old or the new, whole, and nothing lying about."""

from __future__ import annotations

import json
import os
import subprocess
import sys
from pathlib import Path

import pytest

STORIES = {
    "build-new": 15, "build-update": 20, "install-new": 20, "install-without-a-mods-folder": 20,
    "install-over-a-handmade-folder": 20, "update": 20, "remove": 10, "bridge": 20, "bridge-again": 10, "get": 10,
    "load-out": 2, "install-in-place": 20, "update-in-place": 20, "remove-in-place": 10, "share-in-place": 30,
    "leave-what-is-shared": 20, "save": 4, "repack": 3,
    "repack-with-side-files": 10, "pack": 10, "take-out": 10, "scan": 1,
}  # fmt: skip
"""What is killed, and at how many places at least."""


@pytest.mark.parametrize("part", range(2))
def test_old_or_new_and_nothing_left(part: int, forged: Path, sources: Path, tmp_path: Path) -> None:
    """Every rename, link and removal of each story is a place to die at (see tests/killing.py)."""
    names = list(STORIES)[part::2]
    ran = subprocess.run(
        [sys.executable, "-m", "tests.killing", ",".join(names), str(tmp_path / "w"), str(forged), str(sources)],
        env={**os.environ, "PYTHONPATH": "."}, capture_output=True, text=True, check=False,
    )  # fmt: skip
    assert ran.returncode == 0, ran.stderr[-2000:]
    said = [json.loads(line) for line in ran.stdout.splitlines()]
    assert [one["story"] for one in said] == names
    for one in said:
        assert one["wrong"] == [], one
        assert one["places"] >= STORIES[one["story"]], one
