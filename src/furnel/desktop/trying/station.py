"""The Try station: the stack, the stills, the game's word on what the mod changed."""

from __future__ import annotations

import subprocess
import tempfile
from pathlib import Path

from PyQt6.QtCore import QPoint, QPointF, QRectF, Qt, QTimer, pyqtSignal
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QImage, QPainter, QPaintEvent
from PyQt6.QtWidgets import QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.actions import with_key
from furnel.desktop.doing import show_in_folder
from furnel.desktop.language import tr
from furnel.desktop.look import Look, dressed, font
from furnel.desktop.session import Session
from furnel.desktop.timing import timer
from furnel.desktop.trying.loadouts import load_out_menu
from furnel.desktop.trying.stack import StackView
from furnel.desktop.trying.stills import Stills
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import as_panel, button, elided, label, paint_state, scrolling
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.desktop.widgets.menus import Row, menu_at
from furnel.desktop.widgets.panes import SidePane
from furnel.desktop.widgets.sheets import ask
from furnel.desktop.widgets.steady import Choice
from furnel.errors import FurnelError
from furnel.games import (
    BRIDGE,
    Profile,
    Report,
    allow_commands,
    ask_report,
    commands_to_allow,
    draw_still,
    start_game,
)
from furnel.mods.mine import Mine, make_mine
from furnel.mods.shelf import keep_picture
from furnel.progress import Part, Progress
from furnel.words import count

_STATES = {"accepted": "fits", "garbled": "breaks", "refused": "breaks"}


class _Words(QWidget):
    """What the game says of every asset that a mod provides; trouble first."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._rows: list[tuple[str, str, str, str]] = []
        self.setAccessibleName(tr("The game's word"))
        look.changed.connect(self.update)

    def show_report(self, report: Report) -> None:
        touched = [word for word in report.words if word.winner != "game" or word.verdict != "accepted"]
        touched.sort(key=lambda word: (word.verdict == "accepted", word.path))
        self._rows = [
            (_STATES[w.verdict], w.path, f"{w.verdict}: {w.reason or w.effect}", w.winner) for w in touched
        ]
        self._rows += [("differs", stray, "the game knows no such asset", "") for stray in report.strays]
        self._rows += [("breaks", note, "this mod is not loaded", "") for note in report.notes]
        self.setFixedHeight(max(len(self._rows), 1) * 46)
        self.setAccessibleDescription("; ".join(f"{path}: {tr(text)}" for _, path, text, _ in self._rows))
        self.update()

    def clear(self) -> None:
        """Forget what another game said."""
        self._rows = []
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        look = self._look
        if not self._rows:
            painter.setPen(look.colour("quiet"))
            painter.setFont(font(11))
            painter.drawText(
                self.rect(),
                Qt.AlignmentFlag.AlignLeft | Qt.AlignmentFlag.AlignVCenter,
                tr("No enabled mod changes anything."),
            )
        for row, (state, path, text, winner) in enumerate(self._rows):
            y = row * 46
            painter.fillRect(QRectF(0, y, self.width(), 1), look.colour("hairline"))
            paint_state(painter, look, state, QRectF(0, y + 10, 10, 10))
            painter.setFont(font(12))
            painter.setPen(look.colour("text"))
            name = elided(painter, path, self.width() - 20 - 96, Qt.TextElideMode.ElideLeft)
            painter.drawText(QPointF(18, y + 19), name)
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            painter.drawText(
                QRectF(self.width() - 94, y + 6, 94, 18),
                Qt.AlignmentFlag.AlignRight,
                elided(painter, tr(winner), 94),
            )
            painter.setPen(look.colour("text" if state == "breaks" else "quiet"))
            painter.drawText(QPointF(18, y + 36), elided(painter, tr(text), self.width() - 20))


class TryStation(QWidget):
    """See the mod in the game. `wanted` asks the window for a command, `running_changed` tells of the game's process,
    `mod_dropped` of somebody's mod."""

    wanted = pyqtSignal(str)
    running_changed = pyqtSignal(bool)
    mod_dropped = pyqtSignal(Path)

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._session = session
        self._scratch = tempfile.TemporaryDirectory(prefix="furnel-stills-")
        self._game: subprocess.Popen[bytes] | None = None
        self._due = False
        self.stills, self.stack, self.words = Stills(look), StackView(look, session), _Words(look)
        self.report: Report | None = None
        self._scene = Choice()
        self._scene.setToolTip(tr("Which scene the stills show"))
        self._scene.setAccessibleName(tr("Scene"))
        self._scene.currentIndexChanged.connect(lambda _: self.renew())
        self._start = button(
            "Start the game", with_key("With your mods, in this scene", "start-game"), "next"
        )
        self._start.clicked.connect(lambda: self.wanted.emit("start-game"))
        self._allow = button("Look at its commands…", "What this game's profile wants to run")
        self._allow.clicked.connect(self._ask_leave)
        self._how = button("How is it started?…", "Say on This game how it is started")
        self._how.clicked.connect(lambda: self.wanted.emit("this-game"))
        self._allow.hide()
        self._again = button(
            "Draw again", with_key("The same scene, before and after", "renew-stills"), "plain"
        )
        self._again.clicked.connect(self.renew)
        self._where = button(
            "Where they meet", with_key("What several mods change, and the bridge", "meetings")
        )
        self._where.clicked.connect(lambda: self.wanted.emit("meetings"))
        self._get = button(
            "Get a mod…", with_key("Somebody else's, as a ZIP, 7z, TAR or folder; or drop it here", "get-mod")
        )
        self._get.clicked.connect(lambda: self.wanted.emit("get-mod"))
        self.take_off = button("Take it off", "Take the chosen mod out of the game", "plain")
        self.take_off.clicked.connect(self._remove)
        self.stack.picked.connect(self._show_chosen)
        self.stack.menu_wanted.connect(self._stack_menu)
        self.mine = button(
            "Go on from it…", "A mod of yours with all that this one has, and credit for who made it", "plain"
        )
        self.mine.clicked.connect(self._ask_where)
        self._outs = button(
            "Load-outs", "Named sets of mods in their order, to switch as a whole and to hand on"
        )
        self._outs.clicked.connect(self._show_outs)
        self.setAcceptDrops(True)
        self._verdict = label("", "caption")
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addWidget(SidePane(look, "stack", "The stack", self._left(), "left", 219))
        row.addLayout(self._middle(), 1)
        row.addWidget(SidePane(look, "word", "The game's own word", self._right(), "right", 331))
        session.opened.connect(self._opened)
        session.game.changed.connect(self._stack_changed)
        self._poll = timer(self, self._look_at_game, 500, repeats=True)
        self._opened()
        self._due = session.catalogue is not None

    def _left(self) -> QWidget:
        panel = as_panel(QWidget())
        column = QVBoxLayout(panel)
        column.setContentsMargins(12, 14, 12, 12)
        column.setSpacing(6)
        column.addWidget(label("STACK", "section"))
        self._wins = label("", "caption")
        column.addWidget(self._wins)
        column.addWidget(self.stack)
        self._meets = label("", "caption")
        self._meets.setWordWrap(True)
        column.addSpacing(6)
        column.addWidget(self._meets)
        for part in (self._where, self._get, self._outs, self.take_off, self.mine):
            column.addWidget(part)
        column.addStretch(1)
        return panel

    def _middle(self) -> QVBoxLayout:
        bar = as_panel(QWidget(), name="stagebar")
        line = QHBoxLayout(bar)
        line.setContentsMargins(12, 5, 12, 5)
        line.addWidget(label("Scene", "caption"))
        line.addWidget(self._scene)
        line.addWidget(self._again)
        line.addStretch(1)
        column = QVBoxLayout()
        column.setSpacing(0)
        column.addWidget(bar)
        column.addWidget(self.stills, 1)
        return column

    def _right(self) -> QWidget:
        panel = as_panel(QWidget())
        area = scrolling(self.words)
        column = QVBoxLayout(panel)
        column.setContentsMargins(16, 16, 12, 12)
        column.setSpacing(8)
        column.addWidget(self._start)
        column.addWidget(self._allow)
        column.addWidget(self._how)
        column.addSpacing(4)
        column.addWidget(label("THE GAME'S OWN WORD", "section"))
        column.addWidget(self._verdict)
        column.addWidget(area, 1)
        return panel

    @property
    def running(self) -> bool:
        """Whether the game that was started here still runs."""
        return self._game is not None and self._game.poll() is None

    def start(self) -> None:
        """Start the game in the chosen scene."""
        catalogue = self._session.catalogue
        if catalogue is None or self.running:
            return
        scene = self._scene.currentText()

        def done(process: subprocess.Popen[bytes]) -> None:
            self._game = process
            self._poll.start()
            self.running_changed.emit(True)

        self._session.jobs.start(
            "Starting the game", lambda _: start_game(catalogue.install, scene), done, lane="write"
        )

    def renew(self) -> None:
        """Draw both stills anew and ask the game for its report; at the next look when the station is not shown."""
        catalogue, scene = self._session.catalogue, self._scene.currentText()
        self._due = not self.isVisible()
        if catalogue is None or self._due:
            return
        said = self._cannot(catalogue.install.profile)
        if said:
            self.stills.show_images({}, said)
            return
        if not self.stills.images:
            self.stills.show_images({}, "The game draws the scene…")
        folder = Path(self._scratch.name)

        def work(progress: Progress) -> tuple[QImage, QImage, Report]:
            install = catalogue.install
            after = draw_still(install, scene, folder / "after.png", True, progress=Part(progress, 0, 0.4))
            before = draw_still(
                install, scene, folder / "before.png", False, progress=Part(progress, 0.4, 0.7)
            )
            keep_picture(install, before)
            report = ask_report(install, Part(progress, 0.7, 1))
            return QImage(str(before)), QImage(str(after)), report

        def done(found: tuple[QImage, QImage, Report]) -> None:
            before, after, self.report = found
            self.stills.show_images({"before": before, "after": after})
            self.words.show_report(self.report)
            mine = [word for word in self.report.words if word.winner != "game"]
            good = sum(word.verdict == "accepted" for word in mine)
            self._verdict.setText(
                tr(f"{good} of {len(mine)} modded assets accepted" if mine else "No mod is switched on")
            )

        def failed(error: FurnelError) -> None:
            self.stills.show_images({}, error.sentence())
            self._session.tell("wrong", error.sentence())

        self._session.jobs.start("Drawing the stills", work, done, failed, key="stills", lane="wait")

    def _cannot(self, profile: Profile) -> str:
        """Why there are no stills of this game; nothing when there are."""
        self._allow.setVisible(bool(commands_to_allow(profile)))
        if self._allow.isVisibleTo(self):
            return "This game's profile did not come with Furnel and wants to run commands:\nlook at them on the right."
        if not profile.start.scenes or not profile.start.still or not profile.start.report:
            if profile.start.play:
                return "This game draws no stills: install the mod, and start the game."
            return "How this game is started is not known yet: say it on This game.\nOr install the mod, and start it yourself."
        return ""

    def _ask_leave(self) -> None:
        catalogue = self._session.catalogue
        if catalogue is None:
            return
        profile = catalogue.install.profile
        lines = "\n".join(commands_to_allow(profile))
        if ask(
            self,
            f"What {profile.name} wants to run",
            f"{lines}\n\nThey run as you, with all your rights.",
            "Allow these",
        ):
            allow_commands(profile)
            self._opened()
            self.renew()

    def showEvent(self, event: object) -> None:
        if self._due:
            QTimer.singleShot(0, self.renew)

    def close_game(self) -> None:
        """Forget the game's process; it goes on by itself."""
        self._poll.stop()
        self._game = None

    def _opened(self) -> None:
        catalogue = self._session.catalogue
        self._scene.blockSignals(True)
        self._scene.clear()
        if catalogue is not None:
            self._scene.addItems(catalogue.install.profile.start.scenes)
        self._scene.blockSignals(False)
        self.report = None
        self.stills.show_images({}, "")
        self.words.clear()
        self._verdict.setText("")
        ordered = self._session.game.has_order
        self._wins.setText(tr("the upper one wins" if ordered else "in the place of the game's files"))
        self._start.setVisible(self._session.game.can_start)
        self._how.setVisible(catalogue is not None and not self._session.game.can_start)
        self._scene.setEnabled(self._scene.count() > 0)
        if catalogue is not None:
            self._cannot(catalogue.install.profile)

    def _show_outs(self) -> None:
        self.menu = load_out_menu(self, self._session)
        self.menu.popup(self._outs.mapToGlobal(self._outs.rect().bottomLeft()))

    def _remove(self) -> None:
        mod = self.stack.chosen
        if mod is not None:
            self._session.game.take_off(mod.id)

    def _stack_menu(self, at: QPoint) -> None:
        mod, catalogue = self.stack.chosen, self._session.catalogue
        if mod is None or catalogue is None:
            return
        folder = catalogue.install.mods_folder() / mod.id
        ordered = self._session.game.has_order
        switch = "Switch it off" if mod.on else "Switch it on"
        rows: list[Row] = [
            (switch, self.stack.switch_chosen, ordered),
            ("Seen over all others", lambda: self.stack.move_chosen(True), ordered),
            ("Below all others", lambda: self.stack.move_chosen(False), ordered),
            ("Go on from it…", self._ask_where, True),
            ("Show in folder", lambda: show_in_folder(self._session, folder), folder.is_dir()),
            ("Take it off…", self._remove, True),
        ]
        menu_at(dressed(self), rows, at)

    def _ask_where(self) -> None:
        mod = self.stack.chosen
        folder = (
            picking.pick_folder(self, f"An empty folder to go on from {mod.name} in", "projects")
            if mod
            else None
        )
        if folder:
            self.go_on_from(folder)

    def go_on_from(self, folder: Path) -> None:
        """Start a mod in a folder from the chosen one, and open it."""
        mod, catalogue, session = self.stack.chosen, self._session.catalogue, self._session
        if mod is None or catalogue is None:
            return

        def done(made: Mine) -> None:
            session.open_mod(made.file)
            if made.left:
                session.tell(
                    "wrong", f"Left out, because nothing of the game is like it: {', '.join(made.left[:4])}"
                )

        session.jobs.start(
            f"Taking {mod.name} over",
            lambda progress: make_mine(catalogue.install, mod.id, folder, progress=progress),
            done,
        )

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if files := files_of(event):
            self.mod_dropped.emit(files[0])

    def _show_meetings(self) -> None:
        game = self._session.game
        state, why = game.bridge
        shared = len(game.clashes)
        words = (
            f"{count(shared, 'file')} touched by several mods"
            if shared
            else "No mod touches what another does"
        )
        if state:
            words = (
                "The bridge lets them live together" if state == "current" else f"The bridge is stale: {why}"
            )
        self._meets.setText(tr(words))
        self._meets.setVisible(game.has_order and bool(game.stack))
        self._where.setVisible(game.has_order and bool(shared or state))
        self._outs.setVisible(game.has_order and bool(game.stack))
        self._show_chosen()

    def _show_chosen(self) -> None:
        mod = self.stack.chosen
        self.take_off.setVisible(mod is not None)
        self.take_off.setText(tr(f"Take {mod.name[:22]} off" if mod is not None else ""))
        mine = self._session.project.mod.id if self._session.project is not None else ""
        self.mine.setVisible(mod is not None and mod.id not in (BRIDGE, mine))

    def _stack_changed(self) -> None:
        self._show_meetings()
        self.renew()

    def _look_at_game(self) -> None:
        if not self.running:
            self.close_game()
            self.running_changed.emit(False)
