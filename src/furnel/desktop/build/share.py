"""The Share page: what strangers get to know of the mod, how its readme reads, what is missing, and the package, tried."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path

from PyQt6.QtCore import QRectF, Qt
from PyQt6.QtGui import QDragEnterEvent, QDropEvent, QHideEvent, QImage, QPainter, QPaintEvent, QPen
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QFormLayout,
    QHBoxLayout,
    QLineEdit,
    QPlainTextEdit,
    QStackedWidget,
    QTextBrowser,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from furnel.atomic import write_bytes
from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.session import Session
from furnel.desktop.timing import timer
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import (
    StateMark,
    Switch,
    as_panel,
    beside,
    button,
    copy_text,
    emptied,
    field,
    label,
    scrolling,
    toggle,
)
from furnel.desktop.widgets.dropping import files_of, welcome_files
from furnel.desktop.widgets.menus import menu_under
from furnel.desktop.widgets.page import Page
from furnel.desktop.widgets.panes import SidePane
from furnel.desktop.widgets.steady import Choice
from furnel.desktop.widgets.wrapping import WrappingRow
from furnel.errors import FurnelError, reason
from furnel.mods.build import package
from furnel.mods.project import Project
from furnel.mods.sharing import (
    LICENCES,
    SharePoint,
    check_package,
    credit_gaps,
    credited_one_by_one,
    keep_changes,
    kept_changes,
    preview_of,
    readme_text,
    remember,
    share_points,
    taken_preview,
    telling,
)
from furnel.mods.turntable import figures_of, turntable
from furnel.mods.workspace import Workspace
from furnel.progress import Part, Progress
from furnel.words import count

_FIELDS = (
    ("version", "Version", "0.1"), ("author", "Author", "your name"), ("summary", "Summary", "one sentence on what it does"),
    ("tags", "Tags", "boats, evening"), ("languages", "Languages", "en, de"),
)  # fmt: skip
_LISTS = ("tags", "languages")
_PATH = Qt.ItemDataRole.UserRole
_TITLES = {
    "author": "Author", "summary": "Summary", "licence": "Licence", "preview": "Picture", "credits": "Credits",
    "unpacked": "Unpacked", "judged": "Judged by the game", "removed": "Removed", "tried": "Tried",
}  # fmt: skip


class Preview(QWidget):
    """The mod's picture of itself; another one is dropped on it."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._image = QImage()
        self.setFixedHeight(158)
        self.setAccessibleName(tr("Picture of the mod"))
        look.changed.connect(self.update)

    def show_file(self, file: Path | None) -> None:
        """Show a picture, or that there is none."""
        self._image = QImage(str(file)) if file is not None else QImage()
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter, look, box = QPainter(self), self._look, QRectF(self.rect()).adjusted(0.5, 0.5, -0.5, -0.5)
        painter.setRenderHint(QPainter.RenderHint.SmoothPixmapTransform)
        if self._image.isNull():
            painter.setPen(QPen(look.colour("hairline-strong"), 1, Qt.PenStyle.DashLine))
            painter.drawRoundedRect(box, 4, 4)
            painter.setFont(font(11))
            painter.setPen(look.colour("quiet"))
            painter.drawText(
                box, Qt.AlignmentFlag.AlignCenter, tr("drop a picture here,\nor take the still of Try")
            )
            return
        scale = min(box.width() / self._image.width(), box.height() / self._image.height())
        wide, high = self._image.width() * scale, self._image.height() * scale
        painter.drawImage(
            QRectF((box.width() - wide) / 2, (box.height() - high) / 2, wide, high), self._image
        )


class SharePage(Page):
    """What the mod says of itself to strangers, and the package that they get."""

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__()
        self._look, self._session = look, session
        self.tried: list[SharePoint] = []
        self.still: QImage | None = None
        self.fields: dict[str, QLineEdit] = {}
        for key, text, hint in _FIELDS:
            self.fields[key] = field(hint, text)
            self.fields[key].editingFinished.connect(lambda key=key: self._told(key))
        self.licence = Choice()
        self.licence.setEditable(True)
        self.licence.addItems(["", *LICENCES])
        self.licence.setAccessibleName(tr("Licence"))
        self.licence.setToolTip(tr("What others may do with it, by its SPDX identifier"))
        self.licence.textActivated.connect(lambda _: self._told("licence"))
        line = self.licence.lineEdit()
        assert line is not None
        line.editingFinished.connect(lambda: self._told("licence"))
        self.description = QPlainTextEdit()
        self.description.setAccessibleName(tr("Description"))
        self.description.setPlaceholderText(tr("More about it, in Markdown"))
        self._typing = timer(self, lambda: self._told("description"), 900)
        self.description.textChanged.connect(self._typing.start)
        self._points = QVBoxLayout()
        self._points.setSpacing(6)
        self.package = button(
            "Package and try it", "One ZIP, opened in a copy of the game as a stranger would", "next"
        )
        self.package.clicked.connect(self._package)
        self._back = button("Back", "Esc", "plain")
        self._back.clicked.connect(self.closed)
        self.setAcceptDrops(True)
        session.project_changed.connect(self._renew)
        self._make_credits()
        self._make_texts()
        self._make_picture()
        self._lay_out()

    def _make_credits(self) -> None:
        self.credit = field("whose it is, and under what terms", "Credit")
        self.credit.returnPressed.connect(self._credit_them)
        self.sources = QTreeWidget()
        self.sources.setAccessibleName(tr("Sources and whose they are"))
        self.sources.setHeaderHidden(True)
        self.sources.setColumnCount(2)
        self.sources.setRootIsDecorated(False)
        self.sources.setUniformRowHeights(True)
        self.sources.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.sources.itemSelectionChanged.connect(self._say_whose)
        self._gaps = label("", "caption")
        self._gaps.setWordWrap(True)

    def _make_texts(self) -> None:
        self.reads = QTextBrowser()
        self.reads.setAccessibleName(tr("How it reads"))
        document = self.reads.document()
        assert document is not None
        document.setDocumentMargin(16)
        self.changes = QPlainTextEdit()
        self.changes.setAccessibleName(tr("What changed"))
        self.changes.setPlaceholderText(
            tr("What changed is worked out when the mod is built; write what you like")
        )
        self._changing = timer(self, self._keep_changes, 900)
        self._session.leaving.connect(self.settle)
        self.changes.textChanged.connect(self._changing.start)
        self._shown = QStackedWidget()
        for part in (self.reads, self.changes):
            self._shown.addWidget(part)
        self.turns = {
            "readme": toggle("README.txt", "What people without Furnel read in the package", True),
            "page": toggle("Description", "How the description looks on a page"),
            "changes": toggle("CHANGES.txt", "What is otherwise than in the last package: yours to edit"),
        }
        for key, turn in self.turns.items():
            turn.clicked.connect(lambda _, key=key: self._turn(key))

    def _make_picture(self) -> None:
        self.installer = Switch(self._look, "merge.py in the package")
        self.installer.clicked.connect(lambda: self._told("with_installer"))
        self.copy = button("Copy", "Into the clipboard, for a page that asks for it", "plain")
        self.copy.clicked.connect(self._copied)
        self.preview = Preview(self._look)
        self.use_still = button(
            "Take the still of Try", "The scene with your mods, as the game draws it", "plain"
        )
        self.use_still.clicked.connect(self._take_still)
        self.use_figures = button(
            "Its figures, moving", "The frames of a fitted sheet, one animation after the other", "plain"
        )
        self.use_figures.clicked.connect(self._take_figures)
        self._choose = button("Choose…", "Another picture", "plain")
        self._choose.clicked.connect(self._choose_picture)

    def _lay_out(self) -> None:
        head = self.titled(self._back, self.package)
        form = QFormLayout()
        form.setLabelAlignment(Qt.AlignmentFlag.AlignLeft)
        form.setHorizontalSpacing(10)
        form.setVerticalSpacing(6)
        for key, text, _ in _FIELDS:
            form.addRow(beside(text, self.fields[key]), self.fields[key])
        form.insertRow(2, beside("Licence", self.licence), self.licence)
        told = as_panel(QWidget())
        left = QVBoxLayout(told)
        left.setContentsMargins(16, 14, 16, 16)
        left.setSpacing(8)
        left.addWidget(label("WHAT IT SAYS OF ITSELF", "section"))
        left.addLayout(form)
        left.addWidget(label("DESCRIPTION", "section"))
        left.addWidget(self.description, 1)
        left.addWidget(label("CREDITS", "section"))
        left.addWidget(self._gaps)
        left.addWidget(self.sources, 1)
        left.addWidget(self.credit)
        turns = WrappingRow(spacing=6)
        turns.setContentsMargins(16, 10, 12, 0)
        for turn in self.turns.values():
            turns.addWidget(turn)
        turns.add_rest()
        turns.addWidget(self.copy)
        middle = QVBoxLayout()
        middle.setSpacing(6)
        middle.addLayout(turns)
        middle.addWidget(self._shown, 1)
        side = QWidget()
        right = QVBoxLayout(side)
        right.setContentsMargins(16, 14, 16, 16)
        right.setSpacing(8)
        right.addWidget(label("ITS PICTURE", "section"))
        right.addWidget(self.preview)
        row = WrappingRow(spacing=4)
        for part in (self.use_still, self.use_figures, self._choose):
            row.addWidget(part)
        right.addLayout(row)
        right.addWidget(label("BEFORE IT GOES OUT", "section"))
        right.addLayout(self._points)
        right.addSpacing(6)
        right.addWidget(label("IN THE PACKAGE", "section"))
        script = label("merge.py, which merges this mod with others for people without Furnel", "caption")
        script.setWordWrap(True)
        line = QHBoxLayout()
        line.addWidget(self.installer, 0, Qt.AlignmentFlag.AlignTop)
        line.addWidget(script, 1)
        right.addLayout(line)
        right.addStretch(1)
        body = QHBoxLayout()
        body.setSpacing(0)
        body.addWidget(SidePane(self._look, "telling", "What it says of itself", told, "left", 343))
        body.addLayout(middle, 1)
        body.addWidget(
            SidePane(self._look, "package", "The package", as_panel(scrolling(side)), "right", 295)
        )
        self.laid_out(head, body)

    def open(self, still: QImage | None) -> None:
        """Show the open mod; `still` is what Try shows with its mods on."""
        self.still, self.tried = still, []
        self.use_still.setEnabled(still is not None)
        self._renew()

    def _renew(self) -> None:
        space = self._session.space
        if space is None:
            return
        about = space.project.mod
        self.title.setText(tr(f"Share {about.name}"))
        for key, line in self.fields.items():
            value = getattr(about, key)
            if not line.hasFocus():
                line.setText(", ".join(value) if key in _LISTS else value)
                line.setCursorPosition(0)
        if self.licence.currentText() != about.licence and not self.licence.hasFocus():
            self.licence.setCurrentText(about.licence)
        if (
            not (self.description.hasFocus() or self._typing.isActive())
            and self.description.toPlainText() != about.description
        ):
            self.description.blockSignals(True)
            self.description.setPlainText(about.description)
            self.description.blockSignals(False)
        gaps = credit_gaps(space)
        self._gaps.setText(
            tr(
                f"{count(len(gaps), 'source')} without credit"
                if gaps
                else "Of every source it is said whose it is."
            )
        )
        self._show_sources(space)
        self.installer.setChecked(about.with_installer)
        self.preview.show_file(preview_of(space))
        self.use_figures.setEnabled(bool(figures_of(space)))
        self._turn(self._turned)
        self._show_points([*share_points(space), *self.tried])

    def _show_points(self, points: list[SharePoint]) -> None:
        emptied(self._points)
        for point in points:
            part = QWidget()
            row = QHBoxLayout(part)
            row.setContentsMargins(0, 0, 0, 0)
            row.addWidget(StateMark(self._look, point.state, 11), 0, Qt.AlignmentFlag.AlignTop)
            words = label(_TITLES[point.key] + (f": {point.said}" if point.said else ""))
            words.setWordWrap(True)
            row.addWidget(words, 1)
            self._points.addWidget(part)
        left = sum(point.state == "differs" for point in points)
        self.said.setText(
            tr(f"{count(left, 'thing')} could be said better" if left else "Everything is said")
        )

    def _show_sources(self, space: Workspace) -> None:
        chosen = {item.data(0, _PATH) for item in self.sources.selectedItems()}
        self.sources.blockSignals(True)
        self.sources.clear()
        for swap in sorted(space.project.made, key=lambda one: bool(one.credit)):  # gaps come first
            if swap.source:
                item = QTreeWidgetItem([Path(swap.source).name, swap.credit or tr("nobody is named")])
                item.setData(0, _PATH, swap.original)
                item.setToolTip(0, tr(f"{swap.source}, for {swap.original}"))
                item.setToolTip(1, swap.credit)
                item.setForeground(1, self._look.colour("quiet" if swap.credit else "ember"))
                self.sources.addTopLevelItem(item)
                item.setSelected(swap.original in chosen)
        self.sources.resizeColumnToContents(0)
        self.sources.setColumnWidth(0, min(self.sources.columnWidth(0), 150))
        self.sources.blockSignals(False)
        self._say_whose()

    def _say_whose(self) -> None:
        chosen, space = self.sources.selectedItems(), self._session.space
        gaps = credit_gaps(space) if space is not None else []
        said = count(len(chosen), "chosen source") if chosen else count(len(gaps), "source")
        one = len(chosen or gaps) == 1
        self.credit.setPlaceholderText(
            tr(
                f"whose the {said} is, and under what terms"
                if one
                else f"whose the {said} are, and under what terms"
            )
        )
        self.credit.setEnabled(bool(chosen or gaps))

    @property
    def _turned(self) -> str:
        return next((key for key, turn in self.turns.items() if turn.isChecked()), "readme")

    def _turn(self, to: str) -> None:
        for key, turn in self.turns.items():
            turn.setChecked(key == to)
        space, built = self._session.space, self._session.builds.last
        if space is None:
            return
        self._shown.setCurrentWidget(self.changes if to == "changes" else self.reads)
        if to == "changes":
            self._show_changes(space)
        elif to == "readme":
            files = (
                [file.path for file in built.files]
                if built is not None
                else [swap.original for swap in space.project.made]
            )
            self.reads.setFontFamily("monospace")
            self.reads.setPlainText(readme_text(space, sorted(files)))
        else:
            self.reads.setMarkdown(space.project.mod.description or "*There is no description yet.*")

    def _show_changes(self, space: Workspace) -> None:
        if self._changing.isActive() or self.changes.hasFocus():
            return
        built = self._session.builds.last
        self.changes.blockSignals(True)
        self.changes.setPlainText(kept_changes(space, built.folder if built is not None else None))
        self.changes.blockSignals(False)

    def _keep_changes(self) -> None:
        space = self._session.space
        if space is not None:
            try:
                keep_changes(space, self.changes.toPlainText())
            except OSError as error:
                self._session.tell("wrong", f"What changed could not be kept: {reason(error)}")

    def _copied(self) -> None:
        space = self._session.space
        if space is not None:
            texts = {
                "readme": (self.reads.toPlainText(), "readme"),
                "page": (space.project.mod.description, "description"),
                "changes": (self.changes.toPlainText(), "list of changes"),
            }
            text, what = texts[self._turned]
            copy_text(text)
            self._session.tell("calm", f"Copied the {what}")

    def _told(self, key: str) -> None:
        project = self._session.project
        if project is None:
            return
        if key == "with_installer":
            asked = self.installer.isChecked()
            words = "Put merge.py into the package" if asked else "Leave merge.py out of the package"
            self._edit(lambda: telling(project, {key: asked}), words)
            return
        text = (
            self.fields[key].text() if key in self.fields
            else self.licence.currentText() if key == "licence" else self.description.toPlainText()
        )  # fmt: skip
        value = (
            tuple(word for part in text.split(",") if (word := part.strip()))
            if key in _LISTS
            else text.strip()
        )
        if value != getattr(project.mod, key):
            self._edit(lambda: telling(project, {key: value}), f"Change the {key}")

    def _credit_them(self) -> None:
        """Say whose the chosen sources are; with none chosen, those of which nobody said it yet."""
        self.settle()
        space, project, text = self._session.space, self._session.project, self.credit.text().strip()
        if space is None or project is None or not text:
            return
        chosen = [item.data(0, _PATH) for item in self.sources.selectedItems()]
        paths = chosen or [swap.original for swap in credit_gaps(space)]
        self.credit.clear()
        fresh = credited_one_by_one(project, dict.fromkeys(paths, text))
        self._session.jobs.start(
            "Remembering credits", lambda _: remember(space, fresh), lambda _: None, lane="write", shown=False
        )
        self._edit(lambda: fresh, f"Credit {count(len(paths), 'source')}")

    def _edit(self, make: Callable[[], Project], text: str) -> None:
        try:
            self._session.edit(make(), text)
        except FurnelError as error:
            self._session.tell("wrong", error.sentence())
            self._renew()

    def _choose_picture(self) -> None:
        file = picking.pick_file(
            self, "A picture of the mod", "previews", [("Pictures", "*.png *.jpg *.jpeg *.webp")]
        )
        if file:
            self.take_picture(file)

    def _take_still(self) -> None:
        space = self._session.space
        if space is not None and self.still is not None:
            file = space.folder / "build" / "still.png"
            file.parent.mkdir(exist_ok=True)
            self.still.save(str(file))
            self.take_picture(file)

    def _take_figures(self) -> None:
        space = self._session.space
        figures = figures_of(space) if space is not None else []
        if len(figures) == 1:
            self.take_figures(figures[0])
        else:
            menu_under(self.use_figures, [(one, one) for one in figures], self.take_figures)

    def take_figures(self, original: str) -> None:
        """Make the moving frames of a fitted sheet the mod's picture."""
        space = self._session.space
        if space is None:
            return
        file = space.folder / "build" / "figures.png"

        def work(progress: Progress) -> Path:
            write_bytes(file, turntable(space, original, progress))
            return file

        self._session.jobs.start("Drawing figures", work, self.take_picture, key="figures", lane="write")

    def take_picture(self, file: Path) -> None:
        """Make a picture the mod's own."""
        self.settle()
        space, project = self._session.space, self._session.project
        if space is not None and project is not None:
            self._edit(
                lambda: telling(project, {"preview": taken_preview(space, file)}), "Change the picture"
            )
            self._renew()

    def dragEnterEvent(self, event: QDragEnterEvent | None) -> None:
        welcome_files(event)

    def dropEvent(self, event: QDropEvent | None) -> None:
        if files := files_of(event):
            self.take_picture(files[0])

    def settle(self) -> None:
        """Take in what was typed a moment ago."""
        if self._typing.isActive():
            self._typing.stop()
            self._told("description")
        if self._changing.isActive():
            self._changing.stop()
            self._keep_changes()

    def hideEvent(self, event: QHideEvent | None) -> None:
        self.settle()

    def _package(self) -> None:
        self.settle()
        space = self._session.space
        if space is None:
            return

        def work(progress: Progress) -> tuple[Path, list[SharePoint]]:
            made = package(space, progress=Part(progress, 0, 0.6))
            return made, check_package(space, made, Part(progress, 0.6, 1))

        def done(found: tuple[Path, list[SharePoint]]) -> None:
            made, self.tried = found
            wrong = next((point for point in self.tried if point.state == "breaks"), None)
            words = f"Packaged as {made.name} in the mod's build folder"
            if wrong:
                self._session.tell("wrong", f"{words}, but {wrong.said}")
            else:
                self._session.tell_written(words, made)
            if self._session.still_open(space):
                self._session.builds.weigh()
                self._renew()

        self._session.jobs.start("Packaging", work, done, key="package", lane="build")
