"""A project's file on disk, as one opening of the mod knows it: what others write into it meanwhile is seen and merged.

Every edit of a project is written here: by the window, by the command line, and into a mod that is not open any more.
"""

from __future__ import annotations

import contextlib
from dataclasses import dataclass
from pathlib import Path

from furnel.atomic import write_bytes
from furnel.errors import FurnelError, reason
from furnel.locks import locked
from furnel.mods.edit import Applied, Edit
from furnel.mods.history import history_file, note_edit
from furnel.mods.project import Project, load_project, save_project

WHAT = "Saving the mod"
_ASIDE = "furnel.mine.toml"
BY_OTHERS = "Change by another program"


@dataclass(frozen=True, slots=True)
class Saved:
    """What a save wrote: the project with what others had changed in its file meanwhile, which is `others`. `conflicts` are the
    names of what both changed: there it has what was to be saved."""

    project: Project
    others: Edit | None = None
    conflicts: tuple[str, ...] = ()


class Store:
    """A project's file, and what it said when it was last read or written here."""

    def __init__(self, file: Path, project: Project) -> None:
        self.file, self._known = file, project
        self._data = _read(file)
        self._wished: Project | None = None

    @classmethod
    def opened(cls, file: Path) -> tuple[Store, Project]:
        """A project's file with what it says. Raises FurnelError as `load_project` does."""
        with locked(file, "Reading a project"):
            project = load_project(file)
            return cls(file, project), project

    def save(self, project: Project, text: str = "") -> Saved:
        """Write a project, with what others changed in the file since it was last read or written here. With a `text` it is
        noted as an edit in the mod's history, before it is written.

        Raises FurnelError when the file cannot be read any more (somebody is in the middle of editing it): then it stays, and
        the project is written beside it.
        """
        with locked(self.file, WHAT):
            others = self._others(project)
            found = others.apply(project, worked_out=False) if others else Applied(project)
            if text:
                theirs = (others and others.onto(self._known)) or self._known
                if others:
                    _note(self.file, others)
                _note(self.file, Edit.between(text, theirs, found.project))
            save_project(self.file, found.project)
            self._data, self._known = _read(self.file), found.project
            self._aside.unlink(missing_ok=True)
        return Saved(found.project, others, found.conflicts)

    def wish(self, project: Project) -> None:
        """Let a project be what `save_wished` writes next."""
        self._wished = project

    def save_wished(self) -> Saved | None:
        """Write the project that was wished for last, as `save` does; None when it is written already."""
        wished, self._wished = self._wished, None
        return None if wished is None else self.save(wished)

    def look(self) -> Edit | None:
        """What others changed in the file since it was last read or written here. Raises FurnelError as `save` does."""
        with locked(self.file, WHAT):
            data = _read(self.file)
            if data in (self._data, b""):
                return None
            theirs = self._theirs()
            edit = Edit.between(BY_OTHERS, self._known, theirs)
            self._data, self._known = data, theirs
        return edit or None

    def put_over(self, project: Project) -> Path:
        """Write a project over a file that cannot be read, whose text is kept beside it; where that is."""
        with locked(self.file, WHAT):
            data, number = _read(self.file), 1
            while (
                kept := self.file.with_name(f"{self.file.stem}.theirs{number}{self.file.suffix}")
            ).exists():
                number += 1
            write_bytes(kept, data)
            self._data = data
            save_project(self.file, project)
            self._data, self._known = _read(self.file), project
            self._aside.unlink(missing_ok=True)
        return kept

    @property
    def _aside(self) -> Path:
        return self.file.with_name(_ASIDE)

    def _others(self, project: Project) -> Edit | None:
        if _read(self.file) in (self._data, b""):
            return None
        try:
            return Edit.between(BY_OTHERS, self._known, self._theirs()) or None
        except FurnelError:
            with contextlib.suppress(FurnelError):
                save_project(self._aside, project)
            raise

    def _theirs(self) -> Project:
        try:
            return load_project(self.file)
        except FurnelError as error:
            raise FurnelError(
                WHAT, where=self.file, why=f"another program left it so that it cannot be read ({error.why})",
                remedy=f"Bring it in order there; what you edit here is in {_ASIDE} until then", line=error.line,
            ) from error  # fmt: skip


def commit(file: Path, edit: Edit, worked_out: bool = True) -> Applied:
    """Apply an edit to the project in a file as it is now, note it in the mod's history, and write it.

    Raises FurnelError as `load_project` and `save_project` do.
    """
    with locked(file, WHAT):
        now = load_project(file)
        found = edit.apply(now, worked_out)
        if done := Edit.between(edit.text, now, found.project):
            _note(file, done)
            save_project(file, found.project)
    return found


def _note(file: Path, edit: Edit) -> None:
    if edit:
        with contextlib.suppress(OSError):
            note_edit(history_file(file), edit)


def _read(file: Path) -> bytes:
    try:
        return file.read_bytes()
    except FileNotFoundError:
        return b""
    except OSError as error:
        raise FurnelError(WHAT, where=file, why=reason(error), remedy="Check the permissions") from error
