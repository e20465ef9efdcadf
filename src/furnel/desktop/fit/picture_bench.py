"""The picture bench: the stage with its modes and channels, the read-out, the level ladder."""

from __future__ import annotations

from PyQt6.QtWidgets import QButtonGroup, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.fit.content import CHANNELS, PictureContent, Side
from furnel.desktop.fit.levels import LevelLadder
from furnel.desktop.fit.picture_view import MODES, PictureView
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import as_panel, button, label


class PictureBench(QWidget):
    """Compares two pictures."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.view, self.ladder = PictureView(look), LevelLadder(look)
        self._content: PictureContent | None = None
        bar = as_panel(QWidget(), name="stagebar")
        row = QHBoxLayout(bar)
        row.setContentsMargins(10, 4, 10, 4)
        row.setSpacing(2)
        self.modes = self._choices(row, MODES, self.view.set_mode, "How the two are compared")
        row.addSpacing(16)
        self.channels = self._choices(row, CHANNELS, self.view.set_channel, "Which channels are shown")
        row.addStretch(1)
        self._tiled = button("3×3", "See how it repeats", "plain")
        self._tiled.setCheckable(True)
        self._tiled.toggled.connect(self.view.set_tiled)
        self._whole, self._real = (
            button("fit", "As large as fits  (0)", "plain"),
            button("100 %", "One to one", "plain"),
        )
        self._whole.clicked.connect(lambda: self.view.set_zoom(0.0))
        self._real.clicked.connect(lambda: self.view.set_zoom(1.0))
        for part in (self._tiled, self._whole, self._real):
            row.addWidget(part)
        self._place, self._theirs, self._yours, self._result = (
            label(),
            label("", "tarn"),
            label("", "ember"),
            label(),
        )
        foot = as_panel(QWidget(), name="stagebar")
        line = QHBoxLayout(foot)
        line.setContentsMargins(14, 5, 14, 5)
        line.setSpacing(22)
        for text in (self._place, self._theirs, self._yours):
            line.addWidget(text)
        line.addStretch(1)
        line.addWidget(self._result)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        for widget, stretch in ((bar, 0), (self.view, 1), (foot, 0), (self.ladder, 0)):
            column.addWidget(widget, stretch)
        self.ladder.chosen.connect(self.view.set_level)
        self.view.pointed.connect(self._read_out)

    def show_content(self, content: PictureContent, keep_view: bool) -> None:
        """Show two pictures."""
        self._content = content
        self.view.show_content(content, keep_view)
        self.ladder.show_content(content)
        self.ladder.setVisible(len(content.original.levels) > 1)
        if not keep_view:
            self.ladder.set_level(0)
        self._result.setText(content.label)
        self._read_out(-1, -1)

    def _choices(self, row: QHBoxLayout, names: tuple[str, ...], chosen: object, tip: str) -> QButtonGroup:
        group = QButtonGroup(self)
        for place, name in enumerate(names):
            part = button(name, tip, "plain")
            part.setCheckable(True)
            part.setChecked(place == 0)
            part.clicked.connect(lambda _=False, name=name: chosen(name))  # type: ignore[operator]
            group.addButton(part)
            row.addWidget(part)
        return group

    def _read_out(self, x: int, y: int) -> None:
        content = self._content
        if content is None:
            return
        if x < 0:
            width, height = content.original.size
            self._place.setText(f"{width} × {height}")
            self._theirs.setText("original")
            self._yours.setText(
                "yours"
                if content.yours.size == content.original.size
                else f"yours {content.yours.size[0]} × {content.yours.size[1]}"
            )
            return
        self._place.setText(f"x {x}  y {y}")
        self._theirs.setText(f"original {_pixel(content.original, x, y, content.original.size)}")
        self._yours.setText(f"yours {_pixel(content.yours, x, y, content.original.size)}")


def _pixel(side: Side, x: int, y: int, frame: tuple[int, int]) -> str:
    column, row = x * side.size[0] // frame[0], y * side.size[1] // frame[1]
    r, g, b, a = (int(value) for value in side.pixels.pixels[row, column])
    return f"{r} {g} {b}" + (f" · {a}" if side.clear else "")
