"""How entries are packed inside an archive."""

from __future__ import annotations

import zlib
from typing import BinaryIO

import lz4.block
import zstandard

from furnel.containers.container import MOST_ENTRY_BYTES
from furnel.containers.schema import Packing
from furnel.errors import FurnelError

_MOST_RATIO = {"none": 1, "zlib": 1100, "deflate": 1100, "lz4": 260, "zstd": 1 << 17}
_PIECE = 1 << 20


def pack(data: bytes, packing: Packing, longer: int = 0) -> bytes:
    """`data` packed, the same bytes every time.

    `longer` makes it a few bytes longer for each of it, for who needs another length: by blocks that hold nothing
    (RFC 1951, 3.2.6), by a frame that readers skip (RFC 8878, 3.1.2).
    """
    if packing in ("zlib", "deflate"):
        work = _deflater(packing)
        parts = [work.compress(data[at : at + 1]) + work.flush(zlib.Z_PARTIAL_FLUSH) for at in range(longer)]
        return b"".join(parts) + work.compress(data[longer:]) + work.flush()
    if packing == "lz4":
        if longer:  # a search that looks at fewer places finds less
            return bytes(lz4.block.compress(data, mode="fast", acceleration=longer, store_size=False))
        return bytes(lz4.block.compress(data, mode="high_compression", store_size=False))
    if packing == "zstd":
        skipped = b"\x50\x2a\x4d\x18" + longer.to_bytes(4, "little") + bytes(longer) if longer else b""
        return zstandard.ZstdCompressor(level=12).compress(data) + skipped
    return data


def pack_stream(source: BinaryIO, out: BinaryIO, packing: Packing) -> None:
    """All of `source` packed into `out`, piece by piece where the packing allows it."""
    if packing in ("zlib", "deflate"):
        work = _deflater(packing)
        while piece := source.read(_PIECE):
            out.write(work.compress(piece))
        out.write(work.flush())
    elif packing == "zstd":
        size = source.seek(0, 2) - source.seek(0)
        zstandard.ZstdCompressor(level=12).copy_stream(source, out, size=size)
    elif packing == "lz4":
        out.write(pack(source.read(), packing))
    else:
        while piece := source.read(_PIECE):
            out.write(piece)


def unpack(data: bytes | memoryview, packing: Packing, size: int, where: object) -> bytes:
    """Exactly `size` bytes, unpacked. Refuses damage, another size, and sizes that `data` cannot hold."""
    if size > MOST_ENTRY_BYTES or size > len(data) * _MOST_RATIO[packing] + 64:
        raise FurnelError(
            "Unpacking",
            where=where,
            why=f"{len(data)} stored bytes cannot hold the {size} that its index says",
        )
    out = _unpacked(data, packing, size, where)
    if len(out) != size:
        raise FurnelError(
            "Unpacking", where=where, why=f"it unpacks to another size than the {size} bytes of its index"
        )
    return out


def unpack_any(data: bytes | memoryview, packing: Packing, most: int, where: object) -> bytes:
    """Everything that is packed in `data`, whose size nobody told, up to `most` bytes."""
    if packing == "lz4":
        raise FurnelError(
            "Unpacking", where=where, why="lz4 blocks do not say their size and neither does the index",
            remedy="Give the layout a field that holds the size",
        )  # fmt: skip
    out = _unpacked(data, packing, most, where)
    if len(out) > most:
        raise FurnelError("Unpacking", where=where, why=f"it unpacks to more than {most} bytes")
    return out


def unpack_start(data: bytes | memoryview, packing: Packing, size: int, whole: int, where: object) -> bytes:
    """The first `size` bytes of an entry of `whole` bytes."""
    wanted = max(min(size, whole), 1)
    try:
        if packing in ("zlib", "deflate"):
            return _inflater(packing).decompress(data, wanted)[:whole]
        if packing == "zstd":
            with zstandard.ZstdDecompressor(max_window_size=_WINDOW).stream_reader(data) as stream:
                return stream.read(wanted)[:whole]
    except (zlib.error, zstandard.ZstdError) as error:
        raise _damaged(packing, where, error) from error
    return unpack(data, packing, whole, where)[:size]


_WINDOW = 1 << 27


def _unpacked(data: bytes | memoryview, packing: Packing, size: int, where: object) -> bytes:
    """What `data` unpacks to, cut one byte after `size`."""
    try:
        if packing in ("zlib", "deflate"):
            work = _inflater(packing)
            out = work.decompress(data, size + 1)
            if not work.eof and len(out) <= size:
                raise zlib.error("the stream ends too soon")
            return out
        if packing == "lz4":
            return bytes(lz4.block.decompress(data, uncompressed_size=size))
        if packing == "zstd":
            with zstandard.ZstdDecompressor(max_window_size=_WINDOW).stream_reader(data) as stream:
                return stream.read(size + 1)
    except (
        zlib.error, lz4.block.LZ4BlockError, zstandard.ZstdError, ValueError, MemoryError, OverflowError,
    ) as error:  # fmt: skip
        raise _damaged(packing, where, error) from error
    return bytes(data)


def _damaged(packing: Packing, where: object, error: Exception) -> FurnelError:
    return FurnelError("Unpacking", where=where, why=f"the {packing} data is damaged ({error})")


def _deflater(packing: Packing) -> zlib._Compress:
    return zlib.compressobj(9, zlib.DEFLATED, 15 if packing == "zlib" else -15)


def _inflater(packing: Packing) -> zlib._Decompress:
    return zlib.decompressobj(15 if packing == "zlib" else -15)
