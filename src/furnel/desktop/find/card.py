"""The spec card: what the selected original is and demands, and what can be done with it."""

from __future__ import annotations

from PyQt6.QtCore import QRectF, pyqtSignal
from PyQt6.QtGui import QMouseEvent, QPainter, QPaintEvent
from PyQt6.QtWidgets import QGridLayout, QLabel, QVBoxLayout, QWidget

from furnel.catalogue import Asset
from furnel.desktop.actions import key_of, with_key
from furnel.desktop.language import tr
from furnel.desktop.look import Look, byte_size
from furnel.desktop.tiles import Tile, TileStore, paint_tile
from furnel.desktop.widgets.basics import as_panel, breakable, button, hairline, label
from furnel.desktop.widgets.menus import menu_under, place_text
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.media import Spec, medium_of_kind
from furnel.texts import taken_apart

_MOST_USES = 24
_BESIDE = 60  # pixels of a line of the card that are not for its words


class _Stage(QWidget):
    pressed = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._tile: Tile | None = None
        self.setFixedHeight(172)
        self.setAccessibleName(tr("Preview"))

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
    """The card. Its buttons ask for commands by their id through `wanted`, for a definition through `definition_wanted`."""

    wanted = pyqtSignal(str)
    definition_wanted = pyqtSignal(str)

    def __init__(self, look: Look, tiles: TileStore) -> None:
        super().__init__()
        as_panel(self)
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
        self._state, self._why = label("", "ember"), label("", "caption")
        self._why.setWordWrap(True)
        self._hint = label("Drop a file on any tile to swap it", "caption")
        self._nothing = label(
            "Select something on the wall to see what it is and what the game demands of it.", "caption"
        )
        for part in (self._nothing, self._hint):
            part.setWordWrap(True)
        self._make_buttons()
        self._lay_out()
        tiles.ready.connect(self._renew_tile)
        self.show_asset(None, False, "")

    def _make_buttons(self) -> None:
        self._swap = button("Swap…", with_key("Choose a file to put in its place", "swap"), "next")
        self._values = button(
            "Change values", with_key("Its records and values on the bench", "values"), "next"
        )
        self._fit = button("Open in Fit", "Make the swap match  (Enter)", "next")
        self._take = button("Take out…", with_key("Save it as a file", "take-out"))
        self._hear = button("Play", with_key("Hear it", "hear"))
        self._copy = button("Copy inner path", key_of("copy-path"), "plain")
        self._kin = button(
            "Show its kin",
            with_key("The same picture or sound at other sizes, places or rates", "show-kin"),
            "plain",
        )
        self._named = button("", "The places in the game's definitions that name it", "plain")
        self._uses: list[tuple[str, str]] = []
        self._named.clicked.connect(self._show_named)
        self._alike = button(
            "Find what is like it", with_key("Rank the wall by likeness to it", "find-alike"), "plain"
        )
        for part, name in (
            (self._kin, "show-kin"),
            (self._alike, "find-alike"),
            (self._swap, "swap"),
            (self._values, "values"),
            (self._fit, "go-fit"),
            (self._take, "take-out"),
            (self._hear, "hear"),
            (self._copy, "copy-path"),
        ):
            part.clicked.connect(lambda _=False, name=name: self.wanted.emit(name))
        self._stage.pressed.connect(lambda: self.wanted.emit("hear"))

    def _lay_out(self) -> None:
        row = WrappingRow(spacing=8)
        for part in (self._fit, self._values, self._swap, self._take):
            row.addWidget(part)
        column = QVBoxLayout(self)
        column.setContentsMargins(14, 16, 14, 12)
        column.setSpacing(6)
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
        inner.addWidget(self._why)
        inner.addSpacing(4)
        inner.addWidget(self._state)
        inner.addWidget(hairline())
        inner.addSpacing(6)
        inner.addLayout(row)
        inner.addWidget(self._hear)
        for part in (self._named, self._kin, self._alike, self._copy):
            inner.addWidget(part)
        column.addWidget(self._nothing)
        column.addWidget(self._body)
        column.addStretch(1)
        column.addWidget(self._hint)

    def show_asset(
        self, asset: Asset | None, swapped: bool, winner: str, kin: int = 0, why: str = ""
    ) -> None:
        """Show an asset at a glance; `why` is what its profile says of its role. `show_spec` adds what had to be measured."""
        if asset != self._asset:
            self._spec = None
        self._asset = asset
        self._body.setVisible(asset is not None)
        self._nothing.setVisible(asset is None)
        if asset is None:
            return
        self._name.setText(asset.name)
        self._why.setText(tr(why))
        self._why.setVisible(bool(why))
        self._path.setText(f"{asset.archive.name} › {breakable(asset.path)}")
        self._renew_tile()
        self._state.setText(
            tr(f"Seen in the game: {winner}" if winner else "Swapped in this mod" if swapped else "")
        )
        self._state.setVisible(bool(self._state.text()))
        definition = taken_apart(asset.path)
        self._values.setVisible(definition and not swapped)
        self._swap.setVisible(not swapped and not definition)
        self._fit.setVisible(swapped)
        self.show_uses([])
        self._kin.setVisible(bool(kin))
        self._kin.setText(tr(f"Show its {kin} kin"))
        medium = medium_of_kind(asset.facts.kind)
        self._alike.setVisible(medium.has_likeness)
        self._hear.setVisible(medium.is_heard)
        self._fill(self._rows(asset))

    def show_uses(self, uses: list[tuple[str, str]]) -> None:
        """Where the game's definitions name what is shown: the definition's path, and the address in it."""
        self._uses = uses
        self._named.setVisible(bool(uses))
        if uses:
            path, address = uses[0]
            first = f"{path.rpartition('/')[2]} › {address}"
            text = f"Named in {first}" if len(uses) == 1 else f"Named in {len(uses)} places"
            room = self.width() - _BESIDE
            fits = self._named.fontMetrics().horizontalAdvance(text) < room
            self._named.setText(tr(text if fits else f"Named in {path.rpartition('/')[2]}"))
            self._named.setToolTip("\n".join(f"{path} › {address}" for path, address in uses[:_MOST_USES]))

    def _show_named(self) -> None:
        if len({path for path, _ in self._uses}) == 1:
            self.definition_wanted.emit(self._uses[0][0])
            return
        rows = ((place_text(path, address), path) for path, address in self._uses[:_MOST_USES])
        menu_under(self._named, rows, self.definition_wanted.emit)

    def show_spec(self, spec: Spec) -> None:
        """The measured spec of the asset that is shown."""
        if self._asset is not None:
            self._spec = spec
            self._fill(self._rows(self._asset))

    def _rows(self, asset: Asset) -> list[tuple[str, str]]:
        rows = medium_of_kind(asset.facts.kind).rows(asset.facts, self._spec)
        if asset.role:
            rows.append(("Role", asset.role))
        stored = byte_size(asset.size)
        if asset.stored != asset.size:
            stored += f", packed {byte_size(asset.stored)}"
        return [*rows, ("Stored", stored)]

    def set_playing(self, playing: bool) -> None:
        self._hear.setText(tr("Stop" if playing else "Play"))

    def _fill(self, rows: list[tuple[str, str]]) -> None:
        """The rows in the labels that are there; only missing ones are made."""
        while len(self._lines) < len(rows):
            pair = label("", "caption"), label("")
            pair[1].setWordWrap(True)
            for column, part in enumerate(pair):
                self._facts.addWidget(part, len(self._lines), column)
            self._lines.append(pair)
        for place, pair in enumerate(self._lines):
            texts = rows[place] if place < len(rows) else ("", "")
            for part, text in zip(pair, texts, strict=True):
                part.setText(tr(text))
                part.setVisible(place < len(rows))

    def _renew_tile(self) -> None:
        if self._asset is not None:
            self._stage.show_tile(self._tiles.get(self._asset))
