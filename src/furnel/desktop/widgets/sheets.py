"""Small windows to read from: every key at a glance, and what was said so far."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QPlainTextEdit, QVBoxLayout, QWidget

from furnel.desktop.actions import COMMANDS, key_of
from furnel.desktop.look import dressed
from furnel.desktop.session import Notice
from furnel.desktop.widgets.basics import answers, button, label, strong

_COLUMNS = 4


def show_keys(parent: QWidget) -> None:
    """Every command that has a key, by its group."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle("Keys")
    row = QHBoxLayout(dialog)
    row.setContentsMargins(20, 18, 24, 20)
    row.setSpacing(34)
    groups = list(dict.fromkeys(entry.group for entry in COMMANDS))
    for place in range(_COLUMNS):
        words = label()
        words.setTextFormat(Qt.TextFormat.RichText)
        words.setText("<br>".join(_keys_of(group) for group in groups[place::_COLUMNS]))
        row.addWidget(words, 0, Qt.AlignmentFlag.AlignTop)
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.show()


def _keys_of(group: str) -> str:
    """A group's commands and keys as a table."""
    rows = "".join(
        f"<tr><td>{escape(entry.text.rstrip('…'))}&nbsp;&nbsp;&nbsp;</td><td align=right>{escape(key_of(entry.id))}</td></tr>"
        for entry in COMMANDS
        if entry.group == group and key_of(entry.id)
    )
    return f"<p>{strong(escape(group))}</p><table width=100% cellspacing=3>{rows}</table>"


def ask(parent: QWidget, title: str, text: str, verb: str) -> bool:
    """Ask for leave in plain words; nothing is done unless `verb` is chosen."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle(title)
    words = label(text)
    words.setWordWrap(True)
    words.setTextFormat(Qt.TextFormat.PlainText)
    words.setMinimumWidth(420)
    leave, go = button("Leave it", "Change nothing  (Esc)"), button(verb, verb, "next")
    column = QVBoxLayout(dialog)
    column.setContentsMargins(20, 18, 20, 16)
    column.setSpacing(14)
    column.addWidget(label(title, "title"))
    column.addWidget(words)
    column.addLayout(answers(dialog, leave, go))
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
