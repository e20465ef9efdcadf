"""What is open in the window: the game, the mod, how its swaps fit. Views show it and ask it to change."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QFileSystemWatcher, QTimer, pyqtSignal

from furnel.catalogue import Asset, Catalogue, Marks, mark_apart
from furnel.desktop.ingame import InGame
from furnel.desktop.jobs import Job, JobRunner
from furnel.desktop.swapping import Swapping
from furnel.errors import FurnelError
from furnel.games import Install
from furnel.mods.build import Build, build, last_build, package, stale
from furnel.mods.deploy import recover
from furnel.mods.history import Edit, Past, history_file, note_edit, note_place, read_history
from furnel.mods.outside import choose, outside_files
from furnel.mods.project import Project, Swap, save_project
from furnel.mods.workspace import Examined, Workspace, create_project, open_workspace
from furnel.progress import Progress
from furnel.words import count

_LEARN_AFTER_MS = 1500


@dataclass(frozen=True, slots=True)
class _Opened:
    """What opening a mod found, read off the interface thread."""

    space: Workspace
    build: Build | None
    past: Past[Edit]


class Session(Swapping):
    """The open game and mod; swapping is in `Swapping`. All signals come on the interface thread.

    `build` and `stale` are judged by what a build captured; what lies in the game is in `game`.
    """

    opened = pyqtSignal()
    project_changed = pyqtSignal()
    fitted = pyqtSignal(str)
    build_changed = pyqtSignal()
    marked = pyqtSignal()

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__(jobs)
        self.catalogue: Catalogue | None = None
        self.marks: Marks | None = None
        self.examined: dict[str, Examined] = {}
        self.stale: list[str] = []
        self.build: Build | None = None
        self.game = InGame(self)
        self._watch = QFileSystemWatcher(self)
        self._watch.fileChanged.connect(self._source_changed)
        self._watch.directoryChanged.connect(lambda _: self._look_again.start())
        self._look_again = QTimer(self, singleShot=True, interval=120)
        self._look_again.timeout.connect(self._examine_touched)
        self._watched: tuple[Path, set[str]] | None = None
        self._weigh = QTimer(self, singleShot=True, interval=0)
        self._weigh.timeout.connect(self._weigh_build)
        self._stamps: dict[str, tuple[int, int]] = {}
        self._learn = QTimer(self, singleShot=True, interval=_LEARN_AFTER_MS)
        self._learn.timeout.connect(self.learn)
        self._learning: Job | None = None
        jobs.refused.connect(self._refuse)

    # what is open

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
        return path.rpartition("/")[2]

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
            recover(catalogue.install)
            catalogue.refresh(progress)
            catalogue.assets.prepare()
            return catalogue

        self.jobs.start(
            f"Opening {folder.name}", work, lambda found: self._take(found, None), key="open", lane="open"
        )

    def open_mod(self, path: Path) -> None:
        """Open a mod and its game."""

        def work(progress: Progress) -> _Opened:
            space = open_workspace(path, progress)
            recover(space.catalogue.install)
            space.catalogue.assets.prepare()
            return _Opened(space, last_build(space), read_history(history_file(space.file), space.project))

        self.jobs.start(
            f"Opening {path.name}",
            work,
            lambda found: self._take(found.space.catalogue, found),
            key="open",
            lane="open",
        )

    def new_mod(self, folder: Path, name: str) -> None:
        """Start a mod for the open game in a folder, and open it."""
        if self.catalogue is None:
            return
        game = self.catalogue.install.folder
        self.jobs.start(
            f"Starting {name}",
            lambda _: create_project(folder, name, game),
            lambda file: self.open_mod(file),
            lane="write",
        )

    def wants_outside(self) -> list[Path]:
        """Files outside the open mod's folder that it reads and that nobody chose on this machine."""
        return outside_files(self.space.file, self.space.project.swaps) if self.space is not None else []

    def allow_outside(self, files: list[Path]) -> None:
        """Let the open mod read these files from now on."""
        if self.space is not None:
            choose(self.space.file, files)
            for swap in self.space.project.swaps:
                self._examine(swap)

    def close(self) -> None:
        """Let go of the game's files, and of what is being learned from them."""
        if self._learning is not None:
            self._learning.cancel()
            self._learning = None
        self.jobs.cancel_reading()
        if self.catalogue is not None:
            self.catalogue.close()
        self.catalogue = self.space = self.marks = None
        self._learn.stop()

    def learn(self) -> None:
        """Work out by what everything in the game is recognised, in the background; `marked` tells when it is known."""
        catalogue = self.catalogue
        if catalogue is None or self.marks is not None or self._learning:
            return

        def done(found: Marks) -> None:
            self._learning = None
            if self.catalogue is catalogue:
                self.marks = found
                self.marked.emit()

        def failed(error: FurnelError) -> None:
            self._learning = None
            self._refuse(error)

        self._learning = self.jobs.start(
            "Learning the game",
            lambda progress: mark_apart(catalogue, progress),
            done,
            failed,
            key="marks",
            lane="marks",
        )

    def kin(self, path: str) -> list[str]:
        """The other assets that are the same picture or sound, as far as they are known."""
        if self.marks is None or self.catalogue is None:
            return []
        shelf = self.catalogue.assets
        if shelf.row(path) < 0:
            return []
        takes = self._takes_with(path)  # takes of one event are like each other, and not the same
        return [
            other for row in self.marks.kin.of(shelf.row(path)) if (other := shelf.paths[row]) not in takes
        ]

    def _takes_with(self, path: str) -> frozenset[str]:
        """The sounds that one event plays in turn with this one."""
        events = self.space.demands.events.values() if self.space is not None else ()
        return frozenset(one for event in events if path in event.sounds for one in event.sounds)

    # changing the mod

    def note(self, change: Edit | None) -> None:
        """Write the history, before the project is written."""
        if self.space is None:
            return
        file, place = history_file(self.space.file), self.past.place
        self._write(
            "Keeping the history",
            lambda: note_place(file, place) if change is None else note_edit(file, change),
        )

    def adopt(self, project: Project) -> None:
        """Make a project the current one, save it, and look at what it changed."""
        super().adopt(project)
        space = self.space
        if space is None:
            return
        self._write("Saving the mod", lambda: save_project(space.file, project), f"save {space.file}")
        wanted = {swap.original for swap in project.swaps}
        for gone in set(self.examined) - wanted:
            del self.examined[gone]
        self._watch_sources()
        self.project_changed.emit()
        for swap in project.swaps:
            known = self.examined.get(swap.original)
            if known is None or (known.swap is not swap and known.swap != swap):
                self._examine(swap)
        self._weigh.start()

    # building

    def start_build(self, anyway: bool = False) -> None:
        """Build the mod; the last build stays when this one is refused."""
        space = self.space
        if space is None:
            return

        def done(found: Build) -> None:
            if not self.still_open(space):
                return
            self.tell("calm", f"Built {count(len(found.files), 'file')}; read back and compared")
            self.build = found
            self._weigh_build()
            if self.game.presence in ("built", "other"):
                self.game.install()

        self.jobs.start(
            "Building", lambda progress: build(space, progress, anyway), done, key="build", lane="build"
        )

    def package(self, then: Callable[[Path], None] | None = None) -> None:
        """Make the ZIP to share, of the mod as it is now: what is not built yet is built first."""
        space = self.space
        if space is None:
            return

        def work(progress: Progress) -> tuple[Path, Build | None]:
            return package(space, progress=progress), last_build(space)

        def done(found: tuple[Path, Build | None]) -> None:
            target, built = found
            self.tell("calm", f"Packaged as {target}")
            if self.still_open(space):
                self.build = built
                self._weigh_build()
            if then is not None:
                then(target)

        self.jobs.start("Packaging", work, done, key="package", lane="build")

    # inside

    def _take(self, catalogue: Catalogue, found: _Opened | None) -> None:
        self.close()
        space = found.space if found else None
        self.catalogue, self.space = catalogue, space
        self._learn.start()
        self.examined, self.stale = {}, []
        self.build = found.build if found else None
        self.past = found.past if found else Past()
        self.game.forget()
        self._watch_sources()
        self.opened.emit()
        self.project_changed.emit()
        self.past_changed.emit()
        for swap in self.project.swaps if self.project else ():
            self._examine(swap)
        self._weigh_build()
        self.game.refresh()
        self.tell(
            "calm",
            f"Catalogue up to date: {count(len(catalogue.assets), 'asset')} in "
            f"{count(len(catalogue.install.archives), 'archive')}",
        )

    def _examine(self, swap: Swap) -> None:
        space = self.space
        if space is None:
            return

        def done(found: Examined) -> None:
            if self.still_open(space) and self.swap(swap.original) == found.swap:
                self.examined[swap.original] = found
                self.fitted.emit(swap.original)
                self._weigh.start()

        name = swap.original.rpartition("/")[2]
        self.jobs.start(
            f"Fitting {name}",
            lambda progress: space.examine(swap, progress),
            done,
            key=f"examine {swap.original}",
        )

    def _write(self, title: str, work: Callable[[], object], key: str = "") -> None:
        """Write something small that must be written, in the order of the requests."""
        self.jobs.start(title, lambda _: work(), lambda _: None, key=key, lane="write", shown=False)

    def _weigh_build(self) -> None:
        if self.space is None:
            self.build, self.stale = None, []
        else:
            self.stale = stale(self.space, self.build, list(self.examined.values()))
        self.build_changed.emit()

    def _watch_sources(self) -> None:
        sources = {swap.source for swap in self.space.project.swaps} if self.space is not None else set()
        if self.space is not None and (self.space.file, sources) == self._watched:
            return
        self._watched = (self.space.file, sources) if self.space is not None else None
        old = [*self._watch.files(), *self._watch.directories()]
        if old:
            self._watch.removePaths(old)
        if self.space is None:
            return
        files = {str(self.space.source_path(swap)) for swap in self.space.project.swaps}
        folders = {str(Path(file).parent) for file in files}
        present = [path for path in (*files, *folders) if Path(path).exists()]
        if present:
            self._watch.addPaths(present)
        self._stamps = {file: _stamp(file) for file in files}

    def _source_changed(self, _: str) -> None:
        self._look_again.start()

    def _examine_touched(self) -> None:
        """Look again at swaps whose source file is not what it was; editors that replace the file are followed."""
        if self.space is None:
            return
        for swap in self.space.project.swaps:
            file = str(self.space.source_path(swap))
            stamp = _stamp(file)
            if stamp != self._stamps.get(file):
                self._stamps[file] = stamp
                self._examine(swap)
            if file not in self._watch.files() and Path(file).exists():
                self._watch.addPath(file)

    def _refuse(self, error: Any) -> None:
        text = error.sentence() if isinstance(error, FurnelError) else str(error)
        self.tell("wrong", text)


def _stamp(file: str) -> tuple[int, int]:
    try:
        state = Path(file).stat()
    except OSError:
        return 0, 0
    return state.st_size, state.st_mtime_ns
