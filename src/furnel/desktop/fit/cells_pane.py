"""A sheet with its cells: named, chosen, filled with figures, its pixels painted."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFocusEvent, QImage, QKeyEvent, QMouseEvent, QPainter, QPen

from furnel.desktop.fit.pixel_pane import PixelPane
from furnel.desktop.fit.sheet_content import Box, SheetContent
from furnel.desktop.imaging import to_image
from furnel.desktop.look import Look, font
from furnel.images.picture import Picture, Rgb
from furnel.sprites.layout import Mask

_WIDE = 52.0  # so wide a cell has room for the name and number of a frame
_NAMED_FROM = 26.0  # a cell narrower than this on the screen has no name in it
_KEYS = {
    Qt.Key.Key_Left: (-1, 0), Qt.Key.Key_Right: (1, 0), Qt.Key.Key_Up: (0, -1), Qt.Key.Key_Down: (0, 1)
}  # fmt: skip


class CellsPane(PixelPane):
    """One of both sheets. Only yours can be worked on: `chosen` tells that other cells are, `nudged` asks for figures to be
    moved (right, down), `asked` for what a key means (`mirror`, `hold`, `empty`, `keep`, `larger`, `smaller`), `picked` gives a
    colour under the pointer, `drawn` a stroke's pixels."""

    KEYS_HERE = (
        ("Arrows", "from cell to cell"),
        ("Shift and arrows", "nudge by a pixel of the drawing"),
        ("F", "mirror"),
        ("H", "hold the pose"),
        ("K", "keep the original cell"),
        ("L, S", "larger and smaller"),
        ("Backspace", "empty it"),
    )

    chosen = pyqtSignal()
    nudged = pyqtSignal(int, int)
    asked = pyqtSignal(str)
    picked = pyqtSignal(object)
    drawn = pyqtSignal(object, bool)

    def __init__(self, look: Look, word: str, role: str, works: bool) -> None:
        super().__init__(look, word, role, f"Sheet, {word}")
        self._works = works
        self.content: SheetContent | None = None
        self.frame, self.cells = 0, list[int]()
        self.lit: Mask | None = None  # the pixels of a colour that is looked for
        self._lit = QImage()
        self.marks: tuple[Box, ...] = ()
        self.target = -1  # the cell that a figure is dragged over
        self.tool = ""  # "", "pencil", "fill"
        self.pencil: Rgb | None = (0, 0, 0)
        self._stroke = list[tuple[int, int]]()
        self.same: QImage | None = None  # laid over what is as in the original

    def show_content(self, content: SheetContent, keep_view: bool) -> None:
        """Show a sheet's cells; its picture comes with `show_image`."""
        self.content = content
        self.marks, self.lit = (), None
        if not keep_view:
            self.cells = []
        self.cells = [cell for cell in self.cells if cell < len(content.names)]
        self.update()

    def light(self, found: Mask | None) -> None:
        """Light some pixels up, and darken the others."""
        self.lit = found
        if found is not None:
            tones = [self._look.colour("window", 0.72).getRgb(), self._look.colour("selection").getRgb()]
            self._lit = to_image(Picture(np.array(tones, np.uint8)[found.astype(np.uint8)]))
        self.update()

    def cell_at(self, place: QPointF) -> int:
        """The cell at a place of the pane, or -1."""
        x, y = self.pixel_at(place)
        if self.content is None or x < 0 or not self.content.fits:
            return -1
        return self.content.grid.at(x, y, len(self.content.names))

    def choose(self, cells: list[int]) -> None:
        """Choose some cells."""
        if self.content is not None:
            self.cells = [cell for cell in cells if 0 <= cell < len(self.content.names)]
            self.chosen.emit()
            self.update()

    # hands

    def pressed(self, event: QMouseEvent) -> None:
        x, y = self.pixel_at(event.position())
        if x < 0 or not self._works:
            if x >= 0 and event.modifiers() & Qt.KeyboardModifier.AltModifier:
                self._pick(x, y)
            return
        right = event.button() == Qt.MouseButton.RightButton
        if right and not self.tool:
            return  # its menu comes
        if right or event.modifiers() & Qt.KeyboardModifier.AltModifier:
            self._pick(x, y)
        elif self.tool == "fill":
            self.drawn.emit([(x, y)], True)
        elif self.tool == "pencil":
            self._stroke = [(x, y)]
            self.update()
        else:
            self._choose_at(event)

    def _choose_at(self, event: QMouseEvent) -> None:
        cell = self.cell_at(event.position())
        if cell < 0:
            return
        if event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            rest = [one for one in self.cells if one != cell]
            self.choose(rest if cell in self.cells else [*self.cells, cell])
        elif event.modifiers() & Qt.KeyboardModifier.ShiftModifier and self.cells:
            first = self.cells[0]
            self.choose(list(range(first, cell + 1)) if cell >= first else list(range(first, cell - 1, -1)))
        else:
            self.choose([cell])

    def take_colour(self, place: QPointF) -> None:
        """Take the colour at a place of the pane."""
        x, y = self.pixel_at(place)
        if x >= 0:
            self._pick(x, y)

    def _pick(self, x: int, y: int) -> None:
        if self.image is not None:
            colour = self.image.pixelColor(x, y)
            self.picked.emit((colour.red(), colour.green(), colour.blue()) if colour.alpha() else None)

    def dragged(self, event: QMouseEvent) -> None:
        place = self.pixel_at(event.position())
        if self._stroke and place[0] >= 0:
            last = self._stroke[-1]
            many = max(abs(place[0] - last[0]), abs(place[1] - last[1]))
            for step in range(1, many + 1):
                one = (
                    last[0] + round((place[0] - last[0]) * step / many),
                    last[1] + round((place[1] - last[1]) * step / many),
                )
                if one not in self._stroke:
                    self._stroke.append(one)
            self.update()

    def let_go(self, event: QMouseEvent) -> None:
        if self._stroke:
            stroke, self._stroke = self._stroke, []
            self.drawn.emit(stroke, False)

    def focusInEvent(self, event: QFocusEvent | None) -> None:
        if self._works and not self.cells and self.content is not None:
            self.choose([self.content.runs[0].cells[0]])
        super().focusInEvent(event)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self.content is None or not self._works:
            super().keyPressEvent(event)
            return
        key = Qt.Key(event.key())
        named = {
            Qt.Key.Key_F: "mirror", Qt.Key.Key_H: "hold", Qt.Key.Key_Backspace: "empty", Qt.Key.Key_K: "keep",
            Qt.Key.Key_L: "larger", Qt.Key.Key_S: "smaller",
        }  # fmt: skip
        if key in _KEYS and event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self.nudged.emit(*_KEYS[key])
        elif key in _KEYS:
            right, down = _KEYS[key]
            last = self.cells[-1] if self.cells else 0
            self.choose(
                [max(min(last + right + down * self.content.grid.columns, len(self.content.names) - 1), 0)]
            )
        elif key in named and not event.modifiers() & Qt.KeyboardModifier.ControlModifier:
            self.asked.emit(named[key])
        else:
            super().keyPressEvent(event)

    def aim(self, everywhere: QPoint) -> int:
        """Show the cell under a place of the screen as where a figure would go; which one that is."""
        target = self.cell_at(self.place_of(everywhere))
        if target != self.target:
            self.target = target
            self.update()
        return target

    # paint

    def paint_over(self, painter: QPainter) -> None:
        content = self.content
        if content is None:
            return
        if self._works and not content.fits:
            return
        if self.same is not None:
            painter.drawImage(self.box, self.same)
        used = {cell for run in content.runs for cell in run.cells}
        for cell, name in enumerate(content.names):
            rect = self.part(content.grid.box(cell))
            painter.setPen(QPen(self._look.colour("window", 0.55), 1))
            painter.drawRect(rect)
            if rect.width() >= _NAMED_FROM and (cell in used or content.runs[0].name == "all"):
                self._name(painter, cell, name, rect)
            if self.same is not None and cell in content.unlike:
                foot = QRectF(rect.left() + 1, rect.bottom() - 3, rect.width() - 2, 3)
                painter.fillRect(foot, self._look.colour("differs"))
        if self.lit is not None:
            painter.drawImage(self.box, self._lit)
        self._frame(painter, self.frame, "selection", 1)
        for cell in self.cells:
            self._frame(painter, cell, "ember", 2)
        if self.target >= 0:
            self._frame(painter, self.target, "tarn", 3)
        for mark in self.marks:
            rect = self.part(mark)
            grow = max(6.0 - rect.width(), 2.0) / 2
            painter.setPen(QPen(self._look.colour("breaks"), 2))
            painter.drawRect(rect.adjusted(-grow, -grow, grow, grow))
        for x, y in self._stroke:
            rect = self.part((x, y, 1, 1))
            if self.pencil is not None:
                painter.fillRect(rect, QColor(*self.pencil))
            else:
                painter.setPen(QPen(self._look.colour("text"), 1))
                painter.drawRect(rect)

    def _name(self, painter: QPainter, cell: int, name: str, rect: QRectF) -> None:
        """A cell's name; where it is too narrow for that, its animation's over the first of its cells."""
        painter.setFont(font(10))
        painter.setPen(self._look.colour("text", 0.8))
        run, _, number = name.rpartition(" ")
        if run != "frame" and rect.width() < _WIDE:
            name = run if number == "1" else ""
        name = name.removeprefix("frame ")
        if name:
            wide = painter.fontMetrics().horizontalAdvance(name)
            painter.fillRect(
                QRectF(rect.left() + 1, rect.top() + 1, wide + 4, 12), self._look.colour("window", 0.7)
            )
            painter.drawText(QPointF(rect.left() + 3, rect.top() + 10), name)

    def _frame(self, painter: QPainter, cell: int, role: str, thick: int) -> None:
        if self.content is not None and 0 <= cell < len(self.content.names):
            painter.setPen(QPen(self._look.colour(role), thick))
            painter.drawRect(self.part(self.content.grid.box(cell)))
