"""The look: colour roles from a theme's file, the bundled type, the style sheet made from both."""

from __future__ import annotations

import tomllib
from functools import cache
from importlib import resources

from PyQt6 import sip
from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QColor, QFont, QFontDatabase
from PyQt6.QtWidgets import QApplication, QWidget

from furnel.desktop.timing import timer

THEMES = ("dark", "light")
CONTENT_PX = 12
_FOLDER = "furnel.desktop"
_DRESSED = "dressed"


@cache
def theme_colours(name: str) -> dict[str, str]:
    """A theme's colour by role."""
    text = (resources.files(_FOLDER) / "themes" / f"{name}.toml").read_text("utf-8")
    return dict(tomllib.loads(text)["base"])


@cache
def style_sheet(theme: str) -> str:
    """A theme's style sheet, with every role filled in and the shapes' places as Qt wants them."""
    folder = resources.files(_FOLDER) / "themes"
    text = (folder / "window.qss").read_text("utf-8")
    colours = theme_colours(theme)
    for role in sorted(colours, key=len, reverse=True):
        text = text.replace(f"@{role}", QColor(colours[role]).name())
    for shape in ("chevron.svg", "tick.svg"):
        text = text.replace(f"url({shape})", f'url("{_quoted(folder / shape)}")')
    return text


def _quoted(path: object) -> str:
    """A path within quotes of a style sheet."""
    return str(path).replace("\\", "\\\\").replace('"', '\\"')


class Look(QObject):
    """The current theme. Widgets that paint themselves ask it for colours and fonts each time they paint.

    The style sheet is given to the window's parts one by one: a new theme comes at once to what is seen, and to the rest in
    the turns after that, or when it is shown.
    """

    changed = pyqtSignal()

    def __init__(self, theme: str = "dark") -> None:
        super().__init__()
        self.theme = theme
        self.still = False  # nothing moves by itself
        self._colours = {role: QColor(code) for role, code in theme_colours(theme).items()}
        self._roots: list[QWidget] = []
        self._late: list[QWidget] = []  # what has the old theme still
        self._next = timer(self, self._dress_next)

    def hold_still(self, still: bool) -> None:
        """Whether nothing is to move by itself."""
        if still != self.still:
            self.still = still
            for effect in (
                Qt.UIEffect.UI_AnimateMenu,
                Qt.UIEffect.UI_AnimateCombo,
                Qt.UIEffect.UI_FadeTooltip,
            ):
                QApplication.setEffectEnabled(effect, not still)
            self.changed.emit()

    def colour(self, role: str, alpha: float = 1.0) -> QColor:
        """A role's colour, see-through by `alpha`."""
        colour = QColor(self._colours[role])
        colour.setAlphaF(alpha)
        return colour

    def dress(self, root: QWidget) -> None:
        """Give a part of the window the style sheet, now and whenever the theme changes."""
        root.setProperty(_DRESSED, True)
        root.setStyleSheet(style_sheet(self.theme))
        self._roots = [*_alive(self._roots), root]

    def use(self, theme: str) -> None:
        """Change the theme everywhere."""
        self.theme = theme
        self._colours = {role: QColor(code) for role, code in theme_colours(theme).items()}
        self._roots = _alive(self._roots)
        seen = [root for root in self._roots if root.isVisible()]
        self._late = [root for root in self._roots if root not in seen]
        for root in self._late:
            root.installEventFilter(self)
        for root in seen:
            root.setStyleSheet(style_sheet(theme))
        self._next.start()
        self.changed.emit()

    def _dress_next(self) -> None:
        self._late = _alive(self._late)
        if self._late:
            self._dress_late(self._late[-1])
            self._next.start()

    def _dress_late(self, root: QWidget) -> None:
        self._late.remove(root)
        root.removeEventFilter(self)
        root.setStyleSheet(style_sheet(self.theme))

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.Show and watched in self._late:
            self._dress_late(watched)  # type: ignore[arg-type]  # those are widgets
        return False


def _alive(roots: list[QWidget]) -> list[QWidget]:
    """Those that Qt has not taken down meanwhile."""
    return [root for root in roots if not sip.isdeleted(root)]


def dressed(part: QWidget) -> QWidget:
    """The dressed part of the window that this one is in, or that it has: the parent for a dialog."""
    above: QWidget | None = part
    while above is not None and not above.property(_DRESSED):
        above = above.parentWidget()
    return above or next((child for child in part.findChildren(QWidget) if child.property(_DRESSED)), part)


def load_type() -> None:
    """Make the bundled cuts of Inter known to Qt, and the type of everything."""
    folder = resources.files(_FOLDER) / "fonts"
    for file in folder.iterdir():
        if file.name.endswith(".otf"):
            QFontDatabase.addApplicationFontFromData(file.read_bytes())
    QApplication.setFont(font())


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
