"""The text bench: the original's text beside yours, with what differs marked line by line."""

from __future__ import annotations

import difflib
from dataclasses import dataclass

from PyQt6.QtGui import QColor, QFont, QTextCharFormat, QTextCursor
from PyQt6.QtWidgets import QHBoxLayout, QPlainTextEdit, QTextEdit, QVBoxLayout

from furnel.desktop.fit.bench import Bench, BenchType, Loading
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import label
from furnel.texts import read_text

Spans = tuple[tuple[int, int], ...]


@dataclass(frozen=True, slots=True)
class TextContent:
    """Both texts, and the spans of lines (first, end) in each that the other does not have."""

    original: str
    yours: str
    original_spans: Spans
    yours_spans: Spans


def load_texts(loading: Loading) -> TextContent:
    """Read both texts and find where they differ. Raises FurnelError when one cannot be read."""
    original = read_text(loading.original, loading.examined.swap.base)
    yours = read_text(loading.yours, loading.name)
    matcher = difflib.SequenceMatcher(None, original.splitlines(), yours.splitlines(), autojunk=False)
    blocks = [op for op in matcher.get_opcodes() if op[0] != "equal"]
    return TextContent(
        original, yours, tuple((op[1], op[2]) for op in blocks), tuple((op[3], op[4]) for op in blocks)
    )


class TextBench(Bench):
    """Compares two texts."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._fields = (QPlainTextEdit(), QPlainTextEdit())
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 10, 14, 14)
        row.setSpacing(12)
        for field, word, name in zip(self._fields, ("original", "yours"), ("tarn", "ember"), strict=True):
            field.setReadOnly(True)
            field.setLineWrapMode(QPlainTextEdit.LineWrapMode.NoWrap)
            field.setFont(QFont("monospace", 9))
            field.setStyleSheet("QPlainTextEdit { font-family: monospace; font-size: 12px }")
            field.setAccessibleName(f"{word} text")
            column = QVBoxLayout()
            column.addWidget(label(word, name))
            column.addWidget(field, 1)
            row.addLayout(column, 1)

    def show_content(self, content: TextContent, keep_view: bool) -> None:
        """Show two texts."""
        texts = (content.original, content.yours)
        for field, text in zip(self._fields, texts, strict=True):
            if field.toPlainText() != text:
                field.setPlainText(text)
        self._mark(0, content.original_spans, self._look.colour("tarn", 0.22))
        self._mark(1, content.yours_spans, self._look.colour("ember", 0.22))

    def _mark(self, side: int, spans: Spans, colour: QColor) -> None:
        field = self._fields[side]
        marks = []
        for start, end in spans:
            for line in range(start, end):
                mark = QTextEdit.ExtraSelection()
                style = QTextCharFormat()
                style.setBackground(colour)
                style.setProperty(QTextCharFormat.Property.FullWidthSelection, True)
                document = field.document()
                assert document is not None
                mark.cursor = QTextCursor(document.findBlockByNumber(line))
                mark.format = style
                marks.append(mark)
        field.setExtraSelections(marks)


TEXT_BENCH = BenchType(("definition",), lambda hands: TextBench(hands.look), load_texts)
