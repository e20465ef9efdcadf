"""Folders of games that nobody described: all of it is there, once, as what it is; what is not has its reason."""

from __future__ import annotations

import bz2
import gzip
import os
import struct
import zipfile
from pathlib import Path

import numpy as np
import pytest
from PIL import Image
from tests.conftest import digest

from furnel.catalogue import Catalogue
from furnel.errors import FurnelError
from furnel.games import (
    Install,
    SeveralGames,
    choose_profile,
    keep_profile,
    parse_profile,
    profile_text,
    recognise,
    survey,
)
from furnel.media import preview_of
from furnel.mods.build import build, package
from furnel.mods.definitions import opened, with_text
from furnel.mods.deploy import install_mod, presence, remove_mod
from furnel.mods.outside import choose
from furnel.mods.sharing import check_package
from furnel.mods.workspace import create_project, open_workspace


@pytest.fixture
def wild(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    """Pictures, texts of own forms, music of trackers, a font, archives, links of every sort, odd names."""
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    monkeypatch.setenv("FURNEL_CACHE", str(tmp_path / "cache"))
    root = tmp_path / "Reed Bank"
    for folder in ("gtk3.22", "data/levels", "data/images/marsh", "elsewhere"):
        (root / folder).mkdir(parents=True)
    (root / "README").write_text("Reeds.\n")
    (root / "reedbank.conf").write_text("speed 3\ncolour moss\n")
    (root / "gtk3.22/panel.css").write_text(".a { b: c }\n")
    (root / "data/levels/first.reed").write_bytes('(level (name "Sch\u00f6n")\r\n  (speed 3))\r\n'.encode())
    (root / "data/levels/old.reed").write_bytes("caf\u00e9 wide\n".encode("latin-1") * 9)
    pixels = np.random.default_rng(2).integers(0, 255, (24, 40, 4), dtype=np.uint8)
    for name in ("heron", "otter"):
        Image.fromarray(pixels).save(root / f"data/images/marsh/{name}.png")
    (root / "data/tune.it").write_bytes(b"IMPM" + b"Lantern Round".ljust(26, b"\0") + bytes(300))
    (root / "data/tune.mid").write_bytes(b"MThd\0\0\0\6" + bytes(40))
    (root / "data/save.gz").write_bytes(gzip.compress(b"level 3" * 50))
    with zipfile.ZipFile(root / "data/rules.pak", "w") as pack:
        pack.writestr("boats/otter.txt", "speed = 3\n")
    (root / "data/nothing.bin").write_bytes(b"")
    (root / "data/font.ttf").symlink_to("../../fonts/gone.ttf")
    (root / "data/again").symlink_to("images/marsh")
    (root / "data/up").symlink_to("../..")
    (root / "data/heron2.png").symlink_to("images/marsh/heron.png")
    (root / "data/round").symlink_to("round")
    (tmp_path / "shared").mkdir()
    (tmp_path / "shared/moon.txt").write_text("moon\n")
    (root / "data/shared").symlink_to(tmp_path / "shared")
    (root / "data/odd\\name.txt").write_text("x")
    os.mkfifo(root / "data/pipe")
    Path(os.fsdecode(os.fsencode(root / "data") + b"/caf\xe9.txt")).write_text("x")
    return root


def test_all_of_a_folder_is_there_once_and_the_rest_has_its_reason(wild: Path) -> None:
    found = survey(wild)
    left = {one.path: one.note for one in found.of("none")}
    keep_profile(profile_text(found, "Reed Bank"))
    catalogue = Catalogue(Install(wild))
    catalogue.refresh()
    real = {  # what is no link, by a walk of its own
        file.relative_to(wild).as_posix()
        for at, _, names in os.walk(wild)
        for file in (Path(at, name) for name in names)
        if not file.is_symlink() and file.is_file() and "\udce9" not in file.name and "\\" not in file.name
    }
    want = (real - {"data/rules.pak", "data/save.gz"}) | {
        "data/shared/moon.txt",
        "rules/boats/otter.txt",
        "data/save.gz/save",
    }
    assert sorted(catalogue.assets.paths) == sorted(want)
    assert "which is not there" in left["data/font.ttf"] and "listed there" in left["data/again"]
    assert "images/marsh/heron.png" in left["data/heron2.png"] and "cannot be followed" in left["data/round"]
    assert "lies in" in left["data/up"] and "no file" in left["data/pipe"]
    assert "characters" in left["data/odd\\name.txt"]
    assert any("UTF-8" in why for why in left.values())
    kinds = {path: (catalogue.get(path).facts.kind, catalogue.get(path).facts.format) for path in want}
    assert kinds["data/levels/first.reed"] == ("definition", "REED") == kinds["data/levels/old.reed"]
    assert catalogue.get("README").name == "README" and catalogue.get("data/tune.it").name == "tune"
    assert kinds["README"] == ("definition", "text") and kinds["data/images/marsh/otter.png"] == (
        "texture",
        "PNG",
    )
    assert kinds["data/tune.it"] == ("other", "IT") and kinds["data/tune.mid"] == ("other", "MIDI")
    seen = preview_of(catalogue.bytes_of("data/tune.it"), "other", "data/tune.it").text
    assert "tracker music" in seen and "Lantern Round" in seen
    catalogue.close()


def test_a_text_of_no_known_form_is_edited_as_text_and_stays_stored_as_it_was(
    wild: Path, tmp_path: Path
) -> None:
    keep_profile(profile_text(survey(wild), "Reed Bank"))
    before = digest(wild / "data/images"), (wild / "data/levels/first.reed").read_bytes()
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", wild))
    for path in ("data/levels/first.reed", "data/levels/old.reed"):
        space = space.save(opened(space, path))
        assert space.examine(space.project.swap_for(path)).data == (wild / path).read_bytes()  # type: ignore[arg-type]
    space = space.save(
        with_text(space, "data/levels/first.reed", '(level (name "Sch\u00f6n")\n  (speed 4))\n')
    )
    space = space.save(with_text(space, "data/levels/old.reed", "caf\u00e9 small\n"))
    build(space)
    install_mod(space.catalogue.install, space.project.mod.id, space.build_folder)
    assert (wild / "data/levels/first.reed").read_bytes() == before[1].replace(b"3", b"4")
    assert (wild / "data/levels/old.reed").read_bytes() == "caf\u00e9 small\n".encode("latin-1")
    remove_mod(space.catalogue.install, space.project.mod.id)
    assert (digest(wild / "data/images"), (wild / "data/levels/first.reed").read_bytes()) == before
    space.close()


@pytest.mark.parametrize("goes", ["in-place", "mirror", "loose"])
def test_a_packed_file_is_what_is_in_it_and_packed_again_in_the_mod(
    wild: Path, tmp_path: Path, goes: str
) -> None:
    (wild / "data/old.txt.bz2").write_bytes(bz2.compress(b"old words\n" * 40))
    (wild / "data/broken.gz").write_bytes(b"\x1f\x8b\x08\x00 and no more")
    keep_profile(profile_text(survey(wild), "Reed Bank", "mods", goes=goes))
    own, path = digest(wild / "data/levels"), "data/save.gz/save"
    space = open_workspace(create_project(tmp_path / "mod", "Packed", wild))
    catalogue = space.catalogue
    assert catalogue.read(catalogue.get(path)) == b"level 3" * 50
    assert catalogue.bytes_of("data/old.txt.bz2/old.txt") == b"old words\n" * 40
    assert catalogue.has("data/broken.gz") and not catalogue.has("data/save.gz")
    packed = (wild / "data/save.gz").read_bytes()
    space = space.save(with_text(space, path, "level 9\n"))
    install_mod(space.catalogue.install, "packed", build(space).folder)
    home = {"in-place": wild, "mirror": wild / "mods", "loose": wild / "mods/packed"}[goes]
    assert gzip.decompress((home / "data/save.gz").read_bytes()) == b"level 9\n"
    remove_mod(space.catalogue.install, "packed")
    assert (wild / "data/save.gz").read_bytes() == packed and digest(wild / "data/levels") == own


def test_only_what_was_read_is_said_to_parse(wild: Path, tmp_path: Path) -> None:
    for number in range(8):
        rows = "\n".join(f'  (speed {number + row}) (name "otter {row}")' for row in range(4))
        (wild / f"data/levels/b{number}.bank").write_text(f"(boat\n{rows})\n")
    keep_profile(profile_text(survey(wild), "Reed Bank"))
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", wild))
    for path, text, said, state in (
        ("data/levels/b1.bank", "(boat\n  (speed 9))\n", "it parses", "fits"),
        ("data/levels/b2.bank", "(boat\n  (speed 9\n", "never closed", "breaks"),
        ("README", "Other reeds\n", "any text", "fits"),
    ):
        source = tmp_path / Path(path).name
        source.write_text(text)
        choose(space.file, [source])
        seen = space.examine(space.new_swap(path, source)).points
        form = next(point for point in seen if point.key in ("form", "source"))
        assert (form.state, said in form.yours) == (state, True), (path, form)
    space.close()


def test_music_of_a_tracker_is_swapped_for_its_like_and_says_so_otherwise(wild: Path, tmp_path: Path) -> None:
    keep_profile(profile_text(survey(wild), "Reed Bank"))
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", wild))
    other, picture = tmp_path / "mine.it", wild / "data/images/marsh/otter.png"
    other.write_bytes(b"IMPM" + b"Mine".ljust(26, b"\0") + bytes(99))
    made = space.examine(space.fitted(space.new_swap("data/tune.it", other)))
    assert made.state == "fits" and made.data == other.read_bytes()
    with pytest.raises(FurnelError, match="tracker music.*same kind"):
        space.fitted(space.new_swap("data/tune.it", picture))
    space.close()


def test_what_a_mod_puts_in_place_makes_nothing_to_be_scanned_again(wild: Path, tmp_path: Path) -> None:
    keep_profile(profile_text(survey(wild), "Reed Bank"))
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", wild))
    install = space.catalogue.install
    stamps = [install.stamp(one) for one in install.archives]
    space = space.save(with_text(space, "reedbank.conf", "speed 4\ncolour moss\n"))
    build(space)
    install_mod(install, space.project.mod.id, space.build_folder)
    assert (wild / "reedbank.conf").read_text() == "speed 4\ncolour moss\n"
    assert [install.stamp(one) for one in install.archives] == stamps
    elsewhere = space.save(with_text(space, "data/shared/moon.txt", "sun\n"))
    build(elsewhere)
    with pytest.raises(FurnelError, match="link"):
        install_mod(install, elsewhere.project.mod.id, elsewhere.build_folder)
    assert (tmp_path / "shared/moon.txt").read_text() == "moon\n"
    (wild / "data/levels/second.reed").write_text("(level)\n")
    assert [install.stamp(one) for one in install.archives] != stamps
    remove_mod(install, space.project.mod.id)
    space.close()


@pytest.mark.parametrize("goes", ["mirror", "loose"])
def test_mods_go_to_the_users_own_folder_where_the_game_looks_first(
    wild: Path, tmp_path: Path, monkeypatch: pytest.MonkeyPatch, goes: str
) -> None:
    monkeypatch.setenv("HOME", str(tmp_path / "home"))
    monkeypatch.setenv("XDG_DATA_HOME", str(tmp_path / "home/.local/share"))
    own = tmp_path / "home/.local/share/reedbank"
    own.mkdir(parents=True)
    (own / "save.txt").write_text("day 3\n")
    before = digest(own), digest(wild / "data/levels")
    keep_profile(profile_text(survey(wild), "Reed Bank", "$XDG_DATA_HOME/reedbank", goes=goes))
    space = open_workspace(create_project(tmp_path / "mod", "Evening Post", wild))
    install, mod = space.catalogue.install, space.project.mod.id
    space = space.save(with_text(space, "data/levels/first.reed", "(level)\n"))
    install_mod(install, mod, build(space).folder)
    there = own / "data/levels/first.reed" if goes == "mirror" else own / mod / "data/levels/first.reed"
    assert there.read_bytes() == b"(level)\r\n" and digest(wild / "data/levels") == before[1]
    assert "own folder" in check_package(space, package(space))[-1].said
    assert presence(install, mod, space.build_folder)[0] == "built"
    remove_mod(install, mod)
    assert (digest(own), digest(wild / "data/levels")) == before
    space.close()


@pytest.mark.parametrize(
    "place",
    [
        "~/.ssh",
        "~/.config/autostart/x",
        "$XDG_CONFIG_HOME/autostart",
        "~/.local/share/applications",
        "~/",
        "~/../x",
        "$XDG_DATA_HOME/../../x",
        "~/.config",
    ],
)
def test_no_profile_leads_mods_to_where_programs_and_keys_are(place: str) -> None:
    with pytest.raises(FurnelError, match="folder|inner path|mods never go"):
        parse_profile(
            f'''furnel-profile = 1
id = "x"
name = "X"
[recognise]
files = ["x"]
[[archives]]
files = "."
layout = "folder"
[mods]
goes = "mirror"
folder = "{place}"
''',
            "x.toml",
        )


def test_two_profiles_that_fit_are_asked_about(wild: Path) -> None:
    text = profile_text(survey(wild), "Reed Bank")
    keep_profile(text)
    keep_profile(text.replace('"reed-bank"', '"reed-bank-two"').replace('"Reed Bank"', '"Reed Bank Two"'))
    with pytest.raises(SeveralGames, match="reed-bank-two"):
        recognise(wild)
    choose_profile(wild, "reed-bank-two")
    assert recognise(wild).name == "Reed Bank Two"


@pytest.mark.parametrize(
    ("head", "text"),
    [
        (b"plain\n", True), ("gr\u00fcn".encode(), True), ("gr\u00fcn".encode()[:3], True), (b"gr\xfcn wie Gras", True),
        (b"\xff\xfe" + "wide".encode("utf-16-le"), True), (b"", False), (b"a\0b", False), (bytes(range(128, 256)), False),
        (struct.pack("<8f", *range(8)), False), (b"\x1b[31mred", True),
    ],
)  # fmt: skip
def test_text_is_known_by_its_bytes(head: bytes, text: bool) -> None:
    from furnel.signatures import is_text

    assert is_text(head) is text
