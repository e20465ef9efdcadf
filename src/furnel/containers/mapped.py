"""A file's bytes, mapped into memory and not read until they are used."""

from __future__ import annotations

import contextlib
import mmap
from pathlib import Path
from typing import BinaryIO

from furnel.errors import FurnelError, reason


class MappedFile:
    """The bytes of a file as a read-only `view`; `close` lets go of it.

    With `here_and_there` only what is touched is brought into memory, nothing around it.
    """

    def __init__(self, path: Path, here_and_there: bool = False) -> None:
        self.path = path
        self._map: mmap.mmap | None = None
        try:
            with path.open("rb") as stream:
                size = stream.seek(0, 2)
                if size:
                    self._map = mmap.mmap(stream.fileno(), 0, access=mmap.ACCESS_READ)
                    if here_and_there:
                        self._map.madvise(mmap.MADV_RANDOM)
        except OSError as error:
            raise FurnelError("Opening an archive", where=path, why=reason(error)) from error
        self.view = memoryview(self._map) if self._map is not None else memoryview(b"")

    def copy(self, start: int, end: int, out: BinaryIO) -> None:
        """Write a span of the file to `out`, in pieces."""
        for at in range(start, end, 1 << 20):
            out.write(self.view[at : min(at + (1 << 20), end)])

    def close(self) -> None:
        """Let go of the file; a span of it still in use somewhere (a refusal's trace, say) lets go of it later."""
        with contextlib.suppress(BufferError):
            self.view.release()
            if self._map is not None:
                self._map.close()
