"""What a tray below the stage is: a widget that paints itself from both pictures."""

from __future__ import annotations

from PyQt6.QtWidgets import QWidget

from furnel.desktop.fit.picture_content import PictureContent
from furnel.desktop.language import tr
from furnel.desktop.look import Look


class Tray(QWidget):
    """Keeps the content that it paints; painted again when the theme changes."""

    def __init__(self, look: Look, name: str) -> None:
        super().__init__()
        self._look = look
        self._content: PictureContent | None = None
        self.setAccessibleName(tr(name))
        look.changed.connect(self.update)

    def show_content(self, content: PictureContent) -> None:
        """Show both pictures' tray."""
        self._content = content
        self.update()
