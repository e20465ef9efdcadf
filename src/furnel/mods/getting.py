"""Mods of others: looked into before anything happens, put into the game, updated, taken off as safely as one's own."""

from __future__ import annotations

import re
from collections import Counter
from collections.abc import Iterator, Sequence
from contextlib import contextmanager
from dataclasses import dataclass, replace
from pathlib import Path
from typing import Literal

from furnel.atomic import scratch_in, write_text
from furnel.digests import file_digests
from furnel.errors import FurnelError
from furnel.folders import state_folder
from furnel.games import BRIDGE, Install, read_stack
from furnel.games.stack import read_mod
from furnel.mods.deploy import install_mod, presence, recover
from furnel.mods.inplace import ORIGINALS, originals_text
from furnel.mods.meeting import Meeting, places_of, stand_of
from furnel.mods.project import mod_id
from furnel.mods.unpacking import unpack_mod
from furnel.progress import QUIET, Part, Progress

WHAT = "Getting a mod"
_ID = re.compile(r"[a-z0-9][a-z0-9_-]{0,63}")
_DEEPEST = 4
Told = Literal["about", "paths"]


@dataclass(frozen=True, slots=True)
class Stranger:
    """Somebody else's mod, unpacked in a `folder` of its own and not in the game yet.

    It was `told` by a file about it or by the paths that it has. `replaces` are assets of the game, `more` what the game does
    not have, `changed` what is another now than in the one that is installed under its id (added, changed and gone files).
    """

    folder: Path
    id: str
    name: str
    version: str
    author: str
    told: Told
    replaces: tuple[str, ...]
    more: tuple[str, ...]
    there: str
    changed: tuple[str, ...]
    meetings: tuple[Meeting, ...]

    @property
    def said(self) -> str:
        """What it is, in a few words."""
        who = f" by {self.author}" if self.author else ""
        return f"{self.name} {self.version}{who}"


@contextmanager
def looked_into(
    install: Install, source: Path, mod: str = "", progress: Progress = QUIET
) -> Iterator[Stranger]:
    """A ZIP, 7z, TAR or folder as the mod that it is, unpacked while the block lasts. `mod` chooses from several.

    Raises FurnelError for what is not safe to unpack, and for what is no mod for this game.
    """
    with scratch_in(state_folder() / "looked-into") as scratch:
        home = scratch / "mod"
        home.mkdir()
        unpack_mod(source, home, Part(progress, 0, 0.7))
        yield _recognised(install, home, source, mod, Part(progress, 0.7, 1))


def get_mod(install: Install, stranger: Stranger, progress: Progress = QUIET, over: bool = False) -> Path:
    """Put a mod that was looked into into the game, switched on and last (a bridge aside), or update it in its place.

    A folder of its id that Furnel did not put there is only replaced when `over` says so. Of a game that knows no mods only
    files that it has itself are put in their place.
    """
    recover(install)
    rule = install.profile.mods
    if not rule.has_order:
        for path in stranger.more:  # nothing that the game does not have comes between its own files
            (stranger.folder / path).unlink()
        write_text(stranger.folder / ORIGINALS, originals_text(install, stranger.folder))
    if not (stranger.folder / rule.about).is_file():
        write_text(stranger.folder / rule.about, _about(install, stranger))
    return install_mod(install, stranger.id, stranger.folder, progress, over)


def _recognised(install: Install, home: Path, source: Path, wanted: str, progress: Progress) -> Stranger:
    rule = install.profile.mods
    known = _known(install)
    abouts = [
        file for file in sorted(home.rglob(rule.about)) if len(file.relative_to(home).parts) <= _DEEPEST + 1
    ]
    abouts = (
        [file for file in abouts if file.is_file() and not _is_in(file, abouts)] if rule.has_order else []
    )
    told: Told = "about" if abouts else "paths"
    if len(abouts) > 1:
        names = [file.parent.name for file in abouts]
        abouts = [file for file in abouts if file.parent.name == wanted]
        if not abouts:
            raise FurnelError(
                WHAT, where=source, why=f"it has {len(names)} mods in it: {', '.join(sorted(names))}",
                remedy="Say which one (--mod)",
            )  # fmt: skip
    folder = abouts[0].parent if abouts else _root_by_paths(home, known)
    facts = rule.about_file.read(_text(abouts[0])) if abouts else {}
    name = facts.get("name") or (folder.name if folder != home else source.name.partition(".")[0])
    mod = (facts.get("id") or (folder.name if folder != home else "")) if abouts else ""
    mod = mod or mod_id(name)
    if not _ID.fullmatch(mod):
        raise FurnelError(
            WHAT, where=source, why=f"it calls itself {mod!r}, which is no name for a folder",
            remedy="Ids are small letters, digits, - and _: ask whoever made it for another package",
        )  # fmt: skip
    if mod == BRIDGE:
        raise FurnelError(
            WHAT,
            where=source,
            why="it is a bridge, which is made for one game's own mods",
            remedy="Make one here",
        )
    files = sorted(file.relative_to(folder).as_posix() for file in folder.rglob("*") if file.is_file())
    files = [path for path in files if path != rule.about]
    replaces = tuple(path for path in files if path in known)
    if not abouts and not replaces:
        raise FurnelError(
            WHAT,
            where=source,
            why="nothing in it is called like anything of this game",
            remedy="Is it for another game?",
        )
    there, changed = _compared(install, mod, folder)
    meetings = _meetings(install, mod, folder, progress) if rule.has_order else ()
    return Stranger(
        folder, mod, name, facts.get("version") or "1.0", facts.get("author", ""), told, replaces,
        tuple(path for path in files if path not in known), there, changed, meetings,
    )  # fmt: skip


def _is_in(file: Path, others: Sequence[Path]) -> bool:
    """Whether a file about a mod lies in the folder of another one."""
    return any(other.parent in file.parent.parents for other in others)


def _known(install: Install) -> set[str]:
    """The paths that mods of a game have: of its assets, or of its archives."""
    rule = install.profile.mods
    if rule.goes in ("loose", "archive"):
        return set(places_of(install))
    out: set[str] = set()
    for archive in install.archives:
        inside = archive.path.relative_to(install.folder).as_posix()
        if archive.rule.layout == "folder":
            out |= {f"{inside}/{place.inner}" for place in install.places(archive)}
        else:
            out |= {inside, *(file.relative_to(install.folder).as_posix() for file in archive.beside)}
    return out


def _root_by_paths(home: Path, known: set[str]) -> Path:
    """The folder in which most files are called like the game's: the outermost of several."""
    found: Counter[Path] = Counter()
    for file in sorted(home.rglob("*")):
        parts = file.relative_to(home).parts
        if file.is_file():
            for deep in range(min(len(parts), _DEEPEST + 1)):
                found[home.joinpath(*parts[:deep])] += "/".join(parts[deep:]) in known
    return max(found, key=lambda folder: (found[folder], -len(folder.parts)), default=home)


def _compared(install: Install, mod: str, folder: Path) -> tuple[str, tuple[str, ...]]:
    """How a mod of that id is in the game, and which files are others there."""
    there = presence(install, mod, None)[0]
    if not there or not install.profile.mods.has_order:
        return there, ()
    old, new = file_digests(install.mods_folder() / mod), file_digests(folder)
    about = install.profile.mods.about
    return there, tuple(
        sorted(path for path in {*old, *new} if old.get(path) != new.get(path) and path != about)
    )


def _meetings(install: Install, mod: str, folder: Path, progress: Progress) -> tuple[Meeting, ...]:
    """Where it would meet the mods that are on, put last."""
    others = [one for one in read_stack(install) if one.on and one.id not in (mod, BRIDGE)]
    mine = read_mod(folder, install.profile.mods, True)
    stand = stand_of(install, [*others, replace(mine, id=mod)], progress=progress, elsewhere={mod: folder})
    return tuple(meeting for meeting in stand.meetings if mod in meeting.mods)


def _about(install: Install, stranger: Stranger) -> str:
    """A file about a mod that came without one."""
    rule = install.profile.mods
    return rule.about_file.write(
        {
            "id": stranger.id, "name": stranger.name, "version": stranger.version, "author": stranger.author,
            "game-version": rule.game_version,
        }
    )  # fmt: skip


def _text(file: Path) -> str:
    try:
        return file.read_text("utf-8")
    except (OSError, UnicodeDecodeError):
        return ""
