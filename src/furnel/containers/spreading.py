"""Writing an archive whose entries lie in volumes: what nobody changed keeps its place, what has grown goes behind the last."""

from __future__ import annotations

from pathlib import Path
from typing import BinaryIO, cast

from furnel.atomic import replacing_together
from furnel.containers.container import Changes
from furnel.containers.mapped import Source, Written
from furnel.containers.placing import WRITING, Plan, old_span, settle_records
from furnel.containers.proof import Proof
from furnel.containers.reading import Index
from furnel.containers.refusing import check_numbers, check_old
from furnel.containers.schema import Layout
from furnel.containers.tableparts import VolumesPart
from furnel.containers.volumes import Spread, Volumes, volume_names
from furnel.containers.writing import changed_items, close_items, new_items, patch_file_sum
from furnel.errors import FurnelError
from furnel.progress import Part, Progress


def rewrite(
    target: Path, layout: Layout, main: Source, data: Volumes, index: Index, changes: Changes, progress: Progress, proof: Proof
) -> None:  # fmt: skip
    """A changed copy of the archive, its volumes beside it; `proof` reads it back before it takes its place."""
    part = layout.volumes
    assert part is not None
    if not changes:
        with replacing_together(_files(target, part, len(data.lengths))) as (out, *volumes):
            main.copy(0, len(main.view), out)
            for number, volume in enumerate(volumes):
                data.copy_file(number, volume)
        return
    check_old(
        layout, index, main.name, names_too=bool(changes.add or changes.rename), less=bool(changes.remove)
    )
    spans = [old_span(layout, data, index, place) for place in range(len(index.paths))]
    items = changed_items(layout, data, index, spans, changes, Part(progress, 0, 0.5))
    try:
        plan = Plan(layout, items, list(items), main, index, [end for _, _, end in spans])
        end = len(main.view) - layout.footer_width
        plan.lead = bytes(main.view[index.head_end : index.index_at])
        plan.trail = bytes(main.view[max(index.end, index.head_end) : end])
        _write(target, plan, part, data, proof)
    finally:
        close_items(items)


def create(target: Path, layout: Layout, contents: Changes, progress: Progress, proof: Proof) -> None:
    """A new archive with as many volumes as it needs."""
    part = layout.volumes
    assert part is not None
    items, scope = new_items(target, layout, contents, progress)
    try:
        _write(target, Plan(layout, items, list(items), scope=scope), part, None, proof)
    finally:
        close_items(items)


def _files(target: Path, part: VolumesPart, count: int) -> list[Path]:
    *names, more = volume_names(part, target.name, count + 1)
    if target.with_name(more).exists():
        raise FurnelError(
            WRITING, where=target.with_name(more), why="it would be taken for one more volume of the archive",
            remedy="Move it away, or write to another folder",
        )  # fmt: skip
    return [target, *(target.with_name(name) for name in names)]


def _write(target: Path, plan: Plan, part: VolumesPart, data: Volumes | None, proof: Proof) -> None:
    lengths = data.lengths if data is not None else [0]
    old = plan.index
    ends = list(lengths) if part.size is None else [sum(lengths)]
    for item in plan.items:
        if old is not None and plan.stays(item):
            item.volume, item.offset = _place(part, data, int(old.offsets[item.old]))
        else:
            end = ends[-1] + -ends[-1] % plan.layout.entry.align
            item.volume, item.offset = part.first + len(ends) - 1, end
            ends[-1] = end + item.length(1)
    count = len(lengths) if part.size is None else max(-(-ends[-1] // part.size), 1)
    plan.behind = True
    for _ in range(2):  # a start of no fixed length says where it ends
        plan.index_at = plan.data_start = plan.data_end = len(plan.start) + len(plan.lead)
        settle_records(plan)
    check_numbers(plan)
    fill = bytes([plan.layout.entry.fill])
    with replacing_together(_files(target, part, count)) as (out, *volumes):
        out.write(plan.start + plan.lead + plan.raw + plan.names + plan.trail + plan.footer)
        patch_file_sum(plan.layout, out, plan.total - len(plan.footer))
        if data is not None:
            for number in range(len(lengths)):
                data.copy_file(number, volumes[number])
        for start, end in plan.left_empty():
            _at(volumes, part, *_place(part, data, start)).write(fill * (end - start))
        for item in plan.items:
            if item.fresh is not None:
                stream = _at(volumes, part, item.volume, item.offset)
                stream.write(item.head)
                item.fresh.copy(cast(BinaryIO, stream))
        for written in (out, *volumes):
            written.flush()
        named = dict(zip(volume_names(part, target.name, count), volumes, strict=True))
        proof(Written(out, target, named))


def _place(part: VolumesPart, data: Volumes | None, start: int) -> tuple[int, int]:
    """The volume and the offset in it of a place in all of them together."""
    if part.size is not None or data is None:
        return part.first, start
    number = data.volume_at(start)
    return part.first + number, start - data.starts[number]


def _at(volumes: list[BinaryIO], part: VolumesPart, number: int, at: int) -> Spread:
    return Spread(volumes, number - part.first, at, part.size)
