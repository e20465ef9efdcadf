"""What was opened on this machine, and how each mod is in its game: always as the game's own folder says."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest

from furnel.games import Install
from furnel.mods.build import build
from furnel.mods.deploy import install_mod, remove_mod
from furnel.mods.shelf import forget, look_at_shelf, note_opened, read_shelf
from furnel.mods.workspace import Workspace
from tests.mods.test_bridge import BOAT, put


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def said(project: Path) -> str:
    return next(row.said for row in look_at_shelf() if row.project == project)


def test_it_says_how_a_mod_is_in_the_game_from_the_games_own_folder(
    fitted_ensign: Workspace, game: Path, tmp_path: Path
) -> None:
    space = fitted_ensign
    note_opened(space.file, game, "Evening Post", "Tarnlight Ferry")
    note_opened(None, game, "", "Tarnlight Ferry")
    assert said(space.file) == "not built yet"
    install = Install(game)
    built = build(space)
    assert said(space.file) == "built, not in the game"
    install_mod(install, "evening-post", built.folder)
    assert said(space.file) == "in the game as it was built last"
    rows = look_at_shelf()
    assert [row.is_game for row in rows] == [True, False] and rows[0].version == "1.2"
    assert rows[1].picture is not None and rows[1].picture.is_relative_to(built.folder)  # what it is made of
    about = space.project.mod.model_copy(update={"version": "0.2"})
    space = space.save(space.project.model_copy(update={"mod": about}))
    build(space)
    assert said(space.file) == "an older build is in the game"
    order = game / "mods/order.toml"
    order.write_text(order.read_text().replace("on = true", "on = false"))
    assert said(space.file) == "in the game, switched off"
    remove_mod(install, "evening-post", over=True)
    put(
        game,
        **{
            "evening-post": {"rules/boats.toml": BOAT % (b"1.5", b"2.5")},
            "slow": {"rules/boats.toml": BOAT % (b"1", b"2")},
        },
    )
    assert said(space.file) == "something else has its place in the game"
    strange = [row for row in look_at_shelf() if row.project is None and not row.is_game]
    assert [(row.name, row.said) for row in strange] == [("Slow", "somebody else's, in the game")]
    install.close()
    game.rename(tmp_path / "elsewhere")
    assert said(space.file) == "its game is not there any more"
    shutil.rmtree(space.folder)
    assert said(space.file) == "its project is not there any more"


def test_the_last_one_comes_first_once_and_what_is_taken_off_stays_where_it_is(
    space: Workspace, game: Path
) -> None:
    for name in ("One", "Two", "One"):
        file = space.folder.parent / name / "furnel.toml"
        file.parent.mkdir(exist_ok=True)
        shutil.copy(space.file, file)
        note_opened(file, game, name, "Tarnlight Ferry")
    assert [one.name for one in read_shelf()] == ["One", "Two"]
    forget(space.folder.parent / "One" / "furnel.toml", game)
    assert [one.name for one in read_shelf()] == ["Two"] and (
        space.folder.parent / "One" / "furnel.toml"
    ).is_file()


@pytest.mark.parametrize("text", ["", "{", "[1]", '[["a"]]', '{"a": 1}', "[[1, 2, 3, 4, null]]"])
def test_a_shelf_that_cannot_be_read_is_an_empty_one(text: str, tmp_path: Path, game: Path) -> None:
    (tmp_path / "state").mkdir()
    (tmp_path / "state/shelf.json").write_text(text)
    assert read_shelf() == [] == look_at_shelf()
    note_opened(None, game, "", "Tarnlight Ferry")
    assert len(read_shelf()) == 1
