"""How entries are packed inside an archive."""

from __future__ import annotations

import zlib

import lz4.block

from furnel.containers.container import MOST_ENTRY_BYTES
from furnel.containers.schema import Packing
from furnel.errors import FurnelError

_MOST_RATIO = {"none": 1, "zlib": 1100, "lz4": 260}


def pack(data: bytes, packing: Packing) -> bytes:
    """`data` packed, the same bytes every time."""
    if packing == "zlib":
        return zlib.compress(data, 9)
    if packing == "lz4":
        return bytes(lz4.block.compress(data, mode="high_compression", store_size=False))
    return data


def unpack(data: bytes | memoryview, packing: Packing, size: int, where: object) -> bytes:
    """Exactly `size` bytes, unpacked. Refuses damage, another size, and sizes that `data` cannot hold."""
    if size > MOST_ENTRY_BYTES or size > len(data) * _MOST_RATIO[packing] + 64:
        raise FurnelError(
            "Unpacking",
            where=where,
            why=f"{len(data)} stored bytes cannot hold the {size} that its index says",
        )
    try:
        if packing == "zlib":
            work = zlib.decompressobj()
            out = work.decompress(data, size + 1)
            if not work.eof and len(out) <= size:
                raise zlib.error("the stream ends too soon")
        elif packing == "lz4":
            out = bytes(lz4.block.decompress(data, uncompressed_size=size))
        else:
            out = bytes(data)
    except (zlib.error, lz4.block.LZ4BlockError, ValueError, MemoryError) as error:
        raise FurnelError("Unpacking", where=where, why=f"the {packing} data is damaged ({error})") from error
    if len(out) != size:
        raise FurnelError(
            "Unpacking", where=where, why=f"it unpacks to another size than the {size} bytes of its index"
        )
    return out


def unpack_start(data: bytes | memoryview, packing: Packing, size: int, whole: int, where: object) -> bytes:
    """The first `size` bytes of an entry of `whole` bytes."""
    if packing == "zlib":
        try:
            return zlib.decompressobj().decompress(data, max(min(size, whole), 1))
        except zlib.error as error:
            raise FurnelError("Unpacking", where=where, why=f"the zlib data is damaged ({error})") from error
    return unpack(data, packing, whole, where)[:size]
