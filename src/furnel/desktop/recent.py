"""What was open last, so that the next start goes on there."""

from __future__ import annotations

from dataclasses import asdict, dataclass, fields

from furnel.remembered import recall, remember


@dataclass(frozen=True, slots=True)
class Recent:
    """The last project's file, or the last game's folder when there was no mod, the station and the swap shown,
    how game and mod are called, and the numbers on the strip."""

    project: str = ""
    game: str = ""
    station: str = "find"
    swap: str = ""
    game_name: str = ""
    mod_name: str = ""
    numbers: str = ""


def load_recent() -> Recent:
    """What was open last; nothing when that cannot be read."""
    found = recall("recent")
    known = {field.name for field in fields(Recent)}
    rows = found.items() if isinstance(found, dict) else ()
    return Recent(**{key: str(value) for key, value in rows if key in known})


def save_recent(recent: Recent) -> None:
    """Remember what is open."""
    remember("recent", asdict(recent))
