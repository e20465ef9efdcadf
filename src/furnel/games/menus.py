"""How games are started here, as the desktop's menu knows it.

Source: freedesktop.org, Desktop Entry Specification 1.5 and Desktop Menu Specification (where entries lie).
"""

from __future__ import annotations

import configparser
import os
import re
import shlex
from collections.abc import Iterator
from dataclasses import dataclass
from pathlib import Path

_CODES = re.compile(r"%[fFuUdDnNickvm]")
_MOST_BYTES = 1 << 20


@dataclass(frozen=True, slots=True)
class MenuEntry:
    """A program of the menu: what it is called, its command, where it is started (empty: anywhere), whether it is a game."""

    name: str
    command: tuple[str, ...]
    folder: str
    game: bool


def menu_entries(game: Path, name: str) -> list[MenuEntry]:
    """The programs of this desktop that may start a game: those that speak of its folder or are called like it, then games."""
    found: dict[tuple[str, ...], tuple[int, MenuEntry]] = {}
    for entry in _entries():
        fits = _fits(entry, game, name)
        if (fits or entry.game) and entry.command not in found:
            found[entry.command] = -fits, entry
    return [entry for _, entry in sorted(found.values(), key=lambda one: (one[0], one[1].name.casefold()))]


def fits_game(entry: MenuEntry, game: Path, name: str) -> bool:
    """Whether a program speaks of a game's folder, or is called like it."""
    return _fits(entry, game, name) > 0


def _fits(entry: MenuEntry, game: Path, name: str) -> int:
    places = [Path(part) for part in (*entry.command, entry.folder) if part.startswith("/")]
    if any(place.is_relative_to(game) for place in places):
        return 3
    wanted = {_plain(name), _plain(game.name)} - {""}
    called = {_plain(entry.name), _plain(Path(entry.command[0]).name)}
    if wanted & called:
        return 2
    return int(
        any(
            len(one) > 3 and (one in other or other in one)
            for one in wanted
            for other in called
            if len(other) > 3
        )
    )


def _plain(text: str) -> str:
    return re.sub(r"[\W_]+", "", text.casefold())


def _entries() -> Iterator[MenuEntry]:
    home = os.environ.get("XDG_DATA_HOME") or str(Path.home() / ".local/share")
    others = os.environ.get("XDG_DATA_DIRS") or "/usr/local/share:/usr/share"
    for folder in (home, *others.split(":")):
        for file in sorted(Path(folder, "applications").rglob("*.desktop")) if folder else ():
            if (entry := _read(file)) is not None:
                yield entry


def _read(file: Path) -> MenuEntry | None:
    parser = configparser.RawConfigParser(
        strict=False, delimiters=("=",), comment_prefixes=("#",), default_section="\0"
    )
    parser.optionxform = str  # type: ignore[assignment, method-assign]
    try:
        if file.stat().st_size > _MOST_BYTES:
            return None
        parser.read_string(file.read_text("utf-8"))
        told = dict(parser["Desktop Entry"])
        command = tuple(part.replace("%%", "%") for part in shlex.split(_CODES.sub("", told["Exec"])))
    except (OSError, ValueError, KeyError, configparser.Error):
        return None  # other programs' files: what is no entry is none
    if not command or told.get("Type") != "Application" or told.get("Terminal") == "true":
        return None
    game = "Game" in told.get("Categories", "").split(";")
    return MenuEntry(told.get("Name", file.stem), command, told.get("Path", ""), game)
