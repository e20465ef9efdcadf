"""Folders, mods and archives that are dropped where nothing else takes them: the window lights up and says what it will do."""

from __future__ import annotations

from pathlib import Path
from typing import TYPE_CHECKING

from PyQt6.QtCore import QEvent, QObject, Qt
from PyQt6.QtGui import QDragEnterEvent, QDropEvent

from furnel.desktop.doing import take_dropped
from furnel.desktop.language import tr
from furnel.desktop.widgets.basics import label
from furnel.desktop.widgets.dropping import files_of
from furnel.games import fitting_profiles

if TYPE_CHECKING:
    from furnel.desktop.window import Window

_MARGIN = 24


class Anywhere(QObject):
    """Takes what is dropped on a window beside everything that takes it for itself."""

    def __init__(self, window: Window) -> None:
        super().__init__(window)
        self._window = window
        self._says = label("", "title")
        self._says.setParent(window)
        self._says.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._says.setObjectName("card")
        self._says.hide()
        window.look.dress(self._says)
        window.setAcceptDrops(True)
        window.installEventFilter(self)

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if isinstance(event, QDragEnterEvent):
            files = files_of(event)
            if not files:
                return False
            event.acceptProposedAction()
            self._say(purpose(self._window, files))
            return True
        if isinstance(event, QDropEvent) and event.type() == QEvent.Type.Drop:
            self._says.hide()
            if files := files_of(event):
                event.acceptProposedAction()
                take_dropped(self._window, files)
            return True
        if event is not None and event.type() == QEvent.Type.DragLeave:
            self._says.hide()
        return False

    def _say(self, words: str) -> None:
        self._says.setText(tr(words))
        self._says.adjustSize()
        wide = min(self._says.width() + 3 * _MARGIN, self._window.width() - 2 * _MARGIN)
        self._says.setGeometry(
            (self._window.width() - wide) // 2, self._window.height() // 3, wide, 3 * _MARGIN
        )
        self._says.raise_()
        self._says.show()


def purpose(window: Window, files: list[Path]) -> str:
    """What comes of files that are dropped on a window, in a few words."""
    first = files[0]
    if first.name == "furnel.toml" or (first / "furnel.toml").is_file():
        return f"Opens the mod {first.parent.name if first.is_file() else first.name}"
    if first.is_dir():
        known = fitting_profiles(first)
        return f"Opens {known[0].name}" if known else f"Looks at {first.name} as a new game"
    return (
        f"Looks at {first.name}"
        if window.session.project is None
        else f"Looks for what {first.name} replaces"
    )


def take_on_wall(window: Window, files: list[Path]) -> None:
    """Files beside the tiles are matched with originals; a folder of another game, or any while none is open, is opened."""
    catalogue, first = window.session.catalogue, files[0]
    if first.is_dir() and (
        catalogue is None or (fitting_profiles(first) and first.resolve() != catalogue.install.folder)
    ):
        window.open_folder(first)
    else:
        window.pages.match_files(files)
