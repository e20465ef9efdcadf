"""Changing what a mod swaps: one original, a whole folder, kin, what a game update moved; each as one change for the undo."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QUndoCommand, QUndoStack

from furnel.desktop.jobs import JobRunner
from furnel.errors import Cancelled, FurnelError
from furnel.mods.project import Project, Swap
from furnel.mods.workspace import Workspace
from furnel.progress import Progress, check


@dataclass(frozen=True, slots=True)
class Notice:
    """Something to tell the modder: `calm` for what went well, `wrong` for a refusal."""

    tone: str
    text: str


class _Edit(QUndoCommand):
    """A change of the project; the project before and after are kept whole."""

    def __init__(self, adopt: Callable[[Project], None], before: Project, after: Project, text: str) -> None:
        super().__init__(text)
        self._adopt, self._before, self._after = adopt, before, after

    def redo(self) -> None:
        self._adopt(self._after)

    def undo(self) -> None:
        self._adopt(self._before)


class Swapping(QObject):
    """An open mod whose swaps can be changed, undone and redone. The session adds what follows from a change."""

    told = pyqtSignal(object)

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__()
        self.jobs = jobs
        self.space: Workspace | None = None
        self.undo = QUndoStack(self)

    @property
    def project(self) -> Project | None:
        return self.space.project if self.space else None

    def swap(self, original: str) -> Swap | None:
        """The open mod's swap of an original."""
        return self.project.swap_for(original) if self.project else None

    def tell(self, tone: str, text: str) -> None:
        """Say something to the modder."""
        self.told.emit(Notice(tone, text))

    def edit(self, after: Project, text: str) -> None:
        """Change the project, so that it can be undone."""
        if self.project is not None and after != self.project:
            self.undo.push(_Edit(self.adopt, self.project, after, text))

    def adopt(self, project: Project) -> None:
        """Make a project the current one."""
        if self.space is not None:
            self.space.project = project

    def set_swap(self, swap: Swap, text: str) -> None:
        """Put a swap into the mod."""
        if self.project is not None:
            self.edit(self.project.with_swap(swap), text)

    def swap_with(self, original: str, source: Path, then: Callable[[str], None] | None = None) -> None:
        """Swap an original for a file (or give its swap another source) and keep the steps that it has."""
        space = self.space
        if space is None:
            self.tell("wrong", "There is no mod yet to put the swap in: start one with New mod (Ctrl+N)")
            return

        def work(_: Progress) -> Swap:
            fresh = space.new_swap(original, source)
            old = space.project.swap_for(original)
            if old is None:
                return fresh
            return old.model_copy(update={"source": fresh.source, "made_for": fresh.made_for})

        def done(swap: Swap) -> None:
            self.set_swap(swap, f"Swap {original.rpartition('/')[2]}")
            if then is not None:
                then(original)

        self.jobs.start(f"Swapping {original}", work, done, lane="write")

    def follow(self, swap: Swap, then: Callable[[str], None]) -> None:
        """Point a swap to where its original's content is after a game update."""
        space = self.space
        if space is None:
            return

        def done(found: Swap | None) -> None:
            if found is None:
                self.tell(
                    "wrong",
                    f"The content of {swap.original} is not in the game any more: choose another original",
                )
                return
            project = space.project.without_swap(swap.original).with_swap(found)
            self.edit(
                project, f"Point {swap.original.rpartition('/')[2]} to {found.original.rpartition('/')[2]}"
            )
            then(found.original)

        self.jobs.start(f"Looking for {swap.original}", lambda _: space.followed(swap), done, lane="write")

    def swap_kin(self, original: str, others: list[str]) -> None:
        """Swap the kin of an original for its source, too, and fit them; one change for the undo."""
        space = self.space
        swap = self.swap(original)
        if space is None or swap is None:
            return

        def work(progress: Progress) -> list[Swap]:
            out = []
            for number, path in enumerate(others):
                progress.report(number / len(others), f"Matching {path}")
                fresh = space.new_swap(path, space.source_path(swap))
                out.append(space.fitted(fresh.model_copy(update={"credit": swap.credit})))
            return out

        def done(found: list[Swap]) -> None:
            project = space.project
            for one in found:
                project = project.with_swap(one)
            self.edit(project, f"Swap {len(found)} kin of {original.rpartition('/')[2]}")

        self.jobs.start("Swapping kin", work, done, lane="write")

    def swap_many(self, pairs: list[tuple[str, Path]], then: Callable[[], None] | None = None) -> None:
        """Swap several originals, each for a file, and fit them all; one change for the undo."""
        space = self.space
        if space is None:
            self.tell("wrong", "There is no mod yet to put the swaps in: start one with New mod (Ctrl+N)")
            return

        def work(progress: Progress) -> tuple[list[Swap], list[str]]:
            out, refused = [], []
            for number, (path, file) in enumerate(pairs):
                check(progress, "Swapping")
                progress.report(number / len(pairs), f"Matching {path}")
                try:
                    out.append(space.fitted(space.new_swap(path, file)))
                except Cancelled:
                    raise
                except FurnelError as error:
                    refused.append(f"{file.name}: {error.why}")
            return out, refused

        def done(found: tuple[list[Swap], list[str]]) -> None:
            swaps, refused = found
            project = space.project
            for one in swaps:
                project = project.with_swap(one)
            self.edit(project, f"Swap {len(swaps)} assets")
            if refused:
                self.tell(
                    "wrong",
                    f"{len(refused)} of {len(pairs)} files could not be used: {'; '.join(refused[:3])}",
                )
            else:
                self.tell("calm", f"{len(swaps)} assets swapped and fitted")
            if then is not None:
                then()

        self.jobs.start("Swapping a folder", work, done, key="swap-many", lane="write")

    def remove_swap(self, original: str) -> None:
        """Take a swap out of the mod."""
        if self.project is not None:
            self.edit(self.project.without_swap(original), f"Remove {original.rpartition('/')[2]}")

    def fit_all(self, originals: list[str]) -> None:
        """Choose steps and encoding for some swaps so that they fit; one change for the undo."""
        space = self.space
        if space is None:
            return
        swaps = [swap for name in originals if (swap := space.project.swap_for(name)) is not None]

        def work(progress: Progress) -> list[Swap]:
            out = []
            for number, swap in enumerate(swaps):
                progress.report(number / len(swaps), f"Matching {swap.original}")
                out.append(space.fitted(swap))
            return out

        def done(found: list[Swap]) -> None:
            project = space.project
            for swap in found:
                project = project.with_swap(swap)
            self.edit(
                project,
                f"Fit {len(found)} swaps"
                if len(found) > 1
                else f"Fit {found[0].original.rpartition('/')[2]}",
            )

        if swaps:
            self.jobs.start("Fitting", work, done, key="fit")
