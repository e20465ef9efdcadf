"""New things: a record like another, assets in its places, texts and lists; seen by the game, and taken back whole."""

from __future__ import annotations

import shutil
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import Any

import pytest
from PIL import Image

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.games import ask_report
from furnel.mods import additions, definitions
from furnel.mods.additions import Addition
from furnel.mods.build import build
from furnel.mods.deploy import install_mod
from furnel.mods.project import load_project
from furnel.mods.workspace import Workspace
from furnel.texts import parse_address
from tests.conftest import digest


def with_new(space: Workspace, kind: str, name: str, like: str, **what: Any) -> Workspace:
    return space.save(additions.add(space, Addition(kind, name, like, **what)))


def at(space: Workspace, path: str, address: str) -> Any:
    return definitions.definition(space, path)[1].look(parse_address(address))


def _row(folder: Path) -> Path:
    """A row of four greys, the lightest first."""
    file = folder / "greys.png"
    Image.frombytes("L", (4, 1), bytes([255, 128, 64, 0])).save(file)
    return file


@pytest.fixture
def everything(space: Workspace, sources: Path) -> Workspace:
    """The mod with something new of every kind."""
    paint, bell, song = sources / "dusk_paint.jpg", sources / "church_bell.mp3", sources / "night_song.wav"
    for kind, name, like, files, values in (
        ("boat", "raft", "skiff", {"hull": [paint], "sail": [paint]}, {"speed": "3.5"}),
        ("village", "oldby", "kettle", {"ensign": [sources / "ensign_small.png"]}, {}),
        ("tune", "night_song", "fog", {"music": [song]}, {"by": "Us"}),
        ("ware", "aurora", "old_corin", {"picture": [paint]}, {"price": "11"}),
        ("sound", "big_bell", "bell_near", {"takes": [bell, song]}, {}),
        ("passenger", "cook", "clerk", {"coat": [_row(sources)], "frame": [_row(sources)]}, {}),
    ):  # fmt: skip
        wanted: Mapping[str, Sequence[Path]] = files  # type: ignore[assignment]
        space = with_new(space, kind, name, like, files=wanted, values=values)
    return space


def test_the_game_takes_all_that_is_new(everything: Workspace) -> None:
    space = everything
    assert {name: at(space, "rules/boats.toml", f"raft/{name}") for name in ("name", "hull", "speed", "length_m")} == {
        "name": "Raft", "hull": "art/hulls/raft.dds", "speed": 3.5, "length_m": 4.0,
    }  # fmt: skip
    assert at(space, "rules/sound-events.json", "big_bell/sounds") == ["bank0/046.wav", "bank0/047.wav"]
    cook = at(space, "rules/passengers.json", "[id=cook]")
    assert cook["strip"] == [0, 0x404040, 0x808080, 0xFFFFFF]  # dark ones first, as the game reads them
    assert cook["portrait_strip"] == ["ffffff", "808080", "404040", "000000"]
    assert at(space, "rules/playlist.json", "quay")[-1] == "night_song"
    assert at(space, "rules/strings.csv", "[key=village.oldby]/en") == "Oldby"
    assert load_project(space.file) == space.project
    built = build(space)
    install_mod(space.catalogue.install, space.project.mod.id, built.folder)
    report = ask_report(space.catalogue.install)
    ours = {word.path: word.verdict for word in report.words if word.winner == "evening-post"}
    assert set(ours) == {file.path for file in built.files} and set(ours.values()) == {"accepted"}
    assert {
        "art/hulls/raft.dds",
        "music/night_song.loop",
        "ensigns/medium/oldby.tga",
        "bank0/047.wav",
    } <= set(ours)
    assert not report.strays


def test_what_lies_deeper_in_a_folder_is_left_alone(space: Workspace, sources: Path, tmp_path: Path) -> None:
    folder = tmp_path / "boats"
    (folder / "raft" / "old" / "older").mkdir(parents=True)
    shutil.copy(sources / "dusk_paint.jpg", folder / "raft" / "hull.jpg")
    (folder / "empty").mkdir()
    found = additions.plan(space, "boat", folder, "skiff")
    assert [
        (one.id, {place: [file.name for file in files] for place, files in one.files.items()})
        for one in found.additions
    ] == [("raft", {"hull": ["hull.jpg"]})]


def test_taken_back_nothing_of_it_is_left(everything: Workspace) -> None:
    space = everything
    for mark in additions.additions(space.project):
        space = space.with_project(additions.without(space, mark))
        assert mark not in additions.additions(space.project)
    assert space.project.swaps == ()
    with pytest.raises(FurnelError, match="has none"):
        additions.without(space, "boat raft")


def test_what_was_changed_in_it_later_goes_with_it_and_all_else_stays(
    space: Workspace, sources: Path
) -> None:
    from furnel.texts import Change

    space = with_new(space, "boat", "raft", "skiff")
    mine = [Change(do="set", at="raft/speed", to=2.9), Change(do="set", at="otter/speed", to=3.3)]
    space = space.with_project(definitions.with_changes(space, "rules/boats.toml", mine))
    space = space.with_project(additions.without(space, "boat raft"))
    assert [(one.at, one.to) for one in space.project.swaps[0].changes] == [("otter/speed", 3.3)]


@pytest.mark.parametrize(
    ("wanted", "why", "remedy"),
    [
        (Addition("bot", "raft", "skiff"), "no such thing", "boat, passenger"),
        (Addition("boat", "skiff", "otter"), "there is a skiff already", "another id"),
        (Addition("boat", "our raft", "skiff"), "an id has letters", "our_raft"),
        (Addition("boat", "raft", "skif"), "no skif that it could be like", "skiff"),
        (Addition("boat", "raft", "skiff", files={"hul": [Path("x")]}), "no place called hul", "hull, sail"),
        (Addition("boat", "raft", "skiff", files={"hull": [Path("x"), Path("y")]}), "takes one file", "one"),
        (Addition("tune", "song", "fog"), "its music is missing", "music"),
        (Addition("boat", "raft", "skiff", values={"colour": "red"}), "no such value", "length_m"),
        (Addition("boat", "raft", "skiff", files={"hull": [Path("/nowhere/x.png")]}), "no such file", "path"),
        (Addition("boat", "raft", "skiff", left_out=frozenset({"flies"})), "no flies", "rows on open water"),
    ],
)  # fmt: skip
def test_what_cannot_be_is_refused_by_name(space: Workspace, wanted: Addition, why: str, remedy: str) -> None:
    with pytest.raises(FurnelError) as caught:
        additions.add(space, wanted)
    assert why in caught.value.why and remedy in caught.value.remedy


def test_a_join_may_be_left_out(space: Workspace) -> None:
    space = with_new(space, "boat", "raft", "skiff", left_out=frozenset({"rows on open water"}))
    assert [swap.original for swap in space.project.swaps] == ["rules/boats.toml"]


def test_a_folder_becomes_one_new_thing_a_file_and_twins_are_noticed(
    space: Workspace, sources: Path, tmp_path: Path
) -> None:
    folder = tmp_path / "sounds"
    (folder / "Deep bell").mkdir(parents=True)
    for number, name in enumerate(("Far-off Gull.wav", "squeak.wav", "gull.wav", "again.wav")):
        shutil.copy(sources / f"bell_take_{min(number, 2) + 1}.wav", folder / name)
    for number in (4, 5):
        shutil.copy(sources / f"bell_take_{number}.wav", folder / "Deep bell")
    found = additions.plan(space, "sound", folder, "gull")
    assert {one.id: len(one.files["takes"]) for one in found.additions} == {
        "deep_bell": 2, "far_off_gull": 1, "again": 1, "squeak": 1,
    }  # fmt: skip
    assert [(one.name, other.name) for one, other in found.twins] == [("gull.wav", "again.wav")]
    space = space.with_project(additions.add_all(space, found.additions))
    assert len([swap for swap in space.project.swaps if swap.like]) == 5
    assert {space.examine(swap).state for swap in space.project.swaps} <= {"fits", "differs"}


def test_the_story_on_the_command_line(
    space: Workspace, sources: Path, game: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    def run(*words: object) -> int:
        return main([str(word) for word in words])

    before = digest(game)
    paint = sources / "dusk_paint.jpg"
    assert run(
        "mod", "new-like", space.folder, "boat", "raft", "--like", "skiff", "--file", f"hull={paint}",
        "--value", "speed=3.1", "--title", "The raft", "--leave-out", "rows on open water",
    ) == 0  # fmt: skip
    told = capsys.readouterr().out
    assert (
        "art/hulls/raft.dds  " in told
        and "new raft, like skiff" in told
        and "raft/name: Skiff → The raft" in told
    )
    assert run("mod", "new-like", space.folder, "boat", "raft", "--like", "skiff") == 2
    assert run("mod", "new-like", space.folder, "boat", "x", "--like", "skiff", "--file", "hull") == 2
    assert "hull=oak.png" in capsys.readouterr().err
    assert run("mod", "new-all", space.folder, "ware", sources, "--like", "old_corin", "--plan") == 0
    assert run("mod", "take-back", space.folder, "boat", "raft") == 0
    assert load_project(space.file).swaps == () and digest(game) == before
