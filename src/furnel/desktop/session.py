"""What is open in the window: the game, the mod, how its swaps fit. Views show it and ask it to change."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PyQt6.QtCore import QFileSystemWatcher, QTimer, pyqtSignal

from furnel.catalogue import Asset, Catalogue, Marks, mark_all
from furnel.desktop.jobs import Job, JobRunner
from furnel.desktop.swapping import Swapping
from furnel.errors import FurnelError
from furnel.games import Clash, Install, InstalledMod, clashes, read_stack, write_order
from furnel.mods.build import Build, build, last_build, package, stale
from furnel.mods.deploy import install_mod, is_installed, recover, remove_mod
from furnel.mods.project import Project, Swap
from furnel.mods.workspace import Examined, Workspace, create_project, open_workspace
from furnel.progress import Progress

_LEARN_AFTER_MS = 1500


class Session(Swapping):
    """The open game and mod; swapping is in `Swapping`. All signals come on the interface thread."""

    opened = pyqtSignal()
    project_changed = pyqtSignal()
    fitted = pyqtSignal(str)
    build_changed = pyqtSignal()
    stack_changed = pyqtSignal()
    marked = pyqtSignal()

    def __init__(self, jobs: JobRunner) -> None:
        super().__init__(jobs)
        self.catalogue: Catalogue | None = None
        self.marks: Marks | None = None
        self.opened_last = ("", "")  # project file and game folder, also after closing
        self.examined: dict[str, Examined] = {}
        self.stale: list[str] = []
        self.build: Build | None = None
        self.stack: list[InstalledMod] = []
        self.installed = False  # whether the open mod is in the game
        self.clashes: list[Clash] = []
        self._watch = QFileSystemWatcher(self)
        self._watch.fileChanged.connect(self._source_changed)
        self._watch.directoryChanged.connect(lambda _: self._look_again.start())
        self._look_again = QTimer(self, singleShot=True, interval=120)
        self._look_again.timeout.connect(self._examine_touched)
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

    def count(self) -> dict[str, int]:
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

        self.jobs.start(f"Opening {folder.name}", work, lambda found: self._take(found, None), key="open")

    def open_mod(self, path: Path) -> None:
        """Open a mod and its game."""

        def work(progress: Progress) -> Workspace:
            space = open_workspace(path, progress)
            recover(space.catalogue.install)
            space.catalogue.assets.prepare()
            return space

        self.jobs.start(
            f"Opening {path.name}", work, lambda space: self._take(space.catalogue, space), key="open"
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

    def close(self) -> None:
        """Let go of the game's files, and of what is being learned from them."""
        if self._learning is not None:
            self._learning.cancel()
            self._learning = None
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
            lambda progress: mark_all(catalogue, progress, gently=True),
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
        return (
            [shelf.paths[row] for row in self.marks.kin.of(shelf.row(path))] if shelf.row(path) >= 0 else []
        )

    # changing the mod

    def adopt(self, project: Project) -> None:
        """Make a project the current one, save it, and look at what it changed."""
        space = self.space
        if space is None:
            return
        super().adopt(project)
        self.jobs.start("Saving the mod", lambda _: space.save(), lambda _: None, lane="write", shown=False)
        wanted = {swap.original for swap in project.swaps}
        for gone in set(self.examined) - wanted:
            del self.examined[gone]
        self._watch_sources()
        self.project_changed.emit()
        for swap in project.swaps:
            known = self.examined.get(swap.original)
            if known is None or known.swap != swap:
                self._examine(swap)
        self._weigh_build()

    # building and the game

    def start_build(self, anyway: bool = False) -> None:
        """Build the mod; the last build stays when this one is refused."""
        space = self.space
        if space is None:
            return

        def done(found: Build) -> None:
            self.tell("calm", f"Built {len(found.files)} files; read back and compared")
            self.build = found
            if self.installed:
                self.install()
            self._weigh_build()

        self.jobs.start(
            "Building", lambda progress: build(space, progress, anyway), done, key="build", lane="write"
        )

    def package(self, then: Callable[[Path], None] | None = None) -> None:
        """Make the ZIP to share."""
        space = self.space
        if space is not None:

            def done(target: Path) -> None:
                self.tell("calm", f"Packaged as {target}")
                if then is not None:
                    then(target)

            self.jobs.start("Packaging", lambda _: package(space), done, lane="write")

    def install(self) -> None:
        """Put the last build into the game."""
        space = self.space
        built = self.build
        if space is None or built is None:
            self.tell("wrong", "There is nothing to install yet: build the mod first")
            return

        def done(target: Path) -> None:
            self.tell("calm", f"Installed as {target.relative_to(install.folder)} in {install.profile.name}")
            self.refresh_stack()

        install, mod = space.catalogue.install, space.project.mod.id
        self.jobs.start(
            "Installing",
            lambda progress: install_mod(install, mod, built.folder, progress),
            done,
            lane="write",
        )

    def remove(self) -> None:
        """Take the mod off the game."""
        space = self.space
        if space is None:
            return

        def done(said: str) -> None:
            self.tell("calm", said)
            self.refresh_stack()

        install, mod = space.catalogue.install, space.project.mod.id
        self.jobs.start("Removing", lambda _: remove_mod(install, mod), done, lane="write")

    def set_order(self, order: list[tuple[str, bool]]) -> None:
        """Write another load order."""
        if self.catalogue is None:
            return
        install = self.catalogue.install
        path = install.folder / install.profile.mods.order
        self.jobs.start(
            "Saving the load order",
            lambda _: write_order(path, order),
            lambda _: self.refresh_stack(),
            lane="write",
            shown=False,
        )

    def refresh_stack(self) -> None:
        """Read the installed mods and where they clash."""
        if self.catalogue is None:
            return
        install = self.catalogue.install
        mod = self.project.mod.id if self.project else ""

        def work(_: Progress) -> tuple[list[InstalledMod], bool]:
            return read_stack(install), bool(mod) and is_installed(install, mod)

        def done(found: tuple[list[InstalledMod], bool]) -> None:
            self.stack, self.installed = found
            self.clashes = clashes(self.stack)
            self.stack_changed.emit()

        self.jobs.start("Reading the load order", work, done, key="stack", shown=False)

    # inside

    def _take(self, catalogue: Catalogue, space: Workspace | None) -> None:
        self.close()
        self.catalogue, self.space = catalogue, space
        self._learn.start()
        self.opened_last = (str(space.file.resolve()) if space else "", str(catalogue.install.folder))
        self.examined, self.stale, self.installed = {}, [], False
        self.build = last_build(space) if space else None
        self.undo.clear()
        self._watch_sources()
        self.opened.emit()
        self.project_changed.emit()
        for swap in self.project.swaps if self.project else ():
            self._examine(swap)
        self._weigh_build()
        self.refresh_stack()
        self.tell(
            "calm",
            f"Catalogue up to date: {len(catalogue.assets)} assets in {len(catalogue.install.archives)} archives",
        )

    def _examine(self, swap: Swap) -> None:
        space = self.space
        if space is None:
            return

        def done(found: Examined) -> None:
            if self.space is space and self.swap(swap.original) == found.swap:
                self.examined[swap.original] = found
                self.fitted.emit(swap.original)
                self._weigh_build()

        name = swap.original.rpartition("/")[2]
        self.jobs.start(
            f"Fitting {name}",
            lambda progress: space.examine(swap, progress),
            done,
            key=f"examine {swap.original}",
        )

    def _weigh_build(self) -> None:
        if self.space is None:
            self.build, self.stale = None, []
        else:
            self.stale = stale(self.space, self.build, list(self.examined.values()))
        self.build_changed.emit()

    def _watch_sources(self) -> None:
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
