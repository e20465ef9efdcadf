"""Compression around a whole archive: unpacked into a temporary file to be read, packed again when it is written."""

from __future__ import annotations

import contextlib
import tempfile
from collections.abc import Callable, Iterator, Sequence
from pathlib import Path
from typing import BinaryIO, cast

from furnel.atomic import replacing, scratch_in
from furnel.containers import records
from furnel.containers.container import Changes, Container, Entry
from furnel.containers.mapped import MappedFile, Source, Written
from furnel.containers.masks import mask_stream
from furnel.containers.packing import PACKINGS, pack_stream
from furnel.containers.records import Values
from furnel.containers.schema import Layout, WholePart
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, check

_WHAT = "Unpacking an archive"
_MOST = 64 << 30

OpenPlain = Callable[[Path, Source], Container]


class Whole:
    """An archive that is packed as a whole. What is inside is opened by `open_plain` from a temporary file."""

    def __init__(
        self, path: Path, layout: Layout, open_plain: OpenPlain, source: Source | None = None
    ) -> None:
        assert layout.whole is not None
        self.path, self.layout, self.kind = path, layout, layout.name
        self._part: WholePart = layout.whole
        self._outer: Source = source or MappedFile(path)
        self._scratch = contextlib.ExitStack()
        try:
            self._values, start = records.read_record(
                self._part.fields,
                self._outer.view,
                0,
                layout.byte_order,
                path,
                {"file_size": len(self._outer.view)},
            )
            told = records.meaning(self._part.fields, self._values, "data size", {})
            folder = self._scratch.enter_context(scratch_in(Path(tempfile.gettempdir())))
            plain = folder / path.name
            with plain.open("wb") as out:
                end = _unpack(self._outer, start, layout, out, path, told)
            self._behind = bytes(self._outer.view[end:])
            if told is not None and told != plain.stat().st_size:
                raise FurnelError(
                    _WHAT, where=path, why=f"it unpacks to {plain.stat().st_size} bytes and says {told}",
                    remedy="The archive is damaged or described by the wrong layout",
                )  # fmt: skip
            self._inner = open_plain(path, MappedFile(plain))
        except OSError as error:
            self._close_outer()
            raise FurnelError(_WHAT, where=path, why=reason(error), remedy="Check the free space") from error
        except FurnelError:
            self._close_outer()
            raise

    def entries(self) -> Sequence[Entry]:
        return self._inner.entries()

    def read(self, path: str) -> bytes:
        return self._inner.read(path)

    def view(self, path: str) -> bytes | memoryview:
        return self._inner.view(path)

    def peek(self, path: str, size: int) -> bytes:
        return self._inner.peek(path, size)

    def close(self) -> None:
        self._inner.close()
        self._close_outer()

    def rewrite(self, target: Path, changes: Changes, progress: Progress = QUIET) -> None:
        if not changes:
            with replacing(target) as out:
                self._outer.copy(0, len(self._outer.view), out)
            return
        if any(self._behind):
            raise FurnelError(
                "Writing an archive", where=self.path,
                why=f"{len(self._behind)} bytes lie behind its packed data, and the layout does not say what they are",
                remedy="They may be a checksum, which would be wrong then: the archive can be read, not written",
            )  # fmt: skip
        with scratch_in(target.parent) as scratch:
            plain = scratch / target.name
            self._inner.rewrite(plain, changes, progress)
            check(progress, "Packing the archive")
            write_whole(target, self.layout, plain, self._values, self._behind)

    def _close_outer(self) -> None:
        self._outer.close()
        self._scratch.close()


def write_whole(target: Path, layout: Layout, plain: Path, old: Values, behind: bytes = b"") -> None:
    """The file in `plain`, packed, behind the record that stays plain, and what is `behind` it; read back first."""
    part = layout.whole
    assert part is not None
    with replacing(target) as out, plain.open("rb") as source:
        values = dict(old)
        size = plain.stat().st_size
        records.mean(part.fields, values, "data size", size, {})
        head = records.write_record(part.fields, values, layout.byte_order, {})
        out.write(head)
        pack_stream(source, out, part.packed)
        mask_stream(out, layout.masks, "whole", {}, len(head))
        end = out.tell()
        out.write(behind)
        records.mean(part.fields, values, "file size", out.tell(), {})
        out.seek(0)
        out.write(records.write_record(part.fields, values, layout.byte_order, {}))
        source.seek(0)
        written = Written(out, target)
        try:
            if _unpack(written, len(head), layout, _Same(source), target, size) != end or source.read(1):
                raise ValueError
        except (FurnelError, ValueError) as error:
            raise FurnelError(
                "Proving what was written",
                where=target,
                why="it does not unpack to what was packed",
                remedy="Nothing was written",
            ) from error
        finally:
            written.close()


class _Same:
    """Takes bytes that have to be those of a stream."""

    def __init__(self, wanted: BinaryIO) -> None:
        self._wanted = wanted

    def write(self, piece: bytes) -> int:
        if self._wanted.read(len(piece)) != piece:
            raise ValueError("another byte")
        return len(piece)


@contextlib.contextmanager
def _clear(source: Source, start: int, layout: Layout) -> Iterator[memoryview]:
    """What is behind the record that stays plain, without its mask: in a temporary file where it has one."""
    if not any(mask.on == "whole" for mask in layout.masks):
        yield source.view[start:]
        return
    with tempfile.NamedTemporaryFile() as scratch:
        stream = cast(BinaryIO, scratch)
        source.copy(start, len(source.view), stream)
        mask_stream(stream, layout.masks, "whole", {}, back=True)
        stream.flush()
        clear = MappedFile(Path(scratch.name))
        try:
            yield clear.view
        finally:
            clear.close()


def _unpack(
    source: Source, start: int, layout: Layout, out: BinaryIO | _Same, where: Path, told: int | None
) -> int:
    """Piece by piece, refusing what cannot be honest: more than its stored bytes can hold, more than it says. Where the packed
    data ends."""
    assert layout.whole is not None
    kind = PACKINGS[layout.whole.packed]
    most = min(_MOST, (len(source.view) - start) * kind.most_ratio + 64)
    if told is not None and told > most:
        raise FurnelError(
            _WHAT,
            where=where,
            why=f"it says that it unpacks to {told} bytes, and its stored ones cannot hold more than {most}",
        )
    most = most if told is None else told
    written, consumed = 0, list[int]()
    try:
        with _clear(source, start, layout) as clear:
            for piece in kind.pieces(clear, consumed):
                written += out.write(piece)
                if written > most:
                    raise FurnelError(_WHAT, where=where, why=f"it unpacks to more than {most} bytes")
        return start + consumed[0]
    except kind.damage as error:
        raise FurnelError(_WHAT, where=where, why=f"the {kind.name} data is damaged ({error})") from error
