"""The stack: the game plus its mods in load order; the last enabled one wins."""

from __future__ import annotations

import tomllib
from dataclasses import dataclass
from pathlib import Path

import tomlkit
from tomlkit.exceptions import TOMLKitError

from furnel.atomic import write_text
from furnel.errors import FurnelError, reason
from furnel.games.install import Install

WHAT = "Reading the load order"


@dataclass(frozen=True, slots=True)
class InstalledMod:
    """A mod in the game's mods folder: what it says of itself, whether it is on, and the paths it overrides."""

    id: str
    name: str
    version: str
    on: bool
    paths: tuple[str, ...]


@dataclass(frozen=True, slots=True)
class Clash:
    """A path that several enabled mods override, in load order; the last one is seen."""

    path: str
    mods: tuple[str, ...]


def read_stack(install: Install) -> list[InstalledMod]:
    """The installed mods in load order; mods that the order does not know come last, switched off."""
    order = read_order(install.order_file())
    folder = install.mods_folder()
    present = (
        {sub.name for sub in folder.iterdir() if (sub / install.profile.mods.about).is_file()}
        if folder.is_dir()
        else set()
    )
    known = [(mod, on) for mod, on in order if mod in present]
    known += [(mod, False) for mod in sorted(present - {mod for mod, _ in known})]
    return [_read_mod(folder / mod, install.profile.mods.about, on) for mod, on in known]


def clashes(stack: list[InstalledMod]) -> list[Clash]:
    """Every path that more than one enabled mod overrides."""
    users: dict[str, list[str]] = {}
    for mod in stack:
        for path in mod.paths if mod.on else ():
            users.setdefault(path, []).append(mod.id)
    return [Clash(path, tuple(mods)) for path, mods in sorted(users.items()) if len(mods) > 1]


def read_order(path: Path) -> list[tuple[str, bool]]:
    """Mod ids with their switches, in load order; empty when there is no such file."""
    try:
        raw = tomllib.loads(path.read_text("utf-8")) if path.is_file() else {}
    except (OSError, UnicodeDecodeError, tomllib.TOMLDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else str(error)
        raise FurnelError(WHAT, where=path, why=why, remedy="Correct or delete the file") from error
    entries = raw.get("mod", [])
    if not isinstance(entries, list) or not all(
        isinstance(entry, dict) and isinstance(entry.get("id"), str) for entry in entries
    ):
        raise FurnelError(
            WHAT,
            where=path,
            why="it should list [[mod]] tables with an id each",
            remedy="Correct or delete the file",
        )
    return [(entry["id"], bool(entry.get("on", True))) for entry in entries]


def write_order(path: Path, order: list[tuple[str, bool]]) -> None:
    """Replace the load order, keeping the comments above it."""
    try:
        document = tomlkit.parse(path.read_text("utf-8")) if path.is_file() else tomlkit.document()
    except (OSError, UnicodeDecodeError, TOMLKitError) as error:
        raise FurnelError("Writing the load order", where=path, why=str(error)) from error
    tables = tomlkit.aot()
    for mod, on in order:
        table = tomlkit.table()
        table.add("id", mod)
        table.add("on", on)
        tables.append(table)
    document.pop("mod", None)
    if order:
        document.add("mod", tables)
    write_text(path, tomlkit.dumps(document))


def _read_mod(folder: Path, about: str, on: bool) -> InstalledMod:
    try:
        raw = tomllib.loads((folder / about).read_text("utf-8"))
    except (OSError, UnicodeDecodeError, tomllib.TOMLDecodeError):
        raw = {}
    paths = tuple(
        sorted(
            file.relative_to(folder).as_posix()
            for file in folder.rglob("*")
            if file.is_file() and file.name != about and not file.name.startswith(".")
        )
    )
    return InstalledMod(
        folder.name, str(raw.get("name", folder.name)), str(raw.get("version", "?")), on, paths
    )
