"""What may be wrong with a description whose index does not hold together: it is looked at once more, for the usual slips."""

from __future__ import annotations

import contextlib
import re
from collections.abc import Sequence

from furnel.containers import records
from furnel.containers.fields import fixed_width, places_in
from furnel.containers.mapped import Source
from furnel.containers.reading import Index, index_bytes, read_head, read_index
from furnel.containers.records import Trace, no_trace
from furnel.containers.schema import IndexPart, Layout
from furnel.containers.volumes import Volumes
from furnel.errors import FurnelError

_NAME = re.compile(rb"[\x20-\x7e\x80-\xff]{1,250}")
_ROWS, _MOST_ROWS, _LONGEST = 4, 12, 260


def read_or_hint(
    source: Source, side: Source, layout: Layout, known: Sequence[str] = (), trace: Trace = no_trace,
    volumes: Volumes | None = None,
) -> Index:  # fmt: skip
    """As `read_index`; a refusal says what is probably wrong with the description where that can be seen."""
    try:
        return read_index(source, side, layout, known, trace, volumes)
    except FurnelError as error:
        told = ""
        with contextlib.suppress(FurnelError):
            told = _hint(source, side, layout)
        if not told:
            raise
        raise FurnelError(
            error.what, where=error.where, why=f"{error.why}. {told}", remedy=error.remedy
        ) from error


def _hint(source: Source, side: Source, layout: Layout) -> str:
    """What is probably wrong, or nothing."""
    index = layout.index
    assert index is not None
    head, head_end, end = read_head(source, layout)
    _, _, data = index_bytes(side, layout, index, head, 0 if index.file else head_end, end)
    begin = 0
    if index.start:
        order = layout.byte_order
        head.index_start, begin = records.read_record(index.start, data, 0, order, source.name, head.scope)
    count = head.number(layout, "entry count")
    if layout.folders is None and layout.buckets is None and (said := _of_names(index, data, begin, count)):
        return said
    bounded = any(head.number(layout, role) is not None for role in ("index size", "index stored size"))
    if count is None and not bounded and index.in_front and index.packed == "none" and index.last is None:
        return "No field holds the entry count (or the index size), so that records were read up to the end of the file"
    return ""


def _of_names(index: IndexPart, data: memoryview, begin: int, count: int | None) -> str:
    named = next((part for part in index.fields if part.holds == "path" and part.type == "text"), None)
    width = fixed_width(index.fields)
    if named is None or width is None or not isinstance(named.length, int):
        return ""
    found = _name_width(data, begin + places_in(index.fields)[named.name], named.length, width, count)
    if not found:
        return ""
    return f"Names of {found} letters would follow each other evenly; the field “{named.name}” has {named.length}"


def _name_width(data: memoryview, at: int, told: int, width: int, count: int | None) -> int:
    """The room for names with which the first records have one each; 0 where there is none, or the told one is right."""
    rows = min(count, _MOST_ROWS) if count else _ROWS

    def holds(room: int) -> bool:
        step = width - told + room
        names = [bytes(data[at + row * step : at + row * step + room]) for row in range(rows)]
        if rows < 3 or len(names[-1]) < room:
            return False
        texts = [name.split(b"\0", 1)[0] for name in names]
        return all(_NAME.fullmatch(text) for text in texts) and all(
            not name[len(text) :].strip(b"\0") for name, text in zip(names, texts, strict=True)
        )

    if holds(told):
        return 0
    return max(
        filter(holds, range(2, _LONGEST)), default=0
    )  # the last letters of names follow each other evenly, too
