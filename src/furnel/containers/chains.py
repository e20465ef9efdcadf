"""Following a chain of records through an archive: which chunks there are, how they nest, and which are entries."""

from __future__ import annotations

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, replace

import numpy as np

from furnel.containers import records
from furnel.containers.container import check_path
from furnel.containers.fresh import Fresh
from furnel.containers.mapped import Source
from furnel.containers.reading import CHECKED_AT_ONCE, Head, check_file_sum, names_of, read_head
from furnel.containers.records import Trace, Values, no_trace
from furnel.containers.schema import ChainPart, Layout, NestPart
from furnel.errors import FurnelError

_WHAT = "Reading an archive"
_DEEPEST = 16


@dataclass(frozen=True, slots=True)
class Chunk:
    """A record with its data: where the record, the data and the padding behind it begin and end.

    What is not in the file yet has its data in `fresh`, or is nothing but the chunks `inside`.
    """

    tag: str
    values: Values
    at: int
    start: int
    end: int
    padded: int
    inside: tuple[Chunk, ...] = ()
    path: str = ""
    fresh: Fresh | None = None
    changed: bool = False


def read_chain(
    source: Source, layout: Layout, known: Sequence[str] = (), trace: Trace = no_trace
) -> tuple[Head, list[Chunk], int, int]:
    """The head, the chunks with the paths of those that are entries, and where the chain begins and ends."""
    chain = layout.chain
    assert chain is not None
    head, begin, end = read_head(source, layout, trace)
    told = head.number(layout, "data offset")
    begin = begin if told is None else told
    told = head.number(layout, "data size")
    end = end if told is None else min(begin + told, len(source.view))
    if len(source.view) <= CHECKED_AT_ONCE:
        check_file_sum(source, layout)
    walker = _Walker(source, layout, chain, head, trace)
    chunks = list(walker.walk(begin, end, 0))
    stop = chunks[-1].padded if chunks else begin
    return head, walker.named(chunks, known), begin, stop


def chunk_entries(chunks: Sequence[Chunk]) -> Iterator[Chunk]:
    for chunk in chunks:
        if chunk.path:
            yield chunk
        yield from chunk_entries(chunk.inside)


class _Walker:
    """Follows a chain through the bytes."""

    def __init__(self, source: Source, layout: Layout, chain: ChainPart, head: Head, trace: Trace) -> None:
        self._source, self._layout, self._chain, self._head, self._trace = source, layout, chain, head, trace
        self._count = 0

    def walk(self, at: int, end: int, depth: int) -> Iterator[Chunk]:
        chain, layout, scope = self._chain, self._layout, self._head.scope
        view = self._source.view[:end]
        if depth > _DEEPEST:
            raise FurnelError(_WHAT, where=self._source.name, why=f"its nests are more than {_DEEPEST} deep")
        while at < end:
            values, start = records.read_record(
                chain.fields, view, at, layout.byte_order, self._source.name, scope, self._trace, f"entry {self._count}"
            )  # fmt: skip
            self._count += 1
            tag = next((self._text(values[f.name]) for f in chain.fields if f.holds == "tag"), "")
            size = records.meaning(chain.fields, values, "stored size", scope)
            size = records.meaning(chain.fields, values, "size", scope) if size is None else size
            stop = start + int(size or 0)
            if not start <= stop <= end or self._count > records.MOST_RECORDS:
                raise FurnelError(
                    _WHAT,
                    where=f"{self._source.name}, byte {at}",
                    why=f"the chunk {tag!r} should end at byte {stop}, past the {end} there are",
                    remedy="The archive is cut short or described by the wrong layout",
                )
            padded = min(stop + -stop % chain.align, end)
            nest = self._nest(tag)
            inside = tuple(self.walk(start, stop, depth + 1)) if nest is not None else ()
            yield Chunk(tag, values, at, start, stop, padded, inside)
            at = padded
            if tag and tag == chain.last and depth == 0:
                return

    def named(self, chunks: Sequence[Chunk], known: Sequence[str]) -> list[Chunk]:
        """The chunks, with paths for those that are entries."""
        counts: dict[str, int] = {}
        out = []
        for chunk in chunks:
            number = counts[chunk.tag] = counts.get(chunk.tag, -1) + 1
            if (nest := self._nest(chunk.tag)) is not None:
                out.append(self._named_nest(chunk, nest, "", number))
            else:
                path = self._path(chunk, number, known)
                out.append(replace(chunk, path=check_path(path, self._source.name)) if path else chunk)
        return out

    def _path(self, chunk: Chunk, number: int, known: Sequence[str]) -> str:
        """The path of a chunk that is not in a nest; empty for what is no entry."""
        chain, layout = self._chain, self._layout
        prefix = layout.entry.prefix
        if chunk.tag and chunk.tag == chain.last:
            return ""
        if chain.entries and chunk.tag not in chain.entries:
            return ""
        text = records.meaning(chain.fields, chunk.values, "path", self._head.scope)
        if isinstance(text, bytes):
            return prefix + layout.names.text(text, self._source.name)
        code = records.meaning(chain.fields, chunk.values, "name hash", self._head.scope)
        if code is not None:
            return prefix + names_of(np.array([int(code) & (1 << 64) - 1], np.uint64), known, layout)[0]
        if chain.entries:
            return prefix + chain.entries[chunk.tag].format(number=number)
        return "" if chain.nests else prefix + chain.number.format(number=number)

    def _named_nest(self, chunk: Chunk, nest: NestPart, outer: str, number: int) -> Chunk:
        where = f"{self._source.name}, byte {chunk.at}"
        name = self._chain.number.format(number=number)
        if nest.named_by:
            names = [part for part in chunk.inside if part.tag == nest.named_by]
            if len(names) != 1:
                raise FurnelError(_WHAT, where=where, why=f"a {nest.tag} has {len(names)} names, not one")
            name = self._text(bytes(self._source.view[names[0].start : names[0].end]))
        name = f"{outer}/{name}" if outer else name
        counts: dict[str, int] = {}
        inside = []
        for part in chunk.inside:
            place = counts[part.tag] = counts.get(part.tag, -1) + 1
            deeper = self._nest(part.tag)
            if deeper is not None:
                inside.append(self._named_nest(part, deeper, name, place))
            elif part.tag in nest.parts:
                path = nest.parts[part.tag].format(name=name, number=place)
                inside.append(replace(part, path=check_path(self._layout.entry.prefix + path, where)))
            else:
                inside.append(part)
        return replace(chunk, inside=tuple(inside))

    def _nest(self, tag: str) -> NestPart | None:
        return next((nest for nest in self._chain.nests if nest.tag == tag), None)

    def _text(self, raw: object) -> str:
        return records.text_of(raw, self._layout.names.encoding, self._source.name)
