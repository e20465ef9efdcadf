"""Furnel's own small pictures: one weight, in the colours of the theme."""

from __future__ import annotations

from functools import cache
from importlib import resources
from weakref import WeakKeyDictionary

from PyQt6 import sip
from PyQt6.QtCore import QByteArray, QObject, QSize, Qt
from PyQt6.QtGui import QAction, QIcon, QPainter, QPixmap
from PyQt6.QtSvg import QSvgRenderer
from PyQt6.QtWidgets import QAbstractButton, QLineEdit

from furnel.desktop.look import Look

SIDE = 14  # pixels
_SCALES = (1, 2, 3)  # of screens
_ROLES = (
    (QIcon.Mode.Normal, QIcon.State.Off, "quiet"), (QIcon.Mode.Active, QIcon.State.Off, "text"),
    (QIcon.Mode.Normal, QIcon.State.On, "text"), (QIcon.Mode.Active, QIcon.State.On, "text"),
    (QIcon.Mode.Disabled, QIcon.State.Off, "faint"), (QIcon.Mode.Disabled, QIcon.State.On, "faint"),
)  # fmt: skip


def drawn(look: Look, name: str) -> QIcon:
    """A picture by its name, in the theme's colours for each state of a button. Raises FileNotFoundError for none of ours."""
    return _drawn(name, tuple(look.colour(role).name() for _, _, role in _ROLES))


@cache
def _drawn(name: str, colours: tuple[str, ...]) -> QIcon:
    text = (resources.files("furnel.desktop") / "themes" / "icons" / f"{name}.svg").read_text("utf-8")
    icon = QIcon()
    for (mode, state, _), colour in zip(_ROLES, colours, strict=True):
        shape = QSvgRenderer(QByteArray(text.replace("#000", colour).encode()))
        for scale in _SCALES:
            picture = QPixmap(QSize(SIDE, SIDE) * scale)
            picture.fill(Qt.GlobalColor.transparent)
            painter = QPainter(picture)
            shape.render(painter)
            painter.end()
            picture.setDevicePixelRatio(scale)
            icon.addPixmap(picture, mode, state)
    return icon


class _Wardrobe(QObject):
    """Which part has which picture, for as long as the part is there; all of them renewed with the theme."""

    def __init__(self, look: Look) -> None:
        super().__init__(look)
        self._look = look
        self.names = WeakKeyDictionary[QAbstractButton | QAction, str]()
        look.changed.connect(self._renew)

    def _renew(self) -> None:
        for part, name in list(self.names.items()):
            if not sip.isdeleted(part):
                part.setIcon(drawn(self._look, name))


def give_icon(part: QAbstractButton | QAction, look: Look, name: str) -> None:
    """Put a picture on a button, and keep it in the theme's colours."""
    wardrobe = look.findChild(_Wardrobe) or _Wardrobe(look)
    wardrobe.names[part] = name
    if isinstance(part, QAbstractButton):
        part.setIconSize(QSize(SIDE, SIDE))
    part.setIcon(drawn(look, name))


def search_icon(line: QLineEdit, look: Look) -> None:
    """Mark a field as one that is searched with."""
    action = QAction(line)
    line.addAction(action, QLineEdit.ActionPosition.LeadingPosition)
    give_icon(action, look, "search")
