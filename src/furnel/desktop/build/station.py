"""The Build station: the contents, what the mod says of itself, clashes, and the buttons that lead into the game."""

from __future__ import annotations

from pydantic import ValidationError
from PyQt6.QtCore import Qt, pyqtSignal
from PyQt6.QtWidgets import (
    QCheckBox,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.actions import key_of, with_key
from furnel.desktop.build.contents import Contents
from furnel.desktop.language import tr
from furnel.desktop.look import Look, byte_size
from furnel.desktop.results import ResultTiles
from furnel.desktop.session import Session
from furnel.desktop.tiles import TileStore
from furnel.desktop.widgets.basics import (
    StateMark,
    as_panel,
    beside,
    button,
    emptied,
    field,
    hairline,
    label,
    scrolling,
    set_next,
)
from furnel.desktop.widgets.panes import SidePane
from furnel.games import BRIDGE
from furnel.mods.project import About
from furnel.words import count

_FIELDS = (("name", "Name", ""), ("version", "Version", "0.1"), ("author", "Author", "who made it"),
           ("summary", "Summary", "what it changes, in a sentence"), ("category", "Category", "look, sound, …"))  # fmt: skip
_PRESENT = {
    "built": ("fits", "Built, read back, and installed in the game."),
    "other": ("differs", "Built and read back. In the game is an older build: install again."),
    "off": ("differs", "Built and read back. It is in the game's folder, and switched off."),
    "foreign": (
        "differs",
        "Built and read back. In its place in the game lies something that Furnel did not put there.",
    ),
}


class BuildStation(QWidget):
    """Build, package, install. `wanted` asks the window for a command, `opened` for a swap's bench."""

    anyway: QCheckBox
    wanted = pyqtSignal(str)
    opened = pyqtSignal(str)

    def __init__(self, look: Look, session: Session, tiles: TileStore, results: ResultTiles) -> None:
        super().__init__()
        self._look, self._session = look, session
        self.contents = Contents(look, session, tiles, results)
        self._due = True
        self._clash_rows: list[tuple[str, str]] | None = None
        self._head, self._sum = label("", "title"), label("", "caption")
        area = scrolling(self.contents, "window")
        left = QVBoxLayout()
        left.setContentsMargins(0, 14, 0, 0)
        left.setSpacing(2)
        for text in (self._head, self._sum):
            text.setContentsMargins(16, 0, 16, 0)
            left.addWidget(text)
        left.addSpacing(6)
        left.addWidget(area, 1)
        row = QHBoxLayout(self)
        row.setContentsMargins(0, 0, 0, 0)
        row.setSpacing(0)
        row.addLayout(left, 1)
        row.addWidget(SidePane(look, "building", "The build", self._panel(), "right", 331))
        self.contents.picked.connect(self.opened)
        session.project_changed.connect(self._show)
        session.builds.changed.connect(self._show)
        session.game.changed.connect(self._show)

    def _panel(self) -> QWidget:
        panel = as_panel(QWidget())
        self._mark, self._state = StateMark(self._look, "fits", 11), label("", "")
        self._state.setWordWrap(True)
        self._build = button("Build", with_key("Write the mod and read it back", "build"), "next")
        self._install = button("Install", with_key("Put the build in the game's mods folder", "install"))
        self._package = button(
            "Share…", with_key("What strangers get to know of it, and the package", "share")
        )
        self._remove = button("Remove", "Bring the game back as it was")
        self.anyway = QCheckBox(tr("Build even what breaks"))
        self.anyway.setToolTip(tr("To see for yourself what the game says"))
        for part, name in (
            (self._build, "build"),
            (self._install, "install"),
            (self._package, "share"),
            (self._remove, "remove"),
        ):
            part.clicked.connect(lambda _=False, name=name: self.wanted.emit(name))
        self._fields: dict[str, QLineEdit] = {}
        form = QFormLayout()
        form.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
        form.setHorizontalSpacing(10)
        form.setVerticalSpacing(6)
        for key, text, hint in _FIELDS:
            entry = self._fields[key] = field(hint, text)
            entry.editingFinished.connect(lambda key=key: self._set_about(key))
            form.addRow(beside(text, entry), entry)
        self._clashes = QVBoxLayout()
        self._clashes.setSpacing(6)
        head = QHBoxLayout()
        head.setSpacing(8)
        head.addWidget(self._mark, 0, Qt.AlignmentFlag.AlignTop)
        head.addWidget(self._state, 1)
        first, second = QHBoxLayout(), QHBoxLayout()
        for line, parts in ((first, (self._build, self._install)), (second, (self._package, self._remove))):
            line.setSpacing(8)
            for part in parts:
                line.addWidget(part, 1)
        column = QVBoxLayout(panel)
        column.setContentsMargins(16, 16, 16, 12)
        column.setSpacing(8)
        column.addLayout(head)
        column.addLayout(first)
        column.addLayout(second)
        column.addWidget(self.anyway)
        column.addSpacing(4)
        column.addWidget(hairline())
        column.addWidget(label("WHAT THE MOD SAYS OF ITSELF", "section"))
        column.addLayout(form)
        column.addSpacing(4)
        column.addWidget(hairline())
        column.addWidget(label("CLASHES WITH INSTALLED MODS", "section"))
        column.addLayout(self._clashes)
        self.where = button(
            "Where they meet",
            with_key("Asset by asset and value by value, who wins, and the bridge", "meetings"),
            "plain",
        )
        self.where.clicked.connect(lambda: self.wanted.emit("meetings"))
        column.addWidget(self.where, 0, Qt.AlignmentFlag.AlignLeft)
        column.addStretch(1)
        return panel

    def showEvent(self, event: object) -> None:
        if self._due:
            self._show()

    def _show(self) -> None:
        """Show what is so now; while the station is not seen, when it is seen again."""
        self._due = not self.isVisible()
        if self._due:
            return
        session, space = self._session, self._session.space
        project = space.project if space is not None else None
        for part in (self._build, self._install, self._package, self._remove, *self._fields.values()):
            part.setEnabled(project is not None)
        if space is None or project is None:
            self._head.setText(tr("No mod is open"))
            self._sum.setText(tr(f"Start one with {key_of('new-mod')}"))
            return
        self._head.setText(f"{project.mod.name} {project.mod.version}")
        total = sum(item.size for item in session.examined.values())
        self._sum.setText(
            tr(f"{count(len(project.made), 'swap')}, {byte_size(total)}, for {space.profile.name}")
        )
        for key, line in self._fields.items():
            if not line.hasFocus():
                line.setText(getattr(project.mod, key))
                line.setCursorPosition(0)
        self._show_state()
        self._show_clashes()

    def _show_state(self) -> None:
        session = self._session
        counts, built = session.tally(), session.builds.last is not None
        old = bool(session.builds.stale)
        if counts["breaks"]:
            mark, text = (
                "breaks",
                f"{counts['breaks']} of {counts['all']} swaps break. Fit them before you build.",
            )
        elif not built:
            mark, text = "waiting", "Not built yet."
        elif old:
            mark, text = "differs", f"The build is stale: {len(session.builds.stale)} changed since."
        elif session.game.presence:
            mark, text = _PRESENT[session.game.presence]
        else:
            mark, text = "fits", "Built and read back. Not installed in the game yet."
        self._mark.show_state(mark)
        self._state.setText(tr(text))
        self._install.setEnabled(built)
        self._remove.setEnabled(session.game.installed)
        for part, is_next in (
            (self._build, old or not built),
            (self._install, built and not old and session.game.presence in ("", "other", "off")),
        ):
            set_next(part, is_next)

    def _show_clashes(self) -> None:
        project = self._session.project
        assert project is not None
        built = self._session.builds.last
        ours = {swap.original for swap in project.made} | {
            file.path for file in (built.files if built else ())
        }
        rows = []
        for mod in self._session.game.stack:
            shared = sorted(ours & set(mod.paths)) if mod.id != project.mod.id and mod.on else []
            bridged = self._session.game.bridge[0] == "current"
            for path in shared if mod.id != BRIDGE else ():
                winner = f"{mod.name} wins" if self._wins(mod.id, project.mod.id) else "yours wins"
                rows.append((path, f"also in {mod.name}: {'the bridge has both' if bridged else winner}"))
        self.where.setVisible(bool(rows) and self._session.game.has_order)
        if rows == self._clash_rows:
            return
        self._clash_rows = rows
        emptied(self._clashes)
        for path, said in rows:
            line = QWidget()
            row = QHBoxLayout(line)
            row.setContentsMargins(0, 0, 0, 0)
            row.addWidget(StateMark(self._look, "differs", 10), 0, Qt.AlignmentFlag.AlignTop)
            texts = QVBoxLayout()
            texts.setSpacing(1)
            for words, name in ((path, ""), (said, "caption")):
                text = label(words, name)
                text.setWordWrap(True)
                texts.addWidget(text)
            row.addLayout(texts, 1)
            self._clashes.addWidget(line)
        if not rows:
            none = label("None: no other enabled mod touches what yours does.", "caption")
            none.setWordWrap(True)
            self._clashes.addWidget(none)

    def _wins(self, other: str, ours: str) -> bool:
        order = [mod.id for mod in self._session.game.stack]
        return ours in order and order.index(other) > order.index(ours)

    def _set_about(self, key: str) -> None:
        project, text = self._session.project, self._fields[key].text().strip()
        if project is None or text == getattr(project.mod, key):
            return
        if key == "name" and not text:
            self._fields[key].setText(project.mod.name)
            self._session.tell("wrong", "A mod needs a name")
            return
        try:
            about = About.model_validate({**project.mod.model_dump(), key: text})
        except ValidationError as error:
            said = error.errors()[0]["msg"].removeprefix("Value error, ")
            self._fields[key].setText(getattr(project.mod, key))
            self._session.tell("wrong", f"The {key} stays {getattr(project.mod, key)!r}: {said}")
            return
        self._session.edit(project.model_copy(update={"mod": about}), f"Change the {key}")
