"""Everything that was said since the start, the latest on top, with what can still be done about it."""

from __future__ import annotations

from collections.abc import Sequence

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.look import Look
from furnel.desktop.session import Notice, Session
from furnel.desktop.widgets.basics import (
    StateMark,
    button,
    copy_text,
    emptied,
    hairline,
    label,
    scrolling,
    toggle,
)
from furnel.desktop.widgets.page import Page
from furnel.words import count

_MOST = 200  # rows at once


class SaidPage(Page):
    """The notices of a window, as they were told: when, how it went, the words, and their actions."""

    def __init__(self, look: Look, session: Session, notices: Sequence[Notice]) -> None:
        super().__init__()
        self._look, self._notices = look, notices
        self.title.setText("What was said")
        self.refusals = toggle("refusals only", "Show only what could not be done")
        self.refusals.toggled.connect(lambda _: self._renew())
        copy = button("Copy", "Copy what is shown, a line each", "plain")
        copy.clicked.connect(lambda: copy_text(self.told()))
        back = button("Back", "Esc", "plain")
        back.clicked.connect(self.closed)
        self._rows = QVBoxLayout()
        self._rows.setContentsMargins(24, 10, 24, 24)
        self._rows.setSpacing(0)
        inside = QWidget()
        inside.setLayout(self._rows)
        body = QHBoxLayout()
        self._area = scrolling(inside, "ground")
        self._area.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self._area.setAccessibleName("What was said, the latest first")
        body.addWidget(self._area)
        self.laid_out(self.titled(self.refusals, copy, back), body)
        self.setFocusProxy(self._area)
        session.told.connect(lambda _: self._renew() if self.isVisible() else None)

    def open(self) -> None:
        """Show what was said up to now."""
        self._renew()
        self._area.setFocus()

    def _shown(self) -> list[Notice]:
        """The latest first."""
        wanted = (n for n in reversed(self._notices) if n.tone == "wrong" or not self.refusals.isChecked())
        return list(wanted)[:_MOST]

    def told(self) -> str:
        """What is shown, as text."""
        return "\n".join(
            f"{n.at:%H:%M:%S}  {'✕' if n.tone == 'wrong' else '✓'}  {n.text}" for n in self._shown()
        )

    def _renew(self) -> None:
        emptied(self._rows)
        wrong = sum(notice.tone == "wrong" for notice in self._notices)
        self.said.setText(
            f"{count(len(self._notices), 'notice')} since the start"
            + (f", {count(wrong, 'refusal')}" if wrong else "")
        )
        shown = self._shown()
        for notice in shown:
            self._rows.addWidget(self._row(notice))
            self._rows.addWidget(hairline())
        if not shown:
            self._rows.addWidget(
                label("Nothing was refused." if self._notices else "Nothing yet.", "caption")
            )

    def _row(self, notice: Notice) -> QWidget:
        row = QWidget()
        line = QHBoxLayout(row)
        line.setContentsMargins(0, 8, 0, 8)
        line.setSpacing(12)
        words = label(notice.text)
        words.setWordWrap(True)
        words.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        top = Qt.AlignmentFlag.AlignTop
        words.setAlignment(top)
        line.addWidget(label(f"{notice.at:%H:%M:%S}", "caption"), 0, top)
        line.addWidget(StateMark(self._look, "breaks" if notice.tone == "wrong" else "fits", 9), 0, top)
        line.addWidget(words, 1)
        for text, act in notice.actions:
            part = button(text, text, "plain")
            part.clicked.connect(lambda _=False, act=act: act())
            part.setFixedHeight(words.fontMetrics().height() + 2)
            line.addWidget(part, 0, top)
        return row
