"""Changing a picture's size in linear light, weighted by alpha, and making level chains."""

from __future__ import annotations

from typing import Literal

import numpy as np
from PIL import Image

from furnel.errors import FurnelError
from furnel.images.colour import Floats, from_premultiplied_light, premultiplied_light
from furnel.images.formats import full_levels, level_size
from furnel.images.picture import Picture, check_size

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
    light = premultiplied_light(picture.pixels) if wanted > 1 else None
    for level in range(1, wanted):
        assert light is not None
        light = _halve(light, *level_size(*picture.size, level))
        levels.append(Picture(from_premultiplied_light(light)))
    return levels


def looks_drawn_in_pixels(picture: Picture) -> bool:
    """Whether a picture is pixel art: small, with few colours for its size and hard alpha."""
    if picture.width * picture.height > 512 * 512:
        return False
    packed = picture.pixels.reshape(-1, 4).view(np.uint32)
    return len(np.unique(packed)) <= min(64, max(4, packed.size // 12))


def _halve(light: Floats, width: int, height: int) -> Floats:
    if light.shape[0] == height * 2 and light.shape[1] == width * 2:
        rows = light[0::2] + light[1::2]
        return np.asarray((rows[:, 0::2] + rows[:, 1::2]) * np.float32(0.25))
    return _resize_light(light, width, height, "area")


def _resize_light(light: Floats, width: int, height: int, how: Filter) -> Floats:
    bands = [
        np.asarray(
            Image.fromarray(np.ascontiguousarray(light[..., band])).resize((width, height), _PILLOW[how])
        )
        for band in range(light.shape[2])
    ]
    return np.stack(bands, axis=-1)
