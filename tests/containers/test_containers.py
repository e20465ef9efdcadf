"""Archives: every shipped layout against the game's own reader and writer, lies in every number, hostile paths."""

from __future__ import annotations

import io
import signal
import struct
import subprocess
import sys
import time
import zipfile
import zlib
from collections.abc import Callable
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import (
    Changes,
    check_path,
    find_layout,
    open_container,
    pack_folder,
    parse_layout,
    shipped_layouts,
    unpack_to,
    write_archive,
    write_zip,
)
from furnel.containers.container import check_paths
from furnel.containers.zipped import Zip
from furnel.errors import FurnelError
from tarnlight import loaders, writers

ARCHIVES = ["art.tlp", "cast.tlc", "bank0.tls", "music.tlm", "rules.zip"]
SIDE_FILES = {".tls": [".tlx", ".sum"]}
SMALL = {
    "tlp": {"art/a.dds": b"first" * 300, "art/b.dds": b"second" * 5},
    "tlc": {"cast/a.png": b"one" * 99, "cast/b.png": b"", "cast/c.png": b"three"},
    "tls": {"000.wav": b"RIFF" * 9, "001.wav": b"WAVE" * 31},
    "tlm": {"reel.loop": b"L" * 16, "reel.ogg": b"OggS" * 77, "fog.loop": b"M" * 16, "fog.ogg": b"OggS" * 5},
}


def parts(archive: Path) -> list[Path]:
    return [archive, *(archive.with_suffix(suffix) for suffix in SIDE_FILES.get(archive.suffix, []))]


@pytest.mark.parametrize("name", ARCHIVES)
def test_the_games_archives_are_read_like_the_game_reads_them(forged: Path, name: str) -> None:
    archive = forged / "data" / name
    theirs = loaders.load_container(archive)
    container = open_container(archive)
    ours = {entry.path: container.read(entry.path) for entry in container.entries()}
    prefix = next(path for path in theirs if path.endswith(next(iter(ours)))).removesuffix(next(iter(ours)))
    assert {prefix + path: data for path, data in ours.items()} == theirs
    assert all(len(ours[entry.path]) == entry.size for entry in container.entries())
    first = container.entries()[0]
    assert container.peek(first.path, 8) == ours[first.path][:8]


@pytest.mark.parametrize("name", ARCHIVES)
def test_an_unchanged_repack_is_the_same_bytes(forged: Path, tmp_path: Path, name: str) -> None:
    archive = forged / "data" / name
    open_container(archive).rewrite(tmp_path / name, Changes())
    for old, new in zip(parts(archive), parts(tmp_path / name), strict=True):
        assert old.read_bytes() == new.read_bytes()


@pytest.mark.parametrize("name", ARCHIVES)
def test_one_changed_entry_and_the_game_still_reads_all(forged: Path, tmp_path: Path, name: str) -> None:
    archive = forged / "data" / name
    container = open_container(archive)
    before = loaders.load_container(archive)
    path = container.entries()[len(container.entries()) // 2].path
    fresh = b"quite another content, of another length!" * 41
    fresh += bytes(-len(fresh) % 4)
    container.rewrite(tmp_path / name, Changes({path: fresh}))
    after = loaders.load_container(tmp_path / name)
    changed = {key for key in before if before[key] != after[key]}
    assert list(before) == list(after)
    assert [key.endswith(path) for key in changed] == [True]
    assert after[changed.pop()] == fresh


@pytest.mark.parametrize("layout", sorted(SMALL))
def test_what_is_packed_here_the_game_reads(tmp_path: Path, layout: str) -> None:
    archive = tmp_path / f"new.{layout}"
    write_archive(archive, SMALL[layout], find_layout(layout))
    container = open_container(archive)
    assert [entry.path for entry in container.entries()] == list(SMALL[layout])
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == SMALL[layout]
    assert list(loaders.load_container(archive).values()) == list(SMALL[layout].values())


def test_the_games_writer_and_ours_agree(tmp_path: Path) -> None:
    (tmp_path / "a.tlc").write_bytes(writers.tlc(SMALL["tlc"]))
    write_archive(tmp_path / "b.tlc", SMALL["tlc"], find_layout("tlc"))
    assert (tmp_path / "a.tlc").read_bytes() == (tmp_path / "b.tlc").read_bytes()


def test_unknown_fields_and_gaps_are_carried_through(tmp_path: Path) -> None:
    data = bytearray(writers.tlp(SMALL["tlp"]))
    data[6:8] = b"\xab\xcd"  # the header's flags, which the layout does not explain
    first = struct.unpack_from("<I", data, 16 + 48)[0]
    data[16 + 2 * 64 : first] = b"\x7e" * (first - 16 - 2 * 64)
    (tmp_path / "odd.tlp").write_bytes(data)
    container = open_container(tmp_path / "odd.tlp")
    container.rewrite(tmp_path / "same.tlp", Changes())
    assert (tmp_path / "same.tlp").read_bytes() == bytes(data)
    container.rewrite(tmp_path / "more.tlp", Changes({"art/b.dds": b"x" * 9}))
    changed = (tmp_path / "more.tlp").read_bytes()
    assert changed[6:8] == b"\xab\xcd"
    assert struct.unpack_from("<I", changed, 16 + 60)[0] == zlib.crc32(b"art/a.dds")


def test_unknown_fields_before_the_index_are_carried_through(tmp_path: Path) -> None:
    text = (Path(__file__).parents[2] / "src/furnel/containers/layouts/tls.toml").read_text()
    entry_count = '{ name = "count", type = "u32", holds = "entry count" },'
    text = text.replace(entry_count, f'{entry_count}\n  {{ name = "season", type = "u32" }},').replace(
        '[sums]\nfile = ".sum"', ""
    )
    layout = parse_layout(text, "seasons.toml")
    body, index, _ = writers.tls([b"RIFF" * 9, b"WAVE" * 31])
    (tmp_path / "x.tls").write_bytes(body)
    (tmp_path / "x.tlx").write_bytes(index[:8] + b"\x12\x34\x56\x78" + index[8:])
    open_container(tmp_path / "x.tls", layout).rewrite(
        tmp_path / "y.tls", Changes({"000.wav": b"much longer than before" * 8})
    )
    assert (tmp_path / "y.tlx").read_bytes()[8:12] == b"\x12\x34\x56\x78"
    assert open_container(tmp_path / "y.tls", layout).read("001.wav") == b"WAVE" * 31


def test_a_zip_made_elsewhere_is_repacked_and_read_elsewhere(tmp_path: Path) -> None:
    with zipfile.ZipFile(tmp_path / "in.zip", "w", zipfile.ZIP_DEFLATED) as archive:
        archive.comment = b"kept"
        archive.writestr("folder/", b"")
        for name in ("a.txt", "folder/b.txt", "c.txt"):
            archive.writestr(name, name * 50, zipfile.ZIP_STORED if name == "c.txt" else zipfile.ZIP_DEFLATED)
    container = open_container(tmp_path / "in.zip")
    assert [entry.path for entry in container.entries()] == ["a.txt", "folder/b.txt", "c.txt"]
    container.rewrite(tmp_path / "out.zip", Changes({"folder/b.txt": b"new"}))
    with zipfile.ZipFile(tmp_path / "out.zip") as after:
        assert after.testzip() is None
        assert after.comment == b"kept"
        assert [after.read(name) for name in ("a.txt", "folder/b.txt", "c.txt")] == [
            b"a.txt" * 50,
            b"new",
            b"c.txt" * 50,
        ]


def test_members_of_a_zip_are_added_removed_and_renamed(tmp_path: Path) -> None:
    with zipfile.ZipFile(tmp_path / "in.zip", "w", zipfile.ZIP_DEFLATED) as archive:
        for name in ("a.txt", "b/c.txt", "d.txt", "e.txt"):
            archive.writestr(name, name * 60)
    (tmp_path / "file.bin").write_bytes(b"from a file" * 500)
    container = open_container(tmp_path / "in.zip")
    changes = Changes(
        {"d.txt": b"replaced and renamed"}, {"new/f.bin": tmp_path / "file.bin"}, frozenset(["a.txt"]),
        {"d.txt": "deep/d.txt", "e.txt": "E.txt"},
    )  # fmt: skip
    container.rewrite(tmp_path / "out.zip", changes)
    with zipfile.ZipFile(tmp_path / "out.zip") as after:
        assert after.testzip() is None
        assert {name: after.read(name) for name in after.namelist()} == {
            "b/c.txt": b"b/c.txt" * 60, "deep/d.txt": b"replaced and renamed", "E.txt": b"e.txt" * 60,
            "new/f.bin": b"from a file" * 500,
        }  # fmt: skip


def test_a_zip_beyond_four_gibibytes_is_changed_and_its_holes_stay_holes(tmp_path: Path) -> None:
    far = 5 << 30
    with (tmp_path / "far.zip").open("wb") as stream:
        stream.seek(far)
        with zipfile.ZipFile(stream, "w") as archive:
            archive.writestr("a.txt", "first " * 40)
            archive.writestr("b.txt", "second")
    container = Zip(tmp_path / "far.zip")
    container.rewrite(tmp_path / "new.zip", Changes({"b.txt": b"changed"}, {"c.txt": b"third"}))
    container.close()
    with zipfile.ZipFile(tmp_path / "new.zip") as after:
        assert after.testzip() is None
        assert [after.read(name) for name in ("a.txt", "b.txt", "c.txt")] == [
            b"first " * 40,
            b"changed",
            b"third",
        ]
        assert min(info.header_offset for info in after.infolist()) >= far
    assert (tmp_path / "new.zip").stat().st_blocks * 512 < 1 << 20


def test_a_zip_of_very_many_members_is_changed(tmp_path: Path) -> None:
    with zipfile.ZipFile(tmp_path / "many.zip", "w") as archive:
        for number in range(65600):
            archive.writestr(f"{number}", b"")
    container = Zip(tmp_path / "many.zip")
    container.rewrite(tmp_path / "more.zip", Changes({"7": b"seven"}, {"new": b"n"}))
    container.close()
    with zipfile.ZipFile(tmp_path / "more.zip") as after:
        assert len(after.namelist()) == 65601 and after.read("7") == b"seven" and after.read("new") == b"n"


def test_a_folder_is_changed_like_an_archive(tmp_path: Path) -> None:
    for name in ("a.txt", "b/c.txt", "d.txt"):
        (tmp_path / "in" / name).parent.mkdir(parents=True, exist_ok=True)
        (tmp_path / "in" / name).write_text(name)
    open_container(tmp_path / "in").rewrite(
        tmp_path / "out",
        Changes({"a.txt": b"new"}, {"e/f.txt": b"added"}, frozenset(["d.txt"]), {"b/c.txt": "c.txt"}),
    )
    after = open_container(tmp_path / "out")
    assert {e.path: after.read(e.path) for e in after.entries()} == {
        "a.txt": b"new",
        "c.txt": b"b/c.txt",
        "e/f.txt": b"added",
    }


@pytest.mark.parametrize(
    ("changes", "says"),
    [
        (Changes(add={"000.wav": b""}), "two entries"),
        (Changes(rename={"000.wav": "../up.wav"}), "not safe"),
        (Changes(remove=frozenset(["000.wav"])), "no names"),
        (Changes(rename={"000.wav": "bell.wav"}), "no names"),
        (Changes(add={"bell.wav": b""}), "named 046.wav"),
        (Changes(remove=frozenset(["nothing"])), "no entry"),
    ],
)
def test_changes_that_cannot_be_are_refused_and_nothing_is_written(
    forged: Path, tmp_path: Path, changes: Changes, says: str
) -> None:
    with pytest.raises(FurnelError, match=says):
        open_container(forged / "data" / "bank0.tls").rewrite(tmp_path / "x.tls", changes)
    assert not list(tmp_path.iterdir())


def test_parts_come_and_go_in_the_nests_that_they_belong_to(forged: Path, tmp_path: Path) -> None:
    container = open_container(forged / "data" / "music.tlm")
    loop, tune = container.read("fog.loop"), container.read("fog.ogg")
    container.rewrite(tmp_path / "less.tlm", Changes(remove=frozenset(["fog.loop"])))
    less = open_container(tmp_path / "less.tlm")
    assert "fog.loop" not in [entry.path for entry in less.entries()] and less.read("fog.ogg") == tune
    less.rewrite(tmp_path / "again.tlm", Changes(add={"fog.loop": loop, "dawn.loop": loop, "dawn.ogg": tune}))
    after = loaders.load_container(tmp_path / "again.tlm")
    assert len(after) == 10 and after["music/fog.loop"] == loop and after["music/dawn.ogg"] == tune
    with pytest.raises(FurnelError, match="a chunk around it"):
        container.rewrite(tmp_path / "y.tlm", Changes(rename={"fog.ogg": "mist.ogg"}))
    both = Changes({"fog.ogg": tune + b"more"}, rename={"fog.ogg": "mist.ogg", "fog.loop": "mist.loop"})
    container.rewrite(tmp_path / "y.tlm", both)
    moved = loaders.load_container(tmp_path / "y.tlm")
    assert moved["music/mist.loop"] == loop and moved["music/mist.ogg"] == tune + b"more"


def test_a_numbered_archive_grows_and_shrinks_at_its_end(forged: Path, tmp_path: Path) -> None:
    container = open_container(forged / "data" / "bank0.tls")
    sound = container.read("003.wav")
    container.rewrite(tmp_path / "bank0.tls", Changes(add={"046.wav": sound}, remove=frozenset()))
    longer = loaders.load_container(tmp_path / "bank0.tls")
    assert len(longer) == 47 and longer["bank0/046.wav"] == sound
    open_container(tmp_path / "bank0.tls").rewrite(
        tmp_path / "short" / "bank0.tls", Changes(remove=frozenset(["046.wav", "045.wav"]))
    )
    assert len(loaders.load_container(tmp_path / "short" / "bank0.tls")) == 45


def test_packing_a_folder_twice_gives_the_same_zip(tmp_path: Path) -> None:
    for name in ("one", "two"):
        for path in ("b/x.txt", "a.txt") if name == "one" else ("a.txt", "b/x.txt"):
            (tmp_path / name / path).parent.mkdir(parents=True, exist_ok=True)
            (tmp_path / name / path).write_text(path)
        assert pack_folder(tmp_path / name, None, tmp_path / f"{name}.zip") == 2
    assert (tmp_path / "one.zip").read_bytes() == (tmp_path / "two.zip").read_bytes()
    assert unpack_to(open_container(tmp_path / "one.zip"), tmp_path / "out") == 2
    assert (tmp_path / "out" / "b" / "x.txt").read_text() == "b/x.txt"


@pytest.mark.parametrize(
    "path", ["../up", "/etc/passwd", "a//b", "a/./b", "a\\b", "C:/x", "", "x" * 2000, "a\nb", "a/.."]
)
def test_hostile_paths_are_refused(path: str) -> None:
    with pytest.raises(FurnelError, match="not safe"):
        check_path(path, "test")


def test_a_zip_that_climbs_out_writes_nothing(tmp_path: Path) -> None:
    with zipfile.ZipFile(tmp_path / "evil.zip", "w") as archive:
        archive.writestr("../../evil.txt", "gotcha")
    with pytest.raises(FurnelError, match="not safe"):
        open_container(tmp_path / "evil.zip")
    (tmp_path / "evil.tlp").write_bytes(writers.tlp({"../evil.dds": b"x"}))
    with pytest.raises(FurnelError, match="not safe"):
        open_container(tmp_path / "evil.tlp")


def test_twins_that_differ_in_case_are_not_unpacked(tmp_path: Path) -> None:
    (tmp_path / "twins.tlp").write_bytes(writers.tlp({"a/Boat.dds": b"x", "a/boat.dds": b"y"}))
    with pytest.raises(FurnelError, match="letter case"):
        unpack_to(open_container(tmp_path / "twins.tlp"), tmp_path / "out")
    assert not (tmp_path / "out").exists()


def test_a_link_out_of_a_folder_is_not_followed(tmp_path: Path) -> None:
    (tmp_path / "secret.txt").write_text("private")
    (tmp_path / "folder").mkdir()
    (tmp_path / "folder" / "link.txt").symlink_to(tmp_path / "secret.txt")
    (tmp_path / "folder" / "own.txt").write_text("mine")
    assert [entry.path for entry in open_container(tmp_path / "folder").entries()] == ["own.txt"]


@pytest.mark.parametrize("at", [8, 12, 64, 68, 72])
def test_counts_and_offsets_that_lie_are_refused(tmp_path: Path, at: int) -> None:
    data = bytearray(writers.tlp(SMALL["tlp"]))
    data[at : at + 4] = b"\xff\xff\xff\x7f"
    (tmp_path / "lie.tlp").write_bytes(data)
    with pytest.raises(FurnelError):
        container = open_container(tmp_path / "lie.tlp")
        for entry in container.entries():
            container.read(entry.path)


def test_a_bank_whose_sums_do_not_match_is_neither_read_nor_repacked(forged: Path, tmp_path: Path) -> None:
    for file in parts(forged / "data" / "bank0.tls"):
        (tmp_path / file.name).write_bytes(file.read_bytes())
    body = bytearray((tmp_path / "bank0.tls").read_bytes())
    body[5000] ^= 1
    (tmp_path / "bank0.tls").write_bytes(body)
    container = open_container(tmp_path / "bank0.tls")
    with pytest.raises(FurnelError, match="checksums"):
        container.read("000.wav")
    assert container.read("001.wav")[:4] == b"RIFF"
    with pytest.raises(FurnelError, match="checksums"):
        container.rewrite(tmp_path / "new.tls", Changes({"003.wav": b"x"}))
    (tmp_path / "bank0.sum").write_bytes(b"1234")
    with pytest.raises(FurnelError, match="checksums"):
        open_container(tmp_path / "bank0.tls")


def test_a_bomb_is_not_unpacked(tmp_path: Path) -> None:
    packed = zlib.compress(bytes(1 << 20), 9)
    data = bytearray(writers.tlp({"a.dds": b"x"}))
    start = struct.unpack_from("<I", data, 64)[0]
    data[start:] = packed
    data[68:76] = struct.pack("<II", len(packed), 16)
    (tmp_path / "bomb.tlp").write_bytes(data)
    with pytest.raises(FurnelError, match="another size|ends too soon"):
        open_container(tmp_path / "bomb.tlp").read("a.dds")


@given(name=st.sampled_from(["tlp", "tlc", "tlm", "zip"]), data=st.data())
def test_damaged_archives_give_an_error_or_an_answer(
    tmp_path_factory: pytest.TempPathFactory, name: str, data: st.DataObject
) -> None:
    if name == "zip":
        stream = io.BytesIO()
        with zipfile.ZipFile(stream, "w", zipfile.ZIP_DEFLATED) as archive:
            archive.writestr("a.txt", "hello" * 40)
            archive.writestr("b/c.txt", "there")
        whole = bytearray(stream.getvalue())
    else:
        folder = tmp_path_factory.mktemp("whole")
        write_archive(folder / f"x.{name}", SMALL[name], find_layout(name))
        whole = bytearray((folder / f"x.{name}").read_bytes())
    for _ in range(data.draw(st.integers(0, 5))):
        whole[data.draw(st.integers(0, len(whole) - 1))] = data.draw(st.integers(0, 255))
    file = tmp_path_factory.mktemp("damaged") / f"x.{name}"
    file.write_bytes(whole[: data.draw(st.integers(0, len(whole)))])
    started = time.monotonic()
    try:
        container = open_container(file)
        for entry in container.entries():
            container.read(entry.path)
        container.close()
    except FurnelError as error:
        assert error.why
    assert time.monotonic() - started < 2


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (("furnel-layout = 1", "furnel-layout = 9"), "furnel-layout"),
        (('holds = "offset"', 'holds = "ofset"'), "holds"),
        (('type = "u32", holds = "offset"', 'type = "u33", holds = "offset"'), "type"),
        (("[index]", "[indx]"), "indx"),
        (('holds = "offset"', 'holds = "size"'), "two fields hold"),
        (("align = 16", "align = 0"), "align"),
        (("[[", "[[["), "line|Invalid|invalid"),
    ],
)
def test_a_wrong_layout_says_which_key(change: tuple[str, str], says: str) -> None:
    text = (Path(__file__).parents[2] / "src/furnel/containers/layouts/tlp.toml").read_text()
    text = text if change[0] in text else text + "\n[[x]]\n"
    with pytest.raises(FurnelError, match=says):
        parse_layout(
            text.replace("  { name", "{ name").replace('"offset", type', '"offset", type').replace(*change),
            "mine.toml",
        )


def test_a_layout_of_ones_own_reads_and_writes(tmp_path: Path) -> None:
    """An archive unlike any shipped, with a writer of its own here."""
    text = """
furnel-layout = 1
name = "crate"
title = "big-endian, short names, LZ4, 32-byte alignment"
files = ["*.crate"]
byte-order = "big"
[start]
fields = [{ name = "magic", type = "text", length = 5, is = "CRATE" }, { name = "n", type = "u16", holds = "entry count" }]
[index]
fields = [{ name = "start", type = "u64", holds = "offset" }, { name = "whole", type = "u32", holds = "size" },
  { name = "packed", type = "u32", holds = "stored size" }, { name = "id", type = "text", length = 12, holds = "path" }]
[entry]
packed = "lz4"
align = 32
"""
    import lz4.block

    contents = {"one.bin": b"1" * 500, "two.bin": b"2" * 40}
    body, rows, at = b"", b"", 7 + 2 * 28
    for name, content in contents.items():
        body += bytes(-(at + len(body)) % 32)
        packed = lz4.block.compress(content, store_size=False)
        rows += struct.pack(">QII12s", at + len(body), len(content), len(packed), name.encode())
        body += packed
    (tmp_path / "x.crate").write_bytes(b"CRATE" + struct.pack(">H", 2) + rows + body)
    layout = parse_layout(text, "crate.toml")
    container = open_container(tmp_path / "x.crate", layout)
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == contents
    container.rewrite(tmp_path / "y.crate", Changes({"two.bin": b"22" * 99}))
    again = open_container(tmp_path / "y.crate", layout)
    assert [again.read(path) for path in contents] == [contents["one.bin"], b"22" * 99]


def test_names_that_do_not_fit_are_refused(tmp_path: Path) -> None:
    with pytest.raises(FurnelError, match="room for 48"):
        write_archive(tmp_path / "x.tlp", {"a" * 60: b""}, find_layout("tlp"))
    with pytest.raises(FurnelError, match="has to be named 000.wav"):
        write_archive(tmp_path / "x.tls", {"7.wav": b""}, find_layout("tls"))
    with pytest.raises(FurnelError, match="no place"):
        write_archive(tmp_path / "x.tlm", {"tune.mp3": b""}, find_layout("tlm"))
    with pytest.raises(FurnelError, match="no such layout"):
        find_layout("cupboard")
    assert not list(tmp_path.iterdir())


def test_a_missing_entry_and_a_missing_file_are_named(forged: Path, tmp_path: Path) -> None:
    with pytest.raises(FurnelError, match="case-sensitive"):
        open_container(forged / "data" / "art.tlp").read("art/Hulls/hull_otter.dds")
    with pytest.raises(FurnelError, match="no entry"):
        open_container(forged / "data" / "art.tlp").rewrite(tmp_path / "x.tlp", Changes({"nothing": b""}))
    with pytest.raises(FurnelError, match="no such file"):
        open_container(tmp_path / "nowhere.tlp")
    (tmp_path / "notes.doc").write_text("?")
    with pytest.raises(FurnelError, match="known layout"):
        open_container(tmp_path / "notes.doc")


def test_killed_while_repacking_the_old_archive_is_whole(forged: Path, tmp_path: Path) -> None:
    target = tmp_path / "art.tlp"
    target.write_bytes((forged / "data" / "art.tlp").read_bytes())
    before = target.read_bytes()
    code = f"""
from pathlib import Path
from furnel.containers import Changes, open_container
source, target = Path({str(forged / "data" / "art.tlp")!r}), Path({str(target)!r})
while True:
    open_container(source).rewrite(target, Changes({{"art/lamps/lantern.dds": b"x" * 5000000}}))
"""
    process = subprocess.Popen([sys.executable, "-c", code])
    end = time.monotonic() + 20
    while target.read_bytes() == before and time.monotonic() < end:
        time.sleep(0.02)
    time.sleep(0.01)
    process.send_signal(signal.SIGKILL)
    process.wait()
    container = open_container(target)
    assert len(container.read("art/lamps/lantern.dds")) == 5_000_000
    assert len(container.entries()) == len(open_container(forged / "data" / "art.tlp").entries())


def test_all_shipped_layouts_are_described() -> None:
    text = (Path(__file__).parents[2] / "docs" / "layouts.md").read_text("utf-8")
    assert all(f"`{name}`" in text for name in shipped_layouts())


def test_writing_where_nobody_may_write_is_refused(tmp_path: Path) -> None:
    (tmp_path / "file").write_text("not a folder")
    with pytest.raises(FurnelError, match="could not be written"):
        write_zip(tmp_path / "file" / "x.zip", [("a", b"")])


@pytest.mark.parametrize("bad", ["a\nb", "\n", "a/b\n", "x\n\ny", "../a", "", ".hidden/../x", "a" * 2000])
def test_many_paths_are_looked_at_as_each_of_them(bad: str) -> None:
    good = ["art/a.dds", ".hidden", "snd/ö.wav", "a b (1).txt"]
    assert check_paths(good, "x") == good and check_paths([], "x") == []
    assert check_paths(good[:1] + good[3:], "x") == good[:1] + good[3:]  # all of them plain
    with pytest.raises(FurnelError, match="not safe"):
        check_paths(["art/a.dds", bad, "art/b.dds"], "x")


@given(st.lists(st.text(st.sampled_from("ab/.\n\\ é:"), max_size=6), max_size=4))
def test_any_paths_are_refused_together_as_alone(paths: list[str]) -> None:
    def refused(check: Callable[[], object]) -> bool:
        try:
            check()
        except FurnelError:
            return True
        return False

    assert refused(lambda: check_paths(paths, "x")) == any(
        refused(lambda path=path: check_path(path, "x")) for path in paths
    )
