"""Long indexes and chains, written with struct alone: every kind of field is read as written, damage is told where it is."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import Changes, dissect, open_container, parse_layout
from furnel.errors import FurnelError

NAMES = [f"hold/{number % 7}/crate{number}.bin" for number in range(3000)]
TABLE = """furnel-layout = 1
name = "long"
title = "records of every length"
files = ["*.long"]
[start]
fields = [{ name = "count", type = "u16", order = "big", holds = "entry count" }]
[index]
fields = [
  { name = "mark", type = "text", length = 2, is = "r:" }, { name = "path", type = "text", ends = "ENDS", holds = "path" },
  { name = "turns", type = "i16", order = "big" }, { name = "three", type = "u24" }, { name = "more", type = "varint" },
  { name = "both", type = "u64", bits = [
    { name = "begin", first = 0, count = 40, holds = "offset" }, { name = "size", first = 40, count = 24, holds = "size" } ] },
]
"""
CHAIN = """furnel-layout = 1
name = "links"
title = "one after the other"
files = ["*.links"]
[chain]
last = "END"
fields = [
  { name = "tag", type = "text", length = 4, holds = "tag" }, { name = "size", type = "u32", order = "big", holds = "size" },
  { name = "path", type = "text", ends = "u8", holds = "path" }, { name = "shade", type = "u8" },
]
"""


def test_every_kind_of_field_in_a_long_index_is_read_as_it_was_written(tmp_path: Path) -> None:
    for ends in ("zero", "u8", "u16", "u32"):
        archive = tmp_path / f"{ends}.long"
        archive.write_bytes(_table(ends))
        container = open_container(archive, parse_layout(TABLE.replace("ENDS", ends), "long"))
        assert [entry.path for entry in container.entries()] == NAMES
        assert all(container.read(NAMES[number]) == _content(number) for number in (0, 1, 1499, 2999))
        container.rewrite(tmp_path / "b.long", Changes({NAMES[7]: b"another"}))
        container.close()
        old, new = _records(archive.read_bytes(), ends), _records((tmp_path / "b.long").read_bytes(), ends)
        assert new[7][-1] == b"another" and [row[:4] for row in old] == [row[:4] for row in new]
        assert [row[-1] for row in new if row[0] != NAMES[7]] == [
            row[-1] for row in old if row[0] != NAMES[7]
        ]


@pytest.mark.parametrize("number", [0, 1500, 2999])
def test_a_wrong_constant_deep_in_an_index_is_told_with_its_byte(tmp_path: Path, number: int) -> None:
    data = bytearray(_table("u8"))
    at = data.index(b"r:" + bytes([len(NAMES[number])]) + NAMES[number].encode())
    data[at] = ord("x")
    (tmp_path / "a.long").write_bytes(data)
    with pytest.raises(FurnelError, match=f"“mark” at byte {at - 2} is b'x:'"):
        open_container(tmp_path / "a.long", parse_layout(TABLE.replace("ENDS", "u8"), "long"))


@given(st.integers(2, 60_000))
def test_an_index_that_is_cut_short_is_refused(tmp_path_factory: pytest.TempPathFactory, end: int) -> None:
    archive = tmp_path_factory.mktemp("cut") / "a.long"
    archive.write_bytes(_table("u16")[:end])
    with pytest.raises(FurnelError):
        open_container(archive, parse_layout(TABLE.replace("ENDS", "u16"), "long"))


def test_a_long_chain_is_read_changed_and_told_where_it_breaks(tmp_path: Path) -> None:
    archive, layout = tmp_path / "a.links", parse_layout(CHAIN, "links")
    archive.write_bytes(_chain({name: _content(number) for number, name in enumerate(NAMES)}))
    container = open_container(archive, layout)
    assert [(entry.path, entry.size) for entry in container.entries()] == [
        (name, len(_content(number))) for number, name in enumerate(NAMES)
    ]
    changes = Changes(
        {NAMES[5]: b"another"}, {"hold/new.bin": b"new"}, frozenset({NAMES[9]}), {NAMES[11]: "renamed.bin"}
    )
    container.rewrite(tmp_path / "b.links", changes)
    container.close()
    wished = {
        "renamed.bin" if name == NAMES[11] else name: b"another" if name == NAMES[5] else _content(number)
        for number, name in enumerate(NAMES)
        if name != NAMES[9]
    }
    assert (tmp_path / "b.links").read_bytes() == _chain({**wished, "hold/new.bin": b"new"})
    archive.write_bytes(archive.read_bytes()[:-40])
    with pytest.raises(FurnelError, match="past the|ends at"):
        open_container(archive, layout)


def test_more_records_than_any_game_has_are_refused_before_they_cost_memory(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    short = TABLE[: TABLE.index("  { name")].replace("u16", "u32").replace('"big"', '"little"')
    short += '  { name = "begin", type = "u32", holds = "offset" }, { name = "size", type = "u16", holds = "size" },\n]\n'
    with (tmp_path / "a.long").open("wb") as sparse:
        sparse.write(struct.pack("<I", 10_000_000))
        sparse.truncate(100 << 20)
    with pytest.raises(FurnelError, match="10000000 records, and no more are read than 1048576"):
        open_container(
            tmp_path / "a.long", parse_layout(short.replace("[index]", '[index]\nnames = "numbers"'), "long")
        )
    monkeypatch.setattr("furnel.containers.records.MOST_RECORDS", 2000)
    (tmp_path / "a.links").write_bytes(_chain(dict.fromkeys(NAMES, b"")))
    with pytest.raises(FurnelError, match="more than 2000 records"):
        open_container(tmp_path / "a.links", parse_layout(CHAIN, "links"))


def test_a_new_link_is_of_the_kind_of_those_named_like_it_or_of_the_only_kind_or_refused(
    tmp_path: Path,
) -> None:
    archive, target = tmp_path / "a.links", tmp_path / "b.links"
    songs, lists = _chain({"a.ogg": b"1"}, tag=b"SONG")[:-10], _chain({"b.txt": b"2"}, tag=b"LIST")
    archive.write_bytes(songs + lists)
    container = open_container(archive, parse_layout(CHAIN, "links"))
    container.rewrite(target, Changes(add={"c.ogg": b"3", "d/e.txt": b"4"}))
    wished = _chain({"c.ogg": b"3"}, tag=b"SONG")[:-10] + _chain({"d/e.txt": b"4"}, tag=b"LIST")
    assert target.read_bytes() == songs + lists[:-10] + wished
    with pytest.raises(FurnelError, match="LIST, SONG, and none is named like it"):
        container.rewrite(target, Changes(add={"c.png": b"3"}))
    assert target.read_bytes() == songs + lists[:-10] + wished
    container.close()


def _content(number: int) -> bytes:
    return bytes([number & 0xFF]) * (number % 5)


def _name(name: str, ends: str) -> bytes:
    raw = name.encode()
    return (
        raw + b"\0"
        if ends == "zero"
        else struct.pack({"u8": "<B", "u16": "<H", "u32": "<I"}[ends], len(raw)) + raw
    )


def _table(ends: str) -> bytes:
    at = 2 + sum(
        2 + len(_name(name, ends)) + 2 + 3 + _more(number)[1] + 8 for number, name in enumerate(NAMES)
    )
    rows, data = b"", b""
    for number, name in enumerate(NAMES):
        content = _content(number)
        rows += (
            b"r:"
            + _name(name, ends)
            + struct.pack(">h", number - 1500)
            + (number * 5000).to_bytes(3, "little")
        )
        rows += _more(number)[0] + struct.pack("<Q", at + len(data) | len(content) << 40)
        data += content
    return struct.pack(">H", len(NAMES)) + rows + data


def _more(number: int) -> tuple[bytes, int]:
    """A number of seven bits a byte, and how many bytes it has."""
    raw = bytes([number]) if number < 128 else bytes([number & 127 | 128, number >> 7])
    return raw, len(raw)


def _records(data: bytes, ends: str) -> list[tuple[str, int, int, int, bytes]]:
    """Path, turns, three, more and content of every entry, by a reader of its own."""
    out, at = [], 2
    for _ in range(struct.unpack_from(">H", data)[0]):
        assert data[at : at + 2] == b"r:"
        at += 2
        if ends == "zero":
            stop = data.index(b"\0", at)
            name, at = data[at:stop], stop + 1
        else:
            width = {"u8": 1, "u16": 2, "u32": 4}[ends]
            stop = at + width + int.from_bytes(data[at : at + width], "little")
            name, at = data[at + width : stop], stop
        turns, three = struct.unpack_from(">h", data, at)[0], int.from_bytes(data[at + 2 : at + 5], "little")
        at += 5
        more = data[at] & 127 | (data[at + 1] << 7 if data[at] & 128 else 0)
        at += 2 if data[at] & 128 else 1
        both = struct.unpack_from("<Q", data, at)[0]
        at += 8
        begin, size = both & (1 << 40) - 1, both >> 40
        out.append((name.decode(), turns, three, more, data[begin : begin + size]))
    return out


def _chain(contents: dict[str, bytes], tag: bytes = b"DATA") -> bytes:
    links = [
        tag + struct.pack(">IB", len(data), len(name)) + name.encode() + b"\x2a" + data
        for name, data in contents.items()
    ]
    return b"".join(links) + b"END\0" + struct.pack(">IBB", 0, 0, 0)


LINKS = """furnel-layout = 1
name = "k"
title = "k"
files = ["*.k"]
[chain]
last = "STOP"
align = 4
fields = [
  { name = "tag", type = "text", length = 4, holds = "tag" }, { name = "size", type = "u16", holds = "size" },
  { name = "seven", type = "u8", is = 7 }, { name = "path", type = "text", ends = "u8", holds = "path" },
]
"""


@given(
    st.lists(st.tuples(st.sampled_from(["LAMP", "ROPE", ""]), st.text("abc/", max_size=4), st.binary(max_size=9)), max_size=8),
    st.sampled_from([b"", b"STOP\0\0\7\0", b"STOP\0\0\7\0more", b"LAMP\xff\xff\7\0", b"LAMP\0\0\6\0", b"LA"]),
)  # fmt: skip
def test_a_chain_is_read_at_once_as_it_is_read_record_by_record(
    tmp_path_factory: pytest.TempPathFactory, links: list[tuple[str, str, bytes]], end: bytes
) -> None:
    file, layout, data = tmp_path_factory.mktemp("k") / "a.k", parse_layout(LINKS, "k"), b""
    for place, (tag, name, content) in enumerate(links):
        path = f"{place}{name}"
        data += struct.pack("<4sHBB", tag.encode(), len(content), 7, len(path)) + path.encode() + content
        data += bytes(-len(data) % 4)
    file.write_bytes(data + end)
    looked = dissect(file, layout)  # field by field, as every byte is told of
    try:
        opened = open_container(file, layout)
    except FurnelError as error:
        assert any(
            error.why == fault.text.partition(" (")[0] or error.why in fault.text for fault in looked.faults
        )
        return
    assert opened.entries() == list(looked.entries)
    opened.close()
