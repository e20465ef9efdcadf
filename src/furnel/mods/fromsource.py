"""Points that a result alone does not show: what the steps left out of a sound, what they did to a sheet's frames."""

from __future__ import annotations

from pathlib import Path

import numpy as np
import numpy.typing as npt

from furnel import imagefiles, sound
from furnel.mods.fit.elsewhere import CUT, LEFTOVER, ORDER
from furnel.mods.fit.point import Finding, FitPoint
from furnel.mods.project import Swap
from furnel.mods.shapes import used_part
from furnel.mods.soundspec import SoundSpec
from furnel.mods.spec import PictureSpec, Spec
from furnel.sound.words import length_text
from furnel.words import count

_LEAST_S, _LEAST_SHARE = 0.25, 0.05
_NEAR = 24
_SHORTER = "Use a shorter source, choose the part yourself, or keep your length against the original's"
_CUTTING = {"length", "part", "loop", "bars", "trim"}


def cut_points(swap: Swap, original: SoundSpec, source: bytes, path: Path, rate: int) -> list[FitPoint]:
    """How much of what is heard in a sound's source its steps cut off; nothing when they cut nothing.

    `rate` is the result's.
    """
    uses = [use for use in swap.steps if use.on and use.do in _CUTTING]
    if not uses or not sound.recognises(source):
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


def sheet_points(swap: Swap, original: Spec, result: bytes) -> list[FitPoint]:
    """What steps for whole pictures did to a sheet: its order turned round, ground of the source left over."""
    if not isinstance(original, PictureSpec) or original.cell is None or not imagefiles.recognises(result):
        return []
    points = []
    if original.frames > 1 and _turned_round(swap, original):
        points.append(
            ORDER.point(
                Finding(
                    "as drawn",
                    "backwards",
                    "breaks",
                    "Take that step out, and mirror every frame by itself in your paint program",
                )
            )
        )
    grounds = [str(use.checked()["colour"]) for use in swap.steps if use.on and use.do == "clear-colour"]
    if grounds:
        pixels = imagefiles.decode_level(imagefiles.read_texture(result)).pixels
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
        if use.on and use.do == "turn":
            values = use.checked()
            half, mirror = values["turn"] == "half way", values["mirror"]
            across ^= half ^ (mirror == "across")
            down ^= half ^ (mirror == "down")
            odd |= values["turn"] in ("to the right", "to the left")
    assert original.cell is not None
    wide, high = original.width > original.cell[0], original.height > original.cell[1]
    return odd or (across and wide) or (down and high)


def _near(pixels: npt.NDArray[np.uint8], colour: bytes) -> int:
    """How many pixels that are not clear have nearly this colour."""
    far = np.abs(pixels[..., :3].astype(np.int16) - np.frombuffer(colour, np.uint8).astype(np.int16)).max(
        axis=2
    )
    return int(np.count_nonzero((pixels[..., 3] > 127) & (far <= _NEAR)))
