"""Building: the swaps' results as an override mod in a folder of its own, read back and compared."""

from __future__ import annotations

import hashlib
import json
import shutil
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path

import tomlkit

from furnel.atomic import sync_folder, write_bytes, write_text
from furnel.containers import write_zip
from furnel.errors import FurnelError, reason
from furnel.mods.fit import compare, worst
from furnel.mods.generated import Companion, companions
from furnel.mods.spec import spec_of
from furnel.mods.workspace import Examined, Workspace
from furnel.mods.wrapping import wrap
from furnel.parallel import cores
from furnel.progress import QUIET, Part, Progress, check

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
    """A finished build; `about` is a mark of the file about the mod."""

    folder: Path
    files: tuple[BuiltFile, ...]
    about: str


def examine_all(space: Workspace, progress: Progress = QUIET) -> list[Examined]:
    """Every swap's result and fit, on all cores."""
    swaps = space.project.swaps
    out: list[Examined] = []
    with ThreadPoolExecutor(max_workers=cores(), thread_name_prefix="furnel-examine") as pool:
        futures = [pool.submit(space.examine, swap) for swap in swaps]
        for number, (swap, future) in enumerate(zip(swaps, futures, strict=True)):
            if progress.cancelled():
                for other in futures:
                    other.cancel()
            check(progress, WHAT)
            progress.report(number / len(swaps), f"Fitting {swap.original}")
            out.append(future.result())
    return out


def build(space: Workspace, progress: Progress = QUIET, anyway: bool = False) -> Build:
    """Build the mod into its build folder, which is replaced as a whole once everything is written and verified.

    A swap that breaks is refused, unless `anyway`. Raises FurnelError; the last build then stays as it was.
    """
    examined = examine_all(space, Part(progress, 0.0, 0.7))
    broken = [item.swap.original for item in examined if item.state == "breaks"]
    if broken and not anyway:
        raise FurnelError(
            WHAT,
            where=space.project.mod.name,
            why=f"{len(broken)} of {len(examined)} swaps break: {', '.join(broken[:5])}",
            remedy="Fit them first, or build anyway to see what the game says",
        )
    final = space.build_folder
    fresh = final.with_name(f".{final.name}.next")
    shutil.rmtree(fresh, ignore_errors=True)
    try:
        beside = companions(space, examined)
        made = {one.path: one.make() for one in beside}
        files = _write(space, examined, beside, made, fresh, Part(progress, 0.7, 0.9))
        _verify(space, examined, made, fresh, Part(progress, 0.9, 0.95))
        wrap(space, fresh, [file.path for file in files], Part(progress, 0.95, 1.0))
        _swap_in(fresh, final)
    except OSError as error:
        raise FurnelError(
            WHAT, where=final, why=reason(error), remedy="The last build is unchanged"
        ) from error
    finally:
        shutil.rmtree(fresh, ignore_errors=True)
    about = _about_mark(space)
    rows = [[f.path, f.before, f.after, f.sha256, f.key] for f in files]
    write_text(_manifest(space), json.dumps({"about": about, "files": rows}, indent=1) + "\n")
    progress.report(1.0, f"Built {len(files)} files")
    return Build(final, tuple(files), about)


def last_build(space: Workspace) -> Build | None:
    """The build that is in the build folder, or None."""
    try:
        if not space.build_folder.is_dir():
            return None
        kept = json.loads(_manifest(space).read_text("utf-8"))
        return Build(space.build_folder, tuple(BuiltFile(*row) for row in kept["files"]), kept["about"])
    except (OSError, ValueError, TypeError, KeyError):
        return None


def stale(space: Workspace, built: Build | None, examined: list[Examined]) -> list[str]:
    """Paths whose content is not what a build has: swaps, what they bring with them, removed ones, the file about the mod."""
    kept = {file.path: file.key for file in built.files} if built else {}
    keys = _keys(examined, companions(space, examined))
    changed = [path for path, key in keys.items() if kept.pop(path, None) != key]
    about = [space.profile.mods.about] if built is not None and built.about != _about_mark(space) else []
    return changed + sorted(kept) + about


def _keys(examined: list[Examined], beside: list[Companion]) -> dict[str, str]:
    """By inner path, what tells one content from another."""
    return {item.swap.original: item.key for item in examined} | {one.path: one.key for one in beside}


def about_text(space: Workspace) -> str:
    """The file about the mod, as the game wants it."""
    about = space.project.mod
    document = tomlkit.document()
    for key, value in (
        ("id", about.id),
        ("name", about.name),
        ("version", about.version),
        ("author", about.author),
        ("summary", about.summary),
        ("category", about.category),
        ("game-version", space.profile.mods.game_version),
    ):
        document.add(key, value)
    credits = tomlkit.array()
    for line in sorted({swap.credit for swap in space.project.swaps if swap.credit}):
        credits.append(line)
    document.add("credits", credits)
    return tomlkit.dumps(document)


def package(space: Workspace, target: Path | None = None) -> Path:
    """The last build as one ZIP with a folder named like the mod inside; the same build gives the same bytes."""
    built = last_build(space)
    if built is None:
        raise FurnelError(
            "Packaging the mod",
            where=space.project.mod.name,
            why="it is not built yet",
            remedy="Build it first",
        )
    about = space.project.mod
    target = target or space.folder / "build" / f"{about.id}-{about.version}.zip"
    files = sorted(file for file in built.folder.rglob("*") if file.is_file())
    write_zip(
        target,
        [(f"{about.id}/{file.relative_to(built.folder).as_posix()}", file.read_bytes()) for file in files],
    )
    return target


def _write(
    space: Workspace, examined: list[Examined], beside: list[Companion], made: dict[str, bytes], folder: Path,
    progress: Progress,
) -> list[BuiltFile]:  # fmt: skip
    files = []
    results = {item.swap.original: item for item in examined}
    keys = sorted(_keys(examined, beside).items())
    for number, (path, key) in enumerate(keys):
        check(progress, WHAT)
        progress.report(number / len(keys), f"Writing {path}")
        data = made.get(path) or results[path].data
        if not data:
            source = space.source_path(results[path].swap)
            if not source.is_file():
                continue
            data = source.read_bytes()
        write_bytes(folder / path, data)
        before = space.catalogue.get(path).size if space.catalogue.has(path) else 0
        digest = hashlib.sha256((folder / path).read_bytes()).hexdigest()
        files.append(BuiltFile(path, before, len(data), digest, key))
    write_text(folder / space.profile.mods.about, about_text(space))
    return files


def _verify(
    space: Workspace, examined: list[Examined], made: dict[str, bytes], folder: Path, progress: Progress
) -> None:
    """Read every file back, decode it and compare it with what was asked for."""
    for path, data in made.items():
        if (folder / path).read_bytes() != data:
            raise _not_as_written(path)
    for number, item in enumerate(examined):
        if not item.data or item.original is None or item.result is None or item.swap.original in made:
            continue
        check(progress, WHAT)
        path = item.swap.original
        progress.report(number / len(examined), f"Reading back {path}")
        data = (folder / path).read_bytes()
        again = spec_of(
            data, path if item.swap.encode else str(space.source_path(item.swap)), space.profile.role_of(path)
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


def _swap_in(fresh: Path, final: Path) -> None:
    old = final.with_name(f".{final.name}.old")
    shutil.rmtree(old, ignore_errors=True)
    if final.exists():
        final.rename(old)
    fresh.rename(final)
    sync_folder(final.parent)
    shutil.rmtree(old, ignore_errors=True)


def _about_mark(space: Workspace) -> str:
    return hashlib.sha256(about_text(space).encode("utf-8")).hexdigest()


def _manifest(space: Workspace) -> Path:
    return space.folder / "build" / f"{space.project.mod.id}.json"
