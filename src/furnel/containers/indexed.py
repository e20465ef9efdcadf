"""Archives with an index, read and written as a layout describes."""

from __future__ import annotations

import zlib
from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from itertools import pairwise
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing, write_bytes
from furnel.containers import records
from furnel.containers.container import Entry, check_path, missing_entry, unknown_changes
from furnel.containers.mapped import MappedFile
from furnel.containers.packing import pack, unpack, unpack_start
from furnel.containers.schema import IndexPart, Layout
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, steps

_WHAT = "Reading an archive"
_WRITING = "Writing an archive"


@dataclass(frozen=True, slots=True)
class _Slot:
    path: str
    offset: int
    stored: int
    size: int
    values: records.Values


class Indexed:
    """An archive opened with a layout that has an `[index]`."""

    def __init__(self, path: Path, layout: Layout) -> None:
        if layout.index is None:
            raise FurnelError("Opening an archive", where=layout.name, why="the layout has no index")
        self.path, self.layout, self.kind = path, layout, layout.name
        self._index: IndexPart = layout.index
        self._main = MappedFile(path)
        self._side = MappedFile(path.with_suffix(self._index.file)) if self._index.file else self._main
        try:
            self._read_index()
            self._check_sums()
        except FurnelError:
            self.close()
            raise

    def entries(self) -> Sequence[Entry]:
        return [Entry(slot.path, slot.size, slot.stored) for slot in self._slots.values()]

    def read(self, path: str) -> bytes:
        slot = self._slot(path)
        where = f"{self.path}, {path}"
        return unpack(self._raw(slot), self.layout.entry.packed, slot.size, where)

    def view(self, path: str) -> bytes | memoryview:
        return self._raw(self._slot(path)) if self.layout.entry.packed == "none" else self.read(path)

    def peek(self, path: str, size: int) -> bytes:
        slot = self._slot(path)
        where = f"{self.path}, {path}"
        return unpack_start(self._raw(slot), self.layout.entry.packed, size, slot.size, where)

    def close(self) -> None:
        self._main.close()
        if self._side is not self._main:
            self._side.close()

    def rewrite(self, target: Path, changes: Mapping[str, bytes], progress: Progress = QUIET) -> None:
        unknown_changes(changes, self._slots, self.path)
        order = sorted(self._slots.values(), key=lambda slot: slot.offset)
        packed = {path: pack(data, self.layout.entry.packed) for path, data in changes.items()}
        following = {
            first.path: second.offset for first, second in pairwise(order) if second.offset >= first.offset
        }
        last = order[-1] if order else None

        def data(out: BinaryIO) -> dict[str, tuple[int, int, int]]:
            placed: dict[str, tuple[int, int, int]] = {}
            shared: dict[tuple[int, int], tuple[int, int, int]] = {}
            for slot in steps(order, len(order), progress, f"Repacking {self.path.name}"):
                key = (slot.offset, slot.stored)
                if slot.path not in changes and key in shared:
                    placed[slot.path] = shared[key]
                    continue
                _fill(out, self._gap_to(slot, out.tell()), self.layout.entry.align)
                start = out.tell()
                if slot.path in changes:
                    placed[slot.path] = (
                        start,
                        _put(out, packed[slot.path], self.layout),
                        len(changes[slot.path]),
                    )
                else:
                    self._main.copy(slot.offset, slot.offset + slot.stored, out)
                    placed[slot.path] = shared[key] = (start, slot.stored, slot.size)
                gap = following.get(slot.path, slot.offset + slot.stored) - slot.offset - slot.stored
                if slot is last:
                    gap = self._data_end - slot.offset - slot.stored
                if slot.path not in changes and gap > 0:
                    self._main.copy(slot.offset + slot.stored, slot.offset + slot.stored + gap, out)
            return placed

        _write(
            target,
            self.layout,
            self._start,
            self._footer,
            list(self._slots.values()),
            data,
            (self._index_plain, self._index_raw),
            self._index_start,
        )

    def _gap_to(self, slot: _Slot, at: int) -> bytes:
        """What lies before the first entry in the original, so that it is carried through."""
        first = min(self._slots.values(), key=lambda other: other.offset)
        return bytes(self._main.view[at : slot.offset]) if slot is first and at < slot.offset else b""

    def _slot(self, path: str) -> _Slot:
        if path not in self._slots:
            raise missing_entry(path, self.path)
        return self._slots[path]

    def _raw(self, slot: _Slot) -> memoryview:
        return self._main.view[slot.offset : slot.offset + slot.stored]

    def _read_index(self) -> None:
        layout, index = self.layout, self._index
        order, where = layout.byte_order, self.path
        self._start: records.Values = {}
        self._footer: records.Values = {}
        head_end = 0
        if layout.start is not None:
            self._start, head_end = records.read_record(layout.start.fields, self._main.view, 0, order, where)
        data_end = len(self._main.view)
        if layout.footer is not None:
            data_end -= layout.footer.width
            self._footer, _ = records.read_record(
                layout.footer.fields, self._main.view, data_end, order, where
            )
        at = self._number("index offset", 0 if index.file else head_end) or 0
        stored = self._number(
            "index stored size", len(self._side.view) - at if index.file or index.place == "back" else None
        )
        view = self._side.view
        if at > len(view) or (stored is not None and at + stored > len(view)):
            raise FurnelError(
                _WHAT,
                where=where,
                why=f"its index should lie at byte {at} and the file ends at {len(view)}",
                remedy="The archive is cut short or described by the wrong layout",
            )
        raw = view[at : at + stored] if stored is not None else view[at:]
        if index.packed == "none":
            table = raw
        else:
            size = self._number("index size", None)
            table = memoryview(
                unpack(raw, index.packed, size if size is not None else len(raw), f"{where}, index")
            )
        starts: records.Values = {}
        begin = 0
        if index.start:
            starts, begin = records.read_record(index.start, table, 0, order, where)
        count = records.held(index.start, starts, "entry count") if index.start else None
        count = self._number("entry count", count)
        if count is None:
            count = (len(table) - begin) // index.width
        if begin + count * index.width > len(table):
            raise FurnelError(
                _WHAT,
                where=where,
                why=f"its index says {count} entries and has room for {(len(table) - begin) // index.width}",
                remedy="The archive is damaged or described by the wrong layout",
            )
        self._index_start: records.Values = starts
        self._data_end: int = at if index.place == "back" and not index.file else data_end
        rows = []
        for _ in range(count):
            values, begin = records.read_record(index.fields, table, begin, order, where)
            rows.append(values)
        self._slots = self._resolve(rows, table[begin:])
        if stored is None:
            raw, table = raw[: count * index.width], table[: count * index.width]
        self._index_plain = bytes(table)
        self._index_raw = bytes(raw)

    def _resolve(self, rows: list[records.Values], names: memoryview) -> dict[str, _Slot]:
        index = self._index
        slots: dict[str, _Slot] = {}
        offsets = [records.held(index.fields, values, "offset") or 0 for values in rows]
        starts = sorted(set(offsets))
        ends = dict(pairwise([*starts, self._data_end]))
        for number, values in enumerate(rows):
            if index.names == "fields":
                name = next(
                    records.text_of(values[f.name], self.path) for f in index.fields if f.holds == "path"
                )
            elif index.names == "table":
                at = records.held(index.fields, values, "name offset") or 0
                if at >= len(names):
                    raise FurnelError(
                        _WHAT, where=self.path, why=f"entry {number} has its name outside the name table"
                    )
                name = records.text_of(bytes(names[at : at + 2048]), self.path)
            else:
                name = index.number.format(number=number)
            name = check_path(self.layout.entry.prefix + name, self.path)
            offset = offsets[number]
            size = records.held(index.fields, values, "size")
            stored = records.held(index.fields, values, "stored size")
            if stored is None:
                stored = (
                    size if size is not None and self.layout.entry.packed == "none" else ends[offset] - offset
                )
            if stored < 0 or offset + stored > self._data_end or name in slots:
                why = (
                    "its path occurs twice"
                    if name in slots
                    else f"it should end at byte {offset + stored}, outside the data"
                )
                raise FurnelError(
                    _WHAT,
                    where=f"{self.path}, {name}",
                    why=why,
                    remedy="The archive is damaged or described by the wrong layout",
                )
            slots[name] = _Slot(name, offset, stored, stored if size is None else size, values)
        return slots

    def _number(self, role: str, default: int | None) -> int | None:
        for part, values in ((self.layout.start, self._start), (self.layout.footer, self._footer)):
            if part is not None:
                number = records.held(part.fields, values, role)
                if number is not None:
                    return number
        return default

    def _check_sums(self) -> None:
        if self.layout.sums is None:
            return
        path = self.path.with_suffix(self.layout.sums.file)
        side = MappedFile(path)
        try:
            kept = bytes(side.view)
        finally:
            side.close()
        if kept != _sums([self._raw(slot) for slot in self._slots.values()], self.layout):
            raise FurnelError(
                _WHAT,
                where=path,
                why="the checksums do not match the archive beside it",
                remedy="One of the two files is damaged or from another version: take fresh copies of both",
            )


def create(target: Path, layout: Layout, contents: Mapping[str, bytes], progress: Progress = QUIET) -> None:
    """A new archive after `layout` with `contents` by inner path, in the order given."""
    index = layout.index
    if index is None:
        raise FurnelError(_WRITING, where=layout.name, why="the layout has no index")
    slots = []
    for number, (path, data) in enumerate(contents.items()):
        if index.names == "numbers" and path != index.number.format(number=number):
            raise FurnelError(
                _WRITING,
                where=path,
                why=f"entry {number} has to be named {index.number.format(number=number)}",
                remedy="Give the files numbers without gaps",
            )
        values: records.Values = {}
        records.set_held(index.fields, values, "path", path.removeprefix(layout.entry.prefix).encode("utf-8"))
        slots.append(_Slot(check_path(path, target), 0, 0, len(data), values))

    def write_data(out: BinaryIO) -> dict[str, tuple[int, int, int]]:
        placed = {}
        for path, content in steps(contents.items(), len(contents), progress, f"Packing {target.name}"):
            packed = pack(content, layout.entry.packed)
            _fill(out, b"", layout.entry.align)
            start = out.tell()
            placed[path] = (start, _put(out, packed, layout), len(content))
        return placed

    _write(target, layout, {}, {}, slots, write_data, (b"", b""), {})


def _fill(out: BinaryIO, gap: bytes, align: int) -> None:
    out.write(gap)
    out.write(bytes(-out.tell() % align))


def _put(out: BinaryIO, data: bytes, layout: Layout) -> int:
    """Write an entry's bytes; where its size is told only by the next one's offset, padding counts as part of it."""
    assert layout.index is not None
    start = out.tell()
    out.write(data)
    if not any(field.holds in ("size", "stored size") for field in layout.index.fields):
        _fill(out, b"", layout.entry.align)
    return out.tell() - start


def _write(
    target: Path,
    layout: Layout,
    start: records.Values,
    footer: records.Values,
    slots: list[_Slot],
    write_data: Callable[[BinaryIO], dict[str, tuple[int, int, int]]],
    kept_index: tuple[bytes, bytes],
    index_start: records.Values,
) -> None:
    index = layout.index
    assert index is not None
    order = layout.byte_order
    facts: dict[str, int] = {"entry count": len(slots)}
    in_front = index.place == "front" and not index.file
    with replacing(target) as out:
        if layout.start is not None:
            out.write(bytes(layout.start.width))
        if in_front:
            facts["index offset"] = out.tell()
            out.write(bytes(sum(field.width for field in index.start) + index.width * len(slots)))
        placed = write_data(out)
        table = _index_bytes(index, index_start, slots, placed, order)
        plain, raw = kept_index
        packed = raw if table == plain and raw else pack(table, index.packed)
        facts["index size"], facts["index stored size"] = len(table), len(packed)
        if in_front:
            out.seek(facts["index offset"])
            out.write(packed)
            out.seek(0, 2)
        elif not index.file:
            facts["index offset"] = out.tell()
            out.write(packed)
        for part, values, at in ((layout.start, start, 0), (layout.footer, footer, None)):
            if part is None:
                continue
            fresh = dict(values)
            for role, number in facts.items():
                records.set_held(part.fields, fresh, role, number)
            out.seek(*((at, 0) if at is not None else (0, 2)))
            out.write(records.write_record(part.fields, fresh, order))
        if layout.sums is not None:
            out.flush()
            spans = [placed[slot.path] for slot in slots]
            written = []
            for offset, stored, _ in spans:
                out.seek(offset)
                written.append(memoryview(out.read(stored)))
            write_bytes(target.with_suffix(layout.sums.file), _sums(written, layout))
        if index.file:
            write_bytes(target.with_suffix(index.file), packed)


def _index_bytes(
    index: IndexPart,
    index_start: records.Values,
    slots: list[_Slot],
    placed: dict[str, tuple[int, int, int]],
    order: records.Order,
) -> bytes:
    starts = dict(index_start)
    records.set_held(index.start, starts, "entry count", len(slots))
    out = [records.write_record(index.start, starts, order)]
    names, name_at = bytearray(), {}
    if index.names == "table":
        for slot in slots:
            name_at[slot.path] = len(names)
            names += slot.path.encode("utf-8") + b"\0"
    for slot in slots:
        offset, stored, size = placed[slot.path]
        values = dict(slot.values)
        for role, number in (("offset", offset), ("stored size", stored), ("size", size)):
            records.set_held(index.fields, values, role, number)
        if slot.path in name_at:
            records.set_held(index.fields, values, "name offset", name_at[slot.path])
        out.append(records.write_record(index.fields, values, order))
    return b"".join(out) + bytes(names)


def _sums(contents: Sequence[memoryview], layout: Layout) -> bytes:
    return b"".join(zlib.crc32(content).to_bytes(4, layout.byte_order) for content in contents)
