"""The match sheet: files of a folder paired with the originals that they are for, by note, by path, by name, by likeness."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace
from itertools import islice
from pathlib import Path
from typing import Literal

import numpy as np

from furnel.catalogue import NOTE, Marks, Shelf, noted_original, read_notes, read_wanted
from furnel.catalogue.marks import patches_of
from furnel.errors import FurnelError
from furnel.media import OTHER, PICTURE, medium_by_suffix
from furnel.progress import QUIET, Progress, steps

How = Literal["note", "path", "content", "name", "likeness", "by hand", ""]
_SURE = {"note": 1.0, "path": 0.98, "content": 0.97, "name": 0.9, "by hand": 1.0, "": 0.0}
Read = Callable[[str], bytes]
_CLOSE = 0.18  # a likeness leads by so much of itself, or it is only offered
_OFFERED = 8
_SMALL = 128  # pixels of the longer side
_FEWEST = 8  # patches that a picture is recognised by


@dataclass(frozen=True, slots=True)
class Match:
    """A file, the original that it is for (empty: none found), how that was told and how sure it is (0 to 1).

    `others` are the next best originals; `on` whether the pair is to be used.
    """

    file: Path
    original: str = ""
    how: How = ""
    sure: float = 0.0
    others: tuple[str, ...] = ()
    on: bool = False

    def to(self, original: str) -> Match:
        """The same file for another original, chosen by hand."""
        return replace(self, original=original, how="by hand", sure=1.0, on=bool(original))


def match_folder(
    folder: Path,
    shelf: Shelf,
    marks: Marks | None = None,
    progress: Progress = QUIET,
    read: Read | None = None,
) -> list[Match]:
    """Every file below a folder with the original that it is most likely for; `marks` are needed for likeness.

    What a note of an earlier take-out says comes first, then the same path, then the same name (when only one original of
    its kind has it), then, when `read` gives an original's bytes, the same pixels or samples, then likeness. One original
    gets one file: the surest.
    """
    if not folder.is_dir():
        raise FurnelError("Matching a folder", where=folder, why="there is no such folder")
    return match_files(sorted(folder.rglob("*")), folder, shelf, marks, progress, read)


def match_files(
    given: Sequence[Path], folder: Path, shelf: Shelf, marks: Marks | None = None, progress: Progress = QUIET,
    read: Read | None = None,
) -> list[Match]:  # fmt: skip
    """The same for some files of a folder."""
    files = [file for file in given if file.is_file() and file.name != NOTE and _suffix(file)]
    notes = (
        {folder / inner: original for inner, original in read_notes(folder).items()} if len(files) > 1 else {}
    )
    notes |= {file: original for file in files[:1] if (original := noted_original(file))}
    paths, names = _keys(shelf)
    found = [
        _match(folder, file, shelf, notes, paths, names, marks, read)
        for file in steps(files, len(files), progress, "Matching files with originals")
    ]
    return _one_each(found)


def _suffix(file: Path) -> bool:
    return medium_by_suffix(file) is not OTHER


def _keys(shelf: Shelf) -> tuple[dict[str, list[str]], dict[str, list[str]]]:
    """Originals by their path without ending, and by their name, in small letters."""
    paths: dict[str, list[str]] = {}
    names: dict[str, list[str]] = {}
    for row, path in enumerate(shelf.paths):
        paths.setdefault(_stem(path), []).append(path)
        for name in {_stem(path).rpartition("/")[2], shelf.title(row).casefold()} - {""}:
            names.setdefault(name, []).append(path)
    return paths, names


def _stem(path: str) -> str:
    head, _, name = path.casefold().rpartition("/")
    stem = name.rpartition(".")[0] or name
    return f"{head}/{stem}" if head else stem


def _match(
    folder: Path, file: Path, shelf: Shelf, notes: dict[Path, str], paths: dict[str, list[str]],
    names: dict[str, list[str]], marks: Marks | None, read: Read | None,
) -> Match:  # fmt: skip
    inner = file.relative_to(folder).as_posix() if file.is_relative_to(folder) else file.name
    noted = notes.get(file)
    if noted is not None and shelf.row(noted) >= 0:
        return Match(file, noted, "note", _SURE["note"], on=True)
    kinds = medium_by_suffix(file).kinds
    parts = _stem(inner).split("/")
    for start in range(len(parts)):  # the folder may hold the game's tree below folders of its own
        fits = _of_kind(paths.get("/".join(parts[start:]), []), shelf, kinds)
        if len(fits) == 1 and (start < len(parts) - 1 or "/" not in fits[0]):
            return Match(file, fits[0], "path", _SURE["path"], on=True)
    same = _of_kind(names.get(parts[-1], []), shelf, kinds)
    if len(same) == 1:
        return Match(file, same[0], "name", _SURE["name"], on=True)
    alike = _alike(file, marks) if marks is not None else []
    first = dict.fromkeys(
        [*same, *(path for path, _ in alike)]
    )  # of the same content, one of the same name comes first
    if read is not None and (copies := [path for path in first if _same_content(file, path, shelf, read)]):
        return Match(file, copies[0], "content", _SURE["content"], tuple(copies[1:]), on=True)
    if same and marks is not None:
        scores = dict(alike)
        same = sorted(same, key=lambda path: -scores.get(path, 0.0))
        return Match(file, same[0], "name", 0.6, tuple(same[1 : 1 + _OFFERED]), on=True)
    if same:
        return Match(file, same[0], "name", 0.4, tuple(same[1 : 1 + _OFFERED]))
    if not alike:
        return Match(file)
    (best, score), rest = alike[0], alike[1:]
    lead = (score - rest[0][1]) / max(score, 1e-6) if rest else 1.0
    clear = lead >= _CLOSE and _has_features(file)
    sure = min(0.45 + 2 * lead, 0.85) if clear else 0.3
    return Match(file, best, "likeness", sure, tuple(path for path, _ in rest[:_OFFERED]), on=clear)


def _of_kind(found: list[str], shelf: Shelf, kinds: tuple[str, ...]) -> list[str]:
    return [path for path in found if shelf[shelf.row(path)].facts.kind in kinds]


def _alike(file: Path, marks: Marks) -> list[tuple[str, float]]:
    """The originals that a file looks or sounds like, best first; kin count once."""
    if not medium_by_suffix(file).has_likeness:
        return []
    try:
        ranking = read_wanted(file.read_bytes(), file.name, file).rank(marks)
    except (OSError, FurnelError):
        return []
    best = zip(ranking.rows.tolist(), ranking.scores.tolist(), strict=True)
    return [(marks.shelf.paths[row], score) for row, score in islice(best, _OFFERED + 1)]


def _same_content(file: Path, path: str, shelf: Shelf, read: Read) -> bool:
    """Whether a file has the very pixels or samples of an original, in whatever file; colour that is not seen is no matter."""
    try:
        medium, facts = medium_by_suffix(file), shelf[shelf.row(path)].facts
        return medium.same_content(file.read_bytes(), read(path), facts, path)
    except (OSError, FurnelError):
        return False


def _has_features(file: Path) -> bool:
    """Whether a picture has enough in it to be recognised by; a sound always has."""
    if medium_by_suffix(file) is not PICTURE:
        return True
    small = PICTURE.glanced(file.read_bytes(), file, _SMALL)
    return len(patches_of(small.pixels, (1.0, 0.5), 64)) >= _FEWEST


def _one_each(found: Sequence[Match]) -> list[Match]:
    """Of several files for one original the surest is used; the others are left to be decided."""
    best: dict[str, int] = {}
    for place in np.argsort([-match.sure for match in found], kind="stable").tolist():
        if found[place].on:
            best.setdefault(found[place].original, place)
    return [
        replace(match, on=False) if match.on and best[match.original] != place else match
        for place, match in enumerate(found)
    ]
