"""Palettes: the colours of pictures with how often they occur, ramps of one hue, near twins; colours changed exactly."""

from __future__ import annotations

import colorsys
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.picture import Picture, Rgb

_WHAT = "Reading a palette's changes"
_CHANGE = re.compile(r"#?([0-9a-fA-F]{6})>#?([0-9a-fA-F]{6})$")
_GREY = 0.12  # less saturated is grey
_HUES_APART = 0.085  # of the circle: two hues of one ramp
MOST = 256
TWINS = 2


@dataclass(frozen=True, slots=True)
class Colour:
    """A colour of a picture, how many pixels have it, and where the first of them is (column, row)."""

    rgb: Rgb
    pixels: int
    first: tuple[int, int] = (0, 0)

    @property
    def hex(self) -> str:
        return bytes(self.rgb).hex()


def codes_of(picture: Picture) -> npt.NDArray[np.uint32]:
    """Each pixel's red, green and blue as one number (0xRRGGBB), and 0xFFFFFFFF where it is clear."""
    pixels = picture.pixels.astype(np.uint32)
    codes = (pixels[..., 0] << 16) | (pixels[..., 1] << 8) | pixels[..., 2]
    return np.where(pixels[..., 3] > 0, codes, np.uint32(0xFFFFFFFF))


def colours_seen(pictures: Sequence[Picture]) -> tuple[Colour, ...]:
    """All colours that are seen in some pictures together, the most frequent first."""
    found: dict[int, list[int]] = {}
    for picture in pictures:
        values, first, times = np.unique(codes_of(picture), return_index=True, return_counts=True)
        for value, at, many in zip(values.tolist(), first.tolist(), times.tolist(), strict=True):
            if value != 0xFFFFFFFF:
                found.setdefault(value, [0, at % picture.width, at // picture.width])[0] += many
    colours = [Colour(_rgb(value), many, (x, y)) for value, (many, x, y) in found.items()]
    return tuple(sorted(colours, key=lambda colour: (-colour.pixels, colour.rgb)))


def _rgb(code: int) -> Rgb:
    return code >> 16, code >> 8 & 255, code & 255


def light(rgb: Rgb) -> float:
    """How light a colour looks, 0 to 1 (Rec. 709 luma)."""
    return (0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2]) / 255


def ramps(colours: Sequence[Rgb]) -> tuple[tuple[Rgb, ...], ...]:
    """Colours as ramps, each from dark to light: greys together, else those whose hues are near each other's; by hue."""
    greys, hued = list[Rgb](), list[tuple[float, Rgb]]()
    for colour in dict.fromkeys(colours):
        hue, saturation, value = colorsys.rgb_to_hsv(*(part / 255 for part in colour))
        if saturation < _GREY or value < 0.09:
            greys.append(colour)
        else:
            hued.append((hue, colour))
    hued.sort()
    groups: list[list[tuple[float, Rgb]]] = []
    for hue, colour in hued:
        if groups and hue - groups[-1][-1][0] <= _HUES_APART / 2 and hue - groups[-1][0][0] <= _HUES_APART:
            groups[-1].append((hue, colour))
        else:
            groups.append([(hue, colour)])
    if (
        len(groups) > 1 and groups[0][0][0] + 1 - groups[-1][-1][0] <= _HUES_APART / 2
    ):  # reds lie at both ends
        groups[0] = [*groups.pop(), *groups[0]]
    found = [[colour for _, colour in group] for group in groups] + ([greys] if greys else [])
    return tuple(tuple(sorted(group, key=light)) for group in found)


def ramp_onto(ramp: Sequence[Rgb], onto: Sequence[Rgb]) -> dict[Rgb, Rgb]:
    """What each colour of a ramp becomes on another one, by its place from dark to light; between two of them it is mixed."""
    own, wanted = sorted(ramp, key=light), sorted(onto, key=light)
    out = {}
    for number, colour in enumerate(own):
        at = number * (len(wanted) - 1) / max(len(own) - 1, 1)
        low, part = int(at), at - int(at)
        high = min(low + 1, len(wanted) - 1)
        mixed = [round(a + (b - a) * part) for a, b in zip(wanted[low], wanted[high], strict=True)]
        out[colour] = (mixed[0], mixed[1], mixed[2])
    return out


def ramp_moved(ramp: Sequence[Rgb], old: Rgb, new: Rgb) -> dict[Rgb, Rgb]:
    """What each colour of a ramp becomes when one of them does: its hue turned, its strength and light changed as much."""
    (hue, strength, value), (to_hue, to_strength, to_value) = (
        colorsys.rgb_to_hsv(*(part / 255 for part in colour)) for colour in (old, new)
    )
    out = {}
    for colour in ramp:
        h, s, v = colorsys.rgb_to_hsv(*(part / 255 for part in colour))
        own = (
            (h + to_hue - hue) % 1.0 if strength else to_hue,
            min(s * to_strength / strength, 1.0) if strength else to_strength,
            min(v * to_value / value, 1.0) if value else to_value,
        )
        red, green, blue = (round(part * 255) for part in colorsys.hsv_to_rgb(*own))
        out[colour] = new if colour == old else (red, green, blue)
    return out


def twins(colours: Sequence[Colour], within: int = TWINS) -> tuple[tuple[Colour, Colour], ...]:
    """Pairs of colours that nobody tells apart: no channel differs by more than `within`. The rarer one is first."""
    rgb = np.array([colour.rgb for colour in colours], np.int64).reshape(-1, 3)
    out = []
    for number in range(1, len(rgb)):
        near = np.flatnonzero(np.abs(rgb[:number] - rgb[number]).max(axis=1) <= within)
        if near.size:
            one, other = colours[number], colours[int(near[0])]
            out.append((one, other) if one.pixels <= other.pixels else (other, one))
    return tuple(out)


def parse_changes(text: str) -> dict[Rgb, Rgb]:
    """Colour changes from their text, `c03020>2060c0` a word. Raises FurnelError for what is none or there twice."""
    out: dict[Rgb, Rgb] = {}
    for word in text.replace("=", ">").split():
        found = _CHANGE.match(word)
        if found is None:
            raise FurnelError(
                _WHAT, where=word, why="it is no change of a colour", remedy="Write six hex digits each: c03020>2060c0"
            )  # fmt: skip
        old, new = (_rgb(int(part, 16)) for part in found.groups())
        if out.setdefault(old, new) != new:
            raise FurnelError(
                _WHAT, where=word, why=f"{bytes(old).hex()} becomes another colour already", remedy="Leave one of them out"
            )  # fmt: skip
    return out


def changes_text(changes: Mapping[Rgb, Rgb]) -> str:
    """Colour changes as they are written."""
    return " ".join(f"{bytes(old).hex()}>{bytes(new).hex()}" for old, new in changes.items())


def parse_colours(text: str) -> tuple[Rgb, ...]:
    """Colours from six hex digits each. Raises FurnelError for what is none."""
    out = []
    for word in text.split():
        if not re.fullmatch("#?[0-9a-fA-F]{6}", word):
            raise FurnelError(
                "Reading colours", where=word, why="it is no colour", remedy="Write six hex digits: c03020"
            )
        out.append(_rgb(int(word.lstrip("#"), 16)))
    return tuple(out)


def recoloured(picture: Picture, changes: Mapping[Rgb, Rgb]) -> tuple[Picture, int]:
    """A picture with exactly these colours changed, all at once (two can change places), and how many pixels that were."""
    if not changes:
        return picture, 0
    out, codes = picture.pixels.copy(), codes_of(picture)
    old = np.array([_code(colour) for colour in changes], np.uint32)
    order = np.argsort(old)
    place = np.clip(np.searchsorted(old[order], codes), 0, len(old) - 1)
    found = old[order][place] == codes
    new = np.array([list(colour) for colour in changes.values()], np.uint8)[order]
    out[found, :3] = new[place[found]]
    return Picture(out), int(found.sum())


def snapped(
    picture: Picture, colours: Sequence[Rgb], within: int, key: Sequence[Rgb] = ()
) -> tuple[Picture, int]:
    """A picture whose colours that are nearer than `within` (per channel) to one of some are exactly that one, and how many
    pixels that changed. The `key` colours are left alone, and nothing becomes one of them."""
    codes = codes_of(picture)
    values, places = np.unique(codes, return_inverse=True)
    rgb = np.stack([values >> 16 & 255, values >> 8 & 255, values & 255], axis=1).astype(np.int64)
    wanted = np.array([colour for colour in colours if colour not in key], np.int64).reshape(-1, 3)
    if not len(wanted):
        return picture, 0
    new = rgb.copy()
    for start in range(0, len(rgb), 4096):
        part = rgb[start : start + 4096]
        apart = np.abs(part[:, None] - wanted[None]).max(axis=2)
        best = ((part[:, None] - wanted[None]) ** 2).sum(axis=2).argmin(axis=1)
        near = apart[np.arange(len(part)), best] <= within
        new[start : start + 4096][near] = wanted[best[near]]
    seen = picture.pixels[..., 3] > 0
    for colour in key:
        seen &= (picture.pixels[..., :3] != colour).any(axis=2)
    out = picture.pixels.copy()
    out[seen, :3] = new[places.reshape(codes.shape)[seen]].astype(np.uint8)
    return Picture(out), int((out != picture.pixels).any(axis=2).sum())


def _code(colour: Rgb) -> int:
    return colour[0] << 16 | colour[1] << 8 | colour[2]
