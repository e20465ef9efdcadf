"""How things stand: the numbers on the strip, which commands can be used, and what was open, for the next start."""

from __future__ import annotations

import json
from dataclasses import astuple
from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QAction

from furnel.desktop.actions import command, shortcut_of
from furnel.desktop.recent import Recent, save_recent
from furnel.desktop.timing import timer
from furnel.desktop.widgets.flowstrip import StationState
from furnel.words import count

if TYPE_CHECKING:
    from furnel.desktop.window import Window

_BUILT: dict[str, str] = {
    "": "built",
    "built": "built, installed",
    "other": "built, an older one installed",
    "off": "built, installed, off",
    "foreign": "built, not installed",
}


class Standing(QObject):
    """Says on a window's strip and in its actions how things stand; `soon` after many results have come in one turn.

    `known` says that the numbers are others.
    """

    known = pyqtSignal()

    def __init__(self, window: Window, actions: dict[str, QAction]) -> None:
        super().__init__(window)
        self._window, self._actions = window, actions
        self._kept: dict[str, StationState] = {}  # what the strip says of what is open
        self._of, self._seen = "", set[str]()  # what that is, and which stations were seen to stand so
        self._later = timer(self, self.weigh)
        session = window.session
        session.opened.connect(self._seen.clear)
        for signal in (session.opened, session.builds.changed, session.game.changed):
            signal.connect(self.weigh)
        for often in (session.project_changed, session.past_changed, window.find_station.wall.let_go):
            often.connect(self.soon)
        window.find_station.wall.selected.connect(lambda _: self.weigh())
        window.stations.came.connect(self._came)
        session.fitted.connect(lambda _: self.soon())

    def _came(self, name: str) -> None:
        if name == "fit":
            self._window.fit_station.queue.picked.connect(lambda _: self.weigh())
            self._window.fit_station.benches.currentChanged.connect(lambda _: self.soon())
        elif name == "try":
            self._window.try_station.running_changed.connect(lambda _: self.weigh())

    def soon(self) -> None:
        """Weigh at the end of this turn, once."""
        self._later.start()

    def begin(self, recent: Recent) -> None:
        """Show what was known when Furnel was last left, until it is known anew."""
        self._of, self._kept = recent.project, _read_strip(recent.numbers)
        for name, state in self._kept.items():
            self._window.strip.set_state(name, state)

    @property
    def numbers(self) -> str:
        """What the strip says, for the next start."""
        return json.dumps({name: astuple(state) for name, state in self._kept.items()})

    def weigh(self) -> None:
        """Say how things stand now; what was not looked at yet stands as it was known last."""
        window, session = self._window, self._window.session
        opening = session.catalogue is None and window.jobs.runs("open")
        of = str(session.space.file.resolve()) if session.space is not None else ""
        if of != self._of and not opening:
            self._of, self._kept = of, {}
            self._seen.clear()
        for name, state in self._states().items():
            if not opening and self._is_known(name):
                self._seen.add(name)
                if self._kept.get(name) != state:
                    self._kept[name] = state
                    self.known.emit()
            window.strip.set_state(name, self._kept.get(name, StationState("being looked at")))
        window.undoing.weigh()
        for name, action in self._actions.items():
            entry = command(name)
            action.setEnabled(name in ("undo", "redo") or not shortcut_of(name) or window.usable(entry))

    def _is_known(self, name: str) -> bool:
        """Whether a station's numbers were worked out since what is open was opened."""
        session = self._window.session
        if name in self._seen or session.catalogue is None:
            return True
        swaps = not session.tally()["waiting"]
        read = session.game.read
        return {"find": True, "fit": swaps, "build": swaps and read, "try": read}[name]

    def _states(self) -> dict[str, StationState]:
        """What each station says."""
        window, session = self._window, self._window.session
        counts = session.tally()
        assets = len(session.catalogue.assets) if session.catalogue else 0
        fitting = counts["all"] - counts["breaks"] - counts["waiting"]
        fit = f"{fitting} of {counts['all']} fit" if counts["all"] else "no swaps yet"
        enabled = sum(mod.on for mod in session.game.stack)
        words = f"{count(enabled, 'mod')} on" if session.catalogue else "no game open"
        running = "try" in window.stations.made and window.try_station.running
        return {
            "find": StationState(count(assets, "asset") if assets else "no game open"),
            "fit": StationState(fit, counts["breaks"], counts["differs"]),
            "build": self._build_state(),
            "try": StationState("running" if running else words),
        }

    def _build_state(self) -> StationState:
        session = self._window.session
        if session.project is None:
            return StationState("no mod open")
        if session.builds.last is None:
            return StationState("not built yet", waiting=bool(session.project.made))
        if session.builds.stale:
            return StationState(f"stale: {len(session.builds.stale)} changed", waiting=True)
        return StationState(_BUILT[session.game.presence], waiting=session.game.presence == "other")


def _read_strip(numbers: str) -> dict[str, StationState]:
    try:
        return {str(name): StationState(*told) for name, told in json.loads(numbers).items()}
    except (ValueError, TypeError, AttributeError):
        return {}


class Place(QObject):
    """Keeps what is open and what is shown of it, for the next start.

    `wanted` is what this start is to go on with, `swap` what is to be on the bench when that is first shown.
    """

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self._window = window
        self.wanted, self.swap = Recent(), ""
        self._later = timer(self, self.save)
        for change in (
            window.session.opened,
            window.standing.known,
            window.look.changed,
            window.stations.currentChanged,
        ):
            change.connect(lambda *_: self._later.start())
        window.stations.came.connect(self._came)

    def _came(self, name: str) -> None:
        if name == "fit":
            station = self._window.fit_station
            station.queue.picked.connect(lambda _: self._later.start())
            if self.swap:
                station.pick(self.swap)

    def go_on(self, recent: Recent) -> bool:
        """Open what was open last, at the place that was shown; whether there is something to open."""
        session = self._window.session
        if recent.project and Path(recent.project).is_file():
            self.wanted = recent
            session.first = recent.swap
            self._window.standing.begin(recent)
            session.open_mod(Path(recent.project))
        elif recent.game and Path(recent.game).is_dir():
            session.open_game(Path(recent.game))
        else:
            self._window.pages.open(self._window.pages.shelf_page, "find")
            return False
        return True

    def save(self) -> None:
        """Remember the place."""
        window, session = self._window, self._window.session
        if session.catalogue is None:
            return
        project = str(session.space.file.resolve()) if session.space else ""
        station = window.stations.shown or "find"  # a page lies over Find
        swap = window.fit_station.current if "fit" in window.stations.made else self.swap
        game = str(session.catalogue.install.folder)
        names = session.catalogue.install.profile.name, session.project.mod.name if session.project else ""
        recent = Recent(project, game, station, swap, *names, window.standing.numbers)
        window.jobs.start(
            "Remembering the place",
            lambda _: save_recent(recent),
            lambda _: None,
            key="recent",
            lane="write",
            shown=False,
        )
