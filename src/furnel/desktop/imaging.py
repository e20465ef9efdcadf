"""Pictures of the core as Qt's."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from PyQt6.QtCore import QRectF
from PyQt6.QtGui import QBrush, QColor, QImage, QPainter

from furnel.images.picture import Picture


def to_image(picture: Picture) -> QImage:
    """A picture as a QImage of its own."""
    pixels = np.ascontiguousarray(picture.pixels)
    image = QImage(  # type: ignore[call-overload]  # any buffer will do
        pixels.data, picture.width, picture.height, picture.width * 4, QImage.Format.Format_RGBA8888
    )
    copied: QImage = image.copy()
    return copied


def paint_checks(painter: QPainter, rect: QRectF, light: QColor, dark: QColor, side: int = 8) -> None:
    """The chequered ground that clear pixels show."""
    painter.save()
    painter.setBrushOrigin(rect.topLeft())
    painter.fillRect(rect, QBrush(_checks(light.rgba(), dark.rgba(), side)))
    painter.restore()


@lru_cache(maxsize=8)
def _checks(light: int, dark: int, side: int) -> QImage:
    """Four of the chequers, to be laid side by side."""
    image = QImage(2 * side, 2 * side, QImage.Format.Format_ARGB32)
    image.fill(QColor.fromRgba(light))
    painter = QPainter(image)
    for place in (0, side):
        painter.fillRect(place, place, side, side, QColor.fromRgba(dark))
    painter.end()
    return image
