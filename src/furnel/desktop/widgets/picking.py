"""Asking for a file, a folder, a name, or one of some: every question of that kind goes through here."""

from __future__ import annotations

import os
from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtWidgets import QDialog, QLineEdit, QListWidget, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.widgets.basics import answers, button, field, label
from furnel.desktop.widgets.filepicker import FilePicker, Sorts, Want, system_choose

PICTURES = (
    "Pictures",
    "*.png *.jpg *.jpeg *.webp *.tga *.dds *.ktx2 *.bmp *.gif *.tif *.tiff *.ora *.hdr *.exr",
)
SOUNDS = ("Sounds", "*.wav *.flac *.ogg *.opus *.mp3 *.aiff *.aif")


def pick_file(
    near: QWidget, title: str, kind: str, sorts: Sorts = (), start: Path | None = None
) -> Path | None:
    """A file that is there; None when nothing was chosen."""
    return next(iter(_choose(near, title, "file", kind, sorts, start)), None)


def pick_files(near: QWidget, title: str, kind: str, sorts: Sorts = ()) -> list[Path]:
    """Files that are there; none when nothing was chosen."""
    return _choose(near, title, "files", kind, sorts, None)


def pick_folder(near: QWidget, title: str, kind: str, start: Path | None = None) -> Path | None:
    """A folder; None when nothing was chosen."""
    return next(iter(_choose(near, title, "folder", kind, (), start)), None)


def pick_target(near: QWidget, title: str, kind: str, proposed: Path, sorts: Sorts = ()) -> Path | None:
    """A file to write, with leave to replace one that is there; None when nothing was chosen."""
    return next(iter(_choose(near, title, "target", kind, sorts, proposed)), None)


def _choose(near: QWidget, title: str, want: Want, kind: str, sorts: Sorts, start: Path | None) -> list[Path]:
    if is_confined():
        return system_choose(dressed(near), title, want, kind, sorts, start)
    dialog = FilePicker(dressed(near), title, want, kind, sorts, start)
    chosen = dialog.chosen if dialog.exec() else []
    dialog.deleteLater()
    return chosen


def is_confined() -> bool:
    """Whether only the system's own window may look at the user's files, or is wanted (FURNEL_FILES=system)."""
    return (
        os.environ.get("FURNEL_FILES") == "system" or Path("/.flatpak-info").exists() or "SNAP" in os.environ
    )


def ask_name(near: QWidget, title: str, text: str, value: str = "", verb: str = "Go on") -> str | None:
    """A line of text, without spaces around it; None when nothing was said."""
    dialog, line = QDialog(dressed(near)), field("", text)
    line.setText(value)
    line.selectAll()
    return line.text().strip() or None if _asked(dialog, title, text, line, verb) else None


def ask_one(near: QWidget, title: str, text: str, names: Sequence[str], verb: str = "Take it") -> str | None:
    """One of some names; None when none was chosen."""
    dialog, rows = QDialog(dressed(near)), QListWidget()
    rows.setAccessibleName(tr(text))
    rows.addItems(list(names))
    rows.setCurrentRow(0)
    rows.setMinimumHeight(min(26 * len(names) + 8, 320))
    rows.itemActivated.connect(lambda _: dialog.accept())
    chosen = _asked(dialog, title, text, rows, verb)
    item = rows.currentItem()
    return item.text() if chosen and item is not None else None


def _asked(dialog: QDialog, title: str, text: str, part: QWidget, verb: str) -> bool:
    dialog.setWindowTitle(tr(title))
    dialog.setMinimumWidth(380)
    leave, go = button("Leave it", "Esc"), button(verb, verb, "next")
    go.setDefault(True)
    column = QVBoxLayout(dialog)
    column.setContentsMargins(20, 18, 20, 16)
    column.setSpacing(10)
    column.addWidget(label(title, "title"))
    column.addWidget(label(text, "caption"))
    column.addWidget(part)
    column.addLayout(answers(dialog, leave, go))
    if isinstance(part, QLineEdit):
        part.textChanged.connect(lambda now: go.setEnabled(bool(now.strip())))
        go.setEnabled(bool(part.text().strip()))
    part.setFocus()
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    return accepted
