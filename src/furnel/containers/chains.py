"""Following a chain of records through an archive: which chunks there are, how they nest, and which are entries."""

from __future__ import annotations

import contextlib
from collections.abc import Callable, Iterator, Mapping, Sequence
from functools import partial
from typing import NamedTuple

from furnel.containers import records
from furnel.containers.container import check_path, check_paths
from furnel.containers.fresh import Fresh
from furnel.containers.mapped import Source
from furnel.containers.reader import RecordReader
from furnel.containers.reading import CHECKED_AT_ONCE, Head, check_file_sum, name_of, names_by_hash, read_head
from furnel.containers.records import Meanings, Trace, Values, no_trace
from furnel.containers.schema import ChainPart, Layout
from furnel.errors import FurnelError

_WHAT = "Reading an archive"
_DEEPEST = 16


class Chunk(NamedTuple):
    """A record with its data: where the record, the data and the padding behind it begin and end.

    What is not in the file yet has its data in `fresh`, or is nothing but the chunks `inside`. A `nest` (its number in the
    layout) has a `head` before these, and a `name`, which begins with
    what is `above` it.
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
    head: bytes = b""
    nest: int = -1
    name: str = ""
    above: str = ""


_chunk: Callable[[tuple[object, ...]], Chunk] = partial(tuple.__new__, Chunk)  # type: ignore[arg-type]


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
    if (found := walker.flat(begin, end)) is not None:
        return head, found, begin, found[-1].padded if found else begin
    chunks = list(walker.walk(begin, end, 0))
    stop = chunks[-1].padded if chunks else begin
    return head, walker.named(chunks, known), begin, stop


def chunk_entries(chunks: Sequence[Chunk]) -> Iterator[Chunk]:
    for chunk in chunks:
        if chunk.path:
            yield chunk
        if chunk.inside:
            yield from chunk_entries(chunk.inside)


class _Walker:
    """Follows a chain through the bytes."""

    def __init__(self, source: Source, layout: Layout, chain: ChainPart, head: Head, trace: Trace) -> None:
        self._source, self._layout, self._chain, self._head, self._trace = source, layout, chain, head, trace
        self._reader = RecordReader(chain.fields, layout.byte_order)
        self._meanings = Meanings(chain.fields)
        self._told = [role for role in ("stored size", "size") if role in self._meanings]
        self._tags: dict[object, str] = {}
        self._nests: dict[str, list[int]] = {}
        for number, nest in enumerate(chain.nests):
            self._nests.setdefault(nest.tag, []).append(number)
        self._count = 0

    def flat(self, at: int, end: int) -> list[Chunk] | None:
        """All chunks with their paths, where none is in another and each tells its name and size as they are: what is the same
        for all is asked once. None for other chains, and for what is to be refused."""
        chain, entry, where = self._chain, self._layout.entry, self._source.name
        place = {
            part.holds: number for number, part in enumerate(chain.fields) if part.holds and not part.means
        }
        size = next((place[role] for role in self._told[:1] if role in place), -1)
        if chain.nests or chain.entries or self._trace is not no_trace or size < 0 or "path" not in place:
            return None
        if not self._reader.is_flat or chain.fields[place["path"]].is_number:
            return None
        view, names, take = self._source.view[:end], self._reader.names, self._reader.row
        name, tagged, align = place["path"], place.get("tag", -1), chain.align
        tags: dict[object, str] = {}
        told: list[tuple[object, ...]] = []
        raws: list[object] = []
        while at < end and len(told) < records.MOST_RECORDS:
            found = take(view, at)
            if found is None:
                return None
            row, start = found
            stop = start + row[size]  # type: ignore[operator]
            if not start <= stop <= end:
                return None
            tag = ""
            if tagged >= 0 and (tag := tags.get(row[tagged], "")) == "":
                tag = tags[row[tagged]] = self._text(row[tagged])
            padded = min(stop + -stop % align, end)
            told.append((tag, dict(zip(names, row, strict=True)), at, start, stop, padded))
            raws.append(row[name])
            at = padded
            if tag and tag == chain.last:
                raws.pop()
                break
        if at < end and len(told) == records.MOST_RECORDS:
            return None
        paths = check_paths(entry.paths_of(self._layout.names.texts(raws, where)), where)
        paths += [""] * (len(told) - len(paths))
        rest = Chunk("", {}, 0, 0, 0, 0)[8:]
        return [_chunk((*one, (), path, *rest)) for one, path in zip(told, paths, strict=True)]

    def walk(self, at: int, end: int, depth: int) -> Iterator[Chunk]:
        chain, scope = self._chain, self._head.scope
        view = self._source.view[:end]
        if depth > _DEEPEST:
            raise FurnelError(_WHAT, where=self._source.name, why=f"its nests are more than {_DEEPEST} deep")
        while at < end:
            group = "" if self._trace is no_trace else f"entry {self._count}"
            values, start = self._reader.read(view, at, self._source.name, scope, self._trace, group)
            self._count += 1
            if self._count > records.MOST_RECORDS:
                raise records.too_many(self._source.name)
            tag = self._tag(values)
            stop = start + self._size(values)
            if not start <= stop <= end:
                raise FurnelError(
                    _WHAT,
                    where=f"{self._source.name}, byte {at}",
                    why=f"the chunk {tag!r} should end at byte {stop}, past the {end} there are",
                    remedy="The archive is cut short or described by the wrong layout",
                )
            padded = min(stop + -stop % chain.align, end)
            nest, below = self._nest(tag, start, stop)
            inside = tuple(self.walk(below, stop, depth + 1)) if nest >= 0 else ()
            head = bytes(view[start:below])
            yield Chunk(tag, values, at, start, stop, padded, inside, head=head, nest=nest)
            at = padded
            if tag and tag == chain.last and depth == 0:
                return

    def _nest(self, tag: str, start: int, stop: int) -> tuple[int, int]:
        """The nest that a chunk is, by its tag and what its data begins with (-1: none), and where the chunks in it begin."""
        for number in self._nests.get(tag, ()):
            fields = self._chain.nests[number].fields
            if not fields:
                return number, start
            with contextlib.suppress(FurnelError):  # another kind of the same tag
                view = self._source.view[:stop]
                _, below = records.read_record(
                    fields,
                    view,
                    start,
                    self._layout.byte_order,
                    self._source.name,
                    self._head.scope,
                    self._trace,
                    tag,
                )
                return number, below
        return -1, start

    def named(self, chunks: Sequence[Chunk], known: Sequence[str]) -> list[Chunk]:
        """The chunks, with paths for those that are entries."""
        where, entry = self._source.name, self._layout.entry
        by_hash = names_by_hash(known, self._layout) if "name hash" in self._meanings else {}
        raws = [
            self._meanings.of(chunk.values, "path", self._head.scope)
            for chunk in chunks
            if self._is_entry(chunk.tag)
        ]
        spelled = iter(zip(raws, self._layout.names.texts(raws, where), strict=True))
        counts: dict[str, int] = {}
        out = []
        for chunk in chunks:
            number = counts[chunk.tag] = counts.get(chunk.tag, -1) + 1
            if chunk.nest >= 0:
                out.append(self._named_nest(chunk, "", number))
            elif self._is_entry(chunk.tag):
                raw, text = next(spelled)
                path = entry.path_of(text) if isinstance(raw, bytes) else self._path(chunk, number, by_hash)
                out.append(chunk._replace(path=check_path(path, where)) if path else chunk)
            else:
                out.append(chunk)
        return out

    def _is_entry(self, tag: str) -> bool:
        """Whether a chunk that is not in a nest can be an entry."""
        chain = self._chain
        is_last = bool(tag) and tag == chain.last
        return not is_last and tag not in self._nests and (not chain.entries or tag in chain.entries)

    def _size(self, values: Values) -> int:
        for role in self._told:
            size = self._meanings.of(values, role, self._head.scope)
            if size is not None:
                return int(size)
        return 0

    def _path(self, chunk: Chunk, number: int, by_hash: Mapping[int, str]) -> str:
        """The path of a chunk that has none of its own; empty for what is no entry."""
        chain, layout = self._chain, self._layout
        path_of = layout.entry.path_of
        code = self._meanings.of(chunk.values, "name hash", self._head.scope)
        if code is not None:
            return path_of(name_of(int(code) & (1 << 64) - 1, by_hash, layout))
        if chain.entries:
            return path_of(chain.entries[chunk.tag].format(number=number))
        return "" if chain.nests else path_of(chain.number.format(number=number))

    def _named_nest(self, chunk: Chunk, outer: str, number: int) -> Chunk:
        where, nest = f"{self._source.name}, byte {chunk.at}", self._chain.nests[chunk.nest]
        name = self._chain.number.format(number=number)
        if any(part.name == nest.named_by for part in nest.fields):
            values, _ = records.read_record(
                nest.fields, memoryview(chunk.head), 0, self._layout.byte_order, where, self._head.scope
            )
            name = self._text(values[nest.named_by])
        elif nest.named_by:
            names = [part for part in chunk.inside if part.tag == nest.named_by]
            if len(names) != 1:
                raise FurnelError(_WHAT, where=where, why=f"a {nest.tag} has {len(names)} names, not one")
            name = self._text(bytes(self._source.view[names[0].start : names[0].end]))
        above = f"{outer}/" if outer and not nest.plain else ""
        name = outer if nest.plain else above + name
        counts: dict[str, int] = {}
        inside = []
        for part in chunk.inside:
            place = counts[part.tag] = counts.get(part.tag, -1) + 1
            if part.nest >= 0:
                inside.append(self._named_nest(part, name, place))
            elif part.tag in nest.parts:
                path = nest.parts[part.tag].format(name=name, number=place)
                inside.append(part._replace(path=check_path(self._layout.entry.path_of(path), where)))
            else:
                inside.append(part)
        return chunk._replace(inside=tuple(inside), name=name, above=above)

    def _tag(self, values: Values) -> str:
        raw = self._meanings.of(values, "tag", {})
        tag = self._tags.get(raw)
        if tag is None:
            tag = self._tags[raw] = self._text(raw)
        return tag

    def _text(self, raw: object) -> str:
        return records.text_of(raw, self._layout.names.encoding, self._source.name)
