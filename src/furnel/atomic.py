"""Writing a file so that a reader sees the old one or the new one, whole, whatever happens."""

from __future__ import annotations

import contextlib
import json
import os
import shutil
import uuid
from collections.abc import Iterator, Sequence
from pathlib import Path
from typing import BinaryIO, cast

from furnel.errors import FurnelError, reason
from furnel.pending import move_all, moves_file, noted


@contextlib.contextmanager
def replacing(path: Path) -> Iterator[BinaryIO]:
    """Open a temporary file in the folder of `path` that takes its place when the block ends without an error.

    The file is flushed to disk before it gets its name, its folder afterwards; an existing file's mode is kept. Where the
    file system can, it has no name before; what a kill leaves is gone after the next start (`furnel.pending`).
    Raises FurnelError when the folder cannot be written.
    """
    part = _part_of(path)
    try:
        path.parent.mkdir(parents=True, exist_ok=True)
        with contextlib.ExitStack() as stack:
            stream = _nameless(path.parent)
            nameless = stream is not None
            if not nameless or path.exists():
                stack.enter_context(noted([part]))
            if stream is None:
                stream = cast(BinaryIO, part.open("x+b"))
            with stream:
                yield stream
                _finish(stream, path)
                if nameless and _link(stream, path):
                    sync_folder(path.parent)
                    return
                if nameless:
                    _link(stream, part)
            part.replace(path)
            sync_folder(path.parent)
    except OSError as error:
        with contextlib.suppress(OSError):
            part.unlink(missing_ok=True)
        raise _refusal(path, error) from error


@contextlib.contextmanager
def replacing_together(paths: Sequence[Path]) -> Iterator[list[BinaryIO]]:
    """Temporary files that take the places of `paths`, all or none, when the block ends without an error.

    Raises FurnelError when a folder cannot be written; what was there before is then unchanged.
    """
    if len({path.resolve() for path in paths}) != len(paths):
        raise FurnelError("Writing an archive", where=paths[0], why="two of its files would have one name")
    parts = [_part_of(path) for path in paths]
    try:
        with noted(parts) as note:
            with contextlib.ExitStack() as stack:
                streams = []
                for path, part in zip(paths, parts, strict=True):
                    path.parent.mkdir(parents=True, exist_ok=True)
                    streams.append(cast(BinaryIO, stack.enter_context(part.open("x+b"))))
                yield streams
                for path, stream in zip(paths, streams, strict=True):
                    _finish(stream, path)
            for folder in {path.parent for path in paths}:
                sync_folder(folder)
            moves = [
                [str(part.resolve()), str(path.resolve())] for part, path in zip(parts, paths, strict=True)
            ]
            if len(moves) > 1:
                write_text(moves_file(note), json.dumps(moves))
            move_all(moves)
            moves_file(note).unlink(missing_ok=True)
    except OSError as error:
        raise _refusal(paths[0], error) from error


@contextlib.contextmanager
def scratch_in(folder: Path) -> Iterator[Path]:
    """A folder for temporary files on the disk of `folder`, gone afterwards, also after a kill and the next start."""
    place = folder / f".furnel-{uuid.uuid4().hex[:12]}"
    with noted([place]):
        try:
            place.mkdir(parents=True)
        except OSError as error:
            raise _refusal(place, error) from error
        yield place


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


def beside(folder: Path, word: str) -> Path:
    """The hidden folder beside another one that holds what is to take its place (`next`) or what was in it (`old`)."""
    return folder.with_name(f".{folder.name}.{word}")


def swap_folder(fresh: Path, target: Path) -> None:
    """Put a whole folder, ready on the same disk, in another one's place; `settle_folder` mends what a kill leaves."""
    old = beside(target, "old")
    drop_folder(old)
    if target.exists():
        target.rename(old)
    fresh.rename(target)
    sync_folder(target.parent)
    drop_folder(old)


def drop_folder(folder: Path) -> None:
    """Remove a folder with all that is in it; of a link to one only the link."""
    if folder.is_symlink():
        folder.unlink()
    else:
        shutil.rmtree(folder, ignore_errors=True)


def settle_folder(target: Path) -> None:
    """After a kill: the old folder is back where the new one did not come into its place, and nothing lies beside it."""
    old = beside(target, "old")
    if old.is_dir() and not target.exists():
        old.rename(target)
        sync_folder(target.parent)
    for rest in (old, beside(target, "next")):
        if rest.exists() or rest.is_symlink():
            drop_folder(rest)


def _part_of(path: Path) -> Path:
    return path.with_name(f".{path.name[:80]}.{uuid.uuid4().hex[:12]}.part")


def _nameless(folder: Path) -> BinaryIO | None:
    """A file without a name to write into; not every file system has them."""
    try:
        handle = os.open(folder, os.O_TMPFILE | os.O_RDWR | os.O_CLOEXEC, 0o600)
    except (OSError, AttributeError):
        return None
    return cast(BinaryIO, os.fdopen(handle, "w+b"))


def _finish(stream: BinaryIO, path: Path) -> None:
    stream.flush()
    os.fchmod(stream.fileno(), path.stat().st_mode & 0o7777 if path.exists() else 0o666 & ~_umask())
    os.fsync(stream.fileno())


def _umask() -> int:
    """What new files here are not allowed to be; asked of the kernel, as `os.umask` would change it for all threads."""
    try:
        status = Path("/proc/self/status").read_text()
        return int(status.partition("\nUmask:")[2].split(maxsplit=1)[0], 8)
    except (OSError, IndexError, ValueError):  # an older kernel, or none
        return 0o022


def _link(stream: BinaryIO, path: Path) -> bool:
    """Give a file without a name this one, unless something has it."""
    folder = os.open(path.parent, os.O_RDONLY | os.O_DIRECTORY)
    try:
        source = f"/proc/self/fd/{stream.fileno()}"
        os.link(source, path.name, src_dir_fd=folder, dst_dir_fd=folder, follow_symlinks=True)
        return True
    except FileExistsError:
        return False
    finally:
        os.close(folder)


def _refusal(path: Path, error: OSError) -> FurnelError:
    return FurnelError(
        "The file could not be written",
        where=path,
        why=reason(error),
        remedy="Check the free space and the permissions of the folder; what was there before is unchanged",
    )
