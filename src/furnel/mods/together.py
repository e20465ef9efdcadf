"""Mods in the place of a game's own files that change different entries of one archive: laid together into one file."""

from __future__ import annotations

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path

from furnel.containers import Changes, Container
from furnel.errors import FurnelError
from furnel.games import Archive, Install
from furnel.games.originals import Placed, all_placed, placed_home, stands
from furnel.progress import QUIET, Part, Progress, check

WHAT = "Installing the mod"


@dataclass(frozen=True, slots=True)
class Version:
    """What one mod, told by its name, has for files by their paths below the game's folder."""

    name: str
    files: Mapping[str, Path]


@dataclass(frozen=True, slots=True)
class Shared:
    """Files that a mod shares with others: what is to stand there (`files`), the versions of single mods that have to be kept
    `apart` (sources by their targets), and the other mods' records."""

    files: Mapping[str, Path]
    apart: Mapping[Path, Path]
    others: tuple[Placed, ...]


def shared_with(
    install: Install,
    mod: Version,
    of: str,
    gives_up: Iterable[str],
    scratch: Path,
    progress: Progress = QUIET,
) -> Shared:
    """What becomes of files when the mod `of` (its id) puts its own there and `gives_up` others.

    Raises FurnelError where a file is no archive, and where two mods change one entry of it.
    """
    known = all_placed(install.folder)
    there = {
        path: [
            one
            for one in known
            if path in one.files and one.mod != of and stands(install.folder / path, one.files[path])
        ]
        for path in (*mod.files, *gives_up)
    }
    there = {path: others for path, others in there.items() if others}
    versions: dict[str, dict[str, Path]] = {}
    apart: dict[Path, Path] = {}
    files: dict[str, Path] = {}
    for path, others in there.items():
        alone = sum(path in one.files for one in known) == 1
        for other in others:
            mine = install.folder / path if alone else _apart(install, other.mod, path)
            if path not in mod.files and len(others) == 1:
                files[path] = mine
                continue
            versions.setdefault(other.mod, {})[path] = mine
            if alone:
                apart[_apart(install, other.mod, path)] = mine
        if path in mod.files:
            versions.setdefault(of, {})[path] = mod.files[path]
            apart[_apart(install, of, path)] = mod.files[path]
    names = {one.mod: one.name for one in known} | {of: mod.name}
    together = [Version(names[who], own) for who, own in versions.items()]
    files |= _laid_together(install, together, scratch, progress)
    return Shared(files, apart, tuple({one.mod: one for others in there.values() for one in others}.values()))


def _apart(install: Install, mod: str, path: str) -> Path:
    """Where a mod's own version of a file is kept while others are laid together with it."""
    return placed_home(install.folder) / mod / "shared" / path.lstrip("/")


def _laid_together(
    install: Install, versions: Sequence[Version], scratch: Path, progress: Progress
) -> dict[str, Path]:
    """The files that hold what all mods change, made in `scratch`."""
    groups: dict[Path, list[str]] = {}
    archives: dict[Path, Archive] = {}
    for path in sorted({path for version in versions for path in version.files}):
        archive = _archive_of(install, path, versions)
        archives[archive.path] = archive
        groups.setdefault(archive.path, []).append(path)
    out: dict[str, Path] = {}
    for number, (file, group) in enumerate(groups.items()):
        place = scratch / f"{number}"
        copies = {
            version.name: _stood_up(archives[file], version, group, place / f"{index}")
            for index, version in enumerate(versions)
            if version.files.keys() & set(group)
        }
        part = Part(progress, number / len(groups), (number + 1) / len(groups))
        _lay(install, archives[file], copies, place, part)
        out |= {path: place / "together" / Path(path).name for path in group}
    return out


def _archive_of(install: Install, path: str, versions: Sequence[Version]) -> Archive:
    """The archive that a file of a mod is or belongs to."""
    own = install.folder / (install.folder / path).relative_to(install.mods_root())
    for archive in install.archives:
        if archive.rule.layout != "folder" and own in (archive.path, *archive.beside):
            return archive
    first = next(version.name for version in versions if path in version.files)
    raise FurnelError(
        WHAT,
        where=install.folder / path,
        why=f"{first} stands there already",
        remedy=f"Remove {first} first: this game has one file there, and two mods cannot share it",
    )


def _stood_up(archive: Archive, version: Version, group: Sequence[str], folder: Path) -> Path:
    """A mod's version of an archive with the files beside it, as links in a folder of their own."""
    folder.mkdir(parents=True)
    given = {Path(path).name: version.files[path] for path in group if path in version.files}
    for own in (archive.path, *archive.beside):
        (folder / own.name).symlink_to(given.get(own.name, own).resolve())
    return folder / archive.path.name


def _lay(
    install: Install, archive: Archive, copies: Mapping[str, Path], place: Path, progress: Progress
) -> None:
    own = {entry.inner: entry.size for entry in install.places(archive)}
    replaced: dict[str, Path] = {}
    added: dict[str, Path] = {}
    removed: set[str] = set()
    by: dict[str, str] = {}
    for index, (name, copy) in enumerate(copies.items()):
        container = install.open_copy(archive, copy)
        try:
            check(progress, WHAT)
            progress.report(index / (len(copies) + 1), f"Reading what {name} changes")
            there = {entry.path: entry.size for entry in container.entries()}
            for inner, size in there.items():
                data = container.read(inner)
                if own.get(inner) == size and data == install.read(archive, inner):
                    continue
                known = (replaced if inner in own else added).get(inner)
                content = place / f"{index}-{len(by)}.part"
                if (known is not None and known.read_bytes() != data) or inner in removed:
                    raise _both(archive, inner, by[inner], name)
                content.write_bytes(data)
                (replaced if inner in own else added)[inner] = content
                by.setdefault(inner, name)
            for inner in own.keys() - there.keys():
                if inner in replaced:
                    raise _both(archive, inner, by[inner], name)
                removed.add(inner)
                by.setdefault(inner, name)
        finally:
            container.close()
    target = place / "together" / archive.path.name
    target.parent.mkdir()
    install.rewrite(archive, target, Changes(replaced, added, frozenset(removed)), progress)
    made = install.open_copy(archive, target)
    try:
        _prove(made, install, archive, {**replaced, **added}, removed, target)
    finally:
        made.close()


def _prove(
    made: Container,
    install: Install,
    archive: Archive,
    wanted: Mapping[str, Path],
    removed: set[str],
    where: Path,
) -> None:
    """Read everything back: what mods change is as they have it, all else as the game has it."""
    own = {place.inner for place in install.places(archive)}
    names = own - removed | wanted.keys()
    same = {entry.path for entry in made.entries()} == names
    for inner in names:
        data = wanted[inner].read_bytes() if inner in wanted else install.read(archive, inner)
        if not same or made.read(inner) != data:
            raise FurnelError(
                WHAT,
                where=f"{where.name}, {inner}",
                why="what was read back of both mods together is not what was written",
                remedy="Check the disk, or have one of the mods at a time",
            )


def _both(archive: Archive, inner: str, first: str, second: str) -> FurnelError:
    return FurnelError(
        WHAT,
        where=f"{archive.name}, {inner}",
        why=f"{first} and {second} both change it",
        remedy=f"Have one of the two: remove {first} first, or take the swap out of {second}",
    )
