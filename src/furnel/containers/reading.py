"""Reading an archive's index as its layout describes: what lies where, before any entry is touched."""

from __future__ import annotations

import contextlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field
from typing import Any

import numpy as np
import numpy.typing as npt

from furnel.containers import records
from furnel.containers.buckets import read_buckets
from furnel.containers.container import check_paths
from furnel.containers.expressions import Number, expression
from furnel.containers.fields import WIDTHS, FieldPart, Fields, fixed_width
from furnel.containers.folders import Folders, place_rows, read_folders, read_tree
from furnel.containers.mapped import Source
from furnel.containers.masks import unmasked
from furnel.containers.packing import unpack, unpack_any
from furnel.containers.records import MOST_RECORDS, Trace, Values, no_trace
from furnel.containers.schema import IndexPart, Layout
from furnel.containers.sums import Hashes, Sum, sum_bytes, sum_of
from furnel.containers.tables import Table
from furnel.containers.volumes import Volumes
from furnel.errors import FurnelError

_WHAT = "Reading an archive"
_DAMAGED = "The archive is damaged or described by the wrong layout"
_MOST_INDEX = 256 << 20
CHECKED_AT_ONCE = 64 << 20  # larger archives' file sums are checked when they are written anew

Numbers = npt.NDArray[np.int64]
Span = tuple[int, int]


@dataclass
class Head:
    """The records around the data, with what their fields mean together: `scope` is what expressions may use."""

    start: Values = field(default_factory=dict)
    footer: Values = field(default_factory=dict)
    index_start: Values = field(default_factory=dict)
    scope: dict[str, Number] = field(default_factory=dict)

    def learn(self, values: Values) -> None:
        self.scope.update({name: value for name, value in values.items() if isinstance(value, int)})

    def records(self, layout: Layout) -> list[tuple[Fields, Values, Number]]:
        """The fields of start, footer and the index's start, what is in them, and where each begins."""
        return [
            (layout.start.fields if layout.start else (), self.start, 0),
            (
                layout.footer.fields if layout.footer else (),
                self.footer,
                self.scope.get("file_size", 0) - layout.footer_width,
            ),
            (layout.index.start if layout.index else (), self.index_start, self.scope.get("index_at", 0)),
        ]

    def number(self, layout: Layout, role: str) -> int | None:
        """What the start, footer or index start says about a role."""
        for fields, values, at in self.records(layout):
            found = records.meaning(fields, values, role, {**self.scope, records.AT: at})
            if isinstance(found, int):
                return found
        return None


@dataclass
class Index:
    """A read index: the table as it stands, and its columns resolved. Rows that are no entries are not in `rows`."""

    head: Head
    table: Table
    rows: Numbers
    paths: list[str]
    offsets: Numbers
    stored: Numbers
    sizes: Numbers
    codes: Numbers | None
    head_end: int
    index_at: int
    data_start: int
    data_end: int
    plain: bytes
    raw: bytes
    names_span: Span
    last_row: bytes
    folders: Folders | None = None
    buckets: Table | None = None
    rest: bytes = b""  # what its bytes have behind the records and the names
    names: bytes = b""  # the name table, unpacked, where it is known how long it is

    @property
    def span(self) -> Span:
        """Where it lies, as it is stored."""
        return self.index_at, self.index_at + len(self.raw)

    @property
    def end(self) -> int:
        """Where it and its names end."""
        return max(self.span[1], self.names_span[1])


def read_head(source: Source, layout: Layout, trace: Trace = no_trace) -> tuple[Head, int, int]:
    """The records at both ends; where the first ends and where the last begins."""
    head = Head(scope={"file_size": len(source.view)})
    head_end, end = 0, len(source.view)
    order, view = layout.byte_order, source.view
    if layout.start is not None:
        head.start, head_end = records.read_record(
            layout.start.fields, view, 0, order, source.name, head.scope, trace, "start"
        )
        head.learn(head.start)
    if layout.footer is not None:
        end -= layout.footer_width
        head.footer, _ = records.read_record(
            layout.footer.fields, view, end, order, source.name, head.scope, trace, "footer"
        )
        head.learn(head.footer)
    return head, head_end, end


def read_index(
    source: Source, side: Source, layout: Layout, known: Sequence[str] = (), trace: Trace = no_trace,
    volumes: Volumes | None = None,
) -> Index:  # fmt: skip
    """The whole index. `known` are names to look for where there are only hashes, `volumes` are what its entries lie in."""
    index = layout.index
    assert index is not None
    head, head_end, end = read_head(source, layout, trace)
    at, raw, plain = index_bytes(side, layout, index, head, 0 if index.file else head_end, end)
    head.scope["index_at"] = at
    where, begin = f"{source.name}, index", 0
    follow = trace if index.packed == "none" else no_trace
    shifted: Trace = (
        no_trace
        if trace is no_trace or index.file
        else lambda group, part, first, last, value: follow(group, part, first + at, last + at, value)
    )
    if index.start:
        head.index_start, begin = records.read_record(
            index.start, plain, 0, layout.byte_order, where, head.scope, shifted, "index start"
        )
        head.learn(head.index_start)
    count = head.number(layout, "entry count")
    room = len(plain)
    names_size = head.number(layout, "names size")
    if count is None and index.names == "table" and head.number(layout, "names offset") is None:
        room -= names_size or 0
    last_row = b""
    if index.last is not None:
        count = _count_to_last(layout, index, plain, begin, where, head)
    rows_in = plain[: max(room, 0)]
    buckets, behind = layout.buckets, None
    if buckets is not None and buckets.place == "before":
        behind, begin = read_buckets(buckets, rows_in, begin, layout.byte_order, where, head.scope, shifted)
    folders, table, table_end = _read_rows(layout, index, rows_in, begin, count, where, head, shifted)
    if buckets is not None and buckets.place == "behind":
        behind, table_end = read_buckets(
            buckets, rows_in, table_end, layout.byte_order, where, head.scope, shifted
        )
    if index.packed == "none" and table.at is not None:
        table.at += at
    if index.last is not None:
        begin, table_end = table_end, table_end + (fixed_width(index.fields) or 0)
        last_row = bytes(plain[begin:table_end])
    sized = head.number(layout, "index stored size") is not None or (count is None and not index.in_front)
    bounded = sized or index.packed != "none" or bool(index.file)
    names_at = head.number(layout, "names offset")
    names, index_end = _names_block(source, layout, head, plain, table_end, names_at, names_size)
    rest = bytes(plain[max(table_end, index_end) :]) if bounded else b""
    if not bounded:
        raw, plain = raw[: max(table_end, index_end)], plain[: max(table_end, index_end)]
    if index.packed == "none":
        _check_index_sum(layout, head, raw, where)
    index_span = at, at + len(raw)
    names_span = (names_at, names_at + len(names)) if names_at is not None else index_span
    data_start, data_end = _data_span(layout, index, head, index_span, names_span, (head_end, end))
    if volumes is not None:
        data_start, data_end = 0, len(volumes.view)
    head.scope["data_start"] = data_start
    rows = _entry_rows(index, table, head)
    paths = _paths(layout, index, table, rows, names, known, head, source.name, folders)
    codes = _codes(layout, table, rows, head, where)
    if index.tells_places:
        offsets = _column(table.meaning("offset", head.scope), rows, "offset", where)
        sizes, stored = _sizes(layout, table, rows, offsets, codes, data_end, head, where)
    else:
        sizes, stored = _sizes(
            layout, table, rows, np.zeros(len(rows), np.int64), codes, data_end, head, where
        )
        offsets = _one_after_the_other(source, layout, stored, data_start, head)
    if volumes is not None and layout.volumes is not None and layout.volumes.size is None:
        offsets = _in_volumes(layout, table, rows, offsets, stored, volumes, head, where)
    _check_places(paths, offsets, stored, sizes, data_end, source.name)
    if end <= CHECKED_AT_ONCE:
        check_file_sum(source, layout)
    return Index(
        head, table, rows, paths, offsets, stored, sizes, codes, head_end, at, data_start, data_end,
        bytes(plain), bytes(raw), names_span, last_row, folders, behind,
        rest, names if names_at is None or names_size is not None else b"",
    )  # fmt: skip


def _read_rows(
    layout: Layout, index: IndexPart, plain: memoryview, begin: int, count: int | None, where: str, head: Head, trace: Trace
) -> tuple[Folders | None, Table, int]:  # fmt: skip
    """The folders, the entries' records, and where they end."""
    part, scope, folders = layout.folders, head.scope, None
    if part is not None and part.shape == "tree":
        return read_tree(layout, part, plain, begin, where, scope, trace)
    number = head.number(layout, "folder count")
    if part is not None and part.place == "before":
        folders, begin = read_folders(layout, part, plain, begin, number, where, scope, trace)
    table, end = Table.read(index.fields, plain, begin, count, layout.byte_order, where, scope, trace)
    if part is not None and part.place == "behind":
        folders, end = read_folders(layout, part, plain, end, number, where, scope, trace)
    if folders is not None:
        assert part is not None
        place_rows(part, folders, table, where, scope)
    return folders, table, end


def _count_to_last(
    layout: Layout, index: IndexPart, plain: memoryview, begin: int, where: str, head: Head
) -> int:
    """How many records there are before the one that says that the index ends."""
    assert index.last is not None
    width, done = fixed_width(index.fields) or 1, 0
    while done < MOST_RECORDS and begin + (done + 1) * width <= len(plain):
        number = min(4096, (len(plain) - begin) // width - done)
        part, _ = Table.read(
            index.fields, plain, begin + done * width, number, layout.byte_order, where, head.scope
        )
        part.numbers = part.numbers + done
        ends = np.flatnonzero(_flat(expression(index.last).evaluate(_row_scope(part, head)), part.count) != 0)
        if len(ends):
            return done + int(ends[0])
        done += number
    raise FurnelError(
        _WHAT, where=where, why=f"none of its {done} records is the last one ({index.last})", remedy=_DAMAGED
    )


def new_last_row(layout: Layout, index: IndexPart) -> bytes:
    """The record that says that a new index ends, where one does: all zeros or all ones, whichever says so. FurnelError when
    neither does."""
    if index.last is None:
        return b""
    for byte in (b"\0", b"\xff"):
        row = byte * (fixed_width(index.fields) or 0)
        with contextlib.suppress(FurnelError):
            if _count_to_last(layout, index, memoryview(row), 0, layout.name, Head()) == 0:
                return row
    raise FurnelError(
        "Writing an archive", where=layout.name, why=f"neither zeros nor ones are a last record ({index.last})",
        remedy="Change an archive that is there instead of making a new one",
    )  # fmt: skip


def _data_span(
    layout: Layout, index: IndexPart, head: Head, index_span: Span, names_span: Span, between: Span
) -> Span:
    """Where the data lies: as the head says, otherwise what index and names leave of the span between start and footer."""
    start, end = between
    if index.in_front:
        start = max(index_span[1], names_span[1])
    elif index.behind:
        end = min(index_span[0], names_span[0])
    told = head.number(layout, "data offset")
    start = start if told is None else told
    told = head.number(layout, "data size")
    return start, end if told is None else min(start + told, int(head.scope["file_size"]))


def index_bytes(
    side: Source, layout: Layout, index: IndexPart, head: Head, begin: int, end: int
) -> tuple[int, memoryview, memoryview]:
    """Where the index lies, its bytes as they are stored, and unpacked."""
    view = side.view
    at = head.number(layout, "index offset")
    at = begin if at is None else at
    stored = head.number(layout, "index stored size")
    size = head.number(layout, "index size")
    if stored is None and index.packed == "none":
        stored = size
    if stored is None:
        stored = (len(view) if index.file else end) - at
    if not 0 <= at <= len(view) or not 0 <= stored <= len(view) - at:
        raise FurnelError(
            _WHAT,
            where=side.name,
            why=f"its index should lie at bytes {at} to {at + stored} and the file ends at {len(view)}",
            remedy="The archive is cut short or described by the wrong layout",
        )
    raw = view[at : at + stored]
    clear = memoryview(unmasked(raw, layout.masks, "index", head.scope))
    if index.packed == "none" or not stored:
        return at, raw, clear
    where = f"{side.name}, index"
    _check_index_sum(layout, head, raw, where)
    if size is None:
        return at, raw, memoryview(unpack_any(clear, index.packed, _MOST_INDEX, where))
    return at, raw, memoryview(unpack(clear, index.packed, min(size, _MOST_INDEX), where))


def _names_block(
    source: Source, layout: Layout, head: Head, plain: memoryview, table_end: int, at: int | None, size: int | None
) -> tuple[bytes, int]:  # fmt: skip
    """The name table's bytes, unpacked, and where in the index block it ends (0 when it is not in it)."""
    assert layout.index is not None
    if layout.index.names != "table":
        return b"", 0
    where = f"{source.name}, names"
    if at is None:
        found = plain[table_end : table_end + size if size is not None else len(plain)]
        return bytes(found), table_end + len(found)
    if not 0 <= at <= len(source.view) or (size is not None and at + size > len(source.view)):
        raise FurnelError(
            _WHAT, where=where, why=f"they should lie at byte {at}, outside the file", remedy=_DAMAGED
        )
    end = at + (size if size is not None else _MOST_INDEX)
    raw = memoryview(unmasked(source.view[at:end], layout.masks, "names", head.scope))
    if layout.names.packed == "none":
        return bytes(raw), 0
    return unpack_any(raw, layout.names.packed, _MOST_INDEX, where), 0


def _check_index_sum(layout: Layout, head: Head, raw: memoryview, where: str) -> None:
    for fields, values in (
        (layout.start.fields if layout.start else (), head.start),
        (layout.footer.fields if layout.footer else (), head.footer),
    ):
        for part in fields:
            if part.holds == "index sum" and part.sum is not None:
                order = part.order or layout.byte_order
                if sum_of(part.sum, order, raw) != sum_bytes(part, values[part.name], order):
                    raise FurnelError(
                        _WHAT, where=where, why=f"its {part.sum} is not the one that the file says", remedy=_DAMAGED
                    )  # fmt: skip


def sum_places(layout: Layout, footer_at: int) -> list[tuple[FieldPart, int]]:
    """The fields that hold a sum of the whole file, and where they lie."""
    out = []
    for record, at in ((layout.start, 0), (layout.footer, footer_at)):
        for part in record.fields if record is not None else ():
            if part.holds == "file sum":
                out.append((part, at))
            at += part.width or 0
    return out


def check_file_sum(source: Source, layout: Layout) -> None:
    """Refuse an archive whose sum over the whole file is another one."""
    end = len(source.view)
    footer_at = end - layout.footer_width
    for part, at in sum_places(layout, footer_at):
        assert part.sum is not None
        after = at + part.sum_width
        work = Sum(part.sum, part.order or layout.byte_order)
        work.feed(source.view[:at]).feed(bytes(part.sum_width)).feed(source.view[after:])
        if work.value != bytes(source.view[at:after]):
            raise FurnelError(
                _WHAT, where=source.name, why=f"its {part.sum} is not the one that it carries", remedy=_DAMAGED
            )  # fmt: skip


def _entry_rows(index: IndexPart, table: Table, head: Head) -> Numbers:
    if index.empty is None:
        return np.arange(table.count)
    return np.flatnonzero(_flat(expression(index.empty).evaluate(_row_scope(table, head)), table.count) == 0)


def _row_scope(table: Table, head: Head) -> dict[str, Number]:
    numbers = {
        name: column
        for name, column in table.columns.items()
        if isinstance(column, np.ndarray) and column.dtype.kind in "iu"
    }
    return {"number": table.numbers, **head.scope, **numbers}


def _flat(found: Number, count: int) -> Numbers:
    return found if isinstance(found, np.ndarray) else np.full(count, found, np.int64)


def _column(found: Any, rows: Numbers, role: str, where: str) -> Numbers:
    column = np.asarray(found)
    if column.dtype.kind not in "iu":
        raise FurnelError(_WHAT, where=where, why=f"the field that holds the {role} is not a number")
    return np.asarray(column, np.int64)[rows]


def _codes(layout: Layout, table: Table, rows: Numbers, head: Head, where: str) -> Numbers | None:
    """Which packing every entry has, as the number that [entry] packings explains; None when all have the same."""
    if layout.entry.packing is not None:
        found = expression(layout.entry.packing).evaluate(_row_scope(table, head))
        return _flat(found, table.count)[rows]
    column = table.meaning("packing", head.scope)
    return None if column is None else _column(column, rows, "packing", where)


def _sizes(
    layout: Layout, table: Table, rows: Numbers, offsets: Numbers, codes: Numbers | None, data_end: int, head: Head,
    where: str,
) -> tuple[Numbers, Numbers]:  # fmt: skip
    """Sizes unpacked and stored; what no field tells comes from where the next entry begins. -1: not known."""
    size, kept = table.meaning("size", head.scope), table.meaning("stored size", head.scope)
    sizes = None if size is None else _column(size, rows, "size", where)
    stored = None if kept is None else _column(kept, rows, "stored size", where)
    plain = np.full(len(rows), layout.entry.packed == "none")
    if codes is not None:
        plain = np.isin(codes, [code for code, packing in layout.entry.packings.items() if packing == "none"])
    if stored is None:
        stored = to_the_next(offsets, data_end)
        if sizes is not None:
            stored = np.where(plain, sizes, stored)
    if sizes is None:
        sizes = np.where(plain, stored, -1)
    return sizes, stored


def _in_volumes(
    layout: Layout, table: Table, rows: Numbers, offsets: Numbers, stored: Numbers, volumes: Volumes, head: Head, where: str
) -> Numbers:  # fmt: skip
    """Offsets in each entry's volume as offsets in all of them together."""
    assert layout.volumes is not None
    numbers = _column(table.meaning("volume", head.scope), rows, "volume", where) - layout.volumes.first
    lengths = np.array(volumes.lengths, np.int64)
    wrong = np.flatnonzero((numbers < 0) | (numbers >= len(lengths)))
    if len(wrong):
        raise FurnelError(
            _WHAT, where=where, why=f"entry {wrong[0]} is in volume {numbers[wrong[0]] + layout.volumes.first}, and there are "
            f"{len(lengths)}, from {layout.volumes.first} on", remedy="A volume is missing, or the layout is the wrong one",
        )  # fmt: skip
    wrong = np.flatnonzero((offsets < 0) | (offsets + stored > lengths[numbers]))
    if len(wrong):
        raise FurnelError(
            _WHAT, where=where, why=f"entry {wrong[0]} runs over the end of its volume", remedy=_DAMAGED
        )
    return np.asarray(offsets + np.array(volumes.starts, np.int64)[numbers], np.int64)


def to_the_next(offsets: Numbers, data_end: int) -> Numbers:
    """Lengths up to where the next entry begins: the next in the index when it is in the data's order, which lets entries
    be empty; otherwise the next in the data, which lets entries share theirs."""
    if (np.diff(offsets) >= 0).all():
        return np.append(offsets[1:], data_end) - offsets if len(offsets) else offsets
    starts = np.unique(offsets)
    ends = np.append(starts[1:], data_end)
    return np.asarray(ends[np.searchsorted(starts, offsets)] - offsets, np.int64)


def _one_after_the_other(
    source: Source, layout: Layout, stored: Numbers, data_start: int, head: Head
) -> Numbers:
    """Where entries begin that no field tells the places of: each behind the one before, aligned."""
    entry = layout.entry
    if not entry.head:
        room = stored + -stored % entry.align
        first = data_start + entry.padding(data_start, data_start)
        return first + np.concatenate([[0], np.cumsum(room)[:-1]]) if len(stored) else stored
    out, at = [], data_start
    for length in stored.tolist():
        at += entry.padding(at, data_start)
        out.append(at)
        _, begin = records.read_record(
            layout.entry.head, source.view, at, layout.byte_order, source.name, head.scope
        )
        at = begin + length
    return np.array(out, np.int64)


def _paths(
    layout: Layout, index: IndexPart, table: Table, rows: Numbers, names: bytes, known: Sequence[str], head: Head,
    where: str, folders: Folders | None = None,
) -> list[str]:  # fmt: skip
    if index.names == "numbers":
        found: Sequence[str] = [index.number.format(number=number) for number in range(len(rows))]
    elif index.names == "hash":
        hashes = np.asarray(table.meaning("name hash", head.scope)).astype(np.uint64)[rows]
        return check_paths(layout.entry.paths_of(names_of(hashes, known, layout)), where)
    elif index.names == "fields":
        column = table.meaning("path", head.scope)
        column = column.tolist() if isinstance(column, np.ndarray) else column
        whole = index.empty is None
        found = layout.names.texts(column if whole else [column[row] for row in rows.tolist()], where)
    else:
        found = _table_names(layout, table, rows, names, head, where)
    if folders is not None:
        assert layout.folders is not None
        joined, homes = layout.folders.joined, folders.paths
        found = [joined(homes[folder], name) for folder, name in zip(folders.of_rows, found, strict=True)]
    return check_paths(layout.entry.paths_of(found), where)


def _table_names(
    layout: Layout, table: Table, rows: Numbers, names: bytes, head: Head, where: str
) -> Sequence[str]:
    offsets = table.meaning("name offset", head.scope)
    ends = layout.names.ends
    if offsets is None:
        found, at, before = [], 0, b""
        share = WIDTHS[layout.names.shares] if layout.names.shares else 0
        for _ in range(len(rows)):
            shared = int.from_bytes(names[at : at + share], layout.byte_order)
            text, at = name_at(names, at + share, ends, layout, where)
            before = before[:shared] + text
            found.append(before)
        return layout.names.texts(found, where)
    places = _column(offsets, rows, "name offset", where).tolist()
    return layout.names.texts([name_at(names, place, ends, layout, where)[0] for place in places], where)


def name_at(names: bytes, at: int, ends: str, layout: Layout, where: str) -> tuple[bytes, int]:
    """The name at a place of the name table, and where the next one begins."""
    if not 0 <= at < len(names):
        raise FurnelError(
            _WHAT, where=where, why=f"a name should lie at byte {at} of the name table, outside it"
        )
    if ends == "zero":
        stop = names.find(b"\0", at)
        stop = len(names) if stop < 0 else stop
        return names[at:stop], stop + 1
    width = WIDTHS[ends]
    start = at + width
    stop = start + int.from_bytes(names[at:start], layout.byte_order)
    if stop > len(names):
        raise FurnelError(
            _WHAT, where=where, why=f"the name at byte {at} of the name table runs over its end"
        )
    return names[start:stop], stop


def names_of(hashes: Hashes, known: Sequence[str], layout: Layout) -> list[str]:
    """The known name of every hash; hashes that nobody knows are named after themselves."""
    by_hash = names_by_hash(known, layout)
    return [name_of(number, by_hash, layout) for number in hashes.tolist()]


def names_by_hash(known: Sequence[str], layout: Layout) -> dict[int, str]:
    """Known names (without the entries' prefix) by what their hashes are in such an archive."""
    spelled = [layout.entry.name_of(name) for name in known]
    return dict(zip(layout.names.hashes(spelled).tolist(), spelled, strict=True))


def name_of(number: int, by_hash: Mapping[int, str], layout: Layout) -> str:
    """The known name of a hash; one that nobody knows is named after itself."""
    digits = layout.names.hash_digits
    return by_hash.get(number) or layout.names.unknown.replace("{hash}", f"{number:0{digits}x}")


def _check_places(
    paths: list[str], offsets: Numbers, stored: Numbers, sizes: Numbers, data_end: int, where: str
) -> None:
    ends = offsets + stored
    wrong = np.flatnonzero((offsets < 0) | (stored < 0) | (ends > data_end) | (ends < offsets) | (sizes < -1))
    if len(wrong):
        raise FurnelError(
            _WHAT,
            where=f"{where}, {paths[wrong[0]]}",
            why=f"it should lie at bytes {offsets[wrong[0]]} to {ends[wrong[0]]}, outside the data that ends at {data_end}",
            remedy=_DAMAGED,
        )
    if len(set(paths)) != len(paths):
        seen: set[str] = set()
        twice = next(path for path in paths if path in seen or seen.add(path))  # type: ignore[func-returns-value]
        raise FurnelError(_WHAT, where=f"{where}, {twice}", why="its path occurs twice", remedy=_DAMAGED)
