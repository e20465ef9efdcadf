"""Definitions changed value by value: what a mod keeps, what the game gets, what an update does to it."""

from __future__ import annotations

import json
import tomllib
import zipfile
from pathlib import Path

import pytest

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.games import ask_report
from furnel.mods import definitions
from furnel.mods.build import build, examine_all
from furnel.mods.deploy import install_mod
from furnel.mods.project import Swap, load_project
from furnel.mods.workspace import Workspace, open_workspace
from furnel.texts import Change
from tarnlight.world import World

BOATS = "rules/boats.toml"
RAFT = b'[raft]\nname = "Raft"\nhull = "a"\nsail = "b"\nlength_m = 2\nspeed = 1\n'


def faster(speed: object = 3.9) -> Change:
    return Change(do="set", at="otter/speed", to=speed)


def changed(space: Workspace, *changes: Change, of: str = BOATS) -> Workspace:
    return space.save(definitions.with_changes(space, of, changes))


def edit_rules(game: Path, name: str, old: str, new: str) -> None:
    """An update of the game: its archive of rules with another text in it, written by somebody else's ZIP."""
    file = game / "data" / "rules.zip"
    with zipfile.ZipFile(file) as whole:
        texts = {one: whole.read(one) for one in whole.namelist()}
    assert old.encode() in texts[name]
    texts[name] = texts[name].replace(old.encode(), new.encode())
    with zipfile.ZipFile(file, "w") as whole:
        for one, data in texts.items():
            whole.writestr(one, data)


def test_a_value_goes_into_the_project_the_build_and_the_game(space: Workspace) -> None:
    shipped = space.catalogue.bytes_of(BOATS)
    space = changed(space, faster())
    row = tomllib.loads(space.file.read_text())["swap"][0]
    assert (
        row["changes"] == [{"do": "set", "at": "otter/speed", "to": 3.9, "was": 3.2}] and "source" not in row
    )
    assert load_project(space.file) == space.project
    swap = space.project.swaps[0]
    examined = space.examine(swap)
    assert examined.state == "fits"
    assert examined.data == shipped.replace(b"speed = 3.2", b"speed = 3.9")
    built = build(space)
    install_mod(space.catalogue.install, space.project.mod.id, built.folder)
    words = {word.path: (word.winner, word.verdict) for word in ask_report(space.catalogue.install).words}
    assert words[BOATS] == ("evening-post", "accepted")


def test_a_value_set_twice_is_set_once_and_the_games_own_is_no_change(space: Workspace) -> None:
    space = changed(space, faster(5.0), faster(6.0), Change(do="set", at="heron/name", to="Reed"))
    assert [(one.at, one.to, one.was) for one in space.project.swaps[0].changes] == [
        ("otter/speed", 6.0, 3.2), ("heron/name", "Reed", "Heron"),
    ]  # fmt: skip
    space = space.save(definitions.without_changes(space, BOATS, "heron"))
    assert [one.at for one in space.project.swaps[0].changes] == ["otter/speed"]
    space = changed(space, faster(3.2))
    assert space.project.made == () and space.project.swaps[0].is_untouched
    assert space.examine(space.project.swaps[0]).state == "fits"
    assert [file.path for file in build(space).files] == []
    assert definitions.opened(space, BOATS) is space.project


def test_an_edited_file_becomes_changes_and_a_damaged_one_stays_a_file(
    space: Workspace, tmp_path: Path
) -> None:
    text = space.catalogue.bytes_of(BOATS)
    edited = tmp_path / "boats.toml"
    edited.write_bytes(
        text.replace(b"7.4", b"8.1")
        + b'[raft]\nname = "Raft"\nhull = "a"\nsail = "b"\nlength_m = 2\nspeed = 1\n'
    )
    swap = space.new_swap(BOATS, edited)
    assert [(one.do, one.target) for one in swap.changes] == [("set", "otter/length_m"), ("add", "raft")]
    assert tomllib.loads(space.examine(swap).data.decode()) == tomllib.loads(edited.read_text())
    assert space.new_swap(BOATS, edited, whole=True).source
    edited.write_text("[otter\n")
    assert space.new_swap(BOATS, edited).source


def test_an_update_is_merged_and_only_what_both_changed_is_told(space: Workspace, game: Path) -> None:
    changed(space, faster())
    space.close()
    edit_rules(game, "boats.toml", "length_m = 7.4", "length_m = 7.7")
    space = open_workspace(space.file)
    examined = space.examine(space.project.swaps[0])
    assert examined.state == "fits"
    boat = tomllib.loads(examined.data.decode())["otter"]
    assert (boat["speed"], boat["length_m"]) == (3.9, 7.7)
    space.close()
    edit_rules(game, "boats.toml", "speed = 3.2", "speed = 3.0")
    space = open_workspace(space.file)
    drift = next(point for point in space.examine(space.project.swaps[0]).points if point.key == "drift")
    assert drift.state == "differs" and "otter/speed was 3.2 and is 3.0" in drift.yours
    kept = definitions.kept_over_update(space, space.project.swaps[0])
    assert space.examine(kept).state == "fits" and kept.changes[0].was == 3.0
    space.close()
    edit_rules(game, "boats.toml", "[otter]", "[ottar]")
    space = open_workspace(space.file)
    lost = space.examine(kept).points[0]
    assert (lost.key, lost.state) == ("changes", "breaks")
    assert "has no otter" in lost.yours and "ottar" in lost.remedy
    space.close()


@pytest.mark.parametrize(
    ("row", "why"),
    [
        ({"original": "art/sky/moon.dds"}, "neither a source nor changes"),
        ({"source": "a.toml", "changes": [faster()]}, "no source, steps or encoding"),
        ({"changes": [{"do": "set", "at": "a[", "to": 1}]}, "stray"),
        ({"changes": [{"do": "set", "at": "a", "to": 1, "place": "under"}]}, "place"),
    ],
)
def test_a_swap_is_made_of_one_thing(row: dict[str, object], why: str) -> None:
    with pytest.raises(ValueError, match=why):
        Swap.model_validate({"original": BOATS, **row})


def test_values_on_the_command_line(space: Workspace, game: Path, capsys: pytest.CaptureFixture[str]) -> None:
    def run(*words: object) -> tuple[int, str]:
        code = main([str(word) for word in words])
        told = capsys.readouterr()
        return code, told.out + told.err

    mod = space.folder
    assert "3.2" in run("show", game, BOATS, "otter/speed")[1]
    assert json.loads(run("show", game, BOATS, "otter", "--json")[1])["speed"] == 3.2
    assert "scene[0]/@music" in run("show", game, "rules/scene.xml")[1]
    assert run("mod", "set", mod, BOATS, "otter/speed", "4.5")[0] == 0
    assert run("mod", "set", mod, BOATS, "otter/name", "12")[0] == 0
    assert run("mod", "set", mod, BOATS, "otter/colour", '["a", "b"]')[0] == 0
    assert "rules/playlist.json" in run("mod", "set", mod, "rules/playlist.json", "quay[=fog]", "--drop")[1]
    rows = json.loads(run("mod", "diff", mod, "--json")[1])
    assert {one["at"]: one.get("to") for one in rows[BOATS]} == {
        "otter/speed": 4.5,
        "otter/name": "12",
        "otter": ["a", "b"],
    }
    code, told = run("mod", "set", mod, BOATS, "oter/speed", "1")
    assert code == 2 and "The nearest: otter" in told
    assert run("mod", "set", mod, BOATS, "otter", "--game-value")[0] == 0
    assert list(json.loads(run("mod", "diff", mod, "--json")[1])) == ["rules/playlist.json"]
    assert run("mod", "set", mod, BOATS, "otter", "1", "--drop")[0] == 2


def test_a_change_that_cannot_be_is_refused_and_nothing_is_kept(space: Workspace) -> None:
    for change in (
        faster().model_copy(update={"at": "otter/sped"}),
        Change(do="add", at="otter", key="speed", to=1),
        Change(do="drop", at="gull"),
    ):
        with pytest.raises(FurnelError):
            definitions.with_changes(space, BOATS, [faster(), change])
    assert load_project(space.file).swaps == ()


def test_only_changed_records_are_written_where_the_game_lays_them_over_its_own(space: Workspace) -> None:
    install, own = space.catalogue.install, space.project.mod.id
    space = changed(space, faster(3.84), Change(do="set", at="skiff/name", to="Skiff the second"))
    install_mod(install, own, build(space).folder)
    written = tomllib.loads((install.folder / "mods" / own / BOATS).read_text())
    assert set(written) == {"otter", "skiff"} and written["otter"]["speed"] == 3.84
    other = install.folder / "mods" / "other"
    (other / "rules").mkdir(parents=True)
    (other / "mod.toml").write_text('id = "other"\nname = "Other"\nversion = "1"\ngame-version = "1.2"\n')
    (other / "rules" / "boats.toml").write_text(
        '[heron]\nname = "Grey heron"\nhull = "art/hulls/hull_heron.dds"\n'
        'sail = "art/sails/sail_night.dds"\nlength_m = 6.1\nspeed = 4.5\n'
    )
    order = install.folder / "mods" / "order.toml"
    order.write_text(order.read_text() + '\n[[mod]]\nid = "other"\non = true\n')
    seen = World(install.folder).book(BOATS)
    assert [seen["otter"]["speed"], seen["heron"]["speed"], seen["skiff"]["name"]] == [
        3.84,
        4.5,
        "Skiff the second",
    ]


def test_a_record_that_the_game_keeps_anyway_is_not_said_to_be_out(space: Workspace) -> None:
    space = changed(space, faster(3.84), Change(do="drop", at="herring"))
    examined = next(one for one in examine_all(space) if one.swap.original == BOATS)
    told = [point.yours for point in examined.points if point.key == "rules"]
    assert examined.state == "breaks" and "herring stays in the game" in told[0]


def test_a_comment_that_was_written_is_not_dropped_without_a_word(space: Workspace) -> None:
    text = space.catalogue.bytes_of("rules/boats.toml").decode()
    with pytest.raises(FurnelError, match="comments"):
        definitions.with_text(space, "rules/boats.toml", "# mine\n" + text)
    both = "# mine\n" + text.replace("speed = 3.9", "speed = 3.5")
    made = space.with_project(definitions.with_text(space, "rules/boats.toml", both))
    assert not definitions.keeps_all(made, "rules/boats.toml", both)
    plain = text.replace("speed = 3.9", "speed = 3.5")
    made = space.with_project(definitions.with_text(space, "rules/boats.toml", plain))
    assert definitions.keeps_all(made, "rules/boats.toml", plain)
