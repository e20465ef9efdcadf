"""Brightness, contrast and colour. Colours are turned and matched in Oklab (Björn Ottosson, 2020)."""

from __future__ import annotations

from typing import Any, Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.colour import LUMA, Floats, to_linear, to_srgb
from furnel.images.picture import Picture

Matching = Literal["mean and spread", "whole distribution"]
Greys = Literal["as seen", "even parts", "lightest", "darkest"]

_TO_CONES = np.array(
    [
        [0.4122214708, 0.5363325363, 0.0514459929],
        [0.2119034982, 0.6806995451, 0.1073969566],
        [0.0883024619, 0.2817188376, 0.6299787005],
    ],
    np.float32,
)
_TO_LAB = np.array(
    [
        [0.2104542553, 0.7936177850, -0.0040720468],
        [1.9779984951, -2.4285922050, 0.4505937099],
        [0.0259040371, 0.7827717662, -0.8086757660],
    ],
    np.float32,
)
_FROM_LAB, _FROM_CONES = (
    np.linalg.inv(_TO_LAB).astype(np.float32),
    np.linalg.inv(_TO_CONES).astype(np.float32),
)


def to_oklab(pixels: npt.NDArray[np.uint8]) -> Floats:
    """(…, 3 or 4) uint8 sRGB to (…, 3) float32: lightness 0 to 1, and two colour axes around 0."""
    cones = to_linear(pixels[..., :3]) @ _TO_CONES.T
    return np.asarray(np.cbrt(cones) @ _TO_LAB.T, np.float32)


def from_oklab(lab: Floats) -> npt.NDArray[np.uint8]:
    """The inverse of `to_oklab`; colours that sRGB does not have are cut."""
    cones = lab @ _FROM_LAB.T
    return to_srgb(np.asarray((cones * cones * cones) @ _FROM_CONES.T, np.float32))


def by_table(picture: Picture, tables: npt.NDArray[np.uint8]) -> Picture:
    """Every channel through its row of `tables` (3 or 4, 256)."""
    out = picture.pixels.copy()
    for channel, table in enumerate(tables):
        out[..., channel] = table[out[..., channel]]
    return Picture(out)


def with_contrast(picture: Picture, contrast: float, gamma: float) -> Picture:
    """`contrast` in percent around middle grey (100 doubles the slope, -100 is flat); `gamma` above 1 lightens the middle."""
    value = np.arange(256) / 255.0
    slope = 1 + contrast / 100
    value = np.clip(0.5 + (value - 0.5) * slope, 0.0, 1.0) ** (1 / gamma)
    return by_table(picture, np.repeat(np.round(value * 255).astype(np.uint8)[None], 3, axis=0))


def through_curve(picture: Picture, outputs: tuple[float, ...], channel: str) -> Picture:
    """A smooth tone curve without overshoot through equally spaced inputs; `channel` is `colours`, one of them, or `alpha`.

    The interpolation is Fritsch and Carlson's (1980).
    """
    from scipy.interpolate import PchipInterpolator

    inputs = np.linspace(0, 255, len(outputs))
    table = np.clip(np.round(PchipInterpolator(inputs, outputs)(np.arange(256))), 0, 255).astype(np.uint8)
    plain = np.arange(256, dtype=np.uint8)
    names = ("red", "green", "blue", "alpha")
    wanted = names[:3] if channel == "colours" else (channel,)
    return by_table(picture, np.stack([table if name in wanted else plain for name in names]))


def hue_turned(
    picture: Picture,
    degrees: float,
    saturation: float,
    lightness: float,
    around: float = 0.0,
    reach: float = 180.0,
) -> Picture:
    """Hue turned by `degrees`; `saturation` and `lightness` changed by percent.

    Only hues within `reach` degrees of `around` (Oklab's angle: red 29, yellow 110, green 142, blue 264) are changed,
    softly towards the border; greys are only changed when all hues are.
    """
    lab = to_oklab(picture.pixels)
    a, b = lab[..., 1], lab[..., 2]
    share: npt.NDArray[Any] | float = 1.0
    if reach < 180:
        away = np.abs((np.degrees(np.arctan2(b, a)) - around + 180) % 360 - 180)
        chroma = np.hypot(a, b)
        share = np.clip((reach - away) / max(reach * 0.25, 1e-3), 0, 1) * np.clip(chroma / 0.03, 0, 1)
    angle = np.radians(degrees) * share
    grow = 1 + saturation / 100 * share
    cosine, sine = np.cos(angle), np.sin(angle)
    turned = np.empty_like(lab)
    turned[..., 1] = (a * cosine - b * sine) * grow
    turned[..., 2] = (a * sine + b * cosine) * grow
    step = lightness / 100 * share
    turned[..., 0] = lab[..., 0] + np.where(
        np.asarray(step) > 0, (1 - lab[..., 0]) * step, lab[..., 0] * step
    )
    return _with_colours(picture, from_oklab(turned))


def matched(picture: Picture, original: Picture, how: Matching, amount: float) -> Picture:
    """A picture with the tones of another: its mean and spread in Oklab, or every channel's whole distribution.

    `amount` in percent. Clear pixels count by their alpha; alpha itself stays. The first is Reinhard and others' (2001).
    """
    weight, wanted = picture.pixels[..., 3].astype(np.float64), original.pixels[..., 3].astype(np.float64)
    if weight.sum() == 0 or wanted.sum() == 0:
        return picture
    if how == "whole distribution":
        tables = [
            _table_between(picture.pixels[..., c], weight, original.pixels[..., c], wanted) for c in range(3)
        ]
        done = by_table(picture, np.stack(tables)).pixels[..., :3]
    else:
        lab, aim = to_oklab(picture.pixels), to_oklab(original.pixels)
        for channel in range(3):
            mean, spread = _moments(lab[..., channel], weight)
            target, target_spread = _moments(aim[..., channel], wanted)
            grow = min(target_spread / max(spread, 1e-4), 4.0)
            lab[..., channel] = (lab[..., channel] - np.float32(mean)) * np.float32(grow) + np.float32(target)
        done = from_oklab(lab)
    if amount < 100:
        mixed = picture.pixels[..., :3] + (done.astype(np.float32) - picture.pixels[..., :3]) * np.float32(
            amount / 100
        )
        done = np.round(mixed).astype(np.uint8)
    return _with_colours(picture, done)


def replaced(
    picture: Picture,
    old: tuple[int, int, int],
    new: tuple[int, int, int],
    tolerance: float,
    softness: float,
    shading: bool,
) -> Picture:
    """One colour in place of another; those within `tolerance` (0 to 255 in the channel that is farthest), fading over
    `softness`. With `shading` darker and lighter ones stay so beside the new colour.
    """
    colours = picture.pixels[..., :3].astype(np.float32)
    away = colours - np.array(old, np.float32)
    if shading:
        away = away - (away @ LUMA)[..., None]  # lighter and darker ones of the hue count as the same
    distance = np.abs(away).max(axis=-1)
    share = (
        np.clip(1 - (distance - tolerance) / max(softness, 1e-6), 0, 1)[..., None]
        * (distance <= tolerance + softness)[..., None]
    )
    target = np.broadcast_to(np.array(new, np.float32), colours.shape)
    if shading:
        scale = (colours @ LUMA) / max(float(np.array(old, np.float32) @ LUMA), 1.0)
        target = np.clip(target * scale[..., None], 0, 255)
    return _with_colours(picture, np.round(colours + (target - colours) * share).astype(np.uint8))


def greyed(picture: Picture, how: Greys) -> Picture:
    """Red, green and blue made equal: by how light they are seen, in even parts, or by the lightest or darkest of them."""
    colours = picture.pixels[..., :3]
    if how == "as seen":
        grey = colours @ LUMA
    elif how == "even parts":
        grey = colours.mean(axis=-1, dtype=np.float32)
    else:
        grey = (colours.max(axis=-1) if how == "lightest" else colours.min(axis=-1)).astype(np.float32)
    return _with_colours(picture, np.repeat(np.round(grey).astype(np.uint8)[..., None], 3, axis=-1))


_NAMES = ("red", "green", "blue", "alpha", "grey")
CHANNEL_SOURCES = (*_NAMES, "0", "full", *(f"{channel} turned over" for channel in _NAMES))


def mixed(picture: Picture, sources: tuple[str, str, str, str], other: Picture | None = None) -> Picture:
    """A picture whose channels are taken from others: `red`, `grey turned over`, `0`, `full`, or `other's red` and so on."""
    out = np.empty_like(picture.pixels)
    for channel, source in enumerate(sources):
        origin = picture
        if source.startswith("other's "):
            if other is None or other.size != picture.size:
                raise FurnelError(
                    "Mixing channels",
                    why="the other picture is missing, or has another size",
                    remedy="Choose a file of the same size, or put this step after Bring to size",
                )
            origin, source = other, source.removeprefix("other's ")
        name, over = source.removesuffix(" turned over"), source.endswith(" turned over")
        if name in ("0", "full"):
            values = np.full(picture.pixels.shape[:2], 0 if name == "0" else 255, np.uint8)
        elif name == "grey":
            values = np.round(origin.pixels[..., :3] @ LUMA).astype(np.uint8)
        else:
            values = origin.pixels[..., ("red", "green", "blue", "alpha").index(name)]
        out[..., channel] = 255 - values if over else values
    return Picture(out)


def few_colours(picture: Picture, count: int, table: npt.NDArray[np.uint8] | None, dither: bool) -> Picture:
    """At most `count` colours: the best ones, or those of `table` (colours, 4). Clear and opaque pixels stay so."""
    from PIL import Image

    clear = picture.pixels[..., 3] < 128
    image = Image.fromarray(np.ascontiguousarray(picture.pixels[..., :3]))
    method = Image.Dither.FLOYDSTEINBERG if dither else Image.Dither.NONE
    if table is not None:
        seen = table[table[:, 3] >= 128][:256, :3]
        if len(seen):
            palette = Image.new("P", (1, 1))
            filled = np.concatenate([seen, np.repeat(seen[:1], 256 - len(seen), axis=0)])
            palette.putpalette(filled.tobytes())
            image = image.quantize(palette=palette, dither=method).convert("RGB")
    else:
        room = max(count - bool(clear.any()), 1)
        image = image.quantize(room, method=Image.Quantize.MEDIANCUT, dither=method).convert("RGB")
    out = np.empty_like(picture.pixels)
    out[..., :3] = np.asarray(image)
    out[..., 3] = 255
    out[clear] = 0
    return Picture(out)


def colours_of(picture: Picture, most: int = 256) -> npt.NDArray[np.uint8] | None:
    """The picture's colours (count, 4), the most used first; None when it has more than `most`."""
    packed = np.ascontiguousarray(picture.pixels).view(np.uint32).ravel()
    colours, counts = np.unique(packed, return_counts=True)
    if len(colours) > most:
        return None
    ordered = np.ascontiguousarray(colours[np.argsort(-counts, kind="stable")])
    return np.asarray(ordered.view(np.uint8).reshape(-1, 4), np.uint8)


def contrast(picture: Picture) -> float:
    """The standard deviation of the luma (Rec. 709 weights on sRGB values), alpha-weighted, 0 to 0.5."""
    weight = picture.pixels[..., 3].astype(np.float64)
    if weight.sum() == 0:
        return 0.0
    return float(_moments(picture.pixels[..., :3] @ LUMA / np.float32(255), weight)[1])


def _with_colours(picture: Picture, colours: npt.NDArray[np.uint8]) -> Picture:
    out = np.empty_like(picture.pixels)
    out[..., :3] = colours
    out[..., 3] = picture.pixels[..., 3]
    return Picture(out)


def _moments(values: Floats, weight: npt.NDArray[np.float64]) -> tuple[float, float]:
    """Weighted mean and standard deviation."""
    total = weight.sum()
    mean = float((values * weight).sum() / total)
    return mean, float(np.sqrt((((values - mean) ** 2) * weight).sum() / total))


def _table_between(
    values: npt.NDArray[np.uint8],
    weight: npt.NDArray[np.float64],
    aim: npt.NDArray[np.uint8],
    aim_weight: npt.NDArray[np.float64],
) -> npt.NDArray[np.uint8]:
    """The table that gives `values` the distribution of `aim`."""
    have = np.cumsum(np.bincount(values.ravel(), weight.ravel(), 256))
    want = np.cumsum(np.bincount(aim.ravel(), aim_weight.ravel(), 256))
    middle = (have - np.diff(have, prepend=0) / 2) / have[-1]
    table: npt.NDArray[np.uint8] = np.round(np.interp(middle, want / want[-1], np.arange(256))).astype(
        np.uint8
    )
    return table
