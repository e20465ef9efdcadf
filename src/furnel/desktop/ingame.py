"""What lies in the open game: the open mod as it is installed, the load order, where mods clash."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import TYPE_CHECKING, NamedTuple

from PyQt6.QtCore import QObject, pyqtSignal

from furnel import mods
from furnel.errors import FurnelError
from furnel.games import BRIDGE, Clash, InstalledMod, clashes, read_stack
from furnel.mods.past import Past
from furnel.progress import Part, Progress
from furnel.words import count

if TYPE_CHECKING:
    from furnel.desktop.session import Session
    from furnel.mods.bridge import Bridge, State
    from furnel.mods.inplace import Presence
    from furnel.mods.meeting import Decisions

Order = list[tuple[str, bool]]


@dataclass(frozen=True, slots=True)
class OrderChange:
    """A change of the load order, before and after."""

    text: str
    before: Order
    after: Order


class _Found(NamedTuple):
    """What was read from the game's folder."""

    stack: list[InstalledMod]
    clashes: list[Clash]
    presence: tuple[Presence, str]
    bridge: tuple[State, str]


class InGame(QObject):
    """How the open mod is in the game, and with which others; read from the game's own folder.

    `presence` says how the open mod is there, `foreign` why what lies in its place is not Furnel's, as found last.
    """

    changed = pyqtSignal()

    def __init__(self, session: Session) -> None:
        super().__init__(session)
        self._session = session
        self.read = False  # whether the load order was, since this game was opened
        self.stack: list[InstalledMod] = []
        self.clashes: list[Clash] = []
        self.presence: Presence = ""
        self.foreign = ""
        self.bridge: tuple[State, str] = ("", "")
        self.orders: Past[OrderChange] = Past()

    def forget(self) -> None:
        """Another game or mod is open: nothing of the one before stays."""
        self.read = False
        self.stack, self.clashes, self.presence, self.foreign = [], [], "", ""
        self.bridge = "", ""
        self.orders.clear()

    @property
    def installed(self) -> bool:
        """Whether Furnel has the open mod in the game, in whatever state."""
        return self.presence in ("built", "other", "off")

    @property
    def has_order(self) -> bool:
        """Whether the open game has a load order, rather than mods in the place of its own files."""
        catalogue = self._session.catalogue
        return catalogue is None or catalogue.install.profile.mods.has_order

    @property
    def can_start(self) -> bool:
        """Whether the open game's profile says how it is started."""
        catalogue = self._session.catalogue
        return catalogue is not None and bool(catalogue.install.profile.start.play)

    def install(self, over: bool = False) -> None:
        """Put the last build into the game; over what somebody else put there only when `over` says so."""
        session, space, built = self._session, self._session.space, self._session.builds.last
        if space is None or built is None:
            session.tell("wrong", "There is nothing to install yet: build the mod first")
            return
        install, mod = space.catalogue.install, space.project.mod.id

        def work(progress: Progress) -> str:
            mods.deploy.install_mod(install, mod, built.folder, progress, over)
            said = mods.deploy.installed_words(install, mod)
            broken = f". {count(len(built.broken), 'swap')} of it break, and were built all the same"
            return said + broken if built.broken else said

        self._do("Installing", work)

    def remove(self, over: bool = False) -> None:
        """Take the mod off the game."""
        space = self._session.space
        if space is not None:
            install, mod = space.catalogue.install, space.project.mod.id
            self._do("Removing", lambda _: mods.deploy.remove_mod(install, mod, over))

    def make_bridge(self, decisions: Decisions) -> None:
        """Make the bridge anew, with what was decided."""
        catalogue = self._session.catalogue
        if catalogue is not None:
            self._do(
                "Making the bridge",
                lambda progress: _bridged(
                    mods.bridge.make_bridge(catalogue.install, None, decisions, progress)
                ),
            )

    def remove_bridge(self) -> None:
        """Take the bridge off."""
        catalogue = self._session.catalogue
        if catalogue is not None:
            self._do("Taking the bridge off", lambda _: mods.bridge.remove_bridge(catalogue.install))

    def get(self, source: Path, mod: str = "", over: bool = False) -> None:
        """Put somebody else's mod into the game, or update it there."""
        catalogue = self._session.catalogue
        if catalogue is None:
            return

        def work(progress: Progress) -> str:
            with mods.getting.looked_into(catalogue.install, source, mod, Part(progress, 0, 0.5)) as stranger:
                mods.getting.get_mod(catalogue.install, stranger, Part(progress, 0.5, 1), over)
                return f"{stranger.name} {stranger.version} is {'updated' if stranger.there else 'in the game, and on'}"

        self._do("Getting the mod", work)

    def take_off(self, mod: str, over: bool = False) -> None:
        """Take a mod off that Furnel put into the game."""
        catalogue = self._session.catalogue
        if catalogue is not None:
            self._do("Taking the mod off", lambda _: mods.deploy.remove_mod(catalogue.install, mod, over))

    def _do(self, title: str, work: Callable[[Progress], str]) -> None:
        session = self._session

        def done(said: str) -> None:
            session.tell("calm", said)
            self.refresh()

        def failed(error: FurnelError) -> None:
            session.tell("wrong", error.sentence())
            self.refresh()

        session.jobs.start(title, work, done, failed, key="install", lane="build")

    def set_order(self, order: Order) -> None:
        """Write another load order; one change for the undo of the Try station."""
        if not self.has_order:
            return
        before = [(mod.id, mod.on) for mod in self.stack]
        if self._session.catalogue is not None and before != order:
            self.orders.push(OrderChange(_order_words(before, order, self.stack), before, order))
            self._write_order(order)

    def step(self, forward: bool) -> OrderChange | None:
        """Take the last change of the load order back, or do it again; it, or None when there is none."""
        change = self.orders.forward() if forward else self.orders.back()
        if change is not None:
            self._write_order(change.after if forward else change.before)
        return change

    def _write_order(self, order: Order) -> None:
        session = self._session
        assert session.catalogue is not None
        install = session.catalogue.install
        session.jobs.start(
            "Saving the load order",
            lambda _: mods.deploy.reorder(install, order),
            lambda _: self.refresh(),
            lane="write",
            shown=False,
        )
        session.past_changed.emit()

    def refresh(self) -> None:
        """Read the installed mods and where they clash."""
        session = self._session
        if session.catalogue is None:
            return
        install, mod = session.catalogue.install, session.project.mod.id if session.project else ""
        built: Path | None = session.builds.last.folder if session.builds.last else None

        def work(_: Progress) -> _Found:
            stack = read_stack(install)
            alone = [one for one in stack if one.id != BRIDGE]
            there = mods.deploy.presence(install, mod, built) if mod else ("", "")
            return _Found(stack, clashes(alone), there, mods.bridge.bridge_state(install))

        def done(found: _Found) -> None:
            self.read = True
            self.stack, self.clashes, (self.presence, self.foreign), self.bridge = found
            self.changed.emit()

        session.jobs.start("Reading the load order", work, done, key="stack", shown=False)


def _bridged(made: Bridge) -> str:
    """What a bridge is, in a sentence."""
    if not made.paths and made.stand.contests:
        return "A bridge has nothing to add: where mods contradict each other the last one is seen"
    if not made.paths:
        return "No bridge is needed: no mod hides what another one changes"
    left = sum(not contest.decided for contest in made.stand.contests)
    words = f"The bridge has {count(len(made.paths), 'file')} and comes last"
    return (
        f"{words}; {count(left, 'contradiction')} went to the last mod"
        if left
        else f"{words}: what was chosen is seen"
        if made.stand.contests
        else f"{words}: every mod is seen"
    )


def _order_words(before: Order, after: Order, stack: list[InstalledMod]) -> str:
    """What a change of the load order is called."""
    names = {mod.id: mod.name for mod in stack}
    switched = [(mod, on) for mod, on in after if (mod, not on) in before]
    if len(switched) == 1:
        mod, on = switched[0]
        return f"Switch {names.get(mod, mod)} {'on' if on else 'off'}"
    return "Change the load order"
