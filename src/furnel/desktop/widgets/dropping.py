"""Files and pictures dropped from other programs, or pasted; assets dragged from the wall."""

from __future__ import annotations

import json
from collections.abc import Callable, Sequence
from pathlib import Path

from PyQt6.QtCore import QBuffer, QIODevice, QMimeData
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QImage

_ASSETS = "application/x-furnel-assets"


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


def welcome_files(event: QDragEnterEvent | None, pictures: bool = False, assets: bool = False) -> bool:
    """Let files come in, and pictures that are none yet, and assets of the game; whether there are any."""
    data = event.mimeData() if event is not None else None
    if event is None or data is None:
        return False
    if not (data.hasUrls() or (pictures and data.hasImage()) or (assets and data.hasFormat(_ASSETS))):
        return False
    event.acceptProposedAction()
    return True


def dragged(paths: Sequence[str]) -> QMimeData:
    """Assets of the open game, by their inner paths, as they are dragged within the window; elsewhere they are text."""
    data = QMimeData()
    data.setData(_ASSETS, json.dumps(list(paths)).encode())
    data.setText("\n".join(paths))
    return data


def assets_in(data: QMimeData | None) -> list[str]:
    """The inner paths of the assets that are dragged."""
    if data is None or not data.hasFormat(_ASSETS):
        return []
    try:
        told = json.loads(bytes(data.data(_ASSETS).data()))
    except ValueError:  # another program's
        return []
    return [str(path) for path in told] if isinstance(told, list) else []
