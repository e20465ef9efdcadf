"""The Fit station: the queue, the bench for the kind of asset, the fit table over the steps."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QScrollArea, QVBoxLayout, QWidget

from furnel.desktop.actions import key_of
from furnel.desktop.fit.bench import Hands
from furnel.desktop.fit.benches import Benches, Loaded, NoContent, bench_of, load_content, step_tiles
from furnel.desktop.fit.changes_panel import ChangesPanel
from furnel.desktop.fit.kin import KinOffer
from furnel.desktop.fit.queue import SwapQueue
from furnel.desktop.fit.quick import QuickLook
from furnel.desktop.fit.steps import StepsPanel
from furnel.desktop.fit.table import FitTable
from furnel.desktop.look import Look
from furnel.desktop.playback import Player
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, TileStore
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import hairline
from furnel.desktop.widgets.dropping import encoded_picture
from furnel.desktop.widgets.panes import SidePane
from furnel.media import medium_of_kind
from furnel.mods.fit import mended, with_encoding
from furnel.mods.project import Swap
from furnel.mods.results import ResultBytes
from furnel.mods.steps import STEP_DOMAINS
from furnel.mods.workspace import Examined

_LATE_MS = 250  # how long what was on the bench may stand while another is opened


class FitStation(QWidget):
    """Make swaps match. `wanted` asks the window for a command, `asset_wanted` to show an asset on the wall."""

    wanted = pyqtSignal(str)
    asset_wanted = pyqtSignal(str)

    def __init__(
        self, look: Look, session: Session, tiles: TileStore, results: ResultTiles, player: Player
    ) -> None:
        super().__init__()
        self._session, self._player = session, player
        self.queue, self.table, self.steps = (
            SwapQueue(look, session, tiles, results),
            FitTable(look),
            StepsPanel(look),
        )
        self._hands = Hands(
            look, session, player, self.steps, self._swap, self.pick, tiles, self.asset_wanted.emit
        )
        self.benches = Benches(self._hands)
        self.changes = ChangesPanel(look)
        self._shown: tuple[str, str] = ("", "")
        self._thumbs_of = ""
        self._late = timer(self, self._blank, _LATE_MS)
        self._quick = QuickLook()
        self._due = True
        self._left = SidePane(look, "queue", "The queue", self.queue, "left", 219)
        self._side = SidePane(look, "points", "Points and steps", self._make_side(), "right", 331)
        self.kin = KinOffer(session)
        middle = QVBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.kin)
        middle.addWidget(self.benches, 1)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self._left)
        row.addLayout(middle, 1)
        row.addWidget(self._side)
        self.setFocusProxy(self.queue.rows)
        self.queue.picked.connect(self._picked)
        self.queue.dropped.connect(lambda original, file: session.swaps.swap_with(original, file))
        self.benches.dropped.connect(self._drop)
        self.benches.pictured.connect(self._take_picture)
        self.queue.begun.connect(lambda assets: session.swaps.begin_with_own(assets, self.pick))
        self.benches.given.connect(
            lambda asset: session.swaps.swap_with_own(self.current, asset) if self.current else None
        )
        self.table.wanted.connect(self.wanted)
        self.table.mend.connect(self._mend)
        self.table.insist.connect(self._insist)
        self.table.shown.connect(self._show_point)
        self.steps.changed.connect(self._hands.change)
        self.steps.refused.connect(lambda text: session.tell("wrong", text))
        self.changes.dropped.connect(lambda address: session.swaps.take_games(self.current, address))
        self.steps.previewed.connect(self._preview)
        session.opened.connect(self._forget)
        session.project_changed.connect(self._show)
        session.learned.marked.connect(lambda: self.kin.show_for(self.current))
        session.fitted.connect(self._fitted)

    def _make_side(self) -> QScrollArea:
        """The fit table over the steps, or over a definition's changes."""
        panel = QWidget()
        panel.setObjectName("panel")
        column = QVBoxLayout(panel)
        column.setContentsMargins(14, 14, 14, 14)
        column.setSpacing(10)
        column.addWidget(self.table)
        column.addWidget(hairline())
        column.addWidget(self.steps, 1)
        column.addWidget(self.changes, 1)
        made = QScrollArea()
        made.setWidgetResizable(True)
        made.setFrameShape(QFrame.Shape.NoFrame)
        made.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        made.setWidget(panel)
        return made

    def parts(self) -> tuple[QWidget, ...]:
        """What it is made of, to be dressed one by one: there is much in it that is not seen at one time."""
        return self._left, self.kin, self._side

    @property
    def current(self) -> str:
        """The original whose swap is on the bench."""
        return self.queue.rows.current

    def _swap(self) -> Swap | None:
        return self._session.swap(self.current)

    def pick(self, original: str) -> None:
        """Put a swap on the bench."""
        self.queue.rows.pick(original)

    def _picked(self, _: str) -> None:
        self._thumbs_of = ""
        self._show()

    def _drop(self, files: list[Path]) -> None:
        """Take a file as the source; several, or a folder, as frames of a sheet."""
        if not self.current:
            return
        bench = self.benches.shown
        if (len(files) == 1 and not files[0].is_dir()) or bench is None or not bench.takes_frames:
            self._session.swaps.swap_with(self.current, files[0])
        else:
            self._session.swaps.swap_with_frames(self.current, files)

    def _take_picture(self, picture: QImage) -> None:
        if original := self.current:
            swaps, encoded = self._session.swaps, encoded_picture(picture)
            swaps.keep_picture(original, encoded, lambda file: swaps.swap_with(original, file))

    def _forget(self) -> None:
        """Another mod is open: nothing of the one before stays."""
        self._shown, self._thumbs_of = ("", ""), ""
        self._quick = QuickLook()

    def _fitted(self, original: str) -> None:
        if original == self.current or original in self._beside():
            self._show()

    def _beside(self) -> tuple[str, ...]:
        """The other swaps that are shown together with the one on the bench."""
        space, examined = self._session.space, self._session.examined.get(self.current)
        bench = bench_of(examined) if examined is not None else None
        return bench.beside(space, self.current) if space is not None and bench is not None else ()

    def showEvent(self, event: object) -> None:
        if self._due:
            self._show()

    def _show(self) -> None:
        """Show the swap on the bench; while the station is not seen, when it is seen again."""
        self._due = not self.isVisible()
        if self._due:
            return
        swap = self._session.swap(self.current)
        self.kin.show_for(self.current)
        self._side.setVisible(swap is not None)
        if swap is None:
            self._shown = ("", "")
            self.steps.show_swap(None, "")
            self.benches.show_content(
                NoContent(
                    f"No swaps yet. Go to Find ({key_of('go-find')}) and drop a file on the asset that it should replace."
                ),
                False,
            )
            return
        asset = self._session.asset(swap.base)
        domain = medium_of_kind(asset.facts.kind).name if asset else ""
        of_values = not swap.source
        self.steps.setVisible(not of_values)
        self.changes.setVisible(of_values)
        self.steps.show_swap(swap, domain if domain in STEP_DOMAINS else "")
        if of_values:
            self.changes.show_swap(swap)
        examined = self._session.examined.get(swap.original)
        name = self._session.name_of(swap.original)
        points = examined.points if examined else ()
        self.table.show_swap(name, swap.made_from, points, _mendable(swap, examined), not of_values)
        if self._shown[0] != swap.original:
            self._late.start()
        if examined is not None:
            self._load(examined)
            self._load_thumbs(examined)

    def _blank(self) -> None:
        """Take what another swap has off the bench where this one is long in coming."""
        if self.current and self._shown[0] != self.current:
            self._shown = ("", "")
            name = self._session.name_of(self.current)
            self.benches.show_content(NoContent(f"{name} is being worked out"), False)

    def _load_thumbs(self, examined: Examined) -> None:
        space, swap = self._session.space, examined.swap
        if space is None or not swap.steps or self._thumbs_of == examined.key:
            return

        def done(made: tuple[tuple[Tile, ...], dict[int, str]]) -> None:
            if self.current == swap.original:
                self._thumbs_of = examined.key
                self.steps.show_tiles(*made)

        self._session.jobs.start(
            "Small pictures of the steps",
            lambda progress: step_tiles(space, swap, progress),
            done,
            lambda _: None,
            key="thumbs",
            lane="eye",
            shown=False,
        )

    def _load(self, examined: Examined) -> None:
        catalogue = self._session.catalogue
        original = examined.swap.original
        shown = original, f"{examined.key} {self._neighbours()}"
        if catalogue is None or self._shown == shown:
            return
        keep_view = self._shown[0] == original
        project = self._session.space.file if self._session.space is not None else ""
        results = ResultBytes(self._session.examined)

        def done(content: Loaded | NoContent) -> None:
            if self.current == original:
                if not keep_view and self._player.playing:
                    self._player.stop()
                self._shown = shown
                self.benches.show_content(content, keep_view, f"{project} {original}")

        self._session.jobs.start(
            "Opening the bench",
            lambda _: load_content(catalogue, examined, results, self._session.space),
            done,
            key="bench",
            lane="eye",
            shown=False,
        )

    def _neighbours(self) -> str:
        """What else the bench shows changes with: the events' settings and the results beside."""
        project, known, beside = self._session.project, self._session.examined, self._beside()
        if project is None or not beside:
            return ""
        return f"{project.events} {[known[path].key for path in beside if path in known]}"

    def _mend(self, key: str) -> None:
        swap = self._session.swap(self.current)
        examined = self._session.examined.get(self.current)
        if (
            swap is not None
            and examined is not None
            and any(point.leads_to for point in examined.points if point.key == key)
        ):
            self._session.swaps.follow(swap, self.pick)
            return
        if swap is not None and swap.changes and key == "drift":
            self._session.swaps.settle(swap)
        if swap is None or examined is None or examined.original is None or examined.result is None:
            return
        better = mended(swap, key, examined.original, examined.result)
        if better is not None:
            self._session.swaps.set_swap(with_encoding(better, examined.original), f"Match {key}")

    def _show_point(self, key: str) -> None:
        bench = self.benches.shown
        if bench is not None:
            bench.show_point(key)

    def _insist(self, key: str, on: bool) -> None:
        swap = self._session.swap(self.current)
        if swap is not None:
            others = tuple(known for known in swap.insist if known != key)
            keys = (*others, key) if on else others
            self._session.swaps.set_swap(
                swap.model_copy(update={"insist": keys}), f"{'Keep' if on else 'No longer keep'} {key}"
            )

    def _preview(self, swap: Swap) -> None:
        """A quick look at steps that are being changed, at the stage's own size."""
        space, bench = self._session.space, self.benches.shown
        if space is None or bench is None or not bench.previews:
            return

        def done(image: QImage | None) -> None:
            if image is not None and self.current == swap.original:
                bench.show_instead(image)

        self._session.jobs.start(
            "A quick look",
            lambda _: self._quick.look(space, swap),
            done,
            lambda _: None,
            key="quick look",
            lane="eye",
            shown=False,
        )


def _mendable(swap: Swap, examined: Examined | None) -> frozenset[str]:
    """The points that one step or setting, or another original, puts right."""
    if examined is None:
        return frozenset()
    moved = frozenset(
        point.key for point in examined.points if point.leads_to or (point.key == "drift" and swap.changes)
    )
    if examined.original is None or examined.result is None:
        return moved
    original, result = examined.original, examined.result
    return moved | {
        point.key for point in examined.points if mended(swap, point.key, original, result) is not None
    }
