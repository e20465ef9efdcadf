"""The order of the records of an index that is about to be written: as it was, sorted, by folders, by buckets, in slots."""

from __future__ import annotations

from collections.abc import Mapping, Sequence
from itertools import pairwise
from typing import TYPE_CHECKING, Any

import numpy as np

from furnel.containers.buckets import (
    bucket_count,
    buckets_of,
    check_linked,
    check_runs,
    check_slots,
    fill_buckets,
    in_slots,
    linked,
    ranks_in,
    shape,
)
from furnel.containers.reading import Index
from furnel.containers.schema import IndexPart, Layout
from furnel.containers.sums import Hashes
from furnel.containers.tableparts import BucketsPart
from furnel.containers.tables import Table
from furnel.errors import FurnelError

if TYPE_CHECKING:
    from furnel.containers.placing import Item, Plan

Rows = tuple[list["Item | None"], list[int]]


def sorted_rows(plan: Plan, index: IndexPart) -> Rows:
    """The index's rows in their order: entries, and rows that are none and stay (as None), with the rows that they were."""
    items: list[Item | None] = list(plan.items)
    rows = [item.row for item in plan.items]
    part, old = plan.layout.buckets, plan.index
    renewed = part is not None and _names_changed(plan)  # else everything is where it is found
    slotted = part is not None and not part.fields and renewed
    if old is not None and len(old.rows) != old.table.count and not slotted:
        used = set(old.rows.tolist())
        kept = {row: None for row in range(old.table.count) if row not in used}
        by_row: dict[int, Item | None] = {item.row: item for item in plan.items if item.row >= 0}
        by_row.update(kept)
        fresh = [item for item in plan.items if item.row < 0]
        rows = [*sorted(by_row), *([-1] * len(fresh))]
        items = [*(by_row[row] for row in sorted(by_row)), *fresh]
    elif part is not None and slotted:
        items, rows = _slotted(plan, part)
    elif part is not None and renewed and "next entry" not in index.roles:
        homes = _homes(plan, part, plan.items)
        return _taken(items, rows, sorted(range(len(items)), key=lambda place: homes[place]))
    if plan.folders is not None:
        items, rows = _taken(items, rows, plan.folders.order)
    if index.sorted_by is not None:
        keys = sort_keys(plan.layout, index.sorted_by, items, plan.index)
        items, rows = _taken(items, rows, sorted(range(len(items)), key=lambda place: keys[place]))
    return items, rows


def _taken(items: list[Item | None], rows: list[int], order: Sequence[int]) -> Rows:
    return [items[place] for place in order], [rows[place] for place in order]


def sort_keys(layout: Layout, by: str, items: Sequence[Item | None], old: Index | None) -> list[Any]:
    """By what rows are sorted."""
    if by == "name hash":
        return list(name_hashes(layout, items, old).tolist())
    return [layout.entry.name_of(item.path) if item else "" for item in items]


def name_hashes(layout: Layout, items: Sequence[Item | None], old: Index | None) -> Hashes:
    """The hash of each entry's name: the one that stands in the archive where nobody gave it another name, which may be one
    that is not known."""
    found = layout.names.hashes([layout.entry.name_of(item.path) if item else "" for item in items])
    told = old.table.meaning("name hash", old.head.scope) if old is not None else None
    if told is not None and old is not None:
        for place, item in enumerate(items):
            if item is not None and item.row >= 0 and item.path == old.paths[item.old]:
                found[place] = told[item.row]
    return found


def check_order(
    layout: Layout, index: Index, where: object, items: Sequence[Item], names_change: bool
) -> None:
    """Refuse an index that is not in the order that the layout tells, or whose hash table is another: `items` are all the
    entries that it has, as they are."""
    part = layout.index
    assert part is not None
    if part.sorted_by is not None:
        keys = sort_keys(layout, part.sorted_by, items, index)
        wrong = next((place for place, pair in enumerate(pairwise(keys)) if pair[0] > pair[1]), None)
        if wrong is not None:
            raise FurnelError(
                "Writing an archive", where=f"{where}, {items[wrong + 1].path}",
                why=f"it is not sorted by the {part.sorted_by}, as the layout says",
                remedy="Leave sorted-by out, or say how names are spelled and hashed: sorted anew it would not be found in",
            )  # fmt: skip
    if layout.buckets is not None and names_change:
        _check_buckets(layout, layout.buckets, index, items, where)


def _check_buckets(
    layout: Layout, part: BucketsPart, index: Index, items: Sequence[Item], where: object
) -> None:
    scope = index.head.scope
    homes = buckets_of(part, name_hashes(layout, items, index), scope, where)
    kind = shape(part, index.table)
    if kind == "slots":
        check_slots(homes, index.rows.tolist(), index.table.count, where)
        return
    assert index.buckets is not None
    if kind == "runs":
        check_runs(part, index.buckets, homes, scope, where)
        return
    firsts, after = _links(index)
    ranks_in(firsts, after, where)
    check_linked(homes, firsts, after, where)


def _links(index: Index) -> tuple[list[int], list[int]]:
    """The first entry of each bucket, and which comes after each entry."""
    assert index.buckets is not None
    scope = index.head.scope
    found = index.buckets.meaning("first entry", scope), index.table.meaning("next entry", scope)
    return [int(one) for one in found[0]], [int(one) for one in found[1]]


def _names_changed(plan: Plan) -> bool:
    old = plan.index
    return old is None or [item.path for item in plan.items] != old.paths


def _scope(plan: Plan) -> Mapping[str, Any]:
    return plan.index.head.scope if plan.index is not None else plan.scope


def _homes(plan: Plan, part: BucketsPart, items: Sequence[Item]) -> list[int]:
    return buckets_of(part, name_hashes(plan.layout, items, plan.index), _scope(plan), plan.layout.name)


def _slotted(plan: Plan, part: BucketsPart) -> Rows:
    """Every entry in the slot of its bucket, or the next free one."""
    old = plan.index
    count = old.table.count if old is not None else bucket_count(part, _scope(plan), plan.layout.name)
    free = sorted({*range(count)} - {*old.rows.tolist()}) if old is not None else []
    items: list[Item | None] = [None] * count
    rows = [free[0] if free else -1] * count
    for slot, item in zip(
        in_slots(_homes(plan, part, plan.items), count, plan.layout.name), plan.items, strict=True
    ):
        items[slot], rows[slot] = item, item.row
    return items, rows


def write_buckets(plan: Plan, table: Table, entries: Sequence[Item], scope: Mapping[str, Any]) -> bytes:
    """The table of buckets for an index whose records are `table`, in which links are set."""
    part, old = plan.layout.buckets, plan.index
    if part is None or not part.fields:
        return b""
    if old is not None and old.buckets is not None and not _names_changed(plan):
        return old.buckets.write(scope)
    homes = _homes(plan, part, entries)
    count = bucket_count(part, scope, plan.layout.name)
    made = (
        old.buckets.take(np.arange(count)) if old is not None and old.buckets is not None
        else Table.empty(part.fields, plan.layout.byte_order, count, scope)
    )  # fmt: skip
    if shape(part, table) == "runs":
        fill_buckets(part, made, homes, scope)
        return made.write(scope)
    before = ranks_in(*_links(old), plan.layout.name) if old is not None else []
    ranks = [before[item.row] if item.row >= 0 else len(before) + place for place, item in enumerate(entries)]
    firsts, after = linked(part, homes, ranks, count)
    made.mean("first entry", np.array(firsts, np.int64), scope)
    table.mean("next entry", np.array(after, np.int64), scope)
    return made.write(scope)
