"""Writing a chain of records: changed chunks are made anew, the others copied as they are."""

from __future__ import annotations

import io
from collections.abc import Callable, Iterator, Mapping, Sequence
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
            if (grown := self._numbered(out, path, content, made)) is not None:
                out = grown
            elif (place := self._place(path)) is None:
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
            out = self._nested(out, number, name, fresh)
        return [*out, last] if last is not None else out

    def _nested(self, chunks: list[Chunk], number: int, name: str, fresh: list[Chunk]) -> list[Chunk]:
        """The chunks with new parts in the nest of that number and name: one that is there, or a new one behind the last of its
        kind."""
        grown = self._changed_where(
            chunks, lambda chunk: chunk.nest == number and chunk.name == name,
            lambda chunk: [chunk._replace(inside=(*chunk.inside, *fresh), changed=True)],
        )  # fmt: skip
        if grown is not None:
            return grown
        nest = self._chain.nests[number]
        last = [one for one in _all_chunks(chunks) if one.nest == number]
        above = last[-1].above if last else ""
        if not last:
            self._check_open(name)
        if not name.startswith(above):
            raise FurnelError(
                _WRITING, where=name, why=f"such nests are in others, whose names begin with {above}",
                remedy="Add it to a nest that is there",
            )  # fmt: skip
        own = name[len(above) :]
        encoding = self._layout.names.encoding
        by_field = any(part.name == nest.named_by for part in nest.fields)
        values = records.defaults(nest.fields)
        if by_field:
            values[nest.named_by] = own.encode(encoding)
        head = (
            records.write_record(nest.fields, values, self._layout.byte_order, self._scope)
            if nest.fields
            else b""
        )
        inside = fresh if by_field else [self.plain(nest.named_by, own.encode(encoding)), *fresh]
        made = Chunk(
            nest.tag,
            self._values(nest.tag),
            0,
            0,
            0,
            0,
            tuple(inside),
            "",
            None,
            True,
            head,
            number,
            name,
            above,
        )
        behind = self._changed_where(
            chunks, lambda chunk: bool(last) and chunk is last[-1], lambda chunk: [chunk, made]
        )
        return [*chunks, made] if behind is None else behind

    def _numbered(
        self, chunks: list[Chunk], path: str, content: Content, made: list[Fresh]
    ) -> list[Chunk] | None:
        """The chunks with a new part behind the others of its tag, in the nest where it is the next; None where it is not."""
        inner = self._layout.entry.name_of(path)

        def tag_of(chunk: Chunk) -> str:
            for tag, pattern in self._chain.nests[chunk.nest].parts.items() if chunk.nest >= 0 else ():
                place = sum(part.tag == tag for part in chunk.inside)
                if "{number" in pattern and pattern.format(name=chunk.name, number=place) == inner:
                    return tag
            return ""

        def grown(chunk: Chunk) -> list[Chunk]:
            part = self._filled(tag_of(chunk), content, None, made)._replace(path=path)
            return [chunk._replace(inside=(*chunk.inside, part), changed=True)]

        return self._changed_where(chunks, lambda chunk: bool(tag_of(chunk)), grown)

    def _changed_where(
        self, chunks: Sequence[Chunk], wanted: Callable[[Chunk], bool], change: Callable[[Chunk], list[Chunk]]
    ) -> list[Chunk] | None:
        """The chunks with the first one that is wanted changed, wherever it lies; None when there is none."""
        for place, chunk in enumerate(chunks):
            if wanted(chunk):
                return [*chunks[:place], *change(chunk), *chunks[place + 1 :]]
            inside = self._changed_where(chunk.inside, wanted, change)
            if inside is not None:
                other = chunk._replace(inside=tuple(inside), changed=True)
                return [*chunks[:place], other, *chunks[place + 1 :]]
        return None

    def _renamed(self, chunk: Chunk, changes: Changes) -> Chunk:
        """A nest with another name, where all its parts are to be called after that."""
        nest = self._chain.nests[chunk.nest] if chunk.nest >= 0 else None
        mine = [part for part in chunk.inside if part.path in changes.rename]
        if nest is None or not nest.named_by or not mine:
            return chunk
        places = [self._place(changes.rename[part.path]) for part in mine]
        names = {place[1] for place in places if place is not None and place[0] == chunk.nest}
        tags = [place[2] for place in places if place is not None]
        left = [
            part
            for part in chunk.inside
            if part.path and part.path not in changes.remove and part not in mine
        ]
        if (
            len(names) != 1
            or tags != [part.tag for part in mine]
            or left
            or not (name := names.pop()).startswith(chunk.above)
        ):
            raise FurnelError(
                _WRITING, where=mine[0].path, why="its name is that of a chunk around it, which has others in it",
                remedy="Rename all that belong together in the same way",
            )  # fmt: skip
        spelled = name[len(chunk.above) :].encode(self._layout.names.encoding)
        head, inside = chunk.head, list(chunk.inside)
        if any(part.name == nest.named_by for part in nest.fields):
            order = self._layout.byte_order
            values, _ = records.read_record(nest.fields, memoryview(head), 0, order, chunk.path, self._scope)
            head = records.write_record(nest.fields, {**values, nest.named_by: spelled}, order, self._scope)
        for place, part in enumerate(inside):
            if part.tag == nest.named_by and not part.path:
                inside[place] = self.plain(nest.named_by, spelled)
        return chunk._replace(inside=tuple(inside), head=head, name=name, changed=True)

    def _kept(
        self, chunks: Sequence[Chunk], changes: Changes, made: list[Fresh], renamed: bool = False
    ) -> list[Chunk]:
        """What is left of some chunks, changed; in a nest that is `renamed` their names change with it."""
        out = []
        for chunk in chunks:
            if chunk.path in changes.remove:
                continue
            before = chunk.name
            chunk = self._renamed(chunk, changes)
            inside = tuple(self._kept(chunk.inside, changes, made, chunk.name != before))
            if any(chunk_entries(chunk.inside)) and not any(chunk_entries(inside)):
                continue
            name = changes.rename.get(chunk.path, chunk.path)
            if chunk.path in changes.replace:
                facts = changes.facts.get(chunk.path, {})
                fresh = self._filled(chunk.tag, changes.replace[chunk.path], chunk, made)
                chunk = fresh._replace(path=name)
                self._name(chunk.values, name)
                self._tell(chunk.values, facts)
            elif name != chunk.path and chunk.path and renamed:
                chunk = chunk._replace(path=name)
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
        self._check_open(path)
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

    def _check_open(self, name: str) -> None:
        """Refuse to put anything at the archive's end where all that it has lies in one chunk."""
        if any(nest.plain for nest in self._chain.nests):
            raise FurnelError(
                _WRITING, where=name, why="what this archive has lies in chunks in chunks, and none is there to put it beside",
                remedy="Add something of a kind that the archive has, called like it",
            )  # fmt: skip

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
        out.write(self._record(chunk) + chunk.head)
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
            return len(chunk.head) + sum(self._whole(part) for part in chunk.inside)
        return chunk.fresh.stored if chunk.fresh is not None else chunk.end - chunk.start

    def _whole(self, chunk: Chunk) -> int:
        """A chunk's bytes with its record and its padding."""
        if not chunk.changed:
            return self._aligned(chunk.end) - chunk.at
        length = len(self._record(chunk)) + self._stored(chunk)
        return length + -length % self._chain.align


def _all_chunks(chunks: Sequence[Chunk]) -> Iterator[Chunk]:
    for chunk in chunks:
        yield chunk
        yield from _all_chunks(chunk.inside)
