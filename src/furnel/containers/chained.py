"""Archives that are a chain of tagged chunks, read and written as a layout describes."""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing
from furnel.containers import records
from furnel.containers.container import Entry, check_path, missing_entry, unknown_changes
from furnel.containers.mapped import MappedFile
from furnel.containers.schema import ChainPart, Layout, NestPart
from furnel.errors import FurnelError
from furnel.progress import QUIET, Progress, steps


@dataclass(frozen=True, slots=True)
class _Chunk:
    tag: str
    values: records.Values
    start: int
    end: int
    padded: int
    inside: tuple[_Chunk, ...] = ()
    path: str = ""


class Chained:
    """An archive opened with a layout that has a `[chain]`."""

    def __init__(self, path: Path, layout: Layout) -> None:
        if layout.chain is None:
            raise FurnelError("Opening an archive", where=layout.name, why="the layout has no chain")
        self.path, self.layout, self.kind = path, layout, layout.name
        self._chain: ChainPart = layout.chain
        self._main = MappedFile(path)
        try:
            self._chunks = [self._open(chunk) for chunk in self._walk(0, len(self._main.view))]
            self._entries: dict[str, _Chunk] = {}
            for part in (part for chunk in self._chunks for part in chunk.inside if part.path):
                if part.path in self._entries:
                    raise FurnelError(
                        "Reading an archive", where=path, why=f"the path {part.path} occurs twice"
                    )
                self._entries[part.path] = part
        except FurnelError:
            self._main.close()
            raise

    def entries(self) -> Sequence[Entry]:
        return [
            Entry(path, part.end - part.start, part.end - part.start) for path, part in self._entries.items()
        ]

    def read(self, path: str) -> bytes:
        return self.peek(path, MAX)

    def view(self, path: str) -> bytes:
        return self.read(path)

    def peek(self, path: str, size: int) -> bytes:
        if path not in self._entries:
            raise missing_entry(path, self.path)
        part = self._entries[path]
        return bytes(self._main.view[part.start : min(part.end, part.start + size)])

    def close(self) -> None:
        self._main.close()

    def rewrite(self, target: Path, changes: Mapping[str, bytes], progress: Progress = QUIET) -> None:
        unknown_changes(changes, self._entries, self.path)
        with replacing(target) as out:
            for chunk in steps(self._chunks, len(self._chunks), progress, f"Repacking {self.path.name}"):
                changed = [part for part in chunk.inside if part.path in changes]
                head = chunk.start - self._chain.width
                if not changed:
                    self._main.copy(head, chunk.padded, out)
                    continue
                inner = [
                    self._bytes(part, changes[part.path])
                    if part.path in changes
                    else bytes(self._main.view[part.start - self._chain.width : part.padded])
                    for part in chunk.inside
                ]
                out.write(self._bytes(chunk, b"".join(inner)))

    def _bytes(self, chunk: _Chunk, content: bytes) -> bytes:
        values = dict(chunk.values)
        records.set_held(self._chain.fields, values, "size", len(content))
        return _chunk_bytes(self._chain, values, content, self.layout.byte_order)

    def _walk(self, at: int, end: int) -> Iterator[_Chunk]:
        fields, view = self._chain.fields, self._main.view[:end]
        while at < end:
            values, start = records.read_record(fields, view, at, self.layout.byte_order, self.path)
            tag = next(records.text_of(values[f.name], self.path) for f in fields if f.holds == "tag")
            size = records.held(fields, values, "size") or 0
            if start + size > end:
                raise FurnelError(
                    "Reading an archive",
                    where=f"{self.path}, byte {at}",
                    why=f"the chunk {tag!r} should end at byte {start + size}, past the {end} there are",
                    remedy="The archive is cut short or described by the wrong layout",
                )
            padded = min(start + size + -(start + size) % self._chain.align, end)
            yield _Chunk(tag, values, start, start + size, padded)
            at = padded

    def _open(self, chunk: _Chunk) -> _Chunk:
        nest = next((nest for nest in self._chain.nests if nest.tag == chunk.tag), None)
        if nest is None:
            return chunk
        inside = list(self._walk(chunk.start, chunk.end))
        names = [part for part in inside if part.tag == nest.named_by]
        if len(names) != 1:
            raise FurnelError(
                "Reading an archive",
                where=f"{self.path}, byte {chunk.start}",
                why=f"a {nest.tag} has {len(names)} names, not one",
            )
        name = records.text_of(bytes(self._main.view[names[0].start : names[0].end]), self.path)
        named = tuple(self._named(part, nest, name) for part in inside)
        return _Chunk(chunk.tag, chunk.values, chunk.start, chunk.end, chunk.padded, named)

    def _named(self, part: _Chunk, nest: NestPart, name: str) -> _Chunk:
        if part.tag not in nest.parts:
            return part
        path = check_path(nest.parts[part.tag].replace("{name}", name), self.path)
        return _Chunk(part.tag, part.values, part.start, part.end, part.padded, (), path)


MAX = 1 << 62


def create(target: Path, layout: Layout, contents: Mapping[str, bytes], progress: Progress = QUIET) -> None:
    """A new chain after `layout`; `contents` by inner path, those of one nest grouped by its name."""
    chain = layout.chain
    if chain is None:
        raise FurnelError("Writing an archive", where=layout.name, why="the layout has no chain")
    groups: dict[tuple[int, str], dict[str, bytes]] = {}
    for path, data in contents.items():
        check_path(path, target)
        number, name, tag = _place(path, chain)
        groups.setdefault((number, name), {})[tag] = data
    with replacing(target) as out:
        for (number, name), parts in steps(groups.items(), len(groups), progress, f"Packing {target.name}"):
            _write_nest(out, layout, chain, chain.nests[number], name, parts)


def _write_nest(
    out: BinaryIO, layout: Layout, chain: ChainPart, nest: NestPart, name: str, parts: dict[str, bytes]
) -> None:
    inner = [_new_chunk(layout, chain, nest.named_by, name.encode("utf-8"))]
    inner += [_new_chunk(layout, chain, tag, parts[tag]) for tag in nest.parts if tag in parts]
    out.write(_new_chunk(layout, chain, nest.tag, b"".join(inner)))


def _new_chunk(layout: Layout, chain: ChainPart, tag: str, content: bytes) -> bytes:
    values: records.Values = {}
    records.set_held(chain.fields, values, "tag", tag.encode("utf-8"))
    records.set_held(chain.fields, values, "size", len(content))
    return _chunk_bytes(chain, values, content, layout.byte_order)


def _chunk_bytes(chain: ChainPart, values: records.Values, content: bytes, order: records.Order) -> bytes:
    whole = records.write_record(chain.fields, values, order) + content
    return whole + bytes(-len(whole) % chain.align)


def _place(path: str, chain: ChainPart) -> tuple[int, str, str]:
    for number, nest in enumerate(chain.nests):
        for tag, pattern in nest.parts.items():
            before, _, after = pattern.partition("{name}")
            if path.startswith(before) and path.endswith(after) and len(path) > len(before) + len(after):
                return number, path[len(before) : len(path) - len(after)], tag
    allowed = ", ".join(pattern for nest in chain.nests for pattern in nest.parts.values())
    raise FurnelError(
        "Writing an archive",
        where=path,
        why="the layout has no place for such a name",
        remedy=f"Name it like {allowed}",
    )
