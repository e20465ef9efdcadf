"""Bytes that lie in memory or in a mapped file, read like a file without being copied."""

from __future__ import annotations

import io
from typing import Any


class _Memory(io.RawIOBase):
    def __init__(self, data: bytes | memoryview) -> None:
        super().__init__()
        self._data, self._at = memoryview(data), 0

    def readable(self) -> bool:
        return True

    def seekable(self) -> bool:
        return True

    def seek(self, offset: int, whence: int = 0) -> int:
        start = (0, self._at, len(self._data))[whence]
        self._at = max(start + offset, 0)
        return self._at

    def tell(self) -> int:
        return self._at

    def readinto(self, target: Any) -> int:
        part = self._data[self._at : self._at + len(target)]
        target[: len(part)] = part
        self._at += len(part)
        return len(part)


def reader(data: bytes | memoryview) -> io.BufferedReader:
    """A file over `data`."""
    return io.BufferedReader(_Memory(data))
