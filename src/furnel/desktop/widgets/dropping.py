"""Files and pictures dropped from other programs, or pasted."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QBuffer, QIODevice, QMimeData
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QImage


def files_of(event: QDropEvent | None) -> list[Path]:
    """The files that are dragged or dropped, without what lies on other machines."""
    return files_in(event.mimeData() if event is not None else None)


def files_in(data: QMimeData | None) -> list[Path]:
    """The files that were handed over, without what lies on other machines."""
    return [Path(url.toLocalFile()) for url in data.urls() if url.isLocalFile()] if data is not None else []


def picture_in(data: QMimeData | None) -> QImage | None:
    """The picture that was handed over as such: from a page of the web, or copied."""
    if data is None or not data.hasImage():
        return None
    picture = QImage(data.imageData())
    return None if picture.isNull() else picture


def encoded_picture(picture: QImage) -> Callable[[], bytes]:
    """What writes a picture as PNG; it may be done in another thread."""

    def encode() -> bytes:
        buffer = QBuffer()
        buffer.open(QIODevice.OpenModeFlag.WriteOnly)
        picture.save(buffer, "PNG")
        return bytes(buffer.data().data())

    return encode


def welcome_files(event: QDragEnterEvent | None, pictures: bool = False) -> bool:
    """Let files come in, and pictures that are none yet; whether there are any."""
    data = event.mimeData() if event is not None else None
    if event is None or data is None or not (data.hasUrls() or (pictures and data.hasImage())):
        return False
    event.acceptProposedAction()
    return True
