"""Archives of strangers: names in odd forms, numbers as digits, masks; made and read by struct alone, changed in six ways."""

from __future__ import annotations

import struct
from pathlib import Path

import pytest

from furnel.containers import open_container, parse_layout, write_archive
from furnel.errors import FurnelError
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files, Kind, through


def digits_write(files: Files) -> bytes:
    """All numbers are digits: the count in hexadecimal, offsets in octal, sizes in decimal."""
    at = 8 + 40 * len(files)
    rows, body = b"", b""
    for name, data in files.items():
        rows += struct.pack("<24s", name.encode()) + b"%07o\0%08d" % (at + len(body), len(data))
        body += data
    return b"DIGI" + b"%4x" % len(files) + rows + body


def digits_read(data: bytes) -> Files:
    out = {}
    for row in range(int(data[4:8], 16)):
        name, begin, size = struct.unpack_from("24s8s8s", data, 8 + 40 * row)
        begin, size = int(begin.rstrip(b"\0"), 8), int(size)
        out[name.rstrip(b"\0").decode()] = data[begin : begin + size]
    return out


DIGITS = (
    HEAD
    + """
[start]
fields = [
  { name = "magic", type = "text", length = 4, is = "DIGI" },
  { name = "count", type = "digits", length = 4, base = 16, holds = "entry count" },
]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" },
  { name = "begin", type = "digits", length = 8, base = 8, holds = "offset" },
  { name = "size", type = "digits", length = 8, holds = "size" },
]
"""
)


def shared_write(files: Files, turn: bool = False) -> bytes:
    """Offsets and sizes, then a table of names, each sharing letters with the one before (or written from behind)."""
    names, before = b"", b""
    for name in files:
        spelled = name[::-1].encode() if turn else name.encode()
        same = 0
        while not turn and same < min(len(before), len(spelled)) and before[same] == spelled[same]:
            same += 1
        names += (b"" if turn else bytes([same])) + bytes([len(spelled) - same]) + spelled[same:]
        before = spelled
    at, rows, body = 8 + 8 * len(files) + len(names), b"", b""
    for data in files.values():
        rows += struct.pack("<II", at + len(body), len(data))
        body += data
    return struct.pack("<II", len(files), len(names)) + rows + names + body


def shared_read(data: bytes, turn: bool = False) -> Files:
    count, _ = struct.unpack_from("<II", data)
    at, before, out = 8 + 8 * count, b"", {}
    for row in range(count):
        same = 0 if turn else data[at]
        at += 0 if turn else 1
        before = before[:same] + data[at + 1 : at + 1 + data[at]]
        at += 1 + data[at]
        begin, size = struct.unpack_from("<II", data, 8 + 8 * row)
        out[(before[::-1] if turn else before).decode()] = data[begin : begin + size]
    return out


SHARED = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "letters", type = "u32", holds = "names size" }]
[index]
names = "table"
fields = [{ name = "begin", type = "u32", holds = "offset" }, { name = "size", type = "u32", holds = "size" }]
[names]
ends = "u8"
"""
)


def seeded(data: bytes, seed: int) -> bytes:
    return bytes((byte - (at * seed + len(data))) & 0xFF for at, byte in enumerate(data))


def sealed(data: bytes, seed: int) -> bytes:
    return bytes((byte + (at * seed + len(data))) & 0xFF for at, byte in enumerate(data))


def seed_write(files: Files, seed: int = 37) -> bytes:
    """Every entry is masked by its own size and a number of the start."""
    at, rows, body = 8 + 32 * len(files), b"", b""
    for name, data in files.items():
        rows += struct.pack("<24sII", name.encode(), at + len(body), len(data))
        body += sealed(data, seed)
    return struct.pack("<II", len(files), seed) + rows + body


def seed_read(data: bytes) -> Files:
    count, seed = struct.unpack_from("<II", data)
    out = {}
    for row in range(count):
        name, begin, size = struct.unpack_from("<24sII", data, 8 + 32 * row)
        out[name.rstrip(b"\0").decode()] = seeded(data[begin : begin + size], seed)
    return out


SEED = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }, { name = "seed", type = "u32", new = 37 }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "size", type = "u32", holds = "size" },
]
[[masks]]
on = "entry"
by = "add"
value = "position * seed + size"
"""
)


def veiled_write(files: Files) -> bytes:
    """Four plain letters and a size, then a whole archive under a mask."""
    inside = seed_write(files)
    return (
        b"VEIL"
        + struct.pack(">I", len(inside))
        + bytes(byte ^ (7 + at % 3) for at, byte in enumerate(inside))
    )


def veiled_read(data: bytes) -> Files:
    assert data[:4] == b"VEIL" and struct.unpack_from(">I", data, 4)[0] == len(data) - 8
    return seed_read(bytes(byte ^ (7 + at % 3) for at, byte in enumerate(data[8:])))


VEILED = (
    SEED
    + """
[[masks]]
on = "whole"
key = "070809"
[whole]
packed = "none"
fields = [
  { name = "letters", type = "text", length = 4, is = "VEIL" },
  { name = "inside", type = "u32", order = "big", holds = "data size" },
]
"""
)

KINDS = {
    "digits": Kind(DIGITS, digits_write, digits_read),
    "names that share letters": Kind(SHARED + 'shares = "u8"\n', shared_write, shared_read),
    "names from behind": Kind(
        SHARED + "reversed = true\n",
        lambda files: shared_write(files, True),
        lambda data: shared_read(data, True),
    ),
    "a mask by size and seed": Kind(SEED, seed_write, seed_read),
    "a mask over all": Kind(VEILED, veiled_write, veiled_read),
}


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", KINDS)
def test_a_reader_of_its_own_finds_what_was_asked_for(name: str, change: str, tmp_path: Path) -> None:
    through(KINDS[name], change, tmp_path)


@pytest.mark.parametrize("name", KINDS)
def test_new_archives_are_what_their_own_reader_expects(name: str, tmp_path: Path) -> None:
    write_archive(tmp_path / "n.k", FILES, parse_layout(KINDS[name].layout, "k"))
    assert KINDS[name].read((tmp_path / "n.k").read_bytes()) == FILES


@pytest.mark.parametrize(
    ("layout", "why"),
    [
        (SEED.replace("* seed", "* count"), "cannot depend on count"),
        (SEED.replace('on = "entry"', 'on = "index"'), "no field tells that"),
        (VEILED.replace("[whole]", "[whole]\n#").replace('packed = "none"', 'packed = "zlib"'), ""),
        (VEILED.replace('on = "whole"', 'on = "entry"'), "packs the file or has a mask"),
        (
            SHARED.replace("[names]", "[names]\nshares = 'u8'").replace(
                'names = "table"', 'names = "numbers"'
            ),
            "share letters",
        ),
        (DIGITS.replace("length = 4, base", "base"), "how many there are"),
    ],
)
def test_what_cannot_be_is_refused_in_the_layout(layout: str, why: str) -> None:
    if why:
        with pytest.raises(FurnelError, match=why):
            parse_layout(layout, "k")


def test_digits_that_are_none_are_told(tmp_path: Path) -> None:
    data = bytearray(digits_write(FILES))
    data[8 + 24] = ord("x")
    (tmp_path / "a.k").write_bytes(data)
    with pytest.raises(FurnelError, match="no number in base 8"):
        open_container(tmp_path / "a.k", parse_layout(DIGITS, "k"))
