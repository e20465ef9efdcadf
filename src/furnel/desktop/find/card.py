"""The spec card: what the selected original is and demands, and what can be done with it."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QGridLayout, QHBoxLayout, QLabel, QVBoxLayout, QWidget

from furnel.catalogue import Asset
from furnel.desktop.look import Look, byte_size
from furnel.desktop.tiles import Tile, TileStore, paint_tile
from furnel.desktop.widgets.basics import as_panel, button, hairline, label
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, Spec
from furnel.sound.words import channels_text
from furnel.words import number


class _Stage(QWidget):
    pressed = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._tile: Tile | None = None
        self.setFixedHeight(172)
        self.setAccessibleName("Preview")

    def show_tile(self, tile: Tile | None) -> None:
        self._tile = tile
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.pressed.emit()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("stage"))
        paint_tile(painter, self._look, QRectF(self.rect()), self._tile)


class SpecCard(QWidget):
    """The card. Its buttons ask for commands by their id through `wanted`."""

    wanted = pyqtSignal(str)

    def __init__(self, look: Look, tiles: TileStore) -> None:
        super().__init__()
        as_panel(self, 272)
        self._tiles = tiles
        self._asset: Asset | None = None
        self._spec: Spec | None = None
        self._stage, self._name, self._path = _Stage(look), label("", "title"), label("", "caption")
        self._path.setWordWrap(True)
        self._facts = QGridLayout()
        self._lines: list[tuple[QLabel, QLabel]] = []
        self._facts.setHorizontalSpacing(12)
        self._facts.setVerticalSpacing(5)
        self._facts.setColumnMinimumWidth(0, 62)
        self._facts.setColumnStretch(1, 1)
        self._state = label("", "ember")
        self._swap = button("Swap…", "Choose a file to put in its place  (Ctrl+E)", "next")
        self._fit = button("Open in Fit", "Make the swap match  (Enter)", "next")
        self._take = button("Take out…", "Save it as a file  (Ctrl+T)")
        self._hear = button("Play", "Hear it  (Space)")
        self._copy = button("Copy inner path", "Ctrl+Shift+C", "plain")
        self._kin = button(
            "Show its kin", "The same picture or sound at other sizes, places or rates  (Ctrl+J)", "plain"
        )
        self._alike = button(
            "Find what is like it", "Rank the wall by likeness to it  (Ctrl+Shift+J)", "plain"
        )
        for part, name in (
            (self._kin, "show-kin"),
            (self._alike, "find-alike"),
            (self._swap, "swap"),
            (self._fit, "go-fit"),
            (self._take, "take-out"),
            (self._hear, "hear"),
            (self._copy, "copy-path"),
        ):
            part.clicked.connect(lambda _=False, name=name: self.wanted.emit(name))
        self._stage.pressed.connect(lambda: self.wanted.emit("hear"))
        row = QHBoxLayout()
        row.setSpacing(8)
        for part in (self._fit, self._swap, self._take):
            row.addWidget(part, 1)
        column = QVBoxLayout(self)
        column.setContentsMargins(16, 16, 16, 12)
        column.setSpacing(6)
        self._hint = label("Drop a file on any tile to swap it", "caption")
        self._nothing = label(
            "Select something on the wall to see what it is and what the game demands of it.", "caption"
        )
        self._nothing.setWordWrap(True)
        self._body = QWidget()
        inner = QVBoxLayout(self._body)
        inner.setContentsMargins(0, 0, 0, 0)
        inner.setSpacing(6)
        inner.addWidget(self._stage)
        inner.addSpacing(4)
        inner.addWidget(self._name)
        inner.addWidget(self._path)
        inner.addSpacing(6)
        inner.addLayout(self._facts)
        inner.addSpacing(4)
        inner.addWidget(self._state)
        inner.addWidget(hairline())
        inner.addSpacing(6)
        inner.addLayout(row)
        inner.addWidget(self._hear)
        for part in (self._kin, self._alike, self._copy):
            inner.addWidget(part)
        column.addWidget(self._nothing)
        column.addWidget(self._body)
        column.addStretch(1)
        column.addWidget(self._hint)
        tiles.ready.connect(self._renew_tile)
        self.show_asset(None, False, "")

    def show_asset(self, asset: Asset | None, swapped: bool, winner: str, kin: int = 0) -> None:
        """Show an asset at a glance; `show_spec` adds what had to be measured."""
        if asset != self._asset:
            self._spec = None
        self._asset = asset
        self._body.setVisible(asset is not None)
        self._nothing.setVisible(asset is None)
        if asset is None:
            return
        self._name.setText(asset.name)
        self._path.setText(f"{asset.archive.name} › {asset.path}")
        self._renew_tile()
        self._state.setText(
            f"Seen in the game: {winner}" if winner else "Swapped in this mod" if swapped else ""
        )
        self._state.setVisible(bool(self._state.text()))
        self._swap.setVisible(not swapped)
        self._fit.setVisible(swapped)
        self._kin.setVisible(bool(kin))
        self._kin.setText(f"Show its {kin} kin")
        self._alike.setVisible(bool(asset.facts.width or asset.facts.rate))
        self._hear.setVisible(asset.facts.kind in ("sound", "music"))
        self._fill(self._rows(asset))

    def show_spec(self, spec: Spec) -> None:
        """The measured spec of the asset that is shown."""
        if self._asset is not None:
            self._spec = spec
            self._fill(self._rows(self._asset))

    def _rows(self, asset: Asset) -> list[tuple[str, str]]:
        rows, spec = self._glance(asset), self._spec
        if isinstance(spec, PictureSpec):
            alpha = {"none": "none used", "cut-out": "cut-out", "smooth": "smooth"}[spec.alpha]
            rows[3:3] = [("Alpha", alpha), ("Brightness", f"{spec.brightness:.0%}")]
            if spec.cell is not None and spec.frames:
                rows.insert(1, ("Frames", f"{spec.frames} of {spec.cell[0]} × {spec.cell[1]}"))
            if spec.note("rows"):
                rows.insert(3, ("Rows", f"{spec.note('rows')}, run-length {spec.note('run-length')}"))
        elif isinstance(spec, SoundSpec):
            loud = f"{spec.loudness:.1f} LUFS" if spec.loudness > -200 else "silent"
            rows[4:4] = [("Loudness", loud)]
            if spec.loops:
                rows.insert(1, ("Loop", f"{number(spec.frames)} frames, exactly"))
        return rows

    def set_playing(self, playing: bool) -> None:
        self._hear.setText("Stop" if playing else "Play")

    def _glance(self, asset: Asset) -> list[tuple[str, str]]:
        facts = asset.facts
        rows = []
        if facts.width:
            chain = (
                f"{facts.levels}, full chain"
                if facts.levels == max(facts.width, facts.height).bit_length()
                else str(facts.levels)
            )
            rows = [
                ("Size", f"{number(facts.width)} × {number(facts.height)}"),
                ("Format", facts.format),
                ("Levels", chain if facts.levels > 1 else "1"),
            ]
        elif facts.rate:
            rows = [("Length", f"{facts.length_s:.2f} s"), ("Format", facts.format), ("Rate", f"{number(facts.rate)} Hz"),
                    ("Channels", channels_text(facts.channels))]  # fmt: skip
        else:
            rows = [("Format", facts.format)]
        if asset.role:
            rows.append(("Role", asset.role))
        stored = byte_size(asset.size)
        if asset.stored != asset.size:
            stored += f", packed {byte_size(asset.stored)}"
        rows.append(("Stored", stored))
        return rows

    def _fill(self, rows: list[tuple[str, str]]) -> None:
        """The rows in the labels that are there; only missing ones are made."""
        while len(self._lines) < len(rows):
            pair = label("", "caption"), label("")
            for column, part in enumerate(pair):
                self._facts.addWidget(part, len(self._lines), column)
            self._lines.append(pair)
        for place, pair in enumerate(self._lines):
            texts = rows[place] if place < len(rows) else ("", "")
            for part, text in zip(pair, texts, strict=True):
                part.setText(text)
                part.setVisible(place < len(rows))

    def _renew_tile(self) -> None:
        if self._asset is not None:
            self._stage.show_tile(self._tiles.get(self._asset))
