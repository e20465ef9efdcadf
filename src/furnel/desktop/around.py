"""Showing somebody around: seven things to do on the demo's mod, one after the other; never again once it was ended."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QVBoxLayout

from furnel.desktop.actions import key_of
from furnel.desktop.language import tr
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import button, high_at, label
from furnel.remembered import recall, remember

if TYPE_CHECKING:
    from furnel.desktop.window import Window

HULL = "art/hulls/hull_otter.dds"
_ENDED, _LOOK_MS, _WIDE, _EDGE = "shown-around", 250, 300, 14


@dataclass(frozen=True, slots=True)
class Stop:
    """What is to be done, in a few words and in a sentence; `done` says whether it was."""

    title: str
    words: str
    done: Callable[[Window], bool]


def _fits(window: Window) -> bool:
    found = window.session.examined.get(HULL)
    return found is not None and found.state in ("fits", "differs")


def stops() -> tuple[Stop, ...]:
    """The seven stops, with the keys that commands have now."""
    return (
        Stop(
            "Find the hull",
            f"Everything the game has is on this wall. Press {key_of('search')}, type hull otter, and click its tile. "
            "Its ember corner says that this mod swaps it.",
            lambda window: (asset := window.asset_in_sight()) is not None and asset.path == HULL,
        ),
        Stop(
            "Put it on the bench",
            "Press Enter. Left of the line is the game's own, in teal; right of it is yours, in ember. Drag the line.",
            lambda window: window.stations.shown == "fit" and window.fit_station.current == HULL,
        ),
        Stop(
            "Let it fit",
            "The rose crosses on the right would break in the game. "
            f"Press Fit all ({key_of('fit-all')}): steps bring it to the original's size, format and levels.",
            lambda window: window.stations.shown == "fit" and _fits(window),
        ),
        Stop(
            "Take it back",
            f"Nothing is ever lost: press {key_of('undo')}, and the crosses are there again.",
            lambda window: window.session.past.next is not None and not _fits(window),
        ),
        Stop(
            "And again",
            f"{key_of('redo')} makes it again. {key_of('past')} lists everything that was changed, to go back to any of it.",
            _fits,
        ),
        Stop(
            "Build and install",
            f"Go to Build ({key_of('go-build')}), press Build ({key_of('build')}), then Install ({key_of('install')}). "
            "What was written is read back and compared before it counts.",
            lambda window: window.session.game.installed and not window.session.builds.stale,
        ),
        Stop(
            "See it in the game",
            f"Go to Try ({key_of('go-try')}): the same scene before and after, and the game's own word on every swap.",
            lambda window: window.stations.shown == "try" and window.try_station.report is not None,
        ),
    )


def show_around(window: Window) -> None:
    """Begin at the first stop, or begin again."""
    for old in window.findChildren(Around):
        old.leave(ended=False)
    made = Around(window)
    window.look.dress(made)
    made.show()
    made.raise_()


def offer_around(window: Window) -> None:
    """Show somebody around who opens the demo's mod for the first time."""
    from furnel.desktop.shelf import demo_home

    space = window.session.space
    if space is not None and recall(_ENDED) is None and space.file.is_relative_to(demo_home()):
        show_around(window)


class Around(QFrame):
    """The card with the stop that is next, in the lower right of the window; notices lie over it while they are there."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self._window, self._stops, self.at = window, stops(), 0
        self.setObjectName("quick")
        self.setFixedWidth(_WIDE)
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self._count, self._title, self._words = label("", "section"), label("", "title"), label("", "caption")
        self._words.setWordWrap(True)
        self._on = button("Skip it", "To the next stop", "plain")
        self._on.clicked.connect(self._next)
        end = button(
            "End the round", "It does not come again by itself; “Show me around” begins it anew", "plain"
        )
        end.clicked.connect(lambda: self.leave())
        row = QHBoxLayout()
        row.addWidget(end)
        row.addStretch(1)
        row.addWidget(self._on)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 14, 12, 10)
        column.setSpacing(6)
        for part in (self._count, self._title, self._words):
            column.addWidget(part)
        column.addLayout(row)
        self._clock = timer(self, self._look, _LOOK_MS, repeats=True)
        self._clock.start()
        window.installEventFilter(self)
        window.session.opened.connect(self._opened)
        self._show()

    def _show(self) -> None:
        stop = self._stops[self.at]
        self._count.setText(tr(f"{self.at + 1} OF {len(self._stops)}"))
        self._title.setText(tr(stop.title))
        self._words.setText(tr(stop.words))
        self._on.setText(tr("Skip it" if self.at < len(self._stops) - 1 else "That was all"))
        self.setAccessibleName(tr(f"Shown around: {stop.title}. {stop.words}"))
        self._place()

    def _place(self) -> None:
        self.setFixedHeight(high_at(self, _WIDE))
        above = self._window.line.height()
        self.move(self._window.width() - _WIDE - _EDGE, self._window.height() - above - self.height() - _EDGE)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if watched is self._window and event is not None and event.type() == QEvent.Type.Resize:
            self._place()
        return False

    def _look(self) -> None:
        """Go on when what was to be done is done."""
        if self._stops[self.at].done(self._window):
            self._next()

    def _next(self) -> None:
        if self.at < len(self._stops) - 1:
            self.at += 1
            self._show()
            return
        self._window.session.tell(
            "calm", "That was the whole way, from the wall to the game. Your own game goes the same."
        )
        self.leave()

    def _opened(self) -> None:
        """Another mod is open: there is nothing to be shown in it."""
        if self._window.session.swap(HULL) is None:
            self.leave(ended=False)

    def leave(self, ended: bool = True) -> None:
        """End; for good when somebody wished so."""
        if ended:
            remember(_ENDED, True)
        self._clock.stop()
        self._window.removeEventFilter(self)
        self.hide()
        self.deleteLater()
