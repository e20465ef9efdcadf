"""What a modder set for this machine: kept in the user's folder, used at once where that can be."""

from __future__ import annotations

from dataclasses import asdict, dataclass, field, replace
from typing import Any

from PyQt6.QtCore import QObject, Qt, pyqtSignal
from PyQt6.QtGui import QGuiApplication, QKeySequence

from furnel.desktop.actions import COMMANDS
from furnel.desktop.language import LANGUAGES
from furnel.remembered import recall, remember

THEMES = {"dark": "Dark", "light": "Light", "system": "As the system"}
SIZES = (90, 100, 110, 125, 150, 175, 200)  # per cent
KEPT, GB = (1, 2, 4, 8, 16, 32), 1_000_000_000
PROGRAMS = {"picture": "Pictures", "sound": "Sounds", "definition": "Definitions"}
PARTS = {
    "theme": ("Theme", "dark, light, or as the system"), "motion": ("Motion", "what moves by itself, or only when asked"),
    "language": ("Language", "what this window says, and in which words"),
    "size": ("Size of everything", "text, tiles and buttons, in per cent"),
    "device": ("Sound device", "where it is heard"), "volume": ("Volume", "of everything that is heard here"),
    "programs": ("Programs that sources open in", "for pictures, sounds and definitions"),
    "kept": ("What is kept on this machine", "how much, and letting go of it"),
    "keys": ("Other keys", "give a command another key"),
}  # fmt: skip
"""The settings by name: what they are called, and a hint."""
_GIVEN = ("Esc", "Tab", "Return", "Enter", "Space", "Backspace", "Left", "Right", "Up", "Down")


@dataclass(frozen=True, slots=True)
class Settings:
    """With `still` nothing moves by itself. `language` and `size` of everything in per cent (both from the next start),
    `device` and `volume` (0 to 100) of what is heard, `programs` by what they open, `keys` by command where they are not as
    they came, `kept` in GB."""

    theme: str = "dark"
    language: str = "system"
    size: int = 100
    still: bool = False
    device: str = ""
    volume: int = 100
    kept: int = 4
    programs: dict[str, str] = field(default_factory=dict)
    keys: dict[str, str] = field(default_factory=dict)

    def theme_now(self) -> str:
        """Dark or light; which one the system wants when it is followed."""
        if self.theme != "system":
            return self.theme
        hints = QGuiApplication.styleHints()
        light = hints is not None and hints.colorScheme() == Qt.ColorScheme.Light
        return "light" if light else "dark"


def load_settings() -> Settings:
    """What was set; what cannot be understood is as it came."""
    told = recall("settings")
    rows: dict[str, Any] = told if isinstance(told, dict) else {}
    usual = Settings()
    known = {entry.id for entry in COMMANDS}
    volume = rows.get("volume")
    return Settings(
        _one_of(rows, "theme", tuple(THEMES), usual.theme),
        _one_of(rows, "language", tuple(LANGUAGES), usual.language),
        _one_of(rows, "size", SIZES, usual.size),
        _one_of(rows, "still", (False, True), usual.still),
        str(rows.get("device", "")),
        volume if type(volume) is int and 0 <= volume <= 100 else usual.volume,
        _one_of(rows, "kept", KEPT, usual.kept),
        {kind: text for kind, text in _texts(rows, "programs").items() if kind in PROGRAMS},
        {name: keys for name, keys in _texts(rows, "keys").items() if name in known},
    )


def _one_of(rows: dict[str, Any], key: str, allowed: tuple[Any, ...], usual: Any) -> Any:
    value = rows.get(key)
    return value if any(type(value) is type(one) and value == one for one in allowed) else usual


def _texts(rows: dict[str, Any], key: str) -> dict[str, str]:
    told = rows.get(key)
    return (
        {str(name): value for name, value in told.items() if isinstance(value, str)}
        if isinstance(told, dict)
        else {}
    )


def why_not(keys: str, name: str, settings: Settings) -> str:
    """Why a command cannot have these keys, in a sentence; nothing when it can."""
    sequence = QKeySequence(keys)
    if not keys:
        return ""
    if sequence.count() != 1 or sequence.toString() == "":
        return "One key, with or without Ctrl, Alt and Shift"
    text = sequence.toString()
    plain = "+" not in text.removeprefix("Shift+")
    if plain and text.removeprefix("Shift+") in _GIVEN:
        return f"{text} is what lists, fields and dialogs are worked with"
    if plain and not (text.removeprefix("Shift+").startswith("F") and text[-1].isdigit()) and text != "Del":
        return "Letters alone are for typing: take Ctrl or Alt with it, or one of F1 to F12"
    for entry in COMMANDS:
        held = settings.keys.get(entry.id, entry.key)
        if entry.id != name and held and QKeySequence(held) == sequence:
            return f"{text} is “{entry.text.rstrip('…')}”; give that another one first"
    return ""


class OwnSettings(QObject):
    """The settings of this machine. `changed` when one of them was set."""

    changed = pyqtSignal()

    def __init__(self) -> None:
        super().__init__()
        self.now = load_settings()

    def set(self, **values: object) -> None:
        """Set some, and remember them."""
        self.now = replace(self.now, **values)  # type: ignore[arg-type]
        remember("settings", asdict(self.now))
        self.changed.emit()
