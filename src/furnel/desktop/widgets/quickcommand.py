"""The quick command: any command by its name."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass

from PyQt6.QtCore import QEvent, QModelIndex, QObject, QRect, QSize, Qt, QTimer
from PyQt6.QtGui import QColor, QKeyEvent, QMouseEvent, QPainter
from PyQt6.QtWidgets import (
    QApplication,
    QFrame,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.language import tr
from furnel.desktop.look import Look, font
from furnel.desktop.ranking import ranked
from furnel.desktop.widgets.basics import elided, field
from furnel.remembered import recall_texts, remember_first

_ENTRY = Qt.ItemDataRole.UserRole
_MOST, _MOST_RECENT = 60, 8
_USED = "commands"


@dataclass(frozen=True, slots=True)
class Offer:
    """Something that can be done: what it is called, what it does, its key, and what runs it; `why` says why it cannot be done
    now. `id` tells it from others, for those that were used last."""

    id: str
    text: str
    tip: str
    key: str
    run: Callable[[], object]
    why: str = ""


class _Rows(QStyledItemDelegate):
    """An offer as one line: its name, what it does or why it cannot be done now, its key."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        return QSize(200, 28)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if painter is None:
            return
        entry: Offer = index.data(_ENTRY)
        look, box = self._look, QRect(option.rect)
        if option.state & QStyle.StateFlag.State_Selected:
            painter.fillRect(box, look.colour("raised"))
        box.adjust(10, 0, -10, 0)
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.setFont(font(11))
        painter.setPen(QColor(look.colour("quiet")))
        painter.drawText(box, Qt.AlignmentFlag.AlignRight | middle, tr(entry.key))
        key_width = painter.fontMetrics().horizontalAdvance(tr(entry.key)) + 14
        painter.setFont(font(12))
        painter.setPen(QColor(look.colour("quiet" if entry.why else "text")))
        name = elided(painter, tr(entry.text).rstrip("…"), box.width() * 0.6)
        painter.drawText(box, Qt.AlignmentFlag.AlignLeft | middle, name)
        box.setLeft(box.left() + painter.fontMetrics().horizontalAdvance(name) + 12)
        box.setRight(box.right() - key_width)
        painter.setFont(font(11))
        painter.setPen(QColor(look.colour("quiet")))
        painter.drawText(
            box, Qt.AlignmentFlag.AlignLeft | middle, elided(painter, tr(entry.why or entry.tip), box.width())
        )


class QuickCommand(QWidget):
    """A field over a list, in the window itself; Enter runs the first match. What cannot be done now comes last and says why.

    `find` gives what else fits some words, such as assets. It lies over the whole window, so that a press beside the list
    closes it and does nothing else.
    """

    def __init__(
        self, parent: QWidget, look: Look, offers: Sequence[Offer], find: Callable[[str], Sequence[Offer]]
    ) -> None:
        super().__init__(parent)
        self._before = QApplication.focusWidget()
        self._offers, self._find, self._recent = list(offers), find, recall_texts(_USED).get("", [])
        self._frame = QFrame(self)
        self._frame.setObjectName("quick")
        self._frame.setFixedSize(560, 372)
        self.field = field("What do you want to do, or to find?", "Command")
        self.list = QListWidget()
        self.list.setAccessibleName(tr("Commands"))
        self.list.setFocusPolicy(Qt.FocusPolicy.NoFocus)
        self.list.setUniformItemSizes(True)
        self.list.setHorizontalScrollBarPolicy(Qt.ScrollBarPolicy.ScrollBarAlwaysOff)
        self._rows = _Rows(look)
        self.list.setItemDelegate(self._rows)
        column = QVBoxLayout(self._frame)
        column.setContentsMargins(8, 8, 8, 8)
        column.addWidget(self.field)
        column.addWidget(self.list)
        self.field.textChanged.connect(self._fill)
        self.field.installEventFilter(self)
        self.list.itemClicked.connect(lambda _: self._go())
        self._fill("")

    def open(self) -> None:
        """Show it at the upper right and take the keys."""
        self._cover()
        self.show()
        self.raise_()
        self.field.setFocus()
        if (parent := self.parentWidget()) is not None:
            parent.installEventFilter(self)

    def _cover(self) -> None:
        parent = self.parentWidget()
        assert parent is not None
        self.setGeometry(parent.rect())
        self._frame.move(max(parent.width() - self._frame.width() - 14, 0), 50)

    def leave(self) -> None:
        """Close it; the keys go back to where they were."""
        self.hide()
        if self._before is not None:
            self._before.setFocus()
        self.deleteLater()

    def mousePressEvent(self, event: QMouseEvent | None) -> None:
        if event is not None and not self._frame.geometry().contains(event.position().toPoint()):
            self.leave()

    def eventFilter(self, watched: QObject | None, event: QEvent | None) -> bool:
        if event is not None and watched is self.parentWidget() and event.type() == QEvent.Type.Resize:
            self._cover()
        if watched is not self.field or not isinstance(event, QKeyEvent):
            return False
        if event.type() == QEvent.Type.ShortcutOverride:
            event.accept()  # keys typed here are for here
            return False
        if event.type() != QEvent.Type.KeyPress:
            return False
        key = Qt.Key(event.key())
        move = {Qt.Key.Key_Down: 1, Qt.Key.Key_Up: -1, Qt.Key.Key_PageDown: 9, Qt.Key.Key_PageUp: -9}.get(
            key, 0
        )
        if move and self.list.count():
            self.list.setCurrentRow(max(0, min(self.list.currentRow() + move, self.list.count() - 1)))
        elif key == Qt.Key.Key_Escape:
            self.leave()
        elif key in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            self._go()
        else:
            return False
        return True

    def _fill(self, text: str) -> None:
        recent = {name: place for place, name in enumerate(self._recent)}

        def told(entry: Offer) -> tuple[str, str, float]:
            used = 1 + 0.02 * (_MOST_RECENT - recent[entry.id]) if entry.id in recent else 1.0
            return tr(entry.text), tr(entry.tip), used * (0.75 if entry.why else 1.0)

        self.list.clear()
        others = self._find(text) if text.strip() else ()
        for entry in ranked(text, [*self._offers, *others], told, _MOST):
            item = QListWidgetItem()
            item.setData(_ENTRY, entry)
            words = f"{tr(entry.text).rstrip('…')}: {tr(entry.why or entry.tip)}"
            item.setData(Qt.ItemDataRole.AccessibleTextRole, words)
            item.setToolTip(tr(entry.tip))
            self.list.addItem(item)
        self.list.setCurrentRow(0)

    def _go(self) -> None:
        item = self.list.currentItem()
        if item is not None:
            entry: Offer = item.data(_ENTRY)
            self.leave()
            remember_first(_USED, "", entry.id, _MOST_RECENT)
            QTimer.singleShot(0, entry.run)
