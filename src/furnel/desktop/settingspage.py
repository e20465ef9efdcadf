"""The settings: what is set for this machine, and every command's key."""

from __future__ import annotations

import os
from collections.abc import Callable
from pathlib import Path
from typing import TYPE_CHECKING

import numpy as np
from PyQt6.QtCore import Qt
from PyQt6.QtGui import QKeySequence
from PyQt6.QtWidgets import (
    QButtonGroup,
    QGridLayout,
    QHBoxLayout,
    QHeaderView,
    QKeySequenceEdit,
    QLineEdit,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.actions import COMMANDS, command, key_of, shortcut_of
from furnel.desktop.doing import show_in_folder
from furnel.desktop.language import LANGUAGES, language_of, spoken, tr
from furnel.desktop.look import Look, byte_size
from furnel.desktop.menuentry import add_to_menu, in_menu, take_off_menu
from furnel.desktop.settings import GB, KEPT, PROGRAMS, SIZES, THEMES, why_not
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import as_panel, button, field, label, scrolling, toggle
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.panes import SidePane
from furnel.desktop.widgets.steady import Choice, Slider
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.folders import cache_folder
from furnel.kept import kept_bytes, let_go
from furnel.progress import Progress
from furnel.sound import Clip

if TYPE_CHECKING:
    from furnel.desktop.session import Session
    from furnel.desktop.window import Window

_ID = Qt.ItemDataRole.UserRole
_RATE = 48_000


_MOTION = (
    ("As it comes", "Animations begin by themselves, and what is looked for blinks"),
    ("Only when asked", "Animations wait for Play, Blink for a click, and nothing blinks"),
)


class SettingsPage(Page):
    """Everything that can be set. It takes effect at once, but for the size."""

    OWN_UNDO = True

    def __init__(self, look: Look, window: Window) -> None:
        super().__init__()
        self._window, self._settings = window, window.settings
        self.title.setText(tr("Settings"))
        self.said.setText(tr("For this machine. What you change is used at once."))
        self.themes, self.motion = QButtonGroup(self), QButtonGroup(self)
        self.scale, self.device, self.most, self.language = (Choice() for _ in range(4))
        self._size_says, self._language_says = label("", "caption"), label("", "caption")
        self.volume = Slider()
        self.hear = button("Hear it", "Three notes")
        self._kept_says = label("", "caption")
        self.empty = button("Empty it", "What is needed again is made again; what is open now stays")
        self.programs: dict[str, tuple[QWidget, QWidget]] = {}
        self._grid = QGridLayout()
        self._grid.setHorizontalSpacing(14)
        self._grid.setVerticalSpacing(8)
        self._grid.setColumnMinimumWidth(0, 150)
        self._grid.setColumnStretch(1, 1)
        self.search = field("Command or key", "Search the keys")
        self.list, self.keys = QTreeWidget(), QKeySequenceEdit()
        self._chosen, self._says = label("", ""), label("", "caption")
        self.use = button("Use this key", "In place of the one that it has", "next")
        self.usual = button("As it came", "The key that Furnel came with", "plain")
        self._back = button("Back", "Esc", "plain")
        self._back.clicked.connect(self.closed)
        self.menu = button("", "Start it from there, and open mods, archives and folders with it")
        self._fill()
        self._lay_out(look)
        self._connect()

    # the parts

    def _section(self, title: str) -> None:
        row = self._grid.rowCount()
        if row > 1:
            self._grid.setRowMinimumHeight(row, 12)
        self._grid.addWidget(label(title, "section"), row + 1, 0, 1, 2)

    def _row(self, name: str, *parts: QWidget) -> None:
        line = WrappingRow(spacing=6)
        for part in parts:
            line.addWidget(part)
        row = self._grid.rowCount()
        if name:
            self._grid.addWidget(label(name, "caption"), row, 0)
        self._grid.addLayout(line, row, 1)

    def _fill(self) -> None:
        self._section("LOOK")
        themes = [toggle(text, f"{text}, for the whole window") for text in THEMES.values()]
        for place, part in enumerate(themes):
            self.themes.addButton(part, place)
        self._row("Theme", *themes)
        motion = [toggle(text, hint) for text, hint in _MOTION]
        for place, part in enumerate(motion):
            self.motion.addButton(part, place)
        self._row("Motion", *motion)
        for name, told in LANGUAGES.items():
            self.language.addItem(tr(told), name)
        self.language.setAccessibleName(tr("Language"))
        self._row("Language", self.language, self._language_says)
        self.scale.addItems([f"{size} %" for size in SIZES])
        self.scale.setAccessibleName(tr("Size of everything"))
        self._row("Size of everything", self.scale, self._size_says)
        self._section("SOUND")
        self.device.setAccessibleName(tr("Sound device"))
        self._row("Heard through", self.device)
        self.volume.setRange(0, 100)
        self.volume.setFixedWidth(220)
        self.volume.setAccessibleName(tr("Volume"))
        self._row("Volume", self.volume, self.hear)
        self._section("PROGRAMS THAT SOURCES OPEN IN")
        for kind, name in PROGRAMS.items():
            choose = button("", "Choose a program")
            usual = button("As the system", "The program that the system opens such files with", "plain")
            choose.clicked.connect(lambda _=False, kind=kind: self._choose_program(kind))
            usual.clicked.connect(lambda _=False, kind=kind: self._set_program(kind, ""))
            self.programs[kind] = choose, usual
            self._row(name, choose, usual)
        self._section("KEPT ON THIS MACHINE, TO BE FAST")
        self.most.addItems([f"{size} GB" for size in KEPT])
        self.most.setAccessibleName(tr("How much is kept"))
        self._row("At most", self.most, self.empty)
        self._kept_says.setWordWrap(True)
        self._grid.addWidget(self._kept_says, self._grid.rowCount(), 1)
        where = button("Show the folder", "In the system's file manager", "plain")
        where.clicked.connect(lambda: show_in_folder(self._window.session, cache_folder()))
        self._row("", where)
        self._section("ON THIS DESKTOP")
        self.menu.clicked.connect(self._turn_menu)
        self._row("In its menu", self.menu)

    def _lay_out(self, look: Look) -> None:
        left = QWidget()
        column = QVBoxLayout(left)
        column.setContentsMargins(24, 14, 24, 16)
        column.addLayout(self._grid)
        column.addStretch(1)
        self.list.setColumnCount(2)
        self.list.setHeaderHidden(True)
        if (head := self.list.header()) is not None:
            head.setStretchLastSection(False)
            head.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
            head.setSectionResizeMode(1, QHeaderView.ResizeMode.ResizeToContents)
        self.list.setRootIsDecorated(False)
        self.list.setAccessibleName(tr("Commands and their keys"))
        self.list.setIndentation(10)
        self.keys.setMaximumSequenceLength(1)
        self.keys.setAccessibleName(tr("The new key"))
        for inside in self.keys.findChildren(QLineEdit):
            inside.setAccessibleName(tr("The new key"))
        self._says.setWordWrap(True)
        side = as_panel(QWidget())
        right = QVBoxLayout(side)
        right.setContentsMargins(16, 14, 16, 14)
        right.setSpacing(8)
        right.addWidget(label("KEYS", "section"))
        right.addWidget(self.search)
        right.addWidget(self.list, 1)
        right.addWidget(self._chosen)
        row = QHBoxLayout()
        row.setSpacing(6)
        row.addWidget(self.keys, 1)
        row.addWidget(self.use)
        row.addWidget(self.usual)
        right.addLayout(row)
        right.addWidget(self._says)
        body = QHBoxLayout()
        body.setSpacing(0)
        body.addWidget(scrolling(left, "window"), 1)
        body.addWidget(SidePane(look, "keys", "Keys", side, "right", 420))
        self.laid_out(self.titled(self._back), body)

    def _connect(self) -> None:
        settings = self._settings
        self.themes.idClicked.connect(lambda place: settings.set(theme=list(THEMES)[place]))
        self.motion.idClicked.connect(lambda place: settings.set(still=bool(place)))
        self.language.activated.connect(lambda place: settings.set(language=self.language.itemData(place)))
        self.scale.activated.connect(lambda place: settings.set(size=SIZES[place]))
        self.device.activated.connect(
            lambda place: settings.set(device=self.device.itemText(place) if place else "")
        )
        self.volume.valueChanged.connect(
            lambda value: None if self.volume.isSliderDown() else settings.set(volume=value)
        )
        self.volume.sliderReleased.connect(lambda: settings.set(volume=self.volume.value()))
        self.hear.clicked.connect(self._play)
        self.most.activated.connect(lambda place: self._keep(KEPT[place]))
        self.empty.clicked.connect(lambda: self._let_go(0))
        self.search.textChanged.connect(lambda _: self._show_keys())
        self.list.currentItemChanged.connect(lambda *_: self._show_chosen())
        self.list.itemActivated.connect(lambda *_: self.keys.setFocus())
        self.keys.keySequenceChanged.connect(lambda _: self._weigh())
        self.use.clicked.connect(lambda: self._give(self.keys.keySequence().toString()))
        self.usual.clicked.connect(lambda: self._give(command(self.chosen).key))
        settings.changed.connect(self._show)

    # what is shown

    def open(self) -> None:
        """Show what is set now."""
        self._show()
        self._show_keys()
        self._count()

    def go(self, part: str) -> None:
        """Put the cursor where a part is set."""
        at = {
            "language": self.language,
            "size": self.scale,
            "device": self.device,
            "volume": self.volume,
            "kept": self.most,
            "keys": self.search,
        }
        if part == "programs":
            self.programs["picture"][0].setFocus()
        elif part == "motion":
            self.motion.buttons()[0].setFocus()
        elif part in at:
            at[part].setFocus()
        else:
            self.themes.buttons()[0].setFocus()

    def _show(self) -> None:
        now = self._settings.now
        self.themes.buttons()[list(THEMES).index(now.theme)].setChecked(True)
        self.motion.buttons()[int(now.still)].setChecked(True)
        self.scale.setCurrentIndex(SIZES.index(now.size))
        self.language.setCurrentIndex(self.language.findData(now.language))
        self._language_says.setText(
            tr("from the next start" if language_of(now.language) != spoken() else "")
        )
        self._size_says.setText(tr("from the next start" if now.size != _begun_with() else ""))
        self.most.setCurrentIndex(KEPT.index(now.kept))
        if not self.volume.isSliderDown():
            self.volume.blockSignals(True)
            self.volume.setValue(now.volume)
            self.volume.blockSignals(False)
        for kind, (choose, usual) in self.programs.items():
            program = now.programs.get(kind, "")
            choose.setText(Path(program).name if program else tr("As the system opens them"))  # type: ignore[attr-defined]
            choose.setToolTip(program or tr("Choose a program"))
            usual.setVisible(bool(program))
        self.menu.setText(tr("Take it off" if in_menu() else "Put it there"))
        self._show_devices()

    def _show_devices(self) -> None:
        from PyQt6.QtMultimedia import QMediaDevices

        names = [device.description() for device in QMediaDevices.audioOutputs()]
        set_now = self._settings.now.device
        if set_now and set_now not in names:
            names.append(set_now)
        self.device.clear()
        self.device.addItems([tr("the system's own"), *names])
        self.device.setCurrentIndex(names.index(set_now) + 1 if set_now else 0)
        self.hear.setEnabled(self._window.player.device)
        self.hear.setToolTip(tr("Three notes" if self.hear.isEnabled() else "There is no sound device"))

    @property
    def chosen(self) -> str:
        """The command whose key is looked at."""
        item = self.list.currentItem()
        return str(item.data(0, _ID) or "") if item is not None else ""

    def _show_keys(self) -> None:
        before, words = self.chosen, self.search.text().lower().split()
        self.list.clear()
        groups: dict[str, QTreeWidgetItem] = {}
        items: dict[str, QTreeWidgetItem] = {}
        for entry in COMMANDS:
            text, key = tr(entry.text).rstrip("…"), key_of(entry.id)
            if not all(word in f"{tr(entry.group)} {text} {tr(key)} {key}".lower() for word in words):
                continue
            group = groups.get(entry.group)
            if group is None:
                group = groups[entry.group] = QTreeWidgetItem(self.list, [tr(entry.group).upper()])
                group.setFlags(Qt.ItemFlag.ItemIsEnabled)
                group.setExpanded(True)
            own = entry.id in self._settings.now.keys
            item = QTreeWidgetItem(group, [text, f"{tr(key)}{'  •' if own else ''}"])
            item.setData(0, _ID, entry.id)
            item.setToolTip(1, tr(f"It came with {entry.key or 'none'}" if own else ""))
            items[entry.id] = item
        if items:
            self.list.setCurrentItem(items.get(before, next(iter(items.values()))))
        self._show_chosen()

    def _show_chosen(self) -> None:
        name = self.chosen
        for part in (self.keys, self.use, self.usual):
            part.setEnabled(bool(name))
        self._chosen.setText(
            tr(f"{command(name).text.rstrip('…')}: {command(name).tip}" if name else "Choose a command")
        )
        self._chosen.setWordWrap(True)
        self.keys.setKeySequence(QKeySequence(shortcut_of(name) if name else ""))
        self._weigh()

    def _weigh(self) -> None:
        """Say whether the command can have the keys that were pressed."""
        name, keys = self.chosen, self.keys.keySequence().toString()
        why = why_not(keys, name, self._settings.now) if name else ""
        same = bool(name) and QKeySequence(shortcut_of(name)) == self.keys.keySequence()
        self._says.setText(
            tr(why or ("" if keys or not name else "Without a key it is found by Do anything"))
        )
        self.use.setEnabled(bool(name) and not why and not same)
        self.usual.setVisible(bool(name) and name in self._settings.now.keys)

    # what is set

    def _give(self, keys: str) -> None:
        """Give the chosen command a key."""
        name = self.chosen
        if why := why_not(keys, name, self._settings.now):
            self._says.setText(tr(why))
            return
        own = {known: key for known, key in self._settings.now.keys.items() if known != name}
        if QKeySequence(keys) != QKeySequence(command(name).key):
            own[name] = keys
        self._settings.set(keys=own)
        self._show_keys()

    def _choose_program(self, kind: str) -> None:
        program = picking.pick_file(
            self, f"A program for {PROGRAMS[kind].lower()}", "programs", start=Path("/usr/bin")
        )
        if program:
            self._set_program(kind, str(program))

    def _set_program(self, kind: str, program: str) -> None:
        others = {known: path for known, path in self._settings.now.programs.items() if known != kind}
        self._settings.set(programs={**others, kind: program} if program else others)

    def _turn_menu(self) -> None:
        """Put Furnel into the desktop's menu, or take it off."""
        take_off_menu() if in_menu() else add_to_menu()
        self._show()

    def _play(self) -> None:
        self._window.player.play("three notes", _three_notes)

    def _keep(self, most: int) -> None:
        self._settings.set(kept=most)
        self._let_go(most * GB)

    def _let_go(self, most: int) -> None:
        session = self._window.session

        def done(freed: int) -> None:
            session.tell("calm", f"{byte_size(freed)} came free" if freed else "Nothing had to go")
            self._count()

        session.jobs.start("Letting go of what is kept", make_room(session, most), done)

    def _count(self) -> None:
        def done(sizes: dict[str, int]) -> None:
            words = ", ".join(f"{name} {byte_size(size)}" for name, size in sizes.items())
            self._kept_says.setText(tr(f"{byte_size(sum(sizes.values()))} now: {words}"))

        self._window.session.jobs.start(
            "Counting what is kept",
            lambda _: kept_bytes(),
            done,
            lambda _: None,
            key="kept",
            lane="eye",
            shown=False,
        )


def make_room(session: Session, most: int) -> Callable[[Progress], int]:
    """Work that lets go of what is kept on this machine, but for what is open, until it is at most so many bytes."""
    spare = [found.kept.file for found in session.examined.values() if found.kept is not None]
    spare += [session.catalogue.file] if session.catalogue is not None else []
    return lambda progress: let_go(spare, most, progress)


def _begun_with() -> int:
    """The size that this start has."""
    return round(float(os.environ.get("QT_SCALE_FACTOR", "1")) * 100)


def _three_notes() -> Clip:
    """A rising triad, softly."""
    time = np.arange(_RATE * 3 // 10) / _RATE
    notes = [np.sin(2 * np.pi * pitch * time) * np.exp(-5 * time) * 0.3 for pitch in (392.0, 493.9, 587.3)]
    return Clip(np.concatenate(notes).astype(np.float32)[:, None], _RATE)
