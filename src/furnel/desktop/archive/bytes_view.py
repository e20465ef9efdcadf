"""A file's bytes, sixteen a line, with every field of the description coloured and named."""

from __future__ import annotations

import struct
from bisect import bisect_right
from collections.abc import Sequence

from PyQt6.QtCore import QPointF, QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QKeyEvent,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QResizeEvent,
    QWheelEvent,
)
from PyQt6.QtWidgets import QFrame

from furnel.containers import Span
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font, mono
from furnel.desktop.widgets.canvas import Canvas

_LINE, _ACROSS = 19, 16
_CELL, _LETTER, _OFFSET, _NAMED_FROM = 20, 8, 80, 60
_HUES = 6


class BytesView(Canvas):
    """The bytes. `pointed` tells the byte under the mouse or the cursor."""

    KEYS_HERE = (
        ("Arrows", "from byte to byte"),
        ("Shift and arrows, drag", "choose bytes"),
        ("Home, End", "the first and the last byte"),
        ("PgUp, PgDown, wheel", "up and down"),
    )

    pointed = pyqtSignal(int)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._data: memoryview = memoryview(b"")
        self._spans: Sequence[Span] = ()
        self._starts: list[int] = []
        self._hues: dict[str, int] = {}
        self.caret = 0
        self.chosen = 0, 0
        self._anchor = -1
        self.setFrameShape(QFrame.Shape.NoFrame)
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Bytes"))
        self.surface.setMouseTracking(True)
        self.setMinimumWidth(_OFFSET + _ACROSS * (_CELL + _LETTER) + 44)
        look.changed.connect(self.surface.update)

    def show_bytes(self, data: memoryview) -> None:
        """Show another file."""
        self._data, self._spans, self._starts, self.caret, self.chosen = data, (), [], 0, (0, 0)
        self._range()
        self.bar.setValue(0)
        self.surface.update()

    def show_spans(self, spans: Sequence[Span]) -> None:
        """Colour and name the bytes."""
        self._spans = spans
        self._starts = [span.start for span in spans]
        self._hues = {}
        for span in spans:
            if span.kind == "field":
                self._hues.setdefault(span.name, len(self._hues) % _HUES + 1)
        self.surface.update()

    def hue(self, name: str) -> int:
        """Which of the colours of fields a name has."""
        return self._hues.get(name, 1)

    def go(self, at: int) -> None:
        """Put the cursor on a byte and bring it into view."""
        self._anchor, self.chosen = -1, (0, 0)
        self.caret = max(0, min(at, len(self._data) - 1))
        bar, line = self.bar, self.caret // _ACROSS
        if not bar.value() <= line < bar.value() + self._lines():
            bar.setValue(max(line - 3, 0))
        self.surface.update()
        self.pointed.emit(self.caret)

    def choose(self, start: int, end: int) -> None:
        """Choose bytes from `start` up to `end`."""
        self.chosen = max(0, min(start, end)), min(len(self._data), max(start, end))
        self.surface.update()
        self.pointed.emit(self.caret)

    def span_at(self, at: int) -> Span | None:
        """The narrowest span around a byte, fields before data."""
        place = bisect_right(self._starts, at)
        best: Span | None = None
        for span in self._spans[max(place - 64, 0) : place]:
            if span.start <= at < span.end and (
                best is None or span.end - span.start <= best.end - best.start
            ):
                best = span
        return best

    def numbers_at(self, at: int) -> list[tuple[str, str]]:
        """What the bytes at a place would be, read in all ways: little-endian, big-endian."""
        out = []
        for name, code in (("u8", "B"), ("u16", "H"), ("u32", "I"), ("u64", "Q"), ("f32", "f")):
            size = struct.calcsize(f"<{code}")
            if at + size <= len(self._data):
                raw = bytes(self._data[at : at + size])
                little, big = struct.unpack(f"<{code}", raw)[0], struct.unpack(f">{code}", raw)[0]
                texts = [f"{value:.6g}" if name == "f32" else f"{value}" for value in (little, big)]
                out.append((name, texts[0] if size == 1 else f"{texts[0]} · {texts[1]}"))
        return out

    def _lines(self) -> int:
        return max(self.surface.height() // _LINE, 1)

    def _range(self) -> None:
        bar = self.bar
        total = (len(self._data) + _ACROSS - 1) // _ACROSS
        bar.setRange(0, max(total - self._lines() + 1, 0))
        bar.setPageStep(self._lines())

    def resizeEvent(self, event: QResizeEvent | None) -> None:
        self._range()

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if event is not None:
            self.bar.setValue(self.bar.value() - event.angleDelta().y() // 40)

    def _cell(self, at: int) -> QRectF:
        line, column = divmod(at, _ACROSS)
        y = (line - self.bar.value()) * _LINE + 6
        return QRectF(_OFFSET + column * _CELL + (8 if column >= 8 else 0), y, _CELL, _LINE)

    def _at(self, place: QPointF) -> int:
        line = int(place.y() - 6) // _LINE + self.bar.value()
        x = place.x() - _OFFSET
        column = int((x - 8 if x > 8 * _CELL else x) // _CELL)
        at = line * _ACROSS + column
        return at if 0 <= column < _ACROSS and 0 <= at < len(self._data) else -1

    def mouseMoveEvent(self, event: QMouseEvent | None) -> None:
        if event is None:
            return
        at = self._at(event.position())
        if event.buttons() & Qt.MouseButton.LeftButton and at >= 0 and self._anchor >= 0:
            self.caret = at
            self.choose(min(self._anchor, at), max(self._anchor, at) + 1)
            return
        span = self.span_at(at) if at >= 0 else None
        self.surface.setToolTip(tr(describe(span) if span is not None else ""))

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.setFocus()
        if event is not None and (at := self._at(event.position())) >= 0:
            self.go(at)
            self._anchor = at

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        page = self._lines() * _ACROSS
        moves = {
            Qt.Key.Key_Left: -1, Qt.Key.Key_Right: 1, Qt.Key.Key_Up: -_ACROSS, Qt.Key.Key_Down: _ACROSS,
            Qt.Key.Key_PageUp: -page, Qt.Key.Key_PageDown: page, Qt.Key.Key_Home: -len(self._data),
            Qt.Key.Key_End: len(self._data),
        }  # fmt: skip
        if (move := moves.get(Qt.Key(event.key()))) is not None:
            anchor = self._anchor if self._anchor >= 0 else self.caret
            self.go(self.caret + move)
            if event.modifiers() & Qt.KeyboardModifier.ShiftModifier:
                self._anchor = anchor
                self.choose(min(anchor, self.caret), max(anchor, self.caret) + 1)
        else:
            super().keyPressEvent(event)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self.surface), self._look
        painter.fillRect(self.surface.rect(), look.colour("sunken"))
        letters = mono()
        painter.setFont(letters)
        first = self.bar.value() * _ACROSS
        letters_left = _OFFSET + _ACROSS * _CELL + 18
        for line in range(self._lines() + 1):
            start = first + line * _ACROSS
            if start >= len(self._data):
                break
            y = line * _LINE + 6
            painter.setPen(look.colour("faint"))
            painter.drawText(
                QRectF(12, y, _OFFSET - 24, _LINE), Qt.AlignmentFlag.AlignVCenter, f"{start:08x}"
            )
            for at in range(start, min(start + _ACROSS, len(self._data))):
                self._paint_byte(painter, at, letters_left, y)
            self._paint_names(painter, start, letters_left + _ACROSS * _LETTER + 10, y)
            painter.setFont(letters)

    def _paint_names(self, painter: QPainter, start: int, left: int, y: int) -> None:
        """What begins in a line, in the colours of its bytes, where there is room for a name."""
        if self.surface.width() - left < _NAMED_FROM:
            return
        names: list[Span] = []
        first = bisect_right(self._starts, start - 1)
        for span in self._spans[first : first + _ACROSS]:
            if span.start >= start + _ACROSS:
                break
            names.append(span)
        painter.setFont(font(10))
        for place, span in enumerate(names):
            words = span.name.rpartition("/")[2] if span.kind != "field" else span.name
            width = painter.fontMetrics().horizontalAdvance(words)
            if place and left + width > self.surface.width() - 4:
                break
            painter.setPen(self._name_colour(span))
            painter.drawText(
                QRectF(left, y, self.surface.width() - left, _LINE), Qt.AlignmentFlag.AlignVCenter, words
            )
            left += width + 7

    def _name_colour(self, span: Span) -> QColor:
        return self._look.colour("quiet" if span.kind != "field" else f"field-{self.hue(span.name)}")

    def _paint_byte(self, painter: QPainter, at: int, letters_left: int, y: int) -> None:
        look, cell, value = self._look, self._cell(at), self._data[at]
        span = self.span_at(at)
        letter = QRectF(letters_left + (at % _ACROSS) * _LETTER, y, _LETTER, _LINE)
        if span is not None:
            ground = self._ground(span)
            painter.fillRect(cell.adjusted(0, 1, 0, -1), ground)
            painter.fillRect(letter.adjusted(0, 1, 0, -1), ground)
            if span.start == at:
                painter.fillRect(QRectF(cell.left(), cell.top() + 1, 1, _LINE - 2), look.colour("text", 0.5))
        if self.chosen[0] <= at < self.chosen[1]:
            painter.fillRect(cell.adjusted(0, 1, 0, -1), look.colour("selection", 0.45))
            painter.fillRect(letter.adjusted(0, 1, 0, -1), look.colour("selection", 0.45))
        if at == self.caret:
            painter.setPen(look.colour("selection"))
            painter.setBrush(Qt.BrushStyle.NoBrush)
            painter.drawRect(cell.adjusted(1, 1, -1, -2))
        painter.setPen(look.colour("text" if value else "faint"))
        painter.drawText(cell, Qt.AlignmentFlag.AlignCenter, f"{value:02x}")
        painter.setPen(look.colour("quiet" if 32 <= value < 127 else "faint"))
        painter.drawText(letter, Qt.AlignmentFlag.AlignCenter, chr(value) if 32 <= value < 127 else "·")

    def _ground(self, span: Span) -> QColor:
        if span.kind == "data":
            return self._look.colour("raised")
        if span.kind == "find":
            return self._look.colour("hairline-strong", 0.6)
        return self._look.colour(f"field-{self.hue(span.name)}", 0.42)


def describe(span: Span) -> str:
    """A span in a line."""
    where = f"bytes {span.start} to {span.end - 1}"
    if span.kind == "field":
        return f"{span.name} = {span.shown}  ({span.group}, {where})"
    return f"{span.name}  ({'found by its signature' if span.kind == 'find' else 'data'}, {where})"
