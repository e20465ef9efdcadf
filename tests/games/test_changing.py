"""What is said of a known game: kept in its profile beside all else; programs of the desktop's menu; starts that are tried."""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path

import pytest

from furnel.errors import FurnelError
from furnel.games import Install, keep_profile, profiles_folder, shipped_profiles, try_start
from furnel.games.changing import change_profile, told_of, with_start
from furnel.games.menus import fits_game, menu_entries

MOSS = """furnel-profile = 1
id = "moss"
name = "Moss Harbour"  # as its makers write it

[recognise]
files = ["moss.reed"]

[[archives]]
files = "."
layout = "folder"

# how it goes
[mods]
goes = "in-place"
game-version = "1.0"
"""


@pytest.fixture
def moss(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Install:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    game = tmp_path / "moss"
    game.mkdir()
    (game / "moss.reed").write_text("reed\n")
    keep_profile(MOSS)
    return Install(game)


def test_what_is_said_is_written_and_all_else_stays(moss: Install) -> None:
    file = profiles_folder() / "moss.toml"
    told = told_of(moss.profile)
    change_profile(moss.profile, told)
    assert file.read_text() == MOSS  # nothing was said that is not there
    said = replace(
        told,
        goes="loose",
        folder="extra",
        play="python -c 'print(1)'",
        start_in=".",
        environment="REED=a b\n",
    )
    changed = change_profile(moss.profile, said)
    assert changed.mods.order == "extra/order.toml" and changed.start.play == ("python", "-c", "print(1)")
    assert changed.start.environment == {"REED": "a b"} and told_of(changed) == replace(
        said, environment="REED=a b"
    )
    assert "# as its makers write it" in file.read_text() and "# how it goes" in file.read_text()
    change_profile(changed, told)
    assert file.read_text().split() == MOSS.split()
    with pytest.raises(FurnelError, match="came with Furnel"):
        change_profile(shipped_profiles()["tarnlight"], told)


@pytest.mark.parametrize(
    ("wrong", "why"),
    [
        ({"play": "moss 'reed"}, "no command"),
        ({"environment": "no name"}, "what is set to what"),
        ({"goes": "loose", "folder": ""}, "folder"),
        ({"name": ""}, "name"),
    ],
)
def test_what_cannot_be_said_changes_nothing(moss: Install, wrong: dict[str, str], why: str) -> None:
    with pytest.raises(FurnelError, match=why):
        change_profile(moss.profile, replace(told_of(moss.profile), **wrong))
    assert (profiles_folder() / "moss.toml").read_text() == MOSS


def test_a_start_is_tried_in_its_folder_with_its_environment_and_last_words(moss: Install) -> None:
    code = "import os, pathlib; pathlib.Path('said').write_text(os.environ['REED'])"
    told = replace(told_of(moss.profile), play=f'python -c "{code}"', start_in=".", environment="REED=seen")
    assert try_start(moss, with_start(moss.profile, told)).returncode == 0
    assert (moss.folder / "said").read_text() == "seen"
    goes_on = replace(told, play='python -c "import time; time.sleep(30)"')
    process = try_start(moss, with_start(moss.profile, goes_on), 0.5)
    assert process.poll() is None
    process.kill()
    process.wait()
    dies = replace(told, play="""python -c "raise SystemExit('no reed here')" """)
    with pytest.raises(FurnelError, match="no reed here"):
        try_start(moss, with_start(moss.profile, dies), 20)
    with pytest.raises(FurnelError, match="no such file"):
        try_start(moss, with_start(moss.profile, replace(told, play="/nowhere/moss")))


def test_the_desktops_menu_tells_what_starts_the_game(
    moss: Install, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    menu = tmp_path / "menu/applications"
    menu.mkdir(parents=True)
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "menu"))
    monkeypatch.setenv("XDG_DATA_DIRS", str(tmp_path / "none"))
    entries = {
        "reed": f"Name=Reed\nExec={moss.folder}/run --wide %U\nPath={moss.folder}\n",
        "moss": 'Name=Moss Harbour\nExec=sh -c "moss %% %f"\nCategories=Game;\n',
        "otter": "Name=Otter\nExec=otter\nCategories=Game;Tools;\n",
        "tool": "Name=Tool\nExec=tool\nCategories=Tools;\n",
        "shell": "Name=Shell\nExec=shell\nCategories=Game;\nTerminal=true\n",
        "broken": "Name=Broken\nExec='\nCategories=Game;\n",
    }
    for name, text in entries.items():
        (menu / f"{name}.desktop").write_text(
            f"[Desktop Entry]\nType=Application\n{text}\n[Desktop Action x]\nExec=y\n"
        )
    (menu / "odd.desktop").write_bytes(b"\xff\xfe[")
    found = menu_entries(moss.folder, "Moss Harbour")
    assert [one.name for one in found] == ["Reed", "Moss Harbour", "Otter"]
    assert found[0].command == (f"{moss.folder}/run", "--wide") and found[0].folder == str(moss.folder)
    assert found[1].command == ("sh", "-c", "moss % ")
    assert [fits_game(one, moss.folder, "Moss Harbour") for one in found] == [True, True, False]
