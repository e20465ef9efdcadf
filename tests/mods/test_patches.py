"""A package says what it changes value by value; another Furnel merges by it, also after the game was updated."""

from __future__ import annotations

import json
import tomllib
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import pytest

from furnel.games import Install, write_order
from furnel.mods.bridge import look_at_mods, make_bridge
from furnel.mods.build import package
from furnel.mods.definitions import with_text
from furnel.mods.workspace import Workspace
from tarnlight.world import World

LIST, INNER = "rules/playlist.json", "playlist.json"
STALE = b'furnel-patches = 1\n[[patch]]\nfile = "rules/playlist.json"\nsha256 = "0"\nchanges = [{ %s, at = "quay" }]\n'


@pytest.fixture(autouse=True)
def _state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))


def shipped(game: Path) -> Any:
    with zipfile.ZipFile(game / "data" / "rules.zip") as rules:
        return json.loads(rules.read(INNER))


def updated(game: Path, edit: Callable[[Any], None]) -> None:
    """The game's makers ship other rules."""
    with zipfile.ZipFile(game / "data" / "rules.zip") as rules:
        files = {name: rules.read(name) for name in rules.namelist()}
    told = json.loads(files[INNER])
    edit(told)
    files[INNER] = json.dumps(told, indent=2).encode()
    with zipfile.ZipFile(game / "data" / "rules.zip", "w", zipfile.ZIP_DEFLATED) as rules:
        for name, data in files.items():
            rules.writestr(name, data)


def packaged(space: Workspace, folder: Path) -> Path:
    """A mod that puts one tune more at the quay, as its package."""
    told = shipped(space.catalogue.install.folder)
    told["quay"].append("lantern_waltz")
    text = json.dumps(told, indent=2)
    return package(space.save(with_text(space, LIST, text)), folder / "evening.zip")


def together(game: Path, made: Path) -> Install:
    """The package as a stranger unpacks it, beside somebody's mod that gives the fog another tune."""
    with zipfile.ZipFile(made) as packed:
        packed.extractall(game / "mods")
    other = shipped(game)
    other["fog"] = ["slow_water"]
    (game / "mods/other/rules").mkdir(parents=True)
    (game / "mods/other/mod.toml").write_text(
        'id = "other"\nname = "Other"\nversion = "1.0"\ngame-version = "1.2"\n'
    )
    (game / "mods/other" / LIST).write_text(json.dumps(other, indent=2))
    write_order(game / "mods" / "order.toml", [("evening-post", True), ("other", True)])
    return Install(game)


def test_the_package_has_what_it_changes(space: Workspace, tmp_path: Path) -> None:
    made = packaged(space, tmp_path)
    with zipfile.ZipFile(made) as packed:
        told = tomllib.loads(packed.read("evening-post/patches.toml").decode())
        ready = json.loads(packed.read(f"evening-post/{LIST}"))
    [patch] = told["patch"]
    assert patch["file"] == LIST and ready["quay"][-1] == "lantern_waltz"
    assert patch["changes"] == [{"do": "add", "at": "quay", "to": "lantern_waltz", "place": "after fog"}]


def test_after_an_update_of_the_game_its_new_values_stay(
    space: Workspace, game: Path, tmp_path: Path
) -> None:
    made = packaged(space, tmp_path)
    before = shipped(game)
    place = next(name for name in before if name not in ("quay", "fog"))
    updated(game, lambda told: told[place].append("fog"))
    install = together(game, made)
    make_bridge(install)
    found = World(game).book(LIST)
    assert found["quay"] == [*before["quay"], "lantern_waltz"] and found["fog"] == ["slow_water"]
    assert found[place] == [*before[place], "fog"]  # which the ready file knows nothing of


@pytest.mark.parametrize(
    "patches",
    [None, b"", b"\xff\xfe", b"furnel-patches = 2\n", b"furnel-patches = 1\npatch = 4\n", STALE % b'do = "set", to = []',
     STALE % b'do = "burn"'],
)  # fmt: skip
def test_without_good_ones_the_ready_files_are_what_is_meant(
    space: Workspace, game: Path, tmp_path: Path, patches: bytes | None
) -> None:
    install = together(game, packaged(space, tmp_path))
    file, before = game / "mods/evening-post/patches.toml", shipped(game)
    if patches is None:  # somebody edited the ready file: it is no longer what the patch was made with
        ready = json.loads((game / "mods/evening-post" / LIST).read_text())
        ready["quay"].append("fog")
        (game / "mods/evening-post" / LIST).write_text(json.dumps(ready))
    else:
        file.write_bytes(patches)
    make_bridge(install)
    found = World(game).book(LIST)
    assert found["quay"] == [*before["quay"], "lantern_waltz", *(["fog"] if patches is None else [])]
    assert found["fog"] == ["slow_water"]
    assert "patches.toml" not in {one.path for one in look_at_mods(install).meetings}


def test_an_older_mod_alone_does_not_undo_an_update(space: Workspace, game: Path, tmp_path: Path) -> None:
    made = packaged(space, tmp_path)
    before = shipped(game)
    place = next(name for name in before if name not in ("quay", "fog"))
    updated(game, lambda told: told[place].append("fog"))
    with zipfile.ZipFile(made) as packed:
        packed.extractall(game / "mods")
    write_order(game / "mods" / "order.toml", [("evening-post", True)])
    found = make_bridge(Install(game))
    assert [meeting.kind for meeting in found.stand.meetings] == ["older"] and found.paths == (LIST,)
    now = World(game).book(LIST)
    assert now["quay"] == [*before["quay"], "lantern_waltz"] and now[place] == [*before[place], "fog"]
