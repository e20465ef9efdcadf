"""Bringing a step to another place: its title is dragged, or Alt and an arrow key pressed on it."""

from __future__ import annotations

from collections.abc import Callable, Iterator

from PyQt6.QtCore import QEvent, QObject, QPoint, Qt
from PyQt6.QtGui import QKeyEvent, QMouseEvent
from PyQt6.QtWidgets import QPushButton, QVBoxLayout, QWidget

from furnel.desktop.look import Look

_PLACE = "place"


def card_frame(look: Look, role: str = "hairline") -> str:
    """The style sheet of a card, with its frame in a colour."""
    return f"QWidget#card {{ border: 1px solid {look.colour(role).name()}; border-radius: 4px }}"


class StepDrags(QObject):
    """Watches the titles of cards in a column; `move` brings a step from one place to another."""

    def __init__(self, look: Look, cards: QVBoxLayout, move: Callable[[int, int], object]) -> None:
        super().__init__(cards)
        self._look, self._cards, self._move = look, cards, move

    def take(self, title: QPushButton, place: int) -> None:
        """Watch the title of the step at a place."""
        title.setProperty(_PLACE, place)
        title.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if not isinstance(watched, QPushButton) or event is None:
            return False
        place = int(watched.property(_PLACE))
        if isinstance(event, QKeyEvent) and event.type() == QEvent.Type.KeyPress:
            by = {Qt.Key.Key_Up: -1, Qt.Key.Key_Down: 1}.get(Qt.Key(event.key()), 0)
            if by and event.modifiers() & Qt.KeyboardModifier.AltModifier:
                self._move(place, place + by)
                return True
        elif isinstance(event, QMouseEvent) and event.type() == QEvent.Type.MouseMove and event.buttons():
            self._frame(self._place_at(event.globalPosition().toPoint()), place)
        elif isinstance(event, QMouseEvent) and event.type() == QEvent.Type.MouseButtonRelease:
            self._frame(-1, place)
            target = self._place_at(event.globalPosition().toPoint())
            if target not in (-1, place):
                watched.setDown(False)
                self._move(place, target)
                return True
        return False

    def _steps(self) -> Iterator[tuple[int, QWidget]]:
        """The cards of steps, with their places; that of the encoding has no title that is watched."""
        for number in range(self._cards.count()):
            item = self._cards.itemAt(number)
            card = item.widget() if item is not None else None
            for title in card.findChildren(QPushButton) if card is not None else ():
                if title.property(_PLACE) == number:
                    assert card is not None
                    yield number, card

    def _place_at(self, at: QPoint) -> int:
        """Which step is at a place of the screen, -1 for none."""
        return next(
            (place for place, card in self._steps() if card.rect().contains(card.mapFromGlobal(at))), -1
        )

    def _frame(self, target: int, dragged: int) -> None:
        """Frame the step in whose place the dragged one would come."""
        for place, card in self._steps():
            card.setStyleSheet(
                card_frame(self._look, "selection" if place == target != dragged else "hairline")
            )
