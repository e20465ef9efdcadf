"""Take out: as what, and whether the kin come along."""

from __future__ import annotations

from PyQt6.QtWidgets import QButtonGroup, QCheckBox, QDialog, QRadioButton, QVBoxLayout, QWidget

from furnel.catalogue import Form
from furnel.desktop.language import tr
from furnel.desktop.widgets.basics import answers, button, label

_FORMS: tuple[tuple[Form, str, str], ...] = (
    ("raw", "As the game has it", "The same bytes, for tools that read the game's own formats"),
    ("png", "Pictures as PNG", "For every paint program; sounds and texts stay as they are"),
    ("wav", "Sounds as WAV", "For every sound editor; pictures and texts stay as they are"),
)


class TakeDialog(QDialog):
    """Asks before anything is written; `form` and `with_kin` are what was chosen."""

    def __init__(self, parent: QWidget, name: str, kin: int) -> None:
        super().__init__(parent)
        self.setWindowTitle(tr(f"Take out {name}"))
        column = QVBoxLayout(self)
        column.setContentsMargins(20, 18, 20, 16)
        column.setSpacing(8)
        column.addWidget(label(f"Take out {name}", "title"))
        self._group = QButtonGroup(self)
        for place, (_, words, tip) in enumerate(_FORMS):
            part = QRadioButton(tr(words))
            part.setToolTip(tr(tip))
            part.setChecked(place == 0)
            self._group.addButton(part, place)
            column.addWidget(part)
        self._kin = QCheckBox(tr(f"with its {kin} kin" if kin else "with its kin"))
        self._kin.setToolTip(tr("The same at other sizes, places or rates"))
        self._kin.setVisible(bool(kin))
        column.addWidget(self._kin)
        note = label(
            "Folders are kept, and a note remembers where each file came from:\ndropped back later, it finds its original.",
            "caption",
        )
        column.addWidget(note)
        back, go = (
            button("Leave it", "Nothing is written"),
            button("Choose a folder…", "Where to put them", "next"),
        )
        go.setDefault(True)
        column.addLayout(answers(self, back, go))

    @property
    def form(self) -> Form:
        return _FORMS[self._group.checkedId()][0]

    @property
    def with_kin(self) -> bool:
        return self._kin.isChecked()
