"""The fit: a result compared with the spec of its original, point by point, and what to do about each."""

from __future__ import annotations

from furnel.catalogue import Kind
from furnel.errors import FurnelError
from furnel.mods.fit.again import Refit, touched
from furnel.mods.fit.elsewhere import KIND
from furnel.mods.fit.encoding import encoding_kept
from furnel.mods.fit.mend import mended, with_encoding, with_format
from furnel.mods.fit.pictures import aspect_point, stops_between
from furnel.mods.fit.point import STATES, Finding, FitPoint, PointType, State, insisting, worst
from furnel.mods.fit.registry import POINT_TYPES, compared, fitting_steps, point_keys
from furnel.mods.project import Encode, StepUse
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, Spec, TextSpec

__all__ = [
    "POINT_TYPES", "STATES", "Finding", "FitPoint", "PointType", "Refit", "State", "aspect_point", "compare",
    "fit_all", "insisting", "kind_of", "mended", "point_keys", "stops_between", "touched", "with_encoding", "with_format",
    "worst",
]  # fmt: skip

_SAID: dict[Kind, str] = {
    "texture": "picture", "sheet": "picture", "sound": "sound", "music": "sound", "definition": "text", "other": "other",
}  # fmt: skip


def compare(original: Spec, yours: Spec) -> list[FitPoint]:
    """The fit table of a result against its original."""
    if type(original) is type(yours):
        return compared(original, yours, kind_of(original))
    wanted, found = _SAID[kind_of(original)], _SAID[kind_of(yours)]
    return [KIND.point(Finding(wanted, found, "breaks", "Drop another source on the swap"))]


def kind_of(spec: Spec) -> Kind:
    """Which kind of asset a spec is of."""
    if isinstance(spec, PictureSpec):
        return "sheet" if spec.cell is not None else "texture"
    if isinstance(spec, SoundSpec):
        return "sound"
    return "definition" if isinstance(spec, TextSpec) else "other"


def fit_all(
    original: Spec, source: Spec, insist: tuple[str, ...] = (), now: Encode | None = None
) -> tuple[tuple[StepUse, ...], Encode | None]:
    """The steps and the encoding that make a source fit its original. Raises FurnelError when none can.

    Points in `insist` are left alone: for those of the encoding, what `now` says stays.
    """
    if type(original) is not type(source):
        wanted, found = (
            "a file of another kind" if kind_of(spec) == "other" else f"a {_SAID[kind_of(spec)]}"
            for spec in (original, source)
        )
        raise FurnelError(
            "Fitting", why=f"the original is {wanted} and the source {found}", remedy="Drop another source"
        )
    steps = fitting_steps(original, source, kind_of(original), insist)
    return steps, encoding_kept(original, insist, now)
