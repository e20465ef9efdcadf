"""Fitting one file to another, with no project around it."""

from __future__ import annotations

from pathlib import Path

from furnel.blocks import Quality
from furnel.errors import FurnelError
from furnel.games import RoleRule
from furnel.media import PictureSpec, Spec, encoding_like, spec_of
from furnel.mods.fit import FitPoint, compare, fit_all
from furnel.mods.fit.sheets import laid_out_anew
from furnel.mods.project import Swap
from furnel.mods.render import Surroundings, read_source, render
from furnel.progress import QUIET, Progress


def fit_file(
    source: Path,
    original: bytes,
    original_path: str,
    quality: Quality = "good",
    role: RoleRule | None = None,
    progress: Progress = QUIET,
    wanted: Spec | None = None,
    frames: str | None = None,
) -> tuple[bytes, list[FitPoint]]:
    """The source made to fit an original: the result's bytes and how it fits. Raises FurnelError when it cannot.

    `wanted` is the original's spec, where more is known of it than its bytes tell. With `frames` its figures are laid out anew
    by that frame map, or by the one that is proposed when it is empty.
    """
    data = read_source(source)
    wanted = spec_of(original, original_path, role) if wanted is None else wanted
    steps, encode = fit_all(wanted, spec_of(data, str(source), role))
    if frames is not None:
        if not isinstance(wanted, PictureSpec) or wanted.cell is None:
            raise FurnelError(
                "Laying figures out",
                where=original_path,
                why="it is no sheet with cells",
                remedy="Say how large they are",
            )
        steps, encode = laid_out_anew(wanted, steps, frames), encode or encoding_like(wanted)
    if encode is not None:
        encode = encode.model_copy(update={"quality": quality})
    swap = Swap(original=Path(original_path).name, source=str(source), steps=steps, encode=encode)
    beside = Surroundings(steps, original, original_path, source.parent)
    result = render(swap, data, source, progress=progress, beside=beside)
    return result, compare(wanted, spec_of(result, original_path if encode else str(source), role))
