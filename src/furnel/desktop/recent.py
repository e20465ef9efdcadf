"""What was open last, so that the next start goes on there."""

from __future__ import annotations

import json
from dataclasses import dataclass
from pathlib import Path

from furnel.atomic import write_text
from furnel.errors import FurnelError
from furnel.folders import state_folder


@dataclass(frozen=True, slots=True)
class Recent:
    """The last project's file, or the last game's folder when there was no mod, and the theme."""

    project: str = ""
    game: str = ""
    theme: str = "dark"


def _file() -> Path:
    return state_folder() / "recent.json"


def load_recent() -> Recent:
    """What was open last; nothing when that cannot be read."""
    try:
        return Recent(**json.loads(_file().read_text("utf-8")))
    except (OSError, ValueError, TypeError):
        return Recent()


def save_recent(recent: Recent) -> None:
    """Remember what is open; that it cannot be remembered is no reason to stop anything."""
    try:
        write_text(
            _file(),
            json.dumps({"project": recent.project, "game": recent.game, "theme": recent.theme}) + "\n",
        )
    except FurnelError:
        return
