"""No archive is written that its own reader would not understand: each kind is made and read by struct alone.

Every kind goes through the same changes: an entry replaced by itself, by more, by less; one added, removed, renamed. What comes
out is either what an independent reader finds, or a refusal that leaves everything as it was.
"""

from __future__ import annotations

import struct
import zlib
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path

import pytest

from furnel.containers import Changes, open_container, parse_layout, write_archive
from furnel.errors import FurnelError

Files = dict[str, bytes]
FILES: Files = {
    "a/one.txt": b"one" * 30,
    "b/two.bin": bytes(range(200)),
    "c.txt": b"",
    "d/four.txt": b"four" * 100,
}
CHANGES: dict[str, tuple[Changes, Callable[[Files], Files]]] = {
    "itself": (Changes({"b/two.bin": FILES["b/two.bin"]}), lambda files: files),
    "more": (Changes({"b/two.bin": b"x" * 900}), lambda files: files | {"b/two.bin": b"x" * 900}),
    "less": (Changes({"b/two.bin": b"yz"}), lambda files: files | {"b/two.bin": b"yz"}),
    "add": (Changes(add={"e/new.txt": b"new" * 9}), lambda files: files | {"e/new.txt": b"new" * 9}),
    "remove": (
        Changes(remove=frozenset({"a/one.txt"})),
        lambda files: {k: v for k, v in files.items() if k != "a/one.txt"},
    ),
    "rename": (
        Changes(rename={"a/one.txt": "a/first.txt"}),
        lambda files: {"a/first.txt" if k == "a/one.txt" else k: v for k, v in files.items()},
    ),
}


@dataclass(frozen=True)
class Kind:
    """A kind of archive: its layout, and a writer and a reader that share no code with it. `may_refuse` are changes that may be
    refused, but not done wrong."""

    layout: str
    write: Callable[[Files], bytes]
    read: Callable[[bytes], Files]
    may_refuse: frozenset[str] = frozenset()


HEAD = 'furnel-layout = 1\nname = "k"\ntitle = "k"\nfiles = ["*.k"]\n'


def _entries(
    data: bytes, at: int, count: int, take: Callable[[bytes, tuple[int, ...]], bytes], form: str
) -> Files:
    """Rows of 24 letters and some numbers."""
    size = struct.calcsize(form)
    out: Files = {}
    for row in range(count):
        place = at + row * (24 + size)
        name = data[place : place + 24].rstrip(b"\0").decode()
        out[name] = take(data, struct.unpack_from(form, data, place + 24))
    return out


def ends_write(files: Files) -> bytes:
    """Each row has where its data begins and where it ends."""
    at = 8 + 32 * len(files)
    rows, body = b"", b""
    for name, data in files.items():
        rows += struct.pack("<24sII", name.encode(), at + len(body), at + len(body) + len(data))
        body += data
    return struct.pack("<4sI", b"ENDS", len(files)) + rows + body


def ends_read(data: bytes) -> Files:
    assert data[:4] == b"ENDS"
    count = struct.unpack_from("<I", data, 4)[0]
    return _entries(data, 8, count, lambda data, row: data[row[0] : row[1]], "<II")


ENDS = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "ENDS" }, { name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "begin", type = "u32", holds = "offset" },
  { name = "end", type = "u32", holds = "size", means = "value - begin" },
]
"""
)


def flags_write(files: Files) -> bytes:
    """The highest bit of a size is a flag that the game needs: every second entry has it."""
    at = 8 + 32 * len(files)
    rows, body = b"", b""
    for number, (name, data) in enumerate(files.items()):
        rows += struct.pack("<24sII", name.encode(), at + len(body), len(data) | (number % 2) << 31)
        body += data
    return struct.pack("<4sI", b"FLAG", len(files)) + rows + body


def flags_read(data: bytes) -> Files:
    count = struct.unpack_from("<I", data, 4)[0]
    flags: list[int] = []

    def take(data: bytes, row: tuple[int, ...]) -> bytes:
        flags.append(row[1] >> 31)
        return data[row[0] : row[0] + (row[1] & 0x7FFFFFFF)]

    out = _entries(data, 8, count, take, "<II")
    told = dict(zip(out, flags, strict=True))
    assert all(told[name] == list(FILES).index(name) % 2 for name in out if name in FILES), "a flag was lost"
    return out


FLAGS = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "FLAG" }, { name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "begin", type = "u32", holds = "offset" },
  { name = "length", type = "u32", holds = "size", means = "value & 0x7fffffff" },
]
"""
)
FLAG_BITS = FLAGS.replace(
    'name = "length", type = "u32", holds = "size", means = "value & 0x7fffffff"',
    'name = "word", type = "u32", bits = [{ name = "length", first = 0, count = 31, holds = "size" }, '
    '{ name = "flag", first = 31, count = 1 }]',
)


def titled_write(files: Files, title: bytes = b"a title of any length") -> bytes:
    """The record at the beginning has a text of any length, and the index comes behind it."""
    start = b"TITL" + bytes([len(title)]) + title + struct.pack("<I", len(files))
    at = len(start) + 32 * len(files)
    rows, body = b"", b""
    for name, data in files.items():
        rows += struct.pack("<24sII", name.encode(), at + len(body), len(data))
        body += data
    return start + rows + body


def titled_read(data: bytes) -> Files:
    at = 5 + data[4]
    count = struct.unpack_from("<I", data, at)[0]
    return _entries(data, at + 4, count, lambda data, row: data[row[0] : sum(row)], "<II")


TITLED = (
    HEAD
    + """
[start]
fields = [
  { name = "magic", type = "text", length = 4, is = "TITL" }, { name = "title", type = "text", ends = "u8" },
  { name = "count", type = "u32", holds = "entry count" },
]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "begin", type = "u32", holds = "offset" }, { name = "length", type = "u32", holds = "size" },
]
"""
)


def maybe_write(files: Files) -> bytes:
    """A stored size of 0 says that an entry is not packed."""
    at = 8 + 36 * len(files)
    rows, body = b"", b""
    for name, data in files.items():
        packed = zlib.compress(data)
        stored = packed if len(packed) < len(data) else data
        rows += struct.pack(
            "<24sIII", name.encode(), at + len(body), len(data), len(stored) if stored is packed else 0
        )
        body += stored
    return struct.pack("<4sI", b"MAYB", len(files)) + rows + body


def maybe_read(data: bytes) -> Files:
    count = struct.unpack_from("<I", data, 4)[0]

    def take(data: bytes, row: tuple[int, ...]) -> bytes:
        begin, size, stored = row
        found = zlib.decompress(data[begin : begin + stored]) if stored else data[begin : begin + size]
        assert len(found) == size
        return found

    return _entries(data, 8, count, take, "<III")


MAYBE = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "MAYB" }, { name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
  { name = "stored", type = "u32", holds = "stored size", means = "value if value else size" },
]
[entry]
packings = { 0 = "none", 1 = "zlib" }
packing = "stored != 0"
"""
)


def footer_write(files: Files) -> bytes:
    """A footer says where the data begins, from which offsets count, and where the index lies."""
    lead = b"a lead that nobody describes...."
    rows, body = b"", b""
    for name, data in files.items():
        rows += struct.pack("<24sII", name.encode(), len(body), len(data))
        body += data
    return (
        b"FOOT"
        + lead
        + body
        + rows
        + struct.pack("<III", 4 + len(lead), 4 + len(lead) + len(body), len(files))
    )


def footer_read(data: bytes) -> Files:
    begin, index, count = struct.unpack_from("<III", data, len(data) - 12)
    assert data[4:36] == b"a lead that nobody describes...."
    return _entries(data, index, count, lambda data, row: data[begin + row[0] : begin + sum(row)], "<II")


FOOTER = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "FOOT" }]
[footer]
fields = [
  { name = "data", type = "u32", holds = "data offset" }, { name = "index", type = "u32", holds = "index offset" },
  { name = "count", type = "u32", holds = "entry count" },
]
[index]
place = "back"
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "begin", type = "u32", holds = "offset", means = "value + data_start" },
  { name = "length", type = "u32", holds = "size" },
]
"""
)


def uncounted_write(files: Files) -> bytes:
    """What the layout calls a constant is the number of entries."""
    return b"UNCO" + titled_write(files, b"")[5:]


def uncounted_read(data: bytes) -> Files:
    count = struct.unpack_from("<I", data, 4)[0]
    return _entries(data, 8, count, lambda data, row: data[row[0] : sum(row)], "<II")


def follow_write(files: Files) -> bytes:
    """Sizes of three bytes, big ones first, and no places: each entry begins at the next multiple of 16."""
    rows, body = b"", b""
    start = 8 + 27 * len(files)
    for name, data in files.items():
        rows += struct.pack("<24s", name.encode()) + len(data).to_bytes(3, "big")
        body += bytes(-(start + len(body)) % 16) + data
    return struct.pack("<4sI", b"FOLL", len(files)) + rows + body


def follow_read(data: bytes) -> Files:
    count = struct.unpack_from("<I", data, 4)[0]
    at, out = 8 + 27 * count, dict[str, bytes]()
    for row in range(count):
        place = 8 + 27 * row
        size = int.from_bytes(data[place + 24 : place + 27], "big")
        at += -at % 16
        out[data[place : place + 24].rstrip(b"\0").decode()] = data[at : at + size]
        at += size
    return out


FOLLOW = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "FOLL" }, { name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "length", type = "u24", order = "big", holds = "size" },
]
[entry]
align = 16
"""
)


def sector_write(files: Files) -> bytes:
    """The place in sectors of 512 bytes and how many of these there are share a number; the size stands beside it; a record of
    ones ends the index."""
    start = 4 + 32 * (len(files) + 1)
    start += -start % 512
    rows, body = b"", b""
    for name, data in files.items():
        place, room = (start + len(body)) // 512, -(-len(data) // 512)
        rows += struct.pack("<24sII", name.encode(), place << 8 | room, len(data))
        body += data + bytes(-len(data) % 512)
    data = b"SECT" + rows + b"\xff" * 32
    return data + bytes(start - len(data)) + body


def sector_read(data: bytes) -> Files:
    at, out = 4, dict[str, bytes]()
    while data[at : at + 32] != b"\xff" * 32:
        name, word, size = struct.unpack_from("<24sII", data, at)
        assert word & 0xFF == -(-size // 512), "another number of sectors"
        place = (word >> 8) * 512
        out[name.rstrip(b"\0").decode()] = data[place : place + size]
        at += 32
    return out


SECTOR = (
    HEAD
    + """
[start]
fields = [{ name = "magic", type = "text", length = 4, is = "SECT" }]
[index]
last = "word == 0xffffffff"
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "word", type = "u32", bits = [
    { name = "room", first = 0, count = 8, holds = "stored size", means = "value * 512", stores = "align(value, 512) // 512" },
    { name = "place", first = 8, count = 24, holds = "offset", means = "value * 512" },
  ] },
  { name = "length", type = "u32", holds = "size" },
]
[entry]
align = 512
pad_last = true
"""
)
KEY = bytes.fromhex("5ac3910ff0")


def _under(data: bytes, by: Callable[[int, int], int]) -> bytes:
    return bytes(by(byte, at) & 0xFF for at, byte in enumerate(data))


def masked_write(files: Files) -> bytes:
    """The index under a key that repeats, each entry under numbers that grow, packed before that."""
    at = 12 + 36 * len(files)
    rows, body = b"", b""
    for name, data in files.items():
        stored = _under(zlib.compress(data), lambda byte, place: byte + place * 7 + 3)
        rows += struct.pack("<24sIII", name.encode(), at + len(body), len(stored), len(data))
        body += stored
    index = _under(rows, lambda byte, place: byte ^ KEY[place % len(KEY)])
    return struct.pack("<4sII", b"MASK", len(files), len(index)) + index + body


def masked_read(data: bytes) -> Files:
    count, length = struct.unpack_from("<II", data, 4)
    rows = _under(data[12 : 12 + length], lambda byte, place: byte ^ KEY[place % len(KEY)])

    def take(_: bytes, row: tuple[int, ...]) -> bytes:
        begin, stored, size = row
        found = zlib.decompress(
            _under(data[begin : begin + stored], lambda byte, place: byte - place * 7 - 3)
        )
        assert len(found) == size
        return found

    return _entries(rows, 0, count, take, "<III")


MASKED = (
    HEAD
    + """
[start]
fields = [
  { name = "magic", type = "text", length = 4, is = "MASK" }, { name = "count", type = "u32", holds = "entry count" },
  { name = "length", type = "u32", holds = "index size" },
]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "stored", type = "u32", holds = "stored size" }, { name = "size", type = "u32", holds = "size" },
]
[entry]
packed = "zlib"
[[masks]]
on = "index"
key = "5ac3910ff0"
[[masks]]
on = "entry"
by = "add"
value = "position * 7 + 3"
"""
)

KINDS = {
    "sectors": Kind(SECTOR.replace("pad_last", "pad-last"), sector_write, sector_read),
    "one after the other": Kind(FOLLOW, follow_write, follow_read),
    "masked": Kind(MASKED, masked_write, masked_read),
    "ends": Kind(ENDS, ends_write, ends_read),
    "flag by a mask": Kind(FLAGS, flags_write, flags_read, frozenset(CHANGES)),
    "flag as a bit": Kind(FLAG_BITS, flags_write, flags_read),
    "start of any length": Kind(TITLED, titled_write, titled_read),
    "nothing stored is not packed": Kind(MAYBE, maybe_write, maybe_read),
    "data offset in a footer": Kind(FOOTER, footer_write, footer_read),
}


def through(kind: Kind, change: str, folder: Path, known: Sequence[str] = ()) -> None:
    """Put one change through: an independent reader finds what was asked for, or it is refused and nothing is written."""
    changes, after = CHANGES[change]
    file, out = folder / "a.k", folder / "b.k"
    file.write_bytes(kind.write(FILES))
    container = open_container(file, parse_layout(kind.layout, "k.toml"), known)
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    try:
        container.rewrite(out, changes)
    except FurnelError as error:
        assert change in kind.may_refuse, error.sentence()
        assert not out.exists() and list(folder.iterdir()) == [file]
        return
    finally:
        container.close()
    assert kind.read(out.read_bytes()) == after(dict(FILES))


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_reader_of_its_own_finds_what_was_asked_for_or_nothing_is_written(
    name: str, change: str, tmp_path: Path
) -> None:
    through(KINDS[name], change, tmp_path)


@pytest.mark.parametrize("change", CHANGES)
def test_a_count_that_is_called_a_constant_is_never_written_wrong(change: str, tmp_path: Path) -> None:
    layout = TITLED.replace("TITL", "UNCO").replace(', { name = "title", type = "text", ends = "u8" }', "")
    layout = layout.replace('type = "u32", holds = "entry count" }', 'type = "u32" }')
    layout += '[footer]\nfields = [{ name = "index_bytes", type = "u32", holds = "index size" }]\n'
    file, out = tmp_path / "a.k", tmp_path / "b.k"
    data = bytearray(b"UNCO" + struct.pack("<I", len(FILES)))
    at = 8 + 32 * len(FILES)
    body = b""
    for name, content in FILES.items():
        data += struct.pack("<24sII", name.encode(), at + len(body), len(content))
        body += content
    file.write_bytes(bytes(data) + body + struct.pack("<I", 32 * len(FILES)))
    container = open_container(
        file, parse_layout(layout.replace('holds = "index size"', 'holds = "index size"'), "k.toml")
    )
    assert len(container.entries()) == len(FILES)
    container.rewrite(out, CHANGES[change][0])
    container.close()
    found = uncounted_read(out.read_bytes())
    assert (found == CHANGES[change][1](dict(FILES))) == (change not in ("add", "remove"))


@pytest.mark.parametrize("name", sorted(set(KINDS) - {"flag by a mask", "data offset in a footer"}))
def test_new_archives_are_what_their_own_reader_expects(name: str, tmp_path: Path) -> None:
    kind = KINDS[name]
    write_archive(tmp_path / "new.k", FILES, parse_layout(kind.layout, "k.toml"))
    try:
        found = kind.read((tmp_path / "new.k").read_bytes())
    except AssertionError:
        assert name.startswith("flag")  # a new archive has no flags yet
        return
    assert found == FILES


def whole_file(behind: bytes) -> bytes:
    plain = ends_write(FILES)
    return struct.pack("<4sI", b"WHOL", len(plain)) + zlib.compress(plain) + behind


WHOLE = (
    ENDS
    + """
[whole]
packed = "zlib"
fields = [{ name = "mark", type = "text", length = 4, is = "WHOL" }, { name = "plain", type = "u32", holds = "data size" }]
"""
)


def test_what_lies_behind_a_packed_archive_is_not_lost(tmp_path: Path) -> None:
    layout, out = parse_layout(WHOLE, "k.toml"), tmp_path / "b.k"
    for behind, writes in ((b"", True), (bytes(12), True), (struct.pack("<I", 0xDEADBEEF), False)):
        file = tmp_path / "a.k"
        file.write_bytes(whole_file(behind))
        container = open_container(file, layout)
        changes, after = CHANGES["more"]
        if not writes:
            with pytest.raises(FurnelError, match="lie behind its packed data"):
                container.rewrite(out, changes)
            assert not out.exists()
        else:
            container.rewrite(out, changes)
            data = out.read_bytes()
            work = zlib.decompressobj()
            plain = work.decompress(data[8:])
            assert ends_read(plain) == after(dict(FILES)) and struct.unpack_from("<I", data, 4)[0] == len(
                plain
            )
            assert work.unused_data == behind
            out.unlink()
        container.close()


def test_a_packed_archive_that_claims_too_much_is_refused_before_it_is_unpacked(tmp_path: Path) -> None:
    bomb = zlib.compress(bytes(64 << 20), 9)
    for told, why in ((4_000_000_000, "cannot hold"), (1000, "more than 1000")):
        data = struct.pack("<4sI", b"WHOL", told) + bomb
        (tmp_path / "a.k").write_bytes(data)
        with pytest.raises(FurnelError, match=why):
            open_container(tmp_path / "a.k", parse_layout(WHOLE, "k.toml"))


def test_numbers_beyond_63_bits_are_carried_or_refused_kindly(tmp_path: Path) -> None:
    fields = '{ name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u64", holds = "offset" }'
    layout = (
        HEAD
        + f"""
[start]
fields = [{{ name = "count", type = "u32", holds = "entry count" }}]
[index]
fields = [{fields}, {{ name = "size", type = "u32", holds = "size" }}, {{ name = "mark", type = "u64" }}]
"""
    )
    mark = (1 << 64) - 5

    def made(begin: int) -> bytes:
        return struct.pack("<I24sQIQ", 1, b"a.txt", begin, 3, mark) + b"abc"

    (tmp_path / "a.k").write_bytes(made(48))
    container = open_container(tmp_path / "a.k", parse_layout(layout, "k.toml"))
    container.rewrite(tmp_path / "b.k", Changes({"a.txt": b"abcdef"}, add={"b.txt": b"x"}))
    data = (tmp_path / "b.k").read_bytes()
    rows = [struct.unpack_from("<24sQIQ", data, 4 + 44 * row) for row in range(2)]
    assert rows[0][3] == mark and data[rows[0][1] : rows[0][1] + rows[0][2]] == b"abcdef"
    assert rows[1][3] == mark and data[rows[1][1] : rows[1][1] + rows[1][2]] == b"x"
    (tmp_path / "a.k").write_bytes(made(1 << 63 | 48))
    with pytest.raises(FurnelError, match=r"2\^63"):
        open_container(tmp_path / "a.k", parse_layout(layout, "k.toml"))


def test_bits_beyond_their_number_are_refused_in_the_layout() -> None:
    with pytest.raises(FurnelError, match="a u8 has 8"):
        parse_layout(FLAG_BITS.replace('name = "word", type = "u32"', 'name = "word", type = "u8"'), "k.toml")


def test_names_with_other_hashes_than_the_layouts_are_not_written(tmp_path: Path) -> None:
    layout = (
        HEAD
        + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" }, { name = "hash", type = "u32", holds = "name hash" },
]
[names]
hash = "crc32"
"""
    )
    rows = b"".join(
        struct.pack("<24sIII", name, 4 + 72 + place * 3, 3, zlib.adler32(name))
        for place, name in enumerate((b"a.txt", b"b.txt"))
    )
    (tmp_path / "a.k").write_bytes(struct.pack("<I", 2) + rows + b"onetwo")
    container = open_container(tmp_path / "a.k", parse_layout(layout, "k.toml"))
    container.rewrite(tmp_path / "b.k", Changes({"a.txt": b"three"}))
    assert b"three" in (tmp_path / "b.k").read_bytes()
    for changes in (Changes(add={"c.txt": b"x"}), Changes(rename={"a.txt": "c.txt"})):
        with pytest.raises(FurnelError, match="its hash is"):
            container.rewrite(tmp_path / "c.k", changes)
    assert not (tmp_path / "c.k").exists()


def second_write(files: Files, twice: bool) -> bytes:
    """The index, the data, and behind it the same places once more in a table of the game's own."""
    at = 8 + 32 * len(files)
    rows, body, again = b"", b"", b""
    for name, data in files.items():
        rows += struct.pack("<24sII", name.encode(), at + len(body), len(data))
        again += struct.pack(">HI", len(data), at + len(body))
        body += data
    return (
        struct.pack("<4sI", b"TWIC", len(files))
        + rows
        + body
        + (again if twice else b"a remark by the maker of this file....")
    )


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("twice", [True, False])
def test_a_second_index_that_nobody_described_is_not_made_wrong(
    change: str, twice: bool, tmp_path: Path
) -> None:
    layout = parse_layout(ENDS.replace("ENDS", "TWIC").replace(', means = "value - begin"', ""), "k.toml")
    files = {**FILES, "g/six.txt": b"six" * 50, "h/seven.txt": b"seven" * 50}
    (tmp_path / "a.k").write_bytes(second_write(files, twice))
    container = open_container(tmp_path / "a.k", layout)
    changes, after = CHANGES[change]
    moves = change not in ("itself", "rename")
    if twice and moves:
        with pytest.raises(FurnelError, match="a second time"):
            container.rewrite(tmp_path / "b.k", changes)
        assert not (tmp_path / "b.k").exists()
        return
    container.rewrite(tmp_path / "b.k", changes)
    data = (tmp_path / "b.k").read_bytes()
    found = _entries(
        data, 8, struct.unpack_from("<I", data, 4)[0], lambda data, row: data[row[0] : sum(row)], "<II"
    )
    assert found == after(files)
    if twice:
        assert data[-6 * len(files) :] == second_write(files, True)[-6 * len(files) :]


def test_new_entries_have_what_the_game_wants_of_their_kind(tmp_path: Path) -> None:
    """A field that nobody described says of which kind an entry is; the game refuses entries without one."""
    kinds = {"txt": 7, "bin": 9}
    layout = (
        HEAD
        + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "length", type = "u32", holds = "size" },
  { name = "word", type = "u32", bits = [{ name = "kind", first = 4, count = 8 }, { name = "flag", first = 31, count = 1 }] },
  { name = "mark", type = "bytes", length = 4 },
]
"""
    )
    rows, body, at = b"", b"", 4 + 40 * len(FILES)
    for name, data in FILES.items():
        kind = kinds[name.rpartition(".")[2]]
        rows += struct.pack(
            "<24sIII4s", name.encode(), at + len(body), len(data), kind << 4 | 1 << 31, b"K%03d" % kind
        )
        body += data
    (tmp_path / "a.k").write_bytes(struct.pack("<I", len(FILES)) + rows + body)
    container = open_container(tmp_path / "a.k", parse_layout(layout, "k.toml"))
    container.rewrite(
        tmp_path / "b.k", Changes(add={"x/new.bin": b"bin", "y.txt": b"text", "odd.png": b"png"})
    )
    data = (tmp_path / "b.k").read_bytes()
    found = {}
    for row in range(struct.unpack_from("<I", data)[0]):
        name, begin, size, word, mark = struct.unpack_from("<24sIII4s", data, 4 + 40 * row)
        found[name.rstrip(b"\0").decode()] = (data[begin : begin + size], word >> 4 & 0xFF, word >> 31, mark)
    assert found["x/new.bin"] == (b"bin", 9, 1, b"K009") and found["y.txt"] == (b"text", 7, 1, b"K007")
    assert found["odd.png"] == (b"png", 0, 0, bytes(4))  # none is like it


NUMBERED = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
names = "numbers"
number = "{number:03}.bin"
fields = [{ name = "begin", type = "u32", holds = "offset" }, { name = "length", type = "u32", holds = "size" }]
"""
)


def test_entries_without_names_are_proven_where_contents_are_the_same_as_others(tmp_path: Path) -> None:
    archive, target = tmp_path / "a.k", tmp_path / "b.k"
    contents = [b"one", b"two", b"two", b"four"]
    at = 4 + 8 * len(contents)
    rows = b""
    for data in contents:
        rows += struct.pack("<II", at, len(data))
        at += len(data)
    archive.write_bytes(struct.pack("<I", len(contents)) + rows + b"".join(contents))
    container = open_container(archive, parse_layout(NUMBERED, "k"))
    later = tmp_path / "later.bin"
    later.write_bytes(b"four")
    container.rewrite(
        target, Changes({"000.bin": b"two"}, {"004.bin": later, "005.bin": b"two", "006.bin": b""})
    )
    container.close()
    out = target.read_bytes()
    found = [struct.unpack_from("<II", out, 4 + 8 * row) for row in range(struct.unpack_from("<I", out)[0])]
    wished = [b"two", b"two", b"two", b"four", b"four", b"two", b""]
    assert [out[begin : begin + length] for begin, length in found] == wished
