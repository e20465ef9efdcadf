"""Games and mods: what was opened on this machine, how each mod is in its game, and where a newcomer begins."""

from __future__ import annotations

import contextlib
import subprocess
import sys
import threading
import time
from pathlib import Path

from PyQt6.QtCore import QModelIndex, QPoint, QRect, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QFont, QImage, QPainter, QPaintEvent, QPen, QPixmap
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.doing import show_in_folder
from furnel.desktop.imaging import to_image
from furnel.desktop.language import tr
from furnel.desktop.look import Look, dressed, font
from furnel.desktop.session import Session
from furnel.desktop.sketches import what_it_does
from furnel.desktop.widgets.basics import as_panel, button, elided, label, paint_state
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.desktop.widgets.menus import Row, menu_at
from furnel.desktop.widgets.page import Page
from furnel.errors import FurnelError
from furnel.imagefiles import read_small
from furnel.mods import shelf
from furnel.mods.shelf import OnShelf
from furnel.progress import Progress, check
from furnel.words import count

_ROW, _PICTURE = Qt.ItemDataRole.UserRole, Qt.ItemDataRole.UserRole + 1
_HIGH, _IN = 66, 28
_DAY = 86400.0


def ago(seconds: float) -> str:
    """How long ago something was, in words."""
    if seconds < _DAY / 24:
        return "just now" if seconds < 120 else f"{int(seconds // 60)} minutes ago"
    if seconds < _DAY:
        return f"{count(int(seconds // 3600), 'hour')} ago"
    return f"{count(int(seconds // _DAY), 'day')} ago"


class _Rows(QStyledItemDelegate):
    """A game as a heading with its folder, a mod below it as a picture, its name, and how it is in the game."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        return QSize(300, _HIGH)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if painter is None:
            return
        row: OnShelf = index.data(_ROW)
        look, box = self._look, QRect(option.rect).adjusted(0, 0, -8, 0)
        if option.state & (QStyle.StateFlag.State_Selected | QStyle.StateFlag.State_MouseOver):
            painter.fillRect(box, look.colour("raised"))
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        left = box.left() + (0 if row.is_game else _IN)
        self._picture(painter, QRectF(left + 10, box.top() + 6, 96, 54), row, index.data(_PICTURE))
        middle = Qt.AlignmentFlag.AlignVCenter
        words = QRect(left + 120, box.top() + 12, box.right() - left - 129, 20)
        painter.setFont(font(11))
        painter.setPen(look.colour("quiet"))
        if row.opened and not row.is_game:
            painter.drawText(words, Qt.AlignmentFlag.AlignRight | middle, tr(ago(time.time() - row.opened)))
        bold = QFont.Weight.DemiBold if row.is_game or row.project else QFont.Weight.Normal
        painter.setFont(font(14 if row.is_game else 13, bold))
        painter.setPen(look.colour("tarn" if row.is_game else "text" if row.project else "quiet"))
        title = f"{row.name}  {row.version}".rstrip()
        painter.drawText(words, middle, elided(painter, title, words.width() - 110))
        words.translate(0, 22)
        if not row.is_game or row.state == "breaks":
            paint_state(painter, look, row.state, QRectF(words.left(), words.top() + 4, 11, 11))
            words.setLeft(words.left() + 18)
        painter.setFont(font(12))
        painter.setPen(look.colour("quiet"))
        painter.drawText(
            words, middle, elided(painter, tr(row.said), words.width(), Qt.TextElideMode.ElideMiddle)
        )

    def _picture(self, painter: QPainter, frame: QRectF, row: OnShelf, picture: QPixmap | None) -> None:
        look = self._look
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(look.colour("sunken"))
        painter.drawRoundedRect(frame, 3, 3)
        if picture is not None and not picture.isNull():
            small = QRectF(0, 0, picture.width(), picture.height())
            scale = min(frame.width() / small.width(), frame.height() / small.height())
            place = QRectF(0, 0, small.width() * scale, small.height() * scale)
            place.moveCenter(frame.center())
            painter.drawPixmap(place, picture, small)
        else:
            painter.setFont(font(20, QFont.Weight.DemiBold))
            painter.setPen(look.colour("faint"))
            painter.drawText(frame, Qt.AlignmentFlag.AlignCenter, row.name[:1].upper())


class _DropArea(QWidget):
    """Where to drop something, as long as nothing else is there."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(self._look.colour("hairline-strong"), 1.5, Qt.PenStyle.DashLine))
        box = QRectF(self.rect()).adjusted(1, 1, -1, -1)
        painter.drawRoundedRect(box, 8, 8)
        painter.setFont(font(15))
        painter.setPen(self._look.colour("quiet"))
        painter.drawText(
            box.adjusted(0, -14, 0, -14), Qt.AlignmentFlag.AlignCenter, tr("Drop a game's folder here")
        )
        painter.setFont(font(12))
        painter.drawText(
            box.adjusted(0, 14, 0, 14),
            Qt.AlignmentFlag.AlignCenter,
            tr("or a mod, or an archive that nobody described"),
        )


class ShelfPage(Page):
    """What was opened, and where to begin. `wanted` is a command, `dropped` some files, `chosen` a mod's project or a game."""

    wanted = pyqtSignal(str)
    dropped = pyqtSignal(list)
    chosen = pyqtSignal(object)

    OWN_UNDO = True

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._look, self._session = look, session
        self.rows: list[OnShelf] = []
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Games and mods"))
        self.list.setItemDelegate(_Rows(look))
        self.list.setMouseTracking(True)
        self.list.setVerticalScrollMode(QListWidget.ScrollMode.ScrollPerPixel)
        self.list.setObjectName("flush")
        self.list.itemActivated.connect(self._open)
        self.list.itemClicked.connect(self._open)
        self.list.setContextMenuPolicy(Qt.ContextMenuPolicy.CustomContextMenu)
        self.list.customContextMenuRequested.connect(self._menu)
        self.try_it = button(
            "Try it on Tarnlight Ferry", "A small made-up game, and a mod for it that is half done", "next"
        )
        self.try_it.clicked.connect(self.make_demo)
        self._back = button("Back", "Esc", "plain")
        self._back.clicked.connect(self.closed)
        self._making = 0
        session.jobs.ended.connect(self._ended)
        self.setAcceptDrops(True)
        self.setFocusProxy(self.list)
        self._lay_out()

    def _lay_out(self) -> None:
        self._does = what_it_does(self._look)
        left = QVBoxLayout()
        left.setContentsMargins(24, 20, 16, 16)
        left.setSpacing(12)
        left.addWidget(self._does)
        left.addWidget(self.list, 1)
        self._area = _DropArea(self._look)
        left.addWidget(self._area, 1)
        side = as_panel(QWidget(), 300)
        right = QVBoxLayout(side)
        right.setContentsMargins(16, 18, 16, 16)
        right.setSpacing(8)
        right.addWidget(label("BEGIN", "section"))
        for name, text, tip in (
            ("open-game", "Open a game…", "Point at a game's folder"),
            ("new-game", "A game that is not known yet…", "Look at its folder and describe it"),
            ("open-mod", "Open a mod…", "A mod that you began"),
            ("archive", "Work out an archive…", "Look at a file's bytes and describe them"),
        ):
            part = button(text, tip, "plain")
            part.clicked.connect(lambda _, name=name: self.wanted.emit(name))
            right.addWidget(part, 0, Qt.AlignmentFlag.AlignLeft)
        right.addSpacing(8)
        right.addWidget(label("OR DROP IT HERE", "section"))
        hint = label("A game's folder, a mod, an archive; with a mod open, pictures and sounds.", "caption")
        hint.setWordWrap(True)
        right.addWidget(hint)
        right.addSpacing(8)
        right.addWidget(label("NO GAME AT HAND?", "section"))
        self._demo_says = label("", "caption")
        self._demo_says.setWordWrap(True)
        right.addWidget(self._demo_says)
        right.addWidget(self.try_it, 0, Qt.AlignmentFlag.AlignLeft)
        right.addStretch(1)
        body = QHBoxLayout()
        body.setSpacing(0)
        body.addLayout(left, 1)
        body.addWidget(side)
        self.laid_out(self.titled(self._back), body)

    def open(self) -> None:
        """Show what was opened, as it is now."""
        self.setFocus()
        self._back.setVisible(self._session.catalogue is not None)
        self._demo_says.setText(
            tr(
                f"A made-up game and a mod that is half done come into ~/{demo_home().name}. "
                "It takes half a minute, and nothing is loaded from anywhere."
            )
        )
        self._show(self.rows)
        self._session.jobs.start(
            "Looking at games and mods",
            _looked_at,
            lambda found: self._show(*found),
            key="shelf",
            lane="eye",
            shown=False,
        )

    def _show(self, rows: list[OnShelf], pictures: dict[str, QImage] | None = None) -> None:
        self.rows = rows
        chosen = self.list.currentRow()
        self.list.clear()
        for row in rows:
            item = QListWidgetItem()
            item.setData(_ROW, row)
            image = (pictures or {}).get(str(row.picture))
            item.setData(_PICTURE, QPixmap.fromImage(image) if image is not None else None)
            words = f"{row.name} {row.version}, {row.said}" if not row.is_game else f"{row.name}, {row.game}"
            item.setData(Qt.ItemDataRole.AccessibleTextRole, words)
            where = str(row.project or row.game)
            item.setToolTip(
                tr(
                    where
                    if row.project or row.is_game
                    else f"{where}: not one of yours; on Try you can go on from it"
                )
            )
            self.list.addItem(item)
        first = next((place for place, row in enumerate(rows) if row.project is not None), 0)
        self.list.setCurrentRow(min(max(chosen, first), self.list.count() - 1))
        self.list.setVisible(bool(rows))
        self._area.setVisible(not rows)
        self._does.setVisible(not any(row.project for row in rows))
        mods = sum(row.project is not None for row in rows)
        games = sum(row.is_game for row in rows)
        self.title.setText(tr("Games and mods" if rows else "Welcome to Furnel"))
        self.said.setText(
            tr(
                f"{count(mods, 'mod')} of yours, {count(games, 'game')}"
                if rows
                else "Open a game, or begin with the made-up one"
            )
        )

    def _open(self, item: QListWidgetItem) -> None:
        row: OnShelf = item.data(_ROW)
        if row.project is not None or row.is_game:
            self.chosen.emit(row)
        else:
            self._session.tell(
                "calm", f"{row.name} is somebody else's: open {row.game_name}, then Go on from it… on Try"
            )

    def _menu(self, place: QPoint) -> None:
        item = self.list.itemAt(place)
        if item is None:
            return
        row: OnShelf = item.data(_ROW)
        known = row.project is not None or row.is_game
        rows: list[Row] = [
            ("Open", lambda: self._open(item), True),
            ("Show in folder", lambda: show_in_folder(self._session, row.project or row.game), True),
            ("Take off this list", lambda: self._forget(row), known),
        ]
        menu_at(dressed(self), rows, self.list.mapToGlobal(place))

    def _forget(self, row: OnShelf) -> None:
        """Take a mod off the list, or a game with all its mods; their files stay."""
        gone = [one for one in self.rows if one is row or (row.is_game and one.game == row.game)]
        for one in gone:
            shelf.forget(one.project, one.game)
        self._show([one for one in self.rows if one not in gone])
        self._session.tell("calm", f"{row.name} is off this list; its files are where they were")

    # the made-up game

    def make_demo(self) -> None:
        """Make the made-up game and its half-done mod in the user's folder, and open the mod."""
        self.try_it.setEnabled(False)
        session, home, open_now = self._session, demo_home(), self._session.space

        def made(file: Path) -> None:
            if session.space is open_now or session.space is None:
                session.open_mod(file)
            else:  # something else is being done by now
                session.tell("calm", "Tarnlight Ferry is made", ("Open it", lambda: session.open_mod(file)))

        self._making = self._session.jobs.start(
            "Making Tarnlight Ferry",
            lambda progress: made_demo(home, progress),
            made,
            key="demo",
            lane="wait",
            kept=True,
        ).number

    def _ended(self, number: int) -> None:
        if number == self._making:
            self.try_it.setEnabled(True)

    # what is dropped

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if files := files_of(event):
            self.dropped.emit(files)


def demo_home() -> Path:
    """Where the made-up game comes: a folder of the user's own."""
    return Path.home() / "Tarnlight Ferry"


def made_demo(home: Path, progress: Progress) -> Path:
    """The project of the half-done mod, made by a program of its own. Raises FurnelError when that fails, Cancelled."""
    what = "Making Tarnlight Ferry"
    said: list[str] = []
    with subprocess.Popen(
        [sys.executable, "-P", "-m", "firsthour", str(home)],
        stdout=subprocess.PIPE,
        stderr=subprocess.STDOUT,
        text=True,
    ) as run:
        out = run.stdout
        assert out is not None
        listening = threading.Thread(target=lambda: said.extend(out), name="furnel-demo")
        listening.start()
        while run.poll() is None:
            progress.report(min(0.1 + 0.3 * max(len(said) - 1, 0), 0.9), said[-1].strip() if said else what)
            if progress.cancelled():
                run.kill()
            time.sleep(0.05)
        listening.join()
    check(progress, what)
    last = said[-1].strip() if said else ""
    if run.returncode or not last.endswith(".toml"):
        raise FurnelError(
            what,
            where=home,
            why=last or f"it ended with {run.returncode}",
            remedy="Check the free space, or choose another home folder",
        )
    return Path(last)


def _looked_at(progress: Progress) -> tuple[list[OnShelf], dict[str, QImage]]:
    rows = shelf.look_at_shelf(progress)
    images = {}
    for file in {row.picture for row in rows if row.picture is not None}:
        with contextlib.suppress(FurnelError, OSError):
            images[str(file)] = to_image(read_small(file.read_bytes(), 192, file))
    return rows, images
