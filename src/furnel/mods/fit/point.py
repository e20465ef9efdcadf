"""A point of the fit table."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass, replace
from typing import Literal

State = Literal["fits", "differs", "breaks"]
STATES: tuple[State, ...] = ("fits", "differs", "breaks")


@dataclass(frozen=True, slots=True)
class FitPoint:
    """One line of the fit table: what is compared, both values, how it stands, why it matters, what can be done.

    `insisted` points stay as the modder wants them: they no longer break, and Fit all leaves them alone.
    """

    key: str
    label: str
    original: str
    yours: str
    state: State
    why: str = ""
    remedy: str = ""
    insisted: bool = False


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


def same_or(
    key: str, label: str, original: object, yours: object, bad: State, why: str, remedy: str
) -> FitPoint:
    """A point that fits when both values are the same, and is `bad` otherwise."""
    same = original == yours
    return FitPoint(
        key, label, str(original), str(yours), "fits" if same else bad, why, "" if same else remedy
    )
