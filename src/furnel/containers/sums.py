"""Checksums and name hashes that archives use. One more is a line in `SUMS` or `HASHES`."""

from __future__ import annotations

import hashlib
import zlib
from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING, Any

import numpy as np
import numpy.typing as npt
import xxhash

from furnel.containers.container import Order

if TYPE_CHECKING:
    from furnel.containers.fields import FieldPart

Hashes = npt.NDArray[np.uint64]

# offset basis and prime: Fowler, Noll, Vo, Eastlake, "The FNV Non-Cryptographic Hash Algorithm" (IETF draft), section 5
_FNV_32 = 0x811C9DC5, 0x01000193, 0xFFFFFFFF
_FNV_64 = 0xCBF29CE484222325, 0x00000100000001B3, 0xFFFFFFFFFFFFFFFF


def letter_by_letter(
    names: list[bytes], begin: int, step: Callable[[Hashes, Hashes, int, Any], Hashes]
) -> Hashes:
    """All names at once: `step` makes the next number of the one so far and a letter, at its position, of those names (a mask)
    that have one there."""
    lengths = np.fromiter(map(len, names), np.int64, len(names))
    width = int(lengths.max(initial=0))
    letters = np.zeros((len(names), width), np.uint64)
    letters[np.arange(width) < lengths[:, None]] = np.frombuffer(b"".join(names), np.uint8)
    found = np.full(len(names), begin, np.uint64)
    for column in range(width):
        inside = column < lengths
        found[inside] = step(found[inside], letters[inside, column], column, inside)
    return found


def _fnv(names: list[bytes], basis: int, prime: int, most: int) -> Hashes:
    return letter_by_letter(
        names, basis, lambda found, letter, _, __: (found ^ letter) * np.uint64(prime) & np.uint64(most)
    )


def _each(work: Callable[[bytes], int]) -> Callable[[list[bytes]], Hashes]:
    return lambda names: np.fromiter(map(work, names), np.uint64, len(names))


HASHES: dict[str, Callable[[list[bytes]], Hashes]] = {
    "crc32": _each(zlib.crc32),
    "fnv1a-32": lambda names: _fnv(names, *_FNV_32),
    "fnv1a-64": lambda names: _fnv(names, *_FNV_64),
    "xxhash64": _each(xxhash.xxh64_intdigest),
}
"""Hashes of names: from the bytes of many names to their numbers."""


@dataclass(frozen=True, slots=True)
class SumType:
    """A checksum that is `width` bytes long. `step(data, before)` goes on from a number that begins as `start`; without it
    `make` gives an object with update and digest."""

    width: int
    step: Callable[[bytes | memoryview, int], int] | None = None
    start: int = 0
    make: Callable[[], Any] = hashlib.sha256


SUMS: dict[str, SumType] = {
    "crc32": SumType(4, zlib.crc32),
    "adler32": SumType(4, zlib.adler32, 1),
    "sha256": SumType(32, make=hashlib.sha256),
}


class Sum:
    """A checksum that is fed piece by piece; `value` is its bytes."""

    def __init__(self, kind: str, order: Order) -> None:
        self._kind, self._order = SUMS[kind], order
        self._number = self._kind.start
        self._digest: Any = self._kind.make() if self._kind.step is None else None

    def feed(self, data: bytes | memoryview) -> Sum:
        if self._kind.step is None:
            self._digest.update(data)
        else:
            self._number = self._kind.step(data, self._number)
        return self

    @property
    def value(self) -> bytes:
        if self._kind.step is None:
            return bytes(self._digest.digest())
        return self._number.to_bytes(self._kind.width, self._order)


def sum_of(kind: str, order: Order, data: bytes | memoryview) -> bytes:
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


def listed_names(text: str) -> list[str]:
    """The names in a list: one a line, empty lines and those that begin with # left out."""
    stripped = (line.strip() for line in text.splitlines())
    return [name for name in stripped if name and not name.startswith("#")]
