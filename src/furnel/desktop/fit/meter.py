"""The meter of the sound bench: momentary loudness and peak, at the playing position or under the cursor."""

from __future__ import annotations

import math

import numpy as np
from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from furnel.desktop.fit.sound_content import Lane
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font

_LOW, _HIGH = -48.0, 0.0
_PEAK_S = 0.05


class Meter(QWidget):
    """Two bars with a figure: loudness over 400 ms (LUFS) and the highest sample of the last 50 ms (dBFS)."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._loud, self._peak, self._held = -math.inf, -math.inf, -math.inf
        self._role = "tarn"
        self.device = True
        self.setFixedSize(QSize(150, 26))
        self.setAccessibleName(tr("Meter"))
        self.setToolTip(tr("Momentary loudness above, sample peak below; the line holds the highest peak"))
        look.changed.connect(self.update)

    def show_at(self, lane: Lane, seconds: float, yours: bool, gain_db: float = 0.0) -> None:
        """What is heard at a second of a lane."""
        self._role = "ember" if yours else "tarn"
        place = min(max(int(seconds * 10) - 3, 0), len(lane.moments) - 1)
        self._loud = float(lane.moments[place]) + gain_db if len(lane.moments) else -math.inf
        end = int(seconds * lane.clip.rate)
        part = lane.clip.samples[max(end - int(_PEAK_S * lane.clip.rate), 0) : max(end, 1)]
        peak = float(np.abs(part).max()) if len(part) else 0.0
        self._peak = 20 * math.log10(peak) + gain_db if peak > 0 else -math.inf
        self._held = max(self._held, self._peak)
        self.update()

    def rest(self) -> None:
        """Nothing is heard."""
        self._loud = self._peak = self._held = -math.inf
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        painter.setFont(font(10))
        if not self.device:
            painter.setPen(look.colour("quiet"))
            painter.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                tr("no sound device"),
            )
            return
        for row, (value, unit) in enumerate(((self._loud, "LUFS"), (self._peak, "dBFS"))):
            y = 2 + row * 12
            bar = QRectF(0, y + 2, 78, 6)
            painter.fillRect(bar, look.colour("raised"))
            part = min(max((value - _LOW) / (_HIGH - _LOW), 0.0), 1.0) if math.isfinite(value) else 0.0
            painter.fillRect(
                QRectF(bar.left(), bar.top(), bar.width() * part, bar.height()), look.colour(self._role)
            )
            if row == 1 and math.isfinite(self._held):
                x = bar.left() + bar.width() * min(max((self._held - _LOW) / (_HIGH - _LOW), 0.0), 1.0)
                painter.fillRect(
                    QRectF(x - 1, bar.top() - 1, 2, 8), look.colour("breaks" if self._held > -0.1 else "text")
                )
            painter.setPen(look.colour("quiet"))
            words = f"{value:.1f} {unit}" if math.isfinite(value) and value > -99 else f"– {unit}"
            painter.drawText(QRectF(84, y - 1, 66, 12), Qt.AlignmentFlag.AlignVCenter, words)
