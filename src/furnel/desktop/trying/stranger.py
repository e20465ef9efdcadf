"""Somebody else's mod, looked into: what it is, what it would put in whose place, where it meets the mods that are on."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, Qt
from PyQt6.QtGui import QFont, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.session import Session
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import as_panel, button, elided, label, paint_state, scrolling
from furnel.desktop.widgets.page import Page
from furnel.errors import FurnelError
from furnel.mods.getting import Stranger, looked_into
from furnel.progress import Progress
from furnel.words import count

_ROW = 40
_KINDS = {"same": "fits", "beside": "differs", "different": "breaks"}
_MEETS = {
    "same": "the same as in {who}",
    "beside": "other places of it are changed by {who}: make the bridge afterwards",
    "different": "something else than in {who}: this one would win",
}


class _Files(QWidget):
    """The mod's files, a line each: how it stands with the game and the other mods."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.rows: list[tuple[str, str, str]] = []
        self.setAccessibleName(tr("What is in the mod"))
        look.changed.connect(self.update)

    def show_rows(self, rows: list[tuple[str, str, str]]) -> None:
        """Rows of a state, a path and what is said of it."""
        self.rows = rows
        self.setFixedHeight(len(rows) * _ROW + 8)
        self.setAccessibleDescription("; ".join(f"{path}: {tr(words)}" for _, path, words in rows[:50]))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        shown = event.rect() if event is not None else self.rect()
        for row in range(max(shown.top() // _ROW, 0), min(shown.bottom() // _ROW + 1, len(self.rows))):
            state, path, words = self.rows[row]
            y = row * _ROW
            painter.setBrush(Qt.BrushStyle.NoBrush)
            paint_state(painter, look, state, QRectF(24, y + 13, 11, 11))
            painter.setFont(font(12, QFont.Weight.Medium))
            painter.setPen(look.colour("text"))
            painter.drawText(
                QPointF(48, y + 17), elided(painter, path, self.width() - 80, Qt.TextElideMode.ElideMiddle)
            )
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            painter.drawText(QPointF(48, y + 32), elided(painter, tr(words), self.width() - 80))
            painter.fillRect(QRectF(24, y + _ROW - 1, self.width() - 48, 1), look.colour("hairline"))


class StrangerPage(Page):
    """A mod that came as a ZIP, a 7z, a TAR or a folder; nothing of it is in the game before Install."""

    OWN_UNDO = True

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._session = session
        self.source: Path | None = None
        self.told: Stranger | None = None
        self.files = _Files(look)
        self._facts = label("", "caption")
        self._facts.setWordWrap(True)
        self.install = button(
            "Install it", "Into the mods folder, switched on, last in the load order", "next"
        )
        self.install.clicked.connect(self._install)
        self._other = button("Another one…", "Look into another mod")
        self._other.clicked.connect(self.ask)
        self._back = button("Back", "Esc", "plain")
        self._back.clicked.connect(self.closed)
        head = self.titled(self._back, self._other, self.install)
        facts = as_panel(QWidget(), 300)
        column = QVBoxLayout(facts)
        column.setContentsMargins(20, 16, 16, 16)
        column.setSpacing(8)
        column.addWidget(label("BEFORE IT IS INSTALLED", "section"))
        column.addWidget(self._facts)
        column.addStretch(1)
        row = QHBoxLayout()
        row.setSpacing(0)
        row.addWidget(scrolling(self.files, "ground"), 1)
        row.addWidget(facts)
        self.laid_out(head, row)

    def ask(self) -> bool:
        """Ask for a mod's file; whether one was chosen."""
        file = picking.pick_file(
            self, "Somebody's mod", "mods", [("Mods", "*.zip *.7z *.tar *.tar.* *.tgz *.txz")]
        )
        if file:
            self.open(file)
        return file is not None

    def open(self, source: Path) -> None:
        """Look into a mod."""
        catalogue = self._session.catalogue
        self.source, self.told = source, None
        self.title.setText(source.name)
        self.said.setText(tr("Looking into it…"))
        self._facts.setText("")
        self.files.show_rows([])
        self.install.setEnabled(False)
        if catalogue is None:
            self.said.setText(tr("Open its game first"))
            return

        def work(progress: Progress) -> Stranger:
            with looked_into(catalogue.install, source, "", progress) as found:
                return found

        self._session.jobs.start("Looking into a mod", work, self._show, self._refused, key="stranger")

    def _refused(self, error: FurnelError) -> None:
        self.said.setText(tr("It cannot be used"))
        self._facts.setText(tr(error.sentence()))
        self._session.tell("wrong", error.sentence())

    def _show(self, told: Stranger) -> None:
        self.told = told
        names = {mod.id: mod.name for mod in self._session.game.stack}
        self.title.setText(tr(told.said))
        how = (
            "there is no file about it: it was told by the paths in it"
            if told.told == "paths"
            else f"called {told.id}"
        )
        self.said.setText(f"{self.source.name if self.source is not None else ''}, {tr(how)}")
        rows, meetings = [], {meeting.path: meeting for meeting in told.meetings}
        for path in told.replaces:
            meeting = meetings.get(path)
            if meeting is None:
                rows.append(("fits", path, "in the place of the game's"))
                continue
            who = ", ".join(names.get(mod, mod) for mod in meeting.mods if mod != told.id)
            rows.append((_KINDS[meeting.kind], path, _MEETS[meeting.kind].format(who=who)))
        rows += [("waiting", path, "the game has nothing of that name") for path in told.more]
        rows.sort(key=lambda row: ("breaks", "differs", "fits", "waiting").index(row[0]))
        self.files.show_rows(rows)
        facts = [f"{count(len(told.replaces), 'asset')} of the game in another form."]
        if told.more:
            facts.append(
                f"{count(len(told.more), 'file')} that the game does not have: a readme, or something new."
            )
        if told.there:
            facts.append(f"It is in the game already; {count(len(told.changed), 'file')} would be others.")
        if told.there == "foreign":
            facts.append("Somebody put that there by hand. It comes back when you take this one off.")
        facts.append("Nothing of it is run. Everything can be taken off again.")
        self._facts.setText(tr("\n\n".join(facts)))
        self.install.setText(
            tr({"": "Install it", "foreign": "Install over it"}.get(told.there, "Update it"))
        )
        self.install.setEnabled(True)

    def _install(self) -> None:
        if self.source is not None and self.told is not None:
            self._session.game.get(self.source, over=self.told.there == "foreign")
            self.closed.emit()
