"""Compression around a whole archive: unpacked into a temporary file to be read, packed again when it is written."""

from __future__ import annotations

import tempfile
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import BinaryIO

from furnel.atomic import replacing, scratch_in
from furnel.containers import records
from furnel.containers.container import Changes, Container, Entry
from furnel.containers.mapped import MappedFile, Source
from furnel.containers.packing import PACKINGS, pack_stream
from furnel.containers.records import Values
from furnel.containers.schema import Layout, WholePart
from furnel.errors import FurnelError, reason
from furnel.progress import QUIET, Progress, check

_WHAT = "Unpacking an archive"
_MOST = 64 << 30
_MOST_RATIO = 1 << 17

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
        self._scratch = tempfile.TemporaryDirectory(prefix="furnel-")
        try:
            self._values, start = records.read_record(
                self._part.fields,
                self._outer.view,
                0,
                layout.byte_order,
                path,
                {"file_size": len(self._outer.view)},
            )
            plain = Path(self._scratch.name) / path.name
            with plain.open("wb") as out:
                _unpack(self._outer, start, self._part, out, path)
            told = records.meaning(self._part.fields, self._values, "data size", {})
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
        with scratch_in(target.parent) as scratch:
            plain = scratch / target.name
            self._inner.rewrite(plain, changes, progress)
            check(progress, "Packing the archive")
            write_whole(target, self.layout, plain, self._values)

    def _close_outer(self) -> None:
        self._outer.close()
        self._scratch.cleanup()


def write_whole(target: Path, layout: Layout, plain: Path, old: Values) -> None:
    """The file in `plain`, packed, behind the record that stays plain."""
    part = layout.whole
    assert part is not None
    with replacing(target) as out, plain.open("rb") as source:
        values = dict(old)
        size = plain.stat().st_size
        records.mean(part.fields, values, "data size", size, {})
        head = records.write_record(part.fields, values, layout.byte_order, {})
        out.write(head)
        pack_stream(source, out, part.packed)
        records.mean(part.fields, values, "file size", out.tell(), {})
        out.seek(0)
        out.write(records.write_record(part.fields, values, layout.byte_order, {}))


def _unpack(source: Source, start: int, part: WholePart, out: BinaryIO, where: Path) -> None:
    """Piece by piece, refusing what cannot be honest."""
    kind = PACKINGS[part.packed]
    most = min(_MOST, (len(source.view) - start) * _MOST_RATIO)
    written = 0
    try:
        for piece in kind.pieces(source.view[start:]):
            written += out.write(piece)
            if written > most:
                raise FurnelError(_WHAT, where=where, why=f"it unpacks to more than {most} bytes")
    except kind.damage as error:
        raise FurnelError(_WHAT, where=where, why=f"the {part.packed} data is damaged ({error})") from error
