"""A source with the figures that were found in it: chosen by click or key, dragged onto a cell."""

from __future__ import annotations

from PyQt6.QtCore import QPoint, QPointF, Qt, pyqtSignal
from PyQt6.QtGui import QCursor, QKeyEvent, QMouseEvent, QPainter, QPen, QPixmap

from furnel.desktop.fit.pixel_pane import PixelPane
from furnel.desktop.fit.sheet_content import Figures
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font


class FiguresPane(PixelPane):
    """`placed` asks for a figure to be put into the chosen cells, `carried` tells where one is dragged (on the screen),
    `dropped` where it was let go."""

    placed = pyqtSignal(int)
    carried = pyqtSignal(object)
    dropped = pyqtSignal(int, object)

    def __init__(self, look: Look) -> None:
        super().__init__(look, "source", "quiet", "Figures of the source")
        self.figures = Figures()
        self.figure = 0
        self._start: QPoint | None = None
        self._carries = False
        self.setToolTip(tr("Drag a figure onto a cell, or choose cells and press Enter on a figure"))

    def show_figures(self, figures: Figures, word: str, keep_view: bool) -> None:
        """Show a source; `word` says what is seen."""
        self.figures, self.word = figures, word
        count = len(figures.found.poses) if figures.found is not None else 0
        self.figure = min(self.figure, max(count - 1, 0)) if keep_view else 0
        self.show_image(figures.image, keep_view)

    def choose(self, figure: int) -> None:
        """Choose a figure."""
        self.figure = figure
        self.update()

    def figure_at(self, place: QPointF) -> int:
        """The figure at a place of the pane, or -1."""
        x, y = self.pixel_at(place)
        if self.figures.found is None or x < 0:
            return -1
        for number, pose in enumerate(self.figures.found.poses):
            if pose.left <= x < pose.left + pose.width and pose.top <= y < pose.top + pose.height:
                return number
        return -1

    def pressed(self, event: QMouseEvent) -> None:
        figure = self.figure_at(event.position())
        if figure >= 0 and event.button() == Qt.MouseButton.LeftButton:
            self.figure, self._start = figure, event.globalPosition().toPoint()
            self.update()

    def dragged(self, event: QMouseEvent) -> None:
        if self._start is None:
            return
        here = event.globalPosition().toPoint()
        if self._carries or (here - self._start).manhattanLength() > 6:
            if not self._carries:
                self.setCursor(self._in_hand())
            self._carries = True
            self.carried.emit(here)

    def _in_hand(self) -> QCursor:
        """The figure that is dragged, as the pointer."""
        found, image = self.figures.found, self.figures.image
        if found is None or image is None:
            return QCursor(Qt.CursorShape.ClosedHandCursor)
        pose = found.poses[self.figure]
        scale = max(1, min(3, 64 // max(pose.width, pose.height, 1)))
        part = image.copy(*pose.box).scaled(pose.width * scale, pose.height * scale)
        return QCursor(QPixmap.fromImage(part))

    def let_go(self, event: QMouseEvent) -> None:
        carried, self._carries, self._start = self._carries, False, None
        self.unsetCursor()
        if carried:
            self.dropped.emit(self.figure, event.globalPosition().toPoint())

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self.figure_at(event.position()) >= 0:
            self.placed.emit(self.figure)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        found = self.figures.found
        key = event.key() if event is not None else 0
        if found is None or event is None:
            super().keyPressEvent(event)
        elif by := (key == Qt.Key.Key_Right) - (key == Qt.Key.Key_Left):
            self.figure = max(min(self.figure + by, len(found.poses) - 1), 0)
            self.update()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and not event.modifiers():
            self.placed.emit(self.figure)
        else:
            super().keyPressEvent(event)

    def paint_over(self, painter: QPainter) -> None:
        if self.figures.found is None:
            return
        painter.setFont(font(10))
        for number, pose in enumerate(self.figures.found.poses):
            rect = self.part(pose.box)
            chosen = number == self.figure
            painter.setPen(
                QPen(
                    self._look.colour("ember" if chosen else "text", 1.0 if chosen else 0.6),
                    2 if chosen else 1,
                )
            )
            painter.drawRect(rect)
            painter.setPen(self._look.colour("text"))
            painter.drawText(QPointF(rect.left() + 2, rect.top() - 3), str(number + 1))
        painter.setPen(QPen(self._look.colour("faint"), 1, Qt.PenStyle.DotLine))
        for box in self.figures.found.others:
            painter.drawRect(self.part(box))
