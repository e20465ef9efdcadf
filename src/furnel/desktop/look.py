"""The look: colour roles from a theme's file, the bundled type, the style sheet made from both."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib import resources

from PyQt6.QtCore import QObject, pyqtSignal
from PyQt6.QtGui import QColor, QFont, QFontDatabase
from PyQt6.QtWidgets import QApplication

THEMES = ("dark", "light")
CONTENT_PX = 12
_FOLDER = "furnel.desktop"


@cache
def theme_colours(name: str) -> dict[str, str]:
    """A theme's colour by role."""
    text = (resources.files(_FOLDER) / "themes" / f"{name}.toml").read_text("utf-8")
    return dict(tomllib.loads(text)["base"])


class Look(QObject):
    """The current theme. Widgets that paint themselves ask it for colours and fonts each time they paint."""

    changed = pyqtSignal()

    def __init__(self, theme: str = "dark") -> None:
        super().__init__()
        self.theme = theme
        self._colours = {role: QColor(code) for role, code in theme_colours(theme).items()}

    def colour(self, role: str, alpha: float = 1.0) -> QColor:
        """A role's colour, see-through by `alpha`."""
        colour = QColor(self._colours[role])
        colour.setAlphaF(alpha)
        return colour

    def use(self, theme: str) -> None:
        """Change the theme everywhere."""
        self.theme = theme
        self._colours = {role: QColor(code) for role, code in theme_colours(theme).items()}
        self.apply()
        self.changed.emit()

    def apply(self) -> None:
        """Give the application its type and style sheet."""
        application = QApplication.instance()
        assert isinstance(application, QApplication)
        if application.font() != font():
            application.setFont(font())
        application.setStyleSheet(self.style_sheet())

    def style_sheet(self) -> str:
        """The style sheet with every role filled in."""
        text = (resources.files(_FOLDER) / "themes" / "window.qss").read_text("utf-8")
        for role in sorted(self._colours, key=len, reverse=True):
            text = text.replace(f"@{role}", self._colours[role].name())
        return text.replace("url(chevron.svg)", f"url({_shapes()}/chevron.svg)").replace(
            "url(tick.svg)", f"url({_shapes()}/tick.svg)"
        )


def _shapes() -> str:
    """The folder of the shapes that the style sheet names; Qt wants it as a path."""
    return str(resources.files(_FOLDER) / "themes")


def load_type() -> None:
    """Make the bundled cuts of Inter known to Qt."""
    folder = resources.files(_FOLDER) / "fonts"
    for file in folder.iterdir():
        if file.name.endswith(".otf"):
            QFontDatabase.addApplicationFontFromData(file.read_bytes())


@cache
def font(pixels: int = CONTENT_PX, weight: QFont.Weight = QFont.Weight.Normal) -> QFont:
    """Inter with tabular figures; one object for all who ask, to be copied before it is changed."""
    made = QFont("Inter")
    made.setPixelSize(pixels)
    made.setWeight(weight)
    tabular = QFont.Tag.fromString("tnum")
    if tabular is not None:
        made.setFeature(tabular, 1)
    return made


def mono(pixels: int = CONTENT_PX) -> QFont:
    """Letters of one width, for bytes and code."""
    made = QFont(font(pixels))
    made.setFamilies(["DejaVu Sans Mono", "Liberation Mono", "monospace"])
    return made


def byte_size(size: int) -> str:
    """A size in bytes, with its unit."""
    if size < 1000:
        return f"{size} B"
    if size < 1_000_000:
        return f"{size / 1000:.0f} kB" if size >= 10_000 else f"{size / 1000:.1f} kB"
    return f"{size / 1_000_000:.1f} MB"
