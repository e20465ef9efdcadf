"""What a package changes of the game's definitions, value by value, beside the ready files: another Furnel merges by it.

A ready definition has all that the game had when the mod was made: after an update of the game it would bring old values back.
"""

from __future__ import annotations

import hashlib
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import tomlkit

from furnel.errors import FurnelError
from furnel.mods.project import change_row
from furnel.mods.workspace import Examined
from furnel.schema import read_toml
from furnel.texts import Change, Document
from furnel.texts.patch import applied, disputes

PATCHES = "patches.toml"
_HEAD = """# What this mod changes in the game's definitions, value by value: tools that can merge read it, the game does not.
"""


@dataclass(frozen=True, slots=True)
class Patch:
    """The changes of one definition, and the SHA-256 of the ready file that they were made with."""

    digest: str
    changes: tuple[Change, ...]

    def on(self, ready: bytes, base: Document) -> Document | None:
        """The game's own definition with these changes; None where the ready file is another, or one has lost its place."""
        if hashlib.sha256(ready).hexdigest() != self.digest or disputes(base, self.changes):
            return None
        try:
            return applied(base, self.changes)
        except FurnelError:
            return None


def patches_text(examined: Sequence[Examined], ready: Mapping[str, bytes]) -> str:
    """The patches of a mod's definitions as the package has them; empty where there are none. `ready` are the files of the
    build by their path."""
    rows: list[dict[str, Any]] = []
    for one in sorted(examined, key=lambda one: one.swap.original):
        data = ready.get(one.swap.original)
        if one.swap.changes and data is not None:
            changes = [change_row(change) for change in one.swap.changes]
            rows.append(
                {"file": one.swap.original, "sha256": hashlib.sha256(data).hexdigest(), "changes": changes}
            )
    return _HEAD + tomlkit.dumps({"furnel-patches": 1, "patch": rows}) if rows else ""


def read_patches(folder: Path) -> dict[str, Patch]:
    """The patches in a mod's folder by the paths of definitions. What cannot be read is as if it were not there: the ready
    files say all that is needed."""
    try:
        told = read_toml((folder / PATCHES).read_text("utf-8"))
        if told.get("furnel-patches") != 1:
            return {}
        return {
            str(row["file"]): Patch(
                str(row["sha256"]), tuple(Change.model_validate(one) for one in row["changes"])
            )
            for row in told["patch"]
        }
    except (OSError, ValueError, KeyError, TypeError, AttributeError, RecursionError):
        return {}
