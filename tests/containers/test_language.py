"""The layout language: archives of every kind it can say, made by other code, read, changed and read again."""

from __future__ import annotations

import struct
import subprocess
import sys
import time
import zlib
from collections.abc import Callable
from pathlib import Path

import numpy as np
import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import (
    Changes,
    Container,
    find_layout,
    open_container,
    parse_layout,
    shipped_layouts,
    write_archive,
    write_changed,
)
from furnel.containers.expressions import Expression
from furnel.containers.naming import NamesPart
from furnel.errors import FurnelError
from furnel.tomllines import line_of
from tarnlight import writers
from tests.containers import makers

CONTENTS = {
    "boats/otter.bin": b"planks and tar " * 90,
    "boats/heron.bin": bytes(range(256)),
    "log.txt": b"",
    "night/Mail Bag.bin": b"letters, " * 700,
    "night/oil.bin": b"x",
}
NAMES = [*CONTENTS, "night/new.bin", "boats/Otter 2.bin"]
ROOMS = {
    "store": (b"lamps, wicks", {"north": [b"P0" * 9, b"P1" * 30], "south": [b"P2"]}),
    "office": (b"", {"window": [b"view" * 50]}),
}
ROOM_ENTRIES = {
    "store/note.txt": b"lamps, wicks", "store/north/picture0.png": b"P0" * 9, "store/north/picture1.png": b"P1" * 30,
    "store/south/picture0.png": b"P2", "office/note.txt": b"", "office/window/picture0.png": b"view" * 50,
}  # fmt: skip
MAKERS: dict[str, Callable[[dict[str, bytes]], bytes]] = {
    "crate": makers.crate, "casket": makers.casket, "drawer": makers.drawer, "satchel": makers.satchel, "tlh": writers.tlh,
    "tlk": writers.tlk,
}  # fmt: skip


def everything(container: Container) -> dict[str, bytes]:
    return {entry.path: container.read(entry.path) for entry in container.entries()}


def made(folder: Path, kind: str) -> tuple[Path, dict[str, bytes]]:
    """An archive of a kind, by the code beside this file, and what is in it."""
    file = folder / f"sample.{kind}"
    if kind == "parcel":
        file.write_bytes(makers.parcel(ROOMS))
        return file, ROOM_ENTRIES
    file.write_bytes(MAKERS[kind](CONTENTS))
    return file, CONTENTS


KINDS = [*MAKERS, "parcel"]


@pytest.mark.parametrize("kind", KINDS)
def test_archives_of_every_kind_are_read_and_repacked_to_the_byte(tmp_path: Path, kind: str) -> None:
    file, contents = made(tmp_path, kind)
    container = open_container(file, known=NAMES)
    assert everything(container) == contents
    assert {entry.path: entry.size for entry in container.entries()} == {
        p: len(d) for p, d in contents.items()
    }
    for path, data in contents.items():
        assert container.peek(path, 5) == data[:5]
        assert bytes(container.view(path)) == data
    container.rewrite(tmp_path / f"same.{kind}", Changes())
    assert (tmp_path / f"same.{kind}").read_bytes() == file.read_bytes()
    path = next(path for path in contents if len(contents[path]) > 20)
    container.rewrite(tmp_path / f"anew.{kind}", Changes({path: contents[path]}))
    assert (tmp_path / f"anew.{kind}").read_bytes() == file.read_bytes()


@pytest.mark.parametrize("kind", KINDS)
def test_entries_are_replaced_added_removed_and_renamed(tmp_path: Path, kind: str) -> None:
    file, contents = made(tmp_path, kind)
    container = open_container(file, known=NAMES)
    replaced, removed, *_ = contents
    (tmp_path / "long.bin").write_bytes(b"from a file, piece by piece " * 4000)
    if kind == "parcel":
        changes = Changes({replaced: b"other words"}, remove=frozenset([removed]))
        wanted = {**contents, replaced: b"other words"}
        wanted["store/north/picture0.png"] = wanted.pop(
            "store/north/picture1.png"
        )  # numbered: the second is the first now
    else:
        changes = Changes(
            {replaced: b"a short one"},
            {"night/new.bin": tmp_path / "long.bin"},
            frozenset([removed]),
            {"night/oil.bin": "boats/Otter 2.bin"},
        )
        wanted = {
            **contents,
            replaced: b"a short one",
            "night/new.bin": b"from a file, piece by piece " * 4000,
        }
        wanted["boats/Otter 2.bin"] = wanted.pop("night/oil.bin")
        del wanted[removed]
    container.rewrite(tmp_path / f"changed.{kind}", changes)
    after = open_container(tmp_path / f"changed.{kind}", known=NAMES)
    assert everything(after) == wanted
    if (
        kind in MAKERS and kind != "crate"
    ):  # the same as if it had been made like that, but for the place of what is new
        theirs = MAKERS[kind](wanted)
        assert abs(len(theirs) - (tmp_path / f"changed.{kind}").stat().st_size) < 300 + theirs.count(
            b"\0\0\0\0"
        )


def test_what_no_field_explains_is_carried_through(tmp_path: Path) -> None:
    (tmp_path / "a.crate").write_bytes(makers.crate(CONTENTS))
    open_container(tmp_path / "a.crate").rewrite(
        tmp_path / "b.crate", Changes({"log.txt": b"now with words" * 20})
    )
    data = (tmp_path / "b.crate").read_bytes()
    at = data.index(b"log.txt") + 7
    assert struct.unpack_from(">H", data, at)[0] & ~3 == 0x8550
    assert struct.unpack_from(">IQ", data, 5) == (len(CONTENTS), len(data))
    (tmp_path / "a.drawer").write_bytes(makers.drawer(CONTENTS, season=77))
    container = open_container(tmp_path / "a.drawer", known=NAMES)
    container.rewrite(tmp_path / "b.drawer", Changes(add={"night/new.bin": b"n" * 5000}))
    data = (tmp_path / "b.drawer").read_bytes()
    assert data[5] == 77
    codes = [struct.unpack_from("<Q", data, 8 + 24 * row)[0] for row in range(len(CONTENTS) + 1)]
    assert codes == sorted(codes)
    kinds = [struct.unpack_from("<I", data, 28 + 24 * row)[0] for row in range(len(CONTENTS) + 1)]
    assert sorted(kinds) == [3] * len(CONTENTS) + [7]
    assert all(struct.unpack_from("<I", data, 16 + 24 * row)[0] << 11 < len(data) for row in range(6))


def test_names_that_nobody_knows_are_numbers_and_lists_beside_the_archive_help(tmp_path: Path) -> None:
    (tmp_path / "a.drawer").write_bytes(makers.drawer(CONTENTS))
    before = everything(open_container(tmp_path / "a.drawer"))
    assert all(path.startswith("unknown/") and len(path) == 24 for path in before)
    assert sorted(before.values()) == sorted(CONTENTS.values())
    (tmp_path / "a.names").write_text("# found so far\nnight/oil.bin\n\nboats/heron.bin\n")
    after = everything(open_container(tmp_path / "a.drawer"))
    assert after["night/oil.bin"] == b"x"
    assert sum(path.startswith("unknown/") for path in after) == 3
    gull = Changes(add={"night/gull.bin": b"new"}, rename={"boats/heron.bin": "boats/crane.bin"})
    assert write_changed(tmp_path / "a.drawer", None, tmp_path / "b.drawer", gull) == len(CONTENTS) + 1
    written = everything(open_container(tmp_path / "b.drawer"))
    assert written["night/gull.bin"] == b"new" and written["night/oil.bin"] == b"x"
    assert "boats/crane.bin" in written and sum(path.startswith("unknown/") for path in written) == 3
    assert not any("unknown" in line for line in (tmp_path / "b.names").read_text().splitlines())


def test_archives_inside_archives_are_one_path(tmp_path: Path) -> None:
    inner = makers.crate(CONTENTS)
    (tmp_path / "a.satchel").write_bytes(
        makers.satchel({"deep/all.crate": inner, "top.txt": b"top", "bad.crate": b"no"})
    )
    container = open_container(tmp_path / "a.satchel")
    assert everything(container) == {
        **{f"deep/all.crate/{path}": data for path, data in CONTENTS.items()},
        "top.txt": b"top",
        "bad.crate": b"no",
    }
    changes = Changes(
        {"deep/all.crate/log.txt": b"inside"}, {"deep/all.crate/more.txt": b"m"}, frozenset(["top.txt"])
    )
    container.rewrite(tmp_path / "b.satchel", changes)
    after = everything(open_container(tmp_path / "b.satchel"))
    assert after["deep/all.crate/log.txt"] == b"inside" and after["deep/all.crate/more.txt"] == b"m"
    assert len(after) == len(CONTENTS) + 2
    with pytest.raises(FurnelError, match="another archive"):
        container.rewrite(tmp_path / "c.satchel", Changes(rename={"top.txt": "deep/all.crate/top.txt"}))


@pytest.mark.parametrize(
    ("kind", "at", "says"),
    [
        ("crate", -9, "crc32"),
        ("casket", 24, "adler32"),
        ("casket", -2, "sha256"),
        ("satchel", 30, "crc32"),
        ("satchel", -1, "crc32"),
        ("parcel", 5, "says"),
    ],
)
def test_a_flipped_bit_is_noticed(tmp_path: Path, kind: str, at: int, says: str) -> None:
    file, _ = made(tmp_path, kind)
    data = bytearray(file.read_bytes())
    if kind == "crate":
        data = bytearray(makers.crate({"only.bin": b"content that is stored" * 3}, (0,)))
    data[at] ^= 0x10
    file.write_bytes(data)
    with pytest.raises(FurnelError, match=says):
        everything(open_container(file, find_layout(kind)))


@pytest.mark.parametrize("kind", KINDS)
def test_what_furnel_makes_from_nothing_it_reads_again(tmp_path: Path, kind: str) -> None:
    contents = CONTENTS
    if kind == "parcel":
        contents = {"store/note.txt": b"lamps", "office/note.txt": b"pens", "desk/song.ogg": b"la"}
    write_archive(tmp_path / f"new.{kind}", contents, find_layout(kind))
    assert everything(open_container(tmp_path / f"new.{kind}", known=NAMES)) == contents
    if kind in ("crate", "casket", "drawer", "satchel", "tlh", "tlk"):
        args = (CONTENTS, (1,)) if kind == "crate" else (CONTENTS,)
        theirs = MAKERS[kind](*args)  # type: ignore[call-arg]
        assert len((tmp_path / f"new.{kind}").read_bytes()) == pytest.approx(len(theirs), abs=64)


@given(kind=st.sampled_from(KINDS), data=st.data())
def test_damaged_archives_of_every_kind_give_an_error_or_an_answer(
    tmp_path_factory: pytest.TempPathFactory, kind: str, data: st.DataObject
) -> None:
    file, _ = made(tmp_path_factory.mktemp("damaged"), kind)
    whole = bytearray(file.read_bytes())
    for _ in range(data.draw(st.integers(1, 6))):
        at = data.draw(st.integers(0, min(len(whole) - 1, data.draw(st.sampled_from([40, 400, 1 << 20])))))
        whole[at] = data.draw(st.sampled_from([0, 1, 0x7F, 0x80, 0xFF, whole[at] ^ 1]))
    file.write_bytes(whole[: data.draw(st.integers(len(whole) // 2, len(whole)))])
    started = time.monotonic()
    try:
        everything(open_container(file, find_layout(kind), NAMES))
    except FurnelError as error:
        assert error.why
    assert time.monotonic() - started < 2


def test_an_archive_unlike_any_shipped_is_described_with_the_language_alone(tmp_path: Path) -> None:
    """Names in a list of their own, offsets turned over with a key, sizes from the next offset, an optional field."""
    layout = parse_layout(
        """
furnel-layout = 1
name = "hamper"
title = "made up here"
files = ["*.hamper"]
byte-order = "big"
[start]
fields = [
  { name = "magic", type = "u32", order = "little", is = 0x48414d50 },
  { name = "key", type = "u16" },
  { name = "count", type = "u8", holds = "entry count" },
  { name = "notes", type = "u8" },
  { name = "note", type = "text", length = "notes * 2", when = "notes != 0" },
  { name = "names", type = "u16", holds = "names size" },
]
[index]
names = "table"
fields = [{ name = "place", type = "u32", holds = "offset", means = "value ^ (key << 8)" }]
[names]
ends = "u8"
[entry]
align = 4
""",
        "hamper.toml",
    )
    names = b"".join(bytes([len(name)]) + name.encode() for name in ("one", "a/two", "three"))
    contents = {"one": b"1" * 8, "a/two": b"22" * 10, "three": b"3333"}
    head = (
        struct.pack("<I", 0x48414D50)
        + struct.pack(">HBB", 0xBEE, 3, 2)
        + b"note"
        + struct.pack(">H", len(names))
    )
    at = len(head) + 12 + len(names)
    at += -at % 4
    rows, body = b"", b""
    for data in contents.values():
        rows += struct.pack(">I", (at + len(body)) ^ (0xBEE << 8))
        body += data
    whole = head + rows + names
    file = tmp_path / "x.hamper"
    file.write_bytes(whole + bytes(at - len(whole)) + body)
    container = open_container(file, layout)
    assert everything(container) == contents
    container.rewrite(
        tmp_path / "y.hamper", Changes({"one": b"11" * 30}, {"four": b"4444"}, rename={"three": "drei"})
    )
    after = everything(open_container(tmp_path / "y.hamper", layout))
    assert after == {"one": b"11" * 30, "a/two": contents["a/two"], "drei": b"3333", "four": b"4444"}
    assert (tmp_path / "y.hamper").read_bytes()[8:12] == b"note"


def test_five_gibibytes_with_one_change_take_little_memory(tmp_path: Path) -> None:
    """A sparse archive, its entries far beyond what 32 bits can say; the holes stay holes."""
    layout = tmp_path / "vault.toml"
    layout.write_text("""
furnel-layout = 1
name = "vault"
title = "64 bits"
files = ["*.vault"]
[start]
fields = [{ name = "n", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 16, holds = "path" },
  { name = "at", type = "u64", holds = "offset" },
  { name = "size", type = "u64", holds = "size" },
]
""")
    file, gib = tmp_path / "x.vault", 1 << 30
    sizes = {"a": 100, "huge": 5 * gib, "z": 9}
    with file.open("wb") as out:
        out.write(struct.pack("<I", 3))
        at = 4 + 3 * 32
        for path, size in sizes.items():
            out.write(struct.pack("<16sQQ", path.encode(), at, size))
            at += size
        out.seek(4 + 96 + 100 + 3 * gib)
        out.write(b"in the middle of nowhere")
        out.seek(4 + 96 + 100 + 5 * gib)
        out.write(b"the end..")
    code = f"""
from pathlib import Path
from furnel.containers import Changes, open_container, open_layout
container = open_container(Path({str(file)!r}), open_layout(Path({str(layout)!r})))
container.rewrite(Path({str(tmp_path / "y.vault")!r}), Changes({{"a": b"new" * 1000}}))
print(next(line.split()[1] for line in open("/proc/self/status") if line.startswith("VmHWM")))
"""
    said = subprocess.run([sys.executable, "-c", code], check=True, capture_output=True, text=True).stdout
    assert int(said) < 200 * 1024
    container = open_container(tmp_path / "y.vault", parse_layout(layout.read_text(), layout))
    assert container.read("a") == b"new" * 1000
    assert container.read("z") == b"the end.."
    view = container.view("huge")
    assert bytes(view[3 * gib : 3 * gib + 24]) == b"in the middle of nowhere"
    assert len(view) == 5 * gib
    assert (tmp_path / "y.vault").stat().st_blocks * 512 < 64 << 20


@pytest.mark.parametrize("kind", ["crc32", "fnv1a-32", "fnv1a-64", "xxhash64"])
def test_name_hashes_are_the_published_ones(kind: str) -> None:
    vectors = {  # of "foobar": FNV's own test vectors; CRC-32 and xxHash64 by their reference tools
        "crc32": 0x9EF61F95, "fnv1a-32": 0xBF9CF968, "fnv1a-64": 0x85944171F73967E8, "xxhash64": 0xA2AA05ED9085AAF9,
    }  # fmt: skip
    assert NamesPart.model_validate({"hash": kind}).hashes(["foobar"]).tolist() == [vectors[kind]]
    spelled = NamesPart.model_validate({"hash": kind, "letters": "upper", "slash": "\\"})
    plain = NamesPart.model_validate({"hash": kind})
    both = spelled.hashes(["a/Bee", "", "x" * 99]).tolist()
    assert both == plain.hashes(["A\\BEE", "", "X" * 99]).tolist()


@given(st.integers(0, 1 << 40), st.integers(0, 1 << 20), st.integers(0, 20))
def test_expressions_count_like_python_and_can_be_solved(value: int, base: int, shift: int) -> None:
    text = "(value << shift) + align(base, 16) - 3 * (base > 5)"
    values = {"base": base, "shift": shift}
    wanted = (value << shift) + (base + -base % 16) - 3 * (base > 5)
    assert Expression(text).evaluate({**values, "value": value}) == wanted
    assert Expression(text).solve(wanted, values) == value
    column = np.array([value, 7, 0])
    assert np.asarray(Expression(text).evaluate({**values, "value": column}))[0] == wanted


@pytest.mark.parametrize(
    "text", ["value.real", "__import__('os')", "value ** 9", "1.5", "f(2)", "value +", "[1]", "'a'"]
)
def test_expressions_say_nothing_but_arithmetic(text: str) -> None:
    with pytest.raises(FurnelError, match="whole number|known|invalid"):
        Expression(text)


@pytest.mark.parametrize(
    ("old", "new", "line", "says"),
    [
        ('"u16", is = 2', '"u61", is = 2', 9, "type"),
        ("align = 16", "align = 0", 29, "align"),
        ('holds = "offset"', 'holds = "offset", means = "value +"', 18, "expression|invalid"),
        ('holds = "name hash"', 'holds = "stored size"', 16, "two fields hold the stored size"),
        ('name = "tag"', 'name = "size"', 16, "two fields are called size"),
        ('hash = "crc32"', "", 1, "says which one"),
        ('holds = "entry count"', 'holds = "path"', 6, "cannot hold the path"),
    ],
)
def test_an_error_in_a_layout_points_at_its_line(old: str, new: str, line: int, says: str) -> None:
    text = (Path(__file__).parents[2] / "src/furnel/containers/layouts/tlp.toml").read_text()
    assert old in text
    with pytest.raises(FurnelError, match=says) as refusal:
        parse_layout(text.replace(old, new), "mine.toml")
    told = refusal.value.where
    assert told == "mine.toml" if line == 1 else told == f"mine.toml, line {line}"


def test_lines_of_keys_are_found_in_any_toml() -> None:
    text = 'a = """\nx # no\n"""\n[[t]]\nk = [1,\n 2, { b = 3, "c d" = \'[\' },\n]\n[[t]]\n[t.u]\nv.w = true # yes\n'
    keys = [("a",), ("t", 0), ("t", 0, "k", 1), ("t", 0, "k", 2, "c d"), ("t", 1, "u", "v", "w")]
    assert [line_of(text, key) for key in keys] == [1, 4, 6, 6, 10]
    assert line_of(text, ("nothing",)) == 0


def test_every_shipped_layout_is_one_of_the_kinds_tested() -> None:
    assert set(shipped_layouts()) == {*KINDS, "tlp", "tlc", "tls", "tlm"}
    assert zlib.crc32(b"") == 0
