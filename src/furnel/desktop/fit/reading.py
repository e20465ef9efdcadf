"""How texts of an ending are read: what each shape explains of them, what of one comes out, and which it is to be."""

from __future__ import annotations

from PyQt6.QtCore import Qt
from PyQt6.QtWidgets import (
    QHBoxLayout,
    QHeaderView,
    QPlainTextEdit,
    QTreeWidget,
    QTreeWidgetItem,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.profilepage import ProfilePage
from furnel.desktop.session import Session
from furnel.desktop.widgets.basics import button, label
from furnel.errors import FurnelError
from furnel.games.forms import keep_form, tried_forms
from furnel.texts import Form, Guess, document_as, leaf_rows
from furnel.words import count

_SHAPES = {
    "sections": "[heads] and key = value",
    "lists": "(head value …)",
    "nested": "head name { … }",
    "indented": "further in is part of it",
    "lines": "a record on each line",
    "assignments": "name = value in a program",
}
_MOST_ROWS = 400


class ReadingPage(ProfilePage):
    """The page."""

    def __init__(self, look: Look, session: Session) -> None:
        super().__init__(session)
        self._path, self._ending, self._text = "", "", ""
        self._guesses: list[Guess] = []
        self.list = QTreeWidget()
        self.list.setColumnCount(5)
        self.list.setHeaderLabels(
            [tr(name) for name in ("It is written as", "Sign", "Comments", "Files", "Letters")]
        )
        self.list.setRootIsDecorated(False)
        self.list.setAccessibleName(tr("Ways to read it"))
        if (head := self.list.header()) is not None:
            head.setStretchLastSection(False)
            head.setSectionResizeMode(QHeaderView.ResizeMode.ResizeToContents)
            head.setSectionResizeMode(0, QHeaderView.ResizeMode.Stretch)
        self.fault = label("", "caption")
        self.fault.setWordWrap(True)
        self.shown = QPlainTextEdit()
        self.shown.setReadOnly(True)
        self.shown.setObjectName("code")
        self.shown.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
        self.shown.setAccessibleName(tr("What is read"))
        self.use = button("Read them so", "Write it into the game's profile, and open the game anew", "next")
        self.plain = button("Only as text", "No records: texts of this ending are read and changed as texts")
        self._back = button("Leave it", "Esc", "plain")
        self.list.currentItemChanged.connect(lambda *_: self._show())
        self.use.clicked.connect(lambda: self._keep(self._form()))
        self.plain.clicked.connect(lambda: self._keep(None))
        self._back.clicked.connect(self.closed)
        left = QVBoxLayout()
        left.setSpacing(8)
        left.addWidget(self.list, 1)
        left.addWidget(self.fault)
        row = QHBoxLayout()
        row.addWidget(self._back)
        row.addStretch(1)
        row.addWidget(self.plain)
        row.addWidget(self.use)
        left.addLayout(row)
        side = QWidget()
        side.setLayout(left)
        side.setFixedWidth(480)
        body = QHBoxLayout()
        body.setContentsMargins(24, 12, 24, 16)
        body.setSpacing(18)
        body.addWidget(side)
        body.addWidget(self.shown, 1)
        self.laid_out(self.titled(), body)

    def open(self, path: str) -> None:
        """Try the ways on the texts that have the ending of one."""
        catalogue = self.session.catalogue
        if catalogue is None:
            return
        self._path, self._ending = path, f".{path.rpartition('.')[2].lower()}"
        paths = [one for one in catalogue.assets.paths if one.lower().endswith(self._ending)]
        paths = [path, *(one for one in paths if one != path)]
        self.title.setText(tr(f"How {self._ending} is read"))
        self.said.setText(tr("Trying …"))
        self.list.clear()
        self.shown.setPlainText("")
        self.fault.setText("")
        self._weigh()

        def done(found: list[Guess]) -> None:
            self._guesses = found
            self.said.setText(tr(f"{count(len(paths), 'text')} of this ending; some of them were tried"))
            for place, guess in enumerate(found):
                told = guess.form.written_as or _SHAPES.get(guess.form.shape, guess.form.shape)
                signs = (
                    ("", "") if guess.form.written_as else (guess.form.assign, " ".join(guess.form.comments))
                )
                item = QTreeWidgetItem([tr(told), *signs, f"{guess.files:.0%}", f"{guess.letters:.0%}"])
                item.setData(0, Qt.ItemDataRole.UserRole, place)
                self.list.addTopLevelItem(item)
            self.list.setCurrentItem(self.list.topLevelItem(0))
            if not found:
                self.said.setText(tr("None of the shapes is like these texts: they are read as texts."))
            self._weigh()

        def work() -> list[Guess]:
            self._text = catalogue.bytes_of(path).decode("utf-8", "replace")
            return tried_forms(catalogue.bytes_of, paths)

        self.session.jobs.start("Trying ways to read it", lambda _: work(), done, key="reading")

    def _form(self) -> Form | None:
        item = self.list.currentItem()
        return self._guesses[item.data(0, Qt.ItemDataRole.UserRole)].form if item is not None else None

    def _show(self) -> None:
        form = self._form()
        if form is None:
            return
        try:
            rows = leaf_rows(document_as(form, self._text, self._path), _MOST_ROWS)
            self.shown.setPlainText("\n".join(f"{address}   {value}" for address, value in rows))
            self.fault.setText("")
        except FurnelError as error:
            self.shown.setPlainText("")
            self.fault.setText(error.sentence())
        self._weigh()

    def _weigh(self) -> None:
        catalogue = self.session.catalogue
        own = catalogue is not None and not catalogue.install.profile.comes_with_furnel
        self.use.setEnabled(own and self._form() is not None)
        self.plain.setEnabled(own)

    def _keep(self, form: Form | None) -> None:
        ending = self._ending
        self.keep_in_profile(
            f"Keeping how {ending} is read", lambda profile: keep_form(profile, ending, form)
        )
