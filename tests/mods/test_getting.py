"""Mods of others: recognised in whatever they come, looked into, put into the game and taken off; harmful ones are refused."""

from __future__ import annotations

import gzip
import io
import os
import shutil
import stat
import subprocess
import sys
import tarfile
import zipfile
from collections.abc import Callable
from pathlib import Path
from typing import Any

import py7zr
import pytest
import zstandard

from furnel.cli import main
from furnel.containers import find_layout, write_archive
from furnel.errors import FurnelError
from furnel.games import BRIDGE, Install, read_stack
from furnel.mods.build import build
from furnel.mods.deploy import install_mod, presence, remove_mod
from furnel.mods.getting import get_mod, looked_into
from furnel.mods.mine import make_mine
from furnel.mods.workspace import open_workspace
from tarnlight import loaders
from tarnlight.world import World
from tests.conftest import digest
from tests.mods.test_bridge import BOAT, about, put

HULL = "art/hulls/hull_otter.dds"
RULES = {"rules/boats.toml": BOAT % (b"7.4", b"6.5")}


@pytest.fixture(autouse=True)
def state(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> Path:
    monkeypatch.setenv("FURNEL_STATE", str(tmp_path / "state"))
    return tmp_path / "state"


def zipped(target: Path, files: dict[str, bytes]) -> Path:
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as out:
        for name, data in files.items():
            out.writestr(name, data)
    return target


def tarred(target: Path, files: dict[str, bytes], mode: str = "w:gz") -> Path:
    with tarfile.open(target, mode) as out:  # type: ignore[call-overload]
        for name, data in files.items():
            member = tarfile.TarInfo(name)
            member.size = len(data)
            out.addfile(member, io.BytesIO(data))
    return target


def sevened(target: Path, files: dict[str, bytes], **more: Any) -> Path:
    with py7zr.SevenZipFile(target, "w", **more) as out:
        for name, data in files.items():
            out.writestr(data, name)
    return target


def seven_with_a_link(folder: Path) -> Path:
    with py7zr.SevenZipFile(folder / "h.7z", "w") as out:
        out.writestr(RULES["rules/boats.toml"], "rules/boats.toml")
        out.writestr(b"/etc/passwd", "art/x")
        out.header.files_info.files[-1]["attributes"] = 0x400 | 0x8000 | (stat.S_IFLNK | 0o777) << 16
    return folder / "h.7z"


def below(name: str, files: dict[str, bytes]) -> dict[str, bytes]:
    return {f"{name}/{path}" if name else path: data for path, data in files.items()}


@pytest.mark.parametrize(
    ("name", "root", "with_about", "wanted"),
    [
        ("sea-wind.zip", "", True, ("sea", "about")),
        ("anything.zip", "sea-wind-1.2/sea", True, ("sea", "about")),
        ("Sea Wind!.zip", "", False, ("sea-wind", "paths")),
        ("x.zip", "Sea Wind", False, ("sea-wind", "paths")),
        ("x.tar.gz", "mods/sea", True, ("sea", "about")),
        ("x.tar.xz", "data", False, ("data", "paths")),
        ("x.tar.zst", "sea", True, ("sea", "about")),
        ("x.7z", "sea", True, ("sea", "about")),
        ("Sea Wind.7z", "", False, ("sea-wind", "paths")),
        ("folder", "sea", True, ("sea", "about")),
        ("folder", "", False, ("folder", "paths")),
    ],
)
def test_a_mod_is_recognised_in_whatever_it_comes(
    name: str, root: str, with_about: bool, wanted: tuple[str, str], game: Path, tmp_path: Path
) -> None:
    files = below(root, {**RULES, **({"mod.toml": about("sea")} if with_about else {}), "notes.txt": b"ahoy"})
    source = tmp_path / "from" / name
    source.parent.mkdir()
    if name.endswith(".zip"):
        zipped(source, files)
    elif name.endswith(".7z"):
        sevened(source, files)
    elif name.endswith(".zst"):
        plain = tarred(tmp_path / "plain.tar", files, "w")
        source.write_bytes(zstandard.ZstdCompressor().compress(plain.read_bytes()))
    elif ".tar" in name:
        tarred(source, files, f"w:{name.rpartition('.')[2]}")
    else:
        for path, data in files.items():
            (source / path).parent.mkdir(parents=True, exist_ok=True)
            (source / path).write_bytes(data)
    before, install = digest(game), Install(game)
    with looked_into(install, source) as stranger:
        assert (stranger.id, stranger.told) == wanted
        assert stranger.replaces == ("rules/boats.toml",) and stranger.more == ("notes.txt",)
        assert digest(game) == before
        get_mod(install, stranger)
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 6.5
    assert [(mod.id, mod.on) for mod in read_stack(install)] == [(wanted[0], True)]
    assert "as it was" in remove_mod(install, wanted[0]) and digest(game) == before


def test_what_it_would_do_is_said_before_and_an_update_too(game: Path, tmp_path: Path) -> None:
    install = put(game, fast={"rules/boats.toml": BOAT % (b"7.4", b"4.5")})
    one = zipped(
        tmp_path / "sea.zip", below("sea", {**RULES, "mod.toml": about("sea"), "art/gone.dds": b"x"})
    )
    with looked_into(install, one) as stranger:
        [meeting] = stranger.meetings
        assert meeting.kind == "different" and meeting.contests[0].wants == (("fast", "4.5"), ("sea", "6.5"))
        assert stranger.there == "" and stranger.changed == ()
        get_mod(install, stranger)
    newer = {"rules/boats.toml": BOAT % (b"7.4", b"7.5"), "mod.toml": about("sea"), "art/new.dds": b"y"}
    with looked_into(install, zipped(tmp_path / "sea2.zip", below("sea", newer))) as stranger:
        assert stranger.there == "other"
        assert stranger.changed == ("art/gone.dds", "art/new.dds", "rules/boats.toml")
        get_mod(install, stranger)
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 7.5
    assert not (game / "mods/sea/art/gone.dds").exists()
    shutil.copytree(game / "mods/sea", game / "mods/byhand")
    (game / "mods/byhand/mod.toml").write_bytes(about("byhand"))
    with looked_into(
        install, zipped(tmp_path / "h.zip", below("byhand", {**RULES, "mod.toml": about("byhand")}))
    ) as hand:
        with pytest.raises(FurnelError, match="did not put it there"):
            get_mod(install, hand)
        get_mod(install, hand, over=True)
    remove_mod(install, "byhand")
    assert (game / "mods/byhand/art/new.dds").read_bytes() == b"y"  # what lay there by hand is back
    assert presence(install, "sea", None)[0] == "other"


def test_several_in_one_package_are_told_apart(game: Path, tmp_path: Path) -> None:
    both = {
        **below("one", {**RULES, "mod.toml": about("one")}),
        **below("two", {**RULES, "mod.toml": about("two")}),
    }
    source, install = zipped(tmp_path / "both.zip", both), Install(game)
    with pytest.raises(FurnelError, match="one, two"), looked_into(install, source):
        pass
    with looked_into(install, source, "two") as stranger:
        assert stranger.id == "two"


def hostile_zip(files: dict[str, bytes], **more: int) -> Callable[[Path], Path]:
    def make(folder: Path) -> Path:
        with zipfile.ZipFile(folder / "h.zip", "w", zipfile.ZIP_DEFLATED) as out:
            for name, data in {**files, **RULES}.items():
                info = zipfile.ZipInfo("placeholder")
                info.filename = name
                info.external_attr = more.get("mode", 0o100644) << 16 if name in files else 0
                out.writestr(info, data)
        if more.get("encrypted"):
            whole = bytearray((folder / "h.zip").read_bytes())
            whole[whole.index(b"PK\1\2") + 8] |= 1
            (folder / "h.zip").write_bytes(bytes(whole))
        return folder / "h.zip"

    return make


def hostile_tar(
    name: str, kind: bytes = tarfile.REGTYPE, link: str = "", mode: str = "w"
) -> Callable[[Path], Path]:
    def make(folder: Path) -> Path:
        target = folder / ("h.tar" + {"w": "", "w:gz": ".gz", "w:bz2": ".bz2"}[mode])
        with tarfile.open(target, mode) as out:  # type: ignore[call-overload]
            member = tarfile.TarInfo(name)
            member.type, member.linkname, member.size = kind, link, 0
            out.addfile(member, io.BytesIO())
            good = tarfile.TarInfo("rules/boats.toml")
            good.size = len(RULES["rules/boats.toml"])
            out.addfile(good, io.BytesIO(RULES["rules/boats.toml"]))
        return target

    return make


def broken(change: Callable[[bytes], bytes]) -> Callable[[Path], Path]:
    def make(folder: Path) -> Path:
        file = zipped(folder / "h.zip", {**RULES, "art/x.dds": os.urandom(4000)})
        file.write_bytes(change(file.read_bytes()))
        return file

    return make


def told_larger(folder: Path) -> Path:
    """It claims 20 GB of a few bytes, in both of its directories."""
    file = zipped(folder / "h.zip", {"art/x.dds": bytes(4000), **RULES})
    data = bytearray(file.read_bytes())
    for mark, at in ((b"PK\3\4", 22), (b"PK\1\2", 24)):
        place = data.index(mark) + at
        data[place : place + 4] = (0xFFFF0000).to_bytes(4, "little")
    file.write_bytes(bytes(data))
    return file


def bomb(folder: Path) -> Path:
    target = folder / "h.tar.zst"
    packer = zstandard.ZstdCompressor(level=3).compressobj()
    member = tarfile.TarInfo("art/x.dds")
    member.size = 1 << 40
    with target.open("wb") as out:
        out.write(packer.compress(member.tobuf() + bytes(8 << 20)) + packer.flush())
    return target


def linked_folder(folder: Path) -> Path:
    (folder / "h/rules").mkdir(parents=True)
    (folder / "h/rules/boats.toml").symlink_to("/etc/passwd")
    return folder / "h"


def _cut(file: Path) -> Path:
    file.write_bytes(file.read_bytes()[:-3000])
    return file


def _turned(file: Path) -> Path:
    data = bytearray(file.read_bytes())
    data[4000] ^= 255
    file.write_bytes(bytes(data))
    return file


BAD_NAMES = [
    "../evil.txt", "a/../../evil.txt", "/etc/evil.txt", "//evil", "C:/evil.txt", "c:evil.txt", "C:\\evil.txt", "a\\..\\evil",
    "a//b.txt", "a/./b.txt", "./../b", "..", "a/..", "con", "NUL.txt", "aux/x.dds", "art/COM1.dds", "lpt9", "art/prn.tar.gz",
    "art/name ", "art/name.", "art./x", "art/x?.dds", "art/x|y", "art/x<y", 'art/"x', "art/x*", "art/x:stream", "x" * 300,
    "/".join(["d" * 100] * 12), "art/\x01x", "art/new\nline", "art/\x7f", "art/\u202egnp.exe",
]  # fmt: skip
BAD: dict[str, Callable[[Path], Path]] = {
    **{f"zip {name[:30]!r}": hostile_zip({name: b"evil"}) for name in BAD_NAMES},
    **{f"tar {name[:30]!r}": hostile_tar(name) for name in BAD_NAMES[:8]},
    "case twins": hostile_zip({"art/X.dds": b"1", "art/x.dds": b"2"}),
    "twins of folders": hostile_zip({"Art/y.dds": b"1", "art/x.dds": b"2"}),
    "twins of accents": hostile_zip({"art/\u00e9.dds": b"1", "art/e\u0301.dds": b"2"}),
    "a file and a folder": hostile_zip({"art": b"1", "art/x.dds": b"2"}),
    "a folder and a file": hostile_zip({"art/x.dds": b"2", "art": b"1"}),
    "a link in a ZIP": hostile_zip({"art/x": b"/etc/passwd"}, mode=stat.S_IFLNK | 0o777),
    "a device in a ZIP": hostile_zip({"art/x": b""}, mode=stat.S_IFCHR | 0o666),
    "encrypted": hostile_zip({"art/x.dds": b"secret"}, encrypted=1),
    "a link": hostile_tar("art/x", tarfile.SYMTYPE, "/etc/passwd"),
    "a link upwards": hostile_tar("art/x", tarfile.SYMTYPE, "../../../x", "w:gz"),
    "a hard link": hostile_tar("art/x", tarfile.LNKTYPE, "rules/boats.toml"),
    "a pipe": hostile_tar("art/x", tarfile.FIFOTYPE),
    "a device": hostile_tar("art/x", tarfile.CHRTYPE, "", "w:bz2"),
    "a folder with a link": linked_folder,
    "cut": broken(lambda data: data[: len(data) // 2]),
    "another byte": broken(lambda data: data[:2000] + bytes([data[2000] ^ 255]) + data[2001:]),
    "noise": broken(lambda data: os.urandom(500)),
    "nothing": broken(lambda data: b""),
    "claims to be large": told_larger,
    "a bomb": bomb,
    "a link in a 7z": seven_with_a_link,
    "a 7z with a device's name": lambda folder: sevened(folder / "h.7z", {"art/con.dds": b"x", **RULES}),
    "a 7z with twins": lambda folder: sevened(
        folder / "h.7z", {"art/X.dds": b"x", "art/x.dds": b"y", **RULES}
    ),
    "an encrypted 7z": lambda folder: sevened(folder / "h.7z", RULES, password="x"),
    "a cut 7z": lambda folder: _cut(sevened(folder / "h.7z", {"art/x.dds": os.urandom(9000), **RULES})),
    "a 7z with another byte": lambda folder: _turned(
        sevened(folder / "h.7z", {"art/x.dds": os.urandom(9000), **RULES})
    ),
    "a bomb in a 7z": lambda folder: sevened(folder / "h.7z", {"art/x.dds": bytes(64 << 20), **RULES}),
    "an id that climbs": hostile_zip({"mod.toml": b'id = "../../evil"\nname = "x"\nversion = "1"\n'}),
    "an id with capitals": hostile_zip({"mod.toml": b'id = "Evil Mod"\nname = "x"\nversion = "1"\n'}),
    "a bridge": hostile_zip({"mod.toml": about(BRIDGE)}),
}


def test_there_are_enough_of_them() -> None:
    assert len(BAD) >= 60


@pytest.mark.parametrize("name", BAD)
def test_a_harmful_one_is_refused_with_a_sentence(
    name: str, forged: Path, tmp_path: Path, state: Path
) -> None:
    (tmp_path / "from").mkdir()
    source = BAD[name](tmp_path / "from")
    before, around = digest(forged), sorted(tmp_path.iterdir())
    install = Install(forged)
    with pytest.raises(FurnelError) as refusal, looked_into(install, source):
        pass
    install.close()
    said = refusal.value
    assert said.why and said.where and not said.why.startswith("[")
    assert digest(forged) == before
    assert [file for file in tmp_path.iterdir() if file not in around] in ([], [state])
    assert not [file for file in state.rglob("*") if file.is_file() and "looked-into" in str(file)]


def test_a_stranger_for_another_game_is_refused(game: Path, tmp_path: Path) -> None:
    source = zipped(tmp_path / "other.zip", {"textures/rock.dds": b"x"})
    with pytest.raises(FurnelError, match="another game"), looked_into(Install(game), source):
        pass


def large_zip(folder: Path) -> Path:
    with zipfile.ZipFile(folder / "large.zip", "w", zipfile.ZIP_DEFLATED) as out:
        out.writestr("sea/mod.toml", about("sea"))
        with out.open("sea/art/large.dds", "w") as stream:
            for _ in range(300):
                stream.write(bytes(1 << 20))
    return folder / "large.zip"


def large_words(folder: Path) -> Path:
    """What a TAR says of the next file, in 300 MB."""
    member = tarfile.TarInfo("PaxHeader")
    member.type, member.size = tarfile.XHDTYPE, 300 << 20
    with gzip.open(folder / "words.tar.gz", "wb", 1) as out:
        out.write(member.tobuf())
        for _ in range(300):
            out.write(bytes(1 << 20))
    return folder / "words.tar.gz"


@pytest.mark.parametrize(("make", "code"), [(large_zip, 0), (large_words, 2)])
def test_a_large_one_stays_out_of_memory(
    make: Callable[[Path], Path], code: int, game: Path, tmp_path: Path
) -> None:
    work = "import resource, sys; from furnel.cli import main; code = main(sys.argv[1:]); "
    work += "print(resource.getrusage(resource.RUSAGE_SELF).ru_maxrss >> 10, code)"
    used = []
    small = zipped(tmp_path / "small.zip", below("sea", {**RULES, "mod.toml": about("sea")}))
    for source in (small, make(tmp_path)):
        ran = subprocess.run(
            [sys.executable, "-c", work, "get", str(source), "--game", str(game), "--look"],
            capture_output=True, text=True, check=True,
        )  # fmt: skip
        used.append([int(word) for word in ran.stdout.splitlines()[-1].split()])
    assert used[1][1] == code and used[1][0] - used[0][0] < 64, used


def test_a_mod_is_gone_on_from_with_credit_for_who_made_it(game: Path, tmp_path: Path) -> None:
    hull = Install(game)
    rust = next((a, p) for a in hull.archives for p in hull.places(a) if p.path == "art/sails/sail_rust.dds")
    picture = hull.read(rust[0], rust[1].inner)
    told = about("sea") + b'author = "Runa"\n'
    install = put(
        game,
        sea={
            "rules/boats.toml": BOAT % (b"7.4", b"4.5"),
            "art/sails/sail_herring.dds": picture,
            "art/sails/sail_new.dds": picture,
            "notes.txt": b"x",
        },
    )
    (game / "mods/sea/mod.toml").write_bytes(told)
    before = digest(game)
    made = make_mine(install, "sea", tmp_path / "mine", "My sea")
    assert made.left == ("notes.txt",) and digest(game) == before
    space = open_workspace(made.file)
    swaps = {swap.original: swap for swap in space.project.swaps}
    assert {swap.credit for swap in swaps.values()} == {"Sea by Runa"}
    assert [(change.at, change.to) for change in swaps["rules/boats.toml"].changes] == [("otter/speed", 4.5)]
    assert swaps["art/sails/sail_new.dds"].like.startswith("art/sails/")
    built = build(space)
    assert (built.folder / "art/sails/sail_herring.dds").read_bytes() == picture
    assert main(["mods", str(game), "--off", "sea"]) == 0
    install_mod(space.catalogue.install, "my-sea", built.folder)
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 4.5
    space.close()
    with pytest.raises(FurnelError, match="no such mod"):
        make_mine(install, "nobody", tmp_path / "other")
    with pytest.raises(FurnelError, match="a project already"):
        make_mine(install, "sea", tmp_path / "mine")


def test_from_the_command_line(game: Path, tmp_path: Path, capsys: pytest.CaptureFixture[str]) -> None:
    put(game, fast={"rules/boats.toml": BOAT % (b"7.4", b"4.5")})
    source = zipped(tmp_path / "sea.zip", below("sea", {**RULES, "mod.toml": about("sea"), "x.txt": b"x"}))
    assert main(["get", str(source), "--game", str(game), "--look"]) == 0
    said = capsys.readouterr().out
    assert "rules/boats.toml  different in fast" in said and "x.txt  is not the game's" in said
    assert [mod.id for mod in read_stack(Install(game))] == ["fast"]
    assert main(["get", str(source), "--game", str(game)]) == 0
    assert main(["mods", str(game), "--off", "fast", "--last", "fast"]) == 0
    said = capsys.readouterr().out
    assert [line.split()[:2] for line in said.splitlines()[-2:]] == [["on", "sea"], ["off", "fast"]]
    assert "did not put it there" in said.splitlines()[-1]
    assert main(["mods", str(game), "--remove", "sea"]) == 0
    assert main(["mods", str(game), "--on", "nobody"]) == 2
    assert World(game).book("rules/boats.toml")["otter"]["speed"] == 3.2


def test_a_game_that_knows_no_mods_gets_them_in_the_place_of_its_files(game: Path, tmp_path: Path) -> None:
    profile = Install(game).profile
    rule = profile.mods.model_copy(update={"goes": "in-place"})
    install = Install(game, profile.model_copy(update={"mods": rule}))
    theirs = loaders.load_container(game / "data/bank0.tls")
    mine = {path.partition("/")[2]: data for path, data in theirs.items()}
    mine["000.wav"] = mine["001.wav"]
    write_archive(tmp_path / "m/bank0.tls", dict(sorted(mine.items())), find_layout("tls"))
    files = {f"Loud bell/data/{file.name}": file.read_bytes() for file in (tmp_path / "m").iterdir()}
    before = digest(game)
    with looked_into(
        install, zipped(tmp_path / "loud.zip", {**files, "Loud bell/readme.txt": b"ahoy"})
    ) as stranger:
        assert (stranger.id, stranger.told) == ("loud-bell", "paths") and stranger.more == ("readme.txt",)
        get_mod(install, stranger)
    assert loaders.load_container(game / "data/bank0.tls")["bank0/000.wav"] == theirs["bank0/001.wav"]
    assert not list(game.rglob("readme.txt")) and [mod.name for mod in read_stack(install)] == ["Loud bell"]
    remove_mod(install, "loud-bell")
    assert digest(game) == before
