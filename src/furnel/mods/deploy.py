"""Installing a build into a game's mods folder and taking it off again, with a journal that survives being killed.

The journal and what an install replaced lie in the user's state folder, so that the game's folder holds nothing but mods.
"""

from __future__ import annotations

import hashlib
import json
import shutil
from dataclasses import asdict, dataclass
from pathlib import Path
from typing import Literal

from furnel.atomic import sync_folder, write_bytes, write_text
from furnel.errors import FurnelError, reason
from furnel.folders import state_folder
from furnel.games import Install, read_order, write_order
from furnel.progress import QUIET, Progress, check

Phase = Literal["installing", "installed", "removing"]
WHAT = "Installing the mod"


@dataclass(frozen=True, slots=True)
class Journal:
    """What an install did, and what was there before: enough to bring it back."""

    mod: str
    game: str
    phase: Phase
    had_mod: bool
    had_folder: bool
    order_before: str | None
    order_after: str | None = None


def installs_folder() -> Path:
    """Where journals and replaced mods are kept."""
    return state_folder() / "installs"


def install_mod(install: Install, mod: str, build: Path, progress: Progress = QUIET) -> Path:
    """Put a build in the mods folder and switch it on, last in the load order. The folder of the installed mod.

    Either everything is done or, also after being killed, nothing (see `recover`).
    """
    if not build.is_dir():
        raise FurnelError(WHAT, where=build, why="it is not built yet", remedy="Build it first")
    recover(install)
    keep = _keep(install, mod)
    journal = _read(keep)
    if journal is not None and journal.phase == "installed":
        _replace_content(install, mod, build, progress)
        if dict(read_order(_order(install))).get(mod) is not True:
            _switch_on(install, mod, keep, journal)
        return install.mods_folder() / mod
    order_file, target = _order(install), install.mods_folder() / mod
    try:
        before = order_file.read_text("utf-8") if order_file.is_file() else None
        journal = Journal(
            mod, str(install.folder), "installing", target.exists(), install.mods_folder().is_dir(), before
        )
        shutil.rmtree(keep, ignore_errors=True)
        keep.mkdir(parents=True)
        if target.exists():
            shutil.copytree(target, keep / "replaced")
        _write(keep, journal)
        _replace_content(install, mod, build, progress)
        _switch_on(install, mod, keep, journal)
    except FurnelError:
        recover(install)
        raise
    except OSError as error:
        recover(install)
        raise FurnelError(
            WHAT, where=install.mods_folder(), why=reason(error), remedy="The game is as it was before"
        ) from error
    return target


def remove_mod(install: Install, mod: str) -> str:
    """Take an installed mod off. What is said afterwards: that the folder is as it was, or what else changed meanwhile."""
    recover(install)
    keep = _keep(install, mod)
    journal = _read(keep)
    if journal is None:
        raise FurnelError(
            "Removing the mod",
            where=mod,
            why="Furnel has not installed it here",
            remedy="Delete its folder by hand if you put it there",
        )
    try:
        order = _order(install)
        now = order.read_text("utf-8") if order.is_file() else None
        untouched = now == journal.order_after
        _write(keep, Journal(**{**asdict(journal), "phase": "removing"}))
        _undo(install, journal, keep)
    except OSError as error:
        raise FurnelError(
            "Removing the mod", where=mod, why=reason(error), remedy="Try again: it goes on where it stopped"
        ) from error
    if untouched:
        return "The mods folder is as it was before"
    return "The mod is off; the load order was changed by others meanwhile and keeps their changes"


def is_installed(install: Install, mod: str) -> bool:
    """Whether Furnel has this mod installed in this game."""
    journal = _read(_keep(install, mod))
    return journal is not None and journal.phase == "installed"


def recover(install: Install) -> list[str]:
    """Bring interrupted installs and removals of this game to an end; the mods that were concerned."""
    folder = installs_folder() / _mark(install)
    done = []
    for keep in sorted(folder.iterdir()) if folder.is_dir() else ():
        journal = _read(keep)
        if journal is None:
            shutil.rmtree(keep, ignore_errors=True)
        elif journal.phase != "installed":
            _undo(install, journal, keep)
            done.append(journal.mod)
    return done


def _replace_content(install: Install, mod: str, build: Path, progress: Progress) -> None:
    """Swap the mod's folder for a copy of the build, through a folder beside it that the game does not look at."""
    mods = install.mods_folder()
    fresh, old, target = mods / f".{mod}.next", mods / f".{mod}.old", mods / mod
    for rest in (fresh, old):
        shutil.rmtree(rest, ignore_errors=True)
    files = sorted(file for file in build.rglob("*") if file.is_file())
    try:
        for number, file in enumerate(files):
            check(progress, WHAT)
            progress.report(number / len(files), f"Installing {file.name}")
            write_bytes(fresh / file.relative_to(build), file.read_bytes())
        if target.exists():
            target.rename(old)
        fresh.rename(target)
        sync_folder(mods)
    finally:
        for rest in (fresh, old):
            shutil.rmtree(rest, ignore_errors=True)
    progress.report(1.0, "Installed")


def _switch_on(install: Install, mod: str, keep: Path, journal: Journal) -> None:
    order = _order(install)
    rest = [(other, on) for other, on in read_order(order) if other != mod]
    write_order(order, [*rest, (mod, True)])
    after = order.read_text("utf-8")
    _write(keep, Journal(**{**asdict(journal), "phase": "installed", "order_after": after}))


def _undo(install: Install, journal: Journal, keep: Path) -> None:
    mods, order = install.mods_folder(), _order(install)
    target = mods / journal.mod
    if mods.is_dir():
        for rest in (mods / f".{journal.mod}.next", mods / f".{journal.mod}.old"):
            shutil.rmtree(rest, ignore_errors=True)
        replaced = keep / "replaced"
        if journal.had_mod and replaced.is_dir():
            fresh = mods / f".{journal.mod}.next"
            shutil.copytree(replaced, fresh)
            shutil.rmtree(target, ignore_errors=True)
            fresh.rename(target)
        elif not journal.had_mod:
            shutil.rmtree(target, ignore_errors=True)
        _undo_order(order, journal)
        if not journal.had_folder and not any(mods.iterdir()):
            mods.rmdir()
    shutil.rmtree(keep)


def _undo_order(order: Path, journal: Journal) -> None:
    now = order.read_text("utf-8") if order.is_file() else None
    if now == journal.order_before:
        return
    if now == journal.order_after or journal.order_after is None:
        if journal.order_before is None:
            order.unlink(missing_ok=True)
        else:
            write_text(order, journal.order_before)
        return
    before = _order_in(journal.order_before)
    rest = [(mod, on) for mod, on in read_order(order) if mod != journal.mod or mod in before]
    write_order(order, rest)


def _order_in(text: str | None) -> set[str]:
    import tomllib

    return {str(entry.get("id")) for entry in tomllib.loads(text or "").get("mod", [])}


def _order(install: Install) -> Path:
    return install.folder / install.profile.mods.order


def _mark(install: Install) -> str:
    return hashlib.sha256(str(install.folder).encode()).hexdigest()[:16]


def _keep(install: Install, mod: str) -> Path:
    return installs_folder() / _mark(install) / mod


def _write(keep: Path, journal: Journal) -> None:
    write_text(keep / "journal.json", json.dumps(asdict(journal), indent=1))


def _read(keep: Path) -> Journal | None:
    try:
        return Journal(**json.loads((keep / "journal.json").read_text("utf-8")))
    except (OSError, ValueError, TypeError):
        return None
