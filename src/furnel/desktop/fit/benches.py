"""All benches, and the place where one of them is shown."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import QStackedWidget

from furnel.catalogue import Catalogue
from furnel.desktop.fit.arranging import SHEET_BENCH
from furnel.desktop.fit.bench import Bench, BenchType, Hands, Loading
from furnel.desktop.fit.definition_bench import DEFINITION_BENCH
from furnel.desktop.fit.hearing import SOUND_BENCH
from furnel.desktop.fit.seeing import PICTURE_BENCH
from furnel.desktop.keeping import Views
from furnel.desktop.language import tr
from furnel.desktop.tiles import Tile, tile_of
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import label
from furnel.desktop.widgets.dropping import assets_in, files_of, picture_in, welcome_files
from furnel.errors import FurnelError
from furnel.media import Kind, media_preview
from furnel.mods.project import Swap
from furnel.mods.workspace import Examined, Workspace
from furnel.progress import QUIET, Progress

BENCHES: tuple[BenchType, ...] = (PICTURE_BENCH, SHEET_BENCH, SOUND_BENCH, DEFINITION_BENCH)
_BY_KIND = {kind: bench for bench in BENCHES for kind in bench.kinds}


@dataclass(frozen=True, slots=True)
class NoContent:
    """Why there is nothing to show."""

    why: str


@dataclass(frozen=True, slots=True)
class Loaded:
    """A bench and what it is to show."""

    bench: BenchType
    content: object


def bench_of(examined: Examined) -> BenchType | None:
    """The bench for a swap, as far as it has one."""
    return _BY_KIND.get(examined.original.kind) if examined.original is not None else None


def load_content(
    catalogue: Catalogue, examined: Examined, results: Mapping[str, bytes], space: Workspace | None = None
) -> Loaded | NoContent:
    """Decode an examined swap for its bench; `results` are the other swaps'. Damage becomes `NoContent`."""
    path, bench = examined.swap.base, bench_of(examined)
    if not catalogue.has(path):
        return NoContent(f"The game has no {path}")
    try:
        original, yours = catalogue.bytes_of(path), examined.data
        if not yours:
            return NoContent(examined.points[0].why if examined.points else "There is no result yet")
        if bench is None:
            return NoContent("This kind of file has no bench yet; the build takes it as it is")
        name = path if examined.swap.keeps_name else examined.swap.source
        return Loaded(bench, bench.load(Loading(original, yours, name, examined, catalogue, results, space)))
    except FurnelError as error:
        return NoContent(error.sentence())


def step_tiles(
    space: Workspace, swap: Swap, progress: Progress = QUIET
) -> tuple[tuple[Tile, ...], dict[int, str]]:
    """A tile of what every step gives that is on, in order, and what steps say of their work, by place.

    Empty when the source cannot be read.
    """
    told: dict[int, str] = {}
    try:
        return tuple(tile_of(media_preview(media)) for media in space.stages(swap, told, progress)[1]), told
    except FurnelError:
        return (), {}


class Benches(QStackedWidget):
    """The benches, each made when it is first shown; files, pictures and assets dropped on it become the swap's source."""

    dropped = pyqtSignal(object)
    pictured = pyqtSignal(object)
    given = pyqtSignal(str)

    def __init__(self, hands: Hands) -> None:
        super().__init__()
        self._hands = hands
        self._made: dict[int, Bench] = {}
        self._views, self._key = Views("views"), ""
        self._later = timer(self, self._keep_view, 300)
        self._empty = label("", "caption")
        self._empty.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._empty.setWordWrap(True)
        self._empty.setContentsMargins(60, 0, 60, 0)
        self.addWidget(self._empty)
        hands.look.dress(self._empty)
        self.setAcceptDrops(True)

    def of(self, kind: Kind) -> Any:
        """The bench for a kind of asset."""
        return self._bench(_BY_KIND[kind])

    def _bench(self, bench: BenchType) -> Bench:
        place = BENCHES.index(bench)
        if place not in self._made:
            made = self._made[place] = bench.make(self._hands)
            made.looked.connect(lambda: self._later.start() if made is self.currentWidget() else None)
            self._hands.look.dress(made)
            self.addWidget(made)
        return self._made[place]

    @property
    def shown(self) -> Bench | None:
        """The bench that is shown, if any is."""
        widget = self.currentWidget()
        return widget if isinstance(widget, Bench) else None

    def _keep_view(self) -> None:
        if self.shown is not None and self._key:
            self._views.keep(self._key, self.shown.looking())

    def show_content(self, loaded: Loaded | NoContent, keep_view: bool, key: str = "") -> None:
        """Show the bench that goes with the content; as it was looked at last by its `key`, unless the view is kept."""
        if self._later.isActive():  # before another thing stands there
            self._later.stop()
            self._keep_view()
        self._key = key
        if isinstance(loaded, NoContent):
            self._empty.setText(tr(loaded.why))
            self.setCurrentWidget(self._empty)
            return
        bench = self._bench(loaded.bench)
        bench.show_content(loaded.content, keep_view)
        self.setCurrentWidget(bench)
        if not keep_view and (view := self._views.of(key)):
            bench.look_again(view)

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event, pictures=True, assets=True)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if event is not None:
            files, picture = files_of(event), picture_in(event.mimeData())
            if assets := assets_in(event.mimeData()):
                self.given.emit(assets[0])
            elif files:
                self.dropped.emit(files)
            elif picture is not None:
                self.pictured.emit(picture)
