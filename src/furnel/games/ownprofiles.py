"""The user's own profiles as files: found, and changed with everything else in them left as it is."""

from __future__ import annotations

from collections.abc import Callable
from pathlib import Path
from typing import Any

import tomlkit
from tomlkit.exceptions import TOMLKitError

from furnel.atomic import write_text
from furnel.errors import FurnelError
from furnel.games.profile import Profile, parse_profile, profiles_folder


def profile_file(profile: Profile) -> Path | None:
    """The user's own file of a profile; None for one that came with Furnel."""
    for file in sorted(profiles_folder().glob("*.toml")):
        try:
            if parse_profile(file.read_text("utf-8"), file).id == profile.id:
                return file
        except (OSError, ValueError, FurnelError):
            continue  # it is said where games are opened
    return None


def edit_profile(profile: Profile, what: str, change: Callable[[Any], None]) -> Profile:
    """Let `change` write into the document of the user's own profile; it is kept when it is one again afterwards.

    Raises FurnelError for a profile that came with Furnel, for a damaged file, and for what a profile cannot say.
    """
    file = profile_file(profile)
    if file is None:
        raise FurnelError(
            what,
            where=profile.name,
            why="its profile came with Furnel",
            remedy=f"Put a profile of your own with the id {profile.id} into {profiles_folder()}",
        )
    try:
        document = tomlkit.parse(file.read_text("utf-8"))
    except (OSError, UnicodeDecodeError, TOMLKitError) as error:
        raise FurnelError(what, where=file, why=str(error), remedy="Mend the file, then try again") from error
    change(document)
    text = tomlkit.dumps(document)
    changed = parse_profile(text, file).beside(file.parent)
    write_text(file, text)
    return changed
