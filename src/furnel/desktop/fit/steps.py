"""The steps of a swap, in order, each with its settings and a switch; and how the result is encoded."""

from __future__ import annotations

from collections.abc import Callable
from typing import Any

from PyQt6.QtCore import QRectF, pyqtSignal
from PyQt6.QtGui import QPainter, QPaintEvent
from PyQt6.QtWidgets import (
    QGridLayout,
    QHBoxLayout,
    QMenu,
    QPushButton,
    QVBoxLayout,
    QWidget,
)  # fmt: skip

from furnel.desktop.fit.encoding import encoding_card
from furnel.desktop.fit.fields import parameter_field
from furnel.desktop.fit.stepdrags import StepDrags, card_frame
from furnel.desktop.language import tr
from furnel.desktop.look import Look
from furnel.desktop.tiles import Tile, paint_tile
from furnel.desktop.widgets.basics import Switch, as_panel, button, label
from furnel.desktop.widgets.icons import give_icon
from furnel.desktop.widgets.menus import Row, offers_menu
from furnel.errors import FurnelError
from furnel.media import Encode
from furnel.mods.project import StepUse, Swap
from furnel.mods.steps import STEP_TYPES, Value, step_type

_ENCODING = -2  # in place of a step's number: the card of the encoding


class _Thumb(QWidget):
    """What a step gives, small."""

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self.tile: Tile | None = None
        self.setFixedSize(52, 36)
        self.setAccessibleName(tr("What this step gives"))

    def paintEvent(self, event: QPaintEvent | None) -> None:
        painter = QPainter(self)
        painter.fillRect(self.rect(), self._look.colour("stage"))
        paint_tile(painter, self._look, QRectF(self.rect()), self.tile, yours=True, crop=True)


class StepsPanel(QWidget):
    """The cards. `changed` carries the swap as it should be, and what was done to it; `previewed` a swap on its way there.

    `area_open` tells the area (left, top, width, height) of the step whose settings are shown, or None; `refused` says why
    something was not done.
    """

    changed = pyqtSignal(object, str)
    previewed = pyqtSignal(object)
    area_open = pyqtSignal(object)
    refused = pyqtSignal(str)

    def __init__(self, look: Look) -> None:
        super().__init__()
        self._look = look
        self._swap: Swap | None = None
        self._domain = ""
        self._open = -1
        self._thumbs: list[_Thumb] = []
        self._tiles: tuple[Tile, ...] = ()
        self._told: dict[int, str] = {}
        self._add = button("add", "Add a step after the others", "plain")
        give_icon(self._add, look, "add")
        self._menus: dict[str, QMenu] = {}  # by domain
        self._add.setStyleSheet("QPushButton::menu-indicator { image: none; width: 0 }")
        head = QHBoxLayout()
        head.addWidget(label("STEPS", "section"), 1)
        head.addWidget(self._add)
        self._cards = QVBoxLayout()
        self._cards.setSpacing(5)
        column = QVBoxLayout(self)
        column.setContentsMargins(0, 0, 0, 0)
        column.setSpacing(4)
        column.addLayout(head)
        column.addLayout(self._cards)
        column.addStretch(1)
        self._drags = StepDrags(look, self._cards, self._move)
        self._keys: list[Any] = []
        look.changed.connect(self._renew)

    def show_swap(self, swap: Swap | None, domain: str) -> None:
        """Show a swap's steps; `domain` is the medium that they are for, or empty for what has none."""
        if self._swap is None or swap is None or swap.original != self._swap.original:
            self._open = -1
            self._tiles, self._told = (), {}
        self._swap = swap
        if domain != self._domain:
            self._domain = domain
            self._add.setMenu(self._menu_of(domain) if domain else None)
            self._add.setVisible(bool(domain))
        self._fill()

    @property
    def menu(self) -> QMenu:
        """The steps that can be added to what is shown."""
        return self._menu_of(self._domain)

    def _menu_of(self, domain: str) -> QMenu:
        """The steps that a medium has."""
        if domain in self._menus:
            return self._menus[domain]
        whole = self._menus[domain] = QMenu(self)
        groups: dict[str, QMenu] = {"": whole}
        for step in STEP_TYPES.values():
            if step.domain != domain:
                continue
            if step.group not in groups:
                made = whole.addMenu(tr(step.group))
                assert made is not None
                groups[step.group] = made
            entry = groups[step.group].addAction(tr(step.title))
            assert entry is not None
            entry.triggered.connect(lambda _=False, name=step.id: self._append(name))
        return whole

    def show_tiles(self, tiles: tuple[Tile, ...], told: dict[int, str]) -> None:
        """What the steps that are on give, in order, and what they say of their work, by place."""
        self._tiles = tiles
        if told != self._told:
            self._told = told
            self._fill()
        self._show_thumbs()

    def _show_thumbs(self) -> None:
        for thumb, tile in zip(self._thumbs, (*self._tiles, *([None] * len(self._thumbs))), strict=False):
            if thumb.tile is not tile:
                thumb.tile = tile
                thumb.update()

    def _renew(self) -> None:
        """Make every card anew: the theme is another one."""
        self._keys = []
        self._fill()

    def _fill(self) -> None:
        """Bring the cards up to date; those that stay the same are not made again."""
        swap = self._swap
        self.tell_area()
        wanted: list[tuple[Any, Callable[[], QWidget]]] = []
        if swap is not None:
            for place, use in enumerate(swap.steps):
                key = (place, use, place == self._open, self._told.get(place), len(swap.steps))
                wanted.append((key, lambda place=place, use=use: self._card(place, use)))  # type: ignore[misc]
            if swap.encode is not None:
                wanted.append(((swap.encode, self._open == _ENCODING), self._encoding_card))
            elif not swap.steps:
                wanted.append((("hint", self._domain), self._hint))
        keys = [key for key, _ in wanted]
        for place, (key, make) in enumerate(wanted):
            if place < len(self._keys) and self._keys[place] == key and self._cards.itemAt(place) is not None:
                continue
            self._drop_card(place)
            self._cards.insertWidget(place, make())
        while self._cards.count() > len(wanted):
            self._drop_card(len(wanted))
        self._keys = keys
        cards = [
            item.widget() for place in range(len(wanted)) if (item := self._cards.itemAt(place)) is not None
        ]
        self._thumbs = [thumb for card in cards if card is not None for thumb in card.findChildren(_Thumb)]
        self._show_thumbs()

    def _drop_card(self, place: int) -> None:
        item = self._cards.takeAt(place)
        old = item.widget() if item is not None else None
        if old is not None:
            old.hide()
            old.deleteLater()

    def _hint(self) -> QWidget:
        text = "The source goes into the mod as it is. Fit all chooses what has to be done to it."
        hint = label(text if self._domain else "This file goes into the mod as it is.", "caption")
        hint.setWordWrap(True)
        return hint

    def _encoding_card(self) -> QWidget:
        assert self._swap is not None and self._swap.encode is not None
        card, column = self._frame()
        encode, opened = self._swap.encode, self._open == _ENCODING
        encoding_card(self._look, encode, column, opened, lambda: self._unfold(_ENCODING), self._set_encode)
        return card

    def _frame(self) -> tuple[QWidget, QVBoxLayout]:
        card = as_panel(QWidget(), name="card")
        card.setStyleSheet(card_frame(self._look))
        column = QVBoxLayout(card)
        column.setContentsMargins(10, 7, 8, 7)
        column.setSpacing(6)
        return card, column

    def _card(self, place: int, use: StepUse) -> QWidget:
        card, column = self._frame()
        card.setAccessibleName(tr(f"Step {place + 1}"))
        step = step_type(use.do)
        try:
            values: dict[str, Value] = use.checked()
            summary = step.summary(values)
        except FurnelError as error:
            values, summary = dict(use.values), error.why
        texts = QVBoxLayout()
        texts.setSpacing(1)
        title = QPushButton(tr(f"{'▾' if place == self._open else '▸'}  {step.title}"))
        title.setAccessibleName(tr(step.title))
        title.setObjectName("plain")
        ink = self._look.colour("text" if use.on else "faint").name()
        title.setStyleSheet(f"QPushButton {{ text-align: left; padding: 0; font-weight: 500; color: {ink} }}")
        title.setToolTip(tr("Show or hide its settings; drag it, or Alt and the arrows, for another place"))
        title.clicked.connect(lambda: self._unfold(place))
        self._drags.take(title, place)
        texts.addWidget(title)
        said = label(summary, "caption")
        said.setWordWrap(True)
        texts.addWidget(said)
        if use.on and self._told.get(place):
            did = label(self._told[place], "caption")
            did.setWordWrap(True)
            texts.addWidget(did)
        switch = Switch(self._look, f"{step.title} on or off")
        switch.setChecked(use.on)
        switch.clicked.connect(
            lambda on: self._replace(place, use.model_copy(update={"on": on}), f"Switch {step.title}")
        )
        head = QHBoxLayout()
        head.setSpacing(9)
        if use.on:
            head.addWidget(_Thumb(self._look))
        head.addLayout(texts, 1)
        head.addWidget(switch)
        column.addLayout(head)
        if place == self._open:
            self._form(column, place, use, values)
        offers_menu(card, lambda _: self._offers(place, use))
        return card

    def _offers(self, place: int, use: StepUse) -> list[Row]:
        """What can be done with a step."""
        step, last = step_type(use.do), len(self._swap.steps) - 1 if self._swap is not None else 0
        turned, usual = (
            use.model_copy(update={"on": not use.on}),
            use.model_copy(update={"values": step.complete({})}),
        )
        return [
            (
                "Switch it off" if use.on else "Switch it on",
                lambda: self._replace(place, turned, f"Switch {step.title}"),
                True,
            ),
            ("Settings", lambda: self._unfold(place), True),
            (
                "Settings as they come",
                lambda: self._replace(place, usual, f"Change {step.title}"),
                usual != use,
            ),
            ("Earlier", lambda: self._move(place, place - 1), place > 0),
            ("Later", lambda: self._move(place, place + 1), place < last),
            ("Remove", lambda: self._remove(place), True),
        ]

    def _form(self, column: QVBoxLayout, place: int, use: StepUse, values: dict[str, Value]) -> None:
        step, original = step_type(use.do), self._swap.original if self._swap is not None else ""
        grid = QGridLayout()
        grid.setHorizontalSpacing(8)
        grid.setVerticalSpacing(4)
        for row, parameter in enumerate(step.parameters):

            def change(value: Value, name: str = parameter.name) -> None:
                fresh = use.model_copy(update={"values": {**use.values, name: value}})
                self._replace_own(original, place, use, fresh, f"Change {step.title}")

            def moving(value: Value, name: str = parameter.name) -> None:
                fresh = use.model_copy(update={"values": {**use.values, name: value}})
                self.previewed.emit(self._with(place, fresh))

            grid.addWidget(label(parameter.label, "caption"), row, 0)
            value = values.get(parameter.name, parameter.default)
            grid.addWidget(parameter_field(parameter, value, change, moving), row, 1)
        grid.setColumnStretch(1, 1)
        column.addLayout(grid)
        tools = QHBoxLayout()
        for text, tip, act in (
            ("earlier", "Move before the step above", lambda: self._move(place, place - 1)),
            ("later", "Move after the step below", lambda: self._move(place, place + 1)),
            ("remove", "Take this step out", lambda: self._remove(place)),
        ):
            part = button(text, tip, "plain")
            part.clicked.connect(lambda _=False, act=act: act())
            tools.addWidget(part)
        tools.addStretch(1)
        column.addLayout(tools)

    # edits

    def _unfold(self, place: int) -> None:
        self._open = -1 if self._open == place else place
        self._fill()

    def _emit(self, steps: list[StepUse], text: str) -> None:
        assert self._swap is not None
        self.changed.emit(self._swap.model_copy(update={"steps": tuple(steps)}), text)

    def _with(self, place: int, use: StepUse) -> Swap:
        assert self._swap is not None
        steps = list(self._swap.steps)
        steps[place] = use
        return self._swap.model_copy(update={"steps": tuple(steps)})

    def _replace(self, place: int, use: StepUse, text: str) -> None:
        self.changed.emit(self._with(place, use), text)

    def _replace_own(self, original: str, place: int, use: StepUse, fresh: StepUse, text: str) -> None:
        """Replace a step by what a field made of it, wherever it is by now, and nothing else in its place."""
        steps = self._swap.steps if self._swap is not None and self._swap.original == original else ()
        if use not in steps:
            self.refused.emit(f"{text}: the step is another one by now, and stays as it is")
            return
        self._replace(place if steps[place : place + 1] == (use,) else steps.index(use), fresh, text)

    def move_area(self, box: tuple[int, int, int, int], done: bool) -> None:
        """Give the open step another area; until the mouse lets go it is only previewed."""
        if self._swap is None or not 0 <= self._open < len(self._swap.steps):
            return
        use = self._swap.steps[self._open]
        fresh = use.model_copy(
            update={
                "values": {**use.values, **dict(zip(("left", "top", "width", "height"), box, strict=True))}
            }
        )
        if done:
            self._replace(self._open, fresh, f"Move the area of {step_type(use.do).title}")
        else:
            self.previewed.emit(self._with(self._open, fresh))

    def tell_area(self) -> None:
        """Say again which area is open."""
        box = None
        if self._swap is not None and 0 <= self._open < len(self._swap.steps):
            use = self._swap.steps[self._open]
            step = step_type(use.do)
            if step.has_area and not step.crops:
                values = step.complete(use.values)
                box = tuple(int(values[name]) for name in ("left", "top", "width", "height"))
        self.area_open.emit(box)

    def _append(self, name: str) -> None:
        assert self._swap is not None
        self._open = len(self._swap.steps)
        self._emit(
            [*self._swap.steps, StepUse(do=name, values=step_type(name).complete({}))],
            f"Add {step_type(name).title}",
        )

    def _move(self, place: int, target: int) -> None:
        assert self._swap is not None
        steps = list(self._swap.steps)
        if 0 <= target < len(steps):
            steps.insert(target, steps.pop(place))
            self._open = target if self._open == place else -1
            self._emit(steps, "Move a step")

    def _remove(self, place: int) -> None:
        assert self._swap is not None
        self._open = -1
        self._emit([use for number, use in enumerate(self._swap.steps) if number != place], "Remove a step")

    def _set_encode(self, encode: Encode) -> None:
        assert self._swap is not None
        self.changed.emit(self._swap.model_copy(update={"encode": encode}), "Change the encoding")
