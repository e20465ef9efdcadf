"""Writing an archive that has other indexes, too: all of it stays where it is, and what is new or has grown goes to the end."""

from __future__ import annotations

from typing import BinaryIO

from furnel.containers.fields import held
from furnel.containers.placing import WRITING, Plan, settle_records
from furnel.errors import FurnelError


def place_behind(plan: Plan) -> None:
    """Find places at the end of the file; the index keeps its own while it has room there. Raises FurnelError where it has none
    and nothing tells where it lies."""
    old, source = plan.index, plan.source
    assert old is not None and source is not None
    end = len(source.view) - plan.layout.footer_width
    plan.data_start = old.data_start
    for item in plan.order:
        if plan.stays(item):
            item.offset = int(old.offsets[item.old])
        else:
            item.offset = end + plan.up_from(end)
            end = item.offset + item.length(1)
    plan.data_end = end
    for plan.behind in (False, True):
        plan.index_at = end if plan.behind else old.index_at
        settle_records(plan)
        if plan.behind or len(plan.raw) <= len(old.raw):
            break
    told = (plan.layout.start, plan.layout.footer)
    if plan.behind and not any("index offset" in held(part.fields) for part in told if part is not None):
        raise FurnelError(
            WRITING, where=source.name, why="an index has no room for more, and no field tells where it lies",
            remedy='Say which field holds its "index offset", or replace entries and add none',
        )  # fmt: skip


def write_behind(plan: Plan, out: BinaryIO) -> None:
    """The old file with changed entries, index and records in their places or behind everything."""
    old, source = plan.index, plan.source
    assert old is not None and source is not None
    fill = bytes([plan.layout.entry.fill])
    source.copy(0, len(source.view) - plan.layout.footer_width, out)
    for start, end in plan.left_empty():
        _put(out, start, fill * (end - start))
    for item in plan.items:
        if item.fresh is not None:
            _put(out, item.offset, item.head)
            item.fresh.copy(out)
    _put(out, old.index_at, bytes(len(old.raw)))
    _put(out, plan.index_at, plan.raw)
    _put(out, 0, plan.start)
    out.seek(plan.total - len(plan.footer))
    out.write(plan.footer)


def _put(out: BinaryIO, at: int, data: bytes) -> None:
    out.seek(at)
    out.write(data)
