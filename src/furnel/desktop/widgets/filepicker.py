"""Furnel's own window for choosing files and folders: with pictures, sounds to hear, and the folders that were used before."""

from __future__ import annotations

import time
from collections.abc import Sequence
from pathlib import Path
from typing import TYPE_CHECKING, Literal

from PyQt6.QtCore import QModelIndex, QPointF, QRectF, QSize, Qt, QUrl
from PyQt6.QtGui import QFont, QImage, QKeyEvent, QPainter, QPen, QPixmap
from PyQt6.QtWidgets import (
    QAbstractItemView,
    QDialog,
    QFileDialog,
    QHBoxLayout,
    QLabel,
    QLineEdit,
    QListWidget,
    QListWidgetItem,
    QStyle,
    QStyledItemDelegate,
    QStyleOptionViewItem,
    QVBoxLayout,
    QWidget,
)

from furnel.desktop.language import tr
from furnel.desktop.look import byte_size, font
from furnel.desktop.widgets.basics import answers, button, elided, field, label
from furnel.desktop.widgets.foldersread import FolderReader, Found
from furnel.desktop.widgets.steady import Choice
from furnel.remembered import recall_texts, remember_first
from furnel.words import count

if TYPE_CHECKING:
    from PyQt6.QtMultimedia import QMediaPlayer

Want = Literal["file", "files", "folder", "target"]
Sorts = Sequence[tuple[str, str]]
"""What can be chosen: a name and patterns, such as `("Pictures", "*.png *.jpg")`."""

_FOUND = Qt.ItemDataRole.UserRole
_MOST_RECENT = 8
_PICKED = "picked"
_USUAL = ("Desktop", "Documents", "Downloads", "Music", "Pictures", "Videos")


class _Rows(QStyledItemDelegate):
    """A folder or a file in a line: its sign, its name, its size and when it was changed."""

    def __init__(self, quiet: QWidget) -> None:
        super().__init__(quiet)

    def sizeHint(self, option: QStyleOptionViewItem, index: QModelIndex) -> QSize:
        return QSize(200, 26)

    def paint(self, painter: QPainter | None, option: QStyleOptionViewItem, index: QModelIndex) -> None:
        if painter is None:
            return
        found: Found = index.data(_FOUND)
        palette, box = option.palette, option.rect.adjusted(0, 0, -4, 0)
        if (of := option.widget) is not None and (style := of.style()) is not None:
            style.drawPrimitive(QStyle.PrimitiveElement.PE_PanelItemViewItem, option, painter, of)
        ink = palette.text().color()
        painter.setRenderHint(QPainter.RenderHint.Antialiasing)
        painter.setPen(QPen(ink, 1.2))
        sign = QRectF(box.left() + 9, box.top() + 7, 14, 12)
        if found.is_folder:
            painter.drawRoundedRect(sign, 2, 2)
            painter.drawLine(QPointF(sign.left(), sign.top() + 3), QPointF(sign.left() + 6, sign.top() + 3))
        else:
            painter.drawRect(sign.adjusted(2, -1, -2, 1))
        painter.setFont(font(12, QFont.Weight.DemiBold if found.is_folder else QFont.Weight.Normal))
        words = box.adjusted(34, 0, -210, 0)
        middle = Qt.AlignmentFlag.AlignVCenter
        painter.drawText(
            words, middle, elided(painter, found.path.name, words.width(), Qt.TextElideMode.ElideMiddle)
        )
        painter.setFont(font(11))
        painter.setPen(palette.placeholderText().color())
        when = time.strftime("%Y-%m-%d %H:%M", time.localtime(found.changed))
        painter.drawText(box.adjusted(0, 0, -10, 0), Qt.AlignmentFlag.AlignRight | middle, when)
        if not found.is_folder:
            painter.drawText(
                box.adjusted(0, 0, -130, 0), Qt.AlignmentFlag.AlignRight | middle, byte_size(found.size)
            )


class FilePicker(QDialog):
    """Asks for a file, several, a folder, or a file to write. `chosen` are the paths after it was accepted.

    `kind` names what is chosen, so that the next time begins where the last one ended.
    """

    def __init__(
        self, parent: QWidget, title: str, want: Want, kind: str, sorts: Sorts = (), start: Path | None = None
    ) -> None:
        super().__init__(parent)
        self.want, self._kind, self._sorts = want, kind, list(sorts)
        self.chosen: list[Path] = []
        self.folder = Path.home()
        self.setWindowTitle(tr(title))
        self.resize(880, 540)
        self._reader = FolderReader()
        self._reader.listed.connect(self._listed)
        self._reader.seen.connect(self._seen)
        self._player: QMediaPlayer | None = None
        self._replacing: Path | None = None
        self.where = field("a folder's path", "Folder")
        self.where.returnPressed.connect(self._typed)
        self.places, self.list = QListWidget(), QListWidget()
        self.name = QLineEdit()
        self.sort = Choice()
        self._picture, self._about = QLabel(), label("", "caption")
        self.hear = button("Hear it", "Play the beginning  (Space)", "plain")
        verbs = {"file": "Open", "files": "Open", "folder": "Use this folder", "target": "Save"}
        self.leave, self.go = button("Leave it", "Esc"), button(verbs[want], verbs[want], "next")
        self._lay_out(title)
        self._fill_places()
        self._begin(start)

    def _lay_out(self, title: str) -> None:
        self.places.setObjectName("flush")
        self.places.setFixedWidth(170)
        self.places.setAccessibleName(tr("Places"))
        self.places.itemClicked.connect(lambda item: self.enter(item.data(_FOUND)))
        self.list.setAccessibleName(tr("Files"))
        self.list.setItemDelegate(_Rows(self.list))
        self.list.setUniformItemSizes(True)
        if self.want == "files":
            self.list.setSelectionMode(QAbstractItemView.SelectionMode.ExtendedSelection)
        self.list.itemActivated.connect(self._activated)
        self.list.itemSelectionChanged.connect(self._selected)
        self.name.setAccessibleName(tr("File name"))
        self.name.setPlaceholderText(tr("a name for the file"))
        self.name.setVisible(self.want == "target")
        self.name.textChanged.connect(self._renamed)
        self.sort.setAccessibleName(tr("What is shown"))
        for words, _ in [*self._sorts, ("Everything", "")]:
            self.sort.addItem(tr(words))
        self.sort.setVisible(bool(self._sorts) and self.want in ("file", "files"))
        self.sort.currentIndexChanged.connect(lambda _: self._reader.read(self.folder, *self._shown()))
        self.hear.clicked.connect(self._hear)
        self.hear.hide()
        up = button("Up", "The folder around this one  (Backspace)", "plain")
        up.clicked.connect(lambda: self.enter(self.folder.parent))
        top = QHBoxLayout()
        top.addWidget(self.where, 1)
        top.addWidget(up)
        self._picture.setFixedSize(220, 220)
        self._picture.setAlignment(Qt.AlignmentFlag.AlignCenter)
        self._about.setWordWrap(True)
        self._about.setFixedWidth(220)
        side = QVBoxLayout()
        side.addWidget(self._picture)
        side.addWidget(self._about)
        side.addWidget(self.hear, 0, Qt.AlignmentFlag.AlignLeft)
        side.addStretch(1)
        middle = QVBoxLayout()
        middle.addLayout(top)
        middle.addWidget(self.list, 1)
        middle.addWidget(self.name)
        body = QHBoxLayout()
        body.setSpacing(12)
        body.addWidget(self.places)
        body.addLayout(middle, 1)
        body.addLayout(side)
        foot = answers(self, self.leave, self.go)
        foot.insertWidget(0, self.sort)
        self.go.clicked.disconnect()
        self.go.clicked.connect(self._take)
        column = QVBoxLayout(self)
        column.setContentsMargins(18, 16, 18, 14)
        column.setSpacing(10)
        column.addWidget(label(title, "title"))
        column.addLayout(body, 1)
        column.addLayout(foot)

    def _fill_places(self) -> None:
        home = Path.home()
        usual = [home / name for name in _USUAL]
        for folder in dict.fromkeys([home, *usual, *recent_folders(self._kind)]):
            if folder.is_dir():
                item = QListWidgetItem(tr("Home") if folder == home else folder.name or "/")
                item.setData(_FOUND, folder)
                item.setToolTip(str(folder))
                self.places.addItem(item)

    def _begin(self, start: Path | None) -> None:
        folder = next(iter(recent_folders(self._kind)), Path.home())
        if start is not None:
            self.name.setText(start.name if self.want == "target" else "")
            if start.is_absolute():
                folder = start if start.is_dir() else start.parent
        self.enter(folder)
        (self.name if self.want == "target" else self.list).setFocus()

    # where one is

    def enter(self, folder: Path) -> None:
        """Show another folder."""
        self.folder = folder
        self._renamed()
        self.where.setText(str(folder))
        self.list.clear()
        self._show_picture(QImage(), "")
        self._reader.read(folder, *self._shown())

    def _shown(self) -> tuple[list[str], bool]:
        place = self.sort.currentIndex()
        patterns = self._sorts[place][1].lower().split() if place < len(self._sorts) else []
        return patterns, self.want == "folder"

    def _listed(self, folder: Path, found: list[Found], said: str) -> None:
        if folder != self.folder:
            return
        self.list.clear()
        for one in found:
            item = QListWidgetItem(one.path.name)
            item.setData(_FOUND, one)
            item.setToolTip(str(one.path))
            self.list.addItem(item)
        if said:
            self._about.setText(tr(f"This folder cannot be read: {said}"))
        elif not found:
            self._about.setText(tr("Nothing to choose in here"))
        self._weigh()

    def _typed(self) -> None:
        told = Path(self.where.text().strip()).expanduser()
        if told.is_dir():
            self.enter(told)
            self.list.setFocus()
        elif told.is_file() and self.want in ("file", "files"):
            self._accept([told])
        else:
            self._about.setText(tr(f"There is no {told}"))

    def _activated(self, item: QListWidgetItem) -> None:
        found: Found = item.data(_FOUND)
        if found.is_folder:
            self.enter(found.path)
            self.list.setFocus()
        else:
            self._take()

    # what is chosen

    def _marked(self) -> list[Found]:
        return [item.data(_FOUND) for item in self.list.selectedItems()]

    def _selected(self) -> None:
        marked = self._marked()
        self._show_picture(QImage(), "")
        if len(marked) == 1 and not marked[0].is_folder:
            if self.want == "target":
                self.name.setText(marked[0].path.name)
            self._reader.look(marked[0].path)
        elif len(marked) > 1:
            self._about.setText(tr(count(len(marked), "file")))
        self._weigh()

    def _seen(self, file: Path, image: QImage, said: str, is_sound: bool) -> None:
        marked = self._marked()
        if len(marked) == 1 and marked[0].path == file:
            self._show_picture(image, f"{file.name}\n{said}")
            self.hear.setVisible(is_sound)

    def _show_picture(self, image: QImage, said: str) -> None:
        if not image.isNull():
            ratio, smooth = Qt.AspectRatioMode.KeepAspectRatio, Qt.TransformationMode.SmoothTransformation
            image = image.scaled(220, 220, ratio, smooth)
        self._picture.setPixmap(QPixmap.fromImage(image) if not image.isNull() else QPixmap())
        self._about.setText(tr(said))
        self.hear.hide()

    def _renamed(self) -> None:
        if self._replacing is not None:  # leave to replace was for another file
            self._replacing = None
            self.go.setText(tr("Save"))
        self._weigh()

    def _weigh(self) -> None:
        files = [one for one in self._marked() if not one.is_folder]
        ready = {
            "file": bool(files),
            "files": bool(files),
            "folder": True,
            "target": bool(self.name.text().strip()),
        }
        self.go.setEnabled(ready[self.want])

    def _take(self) -> None:
        marked = self._marked()
        if self.want == "folder":
            self._accept([marked[0].path if len(marked) == 1 else self.folder])
        elif self.want == "target":
            self._take_target()
        elif files := [one.path for one in marked if not one.is_folder]:
            self._accept(files)

    def _take_target(self) -> None:
        target = self.folder / self.name.text().strip()
        if target.is_dir():
            self.enter(target)
        elif target.exists() and target != self._replacing:
            self._replacing = target
            self._about.setText(tr(f"{target.name} is there already"))
            self.go.setText(tr("Replace it"))
        elif not target.parent.is_dir():
            self._about.setText(tr(f"There is no folder {target.parent}"))
        else:
            self._accept([target])

    def _accept(self, paths: list[Path]) -> None:
        self.chosen = paths
        keep_folder(self._kind, paths[0] if self.want == "folder" else paths[0].parent)
        self.accept()

    # the rest

    def _hear(self) -> None:
        from PyQt6.QtMultimedia import QAudioOutput, QMediaDevices, QMediaPlayer

        marked = self._marked()
        if len(marked) != 1 or not QMediaDevices.audioOutputs():
            self._about.setText(tr("There is nothing to hear with on this machine"))
            return
        player = QMediaPlayer(self)
        player.setAudioOutput(QAudioOutput(player))
        player.setSource(QUrl.fromLocalFile(str(marked[0].path)))
        player.play()
        self._fall_silent()
        self._player = player

    def keyPressEvent(self, event: QKeyEvent | None) -> None:
        if event is not None and event.key() == Qt.Key.Key_Backspace and self.list.hasFocus():
            self.enter(self.folder.parent)
        elif event is not None and event.key() == Qt.Key.Key_Space and self.hear.isVisible():
            self._hear()
        elif event is not None and event.key() in (Qt.Key.Key_Return, Qt.Key.Key_Enter):
            if self.name.hasFocus():
                self._take()  # Enter in the path's field, or on a row, is theirs
        else:
            super().keyPressEvent(event)

    def done(self, result: int) -> None:
        self._reader.stop()
        self._fall_silent()
        super().done(result)

    def _fall_silent(self) -> None:
        if self._player is not None:
            self._player.stop()


def recent_folders(kind: str) -> list[Path]:
    """The folders that were used last for something of a kind, and are there."""
    return [folder for one in recall_texts(_PICKED).get(kind, ()) if (folder := Path(one)).is_dir()]


def keep_folder(kind: str, folder: Path) -> None:
    """Remember a folder for the next time that something of a kind is chosen."""
    remember_first(_PICKED, kind, str(folder), _MOST_RECENT)


def system_choose(
    parent: QWidget, title: str, want: Want, kind: str, sorts: Sorts, start: Path | None
) -> list[Path]:
    """The same by the system's own window, where programs see no files but those that it lets them have."""
    begin = str(start or next(iter(recent_folders(kind)), ""))
    patterns = ";;".join(f"{name} ({pattern})" for name, pattern in sorts)
    if want == "folder":
        found = [QFileDialog.getExistingDirectory(parent, title, begin)]
    elif want == "target":
        found = [QFileDialog.getSaveFileName(parent, title, begin, patterns)[0]]
    elif want == "files":
        found = QFileDialog.getOpenFileNames(parent, title, begin, patterns)[0]
    else:
        found = [QFileDialog.getOpenFileName(parent, title, begin, patterns)[0]]
    paths = [Path(one) for one in found if one]
    if paths:
        keep_folder(kind, paths[0] if want == "folder" else paths[0].parent)
    return paths
