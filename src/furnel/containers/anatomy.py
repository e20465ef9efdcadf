"""The anatomy of a file: what each of its bytes is by a description that may still be wrong, and what does not add up."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path

from furnel.containers.bare import measure
from furnel.containers.chains import chunk_entries, read_chain
from furnel.containers.container import Entry, Remark
from furnel.containers.fields import FieldPart
from furnel.containers.hints import read_or_hint
from furnel.containers.mapped import MappedFile, Source
from furnel.containers.opening import open_with
from furnel.containers.packing import PACKINGS
from furnel.containers.records import Trace
from furnel.containers.schema import Layout
from furnel.containers.volumes import Volumes
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, check

MOST_SPANS = 60_000
_MOST_TRIED = 400


@dataclass(frozen=True, slots=True)
class Span:
    """Some bytes with a name: a `field` of a record, an entry's `data`, the index as a whole, or a `find` by signature.

    `group` says of what (start, footer, entry 3), `shown` the value as text.
    """

    start: int
    end: int
    kind: str
    name: str
    group: str = ""
    shown: str = ""


@dataclass(frozen=True, slots=True)
class Anatomy:
    """Spans in the order of the file, the entries found, and the faults."""

    spans: tuple[Span, ...] = ()
    entries: tuple[Entry, ...] = ()
    faults: tuple[Remark, ...] = ()
    explained: float = 0.0


class _Enough(Exception):
    """More fields than anybody looks at."""


def dissect(path: Path, layout: Layout, progress: Progress = QUIET) -> Anatomy:
    """What a layout makes of a file. Never raises for a wrong layout: what was understood until then is told."""
    try:
        source: Source = MappedFile(path)
    except FurnelError as error:
        return Anatomy(faults=(Remark(error.sentence()),))
    spans: list[Span] = []

    def trace(group: str, part: FieldPart, start: int, end: int, value: int | bytes) -> None:
        if len(spans) >= MOST_SPANS:
            raise _Enough
        shown = str(value) if isinstance(value, int) else repr(value.split(b"\0", 1)[0])[2:-1]
        spans.append(Span(start, end, "field", part.name, group, shown[:60]))

    faults: list[Remark] = []
    entries: tuple[Entry, ...] = ()
    try:
        if layout.whole is not None:
            faults.append(
                Remark("the whole file is packed: only what is before the packing is coloured here")
            )
        elif layout.index is not None:
            for part in layout.with_one_index:
                _index_spans(source, part, spans, trace)
        elif layout.single is not None:
            single = layout.single
            order = single.order or layout.byte_order
            bare = measure(single, source.view, len(source.view), {}, order, source.name, trace)
            spans.append(Span(bare.start, bare.end, "data", path.name))
        else:
            try:
                _, chunks, _, _ = read_chain(source, layout, (), trace)
            except _Enough:
                _, chunks, _, _ = read_chain(source, layout)
            spans += [Span(chunk.start, chunk.end, "data", chunk.path) for chunk in chunk_entries(chunks)]
        entries, tried = _entries(
            path, layout, {span.name: span.start for span in spans if span.kind == "data"}, progress
        )
        faults += tried
    except FurnelError as error:
        faults.append(
            Remark(f"{error.why or error.what} ({error.where})" if error.where else error.why or error.what)
        )
    spans.sort(key=lambda span: (span.start, span.end))
    total = max(len(source.view), 1)
    explained = _covered(spans, total) / total
    source.close()
    return Anatomy(tuple(spans), entries, tuple(faults), explained)


def _index_spans(source: Source, layout: Layout, spans: list[Span], trace: Trace) -> None:
    """The fields of an index, the entries that it tells, and its own bytes where it is packed."""
    assert layout.index is not None
    side = source.beside(layout.index.file) if layout.index.file else source
    volumes = Volumes(source, layout.volumes) if layout.volumes is not None else None
    try:
        found = read_or_hint(source, side, layout, (), trace, volumes)
    except _Enough:
        found = read_or_hint(source, side, layout, volumes=volumes)
    finally:
        if volumes is not None:
            volumes.close()
    for name, start, size in zip(found.paths, found.offsets.tolist(), found.stored.tolist(), strict=True):
        if volumes is None and len(spans) < MOST_SPANS * 2:
            spans.append(Span(start, start + size, "data", name))
    if layout.index.packed != "none" and not layout.index.file:
        spans.append(
            Span(
                found.index_at,
                found.index_at + len(found.raw),
                "index",
                f"index, {PACKINGS[layout.index.packed].name}",
            )
        )


def _entries(
    path: Path, layout: Layout, starts: dict[str, int], progress: Progress
) -> tuple[tuple[Entry, ...], list[Remark]]:
    """The entries, and for the first of them whether they can be read."""
    opened = open_with(path, layout)
    faults = []
    try:
        entries = tuple(opened.entries())
        for entry in entries[:_MOST_TRIED]:
            check(progress, "Working out an archive")
            try:
                opened.read(entry.path)
            except FurnelError as error:
                faults.append(Remark(f"{entry.path}: {error.why}", starts.get(entry.path, -1)))
        return entries, faults
    finally:
        opened.close()


def _covered(spans: Sequence[Span], total: int) -> int:
    covered, end = 0, 0
    for span in spans:
        start, stop = max(span.start, end), min(span.end, total)
        if stop > start:
            covered += stop - start
            end = stop
    return covered
