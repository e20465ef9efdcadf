"""The bar on top: which game and mod are open, the flow strip, undo, redo and the quick command."""

from __future__ import annotations

from typing import TYPE_CHECKING

from PyQt6.QtCore import Qt
from PyQt6.QtGui import QAction
from PyQt6.QtWidgets import QHBoxLayout, QMenu, QPushButton, QVBoxLayout, QWidget

from furnel.desktop.actions import key_of, with_key
from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.widgets.basics import as_panel
from furnel.desktop.widgets.icons import give_icon

if TYPE_CHECKING:
    from furnel.desktop.window import Window


class TopBar(QWidget):
    """The bar; the strip and the two buttons of the history come from the window."""

    def __init__(self, window: Window, actions: dict[str, QAction]) -> None:
        super().__init__()
        as_panel(self, name="topbar")
        self._window, self._actions = window, actions
        self.setFixedHeight(56)
        self._game, self._mod = QPushButton(tr("Open a game…")), QPushButton("")
        self._game.setObjectName("game")
        self._mod.setObjectName("mod")
        self._game.setToolTip(tr(with_key("Another game", "open-game")))
        self._mod.setToolTip(tr(with_key("Another mod", "open-mod")))
        self._game.clicked.connect(lambda: window.run_command("open-game"))
        self._mod.clicked.connect(self._mod_menu)
        names = QVBoxLayout()
        names.setSpacing(2)
        names.setContentsMargins(16, 9, 0, 9)
        for part in (self._game, self._mod):
            part.setCursor(Qt.CursorShape.PointingHandCursor)
            names.addWidget(part)
        holder = QWidget()
        holder.setLayout(names)
        holder.setFixedWidth(212)
        quick = QPushButton(f" {tr('Do anything')}      {tr(key_of('quick')).replace('+', ' ')}")
        quick.setToolTip(tr("Every command by its name"))
        quick.setStyleSheet("QPushButton { text-align: left; padding: 5px 10px }")
        quick.clicked.connect(lambda: window.run_command("quick"))
        quick.setMinimumWidth(150)
        give_icon(quick, window.look, "search")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 14, 0)
        row.setSpacing(6)
        row.addWidget(holder)
        row.addWidget(window.strip, 100)
        row.addStretch(1)
        for part in (window.undoing.undo, window.undoing.redo, quick):
            row.addWidget(part)

    def show_names(self, game: str, mod: str) -> None:
        """Say what is open; nothing where nothing is."""
        self._game.setText(game or tr("Open a game…"))
        self._mod.setText(mod or tr("New mod…"))

    def _mod_menu(self) -> None:
        menu = QMenu(dressed(self))
        for name in ("new-mod", "open-mod", "shelf"):
            menu.addAction(self._actions[name])
        menu.exec(self._mod.mapToGlobal(self._mod.rect().bottomLeft()))
        menu.deleteLater()
