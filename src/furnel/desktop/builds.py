"""The open mod's last build, what is stale in it, and building and packaging it anew."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, pyqtSignal

from furnel import mods
from furnel.desktop.timing import timer
from furnel.progress import Progress
from furnel.words import count

if TYPE_CHECKING:
    from furnel.desktop.session import Session
    from furnel.mods.build import Build


class Builds(QObject):
    """A session's builds: the `last` one, and which swaps it does not have as they are now (`stale`)."""

    changed = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self.last: Build | None = None
        self.stale: list[str] = []
        self._later = timer(self, self.weigh)

    def take(self, found: Build | None) -> None:
        """Another mod is open, with this last build."""
        self.last, self.stale = found, []

    def weigh_soon(self) -> None:
        """Weigh at the end of this turn, once."""
        self._later.start()

    def weigh(self) -> None:
        """Judge what is stale, by what the build captured."""
        session = self._session
        if session.space is None:
            self.last, self.stale = None, []
        else:
            self.stale = mods.build.stale(session.space, self.last, list(session.examined.values()))
        self.changed.emit()

    def start(self, anyway: bool = False) -> None:
        """Build the mod; the last build stays when this one is refused."""
        space = self._session.space
        if space is None:
            return

        def done(found: Build) -> None:
            if not self._session.still_open(space):
                return
            self._session.tell("calm", f"Built {count(len(found.files), 'file')}; read back and compared")
            self.last = found
            self.weigh()
            if self._session.game.presence in ("built", "other"):
                self._session.game.install()

        self._session.jobs.start(
            "Building",
            lambda progress: mods.build.build(space, progress, anyway),
            done,
            key="build",
            lane="build",
        )

    def package(self, then: Callable[[Path], None] | None = None) -> None:
        """Make the ZIP to share, of the mod as it is now: what is not built yet is built first."""
        space = self._session.space
        if space is None:
            return

        def work(progress: Progress) -> tuple[Path, Build | None]:
            return mods.build.package(space, progress=progress), mods.build.last_build(space)

        def done(found: tuple[Path, Build | None]) -> None:
            target, built = found
            self._session.tell_written(f"Packaged as {target.name} in the mod's build folder", target)
            if self._session.still_open(space):
                self.last = built
                self.weigh()
            if then is not None:
                then(target)

        self._session.jobs.start("Packaging", work, done, key="package", lane="build")
