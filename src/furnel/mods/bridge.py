"""The bridge: a mod that Furnel makes of all others, last in the load order, so that each of them is seen and heard.

What only one mod changes is done as it is there; where several change one file it holds all of it together. It is a mod like
any other: the game's own files and those of the other mods are not touched, and Remove takes it away.
"""

from __future__ import annotations

import hashlib
import json
from collections.abc import Mapping, Sequence
from dataclasses import asdict, dataclass, field
from pathlib import Path
from typing import Literal, NamedTuple

from furnel.atomic import scratch_in, write_bytes, write_text
from furnel.containers import Changes, Content, layout_to_write, write_archive
from furnel.digests import tree_digest
from furnel.errors import FurnelError
from furnel.folders import state_folder
from furnel.games import BRIDGE, Install, InstalledMod, read_order, read_stack
from furnel.mods.deploy import install_mod, presence, recover, remove_mod, reorder
from furnel.mods.meeting import Decisions, Read, Stand, stand_of
from furnel.progress import QUIET, Part, Progress
from furnel.words import count

WHAT = "Making a bridge"
State = Literal["", "current", "stale"]


@dataclass(frozen=True, slots=True)
class Bridge:
    """Where mods meet, and the paths of what the bridge has for that: none where they need no bridge."""

    stand: Stand
    paths: tuple[str, ...]


class _Member(NamedTuple):
    """A mod that a bridge was made of: the digest of its files, and their sizes and times, which are looked at first."""

    mod: str
    tree: str
    stamp: str


@dataclass(slots=True)
class _Kept:
    """What is remembered of a game's bridge: who is preferred, what was decided, and of which mods it was made."""

    prefer: list[str] = field(default_factory=list)
    decisions: list[tuple[str, str, str]] = field(default_factory=list)
    members: list[_Member] = field(default_factory=list)

    @property
    def decided(self) -> Decisions:
        """Who has its way, by path and address."""
        return {(path, address): mod for path, address, mod in self.decisions}


def members_of(install: Install) -> list[InstalledMod]:
    """The mods that a bridge is made of: those that are on, in load order."""
    return [mod for mod in read_stack(install) if mod.on and mod.id != BRIDGE]


def look_at_mods(
    install: Install,
    prefer: Sequence[str] | None = None,
    decisions: Decisions | None = None,
    progress: Progress = QUIET,
) -> Stand:
    """Where the enabled mods meet, as a bridge would have it, with what was decided before. Nothing is written."""
    _check_kind(install)
    _check_names(install, prefer, decisions)
    kept = _with(_read(install), prefer, decisions)
    return stand_of(install, members_of(install), kept.prefer, kept.decided, progress)


def make_bridge(
    install: Install,
    prefer: Sequence[str] | None = None,
    decisions: Decisions | None = None,
    progress: Progress = QUIET,
) -> Bridge:
    """Make the bridge anew, put it into the game and last in the load order; where none is needed the old one goes.

    `prefer` and `decisions` are remembered with those of before. Raises FurnelError, and everything is as it was.
    """
    recover(install)
    _check_kind(install)
    _check_names(install, prefer, decisions)
    kept, mods = _with(_read(install), prefer, decisions), members_of(install)
    kept.members = [_Member(mod.id, *_marks(install, mod.id)) for mod in mods]
    stand = stand_of(install, mods, kept.prefer, kept.decided, Part(progress, 0, 0.5))
    home = state_folder() / "bridges"
    with scratch_in(home) as scratch:
        paths = _write(install, stand, scratch, Part(progress, 0.5, 0.8))
        if paths:
            write_text(scratch / install.profile.mods.about, _about(install, mods, paths))
            install_mod(install, BRIDGE, scratch, Part(progress, 0.8, 1.0))
            _put_last(install)
        elif presence(install, BRIDGE, None)[0]:
            remove_mod(install, BRIDGE)
    write_text(_file(install), json.dumps(asdict(kept), indent=1))
    return Bridge(stand, tuple(paths))


def remove_bridge(install: Install, over: bool = False) -> str:
    """Take the bridge off; what was decided stays known. What is said afterwards, as of any mod."""
    return remove_mod(install, BRIDGE, over)


def bridge_state(install: Install) -> tuple[State, str]:
    """How the bridge stands in the game (empty: there is none), and why it is stale: it is read from the game's own folder."""
    if not install.profile.mods.has_order:
        return "", ""
    there, why = presence(install, BRIDGE, None)
    if not there:
        return "", ""
    if there == "foreign":
        return "stale", why
    order = read_order(install.order_file(), install.profile.mods.order_file)
    if there == "off" or not order or order[-1][0] != BRIDGE:
        return "stale", "it is switched off" if there == "off" else "it is not last in the load order"
    before, now = _read(install).members, members_of(install)
    if [member.mod for member in before] != [mod.id for mod in now]:
        return "stale", "the mods or their order are others now"
    for member in before:
        folder = install.mods_folder() / member.mod
        if _stamp(folder) != member.stamp and tree_digest(folder) != member.tree:
            return "stale", f"{member.mod} is another now"
    return "current", ""


def _marks(install: Install, mod: str) -> tuple[str, str]:
    folder = install.mods_folder() / mod
    return tree_digest(folder), _stamp(folder)


def _stamp(folder: Path) -> str:
    """The sizes and times of all files of a mod, as one digest."""
    whole = hashlib.sha256()
    for file in sorted(folder.rglob("*")):
        state = file.lstat()
        whole.update(
            f"{file.relative_to(folder).as_posix()}\0{state.st_size}\0{state.st_mtime_ns}\n".encode()
        )
    return whole.hexdigest()


def _check_kind(install: Install) -> None:
    if not install.profile.mods.has_order:
        raise FurnelError(
            WHAT, where=install.profile.name, why="its mods stand in the place of the game's own files, one for each of them",
            remedy="Open one of the mods and add the other one's files to it",
        )  # fmt: skip


def _check_names(install: Install, prefer: Sequence[str] | None, decisions: Decisions | None) -> None:
    """Refuse a mod that is none of those that are on; what is remembered of one that was waits for it."""
    there = {mod.id for mod in members_of(install)}
    if lost := sorted({*(prefer or ()), *(decisions or {}).values()} - there):
        known = ", ".join(sorted(there)) or "none"
        raise FurnelError(
            WHAT, where=lost[0], why="no such mod is switched on", remedy=f"Those that are: {known}"
        )


def _with(kept: _Kept, prefer: Sequence[str] | None, decisions: Decisions | None) -> _Kept:
    if prefer is not None:
        kept.prefer = [*dict.fromkeys(prefer)]
    told = {**kept.decided, **(decisions or {})}
    kept.decisions = [(path, address, mod) for (path, address), mod in told.items()]
    return kept


def _write(install: Install, stand: Stand, folder: Path, progress: Progress) -> list[str]:
    """The bridge's files below a folder; the paths of the assets that it has."""
    rule = install.profile.mods
    own: dict[str, Read] = {one.path: one.data for one in stand.meetings if one.data is not None}
    if rule.goes == "rebuilt":
        return _rebuilt(install, stand, own, folder, progress)
    if rule.goes == "archive" and own:
        contents: dict[str, Content] = {path: read() for path, read in own.items()}
        write_archive(
            folder / rule.archive.replace("{id}", BRIDGE), contents, layout_to_write(rule.layout), progress
        )
        return sorted(own)
    for path, read in own.items():
        write_bytes(folder / path, read())
        if (folder / path).read_bytes() != read():
            raise FurnelError(
                WHAT, where=path, why="what was read back is not what was written", remedy="Check the disk"
            )
    return sorted(own)


def _rebuilt(
    install: Install, stand: Stand, own: Mapping[str, Read], folder: Path, progress: Progress
) -> list[str]:
    """Copies of those archives that several mods have copies of, with what each of them changes."""
    out: list[str] = []
    for archive in install.archives:
        inside = archive.path.relative_to(install.folder)
        there = [mod.id for mod in stand.mods if (install.mods_folder() / mod.id / inside).exists()]
        if len(there) < 2 and not any(path in stand.has[mod] for mod in there for path in own):
            continue
        inner = {place.path: place.inner for place in install.places(archive)}
        wanted: dict[str, Read] = {}
        for mod in there:  # later ones win, but for what was decided
            for path, read in stand.has[mod].items():
                loose = archive.rule.layout == "folder" and path not in own  # others do not hide it
                if (path in inner or path.startswith(archive.prefix)) and not loose:
                    wanted[path] = own.get(path, read)
        if all(path in stand.has[there[-1]] and path not in own for path in wanted):
            continue
        replace = {inner[path]: read() for path, read in wanted.items() if path in inner}
        add = {
            path.removeprefix(archive.prefix): read() for path, read in wanted.items() if path not in inner
        }
        install.rewrite(archive, folder / inside, Changes(replace, add, sparse=True), progress)
        out += wanted
    return sorted(out)


def _put_last(install: Install) -> None:
    rule, file = install.profile.mods.order_file, install.order_file()
    order = read_order(file, rule)
    if order and order[-1] != (BRIDGE, True):
        reorder(install, [*(one for one in order if one[0] != BRIDGE), (BRIDGE, True)])


def _about(install: Install, mods: Sequence[InstalledMod], paths: Sequence[str]) -> str:
    rule = install.profile.mods
    names = ", ".join(mod.name for mod in mods)
    return rule.about_file.write(
        {
            "id": BRIDGE, "name": "Bridge", "version": "1.0", "author": "Furnel",
            "summary": f"Lets {names} live together: {count(len(paths), 'file')} that several of them change",
            "game-version": rule.game_version,
        }
    )  # fmt: skip


def _file(install: Install) -> Path:
    return state_folder() / "bridges" / f"{install.mark}.json"


def _read(install: Install) -> _Kept:
    try:
        told = json.loads(_file(install).read_text("utf-8"))
        decisions = [(str(path), str(address), str(mod)) for path, address, mod in told["decisions"]]
        members = [_Member(*map(str, member)) for member in told["members"]]
        return _Kept([*map(str, told["prefer"])], decisions, members)
    except (OSError, ValueError, TypeError, KeyError):
        return _Kept()
