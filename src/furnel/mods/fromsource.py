"""Points that a result alone does not show: what the steps left out of a sound, what they did to a sheet's frames."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import numpy as np
import numpy.typing as npt

from furnel import sound
from furnel.media import PICTURE, SOUND, PictureSpec, medium_of, medium_of_spec
from furnel.mods.fit.elsewhere import CUT, LEFTOVER, ORDER
from furnel.mods.fit.pictures import aspect_point
from furnel.mods.fit.point import Finding, FitPoint
from furnel.mods.project import Swap
from furnel.mods.shapes import used_part
from furnel.mods.steps import step_type
from furnel.sound.words import length_text
from furnel.words import count

_LEAST_S, _LEAST_SHARE = 0.25, 0.05
_NEAR = 24
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
    clearing = [(step_type(use.do).clears, use) for use in swap.steps if use.on]
    grounds = [clears(use.checked()) for clears, use in clearing if clears is not None]
    if grounds:
        pixels = PICTURE.opened(made.data, swap.original).pixels
        left = sum(_near(pixels, bytes.fromhex(ground)) for ground in grounds)
        if left:
            points.append(
                LEFTOVER.point(
                    Finding(
                        "none",
                        count(left, "pixel"),
                        "differs",
                        "Raise the tolerance of Clear a colour, or paint them over",
                    )
                )
            )
    return points


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


def _near(pixels: npt.NDArray[np.uint8], colour: bytes) -> int:
    """How many pixels that are not clear have nearly this colour."""
    far = np.abs(pixels[..., :3].astype(np.int16) - np.frombuffer(colour, np.uint8).astype(np.int16)).max(
        axis=2
    )
    return int(np.count_nonzero((pixels[..., 3] > 127) & (far <= _NEAR)))


_LOOKS: dict[str, tuple[Callable[[Made], list[FitPoint]], ...]] = {
    PICTURE.name: (_proportions, _sheet),
    SOUND.name: (_cut,),
}
