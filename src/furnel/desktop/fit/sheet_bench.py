"""The sheet bench: both sheets with their cells, the source's figures, the colours, and both animations playing in step."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QIcon, QImage, QPainter, QPaintEvent, QPixmap
from PyQt6.QtWidgets import (
    QButtonGroup,
    QHBoxLayout,
    QPushButton,
    QSizePolicy,
    QStackedWidget,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.fit.bench import Bench, view_at, zoom_at
from furnel.desktop.fit.cells_pane import CellsPane
from furnel.desktop.fit.figures_pane import FiguresPane
from furnel.desktop.fit.palette_strip import PaletteTray
from furnel.desktop.fit.playing import Playing
from furnel.desktop.fit.sheet_content import SheetContent, tinted_images
from furnel.desktop.imaging import paint_checks
from furnel.desktop.keeping import keep, kept_texts
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import as_panel, button, label, toggle
from furnel.desktop.widgets.wrapping import WrappingRow, stage_bar
from furnel.images.picture import Rgb
from furnel.sprites import Placing
from furnel.words import count

TRAYS = ("Figures", "Colours", "Ground")
TOOLS = ("Arrange", "Pencil", "Fill")
_PLAYING, _TRAY, _LEAST_TRAY = 216, 196, 110
CELL_ACTS = (
    ("mirror", "Mirror", "The other way round  (F)"),
    ("hold", "Hold", "The figure of the cell before  (H)"),
    ("larger", "Larger", "One whole time larger  (L)"),
    ("smaller", "Smaller", "One whole time smaller  (S)"),
    ("empty", "Empty", "No figure in it  (Backspace)"),
    ("keep", "Original's", "As the original has it  (K)"),
)


class _Ground(QWidget):
    """A piece of ground built of the tiles, the original's beside yours."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.images: tuple[QImage, QImage] | None = None
        self.setAccessibleName(tr("Ground built of both"))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("stage"))
        if self.images is None:
            painter.setPen(self._look.colour("quiet"))
            painter.drawText(20, 30, tr("Only a sheet of tiles is built into ground"))
            return
        half = self.width() / 2
        for side, image in enumerate(self.images):
            scale = min((half - 24) / image.width(), (self.height() - 16) / image.height())
            scale = float(int(scale)) if scale >= 1 else scale
            wide, high = image.width() * scale, image.height() * scale
            box = QRectF(half * side + (half - wide) / 2, (self.height() - high) / 2, wide, high)
            paint_checks(painter, box, self._look.colour("stage"), self._look.colour("stage-dark"), 8)
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform, scale < 1)
            painter.drawImage(box, image)


class _CellCard(QWidget):
    """What is in the chosen cells, and what can be done with it. `asked` names that."""

    asked = pyqtSignal(str)

    def __init__(self) -> None:
        super().__init__()
        as_panel(self, name="stagebar")
        row = WrappingRow(self)
        row.setContentsMargins(2, 2, 8, 2)
        self.buttons: dict[str, QPushButton] = {}
        for act, text, tip in (*CELL_ACTS, ("fill", "Fill anew", "Spread the figures over all cells again")):
            part = self.buttons[act] = button(text, tip, "plain")
            part.clicked.connect(lambda _=False, act=act: self.asked.emit(act))
            row.addWidget(part)

    def show_cells(self, content: SheetContent, cells: list[int]) -> str:
        """Offer what can be done with the chosen cells; what is in them."""
        figures = content.figures
        self.setVisible(figures.found is not None and not content.spec.meets)
        for act, part in self.buttons.items():
            part.setEnabled(bool(cells) or act == "fill")
        if not cells:
            return ""
        names = ", ".join(content.names[cell] for cell in cells[:3]) + (" …" if len(cells) > 3 else "")
        return f"{names}: {self._told(content, cells[-1])}" if figures.laid_out else names

    @staticmethod
    def _told(content: SheetContent, cell: int) -> str:
        placing = content.figures.cells[cell] if cell < len(content.figures.cells) else Placing(None)
        if placing.pose is None:
            return "the original's" if placing.keep else "empty"
        words = [f"figure {placing.pose + 1}"]
        words += ["mirrored"] if placing.flip else []
        words += [f"×{placing.scale}"] if placing.scale else []
        words += [f"moved {placing.right:+d} {placing.down:+d}"] if placing.right or placing.down else []
        return ", ".join(words)


class _Tray(QStackedWidget):
    """Below the sheets: as high as it is meant to be, lower in a small window."""

    def __init__(self) -> None:
        super().__init__()
        self.setMinimumHeight(_LEAST_TRAY)
        self.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Maximum)

    def sizeHint(self) -> QSize:
        return QSize(super().sizeHint().width(), _TRAY)

    def minimumSizeHint(self) -> QSize:
        return QSize(super().minimumSizeHint().width(), _LEAST_TRAY)


class SheetBench(Bench):
    """Compares two sheets, still and moving. What is done on it is asked for by its parts: `cells`, `source`, `colours`,
    `card`, and by `acted` (`mirror all`, `character`, `save`, `colour`)."""

    takes_frames = True
    acted = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.content: SheetContent | None = None
        self.theirs = CellsPane(look, "original", "tarn", works=False)
        self.cells = CellsPane(look, "yours", "ember", works=True)
        self.source, self.colour_tray, self.playing = FiguresPane(look), PaletteTray(look), Playing(look)
        self.colours = self.colour_tray.strip
        self.card, self._ground = _CellCard(), _Ground(look)
        self._tinted = -1  # as stored
        self._wished = (kept_texts("sheet-tray") or [""])[0]  # which tray was opened last
        self._readout = label("", "caption")
        self.tray = _Tray()
        for part in (self.source, self.colour_tray, self._ground):
            self.tray.addWidget(part)
        left = QVBoxLayout()
        left.setSpacing(1)
        for widget, stretch in (
            (self.theirs, 1),
            (self.cells, 1),
            (self.card, 0),
            (self._make_foot(), 0),
            (self.tray, 0),
        ):
            left.addWidget(widget, stretch)
        self.playing.setFixedWidth(_PLAYING)
        row = QHBoxLayout()
        row.setSpacing(1)
        row.addLayout(left, 1)
        row.addWidget(self.playing)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self._make_bar())
        column.addLayout(row, 1)
        self._join()

    def _make_bar(self) -> QWidget:
        bar, row = stage_bar()
        self.tools = QButtonGroup(self)
        for name, tip in zip(
            TOOLS, ("Choose cells and put figures into them", "Paint single pixels; the right button takes a colour",
                    "Fill what hangs together with one colour"), strict=True,
        ):  # fmt: skip
            part = toggle(name, tip, on=name == "Arrange")
            part.clicked.connect(lambda _=False, name=name: self.use_tool(name))
            self.tools.addButton(part)
            row.addWidget(part)
        self.pencil = button("", "The pencil's colour", "plain")
        self.pencil.setAccessibleName(tr("Pencil's colour"))
        self.pencil.clicked.connect(lambda: self.acted.emit("colour"))
        row.addWidget(self.pencil)
        row.add_gap(10)
        self.mirror = button("Mirror all", "Every figure the other way round", "plain")
        self.mirror.clicked.connect(lambda: self.acted.emit("mirror all"))
        self.unlike = toggle("Differences", "Show only what differs from the original")
        self.unlike.toggled.connect(self._show_unlike)
        self.tint = button(
            "As stored", "In the colours that the game multiplies it with, one after the other", "plain"
        )
        self.tint.clicked.connect(self._next_tint)
        self.character = toggle(
            "Whole character", "Changes of colour, mirroring and size go to all of its pictures"
        )
        self.save = button("Save frames…", "As a GIF or APNG, as numbered files, as layers", "plain")
        self.save.clicked.connect(lambda: self.acted.emit("save"))
        for part in (self.mirror, self.unlike, self.tint, self.character):
            row.addWidget(part)
        row.add_rest()
        row.addWidget(self.save)
        return bar

    def _make_foot(self) -> QWidget:
        foot = as_panel(QWidget(), name="stagebar")
        row = QHBoxLayout(foot)
        row.setContentsMargins(10, 3, 14, 3)
        row.setSpacing(1)
        self.trays = QButtonGroup(self)
        for place, name in enumerate(TRAYS):
            part = toggle(name, "What is shown below the sheets", on=place == 0)
            part.clicked.connect(lambda _=False, name=name: self._open_tray(name))
            self.trays.addButton(part)
            row.addWidget(part)
        row.addStretch(1)
        row.addWidget(self._readout)
        return foot

    def _join(self) -> None:
        """Let the parts follow each other."""
        self.theirs.viewed.connect(self.cells.set_view)
        self.cells.viewed.connect(self.theirs.set_view)
        for pane in (self.theirs, self.cells):
            pane.viewed.connect(lambda *_: self.looked.emit())
        self.playing.turned.connect(self._turned)
        self.cells.chosen.connect(self._chosen)
        self.colours.lit.connect(self._light)
        for pane in (self.theirs, self.cells):
            pane.pointed.connect(lambda x, y, pane=pane: self._read_out(pane, x, y))
        self.source.carried.connect(self._carried)
        self.use_tool("Arrange")
        self.use_colour((0, 0, 0))

    def show_content(self, content: SheetContent, keep_view: bool) -> None:
        """Show two sheets; the animation starts."""
        self.content = content
        if not keep_view:
            self._tinted = -1
        for pane in (self.theirs, self.cells):
            pane.show_content(content, keep_view)
        self.tint.setVisible(bool(self._tints))
        self._show_unlike(self.unlike.isChecked())
        self.unlike.setText(tr(f"Differences: {len(content.unlike)}" if content.unlike else "Differences"))
        self.playing.show_content(content, keep_view)
        self._dress(keep_view)
        self.source.show_figures(content.figures, self._source_word(), keep_view)
        left = content.marks.get("leftover", ())
        pixels = content.pictures.yours.pixels.pixels
        forgotten = frozenset(
            (int(r), int(g), int(b)) for x, y, _, _ in left for r, g, b in [pixels[y, x, :3]]
        )
        self.colours.show_colours(content.colours, forgotten, content.locked)
        self.colour_tray.tell()
        self._ground.images = content.ground
        self._ground.update()
        for name, part in zip(TRAYS, self.trays.buttons(), strict=True):
            part.setVisible(name != "Ground" or content.ground is not None)
        if not keep_view:
            wished = self._wished if self._wished in TRAYS[:2] else TRAYS[0]
            self.show_tray("Ground" if content.spec.meets else wished)
        self._chosen()
        self._light(self.colours.colour)

    def looking(self) -> list[int]:
        return view_at(*self.cells.looks)

    def look_again(self, view: list[int]) -> None:
        for pane in (self.theirs, self.cells):
            pane.set_view(*zoom_at(view))

    def _source_word(self) -> str:
        figures = self.content.figures if self.content is not None else None
        if figures is None or figures.found is None:
            return f"source: {figures.why}" if figures is not None and figures.why else "source"
        words = count(len(figures.found.poses), "figure")
        size = f", {figures.scale} times as large" if figures.laid_out and figures.scale > 1 else ""
        size = f", {-figures.scale} times smaller" if figures.laid_out and figures.scale < -1 else size
        grounds = ", ".join(f"#{bytes(colour).hex()}" for colour in figures.found.ground)
        return f"source: {words}{size}{f', ground {grounds}' if grounds else ''}"

    def show_point(self, key: str) -> bool:
        marks = self.content.marks.get(key, ()) if self.content is not None else ()
        self.cells.marks = marks
        self.cells.update()
        if not marks or self.content is None or not self.content.fits:
            return bool(marks)
        self.cells.look_at(marks[0])
        cell = self.content.grid.at(*marks[0][:2], len(self.content.names))
        if cell >= 0:
            self.playing.show_cell(cell)
        return True

    # parts

    def show_figure(self, figure: int) -> None:
        """Show a figure of the source."""
        self.show_tray("Figures")
        self.source.choose(figure)

    def _open_tray(self, name: str) -> None:
        """Show a tray, from now on for other sheets as well."""
        self._wished = name
        keep("sheet-tray", [name])
        self.show_tray(name)

    def show_tray(self, name: str) -> None:
        """Show the figures, the colours or the ground."""
        self.tray.setCurrentIndex(TRAYS.index(name))
        self.trays.buttons()[TRAYS.index(name)].setChecked(True)

    def use_tool(self, name: str) -> None:
        """Arrange figures, or paint pixels."""
        self.cells.tool = "" if name == "Arrange" else name.lower()
        self.tools.buttons()[TOOLS.index(name)].setChecked(True)
        self.pencil.setVisible(name != "Arrange")

    def use_colour(self, colour: Rgb | None) -> None:
        """Paint in a colour; None is clear."""
        self.cells.pencil = colour
        self.pencil.setText(tr(f"#{bytes(colour).hex()}" if colour is not None else "clear"))
        field = QPixmap(14, 14)
        field.fill(QColor(*colour) if colour is not None else Qt.GlobalColor.transparent)
        self.pencil.setIcon(QIcon(field))

    def _show_unlike(self, on: bool) -> None:
        self.cells.same = self.content.same if on and self.content is not None else None
        self.cells.update()

    @property
    def _tints(self) -> tuple[Rgb, ...]:
        scene = self.content.pictures.scene if self.content is not None else None
        return scene.tints if scene is not None else ()

    def _next_tint(self) -> None:
        self._tinted = (self._tinted + 2) % (len(self._tints) + 1) - 1
        self._dress(True)

    def _dress(self, keep_view: bool) -> None:
        """Make the images of the tint that is chosen; sheets are small."""
        if self.content is None:
            return
        many = len(self._tints)
        self.tint.setText(tr("As stored" if self._tinted < 0 else f"Tint {self._tinted + 1} of {many}"))
        images = tinted_images(self.content, self._tints[self._tinted] if self._tinted >= 0 else None)
        for pane, image in zip((self.theirs, self.cells), images, strict=True):
            pane.show_image(image, keep_view)
        self.playing.show_images(images)

    def _turned(self, cell: int) -> None:
        for pane in (self.theirs, self.cells):
            pane.frame = cell
            pane.update()

    def _chosen(self) -> None:
        if self.content is not None:
            told = self.card.show_cells(self.content, self.cells.cells)
            self.cells.word = f"yours · {told}" if told else "yours"
            self.cells.update()

    def _light(self, colour: Rgb | None) -> None:
        """Light the pixels of a colour up in yours."""
        if colour is None or self.content is None:
            self.cells.light(None)
            return
        pixels = self.content.pictures.yours.pixels.pixels
        self.cells.light((pixels[..., :3] == colour).all(axis=2) & (pixels[..., 3] > 0))

    def _carried(self, everywhere: QPoint) -> None:
        self.cells.aim(everywhere)

    def _read_out(self, pane: CellsPane, x: int, y: int) -> None:
        content = self.content
        if content is None:
            return
        if x < 0 or pane.image is None:
            wide, high = content.cell
            self._readout.setText(
                tr(
                    f"{content.pictures.frames} frames of {wide} × {high}, yours {content.pictures.yours_frames}"
                )
            )
            return
        colour = pane.image.pixelColor(x, y)
        told = (
            f"{colour.name()}{'' if colour.alpha() == 255 else ' half clear'}" if colour.alpha() else "clear"
        )
        cell, named = content.grid.at(x, y, len(content.names)), "between cells"
        if cell >= 0:
            left, top, _, _ = content.grid.box(cell)
            named = f"{content.names[cell]}, {x - left} {y - top}"
        self._readout.setText(tr(f"{named}  {told}  at {x}, {y}"))
