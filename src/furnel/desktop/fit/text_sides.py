"""The text of a definition: the game's beside yours, with what differs marked line by line; yours can be edited in place."""

from __future__ import annotations

import difflib
from dataclasses import dataclass

from PyQt6.QtCore import QTimer, pyqtSignal
from PyQt6.QtGui import QColor, QTextCharFormat, QTextCursor
from PyQt6.QtWidgets import QHBoxLayout, QPlainTextEdit, QTextEdit, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import button, label

Spans = tuple[tuple[int, int], ...]
_SETTLED_MS = 250
_MOST_LINES = 4000


@dataclass(frozen=True, slots=True)
class Texts:
    """Both texts, and the spans of lines (first, end) in each that the other does not have."""

    original: str
    yours: str
    original_spans: Spans
    yours_spans: Spans


def compared(original: str, yours: str) -> Texts:
    """Two texts, and where they differ; of very long ones only what stands between their common ends."""
    a, b = original.splitlines(), yours.splitlines()
    head = next(
        (n for n, (one, other) in enumerate(zip(a, b, strict=False)) if one != other), min(len(a), len(b))
    )
    rest = min(len(a), len(b)) - head
    tail = next((n for n in range(rest) if a[-1 - n] != b[-1 - n]), rest)
    a, b = a[head : len(a) - tail], b[head : len(b) - tail]
    if len(a) + len(b) > _MOST_LINES:
        return Texts(original, yours, ((head, head + len(a)),), ((head, head + len(b)),))
    matcher = difflib.SequenceMatcher(None, a, b, autojunk=False)
    blocks = [op for op in matcher.get_opcodes() if op[0] != "equal"]
    return Texts(
        original,
        yours,
        tuple((op[1] + head, op[2] + head) for op in blocks),
        tuple((op[3] + head, op[4] + head) for op in blocks),
    )


class TextSides(QWidget):
    """Two texts side by side. `edited` gives yours when it was changed by hand and is to be taken."""

    edited = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._shown, self._whole = "", False
        self.game, self.yours = QPlainTextEdit(), QPlainTextEdit()
        self._take = button(
            "Take the text as it is", "Make changes of what you wrote  (when you leave it, too)", "next"
        )
        self._back = button("Leave it", "Throw away what you wrote here")
        self._said = label("", "caption")
        self._said.setWordWrap(True)
        row = QHBoxLayout()
        row.setSpacing(12)
        for field, word, name in ((self.game, "the game's", "tarn"), (self.yours, "yours", "ember")):
            field.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
            field.setObjectName("code")
            field.setAccessibleName(tr(f"{word} text"))
            column = QVBoxLayout()
            column.setSpacing(4)
            column.addWidget(label(word, name))
            column.addWidget(field, 1)
            row.addLayout(column, 1)
        self.game.setReadOnly(True)
        bar = QHBoxLayout()
        bar.addWidget(self._said, 1)
        bar.addWidget(self._back)
        bar.addWidget(self._take)
        whole = QVBoxLayout(self)
        whole.setContentsMargins(0, 0, 0, 0)
        whole.setSpacing(8)
        whole.addLayout(row, 1)
        whole.addLayout(bar)
        self._settled = QTimer(self)
        self._settled.setSingleShot(True)
        self._settled.setInterval(_SETTLED_MS)
        self._settled.timeout.connect(self._mark_again)
        self.yours.textChanged.connect(self._typed)
        self._take.clicked.connect(self.leave)
        self._back.clicked.connect(self._throw_away)
        self._typed()

    @property
    def draft(self) -> str:
        """What was written and not taken yet; nothing when that is what is shown."""
        text = self.yours.toPlainText()
        return text if text != self._shown else ""

    def show_texts(self, texts: Texts, draft: str = "", said: str = "", whole: bool = False) -> None:
        """Show two texts, or what was written in yours before and could not be taken (`said` says why). What is written goes
        into the mod as a `whole` where the text is not taken apart."""
        self._whole = whole
        self._shown = _plain(texts.yours)
        self._said.setText(tr(said))
        if self.game.toPlainText() != _plain(texts.original):
            self.game.setPlainText(texts.original)
        wanted = draft or self._shown
        if self.yours.toPlainText() != wanted:
            self.yours.setPlainText(wanted)
        self._mark(self.game, texts.original_spans, self._look.colour("tarn", 0.22))
        self._mark(self.yours, texts.yours_spans, self._look.colour("ember", 0.22))
        self._typed()

    def leave(self) -> None:
        """Take what was written as changes."""
        if self.draft:
            self.edited.emit(self.draft)

    def _throw_away(self) -> None:
        self.yours.setPlainText(self._shown)
        self._said.setText("")

    def _typed(self) -> None:
        written = bool(self.draft)
        self._take.setVisible(written)
        self._back.setVisible(written)
        if not written:
            self._said.setText(
                tr("Write in yours to change it: the whole text goes into the mod, stored as the game's is.")
                if self._whole
                else tr("Write in yours to change it: what you change becomes changes by record and value.")
            )
        self._settled.start()

    def _mark_again(self) -> None:
        texts = compared(self.game.toPlainText(), self.yours.toPlainText())
        self._mark(self.game, texts.original_spans, self._look.colour("tarn", 0.22))
        self._mark(self.yours, texts.yours_spans, self._look.colour("ember", 0.22))

    def _mark(self, field: QPlainTextEdit, spans: Spans, colour: QColor) -> None:
        marks = []
        style = QTextCharFormat()
        style.setBackground(colour)
        style.setProperty(QTextCharFormat.Property.FullWidthSelection, True)
        document = field.document()
        assert document is not None
        for line in (line for start, end in spans for line in range(start, min(end, start + _MOST_LINES))):
            mark = QTextEdit.ExtraSelection()
            mark.cursor = QTextCursor(document.findBlockByNumber(line))
            mark.format = style
            marks.append(mark)
        field.setExtraSelections(marks)


def _plain(text: str) -> str:
    """A text as a field gives it back."""
    return text.replace("\r\n", "\n").replace("\r", "\n")
