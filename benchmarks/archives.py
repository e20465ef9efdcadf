"""Archives: what reading back costs beside the writing alone, how long indexes of 200,000 entries are read beside plain struct,
how fast noise is looked through for known files, what a guess adds to that, and how fast packings of a game's own are read."""

from __future__ import annotations

import struct
import tempfile
import time
import zlib
from collections.abc import Callable
from functools import partial
from pathlib import Path

import numpy as np

from furnel.containers import Changes, Layout, find_files, guess, open_container, parse_layout, write_archive
from furnel.containers.packers import PackerPart
from furnel.containers.packing import pack, unpack
from furnel.containers.proof import Proof

ENTRIES, EACH, NOISE, LONG = 200, 2 << 20, 256 << 20, 200_000
LAYOUT = """furnel-layout = 1
name = "plain"
title = "an index in front"
files = ["*.plain"]
[start]
fields = [{ name = "count", type = "u32", holds = "entry count" }]
[index]
fields = [
  { name = "path", type = "text", length = 48, holds = "path" }, { name = "begin", type = "u64", holds = "offset" },
  { name = "size", type = "u64", holds = "size" },
]
"""
CHAIN = """furnel-layout = 1
name = "chain"
title = "one after the other"
files = ["*.chain"]
[chain]
fields = [
  { name = "tag", type = "text", length = 4, holds = "tag" }, { name = "size", type = "u32", holds = "size" },
  { name = "path", type = "text", ends = "u16", holds = "path" },
]
"""
Listed = list[tuple[str, int, int]]


def main() -> None:
    rng = np.random.default_rng(1)
    data = rng.integers(0, 256, EACH, np.uint8).tobytes()
    layout = parse_layout(LAYOUT, "plain")
    with tempfile.TemporaryDirectory(dir=Path.cwd()) as scratch:
        folder = Path(scratch)
        write_archive(folder / "a.plain", {f"e/{number:04}.bin": data for number in range(ENTRIES)}, layout)
        container = open_container(folder / "a.plain", layout)

        def rewrite() -> None:
            container.rewrite(folder / "b.plain", Changes({"e/0001.bin": data + b"x"}))

        rewrite()
        proved = min(_seconds(rewrite) for _ in range(3))
        proof = Proof.__call__
        Proof.__call__ = lambda self, written: None  # type: ignore[method-assign]
        plain = min(_seconds(rewrite) for _ in range(3))
        Proof.__call__ = proof  # type: ignore[method-assign]
        container.close()
    print(
        f"Rewriting {ENTRIES * EACH >> 20} MiB and reading it back: {proved:.2f} s, {proved / plain:.2f} × the writing alone"
    )
    _long()
    noise = memoryview(rng.integers(0, 256, NOISE, np.uint8).tobytes())
    find_files(noise[: 8 << 20])  # once per program: the kernel is read
    took = _seconds(lambda: find_files(noise))
    print(f"Looking through noise for known files: {(NOISE >> 20) / took:.0f} MiB/s")
    _guessing(bytes(noise[: 60 << 20]))
    _own_packings(rng)


def _guessing(noise: bytes) -> None:
    """A guess where there is nothing to be found, beside the looking for known files alone."""
    with tempfile.TemporaryDirectory(dir=Path.cwd()) as scratch:
        path = Path(scratch) / "noise.bin"
        path.write_bytes(noise)
        took, alone = _seconds(lambda: guess(path)), _seconds(lambda: find_files(memoryview(noise)))
    print(
        f"Guessing what {len(noise) >> 20} MiB of noise are: {took:.1f} s, {took / alone:.0f} × looking for known files"
    )


def _own_packings(rng: np.random.Generator) -> None:
    """Packings by their parameters, unpacked beside zlib's own data of the same content."""
    words = [rng.bytes(9) for _ in range(300)]
    text = b"".join(words[place] for place in rng.integers(0, 300, 400_000))[: 3 << 20]
    runs = np.repeat(rng.integers(0, 40, 1 << 20, dtype=np.uint8), rng.integers(1, 12, 1 << 20)).tobytes()[
        : 4 << 20
    ]
    for kind, data in (("window", text), ("runs", runs)):
        key = PackerPart.model_validate({"name": "own", "kind": kind}).registered()
        packed, peer = pack(data, key), zlib.compress(data, 9)
        unpack(packed, key, len(data), "")
        took = min(_seconds(partial(unpack, packed, key, len(data), "")) for _ in range(3))
        theirs = min(_seconds(partial(zlib.decompress, peer)) for _ in range(3))
        rate = len(data) / took / 1e6
        print(
            f"Unpacking {len(data) >> 20} MiB of a game's own {kind}: {rate:.0f} MB/s, {took / theirs:.1f} × zlib's time"
        )


def _long() -> None:
    """Lists 200,000 entries of fixed records, of records of any length, and of a chain."""
    names = [f"entries/{number:06}.bin".encode() for number in range(LONG)]
    fixed, told = 4 + LONG * 64, 4 + sum(len(name) + 18 for name in names)
    count = struct.pack("<I", LONG)
    body, at = bytes(16 * LONG), range(0, 16 * LONG, 16)
    rows = [struct.pack("<48sQQ", name, fixed + place, 16) for name, place in zip(names, at, strict=True)]
    long = [
        struct.pack("<H", len(name)) + name + struct.pack("<QQ", told + place, 16)
        for name, place in zip(names, at, strict=True)
    ]
    files: dict[str, tuple[str, bytes, Callable[[bytes], Listed]]] = {
        "fixed records": (LAYOUT, count + b"".join(rows) + body, _fixed),
        "records of any length": (
            LAYOUT.replace("length = 48", 'ends = "u16"'), count + b"".join(long) + body, _told,
        ),
        "a chain": (
            CHAIN, b"".join(b"DATA" + struct.pack("<IH", 8, len(name)) + name + bytes(8) for name in names), _linked,
        ),
    }  # fmt: skip
    with tempfile.TemporaryDirectory(dir=Path.cwd()) as scratch:
        for title, (text, data, plain) in files.items():
            layout = parse_layout(text, "long")
            path = Path(scratch) / "a.long"
            path.write_bytes(data)

            def ours(path: Path = path, layout: Layout = layout) -> None:
                container = open_container(path, layout)
                assert len(container.entries()) == LONG
                container.close()

            took = min(_seconds(ours) for _ in range(3))
            peer = min(_seconds(lambda path=path, plain=plain: plain(path.read_bytes())) for _ in range(3))  # type: ignore[misc]
            print(f"Listing {LONG:,} entries of {title}: {took:.2f} s, {took / peer:.1f} × plain struct")
            one, out = Changes({names[7].decode(): bytes(99)}), Path(scratch) / "b.long"
            container = open_container(path, layout)
            changed = _seconds(lambda container=container, one=one, out=out: container.rewrite(out, one))  # type: ignore[misc]
            container.close()
            print(
                f"Changing one of them, proof and all: {changed:.2f} s, {changed / took:.1f} × listing them"
            )
            if plain is _fixed:
                alone = min(
                    _seconds(lambda path=path, out=out: out.write_bytes(_changed(path.read_bytes())))
                    for _ in range(3)
                )  # type: ignore[misc]
                print(
                    f"  which plain struct, without any proof, does in {alone:.2f} s: {changed / alone:.1f} ×"
                )


def _fixed(data: bytes) -> Listed:
    rows = struct.iter_unpack("<48sQQ", data[4 : 4 + LONG * 64])
    return [(name.rstrip(b"\0").decode(), begin, size) for name, begin, size in rows]


def _changed(data: bytes) -> bytes:
    """The archive of fixed records with 99 bytes in the place of the eighth entry, and what comes after it moved."""
    rows = list(struct.iter_unpack("<48sQQ", data[4 : 4 + LONG * 64]))
    out, at = [], 4 + LONG * 64
    for place, (name, begin, size) in enumerate(rows):
        told = 99 if place == 7 else size
        out.append((name, at, told, bytes(99) if place == 7 else data[begin : begin + size]))
        at += told
    head = b"".join(struct.pack("<48sQQ", name, begin, size) for name, begin, size, _ in out)
    return data[:4] + head + b"".join(content for *_, content in out)


def _told(data: bytes) -> Listed:
    out, at = [], 4
    for _ in range(LONG):
        end = at + 2 + struct.unpack_from("<H", data, at)[0]
        out.append((data[at + 2 : end].decode(), *struct.unpack_from("<QQ", data, end)))
        at = end + 16
    return out


def _linked(data: bytes) -> Listed:
    out, at = [], 0
    while at < len(data):
        size, length = struct.unpack_from("<IH", data, at + 4)
        begin = at + 10 + length
        out.append((data[at + 10 : begin].decode(), begin, size))
        at = begin + size
    return out


def _seconds(work: Callable[[], object]) -> float:
    begin = time.perf_counter()
    work()
    return time.perf_counter() - begin
