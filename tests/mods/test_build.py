"""Building and installing: what the game says, the same bytes everywhere, nothing half done."""

from __future__ import annotations

import json
import os
import shutil
import zipfile
from collections.abc import Callable
from pathlib import Path

import pytest

from furnel.errors import Cancelled, FurnelError
from furnel.games import ask_report, draw_still, read_order, read_stack, write_order
from furnel.mods.build import build, examine_all, last_build, package, stale
from furnel.mods.deploy import install_mod, presence, recover, remove_mod
from furnel.mods.outside import choose_all
from furnel.mods.workspace import Workspace, create_project, open_workspace
from furnel.progress import QUIET
from tests.conftest import digest

from .conftest import FOUR


def words(space: Workspace) -> dict[str, str]:
    """The game's word on the swaps that the mod provides."""
    mod = space.project.mod.id
    report = ask_report(space.catalogue.install).words
    return {
        word.path: word.verdict for word in report if word.winner == mod and not word.path.endswith(".loop")
    }


def put_in(space: Workspace, anyway: bool = False, over: bool = False) -> None:
    built = build(space, anyway=anyway)
    install_mod(space.catalogue.install, space.project.mod.id, built.folder, over=over)


def test_the_game_accepts_all_four_and_removal_leaves_no_trace(fitted: Workspace) -> None:
    game = fitted.catalogue.install.folder
    before = digest(game)
    put_in(fitted)
    assert words(fitted) == dict.fromkeys(FOUR, "accepted")
    assert presence(fitted.catalogue.install, "evening-post", fitted.build_folder) == ("built", "")
    assert "as it was" in remove_mod(fitted.catalogue.install, "evening-post")
    assert digest(game) == before
    with pytest.raises(FurnelError, match="not installed"):
        remove_mod(fitted.catalogue.install, "evening-post")


@pytest.mark.parametrize(
    ("original", "what", "verdict"),
    [
        ("art/hulls/hull_otter.dds", {"steps": ()}, "garbled"),
        ("art/hulls/hull_otter.dds", {"encode": {"format": "BC1"}}, "garbled"),
        ("art/hulls/hull_otter.dds", {"encode": {"levels": 1}}, "garbled"),
        ("bank0/000.wav", {"steps": ()}, "refused"),
        ("music/slow_water.ogg", {"steps": ()}, "refused"),
    ],
)
def test_what_furnel_says_breaks_the_game_does_not_take(
    fitted: Workspace, changed: Callable[..., Workspace], original: str, what: dict[str, object], verdict: str
) -> None:
    fitted = changed(fitted, original, **what)
    swap = fitted.project.swap_for(original)
    assert swap is not None and fitted.examine(swap).state == "breaks"
    with pytest.raises(FurnelError, match="1 of 4 swaps break"):
        build(fitted)
    put_in(fitted, anyway=True)
    assert words(fitted) == {**dict.fromkeys(FOUR, "accepted"), original: verdict}


def test_a_wrong_rate_plays_at_another_pitch(fitted: Workspace, changed: Callable[..., Workspace]) -> None:
    swap = fitted.project.swap_for("bank0/000.wav")
    assert swap is not None
    fitted = changed(fitted, "bank0/000.wav", steps=tuple(use for use in swap.steps if use.do != "rate"))
    assert build_refuses(fitted)
    put_in(fitted, anyway=True)
    word = next(w for w in ask_report(fitted.catalogue.install).words if w.path == "bank0/000.wav")
    assert (word.verdict, "44100 Hz played as 48000" in word.reason) == ("garbled", True)


def test_a_wrong_case_is_a_stray(space: Workspace, sources: Path) -> None:
    swap = space.fitted(space.new_swap("art/rock/slate.dds", sources / "moss_bright.png"))
    space = space.save(space.project.with_swap(swap.model_copy(update={"original": "Art/Rock/slate.dds"})))
    assert build_refuses(space)
    put_in(space, anyway=True)
    report = ask_report(space.catalogue.install)
    assert report.strays == ("evening-post: Art/Rock/slate.dds",)


def build_refuses(space: Workspace) -> bool:
    try:
        build(space)
    except FurnelError:
        return True
    return False


def test_a_refused_build_leaves_the_last_one(fitted: Workspace, changed: Callable[..., Workspace]) -> None:
    build(fitted)
    before = digest(fitted.build_folder)
    fitted = changed(fitted, "art/hulls/hull_otter.dds", encode={"levels": 1})
    assert build_refuses(fitted)
    assert digest(fitted.build_folder) == before
    assert [f.name for f in fitted.build_folder.parent.iterdir() if f.name.startswith(".")] == []


def test_two_builds_in_two_folders_are_the_same_bytes(
    fitted: Workspace, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    first = build(fitted)
    packed = package(fitted)
    shutil.copytree(fitted.folder, tmp_path / "other", ignore=shutil.ignore_patterns("build"))
    monkeypatch.setenv("FURNEL_CACHE", str(tmp_path / "fresh-cache"))
    again = open_workspace(tmp_path / "other")
    for swap in again.project.swaps:
        choose_all(again.file, swap)
    second = build(again)
    assert digest(first.folder) == digest(second.folder)
    assert packed.read_bytes() == package(again).read_bytes()
    again.close()


def test_the_package_installs_by_unpacking(fitted: Workspace) -> None:
    build(fitted)
    mods = fitted.catalogue.install.mods_folder()
    with zipfile.ZipFile(package(fitted)) as archive:
        assert archive.testzip() is None
        archive.extractall(mods)
    write_order(mods / "order.toml", [("evening-post", True)])
    assert words(fitted) == dict.fromkeys(FOUR, "accepted")


def test_what_is_stale_is_known(fitted: Workspace, changed: Callable[..., Workspace]) -> None:
    assert last_build(fitted) is None
    assert len(stale(fitted, last_build(fitted), examine_all(fitted))) == 5  # and the tune's loop record
    build(fitted)
    assert stale(fitted, last_build(fitted), examine_all(fitted)) == []
    fitted = changed(fitted, "art/hulls/hull_otter.dds", encode={"quality": "fast"})
    assert stale(fitted, last_build(fitted), examine_all(fitted)) == ["art/hulls/hull_otter.dds"]
    fitted = fitted.save(fitted.project.without_swap("bank0/000.wav"))
    assert stale(fitted, last_build(fitted), examine_all(fitted)) == [
        "art/hulls/hull_otter.dds",
        "bank0/000.wav",
    ]


def test_another_version_or_credit_makes_the_build_stale(fitted: Workspace) -> None:
    build(fitted)
    about = fitted.project.mod.model_copy(update={"version": "0.2"})
    fitted = fitted.save(fitted.project.model_copy(update={"mod": about}))
    assert stale(fitted, last_build(fitted), examine_all(fitted)) == ["mod.toml"]
    build(fitted)
    assert 'version = "0.2"' in (fitted.build_folder / "mod.toml").read_text()
    assert stale(fitted, last_build(fitted), examine_all(fitted)) == []


def test_before_and_after_differ_in_the_games_own_stills(fitted: Workspace, tmp_path: Path) -> None:
    put_in(fitted)
    install = fitted.catalogue.install
    before, after = (
        draw_still(install, "quay", tmp_path / f"{on}.png", on).read_bytes() for on in (False, True)
    )
    assert before != after
    remove_mod(install, "evening-post")
    assert draw_still(install, "quay", tmp_path / "back.png", True).read_bytes() == before


def test_other_mods_keep_their_place(fitted: Workspace, sources: Path, tmp_path: Path) -> None:
    game = fitted.catalogue.install
    other = open_workspace(create_project(tmp_path / "other", "Herring Day", game.folder))
    other = other.save(
        other.project.with_swap(
            other.fitted(other.new_swap("art/hulls/hull_otter.dds", sources / "moss_bright.png"))
        )
    )
    put_in(fitted)
    put_in(other)
    assert read_order(game.folder / "mods/order.toml") == [("evening-post", True), ("herring-day", True)]
    from furnel.games import clashes

    assert [clash.mods for clash in clashes(read_stack(game))] == [("evening-post", "herring-day")]
    assert words(fitted).get("art/hulls/hull_otter.dds") is None
    assert "stay in their order" in remove_mod(game, "evening-post")
    assert read_order(game.folder / "mods/order.toml") == [("herring-day", True)]
    other.close()


def test_a_mod_that_was_there_before_comes_back(fitted: Workspace) -> None:
    mods = fitted.catalogue.install.mods_folder()
    (mods / "evening-post").mkdir()
    (mods / "evening-post" / "mod.toml").write_text("by hand")
    (mods / "evening-post" / "gone.png").symlink_to("../nowhere.png")
    (mods / "order.toml").write_text("# mine\n")
    before = digest(mods)
    with pytest.raises(FurnelError, match="did not put it there"):
        put_in(fitted)
    assert digest(mods) == before
    put_in(fitted, over=True)
    put_in(fitted)
    assert digest(mods) != before
    remove_mod(fitted.catalogue.install, "evening-post")
    assert digest(mods) == before and (mods / "evening-post" / "gone.png").readlink() == Path(
        "../nowhere.png"
    )


def test_a_full_disk_in_an_install_changes_nothing(
    fitted: Workspace, monkeypatch: pytest.MonkeyPatch
) -> None:
    built = build(fitted)
    game = fitted.catalogue.install
    before, real, count = digest(game.folder), os.fsync, [0]

    def filling(handle: int) -> None:
        count[0] += 1
        if count[0] == 6:
            raise OSError(28, "No space left on device")
        real(handle)

    monkeypatch.setattr("os.fsync", filling)
    with pytest.raises(FurnelError, match="no space left"):
        install_mod(game, "evening-post", built.folder)
    monkeypatch.setattr("os.fsync", real)
    assert digest(game.folder) == before
    assert presence(game, "evening-post", built.folder) == ("", "")
    assert recover(game) == []


def test_a_cancelled_build_leaves_the_last_one(fitted: Workspace) -> None:
    build(fitted)
    before = digest(fitted.build_folder)

    class Impatient:
        def report(self, fraction: float, text: str) -> None:
            QUIET.report(fraction, text)

        def cancelled(self) -> bool:
            return True

    with pytest.raises(Cancelled):
        build(fitted, Impatient())
    assert digest(fitted.build_folder) == before


def test_the_build_reads_itself_back(fitted: Workspace, monkeypatch: pytest.MonkeyPatch) -> None:
    import furnel.mods.build as module
    from furnel.atomic import write_bytes as real

    def rotten(path: Path, data: bytes) -> None:
        real(path, data[:-9] + bytes(9) if path.suffix == ".dds" else data)

    monkeypatch.setattr(module, "write_bytes", rotten)
    with pytest.raises(FurnelError, match="not what was written"):
        build(fitted)
    assert not fitted.build_folder.exists()


def test_the_load_order_is_refused_when_it_makes_no_sense(fitted: Workspace) -> None:
    order = fitted.catalogue.install.mods_folder() / "order.toml"
    for text in ("[[mod", "mod = 3", "[[mod]]\nname = 'x'"):
        order.write_text(text)
        with pytest.raises(FurnelError, match="order"):
            read_stack(fitted.catalogue.install)
        assert order.read_text() == text


def test_the_manifest_is_only_a_cache(fitted: Workspace) -> None:
    build(fitted)
    manifest = fitted.folder / "build" / "evening-post.json"
    assert json.loads(manifest.read_text())
    manifest.write_text("{broken")
    assert last_build(fitted) is None
    build(fitted)
    assert last_build(fitted) is not None
