"""Undo and redo, each in its place: the load order's on Try, a page's own where it has one, the mod's everywhere else."""

from __future__ import annotations

from collections.abc import Callable
from typing import TYPE_CHECKING, Any

from PyQt6.QtCore import QObject, Qt, pyqtSignal
from PyQt6.QtWidgets import QPushButton

from furnel.desktop.actions import with_key
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.session import Session
from furnel.desktop.widgets.basics import button, tip
from furnel.desktop.widgets.icons import give_icon
from furnel.desktop.widgets.page import Page
from furnel.mods.past import Past

if TYPE_CHECKING:
    from furnel.mods.edit import Edit

_WORDS = {False: "take back", True: "do again"}


class Undoing(QObject):
    """The two buttons and what they do; `in_sight` tells what they act on: `orders`, `mod`, or a page.

    A change of the mod that was taken back or done again is emitted as `stepped`, so that the window shows it.
    """

    stepped = pyqtSignal(object)
    list_wanted = pyqtSignal()

    def __init__(self, look: Look, session: Session, in_sight: Callable[[], Page | str]) -> None:
        super().__init__(session)
        self._session, self._in_sight = session, in_sight
        self.undo, self.redo = (
            button("", with_key("Undo", "undo"), "plain"),
            button("", with_key("Redo", "redo"), "plain"),
        )
        for part, forward in ((self.undo, False), (self.redo, True)):
            give_icon(part, look, "redo" if forward else "undo")
            part.setAccessibleName(tr("Redo" if forward else "Undo"))
            part.clicked.connect(lambda _=False, forward=forward: self.step(forward))
            part.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
            part.customContextMenuRequested.connect(lambda _: self.list_wanted.emit())

    def weigh(self) -> None:
        """Say on the buttons what they would do here."""
        here = self._in_sight()
        past: Past[Any] = self._session.game.orders if here == "orders" else self._session.past
        for part, word, forward in ((self.undo, "Undo", False), (self.redo, "Redo", True)):
            if isinstance(here, Page):
                text = here.undoable(forward)
            else:
                change = past.next if forward else past.last
                text = change.text if change else ""
            _set(part, text, word, word.lower())

    def step(self, forward: bool) -> None:
        """Take back or do again, and say what that was."""
        session = self._session
        verb = "Done again" if forward else "Taken back"
        here = self._in_sight()
        if isinstance(here, Page):
            if text := here.undoable(forward):
                here.step(forward)
            session.tell("calm", f"{verb}: {text}" if text else f"There is nothing to {_WORDS[forward]} here")
            self.weigh()
            return
        if here == "orders":
            order = session.game.step(forward)
            if order is not None:
                session.tell("calm", f"{verb}: {order.text}")
            elif session.past.last is not None and not forward:
                session.tell(
                    "calm",
                    "The load order has nothing to take back; changes of the mod are taken back in Fit",
                )
            return
        edit: Edit | None = session.redo() if forward else session.undo()
        if edit is None:
            session.tell("calm", f"There is nothing to {_WORDS[forward]}")
            return
        session.tell("calm", f"{verb}: {edit.text}")
        self.stepped.emit(edit)


def _set(part: QPushButton, text: str, word: str, name: str) -> None:
    part.setEnabled(bool(text))
    tip(part, with_key(f"{word}: {text}" if text else f"Nothing to {word.lower()} here", name))
