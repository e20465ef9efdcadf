"""A mod that is in the game as a project of one's own to go on from: with its files as sources, and credit for who made it."""

from __future__ import annotations

from dataclasses import dataclass
from pathlib import Path

from furnel.atomic import write_bytes
from furnel.catalogue import Catalogue
from furnel.containers.alike import Likeness
from furnel.errors import FurnelError
from furnel.games import BRIDGE, Install, InstalledMod, read_stack
from furnel.games.stack import about_of
from furnel.mods.meeting import contents_of
from furnel.mods.workspace import Workspace, create_project, open_workspace
from furnel.progress import QUIET, Part, Progress, steps
from furnel.texts import document_of, laid_over, taken_apart

WHAT = "Making a mod mine"


@dataclass(frozen=True, slots=True)
class Mine:
    """The project that was made, and the paths of what could not be taken into it."""

    file: Path
    left: tuple[str, ...]


def make_mine(install: Install, mod: str, folder: Path, name: str = "", progress: Progress = QUIET) -> Mine:
    """A project in `folder` with everything that a mod of the game has: definitions as changes, the rest as whole files.

    Its files are copied; the mod itself stays as it is. Raises FurnelError for a mod that is not there and a folder in use.
    """
    there = {one.id: one for one in read_stack(install) if one.id != BRIDGE}
    if mod not in there:
        known = ", ".join(there) or "none"
        raise FurnelError(WHAT, where=mod, why="no such mod is in the game", remedy=f"There are: {known}")
    facts = about_of(install.mods_folder() / mod, install.profile.mods)
    credit = f"{facts.get('name') or mod}" + (f" by {facts['author']}" if facts.get("author") else "")
    file = create_project(folder, name or f"{there[mod].name} again", install.folder)
    space = open_workspace(file, Part(progress, 0, 0.3))
    try:
        left = _take_all(space, install, there[mod], credit, Part(progress, 0.3, 1))
    finally:
        space.close()
    return Mine(file, tuple(left))


def _take_all(
    space: Workspace, install: Install, mod: InstalledMod, credit: str, progress: Progress
) -> list[str]:
    files = list(contents_of(install, mod))
    alike, left = Likeness(space.catalogue.assets.paths), []
    project = space.project
    for path, read in steps(files, len(files), progress, f"Taking {mod.name} over"):
        source = space.folder / "sources" / path
        like = ""
        if not space.catalogue.has(path):
            near = alike.most_like(path)
            like = space.catalogue.assets.paths[near] if near >= 0 else ""
            if Path(like).suffix != Path(path).suffix:
                left.append(path)
                continue
        try:
            write_bytes(source, _whole(space.catalogue, path, read()))
            swap = space.new_swap(path, source, like)
        except FurnelError:
            left.append(path)
            continue
        if swap.changes:
            source.unlink()
        project = project.with_swap(swap.model_copy(update={"credit": credit}))
    space.save(project)
    return left


def _whole(catalogue: Catalogue, path: str, data: bytes) -> bytes:
    """A file of a mod; where it is a part that the game lays over its own, all of it."""
    role = catalogue.install.profile.role_of(path)
    if role is None or not role.partial or not taken_apart(path) or not catalogue.has(path):
        return data
    return laid_over(document_of(catalogue.bytes_of(path), path), document_of(data, path)).data
