"""The fit: a result compared with the spec of its original, point by point, and what to do about each."""

from __future__ import annotations

from furnel.errors import FurnelError
from furnel.media import Encode, RawSpec, Spec, encoding_kept, medium_of_spec
from furnel.mods.fit.again import Refit, touched
from furnel.mods.fit.elsewhere import KIND
from furnel.mods.fit.mend import mended, with_encoding, with_format
from furnel.mods.fit.pictures import aspect_point, stops_between
from furnel.mods.fit.point import Finding, FitPoint, PointType, insisting, worst
from furnel.mods.fit.registry import POINT_TYPES, compared, fitting_steps, point_keys
from furnel.mods.project import StepUse
from furnel.states import STATES, State

__all__ = [
    "POINT_TYPES", "STATES", "Finding", "FitPoint", "PointType", "Refit", "State", "aspect_point", "compare",
    "fit_all", "insisting", "mended", "point_keys", "stops_between", "touched", "with_encoding", "with_format",
    "worst",
]  # fmt: skip


def compare(original: Spec, yours: Spec) -> list[FitPoint]:
    """The fit table of a result against its original."""
    wanted, found = medium_of_spec(original), medium_of_spec(yours)
    if wanted is found:
        return compared(original, yours, original.kind)
    return [KIND.point(Finding(wanted.name, found.name, "breaks", "Drop another source on the swap"))]


def fit_all(
    original: Spec, source: Spec, insist: tuple[str, ...] = (), now: Encode | None = None
) -> tuple[tuple[StepUse, ...], Encode | None]:
    """The steps and the encoding that make a source fit its original. Raises FurnelError when none can.

    Points in `insist` are left alone: for those of the encoding, what `now` says stays.
    """
    wanted, found = medium_of_spec(original), medium_of_spec(source)
    if wanted is not found:
        called = (
            original.called if isinstance(original, RawSpec) and original.called else f"a {wanted.called}"
        )
        remedy = (
            f"Drop a file of the same kind ({original.file_type}): it is taken as it is"
            if isinstance(original, RawSpec)
            else "Drop another source"
        )
        raise FurnelError(
            "Fitting", why=f"the original is {called} and the source a {found.called}", remedy=remedy
        )
    return fitting_steps(original, source, original.kind, insist), encoding_kept(original, insist, now)
