"""What is kept only because making it again takes time: how much that is, and letting go of it."""

from __future__ import annotations

import contextlib
import os
from collections import defaultdict
from collections.abc import Collection
from dataclasses import dataclass, field
from pathlib import Path

from furnel.folders import cache_folder
from furnel.progress import QUIET, Progress, check

_PARTS = "results", "shapes", "catalogues"  # kernels are Furnel's own, the log is told from


@dataclass(slots=True)
class _Group:
    """Files that belong together, such as a result and what was found of it."""

    paths: list[Path] = field(default_factory=list)
    size: int = 0
    used: float = 0.0  # when it was last read or written, in seconds


def kept_bytes() -> dict[str, int]:
    """How many bytes are kept, by what they are: results, shapes, catalogues."""
    return {part: sum(group.size for group in _groups(part).values()) for part in _PARTS}


def let_go(spare: Collection[Path] = (), most: int = 0, progress: Progress = QUIET) -> int:
    """Delete what was not used for the longest time until at most `most` bytes are kept; the bytes that came free.

    What belongs to a file in `spare` stays, whatever it takes: what is open. So does what cannot be deleted.
    Raises Cancelled.
    """
    groups = {key: group for part in _PARTS for key, group in _groups(part).items()}
    left, freed = sum(group.size for group in groups.values()), 0
    spared = {_key(path) for path in spare}
    for place, (key, group) in enumerate(sorted(groups.items(), key=lambda entry: entry[1].used)):
        if left <= most:
            break
        if key in spared:
            continue
        check(progress, "Letting go")
        progress.report(place / len(groups), "Letting go")
        with contextlib.suppress(OSError):
            for path in sorted(group.paths, reverse=True):  # what is found first by its name goes last
                path.unlink()
            left, freed = left - group.size, freed + group.size
    return freed


def _key(path: Path) -> tuple[str, str]:
    return str(path.parent), path.name.partition(".")[0]


def _groups(part: str) -> dict[tuple[str, str], _Group]:
    groups: defaultdict[tuple[str, str], _Group] = defaultdict(_Group)
    for folder, _, names in os.walk(cache_folder() / part):
        for name in names:
            path = Path(folder, name)
            with contextlib.suppress(OSError):
                facts = path.lstat()
                group = groups[_key(path)]
                group.paths.append(path)
                group.size += facts.st_size
                group.used = max(group.used, facts.st_atime, facts.st_mtime)
    return dict(groups)
