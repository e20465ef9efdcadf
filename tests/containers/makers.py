"""Archives of made-up kinds, written with nothing but struct, zlib and their like."""

from __future__ import annotations

import hashlib
import io
import struct
import zlib

import lz4.block
import zstandard


def crate(entries: dict[str, bytes], packings: tuple[int, ...] = (0, 1, 2, 3)) -> bytes:
    body = b""
    for number, (path, data) in enumerate(entries.items()):
        packing = packings[number % len(packings)]
        stored = [
            lambda d: d,
            lambda d: zlib.compress(d, 9),
            lambda d: lz4.block.compress(d, mode="high_compression", store_size=False),
            lambda d: zstandard.ZstdCompressor(level=12).compress(d),
        ][packing](data)
        name = path.encode()
        record = bytes([len(name)]) + name + struct.pack(">H", packing | 0x8000 | 0x0550)
        record += leb128(len(data)) + leb128(len(stored)) + struct.pack(">I", zlib.crc32(data))
        record += bytes(-len(record) % 4)
        body += record + stored + bytes(-(17 + len(body) + len(record) + len(stored)) % 4)
    return b"CRATE" + struct.pack(">IQ", len(entries), 17 + len(body)) + body


def leb128(number: int) -> bytes:
    out = b""
    while True:
        number, low = number >> 7, number & 127
        if not number:
            return out + bytes([low])
        out += bytes([low | 128])


def casket(entries: dict[str, bytes]) -> bytes:
    packed = {}
    for path, data in entries.items():
        work = zlib.compressobj(9, zlib.DEFLATED, -15)
        packed[path] = work.compress(data) + work.flush()
    base, index, squeezed = 0, b"", b""
    for _ in range(20):  # the data starts behind the packed index, whose length depends on nothing but itself
        index, at = b"", 0
        for path, data in entries.items():
            at += -(base + at) % 8
            index += path.replace("/", "\\").encode() + b"\0"
            index += struct.pack("<QQQI", at, len(packed[path]), len(data), 20240131)
            index += hashlib.sha256(packed[path]).digest()
            at += len(packed[path])
        squeezed = zlib.compress(index, 9)
        if base == 20 + len(squeezed):
            break
        base = 20 + len(squeezed)
    out = b"\xc5K\r\n" + struct.pack("<IIII", len(entries), len(index), len(squeezed), zlib.adler32(squeezed))
    out += squeezed
    for path in entries:
        out += b"\xaa" * (-len(out) % 8) + packed[path]
    return out


def fnv1a_64(name: bytes) -> int:
    code = 0xCBF29CE484222325
    for byte in name:
        code = (code ^ byte) * 0x100000001B3 & 0xFFFFFFFFFFFFFFFF
    return code


def drawer(entries: dict[str, bytes], season: int = 9) -> bytes:
    codes = sorted((fnv1a_64(path.lower().replace("/", "\\").encode()), path) for path in entries)
    rows, body = b"", b""
    start = 8 + 24 * len(codes)
    start += -start % 2048
    for code, path in codes:
        data = entries[path]
        packed = zstandard.ZstdCompressor(level=12).compress(data)
        stored = packed if len(packed) < len(data) else data
        rows += struct.pack("<QIIII", code, (start + len(body)) // 2048, len(data), len(stored), 3)
        body += stored + bytes(-len(stored) % 2048)
    head = b"DRWR" + struct.pack("<BBH", 11, season, len(codes)) + rows
    return head + bytes(start - len(head)) + body


def satchel(entries: dict[str, bytes]) -> bytes:
    out, rows, names = b"SATCHEL1", b"", b""
    for path, data in entries.items():
        out += bytes(-len(out) % 16)
        rows += struct.pack("<IQI", len(names), len(out), len(data))
        names += struct.pack("<H", len(path)) + path.encode()
        out += b"ST" + bytes([len(path)]) + path.encode() + struct.pack("<I", len(data)) + data
    squeezed = zlib.compress(names, 9)
    at = len(out)
    out += rows + squeezed
    footer = struct.pack("<QIQI", at, len(entries), at + len(rows), len(squeezed))
    return out + footer + struct.pack("<I", zlib.crc32(out + footer + bytes(4)))


def parcel(rooms: dict[str, tuple[bytes, dict[str, list[bytes]]]]) -> bytes:
    """Rooms by name: a note, and desks by name with their pictures."""

    def chunk(tag: bytes, data: bytes) -> bytes:
        return tag + struct.pack("<I", len(data) + 8) + data

    plain = chunk(b"HEAD", b"\1\2\3")
    for name, (note, desks) in rooms.items():
        inside = chunk(b"NAME", name.encode()) + chunk(b"NOTE", note)
        for desk, pictures in desks.items():
            inside += chunk(
                b"DESK", chunk(b"NAME", desk.encode()) + b"".join(chunk(b"PICT", p) for p in pictures)
            )
        plain += chunk(b"ROOM", inside)
    plain += chunk(b"DONE", b"") + b"and what lies behind"
    stream = io.BytesIO()
    zstandard.ZstdCompressor(level=12).copy_stream(io.BytesIO(plain), stream, size=len(plain))
    return b"PRCL" + struct.pack("<I", len(plain)) + stream.getvalue()
