"""What went wrong that nobody foresaw, as a text to look at, to copy, and to send or not: Furnel sends nothing."""

from __future__ import annotations

import faulthandler
import platform
import sys
import traceback
from pathlib import Path
from typing import TYPE_CHECKING, TextIO

from furnel import __version__
from furnel.desktop.language import tr
from furnel.folders import cache_folder

if TYPE_CHECKING:
    from PyQt6.QtWidgets import QWidget

_LINES = 40
_kept: list[TextIO] = []  # open for as long as Furnel runs


def report_of(error: BaseException) -> str:
    """An error with where it happened, on what, and the last lines of the log; without the name of the user's folder."""
    from PyQt6.QtCore import PYQT_VERSION_STR, QT_VERSION_STR

    versions = (
        f"Furnel {__version__}, Python {platform.python_version()}, Qt {QT_VERSION_STR}, PyQt {PYQT_VERSION_STR}, "
        f"{platform.platform()}"
    )
    trace = "".join(traceback.format_exception(error))
    return _private(f"{versions}\n\n{trace}\nThe log before it:\n{_log()}")


def _log() -> str:
    try:
        lines = (cache_folder() / "furnel.log").read_text("utf-8", "replace").splitlines()
    except OSError:
        return "(none)"
    return "\n".join(lines[-_LINES:])


def _private(text: str) -> str:
    home = str(Path.home())
    return text.replace(home, "~") if len(home) > 1 else text


def watch_for_crashes() -> str:
    """Have what kills Furnel written down from now on; what was written down when it was killed the last time."""
    file = cache_folder() / "crash.txt"
    before = ""
    try:
        file.parent.mkdir(parents=True, exist_ok=True)
        if file.exists():
            before = file.read_text("utf-8", "replace").strip()
        stream = file.open("w", encoding="utf-8")
    except OSError:
        return ""
    _kept.append(stream)
    faulthandler.enable(stream)
    said = f"Furnel {__version__} on Python {sys.version.split()[0]} ended without warning."
    return _private(f"{said}\n\n{before}") if before else ""


def show_report(parent: QWidget, text: str) -> None:
    """The report, with a button that copies it."""
    from PyQt6.QtCore import Qt
    from PyQt6.QtWidgets import QDialog, QPlainTextEdit, QVBoxLayout

    from furnel.desktop.look import dressed
    from furnel.desktop.widgets.basics import answers, button, copy_text, label

    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle(tr("What went wrong"))
    dialog.resize(760, 460)
    words = label(
        "Your mod is saved. This text says what happened; it stays on this machine unless you copy it and send it to somebody."
    )
    words.setWordWrap(True)
    field = QPlainTextEdit(text)
    field.setObjectName("code")
    field.setReadOnly(True)
    field.setAccessibleName(tr("The report"))
    copy = button("Copy it", "Into the clipboard", "next")
    leave = button("Close", "Esc")
    copy.clicked.connect(lambda: copy_text(text))
    column = QVBoxLayout(dialog)
    column.setContentsMargins(20, 18, 20, 16)
    column.setSpacing(12)
    column.addWidget(label("What went wrong", "title"))
    column.addWidget(words)
    column.addWidget(field, 1)
    column.addLayout(answers(dialog, leave, copy))
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.show()
