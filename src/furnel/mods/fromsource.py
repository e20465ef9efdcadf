"""Points that a result alone does not show: what the steps left out of a sound, what they did to a sheet's frames."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np

from furnel import sound
from furnel.images.picture import Rgb
from furnel.media import PICTURE, SOUND, PictureSpec, medium_of, medium_of_spec
from furnel.mods.fit.elsewhere import CUT, LEFTOVER, ORDER
from furnel.mods.fit.pictures import aspect_point
from furnel.mods.fit.point import Finding, FitPoint
from furnel.mods.project import Swap
from furnel.mods.shapes import used_part
from furnel.mods.steps import step_type
from furnel.sound.words import length_text
from furnel.sprites import ground_of, parse_colours
from furnel.words import count

_LEAST_S, _LEAST_SHARE = 0.25, 0.05
_NEAR_GROUND, _NEAR_COLOUR = 24, 8  # how far a colour may be from one that was taken away to be a rest of it
_MOST_NAMED, _MOST_SHOWN = 3, 64
_SHORTER = "Use a shorter source, choose the part yourself, or keep your length against the original's"


@dataclass(frozen=True, slots=True)
class Made:
    """A result and what it was made from: the swap, its source's bytes and place, both specs, the result's bytes."""

    swap: Swap
    source: bytes
    path: Path
    original: Any
    result: Any
    data: bytes


def source_points(made: Made) -> list[FitPoint]:
    """What is told of a result by where it comes from. Raises FurnelError for a damaged source."""
    medium = medium_of_spec(made.original)
    if medium is not medium_of_spec(made.result):
        return []
    return [point for look in _LOOKS.get(medium.name, ()) for point in look(made)]


def _cut(made: Made) -> list[FitPoint]:
    """How much of what is heard in a sound's source its steps cut off; nothing when they cut nothing."""
    swap, original, source, path, rate = made.swap, made.original, made.source, made.path, made.result.rate
    uses = [use for use in swap.steps if use.on and step_type(use.do).takes is not None]
    if not uses or medium_of(source, path) is not SOUND:
        return []
    with sound.SoundStream(source, path) as stream:
        info = stream.info
        measured = sound.measures_of_file(stream)
    heard = info.length_s - measured.lead_s - measured.tail_s
    start, end = used_part(swap.steps, rate, info.length_s, (measured.lead_s, measured.tail_s))
    kept = max(min(end, info.length_s - measured.tail_s) - max(start, measured.lead_s), 0.0)
    lost = heard - kept
    if lost < _LEAST_S or lost < _LEAST_SHARE * heard:
        return []
    both = "nothing", f"{length_text(lost)} of {length_text(heard)}"
    return [
        CUT.point(Finding(*both, why="A tune that repeats has to end where the game jumps back"))
        if original.loops
        else CUT.point(Finding(*both, "differs", _SHORTER))
    ]


def _proportions(made: Made) -> list[FitPoint]:
    """Whether a step that brings the picture to a size distorts it."""
    if medium_of(made.source, made.path) is not PICTURE:
        return []
    facts = PICTURE.facts(made.source, len(made.source), made.swap.source, frozenset())
    size = (facts.width, facts.height)
    for use in made.swap.steps:
        step = step_type(use.do)
        if not use.on or step.result_size is None:
            continue
        values = use.checked()
        if step.distorts(values):
            return [aspect_point(size, step.result_size(values))]
        size = step.result_size(values)
    return []


def _sheet(made: Made) -> list[FitPoint]:
    """What steps for whole pictures did to a sheet: its order turned round, ground of the source left over."""
    swap, original = made.swap, made.original
    if original.cell is None:
        return []
    points = []
    if original.frames > 1 and _turned_round(swap, original):
        points.append(
            ORDER.point(
                Finding(
                    "as drawn",
                    "backwards",
                    "breaks",
                    "Take that step out, and use Mirror each frame",
                )
            )
        )
    return [*points, *_left_over(made)]


def _left_over(made: Made) -> list[FitPoint]:
    """Pixels of colours that the steps were to take away, or nearly so: of the ground, of a palette that was changed."""
    swap = made.swap
    away: list[tuple[Rgb, int]] = []
    kept = set[Rgb]()
    for number, use in enumerate(use for use in swap.steps if use.on):
        step = step_type(use.do)
        values = use.checked()
        if step.clears is not None:
            reach = _NEAR_COLOUR if step.gives is not None else _NEAR_GROUND
            away += [(colour, reach) for told in step.clears(values) for colour in parse_colours(told)]
        if step.gives is not None:
            kept |= set(step.gives(values))
        if number == 0 and use.do == "frames":
            source = PICTURE.opened(made.source, made.path)
            away += [(colour, _NEAR_GROUND) for colour in ground_of(source)]
    if not away:
        return []
    picture = PICTURE.opened(made.data, swap.original)
    seen = (
        made.original.sheet.layout.ink(picture)
        if made.original.sheet is not None
        else picture.pixels[..., 3] > 127
    )
    left = np.zeros(seen.shape, np.bool_)
    for colour, reach in away:
        left |= (
            np.abs(picture.pixels[..., :3].astype(np.int16) - np.array(colour, np.int16)).max(axis=2) <= reach
        )
    for colour in kept:
        left &= (picture.pixels[..., :3] != colour).any(axis=2)
    places = np.argwhere(left & seen)
    if not len(places):
        return []
    named = ", ".join(f"{x}, {y}" for y, x in places[:_MOST_NAMED])
    more = " …" if len(places) > _MOST_NAMED else ""
    told = f"{count(len(places), 'pixel')} at {named}{more}"
    at = tuple((int(x), int(y), 1, 1) for y, x in places[:_MOST_SHOWN])
    remedy = "Change these colours too, take the ground away with more spread, or touch them up"
    return [LEFTOVER.point(Finding("none", told, "differs", remedy, at=at))]


def _turned_round(swap: Swap, original: PictureSpec) -> bool:
    """Whether steps for whole pictures put the frames in another order."""
    across = down = odd = False
    for use in swap.steps:
        turns = step_type(use.do).turns
        if use.on and turns is not None:
            to_side, upside_down, on_its_side = turns(use.checked())
            across ^= to_side
            down ^= upside_down
            odd |= on_its_side
    assert original.cell is not None
    wide, high = original.width > original.cell[0], original.height > original.cell[1]
    return odd or (across and wide) or (down and high)


_LOOKS: dict[str, tuple[Callable[[Made], list[FitPoint]], ...]] = {
    PICTURE.name: (_proportions, _sheet),
    SOUND.name: (_cut,),
}
