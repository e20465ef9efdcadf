"""Mods of games that know nothing of mods: in the place of the game's own files, in a folder that mirrors them, bare again."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest

from furnel.containers import layouts_folder
from furnel.errors import FurnelError
from furnel.games import keep_profile, profile_text, profiles_folder, read_stack, survey
from furnel.games.originals import kept_file, read_placed
from furnel.mods.build import build, last_build
from furnel.mods.deploy import install_mod, presence, recover, remove_mod
from furnel.mods.workspace import Workspace, create_project, open_workspace
from tarnlight import loaders
from tests.conftest import digest
from tests.containers.test_bare import SKIN, skin
from tests.mods.conftest import Opener


def put_in(space: Workspace, over: bool = False) -> None:
    install_mod(space.catalogue.install, space.project.mod.id, build(space).folder, over=over)


def how(space: Workspace) -> str:
    built = last_build(space)
    return presence(space.catalogue.install, space.project.mod.id, built.folder if built else None)[0]


def test_in_place_the_game_itself_has_the_mod_and_gets_its_own_files_back(opened: Opener, game: Path) -> None:
    before = digest(game)
    theirs = loaders.load_container(game / "data/art.tlp")
    space = opened(goes="in-place")
    put_in(space)
    mine = loaders.load_container(game / "data/art.tlp")
    assert {path for path in theirs if mine[path] != theirs[path]} == {"art/hulls/hull_otter.dds"}
    assert {file.relative_to(game).parts[0] for file in game.rglob("*") if "Evening" in str(file)} == set()
    assert how(space) == "built" and [one.name for one in read_stack(space.catalogue.install)] == [
        "Evening Post"
    ]
    again = open_workspace(space.file)  # what stands there now is never taken for an original
    original = "art/hulls/hull_otter.dds"
    assert again.catalogue.read(again.catalogue.get(original)) == theirs[original]
    assert build(again).files == build(space).files
    assert "as they were" in remove_mod(space.catalogue.install, "evening-post")
    assert digest(game) == before and how(space) == "" and read_placed(game, "evening-post") is None


def test_a_profile_that_says_otherwise_by_now_takes_no_mod_for_an_original(
    opened: Opener, game: Path
) -> None:
    before = digest(game / "data")
    put_in(opened(goes="in-place", swaps={"bank0/000.wav": "church_bell.mp3"}))
    rule = {"folder": "mods", "about": "mod.toml", "order": "mods/order.toml", "game-version": "1"}
    other = opened("Second Post", goes="loose", swaps={}, **rule)
    first = open_workspace(other.file.parent.parent / "Evening Post")
    sound = first.catalogue.get("bank0/000.wav")
    assert first.catalogue.read(sound) != loaders.load_container(game / "data/bank0.tls")["bank0/000.wav"]
    assert how(first) == "built"
    remove_mod(first.catalogue.install, "evening-post")
    assert digest(game / "data") == before


def test_an_update_of_the_mod_gives_back_what_it_no_longer_changes(opened: Opener, game: Path) -> None:
    bank = (game / "data/bank0.tls").read_bytes()
    space = opened(goes="in-place")
    put_in(space)
    assert (game / "data/bank0.tls").read_bytes() != bank
    less = space.save(space.project.without_swap("bank0/000.wav"))
    assert how(less) == "built"
    put_in(less)
    assert (game / "data/bank0.tls").read_bytes() == bank and how(less) == "built"
    assert not kept_file(game, "evening-post", "data/bank0.tls").exists()


def test_a_game_that_was_updated_meanwhile_is_never_set_back(opened: Opener, game: Path) -> None:
    space = opened(goes="in-place", swaps={"bank0/000.wav": "church_bell.mp3"})
    made = build(space).folder
    fresh = (game / "data/bank0.sum").read_bytes()
    (game / "data/bank0.sum").write_bytes(bytes(len(fresh)))
    with pytest.raises(FurnelError, match="updated since"):
        install_mod(space.catalogue.install, "evening-post", made, over=True)
    (game / "data/bank0.sum").write_bytes(fresh)
    install_mod(space.catalogue.install, "evening-post", made)
    (game / "data/bank0.tls").write_bytes(b"a new version of the game")
    assert how(space) == "foreign"
    with pytest.raises(FurnelError, match="the game was updated"):
        remove_mod(space.catalogue.install, "evening-post")
    assert "stays as it is" in remove_mod(space.catalogue.install, "evening-post", over=True)
    assert (game / "data/bank0.tls").read_bytes() == b"a new version of the game"
    assert (game / "data/bank0.sum").read_bytes() == fresh


@pytest.mark.parametrize("leaving", [(0, 1, 2), (2, 0, 1), (1, 2, 0)])
def test_mods_that_change_different_entries_of_one_archive_stand_there_together(
    opened: Opener, game: Path, leaving: tuple[int, ...]
) -> None:
    before, names = digest(game), ("Evening Post", "Second Post", "Third Post")
    own = loaders.load_container(game / "data/bank0.tls")
    entries = [f"bank0/{number:03}.wav" for number in range(3)]
    spaces = [
        opened(name, goes="in-place", swaps={entry: "church_bell.mp3"})
        for name, entry in zip(names, entries, strict=True)
    ]

    def changed() -> set[str]:
        there = loaders.load_container(game / "data/bank0.tls")
        assert there.keys() == own.keys()
        return {entry for entry in own if there[entry] != own[entry]}

    for number, space in enumerate(spaces):
        put_in(space)
        assert changed() == set(entries[: number + 1])
    assert [how(space) for space in spaces] == ["built"] * 3
    seen = open_workspace(spaces[0].file).catalogue  # as the game has them, whoever stands there
    assert all(seen.read(seen.get(entry)) == data for entry, data in own.items())
    here = [*spaces]
    for number in leaving:
        remove_mod(spaces[number].catalogue.install, spaces[number].project.mod.id)
        here.remove(spaces[number])
        assert len(changed()) == len(here) and all(how(space) == "built" for space in here)
    assert digest(game) == before and all(how(space) == "" for space in spaces)


def test_of_mods_that_share_an_archive_one_is_built_anew_and_one_is_refused(
    opened: Opener, game: Path, sources: Path
) -> None:
    before = digest(game)
    first = opened(goes="in-place", swaps={"bank0/000.wav": "church_bell.mp3"})
    second = opened("Second Post", goes="in-place", swaps={"bank0/001.wav": "church_bell.mp3"})
    rival = opened("Third Post", goes="in-place", swaps={"bank0/001.wav": "gull_loud.wav"})
    put_in(first)
    put_in(second)
    here = digest(game)
    with pytest.raises(FurnelError, match=r"Second Post and Third Post both change it"):
        put_in(rival, over=True)
    assert digest(game) == here
    both = (game / "data/bank0.tls").read_bytes()
    put_in(
        first.save(
            first.project.with_swap(
                first.fitted(first.new_swap("bank0/002.wav", sources / "church_bell.mp3"))
            )
        )
    )
    assert (game / "data/bank0.tls").read_bytes() != both
    put_in(first.save(first.project.without_swap("bank0/002.wav")))
    assert (game / "data/bank0.tls").read_bytes() == both and how(second) == "built"
    put_in(
        first.save(
            first.project.without_swap("bank0/000.wav").with_swap(
                first.fitted(first.new_swap("art/hulls/hull_otter.dds", sources / "dusk_paint.jpg"))
            )
        )
    )
    remove_mod(second.catalogue.install, "second-post")
    remove_mod(first.catalogue.install, "evening-post")
    assert digest(game) == before


def test_a_kept_file_that_was_lost_is_told_and_nothing_is_written(
    opened: Opener, game: Path, forged: Path
) -> None:
    space = opened(goes="in-place", swaps={"bank0/000.wav": "church_bell.mp3"})
    put_in(space)
    here = digest(game)
    kept_file(game, "evening-post", "data/bank0.tls").write_bytes(b"")
    with pytest.raises(FurnelError, match="which was kept there"):
        remove_mod(space.catalogue.install, "evening-post")
    assert digest(game) == here
    for ending in (
        ".tls",
        ".tlx",
        ".sum",
    ):  # the game repairs itself: its own files are back, and nothing has to be brought
        shutil.copy(forged / f"data/bank0{ending}", game / f"data/bank0{ending}")
    assert "as they were" in remove_mod(space.catalogue.install, "evening-post")
    assert digest(game / "data") == digest(forged / "data") and how(space) == ""


def test_a_mirror_holds_the_games_own_paths_and_goes_without_a_trace(opened: Opener, game: Path) -> None:
    before = digest(game)
    swaps = {"art/hulls/hull_otter.dds": "dusk_paint.jpg", "ensigns/small/kettle.tga": "ensign_small.png"}
    space = opened(goes="mirror", folder="override", swaps=swaps)
    put_in(space)
    files = {
        file.relative_to(game / "override").as_posix()
        for file in (game / "override").rglob("*")
        if file.is_file()
    }
    assert files == {"data/art.tlp", "data/ensigns/small/kettle.tga"}  # of loose files only what is changed
    assert how(space) == "built"
    put_in(space.save(space.project.without_swap("art/hulls/hull_otter.dds")))
    assert not (game / "override/data/art.tlp").exists()
    recover(space.catalogue.install)
    remove_mod(space.catalogue.install, "evening-post")
    assert digest(game) == before and not (game / "override").exists()


def test_a_loose_bare_picture_is_bare_again_in_the_mod(opened: Opener, game: Path, sources: Path) -> None:
    layouts_folder().mkdir(parents=True, exist_ok=True)
    (layouts_folder() / "skin.toml").write_text(SKIN, "utf-8")
    (game / "data/crew").mkdir()
    (game / "data/crew/hand.skin").write_bytes(skin(7, [[0xF800] * 4] * 4, 9))
    space = opened(
        swaps={},
        goes="loose",
        folder="mods",
        about="mod.toml",
        order="mods/order.toml",
        **{"game-version": "1"},
    )
    file = profiles_folder() / "tarnlight.toml"
    more = '\n[[archives]]\nfiles = "data/crew"\nlayout = "folder"\nprefix = "crew/"\ninside = { "*.skin" = "skin" }\n'
    file.write_text(file.read_text("utf-8") + more, "utf-8")
    space = open_workspace(space.file)
    swap = space.fitted(space.new_swap("crew/hand.skin.dds", sources / "dusk_paint.jpg"))
    done = build(space.save(space.project.with_swap(swap)))
    written = (done.folder / "crew/hand.skin").read_bytes()
    assert (
        written[:4] == b"SKIN"
        and written[4:12] == skin(7, [[0] * 4] * 4, 9)[4:12]
        and len(written) == 12 + 4 * 8
    )
    assert not (done.folder / "crew/hand.skin.dds").exists()


@pytest.mark.parametrize("goes", ["in-place", "mirror", "loose"])
def test_a_described_game_gets_its_mods_as_was_said(
    goes: str, game: Path, sources: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    moss = tmp_path / "Moss Harbour"
    shutil.copytree(game / "data", moss / "data")
    for ending in (".tls", ".tlx", ".sum"):
        shutil.copy(moss / f"data/bank0{ending}", moss / f"data/bank9{ending}")
    before = digest(moss / "data")
    keep_profile(profile_text(survey(moss), "Moss Harbour", "extra", goes=goes))
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", moss))
    for original in ("bank0/000.wav", "data/ensigns/small/kettle.tga"):
        source = sources / ("church_bell.mp3" if original.endswith("wav") else "ensign_small.png")
        space = space.save(space.project.with_swap(space.fitted(space.new_swap(original, source))))
    put_in(space)
    files = {file.relative_to(moss).as_posix() for file in moss.rglob("*") if file.is_file()}
    if goes == "in-place":
        assert loaders.load_container(moss / "data/bank0.tls") != loaders.load_container(
            game / "data/bank0.tls"
        )
    elif goes == "mirror":
        assert {
            f"extra/data/{name}" for name in ("bank0.tls", "bank0.tlx", "ensigns/small/kettle.tga")
        } <= files
    else:
        mod = "extra/evening-post"
        assert {f"{mod}/000.wav", f"{mod}/data/ensigns/small/kettle.tga", f"{mod}/mod.toml"} <= files
        twin = space.fitted(space.new_swap("bank9/000.wav", sources / "church_bell.mp3"))
        with pytest.raises(FurnelError, match="the same file in the mod"):
            build(space.save(space.project.with_swap(twin)))
    remove_mod(space.catalogue.install, "evening-post")
    assert digest(moss / "data") == before
