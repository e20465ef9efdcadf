"""The main window: the flow strip on top, the four stations, the job line at the bottom."""

from __future__ import annotations

import logging
from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt, QTimer
from PyQt6.QtGui import QAction, QCloseEvent, QKeySequence, QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QApplication,
    QFileDialog,
    QHBoxLayout,
    QInputDialog,
    QMenu,
    QPushButton,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.actions import COMMANDS, Command, command
from furnel.desktop.asking import pack_folder, take_out
from furnel.desktop.build.station import BuildStation
from furnel.desktop.find.station import FindStation
from furnel.desktop.fit.station import FitStation
from furnel.desktop.jobs import JobRunner
from furnel.desktop.look import Look, dressed
from furnel.desktop.opening import room
from furnel.desktop.pages import WithPages
from furnel.desktop.playback import Player
from furnel.desktop.recent import Recent, save_recent
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.swapping import Notice
from furnel.desktop.tiles import TileStore
from furnel.desktop.trying.station import TryStation
from furnel.desktop.undoing import Undoing
from furnel.desktop.widgets.basics import as_panel, hairline
from furnel.desktop.widgets.flowstrip import STATIONS, FlowStrip, StationState
from furnel.desktop.widgets.jobline import JobLine
from furnel.desktop.widgets.quickcommand import QuickCommand
from furnel.desktop.widgets.sheets import ask, show_keys, show_log
from furnel.errors import FurnelError
from furnel.games import UnknownGame, recognise
from furnel.media import medium_of_kind
from furnel.mods.history import Edit
from furnel.words import count

log = logging.getLogger(__name__)


class Window(WithPages):
    """Furnel's window. `run_command` does anything by its id."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.setObjectName("window")
        self.setWindowTitle("Furnel")
        self.setMinimumSize(1080, 640)
        self.resize(room())
        self.look, self.jobs = look, JobRunner()
        self.session, self.player = Session(self.jobs), Player(self.jobs)
        self.tiles, self.results = TileStore(self.jobs), ResultTiles(self.session)
        self.messages: list[Notice] = []
        self.find_station = FindStation(look, self.session, self.tiles, self.player)
        self.fit_station = FitStation(look, self.session, self.tiles, self.results, self.player)
        self.build_station = BuildStation(look, self.session, self.tiles, self.results)
        self.try_station = TryStation(look, self.session)
        self.undoing = Undoing(self.session, lambda: self.stations.currentWidget() is self.try_station)
        self.undoing.stepped.connect(self._show_edit)
        self.strip, self.line = FlowStrip(look), JobLine(look, self.jobs)
        self.stations = QStackedWidget()
        for station in (self.find_station, self.fit_station, self.build_station, self.try_station):
            self.stations.addWidget(station)
            station.wanted.connect(self.run_command)
        self.find_station.files_dropped.connect(self.match_files)
        self.build_station.opened.connect(self._open_bench)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        bar = self._topbar()
        column.addWidget(bar)
        rules = hairline(), hairline()
        column.addWidget(rules[0])
        column.addWidget(self.stations, 1)
        column.addWidget(rules[1])
        column.addWidget(self.line)
        parts = *self.fit_station.parts(), self.find_station, self.build_station, self.try_station
        for part in (bar, *rules, self.line, *parts):
            look.dress(part)
        self._acts = self._callbacks()
        self._actions = self._make_actions()
        self.strip.chosen.connect(lambda name: self.run_command(f"go-{name}"))
        self.line.log_wanted.connect(lambda: self.run_command("log"))
        session = self.session
        session.opened.connect(self._opened)
        session.told.connect(self._tell)
        for signal in (session.opened, session.project_changed, session.build_changed, session.game.changed):
            signal.connect(self._weigh)
        self._weigh_soon = QTimer(self, singleShot=True, interval=0)  # many results come in one turn
        self._weigh_soon.timeout.connect(self._weigh)
        session.fitted.connect(lambda _: self._weigh_soon.start())
        self.find_station.wall.selected.connect(lambda _: self._weigh())
        self.find_station.wall.let_go.connect(self._weigh)
        self.fit_station.queue.picked.connect(lambda _: self._weigh())
        self.try_station.running_changed.connect(lambda _: self._weigh())
        session.past_changed.connect(self._weigh)
        self._remember = QTimer(self, singleShot=True, interval=0)
        self._remember.timeout.connect(self._save_recent)
        self._wanted_place = Recent()
        for change in (
            session.opened,
            look.changed,
            self.fit_station.queue.picked,
            self.stations.currentChanged,
        ):
            change.connect(lambda *_: self._remember.start())
        self._weigh()

    # what can be done

    def run_command(self, name: str) -> None:
        """Do a command, when it can be used now; otherwise say why not."""
        entry = command(name)
        if self.usable(entry):
            self._acts[name]()
        else:
            words = {
                "game": "open a game first",
                "start": "open a game first whose profile says how it is started",
                "mod": "start or open a mod first",
                "asset": "select something on the wall first",
                "sound": "select a sound first",
                "swap": "select something that is swapped on the wall, or put a swap on the bench first",
                "built": "build the mod first",
                "installed": "the mod is not in the game",
            }
            self.session.tell("wrong", f"{entry.text.rstrip('…')}: {words[entry.needs]}")

    def usable(self, entry: Command) -> bool:
        """Whether a command can be used now: on what is open, and on what is in sight."""
        session = self.session
        on_find = self.stations.currentWidget() is self.find_station
        asset = self.find_station.wall.current() if on_find else None
        return {
            "": True,
            "game": session.catalogue is not None,
            "start": self.try_station.can_start,
            "mod": session.project is not None,
            "asset": asset is not None,
            "sound": asset is not None and medium_of_kind(asset.facts.kind).is_heard,
            "swap": bool(self._swap_at_hand()),
            "built": session.build is not None,
            "installed": session.game.installed,
        }[entry.needs]

    def go(self, station: str) -> None:
        """Show a station."""
        self.stations.setCurrentIndex(STATIONS.index(station))
        self.strip.set_current(station)
        current = self.stations.currentWidget()
        focus = {
            self.find_station: self.find_station.wall,
            self.fit_station: self.fit_station.queue.rows,
        }.get(current, current)  # type: ignore[arg-type]
        if focus is not None:
            focus.setFocus()
        self._weigh()

    def _callbacks(self) -> dict[str, Callable[[], object]]:
        session = self.session
        return {
            "open-game": self._open_game,
            "new-game": self._new_game,
            "archive": self._work_out,
            "pack": lambda: pack_folder(self, session),
            "show-kin": self.find_station.show_kin,
            "find-alike": self.find_station.find_alike,
            "paste-like": self._paste_like,
            "match": self._match,
            "tunes": self.list_tunes,
            "new-mod": self._new_mod,
            "open-mod": self._open_mod,
            "go-find": lambda: self.go("find"),
            "go-fit": self._go_fit,
            "go-build": lambda: self.go("build"),
            "go-try": lambda: self.go("try"),
            "undo": lambda: self.undoing.step(False),
            "redo": lambda: self.undoing.step(True),
            "search": self._search,
            "clear-sieve": self.find_station.sieve.clear,
            "swap": self._swap,
            "take-out": lambda: take_out(self, session, self.find_station.wall.chosen()),
            "copy-path": self._copy_path,
            "hear": self.find_station.hear,
            "fit-all": lambda: session.fit_all([self._swap_at_hand()]),
            "fit-everything": self._fit_everything,
            "replace-source": self._replace_source,
            "remove-swap": self._remove_swap,
            "build": lambda: session.start_build(self.build_station.anyway.isChecked()),
            "package": session.package,
            "gather": session.gather,
            "install": self._install,
            "remove": self._remove,
            "start-game": self.try_station.start,
            "renew-stills": self.try_station.renew,
            "quick": self._quick,
            "theme": lambda: self.look.use("light" if self.look.theme == "dark" else "dark"),
            "keys": lambda: show_keys(self),
            "log": lambda: show_log(self, self.messages),
            "quit": lambda: self.window().close(),
        }

    def _make_actions(self) -> dict[str, QAction]:
        out = {}
        for entry in COMMANDS:
            action = QAction(entry.text, self)
            if entry.key:
                action.setShortcut(QKeySequence(entry.key))
            action.triggered.connect(lambda _=False, name=entry.id: self.run_command(name))
            if entry.id == "hear":  # the benches have a play button with the same key
                action.setShortcutContext(Qt.ShortcutContext.WidgetShortcut)
                self.find_station.wall.addAction(action)
            else:
                self.addAction(action)
            out[entry.id] = action
        return out

    # parts

    def _topbar(self) -> QWidget:
        bar = as_panel(QWidget(), name="topbar")
        bar.setFixedHeight(56)
        self._game, self._mod = QPushButton("Open a game…"), QPushButton("")
        self._game.setObjectName("game")
        self._mod.setObjectName("mod")
        self._game.setToolTip("Another game  (Ctrl+Shift+O)")
        self._mod.setToolTip("Another mod  (Ctrl+O)")
        self._game.clicked.connect(lambda: self.run_command("open-game"))
        self._mod.clicked.connect(self._mod_menu)
        names = QVBoxLayout()
        names.setSpacing(2)
        names.setContentsMargins(16, 9, 0, 9)
        for part in (self._game, self._mod):
            part.setCursor(Qt.CursorShape.PointingHandCursor)
            names.addWidget(part)
        holder = QWidget()
        holder.setLayout(names)
        holder.setFixedWidth(212)
        quick = QPushButton("Do anything        Ctrl K")
        quick.setToolTip("Every command by its name")
        quick.setStyleSheet("QPushButton { text-align: left; padding: 5px 10px }")
        quick.clicked.connect(lambda: self.run_command("quick"))
        quick.setFixedWidth(150)
        row = QHBoxLayout(bar)
        row.setContentsMargins(0, 0, 14, 0)
        row.setSpacing(6)
        row.addWidget(holder)
        row.addWidget(self.strip, 100)
        row.addStretch(1)
        for part in (self.undoing.undo, self.undoing.redo, quick):
            row.addWidget(part)
        return bar

    # commands that ask something first

    def _open_game(self) -> None:
        folder = QFileDialog.getExistingDirectory(dressed(self), "The game's folder")
        if folder:
            self.open_folder(Path(folder))

    def open_folder(self, folder: Path) -> None:
        """Open a game's folder; one that no profile knows is looked at as a new game."""
        try:
            recognise(folder)
        except UnknownGame:
            self.describe_game(folder)
        except FurnelError as error:
            self.session.tell("wrong", error.sentence())
        else:
            self.session.open_game(folder)

    def _open_mod(self) -> None:
        file, _ = QFileDialog.getOpenFileName(
            dressed(self), "A mod's project", "", "Furnel mods (furnel.toml)"
        )
        if file:
            self.session.open_mod(Path(file))

    def _new_mod(self) -> None:
        name, wanted = QInputDialog.getText(dressed(self), "New mod", "What is it called?")
        if wanted and name.strip():
            folder = QFileDialog.getExistingDirectory(dressed(self), f"A folder for {name.strip()}")
            if folder:
                self.session.new_mod(Path(folder), name.strip())

    def _mod_menu(self) -> None:
        menu = QMenu(dressed(self))
        for name in ("new-mod", "open-mod"):
            menu.addAction(self._actions[name])
        menu.exec(self._mod.mapToGlobal(self._mod.rect().bottomLeft()))
        menu.deleteLater()

    def _swap(self) -> None:
        asset = self.find_station.wall.current()
        if asset is not None and (file := self._ask_source(asset.name)):
            self.session.swap_with(asset.path, file, self._open_bench)

    def _replace_source(self) -> None:
        original = self._swap_at_hand()
        if file := self._ask_source(original):
            self.session.swap_with(original, file)

    def _ask_source(self, name: str) -> Path | None:
        file, _ = QFileDialog.getOpenFileName(dressed(self), f"A file to put in the place of {name}")
        return Path(file) if file else None

    def _match(self) -> None:
        folder = QFileDialog.getExistingDirectory(dressed(self), "A folder with files for this game")
        if folder:
            self.match_files([Path(folder)])

    def _paste_like(self) -> None:
        self.go("find")
        if not self.find_station.sieve.like.paste():
            self.session.tell("wrong", "There is no picture in the clipboard: copy a crop of the game first")

    def _copy_path(self) -> None:
        asset, clipboard = self.find_station.wall.current(), QApplication.clipboard()
        if asset is not None and clipboard is not None:
            clipboard.setText(asset.path)
            self.session.tell("calm", f"Copied {asset.path}")

    def _fit_everything(self) -> None:
        wanted = ("breaks", "differs")
        broken = [name for name, found in self.session.examined.items() if found.state in wanted]
        if broken:
            self.session.fit_all(broken)
        else:
            self.session.tell("calm", "Everything fits already")

    def _remove_swap(self) -> None:
        original = self._swap_at_hand()
        if original:
            self.session.remove_swap(original)
            self.session.tell("calm", f"{original} is the game's own again; undo brings the swap back")

    def _install(self) -> None:
        """Install; what lies in the mod's place and is not Furnel's is named first."""
        self._over(
            session_call=self.session.game.install, verb="Install over it", gone="comes back with Remove"
        )

    def _remove(self) -> None:
        self._over(session_call=self.session.game.remove, verb="Remove it all the same", gone="is gone then")

    def _over(self, session_call: Callable[[bool], None], verb: str, gone: str) -> None:
        why = self.session.game.foreign
        if not why:
            session_call(False)
            return
        mod = self.session.project.mod.id if self.session.project else ""
        text = f"In the game's mods folder, under “{mod}”: {why}. What lies there now {gone}."
        if ask(self, "Something else lies there", text, verb):
            session_call(True)

    def _search(self) -> None:
        self.go("find")
        self.find_station.sieve.text.setFocus()
        self.find_station.sieve.text.selectAll()

    def _go_fit(self) -> None:
        asset = self.find_station.wall.current()
        if (
            self.stations.currentWidget() is self.find_station
            and asset is not None
            and self.session.swap(asset.path) is not None
        ):
            self.fit_station.pick(asset.path)
        self.go("fit")

    def _open_bench(self, original: str) -> None:
        self.fit_station.pick(original)
        self.go("fit")

    def _swap_at_hand(self) -> str:
        """The swap that is in sight: the selected one on the wall, or the one on the bench."""
        current = self.stations.currentWidget()
        if current is self.find_station:
            asset = self.find_station.wall.current()
            return asset.path if asset is not None and self.session.swap(asset.path) is not None else ""
        if current is self.fit_station and self.session.swap(self.fit_station.current) is not None:
            return self.fit_station.current
        return ""

    def _show_edit(self, edit: Edit) -> None:
        """Show what was taken back or done again."""
        if not edit.about:
            self.go("build" if edit.mod else "fit")
        elif self.session.swap(edit.about) is not None:
            self._open_bench(edit.about)
        elif self.stations.currentWidget() is self.find_station:
            self.find_station.wall.select(edit.about)

    # what was open, for the next start

    def go_on(self, recent: Recent) -> None:
        """Open what was open last, at the place that was shown."""
        if recent.project and Path(recent.project).is_file():
            self._wanted_place = recent
            self.session.open_mod(Path(recent.project))
        elif recent.game and Path(recent.game).is_dir():
            self.session.open_game(Path(recent.game))

    def _save_recent(self) -> None:
        session = self.session
        if session.catalogue is None:
            return
        project = str(session.space.file.resolve()) if session.space else ""
        station = STATIONS[self.stations.currentIndex() % len(STATIONS)]  # a page lies over Find
        game = str(session.catalogue.install.folder)
        names = session.catalogue.install.profile.name, session.project.mod.name if session.project else ""
        recent = Recent(project, game, self.look.theme, station, self.fit_station.current, *names)
        self.jobs.start(
            "Remembering the place",
            lambda _: save_recent(recent),
            lambda _: None,
            key="recent",
            lane="write",
            shown=False,
        )

    # small dialogs

    def _quick(self) -> None:
        shown = self.findChild(QuickCommand)
        if shown is not None and shown.isVisible():
            shown.leave()
            return
        later: Callable[[str], None] = lambda name: QTimer.singleShot(0, lambda: self.run_command(name))  # noqa: E731
        quick = QuickCommand(self, self.look, self.usable, later)
        self.look.dress(quick)
        quick.open()

    # what the strip says

    def _opened(self) -> None:
        catalogue, project = self.session.catalogue, self.session.project
        self.tiles.open(catalogue)
        self._game.setText(f"{catalogue.install.profile.name}" if catalogue else "Open a game…")
        self._mod.setText(project.mod.name if project else "New mod…")
        place, self._wanted_place = self._wanted_place, Recent()
        if project is not None and place.station in STATIONS and place.project:
            self.fit_station.pick(place.swap)
            self.go(place.station)
        else:
            self.find_station.wall.setFocus()
        self.setWindowTitle(f"{project.mod.name} — Furnel" if project else "Furnel")
        if project is not None:
            QTimer.singleShot(0, self._ask_for_outside)

    def _ask_for_outside(self) -> None:
        """A mod from somewhere else reads nothing outside its folder before it was asked for."""
        files, project = self.session.wants_outside(), self.session.project
        if not files or project is None:
            return
        listed = "\n".join(str(file) for file in files[:8]) + (
            f"\nand {len(files) - 8} more" if len(files) > 8 else ""
        )
        text = f"{project.mod.name} uses files outside its own folder that nobody chose on this machine:\n\n{listed}"
        if ask(self, "Files from elsewhere", text, "Let it read these"):
            self.session.allow_outside(files)

    def _tell(self, notice: Notice) -> None:
        self.messages.append(notice)
        log.info("%s", notice.text)
        self.line.tell(notice)

    def _weigh(self) -> None:
        session = self.session
        counts = session.tally()
        assets = len(session.catalogue.assets) if session.catalogue else 0
        self.strip.set_state("find", StationState(count(assets, "asset") if assets else "no game open"))
        fit = (
            f"{counts['all'] - counts['breaks'] - counts['waiting']} of {counts['all']} fit"
            if counts["all"]
            else "no swaps yet"
        )
        self.strip.set_state("fit", StationState(fit, counts["breaks"], counts["differs"]))
        self.strip.set_state("build", self._build_state())
        enabled = sum(mod.on for mod in session.game.stack)
        words = f"{count(enabled, 'mod')} on" if session.catalogue else "no game open"
        self.strip.set_state("try", StationState("running" if self.try_station.running else words))
        self.undoing.weigh()
        for name, action in self._actions.items():
            action.setEnabled(
                True if name in ("undo", "redo") else self.usable(command(name)) or not command(name).key
            )

    def _build_state(self) -> StationState:
        session = self.session
        if session.project is None:
            return StationState("no mod open")
        if session.build is None:
            return StationState("not built yet", waiting=bool(session.project.swaps))
        if session.stale:
            return StationState(f"stale: {len(session.stale)} changed", waiting=True)
        words = {
            "": "built", "built": "built, installed", "other": "built, an older one installed", "off": "built, installed, off",
            "foreign": "built, not installed",
        }  # fmt: skip
        return StationState(words[session.game.presence], waiting=session.game.presence == "other")

    def paintEvent(self, event: QPaintEvent | None) -> None:
        QPainter(self).fillRect(self.rect(), self.look.colour("window"))

    def closeEvent(self, event: QCloseEvent | None) -> None:
        self._save_recent()
        self.player.stop()
        self.try_station.close_game()
        self.jobs.stop()
        if "archive_page" in self.__dict__:
            self.archive_page.leave()
        self.session.close()
        super().closeEvent(event)
