"""New game: point at a folder, see what was recognised, found by carving or unknown; name it; start."""

from __future__ import annotations

from pathlib import Path

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QFont, QMouseEvent, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QLineEdit,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.language import tr, tr_all
from furnel.desktop.look import Look, byte_size, font
from furnel.desktop.session import Session
from furnel.desktop.ways import Ways
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import as_panel, button, elided, label, scrolling, ticked
from furnel.desktop.widgets.page import Page
from furnel.games import Profile, Sighting, Survey, keep_profile, profile_text, survey
from furnel.words import count

_ROW, _HEAD = 30, 44
_TITLES = {
    "archive": ("Recognised", "opened as archives"),
    "loose": ("Loose files", "each file of the folder that is in no archive, once"),
    "carved": (
        "Found by carving",
        "an unknown kind, but known files lie in it; they can be replaced where they fit",
    ),
    "unknown": ("Unknown", "click one to work it out on the archive bench"),
    "side": ("Beside archives", "indexes and checksums, opened with their archives"),
    "none": ("Not listed", "links that lead nowhere or to what is listed already, and what cannot be read"),
}
_PASSIVE = ("unknown", "side", "none")


class _Sightings(QWidget):
    """What was found, in groups; a click takes an archive in or leaves it out."""

    changed = pyqtSignal()
    unknown = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.left_out: set[str] = set()
        self._lines: list[tuple[str, Sighting | None]] = []
        self.setCursor(Qt.CursorShape.PointingHandCursor)
        self.setAccessibleName(tr("What is in the folder"))
        look.changed.connect(self.update)

    def show_survey(self, found: Survey | None) -> None:
        self._lines, self.left_out = [], set()
        for standing in _TITLES:
            some = found.of(standing) if found is not None else ()  # type: ignore[arg-type]
            if some:
                self._lines.append((standing, None))
                self._lines += [(standing, one) for one in some]
        self.setFixedHeight(sum(_ROW if one else _HEAD for _, one in self._lines) + 12)
        self.update()

    def sizeHint(self) -> QSize:
        return QSize(600, 400)

    def _at(self, y: float) -> Sighting | None:
        top = 0.0
        for _, one in self._lines:
            tall = _ROW if one else _HEAD
            if top <= y < top + tall:
                return one
            top += tall
        return None

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        one = self._at(event.position().y()) if event is not None else None
        if one is None:
            return
        if one.standing == "unknown":
            self.unknown.emit(one.path)
        elif one.standing not in _PASSIVE:
            self.left_out ^= {one.path}
            self.changed.emit()
            self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look, top = QPainter(self), self._look, 0.0
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        wide = self.width()
        for standing, one in self._lines:
            if one is None:
                title, words = tr_all(_TITLES[standing])
                painter.setFont(font(13, QFont.Weight.DemiBold))
                painter.setPen(look.colour("text"))
                painter.drawText(QPointF(24, top + 30), title)
                left = 24 + painter.fontMetrics().horizontalAdvance(title) + 10
                painter.setFont(font(11))
                painter.setPen(look.colour("quiet"))
                painter.drawText(QPointF(left, top + 30), words)
                top += _HEAD
                continue
            off = one.path in self.left_out or one.standing in _PASSIVE
            if one.standing not in _PASSIVE:
                box = QRectF(26, top + 8, 14, 14)
                painter.setPen(QPen(look.colour("quiet" if off else "text"), 1.3))
                painter.setBrush(Qt.BrushStyle.NoBrush)
                painter.drawRoundedRect(box, 3, 3)
                if not off:
                    corner = box.topLeft()
                    ticked(painter, corner, (3, 7), (6, 10.5), (11, 3.5))
            painter.setFont(font(12))
            painter.setPen(look.colour("quiet" if off else "text"))
            painter.drawText(QPointF(52, top + 19), elided(painter, _called(one), wide * 0.42))
            painter.setPen(look.colour("quiet"))
            painter.setFont(font(11))
            said = tr(one.note or ("loose files" if one.layout == "folder" else f"layout {one.layout}"))
            painter.drawText(
                QPointF(52 + wide * 0.44, top + 19),
                elided(painter, said, wide * (0.5 if one.standing == "none" else 0.3)),
            )
            numbers = QRectF(wide - 240, top, 216, _ROW)
            many = tr(count(one.assets, "asset")) + " · " if one.assets else ""
            painter.drawText(
                numbers,
                Qt.AlignmentFlag.AlignRight | Qt.AlignmentFlag.AlignVCenter,
                f"{many}{byte_size(one.size)}" if one.standing != "none" else "",
            )
            painter.fillRect(QRectF(24, top + _ROW - 1, wide - 48, 1), look.colour("hairline", 0.6))
            top += _ROW


def _called(one: Sighting) -> str:
    return tr("Everything that lies open") if one.path == "." else one.path


class NewGamePage(Page):
    """The page. `closed` when done or left, `unknown` asks for a file on the archive bench."""

    unknown = pyqtSignal(object)

    OWN_UNDO = True

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._session = session
        self.folder: Path | None = None
        self._survey: Survey | None = None
        self.list = _Sightings(look)
        self.ways = Ways()
        self.ways.changed.connect(self._weigh)
        self.name, self.mods, self.version = QLineEdit(), self.ways.folder, QLineEdit("1.0")
        for part, words in (
            (self.name, "What the game is called"),
            (self.version, "The version of the game that mods are made for"),
        ):
            part.setToolTip(tr(words))
            part.setAccessibleName(tr(words))
            part.textChanged.connect(lambda _: self._weigh())
        self.start = button("Start", "Keep the description and open the game", "next")
        self._other, self._back = (
            button("Another folder…", "Look at another folder"),
            button("Leave it", "Esc", "plain"),
        )
        self.start.clicked.connect(self._start)
        self._other.clicked.connect(self.ask)
        self._back.clicked.connect(self.closed)
        self.list.changed.connect(self._weigh)
        self.list.unknown.connect(lambda path: self.unknown.emit(self.folder / path if self.folder else path))
        self._lay_out()

    def _lay_out(self) -> None:
        area = scrolling(self.list, "window")
        left = QVBoxLayout()
        left.setSpacing(0)
        left.addLayout(self.heading())
        left.addWidget(area, 1)
        panel = as_panel(QWidget(), 300)
        side = QVBoxLayout(panel)
        side.setContentsMargins(18, 20, 18, 16)
        side.setSpacing(8)
        grid = QGridLayout()
        grid.setVerticalSpacing(8)
        for place, (words, field) in enumerate((("Name", self.name), ("Version", self.version))):
            grid.addWidget(label(words, "caption"), place, 0)
            grid.addWidget(field, place, 1)
        side.addWidget(label("THE GAME", "section"))
        side.addLayout(grid)
        side.addSpacing(14)
        side.addWidget(label("HOW MODS REACH IT", "section"))
        side.addWidget(self.ways)
        side.addSpacing(14)
        note = label(
            "All this, and how it is started, is changed later on This game; docs/profiles.md has the rest.",
            "caption",
        )
        note.setWordWrap(True)
        side.addWidget(note)
        side.addStretch(1)
        row = QHBoxLayout()
        row.addWidget(self._back)
        row.addStretch(1)
        row.addWidget(self._other)
        side.addLayout(row)
        side.addWidget(self.start)
        whole = QHBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(left, 1)
        whole.addWidget(panel)

    def ask(self) -> bool:
        """Ask for the game's folder; False when none was chosen."""
        folder = picking.pick_folder(self, "The game's folder", "games")
        if folder:
            self.open(folder)
        return folder is not None

    def open(self, folder: Path) -> None:
        """Look at a folder."""
        self.folder, self._survey = folder, None
        self.title.setText(tr(f"What is in {folder.name}"))
        self.said.setText(tr("Looking at the game's files …"))
        self.list.show_survey(None)
        if not self.name.text():
            self.name.setText(folder.name.replace("_", " ").replace("-", " ").title())
        self._weigh()
        self._session.jobs.start(
            f"Looking at {folder.name}", lambda progress: survey(folder, progress), self._show, key="survey"
        )

    def _show(self, found: Survey) -> None:
        self._survey = found
        self.list.show_survey(found)
        home = self.mods.text().strip().casefold()
        self.list.left_out = {
            one.path for one in found.of("loose") if f"{one.path.casefold()}/".startswith(f"{home}/")
        }  # what other mods brought is none of the game's
        self._weigh()

    def _weigh(self) -> None:
        found = self._survey
        ready = False
        if found is not None:
            wanted = [one for one in found.sightings if one.assets and one.path not in self.list.left_out]
            assets = sum(one.assets for one in wanted)
            self.said.setText(
                tr(
                    f"{count(assets, 'asset')} in {count(len(wanted), 'place')}"
                    if wanted
                    else "Nothing here opens yet: work out one of its archives, then look again"
                )
            )
            ready = bool(wanted) and bool(self.name.text().strip())
            ready = ready and self.ways.whole
        self.start.setEnabled(ready)

    def _start(self) -> None:
        found, folder = self._survey, self.folder
        if found is None or folder is None:
            return
        name, mods, version = (
            self.name.text().strip(),
            self.mods.text().strip(),
            self.version.text().strip() or "1.0",
        )
        left_out, goes = frozenset(self.list.left_out), self.ways.goes

        def done(profile: Profile) -> None:
            self._session.tell(
                "calm", f"{profile.name} is known now; its profile can be edited in your profiles folder"
            )
            self._session.open_game(folder)
            self.closed.emit()

        self._session.jobs.start(
            f"Describing {name}",
            lambda _: keep_profile(profile_text(found, name, mods, version, left_out, goes)),
            done,
            lane="write",
        )
