"""The window's pages, made when they are first needed: what stands in the place of the stations for a while."""

from __future__ import annotations

from functools import cached_property
from pathlib import Path
from typing import TYPE_CHECKING, TypeVar

from PyQt6.QtCore import QObject

from furnel.desktop import doing
from furnel.desktop.asking import pack_folder
from furnel.desktop.widgets.page import Page

if TYPE_CHECKING:
    from furnel.desktop.archive.page import ArchivePage
    from furnel.desktop.build.share import SharePage
    from furnel.desktop.find.match import MatchSheet
    from furnel.desktop.find.newthing import NewThingPage
    from furnel.desktop.find.tunes import TunesPage
    from furnel.desktop.fit.reading import ReadingPage
    from furnel.desktop.gamepage import GamePage
    from furnel.desktop.newgame import NewGamePage
    from furnel.desktop.pastpage import PastPage
    from furnel.desktop.saidpage import SaidPage
    from furnel.desktop.settingspage import SettingsPage
    from furnel.desktop.shelf import ShelfPage
    from furnel.desktop.trying.meeting import MeetingPage
    from furnel.desktop.trying.stranger import StrangerPage
    from furnel.desktop.window import Window

AnyPage = TypeVar("AnyPage", bound=Page)


class Pages(QObject):
    """The pages of a window beside its stations."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self._window, self._look, self._session = window, window.look, window.session
        self._before = "find"  # the station that was shown last

    @cached_property
    def match_sheet(self) -> MatchSheet:
        """Files and the originals that they are for."""
        from furnel.desktop.find import match

        page = match.MatchSheet(self._look, self._session, self._window.tiles)
        page.pack_wanted.connect(lambda folder: pack_folder(self._window, self._session, folder))
        self._session.learned.marked.connect(page.look_again)
        return self._added(page)

    @cached_property
    def settings_page(self) -> SettingsPage:
        """What can be set."""
        from furnel.desktop import settingspage

        return self._added(settingspage.SettingsPage(self._look, self._window), "")

    @cached_property
    def past_page(self) -> PastPage:
        """What was changed in the mod."""
        from furnel.desktop import pastpage

        page = pastpage.PastPage(self._look, self._session)
        page.shown.connect(self._window.open_bench)
        return self._added(page, "")

    @cached_property
    def said_page(self) -> SaidPage:
        """What was said since the start."""
        from furnel.desktop import saidpage

        return self._added(saidpage.SaidPage(self._look, self._session, self._window.messages), "")

    @cached_property
    def shelf_page(self) -> ShelfPage:
        """What was opened on this machine."""
        from furnel.desktop import shelf

        page = shelf.ShelfPage(self._look, self._session)
        page.wanted.connect(self._window.run_command)
        page.dropped.connect(lambda files: doing.take_dropped(self._window, files))
        page.chosen.connect(lambda row: doing.open_from_shelf(self._window, row))
        return self._added(page)

    @cached_property
    def archive_page(self) -> ArchivePage:
        """The archive bench."""
        from furnel.desktop.archive import page

        return self._added(page.ArchivePage(self._look, self._session))

    @cached_property
    def new_game_page(self) -> NewGamePage:
        """A game that no profile knows."""
        from furnel.desktop import newgame

        page = newgame.NewGamePage(self._look, self._session)
        page.unknown.connect(self.work_out)
        return self._added(page)

    @cached_property
    def game_page(self) -> GamePage:
        """What is known of the open game."""
        from furnel.desktop import gamepage

        page = gamepage.GamePage(self._look, self._session)
        page.kept.connect(lambda: doing.open_again(self._window))
        page.show_file.connect(lambda file: doing.show_in_folder(self._session, file))
        return self._added(page, "")

    @cached_property
    def reading_page(self) -> ReadingPage:
        """How texts of an ending are read."""
        from furnel.desktop.fit import reading

        page = reading.ReadingPage(self._look, self._session)
        page.kept.connect(lambda: doing.open_again(self._window))
        return self._added(page, "")

    @cached_property
    def meeting_page(self) -> MeetingPage:
        """Where mods meet."""
        from furnel.desktop.trying import meeting

        return self._added(meeting.MeetingPage(self._look, self._session, self._window.player), "try")

    @cached_property
    def stranger_page(self) -> StrangerPage:
        """Somebody else's mod."""
        from furnel.desktop.trying import stranger

        return self._added(stranger.StrangerPage(self._look, self._session), "try")

    @cached_property
    def share_page(self) -> SharePage:
        """What strangers get to know of the mod."""
        from furnel.desktop.build import share

        return self._added(share.SharePage(self._look, self._session), "build")

    @property
    def sharing(self) -> bool:
        """Whether the Share page is shown."""
        return "share_page" in self.__dict__ and self.share_page.isVisible()

    def share(self) -> None:
        """Show what strangers get to know of the mod."""
        self.share_page.open(self._window.try_station.stills.images.get("after"))
        self.show_page(self.share_page, "build")

    def look_into(self, source: Path) -> None:
        """Look into somebody else's mod."""
        self.stranger_page.open(source)
        self.show_page(self.stranger_page, "try")

    def get_mod(self) -> None:
        """Ask for somebody else's mod and look into it."""
        if self.stranger_page.ask():
            self.show_page(self.stranger_page, "try")

    def _added(self, page: AnyPage, station: str = "find") -> AnyPage:
        """A page, and the station that comes after it: the one before it where none is named."""
        self._look.dress(page)
        self._window.stations.addWidget(page)
        page.stepped.connect(self._window.undoing.weigh)
        page.closed.connect(lambda: self._window.go(station or self._before))
        return page

    @cached_property
    def tunes_page(self) -> TunesPage:
        """The game's tunes and an album for them."""
        from furnel.desktop.find import tunes

        return self._added(tunes.TunesPage(self._look, self._session, self._window.tiles))

    @cached_property
    def new_thing_page(self) -> NewThingPage:
        """Something that the game does not have yet."""
        from furnel.desktop.find import newthing

        page = newthing.NewThingPage(self._look, self._session, self._window.tiles)
        page.made.connect(self._window.open_bench)
        return self._added(page)

    def open(
        self,
        page: NewThingPage | TunesPage | PastPage | SaidPage | GamePage | MeetingPage | ShelfPage,
        station: str = "",
    ) -> None:
        """Bring a page up to date and show it; at the station that is shown where it belongs to none."""
        self.show_page(page, station or self._window.stations.shown or self._before)
        page.open()

    def match_files(self, paths: list[Path]) -> None:
        """Pair a folder's files, or some files, with originals on the match sheet."""
        self.match_sheet.open(paths)
        self.show_page(self.match_sheet)

    def work_out(self, file: Path) -> None:
        """Look at a file on the archive bench."""
        self.archive_page.open(file)
        self.show_page(self.archive_page)

    def describe_game(self, folder: Path) -> None:
        """Look at a folder on the page for new games."""
        self.new_game_page.open(folder)
        self.show_page(self.new_game_page)

    def show_page(self, page: Page, station: str = "find") -> None:
        """Show a page in the stations' place."""
        self._before = self._window.stations.shown or self._before
        self._window.stations.setCurrentWidget(page)
        self._window.undoing.weigh()
        self._window.strip.set_current(station)

    def leave(self) -> None:
        """Let go of what pages hold open."""
        if "archive_page" in self.__dict__:
            self.archive_page.leave()
