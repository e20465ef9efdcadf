"""Furnel's own small pictures: one weight, in the colours of the theme."""

from __future__ import annotations

from functools import cache
from importlib import resources

from PyQt6 import sip
from PyQt6.QtCore import QByteArray, QSize, Qt
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


def give_icon(part: QAbstractButton | QAction, look: Look, name: str) -> None:
    """Put a picture on a button, and keep it in the theme's colours."""
    if isinstance(part, QAbstractButton):
        part.setIconSize(QSize(SIDE, SIDE))
    part.setProperty("icon-name", name)
    if not part.property("icon-kept"):
        part.setProperty("icon-kept", True)
        look.changed.connect(lambda: _renew(part, look))
    _renew(part, look)


def _renew(part: QAbstractButton | QAction, look: Look) -> None:
    if not sip.isdeleted(part):
        part.setIcon(drawn(look, str(part.property("icon-name"))))


def search_icon(line: QLineEdit, look: Look) -> None:
    """Mark a field as one that is searched with."""
    action = line.addAction(QIcon(), QLineEdit.ActionPosition.LeadingPosition)
    if action is not None:
        give_icon(action, look, "search")
