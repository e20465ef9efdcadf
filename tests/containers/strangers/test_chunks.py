"""Archives of strangers that are chunks in chunks, with a word of their kind before them; made and read by struct alone."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from furnel.containers import Changes, open_container, parse_layout
from furnel.errors import FurnelError
from tests.containers.test_proof import CHANGES, HEAD, Files, Kind, through


def chunk(tag: bytes, data: bytes) -> bytes:
    return tag + struct.pack(">I", len(data)) + data + bytes(len(data) % 2)


def chunks_in(data: bytes) -> list[tuple[bytes, bytes]]:
    at, out = 0, []
    while at < len(data):
        tag, size = struct.unpack_from(">4sI", data, at)
        assert at + 8 + size <= len(data)
        out.append((tag, data[at + 8 : at + 8 + size]))
        at += 8 + size + size % 2
    assert at == len(data)
    return out


MAP = b"MAP " + bytes([7, 0, 0, 0, 9]) + b"\0"  # another kind of the same tag: nobody understands it
CHAIN = (
    HEAD
    + """
byte-order = "big"
[chain]
align = 2
fields = [{ name = "tag", type = "text", length = 4, holds = "tag" }, { name = "size", type = "u32", holds = "size" }]
[[chain.nests]]
tag = "BOAT"
plain = true
fields = [{ name = "kind", type = "text", length = 4, is = "CRGO" }]
"""
)


def cargo_write(files: Files) -> bytes:
    """All in one chunk; in it items, each with a chunk that names it, and one that is something else."""
    items = [
        chunk(b"ITEM", b"THNG" + chunk(b"NAME", name.encode()) + chunk(b"BODY", data))
        for name, data in files.items()
    ]
    return chunk(b"BOAT", b"CRGO" + chunk(b"ITEM", MAP) + b"".join(items) + chunk(b"ENDS", b"!"))


def cargo_read(data: bytes) -> Files:
    [(tag, boat)] = chunks_in(data)
    assert tag == b"BOAT" and boat[:4] == b"CRGO"
    parts, out = chunks_in(boat[4:]), {}
    assert parts[0] == (b"ITEM", MAP) and (b"ENDS", b"!") in parts
    for tag, item in parts[1:]:
        if tag == b"ITEM":
            assert item[:4] == b"THNG"
            (one, name), (other, body) = chunks_in(item[4:])
            assert (one, other) == (b"NAME", b"BODY")
            out[name.decode()] = body
    return out


CARGO = (
    CHAIN
    + """
[[chain.nests]]
tag = "ITEM"
fields = [{ name = "kind", type = "text", length = 4, is = "THNG" }]
named-by = "NAME"
parts = { BODY = "{name}" }
"""
)


def titled_write(files: Files) -> bytes:
    """Items whose name stands in the record before what is in them."""
    items = [
        chunk(b"ITEM", struct.pack(">H16s", 3, name.encode()) + chunk(b"BODY", data))
        for name, data in files.items()
    ]
    return chunk(b"BOAT", b"CRGO" + b"".join(items))


def titled_read(data: bytes) -> Files:
    [(_, boat)] = chunks_in(data)
    out = {}
    for _, item in chunks_in(boat[4:]):
        flags, name = struct.unpack_from(">H16s", item)
        [(_, body)] = chunks_in(item[18:])
        out[name.rstrip(b"\0").decode()] = body
        assert flags == 3
    return out


TITLED = (
    CHAIN
    + """
[[chain.nests]]
tag = "ITEM"
fields = [{ name = "flags", type = "u16", is = 3 }, { name = "title", type = "text", length = 16 }]
named-by = "title"
parts = { BODY = "{name}" }
"""
)

KINDS = {
    "named by a chunk": Kind(CARGO, cargo_write, cargo_read),
    "named before": Kind(TITLED, titled_write, titled_read),
}


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_reader_of_its_own_finds_what_was_asked_for(name: str, change: str, tmp_path: Path) -> None:
    through(KINDS[name], change, tmp_path)


def test_numbered_parts_in_a_nest_grow_at_its_end(tmp_path: Path) -> None:
    songs = [chunk(b"PACK", b"SONG" + chunk(b"TUNE", b"one") + chunk(b"TUNE", b"three"))]
    rest = chunk(b"PACK", b"MAPS" + chunk(b"TUNE", b"no song"))
    (tmp_path / "a.k").write_bytes(chunk(b"BOAT", b"CRGO" + songs[0] + rest))
    layout = parse_layout(CHAIN + """
[[chain.nests]]
tag = "PACK"
plain = true
fields = [{ name = "kind", type = "text", length = 4, is = "SONG" }]
parts = { TUNE = "songs/{number:02}.wav" }
""", "k")  # fmt: skip
    container = open_container(tmp_path / "a.k", layout)
    assert [entry.path for entry in container.entries()] == ["songs/00.wav", "songs/01.wav"]
    container.rewrite(
        tmp_path / "b.k", Changes({"songs/00.wav": b"uno!"}, {"songs/02.wav": b"two", "songs/03.wav": b""})
    )
    [(_, boat)] = chunks_in((tmp_path / "b.k").read_bytes())
    made = chunks_in(boat[4:])
    assert made[0][1][:4] == b"SONG"
    assert chunks_in(made[0][1][4:]) == [
        (b"TUNE", b"uno!"),
        (b"TUNE", b"three"),
        (b"TUNE", b"two"),
        (b"TUNE", b""),
    ]
    assert chunk(b"PACK", made[1][1]) == rest
    for wrong in ("songs/07.wav", "notes.txt"):
        with pytest.raises(FurnelError, match="chunks in chunks"):
            container.rewrite(tmp_path / "c.k", Changes(add={wrong: b"x"}))
