"""What is done on a sheet by hand, as steps of its swap: which figure is in which cell, exact colours, single pixels; for one
sheet or for all pictures of a character."""

from __future__ import annotations

import re
from collections.abc import Callable, Mapping, Sequence
from pathlib import Path, PurePath
from typing import TYPE_CHECKING

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Rgb
from furnel.media import PICTURE, PictureSpec
from furnel.mods import definitions, strips
from furnel.mods.fit import with_encoding
from furnel.mods.fit.again import place_for
from furnel.mods.fit.sheets import cell_values, layout_use
from furnel.mods.outside import kept_as_source
from furnel.mods.project import Project, StepUse, Swap
from furnel.mods.steps import Value, step_type
from furnel.progress import QUIET, Progress, steps
from furnel.sprites import Placing, changes_text, colours_seen, map_text, parse_colours
from furnel.sprites.touching import Touch, parse_touches, touches_text

if TYPE_CHECKING:
    from furnel.mods.workspace import Workspace

WHAT = "Changing a character"


def layout_step(swap: Swap) -> StepUse | None:
    """The step that is on and lays a swap's figures out, or makes its tiles."""
    return next((use for use in swap.steps if use.on and use.do in ("frames", "tiles")), None)


def with_layout(swap: Swap, original: PictureSpec, **values: Value) -> Swap:
    """The swap with settings of the step that lays its figures out; without any it comes first."""
    use = layout_step(swap)
    if use is not None:
        fresh = use.model_copy(update={"values": {**use.values, **values}, "auto": False})
        return swap.model_copy(update={"steps": tuple(fresh if one is use else one for one in swap.steps)})
    fresh = layout_use(original)
    fresh = fresh.model_copy(update={"values": {**fresh.values, **values}})
    rest = [one for one in swap.steps if one.do not in ("size", "clear-colour")]
    return with_encoding(swap.model_copy(update={"steps": (fresh, *rest)}), original)


def with_files(space: Workspace, swap: Swap, files: Sequence[Path]) -> Swap:
    """The swap of a sheet with several files as its source, a frame each, in the order of their numbers. Raises FurnelError
    for one that is not there, and for what is no sheet."""
    ordered, original = in_order(files), space.original_spec(swap.base)
    if not ordered or not isinstance(original, PictureSpec) or original.cell is None:
        why = "there is no picture among these files" if not ordered else "it is no sheet with cells"
        raise FurnelError("Taking frames", where=swap.original, why=why, remedy="Drop pictures on a sheet")
    names = [space.new_swap(swap.original, file, swap.like, whole=True).source for file in ordered]
    out = swap.model_copy(update={"source": names[0]})
    return with_layout(out, original, more=" | ".join(names[1:]), map="")


def in_order(files: Sequence[Path]) -> list[Path]:
    """Files by their names, numbers in these by their size; of a folder all pictures in it."""
    whole = [
        one for file in files for one in (file.iterdir() if file.is_dir() else [file])
        if not file.is_dir() or one.suffix.lower() in PICTURE.suffixes
    ]  # fmt: skip
    return sorted(
        whole,
        key=lambda file: [
            int(part) if part.isdigit() else part for part in re.split(r"(\d+)", file.name.lower())
        ],
    )


def with_cells(swap: Swap, original: PictureSpec, cells: Sequence[Placing]) -> Swap:
    """The swap whose figures stand in these cells."""
    return with_layout(swap, original, map=map_text(cells), flip=False)


def with_colours(swap: Swap, changes: Mapping[Rgb, Rgb], locked: Sequence[Rgb] | None = None) -> Swap:
    """The swap with colours of its result changed exactly; pixels that were touched up change with them."""
    out, last = list(swap.steps), len(swap.steps)
    while last and step_type(out[last - 1].do).is_last:
        last -= 1
    values: dict[str, Value] = {"changes": changes_text(changes)}
    if locked is not None:
        values["locked"] = " ".join(bytes(colour).hex() for colour in locked)
    if last and out[last - 1].do == "palette" and out[last - 1].on:
        joined = step_type("palette").joined
        assert joined is not None
        merged = joined(out[last - 1].values, values)
        if locked is not None:
            merged["locked"] = values["locked"]
        if merged["changes"] or merged["locked"]:
            out[last - 1] = StepUse(do="palette", values=merged)
        else:
            del out[last - 1]
            last -= 1
    else:
        out.insert(last, StepUse(do="palette", values=values))
        last += 1
    for place in range(last, len(out)):
        if out[place].do == "touch-up":
            touches = [
                Touch(
                    one.x,
                    one.y,
                    changes.get(one.colour, one.colour) if one.colour is not None else None,
                    one.fill,
                )
                for one in parse_touches(str(out[place].values.get("pixels", "")))
            ]
            out[place] = StepUse(do="touch-up", values={"pixels": touches_text(touches)})
    return swap.model_copy(update={"steps": tuple(out)})


def with_touches(swap: Swap, touches: Sequence[Touch]) -> Swap:
    """The swap with pixels of its result set by hand, after those that were before."""
    out = list(swap.steps)
    if out and out[-1].do == "touch-up" and out[-1].on:
        touches = [*parse_touches(str(out[-1].values.get("pixels", ""))), *touches]
        del out[-1]
    out.append(StepUse(do="touch-up", values={"pixels": touches_text(touches)}))
    return swap.model_copy(update={"steps": tuple(out)})


def with_each_mirrored(swap: Swap, original: PictureSpec) -> Swap:
    """The swap with every figure the other way round: by the step that lays them out, else by one that mirrors each cell;
    twice is not at all."""
    use = layout_step(swap)
    if use is not None and use.do == "frames":
        return with_layout(swap, original, flip=not use.values.get("flip", False))
    kept = [one for one in swap.steps if one.do != "mirror-frames"]
    if len(kept) == len(swap.steps):
        fresh = StepUse(do="mirror-frames", values=cell_values(original))
        kept.insert(place_for(kept, fresh), fresh)
    return swap.model_copy(update={"steps": tuple(kept)})


def character(space: Workspace, original: str) -> list[str]:
    """All pictures of a character, the asset itself first: those whose names begin with the same word."""
    word = _word(original)
    names = [
        asset.path for asset in space.catalogue.assets
        if asset.path != original and asset.path.endswith(".png") and _word(asset.path) == word
    ]  # fmt: skip
    added = [
        swap.original
        for swap in space.project.swaps
        if _word(swap.original) == word and swap.original not in names
    ]
    return list(dict.fromkeys([original, *names, *added]))


def _word(path: str) -> str:
    return path.rpartition("/")[2].rpartition(".")[0].partition("_")[0]


def recolour_character(
    space: Workspace, original: str, changes: Mapping[Rgb, Rgb], progress: Progress = QUIET
) -> tuple[Project, list[str]]:
    """The mod with colours changed in all pictures of a character and in the strips of colours that these are painted with, and
    what that is; what has none of the colours is left alone. What is not swapped yet begins with the game's own picture, kept
    among the mod's sources.

    Raises FurnelError when none has any of them.
    """
    project, done = space.project, list[str]()
    names = character(space, original)
    for path in steps(names, len(names), progress, WHAT):
        swap = project.swap_for(path)
        data = space.catalogue.bytes_of(path) if swap is None else space.examine(swap).data
        if not _has(data, path, changes):
            continue
        if swap is None:
            swap = space.fitted(
                space.new_swap(
                    path, space.folder / kept_as_source(data, PurePath(path), space.folder), whole=True
                )
            )
        asset = swap.base if space.catalogue.has(swap.base) else original
        fresh = with_encoding(with_colours(swap, changes), space.original_spec(asset))
        project = project.with_swap(fresh)
        done.append(path)
    if not done:
        raise FurnelError(
            WHAT,
            where=original,
            why="none of its pictures has these colours",
            remedy="Choose a colour that is seen",
        )
    found = {(strip.path, strip.address): strip for path in done for strip in strips.strips_for(space, path)}
    for strip in found.values():
        if changed := strips.recoloured(space, strip, changes):
            project = definitions.with_changes(space.with_project(project), strip.path, changed)
            done.append(strip.path)
    return project, done


def mirror_character(space: Workspace, original: str) -> tuple[Project, list[str]]:
    """The mod with every figure of a character's swapped sheets the other way round, and which sheets these are."""
    return _each_sheet(space, original, with_each_mirrored)


def scale_character(space: Workspace, original: str, times: int) -> tuple[Project, list[str]]:
    """The mod with the figures of all of a character's sheets that lay figures out `times` as large, and which these are."""

    def scaled(swap: Swap, spec: PictureSpec) -> Swap:
        use = layout_step(swap)
        return with_layout(swap, spec, scale=times) if use is not None and use.do == "frames" else swap

    return _each_sheet(space, original, scaled)


def _each_sheet(
    space: Workspace, original: str, change: Callable[[Swap, PictureSpec], Swap]
) -> tuple[Project, list[str]]:
    """The mod with the swapped sheets of a character changed, and which did change."""
    project, done = space.project, list[str]()
    for path in character(space, original):
        swap = project.swap_for(path)
        spec = space.original_spec(swap.base) if swap is not None and space.catalogue.has(swap.base) else None
        if swap is None or not isinstance(spec, PictureSpec) or spec.cell is None:
            continue
        fresh = change(swap, spec)
        if fresh != swap:
            project = project.with_swap(with_encoding(fresh, spec))
            done.append(path)
    return project, done


def _has(data: bytes, path: str, changes: Mapping[Rgb, Rgb]) -> bool:
    if not data:
        return False
    picture = PICTURE.opened(data, path)
    assert isinstance(picture, Picture)
    return any(colour.rgb in changes for colour in colours_seen([picture]))


def locked_colours(swap: Swap) -> frozenset[Rgb]:
    """The colours that a swap keeps exactly."""
    uses = [use for use in swap.steps if use.on and use.do == "palette"]
    return frozenset(parse_colours(str(uses[-1].values.get("locked", "")))) if uses else frozenset()
