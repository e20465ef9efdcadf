"""Changing a picture's size in linear light, weighted by alpha, and making level chains."""

from __future__ import annotations

from typing import Literal

import numpy as np
import numpy.typing as npt
from PIL import Image

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

_PILLOW = {
    "nearest": Image.Resampling.NEAREST,
    "area": Image.Resampling.BOX,
    "bicubic": Image.Resampling.BICUBIC,
    "lanczos": Image.Resampling.LANCZOS,
}


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
    return Picture(
        from_premultiplied_light(_resize_light(premultiplied_light(picture.pixels), width, height, how))
    )


def level_chain(picture: Picture, count: int | None = None) -> list[Picture]:
    """The picture and its smaller levels, each the area average of the one before; `count` None is a full chain."""
    levels = [picture]
    wanted = full_levels(*picture.size) if count is None else count
    light: Floats | None = None
    for level in range(1, wanted):
        light = _halved(levels[-1], light, *level_size(*picture.size, level))
        levels.append(Picture(_bytes_of(light)))
    return levels


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
    bands = [
        np.asarray(
            Image.fromarray(np.ascontiguousarray(light[..., band])).resize((width, height), _PILLOW[how])
        )
        for band in range(light.shape[2])
    ]
    return np.stack(bands, axis=-1)
