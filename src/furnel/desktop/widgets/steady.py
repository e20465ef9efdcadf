"""Fields that the wheel leaves alone: over one that has no focus it scrolls what the field lies in."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QWheelEvent
from PyQt6.QtWidgets import QComboBox, QDoubleSpinBox, QSlider, QSpinBox, QWidget

if TYPE_CHECKING:
    _Base = QWidget
else:
    _Base = object


class _Steady(_Base):
    """Takes the wheel only with the focus, which the wheel does not give."""

    def __init__(self) -> None:
        super().__init__()
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)

    def wheelEvent(self, event: QWheelEvent | None) -> None:
        if self.hasFocus():
            super().wheelEvent(event)
        elif event is not None:
            event.ignore()


class Choice(_Steady, QComboBox):
    """A list that one is chosen from."""


class Whole(_Steady, QSpinBox):
    """A whole number."""


class Number(_Steady, QDoubleSpinBox):
    """A number with decimals."""


class Slider(_Steady, QSlider):
    """A number along a line."""

    def __init__(self) -> None:
        super().__init__()
        self.setOrientation(Qt.Orientation.Horizontal)
