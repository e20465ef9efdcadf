"""All that is measured of both sounds, side by side."""

from __future__ import annotations

import math

from PyQt6.QtCore import QRectF, QSize, Qt
from PyQt6.QtGui import QFont, QPainter, QPaintEvent
from PyQt6.QtWidgets import QWidget

from furnel.desktop.fit.sound_content import Lane, SoundContent
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.sound import to_decibels
from furnel.sound.words import length_text
from furnel.words import number

_ROW, _TOP, _WIDE = 19, 34, 264


class MeasureTable(QWidget):
    """Measure, original, yours; painted, as wide as it needs to be."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._rows: list[tuple[str, str, str]] = []
        self.setFixedWidth(_WIDE)
        self.setAccessibleName(tr("Measures"))
        look.changed.connect(self.update)

    def show_content(self, content: SoundContent) -> None:
        """Show what is measured of two sounds."""
        first, second = _measured(content.original), _measured(content.yours)
        self._rows = [
            (name, first[name], second[name]) for name in first if first[name] != "" or second[name] != ""
        ]
        self.setAccessibleDescription("; ".join(tr(f"{what} {a}, yours {b}") for what, a, b in self._rows))
        self.setMinimumHeight(_TOP + len(self._rows) * _ROW + 8)
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(_WIDE, _TOP + len(self._rows) * _ROW + 8)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.fillRect(self.rect(), look.colour("panel"))
        painter.fillRect(QRectF(0, 0, 1, self.height()), look.colour("hairline"))
        painter.setFont(font(11, QFont.Weight.Medium))
        for x, role, word in ((104, "tarn", "original"), (186, "ember", "yours")):
            painter.setPen(look.colour(role))
            painter.drawText(
                QRectF(x, 8, 76, 18), Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, tr(word)
            )
        painter.setFont(font(11))
        for row, (name, first, second) in enumerate(self._rows):
            y = _TOP + row * _ROW
            painter.setPen(look.colour("quiet"))
            painter.drawText(QRectF(12, y, 110, _ROW), Qt.AlignmentFlag.AlignVCenter, tr(name))
            painter.setPen(look.colour("text"))
            for x, text in ((104, first), (186, second)):
                painter.drawText(
                    QRectF(x - 12, y, 88, _ROW), Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter, text or "–"
                )  # fmt: skip


def _measured(lane: Lane) -> dict[str, str]:
    m, clip = lane.measures, lane.clip
    loop = clip.loop
    return {
        "Length": length_text(clip.length_s),
        "Frames": number(clip.frames),
        "Integrated": _lufs(m.loudness),
        "Loudest 3 s": _lufs(m.loudest_short),
        "Loudest 400 ms": _lufs(m.loudest_moment),
        "Range": f"{m.loudness_range:.1f} LU",
        "True peak": f"{to_decibels(m.true_peak):.1f} dBTP" if m.true_peak else "silent",
        "Sample peak": f"{to_decibels(m.peak):.1f} dBFS" if m.peak else "silent",
        "Silence before": f"{m.lead_s * 1000:.0f} ms",
        "Silence behind": f"{m.tail_s * 1000:.0f} ms",
        "DC": f"{m.dc:.2%}",
        "Clipped": number(m.clipped) if m.clipped else "none",
        "Left to right": f"{m.correlation:+.2f}" if clip.channels > 1 else "",
        "Tempo": f"{lane.rhythm.tempo:.2f} bpm" if lane.rhythm else "",
        "Meter": f"{lane.rhythm.meter} beats" if lane.rhythm else "",
        "First beat": f"{lane.rhythm.first_s:.3f} s" if lane.rhythm else "",
        "Key, perhaps": lane.key,
        "Loop from": length_text(loop[0] / clip.rate) if loop else "",
        "Loop to": length_text(loop[1] / clip.rate) if loop else "",
        "Seam": _seam(lane.seam) if lane.seam is not None else "",
    }


def _lufs(value: float) -> str:
    return f"{value:.1f} LUFS" if math.isfinite(value) else "silent"


def _seam(click: float) -> str:
    """A seam that is at most as rough as the sound itself is smooth."""
    return "smooth" if click <= 1 else f"clicks, {click:.1f} ×"
