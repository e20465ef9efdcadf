"""Spans of two archives compared, piece by piece and without keeping them in memory; holes of files are not read."""

from __future__ import annotations

import hashlib
import os
from collections.abc import Iterator

from furnel.containers.mapped import MappedFile, Source, data_spans

_PIECE = 1 << 20


def same_bytes(one: Source, start: int, end: int, other: Source, at: int, stop: int) -> bool:
    """Whether bytes `start` to `end` of one source are those from `at` to `stop` of another."""
    if end - start != stop - at:
        return False
    there = (
        piece == _piece(other, place, place + len(piece))
        for place, piece in _moved(_pieces(one, start, end), at - start)
    )
    back = (
        piece == _piece(one, place, place + len(piece))
        for place, piece in _moved(_pieces(other, at, stop, True), start - at)
    )
    return all(there) and all(back)


def _moved(pieces: Iterator[tuple[int, bytes]], by: int) -> Iterator[tuple[int, bytes]]:
    return ((at + by, piece) for at, piece in pieces)


def digest_of(source: Source, start: int, end: int) -> bytes:
    """A digest of a span."""
    work = hashlib.blake2b(digest_size=16)
    for at in range(start, end, _PIECE):
        work.update(_piece(source, at, min(at + _PIECE, end)))
    return work.digest()


def _pieces(
    source: Source, start: int, end: int, only_with_holes: bool = False
) -> Iterator[tuple[int, bytes]]:
    """The parts of a span that hold something, and where they begin; none of a file without holes when only those are asked
    for: what it has was compared from the other side."""
    spans = [(start, end)]
    if isinstance(source, MappedFile):
        spans = list(data_spans(source.number, start, end))
        if only_with_holes and spans == [(start, end)]:
            return
    elif only_with_holes:
        return
    for begin, stop in spans:
        for at in range(begin, stop, _PIECE):
            yield at, _piece(source, at, min(at + _PIECE, stop))


def _piece(source: Source, start: int, end: int) -> bytes:
    if isinstance(source, MappedFile):
        return os.pread(source.number, end - start, start)
    return bytes(source.view[start:end])
