"""The picture bench: the stage with its modes and channels, the read-out, and a tray under it."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtGui import QImage
from PyQt6.QtWidgets import (
    QAbstractButton,
    QButtonGroup,
    QFrame,
    QHBoxLayout,
    QLabel,
    QScrollArea,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.fit.bench import Bench, view_at, zoom_at
from furnel.desktop.fit.distance import DistanceRow
from furnel.desktop.fit.formats import FormatCards
from furnel.desktop.fit.levels import LevelLadder
from furnel.desktop.fit.picture_content import CHANNELS, SCALES, PictureContent, Side
from furnel.desktop.fit.picture_view import MODES, PictureView
from furnel.desktop.fit.scene_view import SceneView
from furnel.desktop.fit.tones import ToneGraphs
from furnel.desktop.imaging import to_image
from furnel.desktop.keeping import keep, kept_texts
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import button, label, toggle
from furnel.desktop.widgets.icons import give_icon
from furnel.desktop.widgets.wrapping import WrappingRow, stage_bar
from furnel.mods.trials import Trial

_TRAY = 164
_READ_OUT = 300  # pixels
TRAYS = ("Levels", "From afar", "Formats", "Tones", "In the game")


class PictureBench(Bench):
    """Compares two pictures. `wanted` asks for images that are not made yet, `formats_wanted` for formats to be tried."""

    previews = True
    wanted = pyqtSignal(object)
    formats_wanted = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.view, self.ladder, self.formats = PictureView(look), LevelLadder(look), FormatCards(look)
        self._tones, self._distance, self.scene = ToneGraphs(look), DistanceRow(look), SceneView(look)
        self._content: PictureContent | None = None
        self._tried = False
        self._wished = (kept_texts("picture-tray") or [""])[0]  # which tray was opened last
        bar, row = stage_bar()
        self.modes = self._choices(row, MODES, self._set_mode, "How the two are compared")
        self._times = button("×4", "How many times differences are enlarged", "plain")
        self._times.clicked.connect(self._next_scale)
        self._times.hide()
        row.addWidget(self._times)
        row.add_gap(12)
        self.channels = self._choices(row, CHANNELS, self._set_channel, "Which channels are shown")
        row.add_rest()
        self._tiled = toggle("3×3", "See how it repeats")
        self._tiled.toggled.connect(self.view.set_tiled)
        self._whole, self._real = (
            button("fit", "As large as fits  (0)", "plain"),
            button("1:1", "One to one", "plain"),
        )
        give_icon(self._tiled, look, "repeat")
        give_icon(self._whole, look, "whole")
        self._whole.clicked.connect(lambda: self.view.set_zoom(0.0))
        self._real.clicked.connect(lambda: self.view.set_zoom(1.0))
        self._zoomed = label("", "caption")
        self._zoomed.setToolTip(
            tr("How large it is seen: the wheel zooms, dragging moves it, a double-click fits it")
        )
        self._zoomed.setAlignment(Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter)
        self._zoomed.setFixedWidth(self._zoomed.fontMetrics().horizontalAdvance("6400 %") + 4)
        self.view.zoomed.connect(lambda scale: self._zoomed.setText(f"{scale * 100:.0f} %"))
        self.view.zoomed.connect(lambda _: self.looked.emit())
        for part in (self._tiled, self._whole, self._real, self._zoomed):
            row.addWidget(part)
        self._place, self._theirs, self._yours, self._result = (
            label(),
            label("", "tarn"),
            label("", "ember"),
            label(),
        )
        foot, line = stage_bar(right=14, above=3)
        self.trays = self._choices(line, TRAYS, self._open_tray, "What is shown below the pictures")
        line.add_rest()
        line.addWidget(_in_a_line(self._place, self._theirs, self._yours, self._result))
        self._tray = QStackedWidget()
        self._fill_tray()
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        for widget, stretch in ((bar, 0), (self.view, 1), (foot, 0), (self._tray, 0)):
            column.addWidget(widget, stretch)
        self.ladder.chosen.connect(self._set_level)
        self.view.pointed.connect(self._read_out)
        self.formats.picked.connect(self._show_trial)

    def _fill_tray(self) -> None:
        self._tray.setFixedHeight(_TRAY)
        shelf = QScrollArea()
        shelf.setWidgetResizable(True)
        shelf.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        shelf.setFrameShape(QFrame.Shape.NoFrame)
        shelf.setVerticalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        shelf.setWidget(self.formats)
        for tray in (self.ladder, self._distance, shelf, self._tones, self.scene):
            self._tray.addWidget(tray)

    @property
    def content(self) -> PictureContent | None:
        return self._content

    def show_content(self, content: PictureContent, keep_view: bool) -> None:
        """Show two pictures."""
        self._content, self._tried = content, False
        self.view.show_content(content, keep_view)
        for tray in (self.ladder, self._distance, self._tones, self.scene):
            tray.show_content(content)
        if not keep_view:
            self.ladder.set_level(0)
        leveled = len(content.original.levels) > 1
        names = {"Levels": leveled, "From afar": leveled, "In the game": content.scene is not None}
        for name, part in zip(TRAYS, self.trays.buttons(), strict=True):
            part.setVisible(names.get(name, True))
        if self._wished in TRAYS and names.get(self._wished, True):
            self.show_tray(self._wished)
        elif not self._tray_button().isVisibleTo(self) or (not keep_view and content.scene is not None):
            self.show_tray(
                "In the game" if content.scene is not None else "Tones" if not leveled else "Levels"
            )
        elif TRAYS[self._tray.currentIndex()] == "Formats":
            self._try_formats()
        self._result.setText(tr(content.label))
        self._ask()
        self._read_out(-1, -1)

    def looking(self) -> list[int]:
        return view_at(self.view.zoom, self.view.shift)

    def look_again(self, view: list[int]) -> None:
        self.view.set_zoom(*zoom_at(view))

    def show_instead(self, image: QImage) -> None:
        self.view.show_instead(image)

    def _open_tray(self, name: str) -> None:
        """Show a tray from now on, wherever there is something in it."""
        self._wished = name
        keep("picture-tray", [name])
        self.show_tray(name)

    def show_tray(self, name: str) -> None:
        """Show one of the trays."""
        self._tray.setCurrentIndex(TRAYS.index(name))
        self._tray_button().setChecked(True)
        if name == "Formats":
            self._try_formats()

    def images_came(self) -> None:
        """What was asked for with `wanted` is there."""
        self.view.update()

    def _tray_button(self) -> QAbstractButton:
        return self.trays.buttons()[self._tray.currentIndex()]

    def _try_formats(self) -> None:
        if not self._tried:
            self._tried = True
            self.formats_wanted.emit()

    def _show_trial(self, trial: Trial | None) -> None:
        self.view.show_instead(
            to_image(trial.picture) if trial else None, f"yours as {trial.format}" if trial else ""
        )

    def _choices(
        self, row: WrappingRow, names: tuple[str, ...], chosen: Callable[[str], None], tip: str
    ) -> QButtonGroup:
        group = QButtonGroup(self)
        for place, name in enumerate(names):
            part = toggle(name, tip, on=place == 0)
            part.clicked.connect(lambda _=False, name=name: chosen(name))
            group.addButton(part)
            row.addWidget(part)
        return group

    def _set_mode(self, mode: str) -> None:
        self._times.setVisible(mode == "Difference")
        self.view.set_mode(mode)
        self._ask()

    def _next_scale(self) -> None:
        scale = SCALES[(SCALES.index(self.view.scale_of_difference) + 1) % len(SCALES)]
        self._times.setText(f"×{scale}")
        self.view.set_difference(scale)
        self._ask()

    def _set_channel(self, channel: str) -> None:
        self.view.set_channel(channel)
        self._ask()

    def _set_level(self, level: int) -> None:
        self.view.set_level(level)
        self._ask()

    def _ask(self) -> None:
        """Ask for the images that the stage would show and that are not made yet."""
        content, view = self._content, self.view
        if content is None:
            return
        if (
            view.mode == "Difference"
            and content.comparable
            and view.scale_of_difference not in content.differences
        ):
            self.wanted.emit(("difference", view.scale_of_difference))
        elif not all(side.has(view.level, view.channel) for side in (content.original, content.yours)):
            self.wanted.emit((view.channel, view.level))

    def _read_out(self, x: int, y: int) -> None:
        content = self._content
        if content is None:
            return
        if x < 0:
            width, height = content.original.size
            self._place.setText(f"{width} × {height}")
            self._theirs.setText("")
            same = content.comparable
            self._yours.setText(
                tr("" if same else f"yours {content.yours.size[0]} × {content.yours.size[1]}")
            )
            return
        self._place.setText(f"x {x}  y {y}")
        self._theirs.setText(tr(_pixel(content.original, x, y, content.original.size)))
        self._yours.setText(tr(_pixel(content.yours, x, y, content.original.size)))


def _in_a_line(*texts: QLabel) -> QWidget:
    """Texts that come and go to the right of each other, in the same room whatever they say."""
    whole = QWidget()
    whole.setMinimumWidth(_READ_OUT)
    row = QHBoxLayout(whole)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(14)
    row.addStretch(1)
    for text in texts:
        row.addWidget(text)
    return whole


def _pixel(side: Side, x: int, y: int, frame: tuple[int, int]) -> str:
    column, row = x * side.size[0] // frame[0], y * side.size[1] // frame[1]
    r, g, b, a = (int(value) for value in side.pixels.pixels[row, column])
    return f"{r} {g} {b}" + (f" · {a}" if side.clear else "")
