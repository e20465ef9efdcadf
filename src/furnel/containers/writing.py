"""Writing an archive with an index: everything is placed first, then written from front to back in one go.

Unchanged entries are copied as they are stored, in their order, with what lies between them; only changed ones are packed.
"""

from __future__ import annotations

import io
import os
from collections.abc import Mapping
from pathlib import Path
from typing import Any, BinaryIO

from furnel.atomic import replacing_together
from furnel.collecting import uncollected
from furnel.containers import records
from furnel.containers.alike import Likeness
from furnel.containers.container import Changes, Content, check_path
from furnel.containers.fresh import Fresh, packed, plain_code
from furnel.containers.mapped import Source, Written
from furnel.containers.patching import place_behind, write_behind
from furnel.containers.placing import (
    WRITING,
    Item,
    Plan,
    find_gaps,
    old_spans,
    place_all,
    tail_is_padding,
)
from furnel.containers.proof import Proof
from furnel.containers.reading import Index, sum_places
from furnel.containers.records import Values
from furnel.containers.refusing import check_old, check_placed
from furnel.containers.schema import Layout
from furnel.containers.sums import Sum, sum_of, sum_value
from furnel.errors import FurnelError
from furnel.progress import QUIET, Part, Progress, steps

_RUN = 64 << 20  # bytes that are copied in one go


def rewrite(
    target: Path, layout: Layout, source: Source, side: Source, index: Index, changes: Changes, progress: Progress,
    proof: Proof, others: frozenset[str] = frozenset(),
) -> None:  # fmt: skip
    """A changed copy of the archive in `source`; `proof` reads it back before it takes its place. `others` are fields that tell
    of other indexes in the file."""
    if not changes:
        _copy_whole(target, layout, source, side)
        return
    check_old(
        layout, index, source.name, names_too=bool(changes.add or changes.rename), less=bool(changes.remove)
    )
    with uncollected():
        spans = old_spans(layout, source, index)
        items = changed_items(layout, source, index, spans, changes, Part(progress, 0, 0.5))
    try:
        ends = [end for _, _, end in spans]
        assert layout.index is not None
        order = _data_order(items, index) if layout.index.tells_places else list(items)
        plan = Plan(layout, items, order, source, index, ends, others=others)
        _write(target, plan, Part(progress, 0.5, 1), proof)
    finally:
        close_items(items)


def create(target: Path, layout: Layout, contents: Changes, progress: Progress, proof: Proof) -> None:
    """A new archive; entries in the order of what `contents` adds. `proof` reads it back before it takes its place."""
    items, scope = new_items(target, layout, contents, progress)
    try:
        _write(target, Plan(layout, items, list(items), scope=scope), QUIET, proof)
    finally:
        close_items(items)


def new_items(
    target: Path, layout: Layout, contents: Changes, progress: Progress
) -> tuple[list[Item], Mapping[str, Any]]:
    """The entries of a new archive, packed, and the numbers that its start begins with."""
    items: list[Item] = []
    scope = records.numbers_in(records.defaults(layout.start.fields if layout.start else ()))
    layout = layout.with_dictionaries(lambda path: _dictionary(target, path, contents))
    try:
        for path, content in steps(
            contents.add.items(), len(contents.add), progress, f"Packing {target.name}"
        ):
            check_path(path, target)
            code = plain_code(layout) if path in layout.dictionary_entries else None
            items.append(_new_item(layout, path, content, scope, {}, contents.facts.get(path, {}), code))
    except BaseException:
        close_items(items)
        raise
    return items, scope


def changed_items(
    layout: Layout, source: Source, index: Index, spans: list[tuple[Values, int, int]], changes: Changes, progress: Progress
) -> list[Item]:  # fmt: skip
    """The entries of a changed archive: old ones by their spans, replaced and new ones packed."""
    assert layout.index is not None
    numbered = layout.index.names == "numbers"
    gone = [place for place, path in enumerate(index.paths) if path in changes.remove]
    if numbered and (changes.rename or gone != list(range(len(index.paths) - len(gone), len(index.paths)))):
        raise FurnelError(
            WRITING, where=source.name, why="its entries have no names, only their place in the index",
            remedy="Only the last ones can be removed, and none renamed: the others would get another number",
        )  # fmt: skip
    items = []
    count = max(len(changes.replace) + len(changes.add), 1)
    done = 0
    rows, offsets = index.rows.tolist(), index.offsets.tolist()
    for place, path in enumerate(index.paths):
        if path in changes.remove:
            continue
        item = Item(changes.rename.get(path, path), rows[place], place)
        head, start, end = spans[place]
        if path in changes.replace:
            progress.report(done / count, f"Packing {path}")
            done += 1
            code = None if index.codes is None else int(index.codes[place])
            item.fresh = _packed(layout, changes.replace[path], code, index.head.scope)
            item.facts = changes.facts.get(path, {})
        elif path in changes.rename and layout.entry.head:
            item.fresh = _kept(source.view[start:end], index, place)
        else:
            item.span = (offsets[place], end)
        if item.fresh is not None:
            item.head = _entry_head(layout, head, item.path, item.fresh, index.head.scope, item.facts)
        items.append(item)
    alike = Likeness(index.paths if changes.add else ())
    for path, content in changes.add.items():
        progress.report(done / count, f"Packing {path}")
        done += 1
        like = alike.most_like(path)
        known = spans[like][0] if like >= 0 else {}
        item = _new_item(layout, path, content, index.head.scope, known, changes.facts.get(path, {}))
        item.like = like
        items.append(item)
    return items


def _new_item(
    layout: Layout,
    path: str,
    content: Content,
    scope: Mapping[str, Any],
    like: Values,
    facts: Mapping[str, int],
    code: int | None = None,
) -> Item:
    """A new entry; what its head does not say comes from the head of an entry that it is like."""
    fresh = _packed(layout, content, code, scope)
    return Item(path, fresh=fresh, head=_entry_head(layout, like, path, fresh, scope, facts), facts=facts)


def _dictionary(target: Path, path: str, contents: Changes) -> bytes:
    content = contents.add.get(path)
    if content is None:
        raise FurnelError(
            WRITING, where=target, why=f"its entries are packed with the dictionary {path}, and that is not among them",
            remedy="Put the dictionary of the game's own archive into the folder",
        )  # fmt: skip
    return content.read_bytes() if isinstance(content, Path) else content


def _packed(layout: Layout, content: Content, code: int | None, scope: Mapping[str, Any]) -> Fresh:
    assert layout.index is not None
    return packed(content, layout, code, (*layout.index.fields, *layout.entry.head), scope)


def _kept(data: memoryview, index: Index, place: int) -> Fresh:
    """Old stored bytes under a new head; the sums in the old row stay."""
    code = None if index.codes is None else int(index.codes[place])
    return Fresh(io.BytesIO(data), len(data), int(index.sizes[place]), code, {})


def _entry_head(
    layout: Layout, old: Values, path: str, fresh: Fresh, scope: Mapping[str, Any], facts: Mapping[str, int]
) -> bytes:
    """The record before an entry's data."""
    fields = layout.entry.head
    if not fields:
        return b""
    values = dict(old)
    name = layout.entry.name_of(path)
    records.mean(fields, values, "path", layout.names.raw(name), scope)
    if layout.names.hash is not None:
        records.mean(fields, values, "name hash", int(layout.names.hashes([name])[0]), scope)
    for role, number in {**facts, "size": fresh.size, "stored size": fresh.stored}.items():
        records.mean(fields, values, role, number, scope)
    if fresh.code is not None:
        records.mean(fields, values, "packing", fresh.code, scope)
    for part in fields:
        if part.holds in fresh.sums:
            values[part.name] = sum_value(part, fresh.sums[part.holds], part.order or layout.byte_order)
    return records.write_record(fields, values, layout.byte_order, scope)


def _data_order(items: list[Item], index: Index) -> list[Item]:
    """Items in the order of their data: old ones where they were (empty ones before what follows them), new ones behind."""
    old = [item for item in items if item.old >= 0]
    offsets, stored = index.offsets.tolist(), index.stored.tolist()
    old.sort(key=lambda item: (offsets[item.old], stored[item.old]))
    return old + [item for item in items if item.old < 0]


def _write(target: Path, plan: Plan, progress: Progress, proof: Proof) -> None:
    """Place everything, write it, and have it proved."""
    layout = plan.layout
    index = layout.index
    assert index is not None
    if index.names == "numbers":
        for number, item in enumerate(plan.items):
            if (wanted := layout.entry.path_of(index.number.format(number=number))) != item.path:
                raise FurnelError(
                    WRITING, where=item.path, why=f"it has to be named {wanted}",
                    remedy="This archive's entries have no names, only their place in it: number them from 0",
                )  # fmt: skip
    if not plan.others:
        find_gaps(plan)
    if plan.gaps and not index.tells_places:
        raise FurnelError(
            WRITING, where=target, why="something lies between its entries, and no field tells where these are",
            remedy="Describe what it is: a record before each entry ([entry] head), or its alignment",
        )  # fmt: skip
    if plan.others:
        place_behind(plan)
    else:
        place_all(plan)
    check_placed(plan)
    with replacing_together(side_files(target, layout)) as (out, *beside):
        if plan.others:
            write_behind(plan, out)
        else:
            _write_main(plan, out, progress)
        others: dict[str, BinaryIO] = {}
        if layout.sums is not None:
            others[layout.sums.file] = beside.pop()
            others[layout.sums.file].write(_side_sums(plan, out))
        if index.file:
            others[index.file] = beside.pop()
            others[index.file].write(plan.raw)
        patch_file_sum(layout, out, plan.total - len(plan.footer))
        for stream in others.values():
            stream.flush()
        proof(Written(out, target, others))


def side_files(target: Path, layout: Layout) -> list[Path]:
    """The files that an archive consists of: itself, its index, its sums."""
    assert layout.index is not None
    names = [layout.index.file, layout.sums.file if layout.sums is not None else ""]
    return [target, *(target.with_suffix(name) for name in names if name)]


def _write_main(plan: Plan, out: BinaryIO, progress: Progress) -> None:
    layout = plan.layout
    index = layout.index
    assert index is not None
    out.write(plan.start)
    out.write(plan.lead)
    if index.in_front:
        out.write(plan.raw + plan.names + (plan.between or bytes(plan.pad)))
    fill = bytes([layout.entry.fill])
    if plan.still:
        _write_still(plan, out, fill, progress)
        _write_behind(plan, out, fill)
        return
    runs = _Runs(plan, out, fill)
    for item in steps(plan.order, len(plan.order), progress, "Writing the archive"):
        if item.shared or runs.takes(item):
            continue
        runs.end()
        if item.old in plan.gaps and plan.source is not None:
            plan.source.copy(*plan.gaps[item.old], out)
        out.write(fill * (item.offset - out.tell()))
        if item.span is not None:
            runs.begin(item.span)
        elif item.fresh is not None:
            out.write(item.head)
            item.fresh.copy(out)
    runs.end()
    if plan.tail and not tail_is_padding(plan):
        out.write(plan.tail)
    _write_behind(plan, out, fill)


class _Runs:
    """Copies of untouched entries that lie one after the other as they did, with what lies between them, in one go."""

    def __init__(self, plan: Plan, out: BinaryIO, fill: bytes) -> None:
        self._plan, self._out, self._fill = plan, out, fill
        self._start = self._end = self._place = 0

    def begin(self, span: tuple[int, int]) -> None:
        """A run from an entry on, which is to be written where the file ends now."""
        (self._start, self._end), self._place = span, self._out.tell()

    def takes(self, item: Item) -> bool:
        """Whether an entry goes on with the run, and what lies before it is what lay there."""
        source, span = self._plan.source, item.span
        if (
            source is None
            or span is None
            or self._start == self._end
            or span[0] < self._end
            or self._end - self._start > _RUN
        ):
            return False
        if item.offset - self._place != span[0] - self._start:
            return False
        between = span[0] - self._end
        gap = self._plan.gaps.get(item.old)
        if (
            between
            and gap != (self._end, span[0])
            and source.view[self._end : span[0]] != self._fill * between
        ):
            return False
        self._end = span[1]
        return True

    def end(self) -> None:
        """Write what was gathered."""
        if self._plan.source is not None and self._start < self._end:
            self._plan.source.copy(self._start, self._end, self._out)
        self._start = self._end = 0


def _write_still(plan: Plan, out: BinaryIO, fill: bytes, progress: Progress) -> None:
    """The data as it lies in the old archive, with changed entries in their places or behind everything."""
    old, source = plan.index, plan.source
    assert old is not None and source is not None
    source.copy(old.data_start, old.data_end, out)
    for start, end in plan.left_empty():
        out.seek(start)
        out.write(fill * (end - start))
    out.seek(0, os.SEEK_END)
    fresh = [item for item in plan.order if item.fresh is not None]
    for item in steps(fresh, len(fresh), progress, "Writing the archive"):
        assert item.fresh is not None
        out.write(fill * (item.offset - out.tell()))
        out.seek(item.offset)
        out.write(item.head)
        item.fresh.copy(out)
        out.seek(0, os.SEEK_END)


def _write_behind(plan: Plan, out: BinaryIO, fill: bytes) -> None:
    """Everything behind the data."""
    layout = plan.layout
    index = layout.index
    assert index is not None
    out.write(fill * (plan.data_end - out.tell()))
    if index.behind:
        out.write(plan.raw + plan.names)
    out.write(plan.trail)
    out.write(plan.footer)


def _side_sums(plan: Plan, out: BinaryIO) -> bytes:
    layout = plan.layout
    assert layout.sums is not None and layout.index is not None
    found = []
    for item in plan.items:
        length = item.length(plan.padded)
        out.seek(item.offset)
        found.append(sum_of(layout.sums.sum, layout.byte_order, out.read(length)))
    out.seek(0, os.SEEK_END)
    return b"".join(found)


def patch_file_sum(layout: Layout, out: BinaryIO, footer_at: int) -> None:
    """Put the sum over the whole file, its own bytes taken as zero, where the layout has it."""
    for part, at in sum_places(layout, footer_at):
        assert part.sum is not None
        out.seek(0)
        work = Sum(part.sum, part.order or layout.byte_order)
        while piece := out.read(1 << 20):
            work.feed(piece)
        out.seek(at)
        out.write(work.value)
    out.seek(0, os.SEEK_END)


def _copy_whole(target: Path, layout: Layout, source: Source, side: Source) -> None:
    """The same bytes, side files too."""
    assert layout.index is not None
    sums = source.beside(layout.sums.file) if layout.sums is not None else None
    parts = [source, *([side] if layout.index.file else []), *([sums] if sums is not None else [])]
    try:
        with replacing_together(side_files(target, layout)) as outs:
            for part, out in zip(parts, outs, strict=True):
                part.copy(0, len(part.view), out)
    finally:
        if sums is not None:
            sums.close()


def close_items(items: list[Item]) -> None:
    """Let go of what was packed."""
    for item in items:
        if item.fresh is not None:
            item.fresh.close()
