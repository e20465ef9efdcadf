"""A definition as records: the game's values and the mod's beside each other, and the changes that the bench makes of them."""

from __future__ import annotations

import csv
import io
import tomllib
from xml.etree import ElementTree

import pytest

from furnel.errors import FurnelError
from furnel.mods import definitions
from furnel.mods.records import WHOLE, copied, like_another, open_book, reckoned
from furnel.mods.workspace import Workspace
from furnel.texts import Change
from furnel.texts.places import ABSENT

BOATS = "rules/boats.toml"


def with_(space: Workspace, path: str, *changes: Change) -> Workspace:
    return space.with_project(definitions.with_changes(space, path, changes))


def test_records_show_both_sides_and_what_is_wrong(space: Workspace) -> None:
    space = with_(
        space, BOATS, Change(do="set", at="otter/speed", to=6.5), Change(do="drop", at="herring"),
        Change(do="add", key="raft", at="", to={"name": "Raft"}, like="skiff", place="after skiff"),
    )  # fmt: skip
    book = open_book(space, BOATS)
    (sheet,) = book.sheets
    assert sheet.names == ("otter", "heron", "skiff", "raft", "herring")
    assert [sheet.state(name) for name in sheet.names] == ["changed", "", "", "new", "gone"]
    assert [column.label for column in sheet.columns] == ["name", "hull", "sail", "length", "speed"]
    speed = book.lines(sheet, "otter")[-1]
    assert (speed.now, speed.game, speed.changed, speed.meaning.unit) == (6.5, 3.2, True, "m/s")
    assert speed.fault is not None and "hull planes" in speed.fault.why
    assert {line.game for line in book.lines(sheet, "raft")} == {ABSENT}
    assert book.lines(sheet, "raft")[0].now == "Raft"


def test_what_has_no_table_is_one_record(space: Workspace) -> None:
    book = open_book(space, "rules/playlist.json")
    assert [sheet.name for sheet in book.sheets] == [WHOLE]
    lines = book.lines(book.sheets[0], WHOLE)
    assert (lines[0].label, lines[0].now) == ("quay", ["slow_water", "fog"])
    assert all(open_book(space, path).sheets for path in space.demands.texts.paths)


def test_choices_come_from_the_records_of_game_and_mod(space: Workspace) -> None:
    scene = "rules/scene.xml"
    book = open_book(space, scene)
    line = next(line for line in book.lines(book.sheets[0], "quay") if line.label == "boat")
    assert "skiff" in book.options(line.meaning) and "raft" not in book.options(line.meaning)
    more = with_(space, BOATS, Change(do="add", key="raft", at="", like="skiff"))
    assert "raft" in open_book(more, scene).options(line.meaning)
    more = with_(more, scene, Change(do="set", at=line.address, to="raft"))
    assert more.examine(more.project.swap_for(scene)).state == "fits"  # type: ignore[arg-type]
    lone = with_(space, scene, Change(do="set", at=line.address, to="raft"))
    assert lone.examine(lone.project.swap_for(scene)).state == "breaks"  # type: ignore[arg-type]


def test_a_new_record_is_like_another_in_every_notation(space: Workspace) -> None:
    def made(path: str, name: str, like: str) -> bytes:
        book = open_book(space, path)
        change = like_another(book, book.sheets[0], name, like)
        return definitions.definition(with_(space, path, change), path)[1].data

    boats = tomllib.loads(made(BOATS, "raft", "skiff").decode())
    assert boats["raft"] == boats["skiff"]
    scenes = {
        one.attrib["id"]: one for one in ElementTree.fromstring(made("rules/scene.xml", "yard", "quay"))
    }
    assert scenes["yard"].attrib["music"] == "slow_water" and len(scenes["yard"]) == 2
    rows = list(csv.DictReader(io.StringIO(made("rules/strings.csv", "raft", "mail").decode())))
    assert {"key": "raft", "en": "Night mail"} in rows
    with pytest.raises(FurnelError, match="already"):
        made(BOATS, "otter", "skiff")


def test_values_are_copied_and_reckoned(space: Workspace) -> None:
    book = open_book(space, BOATS)
    space = with_(space, BOATS, *copied(book, book.sheets[0], "skiff", "heron"))
    boats = definitions.definition(space, BOATS)[1].plain()
    assert boats["skiff"] == boats["heron"]
    addresses = ["otter/speed", "heron/speed", "otter/name"]
    assert [change.to for change in reckoned(book, addresses, "multiply", 1.25)] == [4.0, 4.875]
    assert [change.to for change in reckoned(book, addresses[:1], "add", -0.2)] == [3.0]
    bags = open_book(space, "rules/villages.ini")
    assert [change.to for change in reckoned(bags, ["aldvik/bags"], "multiply", 2)] == ["6"]


def test_where_anything_is_named(space: Workspace) -> None:
    texts = space.demands.texts
    assert ("rules/scene.xml", "scene[@id=open water]/boat[@ref=heron]/@ref") in [
        (use.path, use.address) for use in texts.uses("heron")
    ]
    assert [use.address for use in texts.uses_of_asset("art/hulls/hull_otter.dds")] == ["otter/hull"]
    assert {use.path for use in texts.uses_of_asset("music/fog.ogg")} == {
        "rules/playlist.json",
        "rules/scene.xml",
    }
    assert texts.words_of("rules/strings.csv", "village.kettle") == "en: Kettle"
