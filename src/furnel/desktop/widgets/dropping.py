"""Files dropped from other programs."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtGui import QDragEnterEvent, QDropEvent


def files_of(event: QDropEvent | None) -> list[Path]:
    """The files that are dragged or dropped, without what lies on other machines."""
    data = event.mimeData() if event is not None else None
    return [Path(url.toLocalFile()) for url in data.urls() if url.isLocalFile()] if data is not None else []


def welcome_files(event: QDragEnterEvent | None) -> bool:
    """Let files come in; whether there are any."""
    data = event.mimeData() if event is not None else None
    if event is None or data is None or not data.hasUrls():
        return False
    event.acceptProposedAction()
    return True
