"""How a build goes into the game: as loose files, as an archive of its own, or as rebuilt copies of the game's archives."""

from __future__ import annotations

from fnmatch import fnmatchcase
from pathlib import Path

from furnel.atomic import write_bytes, write_text
from furnel.containers import Changes, Container, Content, layout_named, open_container, write_archive
from furnel.containers.sums import sum_of
from furnel.errors import FurnelError
from furnel.games.profile import PackRule
from furnel.mods.workspace import Workspace
from furnel.progress import QUIET, Part, Progress

WHAT = "Building the mod"


def wrap(space: Workspace, folder: Path, paths: list[str], progress: Progress = QUIET) -> None:
    """Turn the loose files `paths` below `folder` into what the profile says mods are, and read that back.

    Raises FurnelError when an archive cannot be made, or holds something else than what was put in.
    """
    rule = space.profile.mods
    if rule.goes in ("loose", "archive"):
        paths = [_bare(space, folder, path) for path in paths]
    if rule.goes == "loose":
        for pack in rule.packs:
            _pack(folder, pack, paths, progress)
        return
    if not paths:
        return
    if rule.goes == "archive":
        target = folder / rule.archive.replace("{id}", space.project.mod.id)
        layout = layout_named(rule.layout)
        contents: dict[str, Content] = {path: folder / path for path in paths}
        write_archive(target, contents, layout, progress)
        made = open_container(target, layout, paths)
        _compare(made, {path: folder / path for path in paths}, target)
    else:
        _rebuild(space, folder, paths, progress)
    for path in paths:
        (folder / path).unlink()
        _drop_empty((folder / path).parent, folder)


def _bare(space: Workspace, folder: Path, path: str) -> str:
    """The path under which the game itself has an asset; what it has as bare pixels or samples is that again there."""
    if not space.catalogue.has(path):
        return path
    asset, file = space.catalogue.get(path), folder / path
    found = space.catalogue.install.bare(asset.archive, asset.inner, file.read_bytes())
    if found is None:
        return path
    write_bytes(folder / found[0], found[1])
    file.unlink()
    return found[0]


def _pack(folder: Path, pack: PackRule, paths: list[str], progress: Progress) -> None:
    """An archive for the files of each folder that a rule speaks of, with its checksum beside it."""
    by_folder: dict[str, list[str]] = {}
    for path in paths:
        if fnmatchcase(path, pack.files):
            by_folder.setdefault(path.rpartition("/")[0], []).append(path)
    layout = layout_named(pack.layout)
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
    """A copy of every archive that holds one of the originals, with the mod's contents in their place."""
    install = space.catalogue.install
    by_archive: dict[Path, dict[str, Content]] = {}
    for path in paths:
        if not space.catalogue.has(path):
            raise FurnelError(
                WHAT, where=path, why="no archive of the game holds it, so that there is none to rebuild",
                remedy="Remove the swap, or give it another original",
            )  # fmt: skip
        asset = space.catalogue.get(path)
        by_archive.setdefault(asset.archive.path, {})[asset.inner] = folder / path
    archives = {archive.path: archive for archive in install.archives}
    for number, (file, contents) in enumerate(by_archive.items()):
        part = Part(progress, number / len(by_archive), (number + 1) / len(by_archive))
        target = folder / file.relative_to(install.folder)
        install.rewrite(archives[file], target, Changes(contents), part)
        made = install.open_copy(archives[file], target)
        _compare(made, contents, target)


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
    while folder != top and not any(folder.iterdir()):
        folder.rmdir()
        folder = folder.parent
