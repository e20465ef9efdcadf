"""Checksums and name hashes that archives use."""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Callable, Iterable, Sequence
from typing import Any

import numpy as np
import numpy.typing as npt
import xxhash

from furnel.containers.schema import SUM_BYTES, FieldPart, HashKind, NamesPart, Order, SumKind

Hashes = npt.NDArray[np.uint64]

# offset basis and prime: Fowler, Noll, Vo, Eastlake, "The FNV Non-Cryptographic Hash Algorithm" (IETF draft), section 5
_FNV: dict[str, tuple[int, int, Any]] = {
    "fnv1a-32": (0x811C9DC5, 0x01000193, np.uint32),
    "fnv1a-64": (0xCBF29CE484222325, 0x00000100000001B3, np.uint64),
}


class Sum:
    """A checksum that is fed piece by piece; `value` is its bytes."""

    def __init__(self, kind: SumKind, order: Order) -> None:
        self._kind, self._order = kind, order
        self._number = 1 if kind == "adler32" else 0
        self._digest = hashlib.sha256() if kind == "sha256" else None

    def feed(self, data: bytes | memoryview) -> Sum:
        if self._digest is not None:
            self._digest.update(data)
        else:
            step: Callable[[bytes | memoryview, int], int] = (
                zlib.adler32 if self._kind == "adler32" else zlib.crc32
            )
            self._number = step(data, self._number)
        return self

    @property
    def value(self) -> bytes:
        if self._digest is not None:
            return self._digest.digest()
        return self._number.to_bytes(SUM_BYTES[self._kind], self._order)


def sum_of(kind: SumKind, order: Order, data: bytes | memoryview) -> bytes:
    """The checksum of some bytes, as it stands in a file."""
    return Sum(kind, order).feed(data).value


def sum_bytes(part: FieldPart, value: int | bytes, order: Order) -> bytes:
    """The value of a field that holds a sum, as its bytes in the file."""
    if isinstance(value, bytes):
        return value
    return (int(value) & ((1 << 8 * part.sum_width) - 1)).to_bytes(part.sum_width, order)


def sum_value(part: FieldPart, found: bytes, order: Order) -> int | bytes:
    """A sum's bytes as the value of the field that holds it."""
    return found if part.type == "bytes" else int.from_bytes(found, order)


def hash_names(paths: Sequence[str], names: NamesPart) -> Hashes:
    """The hash of each path, spelled as the archive's game does (letters, slash, encoding)."""
    kind = names.hash or "crc32"
    return hash_bytes([spelled(path, names) for path in paths], kind)


def spelled(path: str, names: NamesPart) -> bytes:
    """A path's bytes as they are hashed."""
    text = path.replace("/", names.slash)
    if names.letters != "as they are":
        text = text.lower() if names.letters == "lower" else text.upper()
    return text.encode(names.encoding, "replace")


def hash_bytes(names: Iterable[bytes], kind: HashKind) -> Hashes:
    """The hash of each name's bytes."""
    known = list(names)
    if kind == "crc32":
        return np.fromiter(map(zlib.crc32, known), np.uint64, len(known))
    if kind == "xxhash64":
        return np.fromiter(map(xxhash.xxh64_intdigest, known), np.uint64, len(known))
    return _fnv(known, kind)


def _fnv(names: list[bytes], kind: HashKind) -> Hashes:
    """All names at once, one letter after the other."""
    basis, prime, number = _FNV[kind]
    lengths = np.fromiter(map(len, names), np.int64, len(names))
    width = int(lengths.max(initial=0))
    letters = np.zeros((len(names), width), np.uint8)
    letters[np.arange(width) < lengths[:, None]] = np.frombuffer(b"".join(names), np.uint8)
    found = np.full(len(names), basis, number)
    for column in range(width):
        inside = column < lengths
        found[inside] = (found[inside] ^ letters[inside, column]) * number(prime)
    return found.astype(np.uint64)


def listed_names(text: str) -> list[str]:
    """The names in a list: one a line, empty lines and those that begin with # left out."""
    stripped = (line.strip() for line in text.splitlines())
    return [name for name in stripped if name and not name.startswith("#")]
