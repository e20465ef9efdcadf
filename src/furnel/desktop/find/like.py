"""Looks like: a box for a picture, a crop of the running game, a colour or a sound, after which the wall is ranked."""

from __future__ import annotations

import numpy as np
from PyQt6.QtCore import QRectF, Qt, pyqtSignal
from PyQt6.QtGui import (
    QColor,
    QDragEnterEvent,
    QDragLeaveEvent,
    QDropEvent,
    QImage,
    QMouseEvent,
    QPainter,
    QPaintEvent,
    QPen,
)
from PyQt6.QtWidgets import QApplication, QHBoxLayout, QVBoxLayout, QWidget

from furnel.catalogue import Wanted
from furnel.catalogue.wanted import SIDE
from furnel.desktop.actions import key_of, with_key
from furnel.desktop.imaging import to_image
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.tiles import paint_waveform
from furnel.desktop.widgets.basics import button
from furnel.desktop.widgets.colours import ask_colour
from furnel.desktop.widgets.dropping import files_of
from furnel.desktop.widgets.icons import give_icon
from furnel.images.picture import Picture
from furnel.sound import waveform


def from_image(image: QImage, name: str) -> Wanted:
    """A picture from the clipboard."""
    whole = image.convertToFormat(QImage.Format.Format_RGBA8888)
    if max(whole.width(), whole.height()) > SIDE:
        whole = whole.scaled(
            SIDE, SIDE, Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
        )
    bits = whole.constBits()
    bits.setsize(whole.sizeInBytes())
    flat = np.frombuffer(bits, np.uint8)  # type: ignore[call-overload]  # any buffer will do
    rows = flat.reshape(whole.height(), whole.bytesPerLine())
    pixels = rows[:, : whole.width() * 4].reshape(whole.height(), whole.width(), 4).copy()
    return Wanted(name, Picture(pixels))


class _Well(QWidget):
    """Where to drop; shows what is looked for."""

    dropped = pyqtSignal(object)
    pressed = pyqtSignal()

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._shown: Wanted | None = None
        self._image: QImage | None = None
        self._over = False
        self.setFixedHeight(74)
        self.setAcceptDrops(True)
        self.setAccessibleName(tr("Looks like"))
        self.setToolTip(
            tr(
                "Drop a picture, a sound or a crop of the running game; the wall is ranked by likeness.\n"
                f"A crop from the clipboard: {key_of('paste-like')}"
            )
        )
        look.changed.connect(self.update)

    def show_likeness(self, likeness: Wanted | None) -> None:
        self._shown = likeness
        self._image = (
            to_image(likeness.picture) if likeness is not None and likeness.picture is not None else None
        )
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look, rect = QPainter(self), self._look, QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.fillRect(self.rect(), look.colour("stage" if self._shown else "sunken"))
        shown = self._shown
        if shown is None:
            painter.setPen(
                QPen(look.colour("selection" if self._over else "hairline-strong"), 1, Qt.PenStyle.DashLine)
            )
            painter.drawRect(rect)
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            words = tr("Drop a picture, a sound\nor a crop of the game")
            painter.drawText(rect, Qt.AlignmentFlag.AlignCenter, words)
        elif self._image is not None:
            size = self._image.size().scaled(self.size(), Qt.AspectRatioMode.KeepAspectRatio)
            box = QRectF(0, 0, size.width(), size.height())
            box.moveCenter(rect.center())
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(box, self._image)
        elif shown.colour is not None:
            painter.fillRect(rect, QColor(*shown.colour))
        elif shown.clip is not None:
            lows, highs = waveform(shown.clip, max(int(rect.width()) // 2, 8))
            paint_waveform(
                painter, rect.adjusted(6, 8, -6, -8), np.stack([lows, highs]), look.colour("ember")
            )

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        self.pressed.emit()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        data = event.mimeData() if event is not None else None
        if event is not None and data is not None and (data.hasUrls() or data.hasImage()):
            self._over = True
            event.acceptProposedAction()
            self.update()

    def dragLeaveEvent(self, event: QDragLeaveEvent | None) -> None:
        self._over = False
        self.update()

    def dropEvent(self, event: QDropEvent | None) -> None:
        self._over = False
        if event is not None:
            data, files = event.mimeData(), files_of(event)
            if files:
                self.dropped.emit(files[0])
            elif data is not None and data.hasImage():
                self.dropped.emit(QImage(data.imageData()))
            event.acceptProposedAction()
        self.update()


class LikeBox(QWidget):
    """The box with its buttons. `changed` tells of another likeness or none, `file_wanted` of a file to be read."""

    changed = pyqtSignal()
    file_wanted = pyqtSignal(object)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self.likeness: Wanted | None = None
        self.well = _Well(look)
        self._colour = button("Colour…", "Rank the wall by a colour", "plain")
        give_icon(self._colour, look, "colour")
        self._paste = button("Paste", with_key("A crop from the clipboard", "paste-like"), "plain")
        self._clear = button("Clear", "Back to the whole wall", "plain")
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(2)
        column.addWidget(self.well)
        row = QHBoxLayout()
        row.setSpacing(0)
        for part in (self._colour, self._paste, self._clear):
            row.addWidget(part)
        row.addStretch(1)
        column.addLayout(row)
        self.well.dropped.connect(self._dropped)
        self._colour.clicked.connect(self._ask_colour)
        self._paste.clicked.connect(self.paste)
        self._clear.clicked.connect(lambda: self.set(None))
        self.set(None)

    def set(self, likeness: Wanted | None) -> None:
        """Look for something else, or for nothing."""
        before, self.likeness = self.likeness, likeness
        self.well.show_likeness(likeness)
        self._clear.setVisible(likeness is not None)
        if before is not likeness:
            self.changed.emit()

    def paste(self) -> bool:
        """Look for what is in the clipboard; False when that is no picture."""
        clipboard = QApplication.clipboard()
        image = clipboard.image() if clipboard is not None else QImage()
        if image.isNull():
            return False
        self.set(from_image(image, "the crop"))
        return True

    def _dropped(self, what: object) -> None:
        if isinstance(what, QImage):
            self.set(from_image(what, "the crop"))
        else:
            self.file_wanted.emit(what)

    def _ask_colour(self) -> None:
        ask_colour(
            self, "A colour to look for", (160, 90, 50),
            lambda colour: self.set(Wanted(f"#{bytes(colour).hex()}", colour=colour)),
        )  # fmt: skip
