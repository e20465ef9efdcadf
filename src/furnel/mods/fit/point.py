"""A point of the fit table, and the record that says how it is compared and put right."""

from __future__ import annotations

from collections.abc import Callable, Iterable, Sequence
from dataclasses import dataclass, replace
from typing import Any, Literal

from furnel.media import KINDS, PICTURE, SOUND, TEXT, Kind
from furnel.mods.project import StepUse
from furnel.states import STATES, State

TEXTURES = PICTURE.kinds
SHEETS: tuple[Kind, ...] = ("sheet",)
SOUNDS = SOUND.kinds
TEXTS = TEXT.kinds
ALL = KINDS
Box = tuple[int, int, int, int]


@dataclass(frozen=True, slots=True)
class FitPoint:
    """One line of the fit table: what is compared, both values, how it stands, why it matters, what can be done.

    `insisted` points stay as the modder wants them: they no longer break, and Fit all leaves them alone. `leads_to` is another
    asset of the game that the swap is to be pointed to; `at` are places in your picture (left, top, width, height) to be shown.
    """

    key: str
    label: str
    original: str
    yours: str
    state: State
    why: str = ""
    remedy: str = ""
    insisted: bool = False
    leads_to: str = ""
    at: tuple[Box, ...] = ()


@dataclass(frozen=True, slots=True)
class Finding:
    """What comparing one thing found: both values in words, how that stands, what can be done; `why` where it matters for
    another reason than the point usually does; `at` where in your picture (left, top, width, height in pixels)."""

    original: str
    yours: str
    state: State = "fits"
    remedy: str = ""
    why: str = ""
    leads_to: str = ""
    at: tuple[Box, ...] = ()


@dataclass(frozen=True, slots=True)
class Fitting:
    """What Fit all does for a point: `steps(original, source, steps so far)`, in the order of `place`."""

    place: int
    steps: Callable[[Any, Any, Sequence[StepUse]], Sequence[StepUse]]


@dataclass(frozen=True, slots=True, kw_only=True)
class PointType:
    """A fit point: everything that is known of it, in one record.

    `compare(original, yours)` takes two specs and gives a finding, or None where it is not worth a line; a point without it is
    told by what knows more than the two specs. `mend(original, yours)` gives the steps that put it right after all others (None
    when none do); with `encoded` the encoding does, like the original's or the best there is. `served_by` names the
    steps that serve it when they are among what Fit all would do. `why` is for the table and the guide.
    """

    key: str
    label: str
    kinds: tuple[Kind, ...]
    why: str
    compare: Callable[[Any, Any], Finding | None] | None = None
    fit: tuple[Fitting, ...] = ()
    mend: Callable[[Any, Any], Sequence[StepUse] | None] | None = None
    encoded: Literal["", "like", "best"] = ""
    served_by: tuple[str, ...] = ()

    def point(self, finding: Finding) -> FitPoint:
        """The line of the table for a finding."""
        return FitPoint(
            self.key, self.label, finding.original, finding.yours, finding.state, finding.why or self.why, finding.remedy,
            leads_to=finding.leads_to, at=finding.at,
        )  # fmt: skip


def same(original: object, yours: object, otherwise: State, remedy: str) -> Finding:
    """A finding that fits when both values are the same."""
    if original == yours:
        return Finding(str(original), str(yours))
    return Finding(str(original), str(yours), otherwise, remedy)


def worst(points: Iterable[FitPoint]) -> State:
    """The worst state among some points; `fits` when there are none."""
    return max((point.state for point in points), key=STATES.index, default="fits")


def insisting(points: Iterable[FitPoint], keys: Iterable[str]) -> list[FitPoint]:
    """The points, those with these keys marked as wanted so: what breaks only differs then."""
    wanted = set(keys)
    return [
        replace(point, state="differs" if point.state != "fits" else "fits", insisted=True)
        if point.key in wanted
        else point
        for point in points
    ]
