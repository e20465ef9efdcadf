"""This game: what it is called, how mods reach it, how it is started; changed after New game, and tried."""

from __future__ import annotations

import shlex
import subprocess
from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLineEdit, QPlainTextEdit, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.profilepage import ProfilePage
from furnel.desktop.session import Session
from furnel.desktop.ways import Ways
from furnel.desktop.widgets.basics import as_panel, button, label, scrolling, verbatim
from furnel.desktop.widgets.steady import Choice
from furnel.errors import FurnelError
from furnel.games import Install, try_start
from furnel.games.changing import Told, change_profile, told_of, with_start
from furnel.games.menus import MenuEntry, fits_game, menu_entries
from furnel.games.ownprofiles import profile_file
from furnel.progress import Progress

_OWN = "Type a command, or choose a program of this desktop's menu"


class GamePage(ProfilePage):
    """The page. `show_file` asks for the profile."""

    show_file = pyqtSignal(object)

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__(session)
        self._entries: list[MenuEntry] = []
        self._told: Told | None = None
        self._tries = Told("", "", "", "", "", "", "")
        self.name, self.version, self.play, self.start_in = (QLineEdit() for _ in range(4))
        self.environment = QPlainTextEdit()
        self.environment.setObjectName("lines")
        self.environment.setTabChangesFocus(True)
        self.environment.setFixedHeight(64)
        self.environment.setPlaceholderText(tr("NAME=value, one a line"))
        self.ways, self.menu = Ways(), Choice()
        self.try_it = button("Try it", "Start the game with this command, and see whether it goes on")
        self.keep = button("Keep this", "Write it into the game's profile, and open the game anew", "next")
        self._back = button("Leave it", "Esc", "plain")
        self._file = button("Show its file", "The profile, in the system's file manager")
        self._where, self._says, self._tried = (
            verbatim("", "caption"),
            label("", "caption"),
            label("", "caption"),
        )
        for part in (self._where, self._says, self._tried):
            part.setWordWrap(True)
        self._connect()
        self._lay_out()

    def _connect(self) -> None:
        for part, words in (
            (self.name, "What the game is called"),
            (self.version, "The version of the game that mods are made for"),
            (self.play, "The command that starts the game, with its arguments; {game} is its folder"),
            (self.start_in, "The folder that it is started in, below the game's; . is the game's own"),
            (self.environment, "What is set for the game: NAME=value, one a line"),
            (self.menu, "Programs of this desktop that may start the game"),
        ):
            part.setToolTip(tr(words))
            part.setAccessibleName(tr(words))
            if not isinstance(part, Choice):
                part.textChanged.connect(self._weigh)
        self.ways.changed.connect(self._weigh)
        self.menu.activated.connect(self._take_entry)
        self.try_it.clicked.connect(self._try)
        self.keep.clicked.connect(self._keep)
        self._back.clicked.connect(self.closed)
        self._file.clicked.connect(lambda: self.show_file.emit(self._profile_file()))

    def _lay_out(self) -> None:
        content = QWidget()
        column = QVBoxLayout(content)
        column.setContentsMargins(24, 8, 24, 16)
        column.setSpacing(8)
        grid = QGridLayout()
        grid.setColumnMinimumWidth(0, 150)
        grid.setColumnStretch(1, 1)
        grid.setHorizontalSpacing(14)
        grid.setVerticalSpacing(8)
        self._section(grid, "HOW IT IS STARTED")
        tries = QHBoxLayout()
        tries.setSpacing(12)
        tries.addWidget(self.try_it)
        tries.addWidget(self._tried, 1)
        for words, part in (
            ("From the menu", self.menu),
            ("Command", self.play),
            ("In the folder", self.start_in),
            ("Environment", self.environment),
            ("", tries),
        ):
            row = grid.rowCount()
            if words:
                at = Qt.AlignmentFlag.AlignTop if part is self.environment else Qt.AlignmentFlag(0)
                grid.addWidget(label(words, "caption"), row, 0, at)
            if isinstance(part, QHBoxLayout):
                grid.addLayout(part, row, 1)
            else:
                grid.addWidget(part, row, 1)
        grid.setRowMinimumHeight(grid.rowCount(), 14)
        self._section(grid, "HOW MODS REACH IT")
        grid.addWidget(self.ways, grid.rowCount(), 1)
        column.addLayout(grid)
        column.addStretch(1)
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addLayout(self.heading())
        left.addWidget(scrolling(content, "window"), 1)
        panel = as_panel(QWidget(), 300)
        side = QVBoxLayout(panel)
        side.setContentsMargins(18, 20, 18, 16)
        side.setSpacing(8)
        side.addWidget(label("THE GAME", "section"))
        names = QGridLayout()
        names.setVerticalSpacing(8)
        for place, (words, line) in enumerate((("Name", self.name), ("Version", self.version))):
            names.addWidget(label(words, "caption"), place, 0)
            names.addWidget(line, place, 1)
        side.addLayout(names)
        side.addSpacing(14)
        side.addWidget(label("ITS PROFILE", "section"))
        side.addWidget(self._where)
        side.addWidget(self._file)
        side.addWidget(self._says)
        side.addStretch(1)
        side.addWidget(self._back)
        side.addWidget(self.keep)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(left, 1)
        whole.addWidget(panel)

    def _section(self, grid: QGridLayout, words: str) -> None:
        grid.addWidget(label(words, "section"), grid.rowCount(), 0, 1, 2)

    def open(self) -> None:
        """Show what is known of the open game."""
        catalogue = self.session.catalogue
        if catalogue is None:
            return
        install = catalogue.install
        self._told = told = told_of(install.profile)
        self.title.setText(install.profile.name)
        self.said.setText(str(install.folder))
        self.name.setText(told.name)
        self.version.setText(told.version)
        self.ways.folder.setText(told.folder)
        self.ways.go(told.goes)
        self.play.setText(told.play)
        self.start_in.setText(told.start_in)
        self.environment.setPlainText(told.environment)
        self._tried.setText("")
        file = self._profile_file()
        self._where.setText(str(file) if file is not None else "")
        self._says.setText(
            tr(
                "Roles, names of assets and how mods are built are said in this file; docs/profiles.md says how."
            )
            if file is not None
            else tr("It came with Furnel, which keeps it up to date: nothing here can be changed.")
        )
        self._file.setVisible(file is not None)
        for part in (
            self.name,
            self.version,
            self.play,
            self.start_in,
            self.environment,
            self.ways,
            self.menu,
        ):
            part.setEnabled(file is not None)
        self.session.jobs.start(
            "Looking for what starts the game",
            lambda _: menu_entries(install.folder, install.profile.name),
            lambda found: self._show_entries(install, found),
            key="menu entries",
        )
        self._weigh()

    def _show_entries(self, install: Install, found: list[MenuEntry]) -> None:
        self._entries = found
        self.menu.clear()
        self.menu.addItem(tr(_OWN if found else "This desktop's menu has no games"))
        self.menu.addItems([entry.name for entry in found])
        if found and not self.play.text() and fits_game(found[0], install.folder, install.profile.name):
            self.menu.setCurrentIndex(1)
            self._take_entry(1)

    def _take_entry(self, place: int) -> None:
        """Take a program of the menu for the command."""
        if place:
            entry = self._entries[place - 1]
            self.play.setText(shlex.join(entry.command))
            self.start_in.setText(entry.folder)

    def _profile_file(self) -> Path | None:
        catalogue = self.session.catalogue
        return profile_file(catalogue.install.profile) if catalogue is not None else None

    def _now(self) -> Told:
        """What the fields say."""
        name, version, folder, play, start_in = (
            part.text().strip()
            for part in (self.name, self.version, self.ways.folder, self.play, self.start_in)
        )
        return Told(
            name, version, self.ways.goes, folder, play, start_in, self.environment.toPlainText().strip()
        )

    def _weigh(self) -> None:
        now = self._now()
        own = self.name.isEnabled()
        self.keep.setEnabled(own and bool(now.name) and self.ways.whole and now != self._told)
        self.try_it.setEnabled(bool(now.play))

    def _try(self) -> None:
        catalogue = self.session.catalogue
        if catalogue is None:
            return
        self._tried.setText(tr("Starting …"))

        def work(progress: Progress) -> subprocess.Popen[bytes]:
            return try_start(
                catalogue.install, with_start(catalogue.install.profile, self._tries), progress=progress
            )

        def done(process: subprocess.Popen[bytes]) -> None:
            ended = process.returncode == 0
            self._tried.setText(tr("It ended at once, without an error." if ended else "It runs."))

        def failed(error: FurnelError) -> None:
            self._tried.setText(error.sentence())

        self._tries = self._now()
        self.session.jobs.start("Starting the game", work, done, failed, key="try start", lane="wait")

    def _keep(self) -> None:
        told = self._now()
        self.keep_in_profile(
            f"Keeping what is known of {told.name}", lambda profile: change_profile(profile, told)
        )
