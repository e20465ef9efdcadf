"""Changing what a mod swaps: one original, a whole folder, kin, what a game update moved; each as one change for the undo."""

from __future__ import annotations

import itertools
import threading
from collections.abc import Callable, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING

from furnel import mods
from furnel.atomic import write_bytes
from furnel.desktop.actions import key_of
from furnel.desktop.modfile import kept_words
from furnel.errors import Cancelled, FurnelError
from furnel.progress import Part, Progress, check, steps
from furnel.words import count

if TYPE_CHECKING:
    from furnel.desktop.session import Session
    from furnel.mods.edit import Edit
    from furnel.mods.fit import Refit
    from furnel.mods.project import Project, StepUse, Swap
    from furnel.mods.workspace import Workspace
    from furnel.texts import Change


_naming = threading.Lock()  # no two pictures are given one name


@dataclass(frozen=True, slots=True)
class Made:
    """What a job changes in the mod that it captured, and what is to be said of it."""

    edit: Edit
    said: str = ""
    wrong: str = ""

    @classmethod
    def of(cls, space: Workspace, after: Project, text: str, said: str = "", wrong: str = "") -> Made:
        """What brings the project of a captured workspace to another state."""
        return cls(mods.edit.Edit.between(text, space.project, after), said, wrong)


class Swaps:
    """The swaps of a session's mod, and every way to change them.

    Jobs capture the workspace and give an edit, which is brought into that mod as it is when they end: nothing that was
    edited meanwhile is lost, and no other mod is changed.
    """

    def __init__(self, session: Session) -> None:
        self._session = session
        self.copied: tuple[StepUse, ...] = ()  # the steps that were copied last

    def set_swap(self, swap: Swap, text: str) -> None:
        """Put a swap into the mod as a person made it, with the files that it names."""
        if self._session.project is not None and self._session.space is not None:
            mods.outside.choose_all(self._session.space.file, swap)
            self._session.edit(
                self._session.project.with_swap(mods.fit.touched(swap, self._session.swap(swap.original))),
                text,
            )

    def remove_swap(self, *originals: str) -> None:
        """Take swaps out of the mod, as one change."""
        project = self._session.project
        if project is not None:
            for original in originals:
                project = project.without_swap(original)
            name = _short(originals[0]) if len(originals) == 1 else count(len(originals), "swap")
            self._session.edit(project, f"Remove {name}")
            change = self._session.past.last

            def back() -> None:
                if self._session.past.last is change:
                    self._session.undo()
                else:
                    self._session.tell("wrong", "Other things were changed since: take them back first")

            gone = f"{name} is" if len(originals) == 1 else f"{count(len(originals), 'asset')} are"
            self._session.tell("calm", f"{gone} the game's own again", ("Undo", back))

    # jobs that change the mod

    def change(
        self,
        title: str,
        work: Callable[[Workspace, Progress], Made],
        then: Callable[[], object] | None = None,
        key: str = "",
        again: bool = False,
        lane: str = "read",
    ) -> None:
        """Let a job work on the mod as it is now, and bring what it changed into that mod as it is when the job ends.

        With `again` the job is done once more on what there is where that was changed meanwhile; otherwise that stays.
        """
        space = self._session.space
        if space is None:
            self._session.tell("wrong", _no_mod())
            return

        def done(made: Made) -> None:
            session = self._session
            if again and _at_odds(session, made.edit, space):
                self.change(title, work, then, key, again, lane)
                return
            conflicts = session.apply(made.edit, space, worked_out=True)
            if not session.still_open(space):
                return
            if conflicts:
                session.tell("wrong", kept_words(conflicts))
            elif made.wrong:
                session.tell("wrong", made.wrong)
            elif made.said:
                session.tell("calm", made.said)
            if then is not None:
                then()

        self._session.jobs.start(
            title, lambda progress: work(space, progress), done, key=key, lane=lane,
            kept=True, ended=self._session.held.hold(space.catalogue),
        )  # fmt: skip

    def _value(
        self,
        title: str,
        work: Callable[[Workspace, Progress], Made],
        then: Callable[[], object] | None = None,
    ) -> None:
        """Change a definition: one after the other, in the order in which it was asked for."""
        self.change(title, work, then, again=True, lane="edit")

    def swap_with(
        self,
        original: str,
        source: Path,
        then: Callable[[str], None] | None = None,
        instead: bool = False,
    ) -> None:
        """Swap an original for a file (or give its swap another source) and keep the steps that it has; an edited definition is
        laid over what is changed already, or put `instead` of it."""
        old = self._session.swap(original)

        def work(space: Workspace, progress: Progress) -> Made:
            return Made.of(space, space.swapped(original, source, instead), f"Swap {_short(original)}")

        def show() -> None:
            if old is not None and old.changes and not instead:
                self._laid_over(original, source, len(old.changes))
            if then is not None:
                then(original)

        self.change(
            f"Swapping {original}", work, show, f"swap {original}", again=True,
        )  # fmt: skip

    def _laid_over(self, original: str, source: Path, number: int) -> None:
        """Say that a file went over changes that were there, and offer it in their place."""
        swap = self._session.swap(original)
        if swap is not None and swap.changes:
            self._session.tell(
                "calm", f"{source.name} is laid over your {count(number, 'change')} of {_short(original)}",
                ("Only what the file has", lambda: self.swap_with(original, source, instead=True)),
            )  # fmt: skip

    def fill_event(self, name: str, files: Sequence[Path], then: Callable[[str], None]) -> None:
        """Fill a sound event from files, one sound each."""

        def work(space: Workspace, progress: Progress) -> Made:
            filled = mods.events.fill_event(space, name, sorted(files), progress)
            return Made.of(space, filled, f"Fill {name} with {count(len(files), 'sound')}")

        def show() -> None:
            if self._session.space is not None:
                then(mods.events.mod_events(self._session.space)[name].sounds[0])

        self.change(f"Filling {name}", work, show, key=f"fill {name}")

    def keep_picture(self, original: str, encoded: Callable[[], bytes], then: Callable[[Path], None]) -> None:
        """Make a picture that is no file yet one of the mod's sources, called after an original, and go on with it.
        `encoded` gives its PNG."""
        space = self._session.space
        if space is None:
            self._session.tell("wrong", _no_mod())
            return

        def work(_: object) -> Path:
            data, folder = encoded(), space.folder / "sources"
            folder.mkdir(parents=True, exist_ok=True)
            with _naming:
                names = (
                    folder / f"{Path(original).stem} pasted {number}.png" for number in itertools.count(1)
                )
                file = next(name for name in names if not name.exists())
                write_bytes(file, data)
            return file

        self._session.jobs.start("Keeping the picture", work, then)

    def copy_steps(self, original: str) -> None:
        """Keep a swap's steps, to be used in others."""
        swap = self._session.swap(original)
        if swap is not None and swap.steps:
            self.copied = swap.steps
            self._session.tell("calm", f"Copied {count(len(swap.steps), 'step')} of {_short(original)}")
        elif swap is not None:
            self._session.tell("wrong", f"{_short(original)} has no steps to copy")

    def paste_steps(self, originals: Sequence[str]) -> None:
        """Put the copied steps in the place of those of some swaps, as one change; definitions have none."""
        project, copied = self._session.project, self.copied
        if project is None or not copied:
            return
        taken = []
        for original in originals:
            swap = project.swap_for(original)
            if swap is not None and swap.source and swap.steps != copied:
                project = project.with_swap(swap.model_copy(update={"steps": copied}))
                taken.append(original)
        if not taken:
            self._session.tell("wrong", "Nothing here takes other steps than it has")
            return
        name = _short(taken[0]) if len(taken) == 1 else count(len(taken), "swap")
        self._session.edit(project, f"Use the copied steps in {name}")

    def swap_with_frames(self, original: str, files: list[Path]) -> None:
        """Give a sheet's swap several files as its source, a frame each."""
        swap = self._session.swap(original)
        if swap is None:
            return

        def work(space: Workspace, progress: Progress) -> Made:
            fresh = mods.onsheet.with_files(space, swap, files)
            return Made.of(
                space,
                space.project.with_swap(fresh),
                f"Frames of {_short(original)}",
                f"{count(len(files), 'file')} as frames",
            )

        self.change("Taking frames", work, key=f"swap {original}")

    def follow(self, swap: Swap, then: Callable[[str], None]) -> None:
        """Point a swap to where its original's content is after a game update."""
        moved = ""

        def work(space: Workspace, progress: Progress) -> Made:
            nonlocal moved
            found = space.followed(swap, progress)
            if found is None:
                raise FurnelError(
                    "Following the update", where=swap.original, why="its content is not in the game any more",
                    remedy="Choose another original",
                )  # fmt: skip
            if space.project.swap_for(found.original) is not None:
                raise FurnelError(
                    "Following the update", where=swap.original,
                    why=f"its content is {found.original} now, and the mod swaps that already",
                    remedy="Remove one of the two swaps",
                )  # fmt: skip
            moved = found.original
            project = space.project.without_swap(swap.original).with_swap(found)
            return Made.of(space, project, f"Point {_short(swap.original)} to {_short(moved)}")

        self.change(f"Looking for {swap.original}", work, lambda: then(moved), key=f"follow {swap.original}")

    def settle(self, swap: Swap) -> None:
        """Keep what a mod says of a definition where an update of the game says something else."""

        def work(space: Workspace, progress: Progress) -> Made:
            kept = mods.definitions.kept_over_update(space, swap)
            return Made.of(space, space.project.with_swap(kept), f"Keep yours in {_short(swap.original)}")

        self.change(f"Keeping yours in {swap.original}", work, key=f"settle {swap.original}")

    def change_values(self, original: str, changes: Sequence[Change], text: str) -> None:
        """Change values of a definition; `text` names it for the undo."""

        def work(space: Workspace, progress: Progress) -> Made:
            return Made.of(space, mods.definitions.with_changes(space, original, changes), text)

        self._value(text, work)

    def take_strip(self, original: str, address: str, file: Path | None) -> None:
        """Give a strip of a definition the colours of a picture, or of its figure."""

        def work(space: Workspace, progress: Progress) -> Made:
            if file is None:
                changes = mods.strips.from_figure(space, original, address)
            else:
                changes = mods.strips.from_picture(space, original, address, file)
            text = f"Take {address} from {file.name if file is not None else 'its figure'}"
            said = "" if changes else "It has these colours already"
            return Made.of(space, mods.definitions.with_changes(space, original, changes), text, said)

        self._value("Taking a strip", work)

    def draw_strip(self, original: str, address: str, file: Path) -> None:
        """Write a strip of a definition as a picture."""
        space = self._session.space
        if space is not None:
            self._session.jobs.start(
                f"Drawing {address}",
                lambda _: write_bytes(file, mods.strips.as_png(space, original, address)),
                lambda _: self._session.tell("calm", f"{file.name} has the colours of {address}"),
                lane="write",
            )

    def take_games(self, original: str, address: str) -> None:
        """The game's own at an address of a definition again."""

        def work(space: Workspace, progress: Progress) -> Made:
            where = address or _short(original)
            return Made.of(
                space, mods.definitions.without_changes(space, original, address), f"Take the game's {where}"
            )

        self._value(f"Taking the game's {address}", work)

    def change_text(self, original: str, text: str, then: Callable[[], None]) -> None:
        """Take a definition's whole text as changes of the game's."""

        def work(space: Workspace, progress: Progress) -> Made:
            made = mods.definitions.with_text(space, original, text)
            whole = mods.definitions.keeps_all(space.with_project(made), original, text)
            besides = "" if whole else "; comments and spacing stay the game's"
            return Made.of(space, made, f"Edit the text of {_short(original)}{besides}")

        self._value(f"Reading {_short(original)}", work, then)

    def open_definition(self, original: str, then: Callable[[str], None]) -> None:
        """Take a definition into the mod, with nothing changed yet, and go on with it; at once with one that is in it."""
        if self._session.swap(original) is not None:
            then(original)
            return

        def work(space: Workspace, progress: Progress) -> Made:
            return Made.of(space, mods.definitions.opened(space, original), f"Open {_short(original)}")

        self.change(f"Opening {_short(original)}", work, lambda: then(original), key=f"open {original}")

    def swap_kin(self, original: str, others: list[str]) -> None:
        """Swap the kin of an original for its source, too, and fit them; one change for the undo."""
        swap = self._session.swap(original)
        if swap is None:
            return

        def work(space: Workspace, progress: Progress) -> Made:
            project = space.project
            for number, path in enumerate(others):
                check(progress, "Swapping kin")
                part = Part(progress, number / len(others), (number + 1) / len(others))
                part.report(0, f"Matching {path}")
                fresh = space.new_swap(path, space.source_path(swap))
                project = project.with_swap(
                    space.fitted(fresh.model_copy(update={"credit": swap.credit}), part)
                )
            return Made.of(space, project, f"Swap {count(len(others), 'kin', 'kin')} of {_short(original)}")

        self.change("Swapping kin", work, key=f"kin {original}")

    def swap_many(self, pairs: list[tuple[str, Path]], then: Callable[[], None] | None = None) -> None:
        """Swap several originals, each for a file, and fit them all; one change for the undo."""

        def work(space: Workspace, progress: Progress) -> Made:
            project, refused = space.project, []
            for number, (path, file) in enumerate(pairs):
                check(progress, "Swapping")
                part = Part(progress, number / len(pairs), (number + 1) / len(pairs))
                part.report(0, f"Matching {path}")
                try:
                    project = project.with_swap(space.fitted(space.new_swap(path, file), part))
                except Cancelled:
                    raise
                except FurnelError as error:
                    refused.append(f"{file.name}: {error.why}")
            wrong = (
                f"{len(refused)} of {count(len(pairs), 'file')} could not be used: {'; '.join(refused[:3])}"
            )
            done = count(len(pairs) - len(refused), "asset")
            return Made.of(
                space, project, f"Swap {done}", f"{done} swapped and fitted", wrong if refused else ""
            )

        self.change("Swapping several", work, then, key="swap-many")

    def begin_with_own(self, originals: Sequence[str], then: Callable[[str], None]) -> None:
        """Begin swaps whose sources are the game's own assets, to be changed by steps or in their programs; one change."""

        def work(space: Workspace, progress: Progress) -> Made:
            from furnel.mods.fromgame import WHAT, own_swap

            project, refused = space.project, []
            for original in steps(originals, len(originals), progress, WHAT):
                try:
                    project = project.with_swap(own_swap(space, original))
                except Cancelled:
                    raise
                except FurnelError as error:
                    refused.append(f"{_short(original)}: {error.why}")
            named = (
                _short(originals[0]) if len(originals) == 1 else count(len(originals) - len(refused), "asset")
            )
            said = f"{named} begins as the game's own: add steps, or open its source"
            return Made.of(space, project, f"Begin with the game's own {named}", said, "; ".join(refused[:3]))

        def show() -> None:
            begun = [one for one in originals if self._session.swap(one) is not None]
            if begun:
                then(begun[0])

        self.change("Beginning with the game's own", work, show, key="begin-own")

    def swap_with_own(self, original: str, other: str) -> None:
        """Give a swap another asset of the game as its source, and keep its steps."""
        space = self._session.space
        if space is None:
            self._session.tell("wrong", _no_mod())
            return
        from furnel.mods.fromgame import own_source

        self._session.jobs.start(
            f"Taking {_short(other)}", lambda _: own_source(space, other),
            lambda file: self.swap_with(original, file) if self._session.still_open(space) else None,
            key=f"swap {original}",
        )  # fmt: skip

    def gather(self) -> None:
        """Copy all sources that lie outside the mod's folder into it."""

        def work(space: Workspace, progress: Progress) -> Made:
            after = mods.outside.gathered(space.file, space.project, progress)
            moved = sum(old != new for old, new in zip(space.project.swaps, after.swaps, strict=True))
            said = (
                f"{count(moved, 'swap')} read from the mod's own folder now"
                if moved
                else "All sources are in it already"
            )
            return Made.of(space, after, "Gather sources", said)

        self.change("Gathering sources", work, key="gather")

    def fit_all(self, originals: list[str]) -> None:
        """Let some swaps fit: what was made by hand stays, what points need is added; one change for the undo."""

        def work(space: Workspace, progress: Progress) -> Made:
            project = space.project
            swaps = [swap for name in originals if (swap := project.swap_for(name)) is not None]
            results: list[Refit] = []
            refused: list[str] = []
            for number, swap in enumerate(swaps):
                check(progress, "Fitting")
                part = Part(progress, number / len(swaps), (number + 1) / len(swaps))
                part.report(0, f"Matching {swap.original}")
                try:
                    found = space.refitted(swap, part)
                except Cancelled:
                    raise
                except FurnelError as error:
                    if len(swaps) == 1:
                        raise
                    refused.append(f"{_short(swap.original)}: {error.why}")
                    continue
                results.append(found)
                project = project.with_swap(found.swap)
            if len(swaps) == 1 and results:
                name = _short(swaps[0].original)
                return Made.of(space, project, f"Fit {name}", f"{name}: {results[0].sentence()}")
            moved = sum(found.changed for found in results)
            wrong = (
                f"{count(len(refused), 'swap')} could not be fitted: {'; '.join(refused[:3])}"
                if refused
                else ""
            )
            return Made.of(
                space, project, f"Fit {count(moved, 'swap')}", f"{count(moved, 'swap')} fitted anew", wrong
            )

        if any(self._session.swap(name) is not None for name in originals):
            self.change("Fitting", work, key=f"fit {sorted(originals)}")


def _at_odds(session: Session, edit: Edit, space: Workspace) -> bool:
    """Whether something in an edit that a job made was changed in its mod meanwhile; the mod is open still, or again."""
    now = session.space
    return now is not None and now.file == space.file and bool(edit.apply(now.project).conflicts)


def _no_mod() -> str:
    return f"There is no mod yet to put the swap in: start one with New mod ({key_of('new-mod')})"


def _short(original: str) -> str:
    return original.rpartition("/")[2]
