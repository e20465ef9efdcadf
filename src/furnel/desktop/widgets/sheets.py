"""Small windows: every key at a glance, and a question in plain words."""

from __future__ import annotations

from collections.abc import Sequence
from html import escape
from typing import Any

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QDialog, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.actions import COMMANDS, key_of
from furnel.desktop.language import tr
from furnel.desktop.look import dressed
from furnel.desktop.widgets.basics import answers, button, hairline, label, scrolling, strong

_COLUMNS = 4


def show_keys(parent: QWidget) -> None:
    """Every command that has a key, by its group; before them what keys and mouse do in what is seen now."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle(tr("Keys"))
    inside = QWidget()
    column = QVBoxLayout(inside)
    column.setContentsMargins(20, 18, 24, 20)
    column.setSpacing(10)
    if here := _keys_here(parent):
        column.addLayout(_side_by_side(here))
        column.addWidget(hairline())
    column.addLayout(_side_by_side(_in_columns()))
    column.addStretch(1)
    whole = QVBoxLayout(dialog)
    whole.setContentsMargins(0, 0, 0, 0)
    whole.addWidget(scrolling(inside, "ground"))
    room = parent.window() or parent
    wanted = inside.sizeHint()
    dialog.resize(min(wanted.width() + 16, room.width() - 24), min(wanted.height() + 4, room.height() - 24))
    dialog.setAttribute(Qt.WidgetAttribute.WA_DeleteOnClose)
    dialog.show()


def _side_by_side(texts: Sequence[str]) -> QHBoxLayout:
    row = QHBoxLayout()
    row.setSpacing(30)
    for text in texts:
        words = label()
        words.setTextFormat(Qt.TextFormat.RichText)
        words.setText(text)
        row.addWidget(words, 0, Qt.AlignmentFlag.AlignTop)
    row.addStretch(1)
    return row


def _keys_here(parent: QWidget) -> list[str]:
    """What keys and mouse do in the parts that are seen now, that with the cursor first."""
    window = parent.window() or parent
    parts = [part for part in window.findChildren(QWidget) if part.isVisible() and hasattr(part, "KEYS_HERE")]
    shown: dict[type[QWidget], Any] = {}
    for part in sorted(parts, key=lambda part: not part.hasFocus()):
        shown.setdefault(type(part), part)
    return [_table(part.accessibleName() or "Here", part.KEYS_HERE) for part in list(shown.values())[:4]]


def _in_columns() -> list[str]:
    """Every group of commands, in columns of about one height."""
    columns: list[list[str]] = [[] for _ in range(_COLUMNS)]
    for group in dict.fromkeys(entry.group for entry in COMMANDS):
        min(columns, key=lambda told: sum(table.count("<tr>") + 2 for table in told)).append(_keys_of(group))
    return ["<br>".join(told) for told in columns]


def _keys_of(group: str) -> str:
    """A group's commands and keys as a table."""
    mine = [(tr(entry.text).rstrip("…"), key_of(entry.id)) for entry in COMMANDS if entry.group == group]
    return _table(group, [(key, text) for text, key in mine if key])


def _table(title: str, keys: Sequence[tuple[str, str]]) -> str:
    rows = "".join(
        f"<tr><td>{escape(tr(text))}&nbsp;&nbsp;&nbsp;</td><td align=right>{escape(tr(key))}</td></tr>"
        for key, text in keys
    )
    return f"<p>{strong(escape(tr(title)))}</p><table width=100% cellspacing=3>{rows}</table>"


def ask(parent: QWidget, title: str, text: str, verb: str) -> bool:
    """Ask for leave in plain words; nothing is done unless `verb` is chosen."""
    dialog = QDialog(dressed(parent))
    dialog.setWindowTitle(tr(title))
    words = label(text)
    words.setWordWrap(True)
    words.setTextFormat(Qt.TextFormat.PlainText)
    words.setMinimumWidth(420)
    leave, go = button("Leave it", "Change nothing  (Esc)"), button(verb, verb)
    column = QVBoxLayout(dialog)
    column.setContentsMargins(20, 18, 20, 16)
    column.setSpacing(14)
    column.addWidget(label(title, "title"))
    column.addWidget(words)
    column.addLayout(answers(dialog, leave, go))
    go.setAutoDefault(False)
    leave.setDefault(True)  # leave is not given by a key that was meant for something else
    leave.setFocus()
    accepted = bool(dialog.exec())
    dialog.deleteLater()
    return accepted
