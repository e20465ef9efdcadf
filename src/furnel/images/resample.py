"""Changing a picture's size in linear light, weighted by alpha, and making level chains."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt

from furnel.errors import FurnelError
from furnel.images.colour import (
    BYTE_OF_LINEAR,
    LINEAR_OF_BYTE,
    Floats,
    from_premultiplied_light,
    premultiplied_light,
)
from furnel.images.formats import full_levels, level_size
from furnel.images.picture import Picture, check_size
from furnel.parallel import over_rows

Filter = Literal["nearest", "area", "bicubic", "lanczos"]
FILTERS: tuple[Filter, ...] = ("nearest", "area", "bicubic", "lanczos")

_LARGE, _GAP = 1 << 20, 6  # pixels; times as large as it is to be

_PILLOW = {"nearest": "NEAREST", "area": "BOX", "bicubic": "BICUBIC", "lanczos": "LANCZOS"}


def resize(picture: Picture, width: int, height: int, how: Filter = "lanczos") -> Picture:
    """`picture` at another size in pixels. `nearest` keeps exact colours; the others average linear light."""
    check_size(width, height, "Resizing a picture")
    if how not in FILTERS:
        raise FurnelError(
            "Resizing a picture", why=f"there is no filter {how!r}", remedy=f"Use {', '.join(FILTERS)}"
        )
    if picture.size == (width, height):
        return picture
    if how == "nearest":
        down = (np.arange(height) * picture.height + picture.height // 2) // height
        across = (np.arange(width) * picture.width + picture.width // 2) // width
        return Picture(
            picture.pixels[np.minimum(down, picture.height - 1)][:, np.minimum(across, picture.width - 1)]
        )
    picture, light = _halved_often(picture, width, height)
    if light is None:
        light = premultiplied_light(picture.pixels)
    return Picture(from_premultiplied_light(_resize_light(light, width, height, how)))


def _halved_often(picture: Picture, width: int, height: int) -> tuple[Picture, Floats | None]:
    """A very large picture halved until it is only a few times as large as it is to be, with its light: what a filter makes of
    that cannot be told from what it makes of the whole, and takes a tenth of the time and the memory."""
    light: Floats | None = None
    while (
        picture.width * picture.height > _LARGE
        and picture.width >= _GAP * width and picture.height >= _GAP * height
        and not (picture.width | picture.height) & 1
    ):  # fmt: skip
        light = _halved(picture, light, picture.width // 2, picture.height // 2)
        picture = Picture(_bytes_of(light))
    return picture, light


LevelsAs = Literal["colour", "crisp", "values", "normals", "cut-out", "pixels"]
LEVELS_AS: tuple[LevelsAs, ...] = ("colour", "crisp", "values", "normals", "cut-out", "pixels")


def level_chain(
    picture: Picture, count: int | None = None, levels_as: LevelsAs = "colour", repeats: str = "no"
) -> list[Picture]:
    """The picture and its smaller levels; `count` None is a full chain. `levels_as` says what is made smaller:

    `colour` averages light weighted by alpha; `crisp` the same with a sharper filter, which looks beyond the edges of a
    picture that `repeats` (`across`, `down`, `both`) to its other side; `values` averages the numbers of every channel
    apart; `normals` averages directions and makes them one long again; `cut-out` keeps the share of pixels that are at
    least half opaque; `pixels` takes one of every four.
    """
    wanted = full_levels(*picture.size) if count is None else count
    if levels_as in ("colour", "cut-out"):
        levels = _light_chain(picture, wanted)
        return levels if levels_as == "colour" else _with_coverage(levels)
    levels = [picture]
    for level in range(1, wanted):
        size = level_size(*picture.size, level)
        above = levels[-1]
        if levels_as == "pixels":
            levels.append(resize(above, *size, "nearest"))
        elif levels_as == "crisp":
            levels.append(_crisp(above, *size, repeats))
        else:
            values = _resize_light(above.pixels.astype(np.float32), *size, "area")
            levels.append(Picture(_normalised(values) if levels_as == "normals" else _whole(values)))
    return levels


def shrunk(picture: Picture, side: int) -> Picture:
    """The picture, made smaller so that its longer side has at most `side` pixels."""
    longest = max(picture.size)
    if longest <= side:
        return picture
    width, height = (max(part * side // longest, 1) for part in picture.size)
    return resize(picture, width, height, "area")


def volume_chain(slices: list[Picture], count: int) -> list[list[Picture]]:
    """A volume's slices and its smaller levels: half as wide, high and deep each."""
    levels = [slices]
    for level in range(1, count):
        above = levels[-1]
        size = level_size(*slices[0].size, level)
        light = [_resize_light(premultiplied_light(part.pixels), *size, "area") for part in above]
        deep = max(len(above) // 2, 1)
        pairs = [
            light[place * len(above) // deep : (place + 1) * len(above) // deep] for place in range(deep)
        ]
        levels.append(
            [
                Picture(from_premultiplied_light(np.mean(np.stack(pair), axis=0, dtype=np.float32)))
                for pair in pairs
            ]
        )
    return levels


def _light_chain(picture: Picture, wanted: int) -> list[Picture]:
    levels = [picture]
    light: Floats | None = None
    for level in range(1, wanted):
        light = _halved(levels[-1], light, *level_size(*picture.size, level))
        levels.append(Picture(_bytes_of(light)))
    return levels


def _whole(values: Floats) -> npt.NDArray[np.uint8]:
    return np.clip(np.round(values), 0, 255).astype(np.uint8)


def _normalised(values: Floats) -> npt.NDArray[np.uint8]:
    """Directions (0..255 for -1..1) made one long; without a blue channel their third part is what is left."""
    x, y = values[..., 0] / 127.5 - 1, values[..., 1] / 127.5 - 1
    flat = values[..., 2].max() == 0
    z = np.sqrt(np.maximum(1 - x * x - y * y, 0)) if flat else values[..., 2] / 127.5 - 1
    length = np.maximum(np.sqrt(x * x + y * y + z * z), 1e-6)
    out = np.stack([x / length, y / length, z / length], axis=-1)
    pixels = _whole(values)
    pixels[..., :3] = np.clip(np.round((out + 1) * 127.5), 0, 255)
    if flat:
        pixels[..., 2] = 0
    return pixels


def _with_coverage(levels: list[Picture]) -> list[Picture]:
    """Alpha of the smaller levels scaled so that as much of each is opaque as of the first."""
    target = float((levels[0].pixels[..., 3] >= 128).mean())
    out = [levels[0]]
    for level in levels[1:]:
        alpha = np.sort(level.pixels[..., 3].ravel())[::-1]
        place = min(max(round(target * len(alpha)), 1), len(alpha)) - 1
        last, next_one = float(alpha[place]), float(alpha[place + 1]) if place + 1 < len(alpha) else 0.0
        scale = 1.0
        if target > 0 and last < 128:
            scale = 128 / max(last, 1.0)
        elif 128 <= next_one < last:
            scale = 127 / next_one
        pixels = level.pixels.copy()
        pixels[..., 3] = np.minimum(np.ceil(pixels[..., 3] * min(scale, 32.0) - 1e-4), 255)
        out.append(Picture(pixels))
    return out


def _crisp(above: Picture, width: int, height: int, repeats: str) -> Picture:
    """A level by Lanczos' filter, with what lies beyond the edges taken from the other side where the picture repeats."""
    down, across = (8 if repeats in wanted else 0 for wanted in (("down", "both"), ("across", "both")))
    if (above.width, above.height) != (2 * width, 2 * height):
        down = across = 0
    light = premultiplied_light(above.pixels)
    light = np.pad(light, ((down, down), (0, 0), (0, 0)), mode="wrap") if down else light
    light = np.pad(light, ((0, 0), (across, across), (0, 0)), mode="wrap") if across else light
    small = _resize_light(light, width + across, height + down, "lanczos")
    inner = small[down // 2 : down // 2 + height, across // 2 : across // 2 + width]
    return Picture(from_premultiplied_light(np.maximum(inner, 0)))


def looks_drawn_in_pixels(picture: Picture) -> bool:
    """Whether a picture is pixel art: small, with few colours for its size and hard alpha."""
    if picture.width * picture.height > 512 * 512:
        return False
    packed = picture.pixels.reshape(-1, 4).view(np.uint32)
    return len(np.unique(packed)) <= min(64, max(4, packed.size // 12))


def _halved(above: Picture, light: Floats | None, width: int, height: int) -> Floats:
    """The next level's light, from the level above: its `light`, or at the top of a chain its bytes."""
    from furnel.images import halving

    if (above.width, above.height) != (2 * width, 2 * height):
        return _resize_light(
            premultiplied_light(above.pixels) if light is None else light, width, height, "area"
        )
    out = np.empty((height, width, 4), np.float32)
    if light is None:
        pixels = np.require(above.pixels, requirements=["C", "W"])
        over_rows(lambda first, end: halving.halve_bytes(pixels, LINEAR_OF_BYTE, out, first, end), height)
    else:
        over_rows(lambda first, end: halving.halve_light(light, out, first, end), height)
    return out


def _bytes_of(light: Floats) -> npt.NDArray[np.uint8]:
    from furnel.images import halving

    out = np.empty(light.shape, np.uint8)
    over_rows(lambda first, end: halving.bytes_of(light, BYTE_OF_LINEAR, out, first, end), len(light))
    return out


def _resize_light(light: Floats, width: int, height: int, how: Filter) -> Floats:
    from PIL import Image

    way = Image.Resampling[_PILLOW[how]]
    bands = [
        np.asarray(Image.fromarray(np.ascontiguousarray(light[..., band])).resize((width, height), way))
        for band in range(light.shape[2])
    ]
    return np.stack(bands, axis=-1)
