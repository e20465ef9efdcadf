"""What is open in the window: the game, the mod, how its swaps fit. Views show it and ask it to change."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from datetime import datetime
from pathlib import Path
from typing import TYPE_CHECKING, Any

from PyQt6.QtCore import QObject, pyqtSignal

from furnel import mods
from furnel.catalogue import Asset, Catalogue
from furnel.desktop.builds import Builds
from furnel.desktop.held import Held
from furnel.desktop.ingame import InGame
from furnel.desktop.jobs import JobRunner
from furnel.desktop.learned import Learned
from furnel.desktop.modfile import ModFile
from furnel.desktop.sources import Sources
from furnel.desktop.swapping import Swaps
from furnel.errors import FurnelError
from furnel.games import Install
from furnel.mods.past import Past
from furnel.progress import Progress
from furnel.words import count

if TYPE_CHECKING:
    from furnel.mods.build import Build
    from furnel.mods.edit import Edit
    from furnel.mods.project import Project, Swap
    from furnel.mods.workspace import Examined, Workspace


_MEANWHILE = "The mod was changed while it was being opened: it is taken over"


@dataclass(frozen=True, slots=True)
class _Opened:
    """What opening a mod found, read off the interface thread."""

    space: Workspace
    build: Build | None
    past: Past[Edit]
    outside: list[Path]


@dataclass(frozen=True, slots=True)
class Notice:
    """Something to tell the modder: `calm` for what went well, `wrong` for a refusal; `actions` are what can be done about it,
    by their names. `at` is when it was said."""

    tone: str
    text: str
    actions: tuple[tuple[str, Callable[[], object]], ...] = ()
    at: datetime = field(default_factory=datetime.now)


class Session(QObject):
    """The open game and mod. All signals come on the interface thread.

    What can be done with them has parts of its own: `swaps` change what the mod swaps, `builds` build it, `game` is what lies
    in the game, `learned` what is known of everything in it. `leaving` comes before another mod is opened: what is typed and
    not yet taken belongs to the one that is open still.
    """

    swaps: Swaps
    builds: Builds
    game: InGame

    leaving = pyqtSignal()
    opened = pyqtSignal()
    project_changed = pyqtSignal()
    fitted = pyqtSignal(str)
    told = pyqtSignal(object)
    past_changed = pyqtSignal()

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__()
        self.jobs = jobs
        self.first = ""  # the swap that is worked out first when a mod is opened: that which is looked at
        self.catalogue: Catalogue | None = None
        self.space: Workspace | None = None
        self.past: Past[Edit] = Past()
        self.examined: dict[str, Examined] = {}
        self.held = Held()
        self.outside: list[Path] = []  # files that the mod reads and that nobody chose on this machine
        self.swaps, self.builds, self.game = Swaps(self), Builds(self), InGame(self)
        self.learned, self._sources, self.file = Learned(self), Sources(self), ModFile(self)
        self._sources.touched.connect(self._examine)
        self._sources.file_touched.connect(self.file.look)
        jobs.refused.connect(self.refuse)

    # what is open

    @property
    def project(self) -> Project | None:
        return self.space.project if self.space else None

    def swap(self, original: str) -> Swap | None:
        """The open mod's swap of an original."""
        return self.project.swap_for(original) if self.project else None

    def tell(self, tone: str, text: str, *actions: tuple[str, Callable[[], object]]) -> None:
        """Say something to the modder, with what can be done about it."""
        self.told.emit(Notice(tone, text, actions))

    def tell_written(self, text: str, path: Path) -> None:
        """Say that something was written, which can be shown in its folder."""
        from furnel.desktop.doing import show_in_folder

        self.tell("calm", text, ("Show in folder", lambda: show_in_folder(self, path)))

    def still_open(self, space: Workspace) -> bool:
        """Whether the mod that a job captured is the one that is open."""
        return self.space is not None and self.space.demands is space.demands

    def asset(self, path: str) -> Asset | None:
        """An asset of the open game, or None."""
        return self.catalogue.get(path) if self.catalogue and self.catalogue.has(path) else None

    def name_of(self, path: str) -> str:
        """How an asset is called; a sound that the mod adds is called after its event."""
        asset = self.asset(path)
        if asset is not None:
            return asset.name
        for use in self.project.events if self.project else ():
            if path in use.sounds:
                return f"{use.name} {use.sounds.index(path) + 1}"
        name = path.rpartition("/")[2]
        return name.rpartition(".")[0] or name

    def tally(self) -> dict[str, int]:
        """How many swaps there are in each state; `waiting` ones are not examined yet."""
        counts = {"all": 0, "fits": 0, "differs": 0, "breaks": 0, "waiting": 0}
        for swap in self.project.swaps if self.project else ():
            counts["all"] += 1
            found = self.examined.get(swap.original)
            counts[found.state if found else "waiting"] += 1
        return counts

    # opening

    def open_game(self, folder: Path) -> None:
        """Open a game without a mod."""

        def work(progress: Progress) -> Catalogue:
            catalogue = Catalogue(Install(folder))
            mods.deploy.recover(catalogue.install)
            catalogue.refresh(progress)
            catalogue.assets.prepare()
            return catalogue

        self.jobs.start(
            f"Opening {folder.name}", work, lambda found: self._take(found, None), key="open", lane="open"
        )

    def open_mod(self, path: Path) -> None:
        """Open a mod and its game."""

        def work(progress: Progress) -> _Opened:
            space = mods.workspace.open_workspace(path, progress)
            mods.deploy.recover(space.catalogue.install)
            space.catalogue.assets.prepare()
            return _Opened(
                space,
                mods.build.last_build(space),
                mods.history.read_history(mods.history.history_file(space.file), space.project),
                mods.outside.outside_files(space.file, space.project.swaps),
            )

        def done(found: _Opened) -> None:
            self._take(found.space.catalogue, found)
            self.file.look(_MEANWHILE)

        self.jobs.start(f"Opening {path.name}", work, done, key="open", lane="open")

    def new_mod(self, folder: Path, name: str) -> None:
        """Start a mod for the open game in a folder, and open it."""
        if self.catalogue is None:
            return
        game = self.catalogue.install.folder
        self.jobs.start(
            f"Starting {name}",
            lambda _: mods.workspace.create_project(folder, name, game),
            lambda file: self.open_mod(file),
            lane="write",
        )

    def allow_outside(self, files: list[Path]) -> None:
        """Let the open mod read these files from now on."""
        if self.space is not None:
            mods.outside.choose(self.space.file, files)
            self.outside = []
            for swap in self.space.project.swaps:
                self._examine(swap)

    def close(self) -> None:
        """Let go of the game's files, and of what is being learned from them."""
        self.learned.forget()
        self.jobs.cancel_reading()
        catalogue, self.catalogue, self.space = self.catalogue, None, None
        if catalogue is not None:
            self.held.leave(catalogue)

    # changing the mod

    def edit(self, after: Project, text: str) -> None:
        """Change the open project as a person did just now, so that it can be undone."""
        if self.project is not None:
            self.apply(mods.edit.Edit.between(text, self.project, after))

    def apply(self, edit: Edit, space: Workspace | None = None, worked_out: bool = False) -> tuple[str, ...]:
        """Bring an edit into the mod that it was made for: the open one, or that of `space`, on disk when it is not open any
        more. The only way in which a mod is changed. The names of what was changed meanwhile and stays."""
        if space is not None and (self.space is None or self.space.file != space.file):
            self.file.apply_elsewhere(edit, space, worked_out)
            return ()
        if self.project is None:
            return ()
        found = edit.apply(self.project, worked_out)
        self.push(edit.text, found.project)
        return found.conflicts

    def push(self, text: str, after: Project) -> None:
        """Make another state of the open project the current one, as a change that can be undone."""
        before = self.project
        if before is not None and (change := mods.edit.Edit.between(text, before, after)):
            self.past.push(change)
            self.file.note(change)
            self._adopt(after)
            self.past_changed.emit()

    def undo(self) -> Edit | None:
        """Take the last change of the mod back; it, or None when there is none."""
        return self._step(self.past.last, False)

    def redo(self) -> Edit | None:
        """Do again what was taken back; it, or None when there is nothing."""
        return self._step(self.past.next, True)

    def _step(self, change: Edit | None, forward: bool) -> Edit | None:
        if change is None or not self.go_back_to(self.past.place + (1 if forward else -1)):
            return None
        return change

    def go_back_to(self, place: int) -> bool:
        """Bring the mod to where so many of its changes are in force; whether it is there now."""
        project: Project | None = self.project
        if project is None or not 0 <= place <= len(self.past.changes):
            return False
        for change in self.past.between(place):
            if project is not None:
                project = change.onto(project, place > self.past.place)
        if project is None:  # cannot be: every change goes through the history
            self.past.clear()
            self.past_changed.emit()
            return False
        self.past.place = place
        self.file.note(None)
        self._adopt(project)
        self.past_changed.emit()
        return True

    def _adopt(self, project: Project) -> None:
        """Make a project the current one, save it, and look at what it changed."""
        if self.space is None:
            return
        before = self.space.project
        space = self.space = self.space.with_project(project)
        self.file.save(space)
        wanted = {swap.original for swap in project.swaps}
        bound = mods.definitions.bound(space, before)
        for gone in set(self.examined) - wanted:
            del self.examined[gone]
        self._sources.renew()
        self.project_changed.emit()
        for swap in project.swaps:
            known = self.examined.get(swap.original)
            if known is None or (known.swap is not swap and known.swap != swap) or swap.original in bound:
                self._examine(swap)
        self.builds.weigh_soon()

    # inside

    def _take(self, catalogue: Catalogue, found: _Opened | None) -> None:
        if self.space is not None:
            self.leaving.emit()
        if found is not None and self.space is not None and self.space.file == found.space.file:
            again = replace(found.space, project=self.space.project, store=self.space.store)
            found = replace(found, space=again, past=self.past)  # what was edited since it was read goes on
        self.close()
        space = found.space if found else None
        self.catalogue, self.space = catalogue, space
        self.learned.begin()
        self.examined = {}
        self.builds.take(found.build if found else None)
        self.past = found.past if found else Past()
        self.outside = found.outside if found else []
        self.game.forget()
        self._note_opened()
        self._sources.renew()
        self.opened.emit()
        self.project_changed.emit()
        self.past_changed.emit()
        first, self.first = self.first, ""
        for swap in sorted(self.project.swaps if self.project else (), key=lambda one: one.original != first):
            self._examine(swap)
        self.builds.weigh()
        self.game.refresh()
        self.tell(
            "calm",
            f"Catalogue up to date: {count(len(catalogue.assets), 'asset')} in "
            f"{count(len(catalogue.install.archives), 'place')}",
        )

    def _note_opened(self) -> None:
        """Put what is open on the shelf."""
        if self.catalogue is None:
            return
        install, space = self.catalogue.install, self.space
        names = space.project.mod.name if space else "", install.profile.name
        file = space.file if space else None
        self.file.write(
            "Remembering what was opened", lambda: mods.shelf.note_opened(file, install.folder, *names)
        )

    def _examine(self, swap: Swap) -> None:
        space = self.space
        if space is None:
            return

        def done(found: Examined) -> None:
            if self.still_open(space) and self.swap(swap.original) == found.swap:
                self.examined[swap.original] = found
                self.fitted.emit(swap.original)
                self.builds.weigh_soon()

        name = swap.original.rpartition("/")[2]
        self.jobs.start(
            f"Fitting {name}",
            lambda progress: space.examine(swap, progress),
            done,
            key=f"examine {swap.original}",
        )

    def refuse(self, error: Any) -> None:
        """Say what a job could not do."""
        text = error.sentence() if isinstance(error, FurnelError) else str(error)
        self.tell("wrong", text)
