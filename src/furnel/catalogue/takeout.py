"""Taking out of a game: assets as they are, or as files that every editor opens, with a note of where each came from."""

from __future__ import annotations

import hashlib
import json
from collections.abc import Callable, Sequence
from pathlib import Path
from typing import Literal

from furnel.atomic import write_bytes, write_text
from furnel.containers import check_path
from furnel.errors import FurnelError
from furnel.media import medium_of
from furnel.progress import QUIET, Progress, steps

Form = Literal["raw", "png", "wav"]
FORMS: tuple[Form, ...] = ("raw", "png", "wav")
NOTE = "furnel-taken.json"
_MOST_NOTE = 64 << 20


def take_out(
    paths: Sequence[str],
    read: Callable[[str], bytes],
    folder: Path,
    form: Form = "raw",
    progress: Progress = QUIET,
) -> list[Path]:
    """Write assets below `folder` under their inner paths, and a note of where they came from; the files written.

    With `png` or `wav` only pictures or sounds are converted, the rest stays as it is. Raises FurnelError for damage.
    """
    out = []
    noted = _load(folder / NOTE)
    for path in steps(paths, len(paths), progress, "Taking out"):
        data, suffix = converted(read(check_path(path, folder)), path, form)
        target = folder / path
        target = target.with_suffix(suffix) if suffix else target
        write_bytes(target, data)
        out.append(target)
        noted[target.relative_to(folder).as_posix()] = {
            "original": path,
            "sha256": hashlib.sha256(data).hexdigest(),
        }
    write_text(
        folder / NOTE, json.dumps({"furnel-taken": 1, "files": noted}, indent=1, sort_keys=True) + "\n"
    )
    return out


def read_notes(folder: Path) -> dict[str, str]:
    """Files below `folder`, by their path in it, and the originals that they were taken out from.

    A file that was renamed or moved is known by its content as long as that is unchanged, and by its name after that; notes
    are looked for in the folder itself and above and below it.
    """
    known = _Known([*folder.rglob(NOTE), *_notes_above(folder)])
    if not known.by_place:
        return {}
    found = {}
    for file in folder.rglob("*"):
        if file.is_file() and file.name != NOTE and (original := known.original(file)):
            found[file.relative_to(folder).as_posix()] = original
    return found


def noted_original(file: Path) -> str:
    """The original that a file was taken out from, as far as a note in its folder or above tells; otherwise nothing."""
    return _Known([file.parent / NOTE, *_notes_above(file.parent)]).original(file)


def _notes_above(folder: Path) -> list[Path]:
    return [above / NOTE for above in folder.resolve().parents[:3] if (above / NOTE).is_file()]


class _Known:
    """What some notes say, by the files' places, contents and names."""

    def __init__(self, notes: Sequence[Path]) -> None:
        self.by_place: dict[Path, str] = {}
        self._by_sum: dict[str, str] = {}
        self._by_name: dict[str, set[str]] = {}
        for note in notes:
            for inner, entry in _load(note).items():
                original = entry["original"]
                self.by_place[note.parent.resolve() / inner] = original
                self._by_sum[entry["sha256"]] = original
                self._by_name.setdefault(Path(inner).name.casefold(), set()).add(original)

    def original(self, file: Path) -> str:
        """The original of a file: of that place, of that name when only one had it, or of that content."""
        if (here := self.by_place.get(file.resolve())) is not None:
            return here
        named = self._by_name.get(file.name.casefold(), set())
        if len(named) == 1:
            return next(iter(named))
        return self._by_sum.get(hashlib.sha256(file.read_bytes()).hexdigest(), "") if self._by_sum else ""


def _load(note: Path) -> dict[str, dict[str, str]]:
    """The entries of a note; nothing when it is not there or not one of ours."""
    try:
        if not note.is_file() or note.stat().st_size > _MOST_NOTE:
            return {}
        raw = json.loads(note.read_text("utf-8"))
        files = raw["files"]
        return {
            str(inner): {"original": str(entry["original"]), "sha256": str(entry["sha256"])}
            for inner, entry in files.items()
        }
    except (OSError, ValueError, KeyError, TypeError, AttributeError):
        return {}


def converted(data: bytes, path: str, form: Form) -> tuple[bytes, str]:
    """An asset's bytes in another form, with the file ending that goes with it (empty: its own)."""
    if form not in FORMS:
        raise FurnelError("Taking out", why=f"there is no form {form!r}", remedy="Use raw, png or wav")
    medium = medium_of(data, path)
    return medium.as_plain(data, path) if form == medium.plain else (data, "")
