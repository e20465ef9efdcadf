"""The sieve's panel: text, kinds, formats, pixel and file sizes, and what to show only."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from functools import partial

from PyQt6.QtCore import QEvent, QObject, QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QScrollArea, QSizePolicy, QVBoxLayout, QWidget

from furnel.catalogue import Facets, Sieve
from furnel.desktop.actions import with_key
from furnel.desktop.find.histogram import Histogram
from furnel.desktop.find.like import LikeBox
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import button, field, label, tip
from furnel.desktop.widgets.icons import search_icon
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.media import KIND_TITLES
from furnel.words import number

_ROW = 20


class FacetList(QWidget):
    """Values with a bar and a count each; a click keeps only some of them."""

    OWN_RING = True

    changed = pyqtSignal()

    def __init__(self, look: Look, name: str) -> None:
        super().__init__()
        self._look = look
        self._counts: dict[str, int] = {}
        self._full: dict[str, int] = {}
        self.chosen: set[str] = set()
        self._row = 0
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        self.setAccessibleName(tr(name))
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setToolTip(tr("Click to show only this; click again to show all"))
        look.changed.connect(self.update)

    def show_counts(self, full: Mapping[str, int], now: Mapping[str, int]) -> None:
        """The values of the whole game, with how many the sieve leaves of each."""
        self._full = dict(full)
        self._counts = {name: now.get(name, 0) for name in full}
        self.chosen &= set(full)
        self.setFixedHeight(len(full) * _ROW)
        self._say()
        self.update()

    def _say(self) -> None:
        """Tell who does not see it where the cursor is, and what is chosen."""
        names = self.names()
        if names:
            name = names[min(self._row, len(names) - 1)]
            state = "chosen" if name in self.chosen else "not chosen"
            told = f"{KIND_TITLES.get(name, name)}, {self._counts[name]} of {self._full[name]}, {state}"
            self.setAccessibleDescription(tr(f"{told}; {len(self.chosen)} chosen" if self.chosen else told))

    def names(self) -> list[str]:
        return list(self._full)

    def choose(self, name: str) -> None:
        """Turn one value's choice over."""
        self.chosen ^= {name}
        self.changed.emit()
        self._say()
        self.update()

    def clear(self) -> None:
        self.chosen.clear()
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and 0 <= (row := int(event.position().y()) // _ROW) < len(self._full):
            self._row = row
            self.choose(self.names()[row])

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        if move:
            self._row = max(0, min(self._row + move, len(self._full) - 1))
            self._say()
            self.update()
        elif event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter) and self._full:
            self.choose(self.names()[self._row])
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        most = max(self._full.values(), default=1)
        bar_left, bar_right = 88, self.width() - 34
        for row, (name, count) in enumerate(self._counts.items()):
            y = row * _ROW
            on = not self.chosen or name in self.chosen
            if self.hasFocus() and row == self._row:
                painter.setPen(QPen(look.colour("hairline-strong"), 1))
                painter.drawRect(QRectF(-0.5, y + 0.5, self.width() - 1, _ROW - 2))
            painter.setFont(font(12))
            painter.setPen(look.colour("text" if on and count else "faint"))
            painter.drawText(QPointF(4, y + 14), tr(KIND_TITLES.get(name, name)))
            width = bar_right - bar_left
            painter.fillRect(QRectF(bar_left, y + 8, width, 4), look.colour("sunken"))
            painter.fillRect(
                QRectF(bar_left, y + 8, width * self._full[name] / most, 4), look.colour("hairline-strong")
            )
            painter.fillRect(
                QRectF(bar_left, y + 8, width * count / most, 4), look.colour("bar" if on else "faint")
            )
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet" if on else "faint"))
            painter.drawText(
                QRectF(bar_right, y, 32, _ROW),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                number(count),
            )


class SievePanel(QScrollArea):
    """The panel; `changed` after a moment's pause in typing, at once otherwise; `left` by Enter or Down in the search."""

    changed = pyqtSignal()
    left = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.setWidgetResizable(True)
        self.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.text = field("Name or path", "Search")
        self.text.setClearButtonEnabled(True)
        search_icon(self.text, look)
        said = "All words have to be in the path (or number), and none with a minus before it"
        tip(self.text, with_key(said, "search"))
        self.text.installEventFilter(self)
        self.like = LikeBox(look)
        self.kinds, self.formats = FacetList(look, "Kind"), FacetList(look, "Format")
        self.pixels, self.bytes = Histogram(look, "Pixel size", "px"), Histogram(look, "File size", "B")
        self.lengths = Histogram(look, "Length", "ms")
        self.swapped = button("swapped", "Show only what this mod swaps", "plain")
        self.with_kin = button(
            "with kin", "Show only what the game has several times: at other sizes, places or rates", "plain"
        )
        self._clear = button("Show everything", with_key("Clear the sieve", "clear-sieve"), "plain")
        panel = QWidget()
        panel.setObjectName("panel")
        column = QVBoxLayout(panel)
        column.setContentsMargins(12, 12, 12, 12)
        column.setSpacing(6)
        column.addWidget(self.text)
        for title, part in (
            ("LOOKS OR SOUNDS LIKE", self.like),
            ("KIND", self.kinds),
            ("FORMAT", self.formats),
            ("PIXEL SIZE", self.pixels),
            ("FILE SIZE", self.bytes),
            ("LENGTH", self.lengths),
        ):
            column.addSpacing(8)
            column.addWidget(label(title, "section"))
            column.addWidget(part)
        column.addSpacing(8)
        column.addWidget(label("SHOW ONLY", "section"))
        only = WrappingRow(spacing=4)
        for toggle in (self.swapped, self.with_kin):
            toggle.setCheckable(True)
            toggle.setSizePolicy(QSizePolicy.Policy.Maximum, QSizePolicy.Policy.Fixed)
            only.addWidget(toggle)
        column.addLayout(only)
        column.addStretch(1)
        column.addWidget(self._clear)
        self.setWidget(panel)
        self._typing = timer(self, self.changed.emit, 60)
        self.text.textChanged.connect(lambda _: self._typing.start())
        for part in (self.kinds, self.formats, self.pixels, self.bytes, self.lengths):
            part.changed.connect(self.changed)
        for toggle in (self.swapped, self.with_kin):
            toggle.toggled.connect(lambda _: self.changed.emit())
        self.like.changed.connect(self.changed)
        self._clear.clicked.connect(self.clear)

    def sizeHint(self) -> QSize:
        return QSize(212, 600)

    def sieve(self, swapped: frozenset[str]) -> Sieve:
        """What to keep, as it is set now."""
        return Sieve(
            self.text.text(),
            frozenset(self.kinds.chosen),
            frozenset(self.formats.chosen),
            self.pixels.range(),
            self.bytes.range(),
            self.lengths.range(),
            only=swapped if self.swapped.isChecked() else None,
        )

    def held(self) -> list[tuple[str, Callable[[], object]]]:
        """What it goes by, each with what lets go of it."""
        out: list[tuple[str, Callable[[], object]]] = []
        if text := self.text.text().strip():
            out.append((f"“{text}”", self.text.clear))
        for part in (self.kinds, self.formats):
            for name in sorted(part.chosen):
                out.append((KIND_TITLES.get(name, name), partial(part.choose, name)))
        for graph in (self.pixels, self.bytes, self.lengths):
            if graph.range() is not None:
                out.append((graph.said(), graph.widen))
        for switch, name in ((self.swapped, "swapped"), (self.with_kin, "with kin")):
            if switch.isChecked():
                out.append((name, partial(switch.setChecked, False)))
        if self.like.likeness is not None:
            out.append((f"like {self.like.likeness.name}", lambda: self.like.set(None)))
        return out

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        pressed = event.key() if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress else 0
        if watched is not self.text or pressed not in (Qt.Key.Key_Down, Qt.Key.Key_Return, Qt.Key.Key_Enter):
            return super().eventFilter(watched, event)
        if self._typing.isActive():
            self._typing.stop()
            self.changed.emit()
        self.left.emit()
        return True

    def reset(self) -> None:
        """Keep everything again, and tell nobody: another game is open."""
        self.blockSignals(True)
        self.clear()
        self.blockSignals(False)
        self._typing.stop()

    def clear(self) -> None:
        """Keep everything again."""
        self.text.clear()
        for part in (self.kinds, self.formats, self.pixels, self.bytes, self.lengths):
            part.clear()
        self.swapped.setChecked(False)
        self.with_kin.setChecked(False)
        self.like.set(None)
        self._typing.stop()
        self.changed.emit()

    def show_facets(self, full: Facets, now: Facets, swapped: int) -> None:
        """Counts of the whole game and of what is left."""
        self.kinds.show_counts(full.kinds, now.kinds)
        self.formats.show_counts(full.formats, now.formats)
        self.pixels.show_counts(full.pixels, now.pixels)
        self.bytes.show_counts(full.size_bytes, now.size_bytes)
        self.lengths.show_counts(full.length_ms, now.length_ms)
        self.swapped.setText(tr(f"swapped  {swapped}"))
