"""What was open last, so that the next start goes on there."""

from __future__ import annotations

import json
from dataclasses import asdict, dataclass, fields
from pathlib import Path

from furnel.atomic import write_text
from furnel.errors import FurnelError
from furnel.folders import state_folder


@dataclass(frozen=True, slots=True)
class Recent:
    """The last project's file, or the last game's folder when there was no mod, the theme, the station and the swap shown,
    and how game and mod are called."""

    project: str = ""
    game: str = ""
    theme: str = "dark"
    station: str = "find"
    swap: str = ""
    game_name: str = ""
    mod_name: str = ""


def _file() -> Path:
    return state_folder() / "recent.json"


def load_recent() -> Recent:
    """What was open last; nothing when that cannot be read."""
    try:
        found = json.loads(_file().read_text("utf-8"))
        known = {field.name for field in fields(Recent)}
        return Recent(**{key: str(value) for key, value in found.items() if key in known})
    except (OSError, ValueError, TypeError, AttributeError):
        return Recent()


def save_recent(recent: Recent) -> None:
    """Remember what is open; that it cannot be remembered is no reason to stop anything."""
    try:
        write_text(_file(), json.dumps(asdict(recent)) + "\n")
    except FurnelError:
        return
