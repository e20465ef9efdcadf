"""Packings of strangers by their parameters, against plain readers and writers that know nothing of each other."""

from __future__ import annotations

import struct
import zlib
from collections.abc import Callable
from pathlib import Path

import pytest
import zstandard
from hypothesis import given
from hypothesis import strategies as st

from furnel.containers import Changes, open_container, parse_layout, write_archive
from furnel.containers.packers import PackerPart
from furnel.containers.packing import PACKINGS, pack, unpack
from furnel.errors import FurnelError
from tests.containers.test_proof import CHANGES, FILES, HEAD, Files, Kind, through


def window_read(data: bytes, size: int, window: int, begin: int, fill: int, shape: str) -> bytes:
    """Unpack by the textbook: `ring` pairs have a place of 12 bits and a length of 4, `back` ones a distance and a length."""
    ring, out, at = bytearray([fill]) * window, bytearray(), 0
    place = begin
    while len(out) < size:
        flags, at = data[at], at + 1
        for bit in range(8):
            if len(out) >= size:
                break
            if shape == "ring":
                literal = flags >> bit & 1
            else:
                literal = not flags >> (7 - bit) & 1
            if literal:
                pieces, at = [data[at]], at + 1
                for byte in pieces:
                    out.append(byte)
                    ring[place] = byte
                    place = (place + 1) % window
                continue
            one, two = data[at], data[at + 1]
            at += 2
            if shape == "ring":
                start, length = one | (two & 0xF0) << 4, (two & 0x0F) + 3
            else:
                word = one << 8 | two
                start, length = (place - ((word & 0x7FF) + 1)) % window, (word >> 11) + 2
            for _ in range(length):
                byte = ring[start]
                out.append(byte)
                ring[place] = byte
                place, start = (place + 1) % window, (start + 1) % window
    return bytes(out[:size])


def plain_write(data: bytes, shape: str) -> bytes:
    """Packed without a single pair: every reader has to take that."""
    out = b""
    for at in range(0, len(data), 8):
        out += (b"\xff" if shape == "ring" else b"\0") + data[at : at + 8]
    return out


def bits_read(data: bytes, size: int) -> bytes:
    """PackBits, as TIFF 6.0 (section 9) describes it."""
    out, at = bytearray(), 0
    while len(out) < size:
        code, at = data[at], at + 1
        if code < 128:
            out += data[at : at + code + 1]
            at += code + 1
        elif code > 128:
            out += bytes([data[at]]) * (257 - code)
            at += 1
    return bytes(out)


def bits_write(data: bytes) -> bytes:
    out = b"\x80"  # the code that means nothing
    for at in range(0, len(data), 128):
        piece = data[at : at + 128]
        out += bytes([len(piece) - 1]) + piece
    return out


def up_read(data: bytes, size: int) -> bytes:
    out, at = bytearray(), 0
    while len(out) < size:
        code = data[at]
        if code >= 192:
            out += bytes([data[at + 1]]) * (code - 192 + 4)
            at += 2
        else:
            out += data[at + 1 : at + 1 + code]
            at += 1 + code
    return bytes(out)


def up_write(data: bytes) -> bytes:
    return b"".join(
        bytes([len(data[at : at + 100])]) + data[at : at + 100] for at in range(0, len(data), 100)
    )


def blocks_read(data: bytes, size: int) -> bytes:
    count, out = -(-size // 1000), b""
    at = 3 * count
    for place in range(count):
        stored = int.from_bytes(data[3 * place : 3 * place + 3], "big")
        piece = data[at : at + stored]
        at += stored
        out += piece if stored == min(1000, size - 1000 * place) else zlib.decompress(piece)
    return out


def blocks_write(data: bytes) -> bytes:
    pieces = [data[at : at + 1000] for at in range(0, len(data), 1000)]
    packed = [
        min(piece, zlib.compress(piece, 1), key=len) for piece in pieces
    ]  # as it is, when neither is smaller
    return b"".join(len(piece).to_bytes(3, "big") for piece in packed) + b"".join(packed)


BLOCKS = 'kind = "blocks"\nblock = 1000\npacked = "zlib"\nsizes = "u24"\norder = "big"\n'
RING = 'kind = "window"\nwindow = 4096\nbegin = 4078\nfill = 32\n'
BACK = """kind = "window"
window = 2048
shortest = 2
flags = "high first"
literal = 0
order = "big"
place = [[0, 11]]
length = [[11, 5]]
place-is = "back"
place-add = 1
"""
BITS = 'kind = "runs"\nmark = 129\nrun-least = 2\nruns = "down"\nskip = 128\n'
UP = 'kind = "runs"\nmark = 192\nrun-least = 4\ncopy-least = 0\n'
Reader = Callable[[bytes, int], bytes]
PACKERS: dict[str, tuple[str, Reader, Callable[[bytes], bytes]]] = {
    "ring": (
        RING, lambda data, size: window_read(data, size, 4096, 4078, 32, "ring"), lambda data: plain_write(data, "ring")
    ),
    "back": (BACK, lambda data, size: window_read(data, size, 2048, 0, 0, "back"), lambda data: plain_write(data, "back")),
    "bits": (BITS, bits_read, bits_write),
    "up": (UP, up_read, up_write),
    "blocks": (BLOCKS, blocks_read, blocks_write),
}  # fmt: skip


def key_of(text: str) -> str:
    import tomllib

    return PackerPart.model_validate({"name": "own", **tomllib.loads(text)}).registered()


@pytest.mark.parametrize("name", PACKERS)
@given(
    st.lists(st.tuples(st.binary(min_size=1, max_size=6), st.integers(1, 400)), max_size=12),
    st.binary(max_size=3000),
)
def test_what_is_packed_is_read_by_the_textbook_and_back(
    name: str, runs: list[tuple[bytes, int]], more: bytes
) -> None:
    text, read, write = PACKERS[name]
    data = b"".join(piece * count for piece, count in runs) + more
    key = key_of(text)
    packed = pack(data, key)
    assert read(packed, len(data)) == data and unpack(packed, key, len(data), "x") == data
    assert unpack(write(data), key, len(data), "x") == data


@pytest.mark.parametrize("name", PACKERS)
def test_what_repeats_becomes_small(name: str) -> None:
    data = b"".join(bytes([65 + step % 7]) * 60 for step in range(200))
    assert len(pack(data, key_of(PACKERS[name][0]))) < len(data) / 6


@given(st.binary(max_size=6000), st.data())
def test_blocks_are_read_from_the_middle_without_what_lies_before(data: bytes, pick: st.DataObject) -> None:
    key = key_of(BLOCKS)
    start = pick.draw(st.integers(0, len(data)))
    end = pick.draw(st.integers(start, len(data)))
    packed = bytearray(pack(data * 2, key))
    for place in range(start // 1000):  # what lies before may be spoiled
        at = 3 * -(-2 * len(data) // 1000) + sum(
            int.from_bytes(packed[3 * k : 3 * k + 3], "big") for k in range(place)
        )
        packed[at] ^= 0xFF
    assert PACKINGS[key].span(bytes(packed), start, end, 2 * len(data)) == (data * 2)[start:end]


@given(st.sampled_from(sorted(PACKERS)), st.binary(max_size=200), st.integers(0, 5000))
def test_any_bytes_are_unpacked_or_refused(name: str, data: bytes, size: int) -> None:
    try:
        assert len(unpack(data, key_of(PACKERS[name][0]), size, "x")) == size
    except FurnelError as error:
        assert "own" not in error.what


def kind_of(name: str) -> Kind:
    text, read, write = PACKERS[name]
    layout = (
        HEAD
        + f"""
[start]
fields = [{{ name = "count", type = "u32", holds = "entry count" }}]
[index]
fields = [
  {{ name = "path", type = "text", length = 24, holds = "path" }}, {{ name = "begin", type = "u32", holds = "offset" }},
  {{ name = "stored", type = "u32", holds = "stored size" }}, {{ name = "size", type = "u32", holds = "size" }},
]
[entry]
packed = "own"
[[packers]]
name = "own"
{text}"""
    )

    def made(files: Files) -> bytes:
        rows, body, at = b"", b"", 4 + 36 * len(files)
        for path, data in files.items():
            packed = write(data)
            rows += struct.pack("<24sIII", path.encode(), at + len(body), len(packed), len(data))
            body += packed
        return struct.pack("<I", len(files)) + rows + body

    def found(data: bytes) -> Files:
        out = {}
        for row in range(struct.unpack_from("<I", data)[0]):
            path, begin, stored, size = struct.unpack_from("<24sIII", data, 4 + 36 * row)
            out[path.rstrip(b"\0").decode()] = read(data[begin : begin + stored], size)
        return out

    return Kind(layout, made, found)


@pytest.mark.parametrize("change", CHANGES)
@pytest.mark.parametrize("name", PACKERS)
def test_a_reader_of_its_own_finds_what_was_asked_for(name: str, change: str, tmp_path: Path) -> None:
    through(kind_of(name), change, tmp_path)


@pytest.mark.parametrize(
    ("text", "why"),
    [
        (RING.replace("4078", "5000"), "a place in the window"),
        (RING + "place = [[0, 9]]\nlength = [[8, 4]]\n", "each of them once"),
        (RING + "place = [[0, 20]]\n", "bits of the pair"),
        (BITS.replace("skip = 128", "skip = 7"), "skip is the last code"),
        (RING.replace('"window"', '"windows"'), "window"),
    ],
)
def test_packers_that_cannot_be_are_refused(text: str, why: str) -> None:
    with pytest.raises(FurnelError, match=why):
        parse_layout(kind_of("ring").layout.replace(RING, text), "k")


def test_a_packing_that_nobody_described_is_refused_with_what_there_is() -> None:
    with pytest.raises(FurnelError, match="zlib.*or one of"):
        parse_layout(kind_of("ring").layout.replace('packed = "own"', 'packed = "other"'), "k")
    with pytest.raises(FurnelError, match="known already"):
        parse_layout(kind_of("ring").layout.replace('"own"', '"zlib"'), "k")


def test_a_cut_entry_is_told(tmp_path: Path) -> None:
    kind = kind_of("ring")
    data = bytearray(kind.write({"a": b"abc"}))
    data[4 + 28] = 2  # its stored size
    (tmp_path / "a.k").write_bytes(data)
    container = open_container(tmp_path / "a.k", parse_layout(kind.layout, "k"))
    with pytest.raises(FurnelError, match="another size"):
        container.read("a")


# Zstandard with a dictionary that is an entry of the archive

WORDS = "shared/words.dict"


def worded_write(files: Files) -> bytes:
    files = {WORDS: b"otter kettle fjell gull " * 20, **files}
    known = zstandard.ZstdCompressionDict(files[WORDS])
    at, rows, body = 4 + 37 * len(files), b"", b""
    for name, data in files.items():
        packed = zstandard.ZstdCompressor(dict_data=known).compress(data)
        code = name != WORDS and len(packed) < len(data)
        stored = packed if code else data
        rows += struct.pack("<24sBIII", name.encode(), code, at + len(body), len(stored), len(data))
        body += stored
    return struct.pack("<I", len(files)) + rows + body


def worded_read(data: bytes) -> Files:
    count, out = struct.unpack_from("<I", data)[0], {}
    rows = [struct.unpack_from("<24sBIII", data, 4 + 37 * row) for row in range(count)]
    _, _, at, size, _ = next(row for row in rows if row[0].rstrip(b"\0") == WORDS.encode())
    unpacker = zstandard.ZstdDecompressor(dict_data=zstandard.ZstdCompressionDict(data[at : at + size]))
    for name, code, at, stored, size in rows:
        raw = data[at : at + stored]
        out[name.rstrip(b"\0").decode()] = unpacker.decompress(raw) if code else raw
        assert len(out[name.rstrip(b"\0").decode()]) == size
    del out[WORDS]
    return out


WORDED = (
    HEAD
    + """
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 24, holds = "path" }, { name = "how", type = "u8", holds = "packing" },
  { name = "at", type = "u32", holds = "offset" }, { name = "stored", type = "u32", holds = "stored size" },
  { name = "size", type = "u32", holds = "size" },
]
[entry]
packings = { 1 = "worded", 0 = "none" }
[[packers]]
name = "worded"
kind = "dictionary"
dictionary = "shared/words.dict"
"""
)


@pytest.mark.parametrize("change", CHANGES)
def test_entries_that_need_a_dictionary_are_changed(change: str, tmp_path: Path) -> None:
    file, out = tmp_path / "a.k", tmp_path / "b.k"
    file.write_bytes(worded_write(FILES))
    opened = open_container(file, parse_layout(WORDED, "k"))
    assert {one.path: opened.read(one.path) for one in opened.entries() if one.path != WORDS} == FILES
    opened.rewrite(out, CHANGES[change][0])
    with pytest.raises(FurnelError, match="others are packed with this dictionary"):
        opened.rewrite(out, Changes(replace={WORDS: b"other words"}))
    opened.close()
    assert worded_read(out.read_bytes()) == CHANGES[change][1](dict(FILES))


def test_new_archives_are_packed_with_their_dictionary_and_not_without(tmp_path: Path) -> None:
    words, data = b"otter kettle fjell gull " * 20, b"kettle gull otter fjell " * 2
    layout = parse_layout(WORDED, "k")
    write_archive(tmp_path / "n.k", {"a.txt": data, WORDS: words}, layout)
    assert worded_read((tmp_path / "n.k").read_bytes()) == {"a.txt": data}
    assert (tmp_path / "n.k").stat().st_size < 4 + 2 * 37 + len(words) + len(data)
    with pytest.raises(FurnelError, match="that is not among them"):
        write_archive(tmp_path / "m.k", {"a.txt": data}, layout)
    assert not (tmp_path / "m.k").exists()
    gone = worded_write(FILES).replace(WORDS.encode(), b"shared/wordz.dict")
    (tmp_path / "g.k").write_bytes(gone)
    with pytest.raises(FurnelError, match="no entry 'shared/words.dict'"):
        open_container(tmp_path / "g.k", layout)
    with pytest.raises(FurnelError, match="not packed with itself"):
        parse_layout(WORDED.replace('0 = "none"', '0 = "zlib"'), "k")
