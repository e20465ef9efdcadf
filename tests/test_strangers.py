"""What a stranger's file may do: run nothing, read and write nothing outside, and be nothing but plain text."""

from __future__ import annotations

from collections.abc import Callable
from importlib import resources
from pathlib import Path

import pytest

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.folders import state_folder
from furnel.games import Install, allow_commands, ask_report, commands_to_allow, parse_profile
from furnel.games.running import NotAllowed
from furnel.leave import given
from furnel.mods.build import build, package
from furnel.mods.outside import gathered, outside_files
from furnel.mods.project import Swap, load_project
from furnel.mods.workspace import Workspace, open_workspace
from furnel.words import plain

TEXT = (resources.files("furnel.games") / "profiles" / "tarnlight.toml").read_text("utf-8")
SWAP = '[[swap]]\noriginal = "a.dds"\nsource = "s"\n'


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        ('folder = "mods"', 'folder = "/etc"', "inside the game's folder"),
        ('folder = "mods"', 'folder = "../.."', "inside the game's folder"),
        ('order = "mods/order.toml"', 'order = "mods/../../order.toml"', "inside the game's folder"),
        ('files = "data/*.tlp"', 'files = "/data/*.tlp"', "inside the game's folder"),
        ('files = "data/*.tlp"', 'files = "data/**"', "ends with the name of a file"),
        ('files = "data/*.tlp"', 'files = ""', "inside the game's folder"),
        ('new-sound = "bank0/{number:03}.wav"', 'new-sound = "bank0/{nummer}.wav"', "{number}"),
        ('new-sound = "bank0/{number:03}.wav"', 'new-sound = "bank0/{number.__class__}.wav"', "braces"),
        ('tints = ["c8553d", "3f7d8c", "8a9a4b"]', 'tints = ["red"]', "tints"),
        ("cell = [32, 48]", "cell = [0, -3]", "cell"),
        ("keep-out = [[80, 80, 48, 48]]", "keep-out = [[-8, 80, 48, 0]]", "keep-out"),
        ('level = "{folder}/{stem}_level.dds"', 'level = "{open}/x.dds"', "{folder}, {stem}"),
        ('path = "{folder}/{stem}.loop"', 'path = "{0}.loop"', "{folder}, {stem}"),
        ('name = "Tarnlight Ferry"', 'name = "Tarn\\u001b[2Jlight"', "control characters"),
    ],
)  # fmt: skip
def test_a_profile_stays_in_its_bounds(old: str, new: str, says: str) -> None:
    assert old in TEXT
    with pytest.raises(FurnelError) as refused:
        parse_profile(TEXT.replace(old, new, 1), "own.toml")
    assert "own.toml, line" in refused.value.where and says in refused.value.why


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda text: text.replace('id = "evening-post"', 'id = "../../evil"'), "mod.id"),
        (lambda text: text.replace('version = "0.1"', 'version = "../../evil"'), "part of a file's name"),
        (lambda text: text.replace('name = "Evening Post"', 'name = "Evening\\nPost"'), "control characters"),
        (lambda text: f'{text}{SWAP}steps = [{{do = "nothing like it"}}]\n', "no such step"),
        (lambda text: f'{text}{SWAP}steps = [{{on = true}}]\n', "do"),
        (lambda text: f'{text}{SWAP}insist = ["sise"]\n', "there are file, size"),
        (lambda text: f'{text}{SWAP}encode = {{file = "DDS", format = "BC9"}}\n', "BC1"),
        (lambda text: f'{text}{SWAP}encode = {{file = "WAV", format = "BC1"}}\n', "PCM 16"),
        (lambda text: f'{text}{SWAP}encode = {{file = "EXE"}}\n', "DDS, KTX2"),
        (lambda text: f'{text}[[swap]]\noriginal = "../a.dds"\nsource = "s"\n', "inner path"),
    ],
)  # fmt: skip
def test_a_project_says_what_is_wrong_in_it(
    space: Workspace, change: Callable[[str], str], says: str
) -> None:
    text = space.file.read_text()
    assert change(text) != text
    space.file.write_text(change(text))
    with pytest.raises(FurnelError) as refused:
        load_project(space.file)
    assert says in f"{refused.value.why} {refused.value.where} {refused.value.remedy}"


def test_a_link_in_the_mods_place_is_not_followed(
    game: Path, tmp_path: Path, fitted_ensign: Workspace
) -> None:
    (tmp_path / "elsewhere").mkdir()
    import shutil

    shutil.rmtree(game / "mods")
    (game / "mods").symlink_to(tmp_path / "elsewhere")
    with pytest.raises(FurnelError, match="leads out of the game"):
        fitted_ensign.catalogue.install.mods_folder()
    assert list((tmp_path / "elsewhere").iterdir()) == []


def test_commands_of_a_strangers_profile_are_shown_and_asked_for_once(forged: Path, tmp_path: Path) -> None:
    mark = tmp_path / "ran"
    line = next(line for line in TEXT.splitlines() if line.startswith("report ="))
    text = TEXT.replace(line, f'report = ["touch", "{mark}"]')
    install = Install(forged, parse_profile(text, "own.toml"))
    assert commands_to_allow(Install(forged).profile) == []  # the shipped one
    assert any("touch" in line for line in commands_to_allow(install.profile))
    with pytest.raises(NotAllowed, match="touch"):
        ask_report(install)
    assert not mark.exists()
    allow_commands(install.profile)
    assert commands_to_allow(install.profile) == []
    with pytest.raises(FurnelError, match="makes no sense"):
        ask_report(install)
    assert mark.exists()
    changed = parse_profile(text.replace('"touch"', '"rm"'), "own.toml")
    assert commands_to_allow(changed)  # another command is asked for again


def test_a_strangers_project_reads_no_file_outside_its_folder(
    space: Workspace, tmp_path: Path, sources: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    secret = tmp_path / "secret.png"
    secret.write_bytes((sources / "ensign_small.png").read_bytes())
    theirs = space.project.with_swap(Swap(original="ensigns/small/kettle.tga", source="../secret.png"))
    space = space.save(theirs)
    (point,) = space.examine(theirs.swaps[0]).points
    assert (point.key, point.state) == ("source", "breaks") and "nobody chose it" in point.why
    with pytest.raises(FurnelError, match="nobody chose it"):
        space.fitted(theirs.swaps[0])
    with pytest.raises(FurnelError, match="nobody chose it"):
        gathered(space.file, space.project)
    assert outside_files(space.file, theirs.swaps) == [secret]
    assert main(["mod", "allow", str(space.file)]) == 1
    assert main(["mod", "allow", str(space.file), "--yes"]) == 0
    assert "secret.png" in capsys.readouterr().out
    assert space.examine(theirs.swaps[0]).points[0].key != "source"
    assert not given("file outside a project", str(tmp_path / "another.toml"), str(secret))


def test_sources_are_gathered_and_the_mod_can_move(fitted_ensign: Workspace, tmp_path: Path) -> None:
    space = fitted_ensign
    built = build(space).files
    assert main(["mod", "gather", str(space.file)]) == 0
    project = load_project(space.file)
    assert [swap.source for swap in project.swaps] == ["sources/ensign_small.png"]
    assert [swap.steps for swap in project.swaps] == [swap.steps for swap in space.project.swaps]
    whole = str(space.folder / "sources/ensign_small.png")
    absolute = space.project.with_swap(project.swaps[0].model_copy(update={"source": whole}))
    space.save(absolute)
    again = open_workspace(space.file)
    assert again.project.swaps[0].source == "sources/ensign_small.png"
    assert [file.sha256 for file in build(again).files] == [file.sha256 for file in built]
    again.close()


def test_a_package_is_the_mod_as_it_is_now(fitted_ensign: Workspace) -> None:
    import zipfile

    build(fitted_ensign)
    newer = fitted_ensign.project.mod.model_copy(update={"version": "0.9"})
    space = fitted_ensign.save(fitted_ensign.project.model_copy(update={"mod": newer}))
    with zipfile.ZipFile(package(space)) as archive:
        assert 'version = "0.9"' in archive.read("evening-post/mod.toml").decode()
    broken = space.project.swaps[0].model_copy(update={"steps": (), "encode": None})
    with pytest.raises(FurnelError, match="breaks"):
        package(space.with_project(space.project.with_swap(broken)))


def test_names_are_plain_text_in_a_terminal(capsys: pytest.CaptureFixture[str]) -> None:
    assert plain("a\x1b[31mred\x07\n") == "a\\x1b[31mred\\x07\n"
    assert main(["mod", "check", "/nowhere/\x1b]0;title\x07"]) == 2
    said = capsys.readouterr()
    assert "\x1b" not in said.out + said.err and "title" in said.err


def test_what_nobody_foresaw_is_one_sentence_and_the_log(
    monkeypatch: pytest.MonkeyPatch, capsys: pytest.CaptureFixture[str], space: Workspace
) -> None:
    import furnel.cli.modding as module

    def fail(*_: object) -> None:
        raise ZeroDivisionError("secret of the house")

    monkeypatch.setattr(module, "examine_all", fail)
    assert main(["mod", "check", str(space.file)]) == 3
    said = capsys.readouterr().err
    assert said.count("\n") == 1 and "Traceback" not in said and "furnel.log" in said
    assert state_folder().is_dir()
