"""Pictures of the core as Qt's."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QColor, QImage, QPainter

from furnel.images.picture import Picture


def to_image(picture: Picture) -> QImage:
    """A picture as a QImage of its own."""
    pixels = np.ascontiguousarray(picture.pixels)
    image = QImage(
        pixels.data, picture.width, picture.height, picture.width * 4, QImage.Format.Format_RGBA8888
    )
    copied: QImage = image.copy()
    return copied


def paint_checks(painter: QPainter, rect: QRectF, light: QColor, dark: QColor, side: int = 8) -> None:
    """The chequered ground that clear pixels show."""
    painter.save()
    painter.setClipRect(rect, Qt.ClipOperation.IntersectClip)
    painter.fillRect(rect, light)
    left, top = int(rect.left()), int(rect.top())
    for row in range(int(rect.height()) // side + 1):
        for column in range(row & 1, int(rect.width()) // side + 1, 2):
            painter.fillRect(left + column * side, top + row * side, side, side, dark)
    painter.restore()
