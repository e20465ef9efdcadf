"""Writing a chain of records: changed chunks are made anew, the others copied as they are."""

from __future__ import annotations

import io
from collections.abc import Mapping, Sequence
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing
from furnel.containers import records
from furnel.containers.alike import Likeness, untold
from furnel.containers.chains import Chunk, chunk_entries
from furnel.containers.container import Changes, Content
from furnel.containers.expressions import Number
from furnel.containers.fresh import Fresh, packed
from furnel.containers.mapped import Source, Written
from furnel.containers.proof import Proof
from furnel.containers.reading import Head
from furnel.containers.records import Values
from furnel.containers.schema import ChainPart, Layout
from furnel.containers.sums import sum_value
from furnel.containers.writing import patch_file_sum
from furnel.errors import FurnelError
from furnel.progress import Progress, steps

_WRITING = "Writing an archive"


class ChainWriter:
    """Makes changed chunks and writes a chain."""

    def __init__(
        self, layout: Layout, chain: ChainPart, scope: dict[str, Number], source: Source | None, target: Path
    ) -> None:
        self._layout, self._chain, self._source, self._target = layout, chain, source, target
        self._scope = scope

    def changed(self, chunks: Sequence[Chunk], changes: Changes, made: list[Fresh]) -> list[Chunk]:
        """The chunks after some changes; packed contents are noted in `made`."""
        out = self._kept(chunks, changes, made)
        groups: dict[tuple[int, str], dict[str, Content]] = {}
        loose: dict[str, Content] = {}
        for path, content in changes.add.items():
            place = self._place(path)
            if place is None:
                loose[path] = content
            else:
                groups.setdefault(place[:2], {})[place[2]] = content
        last = out.pop() if out and self._chain.last and out[-1].tag == self._chain.last else None
        old = list(chunk_entries(chunks)) if loose else []
        alike, tags = Likeness(chunk.path for chunk in old), sorted({chunk.tag for chunk in old})
        for path, content in loose.items():
            like = alike.most_like(path)
            chunk = old[like] if like >= 0 else None
            out.append(self._loose(path, content, len(out), chunk, tags, made))
            self._tell(out[-1].values, changes.facts.get(path, {}))
        for (number, name), parts in groups.items():
            nest = self._chain.nests[number]
            fresh = [self._filled(tag, parts[tag], None, made) for tag in nest.parts if tag in parts]
            fresh = [part._replace(path=nest.parts[part.tag].replace("{name}", name)) for part in fresh]
            home = next((at for at, chunk in enumerate(out) if self._belongs(chunk, number, name)), -1)
            if home >= 0:
                out[home] = out[home]._replace(inside=(*out[home].inside, *fresh), changed=True)
                continue
            head = self.plain(nest.named_by, name.encode(self._layout.names.encoding))
            out.append(Chunk(nest.tag, self._values(nest.tag), 0, 0, 0, 0, (head, *fresh), changed=True))
        return [*out, last] if last is not None else out

    def _belongs(self, chunk: Chunk, number: int, name: str) -> bool:
        """Whether a chunk is the nest of that number and name."""
        places = [self._place(part.path) for part in chunk.inside if part.path]
        return any(place is not None and place[:2] == (number, name) for place in places)

    def _kept(self, chunks: Sequence[Chunk], changes: Changes, made: list[Fresh]) -> list[Chunk]:
        out = []
        for chunk in chunks:
            if chunk.path in changes.remove:
                continue
            inside = tuple(self._kept(chunk.inside, changes, made))
            if any(chunk_entries(chunk.inside)) and not any(chunk_entries(inside)):
                continue
            name = changes.rename.get(chunk.path, chunk.path)
            if chunk.path in changes.replace:
                facts = changes.facts.get(chunk.path, {})
                fresh = self._filled(chunk.tag, changes.replace[chunk.path], chunk, made)
                chunk = fresh._replace(path=name)
                self._name(chunk.values, name)
                self._tell(chunk.values, facts)
            elif name != chunk.path and chunk.path:
                if not any("path" in part.roles or "name hash" in part.roles for part in self._chain.fields):
                    raise FurnelError(
                        _WRITING, where=chunk.path, why="this archive's entries are named by their place, not one by one",
                        remedy="Take it out and add it under the other name",
                    )  # fmt: skip
                values = dict(chunk.values)
                self._name(values, name)
                chunk = chunk._replace(values=values, path=name, changed=True)
            elif inside != chunk.inside:
                chunk = chunk._replace(inside=inside, changed=True)
            out.append(chunk)
        return out

    def _loose(
        self, path: str, content: Content, number: int, like: Chunk | None, tags: list[str], made: list[Fresh]
    ) -> Chunk:
        """A new chunk that is in no nest; `like` is the old one that it is most like, `tags` are those of the old ones."""
        name = self._layout.entry.name_of(path)
        named = {role for part in self._chain.fields for role in part.roles} & {"path", "name hash"}
        tag = next(iter(self._chain.entries), "")
        for candidate, pattern in self._chain.entries.items():
            if name.endswith(pattern.rpartition("}")[2]):
                tag = candidate
                break
        if not named and (self._chain.nests or self._chain.entries):
            allowed = [
                *self._chain.entries.values(),
                *(p for nest in self._chain.nests for p in nest.parts.values()),
            ]
            if self._chain.nests or not name.endswith(self._chain.entries[tag].rpartition("}")[2]):
                raise FurnelError(
                    _WRITING, where=path, why="the layout has no place for such a name",
                    remedy=f"Name it like {', '.join(allowed)}",
                )  # fmt: skip
        elif not named and name != (wanted := self._chain.number.format(number=number)):
            raise FurnelError(
                _WRITING, where=path, why=f"it has to be named {wanted}", remedy="Entries are numbered"
            )
        if not self._chain.entries:
            tag = like.tag if like is not None else self._only_tag(path, tags)
        chunk = self._filled(tag, content, None, made)._replace(path=path)
        if like is not None and like.tag == tag:
            known = (name for name in untold(self._chain.fields) if name in like.values)
            chunk.values.update({name: like.values[name] for name in known})
        self._name(chunk.values, path)
        return chunk

    @staticmethod
    def _only_tag(path: str, tags: list[str]) -> str:
        """The tag that all entries have."""
        if len(tags) > 1:
            raise FurnelError(
                _WRITING, where=path, why=f"entries have the tags {', '.join(tags)}, and none is named like it",
                remedy="Give it the ending of an entry of its kind",
            )  # fmt: skip
        return tags[0] if tags else ""

    def _name(self, values: Values, path: str) -> None:
        name = self._layout.entry.name_of(path)
        records.mean(self._chain.fields, values, "path", self._layout.names.raw(name), self._scope)
        if self._layout.names.hash is not None:
            code = int(self._layout.names.hashes([name])[0])
            records.mean(self._chain.fields, values, "name hash", code, self._scope)

    def _tell(self, values: Values, facts: Mapping[str, int]) -> None:
        """Store what the record says of bare data."""
        for role, number in facts.items():
            records.mean(self._chain.fields, values, role, number, self._scope)

    def plain(self, tag: str, data: bytes) -> Chunk:
        """A chunk with a few bytes that is no entry."""
        return Chunk(
            tag, self._values(tag), 0, 0, 0, 0, fresh=Fresh(io.BytesIO(data), len(data), len(data), None, {}), changed=True
        )  # fmt: skip

    def _values(self, tag: str) -> Values:
        values: Values = {}
        records.mean(self._chain.fields, values, "tag", tag.encode(self._layout.names.encoding), self._scope)
        return values

    def _filled(self, tag: str, content: Content, old: Chunk | None, made: list[Fresh]) -> Chunk:
        fields = self._chain.fields
        values = dict(old.values) if old else self._values(tag)
        code = records.meaning(fields, values, "packing", self._scope) if old else None
        fresh = packed(content, self._layout, None if code is None else int(code), fields, self._scope)
        made.append(fresh)
        if fresh.code is not None:
            records.mean(fields, values, "packing", fresh.code, self._scope)
        for part in fields:
            if part.holds in fresh.sums:
                values[part.name] = sum_value(
                    part, fresh.sums[part.holds], part.order or self._layout.byte_order
                )
        return Chunk(tag, values, 0, 0, 0, 0, fresh=fresh, changed=True)

    def _place(self, path: str) -> tuple[int, str, str] | None:
        """Which nest, name and tag a path has, when one of the nests has room for it."""
        inner = self._layout.entry.name_of(path)
        for number, nest in enumerate(self._chain.nests):
            for tag, pattern in nest.parts.items():
                before, _, after = pattern.partition("{name}")
                name = inner[len(before) : len(inner) - len(after)]
                if nest.named_by and name and inner == before + name + after:
                    return number, name, tag
        return None

    def write(
        self,
        chunks: list[Chunk],
        head: Head,
        spans: tuple[int, tuple[int, int]],
        progress: Progress,
        proof: Proof,
    ) -> None:
        """The whole archive: head, chunks, what was behind them, footer; `proof` reads it back before it takes its place."""
        layout = self._layout
        begin, (tail, tail_end) = spans
        with replacing(self._target) as out:
            out.write(self._head_bytes(head, layout, begin))
            for chunk in steps(chunks, len(chunks), progress, f"Writing {self._target.name}"):
                self._write_chunk(chunk, out)
            data_end = out.tell()
            if self._source is not None and tail < tail_end:
                self._source.copy(tail, tail_end, out)
            count = sum(1 for _ in chunk_entries(chunks)) or sum(1 for chunk in chunks if chunk.fresh)
            self._write_head(head, count, data_end, begin, out)
            proof(Written(out, self._target))

    def _head_bytes(self, head: Head, layout: Layout, begin: int) -> bytes:
        if self._source is not None:
            return bytes(self._source.view[:begin])
        if layout.start is None:
            return b""
        return records.write_record(layout.start.fields, head.start, layout.byte_order, self._scope)

    def _write_head(self, head: Head, count: int, data_end: int, begin: int, out: BinaryIO) -> None:
        layout = self._layout
        total = out.tell() + layout.footer_width
        if self._source is None and layout.start is not None:
            begin = len(records.write_record(layout.start.fields, head.start, layout.byte_order, self._scope))
        facts = {
            "entry count": count, "data offset": begin, "data size": data_end - begin, "file size": total,
        }  # fmt: skip
        ends = (
            (layout.start, dict(head.start), 0),
            (layout.footer, dict(head.footer), total - layout.footer_width),
        )
        for record, values, at in ends:
            if record is None:
                continue
            for role, number in facts.items():
                records.mean(record.fields, values, role, number, self._scope)
            for part in record.fields:
                if part.holds == "file sum":
                    values[part.name] = bytes(part.sum_width) if part.type == "bytes" else 0
            out.seek(at)
            out.write(records.write_record(record.fields, values, layout.byte_order, self._scope))
        patch_file_sum(layout, out, total - layout.footer_width)

    def _write_chunk(self, chunk: Chunk, out: BinaryIO) -> None:
        if not chunk.changed:
            assert self._source is not None
            self._source.copy(chunk.at, chunk.padded, out)
            out.write(
                bytes(-out.tell() % self._chain.align if chunk.padded < self._aligned(chunk.end) else 0)
            )
            return
        out.write(self._record(chunk))
        if chunk.inside:
            for part in chunk.inside:
                self._write_chunk(part, out)
        elif chunk.fresh is not None:
            chunk.fresh.copy(out)
        elif self._source is not None:
            self._source.copy(chunk.start, chunk.end, out)
        out.write(bytes(-out.tell() % self._chain.align))

    def _aligned(self, end: int) -> int:
        return end + -end % self._chain.align

    def _record(self, chunk: Chunk) -> bytes:
        stored = self._stored(chunk)
        size = chunk.fresh.size if chunk.fresh is not None else stored
        values = dict(chunk.values)
        fields = self._chain.fields
        if any(part.holds == "stored size" for part in fields):
            records.mean(fields, values, "stored size", stored, self._scope)
            if chunk.fresh is not None or chunk.inside:
                records.mean(fields, values, "size", size, self._scope)
        else:
            records.mean(fields, values, "size", stored, self._scope)
        return records.write_record(fields, values, self._layout.byte_order, self._scope)

    def _stored(self, chunk: Chunk) -> int:
        if chunk.inside:
            return sum(self._whole(part) for part in chunk.inside)
        return chunk.fresh.stored if chunk.fresh is not None else chunk.end - chunk.start

    def _whole(self, chunk: Chunk) -> int:
        """A chunk's bytes with its record and its padding."""
        if not chunk.changed:
            return self._aligned(chunk.end) - chunk.at
        length = len(self._record(chunk)) + self._stored(chunk)
        return length + -length % self._chain.align
