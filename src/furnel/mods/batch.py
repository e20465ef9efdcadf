"""Fitting whole folders: sources paired with originals by path or by name, all made to fit at once."""

from __future__ import annotations

import threading
from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

from furnel.atomic import write_bytes
from furnel.blocks import Quality
from furnel.containers import check_path
from furnel.errors import Cancelled, FurnelError
from furnel.games import RoleRule
from furnel.media import Spec
from furnel.mods.fit import FitPoint, worst
from furnel.mods.single import fit_file
from furnel.parallel import each
from furnel.progress import QUIET, Progress, check

Match = Literal["path", "name"]
MATCHES: tuple[Match, ...] = ("path", "name")
WHAT = "Fitting a folder"


@dataclass(frozen=True, slots=True)
class Pair:
    """A source file and the inner path of the original that it is for."""

    source: Path
    original: str


@dataclass(frozen=True, slots=True)
class Outcome:
    """What became of a pair: the file written and its fit, or why it could not be."""

    pair: Pair
    target: Path | None = None
    points: tuple[FitPoint, ...] = ()
    refused: str = ""

    @property
    def state(self) -> str:
        return "refused" if self.refused else worst(self.points)


def pair_up(folder: Path, originals: Iterable[str], match: Match) -> tuple[list[Pair], list[Path]]:
    """Every file below `folder` with the originals that it is for, and the files that are for none.

    By `path` the place below the folder counts, by `name` the file's name alone (and one file may be for several
    originals: an emblem at three sizes); endings and upper or lower case never do. Raises FurnelError when two files are
    for one original.
    """
    known: dict[str, list[str]] = {}
    for original in originals:
        known.setdefault(_key(original, match), []).append(original)
    pairs: list[Pair] = []
    left: list[Path] = []
    taken: dict[str, Path] = {}
    for file in sorted(path for path in folder.rglob("*") if path.is_file()):
        found = known.get(_key(file.relative_to(folder).as_posix(), match), [])
        if not found:
            left.append(file)
        for original in found:
            if original in taken:
                raise FurnelError(
                    WHAT,
                    where=original,
                    why=f"both {taken[original]} and {file} are for it",
                    remedy="Keep one of the two, or match by path",
                )
            taken[original] = file
            pairs.append(Pair(file, original))
    return pairs, left


def fit_folder(
    pairs: Sequence[Pair],
    read: Callable[[str], bytes],
    out: Path,
    quality: Quality = "good",
    role: Callable[[str], RoleRule | None] = lambda _: None,
    progress: Progress = QUIET,
    demands: Callable[[str, bytes], Spec] | None = None,
) -> list[Outcome]:
    """Make every source fit and write it below `out` under its original's inner path, on all cores.

    `demands` tells what an original has to be matched in beyond its own bytes, by inner path and bytes.

    What cannot be fitted is told in its outcome and stops nothing else. Raises Cancelled when asked to stop; what was
    written until then stays.
    """
    for pair in pairs:
        target = out / check_path(pair.original, out)
        if target.exists() and target.samefile(pair.source):
            raise FurnelError(
                WHAT, where=target, why="it is the source itself", remedy="Choose another folder to write to"
            )
    reading = threading.Lock()  # archives are read by one at a time

    def work(pair: Pair, stop: Progress) -> Outcome:
        try:
            check(stop, WHAT)
            with reading:
                original = read(pair.original)
                wanted = demands(pair.original, original) if demands else None
            data, points = fit_file(
                pair.source, original, pair.original, quality, role(pair.original), stop, wanted
            )
            target = out / pair.original
            write_bytes(target, data)
            return Outcome(pair, target, tuple(points))
        except Cancelled:
            raise
        except FurnelError as error:
            return Outcome(pair, refused=error.sentence())

    return each(pairs, work, progress, "Fitted", lambda pair: pair.source.name)


def _key(path: str, match: Match) -> str:
    stem = path.rpartition(".")[0] if "." in path.rpartition("/")[2] else path
    return (stem if match == "path" else stem.rpartition("/")[2]).casefold()
