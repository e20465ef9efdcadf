"""New mod: its name, the folder that is made for it, in one window."""

from __future__ import annotations

import re
from pathlib import Path

from PyQt6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.session import Session
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import answers, button, field, label
from furnel.desktop.widgets.filepicker import keep_folder, recent_folders


def folder_for(name: str, home: Path) -> Path:
    """The folder that is proposed for a mod: called like it, and one that is not there yet."""
    plain = re.sub(r"[^\w-]+", "-", name.strip().casefold()).strip("-") or "mod"
    return next(
        folder
        for number in range(1, 1000)
        if not (folder := home / (plain if number == 1 else f"{plain}-{number}")).exists()
    )


class NewMod(QDialog):
    """Asks for a mod's name and where its project lies; `name` and `folder` are what was said."""

    def __init__(self, parent: QWidget, game: str) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr("New mod"))
        self.setMinimumWidth(520)
        self._home = next(iter(recent_folders("new mods")), Path.home() / "Mods")
        self._proposed = ""
        self.title = field("Northern Lights", "What it is called")
        self.where = field("a folder", "Where it lies")
        self._says = label("", "caption")
        self._says.setWordWrap(True)
        choose = button("Choose…", "The folder around it", "plain")
        self.leave, self.go = (
            button("Leave it", "Esc"),
            button("Start it", "Make the folder and open the mod", "next"),
        )
        self.go.setDefault(True)
        row = QHBoxLayout()
        row.addWidget(self.where, 1)
        row.addWidget(choose)
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 18, 20, 16)
        column.setSpacing(8)
        column.addWidget(label(f"A new mod for {game}", "title"))
        column.addWidget(label("What is it called?", "caption"))
        column.addWidget(self.title)
        column.addWidget(
            label("Its folder, which is made. Your sources can lie in it, or stay where they are.", "caption")
        )
        column.addLayout(row)
        column.addWidget(self._says)
        column.addLayout(answers(self, self.leave, self.go))
        self.title.textChanged.connect(self._named)
        self.where.textChanged.connect(lambda _: self._weigh())
        choose.clicked.connect(self._choose)
        self._named("")
        self.title.setFocus()

    @property
    def name(self) -> str:
        return self.title.text().strip()

    @property
    def folder(self) -> Path:
        return Path(self.where.text().strip()).expanduser()

    def _named(self, text: str) -> None:
        if self.where.text() == self._proposed:  # until somebody says another one
            self._proposed = str(folder_for(text, self._home)) if text.strip() else str(self._home)
            self.where.setText(self._proposed)
        self._weigh()

    def _choose(self) -> None:
        chosen = picking.pick_folder(
            self, "The folder around the new mod's", "new mods", self._home if self._home.is_dir() else None
        )
        if chosen is not None:
            self._home = chosen
            self._proposed = str(folder_for(self.name or "mod", chosen))
            self.where.setText(self._proposed)

    def _weigh(self) -> None:
        said = ""
        if self.name and not self.folder.is_absolute():
            said = "The folder's path has to be a whole one"
        elif self.name and (self.folder / "furnel.toml").exists():
            said = "There is a mod in this folder already"
        elif self.name and self.folder.exists() and not self.folder.is_dir():
            said = "A file of that name is there"
        self._says.setText(tr(said))
        self.go.setEnabled(bool(self.name) and not said)


def ask_new_mod(near: QWidget, session: Session) -> tuple[Path, str] | None:
    """Where a new mod of the open game is to lie and what it is called; None when it was left."""
    if session.catalogue is None:
        return None
    dialog = NewMod(dressed(near), session.catalogue.install.profile.name)
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    if not accepted:
        return None
    keep_folder("new mods", dialog.folder.parent)
    return dialog.folder, dialog.name
