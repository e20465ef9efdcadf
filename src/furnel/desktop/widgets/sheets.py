"""Small windows to read from: every key at a glance, and what was said so far."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QGridLayout, QHBoxLayout, QPlainTextEdit, QVBoxLayout, QWidget

from furnel.desktop.actions import COMMANDS
from furnel.desktop.look import dressed
from furnel.desktop.swapping import Notice
from furnel.desktop.widgets.basics import button, label


def show_keys(parent: QWidget) -> None:
    """Every command that has a key, by its group."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle("Keys")
    grid = QGridLayout(dialog)
    grid.setContentsMargins(20, 18, 24, 20)
    grid.setHorizontalSpacing(28)
    groups = list(dict.fromkeys(entry.group for entry in COMMANDS))
    for place, group in enumerate(groups):
        column = QVBoxLayout()
        column.setSpacing(3)
        column.addWidget(label(group.upper(), "section"))
        for entry in COMMANDS:
            if entry.group == group and entry.key:
                line = QHBoxLayout()
                line.addWidget(label(entry.text.rstrip("…")), 1)
                line.addWidget(label(entry.key, "caption"))
                column.addLayout(line)
        column.addStretch(1)
        grid.addLayout(column, place // 4, place % 4)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.show()


def ask(parent: QWidget, title: str, text: str, verb: str) -> bool:
    """Ask for leave in plain words; nothing is done unless `verb` is chosen."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle(title)
    words = label(text)
    words.setWordWrap(True)
    words.setTextFormat(Qt.TextFormat.PlainText)
    words.setMinimumWidth(420)
    leave, go = button("Leave it", "Change nothing  (Esc)"), button(verb, verb, "next")
    leave.clicked.connect(dialog.reject)
    go.clicked.connect(dialog.accept)
    row = QHBoxLayout()
    row.addStretch(1)
    row.addWidget(leave)
    row.addWidget(go)
    column = QVBoxLayout(dialog)
    column.setContentsMargins(20, 18, 20, 16)
    column.setSpacing(14)
    column.addWidget(label(title, "title"))
    column.addWidget(words)
    column.addLayout(row)
    leave.setFocus()
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    return accepted


def show_log(parent: QWidget, messages: Sequence[Notice]) -> None:
    """What was said, refusals marked."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle("Log")
    dialog.resize(720, 380)
    lines = (("✕ " if notice.tone == "wrong" else "  ") + notice.text for notice in messages)
    field = QPlainTextEdit("\n".join(lines))
    field.setReadOnly(True)
    column = QVBoxLayout(dialog)
    column.addWidget(field)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.show()
