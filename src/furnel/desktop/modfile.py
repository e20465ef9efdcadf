"""The open mod's file and its history on disk: saved at once, and what other programs write into it is seen."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Any

from furnel import mods

if TYPE_CHECKING:
    from furnel.desktop.session import Session
    from furnel.errors import FurnelError
    from furnel.mods.edit import Applied, Edit
    from furnel.mods.store import Saved
    from furnel.mods.workspace import Workspace

_BY_OTHERS = "Another program changed the mod: it is taken over"


class ModFile:
    """Keeps a session's mod on disk, in a lane that nothing long uses."""

    def __init__(self, session: Session) -> None:
        self._session = session
        self._unwritten: Path | None = None  # what another program left so that it cannot be read

    def note(self, change: Edit | None) -> None:
        """Write the history, before the project is written: a change, or only the place where the mod is in it now."""
        space = self._session.space
        if space is None:
            return
        file, place = mods.history.history_file(space.file), self._session.past.place
        self.write(
            "Keeping the history",
            lambda: (
                mods.history.note_place(file, place)
                if change is None
                else mods.history.note_edit(file, change)
            ),
        )

    def write(self, title: str, work: Callable[[], object], key: str = "") -> None:
        """Write something small that must be written, in the order of the requests."""
        self._session.jobs.start(title, lambda _: work(), lambda _: None, key=key, lane="save", shown=False)

    def save(self, space: Workspace) -> None:
        """Write the project; of several the last one, with what other programs changed in its file."""
        space.store.wish(space.project)

        def done(saved: Saved | None) -> None:
            if self._session.still_open(space):
                self._unwritten = None
                if saved is not None and saved.others is not None:
                    self._take(saved.others)

        self._start("Saving the mod", space.store.save_wished, done, space)

    def look(self, said: str = _BY_OTHERS) -> None:
        """See whether another program changed the mod's file, and take what it changed; what is then `said`."""
        space = self._session.space
        if space is None:
            return

        def done(edit: Edit | None) -> None:
            if not self._session.still_open(space):
                return
            if edit is not None:
                self._take(edit, said)
            if self._unwritten == space.file and self._session.space is not None:
                self.save(self._session.space)  # it can be read again

        self._start("Reading the mod", space.store.look, done, space)

    def apply_elsewhere(self, edit: Edit, space: Workspace, worked_out: bool) -> None:
        """Bring an edit into a mod that is not open any more."""
        if not edit:
            return
        session, name = self._session, space.project.mod.name

        def done(found: Applied) -> None:
            if found.conflicts:
                session.tell("wrong", kept_words(found.conflicts, name))
            else:
                session.tell("calm", f"{name}, which is not open any more, has it now: {edit.text}")

        session.jobs.start(
            f"Saving {name}", lambda _: mods.store.commit(space.file, edit, worked_out), done, lane="save", shown=False
        )  # fmt: skip

    def _start(
        self, title: str, work: Callable[[], object], done: Callable[[Any], None], space: Workspace
    ) -> None:
        def failed(error: FurnelError) -> None:
            if self._session.still_open(space) and self._unwritten != space.file:
                self._session.tell(
                    "wrong", error.sentence(), ("Write mine over it", lambda: self._write_over(space))
                )
                self._unwritten = space.file

        self._session.jobs.start(title, lambda _: work(), done, failed, lane="save", shown=False)

    def _take(self, edit: Edit, said: str = _BY_OTHERS) -> None:
        """Bring what another program changed in the mod's file into the mod; what both changed stays as it is here."""
        session, project = self._session, self._session.project
        if project is None:
            return
        found = edit.apply(project, worked_out=False)
        session.push(edit.text, found.project)
        if not found.conflicts:
            session.tell("calm", said, ("Undo", session.undo))
            return

        def take() -> None:
            if session.project is not None:
                session.push("Take what the other program wrote", edit.over(session.project))

        session.tell(
            "wrong", f"Another program changed the mod, too: {_short(found.conflicts)} stays as it is here",
            ("Take theirs", take),
        )  # fmt: skip

    def _write_over(self, space: Workspace) -> None:
        """Write the mod over a file that cannot be read; what is in it is kept beside."""
        session, project = self._session, self._session.project
        if not session.still_open(space) or project is None:
            return

        def done(kept: Path) -> None:
            self._unwritten = None
            session.tell_written(f"Saved; what was in it is in {kept.name}", kept)

        session.jobs.start(
            "Saving the mod", lambda _: space.store.put_over(project), done, lane="save", shown=False
        )


def kept_words(names: Sequence[str], mod: str = "") -> str:
    """What was changed meanwhile and stays as it was left, in a sentence."""
    where = f" in {mod}" if mod else ""
    return (
        f"{_short(names)} was changed meanwhile and stays as you left it{where}: do it again if you want it"
    )


def _short(names: Sequence[str]) -> str:
    return ", ".join(name.rpartition("/")[2] for name in names[:3])
