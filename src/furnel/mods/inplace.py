"""Mods of games without a mods folder: files in the place of the game's own (or in a folder that mirrors the game's paths).

The game's own files are kept, proven by their digests, and come back with Remove. All files and the record of them change as
one: killed at any step, the next start finds the mod as it was before or as it was to be.
"""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import shutil
from collections.abc import Mapping
from dataclasses import replace
from pathlib import Path
from typing import BinaryIO, Literal

from furnel.atomic import replacing, replacing_together, scratch_in, write_text
from furnel.digests import file_digest, tree_digest
from furnel.errors import FurnelError, reason
from furnel.games import Install
from furnel.games.originals import (
    RECORD,
    Placed,
    PlacedFile,
    kept_file,
    placed_home,
    read_placed,
    stands,
)
from furnel.mods.together import Version, shared_with
from furnel.progress import QUIET, Progress, check, steps

ORIGINALS = "originals.json"
"""The file in a build that says from which of the game's own files it was made: their paths and SHA-256."""
Presence = Literal["", "built", "other", "off", "foreign"]
_PIECE = 1 << 20
_INSTALLING, _REMOVING = "Installing the mod", "Removing the mod"


def install_files(
    install: Install, mod: str, build: Path, progress: Progress = QUIET, over: bool = False
) -> Path:
    """Put a build's files in their places; the folder below which they are.

    Refused where the game's own files are not those that the build was made from, and where another mod stands already.
    What somebody changed since Furnel put it there is only replaced when `over` says so.
    """
    recover_files(install)
    root, old = install.mods_root(), read_placed(install.folder, mod)
    wanted = _wanted(install, build)
    if (changed := changed_files(install, mod)) and not over and not _all_new(install, changed, build):
        raise FurnelError(
            _INSTALLING, where=install.folder / changed[0],
            why="it is not what Furnel put there: the game was updated, or somebody changed it",
            remedy="Look at it, then install over it if you want to: what is there now will be kept as the game's own",
        )  # fmt: skip
    _check_links(install, wanted)
    _check_originals(install, build)
    before = _keep(install, mod, wanted, old, progress)
    drop = {path: put for path, put in (old.files if old else {}).items() if path not in wanted}
    rule = install.profile.mods
    about = rule.about_file.read((build / rule.about).read_text("utf-8"))
    name = about.get("name") or mod
    placed = Placed(mod, name, about.get("version") or "?", tree_digest(build), {})
    _put(install, placed, wanted, before, drop, progress)
    return root


def _put(
    install: Install, placed: Placed, wanted: Mapping[str, Path], before: Mapping[str, str],
    drop: Mapping[str, PlacedFile], progress: Progress = QUIET,
) -> None:  # fmt: skip
    """Files into their places, those of `drop` back or away, and the records of all who share them: all as one."""
    mod, home = placed.mod, placed_home(install.folder)
    mine = {path: put for path, put in drop.items() if stands(install.folder / path, put)}
    back = {path: kept_file(install.folder, mod, path) for path, put in mine.items() if put.before}
    with scratch_in(home.parent) as scratch:
        shared = shared_with(install, Version(placed.name, wanted), mod, mine, scratch, progress)
        clear = tuple(path for path in mine if path not in back and path not in shared.files)
        sources = {**back, **wanted, **shared.files}
        targets = [*(install.folder / path for path in sources), *shared.apart]
        records = [home / one.mod / RECORD for one in (*shared.others, placed)]
        stood: dict[str, tuple[str, int, int]] = {}
        with replacing_together([*targets, *records]) as outs:
            for number, (path, source) in enumerate(sources.items()):
                check(progress, _INSTALLING)
                progress.report(0.5 + number / len(sources) / 2, f"Installing {path}")
                stood[path] = _copy(source, outs[number], keep_time=source == back.get(path))
            for source, out in zip(shared.apart.values(), outs[len(sources) :], strict=False):
                _copy(source, out, keep_time=True)
            for other, out in zip(shared.others, outs[len(targets) :], strict=False):
                files = {
                    path: PlacedFile(one.before, *stood.get(path, (one.after, one.size, one.time)))
                    for path, one in other.files.items()
                }
                out.write(replace(other, files=files).text().encode())
            files = {path: PlacedFile(before[path], *stood[path]) for path in wanted}
            placed = replace(placed, files=files, clear=clear)
            outs[-1].write(placed.text().encode())
    _clear(install, placed)
    for path in back:
        kept_file(install.folder, mod, path).unlink(missing_ok=True)


def remove_files(install: Install, mod: str, over: bool = False) -> str:
    """Bring the game's own files back; what is said afterwards. Raises FurnelError for what was changed since, unless `over`:
    then that stays as it is now."""
    recover_files(install)
    placed = read_placed(install.folder, mod)
    if placed is None:
        raise FurnelError(
            _REMOVING, where=mod, why="Furnel has not installed it here",
            remedy="If its files are in the game, let the game repair itself",
        )  # fmt: skip
    changed = changed_files(install, mod)
    if changed and not over:
        raise FurnelError(
            _REMOVING, where=install.folder / changed[0],
            why="it is not what Furnel put there: the game was updated, or somebody changed it",
            remedy="Remove it all the same to leave such files as they are and bring back the others",
        )  # fmt: skip
    mine = {path: put for path, put in placed.files.items() if stands(install.folder / path, put)}
    back = [path for path, put in mine.items() if put.before]
    for path in back:
        kept = kept_file(install.folder, mod, path)
        if not kept.is_file() or file_digest(kept) != mine[path].before:
            raise FurnelError(
                _REMOVING, where=kept, why="the game's own file, which was kept there, is gone or was changed",
                remedy="Let the game repair itself, then remove the mod",
            )  # fmt: skip
    _put(install, replace(placed, files={}), {}, {}, mine)
    if changed:
        return f"The mod is off; {', '.join(changed[:3])} was changed by others and stays as it is"
    return "The game's files are as they were before"


def changed_files(install: Install, mod: str) -> list[str]:
    """Files of a mod in the game that are not what Furnel put there any more, nor what was there before."""
    placed = read_placed(install.folder, mod)
    out = []
    for path, put in (placed.files if placed else {}).items():
        file = install.folder / path
        if not stands(file, put) and (file_digest(file) if file.is_file() else "") != put.before:
            out.append(path)
    return out


def presence_of(install: Install, mod: str, built: Path | None) -> tuple[Presence, str]:
    """How a mod is in the game, as `deploy.presence` tells it."""
    placed = read_placed(install.folder, mod)
    if placed is None:
        return "", ""
    lost = [path for path, put in placed.files.items() if not stands(install.folder / path, put)]
    if lost:
        return (
            "foreign",
            f"{lost[0]} is not what Furnel put there: the game was updated, or somebody changed it",
        )
    return ("built" if built is not None and tree_digest(built) == placed.tree else "other"), ""


def recover_files(install: Install) -> None:
    """Bring to an end what was interrupted: files that have to go, kept files of mods that are not there."""
    home = placed_home(install.folder)
    for place in sorted(home.iterdir()) if home.is_dir() else ():
        placed = read_placed(install.folder, place.name)
        if placed is None:
            shutil.rmtree(place, ignore_errors=True)
        elif placed.clear or not placed.files:
            _clear(install, placed)


def originals_text(install: Install, folder: Path) -> str:
    """What `ORIGINALS` says of a build in `folder`: the game's own files of the same paths."""
    files = sorted(file.relative_to(folder) for file in folder.rglob("*") if file.is_file())
    return json.dumps({path.as_posix(): _own_digest(install, path) for path in files}, indent=1) + "\n"


def _own_digest(install: Install, path: Path | str) -> str:
    """The digest of the game's own file at a path below its folder; empty where it has none."""
    own = install.own(install.folder / path)
    return file_digest(own) if own is not None and own.is_file() else ""


def _wanted(install: Install, build: Path) -> dict[str, Path]:
    """A build's files by where they go, below the game's folder."""
    root = install.mods_root()
    left_out = {build / install.profile.mods.about, build / ORIGINALS}
    files = [file for file in sorted(build.rglob("*")) if file.is_file() and file not in left_out]
    return {install.below(root / file.relative_to(build)): file for file in files}


def _originals(build: Path) -> Mapping[str, str]:
    try:
        told = json.loads((build / ORIGINALS).read_text("utf-8"))
        return {str(path): str(digest) for path, digest in told.items()}
    except (OSError, ValueError, AttributeError) as error:
        raise FurnelError(
            _INSTALLING, where=build / ORIGINALS, why="it cannot be told which of the game's files the build was made from",
            remedy="Build the mod again",
        ) from error  # fmt: skip


def _all_new(install: Install, changed: list[str], build: Path) -> bool:
    """Whether a build was made from what is there now in the place of what Furnel had put there."""
    known = _originals(build)
    return all(known.get(path) == _own_digest(install, path) for path in changed)


def _check_originals(install: Install, build: Path) -> None:
    for path, digest in _originals(build).items():
        if _own_digest(install, path) != digest:
            raise FurnelError(
                _INSTALLING, where=install.folder / path,
                why="it is not the file that the mod was built from: the game was updated since",
                remedy="Build the mod again, on the game as it is now",
            )  # fmt: skip


def _check_links(install: Install, wanted: Mapping[str, Path]) -> None:
    """Refuse what would be written to somewhere else: through a link, as games have them to files of the system's."""
    for path in wanted:
        file = install.folder / path
        homes = install.folder, install.mods_root().resolve()
        if file.is_symlink() or not any(file.parent.resolve().is_relative_to(home) for home in homes):
            raise FurnelError(
                _INSTALLING, where=file, why="it is a link, and what it leads to belongs to others",
                remedy="Put a copy in the place of the link first, if the game may have one of its own",
            )  # fmt: skip


def _keep(
    install: Install, mod: str, wanted: Mapping[str, Path], old: Placed | None, progress: Progress
) -> dict[str, str]:
    """Keep the game's own files; their digests."""
    before = {}
    for path in steps(list(wanted), len(wanted) * 2, progress, "Keeping the game's own files"):
        file, kept = install.folder / path, kept_file(install.folder, mod, path)
        put = old.files.get(path) if old else None
        if put is None or not stands(file, put):
            own = install.own(file)  # also where another mod stands
            before[path] = _keep_one(install, own, kept) if own is not None and own.is_file() else ""
            continue
        before[path] = put.before
        if put.before and (not kept.is_file() or file_digest(kept) != put.before):
            raise FurnelError(
                _INSTALLING, where=kept, why="the game's own file, which was kept there, is gone or was changed",
                remedy="Remove the mod all the same, let the game repair itself, then install it again",
            )  # fmt: skip
    return before


def _keep_one(install: Install, own: Path, kept: Path) -> str:
    """A copy of a file, with its time, and of what lies beside it under the same name; its digest, as it was read back."""
    with replacing(kept) as out:
        digest, _, _ = _copy(own, out, keep_time=True)
    for sibling in own.parent.iterdir():
        beside = kept.with_name(sibling.name)
        if sibling != own and sibling.stem == own.stem and sibling.is_file() and not beside.exists():
            shutil.copy2(install.own(sibling) or sibling, beside)
    return digest


def _copy(source: Path, out: BinaryIO, keep_time: bool) -> tuple[str, int, int]:
    """Copy a file's bytes and read them back; their digest, size and time."""
    try:
        wanted, there = hashlib.sha256(), hashlib.sha256()
        with source.open("rb") as stream:
            while piece := stream.read(_PIECE):
                wanted.update(piece)
                out.write(piece)
        out.flush()
        out.seek(0)
        while piece := out.read(_PIECE):
            there.update(piece)
        digest = there.hexdigest()
        if digest != wanted.hexdigest():
            raise FurnelError(
                _INSTALLING,
                where=source,
                why="what was read back is not what was written",
                remedy="Check the disk",
            )
        if keep_time:
            state = source.stat()
            os.utime(out.fileno(), ns=(state.st_atime_ns, state.st_mtime_ns))
        state = os.fstat(out.fileno())
        return digest, state.st_size, state.st_mtime_ns
    except OSError as error:
        raise FurnelError(
            _INSTALLING, where=source, why=reason(error), remedy="Check the free space"
        ) from error


def _clear(install: Install, placed: Placed) -> None:
    """Delete what has to go, empty folders with it; then the record says so, or is gone with everything kept."""
    for path in placed.clear:
        file = install.folder / path
        file.unlink(missing_ok=True)
        with contextlib.suppress(OSError):  # up to the first that holds something
            for above in file.parents:
                if above in (install.folder, Path.home()):
                    break
                above.rmdir()
    home = placed_home(install.folder) / placed.mod
    if placed.files:
        if placed.clear:
            write_text(home / RECORD, replace(placed, clear=()).text())
    else:
        (home / RECORD).unlink(missing_ok=True)
        shutil.rmtree(home, ignore_errors=True)
