"""The archive bench: bytes, description and entries side by side, each following the others as it is typed."""

from __future__ import annotations

import html
import re
from pathlib import Path

from PyQt6.QtCore import QSize, Qt
from PyQt6.QtGui import QColor, QTextCharFormat, QTextCursor
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QListWidget,
    QListWidgetItem,
    QPlainTextEdit,
    QSizePolicy,
    QTextEdit,
    QVBoxLayout,
    QWidget,
)

from furnel.atomic import write_text
from furnel.containers import (
    Anatomy,
    Guesses,
    Layout,
    Span,
    dissect,
    guess,
    known_layouts,
    layout_text,
    layouts_folder,
    open_container,
    parse_layout,
    unpack_to,
    write_changed,
)
from furnel.containers.mapped import MappedFile
from furnel.containers.marking import Mark, described, with_mark
from furnel.containers.telling import told_fields, with_role
from furnel.desktop.archive.bytes_view import BytesView, describe
from furnel.desktop.archive.chips import FieldChips
from furnel.desktop.archive.entries import EntriesPane, Pending
from furnel.desktop.archive.pictures import EntryPictures
from furnel.desktop.language import tr
from furnel.desktop.look import Look, byte_size
from furnel.desktop.session import Session
from furnel.desktop.timing import timer
from furnel.desktop.widgets import picking, sheets
from furnel.desktop.widgets.basics import as_panel, button, label, marked, strong, tip
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.panes import SidePane
from furnel.desktop.widgets.steady import Choice
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.errors import FurnelError
from furnel.progress import Progress
from furnel.words import count, number

_GUESS = "the guess"
_SAYING = {
    "letters": ("letters", "The same letters in every such archive"),
    "count": ("count", "How many entries there are"),
    "name": ("name", "The first entry's name, with all the room that it has"),
    "offset": ("offset", "Where the first entry's data begins"),
    "size": ("size", "How large the first entry is"),
    "stored size": ("stored size", "How many bytes the first entry takes where it is packed"),
    "number": ("a number", "A number that nobody understands yet"),
}
"""What bytes can be said to be, and what that means."""


class ArchivePage(Page):
    """The bench. `closed` when the modder goes back."""

    OWN_UNDO = True

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._look, self._session = look, session
        self.file: Path | None = None
        self._mapped: MappedFile | None = None
        self.layout_found: Layout | None = None
        self.anatomy = Anatomy()
        self.guesses: Guesses | None = None
        self.bytes, self.chips = BytesView(look), FieldChips(look)
        self.chips.pressed.connect(self._to_the_next)
        self.chips.meant.connect(self._mean)
        self.text = QPlainTextEdit()
        self.text.setAccessibleName(tr("Description"))
        self.text.setPlaceholderText(tr("The description of the archive: docs/layouts.md has a tutorial"))
        self.text.setLineWrapMode(QPlainTextEdit.LineWrapMode.WidgetWidth)
        self.text.setObjectName("code")
        self._verdict = label("", "caption")
        self._verdict.setWordWrap(True)
        self._at, self._numbers = marked(), label("", "caption")
        self._numbers.setWordWrap(True)
        self._numbers.setMinimumHeight(2 * self._numbers.fontMetrics().lineSpacing())
        for line in (self._at, self._numbers):  # long lines do not widen the page
            line.setSizePolicy(QSizePolicy.Policy.Ignored, QSizePolicy.Policy.Fixed)
        self.begin = Choice()
        self.begin.setToolTip(tr("What to begin the description from"))
        self.begin.activated.connect(self._begin_from)
        self.entries, self.hints = EntriesPane(look, session), QListWidget()
        self.hints.setAccessibleName(tr("What was found"))
        self.hints.setWordWrap(True)
        self.hints.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self.entries.picked.connect(self._entry_picked)
        self.entries.wanted.connect(self._write_copy)
        self.pictures = EntryPictures(session.jobs)
        self.entries.seen.connect(self.pictures.want)
        self.pictures.ready.connect(lambda: self.entries.show_pictures(self.pictures.tiles))
        self._pending: dict[Path, Pending] = {}
        self._marks: list[Mark] = []
        self._texts: dict[Path, tuple[str, list[Mark]]] = {}  # what was written of files looked at before
        self.hints.currentRowChanged.connect(self._hint_picked)
        self._open = button("Another file…", "Look at another archive")
        self._take = button("Take all out…", "Write every entry as a file")
        self.save = button(
            "Keep this layout", "Put it with your layouts, where profiles and every command find it", "next"
        )
        self._back = button("Back to the wall", "Esc", "plain")
        self._open.clicked.connect(self.ask)
        self._take.clicked.connect(self._take_out)
        self.save.clicked.connect(self._save)
        self._back.clicked.connect(self.closed)
        self._typing = timer(self, self._look_again, 220)
        self.text.textChanged.connect(self._typing.start)
        self.text.undoAvailable.connect(lambda _: self.stepped.emit())
        self.text.redoAvailable.connect(lambda _: self.stepped.emit())
        self.bytes.pointed.connect(self._pointed)
        self._lay_out()

    def _lay_out(self) -> None:
        head = QHBoxLayout()
        head.setContentsMargins(16, 12, 16, 10)
        head.setSpacing(10)
        names = QVBoxLayout()
        names.setSpacing(2)
        names.addWidget(self.title)
        names.addWidget(self.said)
        head.addLayout(names, 1)
        for part in (self._back, self._open, self._take, self.save):
            head.addWidget(part)
        left = QVBoxLayout()
        left.setContentsMargins(16, 10, 12, 12)
        left.setSpacing(6)
        row = WrappingRow(spacing=4)
        self.begin.setMinimumWidth(120)
        row.addWidget(label("DESCRIPTION", "section"))
        row.add_rest()
        row.addWidget(self.begin)
        left.addLayout(row)
        left.addWidget(self.text, 1)
        left.addWidget(self._verdict)
        middle = QVBoxLayout()
        middle.setContentsMargins(0, 0, 0, 0)
        middle.setSpacing(0)
        middle.addWidget(self.chips)
        middle.addWidget(self.bytes, 1)
        foot = QVBoxLayout()
        foot.setContentsMargins(12, 6, 12, 8)
        foot.setSpacing(2)
        foot.addWidget(self._at)
        foot.addWidget(self._numbers)
        foot.addLayout(self._saying())
        middle.addLayout(foot)
        right = QVBoxLayout()
        right.setContentsMargins(10, 10, 16, 12)
        right.setSpacing(6)
        right.addWidget(self.entries, 3)
        found = label("FOUND, AND WHAT DOES NOT ADD UP", "section")
        found.setWordWrap(True)
        right.addWidget(found)
        right.addWidget(self.hints, 2)
        body = QHBoxLayout()
        body.setContentsMargins(0, 0, 0, 0)
        body.setSpacing(0)
        side = as_panel(QWidget())
        side.setLayout(right)
        words = as_panel(QWidget(), name="ground")
        words.setLayout(left)
        self._words = SidePane(self._look, "description", "Description", words, "left", 292, 150)
        self._side = SidePane(self._look, "entries", "Entries", side, "right", 267)
        body.addWidget(self._words)
        body.addLayout(middle, 1)
        body.addWidget(self._side)
        self.laid_out(head, body)

    def sizeHint(self) -> QSize:
        return QSize(1280, 700)

    def resizeEvent(self, event: object) -> None:
        self._words.hold_to(self.width() - self._side.width() - self.bytes.minimumWidth() - 8)

    def _saying(self) -> WrappingRow:
        """What the chosen bytes can be said to be."""
        row = WrappingRow(spacing=4)
        self._chosen = label("", "caption")
        row.addWidget(self._chosen)
        self.saying = {what: button(words, tip, "plain") for what, (words, tip) in _SAYING.items()}
        for what, part in self.saying.items():
            part.clicked.connect(lambda _, what=what: self.say(what))
            row.addWidget(part)
        return row

    def say(self, what: str) -> None:
        """Say what the chosen bytes are; the description is made of all that was said."""
        file, (start, end) = self.file, self.bytes.chosen
        if file is None or self._mapped is None or end <= start:
            return
        try:
            self._marks = with_mark(self._marks, Mark(start, end, what))
        except FurnelError as error:
            self._session.tell("wrong", error.sentence())
            return
        self._write(described(file, self._mapped.view, self._marks))
        self._fill()
        self.bytes.choose(end, end)

    # a file

    def ask(self) -> bool:
        """Ask for an archive; False when none was chosen."""
        file = picking.pick_file(self, "An archive to work out", "archives")
        if file:
            self.open(file)
        return file is not None

    def open(self, file: Path) -> None:
        """Look at a file, and guess what it is."""
        try:
            mapped = MappedFile(file)
        except FurnelError as error:
            self._session.tell("wrong", error.sentence())
            return
        self.leave()
        self.layout_found = None
        if self.file is not None and self.text.toPlainText().strip():
            self._texts[self.file] = self.text.toPlainText(), self._marks
        self.file, self._mapped = file, mapped
        self.bytes.show_bytes(mapped.view)
        self.title.setText(file.name)
        self.said.setText(tr(f"{byte_size(len(mapped.view))} in {'/'.join(file.parent.parts[-2:])}"))
        tip(self.said, str(file))
        self.guesses, self.anatomy = None, Anatomy()
        self._marks = self._texts.get(file, ("", []))[1]
        self.begin.clear()
        self.begin.addItem(tr("begin from …"))
        self.text.clear()
        self._fill()
        self._session.jobs.start(
            f"Looking at {file.name}", lambda progress: guess(file, progress), self._guessed, key="guess"
        )

    def leave(self) -> None:
        """Let go of the file."""
        self.pictures.look_into(None, None)
        self.bytes.show_bytes(memoryview(b""))
        if self._mapped is not None:
            self._mapped.close()
        self._mapped = None

    def _guessed(self, found: Guesses) -> None:
        self.guesses = found
        file = self.file
        fitting = [
            name
            for name, layout in known_layouts().items()
            if file is not None and any(map(file.match, layout.files))
        ]
        others = [name for name in known_layouts() if name not in fitting]
        self.begin.clear()
        self.begin.addItem(tr("begin from …"))
        self.begin.addItem(tr("the guess"), _GUESS)
        for name in (*fitting, *others):
            self.begin.addItem(tr(f"the layout {name}: {known_layouts()[name].title}"), name)
        kept = self._texts.get(file, ("", []))[0] if file is not None else ""
        self.text.setPlainText(kept or found.draft)
        self._fill()

    def _begin_from(self, place: int) -> None:
        chosen = self.begin.itemData(place)
        if chosen == _GUESS and self.guesses is not None:
            self._write(self.guesses.draft)
        elif chosen and chosen != _GUESS:
            self._write(layout_text(chosen))

    # the description

    def _look_again(self) -> None:
        file, text = self.file, self.text.toPlainText()
        if file is None or not text.strip():
            return
        try:
            layout = parse_layout(text, "the description")
        except FurnelError as error:
            self.layout_found = None
            self._mark_line(error.line)
            self._verdict.setText(
                tr(f"{f'line {error.line}' if error.line else 'It cannot be read'}: {error.why}")
            )
            self._weigh()
            return
        self._mark_line(0)
        self.layout_found = layout

        def work(progress: Progress) -> Anatomy:
            return dissect(file, layout, progress)

        def done(found: Anatomy) -> None:
            if self.file == file:
                self.anatomy = found
                self.pictures.look_into(file, layout if found.entries and not found.faults else None)
                self._fill()

        self._session.jobs.start("Working out an archive", work, done, key="dissect", shown=False)

    def _mark_line(self, line: int) -> None:
        """Underline the line that an error points at."""
        marks = []
        document = self.text.document()
        if line and document is not None:
            mark = QTextEdit.ExtraSelection()
            mark.cursor = QTextCursor(document.findBlockByNumber(line - 1))
            mark.cursor.select(QTextCursor.SelectionType.LineUnderCursor)
            form = QTextCharFormat()
            form.setUnderlineStyle(QTextCharFormat.UnderlineStyle.WaveUnderline)
            form.setUnderlineColor(QColor(self._look.colour("breaks")))
            mark.format = form
            marks.append(mark)
        self.text.setExtraSelections(marks)

    def _fill(self) -> None:
        """Spans, entries, faults and guesses as they are known now."""
        anatomy = self.anatomy
        spans = list(anatomy.spans)
        if not any(
            span.kind == "field" for span in spans
        ):  # nothing is understood yet, but something was said
            spans += [Span(mark.start, mark.end, "field", mark.what, "said") for mark in self._marks]
        if not spans and self.guesses is not None:
            spans = [
                Span(find.offset, find.offset + find.size, "find", find.path) for find in self.guesses.finds
            ]
        self.bytes.show_spans(spans)
        self.chips.show_fields(told_fields(self.layout_found) if self.layout_found else [], self.bytes.hue)
        self._pointed(self.bytes.caret)
        if self.file is not None:
            self.entries.show_entries(anatomy.entries, self._pending.setdefault(self.file, Pending()))
        self.hints.clear()
        for fault in anatomy.faults[:200]:
            item = QListWidgetItem(f"✕  {tr(fault.text)}")
            item.setData(Qt.ItemDataRole.UserRole, fault.at)
            item.setForeground(self._look.colour("breaks"))
            item.setToolTip(tr(fault.text))
            self.hints.addItem(item)
        for found in self.guesses.guesses if self.guesses is not None else ():
            item = QListWidgetItem(tr(found.text))
            item.setData(Qt.ItemDataRole.UserRole, found.at)
            item.setToolTip(tr(found.text))
            self.hints.addItem(item)
        self._weigh()

    def _weigh(self) -> None:
        anatomy, layout = self.anatomy, self.layout_found
        whole = layout is not None and bool(anatomy.entries) and not anatomy.faults
        self.save.setEnabled(whole)
        self._take.setEnabled(whole)
        if layout is None:
            return
        if whole:
            self._verdict.setText(
                tr(
                    f"{number(len(anatomy.entries))} entries, each of them reads; "
                    f"{anatomy.explained:.0%} of the bytes explained"
                )
            )
        elif anatomy.faults:
            self._verdict.setText(tr(f"{len(anatomy.faults)} things do not add up"))
        else:
            self._verdict.setText(tr("No entries yet"))

    # pointing

    def _pointed(self, at: int) -> None:
        start, end = self.bytes.chosen
        self._chosen.setText(
            tr(
                f"{count(end - start, 'byte')} chosen, they are"
                if end > start
                else "Drag over bytes to say what they are"
            )
        )
        for part in self.saying.values():
            part.setVisible(end > start)
        span = self.bytes.span_at(at)
        self._at.setText(
            tr(
                f"{strong(str(at))}  0x{at:x}"
                + (f"   {html.escape(describe(span))}" if span is not None else "   not explained")
            )
        )
        self._numbers.setText(
            tr("     ".join(f"{name} {value}" for name, value in self.bytes.numbers_at(at)))
        )

    def _entry_picked(self, path: str) -> None:
        bare = {path, path.removesuffix(".dds"), path.removesuffix(".wav")}
        spans = (span for span in self.anatomy.spans if span.kind == "data" and span.name in bare)
        if (span := next(spans, None)) is not None:
            self.bytes.go(span.start)

    def _to_the_next(self, group: str, name: str) -> None:
        """Go to the next place of a field, the first one behind the last, and to where the description tells of it."""
        spans = [
            span for span in self.anatomy.spans
            if span.kind == "field" and span.name == name and span.group.rstrip("0123456789 ") in (group, "")
        ]  # fmt: skip
        behind = [span for span in spans if span.start > self.bytes.caret]
        if spans:
            span = (behind or spans)[0]
            self.bytes.go(span.start)
            self.bytes.choose(span.start, span.end)
        found = re.search(rf'name\s*=\s*"{re.escape(name)}"', self.text.toPlainText())
        if found is not None:
            cursor = self.text.textCursor()
            cursor.setPosition(found.start())
            cursor.setPosition(found.end(), QTextCursor.MoveMode.KeepAnchor)
            self.text.setTextCursor(cursor)

    def _mean(self, group: str, name: str, role: str) -> None:
        """Say in the description what a field holds; typing's undo takes it back."""
        try:
            text = with_role(self.text.toPlainText(), group, name, role)
        except FurnelError as error:
            self._session.tell("wrong", error.sentence())
            return
        self._write(text)

    def undoable(self, forward: bool) -> str:
        document = self.text.document()
        can = document is not None and (document.isRedoAvailable() if forward else document.isUndoAvailable())
        return "what was written in the description" if can else ""

    def step(self, forward: bool) -> None:
        if forward:
            self.text.redo()
        else:
            self.text.undo()

    def _write(self, text: str) -> None:
        """Another description; undo brings back what was typed."""
        cursor = self.text.textCursor()
        cursor.select(QTextCursor.SelectionType.Document)
        cursor.insertText(text)

    def _hint_picked(self, row: int) -> None:
        item = self.hints.item(row)
        if item is not None and (at := int(item.data(Qt.ItemDataRole.UserRole))) >= 0:
            self.bytes.go(at)

    # what comes of it

    def _save(self) -> None:
        layout, text = self.layout_found, self.text.toPlainText()
        if layout is None:
            return
        target = layouts_folder() / f"{layout.name}.toml"
        if target.exists() and target.read_bytes() != text.encode() and not sheets.ask(
            self, "Keep this layout", f"You have a layout “{layout.name}” already. This one takes its place; give it another "
            "name to keep both.", "Put it in its place",
        ):  # fmt: skip
            return
        self._session.jobs.start(
            "Keeping the layout", lambda _: write_text(target, text),
            lambda _: self._session.tell("calm", f"Kept as {target}: profiles and every command know “{layout.name}” now"),
            lane="write", shown=False,
        )  # fmt: skip

    def _write_copy(self) -> None:
        file = self.file
        if file is not None and self.layout_found is not None:
            named = file.with_name(f"{file.stem}-changed{file.suffix}")
            target = picking.pick_target(self, "The changed copy", "archives", named)
            if target:
                self.write_copy(target)

    def write_copy(self, target: Path) -> None:
        """Write the archive with what is to be otherwise to another file."""
        file, layout = self.file, self.layout_found
        if file is None or layout is None:
            return
        if target.resolve() == file.resolve():
            self._session.tell("wrong", "That is the archive itself: write the copy to another file")
            return
        pending = self.entries.pending
        changes = pending.changes()

        def work(progress: Progress) -> None:
            write_changed(file, layout, target, changes, progress)

        def done(_: None) -> None:
            self._session.tell_written(
                f"{target.name} was written, read back and found as it should be", target
            )

        self._session.jobs.start(f"Writing {target.name}", work, done, lane="write")

    def _take_out(self) -> None:
        file, layout = self.file, self.layout_found
        folder = (
            picking.pick_folder(self, "Where to put the entries", "taken out") if layout is not None else None
        )
        if folder is None or file is None or layout is None:
            return

        def work(progress: Progress) -> int:
            container = open_container(file, layout)
            try:
                return unpack_to(container, folder, progress)
            finally:
                container.close()

        self._session.jobs.start(
            f"Taking out {file.name}",
            work,
            lambda count: self._session.tell("calm", f"{count} files in {folder}"),
            lane="write",
        )
