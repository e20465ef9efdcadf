"""Where bytes lie around that nobody explains, nothing moves that need not: what has grown goes to the end."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from furnel.containers import Changes, open_container, parse_layout
from furnel.errors import FurnelError
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files

LAYOUT = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "at", type = "u32", holds = "index offset" }]
[index]
place = "back"
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
[entry]
align = 4
"""
)
CODE = b"\x90the game's own code, at its own place\xc3"


def written(files: Files, code: bytes = CODE) -> tuple[bytes, dict[str, int]]:
    """Data with something else behind the first entry, then the index."""
    places, body = {}, b""
    for number, (name, data) in enumerate(files.items()):
        body += bytes(-len(body) % 4)
        places[name] = 8 + len(body)
        body += data + (code if number == 0 else b"")
    rows = b"".join(
        struct.pack("<24sII", name.encode(), places[name], len(data)) for name, data in files.items()
    )
    return struct.pack("<II", len(files), 8 + len(body)) + body + rows, places


def found_in(data: bytes) -> dict[str, tuple[int, bytes]]:
    count, at = struct.unpack_from("<II", data)
    out = {}
    for row in range(count):
        name, begin, size = struct.unpack_from("<24sII", data, at + row * 32)
        out[name.rstrip(b"\0").decode()] = begin, data[begin : begin + size]
    assert at + 32 * count == len(data)
    return out


@pytest.mark.parametrize("moves", ["", "moves = true\n"])
@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("told", ["index at the back", "size of the data"])
def test_bytes_behind_everything_that_is_described_stay_there(
    told: str, change: str, moves: str, tmp_path: Path
) -> None:
    """A signature of the game's, say, that no field tells of."""
    data, _ = written(FILES, b"")
    layout = LAYOUT + moves
    if told == "size of the data":
        rows, body = data[-32 * len(FILES) :], data[8 : -32 * len(FILES)]
        data = struct.pack("<II", len(FILES), len(body)) + rows + body
        layout = layout.replace('place = "back"\n', "").replace('"index offset"', '"data size"')
        layout = layout.replace('holds = "offset"', 'holds = "offset", means = "value + data_start - 8"')
    (tmp_path / "a.k").write_bytes(data + b"SIGNED by the game")
    container = open_container(tmp_path / "a.k", parse_layout(layout, "k"))
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    container.rewrite(tmp_path / "b.k", CHANGES[change][0])
    made = (tmp_path / "b.k").read_bytes()
    assert made.endswith(b"SIGNED by the game") and made.count(b"SIGNED") == 1
    again = open_container(tmp_path / "b.k", parse_layout(layout, "k"))
    assert {entry.path: again.read(entry.path) for entry in again.entries()} == CHANGES[change][1](
        dict(FILES)
    )
    if told == "index at the back":
        assert (
            dict(found_in(made[: -len(b"SIGNED by the game")])).keys()
            == CHANGES[change][1](dict(FILES)).keys()
        )


BLOCK = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "long", type = "u32", holds = "index stored size" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
"""
)


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("side", ["", ".side"])
def test_bytes_behind_the_records_in_an_index_stay_there(side: str, change: str, tmp_path: Path) -> None:
    """The index is longer than its records: by its size, or as a file of its own."""
    at = 8 if side else 8 + 32 * len(FILES) + 6
    rows = body = b""
    for name, data in FILES.items():
        rows += struct.pack("<24sII", name.encode(), at + len(body), len(data))
        body += data
    rows += b"SIGNED"
    head = struct.pack("<II", len(FILES), len(rows))
    (tmp_path / "a.k").write_bytes(head + body if side else head + rows + body)
    (tmp_path / "a.side").write_bytes(rows)
    layout = BLOCK.replace("[index]", f'[index]\nfile = "{side}"')
    layout = layout.replace(', holds = "index stored size"', "") if side else layout
    if side:
        (tmp_path / "a.k").write_bytes(struct.pack("<II", len(FILES), 7) + body)
    container = open_container(tmp_path / "a.k", parse_layout(layout, "k"))
    container.rewrite(tmp_path / "b.k", CHANGES[change][0])
    again = open_container(tmp_path / "b.k", parse_layout(layout, "k"))
    assert {entry.path: again.read(entry.path) for entry in again.entries()} == CHANGES[change][1](
        dict(FILES)
    )
    made = (tmp_path / ("b.side" if side else "b.k")).read_bytes()
    rows_end = (0 if side else 8) + 32 * len(again.entries())
    assert made[rows_end : rows_end + 6] == b"SIGNED"


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("placed", [True, False])
def test_what_a_name_table_has_besides_names_stays_in_it(placed: bool, change: str, tmp_path: Path) -> None:
    """A title before the first name, or a text behind the last, that other parts of the game point at."""
    table, places = b"TITLE\0" if placed else b"", {}
    for name in FILES:
        places[name] = len(table)
        table += name.encode() + b"\0"
    table += b"CLOSING\0"
    at, rows, body = 12 + 12 * len(FILES) + len(table), b"", b""
    for name, data in FILES.items():
        rows += struct.pack("<III", places[name] if placed else 9, at + len(body), len(data))
        body += data
    texts = struct.pack("<III", len(FILES), len(table), 12 + len(rows))
    (tmp_path / "a.k").write_bytes(texts + rows + table + body)
    layout = (
        BLOCK.replace(
            '"long", type = "u32", holds = "index stored size" }',
            (
                '"long", type = "u32", holds = "names size" }, { name = "at", type = "u32"'
                + (', holds = "names offset" }' if placed else "}")
            ),
        )
        .replace("[index]", '[index]\nnames = "table"')
        .replace(
            '"path", type = "text", length = 24, holds = "path"',
            '"text", type = "u32"' + (', holds = "name offset"' if placed else ""),
        )
    )
    container = open_container(tmp_path / "a.k", parse_layout(layout, "k"))
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    container.rewrite(tmp_path / "b.k", CHANGES[change][0])
    again = open_container(tmp_path / "b.k", parse_layout(layout, "k"))
    assert {entry.path: again.read(entry.path) for entry in again.entries()} == CHANGES[change][1](
        dict(FILES)
    )
    made = (tmp_path / "b.k").read_bytes()
    count, size, _ = struct.unpack_from("<III", made)
    block = made[12 + 12 * count :][:size]
    assert b"CLOSING\0" in block and block.startswith(b"TITLE\0" if placed else b"")
    if placed:
        assert block.startswith(table)


def test_bytes_between_an_index_and_its_names_are_not_lost(tmp_path: Path) -> None:
    head = '[start]\nfields = [{ name = "count", type = "u32", holds = "entry count" }, '
    head += '{ name = "at", type = "u32", holds = "index offset" }, { name = "texts", type = "u32", holds = "names offset" }]\n'
    layout = (
        HEAD
        + head
        + LAYOUT[LAYOUT.index("[index]") :]
        .replace('{ name = "path", type = "text", length = 24, holds = "path" }, ', "")
        .replace('place = "back"', 'place = "back"\nnames = "table"')
    )
    for between, kept in ((b"MORE", False), (bytes(4), True)):
        data = struct.pack("<III", 1, 13, 25) + b"x" + struct.pack("<II", 12, 1) + between + b"a\0"
        (tmp_path / "a.k").write_bytes(data)
        container = open_container(tmp_path / "a.k", parse_layout(layout, "k"))
        assert container.read("a") == b"x"
        if kept:
            container.rewrite(tmp_path / "b.k", Changes({"a": b"yy"}))
            continue
        with pytest.raises(FurnelError, match="between its index and its names"):
            container.rewrite(tmp_path / "b.k", Changes({"a": b"yy"}))


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("moves", ["", "moves = false\n", "moves = true\n"])
def test_untouched_entries_and_what_lies_between_keep_their_places(
    moves: str, change: str, tmp_path: Path
) -> None:
    data, places = written(FILES)
    (tmp_path / "a.k").write_bytes(data)
    changes, after = CHANGES[change]
    open_container(tmp_path / "a.k", parse_layout(LAYOUT + moves, "k")).rewrite(tmp_path / "b.k", changes)
    made = (tmp_path / "b.k").read_bytes()
    found = found_in(made)
    assert {name: content for name, (_, content) in found.items()} == after(dict(FILES))
    if moves == "moves = true\n":
        return
    grown = {"b/two.bin"} if change == "more" else set()
    assert {name: at for name, (at, _) in found.items() if name in places and name not in grown} == {
        name: at for name, at in places.items() if name in found and name not in grown
    }
    at = 8 + len(FILES["a/one.txt"])
    assert made[at : at + len(CODE)] == CODE
    if change == "remove":
        assert FILES["a/one.txt"] not in made  # nothing of it is left
    if change == "more":
        old = places["b/two.bin"]
        assert made[old : old + 200] == bytes(200) and found["b/two.bin"][0] >= places["d/four.txt"] + 400


def test_without_anything_strange_a_repack_leaves_no_holes(tmp_path: Path) -> None:
    (tmp_path / "a.k").write_bytes(written(FILES, b"")[0])
    container = open_container(tmp_path / "a.k", parse_layout(LAYOUT, "k"))
    container.rewrite(tmp_path / "b.k", Changes({"b/two.bin": b"x" * 900}))
    assert (tmp_path / "b.k").read_bytes() == written(FILES | {"b/two.bin": b"x" * 900}, b"")[0]
    still = open_container(tmp_path / "a.k", parse_layout(LAYOUT + "moves = false\n", "k"))
    still.rewrite(tmp_path / "c.k", Changes({"b/two.bin": b"x" * 900}))
    assert found_in((tmp_path / "c.k").read_bytes())["d/four.txt"][0] == written(FILES, b"")[1]["d/four.txt"]
