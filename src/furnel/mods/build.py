"""Building: the swaps' results as an override mod in a folder of its own, read back and compared."""

from __future__ import annotations

import contextlib
import hashlib
import json
import os
import shutil
from collections.abc import Callable
from dataclasses import dataclass
from functools import partial
from pathlib import Path

from furnel.atomic import beside, settle_folder, swap_folder, write_bytes, write_text
from furnel.containers import write_zip
from furnel.digests import file_digest, tree_digest
from furnel.errors import FurnelError, reason
from furnel.media import spec_of
from furnel.mods.fit import compare, worst
from furnel.mods.generated import Companion, companions
from furnel.mods.installer import MERGE, merge_script
from furnel.mods.outside import checked
from furnel.mods.patches import PATCHES, patches_text
from furnel.mods.render import read_source
from furnel.mods.sharing import CHANGES, README, changes_text, note_package, preview_files, readme_text
from furnel.mods.workspace import Examined, Workspace
from furnel.mods.wrapping import wrap
from furnel.parallel import each
from furnel.progress import QUIET, Part, Progress, check
from furnel.words import count

WHAT = "Building the mod"


@dataclass(frozen=True, slots=True)
class BuiltFile:
    """One file of a build: its inner path, the original's and its own size in bytes, and its SHA-256."""

    path: str
    before: int
    after: int
    sha256: str
    key: str


@dataclass(frozen=True, slots=True)
class Build:
    """A finished build; `about` is a mark of the file about the mod, `broken` are swaps that were built though they break."""

    folder: Path
    files: tuple[BuiltFile, ...]
    about: str
    broken: tuple[str, ...] = ()


def examine_all(space: Workspace, progress: Progress = QUIET) -> list[Examined]:
    """Every swap's result and fit, on all cores."""
    return each(space.project.made, space.examine, progress, "Fitting", lambda swap: swap.original)


def build(space: Workspace, progress: Progress = QUIET, anyway: bool = False) -> Build:
    """Build the mod into its build folder, which is replaced as a whole once everything is written and verified.

    What the last build has to the byte is taken from there. A swap that breaks is refused, unless `anyway`.
    Raises FurnelError; the last build then stays as it was.
    """
    return _built(space, examine_all(space, Part(progress, 0.0, 0.7)), anyway, Part(progress, 0.7, 1.0))


def _built(space: Workspace, examined: list[Examined], anyway: bool, progress: Progress) -> Build:
    """A build of what was examined."""
    settle_folder(space.build_folder)
    broken = [item.swap.original for item in examined if item.state == "breaks"]
    if broken and not anyway:
        raise FurnelError(
            WHAT,
            where=space.project.mod.name,
            why=f"{len(broken)} of {count(len(examined), 'swap')} {'breaks' if len(broken) == 1 else 'break'}: "
            f"{', '.join(broken[:5])}",
            remedy="Fit them first, or build anyway to see what the game says",
        )
    final = space.build_folder
    fresh = beside(final, "next")
    last = last_build(space)
    try:
        around = companions(space, examined)
        made = {one.path: one.make() for one in around}
        wanted = _contents(space, examined, around, made)
        files, kept = _write(space, wanted, last, fresh, Part(progress, 0.0, 0.7))
        _verify(space, examined, made, kept, fresh, Part(progress, 0.7, 0.85))
        wrap(space, fresh, [file.path for file in files], Part(progress, 0.85, 1.0))
        tree = tree_digest(fresh)
        swap_folder(fresh, final)
    except OSError as error:
        raise FurnelError(
            WHAT, where=final, why=reason(error), remedy="The last build is unchanged"
        ) from error
    finally:
        shutil.rmtree(fresh, ignore_errors=True)
    about = _about_mark(space)
    rows = [[f.path, f.before, f.after, f.sha256, f.key] for f in files]
    told = {"about": about, "tree": tree, "files": rows, "broken": broken}
    write_text(_manifest(space), json.dumps(told, indent=1) + "\n")
    progress.report(1.0, f"Built {count(len(files), 'file')}")
    return Build(final, tuple(files), about, tuple(broken))


def last_build(space: Workspace) -> Build | None:
    """The build that is in the build folder, to the byte as it was written; otherwise None."""
    return build_in(space.folder, space.project.mod.id)


def build_in(folder: Path, mod: str) -> Build | None:
    """The build of a mod in its project's folder, to the byte as it was written; otherwise None."""
    home = folder / "build" / mod
    try:
        settle_folder(home)
        if not home.is_dir():
            return None
        kept = json.loads(home.with_name(f"{mod}.json").read_text("utf-8"))
        if kept["tree"] != tree_digest(home):
            return None
        files = tuple(BuiltFile(*row) for row in kept["files"])
        return Build(home, files, kept["about"], tuple(map(str, kept.get("broken", ()))))
    except (OSError, ValueError, TypeError, KeyError):
        return None


def stale(space: Workspace, built: Build | None, examined: list[Examined]) -> list[str]:
    """Paths whose content is not what a build has: swaps, what they bring with them, removed ones, the file about the mod."""
    kept = {file.path: file.key for file in built.files} if built else {}
    keys = _keys(examined, companions(space, examined))
    changed = [path for path, key in keys.items() if kept.pop(path, None) != key]
    other = built is not None and (built.about != _about_mark(space) or built.folder != space.build_folder)
    about = [space.profile.mods.about] if other else []
    return changed + sorted(kept) + about


def _keys(examined: list[Examined], beside: list[Companion]) -> dict[str, str]:
    """By inner path, what tells one content from another."""
    made = {item.swap.original: item.key for item in examined if not item.swap.is_untouched}
    return made | {one.path: one.key for one in beside}


def about_text(space: Workspace) -> str:
    """The file about the mod, as the game wants it."""
    about, rule = space.project.mod, space.profile.mods
    return rule.about_file.write(
        {
            "id": about.id,
            "name": about.name,
            "version": about.version,
            "author": about.author,
            "summary": about.summary,
            "category": about.category,
            "game-version": rule.game_version,
            "credits": sorted({swap.credit for swap in space.project.swaps if swap.credit}),
        }
    )


def package(space: Workspace, target: Path | None = None, progress: Progress = QUIET) -> Path:
    """The mod as it is now as one ZIP with a folder named like the mod inside, with a readme, what changed, and its
    picture; the same mod gives the same bytes.

    A build that is missing or stale is made first. Raises FurnelError when that is refused.
    """
    built = last_build(space)
    examined = examine_all(space, Part(progress, 0, 0.4))
    if stale(space, built, examined) or built is None or built.broken:  # what breaks is not shared
        built = _built(space, examined, False, Part(progress, 0.4, 0.9))
    about = space.project.mod
    target = target or space.folder / "build" / f"{about.id}-{about.version}.zip"
    if target.resolve().is_relative_to(built.folder.resolve()):
        raise FurnelError(
            "Packaging the mod", where=target, why="it would lie inside the build itself",
            remedy="Choose another place for the ZIP",
        )  # fmt: skip
    inside = sorted(
        file.relative_to(built.folder).as_posix() for file in built.folder.rglob("*") if file.is_file()
    )
    changes = changes_text(space, built.folder)
    contents: dict[str, bytes] = {path: (built.folder / path).read_bytes() for path in inside}
    contents[README] = readme_text(space, inside).encode()
    contents[CHANGES] = changes.encode()
    if about.with_installer:
        contents[MERGE] = merge_script(space, built.folder).encode()
    if told := patches_text(examined, contents):
        contents[PATCHES] = told.encode()
    contents |= preview_files(space)
    progress.report(0.9, f"Writing {target.name}")
    write_zip(target, [(f"{about.id}/{path}", data) for path, data in sorted(contents.items())])
    note_package(space, built.folder, changes)
    return target


def _contents(
    space: Workspace, examined: list[Examined], around: list[Companion], made: dict[str, bytes]
) -> list[tuple[str, str, Callable[[], bytes]]]:
    """What goes into the mod: inner path, key, what gives the bytes."""
    results = {item.swap.original: item for item in examined}
    out: list[tuple[str, str, Callable[[], bytes]]] = []
    for path, key in sorted(_keys(examined, around).items()):
        if path in made:
            out.append((path, key, partial(made.__getitem__, path)))
        elif (kept := results[path].kept) is not None:
            out.append((path, key, kept.read))
        elif results[path].swap.source and (source := space.source_path(results[path].swap)).is_file():
            out.append((path, key, partial(read_source, checked(space.file, source))))
    return out


def _write(
    space: Workspace,
    wanted: list[tuple[str, str, Callable[[], bytes]]],
    last: Build | None,
    folder: Path,
    progress: Progress,
) -> tuple[list[BuiltFile], set[str]]:
    """The files of a build, and which of them the last one had to the byte."""
    files, kept = [], set()
    have = {file.path: file for file in last.files} if last is not None else {}
    folder.mkdir(parents=True)
    for number, (path, key, read) in enumerate(wanted):
        check(progress, WHAT)
        progress.report(number / len(wanted), f"Writing {path}")
        data = read()
        digest = hashlib.sha256(data).hexdigest()
        old, known = space.build_folder / path, have.get(path)
        if known is not None and known.sha256 == digest and old.is_file() and file_digest(old) == digest:
            (folder / path).parent.mkdir(parents=True, exist_ok=True)
            with contextlib.suppress(OSError):
                os.link(old, folder / path)
                kept.add(path)
        if path not in kept:
            write_bytes(folder / path, data)
        before = space.catalogue.get(path).size if space.catalogue.has(path) else 0
        files.append(BuiltFile(path, before, len(data), digest, key))
    write_text(folder / space.profile.mods.about, about_text(space))
    return files, kept


def _verify(
    space: Workspace, examined: list[Examined], made: dict[str, bytes], kept: set[str], folder: Path, progress: Progress
) -> None:  # fmt: skip
    """Read every file back, decode it and compare it with what was asked for; what was built before is known by its digest."""
    for path, data in made.items():
        if (folder / path).read_bytes() != data:
            raise _not_as_written(path)
    for number, item in enumerate(examined):
        path = item.swap.original
        if not item.size or item.original is None or item.result is None or path in made or path in kept:
            continue
        check(progress, WHAT)
        progress.report(number / len(examined), f"Reading back {path}")
        data = (folder / path).read_bytes()
        again = spec_of(
            data,
            path if item.swap.keeps_name else str(space.source_path(item.swap)),
            space.profile.role_of(path),
        )
        if data != item.data or worst(compare(item.original, again)) != worst(
            compare(item.original, item.result)
        ):
            raise _not_as_written(path)


def _not_as_written(path: str) -> FurnelError:
    return FurnelError(
        WHAT,
        where=path,
        why="what was read back is not what was written",
        remedy="Check the disk, then build again",
    )


def _about_mark(space: Workspace) -> str:
    return hashlib.sha256(about_text(space).encode()).hexdigest()


def _manifest(space: Workspace) -> Path:
    return space.folder / "build" / f"{space.project.mod.id}.json"
