"""The Fit station: the queue, the bench for the kind of asset, the fit table over the steps."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QImage
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QScrollArea, QStackedWidget, QVBoxLayout, QWidget

from furnel.desktop.fit.content import (
    Content,
    NoContent,
    load_content,
    step_tiles,
)
from furnel.desktop.fit.hearing import Hearing
from furnel.desktop.fit.kin import KinOffer
from furnel.desktop.fit.picture_bench import PictureBench
from furnel.desktop.fit.picture_content import PictureContent, channel_images, difference_image
from furnel.desktop.fit.queue import SwapQueue
from furnel.desktop.fit.quick import QuickLook
from furnel.desktop.fit.sheet_bench import SheetBench
from furnel.desktop.fit.sound_bench import SoundBench
from furnel.desktop.fit.sound_content import SoundContent
from furnel.desktop.fit.steps import StepsPanel
from furnel.desktop.fit.table import FitTable
from furnel.desktop.fit.text_bench import TextBench
from furnel.desktop.look import Look
from furnel.desktop.playback import Player
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, TileStore
from furnel.desktop.widgets.basics import hairline, label
from furnel.images.picture import Picture
from furnel.mods.events import event_of
from furnel.mods.fit import mended, with_encoding, with_format
from furnel.mods.project import Swap
from furnel.mods.results import ResultBytes
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec
from furnel.mods.trials import Trial, allowed_formats, try_formats
from furnel.mods.workspace import Examined
from furnel.progress import Progress


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
        self._quick = QuickLook()
        self._due = True
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
        self.kin = KinOffer(session)
        middle = QVBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.kin)
        middle.addWidget(self.benches, 1)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(self.queue)
        row.addLayout(middle, 1)
        row.addWidget(self._side)
        self.queue.picked.connect(self._picked)
        self.queue.dropped.connect(lambda original, file: session.swap_with(original, file))
        self.benches.dropped.connect(self._drop)
        self.hearing = Hearing(self.benches.sound, session, lambda: session.swap(self.current), self.pick)
        self.table.wanted.connect(self.wanted)
        self.table.mend.connect(self._mend)
        self.table.insist.connect(self._insist)
        self.steps.changed.connect(self._change)
        self.steps.previewed.connect(self._preview)
        picture = self.benches.picture
        self.steps.area_open.connect(picture.view.set_area)
        picture.view.area_moving.connect(lambda box: self.steps.move_area(box, False))
        picture.view.area_moved.connect(lambda box: self.steps.move_area(box, True))
        picture.wanted.connect(self._make_images)
        picture.scene.wanted.connect(self._draw_scene)
        picture.formats_wanted.connect(self._try_formats)
        picture.formats.used.connect(self._use_format)
        session.opened.connect(self._forget)
        session.project_changed.connect(self._show)
        session.marked.connect(lambda: self.kin.show_for(self.current))
        session.fitted.connect(self._fitted)

    def parts(self) -> tuple[QWidget, ...]:
        """What it is made of, to be dressed one by one: there is much in it that is not seen at one time."""
        benches = self.benches
        return (
            self.queue,
            self.kin,
            self._side,
            benches.empty,
            benches.picture,
            benches.sheet,
            benches.sound,
            benches.text,
        )

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

    def _forget(self) -> None:
        """Another mod is open: nothing of the one before stays."""
        self._shown, self._thumbs_of = ("", ""), ""
        self._quick = QuickLook()

    def _fitted(self, original: str) -> None:
        if original == self.current or original in self._beside():
            self._show()

    def _beside(self) -> tuple[str, ...]:
        """The other sounds of the event that the swap on the bench belongs to."""
        space = self._session.space
        event = event_of(space, self.current) if space is not None and self.current else None
        return event.sounds if event is not None else ()

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
                    "No swaps yet. Go to Find (Ctrl+1) and drop a file on the asset that it should replace."
                ),
                False,
            )
            return
        asset = self._session.asset(swap.base)
        kind = {"texture": "picture", "sheet": "picture", "sound": "sound", "music": "sound"}.get(
            asset.facts.kind if asset else "", ""
        )
        self.steps.show_swap(swap, kind)
        examined = self._session.examined.get(swap.original)
        name = self._session.name_of(swap.original)
        self.table.show_swap(
            name, swap.source, examined.points if examined else (), _mendable(swap, examined)
        )
        if examined is not None:
            self._load(examined)
            self._load_thumbs(examined)

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
            lambda _: step_tiles(space, swap),
            done,
            lambda _: None,
            key="thumbs",
            lane="eye",
            shown=False,
        )

    def _load(self, examined: Examined) -> None:
        catalogue = self._session.catalogue
        original = examined.swap.original
        shown = original, f"{examined.key} {self._neighbours(examined)}"
        if catalogue is None or self._shown == shown:
            return
        keep_view = self._shown[0] == original
        results = ResultBytes(self._session.examined)

        def done(content: Content) -> None:
            if self.current == original:
                if not keep_view and self._player.playing:
                    self._player.stop()
                self._shown = shown
                self.benches.show_content(content, keep_view)

        self._session.jobs.start(
            "Opening the bench",
            lambda _: load_content(catalogue, examined, results, self._session.space),
            done,
            key="bench",
            lane="eye",
            shown=False,
        )

    def _neighbours(self, examined: Examined) -> str:
        """What else the sound bench shows: the event's settings and its other sounds."""
        project = self._session.project
        if project is None or not isinstance(examined.original, SoundSpec):
            return ""
        known = self._session.examined
        return f"{project.events} {[known[path].key for path in self._beside() if path in known]}"

    def _change(self, swap: Swap, text: str) -> None:
        """Take changed steps; the first ones bring an encoding like the original's with them."""
        examined = self._session.examined.get(swap.original)
        if examined is not None and examined.original is not None:
            swap = with_encoding(swap, examined.original)
        self._session.set_swap(swap, text)

    def _mend(self, key: str) -> None:
        swap = self._session.swap(self.current)
        examined = self._session.examined.get(self.current)
        if (
            swap is not None
            and examined is not None
            and any(point.leads_to for point in examined.points if point.key == key)
        ):
            self._session.follow(swap, self.pick)
            return
        if swap is None or examined is None or examined.original is None or examined.result is None:
            return
        better = mended(swap, key, examined.original, examined.result)
        if better is not None:
            self._session.set_swap(with_encoding(better, examined.original), f"Match {key}")

    def _insist(self, key: str, on: bool) -> None:
        swap = self._session.swap(self.current)
        if swap is not None:
            others = tuple(known for known in swap.insist if known != key)
            keys = (*others, key) if on else others
            self._session.set_swap(
                swap.model_copy(update={"insist": keys}), f"{'Keep' if on else 'No longer keep'} {key}"
            )

    def _preview(self, swap: Swap) -> None:
        """A quick look at steps that are being changed, at the stage's own size."""
        space = self._session.space
        if space is None:
            return

        def done(image: QImage | None) -> None:
            if image is not None and self.current == swap.original:
                self.benches.picture.view.show_instead(image)

        self._session.jobs.start(
            "A quick look",
            lambda _: self._quick.look(space, swap),
            done,
            lambda _: None,
            key="quick look",
            lane="eye",
            shown=False,
        )

    def _make_images(self, wanted: tuple[str, int]) -> None:
        bench = self.benches.picture
        content = bench.content
        if content is None:
            return
        what, number = wanted

        def work(_: object) -> None:
            if what == "difference":
                difference_image(content, number)
            else:
                channel_images(content, number, what)

        self._session.jobs.start(
            "Preparing the picture",
            work,
            lambda _: bench.images_came(),
            key=f"bench {what}",
            lane="eye",
            shown=False,
        )

    def _draw_scene(self, make: Callable[[], tuple[list[QImage], list[QImage]]]) -> None:
        """Put the role's preview together; of several wishes the newest counts."""
        self._session.jobs.start(
            "Putting the preview together",
            lambda _: make(),
            self.benches.picture.scene.show_images,
            key="scene",
            lane="eye",
            shown=False,
        )

    def _use_format(self, name: str) -> None:
        """Encode with a format; one that is not the original's is kept against it."""
        swap, examined = self._session.swap(self.current), self._session.examined.get(self.current)
        if swap is not None and examined is not None and examined.original is not None:
            self._session.set_swap(with_format(swap, examined.original, name), f"Encode as {name}")

    def _try_formats(self) -> None:
        """Try the formats on what the steps give, one after the other."""
        bench, space = self.benches.picture, self._session.space
        swap, content = self._session.swap(self.current), bench.content
        if space is None or swap is None or content is None:
            return
        quality = swap.encode.quality if swap.encode else "good"
        examined = self._session.examined.get(swap.original)
        wanted = examined.original.format if examined and isinstance(examined.original, PictureSpec) else ""
        now = swap.encode.format if swap.encode else ""
        bench.formats.start(now, wanted, "Trying the formats…")

        def work(progress: Progress) -> list[Trial]:
            media, done = space.stages(swap)
            picture = done[-1] if done else media
            if not isinstance(picture, Picture):
                return []
            names = allowed_formats(content.file_type, picture)
            return list(try_formats(picture, names, quality, content.levels, progress))

        def done(found: list[Trial]) -> None:
            if bench.content is not content:
                return
            for trial in found:
                bench.formats.add(trial)
            bench.formats.finish("" if found else f"{content.file_type} has no formats to choose from")

        self._session.jobs.start(
            f"Trying formats for {swap.original.rpartition('/')[2]}", work, done, key="formats"
        )


def _mendable(swap: Swap, examined: Examined | None) -> frozenset[str]:
    """The points that one step or setting, or another original, puts right."""
    if examined is None:
        return frozenset()
    moved = frozenset(point.key for point in examined.points if point.leads_to)
    if examined.original is None or examined.result is None:
        return moved
    original, result = examined.original, examined.result
    return moved | {
        point.key for point in examined.points if mended(swap, point.key, original, result) is not None
    }
