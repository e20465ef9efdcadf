"""Names as archives spell them, and entries packed by the standard library itself."""

from __future__ import annotations

import bz2
import gzip
import lzma
import struct
from collections.abc import Callable
from pathlib import Path

import lz4.frame
import pytest
import zstandard
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import Changes, open_container, parse_layout, write_archive
from furnel.containers.packing import PACKINGS
from furnel.errors import FurnelError

HEAD = """furnel-layout = 1
name = "k"
title = "k"
files = ["*.k"]
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 48, holds = "path" }, { name = "begin", type = "u32", holds = "offset" },
  { name = "stored", type = "u32", holds = "stored size" }, { name = "size", type = "u32", holds = "size" },
]
"""
FILES = {"Boote/Möwe.txt": b"gull" * 40, "Boote/Otter.txt": b"otter" * 30}


def made(
    spell: Callable[[str], bytes], pack: Callable[[bytes], bytes] = bytes, files: dict[str, bytes] = FILES
) -> bytes:
    rows, body, at = b"", b"", 4 + 60 * len(files)
    for name, data in files.items():
        packed = pack(data)
        rows += struct.pack("<48sIII", spell(name), at + len(body), len(packed), len(data))
        body += packed
    return struct.pack("<I", len(files)) + rows + body


def names_in(data: bytes) -> list[bytes]:
    return [data[4 + 60 * row : 4 + 60 * row + 48] for row in range(struct.unpack_from("<I", data)[0])]


@pytest.mark.parametrize(
    "encoding", ["utf-8", "utf-16-le", "utf-16-be", "utf-32-le", "cp1252", "latin-1", "cp850"]
)
@pytest.mark.parametrize("drop", ["", "/", ".\\\\"])
def test_names_are_read_and_written_as_the_archive_spells_them(
    encoding: str, drop: str, tmp_path: Path
) -> None:
    plain = drop.replace("\\\\", "\\")

    def spell(name: str) -> bytes:
        return (plain + name.replace("/", "\\")).encode(encoding)

    extra = f'[names]\nencoding = "{encoding}"\nslash = "\\\\"\ndrop = "{drop}"\n'
    files = {"Boot/Ü.txt": b"gull", "b.txt": b"x"} if encoding == "utf-32-le" else FILES
    (tmp_path / "a.k").write_bytes(made(spell, files=files))
    container = open_container(tmp_path / "a.k", parse_layout(HEAD + extra, "k.toml"))
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == files
    first = next(iter(files))
    container.rewrite(tmp_path / "b.k", Changes(add={"é.txt": b"new"}, rename={first: "ö/x.txt"}))
    found = names_in((tmp_path / "b.k").read_bytes())
    assert spell("é.txt").ljust(48, b"\0") in found and spell("ö/x.txt").ljust(48, b"\0") in found
    if encoding.startswith("cp"):
        with pytest.raises(FurnelError, match="cannot be written in"):
            container.rewrite(tmp_path / "c.k", Changes(add={"あ.txt": b""}))


def test_shift_jis_names_are_names(tmp_path: Path) -> None:
    files = {"ふね/かもめ.txt": b"gull"}
    (tmp_path / "a.k").write_bytes(made(lambda name: name.encode("shift-jis"), files=files))
    container = open_container(
        tmp_path / "a.k", parse_layout(HEAD + '[names]\nencoding = "shift-jis"\n', "k.toml")
    )
    assert [entry.path for entry in container.entries()] == list(files)


@pytest.mark.parametrize("encoding", ["utf-16", "utf-7", "iso2022-jp", "base64", "klingon"])
def test_encodings_that_depend_on_what_came_before_are_refused(encoding: str) -> None:
    with pytest.raises(FurnelError, match="depends on|no character encoding"):
        parse_layout(HEAD + f'[names]\nencoding = "{encoding}"\n', "k.toml")


def test_a_name_without_what_stands_before_every_name_is_refused(tmp_path: Path) -> None:
    (tmp_path / "a.k").write_bytes(made(lambda name: (name if "M" in name else "/" + name).encode()))
    with pytest.raises(FurnelError, match="does not begin with"):
        open_container(tmp_path / "a.k", parse_layout(HEAD + '[names]\ndrop = "/"\n', "k.toml"))


PACKERS: dict[str, tuple[Callable[[bytes], bytes], Callable[[bytes], bytes]]] = {
    "gzip": (gzip.compress, gzip.decompress), "bzip2": (bz2.compress, bz2.decompress),
    "xz": (lzma.compress, lzma.decompress),
    "lzma": (lambda data: lzma.compress(data, lzma.FORMAT_ALONE), lambda data: lzma.decompress(data, lzma.FORMAT_ALONE)),
    "lz4-frame": (lz4.frame.compress, lz4.frame.decompress),
}  # fmt: skip


@pytest.mark.parametrize("packed", PACKERS)
def test_entries_are_packed_as_the_library_packs_them(packed: str, tmp_path: Path) -> None:
    pack, unpack = PACKERS[packed]
    layout = parse_layout(HEAD + f'[entry]\npacked = "{packed}"\n', "k.toml")
    (tmp_path / "a.k").write_bytes(made(str.encode, pack))
    container = open_container(tmp_path / "a.k", layout)
    assert {entry.path: container.read(entry.path) for entry in container.entries()} == FILES
    path = "Boote/Otter.txt"
    assert container.peek(path, 5) == b"otter"
    container.rewrite(tmp_path / "b.k", Changes({path: b"longer than before " * 99}))
    data = (tmp_path / "b.k").read_bytes()
    begin, stored, size = struct.unpack_from("<III", data, 4 + 60 + 48)
    assert unpack(data[begin : begin + stored]) == b"longer than before " * 99 and size == 99 * 19
    write_archive(tmp_path / "c.k", FILES, layout)
    write_archive(tmp_path / "d.k", FILES, layout)
    assert (tmp_path / "c.k").read_bytes() == (tmp_path / "d.k").read_bytes()
    spoilt = bytearray((tmp_path / "a.k").read_bytes())
    for cut in (30,) if packed == "lz4-frame" else (9, 30):  # that one has no sum of its own
        (tmp_path / "e.k").write_bytes(spoilt[: len(spoilt) - cut] + bytes(cut))
        with pytest.raises(FurnelError):
            open_container(tmp_path / "e.k", layout).read(path)


@pytest.mark.parametrize("packed", PACKERS)
def test_a_whole_archive_is_packed_so_too(packed: str, tmp_path: Path) -> None:
    pack, unpack = PACKERS[packed]
    layout = parse_layout(HEAD.replace("[start]", f'[whole]\npacked = "{packed}"\n[start]'), "k.toml")
    (tmp_path / "a.k").write_bytes(pack(made(str.encode)))
    container = open_container(tmp_path / "a.k", layout)
    container.rewrite(tmp_path / "b.k", Changes({"Boote/Otter.txt": b"short"}))
    assert b"short" in unpack((tmp_path / "b.k").read_bytes())
    assert open_container(tmp_path / "b.k", layout).read("Boote/Möwe.txt") == FILES["Boote/Möwe.txt"]


@pytest.mark.parametrize("checksum", [False, True])
@pytest.mark.parametrize("told", [False, True])
@given(st.lists(st.one_of(st.binary(max_size=3000), st.integers(1, 300_000).map(bytes)), max_size=5))
def test_what_is_packed_as_a_whole_ends_where_its_frame_does(
    checksum: bool, told: bool, parts: list[bytes]
) -> None:
    data = b"".join(parts)
    packer = zstandard.ZstdCompressor(write_checksum=checksum, write_content_size=told)
    frame = packer.compress(data) + b"\x50\x2a\x4d\x18\x02\0\0\0no" + packer.compress(b"more")
    consumed: list[int] = []
    out = b"".join(PACKINGS["zstd"].pieces(memoryview(frame + b"behind it"), consumed))
    assert out == data + b"more" and consumed == [len(frame)]
    with pytest.raises(zstandard.ZstdError):
        list(PACKINGS["zstd"].pieces(memoryview(frame[:-1]), []))
