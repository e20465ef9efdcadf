"""Games that no profile knows: what is in a folder, a profile from that, and profiles and layouts of one's own."""

from __future__ import annotations

import shutil
from pathlib import Path

import pytest
from tests.containers import makers

from furnel.containers import find_layout, layout_text, layouts_folder
from furnel.errors import FurnelError
from furnel.games import (
    Install,
    UnknownGame,
    keep_profile,
    parse_profile,
    profile_text,
    profiles_folder,
    recognise,
    survey,
)


@pytest.fixture
def unknown(forged: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """A game that no profile recognises: known archives, loose files, something to carve, something unknown."""
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    folder = tmp_path / "Moss Harbour"
    shutil.copytree(forged / "data", folder / "data")
    (folder / "data" / "art.tlp").rename(folder / "data" / "pictures.pak")
    cast = (folder / "data" / "cast.tlc").read_bytes()
    (folder / "data" / "cast.tlc").unlink()
    (folder / "data" / "figures.dat").write_bytes(cast[3:] + bytes(500))
    (folder / "data" / "extra.satchel").write_bytes(makers.satchel({"a/b.txt": b"words"}))
    (folder / "harbour.exe").write_bytes(bytes(4000))
    return folder


def test_a_folder_is_surveyed_and_described_and_opened(unknown: Path) -> None:
    with pytest.raises(UnknownGame, match="New game"):
        recognise(unknown)
    found = survey(unknown)
    archives = {one.path: (one.layout, one.assets) for one in found.of("archive")}
    assert archives["data/bank0.tls"] == ("tls", 46) and archives["data/rules.zip"] == ("zip", 12)
    assert archives["data/extra.satchel"] == ("satchel", 1)
    assert [(one.path, one.assets) for one in found.of("carved")] == [("data/figures.dat", 16)]
    assert {one.path for one in found.of("unknown")} == {"data/pictures.pak", "harbour.exe"}
    assert {one.path for one in found.of("side")} == {"data/bank0.tlx", "data/bank0.sum"}
    loose = {file.relative_to(unknown).as_posix() for file in unknown.rglob("*") if file.is_file()} - {
        one.path for one in (*found.of("archive"), *found.of("carved"), *found.of("side"))
    }
    assert set(found.loose) == loose and "harbour.exe" in loose
    assert [(one.path, one.assets) for one in found.of("loose")] == [(".", len(loose))]
    profile = keep_profile(profile_text(found, "Moss Harbour", leave_out=frozenset({"data/music.tlm"})))
    assert recognise(unknown).id == profile.id == "moss-harbour"
    install = Install(unknown)
    paths = {place.path for archive in install.archives for place in install.places(archive)}
    assert {"bank0/000.wav", "extra/a/b.txt", "data/ensigns/small/fjell.tga", "rules/boats.toml"} <= paths
    assert sum(path.startswith("figures/") for path in paths) == 16
    assert not any(path.startswith("music/") for path in paths) and "data/music.tlm" in paths  # as a file
    assert loose <= paths
    with pytest.raises(FurnelError, match="already"):
        keep_profile(profile_text(found, "Moss Harbour"))
    install.close()


def test_a_layout_of_ones_own_makes_an_unknown_archive_known(unknown: Path) -> None:
    text = layout_text("tlp").replace('name = "tlp"', 'name = "harbour-pak"').replace("*.tlp", "*.pak")
    layouts_folder().mkdir(parents=True)
    (layouts_folder() / "harbour-pak.toml").write_text(text)
    assert find_layout("harbour-pak").files == ("*.pak",)
    assert {one.path: one.layout for one in survey(unknown).of("archive")}[
        "data/pictures.pak"
    ] == "harbour-pak"


def test_an_own_profile_stands_for_the_shipped_one_and_says_what_is_wrong_with_it(
    forged: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path))
    text = (Path(__file__).parents[2] / "src/furnel/games/profiles/tarnlight.toml").read_text()
    profiles_folder().mkdir(parents=True)
    shutil.copy(
        Path(__file__).parents[2] / "src/furnel/games/profiles/tarnlight-1.2.names", profiles_folder()
    )
    own = profiles_folder() / "tarnlight.toml"
    own.write_text(text.replace('name = "Tarnlight Ferry"', 'name = "My Ferry"'))
    assert recognise(forged).name == "My Ferry"
    own.write_text(text.replace('role = "hull"', 'role = "hull"\nbehaves = ["boat"]'))
    with pytest.raises(FurnelError, match="roles.*behaves") as refusal:
        recognise(forged)
    assert "line " in refusal.value.where


def test_the_version_picks_the_list_of_names(forged: Path, game: Path) -> None:
    install = Install(forged)
    hashed = next(archive for archive in install.archives if archive.name == "hash.tlh")
    assert install.version == "1.2"
    assert all(place.path.startswith(("charts/", "portraits/")) for place in install.places(hashed))
    install.close()
    about = game / "tarnlight.toml"
    about.write_text(about.read_text().replace("1.2", "9.9"))
    other = Install(game)
    hashed = next(archive for archive in other.archives if archive.name == "hash.tlh")
    assert all(place.path.startswith("unnamed/") for place in other.places(hashed))
    other.close()


def test_archives_inside_archives_are_opened_when_the_profile_says_so(tmp_path: Path) -> None:
    (tmp_path / "game.id").write_text("x")
    (tmp_path / "all.satchel").write_bytes(
        makers.satchel({"deep.crt": makers.crate({"in/side.txt": b"here"})})
    )
    profile = parse_profile(
        """
furnel-profile = 1
id = "nest"
name = "Nest"
[recognise]
files = ["game.id"]
[[archives]]
files = "*.satchel"
layout = "satchel"
inside = { "*.crt" = "crate" }
[mods]
folder = "mods"
about = "mod.toml"
order = "mods/order.toml"
game-version = "1"
""",
        "nest.toml",
    )
    install = Install(tmp_path, profile)
    assert [place.path for place in install.places(install.archives[0])] == ["deep.crt/in/side.txt"]
    assert install.read(install.archives[0], "deep.crt/in/side.txt") == b"here"
    install.close()


def test_a_folder_with_nothing_in_it_is_refused_kindly(tmp_path: Path) -> None:
    (tmp_path / "x.exe").write_bytes(bytes(9))
    with pytest.raises(FurnelError, match="nothing in it"):
        profile_text(survey(tmp_path), "Nothing")
    with pytest.raises(FurnelError, match="no such folder"):
        survey(tmp_path / "no")


def test_a_file_of_a_known_beginning_that_does_not_hold_together_is_said(unknown: Path) -> None:
    data = (unknown / "data" / "figures.dat").read_bytes()
    masked = bytearray(data)
    for at in range(len(masked)):
        if masked[at : at + 4] != b"\x89PNG" and at % 7 == 3:
            masked[at] ^= 0x55
    signature = b"\x89PNG\r\n\x1a\n" + bytes(masked[:9000])
    (unknown / "data" / "strange.bin").write_bytes(signature)
    found = next(one for one in survey(unknown).sightings if one.path == "data/strange.bin")
    assert found.standing == "unknown" and "does not hold together: packed or masked?" in found.note
