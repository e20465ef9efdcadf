"""How large, heavy or long things are: a graph to drag a range across, and its two ends to type in."""

from __future__ import annotations

from collections.abc import Mapping
from math import log2

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QLineEdit, QVBoxLayout, QWidget

from furnel.desktop.find.amounts import HINTS, Unit, read_amount, told_amount
from furnel.desktop.language import tr
from furnel.desktop.look import Look

_ACROSS, _REACH = 2, 6  # a drag that is of neither end; pixels beside an end that are of it
_SIDE, _FOOT, _TALL = 6, 38, 36  # pixels
_MOST = (1 << 62) - 1


class Histogram(QWidget):
    """Counts by powers of two. `changed` when another range is kept."""

    changed = pyqtSignal()

    def __init__(self, look: Look, name: str, unit: Unit) -> None:
        super().__init__()
        self._name = name
        self.graph = _Graph(look)
        self._unit = unit
        self._range: tuple[int, int] | None = None
        self._ends = self._make_end("least"), self._make_end("most")
        self._ends[1].setAlignment(Qt.AlignmentFlag.AlignRight)
        self.graph.setAccessibleName(tr(name))
        row = QHBoxLayout()
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        for end in self._ends:
            row.addWidget(end)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(0)
        column.addWidget(self.graph)
        column.addLayout(row)
        self.graph.moved.connect(self.keep)
        self.graph.freed.connect(self.widen)

    def _make_end(self, which: str) -> QLineEdit:
        end = QLineEdit()
        end.setObjectName("end")
        end.setAccessibleName(tr(f"{self._name}, {which}"))
        end.setToolTip(tr(f"Type what is kept at {which}, {HINTS[self._unit]}; nothing for no limit"))
        end.editingFinished.connect(self._typed)
        return end

    def show_counts(self, full: Mapping[int, int], now: Mapping[int, int]) -> None:
        """Counts of the whole game and of what the sieve leaves, by exponent of two."""
        steps = range(min(full, default=0), max(full, default=0) + 1)
        self.graph.full = {step: full.get(step, 0) for step in steps}
        self.graph.now = now
        self._show()

    def range(self) -> tuple[int, int] | None:
        """Smallest and largest value kept, or None for all."""
        return self._range

    def keep(self, low: int, high: int) -> None:
        """Keep what is from `low` to `high`; everything when that leaves nothing out."""
        whole = self.graph.whole()
        kept = None if whole is None or (low <= whole[0] and high >= whole[1]) else (low, high)
        if kept != self._range:
            self._range = kept
            self._show()
            self.changed.emit()

    def clear(self) -> None:
        """Keep everything again, and tell nobody."""
        self._range = None
        self._show()

    def widen(self) -> None:
        """Keep everything again."""
        whole = self.graph.whole()
        if whole is not None:
            self.keep(*whole)

    def said(self) -> str:
        """The range that is kept, in words."""
        low, high = (told_amount(value, self._unit) for value in self._shown())
        return f"{low} to {high}{' px' if self._unit == 'px' else ''}"

    def _shown(self) -> tuple[int, int]:
        low, high = self._range or self.graph.whole() or (0, 0)
        whole = self.graph.whole() or (0, 0)
        return max(low, min(whole[0], high)), min(high, max(whole[1], low))

    def _show(self) -> None:
        shown = self._shown()
        self.graph.range = shown
        for end, value in zip(self._ends, shown, strict=True):
            if not end.hasFocus() or not end.isModified():
                end.setText(tr(told_amount(value, self._unit) if self.graph.whole() else ""))
        self.graph.setAccessibleDescription(tr(self.said() if self.graph.whole() else "nothing"))
        self.graph.update()

    def _typed(self) -> None:
        """Take what was typed at an end; what was not understood stands there as it was."""
        whole = self.graph.whole()
        if whole is None:
            return
        kept = list(self._shown())
        for place, end in enumerate(self._ends):
            if not end.isModified():
                continue
            end.setModified(False)
            text = end.text().strip()
            value = read_amount(text, self._unit) if text else (0, _MOST)[place]
            if value is not None:
                kept[place] = value
                if kept[0] > kept[1]:
                    kept[1 - place] = value
        self.keep(*kept)
        self._show()


class _Graph(QWidget):
    """The bars, with a handle at each end of what is kept. `moved` to another range, `freed` from any."""

    OWN_RING = True

    moved = pyqtSignal(object, object)
    freed = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.full: dict[int, int] = {}
        self.now: Mapping[int, int] = {}
        self.range = (0, 0)
        self._drag, self._anchor = -1, 0
        self.setFixedHeight(44)
        self.setToolTip(tr("Drag across the bars, or one of the two ends; double-click to show all"))
        self.setFocusPolicy(Qt.FocusPolicy.TabFocus)
        look.changed.connect(self.update)

    def whole(self) -> tuple[int, int] | None:
        """From the least to the most that there can be in the bars; None without any."""
        if not any(self.full.values()):
            return None
        return 1 << min(self.full), (2 << max(self.full)) - 1

    def _step(self) -> float:
        return (self.width() - 2 * _SIDE) / max(len(self.full), 1)

    def _handles(self) -> tuple[float, float]:
        """Where the ends of the range are, also between two powers of two."""
        first, last = min(self.full), max(self.full) + 1
        low, high = (
            max(first, min(log2(max(value, 1)), last)) for value in (self.range[0], self.range[1] + 1)
        )
        return _SIDE + (low - first) * self._step(), _SIDE + (high - first) * self._step()

    def _bars(self) -> tuple[int, int]:
        """The first and the last bar that are in the range, at least in part."""
        low, high = (max(value, 1).bit_length() - 1 for value in self.range)
        first, last = min(self.full), max(self.full)
        return max(first, min(low, last)), max(first, min(high, last))

    def _bar(self, x: float) -> int:
        """The exponent whose bar is at a place."""
        first = min(self.full)
        return max(first, min(first + int((x - _SIDE) // self._step()), max(self.full)))

    def _move(self, low: int, high: int) -> None:
        self.moved.emit(1 << low, (2 << high) - 1)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        if self.whole() is None:
            return
        painter, look = QPainter(self), self._look
        most, step = max(self.full.values()), self._step()
        low, high = self._bars()
        for place, (key, count) in enumerate(self.full.items()):
            left, inside, now = _SIDE + place * step, low <= key <= high, self.now.get(key, 0)
            for value, on, off in (
                (count, "hairline-strong", "hairline"),
                (now, "bar", "hairline-strong"),
            ):
                tall = _TALL * (value / most) ** 0.6 if value else 0
                bar = QRectF(left + 1, _FOOT - tall, step - 2, tall)
                painter.fillRect(bar, look.colour(on if inside else off))
        painter.fillRect(QRectF(_SIDE, _FOOT, self.width() - 2 * _SIDE, 1), look.colour("hairline"))
        painter.setPen(QPen(look.colour("text"), 2))
        for x in self._handles():
            painter.drawLine(QPointF(x, 2), QPointF(x, 42))
        if self.hasFocus():
            painter.setPen(QPen(look.colour("selection"), 1))
            painter.drawRect(QRectF(0.5, 0.5, self.width() - 1, self.height() - 1))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and self.whole() is not None:
            low, high = self._handles()
            far = abs(event.position().x() - low), abs(event.position().x() - high)
            self._anchor = self._bar(event.position().x())
            self._drag = _ACROSS if min(far) > _REACH else far.index(min(far))
            self.mouseMoveEvent(event)

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None or self._drag < 0:
            return
        first, last = min(self.full), max(self.full)
        low, high = self._bars()
        if self._drag == _ACROSS:
            at = self._bar(event.position().x())
            low, high = min(self._anchor, at), max(self._anchor, at)
        else:
            place = first + round((event.position().x() - _SIDE) / self._step())
            if self._drag == 0:
                low = max(first, min(place, high))
            else:
                high = min(last, max(place - 1, low))
        if (low, high) != self._bars() or self._drag == _ACROSS:
            self._move(low, high)

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        self._drag = -1

    def mouseDoubleClickEvent(self, event: QMouseEvent | None) -> None:
        self._drag = -1
        self.freed.emit()

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None or self.whole() is None:
            return
        low, high = self._bars()
        move = {Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1}.get(Qt.Key(event.key()), 0)
        if not move:
            super().keyPressEvent(event)
        elif event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
            self._move(low, max(low, min(high + move, max(self.full))))
        else:
            self._move(max(min(self.full), min(low + move, high)), high)
