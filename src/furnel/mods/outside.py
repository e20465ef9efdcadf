"""Files outside a project's folder: read only when the user chose them, and gathered into it on request."""

from __future__ import annotations

import os
from collections.abc import Iterable
from pathlib import Path, PurePath

from furnel.atomic import write_bytes
from furnel.errors import FurnelError, reason
from furnel.leave import give, given
from furnel.mods.project import Project, StepUse, Swap
from furnel.mods.steps import step_type
from furnel.progress import QUIET, Progress, steps

_KIND = "file outside a project"
GATHERED = "sources"


def named_files(swap: Swap) -> list[str]:
    """The files that a swap reads: its source and what its steps name."""
    named = [name for use in swap.steps for name in step_type(use.do).files_in(use.values)]
    return [*filter(None, (swap.source, *named))]


def outside_files(file: Path, swaps: Iterable[Swap]) -> list[Path]:
    """Files outside the folder of the project `file` that its swaps read and that nobody chose on this machine."""
    found: dict[Path, None] = {}
    for swap in swaps:
        for name in named_files(swap):
            path = (file.parent / name).resolve()
            if not may_read(file, path):
                found[path] = None
    return list(found)


def may_read(file: Path, path: Path) -> bool:
    """Whether a project may read a file: one in its own folder, or one that the user chose for it."""
    path = path.resolve()
    return path.is_relative_to(file.parent.resolve()) or given(_KIND, str(file.resolve()), str(path))


def choose(file: Path, paths: Iterable[Path]) -> None:
    """Note that the user chose these files for a project."""
    folder = file.parent.resolve()
    chosen = (path.resolve() for path in paths)
    give((_KIND, str(file.resolve()), str(path)) for path in chosen if not path.is_relative_to(folder))


def choose_all(file: Path, swap: Swap) -> None:
    """Note that the user made this swap, with all files that it names."""
    choose(file, [file.parent / name for name in named_files(swap)])


def checked(file: Path, path: Path) -> Path:
    """`path`, when the project may read it; FurnelError otherwise."""
    if may_read(file, path):
        return path
    raise FurnelError(
        "Reading a source", where=path, why="it lies outside the mod's folder, and nobody chose it on this machine",
        remedy="Allow it when you know what it is (furnel mod allow), or choose the file yourself",
    )  # fmt: skip


def gathered(file: Path, project: Project, progress: Progress = QUIET) -> Project:
    """The project with copies, in its own folder, of all files that lay outside it; the files themselves stay.

    Raises FurnelError for one that cannot be read or was not chosen by the user.
    """
    folder = file.parent.resolve()
    kept: dict[Path, str] = {}

    def inside(name: str) -> str:
        path = checked(file, folder / name).resolve()
        if path.is_relative_to(folder):
            return path.relative_to(folder).as_posix()
        if path not in kept:
            kept[path] = _copy(path, folder)
        return kept[path]

    def with_inside(use: StepUse) -> StepUse:
        named = {
            name: " | ".join(
                inside(part.strip()) for part in str(use.values[name]).split("|") if part.strip()
            )
            for name in step_type(use.do).file_settings
            if use.values.get(name)
        }
        return use.model_copy(update={"values": {**use.values, **named}}) if named else use

    swaps = [
        swap.model_copy(
            update={
                "source": swap.source and inside(swap.source),
                "steps": tuple(with_inside(use) for use in swap.steps),
            }
        )
        for swap in steps(project.swaps, len(project.swaps), progress, "Gathering sources")
    ]
    return project.model_copy(update={"swaps": tuple(swaps)})


def _copy(path: Path, folder: Path) -> str:
    """A copy among the project's sources; under another name when one with other bytes has its name."""
    try:
        data = path.read_bytes()
    except OSError as error:
        raise FurnelError(
            "Gathering sources",
            where=path,
            why=reason(error),
            remedy="Put the file back, or choose another one",
        ) from error
    return kept_as_source(data, path, folder)


def kept_as_source(data: bytes, path: PurePath, folder: Path) -> str:
    """Bytes as a file of this name among the sources of the project in `folder`, under another name when one with other bytes
    has it; what they are called there. Raises FurnelError when there are too many of the name."""
    for number in range(1, 1000):
        name = path.name if number == 1 else f"{path.stem}-{number}{path.suffix}"
        target = folder / GATHERED / name
        if not os.path.lexists(target):
            write_bytes(target, data)
            return f"{GATHERED}/{name}"
        if target.is_file() and target.read_bytes() == data:
            return f"{GATHERED}/{name}"
    raise FurnelError("Gathering sources", where=path, why="there are too many files of its name")
