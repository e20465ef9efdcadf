"""A mod as strangers get it: a package that says what it is, tried in a copy of the game, with no trace of the machine."""

from __future__ import annotations

import io
import shutil
import subprocess
import sys
import zipfile
from pathlib import Path

import pytest
from PIL import Image

from furnel.cli import main
from furnel.errors import FurnelError
from furnel.games import Install
from furnel.mods.build import package
from furnel.mods.definitions import with_changes
from furnel.mods.getting import looked_into
from furnel.mods.outside import choose_all
from furnel.mods.sharing import CHANGES, README, check_package, credit_gaps, share_points, with_facts
from furnel.mods.workspace import Workspace, open_workspace
from furnel.texts import Change
from tarnlight.world import World
from tests.conftest import digest

HULL = "art/hulls/hull_otter.dds"


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    """What is remembered of sources is forgotten between the tests."""
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def faster(space: Workspace, speed: float) -> Workspace:
    return space.save(with_changes(space, "rules/boats.toml", [Change(do="set", at="otter/speed", to=speed)]))


def texts_in(file: Path) -> dict[str, str]:
    with zipfile.ZipFile(file) as packed:
        return {
            name.partition("/")[2]: packed.read(name).decode()
            for name in packed.namelist()
            if name.endswith((".txt", ".toml"))
        }


def test_the_package_says_what_it_is_and_installs_by_unzip_alone(
    fitted: Workspace, game: Path, tmp_path: Path
) -> None:
    Image.new("RGB", (64, 36), (40, 90, 70)).save(tmp_path / "shot.png")
    facts = {
        "author": "Runa", "summary": "Boats for the evening.", "licence": "CC-BY-4.0", "tags": ["boats"],
        "description": "A *slow* ferry.\n\nIt sings.",
    }  # fmt: skip
    space = with_facts(fitted, facts, tmp_path / "shot.png", {"*": "Mira, CC0-1.0"})
    assert {point.state for point in share_points(space)} == {"fits"}
    made = package(space, tmp_path / "evening.zip")
    readme = texts_in(made)[README]
    for wanted in (
        "Evening Post 0.1 by Runa", "Boats for the evening.", "It sings.", "mods/evening-post", "mods/order.toml", HULL,
        "Mira, CC0-1.0", "CC-BY-4.0",
    ):  # fmt: skip
        assert wanted in readme, wanted
    before, home = digest(game), (tmp_path / "mod").resolve()
    raw = made.read_bytes() + b"".join(texts_in(made)[name].encode() for name in texts_in(made))
    assert str(tmp_path).encode() not in raw and str(home).encode() not in raw and b"dusk_paint" not in raw
    assert {point.key: point.state for point in check_package(space, made)} == {
        "unpacked": "fits", "judged": "fits", "removed": "fits",
    }  # fmt: skip
    assert digest(game) == before
    # as somebody without Furnel would
    code = f"import zipfile; zipfile.ZipFile({str(made)!r}).extractall({str(game / 'mods')!r})"
    subprocess.run([sys.executable, "-I", "-c", code], check=True)
    entry = readme.partition("Put it last in mods/order.toml:")[2].partition("How to remove")[0]
    (game / "mods/order.toml").write_text("".join(line.strip() + "\n" for line in entry.splitlines()))
    world = World(game)
    assert world.winner(HULL)[0] == "evening-post" and not world.strays()
    with zipfile.ZipFile(made) as packed:
        for name, size in (("preview.png", (640, 360)), ("preview-256x256.png", (256, 256))):
            shown = Image.open(io.BytesIO(packed.read(f"evening-post/{name}")))
            assert shown.size == size and shown.convert("RGB").getpixel((size[0] // 2, 9)) == (40, 90, 70)


def test_the_same_mod_gives_the_same_package_and_what_changed_is_told(
    fitted: Workspace, tmp_path: Path
) -> None:
    space = faster(fitted, 3.6)
    one = package(space, tmp_path / "one.zip").read_bytes()
    assert package(space, tmp_path / "two.zip").read_bytes() == one
    assert texts_in(tmp_path / "one.zip")[CHANGES] == "0.1\n- The first version.\n"
    space = with_facts(faster(space, 3.9), {"version": "0.2"})
    package(space, tmp_path / "three.zip")
    told = texts_in(tmp_path / "three.zip")[CHANGES]
    assert (
        told.startswith("0.2\n") and "rules/boats.toml: otter/speed: 3.2 → 3.9" in told and "hull" not in told
    )
    assert told.endswith("\n0.1\n- The first version.\n")
    (space.folder / CHANGES).write_text(
        told.replace("- rules/boats.toml: otter/speed: 3.2 → 3.9", "- She is faster")
    )
    package(space, tmp_path / "four.zip")
    assert "She is faster" in texts_in(tmp_path / "four.zip")[CHANGES]
    swap = space.project.swap_for("cast/otter_walk.png")
    assert swap is not None
    space = with_facts(space.save(space.project.without_swap("cast/otter_walk.png")), {"version": "0.3"})
    package(space, tmp_path / "five.zip")
    assert "- Gone: cast/otter_walk.png" in texts_in(tmp_path / "five.zip")[CHANGES].partition("0.2\n")[0]


def test_a_project_is_one_folder_that_tells_what_need_not_be_kept(fitted: Workspace, tmp_path: Path) -> None:
    package(faster(fitted, 3.6), tmp_path / "one.zip")
    copy = tmp_path / "elsewhere" / "mod"
    ignored = [
        line.strip("/")
        for line in (fitted.folder / ".gitignore").read_text().splitlines()
        if line.startswith("/")
    ]
    shutil.copytree(fitted.folder, copy, ignore=shutil.ignore_patterns(*ignored))
    space = open_workspace(copy, game=fitted.catalogue.install.folder)
    for swap in space.project.swaps:  # sources lie outside this project: a friend has chosen them
        choose_all(space.file, swap)
    package(with_facts(faster(space, 3.9), {"version": "0.2"}), tmp_path / "two.zip")
    assert "otter/speed: 3.2 → 3.9" in texts_in(tmp_path / "two.zip")[CHANGES]


def test_gaps_differ_and_are_named(fitted: Workspace) -> None:
    points = {point.key: point for point in share_points(fitted)}
    assert {key for key, point in points.items() if point.state == "differs"} == {
        "author", "summary", "licence", "preview", "credits",
    }  # fmt: skip
    assert "4 sources without credit" in points["credits"].said
    space = with_facts(fitted, {}, None, {"art/*": "Mira", "cast/*": "Runa"})
    assert {swap.original for swap in credit_gaps(space)} == {"bank0/000.wav", "music/slow_water.ogg"}


@pytest.mark.parametrize(
    "facts",
    [
        {"version": "../../evil"},
        {"version": "1 2"},
        {"id": "../x"},
        {"licence": "free for all"},
        {"name": ""},
        {"summary": "a\nb"},
    ],
)
def test_what_is_no_fact_is_refused(facts: dict[str, object], fitted: Workspace) -> None:
    before = fitted.file.read_text()
    with pytest.raises(FurnelError):
        with_facts(fitted, facts)
    assert fitted.file.read_text() == before


def test_a_package_that_the_game_refuses_is_found_out(fitted: Workspace, tmp_path: Path) -> None:
    made = package(fitted, tmp_path / "good.zip")
    with zipfile.ZipFile(made) as old, zipfile.ZipFile(tmp_path / "bad.zip", "w") as new:
        for name in old.namelist():
            new.writestr(name, b"nonsense" if name.endswith(".dds") else old.read(name))
    points = {point.key: point for point in check_package(fitted, tmp_path / "bad.zip")}
    assert points["judged"].state == "breaks" and HULL in points["judged"].said
    with zipfile.ZipFile(tmp_path / "evil.zip", "w") as new:
        new.writestr("../evil", "x")
    with pytest.raises(FurnelError, match="not safe|'..'"):
        check_package(fitted, tmp_path / "evil.zip")


def test_from_the_command_line_and_back_in_by_furnel(
    fitted: Workspace, tmp_path: Path, capsys: pytest.CaptureFixture[str]
) -> None:
    file, game = str(fitted.file), fitted.catalogue.install.folder
    assert main(["mod", "share", file, "--look"]) == 0
    assert "differs  licence" in capsys.readouterr().out
    told = [
        "--author",
        "Runa",
        "--licence",
        "CC0-1.0",
        "--summary",
        "Evening.",
        "--credit",
        "*=Mira",
        "--out",
    ]
    assert main(["mod", "share", file, *told, str(tmp_path / "e.zip")]) == 0
    said = capsys.readouterr().out
    assert "fits     judged: the game accepts" in said and "fits     removed" in said
    assert open_workspace(fitted.file).project.mod.licence == "CC0-1.0"
    with looked_into(Install(game), tmp_path / "e.zip") as stranger:
        assert (stranger.id, stranger.author) == ("evening-post", "Runa") and HULL in stranger.replaces
    assert main(["mod", "share", file, "--version", "../1"]) == 2
