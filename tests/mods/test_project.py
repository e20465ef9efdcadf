"""The project file: read back exactly, kept readable, moved without breaking, refused kindly."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest

from furnel.errors import FurnelError
from furnel.media import Encode
from furnel.mods.project import StepUse, load_project, mod_id, save_project
from furnel.mods.workspace import Workspace, create_project, open_workspace


def test_it_is_reopened_exactly(fitted: Workspace) -> None:
    assert load_project(fitted.file) == fitted.project


def test_a_persons_comments_survive(fitted: Workspace) -> None:
    text = (
        fitted.file.read_text()
        .replace("[mod]", "# by hand\n[mod]  # mine")
        .replace("[game]", "# where it is\n[game]")
    )
    fitted.file.write_text(text)
    fitted = fitted.save(fitted.project.without_swap("bank0/000.wav"))
    after = fitted.file.read_text()
    assert "# by hand" in after and "# mine" in after and "# where it is" in after
    assert "bank0/000.wav" not in after
    assert load_project(fitted.file) == fitted.project


def test_saving_twice_changes_nothing(fitted: Workspace) -> None:
    first = fitted.file.read_text()
    fitted = fitted.save()
    fitted = fitted.save()
    assert fitted.file.read_text() == first


def test_it_holds_paths_and_steps_but_no_pixels(fitted: Workspace) -> None:
    assert fitted.file.stat().st_size < 4000
    assert 'do = "size"' in fitted.file.read_text()


def test_game_and_mod_move_together(game: Path, sources: Path, tmp_path: Path) -> None:
    old = tmp_path / "old"
    old.mkdir()
    shutil.move(game, old / "game")
    shutil.copytree(sources, old / "mod" / "sources")
    space = open_workspace(create_project(old / "mod", "Moves", old / "game"))
    swap = space.fitted(space.new_swap("art/rock/slate.dds", old / "mod" / "sources" / "moss_bright.png"))
    space = space.save(space.project.with_swap(swap))
    assert swap.source == "sources/moss_bright.png"
    space.close()
    shutil.move(old, tmp_path / "new")
    again = open_workspace(tmp_path / "new" / "mod")
    assert again.examine(again.project.swaps[0]).state != "breaks"
    again.close()


def test_a_game_that_moved_alone_is_asked_for(fitted: Workspace, tmp_path: Path) -> None:
    game = fitted.catalogue.install.folder
    shutil.move(game, tmp_path / "elsewhere")
    with pytest.raises(FurnelError, match="its game is not at"):
        open_workspace(fitted.file)
    again = open_workspace(fitted.folder, game=tmp_path / "elsewhere")
    assert again.project.game.folder == "../elsewhere"
    again.close()


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        ("furnel = 1", "furnel = 2", "newer Furnel"),
        ('id = "evening-post"', 'id = "Evening Post!"', "mod.id"),
        ('do = "size"', 'do = "shrink"', "no such step"),
        ("width = 512", 'width = "wide"', "width"),
        ("width = 512", "width = 512, depth = 3", "no such setting"),
        ('"art/hulls/hull_otter.dds"', '"../hull.dds"', "inner path"),
        ('"cast/otter_walk.png"', '"art/hulls/hull_otter.dds"', "swapped twice"),
        ("[mod]", "[mood]", "mood|mod"),
        ("[mod]", "[mod", "line 3"),
        ('author = ""', 'author = ""\ncolour = "red"', "colour"),
    ],
)
def test_what_is_wrong_is_named(fitted: Workspace, old: str, new: str, says: str) -> None:
    text = fitted.file.read_text()
    assert old in text
    fitted.file.write_text(text.replace(old, new))
    with pytest.raises(FurnelError, match=says) as caught:
        load_project(fitted.file)
    assert caught.value.remedy


def test_a_failed_save_leaves_the_old_file(fitted: Workspace, monkeypatch: pytest.MonkeyPatch) -> None:
    before = fitted.file.read_bytes()

    def full(_: int) -> None:
        raise OSError(28, "No space left on device")

    monkeypatch.setattr("os.fsync", full)
    with pytest.raises(FurnelError, match="no space left"):
        save_project(fitted.file, fitted.project.without_swap("bank0/000.wav"))
    assert fitted.file.read_bytes() == before
    assert not list(fitted.folder.glob(".*part"))


def test_a_second_project_in_one_folder_is_refused(space: Workspace) -> None:
    with pytest.raises(FurnelError, match="already"):
        create_project(space.folder, "Other", space.catalogue.install.folder)


def test_ids_and_models() -> None:
    assert mod_id("Nörthern  Lights!") == "n-rthern-lights"
    assert StepUse(do="size").on and Encode(file="DDS", levels=1).quality == "good"
