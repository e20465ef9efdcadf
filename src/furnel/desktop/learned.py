"""What was learned of the open game: by what everything in it is recognised, and which assets are kin."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, pyqtSignal

from furnel.catalogue import Marks, mark_apart
from furnel.desktop.jobs import Job
from furnel.desktop.timing import timer
from furnel.errors import FurnelError

if TYPE_CHECKING:
    from furnel.desktop.session import Session

AFTER_MS = 1500


class Learned(QObject):
    """The marks of a session's game, once they are known; `marked` tells when that is."""

    marked = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self.marks: Marks | None = None
        self._job: Job | None = None
        self._later = timer(self, self.learn, AFTER_MS)

    def begin(self) -> None:
        """Learn the game that is open now, a little later."""
        self._later.start()

    def forget(self) -> None:
        """Stop learning, and know nothing."""
        if self._job is not None:
            self._job.cancel()
            self._job = None
        self.marks = None
        self._later.stop()

    def learn(self) -> None:
        """Work out by what everything in the game is recognised, in the background; `marked` tells when it is known."""
        catalogue = self._session.catalogue
        if catalogue is None or self.marks is not None or self._job:
            return

        def done(found: Marks) -> None:
            self._job = None
            if self._session.catalogue is catalogue:
                self.marks = found
                self.marked.emit()

        def failed(error: FurnelError) -> None:
            self._job = None
            self._session.refuse(error)

        self._job = self._session.jobs.start(
            "Learning the game",
            lambda progress: mark_apart(catalogue, progress),
            done,
            failed,
            key="marks",
            lane="marks",
        )

    def kin(self, path: str) -> list[str]:
        """The other assets that are the same picture or sound, as far as they are known."""
        if self.marks is None or self._session.catalogue is None:
            return []
        shelf = self._session.catalogue.assets
        if shelf.row(path) < 0:
            return []
        takes = self._takes_with(path)  # takes of one event are like each other, and not the same
        return [
            other for row in self.marks.kin.of(shelf.row(path)) if (other := shelf.paths[row]) not in takes
        ]

    def _takes_with(self, path: str) -> frozenset[str]:
        """The sounds that one event plays in turn with this one."""
        events = self._session.space.demands.events.values() if self._session.space is not None else ()
        return frozenset(one for event in events if path in event.sounds for one in event.sounds)
