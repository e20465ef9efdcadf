"""Where bytes lie around that nobody explains, nothing moves that need not: what has grown goes to the end."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from furnel.containers import Changes, open_container, parse_layout
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
