"""An archive's entries on the bench: looked at, replaced, added, renamed, taken away, and written as a changed copy."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from copy import deepcopy
from dataclasses import dataclass, field
from pathlib import Path

from PyQt6.QtCore import QPoint, QRectF, QSize, Qt, pyqtSignal
from PyQt6.QtGui import QIcon, QPainter, QPixmap
from PyQt6.QtWidgets import (
    QListWidget,
    QListWidgetItem,
    QVBoxLayout,
    QWidget,
)

from furnel.containers import Changes, Content, Entry
from furnel.desktop.language import tr
from furnel.desktop.look import Look, byte_size
from furnel.desktop.session import Session
from furnel.desktop.tiles import Tile, paint_tile
from furnel.desktop.timing import timer
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import button, copy_text, label
from furnel.desktop.widgets.menus import Row, offers_menu
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.errors import FurnelError
from furnel.words import count, number

_MOST_LISTED = 2000
_PATH, _DRAWN = Qt.ItemDataRole.UserRole, Qt.ItemDataRole.UserRole + 1
_PICTURE = QSize(40, 26)


@dataclass
class Pending:
    """What is to be otherwise in a copy of an archive."""

    replace: dict[str, Path] = field(default_factory=dict)
    add: dict[str, Path] = field(default_factory=dict)
    rename: dict[str, str] = field(default_factory=dict)
    remove: set[str] = field(default_factory=set)

    @property
    def many(self) -> int:
        """How many entries are touched."""
        return len({*self.replace, *self.rename, *self.remove}) + len(self.add)

    def changes(self) -> Changes:
        """As the archive takes it."""
        replace: dict[str, Content] = dict(self.replace)
        add: dict[str, Content] = dict(self.add)
        return Changes(replace, add, frozenset(self.remove), dict(self.rename))

    def forget(self, path: str) -> None:
        """An entry is as it was again; one that was added is gone."""
        for part in (self.replace, self.add, self.rename):
            part.pop(path, None)
        self.remove.discard(path)


class EntriesPane(QWidget):
    """The list and what can be done with it. `picked` tells an entry's path, `seen` the paths of those in view, `wanted` that a
    copy is to be written."""

    picked = pyqtSignal(str)
    seen = pyqtSignal(list)
    wanted = pyqtSignal()

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._look, self._session = look, session
        self.pending = Pending()
        self._entries: tuple[Entry, ...] = ()
        self._title = label("ENTRIES", "section")
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Entries"))
        self.list.setUniformItemSizes(True)
        self.list.setIconSize(_PICTURE)
        self.list.setTextElideMode(Qt.TextElideMode.ElideMiddle)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.list.currentRowChanged.connect(self._row_changed)
        self._looking = timer(self, self._tell_seen, 60)
        if (bar := self.list.verticalScrollBar()) is not None:
            bar.valueChanged.connect(self._looking.start)
            bar.rangeChanged.connect(self._looking.start)
        self.buttons = {
            name: button(words, tip, "plain")
            for name, words, tip in (
                ("replace", "Replace…", "Give this entry the content of a file"),
                ("add", "Add…", "Put files into the archive"),
                ("rename", "Rename…", "Give this entry another path"),
                ("remove", "Leave out", "Leave this entry out of the copy"),
                ("back", "As it was", "Take back what is to be done to this entry"),
            )
        }
        self.write = button(
            "Write a copy…", "Write the archive with these changes to another file, and prove it"
        )
        for name, act in (
            ("replace", self._replace), ("add", self._add), ("rename", self._rename), ("remove", self._remove),
            ("back", self._back),
        ):  # fmt: skip
            self.buttons[name].clicked.connect(act)
        self.write.clicked.connect(self.wanted)
        row = WrappingRow(spacing=4)
        for part in self.buttons.values():
            row.addWidget(part)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(6)
        column.addWidget(self._title)
        column.addWidget(self.list, 1)
        column.addLayout(row)
        column.addWidget(self.write)
        offers_menu(self.list, self._offers)
        self._weigh()

    def _offers(self, place: QPoint) -> list[Row]:
        """What can be done with the entry at a place."""
        item = self.list.itemAt(place)
        if item is not None:
            self.list.setCurrentItem(item)
        path = self.current()
        rows: list[Row] = [(part.text(), part.click, part.isEnabled()) for part in self.buttons.values()]
        return [
            *rows,
            ("Copy its path", lambda: copy_text(path), bool(path)),
        ]

    def show_entries(self, entries: tuple[Entry, ...], pending: Pending) -> None:
        """Show what is in an archive, and what is to be otherwise."""
        self._entries, self.pending = entries, pending
        self._renew()

    def _renew(self) -> None:
        kept = self.current()
        self._blank = self._icon(None)
        self._looking.start()
        self.list.blockSignals(True)
        self.list.clear()
        pending = self.pending
        for path, file in pending.add.items():
            self._put(path, f"+  {path}", f"added from {file}", "ember")
        for entry in self._entries[:_MOST_LISTED]:
            path = entry.path
            if path in pending.remove:
                self._put(path, f"−  {path}", "left out", "faint")
            elif path in pending.replace or path in pending.rename:
                now = pending.rename.get(path, path)
                from_file = f", content from {pending.replace[path].name}" if path in pending.replace else ""
                self._put(path, f"✎  {now}", f"{path}{from_file}", "ember")
            else:
                self._put(path, f"{path}    {byte_size(entry.size)}", path, "text")
        for row in range(self.list.count()):
            if (item := self.list.item(row)) is not None and item.data(_PATH) == kept:
                self.list.setCurrentRow(row)
        self.list.blockSignals(False)
        self._title.setText(tr(f"ENTRIES  {number(len(self._entries))}" if self._entries else "ENTRIES"))
        self._weigh()

    def _in_view(self) -> list[QListWidgetItem]:
        """The rows that can be seen, and some below."""
        first = max(self.list.indexAt(QPoint(4, 4)).row(), 0)
        room = (self.list.height() // max(self.list.sizeHintForRow(0), 1)) + 4
        return [item for row in range(first, first + room) if (item := self.list.item(row)) is not None]

    def _tell_seen(self) -> None:
        if self.isVisible():
            paths = (str(item.data(_PATH)) for item in self._in_view())
            self.seen.emit([path for path in paths if path not in self.pending.add])

    def showEvent(self, event: object) -> None:
        self._looking.start()

    def show_pictures(self, tiles: Mapping[str, Tile]) -> None:
        """Show what is known of the entries in view, and ask for more of it."""
        for item in self._in_view():
            tile = tiles.get(str(item.data(_PATH)))
            if tile is not None and item.data(_DRAWN) is not tile:
                item.setData(_DRAWN, tile)
                item.setIcon(self._icon(tile))
        if tiles:
            self._looking.start()

    def _icon(self, tile: Tile | None) -> QIcon:
        ratio = self.devicePixelRatioF()
        picture = QPixmap(round(_PICTURE.width() * ratio), round(_PICTURE.height() * ratio))
        picture.setDevicePixelRatio(ratio)
        picture.fill(Qt.GlobalColor.transparent)
        if tile is not None and not tile.fault:
            painter = QPainter(picture)
            paint_tile(
                painter, self._look, QRectF(0, 0, _PICTURE.width(), _PICTURE.height()), tile, crop=True
            )
            painter.end()
        return QIcon(picture)

    def _put(self, path: str, words: str, tip: str, role: str) -> None:
        item = QListWidgetItem(self._blank, tr(words))
        item.setData(_PATH, path)
        item.setToolTip(tr(tip))
        item.setForeground(self._look.colour(role))
        self.list.addItem(item)

    def current(self) -> str:
        """The path of the entry that is chosen, or nothing."""
        item = self.list.currentItem()
        return str(item.data(_PATH)) if item is not None else ""

    def _row_changed(self, row: int) -> None:
        self._weigh()
        if row >= 0:
            self.picked.emit(self.current())

    def _weigh(self) -> None:
        path, pending = self.current(), self.pending
        there = bool(path) and path not in pending.add and path not in pending.remove
        for name in ("replace", "rename", "remove"):
            self.buttons[name].setEnabled(there)
        self.buttons["add"].setEnabled(bool(self._entries))
        touched = (
            path in pending.add or path in pending.replace or path in pending.rename or path in pending.remove
        )
        self.buttons["back"].setEnabled(touched)
        self.write.setEnabled(bool(pending.many))
        self.write.setText(
            tr(f"Write a copy with {count(pending.many, 'change')}…" if pending.many else "Write a copy…")
        )

    def _change(self, change: Callable[[Pending], object]) -> None:
        """Do something to what is to be otherwise; what no archive could be is told, and not done."""
        trial = deepcopy(self.pending)
        change(trial)
        try:
            trial.changes().check(dict.fromkeys(entry.path for entry in self._entries), "the archive")
        except FurnelError as error:
            self._session.tell("wrong", error.sentence())
            return
        vars(self.pending).update(vars(trial))
        self._renew()

    def _replace(self) -> None:
        path = self.current()
        file = picking.pick_file(self, f"The new content of {path}", "sources")
        if file:
            self._change(lambda pending: pending.replace.update({path: file}))

    def _add(self) -> None:
        self.add_files(picking.pick_files(self, "Files to put into the archive", "sources"))

    def add_files(self, files: list[Path]) -> None:
        """Add files beside the entry that is chosen; those that are there already are replaced."""
        folder = self.current().rpartition("/")[0]
        known = {entry.path for entry in self._entries}

        def add(pending: Pending) -> None:
            for file in files:
                path = f"{folder}/{file.name}" if folder else file.name
                (pending.replace if path in known else pending.add)[path] = file
                pending.remove.discard(path)

        self._change(add)

    def _rename(self) -> None:
        path = self.current()
        now = picking.ask_name(
            self, "Rename the entry", "Its path", self.pending.rename.get(path, path), "Rename"
        )
        if now:
            self.rename_to(path, now)

    def rename_to(self, path: str, now: str) -> None:
        """Give an entry another path; one that cannot be is told."""

        def rename(pending: Pending) -> None:
            pending.rename.pop(path, None)
            if now != path:
                pending.rename[path] = now

        self._change(rename)

    def _remove(self) -> None:
        path = self.current()

        def leave_out(pending: Pending) -> None:
            pending.forget(path)
            pending.remove.add(path)

        self._change(leave_out)

    def _back(self) -> None:
        path = self.current()
        self._change(lambda pending: pending.forget(path))
