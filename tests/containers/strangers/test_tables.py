"""Archives of strangers that are looked into by hashes of names, or by more than one table; made and read by struct alone."""

from __future__ import annotations

import struct
import zlib
from pathlib import Path

import pytest
import xxhash

from furnel.containers import Changes, find_layout, open_container, parse_layout, write_archive
from furnel.errors import FurnelError
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files, Kind, through


def test_an_index_sorted_by_hashes_stays_sorted_although_nobody_knows_the_names(tmp_path: Path) -> None:
    """The game looks for a hash by halves: one entry out of order hides others."""
    layout, old, new = find_layout("tlh"), tmp_path / "old.tlh", tmp_path / "new.tlh"
    write_archive(old, {f"a/f{number}.txt": b"%d" % number for number in range(20)}, layout)
    with_no_names = open_container(old, layout)
    some = with_no_names.entries()[3].path
    with_no_names.rewrite(
        new, Changes({some: b"other"}, {"b/new.txt": b"new"}, frozenset({with_no_names.entries()[7].path}))
    )
    data = new.read_bytes()
    at, count = data.index(struct.pack("<I", 20)) + 4, 20
    hashes = [struct.unpack_from("<Q", data, at + 20 * row)[0] for row in range(count)]
    assert hashes == sorted(hashes)
    assert xxhash.xxh64_intdigest(b"b/new.txt") in hashes


NAMES = [*FILES, "e/new.txt", "a/first.txt"]  # what a game would look for


def own_hash(name: str) -> int:
    code = 7
    for letter in name.upper().encode():
        code = (code * 31 + letter) & 0xFFFFFFFF
    return code ^ code >> 16


OWN = """
[names]
letters = "upper"
[names.hash]
step = "hash * 31 + letter"
begin = 7
end = "hash ^ hash >> 16"
"""


def halves_write(files: Files) -> bytes:
    """Rows without names, sorted by a hash of the game's own."""
    at, rows, body = 4 + 12 * len(files), [], b""
    for name, data in files.items():
        rows.append(struct.pack("<III", own_hash(name), at + len(body), len(data)))
        body += data
    return (
        struct.pack("<I", len(files))
        + b"".join(sorted(rows, key=lambda row: struct.unpack_from("<I", row)))
        + body
    )


def halves_read(data: bytes) -> Files:
    count = struct.unpack_from("<I", data)[0]
    rows = [struct.unpack_from("<III", data, 4 + 12 * row) for row in range(count)]
    out: Files = {}
    for name in NAMES:
        low, high = 0, count
        while low < high:
            middle = (low + high) // 2
            low, high = (middle + 1, high) if rows[middle][0] < own_hash(name) else (low, middle)
        if low < count and rows[low][0] == own_hash(name):
            out[name] = data[rows[low][1] : sum(rows[low][1:])]
    assert len(out) == count
    return out


COUNT = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "homes", type = "u32", new = 3 }]
"""
)
HALVES = (
    COUNT.replace(', { name = "homes", type = "u32", new = 3 }', "")
    + OWN
    + """
[index]
names = "hash"
sorted-by = "name hash"
fields = [
  { name = "code", type = "u32", holds = "name hash" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)

ROW = struct.Struct("<24sII")
ROWS = """
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""


def rows_of(files: Files, at: int) -> tuple[list[bytes], bytes]:
    rows, body = [], b""
    for name, data in files.items():
        rows.append(ROW.pack(name.encode(), at + len(body), len(data)))
        body += data
    return rows, body


def of_row(data: bytes, at: int) -> tuple[str, bytes]:
    name, begin, size = ROW.unpack_from(data, at)
    return name.rstrip(b"\0").decode(), data[begin : begin + size]


def runs_write(files: Files) -> bytes:
    """A table of three buckets: the first row and the number of rows of each, then rows in the order of their buckets."""
    ordered = sorted(files, key=lambda name: own_hash(name) % 3)
    rows, body = rows_of({name: files[name] for name in ordered}, 20 + 32 * len(files))
    table, first = b"", 0
    for home in range(3):
        number = sum(own_hash(name) % 3 == home for name in files)
        table += struct.pack("<hH", first if number else -1, number)
        first += number
    return struct.pack("<II", len(files), 3) + table + b"".join(rows) + body


def runs_read(data: bytes) -> Files:
    count, homes = struct.unpack_from("<II", data)
    assert homes == 3
    out: Files = {}
    for name in NAMES:
        first, number = struct.unpack_from("<hH", data, 8 + 4 * (own_hash(name) % 3))
        assert (first == -1) == (number == 0)
        found = dict(of_row(data, 20 + 32 * row) for row in range(first, first + number))
        out |= {name: found[name]} if name in found else {}
    assert len(out) == count
    return out


RUNS = (
    COUNT
    + OWN
    + """
[buckets]
count = "homes"
free = -1
fields = [{ name = "first", type = "i16", holds = "first entry" }, { name = "number", type = "u16", holds = "entries" }]
[index]
"""
    + ROWS
)


def linked_write(files: Files) -> bytes:
    """Rows each with the number of the next one of its bucket, then three heads; those put in last are met first."""
    heads, links = [0xFFFF] * 3, []
    for row, name in enumerate(files):
        links.append(heads[own_hash(name) % 3])
        heads[own_hash(name) % 3] = row
    rows, body = rows_of(files, 8 + 34 * len(files) + 6)
    table = b"".join(row + struct.pack("<H", after) for row, after in zip(rows, links, strict=True))
    return struct.pack("<II", len(files), 3) + table + struct.pack("<3H", *heads) + body


def linked_read(data: bytes) -> Files:
    count, _ = struct.unpack_from("<II", data)
    out: Files = {}
    for name in NAMES:
        row = struct.unpack_from("<H", data, 8 + 34 * count + 2 * (own_hash(name) % 3))[0]
        while row != 0xFFFF:
            found, content = of_row(data, 8 + 34 * row)
            out |= {name: content} if found == name else {}
            row = struct.unpack_from("<H", data, 8 + 34 * row + 32)[0]
    assert len(out) == count
    return out


LINKED = (
    COUNT
    + OWN
    + """
[buckets]
count = "homes"
place = "behind"
free = 0xFFFF
fields = [{ name = "first", type = "u16", holds = "first entry" }]
[index]
"""
    + ROWS.replace(
        'holds = "size" },', 'holds = "size" }, { name = "after", type = "u16", holds = "next entry" },'
    )
)


def slots_write(files: Files, slots: int = 7) -> bytes:
    """Seven slots; a name is in that of its hash, or the next one that is free."""
    rows, body = rows_of(files, 4 + 32 * slots)
    table = [bytes(32)] * slots
    for name, row in zip(files, rows, strict=True):
        slot = own_hash(name) % slots
        while any(table[slot]):
            slot = (slot + 1) % slots
        table[slot] = row
    return struct.pack("<I", slots) + b"".join(table) + body


def slots_read(data: bytes) -> Files:
    slots = struct.unpack_from("<I", data)[0]
    assert slots == 7
    out: Files = {}
    for name in NAMES:
        slot = own_hash(name) % slots
        while any(data[4 + 32 * slot : 36 + 32 * slot]):
            found, content = of_row(data, 4 + 32 * slot)
            if found == name:
                out[name] = content
                break
            slot = (slot + 1) % slots
    assert len(out) == sum(any(data[4 + 32 * slot : 36 + 32 * slot]) for slot in range(slots))
    return out


SLOTS = (
    HEAD
    + '[start]\nfields = [{ name = "count", type = "u32", new = 7, holds = "entry count" }]\n'
    + OWN
    + '[buckets]\ncount = "count"\n[index]\nempty = "at == 0"\n'
    + ROWS
)

TWO = struct.Struct(">4sIIII")


def two_write(files: Files, packed: bool = False) -> bytes:
    """A table of texts and one of the rest, each with its count and its place, whichever way round."""
    head = TWO.size
    texts = {name: data for name, data in files.items() if name.endswith(".txt")}
    others = {name: data for name, data in files.items() if name not in texts}
    body = b"".join(files.values())
    at, places = head, {}
    for name, data in files.items():
        places[name] = at, len(data)
        at += len(data)
    first = b"".join(struct.pack(">16sIH", name[:-4].encode(), *places[name]) for name in texts)
    second = b"".join(struct.pack("<H20sIH", 0x77, name.encode(), *places[name]) for name in others)
    second = zlib.compress(second) if packed else second
    end = head + len(body)
    return (
        struct.pack(">4sII", b"TWOS", len(texts), end + len(second))
        + struct.pack(">II", len(others), end)
        + body + second + first
        + (struct.pack(">I", len(second)) if packed else b"")
    )  # fmt: skip


def two_read(data: bytes, packed: bool = False) -> Files:
    magic, texts, texts_at, others, others_at = TWO.unpack_from(data)
    assert magic == b"TWOS"
    found = {}
    for row in range(texts):
        name, at, size = struct.unpack_from(">16sIH", data, texts_at + 22 * row)
        found[name.rstrip(b"\0").decode() + ".txt"] = data[at : at + size]
    table = data[others_at:]
    if packed:
        table = zlib.decompress(data[others_at : others_at + struct.unpack(">I", data[-4:])[0]])
    for row in range(others):
        mark, name, at, size = struct.unpack_from("<H20sIH", table, 28 * row)
        assert mark == 0x77
        found[name.rstrip(b"\0").decode()] = data[at : at + size]
    return {name: found[name] for name in sorted(found)}


def told(more: str) -> str:
    return (
        HEAD
        + """
byte-order = "big"
[start]
fields = [
  { name = "magic", type = "text", length = 4, is = "TWOS" },
  { name = "texts", type = "u32", holds = "entry count" }, { name = "texts_at", type = "u32", holds = "index offset" },
  { name = "others", type = "u32" }, { name = "others_at", type = "u32" },
]
[entry]
suffix = ".txt"
[index]
fields = [
  { name = "path", type = "text", length = 16, holds = "path" }, { name = "at", type = "u32", holds = "offset" },
  { name = "size", type = "u16", holds = "size" },
]
[[more]]
holds = { others = "entry count", others_at = "index offset" }
entry = {}
index.fields = [
  { name = "mark", type = "u16", order = "little", new = 0x77 }, { name = "path", type = "text", length = 20, holds = "path" },
  { name = "at", type = "u32", order = "little", holds = "offset" },
  { name = "size", type = "u16", order = "little", holds = "size" },
]
"""
        + more
    )


TWOS = told("")
TWOS_PACKED = told('index.packed = "zlib"\n[footer]\nfields = [{ name = "stored", type = "u32" }]\n').replace(
    'others_at = "index offset"', 'others_at = "index offset", stored = "index stored size"'
)

KINDS = {
    "two indexes": Kind(TWOS, two_write, two_read),
    "two indexes, one of them packed": Kind(
        TWOS_PACKED, lambda files: two_write(files, True), lambda data: two_read(data, True)
    ),
    "sorted by a hash of its own": Kind(HALVES, halves_write, halves_read),
    "buckets before the records": Kind(RUNS, runs_write, runs_read),
    "records that tell the next one": Kind(LINKED, linked_write, linked_read),
    "records as slots": Kind(SLOTS, slots_write, slots_read),
}


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_game_finds_what_was_asked_for(name: str, change: str, tmp_path: Path) -> None:
    through(KINDS[name], change, tmp_path, NAMES)


@pytest.mark.parametrize("name", KINDS)
def test_new_archives_are_what_a_game_expects(name: str, tmp_path: Path) -> None:
    write_archive(tmp_path / "n.k", FILES, parse_layout(KINDS[name].layout, "k"))
    assert KINDS[name].read((tmp_path / "n.k").read_bytes()) == FILES


@pytest.mark.parametrize(
    "name", ["buckets before the records", "records that tell the next one", "records as slots"]
)
def test_a_hash_that_is_another_one_lets_entries_be_replaced_only(name: str, tmp_path: Path) -> None:
    kind, file, out = KINDS[name], tmp_path / "a.k", tmp_path / "b.k"
    file.write_bytes(kind.write(FILES))
    wrong = parse_layout(kind.layout.replace("hash * 31", "hash * 37"), "k")
    container = open_container(file, wrong)
    for change in ("add", "remove", "rename"):
        with pytest.raises(FurnelError, match="hash table"):
            container.rewrite(out, CHANGES[change][0])
    container.rewrite(out, CHANGES["more"][0])
    assert kind.read(out.read_bytes()) == CHANGES["more"][1](dict(FILES))


def test_slots_that_are_all_taken_stay_where_they_are_when_something_is_replaced(tmp_path: Path) -> None:
    """Also where the hash is described wrongly: nothing has another name, so nothing has another slot."""
    layout = parse_layout(SLOTS.replace("hash * 31", "hash * 37"), "k")
    container = open_container(_written(tmp_path, slots_write(FILES, 4)), layout)
    container.rewrite(tmp_path / "b.k", CHANGES["more"][0])
    before, after = ((tmp_path / name).read_bytes() for name in ("a.k", "b.k"))
    assert [of_row(data, 4 + 32 * slot)[0] for data in (before, after) for slot in range(4)] == [
        of_row(before, 4 + 32 * slot)[0] for slot in range(4)
    ] * 2


def test_slots_that_are_all_taken_take_no_more(tmp_path: Path) -> None:
    container = open_container(_written(tmp_path, slots_write(FILES, 4)), parse_layout(SLOTS, "k"))
    with pytest.raises(FurnelError, match="4 slots"):
        container.rewrite(tmp_path / "b.k", CHANGES["add"][0])


def test_an_index_that_is_not_sorted_as_described_is_not_sorted_anew(tmp_path: Path) -> None:
    data = bytearray(halves_write(FILES))
    data[4:16], data[16:28] = data[16:28], data[4:16]
    container = open_container(_written(tmp_path, bytes(data)), parse_layout(HALVES, "k"), NAMES)
    with pytest.raises(FurnelError, match="not sorted by the name hash"):
        container.rewrite(tmp_path / "b.k", CHANGES["more"][0])


@pytest.mark.parametrize(
    ("layout", "why"),
    [
        (RUNS.replace('of = "', "").replace('count = "homes"', 'count = "lost"'), "no field 'lost'"),
        (RUNS.replace('step = "hash * 31 + letter"', 'step = "hash * 31 + key"'), "no key"),
        (RUNS.replace('step = "hash * 31 + letter"', 'step = "1"'), "made of the hash"),
        (SLOTS.replace('empty = "at == 0"', ""), "which slots are free"),
        (LINKED.replace("free = 0xFFFF", ""), "the number that is free"),
        (LINKED.replace("[buckets]", "[entry]\n[lost]"), "lost"),
    ],
)
def test_hash_tables_that_cannot_be_are_refused(layout: str, why: str, tmp_path: Path) -> None:
    with pytest.raises(FurnelError) as refusal:
        open_container(_written(tmp_path, runs_write(FILES)), parse_layout(layout, "k"))
    assert why in refusal.value.sentence()


def _written(folder: Path, data: bytes) -> Path:
    (folder / "a.k").write_bytes(data)
    return folder / "a.k"


LITTLE = 'order = "little", holds = "offset"'


@pytest.mark.parametrize(
    ("old", "new", "why"),
    [
        ('others = "entry count"', 'others = "path"', "cannot hold the path"),
        (LITTLE, 'order = "little"', "tell offsets and sizes"),
        ("{ others =", "{ strangers = 'entry count', others =", "no field 'strangers'"),
        (LITTLE, LITTLE + ', means = "value + data_start"', "data_start"),
    ],
)
def test_further_indexes_that_cannot_be_are_refused(old: str, new: str, why: str) -> None:
    assert old in TWOS
    with pytest.raises(FurnelError) as refusal:
        parse_layout(TWOS.replace(old, new), "k")
    assert why in refusal.value.sentence()


def test_an_index_that_nobody_says_where_it_lies_takes_no_more(tmp_path: Path) -> None:
    """The second index stands where the first would have to grow."""
    rows = struct.pack("<8sII", b"a", 48, 1) + struct.pack("<8sII", b"b", 49, 1)
    file = _written(tmp_path, struct.pack("<III", 1, 1, 28).ljust(12) + rows + b"    xy")
    text = (
        HEAD
        + """
[start]
fields = [{ name = "one", type = "u32", holds = "entry count" }, { name = "two", type = "u32" }, { name = "at", type = "u32" }]
[entry]
prefix = "one/"
[index]
fields = [
  { name = "path", type = "text", length = 8, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
[[more]]
holds = { two = "entry count", at = "index offset" }
entry.prefix = "two/"
index.fields = [
  { name = "path", type = "text", length = 8, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""
    )
    container = open_container(file, parse_layout(text, "k"))
    assert [(entry.path, container.read(entry.path)) for entry in container.entries()] == [
        ("one/a", b"x"),
        ("two/b", b"y"),
    ]
    with pytest.raises(FurnelError, match="no room"):
        container.rewrite(tmp_path / "b.k", Changes(add={"one/c": b"c"}))
    with pytest.raises(FurnelError, match="none of its indexes"):
        container.rewrite(tmp_path / "b.k", Changes(add={"three/c": b"c"}))
    container.rewrite(tmp_path / "b.k", Changes({"one/a": b"xx"}, {"two/c": b"c"}))
    again = open_container(tmp_path / "b.k", parse_layout(text, "k"))
    assert {e.path: again.read(e.path) for e in again.entries()} == {
        "one/a": b"xx",
        "two/b": b"y",
        "two/c": b"c",
    }
