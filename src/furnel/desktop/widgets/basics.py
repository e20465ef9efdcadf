"""Small parts that every station uses: captions, hairlines, buttons, state marks."""

from __future__ import annotations

import html
from collections.abc import Callable, Iterable

from PyQt6.QtCore import QPointF, QRectF, QSize, Qt
from PyQt6.QtGui import QPainter, QPainterPath, QPaintEvent, QPen, QPolygonF
from PyQt6.QtWidgets import (
    QApplication,
    QComboBox,
    QDialog,
    QFrame,
    QHBoxLayout,
    QLabel,
    QLayout,
    QLineEdit,
    QPushButton,
    QScrollArea,
    QSizePolicy,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.widgets.steady import Choice
from furnel.states import WORDS


def label(text: str = "", name: str = "") -> QLabel:
    """A line of text in the window's language; `name` picks its style (caption, section, title, tarn, ember)."""
    return verbatim(tr(text), name)


def verbatim(text: str, name: str = "") -> QLabel:
    """A line of plain text as it is, whatever is in it: a name, a value of the game's."""
    made = QLabel()
    made.setTextFormat(Qt.TextFormat.PlainText)
    made.setText(text)
    made.setObjectName(name)
    made.setTextInteractionFlags(Qt.TextInteractionFlag.NoTextInteraction)
    return made


def marked(name: str = "") -> QLabel:
    """A line that Furnel marks up itself; what comes from a file has to be escaped before it goes in."""
    made = label("", name)
    made.setTextFormat(Qt.TextFormat.RichText)
    return made


def beside(text: str, part: QWidget) -> QLabel:
    """What a field of a form is called, at the height of its middle."""
    made = label(text, "caption")
    made.setMinimumHeight(part.sizeHint().height())
    return made


def strong(text: str) -> str:
    """A text that stands out, in the bold cut that there is; what comes from a file has to be escaped before it goes in."""
    return f'<span style="font-weight:600">{text}</span>'


def high_at(widget: QWidget, wide: int) -> int:
    """How high a widget has to be at a width, in pixels."""
    return widget.heightForWidth(wide) if widget.hasHeightForWidth() else widget.sizeHint().height()


def copy_text(text: str) -> None:
    """Put a text into the clipboard, where there is one."""
    clipboard = QApplication.clipboard()
    if clipboard is not None:
        clipboard.setText(text)


def breakable(path: str) -> str:
    """A path that a label can break after any of its folders."""
    return path.replace("/", "/\u200b")


def tip(widget: QWidget, text: str) -> None:
    """A tooltip of plain text, whatever is in it."""
    said = tr(text)
    widget.setToolTip(html.escape(said) if "<" in said else said)


def hairline() -> QFrame:
    """A thin line across."""
    line = QFrame()
    line.setObjectName("hairline")
    line.setFixedHeight(1)
    return line


def as_panel(widget: QWidget, width: int = 0, name: str = "panel") -> QWidget:
    """Give a widget the ground that its name has in the style sheet, and a fixed width."""
    widget.setObjectName(name)
    widget.setAttribute(Qt.WidgetAttribute.WA_StyledBackground)
    if width:
        widget.setFixedWidth(width)
    return widget


def scrolling(content: QWidget, name: str = "panel", fills: bool = False) -> QScrollArea:
    """A frameless area that scrolls a widget down, on the ground of that name; with `fills` it has all the room there is."""
    area, holder = QScrollArea(), QWidget()
    area.setWidgetResizable(True)
    area.setFrameShape(QFrame.Shape.NoFrame)
    area.setFocusPolicy(Qt.FocusPolicy.NoFocus)
    area.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
    holder.setObjectName(name)
    column = QVBoxLayout(holder)
    column.setContentsMargins(0, 0, 0, 0)
    column.addWidget(content)
    if not fills:
        column.addStretch(1)
    area.setWidget(holder)
    return area


def emptied(layout: QLayout) -> None:
    """Let go of every widget in a layout."""
    while (item := layout.takeAt(0)) is not None:
        if (old := item.widget()) is not None:
            old.hide()
            old.deleteLater()


def field(hint: str, name: str) -> QLineEdit:
    """A line to type in, with what belongs there while it is empty, and a name for who does not see it."""
    made = QLineEdit()
    made.setPlaceholderText(tr(hint))
    made.setAccessibleName(tr(name))
    return made


def set_next(part: QPushButton, on: bool) -> None:
    """Make a button the filled one of its view, or a plain one."""
    part.setObjectName("next" if on else "")
    style = part.style()
    if style is not None:
        style.polish(part)


def ticked(painter: QPainter, corner: QPointF, *points: tuple[float, float]) -> None:
    """The tick in a box, through points beside its corner."""
    painter.drawPolyline(QPolygonF([corner + QPointF(x, y) for x, y in points]))


def button(text: str, tip: str, name: str = "") -> QPushButton:
    """A button with a tooltip and an accessible name; `next` is the one filled button of a view."""
    made = QPushButton(tr(text))
    made.setObjectName(name)
    made.setToolTip(tr(tip))
    made.setAccessibleName(tr(text or tip))
    made.setSizePolicy(QSizePolicy.Policy.Preferred, QSizePolicy.Policy.Fixed)
    return made


def choice_of(names: Iterable[str], now: str, chosen: Callable[[str], object]) -> QComboBox:
    """A box of choices, each in the window's language; `chosen` gets it as it is written."""
    made = Choice()
    for name in names:
        made.addItem(tr(name), name)
    made.setCurrentIndex(made.findData(now))
    made.activated.connect(lambda place: chosen(made.itemData(place)))
    return made


def toggle(text: str, tip: str, on: bool = False) -> QPushButton:
    """A quiet button that stays down while something is on."""
    made = button(text, tip, "plain")
    made.setCheckable(True)
    made.setChecked(on)
    return made


def answers(dialog: QDialog, leave: QPushButton, go: QPushButton) -> QHBoxLayout:
    """A dialog's foot: leave it, or go on, which Return does as well."""
    leave.setAutoDefault(False)
    go.setDefault(True)
    leave.clicked.connect(dialog.reject)
    go.clicked.connect(dialog.accept)
    row = QHBoxLayout()
    row.addStretch(1)
    row.addWidget(leave)
    row.addWidget(go)
    return row


def paint_state(painter: QPainter, look: Look, state: str, rect: QRectF) -> None:
    """A state by its shape first: a muted check, a yellow triangle, a rose cross, three dots while waiting."""
    painter.save()
    painter.setRenderHint(QPainter.RenderHint.Antialiasing)
    side = min(rect.width(), rect.height())
    box = QRectF(rect.center().x() - side / 2, rect.center().y() - side / 2, side, side)

    def at(x: float, y: float) -> QPointF:
        return QPointF(box.left() + x * side, box.top() + y * side)

    if state == "differs":
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(look.colour("differs"))
        painter.drawPolygon(QPolygonF([at(0.5, 0.08), at(0.98, 0.92), at(0.02, 0.92)]))
    elif state == "breaks":
        painter.setPen(QPen(look.colour("breaks"), side * 0.2, cap=Qt.PenCapStyle.RoundCap))
        painter.drawLine(at(0.14, 0.14), at(0.86, 0.86))
        painter.drawLine(at(0.86, 0.14), at(0.14, 0.86))
    elif state == "fits":
        painter.setPen(
            QPen(
                look.colour("quiet"), side * 0.13, cap=Qt.PenCapStyle.RoundCap, join=Qt.PenJoinStyle.RoundJoin
            )
        )
        path = QPainterPath(at(0.1, 0.55))
        path.lineTo(at(0.4, 0.84))
        path.lineTo(at(0.92, 0.18))
        painter.drawPath(path)
    else:
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(look.colour("faint"))
        for x in (0.15, 0.5, 0.85):
            painter.drawEllipse(at(x, 0.5), side * 0.09, side * 0.09)
    painter.restore()


class StateMark(QWidget):
    """A state's shape, with a tooltip in words."""

    def __init__(self, look: Look, state: str = "fits", side: int = 10) -> None:
        super().__init__()
        self._look, self._state = look, state
        self.setFixedSize(QSize(side + 6, side + 6))
        self.show_state(state)

    def show_state(self, state: str) -> None:
        self._state = state
        self.setToolTip(tr(WORDS[state]))
        self.setAccessibleName(tr(state))
        self.update()

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        paint_state(painter, self._look, self._state, QRectF(3, 3, self.width() - 6, self.height() - 6))


class Switch(QPushButton):
    """An on/off switch."""

    OWN_RING = True

    def __init__(self, look: Look, tip: str) -> None:
        super().__init__()
        self._look = look
        self.setCheckable(True)
        self.setFixedSize(28, 18)
        self.setToolTip(tr(tip))
        self.setAccessibleName(tr(tip))
        self.setCursor(Qt.CursorShape.PointingHandCursor)

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        on = self.isChecked()
        painter.setPen(QPen(self._look.colour("selection" if self.hasFocus() else "hairline-strong"), 1))
        painter.setBrush(self._look.colour("hairline-strong" if on else "sunken"))
        painter.drawRoundedRect(QRectF(1.5, 2.5, 25, 13), 6.5, 6.5)
        painter.setPen(Qt.PenStyle.NoPen)
        painter.setBrush(self._look.colour("text" if on else "faint"))
        painter.drawEllipse(QPointF(20 if on else 8, 9), 4.5, 4.5)


def elided(
    painter: QPainter, text: str, width: float, mode: Qt.TextElideMode = Qt.TextElideMode.ElideRight
) -> str:
    """The text cut to a width with an ellipsis."""
    return painter.fontMetrics().elidedText(text, mode, max(int(width), 0))
