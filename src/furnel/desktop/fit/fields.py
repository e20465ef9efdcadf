"""The fields of a step's settings, made from their declarations."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

from PyQt6.QtWidgets import (
    QCheckBox,
    QComboBox,
    QHBoxLayout,
    QLineEdit,
    QPushButton,
    QSpinBox,
    QWidget,
)

from furnel.desktop.language import tr
from furnel.desktop.widgets import picking
from furnel.desktop.widgets.basics import choice_of
from furnel.desktop.widgets.colours import ask_colour
from furnel.desktop.widgets.steady import Number, Slider, Whole
from furnel.images.picture import Rgb
from furnel.mods.steps import Parameter, Value

_STEPS = 400  # places of a slider
_WIDEST = 1000  # ranges beyond this have no slider: a pixel of it would be too much

_DECIMALS = {"s": 3, "bpm": 3, "LUFS": 1, "dB": 1, "dBTP": 1, "dBFS": 1, "semitones": 2}

Change = Callable[[Value], Any]


def parameter_field(parameter: Parameter, value: Value, change: Change, moving: Change) -> QWidget:
    """The field for a setting: `change` takes what it is set to, `moving` what it passes through while it is dragged."""
    if parameter.type == "switch":
        field = _switch(bool(value), change)
    elif parameter.type == "choice":
        field = _choice(parameter, str(value), change)
    elif parameter.type == "colour":
        field = _colour(parameter, str(value), change)
    elif parameter.type == "file":
        field = _file(parameter, str(value), change)
    elif parameter.type in ("text", "files"):
        field = _text(str(value), change)
    else:
        field = _number(parameter, float(value), change, moving)
    field.setAccessibleName(tr(parameter.label))
    field.setToolTip(tr(parameter.label))
    return field


def _switch(value: bool, change: Change) -> QWidget:
    check = QCheckBox()
    check.setChecked(value)
    check.toggled.connect(change)
    return check


def _choice(parameter: Parameter, value: str, change: Change) -> QWidget:
    box = choice_of(parameter.choices, value, change)
    box.setSizeAdjustPolicy(QComboBox.SizeAdjustPolicy.AdjustToMinimumContentsLengthWithIcon)
    box.setMinimumContentsLength(8)
    return box


def _colour(parameter: Parameter, value: str, change: Change) -> QWidget:
    swatch = QPushButton(f"#{value}")
    swatch.setStyleSheet(f"border-left: 18px solid #{value}; text-align: left")

    def ask() -> None:
        ask_colour(swatch, parameter.label, _rgb(value), lambda picked: change(bytes(picked).hex()))

    swatch.clicked.connect(ask)
    return swatch


def _rgb(code: str) -> Rgb:
    red, green, blue = bytes.fromhex(code)
    return red, green, blue


def _text(value: str, change: Change) -> QWidget:
    field = QLineEdit(value)
    field.editingFinished.connect(lambda: change(field.text()) if field.text() != value else None)
    return field


def _file(parameter: Parameter, value: str, change: Change) -> QWidget:
    choose = QPushButton(value.rpartition("/")[2] or tr("Choose…"))

    def ask() -> None:
        file = picking.pick_file(choose, parameter.label, "sources", start=Path(value) if value else None)
        if file:
            change(str(file))

    choose.clicked.connect(ask)
    return choose


def _number(parameter: Parameter, value: float, change: Change, moving: Change) -> QWidget:
    whole = parameter.type == "whole"
    spin = Whole() if whole else Number()
    if isinstance(spin, QSpinBox):
        spin.setRange(int(parameter.low), min(int(parameter.high), 2**31 - 1))
        spin.setValue(int(value))
    else:
        fine = parameter.high - parameter.low <= 12
        spin.setRange(parameter.low, parameter.high)
        usual = 2 if fine and parameter.unit != "stops" else 1 if fine else 0
        spin.setDecimals(max(_DECIMALS.get(parameter.unit, usual), 0 if parameter.low.is_integer() else 1))
        spin.setSingleStep(0.1 if fine or parameter.unit in ("s", "semitones") else 1.0)
        spin.setValue(value)
    spin.setSuffix(f" {tr(parameter.unit)}" if parameter.unit else "")
    spin.setKeyboardTracking(False)
    spin.valueChanged.connect(change)
    span = parameter.high - parameter.low
    if span > _WIDEST:
        return spin
    slider = Slider()
    slider.setRange(0, int(span) if whole else _STEPS)
    slider.setValue(round((value - parameter.low) / span * slider.maximum()))
    slider.setAccessibleName(tr(parameter.label))

    def at(place: int) -> Value:
        exact = parameter.low + place / max(slider.maximum(), 1) * span
        if whole:
            return round(exact)
        return min(max(round(exact, 2 if span <= 12 else 0), parameter.low), parameter.high)

    def slid(place: int) -> None:
        spin.blockSignals(True)
        spin.setValue(at(place))  # type: ignore[arg-type]
        spin.blockSignals(False)
        if slider.isSliderDown():
            moving(at(place))
        else:
            change(at(place))

    slider.valueChanged.connect(slid)
    slider.sliderReleased.connect(lambda: change(at(slider.value())))
    spin.setFixedWidth(84)
    field = QWidget()
    row = QHBoxLayout(field)
    row.setContentsMargins(0, 0, 0, 0)
    row.setSpacing(6)
    row.addWidget(slider, 1)
    row.addWidget(spin)
    field.setFocusProxy(spin)
    return field
