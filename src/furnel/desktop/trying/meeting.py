"""Where mods meet: a map of the stack's mods and the assets that several of them touch, and who has its way."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QHideEvent, QImage, QKeyEvent, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import QHBoxLayout, QPushButton, QRadioButton, QVBoxLayout, QWidget

from furnel.desktop.imaging import paint_checks, to_image
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.playback import Player
from furnel.desktop.session import Session
from furnel.desktop.widgets.basics import (
    as_panel,
    button,
    elided,
    emptied,
    label,
    scrolling,
    set_next,
    verbatim,
)
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.panes import SidePane
from furnel.errors import FurnelError
from furnel.imagefiles import read_small, recognises
from furnel.media import medium_by_suffix
from furnel.mods.bridge import look_at_mods
from furnel.mods.meeting import Contest, Meeting, Read, Stand
from furnel.progress import Progress
from furnel.sound import read_clip
from furnel.words import count

_ROW, _HEAD, _CELL, _NAMES = 30, 34, 104, 250
_SIDE = 128
_KINDS = {
    "same": "They make the same of it.",
    "beside": "They change different places of it: the bridge has them all.",
    "older": "It was made for an older version of the game: the bridge lays what it changes over the game of today.",
    "different": "They want different things.",
}


class MeetingMap(QWidget):
    """Mods across in load order, shared assets down; what is seen is filled, what others hide is an outline.

    A mod is dragged by its name to another place in the order, or moved by Alt and the arrows once Left or Right chose it;
    `ordered` tells which mod goes before which other one (nothing: to the end).
    """

    picked = pyqtSignal(int)
    ordered = pyqtSignal(str, str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._mods: list[tuple[str, str]] = []
        self.meetings: list[Meeting] = []
        self.current = self.column = 0
        self._drag = -1
        self.setFocusPolicy(Qt.FocusPolicy.StrongFocus)
        self.setAccessibleName(tr("Where mods meet"))
        self.setToolTip(
            tr(
                "Filled: what the game shows. Half: seen together in the bridge. Outline: hidden by another mod. "
                "Drag a mod's name to change the load order"
            )
        )
        look.changed.connect(self.update)

    def show_stand(self, stand: Stand | None) -> None:
        """Show these mods and where they meet."""
        self.meetings = list(stand.meetings) if stand is not None else []
        touching = {mod for meeting in self.meetings for mod in meeting.mods}
        self._mods = (
            [(mod.id, mod.name) for mod in stand.mods if mod.id in touching] if stand is not None else []
        )
        self.current = max(0, min(self.current, len(self.meetings) - 1))
        self.setMinimumSize(_NAMES + _CELL * len(self._mods) + 12, _HEAD + _ROW * len(self.meetings) + 6)
        self.setAccessibleDescription(
            "; ".join(f"{one.path}: {', '.join(one.mods)}" for one in self.meetings)
        )
        self.update()

    def sizeHint(self) -> QSize:
        return self.minimumSize()

    def how(self, meeting: Meeting, mod: str) -> str:
        """How a mod's version of an asset is seen: `seen`, `together`, `hidden`, or nothing where it has none."""
        if mod not in meeting.mods:
            return ""
        if meeting.kind == "same":
            return "seen"
        whole = next((contest for contest in meeting.contests if not contest.address), None)
        if whole is not None:
            return "seen" if whole.winner == mod else "hidden"
        lost = {one.address for one in meeting.contests if mod in dict(one.wants) and one.winner != mod}
        kept = [word for word in dict(meeting.changes).get(mod, ()) if word.partition(":")[0] not in lost]
        return "together" if kept else "hidden"

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setFont(font(11, QFont.Weight.DemiBold))
        painter.setPen(look.colour("quiet"))
        for column, (_, name) in enumerate(self._mods):
            box = QRectF(_NAMES + column * _CELL, 8, _CELL - 8, 20)
            chosen = column == (self._drag if self._drag >= 0 else self.column if self.hasFocus() else -1)
            painter.setPen(look.colour("text" if chosen else "quiet"))
            painter.drawText(box, Qt.AlignmentFlag.AlignHCenter, elided(painter, name, _CELL - 12))
        for row, meeting in enumerate(self.meetings):
            y = _HEAD + row * _ROW
            if row == self.current:
                painter.fillRect(QRectF(0, y, self.width(), _ROW), look.colour("raised"))
                if self.hasFocus():
                    painter.fillRect(QRectF(0, y, 2, _ROW), look.colour("quiet"))
            painter.fillRect(QRectF(0, y + _ROW - 1, self.width(), 1), look.colour("hairline"))
            painter.setFont(font(12))
            painter.setPen(look.colour("text"))
            words = elided(painter, meeting.path, _NAMES - 24, Qt.TextElideMode.ElideLeft)
            painter.drawText(QPointF(14, y + 20), words)
            seats = [column for column, (mod, _) in enumerate(self._mods) if mod in meeting.mods]
            ends = [_NAMES + column * _CELL + _CELL / 2 - 4 for column in (seats[0], seats[-1])]
            painter.setPen(QPen(look.colour("hairline-strong"), 1))
            painter.drawLine(QPointF(ends[0], y + _ROW / 2), QPointF(ends[1], y + _ROW / 2))
            for column, (mod, _) in enumerate(self._mods):
                self._mark(
                    painter, self.how(meeting, mod), _NAMES + column * _CELL + _CELL / 2 - 4, y + _ROW / 2
                )

    def _mark(self, painter: QPainter, how: str, x: float, y: float) -> None:
        if not how:
            return
        look, box = self._look, QRectF(x - 11, y - 6, 22, 12)
        painter.setPen(QPen(look.colour("ember" if how != "hidden" else "faint"), 1.4))
        painter.setBrush(look.colour("ember") if how == "seen" else look.colour("panel"))
        painter.drawRect(box)
        if how == "together":
            painter.fillRect(
                QRectF(box.left(), box.center().y(), box.width(), box.height() / 2), look.colour("ember")
            )

    @property
    def mods(self) -> list[str]:
        """The mods that meet somewhere, in load order."""
        return [mod for mod, _ in self._mods]

    def _column_at(self, x: float) -> int:
        return max(0, min(int((x - _NAMES) // _CELL), len(self._mods) - 1))

    def name_place(self, mod: str) -> QPointF:
        """Where a mod's name stands, by which it is dragged."""
        column = next(place for place, (one, _) in enumerate(self._mods) if one == mod)
        return QPointF(_NAMES + column * _CELL + _CELL / 2, 18)

    def move_column(self, source: int, target: int) -> None:
        """Put a mod in another one's place in the order."""
        if source == target or not (0 <= source < len(self._mods) and 0 <= target < len(self._mods)):
            return
        rest = [mod for place, (mod, _) in enumerate(self._mods) if place != source]
        self.column = target
        self.ordered.emit(self._mods[source][0], rest[target] if target < len(rest) else "")

    def mouseReleaseEvent(self, event: QMouseEvent | None) -> None:
        source, self._drag = self._drag, -1
        if event is not None and source >= 0:
            self.move_column(source, self._column_at(event.position().x()))
        self.update()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if (
            event is not None
            and event.position().y() < _HEAD
            and event.position().x() > _NAMES
            and self._mods
        ):
            self._drag = self.column = self._column_at(event.position().x())
            self.update()
            return
        row = int((event.position().y() - _HEAD) // _ROW) if event is not None else -1
        if 0 <= row < len(self.meetings):
            self._go(row)

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is None:
            return
        step = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1}.get(Qt.Key(event.key()), 0)
        aside = {Qt.Key.Key_Right: 1, Qt.Key.Key_Left: -1}.get(Qt.Key(event.key()), 0)
        if aside and self._mods:
            target = max(0, min(self.column + aside, len(self._mods) - 1))
            if event.modifiers() & Qt.KeyboardModifier.AltModifier:
                self.move_column(self.column, target)
            else:
                self.column = target
            self.update()
        elif step and self.meetings:
            self._go(max(0, min(self.current + step, len(self.meetings) - 1)))
        else:
            super().keyPressEvent(event)

    def _go(self, row: int) -> None:
        self.current = row
        self.picked.emit(row)
        self.update()


class _Pictures(QWidget):
    """What the game and each mod has, side by side."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._shown: list[tuple[str, QImage]] = []
        self.setAccessibleName(tr("Side by side"))

    def show_images(self, images: list[tuple[str, QImage]]) -> None:
        self._shown = images
        columns = 2
        self.setFixedHeight(-(-len(images) // columns) * (_SIDE + 34) if images else 0)
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look = QPainter(self), self._look
        for number, (name, image) in enumerate(self._shown):
            x, y = (number % 2) * (_SIDE + 18), (number // 2) * (_SIDE + 34)
            area = QRectF(x, y, _SIDE, _SIDE)
            paint_checks(painter, area, look.colour("raised"), look.colour("panel"))
            scale = min(_SIDE / max(image.width(), 1), _SIDE / max(image.height(), 1))
            wide, high = image.width() * scale, image.height() * scale
            painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
            painter.drawImage(QRectF(x + (_SIDE - wide) / 2, y + (_SIDE - high) / 2, wide, high), image)
            painter.setFont(font(11))
            painter.setPen(look.colour("tarn" if number == 0 and name == "the game" else "text"))
            painter.drawText(QPointF(x, y + _SIDE + 16), elided(painter, name if number else tr(name), _SIDE))


class MeetingPage(Page):
    """Where the enabled mods of the open game meet, who has its way, and the bridge that is made of that."""

    def __init__(self, look: Look, session: Session, player: Player) -> None:
        super().__init__()
        self._look, self._session, self._player = look, session, player
        self.stand: Stand | None = None
        self.decisions: dict[tuple[str, str], str] = {}
        self.map = MeetingMap(look)
        self.map.picked.connect(lambda _: self._show_one())
        self.map.ordered.connect(self._ordered)
        self._pictures = _Pictures(look)
        self._sounds = QVBoxLayout()
        self._sounds.setSpacing(4)
        self.hearing: dict[str, QPushButton] = {}
        self._path, self._kind = label("", "title"), label("", "caption")
        self._path.setWordWrap(True)
        self._kind.setWordWrap(True)
        self._heard = ""
        self.choices: dict[tuple[str, str], QRadioButton] = {}
        self._rows = QVBoxLayout()
        self.bridge = button(
            "Make the bridge", "A mod of all that they change, last in the load order", "next"
        )
        self.bridge.clicked.connect(self._make)
        self.remove = button("Take the bridge off", "The other mods stay as they are")
        self.remove.clicked.connect(session.game.remove_bridge)
        self._back = button("Back", "Esc", "plain")
        self._back.clicked.connect(self.closed)
        self._nothing = label("No two mods touch the same thing.", "caption")
        session.game.changed.connect(self._renewed)
        self._lay_out()

    def _lay_out(self) -> None:
        head = self.titled(self._back, self.remove, self.bridge)
        left = QVBoxLayout()
        left.setContentsMargins(10, 4, 0, 0)
        left.addWidget(self._nothing)
        left.addWidget(scrolling(self.map, "ground"), 1)
        legend = label(
            "Filled: what the game shows.  Half: together with others.  Outline: hidden by another mod.",
            "caption",
        )
        legend.setContentsMargins(14, 6, 0, 10)
        left.addWidget(legend)
        detail = QWidget()
        column = QVBoxLayout(detail)
        column.setContentsMargins(20, 16, 16, 16)
        column.setSpacing(8)
        for one in (self._path, self._kind, self._pictures):
            column.addWidget(one)
        column.addLayout(self._sounds)
        column.addLayout(self._rows)
        column.addStretch(1)
        row = QHBoxLayout()
        row.setSpacing(0)
        row.addLayout(left, 1)
        row.addWidget(
            SidePane(self._look, "meeting", "What meets here", as_panel(scrolling(detail)), "right", 367)
        )
        self.laid_out(head, row)

    def open(self) -> None:
        """Look at the mods of the open game."""
        self.decisions = {}
        self.title.setText(tr("Where mods meet"))
        self._look_again()

    def _ordered(self, mod: str, before: str) -> None:
        """Write the load order in which a mod stands before another one, or behind all that meet here."""
        order = [(one.id, one.on) for one in self._session.game.stack]
        moved = next((one for one in order if one[0] == mod), None)
        if moved is None:
            return
        order.remove(moved)
        names = [name for name, _ in order]
        last = max((names.index(name) for name in self.map.mods if name in names), default=len(names) - 1)
        order.insert(names.index(before) if before in names else last + 1, moved)
        self._session.game.set_order(order)

    def _renewed(self) -> None:
        if self.isVisible():
            self._look_again()

    def _look_again(self) -> None:
        catalogue = self._session.catalogue
        if catalogue is None:
            return
        decisions = dict(self.decisions)

        def work(progress: Progress) -> Stand:
            return look_at_mods(catalogue.install, None, decisions, progress)

        self._session.jobs.start("Looking where mods meet", work, self._show, self._failed, key="meeting")

    def _failed(self, error: FurnelError) -> None:
        self._show(None)
        self.said.setText(tr(error.sentence()))

    def _show(self, stand: Stand | None) -> None:
        self.stand = stand
        self.map.show_stand(self.stand)
        state, why = self._session.game.bridge
        meetings = self.map.meetings
        self._nothing.setVisible(not meetings)
        open_ones = (
            sum(not contest.decided for contest in self.stand.contests) if self.stand is not None else 0
        )
        words = f"{count(len(self.stand.mods) if self.stand else 0, 'mod')} on, {count(len(meetings), 'shared asset')}"
        words += f", {count(open_ones, 'contradiction')} not decided" if open_ones else ""
        words += {"current": "; the bridge has all of it", "stale": f"; the bridge is stale: {why}"}.get(
            state, ""
        )
        self.said.setText(tr(words))
        needed = any(meeting.data is not None for meeting in meetings)
        fresh = state == "current" and not self.decisions
        self.bridge.setEnabled(needed or state == "stale" or bool(self.decisions))
        self.bridge.setText(tr("Make it anew" if state else "Make the bridge"))
        set_next(self.bridge, self.bridge.isEnabled() and not fresh)
        self.remove.setVisible(bool(state))
        self._show_one()

    def _show_one(self) -> None:
        for layout in (self._rows, self._sounds):
            emptied(layout)
        self.choices = {}
        self._player.stop()
        meeting = self.map.meetings[self.map.current] if self.map.meetings else None
        self._path.setText(meeting.path if meeting is not None else "")
        self._kind.setText(tr(_KINDS[meeting.kind] if meeting is not None else ""))
        self._pictures.show_images([])
        if meeting is None or self.stand is None:
            return
        names = {mod.id: mod.name for mod in self.stand.mods}
        self._show_versions(meeting)
        contested = {contest.address for contest in meeting.contests}
        for contest in meeting.contests:
            self._rows.addWidget(self._contest(contest, names))
        for mod, words in meeting.changes:
            lines = [word for word in words if word.partition(":")[0] not in contested]
            if lines:
                self._rows.addWidget(verbatim(names.get(mod, mod), "section"))
                more = [tr(f"… and {len(lines) - 12} more")] if len(lines) > 12 else []
                told = verbatim("\n".join([*lines[:12], *more]))
                told.setWordWrap(True)
                self._rows.addWidget(told)

    def _show_versions(self, meeting: Meeting) -> None:
        """What the game and each mod has: pictures side by side, or buttons to hear it."""
        catalogue, stand, self.hearing = self._session.catalogue, self.stand, {}
        if catalogue is None or stand is None:
            return
        names = {mod.id: mod.name for mod in stand.mods}
        reads: list[tuple[str, Read]] = [(names[mod], stand.has[mod][meeting.path]) for mod in meeting.mods]
        if catalogue.has(meeting.path):
            reads.insert(0, ("the game", lambda: bytes(catalogue.bytes_of(meeting.path))))
        if not medium_by_suffix(Path(meeting.path)).is_heard:

            def done(images: list[tuple[str, QImage]]) -> None:
                if self.map.meetings and self.map.meetings[self.map.current] is meeting:
                    self._pictures.show_images(images)

            self._session.jobs.start(
                "Looking at pictures",
                lambda _: _small(reads, meeting.path),
                done,
                key="meeting pictures",
                shown=False,
            )
            return
        for name, read in reads:
            part = button(f"Hear {name}'s" if name != "the game" else "Hear the game's", "Again: stop")
            part.clicked.connect(
                lambda _, name=name, read=read: self._hear(f"{meeting.path} {name}", read, meeting.path)
            )
            self.hearing[name] = part
            self._sounds.addWidget(part)

    def _hear(self, name: str, read: Read, path: str) -> None:
        if self._player.playing and self._heard == name:
            self._player.stop()
            return
        self._heard = name
        if not self._player.play(name, lambda: read_clip(read(), path)[0]):
            self._session.tell("calm", "There is no sound device: everything but hearing works")

    def hideEvent(self, event: QHideEvent | None) -> None:
        self._player.stop()

    def _contest(self, contest: Contest, names: dict[str, str]) -> QWidget:
        part = QWidget()
        column = QVBoxLayout(part)
        column.setContentsMargins(0, 6, 0, 6)
        column.setSpacing(4)
        column.addWidget(verbatim(contest.address or tr("the whole file"), "section"))
        if (shown := contest.game) and contest.address:
            column.addWidget(label(f"the game has {shown}", "caption"))
        for mod, want in contest.wants:
            name = names.get(mod, mod)
            choice = QRadioButton(f"{name}:  {want}" if contest.address else f"{name}, {tr(want)}")
            choice.setToolTip(tr("Let this mod have its way here; it is remembered"))
            choice.setChecked(contest.winner == mod)
            choice.clicked.connect(
                lambda _, where=(contest.path, contest.address), mod=mod: self.decide(where, mod)
            )
            self.choices[contest.place, mod] = choice
            column.addWidget(choice)
        column.addWidget(
            label("decided" if contest.decided else "not decided: the last mod has its way", "caption")
        )
        return part

    def decide(self, where: tuple[str, str], mod: str) -> None:
        """Let a mod have its way at a place; the bridge has it when it is made."""
        self.decisions[where] = mod
        self._look_again()

    def _make(self) -> None:
        decisions, self.decisions = self.decisions, {}
        self._session.game.make_bridge(decisions)


def _small(reads: Sequence[tuple[str, Read]], path: str) -> list[tuple[str, QImage]]:
    """Small pictures of what was read; none where one of them is no picture."""
    out: list[tuple[str, QImage]] = []
    for name, read in reads:
        data = read()
        if not recognises(data):
            return []
        try:
            out.append((name, to_image(read_small(data, _SIDE, path))))
        except FurnelError:
            return []
    return out
