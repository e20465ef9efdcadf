"""The game's own assets as sources: a swap that begins with what the game has, to be changed by steps or in a program."""

from __future__ import annotations

from pathlib import Path

from furnel.atomic import write_bytes
from furnel.containers import check_path
from furnel.errors import FurnelError
from furnel.images.formats import FORMATS
from furnel.media import Medium, PictureSpec, medium_of, spec_of
from furnel.mods.project import Swap
from furnel.mods.workspace import Workspace
from furnel.progress import QUIET, Progress

WHAT = "Beginning with the game's own"
_FOLDER = "sources/from the game"


def own_swap(space: Workspace, original: str, progress: Progress = QUIET) -> Swap:
    """A fitted swap of an asset whose source is that asset itself. Raises FurnelError for one that is swapped already."""
    if space.project.swap_for(original) is not None:
        raise FurnelError(WHAT, where=original, why="it is swapped already", remedy="Add steps to that swap")
    swap = space.new_swap(original, own_source(space, original), whole=True)
    credit = swap.credit or f"{space.profile.name}, the game's own"
    return space.fitted(swap.model_copy(update={"credit": credit}), progress)


def own_source(space: Workspace, original: str) -> Path:
    """Put an asset of the game among a mod's sources, as a PNG or a WAV where that loses nothing; the file.

    A file that is there and is something else is left alone. Raises FurnelError for what has no steps, and for damage.
    """
    data = space.catalogue.bytes_of(original)
    medium = medium_of(data, original)
    if not medium.plain:
        raise FurnelError(
            WHAT, where=original, why="it is neither a picture nor a sound",
            remedy="Change its values, or swap it with a file",
        )  # fmt: skip
    ending = ""
    if not _stays(data, original, medium):
        data, ending = medium.as_plain(data, original)
    place = space.folder / _FOLDER / check_path(original, space.folder)
    place = place.with_name(place.stem + (ending or place.suffix))
    for number in range(2, 1000):
        if not place.exists():
            write_bytes(place, data)
            return place
        if place.read_bytes() == data:
            return place
        place = place.with_stem(f"{Path(original).stem} {number}")
    raise FurnelError(
        "Beginning with the game's own", where=place, why="there are too many files of that name"
    )


def _stays(data: bytes, path: str, medium: Medium) -> bool:
    """Whether it is what programs open already, or would lose something as a plain picture: light, sides, layers."""
    if Path(path).suffix.casefold() == f".{medium.plain}":
        return True
    spec = spec_of(data, path)
    if not isinstance(spec, PictureSpec) or spec.format not in FORMATS:
        return False
    fmt = FORMATS[spec.format]
    deep = fmt.block == 1 and fmt.size_bytes > len(fmt.channels)
    return spec.pictures > 1 or fmt.sample != "whole" or deep
