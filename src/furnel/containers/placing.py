"""Placing an archive that is about to be written: where every entry, the index and the names go, and the index's bytes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from furnel.containers import records
from furnel.containers.alike import untold
from furnel.containers.buckets import bucket_count
from furnel.containers.expressions import Number, expression
from furnel.containers.fields import BitsPart, FieldPart, Fields, fixed_width, held
from furnel.containers.folders import Arrangement, arrange, tree_bytes, write_folders
from furnel.containers.fresh import Fresh
from furnel.containers.mapped import Source
from furnel.containers.masks import masked
from furnel.containers.nametables import name_table
from furnel.containers.ordering import sorted_rows, write_buckets
from furnel.containers.packing import pack
from furnel.containers.reading import Head, Index, new_last_row
from furnel.containers.records import Values
from furnel.containers.schema import IndexPart, Layout
from furnel.containers.sums import sum_of, sum_value
from furnel.containers.tables import Table
from furnel.errors import FurnelError

WRITING = "Writing an archive"
_ROUNDS, _LENGTHS = 12, 16


@dataclass(slots=True)
class Item:
    """One entry to be: its row in the old table and its place among the old entries (-1: none; then `like` is the place of the
    one that it is most like), and its bytes: an old span (from its head on) or fresh ones."""

    path: str
    row: int = -1
    old: int = -1
    like: int = -1
    span: tuple[int, int] | None = None
    fresh: Fresh | None = None
    head: bytes = b""
    offset: int = 0
    volume: int = 0
    shared: bool = False
    facts: Mapping[str, int] = field(default_factory=dict)

    def length(self, padded: int) -> int:
        if self.span is not None:
            return self.span[1] - self.span[0]
        length = len(self.head) + (self.fresh.stored if self.fresh else 0)
        return length + -length % padded


@dataclass(slots=True)
class Plan:
    """Where everything goes. `ends` tell where each entry of the old `index` ends in its `source`."""

    layout: Layout
    items: list[Item]
    order: list[Item]
    source: Source | None = None
    index: Index | None = None
    ends: list[int] = field(default_factory=list)
    gaps: dict[int, tuple[int, int]] = field(default_factory=dict)
    tail: bytes = b""
    lead: bytes = b""
    trail: bytes = b""  # what lies behind everything that is described
    between: bytes = b""  # what lies between an index in front and the data, where that is more than zeros
    data_start: int = 0
    data_end: int = 0
    index_at: int = 0
    raw: bytes = b""
    names: bytes = b""
    start: bytes = b""
    footer: bytes = b""
    pad: int = 0
    folders: Arrangement | None = None
    scope: Mapping[str, Any] = field(default_factory=dict)  # the numbers of a new archive's start
    still: bool = False  # what nobody changed keeps its place, what has grown or is new goes to the end
    others: frozenset[str] = frozenset()  # fields that tell of other indexes in the file
    behind: bool = False  # whether the index lies behind the data
    longer: int = 0
    total: int = 0
    kept: frozenset[tuple[int, int]] = field(init=False)  # the old spans of what nobody changed

    def __post_init__(self) -> None:
        self.kept = frozenset(item.span for item in self.items if item.span is not None)

    def up_from(self, at: int) -> int:
        """How many bytes there are from a place to the next one at which an entry may begin."""
        return self.layout.entry.padding(at, self.data_start)

    def stays(self, item: Item, padded: int = 1) -> bool:
        """Whether an entry can have the place that it had: it is the same, or has become no longer and is alone there."""
        if item.span is not None or item.old < 0 or self.index is None:
            return item.span is not None
        span = int(self.index.offsets[item.old]), self.ends[item.old]
        alone = span[0] == span[1] or span not in self.kept
        return alone and item.length(padded) <= span[1] - span[0]

    def left_empty(self) -> Iterator[tuple[int, int]]:
        """The old spans of what was removed, replaced or has moved: nothing of it is to be left there."""
        stay = {item.old for item in self.items if item.span is not None}
        for place, end in enumerate(self.ends):
            span = int(self.index.offsets[place]) if self.index is not None else 0, end
            if place not in stay and span not in self.kept:
                yield span

    @property
    def padded(self) -> int:
        """What stored sizes are a multiple of: where no field tells them, padding counts as a part of the entry."""
        index = self.layout.index
        return 1 if index is None or index.tells_sizes else self.layout.entry.align


def find_gaps(plan: Plan) -> None:
    """What lies between the old entries and is more than padding has to be carried through."""
    if plan.index is None or plan.source is None:
        return
    index, view, part = plan.index, plan.source.view, plan.layout.entry
    if plan.layout.index is not None and plan.layout.index.in_front:
        plan.lead = bytes(view[index.head_end : index.index_at])
        between = bytes(view[index.end : index.data_start])
        plan.between = between if any(between) else b""
    else:
        plan.lead = bytes(view[index.head_end : max(index.data_start, index.head_end)])
    plan.trail = _trail(plan, index, view)
    order = np.argsort(index.offsets, kind="stable").tolist()
    end = index.data_start
    for place in order:
        offset = int(index.offsets[place])
        if offset > end and not _is_padding(plan, view[end:offset], part.padding(end, index.data_start)):
            plan.gaps[place] = (end, offset)
        end = max(end, plan.ends[place])
    if end < index.data_end:
        plan.tail = bytes(view[end : index.data_end])


def _trail(plan: Plan, index: Index, view: memoryview) -> bytes:
    """What lies behind the data and everything else that is described. Raises FurnelError for what lies between an index and
    its names, which have no place of their own when they are written."""
    behind = plan.layout.index is not None and plan.layout.index.behind
    if behind:
        (_, first), (second, _) = sorted((index.span, index.names_span))
        if any(view[first:second]):
            raise FurnelError(
                WRITING, where=plan.layout.name,
                why=f"{second - first} bytes lie between its index and its names, and the layout does not say what",
                remedy="Describe what they are: they would be lost",
            )  # fmt: skip
    return bytes(
        view[
            max(index.data_end, index.end) if behind else index.data_end : len(view)
            - plan.layout.footer_width
        ]
    )


def _is_padding(plan: Plan, gap: memoryview, length: int) -> bool:
    return len(gap) == length and bytes(gap) == bytes([plan.layout.entry.fill]) * len(gap)


def place_all(plan: Plan) -> None:
    """Find places that agree with each other: a packed index changes its length with the numbers in it.

    Where they do not settle, room is left behind the index; where offsets count from its end, it is packed longer instead.
    Nothing that can stay moves where the layout says so, or where there are bytes that nobody explains.
    """
    if (part := plan.layout.folders) is not None:
        paths = [plan.layout.entry.name_of(item.path) for item in plan.items]
        plan.folders = arrange(plan.layout, part, paths, plan.index.folders if plan.index else None)
    plan.still = _may_stay(plan)
    if plan.still and _settle_still(plan):
        return
    plan.still = False
    for plan.longer in range(_LENGTHS):
        if _settle(plan):
            return
    raise FurnelError(WRITING, where=plan.layout.name, why="its index does not settle on a size")


def _settle(plan: Plan) -> bool:
    layout = plan.layout
    index = layout.index
    assert index is not None
    relative = _counts_from_data(index)
    room = max(plan.index.data_start - plan.index.index_at, 0) if plan.index else 0
    least, most = 1 << 62, 0
    for turn in range(_ROUNDS):
        head = (fixed_width(layout.start.fields) if layout.start else 0) or len(plan.start)
        plan.index_at = head + len(plan.lead) if index.in_front else 0
        plan.data_start = plan.index_at + room if index.in_front else head + len(plan.lead)
        _place_data(plan)
        if index.behind:
            plan.index_at = plan.data_end
        write_records(plan)
        if len(plan.start) != head:  # a start that has no fixed length: what follows it lies elsewhere
            continue
        need = len(plan.raw) + len(plan.names)
        least, most = min(least, need), max(most, need)
        plan.pad = room - need if index.in_front else 0
        roomy = turn > 4 and plan.pad >= 0 and not relative
        if not index.in_front or need == room or roomy:
            return True
        room = need if turn < 4 else least + turn - 4 if relative else most
    return False


def _may_stay(plan: Plan) -> bool:
    """Whether untouched entries are to keep their places: by the layout, or because bytes lie around that nobody explains."""
    part, index = plan.layout.entry, plan.layout.index
    if (
        plan.index is None
        or index is None
        or not (index.tells_places and index.tells_sizes)
        or part.moves is True
    ):
        return False
    lead = b"" if index.in_front else plan.lead
    strange = bool(plan.gaps) or any(any(piece) for piece in (lead, plan.between, plan.tail, plan.trail))
    return strange or part.moves is False


def _settle_still(plan: Plan) -> bool:
    """Places where nothing that nobody changed moves; False where the index has no room for that."""
    old, index = plan.index, plan.layout.index
    assert old is not None and index is not None
    plan.data_start, end, padded = old.data_start, old.data_end, plan.padded
    for item in plan.order:
        item.shared = False
        if plan.stays(item, padded):
            item.offset = int(old.offsets[item.old])
        else:
            item.offset = end + plan.up_from(end)
            end = item.offset + item.length(padded)
    plan.data_end = end + (plan.up_from(end) if plan.layout.entry.pad_last else 0)
    plan.index_at = old.index_at if index.in_front else plan.data_end if index.behind else 0
    settle_records(plan)
    room = max(old.data_start - old.index_at, 0)
    plan.pad = room - len(plan.raw) - len(plan.names) if index.in_front else 0
    head = len(plan.start) + len(plan.lead)
    starts = head == (old.index_at if index.in_front else old.data_start)
    if (
        _counts_from_data(index) and index.in_front and plan.pad
    ):  # the data would seem to begin where the index ends
        return False
    return plan.pad >= 0 and starts and (not plan.between or plan.pad == len(plan.between))


def _counts_from_data(index: IndexPart) -> bool:
    """Whether offsets are counted from where the data begins."""
    return any(part.means and "data_start" in part.means for part in index.fields)


def _place_data(plan: Plan) -> None:
    layout = plan.layout
    at, padded = plan.data_start, plan.padded
    shared: dict[tuple[int, int], int] = {}
    for item in plan.order:
        item.shared = item.span is not None and item.span[0] < item.span[1] and item.span in shared
        if item.span is not None and item.shared:
            item.offset = shared[item.span]
            continue
        if item.old in plan.gaps:
            start, end = plan.gaps[item.old]
            at += end - start
        if layout.entry.align > 1 and (
            item.span is None
            or plan.index is None
            or not layout.entry.padding(item.span[0], plan.index.data_start)
        ):
            at += plan.up_from(at)
        item.offset = at
        if item.span is not None:
            shared[item.span] = at
        at += item.length(padded)
    if plan.tail and not tail_is_padding(plan):
        at += len(plan.tail)
    elif plan.tail or layout.entry.pad_last:
        at += plan.up_from(at)
    plan.data_end = at


def tail_is_padding(plan: Plan) -> bool:
    fill = bytes([plan.layout.entry.fill])
    return len(plan.tail) < plan.layout.entry.align and plan.tail == fill * len(plan.tail)


def settle_records(plan: Plan) -> None:
    """The records' bytes where the data stays: written until they are the same again, as their lengths stand in them."""
    for _ in range(_ROUNDS):
        before = plan.start, plan.raw, plan.names
        write_records(plan)
        if before == (plan.start, plan.raw, plan.names):
            break


def write_records(plan: Plan) -> None:
    """The bytes of start, index, names and footer for the places as they are now."""
    layout, old = plan.layout, plan.index
    index = layout.index
    assert index is not None
    head = Head(scope={})
    if old is None:
        head.start = records.defaults(layout.start.fields if layout.start else ())
        head.footer = records.defaults(layout.footer.fields if layout.footer else ())
        head.index_start = records.defaults(index.start)
    else:
        head.start, head.footer = dict(old.head.start), dict(old.head.footer)
        head.index_start = dict(old.head.index_start)
    plan.behind = plan.behind or index.behind
    behind = len(plan.raw) + len(plan.names) if plan.behind else 0
    plan.total = plan.data_end + behind + len(plan.trail) + layout.footer_width
    facts: dict[str, int] = {
        "folder count": len(plan.folders.paths) if plan.folders is not None else 0,
        "entry count": _row_count(plan), "index offset": plan.index_at, "index stored size": len(plan.raw),
        "data offset": plan.data_start, "data size": plan.data_end - plan.data_start, "file size": plan.total,
        "names offset": plan.index_at + len(plan.raw), "names size": len(plan.names),
    }  # fmt: skip
    for _ in range(3):
        head.scope = _scope(plan, facts)
        _set_heads(layout, head, facts)
        plain, names, names_size = _index_plain(plan, head)
        if old is not None and plain == old.plain:
            plan.raw = old.raw
        else:
            plan.raw = masked(pack(plain, index.packed, plan.longer), layout.masks, "index", head.scope)
        plan.names = names
        fresh = dict(facts)
        fresh["index size"], fresh["index stored size"] = len(plain), len(plan.raw)
        fresh["names offset"] = plan.index_at + len(plan.raw)
        fresh["names size"] = names_size
        behind = len(plan.raw) + len(names) if plan.behind else 0
        fresh["file size"] = plan.total = plan.data_end + behind + len(plan.trail) + layout.footer_width
        if fresh == facts:
            break
        facts = fresh
    head.scope = _scope(plan, facts)
    _set_heads(layout, head, facts)
    for record, values in ((layout.start, head.start), (layout.footer, head.footer)):
        if record is None:
            continue
        for part in record.fields:
            if part.holds == "index sum" and part.sum is not None:
                order = part.order or layout.byte_order
                values[part.name] = sum_value(part, sum_of(part.sum, order, plan.raw), order)
            if part.holds == "file sum":
                values[part.name] = bytes(part.sum_width) if part.type == "bytes" else 0
        made = records.write_record(record.fields, values, layout.byte_order, head.scope)
        if record is layout.start:
            plan.start = made
        else:
            plan.footer = made


def _scope(plan: Plan, facts: Mapping[str, int]) -> dict[str, Number]:
    return {"file_size": facts["file size"], "data_start": plan.data_start, "index_at": plan.index_at}


def _row_count(plan: Plan) -> int:
    """How many records the index has, with those that are no entries."""
    old, part = plan.index, plan.layout.buckets
    if part is not None and not part.fields:
        return old.table.count if old is not None else bucket_count(part, plan.scope, plan.layout.name)
    return len(plan.items) + (old.table.count - len(old.rows) if old is not None else 0)


def _set_heads(layout: Layout, head: Head, facts: Mapping[str, int]) -> None:
    for fields, values, at in head.records(layout):
        for role, number in facts.items():
            records.mean(fields, values, role, number, {**head.scope, records.AT: at})
        head.learn(values)


def _index_plain(plan: Plan, head: Head) -> tuple[bytes, bytes, int]:
    """The index before it is packed, the name table when that is a block of its own, and the name table's bytes."""
    layout, old = plan.layout, plan.index
    index = layout.index
    assert index is not None
    scope = head.scope
    items, rows = sorted_rows(plan, index)
    table = (
        old.table.take(np.array(rows, np.int64))
        if old is not None
        else Table.empty(index.fields, layout.byte_order, len(items), scope)
    )
    places = np.array([number for number, item in enumerate(items) if item is not None], np.int64)
    entries = [item for item in items if item is not None]
    if old is not None:
        _fill_unknown(table, old, items)
    plain = (
        records.write_record(index.start, head.index_start, layout.byte_order, scope) if index.start else b""
    )
    table.at = plan.index_at + len(plain)
    _fill_table(table, places, entries, plan, scope)
    names = b""
    if index.names == "table":
        names, starts = name_table(entries, layout, old, table.holds("name offset"))
        _set(table, "name offset", places, starts, scope)
    plain += _rows_bytes(plan, table, entries, scope)
    plain += old.last_row if old is not None else new_last_row(layout, index)
    own_block = any(
        "names offset" in held(part.fields) for part in (layout.start, layout.footer) if part is not None
    )
    if index.names == "table" and own_block:
        block = masked(pack(names, layout.names.packed), layout.masks, "names", head.scope)
        return plain + (old.rest if old is not None else b""), block, len(block)
    return plain + names + (old.rest if old is not None else b""), b"", len(names)


def _rows_bytes(plan: Plan, table: Table, entries: list[Item], scope: Mapping[str, Any]) -> bytes:
    """The entries' records, with the folders before, behind or between them."""
    part, made = plan.layout.folders, plan.folders
    if plan.layout.buckets is not None:
        buckets = write_buckets(plan, table, entries, scope)
        return (
            buckets + table.write(scope)
            if plan.layout.buckets.place == "before"
            else table.write(scope) + buckets
        )
    if part is None or made is None:
        return table.write(scope)
    linked = [item.row for item in entries] if table.holds("next entry") else None
    folders, nexts = write_folders(
        plan.layout, part, made, plan.index.folders if plan.index else None, scope, linked
    )
    if linked is not None:
        table.mean("next entry", np.array(nexts, np.int64), scope)
    if part.shape == "tree":
        return tree_bytes(part, made, folders, table, scope)
    if "folder" in held(table.fields):
        table.mean("folder", np.array(made.of_rows, np.int64), scope)
    rows = table.write(scope)
    return folders.write(scope) + rows if part.place == "before" else rows + folders.write(scope)


def _fill_unknown(table: Table, old: Index, items: list[Item | None]) -> None:
    """New entries' fields of which the layout does not say what they hold, as the entry has them that each is most like."""
    free = untold(table.fields)
    fresh = [(row, item.like) for row, item in enumerate(items) if item is not None and item.like >= 0]
    for row, like in fresh if free else ():
        values = old.table.row(int(old.rows[like]))
        for name in free:
            column = table.columns[name]
            if isinstance(column, np.ndarray) and column.dtype.kind == "V":
                column = table.columns[name] = column.tolist()
            column[row] = values[name]


def _fill_table(table: Table, places: Any, entries: list[Item], plan: Plan, scope: Mapping[str, Any]) -> None:
    layout, old = plan.layout, plan.index
    assert layout.index is not None
    offsets = [item.offset for item in entries]
    _set(table, "offset", places, offsets, scope)
    _set(table, "volume", places, [item.volume for item in entries], scope)
    fresh = [
        (place, item) for place, item in zip(places.tolist(), entries, strict=True) if item.fresh is not None
    ]
    where = np.array([place for place, _ in fresh], np.int64)
    made = [item.fresh for _, item in fresh if item.fresh is not None]
    for role in ("size", "stored size"):
        if (
            leans(table, role) and old is not None
        ):  # it changes with where the entry lies: anew for all that were there
            there = [
                (place, item) for place, item in zip(places.tolist(), entries, strict=True) if item.old >= 0
            ]
            known = old.sizes if role == "size" else old.stored
            rows = np.array([place for place, _ in there], np.int64)
            _set(table, role, rows, [int(known[item.old]) for _, item in there], scope)
    if made:
        _set(table, "size", where, [one.size for one in made], scope)
        _set(table, "stored size", where, [one.stored for one in made], scope)
        for role in sorted({role for _, item in fresh for role in item.facts}):
            told = [(place, item.facts[role]) for place, item in fresh if role in item.facts]
            _set(
                table,
                role,
                np.array([place for place, _ in told], np.int64),
                [number for _, number in told],
                scope,
            )
        if layout.entry.packings:
            _set(table, "packing", where, [one.code or 0 for one in made], scope)
        for part in layout.index.fields:
            if part.holds in ("sum", "stored sum") and all(part.holds in one.sums for one in made):
                order = part.order or layout.byte_order
                values = [sum_value(part, one.sums[part.holds], order) for one in made]
                _set(table, part.holds, where, values, scope)
    renamed = [
        (place, item) for place, item in zip(places.tolist(), entries, strict=True)
        if item.old < 0 or old is None or old.paths[item.old] != item.path
    ]  # fmt: skip
    if renamed:
        rows = np.array([place for place, _ in renamed], np.int64)
        names = [layout.entry.name_of(item.path) for _, item in renamed]
        if layout.names.hash is not None:
            _set(table, "name hash", rows, layout.names.hashes(names), scope)
        _set(table, "path", rows, [layout.names.raw(layout.leaf(item.path)) for _, item in renamed], scope)


def leans(table: Table, role: str) -> bool:
    """Whether the number that stands for a role depends on others beside it, such as an end that is counted from the offset."""
    part = holder(table.fields, role)
    told = [text for text in (part.means, part.stores) if text is not None] if part is not None else []
    return any(expression(text).names - {"value"} for text in told)


def holder(fields: Fields, role: str) -> FieldPart | BitsPart | None:
    """The field, or the bits of one, that hold a role."""
    parts: list[FieldPart | BitsPart] = []
    for one in fields:
        parts += [one, *one.bits]
    return next((part for part in parts if part.holds == role), None)


def _set(table: Table, role: str, rows: Any, meanings: Any, scope: Mapping[str, Any]) -> None:
    """Store what some rows mean; the other rows keep their numbers."""
    if not table.holds(role) or not len(rows):
        return
    part = Table(table.fields, table.order, {}, len(rows))
    part.numbers, part.at = np.asarray(rows, np.int64), table.at
    for name, column in table.columns.items():
        part.columns[name] = (
            column[rows] if isinstance(column, np.ndarray) else [column[row] for row in rows.tolist()]
        )
    if isinstance(meanings, list) and not any(isinstance(one, bytes) for one in meanings):
        meanings = np.array(meanings, np.int64)
    part.mean(role, meanings, scope)
    for name, column in table.columns.items():
        changed = part.columns[name]
        if isinstance(column, np.ndarray) and not isinstance(changed, list):
            column[rows] = np.asarray(changed).astype(column.dtype)
        else:
            held_column = column.tolist() if isinstance(column, np.ndarray) else column
            for row, value in zip(rows.tolist(), changed, strict=True):
                held_column[row] = value
            table.columns[name] = held_column


def old_spans(layout: Layout, source: Source, index: Index) -> list[tuple[Values, int, int]]:
    """As `old_span` for every old entry."""
    if layout.entry.head:
        return [old_span(layout, source, index, place) for place in range(len(index.paths))]
    ends = (index.offsets + index.stored).tolist()
    return [({}, start, end) for start, end in zip(index.offsets.tolist(), ends, strict=True)]


def old_span(layout: Layout, source: Source, index: Index, place: int) -> tuple[Values, int, int]:
    """The record before an old entry's data, and where that data begins and ends."""
    start = int(index.offsets[place])
    head: Values = {}
    if layout.entry.head:
        head, start = records.read_record(
            layout.entry.head, source.view, start, layout.byte_order, source.name, index.head.scope
        )
    return head, start, start + int(index.stored[place])
