"""The card that says how a result is written, with everything about it that can be chosen."""

from __future__ import annotations

from collections.abc import Callable

from PyQt6.QtWidgets import QComboBox, QGridLayout, QHBoxLayout, QPushButton, QVBoxLayout

from furnel.blocks import QUALITIES
from furnel.desktop.look import Look
from furnel.desktop.widgets.basics import label
from furnel.images.resample import LEVELS_AS
from furnel.mods.project import Encode
from furnel.mods.trials import ALLOWED
from furnel.sound import LOSSY, WRITTEN_TYPES, codecs_of, writable_as

_NOTES = {
    "header": ("Header", ("legacy", "DX10")),
    "srgb": ("Colour space", ("on", "off")),
    "rows": ("Rows", ("bottom first", "top first")),
    "run-length": ("Run-length", ("off", "on")),
    "alpha": ("Alpha is", ("straight", "premultiplied")),
    "weighting": ("Colours weigh", ("even", "as seen")),
    "supercompression": ("Packing", ("none", "Zstandard", "zlib")),
}
_SHOWN = {"DDS": ("header",), "KTX2": ("supercompression", "srgb"), "TGA": ("rows", "run-length")}


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
        """A box for one of the encoding's own values, `key`, or for one of its notes."""

        def chosen(text: str) -> None:
            if key in _NOTES:
                change(encode.model_copy(update={"notes": {**encode.notes, key: text}}))
            else:
                change(encode.model_copy(update={key: int(text) if key == "levels" else text}))

        return _box(name, choices, now, chosen)

    title = QPushButton("Encode")
    title.setObjectName("plain")
    ink = look.colour("text").name()
    title.setStyleSheet(f"QPushButton {{ text-align: left; padding: 0; font-weight: 500; color: {ink} }}")
    title.setToolTip("Show or hide what can be chosen")
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
        quality.setToolTip(much)
        quality.setFixedWidth(72)
        row.addWidget(quality)
    column.addLayout(row)
    if unfolded and codecs_of(encode.file):
        _sound_rows(encode, column, change)
        return
    if not unfolded or encode.file not in ALLOWED:
        return
    formats = ALLOWED[encode.file]
    if encode.format not in formats:
        formats = (encode.format, *formats)
    rows = [("Format", choice("Format", formats, encode.format, "format"))]
    if encode.file != "TGA":
        counts = tuple(str(count) for count in range(1, 15))
        rows.append(("Levels", choice("Levels", counts, str(encode.levels), "levels")))
        rows.append(("Levels made as", choice("Levels made as", LEVELS_AS, encode.levels_as, "levels_as")))
    shown = _SHOWN.get(encode.file, ()) + (("weighting",) if encode.format in ("BC1", "BC2", "BC3") else ())
    for key in shown:
        name, choices = _NOTES[key]
        rows.append((name, choice(name, choices, encode.notes.get(key, choices[0]), key)))
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
    box = QComboBox()
    box.addItems(list(choices))
    box.setCurrentText(now)
    box.setAccessibleName(name)
    box.setToolTip(name)
    box.textActivated.connect(chosen)
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
    kind = encode.format if encode.file == "DDS" else f"{encode.file} {encode.format}"
    parts = [kind.replace(" RGBA8", "").replace(" BGRA8", "")]
    if encode.pictures > 1:
        parts.append(
            f"{encode.pictures} { ({'cube': 'faces', 'volume': 'slices'}.get(encode.shape, 'layers')) }"
        )
    if encode.levels > 1:
        parts.append(
            f"{encode.levels} levels" + (f" as {encode.levels_as}" if encode.levels_as != "colour" else "")
        )
    shown = {
        key: value
        for key, value in encode.notes.items()
        if key not in ("mode", "table", "cut-out", "srgb", "footer")
    }
    return ", ".join([*parts, *(f"{key} {value}" for key, value in shown.items())])
