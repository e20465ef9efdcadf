"""The offer to swap an original's kin, too, so that none of several copies is forgotten."""

from __future__ import annotations

from PyQt6.QtWidgets import QHBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.session import Session
from furnel.desktop.widgets.basics import as_panel, button, label
from furnel.words import count


class KinOffer(QWidget):
    """A bar over the bench while kin of the swap's original are not swapped."""

    def __init__(self, session: Session) -> None:
        super().__init__()
        as_panel(self)
        self._session, self._original = session, ""
        self._declined: set[str] = set()
        self.others: list[str] = []
        self._said = label("", "caption")
        self._said.setWordWrap(True)
        self.accept = button(
            "Swap them too", "The same source, made to fit each of them; undo takes it back at once"
        )
        self._decline = button("Not these", "Do not ask again for this one", "plain")
        self.accept.clicked.connect(lambda: session.swaps.swap_kin(self._original, self.others))
        self._decline.clicked.connect(self._leave)
        row = QHBoxLayout(self)
        row.setContentsMargins(14, 6, 10, 6)
        row.setSpacing(8)
        row.addWidget(self._said, 1)
        row.addWidget(self._decline)
        row.addWidget(self.accept)
        self.hide()

    def show_for(self, original: str) -> None:
        """Show the offer for a swap, if there is one to make."""
        swapped = {swap.original for swap in self._session.project.swaps} if self._session.project else set()
        self._original = original
        self.others = [path for path in self._session.learned.kin(original) if path not in swapped]
        self.setVisible(bool(original in swapped and self.others) and original not in self._declined)
        names = [path.rpartition("/")[0].rpartition("/")[2] or path for path in self.others]
        listed = ", ".join(dict.fromkeys(names[:3])) + (" …" if len(names) > 3 else "")
        many = len(self.others)
        self._said.setText(
            tr(
                f"The game has the same {count(many, 'more time')}, in {listed}: swap "
                f"{'them' if many != 1 else 'it'} for the same source?"
            )
        )
        self.accept.setText(tr("Swap it too" if many == 1 else f"Swap these {many} too"))

    def _leave(self) -> None:
        self._declined.add(self._original)
        self.hide()
