"""The game's own files about mods: given back byte for byte, never fought over, known again where they went."""

from __future__ import annotations

import os
import subprocess
import sys
from pathlib import Path

import pytest

from furnel.digests import tree_digest
from furnel.errors import FurnelError
from furnel.games import Install, read_order, read_stack
from furnel.mods import deploy
from furnel.mods.deploy import install_mod, recover, remove_mod, reorder

AS_IT_WAS = "The mods folder is as it was before"


@pytest.fixture
def builds(tmp_path: Path) -> dict[str, Path]:
    out = {}
    for name in ("one", "two"):
        folder = out[name] = tmp_path / "builds" / name
        folder.mkdir(parents=True)
        (folder / "mod.toml").write_text(f'id = "{name}"\nname = "{name}"\n')
        (folder / "rules").mkdir()
        (folder / "rules" / "x.txt").write_text(name)
    return out


def test_all_that_furnel_wrote_leaves_no_trace(game: Path, builds: dict[str, Path]) -> None:
    install = Install(game)
    order = install.order_file()
    order.parent.mkdir(exist_ok=True)
    own = b'# mine\r\nx = 1\r\n\r\n[[mod]]\r\nid = "hand"\r\nnote = "keep me"\r\non = true\r\n'
    for before in (own, None):
        order.unlink(missing_ok=True)
        if before is not None:
            order.write_bytes(before)
        digest = tree_digest(game)
        for mod in ("one", "two"):
            install_mod(install, mod, builds[mod])
        reorder(install, [*reversed(read_order(order))])
        assert before is None or (
            b"# mine\r\nx = 1\r\n" in order.read_bytes() and b"keep me" in order.read_bytes()
        )
        said = remove_mod(install, "one")
        assert "by others" not in said
        assert remove_mod(install, "two") == AS_IT_WAS and tree_digest(game) == digest
        assert (order.read_bytes() if order.exists() else None) == before


def test_what_others_wrote_meanwhile_is_kept_and_said(game: Path, builds: dict[str, Path]) -> None:
    install = Install(game)
    install_mod(install, "one", builds["one"])
    order = install.order_file()
    order.write_bytes(order.read_bytes() + b'\n[[mod]]\nid = "hand"\non = true\n')
    assert "by others" in remove_mod(install, "one")
    assert read_order(order) == [("hand", True)]


def test_an_order_of_the_games_own_outlives_an_interrupted_install(
    game: Path, builds: dict[str, Path], monkeypatch: pytest.MonkeyPatch
) -> None:
    install = Install(game)
    with monkeypatch.context() as patch:
        patch.setattr(deploy, "_switch_on", lambda *_: os._exit(9))
        child = os.fork()
        if child == 0:
            install_mod(install, "one", builds["one"])
        assert os.waitstatus_to_exitcode(os.waitpid(child, 0)[1]) == 9
    order = install.order_file()
    theirs = b'# the game\n[[mod]]\nid = "other"\non = true\n'
    order.parent.mkdir(exist_ok=True)
    order.write_bytes(theirs)
    recover(install)
    assert order.read_bytes() == theirs and not (install.mods_folder() / "one").exists()


def test_an_order_that_is_no_text_is_refused_in_words(game: Path, builds: dict[str, Path]) -> None:
    install = Install(game)
    install.order_file().parent.mkdir(exist_ok=True)
    install.order_file().write_bytes(b"\xff\xfe\xfa")
    with pytest.raises(FurnelError):
        install_mod(install, "one", builds["one"])
    assert install.order_file().read_bytes() == b"\xff\xfe\xfa"


def test_a_link_in_the_mods_folder_stays_and_nothing_is_stuck(
    game: Path, builds: dict[str, Path], tmp_path: Path
) -> None:
    install, work = Install(game), tmp_path / "work"
    work.mkdir()
    (work / "mod.toml").write_text('id = "one"\n')
    install.mods_folder().mkdir(exist_ok=True)
    link = install.mods_folder() / "one"
    link.symlink_to(work)
    with pytest.raises(FurnelError, match="link"):
        install_mod(install, "one", builds["one"], over=True)
    assert link.is_symlink() and [file.name for file in work.iterdir()] == ["mod.toml"]
    link.rename(install.mods_folder() / ".one.old")  # as an older Furnel left it
    assert [mod.id for mod in read_stack(install)] == []
    install_mod(install, "one", builds["one"])
    remove_mod(install, "one")
    assert (work / "mod.toml").exists() and not (install.mods_folder() / ".one.old").is_symlink()


def test_a_game_that_was_moved_is_known_as_installed(
    game: Path, builds: dict[str, Path], tmp_path: Path
) -> None:
    digest = tree_digest(game)
    install_mod(Install(game), "one", builds["one"])
    moved = tmp_path / "library" / "game"
    moved.parent.mkdir()
    game.rename(moved)
    assert remove_mod(Install(moved), "one") == AS_IT_WAS and tree_digest(moved) == digest
    moved.rename(game)


def test_two_installs_at_once_wait_for_each_other(game: Path, builds: dict[str, Path]) -> None:
    code = (
        "import sys\nfrom pathlib import Path\nfrom furnel.games import Install\nfrom furnel.mods.deploy import install_mod\n"
        "install_mod(Install(Path(sys.argv[1])), sys.argv[2], Path(sys.argv[3]))"
    )
    for _ in range(2):
        runs = [
            subprocess.Popen([sys.executable, "-c", code, str(game), mod, str(builds[mod])], env=os.environ)
            for mod in ("one", "two")
        ]
        assert [run.wait() for run in runs] == [0, 0]
        assert {mod for mod, _ in read_order(Install(game).order_file())} == {"one", "two"}
        for mod in ("one", "two"):
            remove_mod(Install(game), mod)
