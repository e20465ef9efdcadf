"""Profiles: TOML files that describe one game each. See docs/profiles.md."""

from __future__ import annotations

import fnmatch
from functools import cache
from importlib import resources
from pathlib import Path
from typing import Literal

from pydantic import Field

from furnel.errors import FurnelError, reason
from furnel.schema import Part, parse_toml

WHAT = "Reading a profile"

RoleName = Literal[
    "surface",
    "hull",
    "sail",
    "light",
    "backdrop",
    "emblem",
    "sheet",
    "gauge",
    "badge",
    "normal map",
    "tinted",
    "mask",
    "event sound",
    "loop",
    "definition",
]


class ArchiveRule(Part):
    """Which files of an install are archives, what layout they have and what goes before their inner paths.

    `layout` is a layout's name, `zip` or `folder`; `{stem}` in `prefix` stands for the file's name without ending.
    """

    files: str
    layout: str
    prefix: str = ""


class RoleRule(Part):
    """What the game uses assets of these paths for, and what that demands beyond their bytes.

    `channels` says what the channels mean where that is not told by looking, `keep-out` areas (left, top, width, height)
    that the game covers or never shows. For previews: a gauge's `level` that fills and the `glow` over it, a `tints` list
    of colours (six hex digits) that the game multiplies with, and what a glow `lights`; inner paths, where `{folder}` and
    `{stem}` stand for the asset's own.
    """

    path: str
    role: RoleName
    cell: tuple[int, int] | None = None
    tiles: Literal["no", "across", "down", "both"] = "no"
    channels: Literal["colour", "grey", "normals", "masks"] | None = None
    keep_out: tuple[tuple[int, int, int, int], ...] = ()
    level: str = ""
    glow: str = ""
    lights: str = ""
    tints: tuple[str, ...] = ()
    why: str = ""


class ModRule(Part):
    """Where mods go: a folder each, with a file about the mod, and one file with the load order."""

    folder: str
    about: str
    order: str
    game_version: str


class Recognise(Part):
    """Files that an install of this game has."""

    files: tuple[str, ...] = Field(min_length=1)


class StartRule(Part):
    """Commands for the game; `{game}`, `{scene}`, `{tick}` and `{out}` are filled in. `python` is Furnel's own."""

    play: tuple[str, ...] = ()
    still: tuple[str, ...] = ()
    still_without_mods: tuple[str, ...] = ()
    report: tuple[str, ...] = ()
    scenes: tuple[str, ...] = ()


class Profile(Part):
    """One game."""

    furnel_profile: Literal[1]
    id: str = Field(pattern=r"^[a-z][a-z0-9-]*$")
    name: str
    recognise: Recognise
    archives: tuple[ArchiveRule, ...] = Field(min_length=1)
    roles: tuple[RoleRule, ...] = ()
    mods: ModRule
    start: StartRule = StartRule()
    titles: dict[str, str] = {}

    def role_of(self, path: str) -> RoleRule | None:
        """The first rule whose pattern matches an inner path."""
        return next((rule for rule in self.roles if fnmatch.fnmatchcase(path, rule.path)), None)

    def recognises(self, folder: Path) -> bool:
        """Whether a folder has what installs of this game have."""
        return all(any(folder.glob(pattern)) for pattern in self.recognise.files)


def parse_profile(text: str, where: object) -> Profile:
    """A profile from its TOML text. Raises FurnelError that names the key, what was found and what is allowed."""
    return parse_toml(Profile, text, WHAT, where, "docs/profiles.md")


@cache
def shipped_profiles() -> dict[str, Profile]:
    """The profiles that come with Furnel, by id."""
    folder = resources.files("furnel.games") / "profiles"
    found = [
        parse_profile(file.read_text("utf-8"), file.name)
        for file in folder.iterdir()
        if file.name.endswith(".toml")
    ]
    return {profile.id: profile for profile in found}


def recognise(folder: Path) -> Profile:
    """The profile of the game in `folder`. Raises FurnelError when none fits."""
    if not folder.is_dir():
        raise FurnelError(
            "Opening a game", where=folder, why="there is no such folder", remedy="Check the path"
        )
    try:
        for profile in shipped_profiles().values():
            if profile.recognises(folder):
                return profile
    except OSError as error:
        raise FurnelError("Opening a game", where=folder, why=reason(error)) from error
    known = ", ".join(profile.name for profile in shipped_profiles().values())
    raise FurnelError(
        "Opening a game",
        where=folder,
        why="no profile recognises it",
        remedy=f"Choose the folder of one of: {known}",
    )
