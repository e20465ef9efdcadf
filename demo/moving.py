"""The moving picture of the README: one texture on its way from the wall into the game, in the real window."""

from __future__ import annotations

from collections.abc import Sequence
from pathlib import Path

from PIL import Image

_SIZE, _STANDS_MS, _STEPS, _STEP_MS = (960, 600), 2400, 4, 70


def write_moving(pictures: Sequence[Path], out: Path) -> None:
    """An animated WebP that goes round through screenshots, each fading into the next."""
    stills = []
    for file in pictures:
        with Image.open(file) as picture:
            stills.append(picture.convert("RGB").resize(_SIZE, Image.Resampling.LANCZOS))
    frames, times = [], []
    for still, after in zip(stills, [*stills[1:], stills[0]], strict=True):
        between = [Image.blend(still, after, step / (_STEPS + 1)) for step in range(1, _STEPS + 1)]
        frames += [still, *between]
        times += [_STANDS_MS] + [_STEP_MS] * _STEPS
    first, *rest = frames
    out.parent.mkdir(parents=True, exist_ok=True)
    first.save(out, append_images=rest, duration=times, loop=0, quality=72, method=6)
