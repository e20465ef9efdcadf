"""How a build goes into the game: as loose files, as an archive of its own, or as rebuilt copies of the game's archives."""

from __future__ import annotations

from fnmatch import fnmatchcase
from pathlib import Path

from furnel.atomic import scratch_in, write_bytes, write_text
from furnel.containers import (
    Changes,
    Container,
    Content,
    layout_named,
    layout_to_write,
    open_container,
    write_archive,
)
from furnel.containers.sums import sum_of
from furnel.errors import FurnelError
from furnel.games import Archive
from furnel.games.profile import PackRule
from furnel.mods.inplace import ORIGINALS, originals_text
from furnel.mods.workspace import Workspace
from furnel.progress import QUIET, Part, Progress

WHAT = "Building the mod"


def wrap(space: Workspace, folder: Path, paths: list[str], progress: Progress = QUIET) -> None:
    """Turn the loose files `paths` below `folder` into what the profile says mods are, and read that back.

    Raises FurnelError when an archive cannot be made, or holds something else than what was put in.
    """
    rule, given = space.profile.mods, paths
    match rule.goes:
        case "loose":
            paths = _as_the_game_has_them(space, folder, paths)
            for pack in rule.packs:
                _pack(folder, pack, paths, progress)
        case "archive":
            if paths:
                _put_together(space, folder, _as_the_game_has_them(space, folder, paths), progress)
        case _:
            _rebuild(space, folder, paths, progress)
    for path in given:
        _drop_empty((folder / path).parent, folder)
    if not rule.has_order:
        write_text(folder / ORIGINALS, originals_text(space.catalogue.install, folder))


def _put_together(space: Workspace, folder: Path, paths: list[str], progress: Progress) -> None:
    """An archive of the mod's own in the place of its loose files."""
    rule = space.profile.mods
    target = folder / rule.archive.replace("{id}", space.project.mod.id)
    layout = layout_named(rule.layout)
    contents: dict[str, Content] = {path: folder / path for path in paths}
    write_archive(target, contents, layout, progress)
    _compare(open_container(target, layout, paths), contents, target)
    for path in paths:
        (folder / path).unlink()
        _drop_empty((folder / path).parent, folder)


def _as_the_game_has_them(space: Workspace, folder: Path, paths: list[str]) -> list[str]:
    """The paths under which the game itself has its assets, without what only tells archives apart; bare pixels or samples are
    that again there."""
    found = {path: _as_the_game_has_it(space, path, folder / path) for path in paths}
    taken: dict[str, str] = {}
    for path, (there, _) in found.items():
        if (other := taken.setdefault(there, path)) != path:
            raise FurnelError(
                WHAT, where=path, why=f"it would be the same file in the mod as {other}: {there}",
                remedy="Keep one of the two, or let mods go another way (goes in the profile's [mods])",
            )  # fmt: skip
    with scratch_in(folder.parent) as scratch:  # one may go where another one lay
        moved = [(path, there, bare) for path, (there, bare) in found.items() if there != path]
        for number, (path, _, _) in enumerate(moved):
            (folder / path).rename(scratch / f"{number}.part")
            _drop_empty((folder / path).parent, folder)
        for number, (_, there, bare) in enumerate(moved):
            (folder / there).parent.mkdir(parents=True, exist_ok=True)
            if bare is None:
                (scratch / f"{number}.part").rename(folder / there)
            else:
                write_bytes(folder / there, bare)
    return list(taken)


def _as_the_game_has_it(space: Workspace, path: str, file: Path) -> tuple[str, bytes | None]:
    """Where the game itself has an asset, and its bytes there where they are others."""
    if not space.catalogue.has(path):
        return path, None
    asset = space.catalogue.get(path)
    there, bare = space.catalogue.install.bare(asset.archive, asset.inner, file) or (path, None)
    return there.removeprefix(asset.archive.prefix) if asset.archive.rule.apart else there, bare


def _pack(folder: Path, pack: PackRule, paths: list[str], progress: Progress) -> None:
    """An archive for the files of each folder that a rule speaks of, with its checksum beside it."""
    by_folder: dict[str, list[str]] = {}
    for path in paths:
        if fnmatchcase(path, pack.files):
            by_folder.setdefault(path.rpartition("/")[0], []).append(path)
    layout = layout_to_write(pack.layout)
    for inside, own in sorted(by_folder.items()):
        names = {"folder": inside, "name": inside.rpartition("/")[2]}
        contents: dict[str, Content] = {path: folder / path for path in sorted(own)}
        target = folder / pack.archive.format(**names)
        write_archive(target, contents, layout, progress)
        _compare(open_container(target, layout, own), contents, target)
        if pack.sum:
            found = sum_of(pack.sum_is, "big", target.read_bytes()).hex()
            write_text(folder / pack.sum.format(**names), found + "\n")
        for path in own:
            (folder / path).unlink()


def _rebuild(space: Workspace, folder: Path, paths: list[str], progress: Progress) -> None:
    """A copy of every archive that holds one of the originals, with the mod's contents in their place; of folders only the
    files that are changed."""
    install = space.catalogue.install
    by_archive: dict[Path, tuple[dict[str, Content], dict[str, Content]]] = {}
    archives = {archive.path: archive for archive in install.archives}
    with scratch_in(folder.parent) as scratch:
        for number, path in enumerate(paths):
            content = scratch / f"{number}.part"
            (folder / path).rename(content)  # what is made may go where it lay
            _drop_empty((folder / path).parent, folder)
            known = space.catalogue.has(path)
            archive = space.catalogue.get(path).archive if known else _home(space, path)
            replaced, added = by_archive.setdefault(archive.path, ({}, {}))
            inner = space.catalogue.get(path).inner if known else path.removeprefix(archive.prefix)
            (replaced if known else added)[inner] = content
        for number, (file, (replaced, added)) in enumerate(by_archive.items()):
            part = Part(progress, number / len(by_archive), (number + 1) / len(by_archive))
            target = folder / file.relative_to(install.folder)
            install.rewrite(archives[file], target, Changes(replaced, added, sparse=True), part)
            _compare(install.open_copy(archives[file], target), {**replaced, **added}, target)


def _home(space: Workspace, path: str) -> Archive:
    """The archive that a new asset goes into: the one with others of its folder."""
    around = path.rpartition("/")[0]
    for other in space.catalogue.assets.paths:
        if other.rpartition("/")[0] == around:
            return space.catalogue.get(other).archive
    raise FurnelError(
        WHAT, where=path, why="no archive of the game has anything in its folder, so that there is none to put it into",
        remedy="Give it a path beside others of its kind, or remove the swap",
    )  # fmt: skip


def _compare(made: Container, contents: dict[str, Path] | dict[str, Content], where: Path) -> None:
    try:
        for inner, content in contents.items():
            data = content.read_bytes() if isinstance(content, Path) else content
            again = made.read(inner)
            if not again.startswith(data) or again[len(data) :].strip(
                b"\0"
            ):  # padding counts where no size is told
                raise FurnelError(
                    WHAT, where=f"{where}, {inner}", why="what was read back is not what was written",
                    remedy="Check the disk, then build again",
                )  # fmt: skip
    finally:
        made.close()


def _drop_empty(folder: Path, top: Path) -> None:
    while folder != top and folder.is_dir() and not any(folder.iterdir()):
        folder.rmdir()
        folder = folder.parent
