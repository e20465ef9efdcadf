"""Writing a file so that a reader sees the old one or the new one, whole, whatever happens."""

from __future__ import annotations

import contextlib
import os
import tempfile
from collections.abc import Iterator
from pathlib import Path
from typing import BinaryIO, cast

from furnel.errors import FurnelError, reason


@contextlib.contextmanager
def replacing(path: Path) -> Iterator[BinaryIO]:
    """Open a temporary file beside `path` that takes its place when the block ends without an error.

    The file is flushed to disk before it is renamed, its folder afterwards; an existing file's mode is kept.
    Raises FurnelError when the folder cannot be written.
    """
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        handle, name = tempfile.mkstemp(prefix=f".{path.name[:80]}.", suffix=".part", dir=path.parent)
    except OSError as error:
        raise _refusal(path, error) from error
    part = Path(name)
    try:
        with os.fdopen(handle, "w+b") as stream:
            yield cast(BinaryIO, stream)
            stream.flush()
            os.fsync(stream.fileno())
        part.chmod(path.stat().st_mode & 0o7777 if path.exists() else 0o644)
        part.replace(path)
        sync_folder(path.parent)
    except OSError as error:
        part.unlink(missing_ok=True)
        raise _refusal(path, error) from error
    except BaseException:
        part.unlink(missing_ok=True)
        raise


def write_bytes(path: Path, data: bytes) -> None:
    """Replace `path` by `data`, atomically."""
    with replacing(path) as stream:
        stream.write(data)


def write_text(path: Path, text: str) -> None:
    """Replace `path` by `text` in UTF-8, atomically."""
    write_bytes(path, text.encode("utf-8"))


def sync_folder(folder: Path) -> None:
    """Make renames and removals inside `folder` durable."""
    handle = os.open(folder, os.O_RDONLY | os.O_DIRECTORY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)


def _refusal(path: Path, error: OSError) -> FurnelError:
    return FurnelError(
        "The file could not be written",
        where=path,
        why=reason(error),
        remedy="Check the free space and the permissions of the folder; what was there before is unchanged",
    )
