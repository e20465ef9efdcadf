"""A bar whose parts go on in a second row where one is too narrow for them."""

from __future__ import annotations

from dataclasses import dataclass

from PyQt6.QtCore import QRect, QSize, Qt
from PyQt6.QtWidgets import QLayout, QLayoutItem, QSpacerItem, QWidget

from furnel.desktop.widgets.basics import as_panel


@dataclass(frozen=True, slots=True)
class _Laid:
    """Where each item goes, and how high all are together."""

    places: tuple[tuple[QLayoutItem, QRect], ...]
    high: int


class WrappingRow(QLayout):
    """A row of widgets and gaps; `add_gap` puts pixels between two, `add_rest` all that is left over in its row."""

    def __init__(self, parent: QWidget | None = None, spacing: int = 1) -> None:
        super().__init__(parent)  # type: ignore[arg-type]  # the stub knows no layout in a layout
        self._items: list[QLayoutItem] = []
        self._rests: set[int] = set()  # the items before which what is left over goes
        self.setSpacing(spacing)

    def add_gap(self, pixels: int) -> None:
        """Some room between the widget before and the one after."""
        self.addItem(QSpacerItem(pixels, 0))

    def add_rest(self) -> None:
        """What comes after goes to the right end of its row."""
        self._rests.add(len(self._items))

    def addItem(self, item: QLayoutItem | None) -> None:
        if item is not None:
            self._items.append(item)

    def count(self) -> int:
        return len(self._items)

    def itemAt(self, index: int) -> QLayoutItem | None:
        return self._items[index] if 0 <= index < len(self._items) else None

    def takeAt(self, index: int) -> QLayoutItem | None:
        return self._items.pop(index) if 0 <= index < len(self._items) else None

    def expandingDirections(self) -> Qt.Orientation:
        return Qt.Orientation(0)

    def hasHeightForWidth(self) -> bool:
        return True

    def heightForWidth(self, wide: int) -> int:
        return self._lay(QRect(0, 0, wide, 0)).high

    def setGeometry(self, rect: QRect) -> None:
        super().setGeometry(rect)
        for item, place in self._lay(rect).places:
            item.setGeometry(place)

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def minimumSize(self) -> QSize:
        margins = self.contentsMargins()
        widest = max((item.sizeHint().width() for item in self._shown()), default=0)
        highest = max((item.sizeHint().height() for item in self._shown()), default=0)
        return QSize(widest + margins.left() + margins.right(), highest + margins.top() + margins.bottom())

    def _shown(self) -> list[QLayoutItem]:
        return [item for item in self._items if not item.isEmpty() or item.spacerItem() is not None]

    def _lay(self, rect: QRect) -> _Laid:
        margins = self.contentsMargins()
        left, top = rect.left() + margins.left(), rect.top() + margins.top()
        room = rect.width() - margins.left() - margins.right()
        rows: list[list[tuple[QLayoutItem, int, bool]]] = [[]]
        used, rest = 0, False
        for number, item in enumerate(self._items):
            rest = rest or number in self._rests
            gap = item.spacerItem() is not None
            if item.isEmpty() and not gap:
                continue
            wide = item.sizeHint().width()
            if rows[-1] and used + self.spacing() + wide > room:
                rows.append([])
                used = 0
            if gap and not rows[-1]:
                continue
            used += wide + (self.spacing() if rows[-1] else 0)
            rows[-1].append((item, wide, rest))
            rest = False
        places = []
        for row in rows:
            highest = max((item.sizeHint().height() for item, _, _ in row), default=0)
            spare = room - sum(wide for _, wide, _ in row) - self.spacing() * max(len(row) - 1, 0)
            at = left
            for item, wide, pushed in row:
                at += spare if pushed else 0
                high = min(item.sizeHint().height(), highest)
                places.append((item, QRect(at, top + (highest - high) // 2, wide, high)))
                at += wide + self.spacing()
            top += highest + (2 if row is not rows[-1] else 0)
        return _Laid(tuple(places), top - rect.top() + margins.bottom())


def stage_bar(
    spacing: int = 1, left: int = 10, right: int = 10, above: int = 4
) -> tuple[QWidget, WrappingRow]:
    """A bar above or below a stage, and the row that its parts go into."""
    bar = as_panel(QWidget(), name="stagebar")
    row = WrappingRow(bar, spacing)
    row.setContentsMargins(left, above, right, above)
    return bar, row
