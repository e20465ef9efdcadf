"""Cards for what has to be read or can be acted on: a refusal with its reason, a file that was written and where it is."""

from __future__ import annotations

from PyQt6.QtCore import QEvent, QObject, Qt, pyqtSignal
from PyQt6.QtGui import QEnterEvent
from PyQt6.QtWidgets import QFrame, QHBoxLayout, QVBoxLayout, QWidget

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.session import Notice
from furnel.desktop.timing import timer
from furnel.desktop.widgets.basics import StateMark, button, high_at, label
from furnel.desktop.widgets.icons import give_icon

_WIDE, _GAP, _MOST = 380, 8, 3
_LEAST_S, _LETTERS_A_SECOND = 8.0, 14.0


class _Card(QFrame):
    """One notice; it leaves by itself once there was time to read it, but not while it is pointed at."""

    left = pyqtSignal()

    def __init__(self, parent: QWidget, look: Look, notice: Notice) -> None:
        super().__init__(parent)
        self.setObjectName("card")
        self.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
        self.setFixedWidth(_WIDE)
        self.notice = notice
        mark = StateMark(look, "breaks" if notice.tone == "wrong" else "fits", 11)
        words = label(notice.text)
        words.setWordWrap(True)
        words.setTextFormat(Qt.TextFormat.PlainText)
        words.setTextInteractionFlags(Qt.TextInteractionFlag.TextSelectableByMouse)
        close = button("", "Close this", "plain")
        give_icon(close, look, "close")
        close.setAccessibleName(tr("Close the notice"))
        close.clicked.connect(self.left)
        top = QHBoxLayout()
        top.setSpacing(8)
        top.addWidget(mark, 0, Qt.AlignmentFlag.AlignTop)
        top.addWidget(words, 1)
        top.addWidget(close, 0, Qt.AlignmentFlag.AlignTop)
        column = QVBoxLayout(self)
        column.setContentsMargins(12, 10, 8, 10)
        column.setSpacing(6)
        column.addLayout(top)
        self.buttons = {}
        row = QHBoxLayout()
        row.setContentsMargins(14, 0, 0, 0)
        for text, act in notice.actions:
            part = self.buttons[text] = button(text, text)
            part.clicked.connect(self.left)
            part.clicked.connect(lambda _, act=act: act())
            row.addWidget(part)
        row.addStretch(1)
        if notice.actions:
            column.addLayout(row)
        self._time = timer(
            self, self.left.emit, int(1000 * max(_LEAST_S, len(notice.text) / _LETTERS_A_SECOND))
        )
        self._time.start()
        self.setAccessibleName(tr(notice.text))

    def enterEvent(self, event: QEnterEvent | None) -> None:
        self._time.stop()

    def leaveEvent(self, event: QEvent | None) -> None:
        self._time.start()


class Cards(QObject):
    """The cards of a window, at its lower right, the newest below."""

    def __init__(self, window: QWidget, look: Look, below: QWidget) -> None:
        super().__init__(window)
        self._window, self._look, self._below = window, look, below
        self.shown: list[_Card] = []
        window.installEventFilter(self)

    def tell(self, notice: Notice) -> None:
        """Show a refusal, or what can be acted on; the same thing again takes the old one's place."""
        if notice.tone != "wrong" and not notice.actions:
            return
        for card in [one for one in self.shown if one.notice.text == notice.text]:
            self._leave(card)
        card = _Card(self._window, self._look, notice)
        self._look.dress(card)
        card.left.connect(lambda: self._leave(card))
        self.shown.append(card)
        for old in self.shown[:-_MOST]:
            self._leave(old)
        card.show()
        self._place()

    def clear(self) -> None:
        """Let all of them go."""
        for card in list(self.shown):
            self._leave(card)

    def _leave(self, card: _Card) -> None:
        if card in self.shown:
            self.shown.remove(card)
            card.hide()
            card.deleteLater()
            self._place()

    def _place(self) -> None:
        bottom = self._below.y() - _GAP
        for card in reversed(self.shown):
            high = high_at(card, _WIDE)
            card.setGeometry(self._window.width() - _WIDE - 14, bottom - high, _WIDE, high)
            card.raise_()
            bottom -= high + _GAP

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and event.type() == QEvent.Type.Resize:
            self._place()
        return False
