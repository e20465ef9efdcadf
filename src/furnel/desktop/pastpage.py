"""What was changed in the mod, one change after the other; any of them can be gone back to."""

from __future__ import annotations

from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import QHBoxLayout, QListWidget, QListWidgetItem, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.session import Session
from furnel.desktop.widgets.basics import as_panel, button, emptied, hairline, label, scrolling
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.panes import SidePane
from furnel.mods.told import told
from furnel.words import count

_PLACE = Qt.ItemDataRole.UserRole


class PastPage(Page):
    """The changes of the open mod, the latest on top. `shown` asks for a swap on the bench."""

    shown = pyqtSignal(str)

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._look, self._session = look, session
        self.title.setText(tr("What was changed"))
        self.list = QListWidget()
        self.list.setObjectName("flush")
        self.list.setAccessibleName(tr("Changes, the latest first"))
        self.list.currentItemChanged.connect(lambda *_: self._show_one())
        self.list.itemActivated.connect(lambda *_: self.go())
        self.back_here = button(
            "", "Everything after it is taken back, or done again up to it; nothing is lost", "next"
        )
        self.back_here.clicked.connect(self.go)
        self._close = button("Back", "Esc", "plain")
        self._close.clicked.connect(self.closed)
        self._name, self._lines = label("", "title"), QVBoxLayout()
        self._name.setWordWrap(True)
        self._lines.setSpacing(6)
        side = QWidget()
        right = QVBoxLayout(side)
        right.setContentsMargins(16, 16, 16, 16)
        right.setSpacing(10)
        right.addWidget(self._name)
        right.addWidget(self.back_here, 0, Qt.AlignmentFlag.AlignLeft)
        right.addWidget(hairline())
        right.addLayout(self._lines)
        body = QHBoxLayout()
        body.setSpacing(0)
        left = QVBoxLayout()
        left.setContentsMargins(14, 10, 10, 10)
        left.addWidget(self.list)
        body.addLayout(left, 1)
        body.addWidget(SidePane(look, "past", "What it changed", as_panel(scrolling(side)), "right", 420))
        self.laid_out(self.titled(self._close), body)
        self.setFocusProxy(self.list)
        session.past_changed.connect(self._renew)
        look.changed.connect(self._renew)

    @property
    def chosen(self) -> int:
        """How many changes are in force when the chosen one is the last of them."""
        item = self.list.currentItem()
        return int(item.data(_PLACE)) if item is not None else self._session.past.place

    def open(self) -> None:
        """Show the changes up to now, and those that were taken back."""
        self.list.clear()
        self._renew()
        self.list.setFocus()

    def go(self) -> None:
        """Bring the mod to where the chosen change is the last one."""
        past, place = self._session.past, self.chosen
        steps, verb = abs(place - past.place), "taken back" if place < past.place else "done again"
        if steps and self._session.go_back_to(place):
            self._session.tell("calm", f"{count(steps, 'change')} {verb}")

    def _renew(self) -> None:
        if not self.isVisible() and self.list.count():
            return
        past, before = self._session.past, self.chosen if self.list.count() else self._session.past.place
        self.list.clear()
        for place in range(len(past.changes), -1, -1):
            text = past.changes[place - 1].text if place else "As it was when this list begins"
            gone = place > past.place
            item = QListWidgetItem(
                tr(f"{text}{'   · now' if place == past.place else '   · taken back' if gone else ''}")
            )
            item.setData(_PLACE, place)
            item.setForeground(
                self._look.colour(
                    "quiet" if gone or not place else "ember" if place == past.place else "text"
                )
            )
            self.list.addItem(item)
            if place == min(before, len(past.changes)):
                self.list.setCurrentItem(item)
        taken = len(past.changes) - past.place
        self.said.setText(
            tr(
                f"{count(past.place, 'change')} in force{f', {taken} taken back' if taken else ''}. "
                "Going back loses nothing, until something else is changed."
            )
        )
        self._show_one()

    def _show_one(self) -> None:
        past, place = self._session.past, self.chosen
        emptied(self._lines)
        self._name.setText(
            tr(past.changes[place - 1].text if 0 < place <= len(past.changes) else "Before all of them")
        )
        steps = abs(place - past.place)
        self.back_here.setEnabled(bool(steps))
        verb = "Go back to here" if place < past.place else "Do again up to here"
        self.back_here.setText(tr(f"{verb}: {count(steps, 'change')}" if steps else "This is now"))
        if not 0 < place <= len(past.changes):
            return
        last = None
        for original, line in told(past.changes[place - 1]):
            if original and original != last:
                name = button(original, "Show it on the bench", "plain")
                name.setEnabled(self._session.swap(original) is not None)
                name.clicked.connect(lambda _=False, original=original: self.shown.emit(original))
                self._lines.addWidget(name, 0, Qt.AlignmentFlag.AlignLeft)
            last = original
            words = label(line, "caption")
            words.setWordWrap(True)
            words.setContentsMargins(8, 0, 0, 0)
            self._lines.addWidget(words)
