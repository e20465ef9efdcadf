"""What the user says of a game that is known already: its name, how mods reach it, how it is started."""

from __future__ import annotations

import shlex
from dataclasses import dataclass
from typing import Any

import tomlkit

from furnel.errors import FurnelError
from furnel.games.ownprofiles import edit_profile
from furnel.games.profile import Profile
from furnel.games.running import allow_commands

WHAT = "Changing what is known of a game"
WAYS = ("in-place", "mirror", "loose")


@dataclass(frozen=True, slots=True)
class Told:
    """What can be said in the window: how mods go (empty: as the profile says, which is another way), the folder for them, the
    command that starts the game, the folder that it is started in, its environment as lines of NAME=value."""

    name: str
    version: str
    goes: str
    folder: str
    play: str
    start_in: str
    environment: str


def told_of(profile: Profile) -> Told:
    """What a profile says."""
    mods, start = profile.mods, profile.start
    lines = "\n".join(f"{name}={value}" for name, value in start.environment.items())
    goes = mods.goes if mods.goes in WAYS else ""
    return Told(
        profile.name, mods.game_version, goes, mods.folder, shlex.join(start.play), start.folder, lines
    )


def change_profile(profile: Profile, told: Told) -> Profile:
    """Write what is said into the user's own profile, of which all else stays as it is; what it runs is allowed with that.

    Raises FurnelError for a profile that came with Furnel, and for what cannot be said so.
    """
    changed = edit_profile(profile, WHAT, lambda document: _say(document, told))
    allow_commands(changed)
    return changed


def _say(document: Any, told: Told) -> None:
    _set(document, "name", told.name)
    mods = document["mods"]
    _set(mods, "game-version", told.version or None)
    if told.goes:
        _go(mods, told)
    start = document.setdefault("start", tomlkit.table())
    _set(start, "play", list(command_of(told.play)) or None)
    _set(start, "folder", told.start_in or None)
    _set(start, "environment", environment_of(told.environment) or None)
    if not start:
        del document["start"]


def with_start(profile: Profile, told: Told) -> Profile:
    """A profile that starts the game as is said, which is allowed with that; nothing is written."""
    start = profile.start.model_copy(
        update={
            "play": command_of(told.play),
            "folder": told.start_in,
            "environment": environment_of(told.environment),
        }
    )
    changed = profile.model_copy(update={"start": start})
    allow_commands(changed)
    return changed


def command_of(text: str) -> tuple[str, ...]:
    """A command as its parts. Raises FurnelError where a quote is left open."""
    try:
        return tuple(shlex.split(text))
    except ValueError as error:
        raise FurnelError(
            WHAT, where=text, why=f"it is no command ({error})", remedy="Close the quotes, as in a terminal"
        ) from error


def environment_of(text: str) -> dict[str, str]:
    """Lines of NAME=value as what they say. Raises FurnelError for a line without a name."""
    out = {}
    for line in filter(None, map(str.strip, text.splitlines())):
        name, sign, value = line.partition("=")
        if not sign or not name.isidentifier():
            raise FurnelError(
                WHAT,
                where=line,
                why="it does not say what is set to what",
                remedy="Write NAME=value, one a line",
            )
        out[name] = value
    return out


def _go(mods: Any, told: Told) -> None:
    _set(mods, "goes", told.goes)
    _set(mods, "folder", told.folder if told.goes != "in-place" else None)
    loose = told.goes == "loose"
    for key, usual in (("about", "mod.toml"), ("order", f"{told.folder}/order.toml")):
        if not loose:
            _set(mods, key, None)
        elif key not in mods:
            _set(mods, key, usual)


def _set(table: Any, key: str, value: object) -> None:
    """Write a value, or take it out (None); what is the same keeps its form."""
    if value is None:
        table.pop(key, None)
    elif key not in table or table[key] != value:
        table[key] = value
