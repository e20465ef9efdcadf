"""The page for new things: which kind, what it is called and like, files for its places, what it joins."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PyQt6.QtCore import QSignalBlocker, Qt, pyqtSignal
from PyQt6.QtGui import QDragEnterEvent, QDropEvent
from PyQt6.QtWidgets import (
    QCheckBox,
    QGridLayout,
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.find.place_tile import PlaceTile
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.session import Session
from furnel.desktop.swapping import Made
from furnel.desktop.tiles import TileStore
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import as_panel, button, field, label
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.steady import Choice
from furnel.games.additions import AdditionRule
from furnel.mods import additions
from furnel.mods.additions import Addition
from furnel.mods.records import Sheet
from furnel.mods.workspace import Workspace
from furnel.progress import Progress
from furnel.words import count


class NewThingPage(Page):
    """Something new for the game. `made` gives the asset or definition to put on the bench."""

    made = pyqtSignal(str)

    def __init__(self, look: Look, session: Session, tiles: TileStore) -> None:
        super().__init__()
        self._look, self._session, self._tiles = look, session, tiles
        self._rule: AdditionRule | None = None
        self._sheet: Sheet | None = None
        self._planned: additions.Planned | None = None
        self.places: list[PlaceTile] = []
        self.kinds, self.own = QListWidget(), QListWidget()
        for part in (self.kinds, self.own):
            part.setObjectName("flush")
        self.kinds.setAccessibleName(tr("Kinds of new things"))
        self.own.setAccessibleName(tr("New things in this mod"))
        self.name, self.id, self.like = (
            field("What people read", "Title"),
            field("what the game calls it", "Id"),
            Choice(),
        )
        self.like.setAccessibleName(tr("Like which one"))
        self._why, self._wrong, self._none = (
            label(""),
            label("", "caption"),
            label("Nothing new yet.", "caption"),
        )
        self._none.setAlignment(Qt.AlignmentFlag.AlignTop)
        self._wrong.setWordWrap(True)
        self.go = button("Add it", "Make it, and fit its files", "next")
        self.folder = button("A whole folder…", "A new thing for every file or sub-folder")
        self.back = button("Take back", "Take the selected one out of the mod, with all that belongs to it")
        self._place_row, self._joins = QHBoxLayout(), QVBoxLayout()
        self._place_row.setSpacing(10)
        self.title.setText(tr("New"))
        self.said.setText(tr("Something that the game does not have yet, like something that it has."))
        self.setAcceptDrops(True)
        self._lay_out()
        self.kinds.currentRowChanged.connect(lambda _: self._choose())
        self.like.currentIndexChanged.connect(lambda _: self._show_places())
        self.name.textEdited.connect(self._named)
        self.id.textEdited.connect(lambda _: self._weigh())
        self.go.clicked.connect(self._add)
        self.folder.clicked.connect(self._ask_folder)
        self.back.clicked.connect(self._take_back)
        session.project_changed.connect(self._show_own)

    def _lay_out(self) -> None:
        form = QGridLayout()
        form.setHorizontalSpacing(12)
        form.setVerticalSpacing(10)
        form.setColumnMinimumWidth(0, 70)
        for at, (text, part) in enumerate((("title", self.name), ("id", self.id), ("like", self.like))):
            form.addWidget(label(text, "caption"), at, 0)
            form.addWidget(part, at, 1)
        form.setColumnStretch(1, 1)
        middle = QVBoxLayout()
        middle.setContentsMargins(24, 14, 24, 16)
        middle.setSpacing(14)
        middle.addWidget(self._why)
        middle.addLayout(form)
        self._place_row.addStretch(1)
        middle.addLayout(self._place_row)
        middle.addLayout(self._joins)
        middle.addWidget(self._wrong)
        row = QHBoxLayout()
        row.addWidget(self.go)
        row.addWidget(self.folder)
        row.addStretch(1)
        middle.addLayout(row)
        middle.addStretch(1)
        holder = QWidget()
        holder.setLayout(middle)
        holder.setMaximumWidth(720)
        right = as_panel(QWidget(), 250)
        side = QVBoxLayout(right)
        side.setContentsMargins(14, 14, 14, 14)
        side.addWidget(label("NEW IN THIS MOD", "section"))
        side.addWidget(self._none)
        side.addWidget(self.own, 1)
        side.addWidget(self.back)
        side.addStretch(0)
        left = as_panel(QWidget(), 200)
        column = QVBoxLayout(left)
        column.setContentsMargins(10, 14, 10, 14)
        column.addWidget(self.kinds, 1)
        body = QHBoxLayout()
        body.setContentsMargins(0, 0, 0, 0)
        body.setSpacing(0)
        body.addWidget(left)
        body.addWidget(holder, 1)
        body.addStretch(0)
        body.addWidget(right)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(0)
        whole.addLayout(self.heading())
        whole.addLayout(body, 1)
        self.kinds.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Expanding)

    # showing

    def open(self, kind: str = "", files: Sequence[Path] = ()) -> None:
        """Show the kinds that the game takes; with files, in the first place of that kind."""
        space = self._session.space
        rules = space.profile.additions if space is not None else ()
        chosen = self.kinds.currentRow()
        self.kinds.blockSignals(True)
        self.kinds.clear()
        for rule in rules:
            item = QListWidgetItem(tr(rule.called))
            item.setToolTip(tr(rule.why))
            self.kinds.addItem(item)
        self.kinds.blockSignals(False)
        row = next((row for row, rule in enumerate(rules) if rule.id == kind), max(chosen, 0))
        self.kinds.setCurrentRow(row)
        self._choose()
        self._show_own()
        if files and self.places:
            self.places[0].take(files)
        self.name.setFocus()

    def _choose(self) -> None:
        space = self._session.space
        row = self.kinds.currentRow()
        if space is None or not 0 <= row < len(space.profile.additions):
            self._rule = None
            return
        rule = self._rule = space.profile.additions[row]
        self._planned = self._sheet = None
        self._why.setText(tr(f"{rule.why}."))
        self.name.clear()
        self.id.clear()
        self._show_models([])
        _clear(self._joins)
        for join in rule.joins:
            if join.optional:
                box = QCheckBox(tr(join.called))
                box.setChecked(True)
                self._joins.addWidget(box)
        self._look.dress(self)

        def done(sheet: Sheet) -> None:
            if self._rule is rule and self._session.still_open(space):
                self._sheet = sheet
                self._show_models(additions.models(sheet))
                if not self.id.text():
                    self._named(self.name.text())

        self._session.jobs.start(
            f"Looking at {rule.record}",
            lambda _: additions.table_of(space, rule.id),
            done,
            lambda error: self._wrong.setText(tr(error.sentence())),
            key="new-thing models",
            lane="eye",
            shown=False,
        )

    def _show_models(self, names: list[str]) -> None:
        with QSignalBlocker(self.like):
            self.like.clear()
            self.like.addItems(names)
        self._show_places()

    def _show_places(self) -> None:
        """The places, each with what the chosen one has there; files that were given stay."""
        rule, sheet, like = self._rule, self._sheet, self.like.currentText()
        if rule is None:
            return
        kept = {tile.place.name: tile.files for tile in self.places}
        _clear(self._place_row, but_stretch=True)
        self.places = []
        for place in rule.places:
            names = additions.model_assets(sheet, place, like) if sheet is not None else []
            model = self._session.asset(names[0]) if names else None
            tile = PlaceTile(self._look, self._session, self._tiles, place, model)
            tile.take(kept.get(place.name, []))
            tile.changed.connect(self._filled)
            self._place_row.insertWidget(len(self.places), tile)
            self.places.append(tile)
        self._weigh()

    def _filled(self) -> None:
        """A file came in: what has no name yet is called like it."""
        tile = next((tile for tile in self.places if tile.files), None)
        if tile is not None and not self.name.text():
            self.name.setText(additions.title_of(tile.files[0].stem))
            self._named(self.name.text())
        self._weigh()

    def _named(self, title: str) -> None:
        if self._sheet is not None and self._rule is not None:
            self.id.setText(additions.fresh_id(self._sheet, self._rule.id, title) if title.strip() else "")
        self._weigh()

    def _show_own(self) -> None:
        marks = additions.additions(self._session.project) if self._session.project is not None else []
        self.own.clear()
        self._none.setVisible(not marks)
        self.own.setVisible(bool(marks))
        self.back.setVisible(bool(marks))
        self.own.addItems(marks)
        self.back.setEnabled(bool(marks))
        if marks:
            self.own.setCurrentRow(len(marks) - 1)

    def _weigh(self) -> None:
        """Whether it can be made, and what is missing."""
        missing = [tile.place.name for tile in self.places if tile.place.needed and not tile.files]
        if self._planned is not None:
            self._wrong.setText(tr(_planned_text(self._planned)))
            self.go.setText(tr("Add them all"))
            self.go.setEnabled(True)
            return
        self.go.setText(tr("Add it"))
        wrong = "" if self.id.text().strip() else "It needs a title or an id."
        own = [tile for tile in self.places if tile.place.own]
        if own and not any(tile.files for tile in own):
            wrong += f" It needs a file for {' or '.join(tile.place.name for tile in own)}."
        if missing:
            wrong += f" It needs a file for {', '.join(missing)}."
        self._wrong.setText(tr(wrong.strip()))
        self.go.setEnabled(not wrong and self._rule is not None)

    # making

    def wanted(self) -> Addition | None:
        """What is asked for."""
        if self._rule is None:
            return None
        boxes = [self._joins.itemAt(at) for at in range(self._joins.count())]
        parts = [item.widget() for item in boxes if item is not None]
        optional = [join.called for join in self._rule.joins if join.optional]
        out = {
            called
            for called, box in zip(optional, parts, strict=True)
            if isinstance(box, QCheckBox) and not box.isChecked()
        }
        files = {tile.place.name: tile.files for tile in self.places if tile.files}
        return Addition(
            self._rule.id,
            self.id.text().strip(),
            self.like.currentText(),
            self.name.text().strip(),
            files,
            {},
            frozenset(out),
        )

    def _add(self) -> None:
        wanted, planned = self.wanted(), self._planned
        if wanted is None:
            return
        several = planned.additions if planned is not None else (wanted,)
        rule = self._rule

        def work(space: Workspace, progress: Progress) -> Made:
            project = additions.add_all(space, several, progress)
            said = f"{wanted.mark} is in the mod" if planned is None else planned.sentence()
            text = f"New {wanted.mark}" if planned is None else f"New: {count(len(several), 'thing')}"
            return Made.of(space, project, text, said)

        def done() -> None:
            self._planned = None
            self._choose()
            project = self._session.project
            marks = {one.mark for one in several}
            first = (
                next((swap.original for swap in project.swaps if swap.part_of in marks), "")
                if project
                else ""
            )
            if first or rule is not None:
                self.made.emit(first or (rule.record if rule is not None else ""))

        self._session.swaps.change(f"Adding {wanted.mark}", work, done, key="new-thing")

    def _take_back(self) -> None:
        item = self.own.currentItem()
        if item is None:
            return
        mark = item.text()

        def work(space: Workspace, progress: Progress) -> Made:
            return Made.of(
                space,
                additions.without(space, mark),
                f"Take {mark} back",
                f"{mark} is out of the mod; undo brings it back",
            )

        self._session.swaps.change(f"Taking {mark} back", work, key="new-thing")

    def _ask_folder(self) -> None:
        folder = picking.pick_folder(self, "A folder with files for new things", "sources")
        if folder:
            self.take_folder(folder)

    def take_folder(self, folder: Path) -> None:
        """Work out what a folder's files would become; nothing is made yet."""
        space, rule, like = self._session.space, self._rule, self.like.currentText()
        if space is None or rule is None:
            return

        def done(found: additions.Planned) -> None:
            self._planned = found
            self._weigh()

        self._session.jobs.start(
            f"Looking at {folder.name}",
            lambda _: additions.plan(space, rule.id, folder, like),
            done,
            key="plan new",
        )

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        dropped = files_of(event)
        folder = next((file for file in dropped if file.is_dir()), None)
        if folder is not None:
            self.take_folder(folder)
        elif dropped and self.places:
            free = next((tile for tile in self.places if tile.place.many or not tile.files), self.places[0])
            free.take(dropped)


def _planned_text(found: additions.Planned) -> str:
    """What a folder would become, in words."""
    names = ", ".join(one.title for one in found.additions[:12])
    more = "…" if len(found.additions) > 12 else ""
    return f"{found.sentence()}: {names}{more}, each like {found.additions[0].like}."


def _clear(layout: QHBoxLayout | QVBoxLayout, but_stretch: bool = False) -> None:
    """Take all widgets out of a row or column."""
    for at in reversed(range(layout.count())):
        item = layout.itemAt(at)
        widget = item.widget() if item is not None else None
        if widget is not None:
            layout.removeWidget(widget)
            widget.hide()
            widget.deleteLater()
        elif not but_stretch:
            layout.takeAt(at)
