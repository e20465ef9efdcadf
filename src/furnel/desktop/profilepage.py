"""Pages on which something is said that goes into the game's profile."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import pyqtSignal

from furnel.desktop.session import Session
from furnel.desktop.widgets.page import Page
from furnel.games import Profile


class ProfilePage(Page):
    """A page that is left when its profile was written. `kept` then, so that the game has to be opened anew."""

    kept = pyqtSignal()
    OWN_UNDO = True

    def __init__(self, session: Session) -> None:
        super().__init__()
        self.session = session

    def keep_in_profile(self, words: str, change: Callable[[Profile], Profile]) -> None:
        """Write into the profile of the open game."""
        catalogue = self.session.catalogue
        if catalogue is None:
            return
        profile = catalogue.install.profile

        def done(profile: Profile) -> None:
            self.session.tell("calm", f"Kept in the profile of {profile.name}")
            self.closed.emit()
            self.kept.emit()

        self.session.jobs.start(words, lambda _: change(profile), done, lane="write")
