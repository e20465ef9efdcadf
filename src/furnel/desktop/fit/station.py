"""The Fit station: the queue, the bench for the kind of asset, the fit table over the steps."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QScrollArea, QStackedWidget, QVBoxLayout, QWidget

from furnel.desktop.fit.content import (
    Content,
    NoContent,
    PictureContent,
    SoundContent,
    load_content,
    step_tiles,
)
from furnel.desktop.fit.picture_bench import PictureBench
from furnel.desktop.fit.queue import SwapQueue
from furnel.desktop.fit.sheet_bench import SheetBench
from furnel.desktop.fit.sound_bench import SoundBench
from furnel.desktop.fit.steps import StepsPanel
from furnel.desktop.fit.table import FitTable
from furnel.desktop.fit.text_bench import TextBench
from furnel.desktop.look import Look
from furnel.desktop.playback import Player
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, TileStore
from furnel.desktop.widgets.basics import hairline, label
from furnel.mods.fit import stops_between
from furnel.mods.project import StepUse
from furnel.mods.spec import PictureSpec, SoundSpec
from furnel.mods.workspace import Examined


class _Benches(QStackedWidget):
    """The benches, one shown; a file dropped on it becomes the swap's source."""

    dropped = pyqtSignal(object)

    def __init__(self, look: Look, player: Player) -> None:
        super().__init__()
        self.picture, self.sheet = PictureBench(look), SheetBench(look)
        self.sound, self.text = SoundBench(look, player), TextBench(look)
        self.empty = label("", "caption")
        self.empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self.empty.setWordWrap(True)
        self.empty.setContentsMargins(60, 0, 60, 0)
        for bench in (self.empty, self.picture, self.sheet, self.sound, self.text):
            self.addWidget(bench)
        self.setAcceptDrops(True)

    def show_content(self, content: Content, keep_view: bool) -> None:
        """Show the bench that goes with the content."""
        if isinstance(content, NoContent):
            self.empty.setText(content.why)
            self.setCurrentWidget(self.empty)
            return
        bench = self._bench(content)
        bench.show_content(content, keep_view)  # type: ignore[attr-defined]
        self.setCurrentWidget(bench)

    def _bench(self, content: Content) -> QWidget:
        if isinstance(content, PictureContent):
            return self.sheet if content.cell is not None else self.picture
        return self.sound if isinstance(content, SoundContent) else self.text

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        if event is not None and event.mimeData().hasUrls():
            event.acceptProposedAction()

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None:
            files = [Path(url.toLocalFile()) for url in event.mimeData().urls() if url.isLocalFile()]
            if files:
                self.dropped.emit(files[0])


class FitStation(QWidget):
    """Make swaps match. `wanted` asks the window for a command."""

    wanted = pyqtSignal(str)

    def __init__(
        self, look: Look, session: Session, tiles: TileStore, results: ResultTiles, player: Player
    ) -> None:
        super().__init__()
        self._session, self._player = session, player
        self.queue, self.benches = SwapQueue(look, session, tiles, results), _Benches(look, player)
        self.table, self.steps = FitTable(look), StepsPanel(look)
        self._shown: tuple[str, str] = ("", "")
        self._thumbs_of = ""
        panel = QWidget()
        panel.setObjectName("panel")
        column = QVBoxLayout(panel)
        column.setContentsMargins(14, 14, 14, 14)
        column.setSpacing(10)
        column.addWidget(self.table)
        column.addWidget(hairline())
        column.addWidget(self.steps, 1)
        self._side = QScrollArea()
        self._side.setWidgetResizable(True)
        self._side.setFrameShape(QFrame.Shape.NoFrame)
        self._side.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._side.setFixedWidth(336)
        self._side.setWidget(panel)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.queue)
        row.addWidget(self.benches, 1)
        row.addWidget(self._side)
        self.queue.picked.connect(self._picked)
        self.queue.dropped.connect(lambda original, file: session.swap_with(original, file))
        self.benches.dropped.connect(self._drop)
        self.benches.sound.silent.connect(
            lambda: session.tell("calm", "There is no sound device: everything but hearing works")
        )
        self.table.wanted.connect(self.wanted)
        self.table.mend.connect(self._mend)
        self.steps.changed.connect(session.set_swap)
        session.project_changed.connect(self._show)
        session.fitted.connect(self._fitted)

    @property
    def current(self) -> str:
        """The original whose swap is on the bench."""
        return self.queue.rows.current

    def pick(self, original: str) -> None:
        """Put a swap on the bench."""
        self.queue.rows.pick(original)

    def _picked(self, _: str) -> None:
        self._thumbs_of = ""
        self._show()

    def _drop(self, file: Path) -> None:
        if self.current:
            self._session.swap_with(self.current, file)

    def _fitted(self, original: str) -> None:
        if original == self.current:
            self._show()

    def _show(self) -> None:
        swap = self._session.swap(self.current)
        self._side.setVisible(swap is not None)
        if swap is None:
            self._shown = ("", "")
            self.steps.show_swap(None, "")
            self.benches.show_content(
                NoContent(
                    "No swaps yet. Go to Find (Ctrl+1) and drop a file on the asset that it should replace."
                ),
                False,
            )
            return
        asset = self._session.asset(swap.original)
        kind = {"texture": "picture", "sheet": "picture", "sound": "sound", "music": "sound"}.get(
            asset.facts.kind if asset else "", ""
        )
        self.steps.show_swap(swap, kind)
        examined = self._session.examined.get(swap.original)
        name = asset.name if asset else swap.original.rpartition("/")[2]
        self.table.show_swap(name, swap.source, examined.points if examined else ())
        if examined is not None:
            self._load(examined)
            self._load_thumbs(examined)

    def _load_thumbs(self, examined: Examined) -> None:
        space, swap = self._session.space, examined.swap
        if space is None or not swap.steps or self._thumbs_of == examined.key:
            return

        def done(tiles: tuple[Tile, ...]) -> None:
            if self.current == swap.original:
                self._thumbs_of = examined.key
                self.steps.show_tiles(tiles)

        self._session.jobs.start(
            "Small pictures of the steps",
            lambda _: step_tiles(space, swap),
            done,
            lambda _: None,
            key="thumbs",
            shown=False,
        )

    def _load(self, examined: Examined) -> None:
        catalogue = self._session.catalogue
        original = examined.swap.original
        if catalogue is None or self._shown == (original, examined.key):
            return
        keep_view = self._shown[0] == original

        def done(content: Content) -> None:
            if self.current == original:
                if not keep_view and self._player.playing:
                    self._player.stop()
                self._shown = (original, examined.key)
                self.benches.show_content(content, keep_view)

        self._session.jobs.start(
            "Opening the bench", lambda _: load_content(catalogue, examined), done, key="bench", shown=False
        )

    def _mend(self, key: str) -> None:
        swap = self._session.swap(self.current)
        examined = self._session.examined.get(self.current)
        if swap is None or examined is None:
            return
        original, result = examined.original, examined.result
        use = None
        if isinstance(original, PictureSpec) and isinstance(result, PictureSpec):
            use = _remedy(key, original, result)
        elif isinstance(original, SoundSpec) and key == "loudness":
            use = StepUse(do="loudness", values={"target": round(original.loudness, 1)})
        if use is not None:
            others = tuple(step for step in swap.steps if step.do != use.do or use.do == "brightness")
            self._session.set_swap(swap.model_copy(update={"steps": (*others, use)}), f"Match {key}")
        if swap.encode is None:
            self.wanted.emit("fit-all")


def _remedy(key: str, original: PictureSpec, result: PictureSpec) -> StepUse | None:
    if key == "brightness":
        stops = max(-4.0, min(round(stops_between(original, result), 1), 4.0))
        return StepUse(do="brightness", values={"stops": stops})
    if key == "alpha" and original.alpha == "none":
        return StepUse(do="opaque")
    if key == "alpha" and result.background is not None:
        colour = "{:02x}{:02x}{:02x}".format(*result.background)
        return StepUse(do="clear-colour", values={"colour": colour, "tolerance": 12, "softness": 0})
    return None
