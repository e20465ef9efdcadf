"""Installing a build into a game's mods folder and taking it off again, with a journal that survives being killed.

The journal and what an install replaced lie in the user's state folder, so that the game's folder holds nothing but mods.
"""

from __future__ import annotations

import json
import shutil
from collections.abc import Sequence
from dataclasses import asdict, dataclass, replace
from pathlib import Path
from typing import Literal

from furnel.atomic import beside, settle_folder, swap_folder, write_bytes, write_text
from furnel.digests import tree_digest
from furnel.errors import FurnelError, reason
from furnel.folders import state_folder
from furnel.games import Install, read_order, write_order
from furnel.games.modfiles import OrderFile
from furnel.games.originals import read_placed
from furnel.locks import locked
from furnel.mods.inplace import Presence, install_files, presence_of, recover_files, remove_files
from furnel.progress import QUIET, Progress, check
from furnel.words import count

Phase = Literal["installing", "installed", "removing"]
WHAT = "Installing the mod"


@dataclass(frozen=True, slots=True)
class Journal:
    """What an install did, and what was there before: enough to bring it back.

    `tree` is the digest of what was put there, `tree_next` of what an update is putting there.
    """

    mod: str
    game: str
    phase: Phase
    had_mod: bool
    had_folder: bool
    order_before: str | None
    order_after: str | None = None
    tree: str = ""
    tree_next: str = ""


def installs_folder() -> Path:
    """Where journals and replaced mods are kept."""
    return state_folder() / "installs"


def install_mod(
    install: Install, mod: str, build: Path, progress: Progress = QUIET, over: bool = False
) -> Path:
    """Put a build in the mods folder and switch it on, last in the load order. The folder of the installed mod.

    Either everything is done or, also after being killed, nothing (see `recover`). A folder that is there and that Furnel did
    not put there, or that was changed since, is only replaced when `over` says so; Remove brings back what was there first.
    """
    if not build.is_dir():
        raise FurnelError(WHAT, where=build, why="it is not built yet", remedy="Build it first")
    with locked(install.folder, WHAT):
        if not install.profile.mods.has_order:
            return install_files(install, mod, build, progress, over)
        recover(install)
        return _install(install, mod, build, progress, over)


def _install(install: Install, mod: str, build: Path, progress: Progress, over: bool) -> Path:
    order_file, target, keep = _order(install), install.mods_folder() / mod, _keep(install, mod)
    journal = _read(keep)
    foreign = foreign_folder(install, mod)
    if target.is_symlink():
        raise FurnelError(
            WHAT, where=target, why=f"it is a link to {target.readlink()}, which Furnel leaves as it is",
            remedy="Take the link out of the mods folder, then install the mod",
        )  # fmt: skip
    if foreign and not over:
        raise FurnelError(
            WHAT, where=target, why=foreign,
            remedy="Look at it, then install over it if you want to: Remove brings back what was there before Furnel",
        )  # fmt: skip
    tree = tree_digest(build)
    if journal is not None and journal.phase == "installed":
        journal = replace(journal, tree_next=tree)
        _write(keep, journal)
        _replace_content(install, mod, build, progress)
        if dict(read_order(order_file, install.profile.mods.order_file)).get(mod) is not True:
            _switch_on(install, mod, keep, journal, tree)
        else:
            _write(keep, replace(journal, tree=tree, tree_next=""))
        return target
    try:
        before = order_text(order_file)
        journal = Journal(
            mod, str(install.folder), "installing", target.exists(), install.mods_folder().is_dir(), before
        )
        shutil.rmtree(keep, ignore_errors=True)
        keep.mkdir(parents=True)
        if target.exists():
            shutil.copytree(target, keep / "replaced", symlinks=True)
        _write(keep, journal)
        _replace_content(install, mod, build, progress)
        _switch_on(install, mod, keep, journal, tree)
    except FurnelError:
        recover(install)
        raise
    except OSError as error:
        recover(install)
        raise FurnelError(
            WHAT, where=install.mods_folder(), why=reason(error), remedy="The game is as it was before"
        ) from error
    return target


def installed_words(install: Install, mod: str) -> str:
    """Where an installed mod is, in a sentence."""
    name = install.profile.name
    if install.profile.mods.has_order:
        return f"Installed as {install.profile.mods.folder}/{mod} in {name}"
    placed = read_placed(install.folder, mod)
    number = count(len(placed.files) if placed is not None else 0, "file")
    if install.profile.mods.goes == "mirror":
        return f"Installed: {number} in {install.profile.mods.folder} of {name}"
    return f"Installed in the place of {number} of {name}; the game's own are kept, and come back with Remove"


def foreign_folder(install: Install, mod: str) -> str:
    """Why what lies in the mod's place in the game is not what Furnel put there; nothing when it is, or when nothing is."""
    return _look_at(install, mod)[0]


def presence(install: Install, mod: str, built: Path | None) -> tuple[Presence, str]:
    """How a mod is in the game, read from the game's own folder: not at all (empty), as it is `built`, as something `other`
    that Furnel put there, `off`, or `foreign`: something that Furnel did not put there. With the last one, why."""
    if _is_placed(install, mod):
        return presence_of(install, mod, built)
    foreign, tree = _look_at(install, mod)
    if foreign:
        return "foreign", foreign
    if not tree:
        return "", ""
    if dict(read_order(_order(install), install.profile.mods.order_file)).get(mod) is not True:
        return "off", ""
    return ("built" if built is not None and tree_digest(built) == tree else "other"), ""


def _is_placed(install: Install, mod: str) -> bool:
    """Whether a mod's files stand in the places of the game's own, or would; also where the profile says otherwise by now."""
    return not install.profile.mods.has_order or read_placed(install.folder, mod) is not None


def _look_at(install: Install, mod: str) -> tuple[str, str]:
    """Why the folder in the mod's place is foreign, and its digest; both empty when nothing is there."""
    target, journal = install.mods_folder() / mod, _read(_keep(install, mod))
    if not target.exists() and not target.is_symlink():
        return "", ""
    if target.is_symlink() or not target.is_dir():
        return "something lies there that is no folder", ""
    if journal is None:
        return "a folder of that name is there, and Furnel did not put it there", ""
    tree = tree_digest(target)
    if journal.tree and tree not in (journal.tree, journal.tree_next):
        return "what Furnel put there was changed since by somebody else", tree
    return "", tree


def remove_mod(install: Install, mod: str, over: bool = False) -> str:
    """Take an installed mod off. What is said afterwards: that the folder is as it was, or what else changed meanwhile.

    What somebody else changed in its folder since is only dropped when `over` says so.
    """
    with locked(install.folder, "Removing the mod"):
        if _is_placed(install, mod):
            return remove_files(install, mod, over)
        recover(install)
        return _remove(install, mod, over)


def _remove(install: Install, mod: str, over: bool) -> str:
    keep = _keep(install, mod)
    journal = _read(keep)
    if journal is not None and (foreign := foreign_folder(install, mod)) and not over:
        raise FurnelError(
            "Removing the mod", where=install.mods_folder() / mod, why=foreign,
            remedy="Take out what you want to keep, then remove it all the same",
        )  # fmt: skip
    if journal is None:
        raise FurnelError(
            "Removing the mod",
            where=mod,
            why="Furnel has not installed it here",
            remedy="Delete its folder by hand if you put it there",
        )
    try:
        order = _order(install)
        now, first = order_text(order), _first(install)
        ours = first is not None and now == first.written
        alone = not any(other != keep for other in keep.parent.iterdir() if other.is_dir())
        untouched = now == journal.order_after or (ours and alone)
        _write(keep, replace(journal, phase="removing"))
        _undo(install, journal, keep)
        untouched = untouched and (first is None or not alone or order_text(order) == first.text)
    except OSError as error:
        raise FurnelError(
            "Removing the mod", where=mod, why=reason(error), remedy="Try again: it goes on where it stopped"
        ) from error
    if untouched:
        return "The mods folder is as it was before"
    if ours:
        return "The mod is off; the others stay in their order"
    return "The mod is off; the load order was changed by others meanwhile and keeps their changes"


def recover(install: Install) -> list[str]:
    """Bring interrupted installs and removals of this game to an end; the mods that were concerned."""
    with locked(install.folder, "Looking after interrupted installs"):
        return _recover(install)


def _recover(install: Install) -> list[str]:
    recover_files(install)
    if not install.profile.mods.has_order:
        return []
    _adopt_moved(install)
    folder = installs_folder() / install.mark
    done = []
    _sweep(install)
    for keep in sorted(sub for sub in folder.iterdir() if sub.is_dir()) if folder.is_dir() else ():
        journal = _read(keep)
        if journal is None:
            shutil.rmtree(keep, ignore_errors=True)
        elif journal.phase != "installed":
            _undo(install, journal, keep)
            done.append(journal.mod)
    return done


def _sweep(install: Install) -> None:
    """Bring every mod folder that an update was killed in to its old or its new state, and drop what lies beside it."""
    mods = install.mods_folder()
    if not mods.is_dir():
        return
    for known in sorted((installs_folder() / install.mark).glob("*/")):
        settle_folder(mods / known.name)
    for part in mods.glob(f".{_order(install).name}.*.part"):
        part.unlink(missing_ok=True)


def _replace_content(install: Install, mod: str, build: Path, progress: Progress) -> None:
    """Swap the mod's folder for a copy of the build, through a folder beside it that the game does not look at."""
    target = install.mods_folder() / mod
    settle_folder(target)
    fresh = beside(target, "next")
    files = sorted(file for file in build.rglob("*") if file.is_file())
    try:
        for number, file in enumerate(files):
            check(progress, WHAT)
            progress.report(number / len(files), f"Installing {file.name}")
            write_bytes(fresh / file.relative_to(build), file.read_bytes())
        if tree_digest(fresh) != tree_digest(build):
            raise FurnelError(
                WHAT, where=target, why="what was read back is not what was built", remedy="Check the disk"
            )
        swap_folder(fresh, target)
    finally:
        shutil.rmtree(fresh, ignore_errors=True)
    progress.report(1.0, "Installed")


def _switch_on(install: Install, mod: str, keep: Path, journal: Journal, tree: str) -> None:
    order = _order(install)
    rest = [(other, on) for other, on in read_order(order, install.profile.mods.order_file) if other != mod]
    reorder(install, [*rest, (mod, True)])
    after = order_text(order)
    _write(keep, replace(journal, phase="installed", order_after=after, tree=tree, tree_next=""))


def _undo(install: Install, journal: Journal, keep: Path) -> None:
    mods = install.mods_folder()
    target = mods / journal.mod
    if mods.is_dir():
        settle_folder(target)
        replaced = keep / "replaced"
        if journal.had_mod and replaced.is_dir():
            fresh = beside(target, "next")
            shutil.copytree(replaced, fresh, symlinks=True)
            swap_folder(fresh, target)
        elif not journal.had_mod:
            shutil.rmtree(target, ignore_errors=True)
        alone = not any(other != keep for other in keep.parent.iterdir() if other.is_dir())
        _undo_order(install, journal, alone)
        if not journal.had_folder and not any(mods.iterdir()):
            mods.rmdir()
    (keep / "journal.json").unlink()  # first: without it the rest counts for nothing
    shutil.rmtree(keep)


def _undo_order(install: Install, journal: Journal, alone: bool) -> None:
    order, rule, first = _order(install), install.profile.mods.order_file, _first(install)
    now = order_text(order)
    if now != journal.order_before:
        back = journal.order_before
        if now == journal.order_after or (
            journal.order_after is None and _only_switched_on(rule, journal, now)
        ):
            _put_back(order, back)
        else:
            before = {mod for mod, _ in rule.read(back or "")}
            rest = [(mod, on) for mod, on in read_order(order, rule) if mod != journal.mod or mod in before]
            if alone and first is not None and now == first.written and rule.read(first.text or "") == rest:
                _put_back(order, first.text)  # all that was changed since then was Furnel's
            else:
                write_order(order, rest, rule)
    if alone:
        _first_file(install).unlink(missing_ok=True)
    elif first is not None and now == first.written:
        _note_first(install, _First(first.text, order_text(order)))


def _put_back(order: Path, text: str | None) -> None:
    if text is None:
        order.unlink(missing_ok=True)
    else:
        write_bytes(order, text.encode("utf-8"))


def _only_switched_on(rule: OrderFile, journal: Journal, now: str | None) -> bool:
    """Whether an order differs from what was there before an interrupted install by nothing but the mod that it switched on."""
    before = [row for row in rule.read(journal.order_before or "") if row[0] != journal.mod]
    return now is not None and rule.read(now) == [*before, (journal.mod, True)]


@dataclass(frozen=True, slots=True)
class _First:
    """The load order as it was before Furnel wrote it for the first time, and as it wrote it last."""

    text: str | None
    written: str | None


def _first_file(install: Install) -> Path:
    return installs_folder() / install.mark / "order.json"


def _first(install: Install) -> _First | None:
    try:
        return _First(**json.loads(_first_file(install).read_text("utf-8")))
    except (OSError, ValueError, TypeError):
        return None


def _note_first(install: Install, first: _First) -> None:
    write_text(_first_file(install), json.dumps(asdict(first), indent=1))


def reorder(install: Install, order: Sequence[tuple[str, bool]]) -> None:
    """Write another load order: where all mods are taken off again, what Furnel wrote leaves no trace."""
    with locked(install.folder, "Writing the load order"):
        file, first = _order(install), _first(install)
        before = order_text(file)
        write_order(file, [*order], install.profile.mods.order_file)
        if first is None:
            first = _First(before, before)
        if before == first.written:
            _note_first(install, _First(first.text, order_text(file)))


def order_text(file: Path) -> str | None:
    """The text of a load order, line ends as they are; None where there is none. Raises FurnelError for what is no UTF-8."""
    try:
        return file.read_bytes().decode("utf-8") if file.is_file() else None
    except UnicodeDecodeError as error:
        raise FurnelError(
            "Reading the load order", where=file, why="it is not UTF-8 text", remedy="Save it as UTF-8, or delete it"
        ) from error  # fmt: skip


def _adopt_moved(install: Install) -> None:
    """Know again what was installed into this game when its folder was somewhere else: by what lies in the mods' places."""
    here = installs_folder() / install.mark
    if not installs_folder().is_dir() or not install.mods_folder().is_dir():
        return
    for there in sorted(sub for sub in installs_folder().iterdir() if sub.is_dir() and sub != here):
        for keep in sorted(sub for sub in there.iterdir() if sub.is_dir()):
            journal = _read(keep)
            if journal is None or Path(journal.game).exists() or (here / keep.name).exists():
                continue
            target = install.mods_folder() / journal.mod
            if target.is_dir() and not target.is_symlink() and tree_digest(target) == journal.tree:
                here.mkdir(parents=True, exist_ok=True)
                if (there / "order.json").is_file() and not _first_file(install).exists():
                    (there / "order.json").rename(_first_file(install))
                _write(keep, replace(journal, game=str(install.folder)))
                keep.rename(here / keep.name)


def _order(install: Install) -> Path:
    return install.order_file()


def _keep(install: Install, mod: str) -> Path:
    return installs_folder() / install.mark / mod


def _write(keep: Path, journal: Journal) -> None:
    write_text(keep / "journal.json", json.dumps(asdict(journal), indent=1))


def _read(keep: Path) -> Journal | None:
    try:
        return Journal(**json.loads((keep / "journal.json").read_text("utf-8")))
    except (OSError, ValueError, TypeError):
        return None
