"""Profiles and installs: recognised, read, refused with the key that is wrong."""

from __future__ import annotations

from importlib import resources
from pathlib import Path

import pytest

from furnel.errors import FurnelError
from furnel.games import (
    Install,
    ask_report,
    draw_still,
    read_order,
    read_stack,
    recognise,
    shipped_profiles,
    write_order,
)
from furnel.games.profile import parse_profile
from tarnlight.world import World

TEXT = (resources.files("furnel.games") / "profiles" / "tarnlight.toml").read_text("utf-8")


def test_the_install_has_exactly_the_games_assets(forged: Path) -> None:
    install = Install(forged)
    ours = {
        place.path: install.read(archive, place.inner)
        for archive in install.archives
        for place in install.places(archive)
    }
    assert ours == World(forged).originals
    install.close()


def test_every_asset_has_a_role_and_sheets_have_cells(forged: Path) -> None:
    from tarnlight.content import SHEETS

    profile = recognise(forged)
    for path in World(forged).originals:
        if not path.endswith(".loop"):
            assert profile.role_of(path) is not None, path
    for path, (width, height, *_rest) in SHEETS.items():
        rule = profile.role_of(path)
        assert rule is not None and rule.cell == (width, height)


def test_every_event_sound_has_a_title(forged: Path) -> None:
    from tarnlight.content import bank

    titles = shipped_profiles()["tarnlight"].titles
    assert [titles[f"bank0/{n:03}.wav"] for n in range(len(bank()))] == [
        f"{event} {take + 1}" for event, take in bank()
    ]


@pytest.mark.parametrize(
    ("old", "new", "says"),
    [
        ("furnel-profile = 1", "furnel-profile = 2", "furnel-profile"),
        ('role = "hull"', 'role = "hull"\nbehaves = ["boat"]', "roles"),
        ('layout = "tlp"', "layout = 3", "layout"),
        ("[mods]", "[mod]", "mod"),
        ("cell = [32, 48]", "cell = [32]", "cell"),
        ("[recognise]", "[recognise", "line"),
    ],
)
def test_a_wrong_profile_says_which_key(old: str, new: str, says: str) -> None:
    with pytest.raises(FurnelError, match=says):
        parse_profile(TEXT.replace(old, new, 1), "mine.toml")


def test_folders_that_are_no_game_are_refused(tmp_path: Path, game: Path) -> None:
    with pytest.raises(FurnelError, match="no profile recognises it"):
        Install(tmp_path / "game" / "mods")
    with pytest.raises(FurnelError, match="no such folder"):
        Install(tmp_path / "nothing")
    (game / "data" / "music.tlm").unlink()
    with pytest.raises(FurnelError, match="incomplete"):
        Install(game)


def test_the_order_file_keeps_its_comments(game: Path) -> None:
    order = game / "mods" / "order.toml"
    order.write_text("# my order\n\n[[mod]]\nid = 'a'\n")
    write_order(order, [("b", False), ("a", True)])
    assert order.read_text().startswith("# my order")
    assert read_order(order) == [("b", False), ("a", True)]
    write_order(order, [])
    assert read_order(order) == []


def test_mods_the_order_does_not_know_are_off(game: Path) -> None:
    (game / "mods" / "stray" / "art").mkdir(parents=True)
    (game / "mods" / "stray" / "mod.toml").write_text('name = "Stray"\nversion = "2"\n')
    (game / "mods" / "stray" / "art" / "x.dds").write_bytes(b"")
    (mod,) = read_stack(Install(game))
    assert (mod.name, mod.version, mod.on, mod.paths) == ("Stray", "2", False, ("art/x.dds",))


def test_running_the_game(forged: Path, tmp_path: Path) -> None:
    install = Install(forged)
    assert draw_still(install, "open water", tmp_path / "still.png").stat().st_size > 10_000
    report = ask_report(install)
    assert len(report.words) == 203 and all(word.verdict == "accepted" for word in report.words)
    with pytest.raises(FurnelError, match="invalid choice|ended with"):
        draw_still(install, "the moon", tmp_path / "never.png")


def test_a_file_that_two_rules_name_is_refused(game: Path, tmp_path: Path) -> None:
    text = (Path(__file__).parents[2] / "src/furnel/games/profiles/tarnlight.toml").read_text()
    twice = text.replace(
        '[[archives]]\nfiles = "data/*.tlh"',
        '[[archives]]\nfiles = "data/hu*.tlp"\nlayout = "zip"\n\n[[archives]]\nfiles = "data/*.tlh"',
    )
    assert twice != text
    profile = parse_profile(twice, "twice.toml")
    with pytest.raises(FurnelError, match="two rules of its profile name it"):
        Install(game, profile)
