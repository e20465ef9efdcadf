"""Every fit point. One more is a record in one of the tables below."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from functools import cache
from typing import Any

from furnel.media import Kind
from furnel.mods.fit.elsewhere import ELSEWHERE
from furnel.mods.fit.pictures import PICTURE_POINTS
from furnel.mods.fit.point import FitPoint, PointType
from furnel.mods.fit.songs import PART_POINTS
from furnel.mods.fit.sounds import SOUND_POINTS
from furnel.mods.fit.texts import MEANING_POINTS, TEXT_POINTS
from furnel.mods.project import StepUse

POINT_TYPES: tuple[PointType, ...] = (
    *PICTURE_POINTS,
    *SOUND_POINTS,
    *PART_POINTS,
    *TEXT_POINTS,
    *MEANING_POINTS,
    *ELSEWHERE,
)


@cache
def point_keys() -> tuple[str, ...]:
    """The keys of all points: what `insist` may name."""
    return tuple(dict.fromkeys(kind.key for kind in POINT_TYPES))


def point_of(key: str, kinds: Sequence[Kind]) -> PointType | None:
    """The point with a key that assets of any of these kinds have."""
    return next((one for one in POINT_TYPES if one.key == key and set(kinds) & set(one.kinds)), None)


def compared(original: Any, yours: Any, kind: Kind) -> list[FitPoint]:
    """What is worth a line when the specs of two assets of a kind are compared, in the order of the table."""
    found = (
        (point, point.compare(original, yours))
        for point in POINT_TYPES
        if point.compare is not None and kind in point.kinds
    )
    return [point.point(finding) for point, finding in found if finding is not None]


def fitting_steps(original: Any, source: Any, kind: Kind, insist: Sequence[str]) -> tuple[StepUse, ...]:
    """The steps that Fit all gives a source, for all points but those that are kept."""
    work: list[tuple[int, Callable[[Any, Any, Sequence[StepUse]], Sequence[StepUse]]]] = [
        (one.place, one.steps)
        for point in POINT_TYPES
        if kind in point.kinds and point.key not in insist
        for one in point.fit
    ]
    steps: list[StepUse] = []
    for _, make in sorted(work, key=lambda row: row[0]):
        steps += make(original, source, steps)
    return tuple(steps)


@cache
def served_by(step: str) -> frozenset[str]:
    """The keys of the points that a step can put right."""
    return frozenset(point.key for point in POINT_TYPES if step in point.served_by)


@cache
def encoded_keys() -> frozenset[str]:
    """The keys of the points that the encoding puts right."""
    return frozenset(point.key for point in POINT_TYPES if point.encoded)


@cache
def served_keys() -> frozenset[str]:
    """The keys of the points that any step puts right."""
    return frozenset(point.key for point in POINT_TYPES if point.served_by)
