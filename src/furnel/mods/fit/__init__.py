"""The fit: a result compared with the spec of its original, point by point, and what to do about each."""

from __future__ import annotations

from furnel.errors import FurnelError
from furnel.mods.fit.again import Refit, touched
from furnel.mods.fit.mend import mended, with_encoding, with_format
from furnel.mods.fit.pictures import aspect_point, compare_pictures, fit_picture, stops_between
from furnel.mods.fit.point import STATES, FitPoint, State, insisting, worst
from furnel.mods.fit.sounds import compare_sounds, fit_sound
from furnel.mods.fit.texts import compare_texts
from furnel.mods.project import Encode, StepUse
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, RawSpec, Spec, TextSpec

__all__ = [
    "STATES", "FitPoint", "Refit", "State", "aspect_point", "compare", "fit_all", "insisting", "kind_of", "mended",
    "stops_between", "touched", "with_encoding", "with_format", "worst",
]  # fmt: skip

_KINDS = {"picture": "a picture", "sound": "a sound", "text": "a text", "other": "a file of another kind"}


def compare(original: Spec, yours: Spec) -> list[FitPoint]:
    """The fit table of a result against its original."""
    if isinstance(original, PictureSpec) and isinstance(yours, PictureSpec):
        return compare_pictures(original, yours)
    if isinstance(original, SoundSpec) and isinstance(yours, SoundSpec):
        return compare_sounds(original, yours)
    if isinstance(original, TextSpec) and isinstance(yours, TextSpec):
        return compare_texts(original, yours)
    if isinstance(original, RawSpec) and isinstance(yours, RawSpec):
        same = original.file_type == yours.file_type
        return [FitPoint("file", "File", original.file_type, yours.file_type, "fits" if same else "differs")]
    return [
        FitPoint(
            "kind",
            "Kind",
            kind_of(original),
            kind_of(yours),
            "breaks",
            "The game expects another kind of file here",
            "Drop another source on the swap",
        )
    ]


def kind_of(spec: Spec) -> str:
    """What a spec is of, in a word."""
    if isinstance(spec, PictureSpec):
        return "picture"
    if isinstance(spec, SoundSpec):
        return "sound"
    return "text" if isinstance(spec, TextSpec) else "other"


def fit_all(
    original: Spec, source: Spec, insist: tuple[str, ...] = (), now: Encode | None = None
) -> tuple[tuple[StepUse, ...], Encode | None]:
    """The steps and the encoding that make a source fit its original. Raises FurnelError when none can.

    Points in `insist` are left alone: for those of the encoding, what `now` says stays.
    """
    if isinstance(original, PictureSpec) and isinstance(source, PictureSpec):
        return fit_picture(original, source, insist, now)
    if isinstance(original, SoundSpec) and isinstance(source, SoundSpec):
        return fit_sound(original, source, insist, now)
    if kind_of(original) == kind_of(source):
        return (), None
    raise FurnelError(
        "Fitting",
        why=f"the original is {_KINDS[kind_of(original)]} and the source {_KINDS[kind_of(source)]}",
        remedy="Drop another source",
    )
