"""How entries are packed inside an archive. One more packing is a class here and a line in `PACKINGS`."""

from __future__ import annotations

import bz2
import lzma
import re
import zlib
from collections.abc import Iterator
from typing import Any, BinaryIO, ClassVar

import lz4.block
import lz4.frame
import zstandard

from furnel.containers.container import MOST_ENTRY_BYTES
from furnel.errors import FurnelError

Data = bytes | memoryview
_PIECE = 1 << 20
_WINDOW = 1 << 27
_ANY: tuple[type[Exception], ...] = (ValueError, MemoryError, OverflowError)


class PackingType:
    """A packing. `most_ratio` is how much larger than stored its content can be in an honest file, `damage` what the library
    raises. `tells_end` when packed data says itself where it ends.
    """

    name: ClassVar[str]
    most_ratio: ClassVar[int]
    damage: ClassVar[tuple[type[Exception], ...]] = ()
    tells_end: ClassVar[bool] = True

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        """`data` packed, the same bytes every time; `longer` makes it a few bytes longer for each of it, where it can."""
        raise NotImplementedError

    def pack_stream(self, source: BinaryIO, out: BinaryIO) -> None:
        """All of `source` packed into `out`, piece by piece where the packing allows it."""
        out.write(self.pack(source.read()))

    def unpack(self, data: Data, most: int) -> bytes:
        """What `data` unpacks to, cut one byte after `most`. Raises one of `damage`."""
        raise NotImplementedError

    def start(self, data: Data, size: int) -> bytes | None:
        """The first bytes, `size` or fewer, without the rest; None where that cannot be had. Raises one of `damage`."""
        return None

    def span(self, data: Data, start: int, end: int, whole: int) -> bytes | None:
        """Bytes `start` to `end` of `whole` without what lies before; None where that cannot be had. Raises one of `damage`."""
        return None

    def pieces(self, data: memoryview, consumed: list[int] | None = None) -> Iterator[bytes]:
        """What `data` unpacks to, piece by piece; `consumed` gets how many bytes that took. Raises one of `damage`."""
        raise NotImplementedError


class _Plain(PackingType):
    name = "none"
    most_ratio = 1

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        return data

    def pack_stream(self, source: BinaryIO, out: BinaryIO) -> None:
        while piece := source.read(_PIECE):
            out.write(piece)

    def unpack(self, data: Data, most: int) -> bytes:
        return bytes(data)

    def pieces(self, data: memoryview, consumed: list[int] | None = None) -> Iterator[bytes]:
        for at in range(0, len(data), _PIECE):
            yield bytes(data[at : at + _PIECE])
        if consumed is not None:
            consumed.append(len(data))


class _Zlib(PackingType):
    """Deflate (RFC 1951), in zlib's wrapping (RFC 1950)."""

    name = "zlib"
    most_ratio = 1100
    damage = (zlib.error,)
    wrapping: ClassVar[int] = 15

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        """Longer by blocks that hold nothing (RFC 1951, 3.2.6)."""
        work = zlib.compressobj(9, zlib.DEFLATED, self.wrapping)
        parts = [work.compress(data[at : at + 1]) + work.flush(zlib.Z_PARTIAL_FLUSH) for at in range(longer)]
        return b"".join(parts) + work.compress(data[longer:]) + work.flush()

    def pack_stream(self, source: BinaryIO, out: BinaryIO) -> None:
        work = zlib.compressobj(9, zlib.DEFLATED, self.wrapping)
        while piece := source.read(_PIECE):
            out.write(work.compress(piece))
        out.write(work.flush())

    def unpack(self, data: Data, most: int) -> bytes:
        work = zlib.decompressobj(self.wrapping)
        out = work.decompress(data, most + 1)
        if not work.eof and len(out) <= most:
            raise zlib.error("the stream ends too soon")
        return out

    def start(self, data: Data, size: int) -> bytes:
        return zlib.decompressobj(self.wrapping).decompress(data, size)

    def pieces(self, data: memoryview, consumed: list[int] | None = None) -> Iterator[bytes]:
        work = zlib.decompressobj(self.wrapping)
        end = len(data)
        for at in range(0, len(data), _PIECE):
            piece = bytes(data[at : at + _PIECE])
            while piece and not work.eof:
                yield work.decompress(piece, _PIECE)
                piece = work.unconsumed_tail
            if work.eof:
                end = min(at + _PIECE, len(data)) - len(work.unused_data)
                break
        yield work.flush()
        if not work.eof:
            raise zlib.error("the stream ends too soon")
        if consumed is not None:
            consumed.append(end)


class _Deflate(_Zlib):
    name = "deflate"
    wrapping = -15


class _Lz4(PackingType):
    """A bare block, without the frame around it (LZ4 block format description)."""

    name = "lz4"
    most_ratio = 260
    damage = (lz4.block.LZ4BlockError,)
    tells_end = False

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        """Longer by a search that looks at fewer places and finds less."""
        if longer:
            return bytes(lz4.block.compress(data, mode="fast", acceleration=longer, store_size=False))
        return bytes(lz4.block.compress(data, mode="high_compression", store_size=False))

    def unpack(self, data: Data, most: int) -> bytes:
        return bytes(lz4.block.decompress(data, uncompressed_size=most))


class Zstd(PackingType):
    """A frame of Zstandard (RFC 8878), with a dictionary (section 5; or bytes as they are) where there is one."""

    name = "zstd"
    most_ratio = 1 << 17
    damage = (zstandard.ZstdError,)

    def __init__(self, dictionary: bytes = b"") -> None:
        self.dictionary = zstandard.ZstdCompressionDict(dictionary) if dictionary else None

    def _packer(self) -> zstandard.ZstdCompressor:
        return zstandard.ZstdCompressor(level=12, dict_data=self.dictionary)

    def _unpacker(self) -> zstandard.ZstdDecompressor:
        return zstandard.ZstdDecompressor(dict_data=self.dictionary, max_window_size=_WINDOW)

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        """Longer by a frame that readers skip (RFC 8878, 3.1.2)."""
        skipped = b"\x50\x2a\x4d\x18" + longer.to_bytes(4, "little") + bytes(longer) if longer else b""
        return self._packer().compress(data) + skipped

    def pack_stream(self, source: BinaryIO, out: BinaryIO) -> None:
        size = source.seek(0, 2) - source.seek(0)
        self._packer().copy_stream(source, out, size=size)

    def unpack(self, data: Data, most: int) -> bytes:
        return self.start(data, most + 1)

    def start(self, data: Data, size: int) -> bytes:
        with self._unpacker().stream_reader(data) as stream:
            return stream.read(size)

    def pieces(self, data: memoryview, consumed: list[int] | None = None) -> Iterator[bytes]:
        end = _frames_end(data) if consumed is not None else len(data)
        unpacker = self._unpacker()
        with unpacker.stream_reader(data[:end], read_across_frames=True) as stream:
            while piece := stream.read(_PIECE):
                yield piece
        if consumed is not None:
            consumed.append(end)


_SKIPPED = re.compile(rb"[\x50-\x5f]\x2a\x4d\x18", re.DOTALL)


def _frames_end(data: memoryview) -> int:
    """Where the last of some frames ends, by the sizes of their blocks (RFC 8878, 3.1). Raises ZstdError when it is cut short,
    or none begins there."""
    end = 0
    while (magic := bytes(data[end : end + 4])) == zstandard.FRAME_HEADER or _SKIPPED.match(magic):
        if magic == zstandard.FRAME_HEADER:
            at, last = end + zstandard.frame_header_size(data[end:]), 0
            while not last and at <= len(data):
                head = int.from_bytes(data[at : at + 3], "little")
                last, repeats = head & 1, head >> 1 & 3 == 1  # such a block has one byte, whatever its size
                at += 3 + (1 if repeats else head >> 3)
            end = at + 4 * zstandard.get_frame_parameters(data[end:]).has_checksum
        else:
            end += 8 + int.from_bytes(data[end + 4 : end + 8], "little")
        if end > len(data):
            raise zstandard.ZstdError("the frame ends too soon")
    if not end:
        raise zstandard.ZstdError("no frame begins there")
    return end


class _Gzip(_Zlib):
    """Deflate in gzip's wrapping (RFC 1952), without a name and a time."""

    name = "gzip"
    wrapping = 31


class _Steady(PackingType):
    """What the standard library's and lz4's decompressors have in common: they take pieces, and tell where the data ends."""

    def compressor(self) -> Any:
        raise NotImplementedError

    def decompressor(self) -> Any:
        raise NotImplementedError

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        work = self.compressor()
        return bytes(work.compress(data) + work.flush())

    def pack_stream(self, source: BinaryIO, out: BinaryIO) -> None:
        work = self.compressor()
        while piece := source.read(_PIECE):
            out.write(work.compress(piece))
        out.write(work.flush())

    def unpack(self, data: Data, most: int) -> bytes:
        work = self.decompressor()
        found = self._take(work, data, most + 1)
        if len(found) <= most and not work.eof:
            raise EOFError("the stream ends too soon")
        return found

    def start(self, data: Data, size: int) -> bytes:
        return self._take(self.decompressor(), data, size)

    def _take(self, work: Any, data: Data, size: int) -> bytes:
        out, left = bytearray(), bytes(data)
        while len(out) < size and not work.eof:
            piece = work.decompress(left, size - len(out))
            left = b""
            if not piece and work.needs_input:
                break
            out += piece
        return bytes(out)

    def pieces(self, data: memoryview, consumed: list[int] | None = None) -> Iterator[bytes]:
        work, end = self.decompressor(), len(data)
        for at in range(0, len(data), _PIECE):
            piece = bytes(data[at : at + _PIECE])
            while not work.eof:
                found = work.decompress(piece, _PIECE)
                piece = b""
                if found:
                    yield found
                elif work.needs_input:
                    break
            if work.eof:
                end = min(at + _PIECE, len(data)) - len(work.unused_data or b"")
                break
        if not work.eof:
            raise EOFError("the stream ends too soon")
        if consumed is not None:
            consumed.append(end)


class _Bzip2(_Steady):
    name = "bzip2"
    most_ratio = 1 << 15
    damage = (OSError, EOFError, ValueError)

    def compressor(self) -> Any:
        return bz2.BZ2Compressor(9)

    def decompressor(self) -> Any:
        return bz2.BZ2Decompressor()


class _Lzma(_Steady):
    """LZMA with its own header of 13 bytes."""

    name = "lzma"
    most_ratio = 1 << 14
    damage = (lzma.LZMAError, EOFError, ValueError)
    form: ClassVar[int] = lzma.FORMAT_ALONE

    def compressor(self) -> Any:
        return lzma.LZMACompressor(self.form, preset=6)

    def decompressor(self) -> Any:
        return lzma.LZMADecompressor(self.form, memlimit=_WINDOW * 2)


class _Xz(_Lzma):
    name = "xz"
    form = lzma.FORMAT_XZ


class _Lz4Frame(_Steady):
    """LZ4 in its frame (LZ4 frame format description, 1.6.3)."""

    name = "lz4-frame"
    most_ratio = 260
    damage = (RuntimeError, EOFError, ValueError)

    def pack(self, data: bytes, longer: int = 0) -> bytes:
        return bytes(lz4.frame.compress(data, compression_level=9, store_size=False))

    def pack_stream(self, source: BinaryIO, out: BinaryIO) -> None:
        out.write(self.pack(source.read()))

    def decompressor(self) -> Any:
        return lz4.frame.LZ4FrameDecompressor()


PACKINGS: dict[str, PackingType] = {
    one.name: one
    for one in (
        _Plain(), _Zlib(), _Deflate(), _Gzip(), _Lz4(), _Lz4Frame(), Zstd(), _Bzip2(), _Lzma(), _Xz(),
    )
}  # fmt: skip


def pack(data: bytes, packing: str, longer: int = 0) -> bytes:
    """`data` packed, the same bytes every time; `longer` by a few bytes for each of it, for who needs another length."""
    return PACKINGS[packing].pack(data, longer)


def pack_stream(source: BinaryIO, out: BinaryIO, packing: str) -> None:
    """All of `source` packed into `out`, piece by piece where the packing allows it."""
    PACKINGS[packing].pack_stream(source, out)


def unpack(data: Data, packing: str, size: int, where: object) -> bytes:
    """Exactly `size` bytes, unpacked. Refuses damage, another size, and sizes that `data` cannot hold."""
    if size > MOST_ENTRY_BYTES or size > len(data) * PACKINGS[packing].most_ratio + 64:
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


def unpack_any(data: Data, packing: str, most: int, where: object) -> bytes:
    """Everything that is packed in `data`, whose size nobody told, up to `most` bytes."""
    if not PACKINGS[packing].tells_end:
        raise FurnelError(
            "Unpacking",
            where=where,
            why=f"{PACKINGS[packing].name} blocks do not say their size and neither does the index",
            remedy="Give the layout a field that holds the size",
        )
    out = _unpacked(data, packing, most, where)
    if len(out) > most:
        raise FurnelError("Unpacking", where=where, why=f"it unpacks to more than {most} bytes")
    return out


def unpack_start(data: Data, packing: str, size: int, whole: int, where: object) -> bytes:
    """The first `size` bytes of an entry of `whole` bytes."""
    kind = PACKINGS[packing]
    try:
        found = kind.span(data, 0, min(size, whole), whole)
        found = found if found is not None else kind.start(data, max(min(size, whole), 1))
    except kind.damage + _ANY as error:
        raise damaged(packing, where, error) from error
    return found[:whole] if found is not None else unpack(data, packing, whole, where)[:size]


def _unpacked(data: Data, packing: str, size: int, where: object) -> bytes:
    kind = PACKINGS[packing]
    try:
        return kind.unpack(data, size)
    except kind.damage + _ANY as error:
        raise damaged(packing, where, error) from error


def damaged(packing: str, where: object, error: Exception) -> FurnelError:
    """What is said when packed data cannot be unpacked."""
    name = PACKINGS[packing].name
    return FurnelError("Unpacking", where=where, why=f"the {name} data is damaged ({error})")
