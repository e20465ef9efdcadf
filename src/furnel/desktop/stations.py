"""The four stations of a window, each made when it is first asked for: the wall is there before anything else is loaded."""

from __future__ import annotations

from functools import cached_property
from typing import TYPE_CHECKING, TypeVar

from PyQt6.QtCore import pyqtSignal
from PyQt6.QtWidgets import QStackedWidget, QWidget

from furnel.desktop import doing
from furnel.desktop.find.station import FindStation
from furnel.desktop.widgets.flowstrip import STATIONS

if TYPE_CHECKING:
    from furnel.desktop.build.station import BuildStation
    from furnel.desktop.fit.station import FitStation
    from furnel.desktop.trying.station import TryStation
    from furnel.desktop.window import Window

Station = TypeVar("Station", bound=QWidget)
_PARTS = {"find": "finding", "fit": "fitting", "build": "building", "try": "trying"}


class Stations(QStackedWidget):
    """The stations in their order; pages may lie behind them. `came` names one that was made just now."""

    came = pyqtSignal(str)

    def __init__(self, window: Window) -> None:
        super().__init__()
        self._window, self._look, self._session = window, window.look, window.session
        self.made: set[str] = set()
        for _ in STATIONS:
            self.addWidget(QWidget())

    @property
    def shown(self) -> str:
        """The name of the station that is shown; nothing while a page is."""
        place = self.currentIndex()
        return STATIONS[place] if 0 <= place < len(STATIONS) else ""

    def show_station(self, name: str) -> QWidget:
        """Show a station; it."""
        station: QWidget = getattr(self, _PARTS[name])
        self.setCurrentWidget(station)
        return station

    @cached_property
    def finding(self) -> FindStation:
        """The wall."""
        window = self._window
        made = FindStation(self._look, self._session, window.tiles, window.player)
        made.definition_wanted.connect(lambda path: doing.open_definition(window, path))
        self._look.dress(made)
        return self._added("find", made)

    @cached_property
    def fitting(self) -> FitStation:
        """The queue and the benches."""
        from furnel.desktop.fit.station import FitStation

        window = self._window
        made = FitStation(self._look, self._session, window.tiles, window.results, window.player)
        made.asset_wanted.connect(window.show_asset)
        for part in made.parts():
            self._look.dress(part)
        return self._added("fit", made)

    @cached_property
    def building(self) -> BuildStation:
        """What goes into the mod."""
        from furnel.desktop.build.station import BuildStation

        made = BuildStation(self._look, self._session, self._window.tiles, self._window.results)
        made.opened.connect(self._window.open_bench)
        self._look.dress(made)
        return self._added("build", made)

    @cached_property
    def trying(self) -> TryStation:
        """The game with the mod."""
        from furnel.desktop.trying.station import TryStation

        made = TryStation(self._look, self._session)
        self._look.dress(made)
        return self._added("try", made)

    def _added(self, name: str, made: Station) -> Station:
        made.wanted.connect(self._window.run_command)  # type: ignore[attr-defined]
        place, shown = STATIONS.index(name), self.shown == name
        before = self.widget(place)
        self.insertWidget(place, made)
        if before is not None:
            self.removeWidget(before)
            before.deleteLater()
        if shown:
            self.setCurrentIndex(place)
        self.__dict__[_PARTS[name]] = made  # who is told may ask for it
        self.made.add(name)
        self.came.emit(name)
        return made
