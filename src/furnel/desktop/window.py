"""The main window: the flow strip on top, the four stations, the job line at the bottom."""

from __future__ import annotations

import logging
from dataclasses import replace
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, Qt, QTimer
from PyQt6.QtGui import (
    QAction,
    QCloseEvent,
    QFocusEvent,
    QGuiApplication,
    QKeySequence,
    QPainter,
    QPaintEvent,
)
from PyQt6.QtWidgets import QApplication, QVBoxLayout, QWidget

from furnel.catalogue import Asset
from furnel.desktop.actions import COMMANDS, ON_ROW, ON_SWAP, ON_TILE, Command, command, shortcut_of, use_keys
from furnel.desktop.anywhere import Anywhere, take_on_wall
from furnel.desktop.around import offer_around
from furnel.desktop.jobs import JobRunner
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.opening import room
from furnel.desktop.pages import Pages
from furnel.desktop.playback import Player
from furnel.desktop.recent import Recent
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Notice, Session
from furnel.desktop.settings import OwnSettings
from furnel.desktop.standing import Place, Standing
from furnel.desktop.stations import Stations
from furnel.desktop.tiles import TileStore
from furnel.desktop.topbar import TopBar
from furnel.desktop.undoing import Undoing
from furnel.desktop.widgets.basics import hairline
from furnel.desktop.widgets.cards import Cards
from furnel.desktop.widgets.flowstrip import STATIONS, FlowStrip
from furnel.desktop.widgets.focusring import FocusRing
from furnel.desktop.widgets.jobline import JobLine
from furnel.desktop.widgets.menus import commands_at
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.sheets import ask
from furnel.errors import FurnelError
from furnel.games import SeveralGames, UnknownGame, choose_profile, fitting_profiles, recognise

if TYPE_CHECKING:
    from furnel.desktop.build.station import BuildStation
    from furnel.desktop.find.station import FindStation
    from furnel.desktop.fit.station import FitStation
    from furnel.desktop.trying.station import TryStation
    from furnel.mods.edit import Edit

_MOST_SAID = 500
_PATIENCE_S = 0.5  # for work that was cancelled, once the window is gone
log = logging.getLogger(__name__)


class Window(QWidget):
    """Furnel's window. `run_command` does anything by its id."""

    session: Session
    pages: Pages
    undoing: Undoing
    stations: Stations

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.setObjectName("window")
        self.setWindowTitle("Furnel")
        self.setMinimumSize(1000, 600)
        self.resize(room())
        self.look, self.jobs = look, JobRunner()
        self.session, self.player = Session(self.jobs), Player(self.jobs)
        self.settings = OwnSettings()
        use_keys(self.settings.now.keys)
        self.tiles, self.results = TileStore(self.jobs), ResultTiles(self.session)
        self.messages: list[Notice] = []
        self.ended = True  # whether all work had come to its end when the window was closed
        self.stations = Stations(self)
        self.undoing = Undoing(look, self.session, self._undone_here)
        self.strip, self.line = FlowStrip(look), JobLine(look, self.jobs)
        self.cards, self.ring = Cards(self, look, self.line), FocusRing(self, look)
        self.pages = Pages(self)
        self.actions_by_id = self._make_actions()
        self.bar = TopBar(self, self.actions_by_id)
        self._lay_out()
        self.standing = Standing(self, self.actions_by_id)
        self.place = Place(self)
        self.anywhere = Anywhere(self)
        self._connect()
        self._apply()
        self.standing.weigh()

    def _lay_out(self) -> None:
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        rules = hairline(), hairline()
        column.addWidget(self.bar)
        column.addWidget(rules[0])
        column.addWidget(self.stations, 1)
        column.addWidget(rules[1])
        column.addWidget(self.line)
        for part in (self.bar, *rules, self.line):
            self.look.dress(part)

    def _connect(self) -> None:
        self.find_station.wall.menu_wanted.connect(lambda at: commands_at(self, ON_TILE, at))
        self.stations.came.connect(self._came)
        self.find_station.files_dropped.connect(lambda files: take_on_wall(self, files))
        self.try_station.mod_dropped.connect(self.pages.look_into)
        self.undoing.stepped.connect(self._show_edit)
        self.undoing.list_wanted.connect(lambda: self.run_command("past"))
        self.strip.chosen.connect(lambda name: self.run_command(f"go-{name}"))
        self.strip.brought.connect(lambda assets: self.session.swaps.begin_with_own(assets, self.open_bench))
        self.line.list_wanted.connect(lambda: self.run_command("said"))
        self.session.opened.connect(self._opened)
        self.session.leaving.connect(self.settle_fields)
        self.session.told.connect(self._tell)
        self.settings.changed.connect(self._apply)
        if (hints := QGuiApplication.styleHints()) is not None:
            hints.colorSchemeChanged.connect(self._apply)

    def _apply(self) -> None:
        """Use what was set."""
        now = self.settings.now
        if self.look.theme != now.theme_now():
            self.look.use(now.theme_now())
        self.look.hold_still(now.still)
        self.player.use_output(now.device, now.volume / 100)
        use_keys(now.keys)
        for name, action in self.actions_by_id.items():
            action.setShortcut(QKeySequence(shortcut_of(name)))

    def _undone_here(self) -> Page | str:
        """What can be seen, and undone: the load order (`orders`), a page's own, or the `mod`."""
        here = self.stations.currentWidget()
        if self.stations.shown == "try" or here is vars(self.pages).get("meeting_page"):
            return "orders"
        return here if isinstance(here, Page) and here.OWN_UNDO else "mod"

    def _came(self, name: str) -> None:
        if name == "fit":
            self.fit_station.queue.menu_wanted.connect(lambda at: commands_at(self, ON_SWAP, at))
        elif name == "build":
            self.build_station.contents.menu_wanted.connect(lambda at: commands_at(self, ON_ROW, at))

    @property
    def find_station(self) -> FindStation:
        return self.stations.finding

    @property
    def fit_station(self) -> FitStation:
        return self.stations.fitting

    @property
    def build_station(self) -> BuildStation:
        return self.stations.building

    @property
    def try_station(self) -> TryStation:
        return self.stations.trying

    # what can be done

    def run_command(self, name: str) -> None:
        """Do a command, when it can be used now; otherwise say why not."""
        entry = command(name)
        if self.usable(entry):
            entry.run(self)
        else:
            self.session.tell("wrong", f"{entry.text.rstrip('…')}: {entry.need.words}")

    def usable(self, entry: Command) -> bool:
        """Whether a command can be used now: on what is open, and on what is in sight."""
        return entry.need.met(self)

    def asset_in_sight(self) -> Asset | None:
        """What is selected on the wall, while that is shown."""
        return self.find_station.wall.current() if self.stations.shown == "find" else None

    def swap_at_hand(self) -> str:
        """The swap that is in sight: the selected one on the wall or in the build, or the one on the bench."""
        asset = self.asset_in_sight()
        if asset is not None:
            return asset.path if self.session.swap(asset.path) is not None else ""
        if (
            self.stations.shown == "build"
            and self.session.swap(self.build_station.contents.current) is not None
        ):
            return self.build_station.contents.current
        if self.stations.shown == "fit" and self.session.swap(self.fit_station.current) is not None:
            return self.fit_station.current
        return ""

    def go(self, station: str) -> None:
        """Show a station."""
        shown = self.stations.show_station(station)
        self.strip.set_current(station)
        (shown.focusProxy() or shown).setFocus()
        self.standing.weigh()

    def open_folder(self, folder: Path) -> None:
        """Open a game's folder; one that no profile knows is looked at as a new game."""
        try:
            recognise(folder)
        except UnknownGame:
            self.pages.describe_game(folder)
        except SeveralGames:
            from furnel.desktop.widgets import picking

            known = {f"{one.name} ({one.id})": one.id for one in fitting_profiles(folder)}
            name = picking.ask_one(
                self, "Which game is it?", f"Several profiles know {folder.name}", list(known), "Open it"
            )
            if name is not None:
                choose_profile(folder, known[name])
                self.open_folder(folder)
        except FurnelError as error:
            self.session.tell("wrong", error.sentence())
        else:
            self.session.open_game(folder)

    def open_bench(self, original: str) -> None:
        """Put a swap on the bench and show it."""
        self.fit_station.pick(original)
        self.go("fit")

    def show_asset(self, path: str) -> None:
        """Show an asset on the wall, whatever the sieve left out."""
        self.go("find")
        if not self.find_station.wall.select(path):
            self.find_station.sieve.clear()
            self.find_station.wall.select(path)

    def _make_actions(self) -> dict[str, QAction]:
        out = {}
        for entry in COMMANDS:
            action = QAction(tr(entry.text), self)
            action.triggered.connect(lambda _=False, name=entry.id: self.run_command(name))
            if entry.id == "hear":  # the benches have a play button with the same key
                action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
                self.find_station.wall.addAction(action)
            else:
                self.addAction(action)
            out[entry.id] = action
        return out

    # what happened

    def _show_edit(self, edit: Edit) -> None:
        """Show what was taken back or done again."""
        if self.pages.sharing and edit.only_said:
            return  # that page shows it itself
        if not edit.about:
            self.go("build" if edit.mod else "fit")
        elif self.session.swap(edit.about) is not None:
            self.open_bench(edit.about)
        elif self.stations.shown == "find":
            self.find_station.wall.select(edit.about)

    def _opened(self) -> None:
        catalogue, project = self.session.catalogue, self.session.project
        self.tiles.open(catalogue)
        self.bar.show_names(
            catalogue.install.profile.name if catalogue else "", project.mod.name if project else ""
        )
        place, self.place.wanted = self.place.wanted, Recent()
        if project is not None and place.station in STATIONS and place.project:
            self.place.swap = place.swap
            if "fit" in self.stations.made:
                self.fit_station.pick(place.swap)
            self.go(place.station)
        else:
            self.place.swap = ""
            if not self.stations.shown:
                self.go("find")
            self.find_station.wall.setFocus()
        self.setWindowTitle(f"{project.mod.name} — Furnel" if project else "Furnel")
        if project is not None:
            QTimer.singleShot(0, self._ask_for_outside)
            QTimer.singleShot(0, lambda: offer_around(self))

    def _ask_for_outside(self) -> None:
        """A mod from somewhere else reads nothing outside its folder before it was asked for."""
        files, project = self.session.outside, self.session.project
        if not files or project is None:
            return
        listed = "\n".join(str(file) for file in files[:8]) + (
            f"\nand {len(files) - 8} more" if len(files) > 8 else ""
        )
        text = f"{project.mod.name} uses files outside its own folder that nobody chose on this machine:\n\n{listed}"
        if ask(self, "Files from elsewhere", text, "Let it read these"):
            self.session.allow_outside(files)

    def settle_fields(self) -> None:
        """Take what is typed and not yet left as if it were left: it belongs to the mod that is open."""
        field = self.focusWidget()
        if field is not None and field.isVisibleTo(self):
            QApplication.sendEvent(field, QFocusEvent(QEvent.Type.FocusOut, Qt.FocusReason.OtherFocusReason))

    def _tell(self, notice: Notice) -> None:
        self.messages.append(notice)
        del self.messages[:-_MOST_SAID]
        log.info("%s", notice.text)
        self.line.tell(notice)
        if notice.tone == "wrong":
            notice = replace(
                notice, actions=(*notice.actions, ("What was said", lambda: self.run_command("said")))
            )
        self.cards.tell(notice)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        QPainter(self).fillRect(self.rect(), self.look.colour("window"))

    def closeEvent(self, event: QCloseEvent | None) -> None:
        self.place.save()
        self.player.stop()
        if "try" in self.stations.made:
            self.try_station.close_game()
        self.settle_fields()
        self.ended = self.jobs.stop(_PATIENCE_S)
        self.pages.leave()
        self.session.close()
        super().closeEvent(event)
