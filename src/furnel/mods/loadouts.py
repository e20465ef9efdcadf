"""Load-outs: named sets of mods in an order, switched as a whole and handed to others as a text.

A load-out says ids, names and versions and which are on; the mods themselves are not in it.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Literal

import tomlkit

from furnel.atomic import write_text
from furnel.errors import FurnelError, reason
from furnel.folders import state_folder
from furnel.games import BRIDGE, Install, InstalledMod, read_stack
from furnel.mods.deploy import reorder
from furnel.mods.project import mod_id
from furnel.schema import IdText, NameText, Part, PlainText, parse_toml

WHAT = "Reading a load-out"


class LoadedMod(Part):
    """A mod of a load-out."""

    id: IdText
    name: PlainText = ""
    version: PlainText = ""
    on: bool = True


class LoadOut(Part):
    """A set of mods of a game, in load order."""

    furnel_load_out: Literal[1]
    name: NameText
    game: IdText
    mods: tuple[LoadedMod, ...] = ()

    def text(self) -> str:
        """As it is kept, and handed on."""
        return tomlkit.dumps(self.model_dump(by_alias=True))


@dataclass(frozen=True, slots=True)
class Switched:
    """What a load-out could not bring about: mods that are not there, and those of another version (has, wants)."""

    missing: tuple[LoadedMod, ...]
    others: tuple[tuple[LoadedMod, str], ...]

    @property
    def said(self) -> str:
        """That in a sentence; empty when all is as it should be."""
        parts = [f"{one.name or one.id} {one.version}".strip() + " is not there" for one in self.missing]
        parts += [f"{one.name or one.id} is {has}, not {one.version}" for one, has in self.others]
        return "; ".join(parts)


def load_outs(install: Install) -> dict[str, LoadOut]:
    """The load-outs of a game by name; those that cannot be read are left out."""
    out = {}
    for file in sorted(_home(install).glob("*.toml")):
        try:
            found = read_load_out(file)
            out[found.name] = found
        except FurnelError:
            continue
    return out


def read_load_out(file: Path) -> LoadOut:
    """A load-out from its text. Raises FurnelError for damage and for what is none."""
    try:
        text = file.read_text("utf-8")
    except (OSError, UnicodeDecodeError) as error:
        why = reason(error) if isinstance(error, OSError) else "it is no text"
        raise FurnelError(WHAT, where=file, why=why, remedy="Take a fresh copy of it") from error
    return parse_toml(LoadOut, text, WHAT, file, "docs/several-mods.md")


def load_out_now(install: Install, name: str) -> LoadOut:
    """The mods of a game as they stand now, under a name."""
    mods = [
        LoadedMod(id=mod.id, name=mod.name, version=mod.version, on=mod.on)
        for mod in read_stack(install)
        if mod.id != BRIDGE
    ]
    return LoadOut(furnel_load_out=1, name=name, game=install.profile.id, mods=tuple(mods))


def keep_load_out(install: Install, found: LoadOut) -> Path:
    """Keep a load-out among the game's; one of the same name is replaced. Raises FurnelError for that of another game."""
    if found.game != install.profile.id:
        raise FurnelError(
            "Keeping a load-out", where=found.name, why=f"it is for {found.game}, and this is {install.profile.id}",
            remedy="Open that game",
        )  # fmt: skip
    file = _home(install) / f"{mod_id(found.name)}.toml"
    write_text(file, found.text())
    return file


def forget_load_out(install: Install, name: str) -> None:
    """Drop a load-out; the mods stay as they are."""
    for file in _home(install).glob("*.toml"):
        if file.stem == mod_id(name):
            file.unlink()
            return
    raise FurnelError(
        "Dropping a load-out", where=name, why="there is none of that name", remedy="List them first"
    )


def use_load_out(install: Install, found: LoadOut) -> Switched:
    """Switch and order the mods as a load-out says; others are switched off and come first, a bridge stays last."""
    if not install.profile.mods.has_order:
        raise FurnelError(
            "Using a load-out", where=install.profile.name, why="it has no load order",
            remedy="Install and remove mods one by one",
        )  # fmt: skip
    order, switched = standing_as(read_stack(install), found)
    reorder(install, order)
    return switched


def standing_as(stack: Sequence[InstalledMod], found: LoadOut) -> tuple[list[tuple[str, bool]], Switched]:
    """The load order that a load-out makes of some mods, and what it cannot bring about."""
    there = {mod.id: mod for mod in stack}
    wanted = {mod.id: mod for mod in found.mods if mod.id in there}
    order = [(mod, False) for mod in there if mod not in wanted and mod != BRIDGE]
    order += [(mod.id, mod.on) for mod in wanted.values()]
    order += [(BRIDGE, there[BRIDGE].on)] if BRIDGE in there else []
    others = ((mod, there[mod.id].version) for mod in wanted.values())
    return order, Switched(
        tuple(mod for mod in found.mods if mod.id not in there),
        tuple((mod, has) for mod, has in others if mod.version not in ("", has)),
    )


def _home(install: Install) -> Path:
    return state_folder() / "load-outs" / install.profile.id
