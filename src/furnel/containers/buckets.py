"""Hash tables over names: buckets that tell their first entry, entries that tell the next one, or the index as slots."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from typing import Any, cast

import numpy as np

from furnel.containers.container import Order
from furnel.containers.expressions import expression
from furnel.containers.fields import held
from furnel.containers.records import MOST_RECORDS, Scope, Trace, no_trace
from furnel.containers.sums import Hashes
from furnel.containers.tableparts import BucketsPart
from furnel.containers.tables import Table
from furnel.errors import FurnelError

_WHAT, _WRITING = "Reading an archive", "Writing an archive"


def bucket_count(part: BucketsPart, scope: Scope, where: object) -> int:
    """How many buckets there are. Raises FurnelError where there are none."""
    count = int(expression(part.count).evaluate(scope))
    if not 0 < count <= MOST_RECORDS:
        raise FurnelError(
            _WHAT, where=where, why=f"its hash table has {count} buckets",
            remedy="The layout describes something else there; for new archives, a field's new number says how many there are",
        )  # fmt: skip
    return count


def buckets_of(part: BucketsPart, hashes: Hashes, scope: Scope, where: object) -> list[int]:
    """The bucket of each hash."""
    count = bucket_count(part, scope, where)
    found = np.asarray(expression(part.of).evaluate({**scope, "hash": cast("Any", hashes), "buckets": count}))
    wrong = (found < 0) | (found >= count)
    if np.any(wrong):
        raise FurnelError(
            _WRITING, where=where, why=f"a name would be in bucket {found[wrong][0]}, and there are {count}"
        )
    return [int(one) for one in np.broadcast_to(found, hashes.shape)]


def read_buckets(
    part: BucketsPart | None, data: memoryview, at: int, order: Order, where: str, scope: Scope, trace: Trace = no_trace
) -> tuple[Table | None, int]:  # fmt: skip
    """The table of buckets at byte `at`, where there is one, and where it ends."""
    if part is None or not part.fields:
        return None, at
    return Table.read(
        part.fields, data, at, bucket_count(part, scope, where), order, where, scope, trace, "bucket"
    )


def in_slots(buckets: Sequence[int], count: int, where: object) -> list[int]:
    """Which of `count` slots each entry gets: that of its bucket, or the next one that is free, from the first on again."""
    if len(buckets) > count:
        raise FurnelError(
            _WRITING, where=where, why=f"its index has {count} slots, and there would be {len(buckets)} entries",
            remedy="Nothing more can be added to this archive: replace entries, or remove others",
        )  # fmt: skip
    taken: set[int] = set()
    out = []
    for slot in buckets:
        while slot in taken:
            slot = (slot + 1) % count
        taken.add(slot)
        out.append(slot)
    return out


def linked(
    part: BucketsPart, buckets: Sequence[int], ranks: Sequence[int], count: int
) -> tuple[list[int], list[int]]:
    """The first entry of each bucket, and which entry comes after each, in the order of `ranks`; `free` ends."""
    assert part.free is not None
    first, after = [part.free] * count, [part.free] * len(buckets)
    last: dict[int, int] = {}
    for row in sorted(range(len(buckets)), key=lambda row: ranks[row]):
        home = buckets[row]
        if home in last:
            after[last[home]] = row
        else:
            first[home] = row
        last[home] = row
    return first, after


def ranks_in(firsts: Sequence[int], after: Sequence[int], where: object) -> list[int]:
    """The order in which old entries are met when every bucket is followed; refuses circles and entries that nobody meets."""
    ranks = [-1] * len(after)
    met = 0
    for row in firsts:
        while 0 <= row < len(after):
            if ranks[row] >= 0:
                raise _not_so(where, f"entry {row} is met twice")
            ranks[row] = met
            met, row = met + 1, after[row]
    if met < len(after):
        raise _not_so(where, f"entry {ranks.index(-1)} is in no bucket")
    return ranks


def fill_buckets(part: BucketsPart, table: Table, buckets: Sequence[int], scope: Scope) -> None:
    """Say where each bucket's entries begin and how many there are, where rows stand in the order of their buckets."""
    counts = np.bincount(np.asarray(buckets, np.int64), minlength=table.count)
    firsts: Any = np.cumsum(counts) - counts
    table.mean("first entry", firsts if part.free is None else np.where(counts, firsts, part.free), scope)
    table.mean("entries", counts, scope)


def check_slots(buckets: Sequence[int], rows: Sequence[int], count: int, where: object) -> None:
    """Refuse an index whose entries are not found from their bucket on, one slot after the other."""
    taken = set(rows)
    for slot, row in zip(buckets, rows, strict=True):
        while slot != row:
            if slot not in taken:
                raise _not_so(where, f"the entry in slot {row} would not be found")
            slot = (slot + 1) % count


def check_runs(part: BucketsPart, table: Table, buckets: Sequence[int], scope: Scope, where: object) -> None:
    """Refuse buckets that are not those of the names."""
    if any(one > other for one, other in pairwise(buckets)):
        raise _not_so(where, "its entries do not stand in the order of their buckets")
    made = table.take(np.arange(table.count))
    fill_buckets(part, made, buckets, scope)
    if made.write(scope) != table.write(scope):
        raise _not_so(where, "what its buckets say is not what the names make of them")


def check_linked(buckets: Sequence[int], firsts: Sequence[int], after: Sequence[int], where: object) -> None:
    """Refuse an entry that is met from another bucket than that of its name."""
    for home, row in enumerate(firsts):
        while 0 <= row < len(after):
            if buckets[row] != home:
                raise _not_so(
                    where, f"entry {row} is met in bucket {home}, and its name belongs into {buckets[row]}"
                )
            row = after[row]


def shape(part: BucketsPart, rows: Table) -> str:
    """`slots`, `linked` or `runs`."""
    return "slots" if not part.fields else "linked" if "next entry" in held(rows.fields) else "runs"


def _not_so(where: object, why: str) -> FurnelError:
    return FurnelError(
        _WRITING, where=where, why=f"its hash table is not as the layout says: {why}",
        remedy="Say in [buckets] and [names] hash how the game finds entries; replacing them works without",
    )  # fmt: skip
