"""Everything that lies below a folder: each file once, and what is none, with its reason."""

from __future__ import annotations

import os
import stat
from collections.abc import Callable
from pathlib import Path
from typing import NamedTuple

from furnel.errors import reason

_Id = tuple[int, int]


class Listed(NamedTuple):
    """A file below a folder: its `path` there, with slashes; size in bytes, time of its last change in nanoseconds."""

    path: str
    size: int
    time: int


class Listing(NamedTuple):
    """The files below a folder in the order of their paths, and what is left out: a path and why."""

    files: list[Listed]
    left_out: list[tuple[str, str]]


def list_folder(folder: Path, skip: Callable[[str], bool] = lambda _: False, outside: bool = True) -> Listing:
    """List a folder. Links are followed, but to nothing that is listed already, and to nothing `outside` where that is not
    wanted; folders and files whose path `skip` is true of are not looked at. What vanishes meanwhile was never there."""
    walk = _Walk(folder, skip, outside)
    walk.enter(folder, "")
    for path, name in walk.links:  # behind what is there itself, so that this has the names
        walk.follow(path, name)
    return Listing(sorted(walk.files), sorted(walk.left_out))


class _Walk:
    def __init__(self, folder: Path, skip: Callable[[str], bool], outside: bool) -> None:
        self._root, self._skip, self._outside = os.path.realpath(folder), skip, outside
        self.files: list[Listed] = []
        self.left_out: list[tuple[str, str]] = []
        self.links: list[tuple[str, str]] = []
        self._seen: dict[_Id, str] = {}

    def enter(self, folder: str | Path, name: str) -> None:
        """Take in a folder that is there under a name, with all that it holds."""
        waiting = [(os.fspath(folder), name)]
        while waiting:
            at, name = waiting.pop()
            try:
                with os.scandir(at) as entries:
                    found = list(entries)
                self._seen[_identity(Path(at).stat())] = name
            except FileNotFoundError:
                continue
            except OSError as error:
                self.left_out.append((f"{name}/", reason(error)))
                continue
            for entry in found:
                path = f"{name}/{entry.name}" if name else entry.name
                if not _is_said(entry.name):
                    shown = os.fsencode(path).decode("utf-8", "backslashreplace")
                    self.left_out.append((shown, "its name is not UTF-8: rename it to read it"))
                elif self._skip(path):
                    continue
                elif entry.is_symlink():
                    self.links.append((entry.path, path))
                elif entry.is_dir(follow_symlinks=False):
                    waiting.append((entry.path, path))
                else:
                    self._take(entry, path)

    def _take(self, entry: os.DirEntry[str], path: str) -> None:
        try:
            state = entry.stat(follow_symlinks=False)
        except FileNotFoundError:
            return
        except OSError as error:
            self.left_out.append((path, reason(error)))
            return
        if stat.S_ISREG(state.st_mode):
            self.files.append(Listed(path, state.st_size, state.st_mtime_ns))
            self._seen.setdefault(_identity(state), path)
        else:
            self.left_out.append((path, "it is no file, but something that programs talk through"))

    def follow(self, at: str, name: str) -> None:
        """Take in what a link leads to, unless it has a name already."""
        try:
            leads = Path(at).readlink()
            state = Path(at).stat()
        except FileNotFoundError:
            if Path(at).is_symlink():
                self.left_out.append((name, f"a link to {leads}, which is not there"))
            return
        except OSError as error:
            self.left_out.append((name, f"a link that cannot be followed: {reason(error)}"))
            return
        known = self._seen.get(_identity(state))
        if not self._outside and not os.path.realpath(at).startswith(f"{self._root}/"):
            self.left_out.append((name, f"a link to {leads}, which is outside"))
        elif known is not None:
            self.left_out.append((name, f"a link to {known or 'the folder itself'}, which is listed there"))
        elif stat.S_ISDIR(state.st_mode):
            if self._root.startswith(f"{os.path.realpath(at)}/"):
                self.left_out.append((name, f"a link to {leads}, which this folder lies in"))
            else:
                self.enter(at, name)
        elif stat.S_ISREG(state.st_mode):
            self.files.append(Listed(name, state.st_size, state.st_mtime_ns))
            self._seen[_identity(state)] = name
        else:
            self.left_out.append((name, f"a link to {leads}, which is no file"))


def _identity(state: os.stat_result) -> _Id:
    return state.st_dev, state.st_ino


def _is_said(name: str) -> bool:
    try:
        name.encode("utf-8")
    except UnicodeEncodeError:
        return False
    return True
