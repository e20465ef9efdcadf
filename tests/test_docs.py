"""What the docs say is so."""

from __future__ import annotations

import json
import re
import tomllib
from pathlib import Path

import fastjsonschema
import pytest
import tomlkit
from demo.files import tables
from demo.points import table
from demo.schemas import schemas

from furnel.containers import parse_layout
from furnel.desktop.actions import COMMANDS
from furnel.games.profile import parse_profile
from furnel.mods.project import load_project
from furnel.mods.steps import STEP_TYPES
from furnel.mods.workspace import Workspace

ROOT = Path(__file__).parents[1]


def test_the_schemas_are_the_current_ones() -> None:
    for name, text in schemas().items():
        assert (ROOT / "docs" / "schemas" / name).read_text("utf-8") == text, (
            "run: ./run python -m demo.schemas docs/schemas"
        )


@pytest.mark.parametrize("name", ["layout", "profile", "project"])
def test_the_schemas_describe_the_files_as_they_are_written(name: str, fitted_ensign: Workspace) -> None:
    """By a validator of others."""
    valid = fastjsonschema.compile(
        json.loads((ROOT / "docs" / "schemas" / f"{name}.schema.json").read_text("utf-8")),
        use_default=False,
    )
    folders = {
        "layout": ROOT / "src/furnel/containers/layouts",
        "profile": ROOT / "src/furnel/games/profiles",
    }
    files = [fitted_ensign.save().file] if name == "project" else sorted(folders[name].glob("*.toml"))
    for file in files:
        raw = tomllib.loads(file.read_text("utf-8"))
        valid(raw)
        with pytest.raises(fastjsonschema.JsonSchemaException):
            valid({**raw, "nobody-knows-this": 1})
    if name == "project":
        raw["swap"][0]["steps"] = [{"do": "size", "wide": 3}]
        with pytest.raises(fastjsonschema.JsonSchemaException):
            valid(raw)


EXAMPLES = [
    (page.name, example)
    for page in sorted((ROOT / "docs").glob("*.md"))
    for example in re.findall(r"```toml\n(.*?)```", page.read_text("utf-8"), re.DOTALL)
]
RECORD = """furnel-layout = 1
name = "shown"
title = "What an example stands in"
files = ["*.shown"]
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "homes", type = "u16" },
  { name = "sounds", type = "u16" }, { name = "sounds_at", type = "u32" }]
[index]
fields = [{ name = "path", type = "text", length = 16, holds = "path" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" }]
"""


@pytest.mark.parametrize(("page", "example"), EXAMPLES, ids=lambda text: text[:24])
def test_every_example_of_a_page_is_taken(page: str, example: str, game: Path) -> None:
    """As it stands there, in the smallest file that it can stand in."""
    if page == "layouts.md":
        told = tomllib.loads(example)
        frame = {} if "furnel-layout" in told else tomllib.loads(RECORD)
        if "hash" in told.get("names", {}):
            frame["index"] = {
                "names": "hash",
                "fields": [{"name": "h", "type": "u32", "holds": "name hash"}, *frame["index"]["fields"][1:]],
            }
        if "free" in example:  # chains through the entries
            frame["index"]["fields"].append({"name": "next", "type": "u16", "holds": "next entry"})
        if "buckets" in told:
            frame["names"] = {"hash": "crc32"}
        parse_layout(tomlkit.dumps(frame | told), page)
    elif page == "projects.md" or "[[swap]]" in example:
        head = 'furnel = 1\n[mod]\nid = "a"\nname = "A"\nversion = "1"\n[game]\nprofile = "tarnlight"\nfolder = "../game"\n'
        file = game / "furnel.toml"
        file.write_text(example if "[mod]" in example else head + example, "utf-8")
        assert load_project(file).swaps
    else:
        shipped = (ROOT / "src/furnel/games/profiles/tarnlight.toml").read_text("utf-8")
        told, own = tomlkit.parse(example), tomlkit.parse(shipped)
        for part, rows in told.items():
            own[part] = own[part] | rows if part == "mods" else rows
        parse_profile(tomlkit.dumps(own), Path(page))


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
