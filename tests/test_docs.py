"""What the docs say is so."""

from __future__ import annotations

import re
from pathlib import Path

from demo.files import tables
from demo.points import table
from demo.schemas import schemas

from furnel.desktop.actions import COMMANDS
from furnel.mods.steps import STEP_TYPES

ROOT = Path(__file__).parents[1]


def test_the_schemas_are_the_current_ones() -> None:
    for name, text in schemas().items():
        assert (ROOT / "docs" / "schemas" / name).read_text("utf-8") == text, (
            "run: ./run python -m demo.schemas docs/schemas"
        )


def test_the_points_are_the_current_ones() -> None:
    assert (ROOT / "docs" / "points.md").read_text("utf-8") == table(), (
        "run: ./run python -m demo.points docs/points.md"
    )


def test_the_files_are_the_current_ones() -> None:
    assert (ROOT / "docs" / "files.md").read_text("utf-8") == tables(), (
        "run: ./run python -m demo.files docs/files.md"
    )


def test_every_link_leads_somewhere() -> None:
    for page in [ROOT / "README.md", *(ROOT / "docs").glob("*.md")]:
        for target in re.findall(r"\]\(([^)#]+)\)", page.read_text("utf-8")):
            assert (page.parent / target).exists(), f"{page.name}: {target}"


def test_every_step_and_its_settings_are_described() -> None:
    text = (ROOT / "docs" / "projects.md").read_text("utf-8")
    for step in STEP_TYPES.values():
        row = next(line for line in text.splitlines() if line.startswith(f"| `{step.id}` |"))
        assert all(f"`{parameter.name}`" in row for parameter in step.parameters)


def test_keys_in_the_guide_are_the_real_ones() -> None:
    guide = (ROOT / "docs" / "guide.md").read_text("utf-8")
    keys = {entry.key.replace("Return", "Enter") for entry in COMMANDS} | {"Ctrl+4"}
    for key in re.findall(r"`((?:Ctrl\+|F)[^`]+)`", guide):
        assert key in keys, key
