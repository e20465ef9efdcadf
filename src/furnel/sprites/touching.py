"""Single pixels set over a picture, areas of one colour filled, and ground taken away."""

from __future__ import annotations

import re
from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Rgb
from furnel.sprites.palette import parse_colours

_TOUCH = re.compile(r"(\d{1,5}),(\d{1,5})([=~])(-|[0-9a-fA-F]{6})$")


@dataclass(frozen=True, slots=True)
class Touch:
    """A pixel (column, row) set to a colour, or clear; with `fill` everything of its colour that hangs together with it."""

    x: int
    y: int
    colour: Rgb | None
    fill: bool = False

    def text(self) -> str:
        """As it is written: `12,4=c03020`, `12,4=-` clear, `12,4~c03020` filled."""
        return f"{self.x},{self.y}{'~' if self.fill else '='}{bytes(self.colour).hex() if self.colour is not None else '-'}"


def parse_touches(text: str) -> tuple[Touch, ...]:
    """Touches from their text. Raises FurnelError for what is none."""
    out = []
    for word in text.split():
        found = _TOUCH.match(word)
        if found is None:
            raise FurnelError(
                "Touching up", where=word, why="it is no pixel with a colour",
                remedy="Write 12,4=c03020 for a pixel, - for clear, ~ to fill: 12,4~c03020",
            )  # fmt: skip
        x, y, how, colour = found.groups()
        rgb = None if colour == "-" else parse_colours(colour)[0]
        out.append(Touch(int(x), int(y), rgb, how == "~"))
    return tuple(out)


def touches_text(touches: Sequence[Touch]) -> str:
    """Touches as they are written; of several to one pixel, without a fill between them, the last."""
    kept: list[Touch] = []
    for number, touch in enumerate(touches):
        later = touches[number + 1 :]
        end = next((place for place, other in enumerate(later) if other.fill), len(later))
        if touch.fill or not any((other.x, other.y) == (touch.x, touch.y) for other in later[:end]):
            kept.append(touch)
    return " ".join(touch.text() for touch in kept)


def touched(picture: Picture, touches: Sequence[Touch]) -> tuple[Picture, int]:
    """A picture with touches in their order, and how many of them lie outside it."""
    out, outside = picture.pixels.copy(), 0
    for touch in touches:
        if touch.x >= picture.width or touch.y >= picture.height:
            outside += 1
            continue
        colour = [*touch.colour, 255] if touch.colour is not None else [0, 0, 0, 0]
        if touch.fill:
            from scipy import ndimage

            same = np.ascontiguousarray(out).view(np.uint32)[..., 0]
            parts, _ = ndimage.label(same == same[touch.y, touch.x])
            out[parts == parts[touch.y, touch.x]] = colour
        else:
            out[touch.y, touch.x] = colour
    return Picture(out), outside


def without_ground(
    picture: Picture, colours: Sequence[Rgb], tolerance: int, from_border: bool
) -> tuple[Picture, int]:
    """A picture whose ground is clear: what is within `tolerance` (per channel) of some colours, with `from_border` only where
    it hangs together with the border; and how many pixels that are."""
    near = np.zeros(picture.pixels.shape[:2], np.bool_)
    for colour in colours:
        near |= (
            np.abs(picture.pixels[..., :3].astype(np.int16) - np.array(colour, np.int16)).max(axis=2)
            <= tolerance
        )
    if from_border:
        from scipy import ndimage

        parts, _ = ndimage.label(near | (picture.pixels[..., 3] == 0))
        edge = np.unique(np.concatenate([parts[0], parts[-1], parts[:, 0], parts[:, -1]]))
        near &= np.isin(parts, edge[edge > 0])
    near &= picture.pixels[..., 3] > 0
    out = picture.pixels.copy()
    out[near] = 0
    return Picture(out), int(near.sum())
