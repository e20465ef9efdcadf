"""The card that says how a result is written, with everything about it that can be chosen."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout

from furnel.blocks import QUALITIES
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import choice_of, label
from furnel.imagefiles import Note, picture_file
from furnel.images.resample import LEVELS_AS
from furnel.media import Encode
from furnel.sound import LOSSY, WRITTEN_TYPES, codecs_of, writable_as

_WEIGHTING = Note(key="weighting", label="Colours weigh", choices=("even", "as seen"))
_UNSAID = {"mode", "table", "cut-out", "srgb", "footer"}  # by the summary


def encoding_card(
    look: Look,
    encode: Encode,
    column: QVBoxLayout,
    unfolded: bool,
    turn: Callable[[], None],
    change: Callable[[Encode], None],
) -> None:
    """Fill a card's column; `turn` folds and unfolds it, `change` takes another encoding."""

    def choice(name: str, choices: tuple[str, ...], now: str, key: str) -> QComboBox:
        """A box for one of the encoding's own values, `key`."""

        def chosen(text: str) -> None:
            change(encode.model_copy(update={key: int(text) if key == "levels" else text}))

        return _box(name, choices, now, chosen)

    title = QPushButton(tr("Encode"))
    title.setObjectName("plain")
    ink = look.colour("text").name()
    title.setStyleSheet(f"QPushButton {{ text-align: left; padding: 0; font-weight: 500; color: {ink} }}")
    title.setToolTip(tr("Show or hide what can be chosen"))
    title.clicked.connect(turn)
    texts = QVBoxLayout()
    texts.setSpacing(1)
    texts.addWidget(title)
    texts.addWidget(label(summary(encode), "caption"))
    row = QHBoxLayout()
    row.addLayout(texts, 1)
    if encode.format.startswith("BC") or encode.format in LOSSY:
        quality = choice("Encoding quality", QUALITIES, encode.quality, "quality")
        much = (
            "How many bits it may take"
            if encode.format in LOSSY
            else "How much time the encoder takes to come close"
        )
        quality.setToolTip(tr(much))
        quality.setFixedWidth(72)
        row.addWidget(quality)
    column.addLayout(row)
    if unfolded and codecs_of(encode.file):
        _sound_rows(encode, column, change)
        return
    file = None if codecs_of(encode.file) else picture_file(encode.file)
    if not unfolded or file is None or not file.formats:
        return
    formats = file.formats if encode.format in file.formats else (encode.format, *file.formats)
    rows = [("Format", choice("Format", formats, encode.format, "format"))]
    if file.has_levels:
        counts = tuple(str(count) for count in range(1, 15))
        rows.append(("Levels", choice("Levels", counts, str(encode.levels), "levels")))
        rows.append(("Levels made as", choice("Levels made as", LEVELS_AS, encode.levels_as, "levels_as")))
    weighs = (_WEIGHTING,) if encode.format in ("BC1", "BC2", "BC3") else ()
    for note in (*(note for note in file.notes if note.offered), *weighs):

        def chosen(text: str, key: str = note.key) -> None:
            change(encode.model_copy(update={"notes": {**encode.notes, key: text}}))

        now = encode.notes.get(note.key, note.choices[0])
        rows.append((note.label, _box(note.label, note.choices, now, chosen)))
    _fill(column, rows)


def _sound_rows(encode: Encode, column: QVBoxLayout, change: Callable[[Encode], None]) -> None:
    """What can be chosen of a sound's file: its type, and of that the codec."""

    def file_chosen(file: str) -> None:
        kind, codec = writable_as(file, encode.format)
        change(encode.model_copy(update={"file": kind, "format": codec}))

    def codec_chosen(codec: str) -> None:
        change(encode.model_copy(update={"format": codec}))

    file_box = _box("File", WRITTEN_TYPES, encode.file, file_chosen)
    codec_box = _box("Codec", codecs_of(encode.file), encode.format, codec_chosen)
    _fill(column, [("File", file_box), ("Codec", codec_box)])


def _box(name: str, choices: tuple[str, ...], now: str, chosen: Callable[[str], None]) -> QComboBox:
    box = choice_of(choices, now, chosen)
    box.setAccessibleName(tr(name))
    box.setToolTip(tr(name))
    return box


def _fill(column: QVBoxLayout, rows: list[tuple[str, QComboBox]]) -> None:
    grid = QGridLayout()
    grid.setHorizontalSpacing(8)
    grid.setVerticalSpacing(4)
    for number, (name, field) in enumerate(rows):
        grid.addWidget(label(name, "caption"), number, 0)
        grid.addWidget(field, number, 1)
    column.addLayout(grid)
    hint = label(
        "To keep something else than the original has, pick its point above and choose Keep yours.", "caption"
    )
    hint.setWordWrap(True)
    column.addWidget(hint)


def summary(encode: Encode) -> str:
    """An encoding in short."""
    by_format = not codecs_of(encode.file) and picture_file(encode.file).known_by_format
    kind = encode.format if by_format else f"{encode.file} {encode.format}"
    parts = [kind.replace(" RGBA8", "").replace(" BGRA8", "")]
    if encode.pictures > 1:
        parts.append(
            f"{encode.pictures} { ({'cube': 'faces', 'volume': 'slices'}.get(encode.shape, 'layers')) }"
        )
    if encode.levels > 1:
        parts.append(
            f"{encode.levels} levels" + (f" as {encode.levels_as}" if encode.levels_as != "colour" else "")
        )
    shown = {key: value for key, value in encode.notes.items() if key not in _UNSAID}
    return ", ".join([*parts, *(f"{key} {value}" for key, value in shown.items())])
