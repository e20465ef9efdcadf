"""Content on its way into an archive: packed into temporary files, so that memory stays small and sizes are known early."""

from __future__ import annotations

import contextlib
import io
import tempfile
from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from pathlib import Path
from typing import BinaryIO, cast

from furnel.containers.container import Content, Order
from furnel.containers.expressions import Number
from furnel.containers.fields import Fields, SumKind
from furnel.containers.masks import mask_stream
from furnel.containers.naming import Packing
from furnel.containers.packing import pack_stream
from furnel.containers.schema import Layout
from furnel.containers.sums import Sum
from furnel.errors import FurnelError, reason

_IN_MEMORY = 8 << 20
_PIECE = 1 << 20


@dataclass(slots=True)
class Fresh:
    """Packed content: its stored bytes as a stream, their count, the size unpacked and the packing's number (or None)."""

    stream: BinaryIO
    stored: int
    size: int
    code: int | None
    sums: dict[str, bytes]

    def copy(self, out: BinaryIO) -> None:
        self.stream.seek(0)
        while piece := self.stream.read(_PIECE):
            out.write(piece)

    def close(self) -> None:
        self.stream.close()


def packed(
    content: Content, layout: Layout, code: int | None, fields: Fields, scope: Mapping[str, Number]
) -> Fresh:
    """Content as the layout packs it, with the sums that `fields` hold; `code` is the packing's number that the entry had,
    `scope` are the archive's numbers that masks may depend on."""
    with opened_content(content) as source:
        size = source.seek(0, 2)
        code, packing = choose_packing(layout, code, size)
        out = cast(BinaryIO, tempfile.SpooledTemporaryFile(_IN_MEMORY))  # noqa: SIM115 - the Fresh closes it
        source.seek(0)
        pack_stream(source, out, packing)
        stored = out.tell()
        plain = plain_code(layout)
        if code is not None and plain is not None and packing != "none" and stored >= size:
            code, stored = plain, size
            out.seek(0)
            out.truncate()
            source.seek(0)
            pack_stream(source, out, "none")
        sums: dict[str, bytes] = {}
        for part in fields:
            if part.holds in ("sum", "stored sum") and part.sum is not None:
                stream = source if part.holds == "sum" else out
                sums[part.holds] = _summed(stream, part.sum, part.order or layout.byte_order)
        mask_stream(out, layout.masks, "entry", scope)
    return Fresh(out, stored, size, code, sums)


def choose_packing(layout: Layout, code: int | None, size: int) -> tuple[int | None, Packing]:
    """The packing of new content: the one its entry had, otherwise the layout's."""
    entry = layout.entry
    if not entry.packings:
        return None, entry.packed
    if code in entry.packings:
        return code, entry.packings[code]
    wanted = entry.packed if entry.packed != "none" else None
    for number, packing in entry.packings.items():
        if size and (packing == wanted or (wanted is None and packing != "none")):
            return number, packing
    return next(iter(entry.packings.items()))


def plain_code(layout: Layout) -> int | None:
    """The number that says that an entry is stored as it is, if the layout has one."""
    return next((code for code, packing in layout.entry.packings.items() if packing == "none"), None)


@contextlib.contextmanager
def opened_content(content: Content) -> Iterator[BinaryIO]:
    """What goes into an archive as a stream. Raises FurnelError for a file that cannot be read."""
    if isinstance(content, bytes | bytearray | memoryview):
        yield io.BytesIO(content)
        return
    try:
        with Path(content).open("rb") as stream:
            yield stream
    except OSError as error:
        raise FurnelError("Packing a file", where=content, why=reason(error)) from error


def _summed(stream: BinaryIO, kind: SumKind, order: Order) -> bytes:
    work = Sum(kind, order)
    stream.seek(0)
    while piece := stream.read(_PIECE):
        work.feed(piece)
    return work.value
