"""Archives of strangers whose numbers count from where they stand, from the index or the data, or with the record's number."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from furnel.containers import dissect, open_container, parse_layout, write_archive
from furnel.errors import FurnelError
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files, Kind, through

# offsets counted from the field itself, also that of the index; sizes under a mask that goes with the record's number


def selves_write(files: Files) -> bytes:
    body = b"".join(files.values())
    index_at, rows, at = 12 + len(body), b"", 12
    for number, (name, data) in enumerate(files.items()):
        here = index_at + 28 * number + 20
        rows += struct.pack("<20siI", name.encode(), at - here, len(data) ^ (number * 7 + 1))
        at += len(data)
    return struct.pack("<4sII", b"SELF", index_at - 4, len(files)) + body + rows


def selves_read(data: bytes) -> Files:
    _, there, count = struct.unpack_from("<4sII", data)
    out = {}
    for number in range(count):
        row = there + 4 + 28 * number
        name, away, size = struct.unpack_from("<20siI", data, row)
        begin = row + 20 + away
        out[name.rstrip(b"\0").decode()] = data[begin : begin + (size ^ (number * 7 + 1))]
    return out


SELVES = (
    HEAD
    + """
[start]
fields = [
  { name = "magic", type = "text", length = 4, is = "SELF" },
  { name = "there", type = "u32", holds = "index offset", means = "value + here" },
  { name = "count", type = "u32", holds = "entry count" },
]
[index]
place = "back"
fields = [
  { name = "path", type = "text", length = 20, holds = "path" },
  { name = "away", type = "i32", holds = "offset", means = "value + here" },
  { name = "size", type = "u32", holds = "size", means = "value ^ number * 7 + 1" },
]
"""
)

# names told by where they lie in the file; data on 16 bytes from where it begins, which is anywhere


def based_write(files: Files) -> bytes:
    names, rows, body = b"", b"", b""
    index_at = 7
    for name, data in files.items():
        body += bytes(-len(body) % 16)
        rows += struct.pack(">III", index_at + 12 * len(files) + len(names), len(body) // 16, len(data))
        names += name.encode() + b"\0"
        body += data
    return b"BASED" + struct.pack(">H", len(files)) + rows + names + body


def based_read(data: bytes) -> Files:
    count = struct.unpack_from(">H", data, 5)[0]
    told = [struct.unpack_from(">III", data, 7 + 12 * row) for row in range(count)]
    names = [data[at : data.index(b"\0", at)].decode() for at, _, _ in told]
    base = max(at + len(name) + 1 for (at, _, _), name in zip(told, names, strict=True))
    return {
        name: data[base + unit * 16 : base + unit * 16 + size]
        for name, (_, unit, size) in zip(names, told, strict=True)
    }


BASED = (
    HEAD.replace("furnel-layout = 1", 'furnel-layout = 1\nbyte-order = "big"')
    + """
[start]
fields = [
  { name = "magic", type = "text", length = 5, is = "BASED" }, { name = "count", type = "u16", holds = "entry count" },
]
[index]
names = "table"
start = [{ name = "letters", type = "u16", holds = "names size" }]
fields = [
  { name = "called", type = "u32", holds = "name offset", means = "value - index_at - 2 - count * 12" },
  { name = "unit", type = "u32", holds = "offset", means = "value * 16 + data_start" },
  { name = "size", type = "u32", holds = "size" },
]
[entry]
align = 16
align-from = "data"
"""
)


def counted_write(files: Files) -> bytes:
    """As above, with how long the names are before the rows: the index begins there."""
    data = based_write(files)
    names = sum(len(name) + 1 for name in files)
    rows = b"".join(
        struct.pack(">III", at + 2, unit, size)
        for at, unit, size in (struct.unpack_from(">III", data, 7 + 12 * row) for row in range(len(files)))
    )
    return data[:7] + struct.pack(">H", names) + rows + data[7 + len(rows) :]


def counted_read(data: bytes) -> Files:
    count, names = struct.unpack_from(">HH", data, 5)
    rows = b"".join(
        struct.pack(">III", at - 2, unit, size)
        for at, unit, size in (struct.unpack_from(">III", data, 9 + 12 * row) for row in range(count))
    )
    found = based_read(data[:7] + rows + data[9 + len(rows) :])
    assert names == sum(len(name) + 1 for name in found)
    return found


KINDS = {
    "numbers from where they stand": Kind(SELVES, selves_write, selves_read),
    "data on 16 bytes from its beginning": Kind(BASED, counted_write, counted_read),
}


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_reader_of_its_own_finds_what_was_asked_for(name: str, change: str, tmp_path: Path) -> None:
    through(KINDS[name], change, tmp_path)


@pytest.mark.parametrize("name", KINDS)
def test_new_archives_are_what_their_own_reader_expects(name: str, tmp_path: Path) -> None:
    write_archive(tmp_path / "n.k", FILES, parse_layout(KINDS[name].layout, "k"))
    assert KINDS[name].read((tmp_path / "n.k").read_bytes()) == FILES
    looked = dissect(tmp_path / "n.k", parse_layout(KINDS[name].layout, "k"))
    assert not looked.faults and {entry.path for entry in looked.entries} == set(FILES)


def test_what_is_nowhere_in_particular_is_refused(tmp_path: Path) -> None:
    with pytest.raises(FurnelError, match="counts from here: that takes records of a fixed length"):
        parse_layout(SELVES.replace("length = 20", 'ends = "u8"'), "k")
    with pytest.raises(FurnelError, match="not packed"):
        parse_layout(SELVES.replace('place = "back"', 'place = "back"\npacked = "zlib"'), "k")
    (tmp_path / "a.k").write_bytes(selves_write(FILES))
    chain = '[chain]\nfields = [{ name = "size", type = "u32", holds = "size", means = "value - here" }]\n'
    with pytest.raises(FurnelError, match="no field 'here'"):
        open_container(tmp_path / "a.k", parse_layout(HEAD + chain, "k"))
